package draw

import (
	"slices"

	"brevium/core/pattern"
)

// Sketch is a piece in the making that does not fold yet: its faces side by side, to be
// pressed on a page.
type Sketch struct {
	Piece string
	Faces []pattern.Drawn
	Wrong []string // the faces that a fault is at, by their names
	Spots []Spot
}

// Picture draws the faces, those that are wrong outlined, with their names.
func (s Sketch) Picture() *Picture {
	var corners []pattern.Point
	for _, f := range s.Faces {
		corners = append(corners, f.Polygon...)
	}
	lo, hi := pattern.Bounds(corners)
	p := newPicture("The faces side by side, not folded", hi.X-lo.X, hi.Y-lo.Y, 20)
	move := func(q pattern.Point) pattern.Point { return q.Sub(lo) }
	for _, f := range s.Faces {
		var way []pattern.Point
		for _, q := range f.Polygon {
			way = append(way, move(q))
		}
		p.polygon(Card, way...)
		if slices.Contains(s.Wrong, f.Name) {
			p.polygon(Fault, way...)
		}
		least, most := pattern.Bounds(way)
		p.text(TextQuiet, least.Add(most).Scale(0.5), min(numberSize*0.75, (most.X-least.X)/p.U/max(4, 0.6*float64(len(f.Name)))), Middle, f.Name)
		pick := p.polygon(FacePick, way...)
		pick.Key, pick.About = s.Piece+"/"+f.Name, f.Name
	}
	for _, x := range s.Spots {
		x.At = move(x.At)
		p.spot(x)
	}
	return p
}
