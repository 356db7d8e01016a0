package hand

import (
	"cmp"
	"slices"

	"brevium/core/pattern"
)

// Look is a card as it lies before the hand, outside up, in mm from its top left corner: what a
// picture of it shows. It is the zero Look before the blank is cut.
type Look struct {
	Width, Height float64
	// Parts hang on the card, and Off have fallen from it.
	Parts, Off [][]pattern.Point
	// Edges are where the card ends: its own edges and those of what has fallen off.
	Edges               []pattern.Segment
	Scores, Cuts, Marks []pattern.Segment
	// Creases are the scores as far as card hangs on both their sides.
	Creases []pattern.Segment
	Dots    []pattern.Point // that were marked
	Calls   []Call          // what parts are called
	Bites   []pattern.Loop  // notches and holes
	Tapes   [][]pattern.Point
	// Traced is the template that it was drawn round, and Round that it is cut so.
	Traced *pattern.Pattern
	Round  bool
	Folded bool
	// Over are the scores that were folded right over, and Towards those folded towards the hand.
	Over    []pattern.Segment
	Towards []pattern.Segment
	Bonds   []Bond
	Papers  []Laid
	Through []pattern.Loop // openings that papers were cut out along
	Panes   []pattern.Loop // openings with film behind them
}

// Look is how a piece lies there.
func (t *Table) Look(piece string) Look {
	c, there := t.Card(piece)
	if !there {
		return Look{}
	}
	l := Look{
		Width: c.Width.MM(), Height: c.Height.MM(), Scores: slices.Clone(c.scores), Cuts: slices.Clone(c.cuts), Marks: slices.Clone(c.marks), Bites: slices.Clone(c.bites),
		Traced: c.traced, Round: c.round, Folded: c.folded, Over: slices.Clone(c.flat), Bonds: slices.Clone(c.stuck), Papers: slices.Clone(c.papers),
		Towards: slices.Clone(c.towards), Dots: slices.Clone(c.dots), Panes: slices.Clone(c.panes), Calls: append(c.called(), c.calls...),
	}
	for _, x := range c.tapes {
		l.Tapes = append(l.Tapes, x.ring)
	}
	for _, x := range c.through {
		l.Through = append(l.Through, x.at)
	}
	for i, x := range c.cells {
		if x.off {
			l.Off = append(l.Off, x.ring)
			continue
		}
		l.Parts = append(l.Parts, x.ring)
		l.Edges = append(l.Edges, c.ends(i)...)
		for _, b := range c.borders(i) {
			if b.other > i && !b.cut && c.isScored(b.Segment) {
				l.Creases = append(l.Creases, b.Segment)
			}
		}
	}
	if c.traced != nil { // what was drawn round a template is not parted by its scores
		l.Creases = slices.Clone(c.scores)
	}
	return l
}

// called are the names of its rows or columns, each in the middle of its own.
func (c *Card) called() []Call {
	var out []Call
	across, down := c.Grid()
	for i, name := range c.names.Words {
		q := pattern.Pt(c.Width.MM()/2, 0)
		if c.names.Across {
			q = pattern.Pt((across[i]+across[i+1])/2, c.Height.MM()/2)
		} else {
			q.Y = (down[i] + down[i+1]) / 2
		}
		out = append(out, Call{name, q})
	}
	return out
}

// ends are the stretches of a cell's edge beyond which there is no card.
func (c *Card) ends(i int) []pattern.Segment {
	var out []pattern.Segment
	ring := c.cells[i].ring
	for k, a := range ring {
		edge := pattern.Segment{A: a, B: ring[(k+1)%len(ring)]}
		length := edge.B.Sub(edge.A).Len()
		if length < Close {
			continue
		}
		d := edge.B.Sub(edge.A).Scale(1 / length)
		type span struct{ from, to float64 }
		var held []span
		for j, x := range c.cells {
			if j == i || x.off {
				continue
			}
			for n, p := range x.ring {
				q := x.ring[(n+1)%len(x.ring)]
				if q.Sub(p).Len() < Close {
					continue
				}
				if s, ok := common(edge, pattern.Segment{A: p, B: q}); ok {
					held = append(held, span{s.A.Sub(a).Dot(d), s.B.Sub(a).Dot(d)})
				}
			}
		}
		slices.SortFunc(held, func(x, y span) int { return cmp.Compare(x.from, y.from) })
		at := 0.0
		for _, s := range append(held, span{length, length}) {
			if s.from > at+Close {
				out = append(out, pattern.Segment{A: a.Add(d.Scale(at)), B: a.Add(d.Scale(s.from))})
			}
			at = max(at, s.to)
		}
	}
	return out
}

// Since is what is there and was not at an earlier look: what the moves between have done. Of
// what has fallen it has the rings that fell, and no parts and edges.
func (l Look) Since(was Look) Look {
	out := Look{
		Scores: tail(l.Scores, was.Scores), Cuts: tail(l.Cuts, was.Cuts), Marks: tail(l.Marks, was.Marks), Bites: tail(l.Bites, was.Bites), Tapes: tail(l.Tapes, was.Tapes), Over: tail(l.Over, was.Over),
		Towards: tail(l.Towards, was.Towards), Dots: tail(l.Dots, was.Dots),
		Bonds: tail(l.Bonds, was.Bonds), Papers: tail(l.Papers, was.Papers), Through: tail(l.Through, was.Through), Panes: tail(l.Panes, was.Panes),
		Round: l.Round && !was.Round, Folded: l.Folded && !was.Folded,
	}
	if was.Width == 0 {
		out.Width, out.Height = l.Width, l.Height
	}
	if was.Traced == nil {
		out.Traced = l.Traced
	}
	for _, call := range l.Calls {
		if !slices.Contains(was.Calls, call) {
			out.Calls = append(out.Calls, call)
		}
	}
	for _, ring := range l.Off {
		if !slices.ContainsFunc(was.Off, func(o []pattern.Point) bool { return slices.Equal(o, ring) }) {
			out.Off = append(out.Off, ring)
		}
	}
	return out
}

// tail is what came to a list that only grows.
func tail[T any](now, was []T) []T { return now[min(len(was), len(now)):] }

// Part is the part of the card in which a point lies, nil for none.
func (l Look) Part(p pattern.Point) []pattern.Point {
	for _, ring := range l.Parts {
		if pattern.Contains(ring, p) {
			return ring
		}
	}
	return nil
}
