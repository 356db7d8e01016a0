package pattern

import (
	"math"
	"slices"
)

// Point is a place on the flat card, in mm; see the package for the frame.
type Point struct{ X, Y float64 }

// Pt is shorthand for a Point.
func Pt(x, y float64) Point { return Point{x, y} }

// Add is the sum of two vectors.
func (p Point) Add(q Point) Point { return Point{p.X + q.X, p.Y + q.Y} }

// Sub is the vector from q to p.
func (p Point) Sub(q Point) Point { return Point{p.X - q.X, p.Y - q.Y} }

// Scale is p times k.
func (p Point) Scale(k float64) Point { return Point{p.X * k, p.Y * k} }

// Cross is the z part of the cross product; positive when q is clockwise of
// p as seen (y points down).
func (p Point) Cross(q Point) float64 { return p.X*q.Y - p.Y*q.X }

// Dot is the scalar product.
func (p Point) Dot(q Point) float64 { return p.X*q.X + p.Y*q.Y }

// Len is the vector's length in mm.
func (p Point) Len() float64 { return math.Hypot(p.X, p.Y) }

// Area is the signed area of a closed polygon in mm²: positive when its
// points run clockwise as seen.
func Area(polygon []Point) float64 {
	sum := 0.0
	for i, p := range polygon {
		sum += p.Cross(polygon[(i+1)%len(polygon)])
	}
	return sum / 2
}

// Clockwise is a polygon the way round that goes with the clock as seen, y down.
func Clockwise(polygon []Point) []Point {
	sum := 0.0
	for i, a := range polygon {
		sum += a.Cross(polygon[(i+1)%len(polygon)])
	}
	if sum < 0 {
		polygon = slices.Clone(polygon)
		slices.Reverse(polygon)
	}
	return polygon
}

// Contains reports whether at lies inside the polygon, by the even-odd rule;
// a point on the edge may go either way.
func Contains(polygon []Point, at Point) bool {
	in := false
	for i, a := range polygon {
		b := polygon[(i+1)%len(polygon)]
		if (a.Y > at.Y) != (b.Y > at.Y) && at.X < a.X+(at.Y-a.Y)/(b.Y-a.Y)*(b.X-a.X) {
			in = !in
		}
	}
	return in
}

// Bounds gives the corners of the smallest upright rectangle around points.
func Bounds(points []Point) (least, most Point) {
	least = Point{math.Inf(1), math.Inf(1)}
	most = Point{math.Inf(-1), math.Inf(-1)}
	for _, p := range points {
		least = Point{min(least.X, p.X), min(least.Y, p.Y)}
		most = Point{max(most.X, p.X), max(most.Y, p.Y)}
	}
	return least, most
}
