package draw

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/pattern"
	"brevium/core/style"
)

const (
	// mostInside is how many things are drawn inside a box at most: more are a tangle of lines.
	mostInside = 24
	// roundSides is of how many sides a round thing is drawn.
	roundSides = 24
)

// FilledModelOf is ModelOf with the outlines of what goes in, as broken lines where they stand.
func FilledModelOf(r *design.Result) *Model {
	m := ModelOf(r, false)
	m.things = m.inside(r)
	return m
}

// inside gives the outlines in space of what goes in, in each of the box's rooms.
func (m *Model) inside(r *design.Result) [][]r3.Vec {
	room := r.Box.Room.In(m.shown, m.parts)
	if r.Stand == nil || room.Height == nil || room.Bulges || len(r.Stand.Spots)*max(1, room.Times) > mostInside {
		return nil
	}
	// The things' corner at the left of the back, on the floor.
	corner := r3.Add(room.At, r3.Vec{X: -r.Needs.Length.MM() / 2, Y: r.Needs.Width.MM() / 2})
	if room.Cradles {
		corner.Z -= r.Needs.Height.MM() / 2
	}
	var out [][]r3.Vec
	for _, s := range r.Stand.Spots {
		round := s.Thing < len(r.Inputs.Things) && r.Inputs.Things[s.Thing].Shape == contents.Round && !s.Lying
		for _, line := range thing(s, round) {
			for i, v := range line {
				line[i] = r3.Add(corner, v)
			}
			for _, turn := range m.rooms(room) {
				out = append(out, moved(line, turn))
			}
		}
	}
	return out
}

// rooms are the poses by which the first of a box's equal rooms comes to each.
func (m *Model) rooms(room style.Room) []pattern.Pose {
	here := []pattern.Pose{{Turn: r3.NewRotation(0, r3.Vec{X: 1})}}
	for i, p := range m.parts {
		if len(p.Places) != room.Times || room.Times < 2 || p.ID != room.Part && (i > 0 || room.Part != "") {
			continue
		}
		back := p.Places[0].Inverse()
		here = nil
		for _, place := range p.Places {
			here = append(here, back.Then(place))
		}
	}
	return here
}

func moved(line []r3.Vec, by pattern.Pose) []r3.Vec {
	out := make([]r3.Vec, len(line))
	for i, v := range line {
		out[i] = r3.Add(by.Turn.Rotate(v), by.Shift)
	}
	return out
}

// thing is the outline of one thing from the corner of them all: its foot, its top, and the
// lines at its sides.
func thing(s contents.Spot, round bool) [][]r3.Vec {
	x, y, z := s.X.MM(), -s.Y.MM(), s.Z.MM()
	l, w, h := s.Length.MM(), s.Width.MM(), s.Height.MM()
	var foot []r3.Vec
	sides := []int{0, 1, 2, 3}
	if round {
		for i := range roundSides {
			at := azimuth + 2*math.Pi*float64(i)/roundSides
			foot = append(foot, r3.Vec{X: x + l/2 + l/2*math.Cos(at), Y: y - w/2 + w/2*math.Sin(at), Z: z})
		}
		sides = []int{0, roundSides / 2} // as far to the right and to the left as is seen
	} else {
		foot = []r3.Vec{{X: x, Y: y, Z: z}, {X: x + l, Y: y, Z: z}, {X: x + l, Y: y - w, Z: z}, {X: x, Y: y - w, Z: z}}
	}
	up := r3.Vec{Z: h}
	var top []r3.Vec
	for _, v := range foot {
		top = append(top, r3.Add(v, up))
	}
	out := [][]r3.Vec{foot, top}
	for _, i := range sides {
		out = append(out, []r3.Vec{foot[i], top[i]})
	}
	return out
}

// openIn are the holes of a piece that lie in a polygon, such as a paper on it.
func openIn(holes []pattern.Loop, polygon []pattern.Point) [][]pattern.Point {
	var out [][]pattern.Point
	for _, loop := range holes {
		if flat := loop.Flat(); !slices.ContainsFunc(flat, func(q pattern.Point) bool { return !pattern.Contains(polygon, q) }) {
			out = append(out, flat)
		}
	}
	return out
}
