package design

import (
	"cmp"
	"maps"
	"slices"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/style"
)

// Way is one way for the things to stand, with what its box takes.
type Way struct {
	contents.Arrangement
	// Card is the area of the box's blanks, in mm²; 0 when the box cannot be
	// made so.
	Card float64
	// Goes tells whether every blank goes on a sheet and under the trimmer.
	Goes bool
	// Fair tells whether its style has nothing to remark of the sizes.
	Fair bool
}

// stood is how things stand in a box: the arrangement that was chosen, the inside they need,
// and the ways that there were to choose from, best first.
type stood struct {
	stand contents.Arrangement
	needs style.Extent
	ways  []Way
}

// mostTried bounds the arrangements that are priced: those with the least
// surface come first, and a box's card hardly goes against that.
const mostTried = 60

// around chooses how the things stand and sizes the box to them: the
// arrangement asked for, or the one whose blanks take least card, one that
// goes on the sheets before one that does not.
func (z *sizer) around() (stood, error) {
	var out stood
	z.spec.One = oneOf(z.in)
	beside, others := z.style.BesideOf(z.spec)
	shares := sharesOf(z.in, z.style.RoomsOf(z.spec), beside)
	if z.style.Lies {
		for _, s := range shares {
			lie(s.things)
		}
	}
	all := arrangementsOf(z.in, shares[0])
	for _, s := range shares[1:] {
		others = inside(arrangementsOf(z.in, s)[0], others)
	}
	if err := z.sizeForAny(all, others); err != nil {
		return out, err
	}
	lacks, err := z.lacks(style.Extent{}, Inside)
	if err != nil {
		return out, err
	}
	// What the sizes are over the room they give, for pricing the others.
	has := z.style.Along(z.spec.Lengths)
	extra := style.Extent{Length: has.Length + lacks.Length, Width: has.Width + lacks.Width, Height: has.Height + lacks.Height}
	for i, a := range all {
		if i >= z.tries && a.ID != z.in.Stand {
			continue
		}
		w := Way{Arrangement: a}
		w.Card, w.Goes, w.Fair = z.price(inside(a, others), extra)
		out.ways = append(out.ways, w)
	}
	slices.SortStableFunc(out.ways, func(a, b Way) int {
		rank := func(w Way) int {
			switch {
			case w.Goes && w.Fair:
				return 0
			case w.Goes:
				return 1
			case w.Card > 0:
				return 2
			}
			return 3
		}
		return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(a.Card, b.Card))
	})
	chosen := 0
	if z.in.Stand != "" {
		chosen = slices.IndexFunc(out.ways, func(w Way) bool { return w.ID == z.in.Stand })
		if chosen < 0 {
			return out, fault.New(fault.UnknownStand, "stand", "the things cannot stand as %q; choose one of the ways shown", z.in.Stand)
		}
	}
	out.stand = out.ways[chosen].Arrangement
	out.needs = inside(out.stand, others)
	return out, z.sizeFor(out.needs, Inside)
}

// sizeForAny sizes the box to the first of the arrangements that it can be sized to.
func (z *sizer) sizeForAny(all []contents.Arrangement, others style.Extent) error {
	var first error
	for i, a := range all[:min(len(all), z.tries)] {
		lengths := maps.Clone(z.spec.Lengths)
		err := z.sizeFor(inside(a, others), Inside)
		if err == nil {
			return nil
		}
		if i == 0 {
			first = err
		}
		z.spec.Lengths = lengths
	}
	return first
}

// lie lets things of which nothing is said lie on any side.
func lie(things []contents.Thing) {
	for i := range things {
		if things[i].Up == nil {
			things[i].Up = contents.Sides
		}
	}
}

// price is the card a box of this room takes, whether it can be cut from the sheets, and
// whether its style has nothing to remark of it.
func (z *sizer) price(room, extra style.Extent) (card float64, goes, fair bool) {
	trial := *z // it has sizes of its own, and knows what is known of allowances
	trial.spec.Lengths = maps.Clone(z.spec.Lengths)
	tick := z.in.Tools.Tick
	trial.style.Give(trial.spec.Lengths, style.Extent{
		Length: measure.Up(
			max(0, room.Length+extra.Length),
			tick,
		),
		Width:  measure.Up(max(0, room.Width+extra.Width), tick),
		Height: measure.Up(max(0, room.Height+extra.Height), tick),
	})
	if trial.inRange() != nil {
		return 0, false, false
	}
	trial.follow()
	t := trial.pieces() // with the allowance that was worked out before
	if t.err != nil {
		return 0, false, false
	}
	goes = true
	for _, p := range t.box.Parts {
		card += p.Pattern.Width.MM() * p.Pattern.Height.MM() * float64(p.Copies())
		goes = goes && blankFits(z.in, p) && max(p.Pattern.Width, p.Pattern.Height) <= z.in.Tools.Trimmer
	}
	return card, goes, len(t.box.Remarks) == 0
}
