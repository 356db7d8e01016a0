package draw

import (
	"slices"

	"brevium/core/design"
	"brevium/core/style"
)

// ModelOf readies a made box for drawing in space, in the papers it is made of;
// plain, its pieces are told apart by the light alone.
func ModelOf(r *design.Result, plain bool) *Model {
	parts, folded := r.Pieces()
	m := NewModel(parts, folded, slices.Concat(r.Mats, r.LabelMats()), r.Shown(), r.Box.Shuts)
	m.lying = r.Lying
	if plain {
		return m
	}
	from := map[string]From{}
	for _, p := range r.Parts {
		from[p.ID] = *FromOf(p)
		if c, covered := r.CoverOf(p.ID); covered {
			f := from[p.ID]
			inside := f.Card.Seen().Inside
			f.Card = c
			f.Card.Look = c.Seen()
			f.Card.Look.Inside = inside // it ends a little below the rim
			from[p.ID] = f
		}
	}
	return m.Shows(from)
}

// ShutModelOf is ModelOf of a box that pictures show shut.
func ShutModelOf(r *design.Result, plain bool) *Model {
	m := ModelOf(r, plain)
	m.shown = style.Finished
	return m
}

// OpenModelOf is ModelOf of a box that pictures show open, where its parts do not
// stand on one another.
func OpenModelOf(r *design.Result, plain bool) *Model {
	m := ModelOf(r, plain)
	if len(r.Box.Stands) == 0 {
		m.shown = style.Open
	}
	return m
}

// FromOf is what a part of a design is cut from.
func FromOf(p design.Part) *From { return &From{Card: p.Card, Over: p.PaperUp() > 0} }
