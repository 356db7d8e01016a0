package hand

import (
	"fmt"
	"slices"
)

// When is how far a box is made when something is put on it.
type When string

// A piece lies flat; the box is put together and empty; it is filled and closed.
const (
	Lying  When = "lying"
	Empty  When = "empty"
	Closed When = "closed"
)

// Put puts something on a piece or the box that is no paper: what holds it shut, bands, ribbons,
// wrapping, labels, pieces of no kind, and what stands inside it.
type Put struct {
	Key    string   // of the step
	Thing  string   // what is put, once
	On     string   // the piece; "" is the whole box
	When   When     // how far the box is made
	Uses   []string // pieces that are cut and become part of it
	After  []string // things that lie under it
	Phrase []Said   // the sentences that tell it
}

func (m Put) do(t *Table, c *Card) error {
	if slices.Contains(t.things, m.Thing) {
		return fmt.Errorf("the %s is put on already", m.Thing)
	}
	for _, under := range m.After {
		if !slices.Contains(t.things, under) {
			return fmt.Errorf("the %s goes under the %s and is not there", under, m.Thing)
		}
	}
	switch m.When {
	case Lying:
		if c == nil || len(c.cells) == 0 {
			return fmt.Errorf("there is no card for the %s", m.Thing)
		}
		if c.stands {
			return fmt.Errorf("the %s is stuck already, and does not lie flat", c.ID)
		}
		if len(c.papers) > 0 {
			return fmt.Errorf("papers would not hide the %s", m.Thing)
		}
	case Empty:
		if t.filled {
			return fmt.Errorf("the box is filled already")
		}
	default:
		if !t.filled {
			return fmt.Errorf("the box is not filled and closed yet")
		}
	}
	for _, id := range m.Uses {
		if err := t.stand([]string{id}); err != nil {
			return err
		}
		if slices.Contains(t.used, id) {
			return fmt.Errorf("the %s is used up already", id)
		}
		t.used = append(t.used, id)
	}
	t.things = append(t.things, m.Thing)
	return nil
}

// Things holds what was put against what the design has: each once, and of the pieces that are
// cut for it each used.
func (t *Table) Things(want, pieces []string) error {
	for _, x := range want {
		if !slices.Contains(t.things, x) {
			return fmt.Errorf("the %s is put nowhere", x)
		}
	}
	for _, x := range t.things {
		if !slices.Contains(want, x) {
			return fmt.Errorf("the %s is none of it", x)
		}
	}
	for _, id := range pieces {
		if !slices.Contains(t.used, id) {
			return fmt.Errorf("the %s is cut and never used", id)
		}
	}
	return nil
}
