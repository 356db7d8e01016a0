package label

import (
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Window is an opening in a face, to see what is inside, with a pane of clear film behind it or none.
type Window struct {
	ID            int
	Shape         Shape
	Width, Height measure.Length
	Piece, Face   string
	Place         Place
	Film          bool
}

// Slot is a window with round ends: for a hand, or to hang it by.
const Slot Shape = "slot"

// WindowShapes lists the shapes a window may have, in the order they are offered.
var WindowShapes = []Shape{Rectangle, Rounded, Circle, Oval, Heart, Star, Slot}

// Limits of a window.
const (
	leastWindow = 5 * mm
	mostWindow  = 250 * mm
)

// Check refuses a window that cannot be cut; show writes a limit.
func (w Window) Check(show func(measure.Length) string) error {
	switch {
	case !slices.Contains(WindowShapes, w.Shape):
		return fault.New(fault.UnknownShape, "shape", "a window is one of %v", WindowShapes)
	case w.Width < leastWindow || w.Width > mostWindow:
		return fault.New(fault.OutOfRange, "width", "a window can be %s to %s wide", show(leastWindow), show(mostWindow))
	case w.Height < leastWindow || w.Height > mostWindow:
		return fault.New(fault.OutOfRange, "height", "a window can be %s to %s high", show(leastWindow), show(mostWindow))
	case w.Shape == Circle && w.Width != w.Height:
		return fault.New(fault.OutOfRange, "height", "a circle is as high as it is wide; an oval need not be")
	}
	return w.Place.check(show)
}

// On is the window's edge on a face so long and so high, in mm from the face's lower left corner, x
// to the right and y up; round parts are arcs, that bulge as on the flat card, where y runs down.
func (w Window) On(along, up float64) pattern.Loop {
	as := Label{Shape: w.Shape, Width: w.Width, Height: w.Height, Place: w.Place}
	edge := outline(w.Shape, w.Width.MM(), w.Height.MM())
	lo, hi := pattern.Bounds(as.turned(0))
	from, _ := pattern.Bounds(as.On(0, along, up)) // where the turned outline's left foot came to lie
	mid := pattern.Pt(w.Width.MM()/2, w.Height.MM()/2)
	for i, v := range edge {
		turned := w.Place.turned(v.Point, mid)
		edge[i].Point = pattern.Pt(from.X+turned.X-lo.X, from.Y+hi.Y-turned.Y)
	}
	return edge
}
