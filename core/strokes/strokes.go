// Package strokes makes of drawn lines what a machine follows: each line once over a whole sheet,
// lines that go straight on as one, nothing along the sheet's own edge, and all of it in the order
// in which it is best done.
//
// Lengths are millimetres, origin a sheet's top left, x to the right and y down.
package strokes

import (
	"math"
	"slices"

	"brevium/core/pattern"
)

// Tool is what follows a line.
type Tool int

// The tools, in the order they work.
const (
	Print Tool = iota
	Score
	Perforate
	Kiss
	Cut
)

// Names are the tools as files and people call them.
var Names = []string{"print", "score", "perforate", "kiss", "cut"}

func (t Tool) String() string { return Names[t] }

// Line is what one tool follows from its first corner to its last, arcs kept; a closed one goes on
// to its first.
type Line struct {
	Tool   Tool
	Path   pattern.Loop
	Closed bool
}

// Tolerance is how near two places count as one, in mm.
const Tolerance = 1e-3

// edge is a straight or an arc between two corners.
type edge struct {
	a, b  pattern.Point
	bulge float64
}

// edges parts a line at its corners.
func (l Line) edges() []edge {
	var out []edge
	for i, v := range l.Path {
		if i+1 == len(l.Path) && !l.Closed {
			break
		}
		to := l.Path[(i+1)%len(l.Path)].Point
		if to.Sub(v.Point).Len() > Tolerance {
			out = append(out, edge{v.Point, to, v.Bulge})
		}
	}
	return out
}

// Flat is the line in straights, arcs in chords; a closed one ends where it began.
func (l Line) Flat() []pattern.Point {
	if !l.Closed {
		return l.Path.Open()
	}
	flat := l.Path.Flat()
	return append(slices.Clone(flat), flat[0])
}

// Once gives the lines of each tool with what is drawn twice drawn once, what goes straight on joined,
// and cuts along the edges of a sheet of width by height left out (with a width of 0 they stay).
func Once(lines []Line, width, height float64) []Line {
	var out []Line
	for tool := Print; tool <= Cut; tool++ {
		var straight, bent []edge
		for _, l := range lines {
			if l.Tool != tool {
				continue
			}
			for _, e := range l.edges() {
				switch {
				case e.bulge != 0:
					bent = append(bent, e)
				case tool != Cut || !along(e, width, height):
					straight = append(straight, e)
				}
			}
		}
		out = append(out, chained(append(joined(straight), distinct(bent)...), tool)...)
	}
	return out
}

// along tells whether a straight lies on an edge of the sheet.
func along(e edge, width, height float64) bool {
	on := func(a, b, at float64) bool { return math.Abs(a-at) < Tolerance && math.Abs(b-at) < Tolerance }
	return width > 0 && (on(e.a.X, e.b.X, 0) || on(e.a.X, e.b.X, width) || on(e.a.Y, e.b.Y, 0) || on(e.a.Y, e.b.Y, height))
}

// distinct leaves out arcs that are there already, from either end.
func distinct(bent []edge) []edge {
	near := func(a, b pattern.Point) bool { return a.Sub(b).Len() < Tolerance }
	var out []edge
	for _, e := range bent {
		same := func(o edge) bool {
			return near(e.a, o.a) && near(e.b, o.b) && math.Abs(e.bulge-o.bulge) < Tolerance ||
				near(e.a, o.b) && near(e.b, o.a) && math.Abs(e.bulge+o.bulge) < Tolerance
		}
		if !slices.ContainsFunc(out, same) {
			out = append(out, e)
		}
	}
	return out
}

// ruler is a straight without ends, and the spans of it that are drawn.
type ruler struct {
	at, way pattern.Point
	spans   [][2]float64
}

// joined makes one of straights that lie on one another or go straight on.
func joined(straight []edge) []edge {
	slices.SortStableFunc(straight, func(a, b edge) int {
		la, lb := a.b.Sub(a.a).Len(), b.b.Sub(b.a).Len()
		switch {
		case la > lb+Tolerance:
			return -1
		case lb > la+Tolerance:
			return 1
		}
		return 0
	})
	var rulers []*ruler
	for _, e := range straight {
		on := func(r *ruler) bool {
			return math.Abs(r.way.Cross(e.a.Sub(r.at))) < Tolerance && math.Abs(r.way.Cross(e.b.Sub(r.at))) < Tolerance
		}
		k := slices.IndexFunc(rulers, on)
		if k < 0 {
			k = len(rulers)
			way := e.b.Sub(e.a)
			rulers = append(rulers, &ruler{at: e.a, way: way.Scale(1 / way.Len())})
		}
		r := rulers[k]
		s, t := r.way.Dot(e.a.Sub(r.at)), r.way.Dot(e.b.Sub(r.at))
		r.spans = append(r.spans, [2]float64{min(s, t), max(s, t)})
	}
	var out []edge
	for _, r := range rulers {
		slices.SortFunc(r.spans, func(a, b [2]float64) int {
			switch {
			case a[0] < b[0]:
				return -1
			case a[0] > b[0]:
				return 1
			}
			return 0
		})
		span := r.spans[0]
		put := func() { out = append(out, edge{r.at.Add(r.way.Scale(span[0])), r.at.Add(r.way.Scale(span[1])), 0}) }
		for _, next := range r.spans[1:] {
			if next[0] <= span[1]+Tolerance {
				span[1] = max(span[1], next[1])
				continue
			}
			put()
			span = next
		}
		put()
	}
	return out
}

// Piece is what should come off a sheet: outside up, arcs in chords.
type Piece struct {
	Name    string
	Copies  int
	Outline []pattern.Point
	Holes   [][]pattern.Point
	Slits   [][]pattern.Point
	Creases []pattern.Segment
}
