package draw

import (
	"gonum.org/v1/gonum/spatial/r3"
)

// panel is a flat polygon in space with what is stuck on its outside. Its
// points run clockwise as seen from outside (pattern order).
type panel struct {
	points []r3.Vec
	normal r3.Vec // of the outside
	at     float64
	decals []decal
	owner  string // the id of the piece it is of
	fill   *Fill  // what its outside shows; nil leaves it to the pen
	key    string // names it to a page that lets one press it
	about  string
	// lines, when bare, are the edges that are drawn: those along which a bend goes on are not.
	bare  bool
	lines [][2]r3.Vec
}

type decal struct {
	class  Class
	owner  string // the id of the mat it is
	inside bool   // it shows from the card's inside
	points []r3.Vec
	fill   *Fill
}

// flush is how near, in mm, two planes may lie and count as one.
const flush = 1e-4

// tree is a binary space partition of panels: those on one plane, those
// before it and those behind (Fuchs, Kedem and Naylor, 1980). Read from back
// to front it gives an order of painting in which nothing is painted over by
// what lies behind it.
type tree struct {
	on            []panel
	front, behind *tree
}

func plant(panels []panel) *tree {
	if len(panels) == 0 {
		return nil
	}
	at := leastParting(panels)
	root := panels[at]
	t := &tree{on: panels[at : at+1 : at+1]}
	var front, behind []panel
	for i, q := range panels {
		if i == at {
			continue
		}
		f, b := q.part(root.normal, root.at)
		if f == nil && b == nil {
			t.on = append(t.on, q)
		}
		if f != nil {
			front = append(front, *f)
		}
		if b != nil {
			behind = append(behind, *b)
		}
	}
	t.front, t.behind = plant(front), plant(behind)
	return t
}

// mostTried is how many panels are tried for the one whose plane parts the fewest others.
const mostTried = 6

// leastParting is the panel, of a few, whose plane parts the fewest others.
func leastParting(panels []panel) int {
	best, least := 0, len(panels)+1
	step := max(1, len(panels)/mostTried)
	for i := 0; i < len(panels); i += step {
		parted := 0
		for _, q := range panels {
			below, above := false, false
			for _, v := range q.points {
				d := r3.Dot(panels[i].normal, v) - panels[i].at
				below, above = below || d < -flush, above || d > flush
			}
			if below && above {
				parted++
			}
		}
		if parted < least {
			best, least = i, parted
		}
	}
	return best
}

// paint visits the panels from back to front for a viewer far off in the
// direction towards.
func (t *tree) paint(towards r3.Vec, visit func(panel)) {
	if t == nil {
		return
	}
	first, last := t.behind, t.front
	if r3.Dot(t.on[0].normal, towards) < 0 {
		first, last = last, first
	}
	first.paint(towards, visit)
	// Faces that lie on one another in one plane touch with their insides: of those that look away
	// from the viewer the inside is seen, and the others cover it.
	for _, outside := range []bool{false, true} {
		for _, q := range t.on {
			if outside == (r3.Dot(q.normal, towards) > 0) {
				visit(q)
			}
		}
	}
	last.paint(towards, visit)
}

// part cuts a panel by a plane; both parts are nil when it lies in it.
func (q panel) part(normal r3.Vec, at float64) (front, behind *panel) {
	f, b := clip(q.points, normal, at), clip(q.points, r3.Scale(-1, normal), -at)
	if f == nil && b == nil {
		return nil, nil
	}
	side := func(points []r3.Vec, n r3.Vec, a float64) *panel {
		if points == nil {
			return nil
		}
		p := q
		p.points = points
		p.lines = nil
		for _, l := range q.lines {
			if cut, rest := stretch(l, n, a); rest {
				p.lines = append(p.lines, cut)
			}
		}
		p.decals = nil
		for _, d := range q.decals {
			if cut := clip(d.points, n, a); cut != nil {
				p.decals = append(p.decals, decal{d.class, d.owner, d.inside, cut, d.fill})
			}
		}
		return &p
	}
	return side(f, normal, at), side(b, r3.Scale(-1, normal), -at)
}

// stretch keeps what of a line lies before a plane, if anything does.
func stretch(l [2]r3.Vec, normal r3.Vec, at float64) ([2]r3.Vec, bool) {
	a, b := r3.Dot(normal, l[0])-at, r3.Dot(normal, l[1])-at
	if max(a, b) <= flush && min(a, b) < -flush {
		return l, false
	}
	cross := func() r3.Vec { return r3.Add(l[0], r3.Scale(a/(a-b), r3.Sub(l[1], l[0]))) }
	switch {
	case a < -flush:
		l[0] = cross()
	case b < -flush:
		l[1] = cross()
	}
	return l, true
}

// clip keeps what lies before the plane, or nil when nothing rises above it.
func clip(points []r3.Vec, normal r3.Vec, at float64) []r3.Vec {
	var out []r3.Vec
	rises := false
	for i, a := range points {
		b := points[(i+1)%len(points)]
		da, db := r3.Dot(normal, a)-at, r3.Dot(normal, b)-at
		rises = rises || da > flush
		if da >= -flush {
			out = append(out, a)
		}
		if da > flush && db < -flush || da < -flush && db > flush {
			out = append(out, r3.Add(a, r3.Scale(da/(da-db), r3.Sub(b, a))))
		}
	}
	if !rises || len(out) < 3 {
		return nil
	}
	return out
}
