package batch

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/layout"
	"brevium/core/paper"
)

// Offer is a style of box made from one card of the drawer.
type Offer struct {
	Card paper.Card
	design.Comparison
}

// lightest is the weight under which card is paper, for wraps and mats: a box
// of it is flimsy.
const lightest = 180

// Makeable lists what can be made for the same contents from what is in the
// drawer: every style in every card there, the cheapest first, and only what
// the free sheets give. Paper is left out unless the box is of paper itself.
func Makeable(ctx context.Context, in design.Inputs, lots []drawer.Lot) []Offer {
	var out []Offer
	for _, g := range drawer.Groups(lots) {
		if g.Card.GSM < lightest && in.Card.GSM >= lightest {
			continue
		}
		with := in.Clone()
		with.Card, with.Cards, with.Mats, with.Sheets, with.Copies = g.Card, nil, nil, nil, 1
		var piles, offcuts []drawer.Lot
		for _, l := range g.Lots {
			switch {
			case l.Shape != "": // no trimmer cuts from it
			case l.Offcut:
				offcuts = append(offcuts, l)
			default:
				piles = append(piles, l)
			}
		}
		for _, l := range append(piles, fewest(offcuts)...) {
			if l.Free() > 0 {
				s := paper.Sheet{Name: l.Sheet, Width: l.Width, Height: l.Height, Count: l.Free(), Cost: l.Price, Offcut: l.Offcut}
				for n := 2; slices.ContainsFunc(with.Sheets, func(x paper.Sheet) bool { return x.Name == s.Name }); n++ {
					s.Name = fmt.Sprintf("%s (%d)", l.Sheet, n)
				}
				with.Sheets = append(with.Sheets, s)
			}
		}
		if len(with.Sheets) == 0 {
			continue
		}
		for _, c := range design.Compare(ctx, with) {
			if c.Result != nil {
				out = append(out, Offer{g.Card, c})
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Offer) int {
		return cmp.Or(cmp.Compare(a.Cost, b.Cost), cmp.Compare(a.Sheets, b.Sheets), cmp.Compare(a.Card.Name, b.Card.Name))
	})
	return out
}

// Use is what else comes out of a useful offcut of a stock: the names of
// designs that come whole out of it.
type Use struct {
	Stock  int
	Offcut layout.Rect
	Makes  []string
}

// mostOffcuts is how many offcuts of a card are tried against other designs.
const mostOffcuts = 3

// Blanks are what a box is cut from, under its name.
type Blanks struct {
	Name   string
	Pieces []layout.Piece
}

// BlanksOf gives a design's blanks; none for one that cannot be made.
func BlanksOf(in design.Inputs) []layout.Piece {
	r, err := design.Sketch(in)
	if err != nil {
		return nil
	}
	var out []layout.Piece
	for _, p := range r.Parts {
		out = append(out, layout.Piece{Name: p.ID, Width: p.Pattern.Width, Height: p.Pattern.Height, Copies: p.Copies(), Turn: true})
	}
	return out
}

// OffcutUses tries the largest useful offcuts of each stock against boxes.
func OffcutUses(ctx context.Context, stocks []Stock, boxes []Blanks) []Use {
	var out []Use
	for i, st := range stocks {
		var useful []layout.Rect
		for _, l := range st.Layout.Sheets {
			for _, o := range l.Offcuts {
				if !l.ByShape && drawer.Useful(o) &&
					!slices.ContainsFunc(useful, func(x layout.Rect) bool { return x.Width == o.Width && x.Height == o.Height }) {
					useful = append(useful, o)
				}
			}
		}
		slices.SortFunc(useful, func(a, b layout.Rect) int { return cmp.Compare(b.Width.MM()*b.Height.MM(), a.Width.MM()*a.Height.MM()) })
		for _, o := range useful[:min(len(useful), mostOffcuts)] {
			out = append(out, Use{i, o, fitting(ctx, o, boxes)})
		}
	}
	return out
}

// mostUses is how many boxes are named for an offcut.
const mostUses = 4

// fitting names boxes that come whole out of one offcut: all their pieces,
// laid on it together.
func fitting(ctx context.Context, offcut layout.Rect, boxes []Blanks) []string {
	var out []string
	for _, b := range boxes {
		job := &layout.Job{Sheets: []paper.Sheet{{Name: "offcut", Width: offcut.Width, Height: offcut.Height, Count: 1}}, Pieces: b.Pieces}
		if len(b.Pieces) == 0 || slices.Contains(out, b.Name) || blankArea(b.Pieces) > offcut.Width.MM()*offcut.Height.MM() || job.Check() != nil {
			continue
		}
		if laid, err := layout.Solve(ctx, job, layout.Effort{}); err == nil && len(laid.Unplaced) == 0 {
			if out = append(out, b.Name); len(out) == mostUses {
				break
			}
		}
	}
	slices.Sort(out)
	return out
}

// blankArea is the area of pieces, in mm².
func blankArea(pieces []layout.Piece) float64 {
	sum := 0.0
	for _, p := range pieces {
		sum += p.Width.MM() * p.Height.MM() * float64(p.Copies)
	}
	return sum
}
