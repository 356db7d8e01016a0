package design

import (
	"fmt"
	"slices"

	"brevium/core/dress"
	"brevium/core/hand"
	"brevium/core/inspect"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// byHand holds what lies on the table when every move of the steps was done against the
// design: each piece, what is stuck from piece to piece, papers, what is put, and no backing left on tape. A finding
// says at which move a hand would come to something else.
func (d *Dressed) byHand(w recipe.Work, table *hand.Table, err error) []inspect.Finding {
	wrong := func(err error) []inspect.Finding {
		return []inspect.Finding{{ID: "making", Verdict: inspect.Fail,
			Text: fmt.Sprintf("These steps do not make this box: %v. Please do not cut by them.", err)}}
	}
	if err != nil {
		return wrong(err)
	}
	for _, p := range d.Parts {
		if c, made := table.Card(p.ID); made {
			if err := c.Equal(p.Pattern); err != nil {
				return wrong(err)
			}
		}
	}
	if err := d.bonded(table); err != nil {
		return wrong(err)
	}
	if err := table.Papers(w.Dressed()); err != nil {
		return wrong(err)
	}
	if err := table.Things(d.things()); err != nil {
		return wrong(err)
	}
	if err := table.Peeled(); err != nil {
		return wrong(err)
	}
	return nil
}

// bonded holds what was stuck from piece to piece against the adhesive of the design.
func (d *Dressed) bonded(table *hand.Table) error {
	left := slices.Clone(table.Bonds())
	for _, p := range d.Parts {
		for _, g := range p.Pattern.Glue {
			if g.Dry || g.Piece == "" || !d.isPart(g) {
				continue
			}
			i := slices.Index(left, hand.Across{Piece: p.ID, Face: g.Face, Onto: g.Piece})
			if i < 0 {
				return fmt.Errorf("the %s of the %s is not stuck onto the %s", g.Face, p.ID, g.Piece)
			}
			left = slices.Delete(left, i, i+1)
		}
	}
	for _, bond := range left {
		if slices.ContainsFunc(d.Parts, func(p Part) bool { return p.ID == bond.Onto }) {
			return fmt.Errorf("the %s of the %s is stuck onto the %s and is not to be", bond.Face, bond.Piece, bond.Onto)
		}
	}
	return nil
}

// things are what the design has put on it and into it, and the pieces that are cut for that:
// counted from what was asked for, not from the moves that they are held against.
func (d *Dressed) things() (names, pieces []string) {
	numbered := func(format string, n int) {
		for i := range n {
			names = append(names, fmt.Sprintf(format, i+1))
		}
	}
	fixed := 0
	for _, c := range d.Closures {
		names = append(names, "closing by "+string(c.Kind))
		fixed += len(c.Seats) * map[ClosureKind]int{Magnets: 1, Hooks: 1, Brad: 2}[c.Kind]
	}
	numbered("closure/%d", fixed)
	for _, m := range d.Inserting {
		names, pieces = append(names, m.Thing), append(pieces, m.Uses...)
	}
	for _, b := range d.Bands {
		names = append(names, b.PieceID())
	}
	switch {
	case d.Wrapped != nil && d.Wrapped.Diagonal:
		numbered("wrapping, %d", 3)
	case d.Wrapped != nil:
		numbered("wrapping, %d", 4)
	}
	for _, x := range d.Ribbons {
		names = append(names, fmt.Sprintf("ribbon %d", x.ID))
		if x.Threaded != nil && slices.ContainsFunc(x.Threaded.Holes[:], d.papered) {
			names = append(names, fmt.Sprintf("holes for ribbon %d", x.ID))
		}
	}
	for _, l := range d.Inputs.Labels {
		names = append(names, fmt.Sprintf("label %d", l.ID))
	}
	for _, p := range d.Inputs.Loose {
		names = append(names, p.PieceID())
	}
	for _, p := range d.Parts {
		if covers := slices.ContainsFunc(d.Inputs.Covers, func(c dress.Cover) bool { return c.PieceID() == p.ID }); p.Loose && !covers {
			pieces = append(pieces, p.ID)
		}
	}
	return names, pieces
}

// isPart reports whether adhesive lands on a piece of the box.
func (d *Dressed) isPart(g pattern.Glue) bool {
	return slices.ContainsFunc(d.Parts, func(p Part) bool { return p.ID == g.Piece })
}
