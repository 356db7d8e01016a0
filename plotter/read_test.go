package plotter_test

import (
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/strokes"
	"brevium/core/tool"
	"brevium/draw/export"
	"brevium/plotter"
)

const aSquare = "IN;PA;SP4;VS10;FS240;PU400,400;PD800,400;PD800,800;PD400,800;PD400,400;PU;PU0,0;SP0;"

// What is no whole, known, unambiguous file is refused with its code, where it is and what to do.
func TestHPGLIsRefused(t *testing.T) {
	for text, code := range map[string]fault.Code{
		"":                                    fault.NotHPGL,
		"%PDF-1.7":                            fault.NotHPGL,
		"<svg/>":                              fault.NotHPGL,
		"PU0,0;PD1,1;":                        fault.NoStart,
		"IN;PU0,0;PD1,1;":                     fault.NoTool,
		"IN;SP9;":                             fault.UnknownTool,
		"IN;SP4;PD400;":                       fault.OddNumbers,
		"IN;SP4;PD4x0,3;":                     fault.OddNumbers,
		"IN;SP4;PDnan,inf;":                   fault.OddNumbers,
		"IN;SP4;AA10,10;":                     fault.OddNumbers,
		"IN;SP4;AA10,10,900;":                 fault.OddNumbers,
		"IN;VS0;":                             fault.OddNumbers,
		"IN;SP4;CI40;":                        fault.UnknownCommand,
		aSquare[:len(aSquare)-20]:             fault.CutShort,
		strings.Replace(aSquare, "40", "", 1): "",
	} {
		_, err := plotter.ReadHPGL([]byte(text), 304.8, 304.8, 0.25)
		if code == "" {
			continue
		}
		if err == nil {
			t.Errorf("%q is taken", text)
		} else if f := fault.Of(err); f.Code != code || !strings.HasPrefix(f.Error(), string(code)) || strings.Contains(f.Error(), "\n") {
			t.Errorf("%q: %v; want %s", text, err, code)
		}
	}
}

func svg(layer, inside string) string {
	return `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80"><g id="` + layer + `">` + inside + `</g></svg>`
}

func TestSVGIsRefused(t *testing.T) {
	for text, code := range map[string]fault.Code{
		"":                                  fault.NotDrawn,
		"IN;":                               fault.NotDrawn,
		svg("cut", `<path d="M10 10L20 10`): fault.CutShort,
		svg("crease", `<path d="M10 10L20 10"/>`):                       fault.UnknownTool,
		svg("", `<path d="M10 10L20 10"/>`):                             fault.NoTool,
		svg("cut", `<path d="M10 10C20 10 30 10 40 10"/>`):              fault.UnknownCommand,
		svg("cut", `<path d="M10 10l20 10"/>`):                          fault.UnknownCommand,
		svg("cut", `<path d="L20 10"/>`):                                fault.UnknownCommand,
		svg("cut", `<path d="Z"/>`):                                     fault.UnknownCommand,
		svg("cut", `<path d="M10 10A5 6 0 0 1 20 10"/>`):                fault.UnknownCommand,
		svg("cut", `<path d="M10 10L20"/>`):                             fault.OddNumbers,
		svg("cut", `<rect width="10" height="10"/>`):                    fault.UnknownCommand,
		svg("cut", `<path transform="scale(2)" d="M1 1"/>`):             fault.UnknownCommand,
		strings.Replace(svg("cut", ""), "0 0 100 80", "0 0 200 160", 1): fault.NotDrawn,
		strings.Replace(svg("cut", ""), "100mm", "100px", 1):            fault.NotDrawn,
	} {
		_, err := plotter.ReadSVG([]byte(text))
		if err == nil || fault.Of(err).Code != code {
			t.Errorf("%s: %v; want %s", text, err, code)
		}
	}
}

// What leaves the mat is refused at its point, with the mat that would do; a sheet that is too large
// likewise.
func TestTheMatEnds(t *testing.T) {
	small, err := tool.ParseMat("A4")
	if err != nil {
		t.Fatal(err)
	}
	f, err := plotter.ReadHPGL([]byte(strings.ReplaceAll(aSquare, "800", "9600")), 200, 250, 0.25)
	if err != nil {
		t.Fatal(err)
	}
	_, err = plotter.Cut(f, plotter.Usual(small, 0.3), nil)
	if err == nil || fault.Of(err).Code != fault.OffMat || !strings.Contains(err.Error(), "12x12 would do") && !strings.Contains(err.Error(), "a3 would do") {
		t.Errorf("%v", err)
	}
	f.Width = 250
	if _, err = plotter.Cut(f, plotter.Usual(small, 0.3), nil); err == nil || fault.Of(err).Code != fault.SheetTooLarge {
		t.Errorf("%v", err)
	}
	if _, err := tool.ParseMat("a0"); err == nil {
		t.Error("a mat that is none")
	}
}

// Reading and writing HPGL moves no corner by more than half a unit each way.
func TestHPGLKeepsItsPlaces(t *testing.T) {
	d := export.Drawing{Width: 100, Height: 80, Cuts: []pattern.Loop{{{Point: pattern.Pt(10.013, 10.007)}, {Point: pattern.Pt(50.511, 10.007), Bulge: 0.3}, {Point: pattern.Pt(50.511, 40.219)}, {Point: pattern.Pt(10.013, 40.219)}}}}
	f, err := plotter.ReadHPGL(d.HPGL(export.Layers{}, export.Knife{}, paper.Card{}), 100, 80, 0.25)
	if err != nil || len(f.Lines) != 1 || len(f.Lines[0].Path) != 4 || !f.Lines[0].Closed || f.Head {
		t.Fatalf("%+v, %v", f, err)
	}
	for _, want := range d.Cuts[0] {
		near := 1.0
		for _, v := range f.Lines[0].Path {
			if far := v.Sub(want.Point).Len(); far < near {
				near = far
				if want.Bulge != 0 && (v.Bulge < 0.29 || v.Bulge > 0.31) {
					t.Errorf("the arc bends by %g", v.Bulge)
				}
			}
		}
		if near > 0.018 {
			t.Errorf("%v moved by %g", want, near)
		}
	}
	// With the blade, it is the head's way that is written, and it says so.
	if f, err = plotter.ReadHPGL(d.HPGL(export.Layers{}, export.Knife{Behind: 0.25}, paper.Card{}), 100, 80, 0.25); err != nil || !f.Head {
		t.Errorf("%+v, %v", f, err)
	}
}

// A piece by itself, its edge the sheet's and its size no whole number of units, is cut as it is; what
// lies before the mat's edges is refused.
func TestAPieceByItself(t *testing.T) {
	mat, err := tool.ParseMat("a4")
	if err != nil {
		t.Fatal(err)
	}
	for _, size := range [][2]float64{{100.01, 80.013}, {127.3375, 101.9875}, {50.8, 25.39}} {
		outline := pattern.Straight(pattern.Pt(0, 0), pattern.Pt(size[0], 0), pattern.Pt(size[0], size[1]), pattern.Pt(0, size[1]))
		d := export.Drawing{Width: size[0], Height: size[1], Cuts: []pattern.Loop{outline}}
		want := []strokes.Piece{{Name: "tag", Copies: 1, Outline: outline.Flat()}}
		for _, knife := range []export.Knife{{}, export.Usual} {
			f, err := plotter.ReadHPGL(d.HPGL(export.Layers{}, knife, paper.Card{Thickness: 300 * measure.Micrometre}), size[0], size[1], 0.25)
			if err != nil {
				t.Fatal(err)
			}
			if r, err := plotter.Cut(f, plotter.Usual(mat, 0.3), want); err != nil || !r.AsPlanned() {
				t.Errorf("%v by %+v: %v, %v", size, knife, r, err)
			}
		}
	}
	f, err := plotter.ReadHPGL([]byte(strings.ReplaceAll(aSquare, "400", "-400")), 200, 250, 0.25)
	if err != nil {
		t.Fatal(err)
	}
	if _, err = plotter.Cut(f, plotter.Usual(mat, 0.3), nil); err == nil || fault.Of(err).Code != fault.OffMat || !strings.Contains(err.Error(), "move the drawing") {
		t.Errorf("%v", err)
	}
}

func FuzzReadHPGL(f *testing.F) {
	f.Add([]byte(aSquare))
	f.Add([]byte("IN;SP1;PR;PD1,1,2,2;PU;PA;AA0,0,-90;PD0,0;"))
	f.Fuzz(func(t *testing.T, text []byte) {
		file, err := plotter.ReadHPGL(text, 304.8, 304.8, 0.25)
		tried(t, file, err)
	})
}

func FuzzReadSVG(f *testing.F) {
	f.Add([]byte(svg("cut", `<path d="M10 10H30V30L10 30ZM15 15A3 3 0 1 1 21 15A3 3 0 1 1 15 15"/>`)))
	f.Add([]byte(svg("score", `<path d="M1e1,10 20-10"/>`)))
	f.Fuzz(func(t *testing.T, text []byte) {
		file, err := plotter.ReadSVG(text)
		tried(t, file, err)
	})
}

// tried cuts whatever could be read, of what fits on a mat: refused or reported, never worse.
func tried(t *testing.T, file *plotter.File, err error) {
	if err != nil {
		if f := fault.Of(err); f.Code == fault.Internal || f.Text == "" {
			t.Errorf("%v is no sentence for people", err)
		}
		return
	}
	mat, _ := tool.ParseMat("a4")
	if r, err := plotter.Cut(file, plotter.Usual(mat, 0.3), nil); err == nil {
		if _, err := plotter.JSON([]*plotter.Report{r}); err != nil {
			t.Error(err)
		}
	}
}
