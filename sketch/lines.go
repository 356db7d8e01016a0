package sketch

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
)

// Line is a line of a sketch, in millimetres from the picture's left and top edge. Fold is one that
// is dashed; Doubt says why somebody should look at it, "" where nothing speaks against it.
type Line struct {
	X1, Y1, X2, Y2 float64
	Fold           bool
	Doubt          string
}

// Length is that from end to end, mm.
func (l Line) Length() float64 { return math.Hypot(l.X2-l.X1, l.Y2-l.Y1) }

// How lines are told, in mm.
const (
	halfStroke = 0.55 // a dot so near to a line is of it
	core       = 0.25 // a stroke that follows a line has dots so near to it
	clears     = 1.0  // so near to a line nothing else is sought
	longest    = 9.0  // dashes and the gaps between them are shorter
	leastLong  = 12.0 // ink of a long line
	leastShort = 3.5  // and of a short one
	apart      = 0.25 // of two lines that are counted
	tilt       = 0.5  // degrees between lines that are counted
	bit        = 0.25 // step along a line
	leastGap   = 0.9  // of a dashed line
)

// Lines finds the lines of a sheet: long ones where most dots lie in a row (Hough's count of lines by
// angle and distance), then short ones of what is left.
func (x *Sheet) Lines() []Line {
	perMM := x.perMM
	dots := x.dots()
	var out []Line
	c := newCount(dots, float64(x.wide)/perMM, float64(x.high)/perMM)
	for range 400 {
		angle, dist, ok := c.most(leastLong * perMM * 0.5)
		if !ok {
			break
		}
		found := c.take(angle, dist, perMM)
		if len(found) == 0 {
			c.forget(angle, dist)
		}
		out = append(out, found...)
	}
	out = append(out, shorts(dots, perMM, out)...)
	return whole(joined(parted(out)))
}

// count tells of each line, by its angle and its distance from the middle, how many dots lie on it.
type count struct {
	dots     []dot
	cos, sin []float64
	far      float64
	rows     int
	n        []float64
	buried   map[int]bool
}

func newCount(dots []dot, wide, high float64) *count {
	c := &count{dots: dots, far: math.Hypot(wide, high), buried: map[int]bool{}}
	for a := 0.0; a < 180; a += tilt {
		s, k := math.Sincos(a * math.Pi / 180)
		c.cos, c.sin = append(c.cos, k), append(c.sin, s)
	}
	c.rows = int(2*c.far/apart) + 1
	c.n = make([]float64, len(c.cos)*c.rows)
	for _, d := range dots {
		c.add(d, 1)
	}
	return c
}

// add counts a dot in or out.
func (c *count) add(d dot, by float64) {
	for a := range c.cos {
		c.n[a*c.rows+int((d.x*c.cos[a]+d.y*c.sin[a]+c.far)/apart)] += by
	}
}

// most gives the line with the most dots beside one another, least or more.
func (c *count) most(least float64) (angle int, dist float64, ok bool) {
	best, at := least, -1
	for i := 1; i+1 < len(c.n); i++ {
		if v := c.n[i-1] + 2*c.n[i] + c.n[i+1]; v > 2*best && !c.buried[i] {
			best, at = v/2, i
		}
	}
	if at < 0 {
		return 0, 0, false
	}
	return at / c.rows, (float64(at%c.rows)+0.5)*apart - c.far, true
}

// forget takes a line out of the search.
func (c *count) forget(angle int, dist float64) {
	c.buried[angle*c.rows+int((dist+c.far)/apart)] = true
}

// straight is a line without ends: the dots d with n·d = dist lie on it.
type straight struct{ nx, ny, dist float64 }

func (s straight) off(x, y float64) float64   { return x*s.nx + y*s.ny - s.dist }
func (s straight) along(x, y float64) float64 { return y*s.nx - x*s.ny }

// at gives the place so far along.
func (s straight) at(t float64) (x, y float64) {
	return s.dist*s.nx - t*s.ny, s.dist*s.ny + t*s.nx
}

// fitted lays a line through dots by least squares of their distances from it.
func fitted(dots []*dot) (straight, bool) {
	if len(dots) < 3 {
		return straight{}, false
	}
	sum, mx, my := 0.0, 0.0, 0.0
	for _, d := range dots {
		sum, mx, my = sum+d.weight, mx+d.weight*d.x, my+d.weight*d.y
	}
	mx, my = mx/sum, my/sum
	xx, xy, yy := 0.0, 0.0, 0.0
	for _, d := range dots {
		xx += d.weight * (d.x - mx) * (d.x - mx)
		xy += d.weight * (d.x - mx) * (d.y - my)
		yy += d.weight * (d.y - my) * (d.y - my)
	}
	var e mat.EigenSym
	if !e.Factorize(mat.NewSymDense(2, []float64{xx, xy, xy, yy}), true) {
		return straight{}, false
	}
	var v mat.Dense
	e.VectorsTo(&v) // the first is that of the least spread
	nx, ny := v.At(0, 0), v.At(1, 0)
	return straight{nx, ny, nx*mx + ny*my}, true
}

// take gives the lines that lie along one that was counted, and takes their dots away.
func (c *count) take(angle int, dist, perMM float64) []Line {
	s := straight{c.cos[angle], c.sin[angle], dist}
	for _, reach := range []float64{2 * halfStroke, halfStroke, halfStroke} {
		if better, ok := fitted(c.near(s, reach)); ok {
			s = better
		}
	}
	near := c.near(s, core)
	var out []Line
	for _, r := range stretches(s, near) {
		if r.ink < leastLong {
			continue
		}
		for i := range c.dots {
			d := &c.dots[i]
			if t := s.along(d.x, d.y); !d.gone && math.Abs(s.off(d.x, d.y)) <= clears && t >= r.from-bit && t <= r.to+bit {
				d.gone = true
				c.add(*d, -1)
			}
		}
		out = append(out, r.lines(s)...)
	}
	return out
}

func (c *count) near(s straight, reach float64) (out []*dot) {
	for i := range c.dots {
		if d := &c.dots[i]; !d.gone && math.Abs(s.off(d.x, d.y)) <= reach {
			out = append(out, d)
		}
	}
	return out
}

// stretch is a part of a line that is drawn, with its dashes.
type stretch struct {
	from, to, ink float64
	runs          [][2]float64
}

// stretches parts a line where nothing is drawn for longer than between dashes.
func stretches(s straight, dots []*dot) (out []stretch) {
	drawn := map[int]bool{}
	for _, d := range dots {
		drawn[int(math.Floor(s.along(d.x, d.y)/bit))] = true
	}
	steps := make([]int, 0, len(drawn))
	for k := range drawn {
		steps = append(steps, k)
	}
	slices.Sort(steps)
	for _, k := range steps {
		from, to := float64(k)*bit, float64(k+1)*bit
		switch n := len(out) - 1; {
		case n < 0 || from-out[n].to > longest:
			out = append(out, stretch{from, to, bit, [][2]float64{{from, to}}})
		case from-out[n].to < leastGap: // a pencil that skips
			last := &out[n].runs[len(out[n].runs)-1]
			out[n].to, out[n].ink, last[1] = to, out[n].ink+bit, to
		default:
			out[n].to, out[n].ink = to, out[n].ink+bit
			out[n].runs = append(out[n].runs, [2]float64{from, to})
		}
	}
	return out
}

// lines parts a stretch into what is drawn through and what is dashed.
func (r stretch) lines(s straight) (out []Line) {
	put := func(from, to float64, fold bool, doubt string) {
		x1, y1 := s.at(from)
		x2, y2 := s.at(to)
		out = append(out, Line{x1, y1, x2, y2, fold, doubt})
	}
	// Where another line crosses, two dashes grow together.
	through := func(i int) bool {
		long := r.runs[i][1] - r.runs[i][0]
		return long > longest && (long > 2*longest || i == 0 || i == len(r.runs)-1)
	}
	for i := 0; i < len(r.runs); {
		if through(i) {
			put(r.runs[i][0], r.runs[i][1], false, "")
			i++
			continue
		}
		first := i
		for i < len(r.runs) && !through(i) {
			i++
		}
		from, to := r.runs[first][0], r.runs[i-1][1]
		switch {
		case i-first >= 3:
			put(from, to, true, "")
		case i-first == 2:
			put(from, to, true, "only two dashes")
		case to-from >= leastShort:
			put(from, to, false, "")
		}
	}
	return out
}
