package photo

import (
	"image"
	"math"
	"slices"
)

// How an outline is looked for: so many pixels on the longer side, so many that a line of the squares is
// narrower than twice, and how far in mm a simpler outline may be from what is seen.
const (
	outlineSide = 900
	thinLine    = 3
	strayMM     = 0.8
)

// Outline finds the outline of something that lies on white or squared paper, by the corners of a rectangle of
// that paper, wide × high mm: corners in mm from the rectangle's top left, with the clock. None is given
// where nothing is clearly darker or of another colour than the paper round it.
func Outline(p []byte, corners [4]Corner, wide, high float64) ([][2]float64, error) {
	img, err := above(p, corners, wide, high, outlineSide)
	if err != nil {
		return nil, err
	}
	m := maskOf(img)
	if m == nil {
		return nil, nil
	}
	m = m.shrunk(thinLine).grown(thinLine)
	ring := m.largest()
	perMM := outlineSide / max(wide, high)
	ring = simpler(ring, strayMM*perMM)
	if len(ring) < 3 {
		return nil, nil
	}
	out := make([][2]float64, len(ring))
	for i, q := range ring {
		out[i] = [2]float64{float64(q.X) / perMM, float64(q.Y) / perMM}
	}
	return out, nil
}

// mask tells of each pixel whether it is part of what lies there.
type mask struct {
	w, h int
	in   []bool
}

func (m *mask) at(x, y int) bool { return x >= 0 && y >= 0 && x < m.w && y < m.h && m.in[y*m.w+x] }

// maskOf parts a picture by how far its colours are from those at its rim; nil where that tells nothing.
func maskOf(img *image.RGBA) *mask {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	var rim [3][]int
	for y := range h {
		for x := range w {
			if min(x, y, w-1-x, h-1-y) < min(w, h)/50 {
				for c := range rim {
					rim[c] = append(rim[c], int(img.Pix[y*img.Stride+4*x+c]))
				}
			}
		}
	}
	var ground [3]int
	for c := range rim {
		slices.Sort(rim[c])
		ground[c] = rim[c][len(rim[c])/2]
	}
	far, counts := make([]uint8, w*h), [256]int{}
	for y := range h {
		for x := range w {
			sum := 0.0
			for c := range ground {
				d := float64(int(img.Pix[y*img.Stride+4*x+c]) - ground[c])
				sum += d * d
			}
			v := uint8(min(255, math.Sqrt(sum)))
			far[y*w+x] = v
			counts[v]++
		}
	}
	at, near, off := parting(counts, w*h)
	const clearly = 24 // of 255, between paper and what lies on it
	if off-near < clearly {
		return nil
	}
	m := &mask{w, h, make([]bool, w*h)}
	for i, v := range far {
		m.in[i] = int(v) > at
	}
	return m
}

// parting is the value that parts values best in two (Otsu, 1979), and the means of the two.
func parting(counts [256]int, n int) (at int, low, high float64) {
	total := 0.0
	for v, c := range counts {
		total += float64(v * c)
	}
	best, below, sum := 0.0, 0, 0.0
	for v, c := range counts {
		below += c
		sum += float64(v * c)
		if below == 0 || below == n {
			continue
		}
		a, b := sum/float64(below), (total-sum)/float64(n-below)
		if between := float64(below) * float64(n-below) * (a - b) * (a - b); between > best {
			best, at, low, high = between, v, a, b
		}
	}
	return at, low, high
}

// shrunk and grown take off and put on a rim of so many pixels.
func (m *mask) shrunk(by int) *mask { return m.rimmed(by, true) }
func (m *mask) grown(by int) *mask  { return m.rimmed(by, false) }

// rimmed goes over rows and then columns: a pixel is what the rim is when any within reach is.
func (m *mask) rimmed(by int, off bool) *mask {
	pass := func(in *mask, dx, dy int) *mask {
		out := &mask{in.w, in.h, make([]bool, len(in.in))}
		for y := range in.h {
			for x := range in.w {
				hit := false
				for k := -by; k <= by && !hit; k++ {
					hit = in.at(x+k*dx, y+k*dy) != off
				}
				out.in[y*in.w+x] = hit != off
			}
		}
		return out
	}
	return pass(pass(m, 1, 0), 0, 1)
}

// largest is the border of the largest part that hangs together, corner of pixel by corner, with the clock.
func (m *mask) largest() []image.Point {
	part := make([]int, len(m.in))
	best, most, n := 0, 0, 0
	var first image.Point
	for i := range m.in {
		if !m.in[i] || part[i] != 0 {
			continue
		}
		n++
		size, stack := 0, []int{i}
		part[i] = n
		for len(stack) > 0 {
			k := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			size++
			x, y := k%m.w, k/m.w
			for _, d := range [4][2]int{{1, 0}, {-1, 0}, {0, 1}, {0, -1}} {
				if j := (y+d[1])*m.w + x + d[0]; m.at(x+d[0], y+d[1]) && part[j] == 0 {
					part[j] = n
					stack = append(stack, j)
				}
			}
		}
		if size > most {
			best, most, first = n, size, image.Pt(i%m.w, i/m.w)
		}
	}
	if most == 0 {
		return nil
	}
	in := func(x, y int) bool { return m.at(x, y) && part[y*m.w+x] == best }
	// Along the edges of pixels, the inside on the right hand: at each corner as far to the right as goes.
	var out []image.Point
	at, way := first, image.Pt(1, 0) // along the upper edge of the first pixel in reading order
	for {
		out = append(out, at)
		at = at.Add(way)
		left, right := ahead(at, way)
		switch {
		case in(left.X, left.Y):
			way = image.Pt(way.Y, -way.X)
		case !in(right.X, right.Y):
			way = image.Pt(-way.Y, way.X)
		}
		if at == first && way == image.Pt(1, 0) || len(out) > 4*len(m.in) {
			return out
		}
	}
}

// ahead are the pixels on the left and the right before a corner that is come to.
func ahead(at, way image.Point) (left, right image.Point) {
	switch way {
	case image.Pt(1, 0):
		return at.Add(image.Pt(0, -1)), at
	case image.Pt(0, 1):
		return at, at.Add(image.Pt(-1, 0))
	case image.Pt(-1, 0):
		return at.Add(image.Pt(-1, 0)), at.Add(image.Pt(-1, -1))
	}
	return at.Add(image.Pt(-1, -1)), at.Add(image.Pt(0, -1))
}

// simpler is a ring with fewer corners that is nowhere farther than some pixels from it (Douglas and
// Peucker, 1973), from its two corners that are farthest apart.
func simpler(ring []image.Point, stray float64) []image.Point {
	if len(ring) < 4 {
		return ring
	}
	far := func(from image.Point) int {
		best, most := 0, -1
		for i, q := range ring {
			if d := q.Sub(from); d.X*d.X+d.Y*d.Y > most {
				best, most = i, d.X*d.X+d.Y*d.Y
			}
		}
		return best
	}
	a := far(ring[0])
	b := far(ring[a])
	if a > b {
		a, b = b, a
	}
	one := thinned(ring[a:b+1], stray)
	two := thinned(append(slices.Clone(ring[b:]), ring[:a+1]...), stray)
	return append(one[:len(one)-1], two[:len(two)-1]...)
}

func thinned(way []image.Point, stray float64) []image.Point {
	a, b := way[0], way[len(way)-1]
	d := b.Sub(a)
	long := math.Hypot(float64(d.X), float64(d.Y))
	worst, most := 0, stray
	for i, q := range way {
		e := q.Sub(a)
		off := math.Hypot(float64(e.X), float64(e.Y))
		if long > 0 {
			off = math.Abs(float64(d.X*e.Y-d.Y*e.X)) / long
		}
		if off > most {
			worst, most = i, off
		}
	}
	if worst == 0 {
		return []image.Point{a, b}
	}
	near := thinned(way[:worst+1], stray)
	return append(near[:len(near)-1], thinned(way[worst:], stray)...)
}
