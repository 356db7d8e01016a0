package pattern

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// Tall is how far the face reaches upwards on the finished box, and Wide how far across that, in
// mm. A face that does not say which way is up is as tall as it is narrow.
func (f *Face) Tall() (tall, wide float64) {
	if f.Up == (Point{}) {
		narrow, long := Narrowest(f.Polygon)
		return narrow, long
	}
	up := f.Up.Scale(1 / f.Up.Len())
	across := Pt(-up.Y, up.X)
	reach := func(d Point) float64 {
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, q := range f.Polygon {
			lo, hi = min(lo, q.Dot(d)), max(hi, q.Dot(d))
		}
		return hi - lo
	}
	return reach(up), reach(across)
}

// FreeRim reports whether the face ends upwards, or downwards, in an edge that is not folded to
// anything: such as a wall's rim.
func (f *Face) FreeRim() bool {
	if f.Up == (Point{}) {
		return false
	}
	up := f.Up.Scale(1 / f.Up.Len())
	for _, d := range []Point{up, up.Scale(-1)} {
		most := math.Inf(-1)
		for _, q := range f.Polygon {
			most = max(most, q.Dot(d))
		}
		free := true
		for e, q := range f.Polygon {
			r := f.Polygon[(e+1)%len(f.Polygon)]
			if q.Dot(d) > most-1 && r.Dot(d) > most-1 && f.edges[e].neighbour >= 0 && f.edges[e].crease >= 0 {
				free = false
			}
		}
		if free {
			return true
		}
	}
	return false
}

// gathers is how far apart, in mm, the planes of faces lie that are stuck together by design.
const gathers = 2

// Thickest is the most layers of card that lie in one place of the finished piece where something
// is glued or tucked, and the name of a face there. It is looked for at the middle of each glued
// patch, through all that lies on it.
func (f *Folded) Thickest(p *Pattern) (layers int, face string) {
	layers = 1
	for _, g := range p.Glue {
		pose, from, i := f.Face(g.Face)
		if i < 0 || g.Piece != "" || len(g.Area) == 0 {
			continue
		}
		at := pose.Place(middle(g.Area))
		n := 0
		for j := range f.Faces {
			on, off := f.Poses[j].pull(at)
			level := math.Abs(r3.Dot(f.Poses[j].Normal(), pose.Normal())) > 0.99
			if level && math.Abs(off) <= gathers && f.Faces[j].contains(on) {
				n++
			}
		}
		if n > layers {
			layers, face = n, from.Plain()
		}
	}
	return layers, face
}

// middle is the mean of a polygon's corners.
func middle(area []Point) Point {
	sum := Point{}
	for _, q := range area {
		sum = sum.Add(q)
	}
	return sum.Scale(1 / float64(len(area)))
}
