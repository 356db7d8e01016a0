// Package dress makes the decorative panels (mats) that go on a box: what
// each face carries, how large each layer is, and how thick the whole is.
package dress

import (
	"fmt"
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// Layer is one panel of a mat: Card is what it is cut from, Border what
// shows of whatever it sits on, on every side.
type Layer struct {
	Card   paper.Card
	Border measure.Length
}

// Where says which faces of a piece carry a mat.
type Where string

// Walls are the upright faces, Top a lid's or base's panel, Both all of them.
const (
	Walls Where = "walls"
	Top   Where = "top"
	Both  Where = "both"
)

// Places lists the choices in the order they are offered.
var Places = []Where{Walls, Top, Both}

// Dressing is a mat of one or two layers, on some faces of one piece.
type Dressing struct {
	Piece  string
	Where  Where
	Layers []Layer
}

// MostLayers is the deepest mat: card, and patterned paper over it.
const MostLayers = 2

// ThickestLayer is the thickest card a mat is made from; foam pads and board
// are not mats.
const ThickestLayer = 2 * measure.Millimetre

// Covers reports whether the dressing goes on the face.
func (d Dressing) Covers(role pattern.Role) bool {
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

// Mat is one panel to cut. Width and Height are how far it reaches along its
// face and up it, so that a one-way pattern stands up. Corners is where it
// lies on the flat piece, in mm; Shape the same in the face's own frame, along
// and up from its lower left corner.
type Mat struct {
	ID, Piece, Face string
	Words           string // what a person calls the face
	Layer           int    // 1 lies on the box, 2 on layer 1
	Width, Height   measure.Length
	Card            paper.Card
	Corners, Shape  []pattern.Point
}

// Least is the narrowest panel worth cutting.
const Least = 3 * measure.Millimetre

// Mats gives the panels a dressing puts on a piece whose faces are given: each
// in the face's own shape, inset by its borders. It refuses borders that leave
// a face bare.
func (d Dressing) Mats(faces []pattern.Face) ([]Mat, error) {
	var mats []Mat
	for i := range faces {
		f := &faces[i]
		if !d.Covers(f.Role) {
			continue
		}
		frame := f.Frame()
		border := measure.Length(0)
		for n, layer := range d.Layers {
			border += layer.Border
			m := Mat{
				ID:    fmt.Sprintf("%s.%s.%d", d.Piece, f.Name, n+1),
				Piece: d.Piece, Face: f.Name, Words: f.Plain(), Layer: n + 1, Card: layer.Card,
				Corners: pattern.Inset(f.Polygon, func(pattern.Point) float64 { return border.MM() }),
			}
			along, up := frame.Size(m.Corners)
			m.Width, m.Height = measure.FromMM(along), measure.FromMM(up)
			if len(m.Corners) == 0 || min(m.Width, m.Height) < Least {
				return nil, fault.New(fault.BorderTooWide, fault.Path("layers", n, "border"),
					"borders this wide leave no mat on the %s; make them narrower", f.Plain())
			}
			own := pattern.Face{Polygon: m.Corners, Up: frame.Up}.Frame()
			for _, q := range m.Corners {
				m.Shape = append(m.Shape, own.In(q))
			}
			mats = append(mats, m)
		}
	}
	return mats, nil
}

// Thickness is what the dressings add to the outside of one face.
func Thickness(all []Dressing, piece string, role pattern.Role) measure.Length {
	var t measure.Length
	for _, d := range all {
		if d.Piece == piece && d.Covers(role) {
			for _, l := range d.Layers {
				t += l.Card.Thickness
			}
		}
	}
	return t
}

// ParseWhere accepts "walls", "top" or "both".
func ParseWhere(s string) (Where, error) {
	if w := Where(s); slices.Contains(Places, w) {
		return w, nil
	}
	return "", fault.New(fault.UnknownPlace, "", "%q is not a place for a mat; use walls, top or both", s)
}
