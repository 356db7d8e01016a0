package design

import (
	"encoding/json"

	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
)

// PlanLoose writes pieces of no style as the pieces of a plan.
func PlanLoose(pieces []loose.Piece, unit measure.Unit) ([]json.RawMessage, error) {
	r := &Result{Inputs: New("", unit, style.Usual().ID), Style: style.Usual()}
	r.Inputs.Loose = pieces
	if err := r.addLoose(); err != nil {
		return nil, err
	}
	out := []json.RawMessage{}
	for _, p := range r.Parts {
		text, err := json.Marshal(r.planPiece(p, recipe.Scores(p.Part, r.Inputs.Tools.Fence, r.Inputs.Tools.Tick)))
		if err != nil {
			return nil, err
		}
		out = append(out, text)
	}
	return out, nil
}
