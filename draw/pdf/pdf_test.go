package pdf

import (
	"bytes"
	"io"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
)

func result(t *testing.T, length string) *design.Result {
	t.Helper()
	in, err := design.Read(
		[]byte(
			`{"brevium":1,"name":"Fig sweets","units":"mm","style":"tray-lid","size":{"length":"` + length + `","width":"70","height":"40"},
	 "contents":null,"mats":[{"piece":"base","where":"walls","layers":[{"card":{"name":"Plum"},"border":2}]}],"options":{"lid.custom":"shim"}}`,
		),
	)
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// pages counts the page objects of a PDF.
func pages(text []byte) int { return bytes.Count(text, []byte("/Type /Page\n")) }

// A longer box takes more pages of templates, and no more of instructions.
func TestSheetAndTemplates(t *testing.T) {
	for _, paper := range []Paper{A4, Letter} {
		count := func(length string, what What) int {
			var out bytes.Buffer
			if err := Write(&out, result(t, length), Print{Paper: paper, What: what}); err != nil {
				t.Fatal(err)
			}
			return pages(out.Bytes())
		}
		if short, long := count("60", Templates), count("200", Templates); long <= short {
			t.Errorf("%s: the longer box takes %d pages of templates, the shorter %d", paper.Name, long, short)
		}
		if short, long := count("60", Instructions), count("200", Instructions); short != long {
			t.Errorf("%s: instructions for the longer box take %d pages, for the shorter %d", paper.Name, long, short)
		}
	}
}

// Every kind of box is told on few pages: base and lid on one, nothing over four, none too heavy
// to be sent.
func TestInstructionsAreShort(t *testing.T) {
	for _, s := range style.All {
		for _, paper := range []Paper{A4, Letter} {
			in := design.New("Winter fair", measure.In, s.ID)
			in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 900*measure.Millimetre, 900*measure.Millimetre, 900*measure.Millimetre
			r, err := design.Make(t.Context(), in)
			if err != nil {
				t.Fatal(err)
			}
			var out bytes.Buffer
			if err := Write(&out, r, Print{Paper: paper}); err != nil {
				t.Fatal(err)
			}
			most := 4
			if len(r.Steps) <= 15 {
				most = 1
			}
			if n := pages(out.Bytes()); n > most {
				t.Errorf("%s on %s: %d steps take %d pages", s.ID, paper.Name, len(r.Steps), n)
			}
			if out.Len() > 700_000 {
				t.Errorf("%s: the sheet has %d bytes", s.ID, out.Len())
			}
		}
	}
}

func BenchmarkInstructions(b *testing.B) {
	for _, s := range style.All {
		r, err := design.Make(b.Context(), design.New("Winter fair", measure.In, s.ID))
		if err != nil {
			continue // larger than a sheet
		}
		b.Run(s.ID, func(b *testing.B) {
			for b.Loop() {
				if err := Write(io.Discard, r, Print{Paper: A4}); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

func TestTilesCoverThePiece(t *testing.T) {
	for _, paper := range []Paper{A4, Letter} {
		tw, th := paper.tile()
		for w := 10.0; w < 400; w += 7 {
			across, down := paper.Tiles(w, w)
			covers := func(n int, tile float64) float64 { return float64(n)*(tile-overlap) + overlap }
			if covers(across, tw) < w-1e-9 || covers(down, th) < w-1e-9 {
				t.Errorf("%s: %d × %d tiles do not cover %v mm", paper.Name, across, down, w)
			}
			if across > 1 && covers(across-1, tw) >= w {
				t.Errorf("%s: a tile too many for %v mm", paper.Name, w)
			}
		}
	}
	if a, d := A4.Tiles(100, 100); a != 1 || d != 1 {
		t.Errorf("a small piece takes %d × %d tiles", a, d)
	}
}

func TestBothUnitsArePrinted(t *testing.T) {
	w := &writer{canvas: newCanvas(A4, "x"), r: result(t, "60")}
	if got := w.both(95 * measure.Millimetre); got != "95 mm (about 3 3/4 in)" {
		t.Errorf("95 mm is printed %q", got)
	}
}
