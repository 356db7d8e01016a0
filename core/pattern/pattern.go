// Package pattern describes a piece as a crease pattern: an outline, creases
// with a final angle and a side, slits, holes and glue. Faces are derived
// from it, and folding walks the faces across the creases.
//
// Conventions: millimetres; origin at the blank's top left, x to the right,
// y down, the outside of the card towards the viewer. In space the pattern
// lies in the plane z = 0 with y upwards, so a pattern point (x, y) is at
// (x, −y, 0) and a face folded away from the viewer goes to negative z.
package pattern

import (
	"math"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Side says which way the card moves when it is folded, as seen by someone
// looking at its outside.
type Side string

// A box folds Away at every edge when its outside faces the viewer.
const (
	Away    Side = "away"
	Towards Side = "towards"
)

// Segment is a straight line between two points.
type Segment struct{ A, B Point }

// Distance is how far a point is from the nearest of the segment, in mm.
func (s Segment) Distance(p Point) float64 { return p.Sub(s.Nearest(p)).Len() }

// Nearest is the place on the segment that is nearest to a point.
func (s Segment) Nearest(p Point) Point {
	d := s.B.Sub(s.A)
	t := 0.0
	if long := d.Dot(d); long > 0 {
		t = max(0, min(1, p.Sub(s.A).Dot(d)/long))
	}
	return s.A.Add(d.Scale(t))
}

// Quartered is a point of a frame, w × h, once the frame is turned so many quarters with the clock and its
// top left lies where it lay.
func Quartered(p Point, quarters int, w, h float64) Point {
	switch quarters {
	case 1:
		return Pt(h-p.Y, p.X)
	case 2:
		return Pt(w-p.X, h-p.Y)
	case 3:
		return Pt(p.Y, w-p.X)
	}
	return p
}

// Covers reports whether another segment lies on this one, nowhere farther
// from it than the tolerance, in mm.
func (s Segment) Covers(o Segment, tolerance float64) bool {
	d := s.B.Sub(s.A)
	for _, q := range []Point{o.A, o.B} {
		along := q.Sub(s.A).Dot(d) / d.Len()
		if math.Abs(q.Sub(s.A).Cross(d))/d.Len() > tolerance || along < -tolerance || along > d.Len()+tolerance {
			return false
		}
	}
	return true
}

// Crease is a fold line that is left after cutting away. Angle is the final
// angle in degrees between the two faces' directions: 0 is flat, 90 a box
// edge, 180 folded onto itself.
type Crease struct {
	Segment
	Angle float64
	Side  Side
	// Rolled is bent over an edge or a pencil, not scored.
	Rolled bool
	// A Hinge is turned back to the angle Opened when the box is open.
	Hinge  bool
	Opened float64
}

// Slit is a cut between two points that takes nothing away, straight or along an
// arc: Bulge is as a Vertex has it.
type Slit struct {
	Segment
	Bulge float64
}

// Path is the slit as an open line.
func (s Slit) Path() Loop { return Loop{{s.A, s.Bulge}, {Point: s.B}} }

// Scores lists the lines scored on the board. Vertical are x positions of
// lines that run the blank's whole height, Horizontal y positions across its
// whole width; lines that stop short are in Part.
type Scores struct {
	Vertical, Horizontal []measure.Length
	Part                 []Segment
}

// Glue is a patch of adhesive: on the named face, over Area, on the outside
// or inside of the card, landing on the named face. Onto's outside is where
// it lands when OntoOutside. A Dry one has no adhesive: the face is tucked or
// lies there.
type Glue struct {
	Face        string
	Outside     bool
	Area        []Point
	Onto        string
	OntoOutside bool
	Dry         bool
	Piece       string // the piece it lands on, when that is another
	// Play is how far, in mm, the face stands from the plane it lands on, by
	// design: other layers fill it, or the card gives.
	Play float64
}

// RolledAlong reports whether a bend that is not scored runs along a line.
func (p *Pattern) RolledAlong(s Segment) bool {
	return slices.ContainsFunc(p.Creases, func(c Crease) bool { return c.Rolled && c.Covers(s, Tolerance) })
}

// Alike reports whether two pieces are cut and folded alike, whatever they are
// glued to.
func (p *Pattern) Alike(q *Pattern) bool {
	return p.Width == q.Width && p.Height == q.Height && slices.Equal(p.Outline, q.Outline) && slices.Equal(p.Creases, q.Creases) &&
		slices.Equal(p.Slits, q.Slits) && slices.Equal(p.Marks, q.Marks) && slices.EqualFunc(p.Holes, q.Holes, func(a, b Loop) bool { return slices.Equal(a, b) })
}

// Opening is a hole, window or notch in the named face. Something that lies
// behind it would show, or be in the way.
type Opening struct {
	Kind string // "hole", "window" or "notch"
	Face string
	Loop Loop
	// Through says that what lies behind it is pierced too, when the piece is made up.
	Through bool
}

// Role is what a face is for.
type Role string

// A panel or wall shows; a lining is a wall's rolled-in second layer; a tab
// is glued out of sight; a flap closes the box.
const (
	Panel  Role = "panel"
	Wall   Role = "wall"
	Lining Role = "lining"
	Tab    Role = "tab"
	Flap   Role = "flap"
	Bend   Role = "bend" // part of a rolled bend
)

// Mark names the face in which At lies: Name is its id, Words what a person
// calls it. Up is the direction, on the flat pattern, that is upwards on the
// finished box (zero for a level panel).
type Mark struct {
	Name  string
	Words string
	Role  Role
	At    Point
	Up    Point
}

// Plain is what a person calls the face: its words, or its id without dots.
func (m Mark) Plain() string { return plain(m.Name, m.Words) }

func plain(name, words string) string {
	if words != "" {
		return words
	}
	return strings.ReplaceAll(name, ".", " ")
}

// Pattern is one piece. Outline is closed without repeating its first point,
// clockwise as seen.
type Pattern struct {
	Width, Height measure.Length
	Outline       Loop
	Creases       []Crease
	Slits         []Slit
	Holes         []Loop
	Openings      []Opening
	Scores        Scores
	Glue          []Glue
	Marks         []Mark

	parted *parted // its faces, once they were asked for; nil where they are not kept
}

// Area is what is left of the blank after cutting away, in mm².
func (p *Pattern) Area() float64 {
	a := math.Abs(Area(p.Outline.Flat()))
	for _, h := range p.Holes {
		a -= math.Abs(Area(h.Flat()))
	}
	return a
}

// Removed is the area cut away from the blank, in mm².
func (p *Pattern) Removed() float64 {
	return p.Width.MM()*p.Height.MM() - p.Area()
}

// Cuts gives the closed lines to be cut, arcs as chords: the outline first.
func (p *Pattern) Cuts() [][]Point {
	out := [][]Point{p.Outline.Flat()}
	for _, h := range p.Holes {
		out = append(out, h.Flat())
	}
	return out
}

// Through reports whether a line runs straight across the blank, from edge to edge.
func (p *Pattern) Through(s Segment) bool {
	wide, high := math.Abs(s.A.X-s.B.X), math.Abs(s.A.Y-s.B.Y)
	upright := wide < Tolerance && math.Abs(high-p.Height.MM()) < Tolerance
	level := high < Tolerance && math.Abs(wide-p.Width.MM()) < Tolerance
	return upright || level
}

// Mark finds a mark by name.
func (p *Pattern) Mark(name string) (Mark, bool) {
	for _, m := range p.Marks {
		if m.Name == name {
			return m, true
		}
	}
	return Mark{}, false
}
