package pattern

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
)

// gridEdge runs between two corners; the card is on its right.
type gridEdge struct{ from, to spot }

type edgeKey [2][2]measure.Length

func (e gridEdge) key() edgeKey { return edgeKey{e.from.at(), e.to.at()} }

// back is the key of the same edge from the other side.
func (e gridEdge) back() edgeKey { return edgeKey{e.to.at(), e.from.at()} }

// edges gives a cell's edges, cut where grid lines cross them, so that the
// edges of neighbours of different lengths match.
func (g *Grid) edges(c *cell) []gridEdge {
	var out []gridEdge
	for i, a := range c.shape {
		b := c.shape[(i+1)%len(c.shape)]
		from := a
		if a.bulge == 0 && (a.x == b.x || a.y == b.y) {
			lines := g.xs
			if a.x == b.x {
				lines = g.ys
			}
			for _, mid := range between(lines, a, b) {
				out = append(out, gridEdge{from, mid})
				from = mid
			}
		}
		out = append(out, gridEdge{from, b})
	}
	return out
}

// between gives the corners that grid lines make strictly between a and b,
// on the way from a to b.
func between(lines []measure.Length, a, b spot) []spot {
	var out []spot
	for _, l := range lines {
		mid := spot{x: l, y: a.y}
		lo, hi := min(a.x, b.x), max(a.x, b.x)
		if a.x == b.x {
			mid = spot{x: a.x, y: l}
			lo, hi = min(a.y, b.y), max(a.y, b.y)
		}
		if l > lo && l < hi {
			out = append(out, mid)
		}
	}
	if a.x > b.x || a.y > b.y {
		slices.Reverse(out)
	}
	return out
}

// Pattern derives outline, creases, slits, scores and glue.
func (g *Grid) Pattern() (*Pattern, error) {
	if g.err != nil {
		return nil, g.err
	}
	p := &Pattern{Width: g.xs[len(g.xs)-1], Height: g.ys[len(g.ys)-1]}
	owner := map[edgeKey]string{}
	for _, name := range g.order {
		for _, e := range g.edges(g.cells[name]) {
			owner[e.key()] = name
		}
	}
	free := map[[2]measure.Length][]gridEdge{} // outline edges by their start
	var first *gridEdge
	shared := map[[2]string][]gridEdge{}
	var pairs [][2]string
	for _, name := range g.order {
		for _, e := range g.edges(g.cells[name]) {
			other, met := owner[e.back()]
			key := pair(name, other)
			switch {
			case !met || e.from.bulge != 0:
				free[e.from.at()] = append(free[e.from.at()], e)
				if first == nil {
					first = &e
				}
			case name == key[0]:
				if shared[key] == nil {
					pairs = append(pairs, key)
				}
				shared[key] = append(shared[key], e)
			}
		}
	}
	if first == nil {
		return nil, fmt.Errorf("grid has no cells")
	}
	for _, key := range pairs {
		g.join(p, key, shared[key])
	}
	if err := p.trace(free, *first); err != nil {
		return nil, err
	}
	g.scores(p)
	for _, name := range g.order {
		c := g.cells[name]
		p.Marks = append(p.Marks, Mark{Name: name, Role: c.role, At: c.middle(), Up: c.up})
	}
	for _, s := range g.glue {
		s.Area = g.cell(s.Face).loop().Flat()
		p.Glue = append(p.Glue, s)
	}
	return p, g.err
}

func (c *cell) loop() Loop {
	var l Loop
	for _, s := range c.shape {
		l = append(l, Vertex{s.point(), s.bulge})
	}
	return l
}

// middle is a point inside the cell: the mean of its corners.
func (c *cell) middle() Point {
	mid := Point{}
	for _, s := range c.shape {
		mid = mid.Add(s.point().Scale(1 / float64(len(c.shape))))
	}
	return mid
}

// join makes one line of the stretches that two faces share.
func (g *Grid) join(p *Pattern, key [2]string, edges []gridEdge) {
	seg := Segment{edges[0].from.point(), edges[0].to.point()}
	for _, e := range edges[1:] {
		if e.from.point() == seg.B {
			seg.B = e.to.point()
		} else {
			seg.A = e.from.point()
		}
	}
	j, told := g.joints[key]
	switch {
	case !told:
		p.Creases = append(p.Creases, Crease{Segment: seg, Angle: 90, Side: Away})
	case j.slit:
		p.Slits = append(p.Slits, seg)
	default:
		p.Creases = append(p.Creases, Crease{Segment: seg, Angle: j.angle, Side: j.side, Rolled: j.rolled})
	}
}

// scores sorts the grid's lines into those scored over the whole blank and
// those that stop short because a face lies across them.
func (g *Grid) scores(p *Pattern) {
	crossed := func(c *cell, line int, vertical bool) bool {
		if vertical {
			return c.left < line && line < c.right
		}
		return c.top < line && line < c.down
	}
	sort := func(lines []measure.Length, vertical bool, full *[]measure.Length) {
		for i := 1; i+1 < len(lines); i++ {
			at := lines[i].MM()
			on := func(c Crease) bool {
				return vertical && c.A.X == at && c.B.X == at || !vertical && c.A.Y == at && c.B.Y == at
			}
			if slices.ContainsFunc(p.Creases, func(c Crease) bool { return on(c) && c.Rolled }) {
				continue
			}
			short := slices.ContainsFunc(g.order, func(n string) bool { return crossed(g.cells[n], i, vertical) })
			if !short {
				*full = append(*full, lines[i])
				continue
			}
			for _, c := range p.Creases {
				if on(c) {
					p.Scores.Part = lengthen(p.Scores.Part, c.Segment)
				}
			}
		}
	}
	sort(g.xs, true, &p.Scores.Vertical)
	sort(g.ys, false, &p.Scores.Horizontal)
}

// lengthen adds a line, joining it to one it continues.
func lengthen(all []Segment, s Segment) []Segment {
	if s.B.X < s.A.X || s.B.Y < s.A.Y {
		s.A, s.B = s.B, s.A
	}
	for i, o := range all {
		u, v := o.B.Sub(o.A), s.B.Sub(s.A)
		if math.Abs(u.Cross(v)) > Tolerance {
			continue
		}
		if o.B == s.A {
			all[i].B = s.B
			return all
		}
		if o.A == s.B {
			all[i].A = s.A
			return all
		}
	}
	return append(all, s)
}

// trace follows the free edges round. Where two meet in one point (a tab's
// wedge ends on a corner) the sharpest right-hand turn keeps to the same
// side of the card.
func (p *Pattern) trace(free map[[2]measure.Length][]gridEdge, first gridEdge) error {
	total := 0
	for _, es := range free {
		total += len(es)
	}
	e, path := first, []spot{}
	for range total {
		path = append(path, e.from)
		next := free[e.to.at()]
		if len(next) == 0 {
			return fmt.Errorf("outline breaks off at %v", e.to.point())
		}
		best := 0
		for i := range next {
			if turn(e, next[i]) > turn(e, next[best]) {
				best = i
			}
		}
		e = next[best]
		if e == first {
			break
		}
	}
	if e != first || len(path) != total {
		return fmt.Errorf("outline is not one piece of card")
	}
	for i, s := range path {
		before, after := path[(i+len(path)-1)%len(path)], path[(i+1)%len(path)]
		in, out := s.point().Sub(before.point()), after.point().Sub(s.point())
		straight := before.bulge == 0 && s.bulge == 0
		if !straight || in.Cross(out) != 0 || in.Dot(out) < 0 {
			p.Outline = append(p.Outline, Vertex{s.point(), s.bulge})
		}
	}
	return nil
}

// turn grows with how far b turns to the right (clockwise) after a.
func turn(a, b gridEdge) float64 {
	u, v := a.to.point().Sub(a.from.point()), b.to.point().Sub(b.from.point())
	return angle(u, v)
}

// Notch bites a half circle out of the outline, its centre on a straight
// edge, and records it as an opening in the named face.
func (p *Pattern) Notch(face string, centre Point, radius float64) error {
	for i, v := range p.Outline {
		next := p.Outline[(i+1)%len(p.Outline)].Point
		d := next.Sub(v.Point)
		along := centre.Sub(v.Point).Dot(d) / d.Len()
		if v.Bulge != 0 || math.Abs(centre.Sub(v.Point).Cross(d))/d.Len() > Tolerance || along < radius || along > d.Len()-radius {
			continue
		}
		step := d.Scale(radius / d.Len())
		a, b := centre.Sub(step), centre.Add(step)
		p.Outline = slices.Insert(p.Outline, i+1, Vertex{a, -1}, Vertex{b, 0})
		p.Openings = append(p.Openings, Opening{Kind: "notch", Face: face, Loop: Loop{{a, -1}, {b, 0}}})
		// A mark that stood in the notch moves on into the face.
		for k, m := range p.Marks {
			if m.Name == face && m.At.Sub(centre).Len() < radius+1 {
				p.Marks[k].At = centre.Add(Point{-step.Y, step.X}.Scale((radius + 1) / radius))
			}
		}
		return nil
	}
	return fmt.Errorf("a notch of %.1f mm does not fit at (%.1f, %.1f) mm", 2*radius, centre.X, centre.Y)
}
