package recipe

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// Hand is what a hand does along a line.
type Hand string

// A Groove line runs over the whole blank on the scoring board; a Short one
// lies on it too and stops; a Ruler line is scored between two marks; a
// Roll is bent and not scored. The rest are cut.
const (
	Groove Hand = "groove"
	Short  Hand = "short"
	Ruler  Hand = "ruler"
	Roll   Hand = "roll"
	Slit   Hand = "slit"
	Trim   Hand = "trim"
	Hole   Hand = "hole"
	Notch  Hand = "notch"
)

// Cuts reports whether scissors, knife or punch do it.
func (h Hand) Cuts() bool { return h == Slit || h == Trim || h == Hole || h == Notch }

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
		out = append(out, Line{Hand: Slit, Path: path(s.A, s.B)})
	}
	out = append(out, trims(p)...)
	for _, hole := range p.Holes {
		out = append(out, Line{Hand: Hole, Path: hole})
	}
	return out
}

func path(points ...pattern.Point) pattern.Loop { return pattern.Straight(points...) }

// holds reports whether a straight line has a fold lying on it.
func (l Line) holds(s pattern.Segment) bool {
	a, b := l.Path[0].Point, l.Path[len(l.Path)-1].Point
	d := b.Sub(a)
	for _, q := range []pattern.Point{s.A, s.B} {
		along := q.Sub(a).Dot(d) / d.Len()
		if math.Abs(q.Sub(a).Cross(d))/d.Len() > Straight || along < -Straight || along > d.Len()+Straight {
			return false
		}
	}
	return true
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

// Telling is how lengths are told: in a unit, on a tick.
type Telling struct {
	Units measure.Unit
	Tick  measure.Tick
}

// mark tells where a mark is made with a ruler: on its finest tick.
func (t Telling) mark(mm float64) string {
	ruler := t.Units.Ruler()
	return measure.Label(measure.Nearest(measure.FromMM(mm), ruler), t.Units, ruler)
}

func (t Telling) length(l measure.Length) string { return measure.Label(l, t.Units, t.Tick) }

// ShortLines says where the scores that stop short start and stop, and
// between which marks a ruler lies.
func (t Telling) ShortLines(lines []Line) []string {
	var out []string
	for _, l := range lines {
		switch l.Hand {
		case Short:
			way, first := "down", "the top edge"
			if l.Edge == "top" {
				way, first = "across", "the edge that was first on the fence"
			}
			out = append(
				out,
				fmt.Sprintf(
					"%s from the %s edge, from %s to %s %s, counted from %s",
					t.length(l.At),
					l.Edge,
					t.length(l.From),
					t.length(l.To),
					way,
					first,
				),
			)
		case Ruler:
			a, b := l.Path[0], l.Path[1]
			out = append(
				out,
				fmt.Sprintf(
					"by a ruler from a mark %s across and %s down to one %s across and %s down",
					t.mark(a.X),
					t.mark(a.Y),
					t.mark(b.X),
					t.mark(b.Y),
				),
			)
		case Roll:
			lo, hi := pattern.Bounds(l.Path.Open())
			out = append(out, fmt.Sprintf("no score between %s and %s down: that part is rolled", t.mark(lo.Y), t.mark(hi.Y)))
		}
	}
	return out
}

// Snip is lines that are cut alike, told in one sentence.
type Snip struct {
	Hand  Hand
	Lines []Line
	Text  string
}

// Cuts tells every cut of a piece. Cuts that are the same from different
// corners of the blank are one sentence; in it the first number of a pair is
// counted from the blank's left or right edge, whichever the corner is at, and
// the second from its top or bottom edge.
func (t Telling) Cuts(p *pattern.Pattern, lines []Line) []Snip {
	var out []Snip
	keys := map[string]int{}
	corners := map[int][]string{}
	for _, l := range lines {
		if !l.Hand.Cuts() {
			continue
		}
		corner, key := t.fromCorner(p, l)
		i, alike := keys[key]
		if !alike {
			i = len(out)
			keys[key] = i
			out = append(out, Snip{Hand: l.Hand, Text: key})
		}
		out[i].Lines = append(out[i].Lines, l)
		corners[i] = append(corners[i], corner)
	}
	for i := range out {
		out[i].Text = fmt.Sprintf("%s %s", at(corners[i]), out[i].Text)
	}
	return out
}

// at names the corners that a cut is made from.
func at(corners []string) string {
	names := slices.Clone(corners)
	slices.Sort(names)
	each := ""
	if n := len(names); n > len(slices.Compact(slices.Clone(names))) && n > 1 {
		each = fmt.Sprintf(" (%d cuts)", n)
	}
	names = slices.Compact(names)
	if len(names) == 4 {
		return "From all four corners" + each
	}
	return "From the " + strings.Join(names, " and the ") + " corner" + each
}

// fromCorner tells a cut as it is measured from the nearest corner.
func (t Telling) fromCorner(p *pattern.Pattern, l Line) (corner, text string) {
	w, h := p.Width.MM(), p.Height.MM()
	points := l.Path
	lo, hi := pattern.Bounds(l.Points())
	mid := lo.Add(hi).Scale(0.5)
	right, bottom := mid.X > w/2+Straight, mid.Y > h/2+Straight
	corner = "upper left"
	switch {
	case right && bottom:
		corner = "lower right"
	case right:
		corner = "upper right"
	case bottom:
		corner = "lower left"
	}
	in := func(q pattern.Point) pattern.Point {
		if right {
			q.X = w - q.X
		}
		if bottom {
			q.Y = h - q.Y
		}
		return q
	}
	pair := func(q pattern.Point) string { q = in(q); return t.mark(q.X) + " across and " + t.mark(q.Y) + " down" }
	switch l.Hand {
	case Hole:
		if len(points) == 2 { // two half circles
			return corner, fmt.Sprintf("cut a round hole %s wide, its middle at %s.", t.mark(hi.X-lo.X), pair(mid))
		}
		return corner, fmt.Sprintf("cut a hole %s wide and %s high, its middle at %s.", t.mark(hi.X-lo.X), t.mark(hi.Y-lo.Y), pair(mid))
	case Notch:
		a, b := points[0].Point, points[1].Point
		return corner, fmt.Sprintf("punch a half circle %s wide, its middle at %s.", t.mark(b.Sub(a).Len()), pair(a.Add(b).Scale(0.5)))
	}
	// Always told from the end nearer to the corner's upright edge.
	path := slices.Clone(points)
	if first, last := in(
		path[0].Point,
	), in(
		path[len(path)-1].Point,
	); last.X < first.X-Straight ||
		last.X < first.X+Straight && last.Y < first.Y {
		path = reversed(path)
	}
	verb := "cut from "
	if l.Hand == Slit {
		verb = "slit from "
	}
	text = verb + pair(path[0].Point)
	for i, v := range path[1:] {
		text += ", "
		if path[i].Bulge != 0 {
			text += "in a round "
		}
		text += "to " + pair(v.Point)
	}
	return corner, text + "."
}

// reversed is an open path run the other way.
func reversed(path pattern.Loop) pattern.Loop {
	out := make(pattern.Loop, len(path))
	for i, v := range path {
		out[len(path)-1-i] = pattern.Vertex{Point: v.Point}
	}
	for i := range len(path) - 1 {
		out[len(path)-2-i].Bulge = -path[i].Bulge
	}
	return out
}
