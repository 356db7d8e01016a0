package batch

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
)

// Passed is a pile of the drawer that a job leaves lying while it buys, and
// why.
type Passed struct {
	Lot drawer.Lot
	Why string
}

// mostPassed is how many are told.
const mostPassed = 4

// PassedOver tells, for every card of which a job must buy sheets, which free
// piles of the drawer are not used for it: of the same name, or where the box
// never named its card, whole sheets as large as those to buy.
func PassedOver(stocks []Stock, lots []drawer.Lot) []Passed {
	var out []Passed
	takes := Takes(stocks)
	for i := range stocks {
		s := &stocks[i]
		buys := slices.ContainsFunc(takes, func(t Take) bool { return t.Lot == 0 && t.Card.Key() == s.Card.Key() })
		for _, l := range lots {
			used := slices.ContainsFunc(takes, func(t Take) bool { return t.Lot == l.ID })
			if !buys || used || l.Free() < 1 || len(out) == mostPassed {
				continue
			}
			if why := s.passes(l); why != "" {
				out = append(out, Passed{l, why})
			}
		}
	}
	return out
}

// passes says why a stock is not cut from a lot, "" when nobody would ask.
func (s *Stock) passes(l drawer.Lot) string {
	turned := slices.ContainsFunc(s.Job.Pieces, func(p layout.Piece) bool { return p.Height <= l.Width && p.Width <= l.Height })
	switch {
	case l.Card.Key() == s.Card.Key():
		switch {
		case l.Shape != "" && s.Shapes == nil:
			return "it is no rectangle: scissors or a machine cut from it"
		case s.Shapes == nil && s.Job.Trimmer > 0 && min(l.Width, l.Height) > s.Job.Trimmer:
			return "it is too wide for the trimmer"
		case slices.ContainsFunc(s.Job.Pieces, func(p layout.Piece) bool { return goesOn(p, l) }):
			return "the sheets to buy give more for it"
		case turned:
			return "its pieces go on it only with the pattern lying on its side"
		}
		return "none of its pieces goes on it"
	case strings.EqualFold(strings.TrimSpace(l.Card.Name), strings.TrimSpace(s.Card.Name)):
		if l.Card.GSM != s.Card.GSM {
			return fmt.Sprintf("it weighs %.0f gsm, and the box's card %.0f", l.Card.GSM, s.Card.GSM)
		}
		return fmt.Sprintf("its pattern %s, and the box says that it %s: change that at the box's card", runs(l.Card), runs(s.Card))
	case s.Card.Name != design.UsualCard.Name || l.Offcut || !slices.ContainsFunc(s.Job.Sheets, func(x paper.Sheet) bool { return asLarge(l, x.Width, x.Height) }):
		return ""
	}
	return "the box does not name its card; name this one there to cut from it"
}

func asLarge(l drawer.Lot, w, h measure.Length) bool {
	return l.Width >= w && l.Height >= h || l.Width >= h && l.Height >= w
}

// runs says which way a card's pattern runs.
func runs(c paper.Card) string {
	switch c.Direction {
	case paper.TwoWays:
		return "runs two ways up"
	case paper.OneWayUp:
		return "runs one way up"
	}
	return "has no direction"
}
