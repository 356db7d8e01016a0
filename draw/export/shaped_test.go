package export

import (
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/tool"
	"brevium/plotter"
)

// trays are six trays with lids, for scissors or a machine.
func trays(t *testing.T, with, machine string) *design.Result {
	t.Helper()
	in, err := design.Read([]byte(`{"brevium":1,"units":"in","style":"tray-lid","copies":6,"size":{"length":"3 in","width":"3 in","height":"2 in"},"tools":{"with":"` + with + `"` + machine + `}}`))
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// comeOff cuts drawings and wants all pieces of a design to come off them, true.
func comeOff(t *testing.T, r *design.Result, all []Drawing, mat tool.Mat) {
	t.Helper()
	off := map[string]int{}
	for _, d := range all {
		f, err := plotter.ReadSVG(d.SVG(Layers{}))
		if err != nil {
			t.Fatal(err)
		}
		rep, err := plotter.Cut(f, plotter.Usual(mat, d.Card.Thickness.MM()), Wanted(r))
		if err != nil || !rep.AsPlanned() {
			t.Fatalf("%s: %v, %v", d.Name, rep, err)
		}
		for _, p := range rep.Free {
			off[p.Piece]++
		}
	}
	for _, p := range Wanted(r) {
		if off[p.Name] != p.Copies {
			t.Errorf("%d of %d %s come off", off[p.Name], p.Copies, p.Name)
		}
	}
}

// Blanks of trays are laid into one another: they take fewer sheets by shape, and every piece comes off the
// sheets that are drawn so, true.
func TestLaidByShapeComesOff(t *testing.T) {
	r := trays(t, "scissors", "")
	by, err := r.ByShape(t.Context(), 3)
	if err != nil || by.SheetCount() >= r.SheetCount() {
		t.Fatalf("%d sheets, the trimmer %d: %v", by.SheetCount(), r.SheetCount(), err)
	}
	comeOff(t, by, Packed(by), tool.OfSize(600, 600))
}

// A machine whose mat is smaller than the sheet takes it in parts: each lies on the mat, its margin is kept,
// and all pieces come off.
func TestSheetsGoOnTheMatInParts(t *testing.T) {
	r := trays(t, "machine", `,"machine":{"mat":"210x305","margin":"2 mm"}`)
	by, err := r.ByShape(t.Context(), 3)
	if err != nil {
		t.Fatal(err)
	}
	all := Packed(by)
	mat := tool.OfSize(210, 305)
	parts := 0
	for _, d := range all {
		if d.Width > mat.Width+0.01 || d.Height > mat.Height+0.01 {
			t.Errorf("%s is %g × %g", d.Name, d.Width, d.Height)
		}
		if strings.Contains(d.Name, "part 1 of 2") && strings.Contains(d.File, "-part-1") {
			parts++
		}
		for _, s := range d.Strokes(Layers{}) {
			for _, p := range s.Path.Open() {
				if min(p.X, p.Y) < 2-1e-6 || p.X > d.Width-2+1e-6 || p.Y > d.Height-2+1e-6 {
					t.Fatalf("%s: a stroke at %v, within the margin", d.Name, p)
				}
			}
		}
	}
	if parts == 0 {
		t.Error("no sheet is parted")
	}
	comeOff(t, by, all, mat)
}

// What goes on no mat is said, and what is cut of its card stays as the trimmer has it.
func TestWhatGoesOnNoMatIsSaid(t *testing.T) {
	r := trays(t, "machine", `,"machine":{"mat":"150x150"}`)
	said := 0
	for _, c := range r.Checks {
		if c.ID == "machine" && strings.Contains(c.Text, "150 × 150 mm") {
			said++
		}
	}
	by, err := r.ByShape(t.Context(), 1)
	if err != nil || said == 0 {
		t.Fatalf("%d are said, %v", said, err)
	}
	for _, s := range by.Stocks {
		for _, l := range s.Layout.Sheets {
			if l.ByShape {
				t.Error("a sheet is laid for the mat nevertheless")
			}
		}
	}
}
