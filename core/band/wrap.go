package band

import (
	"math"

	"brevium/core/measure"
)

// Wrap is a sheet of wrapping paper for a closed box, in the way it is laid:
// straight, the box parallel to its edges, or on the diagonal. Width goes round
// the box where it is straight.
type Wrap struct {
	Diagonal      bool
	Width, Height measure.Length
	// End is how far the paper reaches past each end of a straight box; Side, on
	// the diagonal, how far each corner reaches past the middle of the top.
	End, Past measure.Length
}

// Laps of wrapping paper: what is taped over, all round, and past the middle of an
// end.
const (
	WrapLap = 25 * measure.Millimetre
	endPast = 10 * measure.Millimetre
)

// Straight is the paper for a box that goes in with girth all round, and is long
// between its ends, which are high and wide: the ends fold like an envelope, each
// flap past the middle of the end's lesser side. All to marks of the ruler.
func Straight(girth float64, long, high, wide measure.Length, ruler measure.Tick) Wrap {
	end := measure.Up(min(high, wide)/2+endPast, ruler)
	return Wrap{Width: measure.Up(measure.FromMM(girth)+WrapLap, ruler), Height: measure.Up(long, ruler) + 2*end, End: end}
}

// OnDiagonal is the square of paper for a box of three sides that lies across its
// middle, each side looking to a corner. The four corners come over the top and
// cover it: at any place of the top two of them together reach half the two sides
// and the height, so a half diagonal of (long + wide)/2 + high does, and what each
// goes past it is taped.
func OnDiagonal(long, wide, high measure.Length, ruler measure.Tick) Wrap {
	half := (long+wide).MM()/2 + high.MM() + WrapLap.MM()
	side := measure.Up(measure.FromMM(half*math.Sqrt2), ruler)
	return Wrap{Diagonal: true, Width: side, Height: side, Past: WrapLap}
}

// FromRoll is how much of a roll so wide n sheets take, laid side by side as often
// as they go: the rows, the length, and whether they are turned. They must be no
// wider than the roll one way or the other.
func (w Wrap) FromRoll(roll measure.Length, n int) (across int, length measure.Length, turned, goes bool) {
	for _, t := range []bool{false, true} {
		side, along := w.Width, w.Height
		if t {
			side, along = along, side
		}
		if side > roll {
			continue
		}
		each := int(roll / side)
		takes := along * measure.Length((n+each-1)/each)
		if !goes || takes < length {
			across, length, turned, goes = each, takes, t, true
		}
	}
	return across, length, turned, goes
}
