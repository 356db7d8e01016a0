package recipe

import (
	"slices"

	"brevium/core/hand"
	"brevium/core/style"
)

// need says of steps of a piece, told in stretches one after the other, which of them each needs.
func (s *maker) need(p style.Part, stretches ...[]Step) {
	var moves []hand.Move
	var at []*Step
	for _, steps := range stretches {
		for i := range steps {
			moves, at = append(moves, steps[i].Does), append(at, &steps[i])
		}
	}
	needs := hand.Needs(moves)
	for i, of := range needs {
		for _, k := range of {
			at[i].Needs = append(at[i].Needs, at[k].Key)
		}
		if m, sticks := moves[i].(hand.Stick); sticks && m.Round != "" {
			at[i].Needs = append(at[i].Needs, s.last[m.Round]...)
		}
	}
	if s.last == nil {
		s.last = map[string][]string{}
	}
	for _, i := range hand.Last(needs) {
		s.last[p.ID] = append(s.last[p.ID], at[i].Key)
	}
}

// Needs are the keys of the steps that each of these needs, by its key; what one step tells in
// one sentence for several is that step.
func Needs(steps []Step) map[string][]string {
	told := map[string]string{}
	for _, s := range steps {
		for _, in := range s.Inner {
			told[in.Key] = s.Key
		}
	}
	out := map[string][]string{}
	for _, s := range steps {
		of := []string{}
		for _, x := range Flat([]Step{s}) {
			for _, key := range x.Needs {
				if as, inner := told[key]; inner {
					key = as
				}
				if key != s.Key && !slices.Contains(of, key) {
					of = append(of, key)
				}
			}
		}
		out[s.Key] = of
	}
	return out
}

// wholeNeed is what a move of the whole box needs: steps of it before, by their places, and
// steps of pieces, by their keys.
type wholeNeed struct {
	steps []int
	keys  []string
}

// wholeNeeds are what the moves of the whole box need: all pieces that are put together by them,
// what was put in before it is filled, and for what goes round it that it is closed and lies
// what goes under it.
func (s *maker) wholeNeeds(moves []hand.Move) []wholeNeed {
	out := make([]wholeNeed, len(moves))
	things, last, inside := map[string]int{}, -1, []int{}
	used := map[string]bool{}
	for _, m := range moves {
		if put, puts := m.(hand.Put); puts {
			for _, id := range put.Uses {
				used[id] = true
			}
		}
	}
	for i, m := range moves {
		put, puts := m.(hand.Put)
		if last >= 0 {
			out[i].steps = append(out[i].steps, last)
		}
		switch {
		case puts:
			for _, id := range put.Uses {
				out[i].keys = append(out[i].keys, s.last[id]...)
			}
			for _, under := range put.After {
				out[i].steps = append(out[i].steps, things[under])
			}
			if things[put.Thing] = i; put.When == hand.Empty {
				inside = append(inside, i)
			}
			if last >= 0 || put.When == hand.Closed {
				continue
			}
		default:
			out[i].steps, inside = append(out[i].steps, inside...), nil
			if last >= 0 {
				last = i
				continue
			}
			last = i
		}
		for _, p := range s.w.Parts { // the first of the box needs its pieces
			if !used[p.ID] {
				out[i].keys = append(out[i].keys, s.last[p.ID]...)
			}
		}
	}
	return out
}
