package band

import (
	"brevium/core/fault"
	"brevium/core/measure"
)

// Bow is how the ends of a ribbon or string are brought together.
type Bow string

// Lapped ends are glued one over the other, out of sight; a knot leaves two tails;
// a single bow has two loops besides and a double one four; curls are a knot with
// a second length tied in, all four ends drawn over a blade.
const (
	Lapped Bow = "none"
	Knot   Bow = "knot"
	Single Bow = "single"
	Double Bow = "double"
	Curls  Bow = "curls"
	Paper  Bow = "paper" // loops of paper over lapped ends
)

// Bows lists them in the order they are offered.
var Bows = []Bow{Single, Double, Knot, Curls, Paper, Lapped}

// Tied is what a bow is made to: how far each loop and each tail reaches from the
// knot, and how wide the ribbon is.
type Tied struct {
	Bow               Bow
	Loop, Tail, Width measure.Length
}

// Lengths a knot takes: six times the ribbon's width, and no less than 30 mm; a
// lap is 20 mm.
const (
	knotWidths = 6
	leastKnot  = 30 * measure.Millimetre
	lapped     = 20 * measure.Millimetre
)

// Takes is the length a bow takes of the ribbon, beyond the path: a loop goes out
// and back, 2 × its reach; the tails and the knot come to it.
func (t Tied) Takes() measure.Length {
	knot := max(leastKnot, knotWidths*t.Width)
	switch t.Bow {
	case Lapped, Paper:
		return lapped
	case Knot:
		return knot + 2*t.Tail
	case Single:
		return knot + 2*t.Tail + 2*2*t.Loop
	case Double:
		return knot + 2*t.Tail + 4*2*t.Loop
	case Curls:
		return knot + 4*t.Tail
	}
	return 0
}

// Loops is how many loops stand out from the knot.
func (b Bow) Loops() int { return map[Bow]int{Single: 2, Double: 4}[b] }

// Tails is how many ends hang from it.
func (b Bow) Tails() int { return map[Bow]int{Knot: 2, Single: 2, Double: 2, Curls: 4}[b] }

// Check refuses what no hand ties.
func (t Tied) Check(show func(measure.Length) string) error {
	mm := measure.Millimetre
	for _, x := range []struct {
		field, what string
		is, least   measure.Length
		most        measure.Length
	}{{"width", "a ribbon", t.Width, mm / 2, 80 * mm}, {"loop", "a loop of the bow", t.Loop, 10 * mm, 300 * mm}, {"tail", "a tail of the bow", t.Tail, 10 * mm, 500 * mm}} {
		if x.is < x.least || x.is > x.most {
			verb := "reaches"
			if x.field == "width" {
				verb = "is"
			}
			return fault.New(fault.OutOfRange, x.field, "%s %s %s to %s", x.what, verb, show(x.least), show(x.most))
		}
	}
	return nil
}
