// Package contents turns things to be boxed into the inside size they need:
// how each may stand (stand.go), how several kinds share a box (mix.go), cells
// that part them (cells.go), and how many of a thing a box holds (capacity.go).
package contents

import (
	"fmt"
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Shape is how a thing takes up room.
type Shape string

// A block is measured along three sides, a round thing across and in height;
// a stack is a pile of cards, measured pressed lightly together; a soft thing
// is measured loose and may be squeezed; an irregular one is measured at its
// widest places.
const (
	Block     Shape = "block"
	Round     Shape = "round"
	Stack     Shape = "stack"
	Soft      Shape = "soft"
	Irregular Shape = "irregular"
)

// Shapes lists the shapes in the order they are offered.
var Shapes = []Shape{Block, Round, Stack, Soft, Irregular}

// Side is one of a thing's measured sides.
type Side string

// The sides, named as they are measured.
const (
	HeightUp Side = "height"
	WidthUp  Side = "width"
	LengthUp Side = "length"
)

// Sides lists the sides in the order they are offered.
var Sides = []Side{HeightUp, WidthUp, LengthUp}

// Thing is Count equal things, measured as they will usually stand. A round
// thing has its Width equal to its Length. Grams is the mass of one, 0 when
// not known.
type Thing struct {
	// ID tells it from the others of its box, whatever their order; 0 when it
	// is in no box yet.
	ID                    int
	Name                  string
	Shape                 Shape
	Length, Width, Height measure.Length
	Count                 int
	Ease                  measure.Length
	Grams                 float64
	// Up lists the sides that may stand upright; nil is its height alone.
	Up []Side
	// Squeeze is how much of a soft thing's loose height may be pressed out,
	// in percent.
	Squeeze int
	// A stack may be told card by card instead of by its height: so many
	// Cards, each so thick with its envelope, and so much more where it is
	// Raised by decoration.
	Cards        int
	Each, Raised measure.Length
	// Fragile things get padding and carry nothing; PullOut ones get room for
	// a finger beside them.
	Fragile, PullOut bool
	// Kind is what it is, where that matters: it sets cautions. "" is other.
	Kind Kind
}

// Kind is what a thing is.
type Kind string

// Kinds of things of which there is something to say.
const (
	Other      Kind = ""
	Food       Kind = "food"
	GreasyFood Kind = "greasy-food"
	Glass      Kind = "glass"
	Candle     Kind = "candle"
	Jewellery  Kind = "jewellery"
	Yarn       Kind = "yarn"
	CardStack  Kind = "cards"
	Soap       Kind = "soap"
	Liquid     Kind = "liquid"
	Hot        Kind = "hot"
)

// Kinds lists them in the order they are offered.
var Kinds = []Kind{Other, Food, GreasyFood, Glass, Candle, Jewellery, Yarn, CardStack, Soap, Liquid, Hot}

// Ease by custom: rigid things want 2 to 3 mm on each axis in total.
const (
	UsualEase = 2 * measure.Millimetre
	MostEase  = 50 * measure.Millimetre
	// Padding goes round fragile things, both sides together.
	Padding = 6 * measure.Millimetre
	// FingerGap lets a finger and thumb in beside a thing.
	FingerGap = 18 * measure.Millimetre
)

// Limits of what goes into one box.
const (
	MostThings  = 200 // of one kind
	MostKinds   = 10
	MostSqueeze = 80
)

// UsualEaseOf is the ease a shape starts with: rigid things 2 mm, soft and
// irregular ones by their nature 0 and 3 mm.
func UsualEaseOf(s Shape) measure.Length {
	switch s {
	case Soft:
		return 0
	case Irregular:
		return 3 * measure.Millimetre
	}
	return UsualEase
}

// Check refuses things that cannot be boxed.
func (t Thing) Check() error {
	switch {
	case !slices.Contains(Shapes, t.Shape):
		return fault.New(fault.UnknownShape, "shape", "%q is not a shape; use block, round, stack, soft or irregular", t.Shape)
	case !slices.Contains(Kinds, t.Kind):
		return fault.New(fault.UnknownChoice, "kind", "%q is not what a thing is; use food, greasy-food, glass, candle, jewellery, yarn, cards, soap, liquid, hot or other", t.Kind)
	case t.Count < 1 || t.Count > MostThings:
		return fault.New(fault.CountRange, "count", "a box holds 1 to %d of a thing, not %d", MostThings, t.Count)
	case t.Length <= 0:
		return fault.New(fault.TooSmall, "length", "how long or how far across is it? The size must be more than nothing")
	case t.Width <= 0:
		return fault.New(fault.TooSmall, "width", "how wide is it? The width must be more than nothing")
	case t.Cards < 0 || t.Cards > MostThings:
		return fault.New(fault.CountRange, "cards", "a stack has 1 to %d cards, or 0 when you give its height", MostThings)
	case t.Cards > 0 && t.Each <= 0:
		return fault.New(fault.TooSmall, "each", "how thick is one card with its envelope? Measure ten and divide")
	case t.Cards > 0 && t.Raised < 0:
		return fault.New(fault.Negative, "raised", "decoration adds to a card's thickness; give 0 for flat cards")
	case t.Cards == 0 && t.Height <= 0:
		return fault.New(fault.TooSmall, "height", "how tall is it? The height must be more than nothing")
	case t.Ease > MostEase:
		return fault.New(fault.TooLarge, "ease", "over 5 cm to spare is another box; leave 2 or 3 mm")
	case t.Ease < 0:
		return fault.New(fault.Negative, "ease", "the room to spare is 0 or more")
	case t.Squeeze < 0 || t.Squeeze > MostSqueeze:
		return fault.New(
			fault.SqueezeRange,
			"squeeze",
			"a soft thing is pressed by 0 to %d %% of its height, not %d",
			MostSqueeze,
			t.Squeeze,
		)
	case t.Up != nil && len(t.Up) == 0:
		return fault.New(fault.NoWayUp, "up", "tick at least one side that may be upright, or the thing cannot stand at all")
	case slices.ContainsFunc(t.Up, func(s Side) bool { return !slices.Contains(Sides, s) }):
		return fault.New(fault.UnknownSide, "up", "the sides that may be upright are height, width and length")
	case !(t.Grams >= 0 && t.Grams <= 20_000):
		return fault.New(fault.MassRange, "grams", "the weight of one is 0 to 20000 grams")
	}
	return nil
}

// CheckAll checks every thing; each fault is put at its thing by at.
func CheckAll(things []Thing, at func(i int) string) error {
	if len(things) > MostKinds {
		return fault.New(
			fault.CountRange,
			"contents",
			"a box holds up to %d kinds of thing, not %d; put some in a box of their own",
			MostKinds,
			len(things),
		)
	}
	for i, t := range things {
		if err := t.Check(); err != nil {
			return fault.At(at(i), err)
		}
	}
	return nil
}

// Tall is the height to allow for the thing as measured: a stack a tenth more
// than its cards, a soft thing what is left when it is squeezed.
func (t Thing) Tall() measure.Length {
	h := t.Height
	switch t.Shape {
	case Stack:
		if t.Cards > 0 {
			h = measure.Length(t.Cards) * (t.Each + t.Raised)
		}
		return h + h/10
	case Soft:
		return h - h*measure.Length(t.Squeeze)/100
	}
	return h
}

// mayStand lists the sides that may be upright.
func (t Thing) mayStand() []Side {
	if t.Up == nil {
		return []Side{HeightUp}
	}
	return t.Up
}

// margin is the room kept round a thing, all sides together, by axis.
type margin struct{ ease, padding, finger measure.Length }

func (t Thing) margin() margin {
	m := margin{ease: t.Ease}
	if t.Fragile {
		m.padding = Padding
	}
	if t.PullOut {
		m.finger = FingerGap
	}
	return m
}

func (m margin) or(n margin) margin {
	return margin{max(m.ease, n.ease), max(m.padding, n.padding), max(m.finger, n.finger)}
}

// lines writes a margin into an account: ease and padding on each axis, the
// finger gap along the length alone.
func (m margin) lines() []Line {
	var out []Line
	if m.ease > 0 {
		out = append(out, Line{"room to spare", m.ease, m.ease, m.ease})
	}
	if m.padding > 0 {
		out = append(out, Line{"padding for what is fragile", m.padding, m.padding, m.padding})
	}
	if m.finger > 0 {
		out = append(out, Line{"room for a finger", m.finger, 0, 0})
	}
	return out
}

// Line is one line of the account of a room: what it adds along each axis.
type Line struct {
	Text                  string
	Length, Width, Height measure.Length
}

// Spot is where one thing stands, from the inside's near left bottom corner.
// Lying tells that it stands on another side than as measured.
type Spot struct {
	Thing                 int
	X, Y, Z               measure.Length
	Length, Width, Height measure.Length
	Lying                 bool
}

// Cell is a part of the inside that holds one thing or the things of one
// kind. Column and Row count from the near left; sizes are clear ones.
type Cell struct {
	Name                string
	Thing               int
	Column, Row         int
	X, Y, Length, Width measure.Length
}

// Arrangement is one way of standing all the things. Its sizes are the room
// they need, and Account adds up to them line by line.
type Arrangement struct {
	ID                    string // "2x2x1": across, deep, layers; see stand.go
	Layers                int    // the most things standing on one another
	Length, Width, Height measure.Length
	Spots                 []Spot
	Account               []Line
	// Columns and Rows are the clear sizes of the cells, empty without.
	Columns, Rows []measure.Length
	// Bands, when set, are the clear lengths of the cells of each row, which are
	// not those of a grid; then there are no Columns.
	Bands   [][]measure.Length
	Cells   []Cell
	linings Line // what stands between the box and the cells
}

// Volume of the room, and of the things' own boxes in it, in mm³.
func (a Arrangement) Volume() (room, things float64) {
	for _, s := range a.Spots {
		things += s.Length.MM() * s.Width.MM() * s.Height.MM()
	}
	return a.Length.MM() * a.Width.MM() * a.Height.MM(), things
}

// Wasted is the part of the room that no thing's own box takes, 0 to 1.
func (a Arrangement) Wasted() float64 {
	room, things := a.Volume()
	return 1 - things/room
}

// Grams is the mass of everything, 0 when nothing is known.
func Grams(things []Thing) float64 {
	sum := 0.0
	for _, t := range things {
		sum += float64(t.Count) * t.Grams
	}
	return sum
}

// plural of a count and a noun that may already be in the plural.
func several(n int, name string) string {
	if name == "" {
		name = "things"
	}
	return fmt.Sprintf("%d × %s", n, name)
}
