package recipe

import (
	"math"
	"slices"

	"brevium/core/pattern"
)

// stroke is one movement of scissors, knife or punch as it is told. A straight
// one runs from a to b along a line of the blank or slantwise; a taper runs
// from a, where it takes nothing, to b, which lies beside foot on the line from
// a to foot; a corner rounds off foot from a to b. A notch, a slot, a hole or
// what goes from mark to mark is its whole path.
type stroke struct {
	shape     shape
	a, b      pattern.Point
	foot      pattern.Point
	path      pattern.Loop
	lines     []Line // what of the finished piece it cuts; none when a taper follows it
	scored    bool   // it lies on a scored line
	crossings int    // of scored lines up to its end, when it ends on one
}

type shape int

const (
	along shape = iota // straight, upright or level
	marks
	taper
	round
	curve
	notch
	slot
	hole
)

// slotWidth is the widest cut-out, in mm, that is a slot.
const slotWidth = 5

// strokes parts the cuts of a piece into movements. A slanting or round edge
// whose corner falls away with it is told as a taper or a rounding of the
// straight cut that a hand makes first.
func strokes(p *pattern.Pattern, lines []Line) []stroke {
	s := stroker{p: p, kept: p.Outline.Flat()}
	for _, l := range lines {
		switch l.Hand {
		case Slit:
			a, b := l.Path[0].Point, l.Path[1].Point
			if l.Path[0].Bulge != 0 {
				s.out = append(s.out, stroke{shape: curve, a: a, b: b, path: l.Path, lines: []Line{l}})
			} else if near(a.X, b.X) || near(a.Y, b.Y) {
				s.straight(a, b, l)
			} else {
				s.out = append(s.out, stroke{shape: marks, path: l.Path, lines: []Line{l}})
			}
		case Notch:
			s.out = append(s.out, stroke{shape: notch, path: l.Path, lines: []Line{l}})
		case Hole:
			s.out = append(s.out, stroke{shape: hole, path: l.Path, lines: []Line{l}})
		case Trim:
			s.trim(l.Path)
		}
	}
	s.merge()
	for i := range s.legs {
		s.legs[i].scored, s.legs[i].crossings = s.crossed(s.legs[i].a, s.legs[i].b)
	}
	for i := range s.out {
		if s.out[i].shape == taper {
			s.out[i].scored, _ = s.crossed(s.out[i].a, s.out[i].foot)
		}
	}
	return append(s.legs, s.out...)
}

type stroker struct {
	p    *pattern.Pattern
	kept []pattern.Point
	legs []stroke // upright and level
	out  []stroke
}

// trim parts one stretch of the outline that runs over the blank.
func (s *stroker) trim(path pattern.Loop) {
	if isSlot(path, s.p) {
		s.out = append(s.out, stroke{shape: slot, path: path, lines: []Line{{Hand: Slot, Path: path}}})
		return
	}
	if s.irregular(path) {
		s.out = append(s.out, stroke{shape: marks, path: path, lines: []Line{{Hand: Trim, Path: path}}})
		return
	}
	for i, v := range path[:len(path)-1] {
		a, b := v.Point, path[i+1].Point
		line := Line{Hand: Trim, Path: pattern.Loop{v, {Point: b}}}
		switch {
		case v.Bulge != 0:
			corner, quarter := quarterRound(a, b, v.Bulge)
			if !quarter {
				s.out = append(s.out, stroke{shape: curve, a: a, b: b, path: line.Path, lines: []Line{line}})
				continue
			}
			s.out = append(s.out, stroke{shape: round, a: a, b: b, foot: corner, lines: []Line{line}})
			s.straight(a, corner)
			s.straight(corner, b)
		case math.Abs(a.X-b.X) < Straight || math.Abs(a.Y-b.Y) < Straight:
			s.straight(a, b, line)
		default:
			corner, _ := s.corner(a, b)
			if long, short := corner.Sub(a).Len(), corner.Sub(b).Len(); max(long, short) < 2*min(long, short) {
				// No wedge: from mark to mark, when its corner is cut.
				s.out = append(s.out, stroke{shape: marks, path: line.Path, lines: []Line{line}})
				s.straight(a, corner)
				s.straight(corner, b)
				continue
			}
			if corner.Sub(a).Len() < corner.Sub(b).Len() {
				a, b = b, a
			}
			s.out = append(s.out, stroke{shape: taper, a: a, b: b, foot: corner, lines: []Line{line}})
			s.straight(a, corner)
			s.straight(corner, b)
		}
	}
}

// irregular reports whether a stretch of the outline has a slanting edge that
// is no wedge beside a line of the blank: it is then told from mark to mark.
func (s *stroker) irregular(path pattern.Loop) bool {
	for i, v := range path[:len(path)-1] {
		a, b := v.Point, path[i+1].Point
		if v.Bulge != 0 || near(a.X, b.X) || near(a.Y, b.Y) {
			continue
		}
		corner, free := s.corner(a, b)
		long, short := corner.Sub(a).Len(), corner.Sub(b).Len()
		if !free || max(long, short) < 2*min(long, short) && !(s.onLine(a, corner) && s.onLine(corner, b)) {
			return true
		}
	}
	return false
}

// onLine reports whether an upright or level segment lies on the blank's own
// edge or on a scored line.
func (s *stroker) onLine(a, b pattern.Point) bool {
	if a.Sub(b).Len() < Straight || s.onEdge(a, b) {
		return true
	}
	scored, _ := s.crossed(a, b)
	return scored
}

// onEdge reports whether a segment lies on the blank's own edge.
func (s *stroker) onEdge(a, b pattern.Point) bool {
	w, h := s.p.Width.MM(), s.p.Height.MM()
	on := func(u, v, at float64) bool { return near(u, at) && near(v, at) }
	return on(a.X, b.X, 0) || on(a.X, b.X, w) || on(a.Y, b.Y, 0) || on(a.Y, b.Y, h)
}

// straight adds a cut along a line of the blank, unless it is its own edge.
func (s *stroker) straight(a, b pattern.Point, lines ...Line) {
	if s.onEdge(a, b) || a.Sub(b).Len() < Straight {
		return
	}
	if b.X < a.X-Straight || b.Y < a.Y-Straight {
		a, b = b, a
	}
	s.legs = append(s.legs, stroke{shape: along, a: a, b: b, lines: lines})
}

// upright reports whether a straight stroke runs up and down the blank.
func (x stroke) upright() bool { return math.Abs(x.a.X-x.b.X) < Straight }

// merge joins straight cuts along one line that touch or lie over each other.
func (s *stroker) merge() {
	var out []stroke
	for _, l := range s.legs {
		for i := 0; i < len(out); i++ {
			o := out[i]
			if o.upright() != l.upright() || math.Abs(pick(o.a, !l.upright())-pick(l.a, !l.upright())) > Straight {
				continue
			}
			from, to := pick(l.a, l.upright()), pick(l.b, l.upright())
			if pick(o.a, l.upright()) > to+Straight || pick(o.b, l.upright()) < from-Straight {
				continue
			}
			if pick(o.a, l.upright()) < from {
				l.a = o.a
			}
			if pick(o.b, l.upright()) > to {
				l.b = o.b
			}
			l.lines = append(slices.Clone(o.lines), l.lines...)
			out = slices.Delete(out, i, i+1)
			i = -1
		}
		out = append(out, l)
	}
	s.legs = out
}

// pick is a point's y for upright lines, and its x for level ones.
func pick(p pattern.Point, y bool) float64 {
	if y {
		return p.Y
	}
	return p.X
}

// corner is the corner of the right-angled triangle that lies on a slanting
// edge of the outline and falls away with it; it is not free when card that
// stays lies in it.
func (s *stroker) corner(a, b pattern.Point) (at pattern.Point, free bool) {
	at = pattern.Pt(a.X, b.Y)
	// Along a clockwise outline the card is on the right as seen.
	if b.Sub(a).Cross(at.Sub(a)) > 0 {
		at = pattern.Pt(b.X, a.Y)
	}
	triangle := []pattern.Point{a, b, at}
	if pattern.Area(triangle) < 0 {
		slices.Reverse(triangle)
	}
	for _, q := range s.kept {
		if inside(triangle, q) {
			return at, false
		}
	}
	for _, v := range triangle { // a point just inside each corner
		mid := a.Add(b).Add(at).Scale(1.0 / 3)
		if pattern.Contains(s.kept, v.Add(mid.Sub(v).Scale(0.02))) {
			return at, false
		}
	}
	return at, true
}

// inside reports whether a point lies well within a clockwise triangle.
func inside(triangle []pattern.Point, q pattern.Point) bool {
	for i, a := range triangle {
		d := triangle[(i+1)%3].Sub(a)
		if d.Cross(q.Sub(a)) < Straight*d.Len() {
			return false
		}
	}
	return true
}

// quarterRound is the corner that a quarter circle rounds off outwards.
func quarterRound(a, b pattern.Point, bulge float64) (corner pattern.Point, ok bool) {
	d := b.Sub(a)
	if math.Abs(math.Abs(d.X)-math.Abs(d.Y)) > Straight || math.Abs(bulge-math.Tan(math.Pi/8)) > 1e-6 {
		return corner, false
	}
	corner = pattern.Pt(a.X, b.Y)
	if d.Cross(corner.Sub(a)) > 0 {
		corner = pattern.Pt(b.X, a.Y)
	}
	return corner, true
}

// isSlot reports whether a stretch of the outline is a narrow rectangle cut
// in from one edge.
func isSlot(path pattern.Loop, p *pattern.Pattern) bool {
	if len(path) != 4 || path[0].Bulge != 0 || path[1].Bulge != 0 || path[2].Bulge != 0 {
		return false
	}
	a, b, c, d := path[0].Point, path[1].Point, path[2].Point, path[3].Point
	level := math.Abs(a.Y-d.Y) < Straight && math.Abs(b.Y-c.Y) < Straight && math.Abs(a.X-b.X) < Straight && math.Abs(c.X-d.X) < Straight
	upright := math.Abs(a.X-d.X) < Straight && math.Abs(b.X-c.X) < Straight && math.Abs(a.Y-b.Y) < Straight && math.Abs(c.Y-d.Y) < Straight
	return (level || upright) && a.Sub(d).Len() <= slotWidth
}

// crossed tells of a straight cut whether it lies on a scored line, and how
// many scored lines it has come to where it ends, counted from the blank's
// edge that it starts at; 0 when it ends between them or starts at no edge.
func (s *stroker) crossed(a, b pattern.Point) (scored bool, crossings int) {
	up := math.Abs(a.X-b.X) < Straight
	from, to, whole := pick(a, up), pick(b, up), s.p.Width.MM()
	if up {
		whole = s.p.Height.MM()
	}
	if from > to {
		from, to = to, from
	}
	at := pick(a, !up)
	var meets []float64 // of scored lines square to it
	add := func(lineUp bool, x, lo, hi float64) {
		switch {
		case lineUp == up && math.Abs(x-at) < Straight && lo < to-Straight && hi > from+Straight:
			scored = true
		case lineUp != up && lo < at+Straight && hi > at-Straight:
			meets = append(meets, x)
		}
	}
	for _, x := range s.p.Scores.Vertical {
		add(true, x.MM(), 0, s.p.Height.MM())
	}
	for _, y := range s.p.Scores.Horizontal {
		add(false, y.MM(), 0, s.p.Width.MM())
	}
	for _, l := range s.p.Scores.Part {
		switch {
		case math.Abs(l.A.X-l.B.X) < Straight:
			add(true, l.A.X, min(l.A.Y, l.B.Y), max(l.A.Y, l.B.Y))
		case math.Abs(l.A.Y-l.B.Y) < Straight:
			add(false, l.A.Y, min(l.A.X, l.B.X), max(l.A.X, l.B.X))
		}
	}
	slices.Sort(meets)
	meets = slices.CompactFunc(meets, func(a, b float64) bool { return math.Abs(a-b) < Straight })
	start, end := from, to
	switch {
	case from < Straight:
	case to > whole-Straight:
		start, end = to, from
	default:
		return scored, 0
	}
	n, ends := 0, false
	for _, m := range meets {
		if (m-start)*(end-start) > Straight && math.Abs(m-start) <= math.Abs(end-start)+Straight {
			n++
			ends = ends || math.Abs(m-end) < Straight
		}
	}
	if !ends {
		n = 0
	}
	return scored, n
}
