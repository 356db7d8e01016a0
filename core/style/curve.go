package style

import (
	"math"

	"brevium/core/pattern"
)

// curve is a closed line that walls are bent along, mirrored from left to right, in mm: x to the
// right, y to the back, the place where a wall is joined first, then round to the right hand of who
// stands inside.
type curve interface {
	// out gives its corners when it is moved out by so much: the same number each time.
	out(by float64) []pattern.Point
	// smooth gives as many as no eye tells from the curve.
	smooth(by float64) []pattern.Point
	// length is how long it is when it is moved out, to the hundredth of a millimetre or better.
	length(by float64) float64
	// tightest is its smallest radius.
	tightest() float64
	// notched reports whether it turns in, opposite to where it is joined.
	notched() bool
}

// around is how long a closed line of corners is.
func around(points []pattern.Point) float64 {
	sum := 0.0
	for i, a := range points {
		sum += points[(i+1)%len(points)].Sub(a).Len()
	}
	return sum
}

// pitches is how many flats stand for a length that is bent to a radius, none further from it than
// the play.
func pitches(length, radius, play float64) int {
	return max(2, int(math.Ceil(length/math.Sqrt(8*radius*play)-1e-9)))
}

// egg is a half circle and half an ellipse on one diameter; with both alike it is an oval or a circle.
type egg struct {
	wide, front, back float64 // half across, and the depths to the front and to the back
	flats             int
}

func newEgg(across, front, back, play float64) egg {
	e := egg{wide: across / 2, front: front, back: back}
	e.flats = pitches(around(e.sampled(0, 720)), e.tightest(), play)
	return e
}

func (e egg) tightest() float64 {
	least := math.Inf(1)
	for _, b := range []float64{e.front, e.back} {
		least = min(least, b*b/e.wide, e.wide*e.wide/b)
	}
	return least
}

func (e egg) notched() bool { return false }

func (e egg) length(by float64) float64 { return around(e.sampled(0, 2880)) + 2*math.Pi*by }

// at is the point of the curve for an angle from the back, to the right, moved out.
func (e egg) at(angle, by float64) pattern.Point {
	sin, cos := math.Sincos(angle)
	deep := e.back
	if cos < 0 {
		deep = e.front
	}
	n := pattern.Pt(-sin/e.wide, cos/deep)
	return pattern.Pt(-sin*e.wide, cos*deep).Add(n.Scale(by / n.Len()))
}

func (e egg) sampled(by float64, n int) []pattern.Point {
	out := make([]pattern.Point, n)
	for i := range out {
		out[i] = e.at(2*math.Pi*float64(i)/float64(n), by)
	}
	return out
}

func (e egg) smooth(by float64) []pattern.Point { return e.sampled(by, smoothCorners) }

// smoothCorners is how many corners stand for a curve that is cut, not bent.
const smoothCorners = 120

// out spaces the corners evenly along the curve.
func (e egg) out(by float64) []pattern.Point {
	const fine = 720
	dense := e.sampled(by, fine)
	total, at, so := around(dense), 0, 0.0
	var out []pattern.Point
	for i := range e.flats {
		want := total * float64(i) / float64(e.flats)
		for {
			step := dense[(at+1)%fine].Sub(dense[at]).Len()
			if so+step >= want-1e-12 {
				share := (want - so) / step
				out = append(out, e.at(2*math.Pi*(float64(at)+share)/fine, by))
				break
			}
			so, at = so+step, at+1
		}
	}
	return out
}

// heart is two circles side by side and straight sides to a tip in front.
type heart struct {
	radius, apart, tip float64 // of the circles, half between their middles, half the tip's angle in radians
	flats              int     // of one lobe's curve
}

func newHeart(radius, apart, tip, play float64) heart {
	h := heart{radius: radius, apart: apart, tip: tip}
	h.flats = pitches(radius*h.turn(radius), radius, play)
	return h
}

// turn is the angle of one lobe's curve, from the straight side to the notch.
func (h heart) turn(radius float64) float64 {
	return math.Pi - math.Acos(h.apart/radius) + h.tip
}

func (h heart) tightest() float64 { return h.radius }

func (h heart) notched() bool { return true }

func (h heart) out(by float64) []pattern.Point {
	r := h.radius + by
	foot := -(r + h.apart*math.Cos(h.tip)) / math.Sin(h.tip)
	lobe := make([]pattern.Point, 0, h.flats+1)
	for i := range h.flats + 1 { // from where the straight side touches to the notch
		angle := -h.tip + h.turn(r)*float64(i)/float64(h.flats)
		sin, cos := math.Sincos(angle)
		lobe = append(lobe, pattern.Pt(h.apart+r*cos, r*sin))
	}
	out := append([]pattern.Point{{Y: foot}}, lobe...)
	for i := len(lobe) - 2; i >= 0; i-- {
		out = append(out, pattern.Pt(-lobe[i].X, lobe[i].Y))
	}
	return out
}

func (h heart) smooth(by float64) []pattern.Point {
	h.flats = smoothCorners / 3
	return h.out(by)
}

// length is exact: two arcs and two straight sides. Moved out, the circles are larger.
func (h heart) length(by float64) float64 {
	h.radius += by
	foot := (h.radius + h.apart*math.Cos(h.tip)) / math.Sin(h.tip)
	return 2 * (math.Sqrt(h.apart*h.apart+foot*foot-h.radius*h.radius) + h.radius*h.turn(h.radius))
}
