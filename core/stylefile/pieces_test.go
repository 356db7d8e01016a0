package stylefile

import (
	"math"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// A box and its lid are filled in from an empty sheet: two pieces, an allowance, and what
// goes over what; the gap follows from them.
func TestTwoPiecesFromNothing(t *testing.T) {
	x := fill(t)
	x.AddPiece()
	if x.Picked() != 1 || len(x.Names()) != 2 {
		t.Fatalf("after one more piece it is at %d of %v", x.Picked(), x.Names())
	}
	x.SetStance(Stance{Name: "Lid", Stands: "H - 3/4 in", Lifts: "H"})
	x.AddColumn(true)
	x.AddColumn(false)
	x.AddRow(true)
	x.AddRow(false)
	x.SetAllow("a", "1/8 in")
	for i, f := range []string{"3/4 in", "L + a", "3/4 in"} {
		x.SetColumn(i, f)
	}
	for i, f := range []string{"3/4 in", "W + a", "3/4 in"} {
		x.SetRow(i, f)
	}
	x.Name(0, 1, "back")
	x.Name(1, 0, "left")
	x.Name(1, 2, "right")
	x.Name(2, 1, "front")
	x.AddOver()
	if o := x.Overs(); len(o) != 1 || o[0].OuterSpan != "L + a" || o[0].Outer != x.IDs()[1] {
		t.Fatalf("over it goes %+v", o)
	}
	o := x.Overs()[0]
	o.OuterDepth, o.InnerDepth = "3/4 in", "H"
	x.SetOver(0, o)
	own, err := Read(x.Text())
	if err != nil {
		t.Fatalf("%v\n%s", err, x.Text())
	}
	spec := own.Usual(measure.In.Tick(), 300*measure.Micrometre)
	spec.Lengths["lid.allowance"] = measure.Inch / 8
	box, err := own.Make(spec)
	if err != nil {
		t.Fatal(err)
	}
	if len(box.Parts) != 2 || len(box.Fits) != 1 || box.Fits[0].OuterSpan-box.Fits[0].InnerSpan != measure.Inch/8 || box.Parts[1].Name != "Lid" {
		t.Errorf("%d pieces, %+v", len(box.Parts), box.Fits)
	}
	// Taken away again, nothing is said of it.
	x.RemovePiece()
	if strings.Contains(string(x.Text()), "piece-2") || x.Picked() != 0 || len(x.Overs()) != 0 {
		t.Errorf("the lid is away, but %s", x.Text())
	}
	x.RemovePiece()
	x.Pick(7)
	if len(x.Names()) != 1 || x.Picked() != 0 {
		t.Errorf("one piece is left: %v", x.Names())
	}
}

// By hand: a face is parted from corner to corner, one half once more from its corner; the
// halves are folded on one another, and meet the walls that they lie at.
func TestAFaceIsDivided(t *testing.T) {
	x := fill(t)
	if got := x.Points("back"); len(got) != 8 || got[0] != "top left" || x.Points("nobody") != nil {
		t.Errorf("it can be parted between %v", got)
	}
	for _, no := range [][2]string{{"top left", "top left"}, {"top left", "top right"}, {"top left", "nowhere"}, {"top left", "middle of the top"}} {
		if x.Divide("back", no[0], no[1]) {
			t.Errorf("a line from %s to %s parts it", no[0], no[1])
		}
	}
	if !x.Divide("back", "bottom right", "top left") {
		t.Fatal("a diagonal does not part it")
	}
	edge := func(a, b string) bool {
		return slices.ContainsFunc(x.Edges(), func(e Edge) bool { return e.A == a && e.B == b || e.A == b && e.B == a })
	}
	// The part of the top right meets the right ear, that of the bottom left the left ear
	// and the base.
	if !edge("back.a", "back.b") || !edge("back.a", "back.right") || edge("back.a", "base") || !edge("back.b", "base") || !edge("back.b", "back.left") || edge("back.b", "back.right") {
		t.Errorf("they meet so: %v", x.Edges())
	}
	x.RenamePart("back.a", "Gusset")
	if got := x.Parts("back"); !slices.Equal(got, []string{"gusset", "back.b"}) || !edge("gusset", "back.right") {
		t.Errorf("its parts are %v", got)
	}
	x.SetEdge("gusset", "back.b", "fold", "0")
	if _, err := Read(x.Text()); err != nil {
		t.Errorf("%v", err)
	}
	if p := patternOf(t, "divided", x); len(p.Creases) != 9 { // the tray's eight and the line between them
		t.Errorf("it has %d creases", len(p.Creases))
	}
	if !x.Divide("base", "middle of the top", "middle of the bottom") || x.Points("base.a")[0] != "corner 1" || !x.Divide("base.a", "corner 1", "corner 3") {
		t.Error("a half is not parted once more")
	}
	if got := x.Parts("base"); len(got) != 3 {
		t.Errorf("the base's parts are %v", got)
	}
	x.Whole("base")
	x.Whole("back")
	if len(x.Divided()) != 0 || strings.Contains(string(x.Text()), "gusset") {
		t.Errorf("whole again: %s", x.Text())
	}
}

// Corners, notches and holes are cut, and gone again.
func TestShapesAreCut(t *testing.T) {
	x := NewTable()
	x.AddRow(true)
	x.Name(0, 0, "flap")
	x.SetRole("flap", "flap")
	x.SetRow(0, "3/4 in")
	x.SetRounded("flap", Round{Radius: "1/4 in"})
	x.SetRounded("nobody", Round{Radius: "1/4 in"})
	x.AddBite(true)
	x.AddBite(false)
	bites := x.Bites()
	if bites[0].Face != "base" || bites[0].Y != "1" { // the last row
		t.Errorf("a notch is put into %+v", bites[0])
	}
	if len(bites) != 2 || bites[0].Hole || !bites[1].Hole || bites[1].Radius != "1/8 in" {
		t.Fatalf("%+v", bites)
	}
	bites[0].Face, bites[0].Y = "flap", "0"
	x.SetBites(bites)
	p := patternOf(t, "cut", x)
	arcs := 0
	for _, s := range p.Outline {
		if s.Bulge != 0 {
			arcs++
		}
	}
	if len(p.Holes) != 1 || arcs != 3 { // two corners and a notch
		t.Errorf("%d holes, %d arcs", len(p.Holes), arcs)
	}
	bites[0].Radius, bites[1].Radius = "", " "
	x.SetBites(bites)
	// By hand: an arc over 4 in that rises by 1/2 in has the bulge 2 · 1/2 / 4.
	x.SetRounded("flap", Round{Radius: "1/4 in", Rise: "1/2 in"})
	p = patternOf(t, "arched", x)
	if i := slices.IndexFunc(p.Outline, func(v pattern.Vertex) bool { return v.Bulge != 0 }); i < 0 || math.Abs(math.Abs(p.Outline[i].Bulge)-0.25) > 1e-9 {
		t.Errorf("its outline is %v", p.Outline)
	}
	x.SetRounded("flap", Round{})
	if len(x.Bites()) != 0 || x.Rounded("flap") != (Round{}) {
		t.Errorf("%+v, cut %+v", x.Bites(), x.Rounded("flap"))
	}
}
