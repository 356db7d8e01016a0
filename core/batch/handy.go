package batch

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/drawer"
	"brevium/core/layout"
)

// mostOffcutKinds is how many offcuts of a card are laid out on at once: a
// hand would not go through more either, and each costs time.
const mostOffcutKinds = 40

// handy gives the lots of the drawer that a stock is cut from: every free pile
// of its card, the offcuts on which pieces are held, and of the others that
// hold a piece at all, when there are many, the smallest and the largest.
func (g *gathering) handy(s *Stock) []drawer.Lot {
	var out, offcuts []drawer.Lot
	for _, l := range g.lots {
		switch {
		case l.Card.Key() != s.Card.Key() || l.Free() < 1:
		case !l.Offcut || g.holds(s, l):
			out = append(out, l)
		case slices.ContainsFunc(s.Job.Pieces, func(p layout.Piece) bool { return goesOn(p, l) }):
			offcuts = append(offcuts, l)
		}
	}
	return append(out, fewest(offcuts)...)
}

// fewest keeps half of what is kept from either end of the offcuts' sizes, in
// the order they were in.
func fewest(offcuts []drawer.Lot) []drawer.Lot {
	if len(offcuts) <= mostOffcutKinds {
		return offcuts
	}
	bySize := slices.Clone(offcuts)
	slices.SortStableFunc(bySize, func(a, b drawer.Lot) int { return cmp.Compare(a.Width.MM()*a.Height.MM(), b.Width.MM()*b.Height.MM()) })
	keep := map[int64]bool{}
	for i := range mostOffcutKinds / 2 {
		keep[bySize[i].ID], keep[bySize[len(bySize)-1-i].ID] = true, true
	}
	return slices.DeleteFunc(slices.Clone(offcuts), func(l drawer.Lot) bool { return !keep[l.ID] })
}

// holds reports whether pieces are held on a lot's sheets.
func (g *gathering) holds(s *Stock, l drawer.Lot) bool {
	return slices.ContainsFunc(g.choices.Held, func(h Held) bool { return h.Card == s.Card.Key() && h.Sheet == sheetName(l) })
}

// goesOn reports whether a piece goes on a lot's sheet, turned if it may be.
func goesOn(p layout.Piece, l drawer.Lot) bool {
	return p.Width <= l.Width && p.Height <= l.Height || p.Turn && p.Height <= l.Width && p.Width <= l.Height
}

// sheetName tells a lot's sheets from those of other lots.
func sheetName(l drawer.Lot) string {
	if l.Offcut {
		return fmt.Sprintf("kept offcut %d", l.ID)
	}
	return fmt.Sprintf("%s (drawer %d)", l.Sheet, l.ID)
}
