package pattern

import (
	"cmp"
	"math"
	"slices"
)

// Crosses reports whether a closed polygon crosses itself: two of its edges
// that are not neighbours pass through one another.
func Crosses(polygon []Point) bool {
	n := len(polygon)
	for i := range n {
		a, b := polygon[i], polygon[(i+1)%n]
		for j := i + 2; j < n; j++ {
			c, d := polygon[j], polygon[(j+1)%n]
			if max(a.X, b.X) < min(c.X, d.X) || max(c.X, d.X) < min(a.X, b.X) || max(a.Y, b.Y) < min(c.Y, d.Y) ||
				max(c.Y, d.Y) < min(a.Y, b.Y) {
				continue
			}
			u, w := b.Sub(a), d.Sub(c)
			p, q := u.Cross(c.Sub(a))/u.Len(), u.Cross(d.Sub(a))/u.Len()
			r, s := w.Cross(a.Sub(c))/w.Len(), w.Cross(b.Sub(c))/w.Len()
			if (p > Tolerance && q < -Tolerance || p < -Tolerance && q > Tolerance) &&
				(r > Tolerance && s < -Tolerance || r < -Tolerance && s > Tolerance) {
				return true
			}
		}
	}
	return false
}

// Overlap is the area, in mm², that two simple polygons share: one is clipped by the other where that
// is convex; else both are cut into triangles, and each pair of those is clipped exactly.
func Overlap(a, b []Point) float64 {
	if len(a) < len(b) {
		a, b = b, a
	}
	for _, by := range [][2][]Point{{a, b}, {b, a}} {
		if convex(by[1]) {
			return math.Abs(Area(Clip(by[0], by[1])))
		}
	}
	sum := 0.0
	others := triangles(b)
	boxes := make([][2]Point, len(others))
	for i, t := range others {
		boxes[i][0], boxes[i][1] = Bounds(t[:])
	}
	for _, s := range triangles(a) {
		lo, hi := Bounds(s[:])
		for i, t := range others {
			if least, most := boxes[i][0], boxes[i][1]; hi.X <= least.X || most.X <= lo.X || hi.Y <= least.Y || most.Y <= lo.Y {
				continue
			}
			sum += math.Abs(Area(Clip(s[:], t[:])))
		}
	}
	return sum
}

// convex reports whether a polygon turns right everywhere, as seen, and goes round once.
func convex(polygon []Point) bool {
	turned := 0.0
	for i, a := range polygon {
		b, c := polygon[(i+1)%len(polygon)], polygon[(i+2)%len(polygon)]
		u, v := b.Sub(a), c.Sub(b)
		if u.Cross(v) < -Tolerance*Tolerance {
			return false
		}
		turned += math.Atan2(u.Cross(v), u.Dot(v))
	}
	return len(polygon) > 2 && math.Abs(turned-2*math.Pi) < 1e-6
}

// Clip gives the part of a polygon that lies in a convex one, clockwise as
// seen, by cutting it along each of the convex one's edges in turn
// (Sutherland and Hodgman, 1974). It is empty where they do not meet.
func Clip(polygon, convex []Point) []Point {
	out := polygon
	for i, a := range convex {
		b := convex[(i+1)%len(convex)]
		d := b.Sub(a)
		out = keep(out, func(p Point) float64 { return d.Cross(p.Sub(a)) })
	}
	return out
}

// keep cuts a polygon along the line where side is zero and keeps the part
// where it is positive.
func keep(polygon []Point, side func(Point) float64) []Point {
	out := make([]Point, 0, len(polygon)+1)
	for i, p := range polygon {
		q := polygon[(i+1)%len(polygon)]
		sp, sq := side(p), side(q)
		if sp >= 0 {
			out = append(out, p)
		}
		if sp > 0 && sq < 0 || sp < 0 && sq > 0 {
			out = append(out, p.Add(q.Sub(p).Scale(sp/(sp-sq))))
		}
	}
	return out
}

// triangles cuts a simple polygon into triangles, clockwise as seen, by
// cutting off one ear after another.
func triangles(polygon []Point) [][3]Point {
	rest := slices.Clone(polygon)
	if Area(rest) < 0 {
		slices.Reverse(rest)
	}
	var out [][3]Point
	for len(rest) > 3 {
		ear := -1
		for i := range rest {
			if isEar(rest, i) {
				ear = i
				break
			}
		}
		if ear < 0 { // what is left has no area
			return out
		}
		n := len(rest)
		t := [3]Point{rest[(ear+n-1)%n], rest[ear], rest[(ear+1)%n]}
		if Area(t[:]) > 0 {
			out = append(out, t)
		}
		rest = slices.Delete(rest, ear, ear+1)
	}
	return append(out, [3]Point(rest))
}

// isEar reports whether a polygon's corner i can be cut off: it does not bend
// inwards, and no other corner lies in its triangle.
func isEar(polygon []Point, i int) bool {
	n := len(polygon)
	a, b, c := polygon[(i+n-1)%n], polygon[i], polygon[(i+1)%n]
	turn := b.Sub(a).Cross(c.Sub(b))
	if turn <= 0 {
		return turn == 0 || math.Abs(turn) < 1e-12
	}
	for k, p := range polygon {
		if k == i || k == (i+n-1)%n || k == (i+1)%n || p == a || p == b || p == c {
			continue
		}
		if b.Sub(a).Cross(p.Sub(a)) >= 0 && c.Sub(b).Cross(p.Sub(b)) >= 0 && a.Sub(c).Cross(p.Sub(c)) >= 0 {
			return false
		}
	}
	return true
}

// Inset gives the polygon whose edges lie the given distances inside a simple
// clockwise one: border(direction) in mm for an edge that runs that way (a
// unit vector). Edges that the borders leave nothing of are dropped. It is
// empty when nothing is left.
func Inset(polygon []Point, border func(along Point) float64) []Point {
	type side struct{ at, along Point }
	var sides []side
	for i, a := range polygon {
		d := polygon[(i+1)%len(polygon)].Sub(a)
		if d.Len() < Tolerance {
			continue
		}
		along := d.Scale(1 / d.Len())
		in := Point{-along.Y, along.X}
		s := side{a.Add(in.Scale(border(along))), along}
		// Sides in one line are one.
		if n := len(sides); n > 0 && sides[n-1].along.Dot(along) > 1-1e-9 {
			continue
		}
		sides = append(sides, s)
	}
	for len(sides) > 2 {
		n := len(sides)
		corners := make([]Point, n) // corner i is where side i begins
		for i, s := range sides {
			before := sides[(i+n-1)%n]
			det := before.along.Cross(s.along)
			if math.Abs(det) < 1e-9 {
				corners[i] = s.at
				continue
			}
			corners[i] = before.at.Add(before.along.Scale(s.at.Sub(before.at).Cross(s.along) / det))
		}
		worst, shortest := -1, -Tolerance
		for i, s := range sides {
			if run := corners[(i+1)%n].Sub(corners[i]).Dot(s.along); run < shortest {
				worst, shortest = i, run
			}
		}
		if worst < 0 {
			if Area(corners) <= Tolerance || Crosses(corners) {
				return nil
			}
			return corners
		}
		sides = slices.Delete(sides, worst, worst+1)
	}
	return nil
}

// Hull is the convex polygon around points, clockwise as seen (Andrew's
// monotone chain, 1979); of points on one line it gives fewer than three.
func Hull(points []Point) []Point {
	all := slices.Clone(points)
	slices.SortFunc(all, func(a, b Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
	all = slices.Compact(all)
	if len(all) < 3 {
		return all
	}
	half := func(in []Point) []Point {
		var out []Point
		for _, p := range in {
			for len(out) > 1 && out[len(out)-1].Sub(out[len(out)-2]).Cross(p.Sub(out[len(out)-1])) <= 1e-9 {
				out = out[:len(out)-1]
			}
			out = append(out, p)
		}
		return out[:len(out)-1]
	}
	lower := half(all)
	slices.Reverse(all)
	return append(lower, half(all)...)
}
