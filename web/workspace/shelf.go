package workspace

import (
	"slices"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/paper"
)

// mostShelved is how many cards and papers are offered to choose from.
const mostShelved = 40

// shelf is what a card can be chosen from: what this box is made of, what lies in
// the drawer, and a few to begin with. Each is there once, as thick as it is known best.
func shelf(in *design.Inputs, lots []drawer.Lot) []paper.Card {
	var out []paper.Card
	put := func(c paper.Card) {
		same := func(x paper.Card) bool { return x.Same(c) }
		switch i := slices.IndexFunc(out, same); {
		case i >= 0:
			out[i] = out[i].Measures(c)
		case len(out) < mostShelved:
			out = append(out, c)
		}
	}
	for _, c := range in.AllCards() {
		put(c)
	}
	for _, g := range drawer.Groups(lots) {
		put(g.Card)
	}
	for _, c := range paper.Ready {
		put(c)
	}
	return out
}
