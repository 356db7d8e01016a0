package recipe

import (
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Fence is the side of the scoring board the card is pushed against.
type Fence string

// Boards have their fence on the left, or some on the right.
const (
	Left  Fence = "left"
	Right Fence = "right"
)

// EachEdge stands for all four edges of a blank, one after the other.
const EachEdge = "each"

// Pass is one placing of the card on the board: which of its edges lies on
// the fence, and the numbers to score, in order; or the numbers that are the
// same from EachEdge.
type Pass struct {
	Edge string
	At   []measure.Length
	Shim measure.Length // held between the fence and the card
}

// Against names the edge that lies on the fence, for a person.
func (p Pass) Against() string {
	if p.Edge == EachEdge {
		return "each of the four edges in turn"
	}
	return p.Edge + " edge"
}

// ScoreList is how one piece is scored and cut: each pass over the board,
// turning the card between, then the lines that stop short, the cuts.
type ScoreList struct {
	Piece, Name string
	Passes      []Pass
	Lines       []Line
	shim        measure.Length
	each        bool // read from each of the four edges in turn
	pattern     *pattern.Pattern
	fence       Fence
}

// Scores gives a piece's score list for a board with its fence on the given
// side. The card lies outside up and right way round for the first pass. It
// is then turned a quarter so that its top edge comes to the fence: against
// the clock for a left fence, with it for a right one, where numbers count
// from the right.
func Scores(p style.Part, fence Fence, tick measure.Tick) ScoreList {
	list := ScoreList{
		Piece:   p.ID,
		Name:    p.Name,
		Lines:   Lines(p.Pattern, fence, tick),
		shim:    p.Shim,
		pattern: p.Pattern,
		fence:   fence,
	}
	each := fromEachEdge(p)
	if same(each) { // nothing to add up, nothing to turn round
		list.Passes, list.each = []Pass{{EachEdge, each[0].At, p.Shim}}, true
		return list
	}
	if p.Shim > 0 {
		list.Passes, list.each = each, true
		return list
	}
	for _, l := range list.Lines {
		if l.Hand != Groove {
			continue
		}
		if n := len(list.Passes); n == 0 || list.Passes[n-1].Edge != l.Edge {
			list.Passes = append(list.Passes, Pass{Edge: l.Edge})
		}
		list.Passes[len(list.Passes)-1].At = append(list.Passes[len(list.Passes)-1].At, l.At)
	}
	// A blank that is larger than the grooves go by, as by an allowance, has
	// its lines on grooves all the same, counted from the nearer edge.
	if !onGrooves(list.Passes, tick) && onGrooves(each, tick) {
		list.Passes, list.each = each, true
	}
	return list
}

// same reports whether the numbers are the same from all four edges.
func same(each []Pass) bool {
	return len(each) == 4 && !slices.ContainsFunc(each, func(p Pass) bool { return !slices.Equal(p.At, each[0].At) })
}

// onGrooves reports whether every number of the passes lies on a groove.
func onGrooves(passes []Pass, tick measure.Tick) bool {
	for _, p := range passes {
		for _, at := range p.At {
			if (at - measure.Nearest(at, tick)).Abs() >= Off {
				return false
			}
		}
	}
	return true
}

// Read is the number that is read off the board for a groove: where all four
// edges go to the fence it is counted from the nearer one, and with a shim off
// the fence.
func (l ScoreList) Read(line Line) measure.Length {
	if !l.each {
		return line.At
	}
	whole := l.pattern.Width
	if line.Edge == "top" {
		whole = l.pattern.Height
	}
	return min(line.At, whole-line.At) + l.shim
}

// OnBoard lists every number that must lie on one of the board's grooves:
// those of the passes and of the lines that stop short.
func (l ScoreList) OnBoard() []measure.Length {
	var out []measure.Length
	for _, p := range l.Passes {
		out = append(out, p.At...)
	}
	for _, x := range l.Lines {
		if x.Hand == Short {
			out = append(out, x.At)
		}
	}
	return out
}

// fromEachEdge scores each wall from its own edge, turning a quarter each
// time. Lines nearer to one edge belong to it.
func fromEachEdge(p style.Part) []Pass {
	edges := []Pass{{Edge: "left"}, {Edge: "top"}, {Edge: "right"}, {Edge: "bottom"}}
	split := func(at []measure.Length, whole measure.Length, near, far *Pass) {
		for _, l := range at {
			if 2*l <= whole {
				near.At = append(near.At, l+p.Shim)
			} else {
				far.At = append([]measure.Length{whole - l + p.Shim}, far.At...)
			}
		}
	}
	split(p.Pattern.Scores.Vertical, p.Pattern.Width, &edges[0], &edges[2])
	split(p.Pattern.Scores.Horizontal, p.Pattern.Height, &edges[1], &edges[3])
	for i := range edges {
		edges[i].Shim = p.Shim
	}
	return slices.DeleteFunc(edges, func(p Pass) bool { return len(p.At) == 0 })
}

// Numbers writes lengths for a sentence: "1 1/2 and 5 1/2 in".
func Numbers(at []measure.Length, unit measure.Unit, tick measure.Tick) string {
	var parts []string
	for _, l := range at {
		parts = append(parts, measure.Number(l, unit, tick))
	}
	last := len(parts) - 1
	if last < 0 {
		return "none"
	}
	text := parts[last]
	if last > 0 {
		text = strings.Join(parts[:last], ", ") + " and " + text
	}
	// A remainder at the end has brought its own unit.
	return text + strings.TrimPrefix(measure.Label(at[last], unit, tick), parts[last])
}
