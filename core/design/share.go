package design

import (
	"slices"

	"brevium/core/contents"
	"brevium/core/style"
)

// share is what goes into one of a box's equal rooms: things, and which of the
// design's they are.
type share struct {
	things []contents.Thing
	of     []int
}

// oneOf is a single one of the things, with its room to spare, when all are of one
// kind.
func oneOf(in *Inputs) style.Extent {
	if len(in.Things) != 1 {
		return style.Extent{}
	}
	t := in.Things[0]
	return style.Extent{Length: t.Length + t.Ease, Width: t.Width + t.Ease, Height: t.Tall() + t.Ease}
}

// withoutBeside is the things without those that stand beside the room, one of a kind
// each; where there are no more of them, they go into the room all the same.
func withoutBeside(in *Inputs, beside int) []contents.Thing {
	out := slices.Clone(in.Things)
	if len(out) == 1 && out[0].Count > beside {
		out[0].Count -= beside
	}
	return out
}

// sharesOf parts the things among so many equal rooms: one kind evenly; several
// kinds one to a room where there are rooms enough, else some of each kind in
// every room. Some may stand beside them.
func sharesOf(in *Inputs, rooms, beside int) []share {
	all := share{things: withoutBeside(in, beside)}
	for i := range in.Things {
		all.of = append(all.of, i)
	}
	if rooms < 2 {
		return []share{all}
	}
	total := 0
	for _, t := range in.Things {
		total += t.Count
	}
	var out []share
	if len(in.Things) > 1 && total <= rooms {
		for i, t := range in.Things {
			t.Count = 1
			out = append(out, share{[]contents.Thing{t}, []int{i}})
		}
		return out
	}
	one := share{of: all.of}
	for _, t := range in.Things {
		t.Count = (t.Count + rooms - 1) / rooms
		one.things = append(one.things, t)
	}
	return []share{one}
}

// arrangementsOf gives the ways the things of a share may stand, linings and all.
func arrangementsOf(in *Inputs, s share) []contents.Arrangement {
	var all []contents.Arrangement
	if p := partingOf(in); in.Compartments.Per != contents.Together {
		all = contents.Divided(s.things, p)
	} else {
		all = contents.Arrangements(s.things)
	}
	if linings := liningsOf(in); len(linings) > 0 {
		for i := range all {
			all[i] = all[i].Within(linings)
		}
	}
	for i := range all {
		for k := range all[i].Spots {
			all[i].Spots[k].Thing = s.of[all[i].Spots[k].Thing]
		}
	}
	return all
}

// inside is the room that an arrangement needs, where others are to have room
// in one like it.
func inside(a contents.Arrangement, others style.Extent) style.Extent {
	return style.Extent{Length: max(a.Length, others.Length), Width: max(a.Width, others.Width), Height: max(a.Height, others.Height)}
}
