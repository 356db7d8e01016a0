package design

import (
	"encoding/json"

	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
)

// PlanLoose writes pieces of no style as the pieces of a plan, each with the moves that make it.
// An error is a piece that cannot be drawn, or that its moves do not make.
func PlanLoose(pieces []loose.Piece, unit measure.Unit) ([]json.RawMessage, error) {
	r := &Result{Inputs: New("", unit, style.Usual().ID), Style: style.Usual()}
	r.Inputs.Loose = pieces
	if err := r.addLoose(); err != nil {
		return nil, err
	}
	r.byGeneralMoves()
	w := recipe.Work{Units: unit, Tick: r.Inputs.Tools.Tick, Fence: r.Inputs.Tools.Fence, Copies: 1, Cards: map[string]paper.Card{}}
	for _, p := range r.Parts {
		w.Parts, w.Cards[p.ID] = append(w.Parts, p.Part), p.Card
	}
	steps, table, err := w.Tell()
	if err != nil {
		return nil, err
	}
	out := []json.RawMessage{}
	for _, p := range r.Parts {
		if c, made := table.Card(p.ID); made {
			if err := c.Equal(p.Pattern); err != nil {
				return nil, err
			}
		}
		x := r.planPiece(p, recipe.Scores(p.Part, r.Inputs.Tools.Fence, r.Inputs.Tools.Tick))
		for _, s := range recipe.Flat(steps) {
			if s.Piece == p.ID {
				x.Moves = append(x.Moves, planMove{s.Key, s.Move, s.Piece, s.Text, append([]string{}, s.Needs...)})
			}
		}
		text, err := json.Marshal(x)
		if err != nil {
			return nil, err
		}
		out = append(out, text)
	}
	return out, nil
}
