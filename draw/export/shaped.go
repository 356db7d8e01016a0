package export

import (
	"context"
	"fmt"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/nest"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// Shaped are a design's sheets laid by true shape, for scissors and machines.
type Shaped struct {
	Drawings []Drawing
	// Trimmer is how many sheets the trimmer takes.
	Trimmer int
}

// Saves is how many sheets are saved.
func (s Shaped) Saves() int { return s.Trimmer - len(s.Drawings) }

// stock is all that is cut from one card, as the trimmer has it; of tells whose a piece is, and its
// blank.
type stock struct {
	card   paper.Card
	job    *layout.Job
	layout *layout.Result
	of     func(piece int) (*design.Result, string)
}

// ByShape lays each card's pieces by their outlines, where the trimmer takes more than one sheet, for
// so many seconds in all. A card for which that saves nothing stays as the trimmer has it.
func ByShape(ctx context.Context, r *design.Result, seconds float64) (Shaped, error) {
	var all []stock
	for _, s := range r.Stocks {
		all = append(all, stock{s.Card, s.Job, s.Layout, func(piece int) (*design.Result, string) { return r, s.Job.Pieces[piece].Name }})
	}
	return byShape(ctx, all, seconds)
}

// JobByShape does so for a job, whose boxes are made.
func JobByShape(ctx context.Context, stocks []batch.Stock, made []*design.Result, seconds float64) (Shaped, error) {
	var all []stock
	for _, s := range stocks {
		all = append(all, stock{s.Card, s.Job, s.Layout, func(piece int) (*design.Result, string) { return made[s.Origins[piece].Item], s.Origins[piece].Part }})
	}
	return byShape(ctx, all, seconds)
}

func byShape(ctx context.Context, all []stock, seconds float64) (Shaped, error) {
	var out Shaped
	several := 0
	for _, s := range all {
		out.Trimmer += len(s.layout.Sheets)
		if len(s.layout.Sheets) > 1 {
			several++
		}
	}
	for _, s := range all {
		if len(s.layout.Sheets) > 1 {
			job, pieces := s.shapes()
			laid, err := nest.Solve(ctx, job, nest.Effort{Seconds: seconds / float64(several), Workers: layout.Workers(ctx)})
			if err != nil {
				return Shaped{}, fmt.Errorf("laying %s by shape: %w", s.card.Name, err)
			}
			if len(laid.Unplaced) == 0 && len(laid.Sheets) < len(s.layout.Sheets) {
				for _, l := range laid.Sheets {
					out.Drawings = append(out.Drawings, shaped(s.card, job.Sheets[l.Kind].Sheet, l, len(out.Drawings)+1, pieces))
				}
				continue
			}
		}
		for _, l := range s.layout.Sheets {
			out.Drawings = append(out.Drawings, packed(s.card, l, len(out.Drawings)+1, s.of))
		}
	}
	return out, nil
}

// shapes is a card's job by outlines. A piece may be turned as its paper allows; one that lies as its
// grain wants stays so, or end for end.
func (s stock) shapes() (*nest.Job, []Drawing) {
	job := &nest.Job{}
	for _, sheet := range s.job.Sheets {
		job.Sheets = append(job.Sheets, nest.Sheet{Sheet: sheet})
	}
	var pieces []Drawing
	for i, p := range s.job.Pieces {
		one := nest.Piece{Name: p.Name, Copies: p.Copies, Turns: nest.TurnsOf(s.card.Direction)}
		r, id := s.of(i)
		var d Drawing
		for _, b := range r.Blanks {
			if b.ID != id {
				continue
			}
			d = ofBlank(r, b)
			if r.EndForEnd(b.ID) {
				d = d.turned()
			}
			one.Outline = []pattern.Point{pattern.Pt(0, 0), pattern.Pt(d.Width, 0), pattern.Pt(d.Width, d.Height), pattern.Pt(0, d.Height)}
			if len(b.Gives) < 2 {
				one.Outline = nest.Round(d.Cuts[0])
				for _, h := range d.Cuts[1:] {
					one.Holes = append(one.Holes, h.Flat())
				}
			}
		}
		if s.card.Direction.MayTurn() && !p.Turn { // fixed by its grain
			one.Turns = []int{0, 180}
			for _, l := range s.layout.Sheets {
				for _, at := range l.Placed {
					if at.Piece == i && at.Turned {
						one.Turns = []int{90, 270}
					}
				}
			}
		}
		job.Pieces = append(job.Pieces, one)
		pieces = append(pieces, d)
	}
	return job, pieces
}

// shaped is a sheet that is laid by shape.
func shaped(card paper.Card, sheet paper.Sheet, l nest.Laid, n int, pieces []Drawing) Drawing {
	d := Drawing{
		Name: fmt.Sprintf("Sheet %d: %s, %s, laid by shape", n, card.Name, sheet.Name), File: fmt.Sprintf("sheet-%d", n),
		Card: card, Width: sheet.Width.MM(), Height: sheet.Height.MM(), Sheet: true,
	}
	for _, p := range l.Placed {
		piece := pieces[p.Piece]
		turn := func(q pattern.Point) pattern.Point {
			for range p.Turn / 90 {
				q = pattern.Pt(-q.Y, q.X)
			}
			return q
		}
		turned := piece.moved(turn, movedLoop(turn))
		lo, _ := pattern.Bounds(turned.all())
		d.put(turned, pattern.Pt(p.X, p.Y).Sub(lo), false)
	}
	return d
}

// all are the corners of a drawing's outlines, as the search for places has them.
func (d Drawing) all() []pattern.Point {
	var out []pattern.Point
	for _, l := range d.Cuts {
		out = append(out, nest.Round(l)...)
	}
	return out
}
