package inspect

import (
	"fmt"
	"math"

	"brevium/core/paper"
	"brevium/core/stuff"
)

// Range is what a piece may be made of, as weights of smooth card in g/m²: firm from, folding well
// up to, and breaking over. A piece that folds nowhere has no end.
type Range struct{ From, To, Breaks float64 }

// Says writes the range: "153 to 284 gsm".
func (r Range) Says() string {
	switch {
	case math.IsInf(r.To, 1) && r.From == 0:
		return "any card"
	case math.IsInf(r.To, 1):
		return fmt.Sprintf("from %s on", weight(r.From))
	case r.From > r.To:
		return fmt.Sprintf("firm from %s, and it folds well only up to %s: lay a board in", weight(r.From), weight(r.To))
	}
	return fmt.Sprintf("%.0f to %s", r.From, weight(r.To))
}

// RangeOf is what a piece may be made of.
func (m *Matter) RangeOf(p Made) Range {
	r := Range{To: math.Inf(1), Breaks: math.Inf(1)}
	if s := m.span(p); s > 0 {
		r.From = m.Table.FirmFrom(s)
	}
	if fold, _, folds := m.worstFold(p); folds {
		r.To, r.Breaks = m.Table.FoldsTo(fold, m.Table.CrackFolds), m.Table.FoldsTo(fold, m.Table.CrackWarns)
	}
	return r
}

// Suits judges another card for a piece, and says in a sentence what is the matter with it, or
// that nothing is.
func (m *Matter) Suits(p Made, c paper.Card) Finding {
	p.Of = c
	worst := m.crack(p)
	for _, f := range []Finding{m.flimsy(p), m.bulk(p)} {
		if worse(f, worst) {
			worst = f
		}
	}
	if worst.Verdict == OK {
		worst.Text = "It folds well and is firm."
		if s := m.span(p); s > 0 && m.Table.Stiffness(stuff.CardOf(c)) > heavy*m.Table.Stiffness(stuff.Of(m.Table.FirmFrom(s))) {
			worst.Text = "It folds well, and is stiffer than it need be."
		}
	}
	return worst
}

// heavy is from how many times the stiffness that is wanted a card is more than it need be.
const heavy = 5
