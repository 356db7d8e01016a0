package export

import (
	"testing"

	"brevium/core/design"
	"brevium/core/tool"
	"brevium/plotter"
)

// Blanks of trays are laid into one another: they take fewer sheets by shape, and every
// piece comes off the sheets that are drawn so, true.
func TestLaidByShapeComesOff(t *testing.T) {
	in, err := design.Read([]byte(`{"brevium":1,"units":"in","style":"tray-lid","copies":6,"size":{"length":"3 in","width":"3 in","height":"2 in"}}`))
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	by, err := ByShape(t.Context(), r, 3)
	if err != nil || len(by.Drawings) > by.Trimmer || by.Trimmer != len(Packed(r)) {
		t.Fatalf("%d sheets, the trimmer %d: %v", len(by.Drawings), by.Trimmer, err)
	}
	off := map[string]int{}
	mat := tool.Mat{Name: "large", Width: 600, Height: 600}
	for _, d := range by.Drawings {
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
	if by.Saves() < 1 {
		t.Errorf("%d sheets instead of %d", len(by.Drawings), by.Trimmer)
	}
}
