package style

import (
	"math"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// A hexagon of 50 mm a side in 0.3 mm card, single walls with a tab in each:
// the flats are 50·√3 apart, less the card and a tab on both sides. The largest
// circle is as wide; a rectangle of the clear side's length is as wide too.
func TestRoomOfAHexagon(t *testing.T) {
	b := build(t, polygonBox, map[string]measure.Length{"side": 50 * mm, "height": 40 * mm}, map[string]string{"sides": "6"})
	flats := 50*math.Sqrt(3) - 0.9
	if got := b.Room.Across(); math.Abs(got-flats) > 1e-3 {
		t.Errorf("the largest circle is %v mm across; want %v", got, flats)
	}
	side := flats / math.Sqrt(3)
	in := b.Room.Largest
	if in.Length.MM() < side-0.1 || in.Width.MM() > flats || in.Length.MM()*in.Width.MM() < side*flats-10 {
		t.Errorf("the largest rectangle is %v × %v mm", in.Length.MM(), in.Width.MM())
	}
	// Six right rectangles of wall, each 50 × 40 in its own frame.
	faces, err := b.Parts[0].Pattern.Faces()
	if err != nil {
		t.Fatal(err)
	}
	walls := 0
	for _, f := range faces {
		if f.Role != pattern.Wall {
			continue
		}
		walls++
		if along, up := f.Frame().Size(f.Polygon); math.Abs(along-50) > 1e-5 || math.Abs(up-40) > 1e-5 {
			t.Errorf("%s is %v × %v mm", f.Name, along, up)
		}
	}
	if walls != 6 {
		t.Errorf("%d walls", walls)
	}
	if gap := b.Fits[0].Do(0); gap.Gap < 0 || gap.Pair.Axis != "flats" {
		t.Errorf("the lid has a gap of %v along the %s", gap.Gap, gap.Pair.Axis)
	}
}

// A lid's tabs count as two layers in its gap, with a second wall four.
func TestLayersOfAPolygonsLid(t *testing.T) {
	for walls, want := range map[string]int{"single": 2, "double": 4} {
		b := build(t, polygonBox, nil, map[string]string{"lid.walls": walls})
		if got := b.Fits[0].OuterLayers; got != want {
			t.Errorf("%s: %d layers; want %d", walls, got, want)
		}
	}
}
