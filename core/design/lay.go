package design

import (
	"context"
	"fmt"
	"math"
	"slices"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// interactive is the effort a page can wait for: a fixed amount of work, so
// that the same design always lies the same on its sheets.
var interactive = layout.Effort{Rounds: 1, Steps: 60}

// blanks lists the rectangles that parts and mats are cut from.
func (r *Result) blanks() {
	for _, p := range r.Parts {
		r.Blanks = append(r.Blanks, Blank{p.Pattern.Blank(p.ID, p.Name), p.Card, p.Copies()})
	}
	for _, b := range dress.Blanks(r.Mats) {
		i := slices.IndexFunc(r.Mats, func(m dress.Mat) bool { return m.ID == b.ID })
		r.Blanks = append(r.Blanks, Blank{b, r.Mats[i].Card, 1})
	}
}

// lay puts everything cut from one card on its sheets.
func (r *Result) lay(ctx context.Context) error {
	r.blanks()
	var stocks []Stock
	for _, b := range r.Blanks {
		i := slices.IndexFunc(stocks, func(s Stock) bool { return s.Card.Same(b.Card) })
		if i < 0 {
			i = len(stocks)
			stocks = append(stocks, Stock{Card: b.Card, Job: &layout.Job{Sheets: r.Inputs.Sheets, Trimmer: r.Inputs.Tools.Trimmer}})
		}
		stocks[i].Job.Pieces = append(stocks[i].Job.Pieces, layout.Piece{
			Name: b.ID, Width: b.Width, Height: b.Height, Copies: r.Inputs.Copies * b.Copies, Turn: b.Card.Direction.MayTurn(),
		})
	}
	for i := range stocks {
		laid, err := layout.Solve(ctx, stocks[i].Job, interactive)
		if err != nil {
			return fault.At("sheets", err)
		}
		stocks[i].Layout = laid
	}
	r.Stocks = stocks
	return nil
}

// Short reports whether the budget of its layouts was used up, so that they are the best that
// were met, and a longer look may find better.
func (r *Result) Short() bool {
	return slices.ContainsFunc(r.Stocks, func(s Stock) bool { return s.Layout.Short })
}

func sheetSupplies(s Stock) []recipe.Supply {
	var out []recipe.Supply
	for _, l := range s.Layout.Sheets {
		id := "sheet." + s.Card.Name + "." + l.Sheet.Name
		i := slices.IndexFunc(out, func(x recipe.Supply) bool { return x.ID == id })
		if i < 0 {
			i = len(out)
			out = append(out, recipe.Supply{ID: id, Unit: "sheet"})
		}
		out[i].Amount++
		sheets := "1 sheet"
		if out[i].Amount > 1 {
			sheets = fmt.Sprintf("%.0f sheets", out[i].Amount)
		}
		out[i].Text = fmt.Sprintf("%s: %s of %s, %.0f gsm", s.Card.Name, sheets, l.Sheet.Name, s.Card.GSM)
	}
	return out
}

// PieceName is the name of a layout's piece for a person.
func (r *Result) PieceName(id string) string {
	for _, b := range r.Blanks {
		if b.ID == id {
			return b.Name
		}
	}
	return id
}

// OutlinesOf gives the outlines of what comes out of a layout's piece, in mm on
// its blank, when it is not simply the whole of it.
func (r *Result) OutlinesOf(id string) [][]pattern.Point {
	for _, b := range r.Blanks {
		if b.ID != id {
			continue
		}
		area, out := 0.0, [][]pattern.Point{}
		for _, g := range b.Gives {
			area += math.Abs(pattern.Area(g.Outline))
			out = append(out, r.asLaid(b, g.Outline))
		}
		if len(out) > 1 || area < b.Width.MM()*b.Height.MM()-1 {
			return out
		}
	}
	return nil
}

// asLaid is an outline as it lies in its place on a sheet of paper that runs
// one way.
func (r *Result) asLaid(b Blank, outline []pattern.Point) []pattern.Point {
	if !r.EndForEnd(b.ID) {
		return outline
	}
	turned := make([]pattern.Point, len(outline))
	for i, q := range outline {
		turned[i] = pattern.Pt(b.Width.MM()-q.X, b.Height.MM()-q.Y)
	}
	return turned
}

// EndForEnd reports whether a piece's blank is cut with its lower edge towards
// the top of the paper.
func (r *Result) EndForEnd(id string) bool {
	return slices.ContainsFunc(r.Parts, func(p Part) bool { return p.ID == id && p.EndForEnd })
}

// GivenBy lists what comes out of a layout's piece: parts or mats, by id.
func (r *Result) GivenBy(id string) []string {
	var out []string
	for _, b := range r.Blanks {
		if b.ID == id {
			for _, g := range b.Gives {
				out = append(out, g.ID)
			}
		}
	}
	return out
}
