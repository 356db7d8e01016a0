package design

import (
	"context"
	"maps"
	"slices"

	"brevium/core/measure"
	"brevium/core/style"
)

// Chosen is an option that a search has chosen, where nobody else had: one of its choices,
// or a length.
type Chosen struct {
	ID, Label, Choice string
	Length            measure.Length
}

func (c Chosen) set(in *Inputs) {
	if c.Choice != "" {
		in.Choices[c.ID] = c.Choice
	} else {
		in.Lengths[c.ID] = c.Length
	}
}

// variants are the ways in which the options that may vary can be chosen, those with all
// lengths as small as is usual, which leave the most of a sheet; the last leaves all as they
// are. What was typed stays.
func (q *seek) variants() [][]Chosen {
	out := [][]Chosen{nil}
	for _, o := range q.style.Options {
		_, typed := q.in.Lengths[o.ID]
		if _, chosen := q.in.Choices[o.ID]; !o.Varies || typed || chosen {
			continue
		}
		var more [][]Chosen
		for _, before := range out {
			if o.Small != nil {
				more = append(more, append(before[:len(before):len(before)], Chosen{ID: o.ID, Label: o.Label}))
			}
			for _, c := range o.Choices {
				if c == o.DefaultChoice {
					more = append(more, before)
				} else {
					more = append(more, append(before[:len(before):len(before)], Chosen{ID: o.ID, Label: o.Label, Choice: c}))
				}
			}
		}
		out = more
	}
	if len(out[0]) > 0 {
		out = append(out, nil)
	}
	return out
}

// freest is the largest size over all free axes, by the way of choosing the options whose
// room is the largest. What a look at every eighth tick finds is where it begins.
func (q *seek) freest(free []int) (style.Extent, []Chosen) {
	var best style.Extent
	var with []Chosen
	most := 0.0
	for _, v := range q.variants() {
		x := *q
		x.in, x.widens = q.in.Clone(), map[string][]bool{}
		for _, c := range v {
			if o, _ := q.style.Option(c.ID); c.Choice == "" {
				x.small = append(x.small, o)
			} else {
				c.set(&x.in)
			}
		}
		e := x.sizes(style.Extent{})
		x.allow()
		size, floor := style.Extent{}, volume(best)
		coarse := x
		coarse.step *= 8
		// Each axis is once the one that grows last; only one of them where the coarse look shows
		// that it makes no difference, and where nearly every size can be made.
		turns := len(free)
		for _, look := range []*seek{&coarse, &x} {
			founds := map[style.Extent]bool{}
			for turn := range turns {
				found := look.largest(e, slices.Concat(free[turn:], free[:turn]), floor)
				_, _, more := x.tried(found)
				if _, _, room := x.tried(size); volume(found) > floor || more > room {
					size, floor = found, volume(found)
				}
				founds[found] = true
			}
			if look == &coarse && len(founds) == 1 && 20*look.amiss < look.trials {
				turns = 1
			}
		}
		x.ctx = context.WithoutCancel(q.ctx)                  // what was found is kept though time ran out
		x.in.Lengths, x.small = maps.Clone(q.in.Lengths), nil // as it would be made
		for i := range v {
			if o, _ := q.style.Option(v[i].ID); v[i].Choice == "" {
				v[i].Length = measure.Up(o.Small(x.sized(size)), q.tick)
			}
			v[i].set(&x.in)
		}
		if at, _, room := x.tried(size); at == fitting && room > most {
			best, most, with = size, room, v
		}
		if q.ctx.Err() != nil {
			break
		}
	}
	return best, with
}

// sized is the spec of a size, its other sizes and options as they follow.
func (q *seek) sized(e style.Extent) style.Spec {
	spec, err := q.in.spec(q.style)
	if err != nil { // what was read can be made into one
		return style.Spec{}
	}
	spec.Lengths = maps.Clone(spec.Lengths)
	q.style.Give(spec.Lengths, e)
	for _, o := range q.small {
		spec.Lengths[o.ID] = measure.Up(o.Small(spec), q.tick)
	}
	return spec
}

// allow works the allowance out once, at the usual sizes, so that it need not be at every
// size that is tried: it follows from the cards.
func (q *seek) allow() {
	spec, err := q.in.spec(q.style)
	if err != nil {
		return
	}
	z := newSizer(&q.in, q.style, spec)
	if _, err := z.box(); err != nil || !z.solved {
		return
	}
	for id := range z.worked {
		q.in.Lengths[id] = z.spec.Lengths[id]
	}
}

// largest is the size of the largest volume above a floor, in mm³, with the given axes
// free; the zero extent where there is none.
//
// It is branch and bound over all free axes but the last. Of two sizes that fit each smaller
// one does too. So a block of lengths of the other axes is passed over when its shortest
// ones do not fit together with the last axis as long as it must be to beat the floor with
// the block's longest ones; else it is halved, down to single ticks, where the last axis
// grows as far as it goes. Nothing on the tick is missed.
func (q *seek) largest(e style.Extent, free []int, floor float64) style.Extent {
	last := free[len(free)-1]
	least, most := q.limits(last)
	ticks := int((most-least)/q.step) + 1
	set := func(e style.Extent, axis, n int) style.Extent {
		from, _ := q.limits(axis)
		q.set(&e, axis, from+measure.Length(n-1)*q.step)
		return e
	}
	best, roomiest := style.Extent{}, 0.0
	var look func(low, high []int)
	look = func(low, high []int) {
		bottom, top := e, e
		widest := 0
		for k, axis := range free[:len(free)-1] {
			bottom, top = set(bottom, axis, low[k]), set(top, axis, high[k])
			if high[k]-low[k] > high[widest]-low[widest] {
				widest = k
			}
		}
		need := 1 // the ticks of the last axis that beat the floor
		for step := ticks; step > 0; step /= 2 {
			for need+step <= ticks+1 && volume(set(top, last, need+step-1)) < floor {
				need += step
			}
		}
		if need > ticks || q.ctx.Err() != nil {
			return
		}
		// What cannot be made with the last axis so short is looked at with more of it; where
		// not even the block's longest ones can be made there is nothing in it.
		shortest, at := q.first(need, ticks, func(n int) style.Extent { return set(bottom, last, n) }, unmade)
		switch at {
		case tooLarge, neither:
			return
		case unmade:
			_, at = q.first(need, ticks, func(n int) style.Extent { return set(top, last, n) }, unmade, neither)
			if at == unmade || at == neither {
				return
			}
		}
		if len(low) == 0 || high[widest] == low[widest] {
			if n := q.last(shortest, ticks, func(n int) style.Extent { return set(bottom, last, n) }); n > 0 {
				size := set(bottom, last, n)
				if _, _, room := q.tried(size); volume(size) > floor || room > roomiest { // of equals the roomiest
					best, floor, roomiest = size, volume(size), room
				}
			}
			return
		}
		below, above := slices.Clone(high), slices.Clone(low)
		below[widest] = (low[widest] + high[widest]) / 2
		above[widest] = below[widest] + 1
		look(low, below)
		look(above, high)
	}
	var low, high []int
	for _, axis := range free[:len(free)-1] {
		from, to := q.limits(axis)
		low, high = append(low, 1), append(high, int((to-from)/q.step)+1)
	}
	look(low, high)
	return best
}

// first is the first n of those looked at that lies on none of the given sides, and on which
// it lies: from least on, each half as far again, up to most, which is the answer where there
// is none.
func (q *seek) first(least, most int, size func(n int) style.Extent, none ...side) (int, side) {
	for n := least; ; n = min(n+n/2+1, most) {
		if at, _ := q.try(size(n)); n == most || !slices.Contains(none, at) {
			return n, at
		}
	}
}
