package pattern

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// Frame is a face's own directions on the flat card: Up points upwards on the
// finished box, Along to the right of it for someone who looks at the face's
// outside, and Origin is the face's lower left corner in them. Sizes, mats,
// labels and tape are told in it.
type Frame struct{ Origin, Along, Up Point }

// Frame gives the face's frame. A level face, which has no up, takes the
// card's own, as it is drawn.
func (f Face) Frame() Frame {
	up := f.Up
	if up == (Point{}) {
		up = Point{0, -1}
	}
	fr := Frame{Along: Point{-up.Y, up.X}, Up: up}
	lo, _ := fr.span(f.Polygon)
	fr.Origin = fr.Along.Scale(lo.X).Add(fr.Up.Scale(lo.Y))
	return fr
}

// In gives a point's place in the frame: along and up from its origin, mm.
func (fr Frame) In(p Point) Point {
	d := p.Sub(fr.Origin)
	return Point{d.Dot(fr.Along), d.Dot(fr.Up)}
}

// At gives the point of the flat card that is so far along and up.
func (fr Frame) At(along, up float64) Point {
	return fr.Origin.Add(fr.Along.Scale(along)).Add(fr.Up.Scale(up))
}

func (fr Frame) span(points []Point) (least, most Point) {
	least, most = Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, p := range points {
		q := Point{p.Dot(fr.Along), p.Dot(fr.Up)}
		least = Point{min(least.X, q.X), min(least.Y, q.Y)}
		most = Point{max(most.X, q.X), max(most.Y, q.Y)}
	}
	return least, most
}

// Size is how far points reach along and up, in mm.
func (fr Frame) Size(points []Point) (along, up float64) {
	least, most := fr.span(points)
	return most.X - least.X, most.Y - least.Y
}

// Narrowest is the least width of a polygon, in mm, and the length across it:
// measured square to each of its edges in turn.
func Narrowest(polygon []Point) (width, length float64) {
	width = math.Inf(1)
	for i, a := range polygon {
		d := polygon[(i+1)%len(polygon)].Sub(a)
		if d.Len() < Tolerance {
			continue
		}
		u := d.Scale(1 / d.Len())
		l, w := Frame{Along: u, Up: Point{u.Y, -u.X}}.Size(polygon)
		if w < width {
			width, length = w, l
		}
	}
	return width, length
}

// Space gives the frame in a pose: along, up, and outward, the direction that
// the face's outside looks in.
func (fr Frame) Space(p Pose) (along, up, outward r3.Vec) {
	return p.Turn.Rotate(lift(fr.Along)), p.Turn.Rotate(lift(fr.Up)), p.Normal()
}
