package pattern

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// AnglesFrom sets every crease's final angle and side from the folded form
// itself: place says where in space each corner of the flat pattern ends up,
// or false for corners it knows nothing of, whose creases are left as they are.
// The angle between two faces is that between their outsides, signed by the
// crease. On which side of a face its neighbour lies when they are folded flat
// onto one another no place tells: nearly, where corners are a little before,
// does. Folding by these angles proves the lengths: where they are wrong,
// rings do not close. It fails when a face has no three corners off a line.
func (p *Pattern) AnglesFrom(place, nearly func(Point) (r3.Vec, bool)) error {
	turns, err := p.turns(func(_ string, at Point) (r3.Vec, bool) { return place(at) })
	if err != nil {
		return err
	}
	before, err := p.turns(func(_ string, at Point) (r3.Vec, bool) { return nearly(at) })
	for i, turn := range turns {
		c := &p.Creases[i]
		side := turn
		if math.Abs(turn) > 180-flatFold {
			side = before[i]
		}
		if c.Angle, c.Side = math.Abs(turn), Away; side < 0 {
			c.Side = Towards
		}
	}
	return err
}

// flatFold is how near to 180°, in degrees, a fold has no side of its own.
const flatFold = 1e-6

// Turns gives each crease's angle in a form of the piece, in degrees on the
// crease's own side (less than nothing is the other), from where the corners
// of each face are in it, given by the face's name; those of creases whose
// faces place knows nothing of are 0.
func (p *Pattern) Turns(place func(face string, at Point) (r3.Vec, bool)) ([]float64, error) {
	turns, err := p.turns(place)
	out := make([]float64, len(p.Creases))
	for i, turn := range turns {
		if out[i] = turn; p.Creases[i].Side == Towards {
			out[i] = -turn
		}
	}
	return out, err
}

// turns gives the creases' angles by number, those away from the viewer over
// nothing.
func (p *Pattern) turns(place func(face string, at Point) (r3.Vec, bool)) (map[int]float64, error) {
	faces, err := p.Faces()
	if err != nil {
		return nil, err
	}
	normals := make([]r3.Vec, len(faces))
	known := make([]bool, len(faces))
	for i, f := range faces {
		space, ok := placeAll(f, place)
		if !ok {
			continue
		}
		known[i] = true
		// Twice the vector area; pattern corners run clockwise as seen from
		// outside, which is against the clock about the inward normal.
		var sum r3.Vec
		for k := 1; k+1 < len(space); k++ {
			sum = r3.Add(sum, r3.Cross(r3.Sub(space[k], space[0]), r3.Sub(space[k+1], space[0])))
		}
		if r3.Norm(sum) < Tolerance {
			return nil, fmt.Errorf("the face %q has no area when folded", f.Name)
		}
		normals[i] = r3.Scale(-1, r3.Unit(sum))
	}
	out := map[int]float64{}
	for i, f := range faces {
		for e, edge := range f.edges {
			if edge.crease < 0 || edge.neighbour < 0 || !known[i] || !known[edge.neighbour] {
				continue
			}
			a, _ := place(f.Name, f.Polygon[e])
			b, _ := place(f.Name, f.Polygon[(e+1)%len(f.Polygon)])
			d := r3.Unit(r3.Sub(b, a))
			n, m := normals[i], normals[edge.neighbour]
			out[edge.crease] = math.Atan2(-r3.Dot(r3.Cross(n, m), d), r3.Dot(n, m)) * 180 / math.Pi
		}
	}
	return out, nil
}

func placeAll(f Face, place func(string, Point) (r3.Vec, bool)) ([]r3.Vec, bool) {
	var out []r3.Vec
	for _, q := range f.Polygon {
		v, ok := place(f.Name, q)
		if !ok {
			return nil, false
		}
		out = append(out, v)
	}
	return out, true
}

// Extent3 is a size in space, in mm: along and across the root face, and up
// from it.
type Extent3 struct{ X, Y, Z float64 }

// Sizes measures the finished piece from its layers, inside and outside, for
// card of thickness t mm. The root face lies level; X runs along its pattern's
// x and Y along its y. Two opposite walls are as far apart as their folds;
// half a thickness goes off at each wall, and a whole one for every layer
// that is glued or tucked inside it. An open side ends at the rim.
func (f *Folded) Sizes(p *Pattern, t float64) (inside, outside Extent3) {
	levels := f.Levels(p)
	x, xo := f.across(p, levels, r3.Vec{X: 1}, t)
	y, yo := f.across(p, levels, r3.Vec{Y: 1}, t)
	z, zo := f.across(p, levels, r3.Vec{Z: 1}, t)
	return Extent3{x, y, z}, Extent3{xo, yo, zo}
}

// level is how near, in mm, two faces lie to count as on one plane.
const level = 1e-3

// across measures along one direction.
func (f *Folded) across(p *Pattern, levels []int, dir r3.Vec, t float64) (inside, outside float64) {
	least, most := math.Inf(1), math.Inf(-1)
	for i, face := range f.Faces {
		for _, q := range face.Polygon {
			d := r3.Dot(f.Poses[i].Place(q), dir)
			least, most = min(least, d), max(most, d)
		}
	}
	lowIn, lowOut := f.wallAt(p, levels, dir, least, t)
	highIn, highOut := f.wallAt(p, levels, dir, most, t)
	return most - least - lowIn - highIn, most - least + lowOut + highOut
}

// wallAt gives how much a wall at the end of the measure takes off inside and
// puts on outside: nothing at an open rim but the fold of a rolled one.
func (f *Folded) wallAt(p *Pattern, levels []int, dir r3.Vec, at, t float64) (in, out float64) {
	closed := false
	var walls []int
	for i, face := range f.Faces {
		n := f.Poses[i].Normal()
		if math.Abs(math.Abs(r3.Dot(n, dir))-1) < 1e-6 && math.Abs(r3.Dot(f.Poses[i].Place(face.Polygon[0]), dir)-at) < level {
			walls = append(walls, i)
			closed = true
		}
	}
	if !closed {
		if f.rolledAt(p, dir, at) {
			out = t / 2
		}
		return 0, out
	}
	inner, outer := 0, 0
	for _, w := range walls {
		inner = max(inner, f.layers(p, levels, w, false))
		outer = max(outer, f.layers(p, levels, w, true))
	}
	return t/2 + float64(inner)*t, t/2 + float64(outer)*t
}

// rolledAt reports whether a crease folded right over lies at the rim.
func (f *Folded) rolledAt(p *Pattern, dir r3.Vec, at float64) bool {
	for i, face := range f.Faces {
		for e, edge := range face.edges {
			if edge.crease >= 0 && p.Creases[edge.crease].Angle > 179 &&
				math.Abs(r3.Dot(f.Poses[i].Place(face.Polygon[e]), dir)-at) < level {
				return true
			}
		}
	}
	return false
}

// RolledAt reports whether one of the two edges at corner k of the face is
// folded right over.
func (f *Face) RolledAt(p *Pattern, k int) bool {
	for _, e := range []int{k, (k + len(f.edges) - 1) % len(f.edges)} {
		if c := f.edges[e].crease; c >= 0 && p.Creases[c].Angle > 179 {
			return true
		}
	}
	return false
}

// Bounds gives the corners of the upright box around a folded piece in a pose.
func (f *Folded) Bounds(pose Pose) (least, most r3.Vec) {
	inf := math.Inf(1)
	least, most = r3.Vec{X: inf, Y: inf, Z: inf}, r3.Vec{X: -inf, Y: -inf, Z: -inf}
	for i, face := range f.Faces {
		h := hull(face.Polygon, f.Poses[i].Then(pose))
		least = r3.Vec{X: min(least.X, h[0].X), Y: min(least.Y, h[0].Y), Z: min(least.Z, h[0].Z)}
		most = r3.Vec{X: max(most.X, h[1].X), Y: max(most.Y, h[1].Y), Z: max(most.Z, h[1].Z)}
	}
	return least, most
}
