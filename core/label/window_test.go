package label

import (
	"math"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// A window of 40 × 20 on a face of 100 × 60 lies in its middle, or 5 mm from its left and 8 mm from
// its top edge; turned by 90° it lies 20 wide and 40 high. The y runs up.
func TestWindowOnItsFace(t *testing.T) {
	w := Window{Shape: Rectangle, Width: 40 * mm, Height: 20 * mm}
	for _, c := range []struct {
		place  Place
		lo, hi pattern.Point
	}{
		{Place{}, pattern.Pt(30, 20), pattern.Pt(70, 40)},
		{Place{Across: Off{Left, 5 * mm}, Up: Off{Top, 8 * mm}}, pattern.Pt(5, 32), pattern.Pt(45, 52)},
		{Place{Across: Off{Right, 5 * mm}, Up: Off{Bottom, 8 * mm}}, pattern.Pt(55, 8), pattern.Pt(95, 28)},
		{Place{Turn: 90}, pattern.Pt(40, 10), pattern.Pt(60, 50)},
	} {
		w.Place = c.place
		lo, hi := pattern.Bounds(w.On(100, 60).Flat())
		if lo.Sub(c.lo).Len() > 1e-9 || hi.Sub(c.hi).Len() > 1e-9 {
			t.Errorf("%+v: from %v to %v; want %v to %v", c.place, lo, hi, c.lo, c.hi)
		}
	}
}

// The round parts of a window stay arcs: on the card, where y runs down, a circle of 30 mm has 706.9 mm².
func TestRoundWindowHasArcs(t *testing.T) {
	edge := Window{Shape: Circle, Width: 30 * mm, Height: 30 * mm}.On(100, 60)
	arcs := 0
	for i, v := range edge {
		edge[i].Point = pattern.Pt(v.X, -v.Y)
		if v.Bulge != 0 {
			arcs++
		}
	}
	if area := math.Abs(pattern.Area(edge.Flat())); arcs == 0 || math.Abs(area-math.Pi*225) > 1 {
		t.Errorf("%d arcs, %v mm²", arcs, area)
	}
}

// A slot of 75 × 25 mm, upright or lying, has ends of half a circle: 50 × 25 + π 12.5² = 1740.9 mm².
func TestSlotHasRoundEnds(t *testing.T) {
	for _, size := range [][2]measure.Length{{75 * mm, 25 * mm}, {25 * mm, 75 * mm}} {
		edge := Label{Shape: Slot, Width: size[0], Height: size[1]}.Outline(0)
		lo, hi := pattern.Bounds(edge.Flat())
		if area := pattern.Area(edge.Flat()); math.Abs(area-1740.9) > 2 || math.Abs(hi.X-lo.X-size[0].MM()) > 0.05 || math.Abs(hi.Y-lo.Y-size[1].MM()) > 0.05 {
			t.Errorf("%v: %v mm², from %v to %v", size, area, lo, hi)
		}
	}
}

// A slot as high as it is wide is a circle: no line of it is without length.
func TestSlotWithoutLengthIsACircle(t *testing.T) {
	edge := Label{Shape: Slot, Width: 12 * mm, Height: 12 * mm}.Outline(0)
	for i, v := range edge {
		if v.Sub(edge[(i+1)%len(edge)].Point).Len() < 1 {
			t.Errorf("the line at %v has no length", v)
		}
	}
	if area := pattern.Area(edge.Flat()); math.Abs(area-math.Pi*36) > 0.5 {
		t.Errorf("it has %v mm²", area)
	}
}

func TestWindowLimits(t *testing.T) {
	show := func(l measure.Length) string { return measure.Label(l, measure.MM, measure.Tick(mm)) }
	good := Window{Shape: Oval, Width: 40 * mm, Height: 30 * mm}
	for _, c := range []struct {
		change func(*Window)
		good   bool
	}{
		{func(*Window) {}, true},
		{func(w *Window) { w.Width = leastWindow }, true},
		{func(w *Window) { w.Width = leastWindow - 1 }, false},
		{func(w *Window) { w.Height = mostWindow + 1 }, false},
		{func(w *Window) { w.Shape = Banner }, false},
		{func(w *Window) { w.Shape = Circle }, false},
		{func(w *Window) { w.Shape, w.Height = Circle, w.Width }, true},
		{func(w *Window) { w.Place.Turn = 181 }, false},
	} {
		w := good
		c.change(&w)
		if err := w.Check(show); (err == nil) != c.good {
			t.Errorf("%+v: %v", w, err)
		}
	}
}
