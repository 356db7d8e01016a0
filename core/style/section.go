package style

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/pattern"
)

// Axes of a finished box, as a loop goes round them.
const (
	AlongLength = iota
	AlongWidth
	AlongHeight
)

// Plate is a flat piece of something that lies on a finished box: its corners in
// space, clockwise from outside, and how thick it is, in mm.
type Plate struct {
	Corners []r3.Vec
	Thick   float64
}

// Outward is the way a plate looks.
func (p Plate) Outward() r3.Vec {
	a, b, c := p.Corners[0], p.Corners[1], p.Corners[2]
	return r3.Unit(r3.Cross(r3.Sub(c, b), r3.Sub(a, b)))
}

// Ring is what lies on the box along a hull that Section gave: one plate to each
// edge of it, so wide about a place so far along the axis.
func Ring(bodies []Body, hull []pattern.Point, axis int, at, width, thick float64) []Plate {
	if axis == AlongHeight {
		at += middle(bodies)
	}
	var out []Plate
	for i, p := range hull {
		q := hull[(i+1)%len(hull)]
		ring := Plate{[]r3.Vec{across(p, axis, at-width/2), across(q, axis, at-width/2), across(q, axis, at+width/2), across(p, axis, at+width/2)}, thick}
		// The hull runs clockwise as seen along the axis; its outside is on the left.
		d := q.Sub(p)
		if r3.Dot(ring.Outward(), across(pattern.Pt(d.Y, -d.X), axis, 0)) < 0 {
			slices.Reverse(ring.Corners)
		}
		out = append(out, ring)
	}
	return out
}

// across is the place in space that along sees at a point.
func across(p pattern.Point, axis int, at float64) r3.Vec {
	switch axis {
	case AlongLength:
		return r3.Vec{X: at, Y: p.X, Z: -p.Y}
	case AlongWidth:
		return r3.Vec{X: p.X, Y: at, Z: -p.Y}
	}
	return r3.Vec{X: p.X, Y: p.Y, Z: at}
}

// middle is half-way up the box.
func middle(bodies []Body) float64 {
	least, most := math.Inf(1), math.Inf(-1)
	for _, b := range bodies {
		for i, f := range b.Faces {
			for _, q := range f.Polygon {
				z := b.Poses[i].Place(q).Z
				least, most = min(least, z), max(most, z)
			}
		}
	}
	return (least + most) / 2
}

// Section is the hull of what a box shows in a slab across one of its axes, so
// wide about a place so far from the middle, in mm, as seen along the axis: the
// outer surfaces of its card with what lies over it, its corners sharp. raised is what lies on the
// outside of a face besides, in mm, and over what lies on the box already. It runs clockwise with y down; of a slab
// beside the box nothing is left.
func Section(bodies []Body, over []Plate, axis int, at, width float64, raised func(*Body, pattern.Face) float64) []pattern.Point {
	lo, hi := at-width/2, at+width/2
	if axis == AlongHeight { // from the middle of its height
		lo, hi = lo+middle(bodies), hi+middle(bodies)
	}
	var points []pattern.Point
	for k := range bodies {
		b := &bodies[k]
		t := b.Part.Card.MM()
		for i, f := range b.Faces {
			n := b.Poses[i].Normal()
			middle := float64(b.Levels[i]) * t
			var space []r3.Vec
			for _, q := range f.Polygon {
				space = append(space, b.Poses[i].Place(q))
			}
			for _, v := range slab(space, axis, lo, hi) {
				for _, off := range []float64{middle - t/2, middle + t/2 + raised(b, f)} {
					points = append(points, along(r3.Add(v, r3.Scale(off, n)), axis))
				}
			}
		}
	}
	for _, p := range over {
		for _, v := range slab(p.Corners, axis, lo, hi) {
			points = append(points, along(r3.Add(v, r3.Scale(p.Thick, p.Outward())), axis))
		}
	}
	if len(points) < 3 {
		return nil
	}
	return sharpened(pattern.Hull(points))
}

// blunt is how long, in mm, the edges at a corner may be together that come of the
// thickness of what is folded and glued there: an account takes such a corner as
// sharp.
const blunt = 4.0

// sharpened is a hull whose blunt corners are where their two sides would meet.
func sharpened(hull []pattern.Point) []pattern.Point {
	n := len(hull)
	long := func(i int) float64 { return hull[(i+1)%n].Sub(hull[i%n]).Len() }
	start := 0 // the longest edge
	for i := range hull {
		if long(i) > long(start) {
			start = i
		}
	}
	var out []pattern.Point
	for k := 1; k <= n; {
		run, length := k, 0.0
		for run < n && long(start+run) < blunt/2 && length+long(start+run) < blunt {
			length += long(start + run)
			run++
		}
		before, after := start+k-1, start+run
		corner := hull[(start+k)%n]
		if run > k && long(before) >= blunt/2 && long(after) >= blunt/2 {
			if at, meet := lines(hull[before%n], hull[(before+1)%n], hull[after%n], hull[(after+1)%n]); meet && at.Sub(corner).Len() < blunt {
				out = append(out, at)
				k = run + 1
				continue
			}
		}
		out = append(out, corner)
		k++
	}
	return out
}

// lines is where the lines through a and b, and through c and d, meet.
func lines(a, b, c, d pattern.Point) (pattern.Point, bool) {
	u, v := b.Sub(a), d.Sub(c)
	det := u.Cross(v)
	if math.Abs(det) < 0.05*u.Len()*v.Len() {
		return pattern.Point{}, false
	}
	return a.Add(u.Scale(c.Sub(a).Cross(v) / det)), true
}

// along is a place as it is seen along an axis.
func along(v r3.Vec, axis int) pattern.Point {
	switch axis {
	case AlongLength:
		return pattern.Pt(v.Y, -v.Z)
	case AlongWidth:
		return pattern.Pt(v.X, -v.Z)
	}
	return pattern.Pt(v.X, v.Y)
}

// slab is the part of a polygon in space that lies between two planes across an
// axis.
func slab(polygon []r3.Vec, axis int, lo, hi float64) []r3.Vec {
	on := func(v r3.Vec) float64 { return []float64{v.X, v.Y, v.Z}[axis] }
	above := clip(polygon, func(v r3.Vec) float64 { return on(v) - lo })
	return clip(above, func(v r3.Vec) float64 { return hi - on(v) })
}

// clip is the part of a polygon in space where side, linear in the place, is
// not negative.
func clip(polygon []r3.Vec, side func(r3.Vec) float64) []r3.Vec {
	var out []r3.Vec
	for i, p := range polygon {
		q := polygon[(i+1)%len(polygon)]
		a, b := side(p), side(q)
		if a >= 0 {
			out = append(out, p)
		}
		if a > 0 && b < 0 || a < 0 && b > 0 {
			out = append(out, r3.Add(p, r3.Scale(a/(a-b), r3.Sub(q, p))))
		}
	}
	return out
}
