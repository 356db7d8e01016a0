package contents

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
)

// block is a group of things, or of groups, as a box-shaped outline. A leaf
// has one kind in a grid; else a and b stand side by side, or b behind a.
type block struct {
	l, w, h measure.Length
	layers  int
	leaf    *grid
	a, b    *block
	behind  bool
}

// surface is half the surface of the block's hull, a fair forecast of card.
func (b *block) surface() float64 {
	l, w, h := b.l.MM(), b.w.MM(), b.h.MM()
	return l*w + l*h + w*h
}

func bySurface(a, b *block) int { return cmp.Compare(a.surface(), b.surface()) }

// grid is equal things in columns, rows and layers. In a staggered one each
// second row is moved by half a thing, and rows close up as round things do;
// in an alternate one each second row has one thing fewer instead of standing
// out at the end.
type grid struct {
	thing, count         int
	across, deep, layers int
	pack                 packing
	up                   Side
	turned               bool // a quarter, seen from above
	l, w, h              measure.Length
}

type packing byte

const (
	straight  packing = 'x'
	staggered packing = 's'
	alternate packing = 'z'
)

// id writes the grid: "3x2x1" for three across, two deep, one high, "3s2x1"
// staggered, "3z2x1" alternate; then the side that is up when it is not the
// height, and t for a quarter turn.
func (g *grid) id() string {
	s := fmt.Sprintf("%d%c%dx%d", g.across, g.pack, g.deep, g.layers)
	if g.up != HeightUp {
		s += string(g.up[0])
	}
	if g.turned {
		s += "t"
	}
	return s
}

// rowPitch is how far apart staggered rows of round things stand: √3/2 of
// their width, rounded up to the micrometre.
func rowPitch(across measure.Length) measure.Length {
	return measure.Up(measure.Length(math.Ceil(float64(across)*math.Sqrt(3)/2)), measure.Tick(measure.Micrometre))
}

// inRow is how many things the nth row of a layer takes.
func (g *grid) inRow(n int) int {
	if g.pack == alternate && n%2 == 1 {
		return g.across - 1
	}
	return g.across
}

// inLayer is how many things one layer takes.
func (g *grid) inLayer() int {
	n := 0
	for row := range g.deep {
		n += g.inRow(row)
	}
	return n
}

func (g *grid) pitch() measure.Length {
	if g.pack == straight {
		return g.w
	}
	return rowPitch(g.l)
}

func (g *grid) block() *block {
	b := &block{leaf: g, layers: g.layers, h: measure.Length(g.layers) * g.h}
	b.l = measure.Length(g.across) * g.l
	if g.pack == staggered {
		b.l += g.l / 2
	}
	b.w = g.w + measure.Length(g.deep-1)*g.pitch()
	return b
}

// ways gives the sides of one thing for every way it may stand.
func (t Thing) ways() []grid {
	var out []grid
	l, w, h := t.Length, t.Width, t.Tall()
	for _, up := range t.mayStand() {
		g := grid{up: up, l: l, w: w, h: h}
		switch up {
		case WidthUp:
			g.w, g.h = h, w
		case LengthUp:
			g.l, g.h = h, l
		}
		out = append(out, g)
		if g.l != g.w {
			g.turned, g.l, g.w = true, g.w, g.l
			out = append(out, g)
		}
	}
	return out
}

// stands gives every way of standing all copies of a thing that is not
// worse along every axis than another, in order of surface.
func stands(i int, t Thing, count int) []*block {
	var all []*block
	add := func(g grid) {
		g.thing, g.count = i, count
		all = append(all, g.block())
	}
	for _, g := range t.ways() {
		most := count
		if t.Fragile {
			most = 1
		}
		for g.layers = 1; g.layers <= most; g.layers++ {
			each := (count + g.layers - 1) / g.layers
			if each*(g.layers-1) >= count {
				continue
			}
			for g.across = 1; g.across <= each; g.across++ {
				g.pack, g.deep = straight, (each+g.across-1)/g.across
				if g.across*(g.deep-1) < each && (g.across-1)*g.deep < each {
					add(g)
				}
				if t.Shape != Round || g.up != HeightUp || g.layers > 1 {
					continue
				}
				if g.pack = staggered; g.deep > 1 {
					add(g)
				}
				if g.pack = alternate; g.across < 2 {
					continue
				}
				for g.inLayer() < each {
					g.deep++
				}
				add(g)
			}
		}
	}
	return keep(all)
}

// keep sorts blocks by surface and leaves out those that are no smaller than
// another along any axis.
func keep(all []*block) []*block {
	slices.SortStableFunc(all, bySurface)
	var out []*block
	for _, b := range all {
		worse := func(o *block) bool { return o.l <= b.l && o.w <= b.w && o.h <= b.h }
		if !slices.ContainsFunc(out, worse) {
			out = append(out, b)
		}
	}
	return out
}

// place adds the spots of a block that stands at x, y.
func (b *block) place(to []Spot, x, y measure.Length) []Spot {
	if b.leaf == nil {
		to = b.a.place(to, x, y)
		if b.behind {
			return b.b.place(to, x, y+b.a.w)
		}
		return b.b.place(to, x+b.a.l, y)
	}
	g := b.leaf
	left := g.count
	for layer := range g.layers {
		for row := range g.deep {
			for n := range g.inRow(row) {
				if left == 0 {
					return to
				}
				left--
				s := Spot{
					Thing: g.thing, Length: g.l, Width: g.w, Height: g.h, Lying: g.up != HeightUp,
					X: x + measure.Length(n)*g.l, Y: y + measure.Length(row)*g.pitch(), Z: measure.Length(layer) * g.h,
				}
				if g.pack != straight && row%2 == 1 {
					s.X += g.l / 2
				}
				to = append(to, s)
			}
		}
	}
	return to
}
