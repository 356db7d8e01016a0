package design

import (
	"fmt"
	"slices"

	"brevium/core/hand"
	"brevium/core/inspect"
	"brevium/core/pattern"
	"brevium/core/style"
)

// byHand does every move of the steps on a table and holds what lies there at the end against
// the design: each piece, and what is stuck from piece to piece. A finding says at which move
// a hand would come to something else.
func (r *Result) byHand() []inspect.Finding {
	wrong := func(err error) []inspect.Finding {
		return []inspect.Finding{{ID: "making", Verdict: inspect.Fail,
			Text: fmt.Sprintf("These steps do not make this box: %v. Please do not cut by them.", err)}}
	}
	w := r.work()
	table, err := hand.Do(w.Makings()...)
	if err != nil {
		return wrong(err)
	}
	for _, p := range r.Parts {
		if c, made := table.Card(p.ID); made {
			if err := c.Equal(p.Pattern); err != nil {
				return wrong(err)
			}
		}
	}
	if err := r.bonded(table); err != nil {
		return wrong(err)
	}
	if err := table.Papers(w.Dressed()); err != nil {
		return wrong(err)
	}
	return nil
}

// byGeneralMoves gives the pieces that no construction tells their moves.
func (r *Result) byGeneralMoves() {
	for i, p := range r.Parts {
		if p.Moves() == nil {
			moves := style.General(p.Part, r.Spec.Choices["adhesive"])
			r.Parts[i].Making = func() []hand.Move { return moves }
		}
	}
}

// bonded holds what was stuck from piece to piece against the adhesive of the design.
func (r *Result) bonded(table *hand.Table) error {
	left := slices.Clone(table.Bonds())
	for _, p := range r.Parts {
		for _, g := range p.Pattern.Glue {
			if g.Dry || g.Piece == "" || !r.isPart(g) {
				continue
			}
			i := slices.Index(left, hand.Across{Piece: p.ID, Face: g.Face, Onto: g.Piece})
			if i < 0 {
				return fmt.Errorf("the %s of the %s is not stuck onto the %s", g.Face, p.ID, g.Piece)
			}
			left = slices.Delete(left, i, i+1)
		}
	}
	for _, b := range left {
		if slices.ContainsFunc(r.Parts, func(p Part) bool { return p.ID == b.Onto }) {
			return fmt.Errorf("the %s of the %s is stuck onto the %s and is not to be", b.Face, b.Piece, b.Onto)
		}
	}
	return nil
}

// isPart reports whether adhesive lands on a piece of the box.
func (r *Result) isPart(g pattern.Glue) bool {
	return slices.ContainsFunc(r.Parts, func(p Part) bool { return p.ID == g.Piece })
}
