// Package sketch reads a net that was drawn by hand or printed, from a picture seen from straight
// above: its lines in millimetres, which of them are dashed, the squares of the paper, and the
// blanks that the lines make. It works on grey alone and knows nothing of boxes.
package sketch

import (
	"image"
	"math"
	"slices"
)

// Sheet is how dark a picture is beside the paper round each dot, 0 to 1, so that shade falls out.
type Sheet struct {
	wide, high int
	perMM      float64 // dots
	dark       []float32
	least      float32 // what counts as drawn
}

// Paper beside a dot is looked at over so many millimetres each way; what is darker than
// nearlyPaper of its mean is no paper.
const (
	around      = 7.0
	nearlyPaper = 0.92
	faintest    = 0.12 // darkness that may be a printed square or an edge
	leastInk    = 0.18 // of what is drawn, at the least
)

// Look looks at a picture with so many dots to a millimetre.
func Look(img *image.Gray, perMM float64) *Sheet {
	b := img.Bounds()
	x := &Sheet{wide: b.Dx(), high: b.Dy(), perMM: perMM}
	x.dark = make([]float32, x.wide*x.high)
	grey := func(i int) uint32 { return uint32(img.Pix[i/x.wide*img.Stride+i%x.wide]) }
	reach := max(2, int(around*perMM))
	mean := x.mean(reach, func(i int) (v, weight uint32) { return grey(i), 1 })
	paper := x.mean(reach, func(i int) (v, weight uint32) {
		if v := grey(i); float32(v) > nearlyPaper*mean[i] {
			return v, 1
		}
		return 0, 0
	})
	var some []float32
	for i := range x.dark {
		p := paper[i]
		if p == 0 {
			p = mean[i]
		}
		x.dark[i] = max(0, 1-float32(grey(i))/max(1, p))
		if x.dark[i] > faintest {
			some = append(some, x.dark[i])
		}
	}
	x.least = leastInk
	if len(some) > 0 {
		slices.Sort(some)
		x.least = max(leastInk, some[len(some)*97/100]/2)
	}
	return x
}

// mean is the weighted mean of values up to 255 over a square round each dot, by sums of rows and
// columns.
func (x *Sheet) mean(reach int, of func(i int) (v, weight uint32)) []float32 {
	w, h := x.wide+1, x.high+1
	sums, weights := make([]uint32, w*h), make([]uint32, w*h)
	for r := range x.high {
		row, weight := uint32(0), uint32(0)
		for c := range x.wide {
			v, n := of(r*x.wide + c)
			row, weight = row+v*n, weight+n
			sums[(r+1)*w+c+1] = sums[r*w+c+1] + row
			weights[(r+1)*w+c+1] = weights[r*w+c+1] + weight
		}
	}
	out := make([]float32, x.wide*x.high)
	for r := range x.high {
		top, bottom := max(0, r-reach), min(x.high, r+reach+1)
		for c := range x.wide {
			left, right := max(0, c-reach), min(x.wide, c+reach+1)
			box := func(of []uint32) uint32 {
				return of[bottom*w+right] - of[top*w+right] - of[bottom*w+left] + of[top*w+left]
			}
			if n := box(weights); n > 0 {
				out[r*x.wide+c] = float32(box(sums)) / float32(n)
			}
		}
	}
	return out
}

// dot is a drawn dot, in millimetres.
type dot struct {
	x, y   float64
	weight float64
	gone   bool // it belongs to a line that was found
}

// rim is how near to the picture's edge nothing is looked at, mm: the sheet ends there.
const rim = 1.5

func (x *Sheet) dots() []dot {
	var out []dot
	wide, high := float64(x.wide)/x.perMM, float64(x.high)/x.perMM
	for i, d := range x.dark {
		at := dot{x: (float64(i%x.wide) + 0.5) / x.perMM, y: (float64(i/x.wide) + 0.5) / x.perMM, weight: float64(d)}
		if d >= x.least && min(at.x, at.y, wide-at.x, high-at.y) > rim {
			out = append(out, at)
		}
	}
	return out
}

// leastSquares is how dark printed squares make a sheet at the least, over all of it: the edges of
// strokes make it less.
const leastSquares = 0.0015

// Squares finds where the squares of the paper begin that are step millimetres wide: how far the
// first line lies from the left and from the top, and whether there are such squares.
func (x *Sheet) Squares(step float64) (left, top float64, there bool) {
	const parts = 40
	phase := func(n int, at func(i int) float64) (float64, bool) {
		var sum [parts]float64
		for i := range n {
			_, part := math.Modf((float64(i) + 0.5) / x.perMM / step)
			sum[int(part*parts)%parts] += at(i)
		}
		best, total := 0, 0.0
		for i, s := range sum {
			if total += s; s > sum[best] {
				best = i
			}
		}
		// The middle of what is dark there, by its weight.
		off, weight := 0.0, 0.0
		for d := -3; d <= 3; d++ {
			s := max(0, sum[(best+d+parts)%parts]-total/parts)
			off, weight = off+float64(d)*s, weight+s
		}
		if weight > 0 {
			off /= weight
		}
		at0 := math.Mod((float64(best)+off+0.5)/parts+1, 1) * step
		return at0, total > leastSquares*float64(x.wide*x.high) && sum[best] > 3*total/parts
	}
	faint := func(i int) float64 {
		if d := x.dark[i]; d > 0.03 && d < x.least {
			return float64(d)
		}
		return 0
	}
	left, sureLeft := phase(x.wide, func(c int) float64 {
		sum := 0.0
		for r := range x.high {
			sum += faint(r*x.wide + c)
		}
		return sum
	})
	top, sureTop := phase(x.high, func(r int) float64 {
		sum := 0.0
		for c := range x.wide {
			sum += faint(r*x.wide + c)
		}
		return sum
	})
	return left, top, sureLeft && sureTop
}
