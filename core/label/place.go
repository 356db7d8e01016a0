package label

import (
	"cmp"
	"math"
	"slices"
	"strconv"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Edge is what a label's place is counted from, as one looks at its face: "" is the middle.
type Edge string

// The edges of a face.
const (
	Middle Edge = ""
	Left   Edge = "left"
	Right  Edge = "right"
	Top    Edge = "top"
	Bottom Edge = "bottom"
)

// Off is how far a label lies from an edge of its face, edge to edge; under nothing it stands
// over that edge. Of the middle there is nothing to count.
type Off struct {
	From Edge
	At   measure.Length
}

// Place is where a label lies: across and up its face, turned with the clock by so many degrees.
type Place struct {
	Across, Up Off
	Turn       int
}

// Upon is another thing on a face that a label lies on: one that is placed, by its word or its
// number, or a paper, by its id. Edges are then those of that thing, as it lies.
type Upon struct{ Thing, Paper string }

// Word is what another thing names it by.
func (l Label) Word() string { return cmp.Or(l.Called, strconv.Itoa(l.ID)) }

// Is reports whether a thing that lies on another's may be named so.
func (l Label) Is(thing string) bool {
	return thing != "" && thing == l.Word()
}

// farthest is how far from an edge a label lies at most, and over it.
const farthest = 500 * mm

// check refuses places that no face has.
func (p Place) check(show func(measure.Length) string) error {
	switch {
	case !slices.Contains([]Edge{Middle, Left, Right}, p.Across.From):
		return fault.New(fault.UnknownChoice, "across.from", "across a face a label is counted from left, right or middle")
	case !slices.Contains([]Edge{Middle, Top, Bottom}, p.Up.From):
		return fault.New(fault.UnknownChoice, "up.from", "up a face a label is counted from top, bottom or middle")
	case p.Across.At.Abs() > farthest:
		return fault.New(fault.OutOfRange, "across.at", "a label lies up to %s from an edge", show(farthest))
	case p.Up.At.Abs() > farthest:
		return fault.New(fault.OutOfRange, "up.at", "a label lies up to %s from an edge", show(farthest))
	case p.Turn < -180 || p.Turn > 180:
		return fault.New(fault.OutOfRange, "turn", "a label is turned by up to 180 degrees either way")
	}
	return nil
}

// Spread is how wide and high the label is as it lies, turned, in mm.
func (l Label) Spread() (wide, high float64) {
	lo, hi := pattern.Bounds(l.turned(0))
	return hi.X - lo.X, hi.Y - lo.Y
}

// On gives the nth layer's outline as it lies on a face so long and so high, in mm from the
// face's lower left corner, x to the right and y up.
func (l Label) On(n int, along, up float64) []pattern.Point {
	wide, high := l.Spread()
	lo, _ := pattern.Bounds(l.turned(0))
	left := map[Edge]float64{Middle: (along - wide) / 2, Left: l.Place.Across.At.MM(), Right: along - l.Place.Across.At.MM() - wide}[l.Place.Across.From]
	foot := map[Edge]float64{Middle: (up - high) / 2, Bottom: l.Place.Up.At.MM(), Top: up - l.Place.Up.At.MM() - high}[l.Place.Up.From]
	out := l.turned(n)
	for i, q := range out {
		out[i] = pattern.Pt(left+q.X-lo.X, foot+high-(q.Y-lo.Y))
	}
	return out
}

// turned is the nth layer's outline, turned about the label's middle.
func (l Label) turned(n int) []pattern.Point {
	mid := pattern.Pt(l.Width.MM()/2, l.Height.MM()/2)
	out := l.Outline(n).Flat()
	for i, p := range out {
		out[i] = l.Place.turned(p, mid)
	}
	return out
}

// turned is a point turned about another with the clock, where y runs down.
func (p Place) turned(at, about pattern.Point) pattern.Point {
	sin, cos := math.Sincos(float64(p.Turn) * math.Pi / 180)
	q := at.Sub(about)
	return about.Add(pattern.Pt(q.X*cos-q.Y*sin, q.X*sin+q.Y*cos))
}
