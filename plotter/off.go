package plotter

import (
	"fmt"
	"math"

	"brevium/core/pattern"
	"brevium/core/strokes"
)

// near is how far a line may be from the plan's, in mm.
const near = 0.1

// Piece is what a plan wants to come off.
type Piece struct{ strokes.Piece }

// turned is the piece in one of four turns with the clock, its outline's top left at 0, 0.
func (p *Piece) turned(quarters int) *Piece {
	turn := func(q pattern.Point) pattern.Point {
		for range quarters {
			q = pattern.Pt(-q.Y, q.X)
		}
		return q
	}
	all := func(points []pattern.Point) []pattern.Point {
		out := make([]pattern.Point, len(points))
		for i, q := range points {
			out[i] = turn(q)
		}
		return out
	}
	out := &Piece{strokes.Piece{Name: p.Name, Outline: all(p.Outline)}}
	for _, h := range p.Holes {
		out.Holes = append(out.Holes, all(h))
	}
	for _, s := range p.Slits {
		out.Slits = append(out.Slits, all(s))
	}
	for _, c := range p.Creases {
		out.Creases = append(out.Creases, pattern.Segment{A: turn(c.A), B: turn(c.B)})
	}
	lo, _ := pattern.Bounds(out.Outline)
	out.moved(func(q pattern.Point) pattern.Point { return q.Sub(lo) })
	return out
}

// moved moves all of a piece, which is a copy of one's own.
func (p *Piece) moved(move func(pattern.Point) pattern.Point) {
	all := func(points []pattern.Point) {
		for i := range points {
			points[i] = move(points[i])
		}
	}
	all(p.Outline)
	for _, h := range p.Holes {
		all(h)
	}
	for _, s := range p.Slits {
		all(s)
	}
	for i := range p.Creases {
		p.Creases[i] = pattern.Segment{A: move(p.Creases[i].A), B: move(p.Creases[i].B)}
	}
}

// area of the card of a piece, without its holes.
func (p *Piece) area() float64 {
	sum := math.Abs(pattern.Area(p.Outline))
	for _, h := range p.Holes {
		sum -= math.Abs(pattern.Area(h))
	}
	return sum
}

func ring(points []pattern.Point) []pattern.Point {
	return append(append([]pattern.Point(nil), points...), points[0])
}

// lengthOf is how long all cut lines of a piece are.
func (p *Piece) lengthOf() float64 {
	sum := strokes.Line{Path: pattern.Straight(p.Outline...), Closed: true}.Length()
	for _, h := range p.Holes {
		sum += strokes.Line{Path: pattern.Straight(h...), Closed: true}.Length()
	}
	for _, s := range p.Slits {
		sum += 2 * strokes.Line{Path: pattern.Straight(s...)}.Length()
	}
	return sum
}

// comesOff divides the sheet by what was cut through, and finds the plan's pieces in it.
func (r *Report) comesOff(all []made, plan []strokes.Piece) error {
	cuts, scores := newNear(2), newNear(2)
	rast := newRaster(r.sheet[0], r.sheet[1])
	var through []made
	for _, m := range all {
		switch m.Tool {
		case strokes.Cut:
			if r.cutsThrough() {
				through = append(through, m)
				cuts.add(m.tip)
				rast.cut(m.tip)
			}
		case strokes.Score, strokes.Perforate:
			scores.add(m.tip)
		}
	}
	w, h := r.sheet[0], r.sheet[1]
	cuts.add([]pattern.Point{pattern.Pt(0, 0), pattern.Pt(w, 0), pattern.Pt(w, h), pattern.Pt(0, h), pattern.Pt(0, 0)})
	m := matcher{cuts: cuts, scores: scores, through: through, copies: map[string]int{}}
	for _, p := range plan {
		m.plan = append(m.plan, Piece{p})
	}
	m.turn()
	for _, g := range regionsOf(rast.rows()) {
		if len(plan) == 0 {
			if g.area() > 4 && len(through) > 0 {
				r.Free = append(r.Free, FreePiece{Sheet: 1, Area: hundredth(g.area())})
			}
			continue
		}
		if found, piece := m.match(g); found != nil {
			if err := smallest(piece, g); err != nil {
				return err
			}
			r.Free = append(r.Free, *found)
			m.placed = append(m.placed, piece)
		}
	}
	r.stray = m.stray()
	m.outlines(r, all)
	m.rest(r)
	return nil
}

func (r *Report) cutsThrough() bool {
	for _, t := range r.Tools {
		if t.Tool == strokes.Cut.String() {
			return t.through
		}
	}
	return false
}

// rest says which copies did not come off: held when something was cut that belongs to none.
func (m *matcher) rest(r *Report) {
	for _, p := range m.plan {
		for c := m.copies[p.Name] + 1; c <= p.Copies; c++ {
			if r.stray > 0 || !r.cutsThrough() {
				r.Held = append(r.Held, HeldPiece{p.Name, c})
			} else {
				r.Missing = append(r.Missing, HeldPiece{p.Name, c})
			}
		}
	}
	if r.stray > 0 {
		r.warn("stray", fmt.Sprintf("%d strokes", r.stray), "they belong to no piece that came off as planned; look for a gap, a line that is left out, or a mirrored piece")
	}
}

// FreedBy is the number of the last stroke that went along a piece's outline: with it the piece came
// off; 0 when none did.
func (r *Report) FreedBy(f FreePiece, tips [][]pattern.Point) int {
	outline := newNear(4)
	outline.add(ring(f.Outline))
	last := 0
	for i, s := range r.Strokes {
		if s.Tool != strokes.Cut.String() {
			continue
		}
		for k := range tips[i] {
			if k > 0 && outline.to(tips[i][k].Add(tips[i][k-1]).Scale(0.5), 1).far < 2*near {
				last = s.N
				break
			}
		}
	}
	return last
}

// outlines calls the strokes outlines that go along the outline of a piece that came off.
func (m *matcher) outlines(r *Report, all []made) {
	lines := newNear(2)
	for _, p := range m.placed {
		lines.add(ring(p.Outline))
	}
	for i, s := range all {
		along := s.Kind == strokes.Inner && len(m.placed) > 0
		for _, p := range sampled(s.tip, 2) {
			along = along && lines.to(p, 1).far < 2*near
		}
		if along {
			r.Strokes[i].Kind = strokes.Outer
		}
	}
}
