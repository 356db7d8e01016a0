package contents

import (
	"slices"

	"brevium/core/measure"
)

// Room is the clear inside of a box.
type Room struct{ Length, Width, Height measure.Length }

// Axis names one of a room's sizes.
type Axis string

// The axes of a room.
const (
	AlongLength Axis = "length"
	AlongWidth  Axis = "width"
	AlongHeight Axis = "height"
)

// Holds is how many of a thing a room takes, and what stops it.
type Holds struct {
	Count  int
	Cards  int    // in all, when the thing is a stack told card by card
	ID     string // how they stand, as an arrangement's id
	Layers int
	// Over is what is left along each axis with the ease taken off.
	Over Room
	// Stops is the axis that lacks least for one more row, and Lacks how much.
	Stops Axis
	Lacks measure.Length
}

// Capacity says how many of a thing a room holds: the best over its ways up,
// straight rows and, for round things that stand, staggered ones. A stack
// told card by card fills the height with as many cards as go. Count is 0
// when not one fits; Stops then names the axis that lacks most.
func Capacity(room Room, t Thing) Holds {
	best := Holds{}
	m := t.margin()
	all := m.ease + m.padding
	clear := Room{room.Length - all - m.finger, room.Width - all, room.Height - all}
	for _, g := range t.ways() {
		if t.Shape == Stack && t.Cards > 0 && g.up == HeightUp {
			g.h = stackOf(t, clear.Height)
		}
		for _, pack := range []packing{straight, staggered, alternate} {
			if pack != straight && (t.Shape != Round || g.up != HeightUp) {
				continue
			}
			g.pack = pack
			if h := g.holds(clear, t); h.Count > best.Count || best.ID == "" {
				best = h
			}
		}
	}
	return best
}

// stackOf is the height of the highest stack that goes into a clear height,
// at least one card's.
func stackOf(t Thing, clear measure.Length) measure.Length {
	one := t
	one.Cards = 1
	for more := one; ; one = more {
		more.Cards++
		if more.Tall() > clear || more.Cards > 10*MostThings {
			return one.Tall()
		}
	}
}

// holds fills a clear room with one grid.
func (g grid) holds(clear Room, t Thing) Holds {
	whole := func(of, by measure.Length) int { return max(0, int(of/by)) }
	length := clear.Length
	if g.pack == staggered {
		length -= g.l / 2
	}
	g.across = whole(length, g.l)
	g.deep = 0
	if clear.Width >= g.w {
		g.deep = 1 + whole(clear.Width-g.w, g.pitch())
	}
	g.layers = whole(clear.Height, g.h)
	if t.Fragile {
		g.layers = min(1, g.layers)
	}
	h := Holds{ID: g.id(), Layers: g.layers}
	if g.across > 0 && g.layers > 0 {
		h.Count = g.inLayer() * g.layers
	}
	if t.Shape == Stack && t.Cards > 0 && g.up == HeightUp {
		one := t
		one.Cards = 1
		for one.Tall() < g.h {
			one.Cards++
		}
		h.Cards = h.Count * one.Cards
	}
	used := g.block()
	h.Over = Room{clear.Length - used.l, clear.Width - used.w, clear.Height - used.h}
	h.stop(g, t, clear)
	return h
}

// stop finds the axis that is in the way of more.
func (h *Holds) stop(g grid, t Thing, clear Room) {
	type lack struct {
		axis Axis
		by   measure.Length
	}
	by := func(a, b lack) int { return int(a.by - b.by) }
	if h.Count == 0 {
		worst := slices.MaxFunc(
			[]lack{{AlongLength, g.l - clear.Length}, {AlongWidth, g.w - clear.Width}, {AlongHeight, g.h - clear.Height}},
			by,
		)
		h.Stops, h.Lacks = worst.axis, worst.by
		return
	}
	lacks := []lack{{AlongLength, g.l - h.Over.Length}, {AlongWidth, g.pitch() - h.Over.Width}}
	if !t.Fragile {
		next := g.h
		if t.Cards > 0 && t.Shape == Stack {
			next = t.Each + t.Raised + (t.Each+t.Raised)/10
		}
		lacks = append(lacks, lack{AlongHeight, next - h.Over.Height})
	}
	least := slices.MinFunc(lacks, by)
	h.Stops, h.Lacks = least.axis, least.by
}
