package bench

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/recipe"
)

// Trim is a cut on the trimmer. The part of the sheet that is cut lies with the Edge
// on the fence; what lies Near is between fence and blade, what lies Far falls off.
type Trim struct {
	Stock, Sheet int // indexes into the design's stocks and the sheets of one
	layout.Division
	Edge string
	At   measure.Length
	// Set says that the fence is moved for it, Narrow that the part is held down
	// under a strip of card.
	Set, Narrow bool
}

// job is a step that cuts blanks: n of them, of so many papers or of one piece.
type job struct {
	step   recipe.Step
	last   int // the cut that frees the last of its blanks, −1 where none is needed
	n      int
	called string // the piece, "" for papers
}

// out says that its blanks are there.
func (j job) out() string {
	switch {
	case j.called != "":
		return "The " + strings.ToLower(j.called) + " is cut out"
	case j.n == 1:
		return "The paper is cut out"
	}
	return "The papers are cut out"
}

// blade is a trimmer's cut, and its place in the order of all.
type blade struct {
	trim Trim
	says string
	head string
}

// cutting gives the moves of the steps that cut blanks: every cut of every sheet, by
// the setting of the fence. A step takes the cuts up to the one that frees the last
// of its blanks; one whose blanks are free by then is a move without a cut.
func cutting(r *design.Result, steps []recipe.Step) []Move {
	cuts, freed := blades(r)
	var jobs []job
	stepOf := map[string]string{} // by blank
	for _, p := range r.Parts {
		stepOf[p.ID] = string(recipe.Cut) + "/" + p.ID
	}
	for _, set := range recipe.MatSets(r.Mats) {
		for _, id := range set.From {
			stepOf[id] = string(recipe.Cut) + "/" + set.Mat.ID
		}
	}
	for _, s := range steps {
		j := job{step: s, last: -1}
		for _, p := range r.Parts {
			if stepOf[p.ID] == s.Key {
				j.called = p.Name
			}
		}
		for id, at := range freed {
			if stepOf[id] == s.Key {
				j.last, j.n = max(j.last, at.last), j.n+at.n
			}
		}
		jobs = append(jobs, j)
	}
	slices.SortStableFunc(jobs, func(a, b job) int { return cmp.Compare(a.last, b.last) })
	var out []Move
	at := 0
	for i, j := range jobs {
		end := j.last + 1
		if i == len(jobs)-1 {
			end = len(cuts) // what only straightens an offcut belongs to the last
		}
		var moves []Move
		for ; at < end; at++ {
			c := cuts[at]
			moves = append(moves, Move{Trim: &c.trim, Head: c.head, Says: c.says})
		}
		says := capital(strings.TrimPrefix(j.step.Text, "Cut "))
		if r.Inputs.Tools.With.ByShape() { // the sheet is parted, and its pieces are not cut out yet
			moves, j.n = append(moves, Move{Says: j.step.Text}), -1
		}
		switch {
		case j.n < 0:
		case j.n == 0:
			moves = append(moves, Move{Says: j.step.Text}) // no sheet holds it
		case len(moves) == 0:
			moves = append(moves, Move{Head: j.out() + " by now", Says: says})
		default:
			moves = append(moves, Move{Head: j.out(), Says: says})
		}
		each := recipe.Seconds([]recipe.Step{j.step}, r.Inputs.Copies) / float64(len(moves))
		for k, m := range moves {
			m.Step, m.Part, m.N, m.Of, m.Copy, m.Copies, m.Seconds = j.step, j.step, k+1, len(moves), 1, 1, each
			out = append(out, m)
		}
	}
	return out
}

// free is how many copies of a blank there are, and the cut that frees the last.
type free struct{ n, last int }

// blades are all cuts in the order they are made, and when each blank is free.
func blades(r *design.Result) ([]blade, map[string]free) {
	var out []blade
	freed := map[string]free{}
	for n, stock := range r.Stocks {
		name := func(piece int) string { return strings.ToLower(r.PieceName(stock.Job.Pieces[piece].Name)) }
		divided := make([][]layout.Division, len(stock.Layout.Sheets))
		for i, sheet := range stock.Layout.Sheets {
			divided[i] = sheet.Divisions()
		}
		last := map[[2]int]int{} // by sheet and placed piece
		for _, setting := range stock.Layout.Settings() {
			for i, x := range setting.Cuts {
				sheet := stock.Layout.Sheets[x.Sheet]
				c, d := sheet.Cuts[x.Cut], divided[x.Sheet][x.Cut]
				b := blade{trim: Trim{Stock: n, Sheet: x.Sheet, Division: d, Edge: c.Edge(), At: c.At, Set: i == 0, Narrow: c.Narrow()}}
				b.head = fmt.Sprintf("Sheet %d of %d, %s", x.Sheet+1, len(stock.Layout.Sheets), stock.Card.Name)
				if c.Part != "1" {
					b.head += fmt.Sprintf(": the part of %s × %s with %s", r.Show(d.Whole.Width), r.Show(d.Whole.Height), sheet.Within(d.Whole, name))
				}
				b.says = b.trim.says(r.Show(c.At), sheet.Within(d.Near, name), sheet.Within(d.Far, name))
				for k, p := range sheet.Placed {
					if d.Whole.Holds(p.Rect) {
						last[[2]int{x.Sheet, k}] = len(out)
					}
				}
				out = append(out, b)
			}
		}
		for i, sheet := range stock.Layout.Sheets {
			for k, p := range sheet.Placed {
				id := stock.Job.Pieces[p.Piece].Name
				at, cut := last[[2]int{i, k}]
				if !cut {
					at = -1 // it is the whole sheet
				}
				f, known := freed[id]
				if !known {
					f.last = -1
				}
				freed[id] = free{f.n + 1, max(f.last, at)}
			}
		}
	}
	return out, freed
}

// says tells a cut in one sentence or two.
func (t Trim) says(at, near, far string) string {
	fence := "set the fence to " + at + " and cut"
	if !t.Set {
		fence = "the fence stays at " + at + ", cut"
	}
	keep := fmt.Sprintf("Keep both parts: %s at the fence, %s beyond the blade.", near, far)
	switch {
	case far == layout.Leftover:
		keep = fmt.Sprintf("Keep the part at the fence (%s); the rest is an offcut.", near)
	case near == layout.Leftover:
		keep = fmt.Sprintf("The part at the fence is an offcut; keep the rest (%s).", far)
	}
	text := fmt.Sprintf("%s edge on the fence: %s. %s", capital(t.Edge), fence, keep)
	if t.Narrow {
		text += " The part is narrow: press on a strip of card laid over it."
	}
	return text
}
