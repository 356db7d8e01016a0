package band

import (
	"math"
	"testing"

	"brevium/core/measure"
)

// Ribbon 12 mm wide, loops of 60 and tails of 80: a knot takes 72; two loops go
// out and back, 240; two tails 160.
func TestWhatABowTakes(t *testing.T) {
	tied := Tied{Loop: 60 * mm, Tail: 80 * mm, Width: 12 * mm}
	for bow, want := range map[Bow]measure.Length{Lapped: 20 * mm, Paper: 20 * mm, Knot: (72 + 160) * mm, Single: (72 + 160 + 240) * mm, Double: (72 + 160 + 480) * mm, Curls: (72 + 320) * mm} {
		tied.Bow = bow
		if got := tied.Takes(); got != want {
			t.Errorf("%s takes %v mm; want %v", bow, got.MM(), want.MM())
		}
	}
	// String is narrow, and its knot still takes 30 mm.
	if got := (Tied{Bow: Knot, Tail: 50 * mm, Width: mm}).Takes(); got != 130*mm {
		t.Errorf("string: %v mm", got.MM())
	}
}

// A box of 120 × 80 × 50 mm, straight: 260 round and 25 to lap; at each end half
// of 50 and 10.
func TestStraightWrap(t *testing.T) {
	w := Straight(260, 120*mm, 50*mm, 80*mm, measure.Tick(mm/2))
	if w.Width != 285*mm || w.Height != 190*mm || w.End != 35*mm {
		t.Errorf("%+v", w)
	}
}

// On the diagonal every place of the top is covered: folded up over the sides,
// one of the four corners reaches it.
func TestDiagonalWrapCovers(t *testing.T) {
	for _, s := range [][3]float64{{120, 80, 50}, {80, 120, 50}, {60, 60, 60}, {200, 40, 20}, {50, 50, 150}} {
		long, wide, high := s[0], s[1], s[2]
		w := OnDiagonal(measure.FromMM(long), measure.FromMM(wide), measure.FromMM(high), measure.Tick(mm/2))
		half := w.Width.MM() / math.Sqrt2 // from the middle to a corner
		for i := range 41 {
			for j := range 41 {
				x, y := long*(float64(i)/40-0.5), wide*(float64(j)/40-0.5)
				// Unfolded over each side, the place lies so far from the middle; the paper
				// is there where the two distances together are within the half diagonal.
				over := []float64{
					math.Abs(x) + wide/2 + high + (wide/2 - y), math.Abs(x) + wide/2 + high + (wide/2 + y),
					math.Abs(y) + long/2 + high + (long/2 - x), math.Abs(y) + long/2 + high + (long/2 + x),
				}
				if least := min(over[0], over[1], over[2], over[3]); least > half {
					t.Fatalf("%v: (%.0f, %.0f) of the top is bare by %.1f mm", s, x, y, least-half)
				}
			}
		}
		// And the walls: the top of an upright edge lies at half of both sides and the height.
		if long/2+wide/2+high > half {
			t.Errorf("%v: the upright edges are bare", s)
		}
	}
}

func TestOffTheRoll(t *testing.T) {
	w := Wrap{Width: 285 * mm, Height: 190 * mm}
	for _, c := range []struct {
		roll   measure.Length
		n      int
		across int
		length measure.Length
		turned bool
		goes   bool
	}{
		{700 * mm, 1, 2, 190 * mm, false, true},
		{700 * mm, 6, 2, 570 * mm, false, true}, // turned: 3 side by side, 2 × 285 as well
		{700 * mm, 3, 3, 285 * mm, true, true},
		{200 * mm, 2, 1, 570 * mm, true, true},
		{150 * mm, 1, 0, 0, false, false},
	} {
		across, length, turned, goes := w.FromRoll(c.roll, c.n)
		if across != c.across || length != c.length || turned != c.turned || goes != c.goes {
			t.Errorf("%d off %v mm: %d across, %v mm, turned %v, %v", c.n, c.roll.MM(), across, length.MM(), turned, goes)
		}
	}
}
