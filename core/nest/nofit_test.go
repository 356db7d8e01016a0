package nest

import (
	"math"
	"math/rand"
	"slices"
	"testing"

	"github.com/peterstace/simplefeatures/geom"

	"brevium/core/pattern"
	"brevium/core/sample"
)

// star is an outline of corners at random distances about a middle: it never crosses itself.
func star(rng *rand.Rand, corners int) []point {
	var out []point
	for i := range corners {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(corners))
		out = append(out, pattern.Pt(cos, sin).Scale(math.Round(10+40*rng.Float64())))
	}
	return out
}

// The convex parts of an outline have its area together, and are convex.
func TestParts(t *testing.T) {
	rng := rand.New(rand.NewSource(sample.Seed(1)))
	for range sample.Of(t, 400) {
		o := star(rng, 3+rng.Intn(20))
		sum := 0.0
		for _, p := range parts(o) {
			sum += math.Abs(pattern.Area(p))
			for i, a := range p {
				b, c := p[(i+1)%len(p)], p[(i+2)%len(p)]
				if b.Sub(a).Cross(c.Sub(b)) < -1e-6 {
					t.Fatalf("%v is not convex, of %v", p, o)
				}
			}
		}
		if want := math.Abs(pattern.Area(o)); math.Abs(sum-want) > 1e-6*want {
			t.Fatalf("the parts of %v have %g mm²; want %g", o, sum, want)
		}
	}
	if got := parts([]point{pattern.Pt(0, 0), pattern.Pt(30, 0), pattern.Pt(30, 20), pattern.Pt(0, 20)}); len(got) != 1 {
		t.Errorf("a rectangle in %d parts", len(got))
	}
}

// A place is in the no-fit just where the two shapes overlap, which another's geometry tells; on its
// border they touch.
func TestNoFit(t *testing.T) {
	rng := rand.New(rand.NewSource(sample.Seed(2)))
	for range sample.Of(t, 60) {
		a, b := shapeOf(Piece{Outline: star(rng, 3+rng.Intn(9))}, 0, 0), shapeOf(Piece{Outline: star(rng, 3+rng.Intn(9))}, 1, 90*rng.Intn(4))
		n := noFitOf(a.parts, b, nil)
		over := func(at point) float64 {
			both, err := geom.Intersection(polygon(a.outline), polygon(moved(b.outline, at.X, at.Y)))
			if err != nil {
				t.Fatal(err)
			}
			return both.Area()
		}
		for range 30 {
			at := pattern.Pt(-b.width+rng.Float64()*(a.width+b.width), -b.height+rng.Float64()*(a.height+b.height))
			in := slices.ContainsFunc(n.sums, func(c convex) bool { return c.has(at) })
			if area := over(at); in != (area > 0) && area > 1e-3 || in && area == 0 {
				t.Fatalf("at %v they overlap by %g, and in the no-fit is %v", at, area, in)
			}
		}
		for _, l := range n.border {
			for _, at := range []point{l.a, l.b, l.a.Add(l.b).Scale(0.5)} {
				if area := over(at); area > 1e-2 {
					t.Fatalf("at %v of the border they overlap by %g", at, area)
				}
			}
		}
	}
}

// What is drawn very finely is laid by a coarser outline that goes round all of it.
func TestFineOutlines(t *testing.T) {
	rng := rand.New(rand.NewSource(sample.Seed(3)))
	for range sample.Of(t, 12) {
		o := star(rng, 300)
		s := shapeOf(Piece{Outline: o}, 0, 0)
		if len(s.parts) > mostParts {
			t.Errorf("%d parts", len(s.parts))
		}
		for _, p := range s.outline {
			if !slices.ContainsFunc(s.parts, func(part []point) bool {
				c := newConvex(part)
				return !slices.ContainsFunc(c.sides, func(e side) bool { return p.X*e.nx+p.Y*e.ny-e.at < -1e-6 })
			}) {
				t.Fatalf("a corner at %v is in no part", p)
			}
		}
	}
}
