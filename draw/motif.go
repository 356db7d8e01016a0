package draw

import (
	"math"

	"brevium/core/paper"
	"brevium/core/pattern"
)

// Inked is a part of a print in one colour, mm from the tile's top left corner.
type Inked struct {
	Colour paper.Colour
	Points []pattern.Point
}

// TileSize is how large one repeat of a look is, in mm.
func TileSize(l paper.Look) (wide, high float64) {
	if l.Photo.ID != "" {
		return l.Photo.Wide.MM(), l.Photo.High.MM()
	}
	s := l.Scale.MM()
	switch l.Print {
	case paper.Fleck:
		return 3 * s, 3 * s
	case paper.Diamonds:
		return s, 1.5 * s
	case paper.Sprigs:
		return s, 1.2 * s
	case paper.Zigzag, paper.Waves:
		return s, s * 0.8
	}
	return s, s
}

// Motif draws one repeat of a print to its true size. What crosses an edge comes
// in again at the other, so that repeats join without a seam.
func Motif(l paper.Look) []Inked {
	if l.Photo.ID != "" || l.Print == paper.Plain {
		return nil
	}
	s := l.Scale.MM()
	w, h := TileSize(l)
	one, two, three := l.Inks[0], l.Inks[1], l.Inks[2]
	t := &tile{w: w, h: h}
	switch l.Print {
	case paper.Stripes:
		t.block(one, s/4, 0, s/2, s)
		t.block(two, s*0.11, 0, s*0.05, s)
		t.block(two, s*0.84, 0, s*0.05, s)
	case paper.Pinlines:
		t.block(one, s*0.21, 0, s*0.08, s)
		t.block(two, s*0.73, 0, s*0.04, s)
	case paper.Dots:
		t.round(one, s*0.25, s*0.25, s*0.13, s*0.13, 0)
		t.round(two, s*0.75, s*0.75, s*0.13, s*0.13, 0)
	case paper.Checks:
		t.block(one, s/4, s/4, s/2, s/2)
		for _, x := range []float64{0, s * 0.75} {
			for _, y := range []float64{0, s * 0.75} {
				t.block(one, x, y, s/4, s/4)
			}
		}
	case paper.Gingham:
		half := mixed(l.Outside, one)
		t.block(half, s/4, 0, s/2, s)
		t.block(half, 0, s/4, s, s/2)
		t.block(one, s/4, s/4, s/2, s/2)
	case paper.Tartan:
		half := mixed(l.Outside, one)
		t.block(half, s*0.15, 0, s*0.4, s)
		t.block(half, 0, s*0.15, s, s*0.4)
		t.block(one, s*0.15, s*0.15, s*0.4, s*0.4)
		for _, at := range []float64{0.33, 0.78} {
			t.block(two, s*at, 0, s*0.035, s)
			t.block(two, 0, s*at, s, s*0.035)
		}
		t.block(three, s*0.9, 0, s*0.02, s)
		t.block(three, 0, s*0.9, s, s*0.02)
	case paper.Stars:
		t.star(one, s*0.28, s*0.28, s*0.25)
		t.star(two, s*0.76, s*0.75, s*0.16)
		t.round(three, s*0.77, s*0.24, s*0.025, s*0.025, 0)
		t.round(three, s*0.24, s*0.77, s*0.025, s*0.025, 0)
	case paper.Sprigs:
		t.sprig(one, two, s*0.3, h*0.46, s*0.36)
		t.sprig(one, two, s*0.78, h*0.94, s*0.3)
	case paper.Waves:
		t.band(one, h*0.25, h*0.09, h*0.1, 24, func(at float64) float64 { return math.Sin(2 * math.Pi * at) })
		t.band(two, h*0.75, h*0.05, h*0.1, 24, func(at float64) float64 { return math.Sin(2 * math.Pi * at) })
	case paper.Zigzag:
		crest := func(at float64) float64 { return 4*math.Abs(at-math.Floor(at+0.5)) - 1 }
		t.band(one, h*0.3, h*0.11, h*0.16, 4, crest)
		t.band(two, h*0.72, h*0.045, h*0.16, 4, crest)
	case paper.Diamonds:
		t.add(one, pattern.Pt(w/2, h*0.02), pattern.Pt(w*0.98, h/2), pattern.Pt(w/2, h*0.98), pattern.Pt(w*0.02, h/2))
		t.add(two, pattern.Pt(w/2, h*0.36), pattern.Pt(w*0.64, h/2), pattern.Pt(w/2, h*0.64), pattern.Pt(w*0.36, h/2))
	case paper.Fleck:
		t.flecks([]paper.Colour{one, two, three}, s)
	}
	return t.parts
}

// tile gathers the parts of one repeat.
type tile struct {
	w, h  float64
	parts []Inked
}

// add puts a part in, and again at the other edges that it crosses.
func (t *tile) add(c paper.Colour, points ...pattern.Point) {
	lo, hi := pattern.Bounds(points)
	for _, dx := range []float64{0, t.w, -t.w} {
		for _, dy := range []float64{0, t.h, -t.h} {
			if lo.X+dx >= t.w || hi.X+dx <= 0 || lo.Y+dy >= t.h || hi.Y+dy <= 0 {
				continue
			}
			moved := make([]pattern.Point, len(points))
			for i, q := range points {
				moved[i] = q.Add(pattern.Pt(dx, dy))
			}
			t.parts = append(t.parts, Inked{c, moved})
		}
	}
}

func (t *tile) block(c paper.Colour, x, y, w, h float64) { t.add(c, rect(x, y, w, h)...) }

// round is an ellipse, its long half turned by an angle from the x axis.
func (t *tile) round(c paper.Colour, x, y, a, b, angle float64) {
	var points []pattern.Point
	sin, cos := math.Sincos(angle)
	for i := range 20 {
		v, u := math.Sincos(2 * math.Pi * float64(i) / 20)
		points = append(points, pattern.Pt(x+u*a*cos-v*b*sin, y+u*a*sin+v*b*cos))
	}
	t.add(c, points...)
}

// star has eight points, so that it is the same after a quarter turn.
func (t *tile) star(c paper.Colour, x, y, r float64) {
	var points []pattern.Point
	for i := range 16 {
		reach := r
		switch i % 4 {
		case 1, 3:
			reach = r * 0.4
		case 2:
			reach = r * 0.7
		}
		sin, cos := math.Sincos(math.Pi * float64(i) / 8)
		points = append(points, pattern.Pt(x+reach*cos, y+reach*sin))
	}
	t.add(c, points...)
}

// sprig is a stem that grows up from its foot, with leaves and a berry.
func (t *tile) sprig(leaf, berry paper.Colour, x, foot, high float64) {
	t.add(leaf, pattern.Pt(x-high*0.025, foot), pattern.Pt(x-high*0.012, foot-high), pattern.Pt(x+high*0.012, foot-high), pattern.Pt(x+high*0.025, foot))
	for i, up := range []float64{0.2, 0.38, 0.56, 0.72} {
		long, angle := high*(0.2-0.09*up), -0.28*math.Pi // up and to the right
		if i%2 == 1 {
			angle = -0.72 * math.Pi // and to the left
		}
		sin, cos := math.Sincos(angle)
		t.round(leaf, x+cos*long, foot-high*up+sin*long, long, long*0.38, angle)
	}
	t.round(berry, x, foot-high*1.03, high*0.09, high*0.09, 0)
}

// band is a line of a thickness about y that sways by a height, once in a tile;
// sway goes from −1 to 1 over 0 to 1.
func (t *tile) band(c paper.Colour, y, half, height float64, steps int, sway func(at float64) float64) {
	var over, under []pattern.Point
	for i := range steps + 1 {
		at := float64(i) / float64(steps)
		mid := y + height*sway(at)
		over = append(over, pattern.Pt(t.w*at, mid-half))
		under = append(under, pattern.Pt(t.w*at, mid+half))
	}
	for i := len(under) - 1; i >= 0; i-- {
		over = append(over, under[i])
	}
	t.parts = append(t.parts, Inked{c, over})
}

// flecks strews slivers over a tile, always the same ones.
func (t *tile) flecks(colours []paper.Colour, s float64) {
	seed := uint32(20_261)
	next := func() float64 { // a linear congruential generator (Numerical Recipes' constants)
		seed = seed*1_664_525 + 1_013_904_223
		return float64(seed>>8) / (1 << 24)
	}
	for i := range 54 {
		long := s * (0.04 + 0.1*next())
		t.round(colours[i%len(colours)], t.w*next(), t.h*next(), long, s*0.012+s*0.012*next(), math.Pi*next())
	}
}

// mixed is the colour half-way between two.
func mixed(a, b paper.Colour) paper.Colour { return a.Mixed(b, 0.5) }
