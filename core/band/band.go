// Package band works out a belly band from the hull of a box where it goes round:
// how long it is, where it is scored, where it is joined.
package band

import (
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// Slide is how much longer a band is than what it goes round, all round, so that
// it slides.
const Slide = 500 * measure.Micrometre

// sharp is the least turn, in degrees, at which a band is scored: rounder places
// it follows by itself. Corners nearer to one another than near, in mm, are one.
const (
	sharp = 20
	near  = 2
)

// Band is a strip round a hull. Girth is the loop's own length with what it needs
// to slide; the lap comes before it. Scores are from the strip's end at the lap.
type Band struct {
	Girth, Lap, Length measure.Length
	Scores             []measure.Length
	Sides              []measure.Length // of the hull, from one scored corner to the next
}

// Round works a band out for a hull, in mm and clockwise with y down, that is
// joined on the side that looks in a direction: the lap lies round the corner
// before it, and the last side comes over it. It is cut and scored at marks of the
// ruler; each score is rounded from the end, so that none adds to the next.
func Round(hull []pattern.Point, join pattern.Point, lap measure.Length, ruler measure.Tick) Band {
	sides, whole := sidesFrom(hull, join), Perimeter(hull)
	grown := 1 + Slide.MM()/whole
	b := Band{Lap: lap, Scores: []measure.Length{lap}}
	at := measure.Length(0)
	for k, side := range sides {
		at += measure.FromMM(side * grown)
		b.Sides = append(b.Sides, measure.FromMM(side))
		if k < len(sides)-1 {
			b.Scores = append(b.Scores, measure.Nearest(lap+at, ruler))
		}
	}
	b.Girth = measure.FromMM(whole) + Slide
	b.Length = measure.Up(b.Girth+lap, ruler)
	return b
}

// alike is how little two opposite sides differ, in mm, that one strip goes round either: a lid's rim is
// wider than the foot below it. A fold comes to lie half of that beside its corner at most.
const alike = 2

// Halves works out one of two alike strips that go round a hull together: each from the middle of the side
// that looks towards the join to the middle of the opposite one, where it comes over the other's lap. Only
// a round thing, and one of four sides of which opposite ones are alike, has such halves.
func Halves(hull []pattern.Point, join pattern.Point, lap measure.Length, ruler measure.Tick) (Band, bool) {
	sides, whole := sidesFrom(hull, join), Perimeter(hull)
	grown := 1 + Slide.MM()/whole
	b := Band{Lap: lap, Girth: measure.FromMM(whole) + Slide}
	b.Length = measure.Up(b.Girth/2+lap, ruler)
	for _, side := range sides {
		b.Sides = append(b.Sides, measure.FromMM(side))
	}
	switch {
	case len(sides) == 1:
		return b, true
	case len(sides) != 4 || math.Abs(sides[0]-sides[2]) > alike || math.Abs(sides[1]-sides[3]) > alike:
		return Band{}, false
	}
	first := lap + measure.FromMM((sides[1]+sides[3])/4*grown)
	across := measure.FromMM((sides[0] + sides[2]) / 2 * grown)
	b.Scores = []measure.Length{measure.Nearest(first, ruler), measure.Nearest(first+across, ruler)}
	return b, true
}

// sidesFrom are the stretches of a hull from one scored corner to the next, in mm: the last of them
// looks towards the join. A round thing has one, all of it.
func sidesFrom(hull []pattern.Point, join pattern.Point) []float64 {
	corners := scored(hull)
	if len(corners) == 0 { // joined where it looks that way
		corners = []float64{farthest(hull, join)}
	}
	whole := Perimeter(hull)
	// Begin at the end of the side that looks towards the join.
	first, best := 0, math.Inf(-1)
	for i, at := range corners {
		next := corners[(i+1)%len(corners)]
		if next <= at {
			next += whole
		}
		if d := looks(hull, at, next, join); d > best {
			best, first = d, (i+1)%len(corners)
		}
	}
	var out []float64
	n := len(corners)
	for k := range n {
		from, to := corners[(first+k)%n], corners[(first+k+1)%n]
		if to <= from {
			to += whole
		}
		out = append(out, to-from)
	}
	return out
}

// Perimeter is the length of a closed polygon, in mm.
func Perimeter(hull []pattern.Point) float64 {
	sum := 0.0
	for i, p := range hull {
		sum += hull[(i+1)%len(hull)].Sub(p).Len()
	}
	return sum
}

// scored gives how far along the hull, from its first point, the corners lie that
// are scored, in order.
func scored(hull []pattern.Point) []float64 {
	n := len(hull)
	type corner struct{ at, turn float64 }
	var all []corner
	at := 0.0
	for i, p := range hull {
		in, out := p.Sub(hull[(i+n-1)%n]), hull[(i+1)%n].Sub(p)
		all = append(all, corner{at, math.Atan2(in.Cross(out), in.Dot(out)) * 180 / math.Pi})
		at += out.Len()
	}
	// Neighbours that are one to a hand: begin after the longest edge.
	start := 0
	for i := range all {
		if edge(hull, i+n-1) > edge(hull, start+n-1) {
			start = i
		}
	}
	var out []float64
	for k := 0; k < n; {
		first, turn, last := all[(start+k)%n], 0.0, 0.0
		run := 0.0
		for k < n {
			turn += all[(start+k)%n].turn
			last = run
			run += edge(hull, start+k)
			k++
			if run-last > near {
				break
			}
		}
		if turn >= sharp {
			out = append(out, math.Mod(first.at+last/2, at))
		}
	}
	slices.Sort(out)
	return out
}

func edge(hull []pattern.Point, i int) float64 {
	n := len(hull)
	return hull[(i+1)%n].Sub(hull[i%n]).Len()
}

// place is the point so far along the hull.
func place(hull []pattern.Point, at float64) pattern.Point {
	for at = math.Mod(at, Perimeter(hull)); ; {
		for i, p := range hull {
			long := edge(hull, i)
			if at <= long {
				return p.Add(hull[(i+1)%len(hull)].Sub(p).Scale(at / long))
			}
			at -= long
		}
	}
}

// looks is how far the middle of a stretch of the hull lies in a direction.
func looks(hull []pattern.Point, from, to float64, join pattern.Point) float64 {
	a, b := place(hull, from), place(hull, to)
	d := b.Sub(a)
	if d.Len() == 0 {
		return math.Inf(-1)
	}
	return pattern.Pt(d.Y, -d.X).Dot(join) / d.Len() // outwards of a clockwise hull
}

// farthest is how far along the hull its farthest point in a direction lies.
func farthest(hull []pattern.Point, join pattern.Point) float64 {
	best, at, sum := math.Inf(-1), 0.0, 0.0
	for i, p := range hull {
		if d := p.Dot(join); d > best {
			best, at = d, sum
		}
		sum += edge(hull, i)
	}
	return at
}
