package hand

import (
	"errors"
	"fmt"
	"slices"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// Edge is an edge of a card as it was cut.
type Edge string

// The edges of a card.
const (
	Left   Edge = "left"
	Right  Edge = "right"
	Top    Edge = "top"
	Bottom Edge = "bottom"
)

// Edges are all four, in the order in which they come to the fence.
var Edges = []Edge{Left, Top, Right, Bottom}

// Side reports whether it is the left or the right one.
func (e Edge) Side() bool { return e == Left || e == Right }

// Parts are parts of a card that one phrase names: a noun of the voice file, whose they
// are, by names that the card's rows were given, and a point in each.
type Parts struct {
	Noun string
	// Words are what the maker of a style calls it, in the place of a noun.
	Words string
	Of    []string
	At    []pattern.Point
}

// Cut cuts a blank out of a sheet.
type Cut struct {
	Width, Height measure.Length
}

// ScoreFour scores the same numbers from each of the four edges, read from the fence; a
// shim between fence and card takes its thickness from each.
type ScoreFour struct {
	At   []measure.Length
	Shim measure.Length
}

// ScoreFrom scores numbers with one edge on the fence. Turned says that the card is turned
// a quarter for it.
type ScoreFrom struct {
	Edge   Edge
	At     []measure.Length
	Shim   measure.Length
	Turned bool
}

// Names says what its rows, its columns or its panels are called, from the top or from the left.
type Names struct {
	// Across: the names run from the left.
	Across bool
	Words  []string
	// Panels: they are panels, numbered from 1, and the last is the tab.
	Panels bool
}

// Run is a cut from an edge inwards along a full score, counted from the left or the top
// from 0, until it has met so many scores that cross it.
type Run struct {
	From Edge
	Line int
	To   int
}

// Slit slits a card along scores.
type Slit struct {
	Runs []Run
}

// CutOff cuts whole cells away along their scores.
type CutOff struct {
	What Parts
	// Free: it has been cut free all round, and comes off.
	Free bool
	// Width and Height are of what is cut off, where they are told; else 0.
	Width, Height measure.Length
}

// Trim cuts parts that hang by one side shorter: Leave is what stays, measured from the
// fold.
type Trim struct {
	What  Parts
	Leave measure.Length
}

// Taper takes a wedge off both sides of parts that hang by one side: Off at the free end,
// nothing at the fold.
type Taper struct {
	What Parts
	Off  measure.Length
	// Leave, where it is not 0, is what they are trimmed to before.
	Leave measure.Length
}

// Notch cuts a half circle into the middle of a panel's edge, or of the card's where
// In is empty.
type Notch struct {
	Edges  []Edge
	In     string
	Across measure.Length
	At     measure.Length // its middle, along the edge from the left or the top
}

func (m Cut) do(t *Table, c *Card) error {
	if m.Width <= 0 || m.Height <= 0 {
		return errors.New("the blank has no size")
	}
	t.cards = append(t.cards, newCard(c.ID, m.Width, m.Height))
	return nil
}

func (m ScoreFour) do(t *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	for _, e := range Edges {
		for _, at := range m.At {
			if err := c.full(e, at-m.Shim); err != nil {
				return err
			}
		}
	}
	return nil
}

func (m ScoreFrom) do(t *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	for _, at := range m.At {
		if err := c.full(m.Edge, at-m.Shim); err != nil {
			return err
		}
	}
	return nil
}

func (m Names) do(t *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	lines := c.level
	if m.Across {
		lines = c.upright
	}
	if len(m.Words) != len(lines)+1 {
		return fmt.Errorf("there are %d names for %d scores", len(m.Words), len(lines))
	}
	c.names = m
	return nil
}

// Cuts are the cuts of a slit on a card.
func (m Slit) cuts(c *Card) ([]pattern.Segment, error) {
	var out []pattern.Segment
	for _, r := range m.Runs {
		lines, across, far := c.level, c.upright, c.Width.MM()
		if !r.From.Side() {
			lines, across, far = c.upright, c.level, c.Height.MM()
		}
		if r.Line < 0 || r.Line >= len(lines) || r.To < 1 || r.To > len(across) {
			return nil, fmt.Errorf("from the %s edge there is no line %d to slit, or no crossing %d on it", r.From, r.Line+1, r.To)
		}
		from, to := 0.0, across[r.To-1]
		if r.From == Right || r.From == Bottom {
			from, to = far, across[len(across)-r.To]
		}
		at := lines[r.Line]
		s := pattern.Segment{A: pattern.Pt(from, at), B: pattern.Pt(to, at)}
		if !r.From.Side() {
			s = pattern.Segment{A: pattern.Pt(at, from), B: pattern.Pt(at, to)}
		}
		out = append(out, s)
	}
	return out, nil
}

func (m Slit) do(t *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	cuts, err := m.cuts(c)
	if err != nil {
		return err
	}
	for _, s := range cuts {
		if c.isCut(s) {
			return errors.New("this is slit already")
		}
		c.cuts = append(c.cuts, s)
	}
	return nil
}

func (m CutOff) do(t *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	var gone []int
	for _, p := range m.What.At {
		i, err := c.at(p)
		if err != nil {
			return err
		}
		gone = append(gone, i)
	}
	for _, i := range gone {
		for _, b := range c.borders(i) {
			if b.other >= 0 && !b.cut && !slices.Contains(gone, b.other) {
				if m.Free {
					return errors.New("what is to come off still hangs")
				}
				c.cuts = append(c.cuts, b.Segment)
			}
		}
	}
	for _, i := range gone {
		c.cells[i].off = true
	}
	return nil
}

func (m Trim) do(_ *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	for _, p := range m.What.At {
		if _, err := c.trim(p, m.Leave.MM()); err != nil {
			return err
		}
	}
	return nil
}

// trim cuts the part in which a point lies down to what is left of it from its fold, and gives
// a point in that.
func (c *Card) trim(p pattern.Point, leave float64) (pattern.Point, error) {
	i, err := c.at(p)
	if err != nil {
		return p, err
	}
	a, b, farB, farA, err := c.hinge(i)
	if err != nil {
		return p, err
	}
	whole := farA.Sub(a).Len()
	if leave < Close || leave > whole-Close {
		return p, fmt.Errorf("the part is %.2f mm long, so %.2f cannot be left of it", whole, leave)
	}
	s := pattern.Segment{A: a.Add(farA.Sub(a).Scale(leave / whole)), B: b.Add(farB.Sub(b).Scale(leave / whole))}
	mid := a.Add(b).Scale(0.5)
	lost := mid.Add(farA.Sub(a).Scale((leave/whole + 1) / 2))
	return mid.Add(farA.Sub(a).Scale(leave / whole / 2)), c.takeOff(s, lost)
}

func (m Taper) do(_ *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	for _, p := range m.What.At {
		if m.Leave > 0 {
			var err error
			if p, err = c.trim(p, m.Leave.MM()); err != nil {
				return err
			}
		}
		if err := c.taper(p, m.Off.MM()); err != nil {
			return err
		}
	}
	return nil
}

// taper takes wedges off both sides of the part in which a point lies.
func (c *Card) taper(p pattern.Point, off float64) error {
	i, err := c.at(p)
	if err != nil {
		return err
	}
	a, b, farB, farA, err := c.hinge(i)
	if err != nil {
		return err
	}
	wide := farB.Sub(farA)
	if off < Close || 2*off > wide.Len()-Close {
		return fmt.Errorf("%.2f mm off each side leave nothing of %.2f", off, wide.Len())
	}
	in := wide.Scale(off / wide.Len())
	for _, w := range []struct{ from, to, far pattern.Point }{{a, farA.Add(in), farA}, {b, farB.Sub(in), farB}} {
		lost := w.from.Add(w.to).Add(w.far).Scale(1.0 / 3)
		if err := c.takeOff(pattern.Segment{A: w.from, B: w.to}, lost); err != nil {
			return err
		}
	}
	return nil
}

func (m Notch) do(t *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	r, at, w, h := m.Across.MM()/2, m.At.MM(), c.Width.MM(), c.Height.MM()
	for _, e := range m.Edges {
		// The half circle lies inside the card, its arc from one end to the other.
		var a, b pattern.Point
		switch e {
		case Left:
			a, b = pattern.Pt(0, at+r), pattern.Pt(0, at-r)
		case Right:
			a, b = pattern.Pt(w, at-r), pattern.Pt(w, at+r)
		case Top:
			a, b = pattern.Pt(at-r, 0), pattern.Pt(at+r, 0)
		default:
			a, b = pattern.Pt(at+r, h), pattern.Pt(at-r, h)
		}
		c.bites = append(c.bites, pattern.Loop{{Point: a, Bulge: -1}, {Point: b}})
	}
	return nil
}
