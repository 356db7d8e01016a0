package nest

import (
	"maps"
	"math"
	"math/rand"
	"slices"

	"brevium/core/pattern"
)

// room is a kind of sheet: its size without the trim, and what of that rectangle it lacks.
type room struct {
	kind          int
	width, height float64
	lacks         *shape // nil for a whole rectangle
	area          float64
}

// laid is a shape at its place.
type laid struct {
	*shape
	at    point
	fixed bool // by a hand
}

// spread is a sheet with what lies on it. For each shape that was asked for it knows where its top
// left may lie: lines, whose ends are the places to try.
type spread struct {
	room   *room
	fits   *fits
	placed []laid
	free   map[int]freedom
	filled float64
	held   int // the number of those with fixed pieces, from 1; 0 has none
}

// freedom is where a shape may lie; of what is placed so much is taken into account. Its lines are
// never changed, so that copies of a sheet share them.
type freedom struct {
	lines []line
	upTo  int
}

func newSpread(r *room, f *fits) *spread { return &spread{room: r, fits: f, free: map[int]freedom{}} }

// copied is a spread of its own with the same on it.
func (s *spread) copied() *spread {
	return &spread{room: s.room, fits: s.fits, placed: slices.Clone(s.placed), free: maps.Clone(s.free), filled: s.filled, held: s.held}
}

// add puts a shape at a place.
func (s *spread) add(b *shape, at point) {
	s.placed = append(s.placed, laid{b, at, false})
	s.filled += b.area
}

// emptied is a sheet with only those pieces on it that a choice keeps, and those that are fixed.
func (s *spread) emptied(keeps func(laid) bool) *spread {
	out := newSpread(s.room, s.fits)
	out.held = s.held
	for _, l := range s.placed {
		if l.fixed || keeps(l) {
			out.placed = append(out.placed, l)
			out.filled += l.area
		}
	}
	return out
}

// order puts sheets with fixed pieces first.
func (s *spread) order() int {
	if s.held == 0 {
		return math.MaxInt32
	}
	return s.held
}

// places are where a shape may lie, its top left, touching something.
func (s *spread) places(b *shape) []line {
	w, h := s.room.width-b.width, s.room.height-b.height
	if w < -1e-6 || h < -1e-6 {
		return nil
	}
	w, h = max(w, 0), max(h, 0)
	f, known := s.free[b.id]
	if !known {
		f.lines = []line{{pattern.Pt(0, 0), pattern.Pt(w, 0)}, {pattern.Pt(w, 0), pattern.Pt(w, h)}, {pattern.Pt(w, h), pattern.Pt(0, h)}, {pattern.Pt(0, h), pattern.Pt(0, 0)}}
		if s.room.lacks != nil {
			f.join(s, b, laid{s.room.lacks, point{}, true}, -1, w, h)
		}
	}
	for ; f.upTo < len(s.placed); f.upTo++ {
		f.join(s, b, s.placed[f.upTo], f.upTo, w, h)
	}
	s.free[b.id] = f
	return f.lines
}

// join takes one more piece into account: what lay in its way is gone, and its own border is new, as
// far as nothing else is in the way there.
func (f *freedom) join(s *spread, b *shape, a laid, index int, w, h float64) {
	n := s.fits.of(a.shape, b)
	var left []line
	for _, l := range f.lines {
		if max(l.a.X, l.b.X) < n.lo.X+a.at.X || min(l.a.X, l.b.X) > n.hi.X+a.at.X || max(l.a.Y, l.b.Y) < n.lo.Y+a.at.Y || min(l.a.Y, l.b.Y) > n.hi.Y+a.at.Y {
			left = append(left, l)
			continue
		}
		from := len(left)
		left = n.outside(left, line{l.a.Sub(a.at), l.b.Sub(a.at)}, -1)
		for i := from; i < len(left); i++ {
			left[i].a, left[i].b = left[i].a.Add(a.at), left[i].b.Add(a.at)
		}
	}
	f.lines = left
	if n.hi.X+a.at.X < 0 || n.lo.X+a.at.X > w || n.hi.Y+a.at.Y < 0 || n.lo.Y+a.at.Y > h {
		return
	}
	others := s.placed[:max(index, 0)]
	for _, l := range n.border {
		if x, y := max(l.a.X, l.b.X)+a.at.X, max(l.a.Y, l.b.Y)+a.at.Y; x < -1e-6 || y < -1e-6 {
			continue
		}
		if x, y := min(l.a.X, l.b.X)+a.at.X, min(l.a.Y, l.b.Y)+a.at.Y; x > w+1e-6 || y > h+1e-6 {
			continue
		}
		l, in := clipped(line{l.a.Add(a.at), l.b.Add(a.at)}, w, h)
		if !in {
			continue
		}
		now := []line{l}
		if s.room.lacks != nil && index >= 0 {
			now = s.fits.of(s.room.lacks, b).keeps(now, point{})
		}
		for _, o := range others {
			if len(now) == 0 {
				break
			}
			now = s.fits.of(o.shape, b).keeps(now, o.at)
		}
		left = append(left, now...)
	}
	f.lines = left
}

// keeps is what of lines a no-fit at a place leaves free.
func (n *noFit) keeps(lines []line, at point) []line {
	var out []line
	for _, l := range lines {
		from := len(out)
		out = n.outside(out, line{l.a.Sub(at), l.b.Sub(at)}, -1)
		for i := from; i < len(out); i++ {
			out[i].a, out[i].b = out[i].a.Add(at), out[i].b.Add(at)
		}
	}
	return out
}

// clipped is what of a line lies in a rectangle from 0, 0, its edges too.
func clipped(l line, w, h float64) (line, bool) {
	const near = 1e-6
	from, to := 0.0, 1.0
	d := l.b.Sub(l.a)
	cut := func(at, way, most float64) bool {
		// at + t·way ≥ −near and ≤ most + near
		for _, s := range [2][2]float64{{at + near, way}, {most + near - at, -way}} {
			switch {
			case math.Abs(s[1]) < 1e-12:
				if s[0] < 0 {
					return false
				}
			case s[1] > 0:
				from = max(from, -s[0]/s[1])
			default:
				to = min(to, -s[0]/s[1])
			}
		}
		return true
	}
	if !cut(l.a.X, d.X, w) || !cut(l.a.Y, d.Y, h) || from > to {
		return line{}, false
	}
	held := func(p point) point { return pattern.Pt(max(0, min(w, p.X)), max(0, min(h, p.Y))) }
	return line{held(l.a.Add(d.Scale(from))), held(l.a.Add(d.Scale(to)))}, true
}

// choice is how places are preferred: by how much of the outline touches, or towards a corner.
type choice struct {
	contact bool
	corner  int
	noise   float64
	rng     *rand.Rand
}

// best is the place a shape is put at, and how good it is; ok is false where it does not go.
func (s *spread) best(b *shape, c choice) (at point, worth float64, ok bool) {
	lines := s.places(b)
	worth = math.Inf(-1)
	seen := map[[2]int64]bool{}
	for _, l := range lines {
		for _, p := range [2]point{l.a, l.b} {
			key := [2]int64{cell(p.X), cell(p.Y)}
			if seen[key] {
				continue
			}
			seen[key] = true
			v := 0.0
			if c.contact {
				v = s.touch(b, p) * (1 + c.noise*c.rng.Float64())
			}
			v -= c.far(p, s.room, b) * 1e-4
			if !c.contact {
				v *= 1 + c.noise*c.rng.Float64()
			}
			if v > worth {
				at, worth, ok = p, v, true
			}
		}
	}
	return at, worth, ok
}

// far is how far a place is from the corner that is filled first, along its longer way first.
func (c choice) far(p point, r *room, b *shape) float64 {
	x, y := p.X, p.Y
	if c.corner&1 != 0 {
		x = r.width - b.width - x
	}
	if c.corner&2 != 0 {
		y = r.height - b.height - y
	}
	if c.corner&4 != 0 {
		return x + y*50
	}
	return y + x*50
}

// touch is how long a shape's outline touches others and the sheet's edges, in mm.
func (s *spread) touch(b *shape, at point) float64 {
	const near = 1e-4
	sum := 0.0
	for _, e := range b.edges {
		from, to := e.a.Add(at), e.b.Add(at)
		if math.Abs(e.way.X) < 1e-9 && (from.X < near || from.X > s.room.width-near) || math.Abs(e.way.Y) < 1e-9 && (from.Y < near || from.Y > s.room.height-near) {
			sum += e.long
			continue
		}
		lo, hi := pattern.Pt(min(from.X, to.X)-near, min(from.Y, to.Y)-near), pattern.Pt(max(from.X, to.X)+near, max(from.Y, to.Y)+near)
		for i := range s.placed {
			o := &s.placed[i]
			if lo.X > o.at.X+o.width || hi.X < o.at.X || lo.Y > o.at.Y+o.height || hi.Y < o.at.Y {
				continue
			}
			q := from.Sub(o.at)
			for k := range o.edges {
				f := &o.edges[k]
				if math.Abs(e.way.Cross(f.way)) > 1e-4 || math.Abs(f.way.Cross(q.Sub(f.a))) > near {
					continue
				}
				s0 := f.way.Dot(q.Sub(f.a))
				s1 := s0 + f.way.Dot(e.way)*e.long
				if over := min(max(s0, s1), f.long) - max(min(s0, s1), 0); over > 0 {
					sum += over
				}
			}
		}
	}
	return sum
}
