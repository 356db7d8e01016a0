package hand

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// Close is how near, in mm, two points are one to a hand.
const Close = 0.02

// Flat is the least angle, in degrees, of a fold that lies on itself.
const Flat = 179.9

// Card is a piece as it lies before the hand: a blank, parted into cells by the lines
// that were scored and marked on it, with the cuts made.
type Card struct {
	ID            string
	Width, Height measure.Length
	cells         []cell
	upright       []float64 // full scores, by x from the left
	level         []float64 // by y from the top
	scores        []pattern.Segment
	cuts          []pattern.Segment
	marks         []pattern.Segment
	dots          []pattern.Point // marked
	calls         []Call
	bites         []pattern.Loop // notches and holes
	panes         []pattern.Loop // behind which there is film
	names         Names
	folded        bool
	flat, towards []pattern.Segment // scores that are folded right over, or towards the hand
	bent          bool
	traced        *pattern.Pattern // the template that it was drawn round
	round         bool             // it is cut round that
	stuck         []Bond
	stands        bool // something is stuck that keeps it from lying flat
	papers        []Laid
	through       []through
	tapes         []tape
}

// cell is a stretch of card between lines: convex, clockwise as seen. What is off has
// fallen away.
type cell struct {
	ring []pattern.Point
	off  bool
}

// Bond is adhesive between two places: the side of the part that it lies on, and the side
// of what it lands on.
type Bond struct {
	Part, Onto           pattern.Point
	Outside, OntoOutside bool
}

func newCard(id string, w, h measure.Length) *Card {
	x, y := w.MM(), h.MM()
	return &Card{ID: id, Width: w, Height: h, cells: []cell{{ring: []pattern.Point{{}, {X: x}, {X: x, Y: y}, {Y: y}}}}}
}

// Bonds are what is stuck where, in the order it was.
func (c *Card) Bonds() []Bond { return c.stuck }

// Cuts are the cuts made, each as a line.
func (c *Card) Cuts() []pattern.Segment { return c.cuts }

// part parts the cells that a line runs through; its ends must lie on lines, cuts or edges.
func (c *Card) part(s pattern.Segment) error {
	d := s.B.Sub(s.A)
	length := d.Len()
	if length < Close {
		return errors.New("the line has no length")
	}
	d = d.Scale(1 / length)
	var out []cell
	for _, x := range c.cells {
		one, two, from, to := split(x.ring, s.A, d)
		switch {
		case x.off || one == nil || two == nil || to < Close || from > length-Close:
			out = append(out, x)
		case from < -Close || to > length+Close:
			return errors.New("the line ends where nothing is seen")
		default:
			out = append(out, cell{ring: one}, cell{ring: two})
		}
	}
	c.cells = out
	return nil
}

// split parts a convex ring by the line through a point in a direction of length one: the
// two sides, nil where the line only touches it, and where along the line it lies.
func split(ring []pattern.Point, at, d pattern.Point) (one, two []pattern.Point, from, to float64) {
	side := func(p pattern.Point) float64 { return d.Cross(p.Sub(at)) }
	least, most := math.Inf(1), math.Inf(-1)
	for _, p := range ring {
		least, most = min(least, side(p)), max(most, side(p))
	}
	if least > -Close/2 || most < Close/2 {
		return nil, nil, 0, 0
	}
	// Where it truly runs, and where it does if corners near it lie on it: the least of both,
	// since at a small angle what is near is far along.
	true1, near1, true2, near2 := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for i, p := range ring {
		q := ring[(i+1)%len(ring)]
		a, b := side(p), side(q)
		if a <= Close/2 {
			one = append(one, p)
		}
		if a >= -Close/2 {
			two = append(two, p)
		}
		if math.Abs(a) < Close/2 {
			along := p.Sub(at).Dot(d)
			near1, near2 = min(near1, along), max(near2, along)
		}
		if a != 0 && ((a < 0) == (b < 0) || b == 0) {
			continue
		}
		cross := p.Add(q.Sub(p).Scale(a / (a - b)))
		along := cross.Sub(at).Dot(d)
		true1, true2 = min(true1, along), max(true2, along)
		if math.Abs(a) >= Close/2 && math.Abs(b) >= Close/2 {
			near1, near2 = min(near1, along), max(near2, along)
			one, two = append(one, cross), append(two, cross)
		}
	}
	from, to = max(true1, near1), min(true2, near2)
	return one, two, from, to
}

// score scores a line.
func (c *Card) score(s pattern.Segment) error {
	if c.isScored(s) {
		return fmt.Errorf("from (%.1f, %.1f) to (%.1f, %.1f) mm is scored already", s.A.X, s.A.Y, s.B.X, s.B.Y)
	}
	if err := c.part(s); err != nil {
		return err
	}
	c.scores = append(c.scores, s)
	return nil
}

// full scores a line right across, so far from an edge.
func (c *Card) full(e Edge, at measure.Length) error {
	w, h := c.Width.MM(), c.Height.MM()
	along, far := at.MM(), c.along(e)
	if along < Close || along > far-Close {
		return fmt.Errorf("%v from the %s edge is not on the card", at, e)
	}
	if e == Right || e == Bottom {
		along = far - along
	}
	lines, s := &c.upright, pattern.Segment{A: pattern.Pt(along, 0), B: pattern.Pt(along, h)}
	if !e.Side() {
		lines, s = &c.level, pattern.Segment{A: pattern.Pt(0, along), B: pattern.Pt(w, along)}
	}
	if slices.ContainsFunc(*lines, func(x float64) bool { return math.Abs(x-along) < Close }) {
		return fmt.Errorf("%v from the %s edge is scored already", at, e)
	}
	*lines = append(*lines, along)
	slices.Sort(*lines)
	return c.score(s)
}

// along is how far the card reaches from an edge.
func (c *Card) along(e Edge) float64 {
	if e.Side() {
		return c.Width.MM()
	}
	return c.Height.MM()
}

// at finds the cell in which a point lies.
func (c *Card) at(p pattern.Point) (int, error) {
	if c.traced != nil && c.round && pattern.Contains(c.traced.Outline.Flat(), p) {
		return 0, nil
	}
	for i, x := range c.cells {
		if pattern.Contains(x.ring, p) {
			if x.off {
				return 0, fmt.Errorf("what lies at (%.1f, %.1f) mm is cut off", p.X, p.Y)
			}
			return i, nil
		}
	}
	return 0, fmt.Errorf("there is no card at (%.1f, %.1f) mm", p.X, p.Y)
}

// border is a stretch of a cell's edge: the cell on its other side, −1 for none, and
// whether it is cut.
type border struct {
	pattern.Segment
	side  int // of the cell, the edge from that corner on
	other int
	cut   bool
}

// borders are the stretches of a cell's edge, in order.
func (c *Card) borders(i int) []border {
	var out []border
	ring := c.cells[i].ring
	lo, hi := pattern.Bounds(ring)
	var beside []int // the cells that may share an edge
	for j, x := range c.cells {
		if l, h := pattern.Bounds(x.ring); j != i && !x.off && l.X <= hi.X+Close && h.X >= lo.X-Close && l.Y <= hi.Y+Close && h.Y >= lo.Y-Close {
			beside = append(beside, j)
		}
	}
	for k, a := range ring {
		b := ring[(k+1)%len(ring)]
		edge := pattern.Segment{A: a, B: b}
		var shared []border
		for _, j := range beside {
			x := c.cells[j]
			for n, p := range x.ring {
				if s, ok := common(edge, pattern.Segment{A: p, B: x.ring[(n+1)%len(x.ring)]}); ok {
					shared = append(shared, border{s, k, j, c.isCut(s)})
				}
			}
		}
		if len(shared) == 0 {
			shared = []border{{edge, k, -1, true}}
		}
		slices.SortFunc(shared, func(x, y border) int { return cmp.Compare(x.A.Sub(a).Len(), y.A.Sub(a).Len()) })
		out = append(out, shared...)
	}
	return out
}

// common is the stretch that two edges share, as the first runs.
func common(s, o pattern.Segment) (pattern.Segment, bool) {
	if max(s.A.X, s.B.X) < min(o.A.X, o.B.X)-Close || max(o.A.X, o.B.X) < min(s.A.X, s.B.X)-Close ||
		max(s.A.Y, s.B.Y) < min(o.A.Y, o.B.Y)-Close || max(o.A.Y, o.B.Y) < min(s.A.Y, s.B.Y)-Close {
		return s, false
	}
	d := s.B.Sub(s.A)
	length := d.Len()
	d = d.Scale(1 / length)
	a, b := o.A.Sub(s.A), o.B.Sub(s.A)
	if math.Abs(d.Cross(a)) > Close || math.Abs(d.Cross(b)) > Close {
		return s, false
	}
	from, to := max(0, min(a.Dot(d), b.Dot(d))), min(length, max(a.Dot(d), b.Dot(d)))
	if to-from < Close {
		return s, false
	}
	return pattern.Segment{A: s.A.Add(d.Scale(from)), B: s.A.Add(d.Scale(to))}, true
}

func (c *Card) isCut(s pattern.Segment) bool { return covered(s, c.cuts) }

func (c *Card) isScored(s pattern.Segment) bool { return covered(s, c.scores) }

// covered reports whether every bit of a line lies on one of the others.
func covered(s pattern.Segment, by []pattern.Segment) bool {
	length := s.B.Sub(s.A).Len()
	d := s.B.Sub(s.A).Scale(1 / length)
	type span struct{ from, to float64 }
	var spans []span
	for _, o := range by {
		if part, ok := common(s, o); ok {
			spans = append(spans, span{part.A.Sub(s.A).Dot(d), part.B.Sub(s.A).Dot(d)})
		}
	}
	slices.SortFunc(spans, func(a, b span) int { return cmp.Compare(a.from, b.from) })
	at := 0.0
	for _, x := range spans {
		if x.from > at+Close {
			return false
		}
		at = max(at, x.to)
	}
	return at > length-Close
}

// hinge is the one edge by which a cell hangs on the rest, and its sides from there on
// round; an error says by how many it hangs.
func (c *Card) hinge(i int) (a, b, farB, farA pattern.Point, err error) {
	ring := c.cells[i].ring
	if len(ring) != 4 {
		return a, b, farB, farA, errors.New("this part is not four-sided any more")
	}
	held := map[int]bool{}
	for _, x := range c.borders(i) {
		if x.other >= 0 && !x.cut {
			held[x.side] = true
		}
	}
	if len(held) != 1 {
		return a, b, farB, farA, fmt.Errorf("this part hangs by %d sides, not by one", len(held))
	}
	for k := range held {
		a, b, farB, farA = ring[k], ring[(k+1)%4], ring[(k+2)%4], ring[(k+3)%4]
	}
	return a, b, farB, farA, nil
}

// takeOff parts a cell by a line and lets fall what lies on the side of a point.
func (c *Card) takeOff(s pattern.Segment, lost pattern.Point) error {
	if err := c.part(s); err != nil {
		return err
	}
	c.cuts = append(c.cuts, s)
	i, err := c.at(lost)
	if err != nil {
		return err
	}
	c.cells[i].off = true
	return nil
}

// Lines are how many scores run right across and meet an edge.
func (c *Card) Lines(e Edge) int {
	if e.Side() {
		return len(c.level)
	}
	return len(c.upright)
}

// Alike reports whether its scores are the same from all four edges.
func (c *Card) Alike() bool {
	return slices.EqualFunc(c.upright, c.level, func(a, b float64) bool { return math.Abs(a-b) < Close }) && c.Width == c.Height
}

// Lies reports whether there is card at a place still.
func (c *Card) Lies(p pattern.Point) bool {
	_, err := c.at(p)
	return err == nil
}

// Names are what its rows, its columns or its panels are called.
func (c *Card) Names() Names { return c.names }

// Hung is a cell that hangs by one side, with a point in it, one in the cell that it hangs
// on, and those in the other cells that meet at the ends of its hinge.
type Hung struct {
	At, On  pattern.Point
	Touches []pattern.Point
}

// Hanging are the cells that hang by one side.
func (c *Card) Hanging() []Hung {
	var out []Hung
	for i, x := range c.cells {
		if x.off {
			continue
		}
		h := Hung{At: middle(x.ring)}
		held, on := 0, -1
		var hinge pattern.Segment
		for _, b := range c.borders(i) {
			if b.other >= 0 && !b.cut {
				held, on, hinge = held+1, b.other, b.Segment
			}
		}
		if held != 1 {
			continue
		}
		h.On = middle(c.cells[on].ring)
		for k, y := range c.cells {
			if k != i && k != on && !y.off && slices.ContainsFunc(y.ring, func(p pattern.Point) bool {
				return p.Sub(hinge.A).Len() < Close || p.Sub(hinge.B).Len() < Close
			}) {
				h.Touches = append(h.Touches, middle(y.ring))
			}
		}
		out = append(out, h)
	}
	return out
}

// Grid is where a card's full scores and its edges lie, from the left and from the top.
func (c *Card) Grid() (across, down []float64) {
	across = append(append([]float64{0}, c.upright...), c.Width.MM())
	return across, append(append([]float64{0}, c.level...), c.Height.MM())
}
