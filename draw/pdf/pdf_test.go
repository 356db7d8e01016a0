package pdf

import (
	"bytes"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
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

func TestSheetAndTemplates(t *testing.T) {
	for _, paper := range []Paper{A4, Letter} {
		var small, large bytes.Buffer
		if err := Write(&small, result(t, "60"), Print{Paper: paper}); err != nil {
			t.Fatal(err)
		}
		if err := Write(&large, result(t, "200"), Print{Paper: paper}); err != nil {
			t.Fatal(err)
		}
		if !bytes.HasPrefix(small.Bytes(), []byte("%PDF-")) || pages(small.Bytes()) < 4 {
			t.Errorf("%s: %d pages", paper.Name, pages(small.Bytes()))
		}
		if pages(large.Bytes()) <= pages(small.Bytes()) {
			t.Errorf("%s: the longer box takes %d pages, the shorter %d", paper.Name, pages(large.Bytes()), pages(small.Bytes()))
		}
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
