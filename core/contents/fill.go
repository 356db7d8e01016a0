package contents

import (
	"math"
	"slices"

	"brevium/core/measure"
)

// filled is how a clear room is filled: by one grid, whose rows may run across
// the room, or by two parts side by side along an axis, filled each its own way.
type filled struct {
	count   int
	grid    *grid
	crossed bool // the grid's rows run along the width
	axis    Axis
	at      measure.Length // where the second part begins
	a, b    *filled
}

// filler fills rooms with one kind of thing. Parts are cut where some number
// of things in one direction ends, again and again (a guillotine pattern); the
// depth is bounded by how many things there are to place.
type filler struct {
	thing Thing
	ways  []grid
	known map[fillKey]*filled
}

type fillKey struct {
	Room
	depth int
}

func (r Room) along(a Axis) measure.Length {
	switch a {
	case AlongLength:
		return r.Length
	case AlongWidth:
		return r.Width
	}
	return r.Height
}

// upTo is the room with another size along an axis.
func (r Room) upTo(a Axis, l measure.Length) Room {
	switch a {
	case AlongLength:
		r.Length = l
	case AlongWidth:
		r.Width = l
	default:
		r.Height = l
	}
	return r
}

func (r Room) volume() float64 { return r.Length.MM() * r.Width.MM() * r.Height.MM() }

// fill finds how many things go into a clear room when they may stand in
// several directions.
func fill(clear Room, t Thing) *filled {
	f := filler{thing: t, ways: t.ways(), known: map[fillKey]*filled{}}
	most := f.most(clear)
	depth := 3
	switch {
	case most > 200:
		depth = 1
	case most > 40:
		depth = 2
	}
	return f.best(clear, depth)
}

// most bounds how many things a room takes: by volume, or by area where
// nothing stands on anything. Round things that stand fill a square by at most
// π/√12.
func (f *filler) most(r Room) int {
	g := f.ways[0]
	things := g.l.MM() * g.w.MM() * g.h.MM()
	room := r.volume()
	if f.thing.Fragile {
		things, room = things/g.h.MM(), r.Length.MM()*r.Width.MM()
		for _, o := range f.ways {
			things = min(things, o.l.MM()*o.w.MM())
		}
	}
	if f.thing.Shape == Round {
		things *= math.Sqrt(3) / 2 // of the square each stands in
	}
	if things <= 0 {
		return 0
	}
	return int(room/things + 1e-9)
}

func (f *filler) best(r Room, depth int) *filled {
	if min(r.Length, r.Width, r.Height) <= 0 {
		return &filled{}
	}
	key := fillKey{r, depth}
	if known := f.known[key]; known != nil {
		return known
	}
	best := f.one(r)
	f.known[key] = best
	most := f.most(r)
	axes := []Axis{AlongLength, AlongWidth, AlongHeight}
	if f.thing.Fragile {
		axes = axes[:2]
	}
	for _, axis := range axes {
		for _, at := range f.ends(r, axis) {
			if depth == 0 || best.count >= most {
				break
			}
			a := f.best(r.upTo(axis, at), depth-1)
			b := f.best(r.upTo(axis, r.along(axis)-at), depth-1)
			if n := a.count + b.count; n > best.count {
				best = &filled{count: n, axis: axis, at: at, a: a, b: b}
			}
		}
	}
	f.known[key] = best
	return best
}

// ends lists where rows of things in some direction end along an axis, up to
// the last that leaves room for another.
func (f *filler) ends(r Room, axis Axis) []measure.Length {
	var out []measure.Length
	for _, g := range f.ways {
		size := Room{g.l, g.w, g.h}.along(axis)
		for at := size; size > 0 && at < r.along(axis); at += size {
			out = append(out, at)
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// one fills a room with one grid: the best over the ways up, straight rows,
// and for round things that stand staggered ones, along the length and along
// the width.
func (f *filler) one(r Room) *filled {
	best := &filled{}
	for _, g := range f.ways {
		for _, pack := range []packing{straight, staggered, alternate} {
			if pack != straight && (f.thing.Shape != Round || g.up != HeightUp) {
				continue
			}
			g.pack = pack
			for _, crossed := range []bool{false, true} {
				room := r
				if crossed {
					if pack == straight { // every direction is a way of its own
						continue
					}
					room.Length, room.Width = r.Width, r.Length
				}
				if h := g.holds(room, f.thing); h.Count > best.count {
					leaf := g
					leaf.fit(room, f.thing)
					best = &filled{count: h.Count, grid: &leaf, crossed: crossed}
				}
			}
		}
	}
	return best
}

// spots places everything, from the room's corner at x, y, z.
func (f *filled) spots(to []Spot, x, y, z measure.Length) []Spot {
	switch {
	case f.count == 0:
		return to
	case f.grid == nil:
		to = f.a.spots(to, x, y, z)
		switch f.axis {
		case AlongLength:
			x += f.at
		case AlongWidth:
			y += f.at
		default:
			z += f.at
		}
		return f.b.spots(to, x, y, z)
	}
	leaf := *f.grid
	leaf.count = f.count
	for _, s := range leaf.block().place(nil, 0, 0) {
		if f.crossed {
			s.X, s.Y, s.Length, s.Width = s.Y, s.X, s.Width, s.Length
		}
		s.X, s.Y, s.Z = s.X+x, s.Y+y, s.Z+z
		to = append(to, s)
	}
	return to
}
