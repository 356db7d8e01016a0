package export

import (
	"bytes"
	"fmt"
	"image/png"
	"os"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/marked"
	"brevium/core/pattern"
	"brevium/core/strokes"
	"brevium/core/tool"
	"brevium/draw/pdf"
	"brevium/plotter"
)

// printed has three round labels with words and papers with a print.
func printed(t *testing.T) *design.Result {
	t.Helper()
	in, err := design.Read([]byte(`{"brevium":1,"units":"mm","style":"tray-lid","copies":2,"size":{"length":100,"width":80,"height":40},
		"labels":[{"name":"Round","shape":"circle","width":50,"height":50,"copies":3,"text":"Winter fair","piece":"lid","face":"top","layers":[{"card":{"name":"Snow card"},"border":0}]}],
		"mats":[{"piece":"lid","faces":["top"],"layers":[{"card":{"name":"Tartan paper","gsm":120},"border":3}]}]}`))
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// Labels and printed papers are printed on a page with marks; the page lies askew on the mat, is found,
// and cut: every piece comes off true. Nothing but the marks is near them.
func TestPrintedAndCut(t *testing.T) {
	r := printed(t)
	pages, tooLarge, err := marked.Pages(r, pdf.A4.Width, pdf.A4.Height, pdf.Marks)
	if err != nil || len(pages) == 0 || len(tooLarge) > 0 {
		t.Fatalf("%d pages, %v, %v", len(pages), tooLarge, err)
	}
	labels, papers := 0, 0
	for _, p := range pages {
		for _, i := range p.Items {
			if i.Label >= 0 {
				labels++
			} else {
				papers++
			}
			for _, l := range i.Placed() {
				for _, q := range l.Flat() {
					for _, m := range p.Marks {
						if q.Sub(m).Len() < 10-1e-6 {
							t.Errorf("%s is %g mm from a mark", i.Name, q.Sub(m).Len())
						}
					}
				}
			}
		}
	}
	if labels != 6 || papers != 2 {
		t.Errorf("%d labels and %d papers", labels, papers)
	}
	drawings, err := Marked(r, pdf.A4)
	if err != nil || len(drawings) != len(pages) {
		t.Fatal(err)
	}
	mat, err := tool.ParseMat("a3")
	if err != nil {
		t.Fatal(err)
	}
	for n, d := range drawings {
		f, err := plotter.ReadSVG(d.SVG(Layers{}))
		if err != nil || len(f.Marks) != pdf.Marks {
			t.Fatalf("%d marks, %v", len(f.Marks), err)
		}
		// The page lies in from the mat's edges, so that shifted and turned it stays on it.
		for i := range f.Lines {
			for k := range f.Lines[i].Path {
				f.Lines[i].Path[k].Point = f.Lines[i].Path[k].Add(pattern.Pt(20, 20))
			}
		}
		for i := range f.Marks {
			f.Marks[i] = f.Marks[i].Add(pattern.Pt(20, 20))
		}
		f.Width, f.Height = f.Width+40, f.Height+40
		want := wantedOf(pages[n : n+1])
		for i := range want {
			for k := range want[i].Outline {
				want[i].Outline[k] = want[i].Outline[k].Add(pattern.Pt(20, 20))
			}
		}
		for seed := range int64(8) {
			o := plotter.Usual(mat, 0.2)
			o.Seed, o.Marks = seed, pdf.Marks
			rep, err := plotter.Cut(f, o, want)
			if err != nil || !rep.AsPlanned() || len(rep.Missing) > 0 || rep.Marks.Found != pdf.Marks {
				t.Errorf("page %d, seed %d: %v, %v", n+1, seed, rep, err)
			}
		}
	}
}

// The printed page has its marks where the file to cut has them, drawn by another program.
func TestMarksArePrinted(t *testing.T) {
	r := printed(t)
	var out bytes.Buffer
	if err := pdf.Write(&out, r, pdf.Print{Paper: pdf.A4, What: pdf.Marked}); err != nil {
		t.Fatal(err)
	}
	path := saved(t, "marked.pdf", out.Bytes())
	other(t, "pdftoppm", "-r", "127", "-png", "-singlefile", path, strings.TrimSuffix(path, ".pdf")) // 5 dots a mm
	file, err := os.Open(strings.TrimSuffix(path, ".pdf") + ".png")
	if err != nil {
		t.Fatal(err)
	}
	defer file.Close()
	picture, err := png.Decode(file)
	if err != nil {
		t.Fatal(err)
	}
	dark := func(x, y float64) bool {
		red, _, _, _ := picture.At(int(x*5), int(y*5)).RGBA()
		return red < 0x4000
	}
	for _, m := range marked.Marks(pdf.A4.Width, pdf.A4.Height, 4) {
		for _, off := range []pattern.Point{{}, pattern.Pt(2, 0), pattern.Pt(-2, 0), pattern.Pt(0, 2), pattern.Pt(0, -2)} {
			if at := m.Add(off); !dark(at.X, at.Y) {
				t.Errorf("at %v nothing is printed", at)
			}
		}
		for _, off := range []pattern.Point{pattern.Pt(3, 0), pattern.Pt(-3, 0), pattern.Pt(0, 3), pattern.Pt(0, -3), pattern.Pt(6, 6)} {
			if at := m.Add(off); dark(at.X, at.Y) {
				t.Errorf("at %v something is printed", at)
			}
		}
	}
}

// wantedOf is what should come off printed pages.
func wantedOf(pages []marked.Page) []strokes.Piece {
	var out []strokes.Piece
	for n, p := range pages {
		for k, i := range p.Items {
			loops := i.Placed()
			name := fmt.Sprintf("%d.%d %s", n+1, k+1, i.Name)
			if i.Label >= 0 {
				one := strokes.Piece{Name: name, Copies: 1, Outline: loops[0].Flat()}
				for _, h := range loops[1:] {
					one.Holes = append(one.Holes, h.Flat())
				}
				out = append(out, one)
				continue
			}
			for j, l := range loops {
				out = append(out, strokes.Piece{Name: fmt.Sprintf("%s (%d)", name, j+1), Copies: 1, Outline: l.Flat()})
			}
		}
	}
	return out
}
