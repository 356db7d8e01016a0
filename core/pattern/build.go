package pattern

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
)

// leafEdge runs between two corners; the card is on its right.
type leafEdge struct {
	from, to spot
	of       *Leaf
}

type edgeKey struct {
	from, to [2]measure.Length
	bulge    float64
}

func (e leafEdge) key() edgeKey { return edgeKey{e.from.at(), e.to.at(), e.from.bulge} }

// back is the key of the same edge from the other side.
func (e leafEdge) back() edgeKey { return edgeKey{e.to.at(), e.from.at(), -e.from.bulge} }

// Pattern derives outline, creases, slits, scores and glue, or gives the
// first fault. Faces that lie over one another, or hang on nothing, are faults.
func (b *Builder) Pattern() (*Pattern, error) {
	if b.err != nil {
		return nil, b.err
	}
	if len(b.leaves) == 0 {
		return nil, &Misbuilt{Text: "the piece has no faces"}
	}
	b.frame()
	edges := b.edges()
	owner := make(map[edgeKey]*Leaf, len(edges))
	for _, e := range edges {
		if owner[e.key()] != nil {
			return nil, &Misbuilt{Text: fmt.Sprintf("the faces %q and %q lie over one another", owner[e.key()].name, e.of.name)}
		}
		owner[e.key()] = e.of
	}
	free := make([]leafEdge, 0, len(edges))
	shared := make(map[[2]*Leaf][]leafEdge, len(edges))
	pairs := make([][2]*Leaf, 0, len(edges))
	var arcs []Slit // where two faces are cut apart along an arc
	for _, e := range edges {
		other := owner[e.back()]
		if other == nil {
			free = append(free, e)
			continue
		}
		key := pair(e.of, other)
		if e.of == key[0] && e.from.bulge != 0 {
			arcs = append(arcs, Slit{Segment{e.from.point(), e.to.point()}, e.from.bulge})
		} else if e.of == key[0] {
			if shared[key] == nil {
				pairs = append(pairs, key)
			}
			shared[key] = append(shared[key], e)
		}
	}
	if err := b.overlaps(); err != nil {
		return nil, err
	}
	if err := b.hangTogether(pairs); err != nil {
		return nil, err
	}
	p := &Pattern{Width: b.most[0] - b.least[0], Height: b.most[1] - b.least[1], parted: &parted{}}
	for _, key := range pairs {
		b.crease(p, key, shared[key])
		b.upwards(key, shared[key])
	}
	p.Slits = append(p.Slits, arcs...)
	if err := p.trace(free); err != nil {
		return nil, err
	}
	b.scores(p)
	p.Marks = make([]Mark, 0, len(b.leaves))
	for _, l := range b.leaves {
		p.Marks = append(p.Marks, Mark{Name: l.name, Words: l.words, Role: l.role, At: l.middle(), Up: l.up})
	}
	for _, s := range b.glue {
		g := s.Glue
		g.Face, g.Area = s.face.name, s.face.polygon()
		if s.onto != nil {
			g.Onto = s.onto.name
		}
		p.Glue = append(p.Glue, g)
	}
	return p, b.bite(p)
}

// frame moves the piece so that its blank's top left corner is the origin;
// unless a grid has set the blank, it is the smallest around the faces.
func (b *Builder) frame() {
	if b.framed {
		return
	}
	b.framed = true
	b.least = [2]measure.Length{math.MaxInt64, math.MaxInt64}
	b.most = [2]measure.Length{math.MinInt64, math.MinInt64}
	for _, l := range b.leaves {
		lo, hi := Bounds(l.polygon())
		b.least = [2]measure.Length{min(b.least[0], measure.FromMM(lo.X)), min(b.least[1], measure.FromMM(lo.Y))}
		b.most = [2]measure.Length{max(b.most[0], measure.FromMM(hi.X)), max(b.most[1], measure.FromMM(hi.Y))}
	}
	origin := Point{b.least[0].MM(), b.least[1].MM()}
	for _, l := range b.leaves {
		for i := range l.shape {
			l.shape[i].x -= b.least[0]
			l.shape[i].y -= b.least[1]
		}
	}
	for i := range b.bites {
		b.bites[i].centre = b.bites[i].centre.Sub(origin)
		for k := range b.bites[i].loop {
			b.bites[i].loop[k].Point = b.bites[i].loop[k].Sub(origin)
		}
	}
	b.most = [2]measure.Length{b.most[0] - b.least[0], b.most[1] - b.least[1]}
	if b.tick > 0 {
		b.most = [2]measure.Length{measure.Up(b.most[0], b.tick), measure.Up(b.most[1], b.tick)}
	}
	b.least = [2]measure.Length{}
}

// edges gives every face's edges, cut where another face's corner lies on
// them, so that edges of neighbours of different lengths match.
func (b *Builder) edges() []leafEdge {
	n := 0
	for _, l := range b.leaves {
		n += len(l.shape)
	}
	corners, seen := make([]spot, 0, n), make(map[[2]measure.Length]bool, n)
	for _, l := range b.leaves {
		for _, s := range l.shape {
			if !seen[s.at()] {
				seen[s.at()] = true
				corners = append(corners, spot{x: s.x, y: s.y})
			}
		}
	}
	out := make([]leafEdge, 0, 2*n)
	for _, l := range b.leaves {
		for i, a := range l.shape {
			z := l.shape[(i+1)%len(l.shape)]
			from := a
			if a.bulge == 0 {
				for _, mid := range between(corners, a, z) {
					out = append(out, leafEdge{from, mid, l})
					from = mid
				}
			}
			out = append(out, leafEdge{from, z, l})
		}
	}
	return out
}

// between gives the corners strictly between a and z, on the way from a to z.
func between(corners []spot, a, z spot) []spot {
	p, q := a.point(), z.point()
	d := q.Sub(p)
	length := d.Len()
	var out []spot
	left, right, top, bottom := min(a.x, z.x)-Snap, max(a.x, z.x)+Snap, min(a.y, z.y)-Snap, max(a.y, z.y)+Snap
	for _, c := range corners {
		if c.x < left || c.x > right || c.y < top || c.y > bottom {
			continue
		}
		v := c.point().Sub(p)
		if along := v.Dot(d) / length; along > Snap.MM() && along < length-Snap.MM() && math.Abs(v.Cross(d))/length < Snap.MM() {
			out = append(out, c)
		}
	}
	slices.SortFunc(out, func(m, n spot) int {
		return cmp.Compare(m.point().Sub(p).Dot(d), n.point().Sub(p).Dot(d))
	})
	return out
}

// hangTogether finds a face that no crease joins to the first one.
func (b *Builder) hangTogether(pairs [][2]*Leaf) error {
	root := map[*Leaf]*Leaf{}
	var top func(*Leaf) *Leaf
	top = func(l *Leaf) *Leaf {
		if root[l] == nil || root[l] == l {
			return l
		}
		root[l] = top(root[l])
		return root[l]
	}
	for _, key := range pairs {
		if !b.joints[key].slit {
			root[top(key[0])] = top(key[1])
		}
	}
	for _, l := range b.leaves {
		if top(l) != top(b.leaves[0]) {
			return &Misbuilt{l.made.String(), fmt.Sprintf("the face %q hangs on nothing", l.name)}
		}
	}
	return nil
}

// overlaps finds two faces that cover each other.
func (b *Builder) overlaps() error {
	const least = 1e-3 // mm²
	boxes := make([][2]Point, len(b.leaves))
	for i, l := range b.leaves {
		boxes[i][0], boxes[i][1] = Bounds(l.polygon())
	}
	for i, l := range b.leaves {
		for j, o := range b.leaves[:i] {
			across := min(boxes[i][1].X, boxes[j][1].X) - max(boxes[i][0].X, boxes[j][0].X)
			down := min(boxes[i][1].Y, boxes[j][1].Y) - max(boxes[i][0].Y, boxes[j][0].Y)
			if across > 1e-4 && down > 1e-4 && Overlap(l.polygon(), o.polygon()) > least {
				return &Misbuilt{l.made.String(), fmt.Sprintf("the faces %q and %q lie over one another", o.name, l.name)}
			}
		}
	}
	return nil
}

// middle is a point inside the leaf: the mean of its corners, or near its
// longest edge where that lies outside.
func (l *Leaf) middle() Point {
	mid := Point{}
	for _, s := range l.shape {
		mid = mid.Add(s.point().Scale(1 / float64(len(l.shape))))
	}
	if polygon := l.polygon(); !Contains(polygon, mid) {
		return inner(polygon)
	}
	return mid
}

// crease makes one line of the stretches that two faces share.
func (b *Builder) crease(p *Pattern, key [2]*Leaf, edges []leafEdge) {
	seg := Segment{edges[0].from.point(), edges[0].to.point()}
	for _, e := range edges[1:] {
		if e.from.point() == seg.B {
			seg.B = e.to.point()
		} else {
			seg.A = e.from.point()
		}
	}
	j, told := b.joints[key]
	switch {
	case !told:
		p.Creases = append(p.Creases, Crease{Segment: seg, Angle: 90, Side: Away})
	case j.slit:
		p.Slits = append(p.Slits, Slit{Segment: seg})
	default:
		p.Creases = append(
			p.Creases,
			Crease{Segment: seg, Angle: j.angle, Side: j.side, Rolled: j.rolled, Hinge: j.hinge, Opened: j.opened},
		)
	}
}

// upwards points a face's up across the edge it shares with its panel, away from it or,
// where the face hangs, towards it.
func (b *Builder) upwards(key [2]*Leaf, edges []leafEdge) {
	for i, l := range key {
		if l.panel != key[1-i] {
			continue
		}
		d := edges[0].to.point().Sub(edges[0].from.point())
		// The first leaf lies to the right of the edge as told.
		out := Point{-d.Y, d.X}.Scale(1 / d.Len())
		if (i == 1) != l.hangs {
			out = out.Scale(-1)
		}
		l.up = Point{tidy(out.X), tidy(out.Y)}
	}
}

// tidy clears the noise from a direction that lies along an axis.
func tidy(f float64) float64 {
	if r := math.Round(f); math.Abs(f-r) < 1e-12 {
		return r + 0
	}
	return f
}

// scores sorts the creases into lines scored over the whole blank and those
// that stop short: because a face lies across them, because they slant, or because a template
// has them.
func (b *Builder) scores(p *Pattern) {
	type line struct {
		at       measure.Length
		vertical bool
	}
	full := map[line]bool{}
	spans := func(l line) bool {
		if b.drawn {
			return true
		}
		for _, leaf := range b.leaves {
			least, most := measure.Length(math.MaxInt64), measure.Length(math.MinInt64)
			for _, s := range leaf.shape {
				v := s.y
				if l.vertical {
					v = s.x
				}
				least, most = min(least, v), max(most, v)
			}
			if least < l.at-Snap && most > l.at+Snap {
				return true
			}
		}
		return false
	}
	rolled := map[line]bool{}
	lineOf := func(c Crease) (line, bool) {
		switch {
		case c.A.X == c.B.X:
			return line{measure.FromMM(c.A.X), true}, true
		case c.A.Y == c.B.Y:
			return line{measure.FromMM(c.A.Y), false}, true
		}
		return line{}, false
	}
	for _, c := range p.Creases {
		if l, straight := lineOf(c); straight && c.Rolled {
			rolled[l] = true
		}
	}
	for _, c := range p.Creases {
		l, straight := lineOf(c)
		switch {
		case c.Rolled || straight && rolled[l]:
		case !straight:
			p.Scores.Part = lengthen(p.Scores.Part, c.Segment)
		case full[l]:
		case spans(l):
			p.Scores.Part = lengthen(p.Scores.Part, c.Segment)
		case l.vertical:
			full[l] = true
			p.Scores.Vertical = append(p.Scores.Vertical, l.at)
		default:
			full[l] = true
			p.Scores.Horizontal = append(p.Scores.Horizontal, l.at)
		}
	}
	slices.Sort(p.Scores.Vertical)
	slices.Sort(p.Scores.Horizontal)
}

// lengthen adds a line, joining it to those it continues.
func lengthen(all []Segment, s Segment) []Segment {
	if s.B.X < s.A.X || s.B.X == s.A.X && s.B.Y < s.A.Y {
		s.A, s.B = s.B, s.A
	}
	for i, o := range all {
		u, v := o.B.Sub(o.A), s.B.Sub(s.A)
		if math.Abs(u.Cross(v)) > Tolerance*u.Len() {
			continue
		}
		switch {
		case o.B == s.A:
			return lengthen(slices.Delete(all, i, i+1), Segment{o.A, s.B})
		case o.A == s.B:
			return lengthen(slices.Delete(all, i, i+1), Segment{s.A, o.B})
		}
	}
	return append(all, s)
}

// trace follows the free edges round: the largest loop is the outline, any
// other a hole. Where two meet in one point (a tab's wedge ends on a corner)
// the sharpest right-hand turn keeps to the same side of the card.
func (p *Pattern) trace(free []leafEdge) error {
	starting := map[[2]measure.Length][]leafEdge{}
	for _, e := range free {
		starting[e.from.at()] = append(starting[e.from.at()], e)
	}
	walked := map[leafEdge]bool{}
	for _, first := range free {
		if walked[first] {
			continue
		}
		var path []spot
		for e := first; !walked[e]; {
			walked[e] = true
			path = append(path, e.from)
			next := starting[e.to.at()]
			if len(next) == 0 {
				return fmt.Errorf("the outline breaks off at %v", e.to.point())
			}
			best := 0
			for i := range next {
				if turn(e, next[i]) > turn(e, next[best]) {
					best = i
				}
			}
			e = next[best]
		}
		loop := straightened(path)
		switch area := Area(loop.Flat()); {
		case area < 0: // the card lies outside it
			slices.Reverse(loop)
			p.Holes = append(p.Holes, loop)
		case p.Outline == nil:
			p.Outline = loop
		default:
			return fmt.Errorf("the outline is not one piece of card")
		}
	}
	return nil
}

// straightened leaves out the corners of a path at which it goes straight on.
func straightened(path []spot) Loop {
	var out Loop
	for i, s := range path {
		before, after := path[(i+len(path)-1)%len(path)], path[(i+1)%len(path)]
		in, on := s.point().Sub(before.point()), after.point().Sub(s.point())
		straight := before.bulge == 0 && s.bulge == 0
		if !straight || math.Abs(in.Cross(on)) > Tolerance*in.Len()*on.Len() || in.Dot(on) < 0 {
			out = append(out, Vertex{s.point(), s.bulge})
		}
	}
	return out
}

// turn grows with how far b turns to the right (clockwise) after a.
func turn(a, b leafEdge) float64 {
	u, v := a.to.point().Sub(a.from.point()), b.to.point().Sub(b.from.point())
	return angle(u, v)
}

// bite cuts the notches and holes.
func (b *Builder) bite(p *Pattern) error {
	for _, x := range b.bites {
		if x.kind == "notch" {
			if err := p.Notch(x.face.name, x.centre, x.radius); err != nil {
				if x.fault != nil {
					return x.fault
				}
				return err
			}
			continue
		}
		p.Holes = append(p.Holes, x.loop)
		p.Openings = append(p.Openings, Opening{Kind: x.kind, Face: x.face.name, Loop: x.loop})
		for i, m := range p.Marks { // its middle may lie in the hole
			if m.Name == x.face.name && Contains(x.loop.Flat(), m.At) {
				p.Marks[i].At = nearCorner(x.face.polygon())
			}
		}
	}
	return nil
}

// nearCorner is a point inside a polygon near its first corner.
func nearCorner(polygon []Point) Point {
	n := len(polygon)
	a, before, after := polygon[0], polygon[n-1].Sub(polygon[0]), polygon[1].Sub(polygon[0])
	return a.Add(before.Scale(1 / before.Len())).Add(after.Scale(1 / after.Len()))
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
