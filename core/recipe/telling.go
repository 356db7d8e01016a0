package recipe

import (
	"fmt"
	"math"
	"slices"
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

// mm is length for a number of millimetres.
func (t Telling) mm(v float64) string { return t.length(measure.FromMM(v)) }

// numbers writes lengths for a sentence: "1 1/2 and 5 1/2 in".
func (t Telling) numbers(at []measure.Length) string {
	set := make([]measure.Length, len(at))
	for i, l := range at {
		set[i] = t.settable(l)
	}
	return Numbers(set, t.Units, t.Tick)
}

// ShortLines says where the scores that stop short start and stop, and
// between which marks a ruler lies. The numbers across are counted from the
// edge that is first on the fence, those down from the top edge. What is bent without a
// score is told where other scores run beside it, not across it.
func (t Telling) ShortLines(p *pattern.Pattern, fence Fence, lines []Line) []string {
	var out []string
	across := func(x float64) string {
		if fence == Right {
			x = p.Width.MM() - x
		}
		return t.mm(x)
	}
	scored := slices.ContainsFunc(lines, func(l Line) bool { return l.Hand == Groove || l.Hand == Short || l.Hand == Ruler })
	crossed := slices.ContainsFunc(lines, func(l Line) bool { return l.Hand == Groove && l.Edge != "top" })
	for _, l := range lines {
		switch {
		case l.Hand == Short:
			way := "down"
			if l.Edge == "top" {
				way = "across"
			}
			out = append(out, fmt.Sprintf("%s from the %s edge, from %s to %s %s", t.length(l.At), l.Edge, t.length(l.From), t.length(l.To), way))
		case l.Hand == Ruler && !p.Through(l.segment()):
			a, b := l.Path[0], l.Path[1]
			out = append(out, fmt.Sprintf("by a ruler from %s across and %s down to %s across and %s down",
				across(a.X), t.mm(a.Y), across(b.X), t.mm(b.Y)))
		case l.Hand == Roll && scored && !crossed:
			lo, hi := pattern.Bounds(l.Path.Open())
			if lo.X > Straight || hi.X < p.Width.MM()-Straight {
				continue // bent between other lines, as its folding says
			}
			out = append(out, fmt.Sprintf("no score between %s and %s down: that part is bent without one", t.mm(lo.Y), t.mm(hi.Y)))
		}
	}
	return out
}

// segment is a straight line from its first point to its last.
func (l Line) segment() pattern.Segment {
	return pattern.Segment{A: l.Path[0].Point, B: l.Path[len(l.Path)-1].Point}
}

// FullLines tells the scores by a ruler that run right across a blank, between two grooves
// of the board: where they lie, from the edge that is first on the fence or from the top.
func (t Telling) FullLines(p *pattern.Pattern, fence Fence, lines []Line) []string {
	var from, down []measure.Length
	for _, l := range lines {
		if l.Hand != Ruler || !p.Through(l.segment()) {
			continue
		}
		a, b := l.Path[0], l.Path[1]
		switch at := measure.FromMM(a.X); {
		case math.Abs(a.X-b.X) >= Straight:
			down = append(down, measure.FromMM(a.Y))
		case fence == Right:
			from = append(from, p.Width-at)
		default:
			from = append(from, at)
		}
	}
	var out []string
	for _, x := range []struct {
		edge string
		at   []measure.Length
	}{{string(fence), from}, {"top", down}} {
		if slices.Sort(x.at); len(x.at) > 0 {
			out = append(out, fmt.Sprintf("By a ruler from edge to edge, %s from the %s edge.", t.numbers(x.at), x.edge))
		}
	}
	return out
}

// counted says from where the numbers of lines that stop short are counted.
func counted(fence Fence) string {
	return fmt.Sprintf("across is counted from the %s edge and down from the top edge", fence)
}

func plural(n int) string {
	if n == 1 {
		return ""
	}
	return "s"
}

func capital(s string) string    { return strings.ToUpper(s[:1]) + s[1:] }
func lowerFirst(s string) string { return strings.ToLower(s[:1]) + s[1:] }
