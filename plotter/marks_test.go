package plotter

import (
	"math"
	"math/rand"
	"slices"
	"testing"

	"brevium/core/fault"
	"brevium/core/pattern"
	"brevium/core/sample"
)

var corners = []pattern.Point{pattern.Pt(12.5, 12.5), pattern.Pt(197.5, 12.5), pattern.Pt(12.5, 284.5), pattern.Pt(197.5, 284.5)}

// A printed sheet lies as chance has it; found by its marks, nearly every one is cut within 0.11 mm by
// four of them, and within 0.27 by three.
func TestMarksAreFound(t *testing.T) {
	for n, within := range map[int]float64{4: 0.11, 3: 0.27} {
		var off []float64
		for seed := range sample.Of(t, 2000) {
			f := &File{Width: 210, Height: 297, Marks: corners}
			found, back, err := find(f, Options{Marks: n}, rand.New(rand.NewSource(sample.Seed(int64(seed)))))
			if err != nil {
				t.Fatal(err)
			}
			worst := 0.0
			for _, p := range []pattern.Point{pattern.Pt(22, 22), pattern.Pt(188, 22), pattern.Pt(188, 275), pattern.Pt(22, 275)} {
				worst = max(worst, back(found.fit.of(p)).Sub(p).Len())
			}
			off = append(off, worst)
		}
		slices.Sort(off)
		if got := off[len(off)*99/100]; got > within {
			t.Errorf("%d marks: 99 of 100 within %.3f; want %g", n, got, within)
		}
	}
}

// A sheet that was printed to fit the page, or lies askew, is refused.
func TestMarksThatCannotBe(t *testing.T) {
	turned := func(degrees, scale float64) []pattern.Point {
		sin, cos := math.Sincos(degrees * math.Pi / 180)
		var out []pattern.Point
		for _, p := range corners {
			out = append(out, pattern.Pt(p.X*cos-p.Y*sin, p.X*sin+p.Y*cos).Scale(scale))
		}
		return out
	}
	for name, seen := range map[string][]pattern.Point{"turned by 4°": turned(4, 1), "printed at 97 %": turned(0, 0.97), "torn": {corners[0], corners[1], corners[2], corners[3].Add(pattern.Pt(2, 0))}} {
		if _, err := fitted(corners, seen); err == nil || fault.Of(err).Code != fault.MarkResidual {
			t.Errorf("%s: %v", name, err)
		}
	}
	if _, err := fitted(corners, turned(1.5, 1.003)); err != nil {
		t.Error(err)
	}
	if _, _, err := find(&File{Width: 210, Height: 297, Marks: corners[:3]}, Options{Marks: 4}, rand.New(rand.NewSource(1))); err == nil || fault.Of(err).Code != fault.MarkMissing {
		t.Errorf("one mark is missing: %v", err)
	}
}
