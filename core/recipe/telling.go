package recipe

import (
	"strings"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// Telling is how lengths are told: in a unit, on the tick of the board.
type Telling struct {
	Units measure.Unit
	Tick  measure.Tick
}

// Whole tells a length in the first of the tellings in which it is one number, else in
// centimetres to a tenth of a millimetre: what a hand sets has no remainder.
func Whole(l measure.Length, tellings ...Telling) string {
	for _, t := range tellings {
		if measure.Whole(l, t.Units, t.Tick) {
			return measure.Label(l, t.Units, t.Tick)
		}
	}
	return measure.Label(measure.Nearest(l, measure.Tenth), measure.CM, measure.MM.Tick())
}

// length tells a length as a hand sets it. In the unit that the board is
// marked in it never has a remainder: what lies between the marks of every
// tool is told on half the ruler's tick, 1/64 in or 0.25 mm. In another unit
// the remainder is shown, because the box was not made in it.
func (t Telling) length(l measure.Length) string {
	return measure.Label(t.settable(l), t.Units, t.Tick)
}

func (t Telling) settable(l measure.Length) measure.Length {
	if !t.Units.Marks(t.Tick) {
		return l
	}
	return measure.OnMark(l, t.Units, t.Tick)
}

// numbers writes lengths for a sentence: "1 1/2 and 5 1/2 in".
func (t Telling) numbers(at []measure.Length) string {
	set := make([]measure.Length, len(at))
	for i, l := range at {
		set[i] = t.settable(l)
	}
	return Numbers(set, t.Units, t.Tick)
}

// segment is a straight line from its first point to its last.
func (l Line) segment() pattern.Segment {
	return pattern.Segment{A: l.Path[0].Point, B: l.Path[len(l.Path)-1].Point}
}

func plural(n int) string {
	if n == 1 {
		return ""
	}
	return "s"
}

func lowerFirst(s string) string { return strings.ToLower(s[:1]) + s[1:] }
