package style

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/pattern"
)

// blossom is a liner of a square tray: a square of four times half, of which
// four inner triangles hang down inside the walls, four petals open outwards
// or meet over the top, and each corner between two petals folds like an
// accordion to a fin. All in mm, x and y from the middle of the sheet as it is
// drawn, z up from the rim; the sheet lies outside down when it is open flat.
type blossom struct {
	half, trim float64 // half the clear square, and what the inner tips lose
}

// blossomSides are the sides in turn, each petal before the next; between a
// side and the next one lies the corner of the same number.
var blossomSides = []string{"back", "left", "front", "right"}

// turned takes a place on the first side or corner to number k.
func turned(x, y float64, k int) (float64, float64) {
	for range k {
		x, y = y, -x
	}
	return x, y
}

// The places of the first side and corner on the sheet, in halves.
var (
	petalFoot  = pattern.Pt(-1, -1)
	petalOther = pattern.Pt(1, -1)
	petalTip   = pattern.Pt(0, -2)
	stripTop   = pattern.Pt(-1, -2)
	cornerTip  = pattern.Pt(-2, -2)
	stripNext  = pattern.Pt(-2, -1)
	nextTip    = pattern.Pt(-2, 0)
)

// blossomFaces are the faces of one side and corner, by the places that bound
// them, clockwise.
var blossomFaces = []struct {
	name    string
	corners []pattern.Point
}{
	{"petal", []pattern.Point{petalFoot, petalTip, petalOther}},
	{"strip", []pattern.Point{petalFoot, stripTop, petalTip}},
	{"half", []pattern.Point{petalFoot, cornerTip, stripTop}},
	{"next", []pattern.Point{petalFoot, stripNext, cornerTip}},
	{"follow", []pattern.Point{petalFoot, nextTip, stripNext}},
}

// at places a point of the sheet for side k.
func (b blossom) at(p pattern.Point, k int) pattern.Point {
	x, y := turned(p.X*b.half, p.Y*b.half, k)
	return pattern.Pt(x+2*b.half, y+2*b.half)
}

// inner gives the corners of the inner triangle of side k; a trimmed one has
// lost its tip.
func (b blossom) inner(k int) []pattern.Point {
	out := []pattern.Point{b.at(petalFoot, k), b.at(petalOther, k)}
	e := b.trim / b.half
	if e == 0 {
		return append(out, b.at(pattern.Pt(0, 0), k))
	}
	return append(out, b.at(pattern.Pt(e, -e), k), b.at(pattern.Pt(-e, -e), k))
}

// spine is how far, in degrees, the diagonal of a corner has swung over when
// the petals have by psi. Until they stand upright it keeps pace with
// them; near the end it lies midway between the edges of its two petals, so that
// the corner ends as a fin that stands on the box's diagonal.
func spine(psi float64) float64 {
	midway := 180 - math.Atan2(2*math.Sin(psi*math.Pi/180), math.Sqrt2*(1-math.Cos(psi*math.Pi/180)))*180/math.Pi
	w := min(1, max(0, psi-90)/60)
	w = w * w * (3 - 2*w)
	return psi + (midway-psi)*w
}

// accordion gives the directions, from the corner of the clear square, of the
// first corner's five creases, the petals turned up and over by psi degrees
// from flat outwards, the fin laid down by rho degrees.
func accordion(psi, rho float64) [5]r3.Vec {
	s, c := math.Sincos(psi * math.Pi / 180)
	r := math.Sqrt2
	first, last := r3.Vec{X: 1 / r, Y: -c / r, Z: s / r}, r3.Vec{X: -c / r, Y: 1 / r, Z: s / r}
	if 180-psi < 1e-6 { // the fin is shut
		s, c := math.Sincos(rho * math.Pi / 180)
		e := r3.Vec{X: 1 / r, Y: 1 / r}
		up := r3.Vec{X: -s / r, Y: s / r, Z: c}
		side := r3.Scale(1/r, r3.Add(e, up))
		return [5]r3.Vec{e, side, e, side, e}
	}
	s, c = math.Sincos(spine(psi) * math.Pi / 180)
	d := r3.Vec{X: -c / r, Y: -c / r, Z: s}
	// The crease between is 45° from both: where two cones meet, outside.
	middle := r3.Add(first, d)
	part := math.Acos(min(1, r3.Dot(first, d))) / 2
	tall := math.Acos(min(1, math.Cos(math.Pi/4)/math.Cos(part)))
	side := r3.Add(r3.Scale(math.Cos(tall), r3.Unit(middle)), r3.Scale(math.Sin(tall), r3.Unit(r3.Cross(first, d))))
	return [5]r3.Vec{first, side, d, {X: side.Y, Y: side.X, Z: side.Z}, last}
}

// place gives where a corner of a face is when the petals are turned by psi
// and the fins laid down by rho degrees. Faces are called by their name, a
// dot and the side.
func (b blossom) place(face string, at pattern.Point, psi, rho float64) (r3.Vec, bool) {
	name, side := face[:max(0, len(face)-1)], ""
	for i := range face {
		if face[i] == '.' {
			name, side = face[:i], face[i+1:]
		}
	}
	k := slices.Index(blossomSides, side)
	if k < 0 {
		return r3.Vec{}, false
	}
	x, y := turned(at.X-2*b.half, at.Y-2*b.half, 4-k)
	foot := r3.Vec{X: -b.half, Y: -b.half}
	near := func(p pattern.Point) bool { return math.Hypot(x-p.X*b.half, y-p.Y*b.half) < 1e-3 }
	out := r3.Vec{X: x, Y: -b.half, Z: -b.half - y}
	dirs := accordion(psi, rho)
	long := b.half * math.Sqrt2
	switch {
	case name == "inner":
		out.Z = -(y + b.half)
	case near(petalFoot):
		out = foot
	case near(petalOther):
		out = r3.Vec{X: b.half, Y: -b.half}
	case near(petalTip):
		out = r3.Add(foot, r3.Scale(long, dirs[0]))
	case near(stripTop):
		out = r3.Add(foot, r3.Scale(b.half, dirs[1]))
	case near(cornerTip):
		out = r3.Add(foot, r3.Scale(long, dirs[2]))
	case near(stripNext):
		out = r3.Add(foot, r3.Scale(b.half, dirs[3]))
	case near(nextTip):
		out = r3.Add(foot, r3.Scale(long, dirs[4]))
	default:
		return r3.Vec{}, false
	}
	out.X, out.Y = turned(out.X, out.Y, k)
	return out, true
}

// turns gives the creases' angles on the way from open, with the petals turned
// by from degrees, to shut: for most of it they rise and close, then the fins
// are laid down.
func (b blossom) turns(p *pattern.Pattern, from, at float64) ([]float64, error) {
	const rising = 0.75
	psi, rho := from+(180-from)*min(1, at/rising), 90*max(0, at-rising)/(1-rising)
	out, err := p.Turns(func(face string, q pattern.Point) (r3.Vec, bool) { return b.place(face, q, psi, rho) })
	for i := range out {
		if out[i] < -180+1e-6 {
			out[i] = 180 // right over, on the crease's own side
		}
	}
	return out, err
}
