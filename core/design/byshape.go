package design

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/nest"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/tool"
)

// cutter is who cuts the pieces out.
func (in *Inputs) cutter() recipe.Cutter {
	switch m := in.Tools.Owned.Machine; {
	case in.Tools.With == tool.Scissors:
		return recipe.Outlines
	case in.Tools.With == tool.ByMachine && m.Scores == tool.OnBoard:
		return recipe.Machine
	case in.Tools.With == tool.ByMachine:
		return recipe.Scoring
	}
	return recipe.Blanks
}

// Shapes are a stock's pieces by their outlines, in the order of its job. A piece may be turned as its
// paper allows; one that lies as its grain wants stays so, or end for end.
func (l *Laid) Shapes(s Stock) []nest.Piece {
	var out []nest.Piece
	for i, p := range s.Job.Pieces {
		one := nest.Piece{Name: p.Name, Copies: p.Copies, Turns: nest.TurnsOf(s.Card.Direction)}
		switch {
		case s.turned[i]:
			one.Turns = []int{90, 270}
		case s.Card.Direction.MayTurn() && !p.Turn: // fixed by its grain
			one.Turns = []int{0, 180}
		}
		for _, b := range l.Blanks {
			if b.ID == p.Name {
				one.Outline, one.Holes = l.shapeOf(b)
			}
		}
		out = append(out, one)
	}
	return out
}

// shapeOf is what is cut of a blank, as it lies; several of one kind are the whole of it.
func (l *Laid) shapeOf(b Blank) (outline []pattern.Point, holes [][]pattern.Point) {
	w, h := b.Width.MM(), b.Height.MM()
	whole := []pattern.Point{pattern.Pt(0, 0), pattern.Pt(w, 0), pattern.Pt(w, h), pattern.Pt(0, h)}
	lies := func(points []pattern.Point) []pattern.Point { return l.asLaid(b, points) }
	for _, p := range l.Parts {
		if p.ID == b.ID {
			for _, hole := range p.Pattern.Holes {
				holes = append(holes, lies(hole.Flat()))
			}
			return lies(nest.Round(p.Pattern.Outline)), holes
		}
	}
	if len(b.Gives) == 1 {
		return lies(b.Gives[0].Outline), nil
	}
	return whole, nil
}

// shapesJob is a stock's job by shape, for scissors or the maker's machine.
func (l *Laid) shapesJob(s Stock) *nest.Job {
	job := &nest.Job{Pieces: l.Shapes(s)}
	for _, sheet := range s.Job.Sheets {
		job.Sheets = append(job.Sheets, nest.Sheet{Sheet: sheet})
	}
	if l.Inputs.Tools.With == tool.ByMachine {
		job.On(l.Inputs.Tools.Owned.Machine)
	}
	return job
}

// ByShape is the design with its pieces laid by their true shapes, as scissors and machines cut them: card
// by card, for so many seconds in all. With scissors a card for which that saves no sheet stays as the
// trimmer has it; what goes on no mat of the maker's machine does too.
func (r *Result) ByShape(ctx context.Context, seconds float64) (*Result, error) {
	machine := r.Inputs.Tools.With == tool.ByMachine
	l := r.Laid
	l.Stocks = slices.Clone(r.Stocks)
	several := 0
	for _, s := range l.Stocks {
		if len(s.Layout.Sheets) > 1 {
			several++
		}
	}
	for i, s := range l.Stocks {
		if len(s.Layout.Sheets) < 2 && !machine {
			continue
		}
		job := l.shapesJob(s)
		if job.Check() != nil {
			continue // too much for it, or larger than the mat, which is said
		}
		laid, err := nest.Solve(ctx, job, nest.Effort{Seconds: seconds / float64(max(1, several)), Workers: layout.Workers(ctx)})
		if err != nil {
			return nil, fault.At("sheets", err)
		}
		laid.Trimmer = len(s.Layout.Sheets)
		if len(laid.Unplaced) <= len(s.Layout.Unplaced) && (machine || len(laid.Sheets) < len(s.Layout.Sheets)) {
			l.Stocks[i].Layout = laid
		}
	}
	return tell(l)
}

// ShapeLayouts are the layouts by shape of a result that ByShape gave, as files, by card; Relaid reads them.
func (r *Result) ShapeLayouts() (map[string]json.RawMessage, error) {
	out := map[string]json.RawMessage{}
	for _, s := range r.Stocks {
		if len(s.Layout.Sheets) == 0 || !s.Layout.Sheets[0].ByShape {
			continue
		}
		text, err := r.shapesJob(s).JSON(s.Layout, 0)
		if err != nil {
			return nil, err
		}
		out[s.Card.Key()] = text
	}
	return out, nil
}

// Relaid is a result with layouts that ShapeLayouts wrote of it; an error where they are not of it.
func (r *Result) Relaid(layouts map[string]json.RawMessage) (*Result, error) {
	l := r.Laid
	l.Stocks = slices.Clone(r.Stocks)
	for i, s := range l.Stocks {
		text, there := layouts[s.Card.Key()]
		if !there {
			continue
		}
		laid, err := l.shapesJob(s).ReadResult(text)
		if err != nil {
			return nil, err
		}
		l.Stocks[i].Layout = laid
	}
	return tell(l)
}

// byMachine says which pieces go on no mat of the maker's machine.
func (l *Laid) byMachine() []inspect.Finding {
	if l.Inputs.Tools.With != tool.ByMachine {
		return nil
	}
	m := l.Inputs.Tools.Owned.Machine.Usually()
	var out []inspect.Finding
	for _, s := range l.Stocks {
		job := l.shapesJob(s)
		for _, p := range job.Pieces {
			if job.Fits(p) {
				continue
			}
			lo, hi := pattern.Bounds(p.Outline)
			long, mat := math.Max(hi.X-lo.X, hi.Y-lo.Y), m.Mats[0]
			out = append(out, inspect.Finding{ID: "machine", Verdict: inspect.Warn, Piece: p.Name, Text: fmt.Sprintf(
				"The %s is %s long and goes on no mat of your machine; the usual one is %s. What is cut of %s is laid for the trimmer: cut it by hand, make it smaller, or put a larger mat on the list of tools.",
				strings.ToLower(l.PieceName(p.Name)), l.Show(measure.FromMM(long)), mat.Called(), s.Card.Name)})
		}
	}
	return out
}
