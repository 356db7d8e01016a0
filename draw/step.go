package draw

import (
	"math"
	"slices"

	"brevium/core/design"
	"brevium/core/recipe"
)

// creased is how far a piece stands folded when its scores are folded and burnished.
const creased = 0.55

// Span is a stretch of the stages of a model that a step moves it through.
type Span struct {
	Model    *Model
	From, To float64
	Title    string
}

// SpanOf is what moves in a step: a piece that is folded, then closed by its gluing;
// the pieces that are put together; the box that is shut. What is glued, put together
// or shut in several steps goes an equal part of the way in each. False where nothing
// moves.
func SpanOf(r *design.Result, m *Model, s recipe.Step) (Span, bool) {
	if s.Piece != "" && (s.Kind == recipe.Fold || s.Kind == recipe.Glue) {
		one := m.Piece(s.Piece)
		if one == m || !slices.ContainsFunc(moving(r.Steps, s.Piece), func(x recipe.Step) bool { return x.Key == s.Key }) {
			return Span{}, false
		}
		whole := one.Open()
		span := Span{Model: one, To: creased * whole, Title: r.PieceName(s.Piece)}
		if s.Kind == recipe.Glue {
			n, of := among(moving(r.Steps, s.Piece), s)
			part := (1 - creased) * whole / float64(of)
			span.From, span.To = creased*whole+float64(n)*part, creased*whole+float64(n+1)*part
			if n == 0 && len(s.Inner) > 0 {
				span.From = 0 // it is folded in this step, too
			}
		}
		return span, span.To > span.From
	}
	span := Span{Model: m, Title: r.Style.Name}
	from, to := float64(m.folds), m.Open()
	if !slices.ContainsFunc(r.Steps, func(x recipe.Step) bool { return x.Kind == recipe.Close }) {
		to = m.Shut() // nothing is left to do then
	}
	if s.Kind == recipe.Close {
		from, to = m.Open(), m.Shut()
	} else if s.Kind != recipe.Assemble {
		return Span{}, false
	}
	n, of := among(r.Steps, s)
	part := (to - from) / float64(of)
	span.From, span.To = from+float64(n)*part, from+float64(n+1)*part
	if s.Kind == recipe.Close && of > 1 { // the first step shuts it, the rest hold it shut
		span.From, span.To = to, to
		if n == 0 {
			span.From, span.To = from, math.Nextafter(to, from) // nothing lies on it yet
		}
	}
	return span, span.To > span.From
}

// moving are the steps in which a piece moves: its first fold, and what is stuck after it.
func moving(steps []recipe.Step, piece string) []recipe.Step {
	var out []recipe.Step
	for _, x := range steps {
		switch {
		case x.Piece != piece:
		case x.Kind == recipe.Fold && out == nil, x.Kind == recipe.Glue && (out != nil || len(x.Inner) > 0):
			out = append(out, x)
		}
	}
	return out
}

// among is a step's place among those of its kind and piece, from 0, and how many
// there are.
func among(steps []recipe.Step, s recipe.Step) (n, of int) {
	for _, x := range steps {
		if x.Kind != s.Kind || x.Piece != s.Piece {
			continue
		}
		if x.Key == s.Key {
			n = of
		}
		of++
	}
	return n, max(1, of)
}

// Frames draws a span in n pictures of one size, the first as it is before and the
// last as it is after.
func (s Span) Frames(n int) ([]*Picture, error) {
	var out []*Picture
	for i := range n {
		at := s.From + (s.To-s.From)*float64(i)/float64(n-1)
		p, err := s.Model.Picture(s.Title, at)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	left, top, right, foot := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, p := range out {
		left, top, right, foot = min(left, p.X), min(top, p.Y), max(right, p.X+p.Width), max(foot, p.Y+p.Height)
	}
	for _, p := range out {
		p.X, p.Y, p.Width, p.Height, p.U = left, top, right-left, foot-top, max(right-left, foot-top)/640
	}
	return out, nil
}
