package nest

import (
	"math"
	"slices"

	"brevium/core/pattern"
)

// point is a place on a sheet, in mm.
type point = pattern.Point

// same is how near two lengths count as one, inside how far inside a no-fit something must be to be in
// the way: exact contact is free.
const (
	same   = 1e-9
	inside = 1e-5
)

// convex is a convex polygon, its inside on the left of its edges as they go round (x to the right and
// y taken upwards), and for each edge how far a point is inside of it: x·nx + y·ny − at.
type convex struct {
	points []point
	lo, hi point
	sides  []side
}

type side struct{ nx, ny, at float64 }

func newConvex(points []point) convex {
	c := convex{points: points}
	c.lo, c.hi = pattern.Bounds(points)
	for i, a := range points {
		b := points[(i+1)%len(points)]
		d := b.Sub(a)
		long := d.Len()
		if long < same {
			continue
		}
		n := side{nx: -d.Y / long, ny: d.X / long}
		n.at = n.nx*a.X + n.ny*a.Y
		c.sides = append(c.sides, n)
	}
	return c
}

// has tells whether a point lies strictly inside.
func (c *convex) has(p point) bool {
	if p.X <= c.lo.X+inside || p.X >= c.hi.X-inside || p.Y <= c.lo.Y+inside || p.Y >= c.hi.Y-inside {
		return false
	}
	for _, s := range c.sides {
		if p.X*s.nx+p.Y*s.ny-s.at <= inside {
			return false
		}
	}
	return true
}

// within is the share of the way from a to b that is strictly inside; ok is false for none.
func (c *convex) within(a, b point) (from, to float64, ok bool) {
	if max(a.X, b.X) <= c.lo.X+inside || min(a.X, b.X) >= c.hi.X-inside || max(a.Y, b.Y) <= c.lo.Y+inside || min(a.Y, b.Y) >= c.hi.Y-inside {
		return 0, 0, false
	}
	from, to = 0, 1
	for _, s := range c.sides {
		d, e := a.X*s.nx+a.Y*s.ny-s.at-inside, b.X*s.nx+b.Y*s.ny-s.at-inside
		switch {
		case d <= 0 && e <= 0:
			return 0, 0, false
		case d < 0:
			from = max(from, d/(d-e))
		case e < 0:
			to = min(to, d/(d-e))
		}
	}
	return from, to, to > from
}

// minkowski is the sum of two convex polygons: their edges in one round, by their ways.
func minkowski(a, b []point) []point {
	a, b = fromLowest(a), fromLowest(b)
	out := make([]point, 0, len(a)+len(b))
	for i, k := 0, 0; i < len(a) || k < len(b); {
		out = append(out, a[i%len(a)].Add(b[k%len(b)]))
		da, db := a[(i+1)%len(a)].Sub(a[i%len(a)]), b[(k+1)%len(b)].Sub(b[k%len(b)])
		turn := da.Cross(db)
		switch {
		case k == len(b) || i < len(a) && turn > same:
			i++
		case i == len(a) || turn < -same:
			k++
		default:
			i++
			k++
		}
	}
	return out
}

// fromLowest is a polygon begun at its lowest corner, of those the leftmost.
func fromLowest(p []point) []point {
	k := 0
	for i := range p {
		if p[i].Y < p[k].Y || p[i].Y == p[k].Y && p[i].X < p[k].X {
			k = i
		}
	}
	return append(append(make([]point, 0, len(p)), p[k:]...), p[:k]...)
}

// negated is a polygon turned half round about 0, 0.
func negated(p []point) []point {
	out := make([]point, len(p))
	for i, q := range p {
		out[i] = q.Scale(-1)
	}
	return out
}

// column is a part between two sides that go down; it grows as long as it stays convex.
type column struct{ left, right []point }

// parts divides what lies inside an odd number of rings into few convex parts: slabs at the corners'
// heights, joined while they stay convex; or so across, whichever are fewer.
func parts(rings ...[]point) [][]point {
	down := slabs(rings)
	turned := make([][]point, len(rings))
	for i, r := range rings {
		for _, p := range r {
			turned[i] = append(turned[i], pattern.Pt(p.Y, p.X))
		}
	}
	if across := slabs(turned); len(across) < len(down) {
		for _, part := range across {
			for i, p := range part {
				part[i] = pattern.Pt(p.Y, p.X)
			}
		}
		down = across
	}
	for i := range down {
		down[i] = pattern.Clockwise(down[i])
	}
	return down
}

func slabs(rings [][]point) [][]point {
	var heights []float64
	for _, r := range rings {
		for _, p := range r {
			heights = append(heights, p.Y)
		}
	}
	slices.Sort(heights)
	heights = slices.CompactFunc(heights, func(a, b float64) bool { return math.Abs(b-a) < same })
	var open []*column
	var out [][]point
	shut := func(c *column) {
		round := slices.Clone(c.left)
		for _, p := range slices.Backward(c.right) {
			if p.Sub(round[len(round)-1]).Len() > same {
				round = append(round, p)
			}
		}
		if round[0].Sub(round[len(round)-1]).Len() <= same {
			round = round[:len(round)-1]
		}
		out = append(out, round)
	}
	for k := 1; k < len(heights); k++ {
		top, bottom := heights[k-1], heights[k]
		type edge struct{ top, bottom float64 }
		var across []edge
		for _, r := range rings {
			for i, a := range r {
				b := r[(i+1)%len(r)]
				if a.Y > b.Y {
					a, b = b, a
				}
				if a.Y > top+same || b.Y < bottom-same || b.Y-a.Y < same {
					continue
				}
				at := func(y float64) float64 { return a.X + (b.X-a.X)*(y-a.Y)/(b.Y-a.Y) }
				across = append(across, edge{at(top), at(bottom)})
			}
		}
		slices.SortFunc(across, func(a, b edge) int {
			if a.top+a.bottom < b.top+b.bottom {
				return -1
			}
			return 1
		})
		var next []*column
		for i := 0; i+1 < len(across); i += 2 {
			l, r := across[i], across[i+1]
			if r.top-l.top < same && r.bottom-l.bottom < same {
				continue
			}
			on := slices.IndexFunc(open, func(c *column) bool { return c.goesOn(l.top, r.top, l.bottom, r.bottom, top, bottom) })
			if on < 0 {
				next = append(next, &column{[]point{pattern.Pt(l.top, top), pattern.Pt(l.bottom, bottom)}, []point{pattern.Pt(r.top, top), pattern.Pt(r.bottom, bottom)}})
				continue
			}
			open[on].left, open[on].right = straightOn(open[on].left, pattern.Pt(l.bottom, bottom)), straightOn(open[on].right, pattern.Pt(r.bottom, bottom))
			next = append(next, open[on])
			open = slices.Delete(open, on, on+1)
		}
		for _, c := range open {
			shut(c)
		}
		open = next
	}
	for _, c := range open {
		shut(c)
	}
	return out
}

// goesOn tells whether a slab begins just where a column ends, and the two together are convex.
func (c *column) goesOn(leftTop, rightTop, leftBottom, rightBottom, top, bottom float64) bool {
	l, r := c.left[len(c.left)-1], c.right[len(c.right)-1]
	if math.Abs(l.X-leftTop) > same || math.Abs(r.X-rightTop) > same || math.Abs(l.Y-top) > same {
		return false
	}
	slope := func(way []point) float64 {
		a, b := way[len(way)-2], way[len(way)-1]
		return (b.X - a.X) / (b.Y - a.Y)
	}
	return (leftBottom-leftTop)/(bottom-top) >= slope(c.left)-same && (rightBottom-rightTop)/(bottom-top) <= slope(c.right)+same
}

// straightOn adds a corner, or moves the last one on where it lies on the way.
func straightOn(way []point, p point) []point {
	a, b := way[len(way)-2], way[len(way)-1]
	if math.Abs(b.Sub(a).Cross(p.Sub(b))) <= same*b.Sub(a).Len()*p.Sub(b).Len() {
		way[len(way)-1] = p
		return way
	}
	return append(way, p)
}

// mostParts is into how many parts a shape comes for the search; a finer one is laid by a coarser
// outline round it.
const mostParts = 40

// coarser is an outline round another with at most as many notches as may be: the shallowest are
// filled, as long as it does not cross itself.
func coarser(outline []point) []point {
	out := slices.Clone(pattern.Clockwise(outline))
	shallow := func(i int) float64 { // the area that is filled when corner i goes; below 0 it would be cut off
		n := len(out)
		a, b, c := out[(i+n-1)%n], out[i], out[(i+1)%n]
		return -b.Sub(a).Cross(c.Sub(b)) / 2
	}
	for {
		notches, least := 0, -1
		for i := range out {
			if s := shallow(i); s > -same {
				notches++
				if least < 0 || s < shallow(least) {
					least = i
				}
			}
		}
		if notches <= mostParts/2 || len(out) < 4 {
			break
		}
		out = slices.Delete(out, least, least+1)
	}
	sum := 0.0
	for _, p := range parts(out) {
		sum += math.Abs(pattern.Area(p))
	}
	if area := math.Abs(pattern.Area(out)); math.Abs(sum-area) > 1e-6*area || len(parts(out)) > mostParts {
		return pattern.Hull(outline)
	}
	return out
}
