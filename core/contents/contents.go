// Package contents turns things to be boxed into the inside size they need.
package contents

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Shape is how a thing takes up room.
type Shape string

// A block is measured along three sides, a round thing across and in height;
// a stack is a pile of cards, measured pressed lightly together.
const (
	Block Shape = "block"
	Round Shape = "round"
	Stack Shape = "stack"
)

// Shapes lists the shapes in the order they are offered.
var Shapes = []Shape{Block, Round, Stack}

// Thing is Count equal things, standing as they will in the box. A round
// thing has its Width equal to its Length. Grams is the mass of one, 0 when
// not known.
type Thing struct {
	Name                  string
	Shape                 Shape
	Length, Width, Height measure.Length
	Count                 int
	Ease                  measure.Length
	Grams                 float64
}

// Ease by custom: rigid things want 2 to 3 mm on each axis in total.
const (
	UsualEase = 2 * measure.Millimetre
	MostEase  = 50 * measure.Millimetre
)

// MostThings is the most of one thing in one box.
const MostThings = 200

// Check refuses things that cannot be boxed.
func (t Thing) Check() error {
	switch {
	case !slices.Contains(Shapes, t.Shape):
		return fault.New("unknown-shape", "shape", "%q is not a shape; use block, round or stack", t.Shape)
	case t.Count < 1 || t.Count > MostThings:
		return fault.New("count-range", "count", "a box holds 1 to %d of a thing, not %d", MostThings, t.Count)
	case t.Length <= 0:
		return fault.New("too-small", "length", "how long or how far across is it? The size must be more than nothing")
	case t.Width <= 0:
		return fault.New("too-small", "width", "how wide is it? The width must be more than nothing")
	case t.Height <= 0:
		return fault.New("too-small", "height", "how tall is it? The height must be more than nothing")
	case t.Ease > MostEase:
		return fault.New("too-large", "ease", "an ease over 5 cm is another box; leave 2 or 3 mm")
	case !(t.Grams >= 0 && t.Grams <= 20_000):
		return fault.New("mass-range", "grams", "the weight of one is 0 to 20000 grams")
	}
	return nil
}

// tall is the height to allow: a stack is allowed a tenth more than measured.
func (t Thing) tall() measure.Length {
	if t.Shape == Stack {
		return t.Height + t.Height/10
	}
	return t.Height
}

// Spot is where one thing stands, from the inside's near left bottom corner.
type Spot struct {
	Thing                 int
	X, Y, Z               measure.Length
	Length, Width, Height measure.Length
}

// Arrangement is one way of standing all the things.
type Arrangement struct {
	ID                    string // "2x2x1": across, deep, layers; one for each thing, joined by "+"
	Layers                int    // the most things standing on one another
	Length, Width, Height measure.Length
	Spots                 []Spot
}

// mostArrangements bounds the ways tried for a mixture.
const mostArrangements = 400

// Arrangements gives every way of standing each thing's copies in columns,
// rows and layers, the groups side by side. The sizes include the ease, the
// largest any thing asks for, once on each axis. The list is never empty for
// things that pass Check, and is in order of surface.
func Arrangements(things []Thing) []Arrangement {
	all := []Arrangement{{}}
	for i, t := range things {
		var next []Arrangement
		for _, a := range all {
			for _, g := range grids(t.Count) {
				next = append(next, a.beside(i, t, g))
			}
		}
		bySurface(next)
		all = next[:min(len(next), mostArrangements)]
	}
	ease := measure.Length(0)
	for _, t := range things {
		ease = max(ease, t.Ease)
	}
	for i := range all {
		a := &all[i]
		a.Length, a.Width, a.Height = a.Length+ease, a.Width+ease, a.Height+ease
		for s := range a.Spots {
			a.Spots[s].X += ease / 2
			a.Spots[s].Y += ease / 2
		}
	}
	return all
}

// bySurface sorts by half the surface of the block, a fair forecast of card.
func bySurface(all []Arrangement) {
	half := func(a Arrangement) float64 {
		l, w, h := a.Length.MM(), a.Width.MM(), a.Height.MM()
		return l*w + l*h + w*h
	}
	slices.SortStableFunc(all, func(a, b Arrangement) int { return cmp.Compare(half(a), half(b)) })
}

type grid struct{ across, deep, layers int }

// grids gives the tightest grids for n: for each number of layers and
// columns as few rows as will do.
func grids(n int) []grid {
	var out []grid
	for layers := 1; layers <= n; layers++ {
		each := (n + layers - 1) / layers
		if (each * (layers - 1)) >= n {
			continue
		}
		for across := 1; across <= each; across++ {
			deep := (each + across - 1) / across
			if across*(deep-1) >= each || (across-1)*deep >= each {
				continue
			}
			out = append(out, grid{across, deep, layers})
		}
	}
	return out
}

// beside adds a group of equal things to the right of what is there.
func (a Arrangement) beside(i int, t Thing, g grid) Arrangement {
	b := Arrangement{ID: fmt.Sprintf("%dx%dx%d", g.across, g.deep, g.layers), Spots: slices.Clone(a.Spots)}
	if a.ID != "" {
		b.ID = a.ID + "+" + b.ID
	}
	l, w, h := t.Length, t.Width, t.tall()
	for n := range t.Count {
		x, y, z := n%g.across, n/g.across%g.deep, n/(g.across*g.deep)
		b.Spots = append(b.Spots, Spot{
			Thing: i, Length: l, Width: w, Height: h,
			X: a.Length + measure.Length(x)*l, Y: measure.Length(y) * w, Z: measure.Length(z) * h,
		})
	}
	b.Layers = max(a.Layers, g.layers)
	b.Length = a.Length + measure.Length(g.across)*l
	b.Width = max(a.Width, measure.Length(g.deep)*w)
	b.Height = max(a.Height, measure.Length(g.layers)*h)
	return b
}

// Grams is the mass of everything, 0 when nothing is known.
func Grams(things []Thing) float64 {
	sum := 0.0
	for _, t := range things {
		sum += float64(t.Count) * t.Grams
	}
	return sum
}
