package band

import (
	"math"
	"slices"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

const mm = measure.Millimetre

func rectangle(w, h float64) []pattern.Point {
	return []pattern.Point{{X: 0, Y: 0}, {X: w, Y: 0}, {X: w, Y: h}, {X: 0, Y: h}}
}

// A band round 80 × 30, its lap of 12 behind: the join is on the upper side, so
// that the lap comes first, then 30, 80, 30 and 80; half a millimetre all round
// is shared out among them, each score at its nearest mark. 220.5 and the lap are 232.5, cut to half millimetres.
func TestBandByHand(t *testing.T) {
	b := Round(rectangle(80, 30), pattern.Pt(0, -1), 12*mm, measure.Tick(mm/2))
	want := []float64{12, 12 + 30*220.5/220, 12 + 110*220.5/220, 12 + 140*220.5/220}
	if b.Girth != 220*mm+Slide || b.Length != 232500*measure.Micrometre || len(b.Scores) != len(want) {
		t.Fatalf("%+v", b)
	}
	for i, at := range b.Scores {
		if math.Abs(at.MM()-want[i]) > 0.25+1e-9 || at%(mm/2) != 0 { // the nearest half
			t.Errorf("score %d at %v; want %v", i+1, at.MM(), want[i])
		}
	}
	if !slices.Equal(b.Sides, []measure.Length{30 * mm, 80 * mm, 30 * mm, 80 * mm}) {
		t.Errorf("sides %v", b.Sides)
	}
}

// Two strips round 80 × 30, each with a lap of 12 behind: half of the 80, 30, and half of the other 80
// come over the lap, 110.25 and 12 are 122.25, cut to half millimetres. A wedge has no halves that are alike.
func TestHalvesByHand(t *testing.T) {
	b, ok := Halves(rectangle(80, 30), pattern.Pt(0, -1), 12*mm, measure.Tick(mm/2))
	if !ok || b.Length != 122500*measure.Micrometre || b.Girth != 220*mm+Slide {
		t.Fatalf("%v %+v", ok, b)
	}
	for i, want := range []float64{12 + 40*220.5/220, 12 + 70*220.5/220} {
		if math.Abs(b.Scores[i].MM()-want) > 0.25+1e-9 {
			t.Errorf("score %d at %v; want %v", i+1, b.Scores[i].MM(), want)
		}
	}
	if b, ok := Halves(rectangle(80, 30), pattern.Pt(1, 0), 12*mm, measure.Tick(mm/2)); !ok || math.Abs(b.Scores[1].MM()-12-15-80) > 0.5 {
		t.Errorf("joined at a narrow side: %+v", b)
	}
	if _, ok := Halves([]pattern.Point{{X: 0, Y: 0}, {X: 80, Y: 0}, {X: 80, Y: 30}, {X: 0, Y: 50}}, pattern.Pt(0, -1), 12*mm, measure.Tick(mm)); ok {
		t.Error("a wedge has halves that are alike")
	}
	var round []pattern.Point
	for i := range 60 {
		s, c := math.Sincos(float64(i) * math.Pi / 30)
		round = append(round, pattern.Pt(40*c, 40*s))
	}
	if b, ok := Halves(round, pattern.Pt(0, 1), 10*mm, measure.Tick(mm)); !ok || len(b.Scores) != 0 || b.Length != measure.Up(b.Girth/2+10*mm, measure.Tick(mm)) {
		t.Errorf("round: %v %+v", ok, b)
	}
}

// Two corners a card apart are one score between them; a round thing has none but
// the lap's.
func TestCornersThatAreOne(t *testing.T) {
	stepped := []pattern.Point{{X: 0, Y: 0}, {X: 79.7, Y: 0}, {X: 80, Y: 0.3}, {X: 80, Y: 30}, {X: 0, Y: 30}}
	if b := Round(stepped, pattern.Pt(0, 1), 10*mm, measure.Tick(mm)); len(b.Scores) != 4 {
		t.Errorf("scores %v", b.Scores)
	}
	var round []pattern.Point
	for i := range 60 {
		s, c := math.Sincos(float64(i) * math.Pi / 30)
		round = append(round, pattern.Pt(40*c, 40*s))
	}
	if b := Round(round, pattern.Pt(0, 1), 10*mm, measure.Tick(mm)); len(b.Scores) != 1 || math.Abs(b.Girth.MM()-Perimeter(round)-0.5) > 1e-6 {
		t.Errorf("round: %+v", b)
	}
}
