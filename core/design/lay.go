package design

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/layout"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// interactive is the effort a page can wait for: a fixed amount of work, so
// that the same design always lies the same on its sheets.
var interactive = layout.Effort{Rounds: 1, Steps: 60}

// Blank is a rectangle to cut, the card it is cut from and how many of it.
type Blank struct {
	pattern.Blank
	Card   paper.Card
	Copies int
}

// Stock is all that is cut from one card, laid on sheets.
type Stock struct {
	Card   paper.Card
	Job    *layout.Job
	Layout *layout.Result
	turned map[int]bool // pieces that lie turned for their grain
}

// Laid is a dressed design with all that is cut for it, laid on its sheets.
type Laid struct {
	Dressed
	// Blanks are the rectangles everything is cut from, one copy of the box.
	Blanks []Blank
	Stocks []Stock
}

// lay puts everything cut from one card on its sheets. ctx ends the search for a better layout.
func lay(ctx context.Context, d Dressed) (*Laid, error) {
	l := &Laid{Dressed: d, Blanks: blanks(d.Parts, d.Mats)}
	for _, b := range l.Blanks {
		i := slices.IndexFunc(l.Stocks, func(s Stock) bool { return s.Card.Same(b.Card) })
		if i < 0 {
			i = len(l.Stocks)
			l.Stocks = append(l.Stocks, Stock{Card: b.Card, Job: &layout.Job{Sheets: d.Inputs.Sheets, Trimmer: d.Inputs.Tools.Trimmer}, turned: map[int]bool{}})
		}
		if d.Inputs.Tools.Trimmer < max(b.Width, b.Height) || knives(&d.Inputs) {
			l.Stocks[i].Job.Trimmer = 0 // a knife and a ruler cut as far as they are led
		}
		piece := layout.Piece{Name: b.ID, Width: b.Width, Height: b.Height, Copies: d.Inputs.Copies * b.Copies, Turn: b.Card.Direction.MayTurn()}
		if fixed, turned := lying(b.Card, d.Inputs.Sheets, d.wantedRun(b), b.Blank); fixed && piece.Turn {
			piece.Turn = false
			if turned {
				piece.Width, piece.Height = piece.Height, piece.Width
				l.Stocks[i].turned[len(l.Stocks[i].Job.Pieces)] = true
			}
		}
		l.Stocks[i].Job.Pieces = append(l.Stocks[i].Job.Pieces, piece)
	}
	for i, s := range l.Stocks {
		laid, err := layout.Solve(ctx, s.Job, interactive)
		if err != nil {
			return nil, fault.At("sheets", err)
		}
		turnBack(s.Job, laid, s.turned)
		l.Stocks[i].Layout = laid
	}
	return l, nil
}

// knives reports whether no cut across a sheet is short enough for the trimmer.
func knives(in *Inputs) bool {
	return slices.ContainsFunc(in.Sheets, func(s paper.Sheet) bool { return min(s.Width, s.Height) > in.Tools.Trimmer })
}

// byKnife says which blanks are longer than the trimmer cuts.
func (l *Laid) byKnife() []inspect.Finding {
	if l.Inputs.Tools.With.ByShape() {
		return nil
	}
	var out []inspect.Finding
	for _, b := range l.Blanks {
		if trimmer := l.Inputs.Tools.Trimmer; max(b.Width, b.Height) > trimmer {
			out = append(out, inspect.Finding{ID: "trimmer", Verdict: inspect.Warn, Piece: b.ID, Text: fmt.Sprintf(
				"The %s is cut %s long, and the trimmer cuts %s: cut it with a knife along a ruler, on a mat, fingers behind the edge; or say that your trimmer is longer.",
				strings.ToLower(b.Name), l.Show(max(b.Width, b.Height)), l.Show(trimmer))})
		}
	}
	if len(out) == 0 && knives(&l.Inputs) {
		out = append(out, inspect.Finding{ID: "trimmer", Verdict: inspect.Warn, Text: fmt.Sprintf(
			"The trimmer cuts %s, and a sheet is wider both ways: cut it through with a knife along a ruler first, on a mat, fingers behind the edge.", l.Show(l.Inputs.Tools.Trimmer))})
	}
	return out
}

// blanks lists the rectangles that parts and mats are cut from.
func blanks(parts []Part, mats []dress.Mat) []Blank {
	var out []Blank
	for _, p := range parts {
		out = append(out, Blank{p.Pattern.Blank(p.ID, p.Name), p.Card, p.Copies()})
	}
	for _, b := range dress.Blanks(mats) {
		i := slices.IndexFunc(mats, func(m dress.Mat) bool { return m.ID == b.ID })
		if of := slices.IndexFunc(parts, func(p Part) bool { return p.ID == mats[i].Piece }); of >= 0 { // a hand knows no id
			if rest, is := strings.CutPrefix(b.Name, mats[i].Piece); is {
				b.Name = strings.ToLower(parts[of].Name) + rest
			}
		}
		out = append(out, Blank{b, mats[i].Card, 1})
	}
	return out
}

// Short reports whether the budget of its layouts was used up, so that they are the best that
// were met, and a longer look may find better.
func (l *Laid) Short() bool {
	return slices.ContainsFunc(l.Stocks, func(s Stock) bool { return s.Layout.Short })
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
func (l *Laid) PieceName(id string) string {
	for _, b := range l.Blanks {
		if b.ID == id {
			return b.Name
		}
	}
	return id
}

// OutlinesOf gives the outlines of what comes out of a layout's piece, in mm on
// its blank, when it is not simply the whole of it.
func (l *Laid) OutlinesOf(id string) [][]pattern.Point {
	for _, b := range l.Blanks {
		if b.ID != id {
			continue
		}
		area, out := 0.0, [][]pattern.Point{}
		for _, g := range b.Gives {
			area += math.Abs(pattern.Area(g.Outline))
			out = append(out, l.asLaid(b, g.Outline))
		}
		if len(out) > 1 || area < b.Width.MM()*b.Height.MM()-1 {
			return out
		}
	}
	return nil
}

// asLaid is an outline as it lies in its place on a sheet of paper that runs
// one way.
func (l *Laid) asLaid(b Blank, outline []pattern.Point) []pattern.Point {
	if !l.EndForEnd(b.ID) {
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
func (b *Built) EndForEnd(id string) bool {
	return slices.ContainsFunc(b.Parts, func(p Part) bool { return p.ID == id && p.EndForEnd })
}

// GivenBy lists what comes out of a layout's piece: parts or mats, by id.
func (l *Laid) GivenBy(id string) []string {
	var out []string
	for _, b := range l.Blanks {
		if b.ID == id {
			for _, g := range b.Gives {
				out = append(out, g.ID)
			}
		}
	}
	return out
}
