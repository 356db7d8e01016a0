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

// Mat is one panel to cut. Height is along the face's upward direction, so
// that a one-way pattern stands up. Corners is where it lies on the flat
// piece, in mm.
type Mat struct {
	ID, Piece, Face string
	Layer           int // 1 lies on the box, 2 on layer 1
	Width, Height   measure.Length
	Card            paper.Card
	Corners         []pattern.Point
}

// Least is the narrowest panel worth cutting.
const Least = 3 * measure.Millimetre

// Mats gives the panels a dressing puts on a piece whose faces are given.
// It refuses borders that leave a face bare.
func (d Dressing) Mats(faces []pattern.Face) ([]Mat, error) {
	var mats []Mat
	for i := range faces {
		f := &faces[i]
		if !d.Covers(f.Role) {
			continue
		}
		lo, hi := pattern.Bounds(f.Polygon)
		border := measure.Length(0)
		for n, layer := range d.Layers {
			border += layer.Border
			w := measure.FromMM(hi.X-lo.X) - 2*border
			h := measure.FromMM(hi.Y-lo.Y) - 2*border
			if min(w, h) < Least {
				return nil, fault.New("border-too-wide", fmt.Sprintf("layers.%d.border", n+1),
					"borders this wide leave no mat on the %s; make them narrower", f.Name)
			}
			in := pattern.Pt(border.MM(), border.MM())
			a, b := lo.Add(in), hi.Sub(in)
			m := Mat{
				ID:    fmt.Sprintf("%s.%s.%d", d.Piece, f.Name, n+1),
				Piece: d.Piece, Face: f.Name, Layer: n + 1, Width: w, Height: h, Card: layer.Card,
				Corners: []pattern.Point{a, {X: b.X, Y: a.Y}, b, {X: a.X, Y: b.Y}},
			}
			if f.Up.X != 0 {
				m.Width, m.Height = h, w
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
	return "", fault.New("unknown-place", "", "%q is not a place for a mat; use walls, top or both", s)
}
