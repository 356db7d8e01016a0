package design

import (
	"context"
	"slices"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// BiggestOf is the biggest box of one style that a sheet gives; Biggest is nil
// where it gives none.
type BiggestOf struct {
	Style *style.Style
	*Biggest
}

// BiggestOfEvery asks the same of every style that stands alone: the biggest
// box of about the proportions of the present one, from the same sheet.
func BiggestOfEvery(ctx context.Context, in Inputs, now *Built, ask Ask) []BiggestOf {
	boxes := style.Boxes()
	out := make([]BiggestOf, len(boxes))
	layout.Each(ctx, len(boxes), layout.AtOnce, func(i int) {
		out[i].Style = boxes[i]
		// A style that goes wrong gives none.
		_ = fault.Guard(func() error {
			with, err := in.With(boxes[i].ID, now)
			if err == nil {
				out[i].Biggest, err = findFollowing(ctx, with, ask, false)
			}
			return err
		})
	})
	return out
}

// shapeless is the size whose shape counts where a style cannot be made as
// large as the box is now.
var shapeless = style.Extent{Length: 2 * measure.Inch, Width: 2 * measure.Inch, Height: 2 * measure.Inch}

// Reshaped gives the inputs in another style with a result that tells its
// proportions, also where it is too large for the sheets as it is.
func (in Inputs) Reshaped(styleID string, now *Built) (Inputs, *Built, error) {
	with, err := in.With(styleID, now)
	if err != nil {
		return with, nil, err
	}
	r, err := Sketch(with)
	if err != nil {
		with = with.Sized(shapeless)
		r, err = Sketch(with)
	}
	return with, r, err
}

// Sized gives the inputs a size of their own, score to score, in place of
// whatever set it.
func (in Inputs) Sized(e style.Extent) Inputs {
	out := in.Clone()
	out.Things, out.Basis, out.Stand, out.Compartments, out.Linings, out.Room = nil, Scored, "", Compartments{}, nil, style.Extent{}
	if s, err := style.ByID(in.Style); err == nil {
		s.Give(out.Size, e)
	}
	return out
}

// CopiesFrom is how many of the box one sheet gives: the most whose pieces of
// the box's own card all come out of it.
func CopiesFrom(ctx context.Context, in Inputs, sheet paper.Sheet) (int, error) {
	in = in.Clone()
	in.Sheets, in.Copies = []paper.Sheet{sheet}, 1
	r, err := Sketch(in)
	if err != nil {
		return 0, err
	}
	sheet.Count = 1
	job := layout.Job{Sheets: []paper.Sheet{sheet}, Trimmer: in.Tools.Trimmer}
	for _, p := range r.Parts {
		if p.Card.Same(in.Card) {
			job.Pieces = append(
				job.Pieces,
				layout.Piece{
					Name:   p.ID,
					Width:  p.Pattern.Width,
					Height: p.Pattern.Height,
					Copies: p.Copies(),
					Turn:   in.Card.Direction.MayTurn(),
				},
			)
		}
	}
	for n := 1; n <= MostCopies; n++ {
		more := job
		more.Pieces = slices.Clone(job.Pieces)
		for i := range more.Pieces {
			more.Pieces[i].Copies *= n
		}
		laid, err := layout.Solve(ctx, &more, interactive)
		if err != nil || len(laid.Unplaced) > 0 {
			return n - 1, nil
		}
	}
	return MostCopies, nil
}
