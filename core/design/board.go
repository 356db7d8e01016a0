package design

import (
	"context"
	"fmt"

	"brevium/core/measure"
)

// Board is a box made on another board: its inputs, and every number of it
// that is another one there.
type Board struct {
	Inputs  Inputs
	Changes []BoardChange
}

// BoardChange is one number, as it is and as it would be, each written in the
// unit of its box.
type BoardChange struct{ What, From, To string }

// Sister is the same box in the other unit, on that unit's board: typed sizes go to its nearest
// marks, all else follows.
func Sister(ctx context.Context, in Inputs) (Board, error) {
	other := in.Clone()
	unit := measure.CM
	if in.Units != measure.In {
		unit = measure.In
	}
	other.SetUnits(unit)
	out, err := fitted(ctx, in, other, unit.Tick())
	if err != nil {
		return Board{}, err
	}
	name := []rune(fmt.Sprintf("%s, in %s", in.Name, map[measure.Unit]string{measure.In: "inches", measure.CM: "centimetres"}[unit]))
	out.Inputs.Name = string(name[:min(len(name), LongestName)])
	return out, nil
}

// OnBoard puts a design onto a board of the given tick: typed sizes and the
// lengths of options go to its nearest marks, all else follows as it did.
func OnBoard(ctx context.Context, in Inputs, tick measure.Tick) (Board, error) {
	return fitted(ctx, in, in, tick)
}

// fitted puts inputs onto a board, and says what changes against the box as it is.
func fitted(ctx context.Context, is, in Inputs, tick measure.Tick) (Board, error) {
	now, err := Sketch(is)
	if err != nil {
		return Board{}, err
	}
	out := Board{Inputs: in.Clone()}
	out.Inputs.Tools.Tick = tick
	for id, l := range out.Inputs.Size {
		out.Inputs.Size[id] = measure.Nearest(l, tick)
	}
	for id, l := range out.Inputs.Lengths {
		out.Inputs.Lengths[id] = measure.Nearest(l, tick.System().Ruler())
	}
	then, err := Make(ctx, out.Inputs)
	if err != nil {
		return Board{}, err
	}
	note := func(what string, from, to measure.Length) {
		if from != to {
			out.Changes = append(out.Changes, BoardChange{what, now.Show(from), then.Show(to)})
		}
	}
	for _, p := range now.Style.Parameters {
		note(p.Label, now.Spec.Lengths[p.ID], then.Spec.Lengths[p.ID])
	}
	for _, o := range now.Style.Options {
		note(o.Label, now.Spec.Lengths[o.ID], then.Spec.Lengths[o.ID])
	}
	for i, p := range now.Parts {
		if i < len(then.Parts) {
			note(fmt.Sprintf("%s, cut wide", p.Name), p.Pattern.Width, then.Parts[i].Pattern.Width)
			note(fmt.Sprintf("%s, cut high", p.Name), p.Pattern.Height, then.Parts[i].Pattern.Height)
		}
	}
	return out, nil
}
