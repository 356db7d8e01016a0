package pattern

import "math"

// Vertex is a corner of a loop and how the edge to the next corner bends.
// Bulge is the tangent of a quarter of the arc's angle: 0 is straight, 1 a
// half circle; positive bends to the left of the way round as seen, which on
// a clockwise outline is outwards.
type Vertex struct {
	Point
	Bulge float64
}

// Loop is a closed line of straight edges and arcs, its first corner not
// repeated. Arcs stay arcs; Flat makes chords of them.
type Loop []Vertex

// Straight makes a loop without arcs.
func Straight(points ...Point) Loop {
	out := make(Loop, len(points))
	for i, p := range points {
		out[i] = Vertex{Point: p}
	}
	return out
}

// Chord is how far, in mm, the chords that stand for an arc may stray from it.
const Chord = 0.01

// Flat gives the loop as a polygon, arcs as chords within Chord of them.
func (l Loop) Flat() []Point {
	out := make([]Point, 0, len(l))
	for i, v := range l {
		out = append(out, v.Point)
		if v.Bulge != 0 {
			out = append(out, arc(v.Point, l[(i+1)%len(l)].Point, v.Bulge)...)
		}
	}
	return out
}

// arc gives the points strictly between a and b on the arc of the bulge.
func arc(a, b Point, bulge float64) []Point {
	angle := 4 * math.Atan(bulge)
	d := b.Sub(a)
	chord := d.Len()
	r := chord / 2 / math.Sin(math.Abs(angle)/2)
	// The sagitta of a step of angle s is r(1 − cos(s/2)).
	step := 2 * math.Acos(max(-1, 1-Chord/r))
	n := max(2, int(math.Ceil(math.Abs(angle)/step)))
	centre := Centre(a, b, bulge)
	from := a.Sub(centre)
	out := make([]Point, 0, n-1)
	for i := 1; i < n; i++ {
		s, c := math.Sincos(angle * float64(i) / float64(n))
		out = append(out, centre.Add(Point{from.X*c - from.Y*s, from.X*s + from.Y*c}))
	}
	return out
}

// Centre is the middle of the circle that the arc of a bulge from a to b is on, in mm. Seen with y down,
// a bend to the left of a→b has it on the right.
func Centre(a, b Point, bulge float64) Point {
	angle := 4 * math.Atan(bulge)
	d := b.Sub(a)
	chord := d.Len()
	r := chord / 2 / math.Sin(math.Abs(angle)/2)
	return a.Add(d.Scale(0.5)).Add(Point{-d.Y, d.X}.Scale(math.Sqrt(max(0, r*r-chord*chord/4)) / chord * sign1(bulge) * sign1(math.Pi-math.Abs(angle))))
}

func sign1(f float64) float64 {
	if f < 0 {
		return -1
	}
	return 1
}

// Circle is a round hole.
func Circle(centre Point, radius float64) Loop {
	return Loop{{Point{centre.X - radius, centre.Y}, 1}, {Point{centre.X + radius, centre.Y}, 1}}
}

// Open gives the path from the first corner to the last, arcs as chords, not
// closed.
func (l Loop) Open() []Point {
	var out []Point
	for i, v := range l {
		out = append(out, v.Point)
		if v.Bulge != 0 && i+1 < len(l) {
			out = append(out, arc(v.Point, l[i+1].Point, v.Bulge)...)
		}
	}
	return out
}
