package nest_test

import (
	"testing"

	"brevium/core/nest"
	"brevium/core/pattern"
)

func at(x, y, w, h float64) []pattern.Point {
	return []pattern.Point{pattern.Pt(x, y), pattern.Pt(x+w, y), pattern.Pt(x+w, y+h), pattern.Pt(x, y+h)}
}

// Two over two are parted in the middle and then each row; what is locked into one another, by no
// straight cut; what lies in a hole goes with what is round it.
func TestRoughCuts(t *testing.T) {
	got := nest.Rough(100, 100, [][]pattern.Point{at(0, 0, 40, 50), at(40, 0, 60, 50), at(0, 50, 70, 50), at(70, 50, 30, 50)})
	want := []nest.Straight{{"the sheet", false, 50, 2, 2}, {"what lies above cut 1", true, 40, 1, 1}, {"what lies below cut 1", true, 70, 1, 1}}
	if len(got) != len(want) {
		t.Fatalf("%+v", got)
	}
	for i := range want {
		if got[i] != want[i] {
			t.Errorf("cut %d: %+v; want %+v", i+1, got[i], want[i])
		}
	}
	// A pinwheel round a hole, which no straight cut parts.
	wheel := [][]pattern.Point{at(0, 0, 60, 40), at(60, 0, 40, 60), at(40, 60, 60, 40), at(0, 40, 40, 60)}
	if got = nest.Rough(100, 100, wheel); len(got) != 0 {
		t.Errorf("%+v", got)
	}
	if got = nest.Rough(200, 100, append(wheel, at(45, 45, 10, 10), at(100, 0, 100, 100))); len(got) != 1 || got[0] != (nest.Straight{"the sheet", true, 100, 5, 1}) {
		t.Errorf("%+v", got)
	}
}
