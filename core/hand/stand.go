package hand

import (
	"errors"
	"fmt"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// FoldAll folds every score away from the hand and burnishes.
type FoldAll struct{}

// FoldOver folds the hinges of parts right over, flat, and opens them again.
type FoldOver struct {
	What Parts
}

// Way is how what is stuck comes to its place.
type Way string

// The ways of sticking.
const (
	// WallsUp: the walls are stood up and the tabs pressed inside those that have none.
	WallsUp Way = "walls-up"
	// InTurn: the walls are stood up one after the other, each tab inside the next.
	InTurn Way = "in-turn"
	// EndsFirst: the side walls stand with their squares folded in, back and front are
	// pressed on.
	EndsFirst Way = "ends-first"
	// Facets, FacetWings and FacetLip: the corners of a bevelled basket, its front's wings and
	// its last lip.
	Facets     Way = "facets"
	FacetWings Way = "facet-wings"
	FacetLip   Way = "facet-lip"
	// Weave: strips of two sides crossing, from the floor up.
	Weave Way = "weave"
	// OverAll: as Over, each with a tab beneath.
	OverAll Way = "roll-over-all"
	// Inside: the parts are pressed inside others.
	Inside Way = "inside"
	// Over: the strips are rolled over their walls.
	Over Way = "roll-over"
	// StandInside: the row of what they are pressed in is stood up for it.
	StandInside Way = "stand-inside"
	// StandOver: their own row is stood up and pressed over others, and StandUnder inside them.
	StandOver  Way = "stand-over"
	StandUnder Way = "stand-under"
	// Tube: one strip is closed to a ring, its tab inside the first panel.
	Tube Way = "tube"
	// Ring: one strip is closed to a ring, each part of its tab inside the first panel.
	Ring Way = "ring"
	// Strap: one strip is closed round the thing itself, its end over its first panel.
	Strap Way = "strap"
	// Gusset: corner points are laid flat against their walls.
	Gusset Way = "gusset"
	// GussetTurn: the back ones first, the front ones on them.
	GussetTurn Way = "gusset-turn"
	// Shell: a square flap inside one long flap, that inside the other.
	Shell Way = "shell"
	// Around: one strip is closed round another piece; AroundOver: its last panel over the
	// first.
	Around     Way = "around"
	AroundOver Way = "around-over"
	// Ledges: flaps close a top, short ones first, long ones over them.
	Ledges Way = "ledges"
	// LedgesSquare: those of a square top, of panels 2 and 4 first.
	LedgesSquare Way = "ledges-square"
	// A side of a part onto a side of another, by their names.
	OutToIn  Way = "out-to-in"
	OutToOut Way = "out-to-out"
	InToIn   Way = "in-to-in"
	InToOut  Way = "in-to-out"
	// Foot: flaps close a foot, two folded in, then one and one over them.
	Foot Way = "foot"
)

// Stick puts adhesive on parts and presses each onto its place: the first of What onto
// the first of Onto, and so on.
type Stick struct {
	Way                  Way
	What, Onto           Parts
	Outside, OntoOutside bool
	Wet                  bool           // wet glue, not tape
	At                   measure.Length // how much of a strip's end, where that is told
	Round                string         // the piece that it is wrapped round
}

// Dry puts parts where they belong without anything that holds them.
type Dry struct{ Said }

func (m Dry) do(_ *Table, c *Card) error {
	if !c.folded {
		return fmt.Errorf("the %s is not folded yet", c.ID)
	}
	return nil
}

func (m FoldAll) do(t *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	if len(c.scores) == 0 {
		return errors.New("nothing is scored")
	}
	c.folded = true
	return nil
}

func (m FoldOver) do(t *Table, c *Card) error {
	if !c.folded || len(c.stuck) > 0 {
		return errors.New("the other scores are folded first, and nothing is stuck")
	}
	for _, p := range m.What.At {
		i, err := c.at(p)
		if err != nil {
			return err
		}
		held := 0
		for _, b := range c.borders(i) {
			if b.other >= 0 && !b.cut {
				if covered(b.Segment, c.flat) {
					return errors.New("this is folded over already")
				}
				c.flat = append(c.flat, b.Segment)
				held++
			}
		}
		if held != 1 {
			return fmt.Errorf("this part hangs by %d stretches, not by one", held)
		}
	}
	return nil
}

func (m Stick) do(t *Table, c *Card) error {
	if !c.folded {
		return fmt.Errorf("the %s is not folded yet", c.ID)
	}
	if t.filled {
		return errors.New("the box is filled already")
	}
	if len(m.What.At) == 0 || len(m.What.At) != len(m.Onto.At) {
		return fmt.Errorf("%d parts are stuck onto %d places", len(m.What.At), len(m.Onto.At))
	}
	if m.Round != "" {
		if round, there := t.Card(m.Round); !there || !round.folded {
			return fmt.Errorf("the %s does not stand yet", m.Round)
		}
	}
	for i, p := range m.What.At {
		b := Bond{Part: p, Onto: m.Onto.At[i], Outside: m.Outside, OntoOutside: m.OntoOutside}
		for _, at := range []pattern.Point{b.Part, b.Onto} {
			if _, err := c.at(at); err != nil {
				return err
			}
		}
		if err := c.bare(b); err != nil {
			return err
		}
		if m.Way == Weave {
			if err := c.peel(p); err != nil {
				return err
			}
		}
		for _, o := range c.stuck {
			if o == b {
				return errors.New("this is stuck already")
			}
		}
		c.stuck = append(c.stuck, b)
	}
	c.stands = true
	return nil
}
