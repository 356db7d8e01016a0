package stylefile

import (
	"bytes"
	"math"
	"slices"
	"strconv"
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
		if x.Divide("back", no[0], no[1], "") == nil {
			t.Errorf("a line from %s to %s parts it", no[0], no[1])
		}
	}
	if x.Divide("back", "bottom right", "top left", "") != nil {
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
	x.RenamePart("back", 0, "Gusset")
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
	if x.Divide("base", "middle of the top", "middle of the bottom", "") != nil || x.Points("base.a")[0] != "corner 1" || x.Divide("base.a", "corner 1", "corner 3", "") != nil {
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

// By hand: the tray's front wall is 4 in wide and 1 in high. A dip of 1/2 in is a segment
// of a circle; an arc over the base from corner to corner cuts it apart into what hangs at
// the back and the right, and what hangs at the front and the left.
func TestAFaceIsPartedByAnArc(t *testing.T) {
	x := fill(t)
	if x.Divide("front", "bottom left", "bottom right", "") == nil || x.Divide("front", "bottom left", "bottom right", "H/2") != nil {
		t.Fatal("an arc from corner to corner of its edge does not part the front")
	}
	// Its lower left corner lies 1 in from the left and 5 in down, H + W + H.
	if at := fill(t).Spots("front"); len(at) != 8 || at[6] != pattern.Pt(25.4, 127) || at[1].Sub(pattern.Pt(76.2, 101.6)).Len() > 1e-9 || fill(t).Spots("nobody") != nil {
		t.Errorf("its points lie at %v", at)
	}
	if at := x.Spots("front.b"); len(at) != 4 || at[3] != pattern.Pt(127, 127) {
		t.Errorf("those of a part lie at %v", at)
	}
	x.RenamePart("front", 0, "")
	if got := x.Parts("front"); got[0] != "." || slices.Contains(x.Faces(), ".") {
		t.Errorf("its parts are %v, the faces %v", got, x.Faces())
	}
	p, whole := patternOf(t, "dipped", x), patternOf(t, "whole", fill(t))
	w, h := 0.0, 12.7
	for _, v := range p.Outline {
		if v.Bulge != 0 {
			w = 2 * h / math.Abs(v.Bulge)
		}
	}
	r := (w*w/4 + h*h) / 2 / h
	half := math.Asin(w / 2 / r)
	if segment := r*r*half - w/2*(r-h); w == 0 || math.Abs(whole.Area()-p.Area()-segment) > 1 {
		t.Errorf("the dip takes %.1f mm², the segment of a circle is %.1f", whole.Area()-p.Area(), segment)
	}
	if len(x.piece().Tabs) != 4 {
		t.Errorf("its tabs are shaped no more: %v", x.piece().Tabs)
	}
	if n := len(x.piece().Glue); n != len(fill(t).piece().Glue) {
		t.Errorf("%d are glued of %d", n, len(fill(t).piece().Glue))
	}
	// What is glued onto a wall goes to the part on its side, what is said of a tab to both
	// its parts, and back.
	y := fill(t)
	y.piece().Called = map[string]string{"left": "left end wall"}
	y.SetEdge("left", "base", "hinge", "90")
	y.Divide("left", "middle of the left", "middle of the right", "")
	y.Divide("back.right", "middle of the top", "middle of the bottom", "")
	if y.Goes("back.left").Onto != "left.b" || y.Goes("front.left").Onto != "left.a" || y.Goes("back.right.a").Onto != "right" || y.Role("back.right.b") != "tab" || y.piece().Called["left.b"] != "left end wall b" {
		t.Errorf("%s", y.Text())
	}
	if i := slices.IndexFunc(y.Edges(), func(e Edge) bool { return e.A == "left.b" && e.B == "base" }); i < 0 || y.Edges()[i].Is != "hinge" {
		t.Errorf("the parts are hinged no more: %v", y.Edges())
	}
	y.RenamePart("left", 0, "")
	if y.Goes("front.left").Onto != "left.b" || y.piece().Called["left.b"] != "left end wall" {
		t.Errorf("one part is left: %s", y.Text())
	}
	y.Whole("left")
	y.Whole("back.right")
	if y.Goes("back.left").Onto != "left" || y.Goes("back.right").Onto != "right" || y.piece().Called["left"] != "left end wall" || len(y.piece().Folds) != 1 {
		t.Errorf("whole again: %s", y.Text())
	}
	x.RenamePart("front", 0, "Dip") // kept: cut apart it would fall off
	if _, err := Read(x.Text()); err == nil || !strings.Contains(err.Error(), "hangs on nothing") {
		t.Errorf("what is cut all round: %v", err)
	}
	x.Whole("front")
	if x.Divide("base", "middle of the top", "middle of the right", "1/2 in") != nil {
		t.Fatal("an arc does not part the base")
	}
	edges := x.Edges()
	i := slices.IndexFunc(edges, func(e Edge) bool { return e.Arc })
	if i < 0 || edges[i].Is != "slit" {
		t.Fatalf("no edge is an arc: %v", edges)
	}
	x.SetEdge(edges[i].A, edges[i].B, "fold", "90")
	p = patternOf(t, "parted", x)
	if len(p.Slits) != 1 || p.Slits[0].Bulge == 0 { // the tabs' wedges open the corners
		t.Errorf("its slits are %v", p.Slits)
	}
	for _, v := range p.Outline {
		if v.Bulge != 0 {
			t.Errorf("a slit is no part of the outline: %v", v)
		}
	}
	// Parted once more, the arc stays with the part that has it.
	parted := x.Divide("base.b", "corner 2", "corner 4", "")
	x.SetEdge("base.b.a", "base.b.b", "fold", "0")
	if parted != nil || len(patternOf(t, "parted twice", x).Slits) != 1 {
		t.Errorf("the base is parted into %v of %s", x.Parts("base"), x.Text())
	}
	for _, bad := range []string{"100 in", "L/0", "what"} {
		y := fill(t)
		y.Divide("base", "middle of the top", "middle of the right", bad)
		if _, err := Read(y.Text()); err == nil {
			t.Errorf("an arc that rises by %s is taken", bad)
		}
	}
}

// A fold along an arc bends both its sides, and every ring of it closes: at either end of a
// face and at its middle, from above and from the side, bent one way or the other, shallow
// and deep. What it cannot be is said.
func TestAFoldAlongAnArc(t *testing.T) {
	lens := NewTable()
	lens.SetRow(0, "60 mm")
	for _, c := range []struct{ from, to, rise, degrees string }{
		{"bottom left", "bottom right", "L/20", "120"}, {"top left", "top right", "L/20", "90"}, {"middle of the left", "middle of the right", "L/16", "90"},
		{"middle of the right", "middle of the left", "-L/16", "30"}, {"middle of the top", "middle of the bottom", "5 mm", "90"}, {"top left", "bottom left", "-(5 mm)", "100"}, {"top right", "bottom right", "5 mm", "60"},
	} {
		x, _ := ReadTable(lens.Text())
		if err := x.Curve("base", c.from, c.to, c.rise, c.degrees); err != nil {
			t.Fatalf("%v: %v", c, err)
		}
		p := patternOf(t, "curved", x)
		folded, err := p.Finished("base.a3")
		if err != nil || folded.Residual > 1e-4 { // corners are whole nanometres
			t.Errorf("%v: its rings close to %v, %v", c, folded.Residual, err)
		}
		// In the middle it is folded by about the degrees, as between the two middle strips.
		want, _ := strconv.ParseFloat(c.degrees, 64)
		i := slices.IndexFunc(p.Creases, func(k pattern.Crease) bool { return !k.Rolled && math.Abs(k.Angle-want) < 3 })
		if rolls := len(slices.DeleteFunc(slices.Clone(p.Creases), func(k pattern.Crease) bool { return !k.Rolled })); i < 0 || rolls != 2*strips-2 {
			t.Errorf("%v: %d rolls, folded %+v", c, rolls, p.Creases)
		}
		again, err := ReadTable(x.Text())
		if err != nil {
			t.Fatal(err)
		}
		for _, e := range again.Edges() { // as a page posts all of it back
			again.SetEdge(e.A, e.B, e.Is, e.Angle)
		}
		if !patternOf(t, "again", again).Alike(p) {
			t.Errorf("%v: posted back it is another", c)
		}
		st, err := Read(x.Text())
		if err != nil {
			t.Fatal(err)
		}
		box, err := st.Make(st.Usual(measure.In.Tick(), 300*measure.Micrometre))
		if err != nil || box.Parts[0].Own[0].Text != "Bend the card evenly over the edge of the table, where nothing is scored: from the base a1 to the base a6 towards you, and from the base b1 to the base b6 away from you." {
			t.Errorf("%v: %v, %v", c, box.Parts[0].Own, err)
		}
		x.Whole("base")
		if len(x.piece().Folds) != 0 || len(x.Divided()) != 0 {
			t.Errorf("whole again: %s", x.Text())
		}
	}
	for _, c := range [][5]string{
		{"base", "top left", "bottom right", "5 mm", "90"}, {"base", "top left", "middle of the top", "5 mm", "90"}, {"base", "top left", "middle of the left", "5 mm", "90"},
		{"base", "top left", "top right", "5 mm", "flat"}, {"base", "top left", "top right", "5 mm", "180"}, {"nobody", "top left", "top right", "5 mm", "90"},
	} {
		x, _ := ReadTable(lens.Text())
		if x.Curve(c[0], c[1], c[2], c[3], c[4]) == nil || !bytes.Equal(x.Text(), lens.Text()) {
			t.Errorf("%v is folded", c)
		}
	}
	x, _ := ReadTable(lens.Text())
	x.Curve("base", "bottom left", "bottom right", "L", "90")
	if _, err := Read(x.Text()); err == nil { // too steep to be folded
		t.Error("an arc as high as it is wide is folded")
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
