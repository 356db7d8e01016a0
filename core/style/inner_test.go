package style

import (
	"math"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// Three by two cells in 156 × 104 × 50 mm of 0.3 mm card: two strips of 104
// and one of 156 mm less the ease, slots 0.5 mm wide and 25 mm deep in the
// middle of the card between cells; the strips go together and do not collide.
func TestDividersByHand(t *testing.T) {
	for _, up := range []string{"across", "along"} {
		b := metric(t, dividerGrid, map[string]measure.Length{"length": 156 * mm, "width": 104 * mm, "height": 50 * mm},
			map[string]string{"columns": "3", "rows": "2", "slots.up": up})
		long, cross := b.Parts[0], b.Parts[1]
		if long.Copies() != 1 || cross.Copies() != 2 || long.Pattern.Width != 156*mm-StripEase || cross.Pattern.Width != 104*mm-StripEase ||
			long.Pattern.Height != 50*mm || cross.Pattern.Height != 50*mm {
			t.Errorf(
				"%d of %v × %v and %d of %v × %v",
				long.Copies(),
				long.Pattern.Width.MM(),
				long.Pattern.Height.MM(),
				cross.Copies(),
				cross.Pattern.Width.MM(),
				cross.Pattern.Height.MM(),
			)
		}
		// Cells are (156 − 2 × 0.3) / 3 = 51.8 mm: slots at 51.95 and 104.05 less
		// half the ease, on the ruler's half millimetres, and two cards of 0.3 mm wide.
		for _, c := range []struct {
			part Part
			at   []float64
			up   bool
		}{{long, []float64{51.5, 103.5}, up == "along"}, {cross, []float64{52 - 0.5}, up == "across"}} {
			edge, deep := 0.0, 25.0
			if !c.up {
				edge, deep = 50, 25
			}
			for _, at := range c.at {
				for _, x := range []float64{at - 0.3, at + 0.3} {
					for _, y := range []float64{edge, deep} {
						if !corner(c.part.Pattern, pattern.Pt(x, y)) {
							t.Errorf("slots up %s: %s has no corner at %v, %v", up, c.part.ID, x, y)
						}
					}
				}
			}
		}
		all := assembled(t, b, Finished)
		if len(all) != 3 {
			t.Fatalf("%d strips stand together", len(all))
		}
		if hit := Collisions(all); len(hit) > 0 {
			t.Errorf("slots up %s: the strips collide: %v", up, hit)
		}
	}
}

// metric builds a style on a board of 1 mm.
func metric(t *testing.T, s *Style, lengths map[string]measure.Length, choices map[string]string) *Box {
	t.Helper()
	spec := usual(s, lengths, choices)
	spec.Tick = measure.Tick(mm)
	b, err := s.Make(spec)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func corner(p *pattern.Pattern, at pattern.Point) bool {
	for _, v := range p.Outline {
		if v.Point.Sub(at).Len() < 1e-6 {
			return true
		}
	}
	return false
}

// Cells and cards make up the inside exactly, whatever does not divide.
func TestEqualCellsMakeUpTheInside(t *testing.T) {
	for n := 1; n <= mostCells; n++ {
		size := 6*measure.Inch + measure.Length(n)
		sum := measure.Length(n-1) * 300 * measure.Micrometre
		for _, c := range Equal(size, 300*measure.Micrometre, n) {
			sum += c
		}
		if sum != size {
			t.Errorf("%d cells and their cards make %d of %d nm", n, sum, size)
		}
	}
}

// One row of cells has nothing to slot into: its strips get tabs.
func TestDividersOneWay(t *testing.T) {
	b := build(t, dividerGrid, nil, map[string]string{"columns": "3", "rows": "1"})
	if len(b.Parts) != 1 || b.Parts[0].Copies() != 2 || len(b.Parts[0].Pattern.Creases) != 2 || len(b.Parts[0].Pattern.Glue) != 2 {
		t.Errorf("%+v", b.Parts)
	}
}

// A floor with holes: its area is that of its four skirts and itself, less
// the holes.
func TestInsertByHand(t *testing.T) {
	b := metric(t, insert, map[string]measure.Length{"length": 150 * mm, "width": 100 * mm, "height": 20 * mm, "hole": 40 * mm, "gap": mm},
		map[string]string{"columns": "3", "rows": "2"})
	p := b.Parts[0].Pattern
	l, w := 148.5, 98.5 // 150 − 0.3 − 1 and 100 − 0.3 − 1, down to half a millimetre
	want := l*w + 2*20*(l+w) - 6*math.Pi*20*20
	if math.Abs(p.Area()-want) > 6 || len(p.Holes) != 6 {
		t.Errorf("%d holes, %v mm²; want %v", len(p.Holes), p.Area(), want)
	}
}

// Two equal halves of a liner stand round all four walls.
func TestLinerStandsRound(t *testing.T) {
	p, err := Liner(120*mm, 80*mm, 30*mm)
	if err != nil {
		t.Fatal(err)
	}
	all := assembled(t, &Box{Parts: []Part{p}}, Finished)
	if len(all) != 2 {
		t.Fatalf("%d halves", len(all))
	}
	for n := range 4 {
		half, i := all[n/2], n%2
		f := half.Faces[i]
		for _, q := range f.Polygon {
			v := half.Poses[i].Place(q)
			onWall := math.Abs(math.Abs(v.X)-60) < 1e-6 || math.Abs(math.Abs(v.Y)-40) < 1e-6
			if !onWall || v.Z < -1e-6 || v.Z > 30+1e-6 {
				t.Errorf("%s has a corner at %v, off the walls", f.Name, v)
			}
		}
	}
}
