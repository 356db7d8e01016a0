package nest

import (
	"math"
	"slices"

	"brevium/core/layout"
	"brevium/core/measure"
)

// parted gives a laid sheet its straight cuts: for a machine those along which it is divided to lie on the
// mat; for scissors those that run between its pieces, the most even first, until no straight cut parts
// two of them any more.
func (s Sheet) parted(l *layout.Laid, machine bool) {
	whole := layout.Rect{Width: s.Width, Height: s.Height}
	r := rough{laid: l}
	switch {
	case machine:
		r.along("1", whole, s.X, s.Y)
	default:
		var all []layout.Rect
		for _, p := range l.Placed {
			all = append(all, p.Rect)
		}
		// What lies in the hole of another is cut with it.
		alone := slices.DeleteFunc(slices.Clone(all), func(b layout.Rect) bool {
			return slices.ContainsFunc(all, func(o layout.Rect) bool { return o != b && o.Holds(b) })
		})
		r.part("1", whole, alone)
	}
	l.Order()
}

type rough struct{ laid *layout.Laid }

// cut adds a cut of a part, and gives its sides.
func (r *rough) cut(part string, of layout.Rect, across bool, at measure.Length) (near, far layout.Rect) {
	c := layout.Cut{Part: part, Across: across, At: at, X: of.X, Y: of.Y, Length: of.Width, Of: of.Height}
	near, far = of, of
	if across {
		c.Length, c.Of, c.X = of.Height, of.Width, of.X+at
		near.Width, far.X, far.Width = at, of.X+at, of.Width-at
	} else {
		c.Y = of.Y + at
		near.Height, far.Y, far.Height = at, of.Y+at, of.Height-at
	}
	r.laid.Cuts = append(r.laid.Cuts, c)
	return near, far
}

// along cuts a part through at distances from the sheet's left edge, and each of what that gives at
// distances from its top edge; mm.
func (r *rough) along(part string, of layout.Rect, x, y []float64) {
	switch {
	case len(x) > 0:
		near, far := r.cut(part, of, true, measure.FromMM(x[0])-of.X)
		r.along(part+".1", near, nil, y)
		r.along(part+".2", far, x[1:], y)
	case len(y) > 0:
		near, far := r.cut(part, of, false, measure.FromMM(y[0])-of.Y)
		r.laid.Loads = append(r.laid.Loads, near)
		r.along(part+".2", far, nil, y[1:])
	default:
		r.laid.Loads = append(r.laid.Loads, of)
	}
}

func (r *rough) part(name string, of layout.Rect, pieces []layout.Rect) {
	const near = measure.Micrometre
	if len(pieces) < 2 {
		return
	}
	across, best, even := false, measure.Length(0), 0
	try := func(way bool, at measure.Length, side func(layout.Rect) (lo, hi measure.Length)) {
		before, after := 0, 0
		for _, p := range pieces {
			switch lo, hi := side(p); {
			case hi <= at+near:
				before++
			case lo >= at-near:
				after++
			default:
				return
			}
		}
		if n := min(before, after); n > even {
			across, best, even = way, at, n
		}
	}
	for _, p := range pieces {
		try(true, p.X+p.Width, func(b layout.Rect) (lo, hi measure.Length) { return b.X, b.X + b.Width })
		try(false, p.Y+p.Height, func(b layout.Rect) (lo, hi measure.Length) { return b.Y, b.Y + b.Height })
	}
	if even == 0 {
		return
	}
	from := of.Y
	if across {
		from = of.X
	}
	first, second := r.cut(name, of, across, best-from)
	in := func(b layout.Rect) []layout.Rect {
		return slices.DeleteFunc(slices.Clone(pieces), func(p layout.Rect) bool {
			x, y := p.X+p.Width/2, p.Y+p.Height/2
			return x < b.X || x > b.X+b.Width || y < b.Y || y > b.Y+b.Height
		})
	}
	r.part(name+".1", first, in(first))
	r.part(name+".2", second, in(second))
}

// OnMat is where a sheet is cut through to lie on a mat piece by piece, whichever way round takes fewer;
// nothing where it lies on it whole. Sizes are mm.
func OnMat(width, height, matWidth, matHeight float64) (x, y []float64) {
	lines := func(long, most float64) []float64 {
		var out []float64
		for at := most; at < long-0.01; at += most {
			out = append(out, at)
		}
		return out
	}
	x, y = lines(width, matWidth), lines(height, matHeight)
	x2, y2 := lines(width, matHeight), lines(height, matWidth)
	if count := func(a, b []float64) int { return (len(a) + 1) * (len(b) + 1) }; count(x2, y2) < count(x, y) {
		return x2, y2
	}
	return x, y
}

// walls are where nothing may lie on a sheet that is cut through: so near its cuts as its edges.
func (s Sheet) walls(trim float64) [][]point {
	var out [][]point
	w, h := s.Width.MM()-2*trim, s.Height.MM()-2*trim
	for _, x := range s.X {
		out = append(out, wall(x-2*trim, 0, x, h))
	}
	for _, y := range s.Y {
		out = append(out, wall(0, y-2*trim, w, y))
	}
	return out
}

// wall is a rectangle, or where it has no width the line.
func wall(x1, y1, x2, y2 float64) []point {
	if x2-x1 < same || y2-y1 < same {
		return []point{{X: x1, Y: y1}, {X: x2, Y: y2}}
	}
	return []point{{X: x1, Y: y1}, {X: x2, Y: y1}, {X: x2, Y: y2}, {X: x1, Y: y2}}
}

// crosses tells whether what reaches from lo to hi comes nearer to a cut of its sheet than the trim.
func (s Sheet) crosses(lo, hi point, trim float64) bool {
	over := func(at, lo, hi float64) bool { return lo < at+trim-mostOff && hi > at-trim+mostOff }
	return slices.ContainsFunc(s.X, func(x float64) bool { return over(x, lo.X, hi.X) }) ||
		slices.ContainsFunc(s.Y, func(y float64) bool { return over(y, lo.Y, hi.Y) })
}

// room is the largest part of a sheet that is not cut through, its trim taken off.
func (s Sheet) room(trim float64) (w, h float64) {
	largest := func(whole float64, cuts []float64) float64 {
		most, from := 0.0, 0.0
		for _, at := range append(slices.Clone(cuts), whole) {
			most, from = math.Max(most, at-from), at
		}
		return most - 2*trim
	}
	return largest(s.Width.MM(), s.X), largest(s.Height.MM(), s.Y)
}
