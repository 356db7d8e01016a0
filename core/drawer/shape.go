package drawer

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Shape is the outline of an offcut that is no rectangle: its corners once round, in mm from the top left of
// its bounds, x and y with a comma between them and a space before the next; "" is a rectangle.
type Shape string

// mostCorners is how many corners a shape has.
const mostCorners = 200

// Points are its corners.
func (s Shape) Points() []pattern.Point {
	var out []pattern.Point
	for _, corner := range strings.Fields(string(s)) {
		x, y, _ := strings.Cut(corner, ",")
		a, err := strconv.ParseFloat(x, 64)
		b, err2 := strconv.ParseFloat(y, 64)
		if err != nil || err2 != nil {
			return nil
		}
		out = append(out, pattern.Pt(a, b))
	}
	return out
}

// shapeOf is an outline as a shape, its corners to a hundredth of a millimetre.
func shapeOf(outline []pattern.Point) Shape {
	lo, hi := pattern.Bounds(outline)
	if size := hi.Sub(lo); math.Abs(math.Abs(pattern.Area(outline))-size.X*size.Y) < 1 {
		return ""
	}
	var out []string
	for _, p := range outline {
		corner := fmt.Sprintf("%g,%g", hundredth(p.X-lo.X), hundredth(p.Y-lo.Y))
		if len(out) == 0 || corner != out[len(out)-1] {
			out = append(out, corner)
		}
	}
	return Shape(strings.Join(out, " "))
}

func hundredth(v float64) float64 { return math.Round(v*100)/100 + 0 }

// Draw gives an offcut the outline that was drawn of it, in mm: its size is that of its bounds. It refuses
// what is no outline.
func (l *Lot) Draw(outline []pattern.Point) error {
	if len(outline) > mostCorners {
		return fault.New(fault.CountRange, "shape", "a shape has up to %d corners; draw it coarser", mostCorners)
	}
	for _, p := range outline {
		if !(math.Abs(p.X) < 1e4 && math.Abs(p.Y) < 1e4) {
			return fault.New(fault.OutOfRange, "shape", "a corner is farther than 10 m away")
		}
	}
	if len(outline) < 3 || math.Abs(pattern.Area(outline)) < 100 || pattern.Crosses(outline) {
		return fault.New(fault.UnknownShape, "shape", "draw its outline once round, corner by corner, without crossing a line that is there")
	}
	lo, hi := pattern.Bounds(outline)
	l.Width, l.Height = measure.FromMM(hundredth(hi.X-lo.X)), measure.FromMM(hundredth(hi.Y-lo.Y))
	l.Shape, l.Offcut = shapeOf(outline), true
	return nil
}

// DrawText is Draw for corners as Shape has them; nothing is a rectangle.
func (l *Lot) DrawText(text string) error {
	if strings.TrimSpace(text) == "" {
		return nil
	}
	if len(text) > 40*mostCorners {
		return fault.New(fault.TooLong, "shape", "a shape has up to %d corners; draw it coarser", mostCorners)
	}
	points := Shape(text).Points()
	if points == nil {
		return fault.New(fault.UnknownShape, "shape", "a shape is written as its corners in mm: 0,0 120,0 120,60")
	}
	return l.Draw(points)
}
