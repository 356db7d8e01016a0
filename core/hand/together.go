package hand

import (
	"errors"
	"fmt"
)

// Across is adhesive on a face of one piece that lands on another, by their names.
type Across struct{ Piece, Face, Onto string }

// Join puts made pieces together; Bonds are the faces that are stuck for it.
type Join struct {
	Uses  []string
	Bonds []Across
	Said
}

// Fill puts the contents into a piece.
type Fill struct {
	Into string
	Said
}

// Shut closes the filled box, or holds it shut.
type Shut struct {
	Uses []string
	Said
}

// Hold holds the closed box shut; whoever chooses something else to hold it leaves this out.
type Hold struct{ Said }

func (m Join) do(t *Table, _ *Card) error {
	if err := t.stand(m.Uses); err != nil {
		return err
	}
	for _, b := range m.Bonds {
		if err := t.stand([]string{b.Piece}); err != nil {
			return err
		}
		if _, there := t.Card(b.Onto); there {
			if err := t.stand([]string{b.Onto}); err != nil {
				return err
			}
		}
		for _, o := range t.across {
			if o == b {
				return fmt.Errorf("the %s of the %s is stuck already", b.Face, b.Piece)
			}
		}
		t.across = append(t.across, b)
	}
	return nil
}

func (m Fill) do(t *Table, _ *Card) error {
	if t.filled {
		return errors.New("the box is filled already")
	}
	if err := t.stand([]string{m.Into}); err != nil {
		return err
	}
	t.filled = true
	return nil
}

func (m Shut) do(t *Table, _ *Card) error {
	if !t.filled {
		return errors.New("nothing is filled in yet")
	}
	t.shut = true
	return t.stand(m.Uses)
}

func (m Hold) do(t *Table, _ *Card) error {
	if !t.shut {
		return errors.New("the box is not closed yet")
	}
	return nil
}

// Bonds are what is stuck from piece to piece.
func (t *Table) Bonds() []Across { return t.across }

// stand says why pieces cannot be used yet.
func (t *Table) stand(ids []string) error {
	for _, id := range ids {
		c, there := t.Card(id)
		if !there {
			return fmt.Errorf("the %s is not cut yet", id)
		}
		if len(c.scores) > 0 && !c.folded {
			return fmt.Errorf("the %s is not folded yet", id)
		}
	}
	return nil
}
