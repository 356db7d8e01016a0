package pattern

import (
	"math"
	"strings"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
)

// cross is an open tray without tabs, walls 20 mm high.
func cross(t *testing.T) *Pattern {
	t.Helper()
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
	return p
}

// The angles found from where the corners end up are those the piece was
// folded by, whatever they were.
func TestAnglesFromTheFoldedForm(t *testing.T) {
	for _, c := range []struct {
		angle float64
		side  Side
	}{{90, Away}, {45, Away}, {30, Towards}, {120, Towards}} {
		p := cross(t)
		for i := range p.Creases {
			p.Creases[i].Angle, p.Creases[i].Side = c.angle, c.side
		}
		f, err := p.Finished("base")
		if err != nil {
			t.Fatal(err)
		}
		where := map[Point]r3.Vec{}
		for i, face := range f.Faces {
			for _, q := range face.Polygon {
				where[q] = f.Poses[i].Place(q)
			}
		}
		for i := range p.Creases {
			p.Creases[i].Angle, p.Creases[i].Side = 1, Away
		}
		// Free corners of neighbouring walls lie at one pattern point each, so
		// the map is sound.
		place := func(q Point) (r3.Vec, bool) { v, ok := where[q]; return v, ok }
		if err := p.AnglesFrom(place, place); err != nil {
			t.Fatal(err)
		}
		for _, got := range p.Creases {
			if math.Abs(got.Angle-c.angle) > 1e-6 || got.Side != c.side {
				t.Errorf("folded %v° %s, found %v° %s", c.angle, c.side, got.Angle, got.Side)
			}
		}
	}
}

func TestAnglesFromLeavesTheUnknown(t *testing.T) {
	p := cross(t)
	nothing := func(Point) (r3.Vec, bool) { return r3.Vec{}, false }
	if err := p.AnglesFrom(nothing, nothing); err != nil || p.Creases[0].Angle != 90 {
		t.Errorf("creases nobody knows of became %v, %v", p.Creases[0].Angle, err)
	}
	heap := func(Point) (r3.Vec, bool) { return r3.Vec{}, true }
	if err := p.AnglesFrom(heap, heap); err == nil || !strings.Contains(err.Error(), "no area") {
		t.Errorf("a piece crushed to a point gives %v", err)
	}
}

func TestStagesRunFromFlatToFinished(t *testing.T) {
	p := cross(t)
	done, err := p.Finished("base")
	if err != nil {
		t.Fatal(err)
	}
	stages := done.Stages(p, "base")
	if len(stages) != 1 || stages[0].Name != "walls" {
		t.Fatalf("stages %v", stages)
	}
	if done.Stages(p, "nowhere") != nil {
		t.Error("stages from a root that is not there")
	}
	height := func(at float64) float64 {
		turned := p.Done(stages, at)
		f, err := p.Fold("base", func(i int) float64 { return turned[i] * p.Creases[i].Angle })
		if err != nil {
			t.Fatal(err)
		}
		pose, face, _ := f.Face("left")
		most := 0.0
		for _, q := range face.Polygon {
			most = max(most, math.Abs(pose.Place(q).Z))
		}
		return most
	}
	for _, c := range []struct{ at, want float64 }{{0, 0}, {0.5, 20 * math.Sqrt2 / 2}, {1, 20}, {7, 20}} {
		if got := height(c.at); math.Abs(got-c.want) > 1e-9 {
			t.Errorf("at stage %v the wall is %v mm up; want %v", c.at, got, c.want)
		}
	}
}

func TestPosesFollowOneAnother(t *testing.T) {
	a := Pose{Turn: r3.NewRotation(math.Pi/2, r3.Vec{Z: 1}), Shift: r3.Vec{X: 1}}
	b := Pose{Turn: r3.NewRotation(math.Pi/3, r3.Vec{X: 1}), Shift: r3.Vec{Y: 2, Z: 5}}
	for _, q := range []Point{{0, 0}, {3, 4}, {-2, 7}} {
		first := a.Place(q)
		want := r3.Add(b.Turn.Rotate(first), b.Shift)
		if d := r3.Norm(r3.Sub(a.Then(b).Place(q), want)); d > 1e-12 {
			t.Errorf("%v ends %v mm away", q, d)
		}
		if back, off := a.pull(first); back.Sub(q).Len() > 1e-12 || math.Abs(off) > 1e-12 {
			t.Errorf("%v is pulled back to %v, %v off the plane", q, back, off)
		}
	}
}

func TestGridFacesThatSpanCells(t *testing.T) {
	l := 10 * mm
	g := NewGrid([]measure.Length{l, l, l}, []measure.Length{l, l}, `
		a  b  b
		c  c  d`)
	g.Fold(g.Face("a"), g.Face("c"), 45, Towards)
	g.Slit(g.Face("b"), g.Face("d"))
	p, err := g.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	// The line below a and b runs over the whole blank; the others stop short.
	if len(p.Scores.Horizontal) != 1 || len(p.Scores.Vertical) != 0 || len(p.Scores.Part) != 2 {
		t.Errorf("scores %v / %v and %v", p.Scores.Vertical, p.Scores.Horizontal, p.Scores.Part)
	}
	if all := faces(t, p); len(all) != 4 || math.Abs(totalArea(all)-600) > 1e-9 {
		t.Errorf("%d faces of %v mm²", len(all), totalArea(all))
	}
	if _, err := NewGrid(
		[]measure.Length{l, l},
		[]measure.Length{l, l},
		"a b\nb a",
	).Pattern(); err == nil ||
		!strings.Contains(err.Error(), "not one rectangle") {
		t.Errorf("cells named crosswise give %v", err)
	}
}
