package label

import (
	"math"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// By hand: a label 40 × 20 mm on a face 100 × 60, from each pair of edges; turned by a quarter it
// is 20 wide and 40 high; over an edge it stands out by what is less than nothing.
func TestWhereALabelLies(t *testing.T) {
	for _, c := range []struct {
		place          Place
		left, right    float64
		bottom, top    float64
		farLeftCornerY float64 // of the label's own upper left corner
	}{
		{Place{}, 30, 70, 20, 40, 40},
		{Place{Across: Off{Left, 5 * mm}, Up: Off{Top, 10 * mm}}, 5, 45, 30, 50, 50},
		{Place{Across: Off{Right, 5 * mm}, Up: Off{Bottom, 10 * mm}}, 55, 95, 10, 30, 30},
		{Place{Up: Off{Bottom, -10 * mm}}, 30, 70, -10, 10, 10},
		{Place{Turn: 90, Across: Off{Left, 0}, Up: Off{Bottom, 0}}, 0, 20, 0, 40, 40},
		{Place{Turn: 180}, 30, 70, 20, 40, 20},
	} {
		l := of(Rectangle, 40*mm, 20*mm)
		l.Place = c.place
		on := l.On(0, 100, 60)
		lo, hi := pattern.Bounds(on)
		if math.Abs(lo.X-c.left)+math.Abs(hi.X-c.right)+math.Abs(lo.Y-c.bottom)+math.Abs(hi.Y-c.top) > 1e-9 {
			t.Errorf("%+v lies from %v to %v", c.place, lo, hi)
		}
		if math.Abs(on[0].Y-c.farLeftCornerY) > 1e-9 {
			t.Errorf("%+v: its first corner is at %v", c.place, on[0])
		}
	}
}

func TestPlacesThatNoFaceHas(t *testing.T) {
	for _, p := range []Place{{Across: Off{Top, 0}}, {Up: Off{Left, 0}}, {Across: Off{Left, measure.Centimetre * 60}}, {Up: Off{Top, -60 * measure.Centimetre}}, {Turn: 200}} {
		l := of(Rectangle, 40*mm, 20*mm)
		if l.Place = p; l.Check(show) == nil {
			t.Errorf("%+v is taken", p)
		}
	}
}
