// Package loose makes a piece of card that belongs to a box without being of its
// style: a strap, a tag, a stiffener, a label, a pull tab. It is told by its
// blank and the lines on it.
package loose

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

const mm = measure.Millimetre

// Limits of a loose piece.
const (
	Least      = 5 * mm
	Most       = 1500 * mm
	MostCopies = 100
	MostLines  = 60
	mostRunes  = 40
	leastAway  = 2 * mm // of a hole from an edge
)

// Corners of a loose piece.
type Corners string

// The corners are left square, rounded off or cut off slantwise.
const (
	Square  Corners = "square"
	Rounded Corners = "rounded"
	Cut     Corners = "cut"
)

// AllCorners lists them in the order they are offered.
var AllCorners = []Corners{Square, Rounded, Cut}

// Point is a place on the blank, across from its left and down from its top
// edge.
type Point struct{ X, Y measure.Length }

// Line is a straight line that stops short, or slants.
type Line struct{ A, B Point }

// Hole is cut out about its middle: round when it has no Height.
type Hole struct {
	Point
	Width, Height measure.Length
}

// Piece is one kind of loose piece.
type Piece struct {
	ID     int // its own among those of a box
	Name   string
	Width  measure.Length
	Height measure.Length
	Copies int
	// Vertical and Horizontal are scores across the whole blank, from its left
	// and its top edge; Part are others.
	Vertical, Horizontal []measure.Length
	Part, Slits          []Line
	Holes                []Hole
	Corners              Corners
	// Radius is how much of each corner is rounded or cut off.
	Radius measure.Length
	// Card is its own; nil is the box's.
	Card *paper.Card
}

// PieceID is what it is called among the pieces of its box.
func (p Piece) PieceID() string { return fmt.Sprintf("loose-%d", p.ID) }

// Clone is a copy that shares nothing with the original.
func (p Piece) Clone() Piece {
	p.Vertical, p.Horizontal = slices.Clone(p.Vertical), slices.Clone(p.Horizontal)
	p.Part, p.Slits, p.Holes = slices.Clone(p.Part), slices.Clone(p.Slits), slices.Clone(p.Holes)
	if p.Card != nil {
		card := *p.Card
		p.Card = &card
	}
	return p
}

func refuse(field, format string, args ...any) error {
	return fault.New(fault.OutOfRange, field, format, args...)
}

// Check refuses what cannot be cut; show writes a limit.
func (p Piece) Check(show func(measure.Length) string) error {
	name := strings.TrimSpace(p.Name)
	switch {
	case name == "":
		return refuse("name", "give the piece a name, such as strap or tag")
	case len([]rune(name)) > mostRunes:
		return refuse("name", "a name has at most %d letters", mostRunes)
	case p.Copies < 1 || p.Copies > MostCopies:
		return refuse("copies", "make 1 to %d of it for each box", MostCopies)
	case p.Width < Least || p.Width > Most:
		return refuse("width", "it can be %s to %s wide", show(Least), show(Most))
	case p.Height < Least || p.Height > Most:
		return refuse("height", "it can be %s to %s high", show(Least), show(Most))
	case !slices.Contains(AllCorners, p.Corners):
		return refuse("corners", "its corners are square, rounded or cut")
	case p.Corners != Square && (p.Radius < mm || p.Radius > min(p.Width, p.Height)/2):
		return refuse("radius", "its corners can lose %s to %s", show(mm), show(min(p.Width, p.Height)/2))
	case len(p.Vertical)+len(p.Horizontal)+len(p.Part)+len(p.Slits)+len(p.Holes) > MostLines:
		return refuse("scores.vertical", "a piece has at most %d lines and holes", MostLines)
	}
	for _, s := range []struct {
		field, edge string
		at          []measure.Length
		most        measure.Length
	}{{"scores.vertical", "left", p.Vertical, p.Width}, {"scores.horizontal", "top", p.Horizontal, p.Height}} {
		for _, at := range s.at {
			if at < mm || at > s.most-mm {
				return refuse(s.field, "a score lies %s to %s from the %s edge", show(mm), show(s.most-mm), s.edge)
			}
		}
	}
	for _, s := range []struct {
		field string
		lines []Line
	}{{"part_scores", p.Part}, {"slits", p.Slits}} {
		for i, l := range s.lines {
			if l.A == l.B {
				return refuse(s.field, "line %d has two ends that are the same", i+1)
			}
			for _, q := range []Point{l.A, l.B} {
				if q.X < 0 || q.Y < 0 || q.X > p.Width || q.Y > p.Height {
					return refuse(s.field, "line %d ends off the piece, which is %s by %s", i+1, show(p.Width), show(p.Height))
				}
			}
		}
	}
	for i, h := range p.Holes {
		high := h.Height
		if high == 0 {
			high = h.Width
		}
		if h.Width < mm || high < mm {
			return refuse("holes", "hole %d must be at least %s across", i+1, show(mm))
		}
		if h.X-h.Width/2 < leastAway || h.Y-high/2 < leastAway || h.X+h.Width/2 > p.Width-leastAway || h.Y+high/2 > p.Height-leastAway {
			return refuse("holes", "hole %d must lie at least %s from every edge", i+1, show(leastAway))
		}
	}
	if _, err := p.Pattern(); err != nil {
		return err
	}
	return nil
}

// Pattern is the piece as it is cut and scored; every fold is left flat, for it
// is not known where it will go. It fails when lines part it, or make faces too
// narrow to be told apart.
func (p Piece) Pattern() (*pattern.Pattern, error) {
	out := &pattern.Pattern{Width: p.Width, Height: p.Height, Outline: p.outline()}
	w, h := p.Width.MM(), p.Height.MM()
	for _, x := range p.Vertical {
		out.Creases = append(out.Creases, p.fold(pattern.Pt(x.MM(), 0), pattern.Pt(x.MM(), h)))
	}
	for _, y := range p.Horizontal {
		out.Creases = append(out.Creases, p.fold(pattern.Pt(0, y.MM()), pattern.Pt(w, y.MM())))
	}
	out.Scores.Vertical, out.Scores.Horizontal = sorted(p.Vertical), sorted(p.Horizontal)
	for _, l := range p.Part {
		c := p.fold(flat(l.A), flat(l.B))
		out.Creases = append(out.Creases, c)
		out.Scores.Part = append(out.Scores.Part, c.Segment)
	}
	for _, l := range p.Slits {
		out.Slits = append(out.Slits, pattern.Slit{Segment: pattern.Segment{A: flat(l.A), B: flat(l.B)}})
	}
	out.Creases = crossed(out.Creases)
	faces, err := out.Faces()
	if err != nil {
		return nil, refuse("slits", "the lines lie too close to one another: %v", err)
	}
	for i, f := range faces {
		name := fmt.Sprintf("part.%d", i+1)
		words := fmt.Sprintf("part %d", i+1)
		if len(faces) == 1 {
			words = "face"
		}
		out.Marks = append(out.Marks, pattern.Mark{Name: name, Words: words, Role: pattern.Panel, At: f.Inside()})
	}
	for _, hole := range p.Holes {
		loop := p.opening(hole)
		on := slices.IndexFunc(faces, func(f pattern.Face) bool { return pattern.Contains(f.Polygon, flat(hole.Point)) })
		if on < 0 {
			return nil, refuse("holes", "a hole lies on no part of the piece")
		}
		out.Holes = append(out.Holes, loop)
		out.Openings = append(out.Openings, pattern.Opening{Kind: "hole", Face: out.Marks[on].Name, Loop: loop})
	}
	if _, err := out.Fold(out.Marks[0].Name, func(int) float64 { return 0 }); err != nil {
		return nil, refuse("slits", "the slits part it in two, or a hole lies on a line: let them stop short")
	}
	return out, nil
}

func flat(q Point) pattern.Point { return pattern.Pt(q.X.MM(), q.Y.MM()) }

func sorted(all []measure.Length) []measure.Length {
	out := slices.Clone(all)
	slices.Sort(out)
	return slices.Compact(out)
}

func (p Piece) fold(a, b pattern.Point) pattern.Crease {
	return pattern.Crease{Segment: pattern.Segment{A: a, B: b}, Side: pattern.Away}
}

// crossed parts folds where others cross them, so that each lies between two
// faces.
func crossed(all []pattern.Crease) []pattern.Crease {
	var out []pattern.Crease
	for i, c := range all {
		stops := []float64{0, 1}
		d := c.B.Sub(c.A)
		for k, o := range all {
			e := o.B.Sub(o.A)
			if det := d.Cross(e); k != i && math.Abs(det) > 1e-9*d.Len()*e.Len() {
				at, on := o.A.Sub(c.A).Cross(e)/det, o.A.Sub(c.A).Cross(d)/det
				if at > 0 && at < 1 && on >= 0 && on <= 1 {
					stops = append(stops, at)
				}
			}
		}
		slices.Sort(stops)
		for k := 1; k < len(stops); k++ {
			if stops[k]-stops[k-1] > 1e-9 {
				part := c
				part.A, part.B = c.A.Add(d.Scale(stops[k-1])), c.A.Add(d.Scale(stops[k]))
				out = append(out, part)
			}
		}
	}
	return out
}

// outline is the blank's with its corners as chosen.
func (p Piece) outline() pattern.Loop {
	w, h, r := p.Width.MM(), p.Height.MM(), p.Radius.MM()
	if p.Corners == Square {
		return pattern.Straight(pattern.Pt(0, 0), pattern.Pt(w, 0), pattern.Pt(w, h), pattern.Pt(0, h))
	}
	bulge := 0.0
	if p.Corners == Rounded {
		bulge = math.Tan(math.Pi / 8) // of a quarter circle
	}
	var out pattern.Loop
	for _, c := range [4][2]pattern.Point{
		{pattern.Pt(0, r), pattern.Pt(r, 0)}, {pattern.Pt(w-r, 0), pattern.Pt(w, r)},
		{pattern.Pt(w, h-r), pattern.Pt(w-r, h)}, {pattern.Pt(r, h), pattern.Pt(0, h-r)},
	} {
		for i, q := range c {
			v := pattern.Vertex{Point: q}
			if i == 0 {
				v.Bulge = bulge
			}
			if n := len(out); n == 0 || out[n-1].Sub(q).Len() > 1e-9 {
				out = append(out, v)
			}
		}
	}
	return out
}

// opening is a hole's edge.
func (p Piece) opening(h Hole) pattern.Loop {
	at, a, b := flat(h.Point), h.Width.MM()/2, h.Height.MM()/2
	if h.Height == 0 {
		return pattern.Circle(at, a)
	}
	return pattern.Straight(pattern.Pt(at.X-a, at.Y-b), pattern.Pt(at.X+a, at.Y-b), pattern.Pt(at.X+a, at.Y+b), pattern.Pt(at.X-a, at.Y+b))
}
