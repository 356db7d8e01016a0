package design

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"brevium/core/inspect"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Result is everything that follows from the inputs: the laid design with what is wrong with it,
// its steps and its supplies.
type Result struct {
	Laid
	Checks   []inspect.Finding
	Scores   []recipe.ScoreList // by part
	Steps    []recipe.Step
	Supplies []recipe.Supply
	One, All float64 // minutes
}

// Make works the whole design out. Every fault names the field to mend; ctx
// ends it early.
func Make(ctx context.Context, in Inputs) (*Result, error) {
	b, err := Sketch(in)
	if err != nil {
		return nil, err
	}
	return finish(ctx, b)
}

// MakeOf works a design out for a style that need not be in the catalogue, to try it.
func MakeOf(ctx context.Context, in Inputs, s *style.Style) (*Result, error) {
	b, err := sketchOf(in, s)
	if err != nil {
		return nil, err
	}
	return finish(ctx, b)
}

// finish works out all but the pieces themselves.
func finish(ctx context.Context, b *Built) (*Result, error) {
	papered, err := putPapers(*b)
	if err != nil {
		return nil, err
	}
	tied, err := tie(*papered)
	if err != nil {
		return nil, err
	}
	dressed, err := shutAndLabel(*tied)
	if err != nil {
		return nil, err
	}
	laid, err := lay(ctx, *dressed)
	if err != nil {
		return nil, err
	}
	return tell(*laid)
}

// tell looks a laid design over and writes its steps and supplies.
func tell(l Laid) (*Result, error) {
	r := &Result{Laid: l}
	if err := r.check(); err != nil {
		return nil, err
	}
	w := r.work()
	steps, table, err := w.Tell()
	r.Steps, r.Checks = recipe.WithOwn(steps, r.own()), append(r.Checks, r.byHand(w, table, err)...)
	r.One, r.All = recipe.Minutes(r.Steps, r.Inputs.Copies)
	for _, s := range r.Stocks {
		r.Supplies = append(r.Supplies, sheetSupplies(s)...)
	}
	r.Supplies = append(r.Supplies, r.supplies(w)...)
	return r, nil
}

// remarks are what the style says of the sizes; those that follow from what goes in, or from a
// size wanted inside or outside, are not mended by typing them.
func (r *Result) remarks() []inspect.Finding {
	out := inspect.Remarks(r.Box)
	for i, f := range out {
		id, size := strings.CutPrefix(f.Mend.Field, "size.")
		if size && r.Style.IsAxis(id) && (len(r.Inputs.Things) > 0 || r.Inputs.Basis != Scored) {
			out[i].Mend = nil
		}
	}
	return out
}

func (r *Result) check() error {
	in := &r.Inputs
	said := r.remarks()
	var closing []inspect.Finding
	if len(said) == 0 { // else the style has said it, and what mends it
		closing = inspect.Closing(r.Box.Fits)
	}
	r.Checks = slices.Concat(said, inspect.Fits(r.Fits), closing, r.found, r.judged, r.hidesEdges(), r.staySquare(), r.byTools(), r.byKnife(), r.byMachine())
	for _, p := range r.Parts {
		list := recipe.Scores(p.Part, in.Tools.Fence, in.Tools.Tick)
		r.Scores = append(r.Scores, list)
		r.Checks = append(r.Checks, inspect.OnTick(list, in.Tools.Tick, in.Units), inspect.Tabs(p.Part, style.AdhesiveOf(r.Spec)))
		if !p.Loose {
			r.Checks = append(r.Checks, inspect.Piece(p.Part, p.Folded)...)
		}
		if f, runs := inspect.Direction(p.Part, p.Faces, p.Card, p.EndForEnd); runs {
			r.Checks = append(r.Checks, f)
		}
		if f, long := inspect.Board(p.Part, in.Units, in.Tools.Tick); long {
			r.Checks = append(r.Checks, f)
		}
	}
	r.Checks = append(r.Checks, r.matters()...)
	parts, folded := r.Pieces()
	whole := inspect.Whole{
		Parts: parts, Finished: folded, Box: r.Box, Fits: r.Fits,
		Needs: r.Needs, Filled: r.Needs != (style.Extent{}), Inside: r.Inside, Inner: r.Style.Inner, Units: in.Units,
	}
	together, err := whole.Together()
	if err != nil {
		return err
	}
	r.Checks = append(r.Checks, together...)
	for _, s := range r.Stocks {
		if n := len(s.Layout.Unplaced); n > 0 {
			r.Checks = append(r.Checks, inspect.Finding{ID: "sheets", Verdict: inspect.Fail,
				Text: fmt.Sprintf("%d pieces of %s fit on no sheet that is left; add sheets or make fewer.", n, s.Card.Name)})
		}
	}
	return nil
}
