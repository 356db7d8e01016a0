// Package hand is the making of a box: moves that a hand does, one after the
// other, on cards that lie on a table. A move knows what it needs and what it
// leaves; what lies there at the end is the design, or the table says at which
// move it is not.
//
// Conventions are the pattern's: millimetres, the origin at the blank's top left,
// x to the right, y down, the outside of the card towards the viewer.
package hand

import (
	"fmt"
	"slices"

	"brevium/core/measure"
)

// A Move is one act of a hand. The set is closed: what is none of this package's
// types is no move.
type Move interface {
	// do does it to the card that lies before the hand, nil for the whole box, or says why
	// a hand cannot.
	do(*Table, *Card) error
}

// Work is moves on one piece, by its id; "" is the whole box.
type Work struct {
	Piece string
	Moves []Move
}

// Said is the pattern of the voice file by which a move is told, and what is put into it:
// lengths, names that a card's rows were given, counts, pieces by their ids, one or more
// with spaces between, and words and phrases.
type Said struct {
	Key     string
	Lengths map[string][]measure.Length
	Names   map[string][]string
	Counts  map[string]int
	Pieces  map[string]string
	Words   map[string]string // names that people gave, as they stand
	Phrases map[string]Said   // other patterns, told inside this one
}

// Say is words without anything put in.
func Say(key string) Said { return Said{Key: key} }

// Table is what the moves so far have left.
type Table struct {
	cards  []*Card
	across []Across
	leaves []leaf
	things []string // that were put
	used   []string // pieces that became part of them
	filled bool
	shut   bool
}

// Card finds a piece that has been cut.
func (t *Table) Card(id string) (*Card, bool) {
	i := slices.IndexFunc(t.cards, func(c *Card) bool { return c.ID == id })
	if i < 0 {
		return nil, false
	}
	return t.cards[i], true
}

// Do does one more move on a piece.
func (t *Table) Do(piece string, m Move) error {
	var c *Card
	if piece != "" {
		var there bool
		if c, there = t.Card(piece); !there {
			c = &Card{ID: piece}
		}
		if _, cuts := m.(Cut); cuts == there {
			return fmt.Errorf("the %s is cut first, and once", piece)
		}
	}
	return m.do(t, c)
}

// open says why a card cannot be cut or scored any more.
func (c *Card) open() error {
	switch {
	case len(c.stuck) > 0:
		return fmt.Errorf("the %s is stuck already", c.ID)
	case c.folded:
		return fmt.Errorf("the %s is folded already", c.ID)
	}
	return nil
}

// Fault says which move of a piece a hand cannot do, counted from 0, and why.
type Fault struct {
	Piece string
	N     int
	Move  Move
	Cause error
}

func (f *Fault) Error() string {
	return fmt.Sprintf("%s, move %d, %T: %v", f.Piece, f.N+1, f.Move, f.Cause)
}

// Unwrap gives the cause.
func (f *Fault) Unwrap() error { return f.Cause }

// Do does works one after the other on an empty table. The error is a *Fault.
func Do(works ...Work) (*Table, error) {
	t := &Table{}
	for _, w := range works {
		for i, m := range w.Moves {
			if err := t.Do(w.Piece, m); err != nil {
				return t, &Fault{w.Piece, i, m, err}
			}
		}
	}
	return t, nil
}
