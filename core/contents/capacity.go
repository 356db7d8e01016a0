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
	Cards  int // in all, when the thing is a stack told card by card
	Layers int
	// Spots is where each stands, from the corner of the clear room.
	Spots []Spot
	// Over is what is left along each axis with the ease taken off.
	Over Room
	// Stops is the axis that lacks least for one more row, and Lacks how much.
	Stops Axis
	Lacks measure.Length
}

// Capacity says how many of a thing a room holds: the best over its ways up,
// straight rows and, for round things that stand, staggered ones along the
// length or the width; or parts of the room filled in different directions. A
// stack told card by card fills the height with as many cards as go. Count is 0
// when not one fits; Stops then names the axis that lacks most.
func Capacity(room Room, t Thing) Holds {
	best, found := Holds{}, false
	m := t.margin()
	all := m.ease + m.padding
	clear := Room{room.Length - all - m.finger, room.Width - all, room.Height - all}
	defer func() {
		for i := range best.Spots { // from the room's own corner
			best.Spots[i].X += all / 2
			best.Spots[i].Y += all / 2
		}
	}()
	for _, g := range t.ways() {
		if t.Shape == Stack && t.Cards > 0 && g.up == HeightUp {
			g.h = stackOf(t, clear.Height)
		}
		for _, pack := range []packing{straight, staggered, alternate} {
			if pack != straight && (t.Shape != Round || g.up != HeightUp) {
				continue
			}
			g.pack = pack
			if h := g.holds(clear, t); h.Count > best.Count || !found {
				best, found = h, true
			}
		}
	}
	if t.Shape == Stack && t.Cards > 0 {
		return best
	}
	if mixed := fill(clear, t); mixed.count > best.Count {
		best.Count, best.Spots = mixed.count, mixed.spots(nil, 0, 0, 0)
		best.mixed(clear, t)
	}
	return best
}

// mixed says what is left over, and what stops more, where things stand in
// several directions.
func (h *Holds) mixed(clear Room, t Thing) {
	var used Room
	levels := map[measure.Length]bool{}
	for _, s := range h.Spots {
		used = Room{max(used.Length, s.X+s.Length), max(used.Width, s.Y+s.Width), max(used.Height, s.Z+s.Height)}
		levels[s.Z] = true
	}
	h.Layers, h.Over = len(levels), Room{clear.Length - used.Length, clear.Width - used.Width, clear.Height - used.Height}
	h.Lacks = measure.Max
	for _, g := range t.ways() {
		next := Room{g.l, g.w, g.h}
		for _, axis := range []Axis{AlongLength, AlongWidth, AlongHeight} {
			if lack := next.along(axis) - h.Over.along(axis); lack < h.Lacks && !(axis == AlongHeight && t.Fragile) {
				h.Stops, h.Lacks = axis, lack
			}
		}
	}
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

// fit makes a grid as large as a clear room takes it.
func (g *grid) fit(clear Room, t Thing) {
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
}

// holds fills a clear room with one grid.
func (g grid) holds(clear Room, t Thing) Holds {
	g.fit(clear, t)
	h := Holds{Layers: g.layers}
	if g.across > 0 && g.layers > 0 {
		h.Count = g.inLayer() * g.layers
		g.count = h.Count
		h.Spots = g.block().place(nil, 0, 0)
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
