package found

import (
	"math"
	"slices"

	"brevium/core/measure"
)

// left is what no size explains of numbers.
func (k *kind) left(y []float64) []float64 {
	out := make([]float64, len(y))
	for i := range y {
		for j := range y {
			out[i] += k.rest.At(i, j) * (y[j] - k.numbers[j])
		}
	}
	return out
}

// leaves reports whether, without one of the numbers, sizes explain the others but for what is
// rounded: what is left of the numbers (their part at right angles to all that sizes can do) must be
// the share of that one alone.
func (k *kind) leaves(left []float64, without int) bool {
	own := k.rest.At(without, without)
	if len(left)-k.rank-1 < redundant || own < 1e-6 {
		return false
	}
	for i, r := range left {
		if math.Abs(r-k.rest.At(i, without)*left[without]/own) > rounding {
			return false
		}
	}
	return true
}

// solve finds the sizes that give the numbers, without one of them (−1 for none left
// out), of which begins or leaves has told that there may be such. The numbers follow the
// sizes by sums and differences: least squares (by the pseudo-inverse of the slopes) goes
// there at once but for what is rounded to a tick. Sizes are taken as a hand would set
// them. False where they do not give all the other numbers.
func (k *kind) solve(y []float64, without int) ([]measure.Length, bool) {
	n := len(y)
	x := slices.Clone(k.usual)
	at := k.numbers
	for try := range 3 {
		d := make([]float64, n)
		for i := range y {
			d[i] = y[i] - at[i]
		}
		if without >= 0 {
			r := 0.0
			for i := range d {
				r += k.rest.At(without, i) * d[i]
			}
			d[without] -= r / k.rest.At(without, without) // as the others have it
		}
		was := slices.Clone(x)
		for j := range x {
			by := 0.0
			for i := range d {
				by += k.inverse.At(j, i) * d[i]
			}
			if math.Abs(by) > 1e-7 {
				x[j] = k.set(x[j].MM() + by)
			}
		}
		if try > 0 && slices.Equal(x, was) {
			break
		}
		var ok bool
		if at, ok = k.make(x); !ok && without < 0 && try == 0 {
			at, ok = k.beside(x)
		}
		if !ok || len(at) != n {
			return nil, false
		}
		if agree(at, y, without) {
			return x, k.inRange(x)
		}
		if without >= 0 {
			return nil, false
		}
	}
	return k.closer(x, at, y, without)
}

// beside moves one of the sizes by a few ticks, so that there is such a box: rounding
// may have brought it over a bound.
func (k *kind) beside(x []measure.Length) ([]float64, bool) {
	for _, by := range []measure.Length{1, -1, 2, -2, 3, -3} {
		for j := range x {
			was := x[j]
			x[j] += by * k.tick()
			if at, ok := k.makeWith(x, unseen[:1]); ok {
				return at, true
			}
			x[j] = was
		}
	}
	return nil, false
}

// closer moves sizes tick by tick while the numbers come nearer, where they are near but
// for what is rounded.
func (k *kind) closer(x []measure.Length, at, y []float64, without int) ([]measure.Length, bool) {
	far := func(at []float64) float64 {
		sum := 0.0
		for i := range at {
			if d := math.Abs(at[i] - y[i]); i != without {
				sum += d
				if d > rounding/2 {
					return math.Inf(1)
				}
			}
		}
		return sum
	}
	// likely is what the numbers would be if they followed a size as they do at the usual ones.
	likely := func(j int, by measure.Length) []float64 {
		out := slices.Clone(at)
		for i := range out {
			out[i] += k.slopes[j][i] * by.MM()
		}
		return out
	}
	best := far(at)
	for again := !math.IsInf(best, 1); again; {
		again = false
		for j := range x {
			for _, by := range []measure.Length{1, -1, 2, -2, 4, -4} {
				if far(likely(j, by*k.tick())) > best+k.tick().MM()/2 {
					continue
				}
				was := x[j]
				x[j] += by * k.tick()
				if now, ok := k.make(x); ok && len(now) == len(y) {
					if f := far(now); f < best-1e-6 {
						if agree(now, y, without) {
							return x, k.inRange(x)
						}
						at, best, again = now, f, true
						continue
					}
				}
				x[j] = was
			}
		}
	}
	return nil, false
}

// rounding is how far, in mm, sizes that are rounded to ticks move a number.
const rounding = 1.7

func agree(a, b []float64, without int) bool {
	for i := range a {
		if i != without && math.Abs(a[i]-b[i]) > same.MM() {
			return false
		}
	}
	return true
}
