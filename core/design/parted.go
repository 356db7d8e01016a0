package design

import (
	"slices"
	"strings"

	"brevium/core/contents"
)

// Manner is one manner of parting the things of a design, with the way of
// standing that takes least card in it.
type Manner struct {
	Name string
	// Inputs are the design parted so.
	Inputs Inputs
	Way    Way
	Chosen bool
}

// Manners compares the manners of parting the things into cells, by card and
// air: dividers in a grid, dividers of which some end in others, trays, an
// insert, and none at all. Those that cannot be made are left out.
func Manners(in Inputs) []Manner {
	if len(in.Things) == 0 {
		return nil
	}
	per := in.Compartments.Per
	if per == contents.Together {
		per = contents.PerThing
	}
	now, err := Sketch(in)
	var out []Manner
	for _, m := range []struct {
		name, begins string
		as           Compartments
	}{
		{"nothing between them", "", Compartments{}},
		{"dividers in a grid", "cells-", Compartments{Per: per, As: AsDividers, Along: in.Compartments.Along}},
		{"dividers that end in others", "bands-", Compartments{Per: per, As: AsDividers, Along: in.Compartments.Along}},
		{"small trays", "", Compartments{Per: per, As: AsTrays}},
		{"a floor with holes", "", Compartments{Per: per, As: AsInsert}},
	} {
		x := in.Clone()
		x.Compartments, x.Stand = m.as, ""
		r, err2 := Sketch(x)
		if err2 != nil {
			continue
		}
		k := slices.IndexFunc(r.Ways, func(w Way) bool { return w.Card > 0 && strings.HasPrefix(w.ID, m.begins) })
		if k < 0 {
			continue
		}
		x.Stand = r.Ways[k].ID
		if k > 0 {
			if r, err2 = Sketch(x); err2 != nil {
				continue
			}
		} else {
			x.Stand = ""
		}
		w := Way{Arrangement: *r.Stand, Card: r.CardArea(), Goes: r.Ways[k].Goes}
		same := err == nil && now.Inputs.Compartments.Per == x.Compartments.Per && now.Inputs.Compartments.As == x.Compartments.As &&
			now.Stand != nil && strings.HasPrefix(now.Stand.ID, m.begins)
		out = append(out, Manner{m.name, x, w, same})
	}
	return out
}
