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
}

// mostTried bounds the arrangements that are priced: those with the least
// surface come first, and a box's card hardly goes against that.
const mostTried = 60

// around chooses how the things stand and sizes the box to them: the
// arrangement asked for, or the one whose blanks take least card, one that
// goes on the sheets before one that does not.
func (r *Result) around() error {
	r.Spec.One = r.Inputs.one()
	beside, others := r.Style.BesideOf(r.Spec)
	shares := r.Inputs.shares(r.Style.RoomsOf(r.Spec), beside)
	all := r.Inputs.arrangements(shares[0])
	for _, s := range shares[1:] {
		others = inside(r.Inputs.arrangements(s)[0], others)
	}
	if err := r.sizeFor(inside(all[0], others), Inside); err != nil {
		return err
	}
	lacks, err := r.lacks(style.Extent{}, Inside)
	if err != nil {
		return err
	}
	// What the sizes are over the room they give, for pricing the others.
	has := r.Style.Along(r.Spec.Lengths)
	extra := style.Extent{Length: has.Length + lacks.Length, Width: has.Width + lacks.Width, Height: has.Height + lacks.Height}
	for i, a := range all {
		if i >= mostTried && a.ID != r.Inputs.Stand {
			continue
		}
		w := Way{Arrangement: a}
		w.Card, w.Goes = r.price(inside(a, others), extra)
		r.Ways = append(r.Ways, w)
	}
	slices.SortStableFunc(r.Ways, func(a, b Way) int {
		rank := func(w Way) int {
			switch {
			case w.Goes:
				return 0
			case w.Card > 0:
				return 1
			}
			return 2
		}
		return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(a.Card, b.Card))
	})
	chosen := 0
	if r.Inputs.Stand != "" {
		chosen = slices.IndexFunc(r.Ways, func(w Way) bool { return w.ID == r.Inputs.Stand })
		if chosen < 0 {
			return fault.New(fault.UnknownStand, "stand", "the things cannot stand as %q; choose one of the ways shown", r.Inputs.Stand)
		}
	}
	stand := r.Ways[chosen].Arrangement
	r.Stand, r.Needs = &stand, inside(stand, others)
	return r.sizeFor(r.Needs, Inside)
}

// price is the card a box of this room takes, and whether it can be cut from
// the sheets.
func (r *Result) price(room, extra style.Extent) (card float64, goes bool) {
	trial := *r
	trial.Spec.Lengths = maps.Clone(r.Spec.Lengths)
	tick := r.Inputs.Tools.Tick
	trial.Style.Give(trial.Spec.Lengths, style.Extent{
		Length: measure.Up(
			max(0, room.Length+extra.Length),
			tick,
		),
		Width:  measure.Up(max(0, room.Width+extra.Width), tick),
		Height: measure.Up(max(0, room.Height+extra.Height), tick),
	})
	if trial.inRange() != nil {
		return 0, false
	}
	box, err := trial.solved(&trial.Spec)
	if err != nil {
		return 0, false
	}
	goes = true
	for _, p := range box.Parts {
		card += p.Pattern.Width.MM() * p.Pattern.Height.MM() * float64(p.Copies())
		goes = goes && r.Inputs.blankFits(p) && max(p.Pattern.Width, p.Pattern.Height) <= r.Inputs.Tools.Trimmer
	}
	return card, goes
}
