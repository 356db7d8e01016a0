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
	in := Plain("", unit)
	in.Loose = pieces
	parts, err := looseParts(&in, nil)
	if err != nil {
		return nil, err
	}
	w := recipe.Work{Units: unit, Tick: in.Tools.Tick, Fence: in.Tools.Fence, Copies: 1, Cards: map[string]paper.Card{}}
	for i, p := range parts {
		parts[i].Part = generally(p.Part, style.TapeAdhesive)
		w.Parts, w.Cards[p.ID] = append(w.Parts, parts[i].Part), p.Card
	}
	steps, table, err := w.Tell()
	if err != nil {
		return nil, err
	}
	out := []json.RawMessage{}
	for _, p := range parts {
		if c, made := table.Card(p.ID); made {
			if err := c.Equal(p.Pattern); err != nil {
				return nil, err
			}
		}
		x := planPieceOf(&in, p, in.RunOf(p.ID), recipe.Scores(p.Part, in.Tools.Fence, in.Tools.Tick), steps)
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
