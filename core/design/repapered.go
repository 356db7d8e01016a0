package design

import (
	"slices"

	"brevium/core/paper"
)

// Repapered is the same box in other papers: those of its papers on top and its bands, each in
// the order it is met, give way to the ones of a set, from the kth on; alike ones stay alike.
func (in Inputs) Repapered(set []paper.Card, k int) Inputs {
	out := in.Clone()
	var met []paper.Card
	other := func(c *paper.Card) {
		i := slices.IndexFunc(met, c.Same)
		if i < 0 {
			i = len(met)
			met = append(met, *c)
		}
		*c = set[(i+k)%len(set)]
	}
	for i := range out.Mats {
		for n := range out.Mats[i].Layers {
			other(&out.Mats[i].Layers[n].Card)
		}
	}
	for i := range out.Bands {
		if out.Bands[i].Card != nil {
			other(out.Bands[i].Card)
		}
	}
	return out
}
