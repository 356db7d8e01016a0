package hand

import (
	"errors"
	"fmt"

	"brevium/core/pattern"
)

// What no stock move does is done along lines that are given, and told in words of its own.

// Score scores lines that do not run right across; each ends on a line, a cut, a mark or an
// edge.
type Score struct {
	Lines []pattern.Segment
	Said
}

// Mark marks lines lightly, or points; or it only says what parts are called.
type Mark struct {
	Lines []pattern.Segment
	At    []pattern.Point
	Calls []Call
	Said
}

// Call is a name for the part in which a point lies.
type Call struct {
	Name string
	At   pattern.Point
}

// Snip cuts along lines, and lets fall the cells in which points lie once all are cut.
type Snip struct {
	Cuts []pattern.Segment
	Off  []pattern.Point
	Said
}

// Bite cuts out holes and notches, and rounds corners: closed loops, or an arc with the
// corner that it takes off.
type Bite struct {
	Loops []pattern.Loop
	Said
}

// FoldWays folds every score: those of Towards towards the hand, the others away, and those
// of Flat right over.
type FoldWays struct {
	Towards, Flat []pattern.Segment
	Said
}

// TurnIn folds parts over flat and sticks them down while all else lies flat: later folds go
// through both.
type TurnIn struct {
	What, Onto Parts
	Said
}

// Template draws round a printed template and pricks its inner corners through.
type Template struct {
	Pattern *pattern.Pattern
	Said
}

// ScoreTraced scores folds between what a template has given.
type ScoreTraced struct {
	Lines []pattern.Segment
	Said
}

// CutTraced cuts round what was drawn.
type CutTraced struct{ Said }

func (m TurnIn) do(_ *Table, c *Card) error {
	if c.folded {
		return fmt.Errorf("the %s is folded already", c.ID)
	}
	if len(m.What.At) != len(m.Onto.At) {
		return fmt.Errorf("%d parts are turned onto %d places", len(m.What.At), len(m.Onto.At))
	}
	for i, p := range m.What.At {
		c.stuck = append(c.stuck, Bond{Part: p, Onto: m.Onto.At[i]})
	}
	return nil
}

func (m Template) do(_ *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	if c.traced != nil {
		return errors.New("it is drawn round a template already")
	}
	c.traced = m.Pattern
	return nil
}

func (m ScoreTraced) do(_ *Table, c *Card) error {
	if c.traced == nil || c.folded {
		return errors.New("there is nothing drawn to score, or it is folded already")
	}
	for _, s := range m.Lines {
		if c.isScored(s) {
			return errors.New("this is scored already")
		}
		c.scores = append(c.scores, s)
	}
	return nil
}

func (m CutTraced) do(_ *Table, c *Card) error {
	if c.traced == nil || c.folded {
		return errors.New("there is nothing drawn to cut round, or it is folded already")
	}
	if c.round {
		return errors.New("it is cut round already")
	}
	c.round = true
	return nil
}

// Own is what the maker of a style has said in words of their own: it folds or sticks what the
// words say.
type Own struct {
	Kind, Text string
	Bonds      []Bond
}

// The kinds of such words.
const (
	OwnFolding = "fold"
	OwnGluing  = "glue"
	OwnClosing = "close"
	OwnDoing   = "do" // which leaves the card as it is
)

func (m Own) do(t *Table, c *Card) error {
	switch m.Kind {
	case OwnFolding:
		c.bent = true
	case OwnGluing:
		c.stuck = append(c.stuck, m.Bonds...)
	case OwnClosing:
		t.shut = true
	}
	return nil
}

// Bend draws the card over an edge without a score.
type Bend struct{ Said }

func (m Score) do(_ *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	for _, s := range m.Lines {
		if err := c.score(s); err != nil {
			return err
		}
	}
	return nil
}

func (m Mark) do(_ *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	for _, s := range m.Lines {
		if err := c.part(s); err != nil {
			return err
		}
	}
	c.marks, c.dots, c.calls = append(c.marks, m.Lines...), append(c.dots, m.At...), append(c.calls, m.Calls...)
	return nil
}

func (m Snip) do(_ *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	for _, s := range m.Cuts {
		if c.isCut(s) {
			return errors.New("this is cut already")
		}
		if err := c.part(s); err != nil {
			return err
		}
		c.cuts = append(c.cuts, s)
	}
	return c.fall(m.Off)
}

// fall lets the cells go in which points lie; they must be cut free all round.
func (c *Card) fall(at []pattern.Point) error {
	var gone []int
	for _, p := range at {
		i, err := c.at(p)
		if err != nil {
			return err
		}
		c.cells[i].off = true
		gone = append(gone, i)
	}
	for _, i := range gone {
		for _, b := range c.borders(i) {
			if b.other >= 0 && !b.cut {
				return fmt.Errorf("what is to fall off at (%.1f, %.1f) mm still hangs", b.A.X, b.A.Y)
			}
		}
	}
	return nil
}

func (m Bite) do(_ *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	c.bites = append(c.bites, m.Loops...)
	return nil
}

func (m FoldWays) do(_ *Table, c *Card) error {
	if len(c.scores) == 0 {
		return errors.New("nothing is scored")
	}
	for _, s := range m.Flat {
		if covered(s, c.flat) {
			return errors.New("this is folded over already")
		}
	}
	for _, s := range append(append([]pattern.Segment{}, m.Towards...), m.Flat...) {
		if !c.isScored(s) {
			return fmt.Errorf("what is folded from (%.1f, %.1f) mm is not scored", s.A.X, s.A.Y)
		}
	}
	c.folded, c.towards, c.flat = true, append(c.towards, m.Towards...), append(c.flat, m.Flat...)
	return nil
}

func (m Bend) do(_ *Table, c *Card) error {
	if len(c.stuck) > 0 {
		return errors.New("this is stuck already")
	}
	c.bent = true
	return nil
}
