package pattern

import (
	"encoding/json"
	"math"
	"slices"
	"strings"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
)

const mm = measure.Millimetre

// square is a 10 × 10 mm card.
func square() *Pattern {
	return &Pattern{Width: 10 * mm, Height: 10 * mm, Outline: Straight(Pt(0, 0), Pt(10, 0), Pt(10, 10), Pt(0, 10))}
}

func faces(t *testing.T, p *Pattern) []Face {
	t.Helper()
	f, err := p.Faces()
	if err != nil {
		t.Fatal(err)
	}
	return f
}

func totalArea(all []Face) float64 {
	sum := 0.0
	for i := range all {
		sum += all[i].Area()
	}
	return sum
}

func TestFacesOfCrossingCreases(t *testing.T) {
	p := square()
	p.Creases = []Crease{
		{Segment: Segment{Pt(5, 0), Pt(5, 10)}, Angle: 90, Side: Away},
		{Segment: Segment{Pt(0, 5), Pt(10, 5)}, Angle: 90, Side: Away},
		{Segment: Segment{Pt(0, 0), Pt(5, 5)}, Angle: 90, Side: Towards},
	}
	got := faces(t, p)
	if len(got) != 5 || math.Abs(totalArea(got)-100) > 1e-9 {
		t.Errorf("a cross and a diagonal give %d faces of %v mm² in all; want 5 of 100", len(got), totalArea(got))
	}
}

func TestFacesWithSlitsAndHoles(t *testing.T) {
	p := square()
	p.Slits = []Slit{{Segment: Segment{Pt(0, 5), Pt(4, 5)}}} // ends inside the card
	p.Holes = []Loop{Straight(Pt(6, 6), Pt(8, 6), Pt(8, 8), Pt(6, 8))}
	got := faces(t, p)
	if len(got) != 1 || math.Abs(got[0].Area()-96) > 1e-9 || math.Abs(p.Area()-96) > 1e-9 {
		t.Fatalf("a slit and a hole leave %d faces of %v mm²; want one of 96", len(got), totalArea(got))
	}
	if len(got[0].Holes) != 1 || got[0].contains(Pt(7, 7)) || !got[0].contains(Pt(1, 1)) {
		t.Error("the hole is not kept out of the face")
	}
	// A crease that runs into the hole from both sides divides the card.
	p.Creases = []Crease{
		{Segment: Segment{Pt(0, 7), Pt(6, 7)}, Angle: 90, Side: Away},
		{Segment: Segment{Pt(8, 7), Pt(10, 7)}, Angle: 90, Side: Away},
	}
	if got := faces(t, p); len(got) != 2 {
		t.Errorf("creases into a hole give %d faces; want 2", len(got))
	}
}

func TestFacesRefuseByName(t *testing.T) {
	short := square()
	short.Creases = []Crease{{Segment: Segment{Pt(3, 3), Pt(3, 3)}, Angle: 90, Side: Away}}
	outside := square()
	outside.Marks = []Mark{{Name: "moon", At: Pt(50, 50)}}
	twice := square()
	twice.Marks = []Mark{{Name: "lid", At: Pt(1, 1)}, {Name: "base", At: Pt(9, 9)}}
	for _, c := range []struct {
		p    *Pattern
		says string
	}{{short, "(3.000, 3.000) mm has no length"}, {outside, `"moon"`}, {twice, `"lid" and "base"`}} {
		if _, err := c.p.Faces(); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("got %v; want a refusal saying %s", err, c.says)
		}
	}
}

func TestFoldDirection(t *testing.T) {
	for _, c := range []struct {
		side Side
		z    float64
	}{{Away, -5}, {Towards, 5}} {
		p := square()
		p.Creases = []Crease{{Segment: Segment{Pt(5, 0), Pt(5, 10)}, Angle: 90, Side: c.side}}
		p.Marks = []Mark{{Name: "table", At: Pt(1, 5)}, {Name: "flap", At: Pt(9, 5)}}
		f, err := p.Finished("table")
		if err != nil {
			t.Fatal(err)
		}
		pose, _, _ := f.Face("flap")
		if got := pose.Place(Pt(10, 5)); math.Abs(got.Z-c.z) > 1e-9 || math.Abs(got.X-5) > 1e-9 {
			t.Errorf("folded %s the flap's end is at %v; want x 5, z %v", c.side, got, c.z)
		}
	}
}

// Four creases round a corner of card close only at angles that fit: flat,
// or one line folded right over.
func TestRingResidual(t *testing.T) {
	p := square()
	p.Creases = []Crease{
		{Segment: Segment{Pt(5, 0), Pt(5, 5)}, Angle: 180, Side: Away}, {Segment: Segment{Pt(5, 5), Pt(5, 10)}, Angle: 180, Side: Away},
		{Segment: Segment{Pt(0, 5), Pt(5, 5)}, Angle: 0, Side: Away}, {Segment: Segment{Pt(5, 5), Pt(10, 5)}, Angle: 0, Side: Away},
	}
	p.Marks = []Mark{{Name: "root", At: Pt(1, 1)}}
	f, err := p.Finished("root")
	if err != nil || f.Residual > 1e-9 {
		t.Fatalf("folded in half the ring is open by %v mm, %v", f.Residual, err)
	}
	f, err = p.Fold("root", func(i int) float64 { return []float64{90, 90, 90, 90}[i] })
	if err != nil || f.Residual < 1 {
		t.Errorf("four right angles round one point close by %v, %v; want a wide gap", f.Residual, err)
	}
}

func TestFoldRefuses(t *testing.T) {
	p := square()
	p.Marks = []Mark{{Name: "a", At: Pt(1, 1)}, {Name: "b", At: Pt(9, 9)}}
	p.Slits = []Slit{{Segment: Segment{Pt(5, 0), Pt(5, 10)}}}
	if _, err := p.Finished("nowhere"); err == nil || !strings.Contains(err.Error(), "nowhere") {
		t.Errorf("a root that is no face gives %v", err)
	}
	if _, err := p.Finished("a"); err == nil || !strings.Contains(err.Error(), `"b" hangs on no crease`) {
		t.Errorf("a severed part gives %v", err)
	}
}

func TestGridReadsLikeItsPicture(t *testing.T) {
	h := 20 * mm
	g := NewGrid([]measure.Length{h, 50 * mm, h}, []measure.Length{h, 40 * mm, h}, `
		.     back   .
		left  base   right
		.     front  .`)
	g.Role(Panel, g.Face("base"))
	p, err := g.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	if p.Width != 90*mm || p.Height != 80*mm || len(p.Outline) != 12 || len(p.Creases) != 4 || len(p.Slits) != 0 {
		t.Errorf("the cross is %d × %d with %d corners, %d creases", p.Width/mm, p.Height/mm, len(p.Outline), len(p.Creases))
	}
	if got := p.Removed(); math.Abs(got-4*400) > 1e-9 {
		t.Errorf("removed %v mm²; want 1600", got)
	}
	if !slices.Equal(p.Scores.Vertical, []measure.Length{20 * mm, 70 * mm}) ||
		!slices.Equal(p.Scores.Horizontal, []measure.Length{20 * mm, 60 * mm}) {
		t.Errorf("scores %v / %v", p.Scores.Vertical, p.Scores.Horizontal)
	}
	f, err := p.Finished("base")
	if err != nil {
		t.Fatal(err)
	}
	back, _, _ := f.Face("back")
	left, _, _ := f.Face("left")
	if d := r3.Norm(r3.Sub(back.Place(Pt(20, 0)), left.Place(Pt(0, 20)))); d > 1e-9 {
		t.Errorf("the rims of back and left are %v mm apart", d)
	}
}

func TestGridRefuses(t *testing.T) {
	l := 10 * mm
	for name, g := range map[string]*Grid{
		"no room":  NewGrid([]measure.Length{l, 0, l}, []measure.Length{l}, "a b c"),
		"rows":     NewGrid([]measure.Length{l}, []measure.Length{l, l}, "a"),
		"cells":    NewGrid([]measure.Length{l, l}, []measure.Length{l}, "a"),
		"nothing":  NewGrid([]measure.Length{l}, []measure.Length{l}, "."),
		"two bits": NewGrid([]measure.Length{l, l, l}, []measure.Length{l}, "a . b"),
	} {
		if p, err := g.Pattern(); err == nil {
			t.Errorf("%s: got a pattern %v; want a refusal", name, p)
		}
	}
	g := NewGrid([]measure.Length{l}, []measure.Length{l}, "a")
	g.Role(Tab, g.Face("b"))
	if _, err := g.Pattern(); err == nil || !strings.Contains(err.Error(), `"b"`) {
		t.Errorf("a cell that is not there gives %v", err)
	}
}

func TestArcsStayArcs(t *testing.T) {
	hole := Circle(Pt(5, 5), 3)
	if got := math.Abs(Area(hole.Flat())); math.Abs(got-math.Pi*9) > 0.2 || len(hole) != 2 {
		t.Errorf("a hole of radius 3 covers %v mm²", got)
	}
	for _, q := range hole.Flat() {
		if d := q.Sub(Pt(5, 5)).Len(); math.Abs(d-3) > 1e-9 {
			t.Errorf("the circle passes %v mm from its middle", d)
		}
	}
	// A quarter circle bends outwards from a clockwise outline, a notch inwards.
	p := square()
	p.Marks = []Mark{{Name: "card", At: Pt(5, 9)}}
	if err := p.Notch("card", Pt(5, 10), 2); err != nil {
		t.Fatal(err)
	}
	if got := p.Removed(); math.Abs(got-2*math.Pi) > 0.1 || len(p.Openings) != 1 {
		t.Errorf("a notch of radius 2 takes %v mm²", got)
	}
	if f := faces(t, p); len(f) != 1 || f[0].Name != "card" {
		t.Error("the mark did not make way for the notch")
	}
	if err := p.Notch("card", Pt(1, 10), 2); err == nil {
		t.Error("a notch over the corner was cut")
	}
}

func TestFoldedCardTellsItsLayers(t *testing.T) {
	p := square()
	p.Creases = []Crease{{Segment: Segment{Pt(5, 0), Pt(5, 10)}, Angle: 180, Side: Away}}
	p.Marks = []Mark{{Name: "under", At: Pt(1, 5)}, {Name: "over", At: Pt(9, 5)}}
	p.Glue = []Glue{
		{Face: "over", Area: []Point{{5, 0}, {10, 0}, {10, 10}, {5, 10}}, Onto: "under"},
		{Face: "over", Onto: "moon"},
		{Face: "over", Piece: "lid"},
	}
	f, err := p.Finished("under")
	if err != nil {
		t.Fatal(err)
	}
	if got := f.Overlap(0, 1); math.Abs(got-50) > 1 {
		t.Errorf("the halves cover %v mm² of each other; want 50", got)
	}
	l := f.Landings(p)
	if len(l) != 2 || l[0].Off > 1e-9 || math.Abs(l[0].Area-50) > 1 || !math.IsInf(l[1].Off, 1) {
		t.Errorf("the patches land as %+v", l)
	}
	if c := f.Collisions(); len(c) != 0 {
		t.Errorf("card folded onto itself collides: %v", c)
	}
	stages := f.Stages(p, "under")
	if len(stages) != 0 {
		t.Errorf("faces without a role fold in stages %v", stages)
	}
}

func FuzzPatternJSON(f *testing.F) {
	text, err := json.Marshal(square())
	if err != nil {
		f.Fatal(err)
	}
	f.Add(text)
	f.Add(
		[]byte(
			`{"width":1,"height":1,"outline":[[0,0,1],[1,0,0]],"creases":[{"line":[[0,0],[1,1]],"angle":90,"side":"away"}],"scores":{}}`,
		),
	)
	f.Fuzz(func(t *testing.T, text []byte) {
		var p Pattern
		if json.Unmarshal(text, &p) != nil || len(p.Outline)+len(p.Creases)+len(p.Slits)+len(p.Holes) > 60 {
			return
		}
		if all, err := p.Faces(); err == nil { // refusing is fine; hanging or crashing is not
			_ = totalArea(all)
		}
	})
}

func BenchmarkFaces(b *testing.B) {
	// A 14 × 14 grid of creases: about 400 edges.
	p := &Pattern{Width: 140 * mm, Height: 140 * mm, Outline: Straight(Pt(0, 0), Pt(140, 0), Pt(140, 140), Pt(0, 140))}
	for i := 1; i < 14; i++ {
		x := float64(i) * 10
		p.Creases = append(
			p.Creases,
			Crease{Segment: Segment{Pt(x, 0), Pt(x, 140)}, Angle: 90, Side: Away},
			Crease{Segment: Segment{Pt(0, x), Pt(140, x)}, Angle: 90, Side: Away},
		)
	}
	for b.Loop() {
		if _, err := p.Faces(); err != nil {
			b.Fatal(err)
		}
	}
}

// By hand: an L of three squares of 10 mm, and a square of 10 set 5 mm in from its corner, share
// 75 mm², whichever way round each is drawn.
func TestOverlapOfWhatIsDrawnEitherWay(t *testing.T) {
	l := []Point{{0, 0}, {20, 0}, {20, 10}, {10, 10}, {10, 20}, {0, 20}}
	square := []Point{{5, 5}, {15, 5}, {15, 15}, {5, 15}}
	turned := func(p []Point) []Point { p = slices.Clone(p); slices.Reverse(p); return p }
	for _, a := range [][]Point{l, turned(l)} {
		for _, b := range [][]Point{square, turned(square)} {
			if got := Overlap(a, b); math.Abs(got-75) > 1e-9 {
				t.Errorf("%v and %v share %v mm²", a, b, got)
			}
		}
	}
}

// Half a circle has its middle in the middle of its chord, a quarter as far off as half the chord.
func TestCentre(t *testing.T) {
	for bulge, want := range map[float64]Point{1: Pt(5, 0), -1: Pt(5, 0), math.Tan(math.Pi / 8): Pt(5, 5), -math.Tan(math.Pi / 8): Pt(5, -5)} {
		if c := Centre(Pt(0, 0), Pt(10, 0), bulge); c.Sub(want).Len() > 1e-6 {
			t.Errorf("bulge %g: %v; want %v", bulge, c, want)
		}
	}
}
