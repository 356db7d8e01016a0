// Package dress makes the decorative panels (mats) that go on a box: what
// each face carries, how large each layer is, and how thick the whole is.
package dress

import (
	"math"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// Border is what shows of whatever a layer sits on: Across on its left and
// right, Up above and below it, as the face stands on the finished box.
type Border struct{ Across, Up measure.Length }

// Even is the same border on every side.
func Even(l measure.Length) Border { return Border{l, l} }

// Layer is one panel of a mat: Card is what it is cut from, Border what shows
// around it; below 0 it stands over the edge by so much. Where it has a width or
// a height of its own, along the face and up it, the border there is what is left.
type Layer struct {
	Card          paper.Card
	Border        Border
	Width, Height measure.Length // 0 is by the border
}

// Sized reports whether it has a size of its own, one way at least.
func (l Layer) Sized() bool { return l.Width > 0 || l.Height > 0 }

// MostOver is how far a paper may stand over the edge of what it lies on, to hide the card's
// own edge; what goes further is a covering.
const MostOver = 3 * measure.Millimetre

// Where says which faces of a piece carry a mat, where they are not named.
type Where string

// Walls are the upright faces, Top a lid's or base's panel, Both all of them.
const (
	Walls Where = "walls"
	Top   Where = "top"
	Both  Where = "both"
)

// Places lists the choices in the order they are offered.
var Places = []Where{Walls, Top, Both}

// Side is the side of the card that a mat goes on.
type Side string

// The outside shows when the box is shut; the inside when it is open.
const (
	Outside Side = "outside"
	Inside  Side = "inside"
)

// Dressing is a mat of one to four layers, on some faces of one piece: those
// named, or all that Where says. Joined makes one panel over faces that lie in
// a row.
type Dressing struct {
	ID     int // tells it from the other mats of its box
	Piece  string
	Where  Where
	Faces  []string
	Side   Side // "" is outside
	Joined bool
	Shape  Shape
	Radius measure.Length // of the corners, where they are rounded
	Across bool           // the pattern is turned: its top lies to the right
	Runs   Run            // of the top layer
	Layers []Layer
}

// Backing and Patterned are what a mat's layers are of where nothing is said: card, and
// the paper on it.
var (
	Backing   = paper.Card{Name: "Backing card", GSM: 240, Thickness: 300 * measure.Micrometre}
	Patterned = paper.Card{Name: "Patterned paper", GSM: 120, Thickness: 150 * measure.Micrometre, Direction: paper.OneWayUp}
)

// Shape is what a mat is cut to.
type Shape string

// A mat is cut as a maker does where nothing is said: a rectangle on walls and flaps that are
// nearly one, also where they taper or are rounded, and the face's own shape elsewhere. Or it is a
// rectangle whatever the face; one that goes to the face's edges, its corners rounded by a corner
// rounder; or the face's own shape, cut by template.
const (
	AsMakersDo Shape = ""
	Square     Shape = "rectangle"
	Rounded    Shape = "rounded"
	FaceShaped Shape = "face"
)

// Shapes lists them in the order they are offered.
var Shapes = []Shape{AsMakersDo, Square, Rounded, FaceShaped}

// UsualRadius is what a corner rounder is made for where nothing is said, round in the unit.
func UsualRadius(unit measure.Unit) measure.Length {
	if unit == measure.In {
		return measure.Inch / 4
	}
	return 6 * measure.Millimetre
}

// ParseShape reads what a mat is cut to.
func ParseShape(text string) (Shape, error) {
	if s := Shape(text); slices.Contains(Shapes, s) {
		return s, nil
	}
	return "", fault.New(fault.UnknownShape, "shape", "a paper is cut as a rectangle, one with rounded corners, or as the face")
}

// MostLayers is the deepest mat: twice card, and patterned paper over it.
const MostLayers = 4

// ThickestLayer is the thickest card a mat is made from; foam pads and board
// are not mats.
const ThickestLayer = 2 * measure.Millimetre

// inside reports whether it goes on the inside of the card.
func (d Dressing) inside() bool { return d.Side == Inside }

// Covers reports whether the dressing goes on the face of that name and role.
func (d Dressing) Covers(name string, role pattern.Role) bool {
	if len(d.Faces) > 0 {
		return slices.Contains(d.Faces, name)
	}
	switch d.Where {
	case Walls:
		return role == pattern.Wall
	case Top:
		return role == pattern.Panel
	case Both:
		return role == pattern.Wall || role == pattern.Panel
	}
	return false
}

// Patch is the part of a mat that lies on one face, by its corners on the flat
// piece, in mm.
type Patch struct {
	Face    string
	Corners []pattern.Point
}

// Mat is one panel to cut. Width and Height are how far it reaches along its
// face and up it, so that a one-way pattern stands up. On is where it lies on
// the flat piece; Shape its outline in the face's own frame as one looks at
// the side it is on, along and up from its lower left corner.
type Mat struct {
	ID, Piece, Face string
	Role            pattern.Role // of the face
	Words           string       // what a person calls the face
	Side            Side
	Layer           int // 1 lies on the box, 2 on layer 1
	Width, Height   measure.Length
	// Blank is what it is cut from, on the ruler's marks; where it is not the whole of that,
	// it lies in its upper left corner.
	Blank  struct{ Width, Height measure.Length }
	Card   paper.Card
	Border Border // of this layer on what it sits on
	Sized  bool   // of its own size, and its border what is left
	Narrow bool   // its face is wider, tapered or rounded: it lies in the middle of that
	On     []Patch
	Shape  []pattern.Point
	Radius measure.Length // of its corners, rounded after it is cut; 0 leaves them
	Across bool           // cut with the pattern's top to the right
	Lies   pattern.Frame  // of the mat on the flat piece
	Strip  Strip          // that it is cut from with others; zero is by itself
}

// Over is how far it stands over the edge of what it lies on, 0 for most.
func (m Mat) Over() measure.Length { return max(0, -min(m.Border.Across, m.Border.Up)) }

// Place takes a point of the mat's paper, in mm from the top left corner of what
// it is cut from, or of the first of the strips, to the flat piece.
func (m Mat) Place(x, y float64) pattern.Point {
	if m.Across { // right is up on the paper
		x, y = m.Width.MM()-y, x
	}
	x -= m.Strip.Phase().MM()
	if m.Side == Inside { // seen from the other side
		x = m.Width.MM() - x
	}
	return m.Lies.At(x, m.Height.MM()-y)
}

// insideWords is what the words of a place inside a piece end in.
const insideWords = ", inside"

// FaceWords is the place in a person's words, without the side.
func (m Mat) FaceWords() string { return strings.TrimSuffix(m.Words, insideWords) }

// Outline is the mat's outline on the flat piece, mm.
func (m Mat) Outline() []pattern.Point {
	out := make([]pattern.Point, len(m.Shape))
	for i, q := range m.onBlank() {
		out[i] = m.Place(m.Strip.Phase().MM()+q.X, q.Y)
	}
	return out
}

// Least is the narrowest panel worth cutting.
const Least = 3 * measure.Millimetre

// Thickness is what the dressings add to one side of the faces of a role, the
// thickest of them; marks are the piece's. Where something reaches only so far down from
// the faces' upper edges, what begins further down does not count; reach 0 is all.
func Thickness(all []Dressing, piece string, marks []pattern.Mark, role pattern.Role, side Side, reach measure.Length) measure.Length {
	var most measure.Length
	for _, m := range marks {
		if m.Role != role {
			continue
		}
		var t measure.Length
		for _, d := range all {
			if d.Piece == piece && d.inside() == (side == Inside) && d.Covers(m.Name, m.Role) {
				down := measure.Length(0)
				for _, l := range d.Layers {
					if down += l.Border.Up; reach == 0 || down < reach {
						t += l.Card.Thickness
					}
				}
			}
		}
		most = max(most, t)
	}
	return most
}

// ParseWhere accepts "walls", "top" or "both".
func ParseWhere(s string) (Where, error) {
	if w := Where(s); slices.Contains(Places, w) {
		return w, nil
	}
	return "", fault.New(fault.UnknownPlace, "", "%q is not a place for a paper; use walls, top or both, or name faces", s)
}

// Open lists the faces of a piece that may carry a mat on a side: those that
// are not glued there, and are no part of a rolled bend.
func Open(p *pattern.Pattern, faces []pattern.Face, side Side) []pattern.Face {
	var out []pattern.Face
	for _, f := range faces {
		if f.Name != "" && f.Role != pattern.Bend && !hidden(p, &f, side) {
			out = append(out, f)
		}
	}
	return out
}

// isTab reports whether a face is a tab: glued inside a wall, a lining goes over it.
func isTab(p *pattern.Pattern, face string) bool {
	return slices.ContainsFunc(p.Marks, func(m pattern.Mark) bool { return m.Name == face && m.Role == pattern.Tab })
}

// hidden reports whether a side of a face is glued to something, or for the
// most part covered by something that is glued onto it.
func hidden(p *pattern.Pattern, f *pattern.Face, side Side) bool {
	covered := 0.0
	for _, g := range p.Glue {
		if g.Dry {
			continue
		}
		if g.Face == f.Name && g.Outside == (side != Inside) {
			return true
		}
		if g.Onto == f.Name && g.Piece == "" && g.OntoOutside == (side != Inside) && !(side == Inside && isTab(p, g.Face)) {
			covered += math.Abs(pattern.Area(g.Area))
		}
	}
	return covered > f.Area()*0.55
}
