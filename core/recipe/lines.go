package recipe

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// Hand is what a hand does along a line.
type Hand string

// A Groove line runs over the whole blank on the scoring board; a Short one
// lies on it too and stops; a Ruler line is scored between two marks; a
// Roll is bent and not scored. The rest are cut: a Slit parts card that stays,
// a Trim cuts card off, a Slot is a narrow cut-out from an edge.
const (
	Groove Hand = "groove"
	Short  Hand = "short"
	Ruler  Hand = "ruler"
	Roll   Hand = "roll"
	Slit   Hand = "slit"
	Trim   Hand = "trim"
	Hole   Hand = "hole"
	Notch  Hand = "notch"
	Slot   Hand = "slot"
)

// Cuts reports whether scissors, knife or punch do it.
func (h Hand) Cuts() bool { return h == Slit || h == Trim || h == Hole || h == Notch || h == Slot }

// Line is one line of a flat piece, told once: the board, the net, the steps,
// the check of grooves and the print all read it from here.
type Line struct {
	Hand Hand
	// Edge is the edge of the blank that a groove's or short line's number
	// counts from, At that number, and From and To where a short one starts
	// and stops, counted from the top edge for an upright line and from the
	// fence's edge for a level one.
	Edge         string
	At, From, To measure.Length
	// Path is where it runs on the blank, mm; an arc keeps its bulge.
	Path pattern.Loop
	// Creases are the folds that lie on it, by their place in the pattern.
	Creases []int
}

// Straight is how far off straight or level, in mm, a line may be and still
// count as that: a thousandth, below what any hand sees and far above what
// arithmetic loses.
const Straight = 1e-3

// Off is how far from a groove a line lies between two of them.
const Off = measure.Millimetre / 20

// Lines tells every line of a flat piece, each once: grooves by number from
// the fence's edge, then from the top; lines that stop short; lines by a
// ruler, which slant or lie between two grooves of a board of the tick (0: any);
// rolled bends; slits, cuts along the outline, holes and notches.
func Lines(p *pattern.Pattern, fence Fence, tick measure.Tick) []Line {
	var out []Line
	w, h := p.Width.MM(), p.Height.MM()
	edge := "left"
	if fence == Right {
		edge = "right"
	}
	fromFence := func(x measure.Length) measure.Length {
		if fence == Right {
			return p.Width - x
		}
		return x
	}
	for _, x := range p.Scores.Vertical {
		out = append(out, Line{Hand: Groove, Edge: edge, At: fromFence(x), Path: path(pattern.Pt(x.MM(), 0), pattern.Pt(x.MM(), h))})
	}
	slices.SortFunc(out, func(a, b Line) int { return cmp.Compare(a.At, b.At) })
	for _, y := range p.Scores.Horizontal {
		out = append(out, Line{Hand: Groove, Edge: "top", At: y, Path: path(pattern.Pt(0, y.MM()), pattern.Pt(w, y.MM()))})
	}
	for _, s := range p.Scores.Part {
		l := Line{Hand: Ruler, Path: path(s.A, s.B)}
		switch {
		case math.Abs(s.A.X-s.B.X) < Straight:
			l.Hand, l.Edge, l.At = Short, edge, fromFence(measure.FromMM(s.A.X))
			l.From, l.To = measure.FromMM(min(s.A.Y, s.B.Y)), measure.FromMM(max(s.A.Y, s.B.Y))
		case math.Abs(s.A.Y-s.B.Y) < Straight:
			a, b := fromFence(measure.FromMM(s.A.X)), fromFence(measure.FromMM(s.B.X))
			l.Hand, l.Edge, l.At, l.From, l.To = Short, "top", measure.FromMM(s.A.Y), min(a, b), max(a, b)
		}
		if l.Hand == Short && tick > 0 && (l.At-measure.Nearest(l.At, tick)).Abs() >= Off {
			l = Line{Hand: Ruler, Path: l.Path}
		}
		out = append(out, l)
	}
	var roll Line
	for i, c := range p.Creases {
		if c.Rolled {
			roll.Hand = Roll
			roll.Creases = append(roll.Creases, i)
			roll.Path = append(roll.Path, path(c.A, c.B)...)
			continue
		}
		for k := range out {
			if out[k].holds(c.Segment) {
				out[k].Creases = append(out[k].Creases, i)
				break
			}
		}
	}
	if roll.Hand != "" {
		out = append(out, roll)
	}
	for _, s := range p.Slits {
		out = append(out, Line{Hand: Slit, Path: s.Path()})
	}
	out = append(out, trims(p)...)
	for _, hole := range p.Holes {
		out = append(out, Line{Hand: Hole, Path: hole})
	}
	return out
}

// Along reports whether a cut runs along a part of this line.
func (l Line) Along(cut Line) bool {
	points := l.Points()
	for i := 1; i < len(points); i++ {
		s := pattern.Segment{A: points[i-1], B: points[i]}
		if s.B.Sub(s.A).Len() > Straight && (cut.segment().Covers(s, 0.02) || s.Covers(cut.segment(), 0.02)) {
			return true
		}
	}
	return false
}

func path(points ...pattern.Point) pattern.Loop { return pattern.Straight(points...) }

// holds reports whether a straight line has a fold lying on it.
func (l Line) holds(s pattern.Segment) bool {
	return l.segment().Covers(s, Straight)
}

// trims follows the outline and gives each stretch of it that is not the
// blank's own edge; a notch punched into it is one of its own.
func trims(p *pattern.Pattern) []Line {
	n := len(p.Outline)
	w, h := p.Width.MM(), p.Height.MM()
	onEdge := func(i int) bool {
		a, b := p.Outline[i], p.Outline[(i+1)%n]
		if a.Bulge != 0 {
			return false
		}
		near := func(x, y, at float64) bool { return math.Abs(x-at) < Straight && math.Abs(y-at) < Straight }
		return near(a.X, b.X, 0) || near(a.X, b.X, w) || near(a.Y, b.Y, 0) || near(a.Y, b.Y, h)
	}
	isNotch := func(i int) bool {
		return slices.ContainsFunc(p.Openings, func(o pattern.Opening) bool {
			return o.Kind == "notch" && len(o.Loop) > 0 && o.Loop[0].Sub(p.Outline[i].Point).Len() < Straight && p.Outline[i].Bulge != 0
		})
	}
	touches := func(q pattern.Point) bool { return min(q.X, w-q.X, q.Y, h-q.Y) < Straight }
	start := 0 // where a stretch may begin
	for i := range n {
		if onEdge((i+n-1)%n) || isNotch((i+n-1)%n) {
			start = i
			break
		}
	}
	var out []Line
	var run pattern.Loop
	end := func(at pattern.Vertex) {
		if len(run) > 0 {
			out = append(out, Line{Hand: Trim, Path: append(run, pattern.Vertex{Point: at.Point})})
		}
		run = nil
	}
	for k := range n {
		i := (start + k) % n
		switch {
		case onEdge(i):
			end(p.Outline[i])
		case isNotch(i):
			end(p.Outline[i])
			out = append(out, Line{Hand: Notch, Path: pattern.Loop{p.Outline[i], {Point: p.Outline[(i+1)%n].Point}}})
		default:
			if len(run) > 0 && touches(p.Outline[i].Point) { // what is cut off parts there
				end(p.Outline[i])
			}
			run = append(run, p.Outline[i])
		}
	}
	end(p.Outline[start])
	return out
}

// Points gives a line's path with its arcs as chords; a hole is closed.
func (l Line) Points() []pattern.Point {
	if l.Hand == Hole {
		flat := l.Path.Flat()
		return append(flat, flat[0])
	}
	return l.Path.Open()
}
