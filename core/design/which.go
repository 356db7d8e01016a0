package design

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/inspect"
	"brevium/core/paper"
	"brevium/core/style"
)

// CardFor is what one piece may be cut from: the weights that suit it, how it is now, and the
// cards that are there, the best first.
type CardFor struct {
	Piece, Name string
	Card        paper.Card
	Run         paper.Run // of its grain, as it lies
	Fixed       bool      // somebody chose how it lies
	Range       inspect.Range
	Now         inspect.Finding
	Choices     []CardChoice
}

// CardChoice is a card and how it suits a piece.
type CardChoice struct {
	Card paper.Card
	inspect.Finding
}

// WhichCards looks over the cards that are there for each piece of the box; alike pieces are told
// once.
func (r *Result) WhichCards(there []paper.Card) []CardFor {
	m := r.matter()
	var out []CardFor
	seen := map[string]bool{}
	for _, p := range m.Pieces {
		kind := style.KindOf(p.ID)
		if p.Loose || seen[kind] {
			continue
		}
		seen[kind] = true
		c := CardFor{Piece: p.ID, Name: p.Name, Card: p.Of, Run: p.Run, Fixed: r.Inputs.RunOf(p.ID) != paper.RunUnknown, Range: m.RangeOf(p), Now: m.Suits(p, p.Of)}
		for _, card := range there {
			c.Choices = append(c.Choices, CardChoice{card, m.Suits(p, card)})
		}
		want := middle(c.Range)
		slices.SortStableFunc(c.Choices, func(a, b CardChoice) int {
			return cmp.Or(cmp.Compare(grave(a.Verdict), grave(b.Verdict)), cmp.Compare(math.Abs(a.Card.GSM-want), math.Abs(b.Card.GSM-want)))
		})
		out = append(out, c)
	}
	return out
}

// grave orders verdicts, the best first.
func grave(v inspect.Verdict) int {
	return slices.Index([]inspect.Verdict{inspect.OK, inspect.Warn, inspect.Fail}, v)
}

// middle is the weight that suits best: as far, as a multiple, from being flimsy as from cracking.
func middle(r inspect.Range) float64 {
	if math.IsInf(r.To, 1) || r.From == 0 {
		return max(r.From, UsualCard.GSM)
	}
	return math.Sqrt(r.From * r.To)
}
