package hand

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"brevium/core/pattern"
)

// LayTape lays strips of tape on the inside and leaves the backing on, before the card under them
// is slit: each bit of it is peeled when the part that it lies on is stuck.
type LayTape struct {
	Strips [][]pattern.Point
	Said
}

// tape is a strip that lies on a card, and the points of the parts that were stuck by it.
type tape struct {
	ring   []pattern.Point
	peeled []pattern.Point
}

func (m LayTape) do(_ *Table, c *Card) error {
	if err := c.open(); err != nil {
		return err
	}
	for _, ring := range m.Strips {
		for _, t := range c.tapes {
			if pattern.Overlap(ring, t.ring) > Close*around(ring) {
				return errors.New("tape lies there already")
			}
		}
		for _, x := range c.cells {
			if x.off && pattern.Overlap(ring, x.ring) > Close*around(ring) {
				return errors.New("the tape hangs over where card was cut off")
			}
		}
		for _, s := range c.cuts {
			along := s.B.Sub(s.A)
			one, two, from, to := split(ring, s.A, along.Scale(1/along.Len()))
			if one != nil && two != nil && to > Close && from < along.Len()-Close {
				return errors.New("what the tape goes over is slit already")
			}
		}
		c.tapes = append(c.tapes, tape{ring: ring})
	}
	return nil
}

// peel takes the backing off the tape on a part that is stuck by it.
func (c *Card) peel(at pattern.Point) error {
	i, err := c.at(at)
	if err != nil {
		return err
	}
	for k, t := range c.tapes {
		if pattern.Overlap(t.ring, c.cells[i].ring) > Close*around(t.ring) {
			c.tapes[k].peeled = append(c.tapes[k].peeled, at)
			return nil
		}
	}
	return fmt.Errorf("no tape lies on the part at (%.1f, %.1f) mm", at.X, at.Y)
}

// Peeled says where the backing of tape is left on: on a part that is never stuck by it.
func (t *Table) Peeled() error {
	for _, c := range t.cards {
		for _, x := range c.tapes {
			for i, part := range c.cells {
				over := math.Abs(pattern.Overlap(x.ring, part.ring))
				if part.off || over < Close*around(x.ring) {
					continue
				}
				if !slices.ContainsFunc(x.peeled, func(q pattern.Point) bool { return pattern.Contains(c.cells[i].ring, q) }) {
					return fmt.Errorf("the backing is left on the tape of the %s at (%.1f, %.1f) mm", c.ID, x.ring[0].X, x.ring[0].Y)
				}
			}
		}
	}
	return nil
}
