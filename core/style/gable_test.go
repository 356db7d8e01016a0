package style

import (
	"math"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// While a ridge is closed from a tube its slopes and ends stay rigid: no corner
// comes nearer to another of its face.
func TestRidgeClosesRigidly(t *testing.T) {
	r := roof{w: 60, d: 40, wall: 30, slope: 28, fin: 8, upwards: 1, ends: true}
	faces := [][]pattern.Point{
		{{X: 0, Y: 30}, {X: 60, Y: 30}, {X: 60, Y: 58}, {X: 0, Y: 58}},
		{{X: 60, Y: 30}, {X: 100, Y: 30}, {X: 80, Y: 58}}, {{X: 60, Y: 30}, {X: 80, Y: 58}, {X: 60, Y: 58}}, {{X: 100, Y: 30}, {X: 100, Y: 58}, {X: 80, Y: 58}},
		{{X: 160, Y: 30}, {X: 200, Y: 30}, {X: 180, Y: 58}}, {{X: 200, Y: 30}, {X: 200, Y: 58}, {X: 180, Y: 58}},
	}
	for at := 0.0; at <= 1; at += 0.05 {
		place := r.closing(at)
		for _, f := range faces {
			for i, a := range f {
				for _, b := range f[:i] {
					u, _ := place(a)
					v, _ := place(b)
					if d := r3.Norm(r3.Sub(u, v)) - a.Sub(b).Len(); math.Abs(d) > 1e-9 {
						t.Errorf("at %.2f the corners %v and %v are %v mm farther apart", at, a, b, d)
					}
				}
			}
		}
	}
}

// On a lid with a ridge the ends go in behind the slopes: their corners are folded away
// from who sees the outside, the middle of the fins towards, whatever the unit.
func TestARidgesFlatFoldsHaveTheirSide(t *testing.T) {
	for _, unit := range []measure.Unit{measure.MM, measure.In} {
		box, err := gableLid.Make(gableLid.Usual(unit.Tick(), 300*measure.Micrometre))
		if err != nil {
			t.Fatal(err)
		}
		flat := 0
		for _, c := range box.Parts[1].Pattern.Creases {
			if c.Angle < 179.9 {
				continue
			}
			flat++
			w := box.Parts[1].Pattern.Width
			middle := false
			for _, k := range []float64{1.5, 3.5} {
				middle = middle || math.Abs(c.A.X-k*gableWidth.Usual(unit.Tick()).MM()) < 1e-6
			}
			want := pattern.Away
			if middle {
				want = pattern.Towards
			}
			if c.Side != want {
				t.Errorf("%s: the crease at %.1f of %v mm is folded %s", unit, c.A.X, w, c.Side)
			}
		}
		if flat != 9 { // four corners of slopes, three of fins, two middles
			t.Errorf("%s: %d flat folds", unit, flat)
		}
	}
}
