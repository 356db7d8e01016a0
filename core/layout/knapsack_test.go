package layout

import (
	"fmt"
	"math/rand"
	"testing"

	"brevium/core/measure"
	"brevium/core/paper"
)

// mostWorth is the most that any filling of w × h whole millimetres is worth,
// trying every cut at every millimetre.
func mostWorth(j *Job, value []float64, w, h int, seen map[[2]int]float64) float64 {
	key := [2]int{w, h}
	if v, ok := seen[key]; ok {
		return v
	}
	best := 0.0
	for i, p := range j.Pieces {
		pw, ph := int(p.Width/mm), int(p.Height/mm)
		if pw <= w && ph <= h || p.Turn && ph <= w && pw <= h {
			best = max(best, value[i])
		}
	}
	for x := 1; x <= w/2; x++ {
		best = max(best, mostWorth(j, value, x, h, seen)+mostWorth(j, value, w-x, h, seen))
	}
	for y := 1; y <= h/2; y++ {
		best = max(best, mostWorth(j, value, w, y, seen)+mostWorth(j, value, w, h-y, seen))
	}
	seen[key] = best
	return best
}

// The best filling found is worth what trying every cut gives, and the filling
// itself is worth that and fits.
func TestKnapsackIsExact(t *testing.T) {
	rng := rand.New(rand.NewSource(31))
	never := func() bool { return false }
	for range 120 {
		w, h := 8+rng.Intn(20), 8+rng.Intn(20)
		j := &Job{Sheets: []paper.Sheet{sheet("s", measure.Length(w), measure.Length(h), paper.Unlimited)}}
		var value []float64
		for i := range 1 + rng.Intn(5) {
			j.Pieces = append(j.Pieces, Piece{Name: fmt.Sprint(i), Copies: 1, Turn: rng.Intn(2) == 0,
				Width: measure.Length(2+rng.Intn(w-1)) * mm, Height: measure.Length(2+rng.Intn(h-1)) * mm})
			value = append(value, float64(1+rng.Intn(50)))
		}
		s := newSearcher(j, 1, meterOf(t.Context()))
		k := s.newKnapsack(0)
		if k == nil {
			continue // not one piece fits
		}
		got, ok := k.fill(value, never)
		want := mostWorth(j, value, w, h, map[[2]int]float64{})
		if !ok || got < want-1e-6 || got > want+1e-6 {
			t.Fatalf("%+v: a filling worth %v; every cut gives %v", j.Pieces, got, want)
		}
		root := s.unpack(k, len(k.xs)-1, len(k.ys)-1)
		sum := 0.0
		for _, p := range root.pieces(nil) {
			sum += value[p]
		}
		if sum < got-1e-6 || root.w > s.rooms[0][0] || root.h > s.rooms[0][1] {
			t.Fatalf("the filling itself is worth %v of %v, on %v × %v mm", sum, got, root.w.MM(), root.h.MM())
		}
	}
}

// A bound by columns is never above a layout, and not below the area's; for a
// batch it is the layout's own number.
func TestBatchesAreProved(t *testing.T) {
	j := &Job{Sheets: []paper.Sheet{sheet("square", 305, 305, paper.Unlimited)}, Pieces: []Piece{
		{
			Name:   "a",
			Width:  178 * mm,
			Height: 152 * mm,
			Copies: 300,
			Turn:   true,
		},
		{Name: "b", Width: 120 * mm, Height: 61 * mm, Copies: 500, Turn: true},
		{Name: "c", Width: 31 * mm, Height: 290 * mm, Copies: 240},
	}}
	r, err := Solve(t.Context(), j, Effort{Seconds: 3})
	if err != nil {
		t.Fatal(err)
	}
	if err := sound(j, r); err != nil {
		t.Fatal(err)
	}
	if byArea := j.fewest().Sheets; r.Bound.Sheets < byArea || len(r.Sheets) < r.Bound.Sheets ||
		float64(len(r.Sheets)) > 1.015*float64(r.Bound.Sheets) {
		t.Errorf("%d sheets, at least %d by columns and %d by area", len(r.Sheets), r.Bound.Sheets, byArea)
	}
}

// The bound by columns holds on small jobs that are laid out exactly.
func TestColumnsProveNothingTooHigh(t *testing.T) {
	rng := rand.New(rand.NewSource(32))
	for range 60 {
		j := &Job{Sheets: []paper.Sheet{sheet("s", 30, 30, paper.Unlimited)}}
		for i := range 3 + rng.Intn(3) {
			j.Pieces = append(j.Pieces, Piece{Name: fmt.Sprint(i), Copies: 1, Turn: rng.Intn(2) == 0,
				Width: measure.Length(5+rng.Intn(25)) * mm, Height: measure.Length(5+rng.Intn(25)) * mm})
		}
		least := j.exact(meterOf(t.Context()))
		s := newSearcher(j, 1, meterOf(t.Context()))
		cost := s.prove(s.newMaster(least), func() bool { return false })
		if n := ceil(cost / s.price[0]); n > len(least.sheets) {
			t.Fatalf("%+v: columns prove %d sheets where %d do", j.Pieces, n, len(least.sheets))
		}
	}
}

func BenchmarkTwoThousandPieces(b *testing.B) {
	rng := rand.New(rand.NewSource(0))
	j := &Job{Sheets: []paper.Sheet{sheet("square", 305, 305, paper.Unlimited)}}
	for i := range 12 {
		j.Pieces = append(j.Pieces, Piece{Name: fmt.Sprint("p", i), Copies: 2000 / 12, Turn: i%3 > 0,
			Width: measure.Length(20+rng.Intn(180)) * mm, Height: measure.Length(20+rng.Intn(180)) * mm})
	}
	for b.Loop() {
		r, err := Solve(b.Context(), j, Effort{Seconds: 2})
		if err != nil {
			b.Fatal(err)
		}
		b.ReportMetric(float64(len(r.Sheets)), "sheets")
		b.ReportMetric(float64(r.Bound.Sheets), "bound")
	}
}

// By hand: of 60 × 40 a sheet of 100 gives three by cuts from edge to edge, two under one another and one
// turned beside them (four lie round a hole, which no such cut parts). So seven take three sheets, where their
// area says two. Of others at random no more are proved than a layout takes, and no fewer than area says.
func TestTheBoundByColumnsIsProved(t *testing.T) {
	var j Job
	j.Sheets = []paper.Sheet{{Name: "S", Width: 100 * measure.Millimetre, Height: 100 * measure.Millimetre, Count: paper.Unlimited, Cost: 1}}
	j.Pieces = []Piece{{Name: "p", Width: 60 * measure.Millimetre, Height: 40 * measure.Millimetre, Copies: 7, Turn: true}}
	s := newSearcher(&j, 1, meterOf(ForSearch.In(t.Context())))
	cost := s.prove(s.newMaster(&plan{}), func() bool { return false })
	if n := ceil(cost); n != 3 {
		t.Errorf("%g sheets are proved", cost)
	}
	for seed := range int64(6) {
		rng := rand.New(rand.NewSource(seed))
		j.Pieces = nil
		for i := range 40 {
			j.Pieces = append(j.Pieces, Piece{Name: fmt.Sprint(i), Width: measure.Length(20+rng.Intn(60)) * measure.Millimetre, Height: measure.Length(10+rng.Intn(50)) * measure.Millimetre, Copies: 1, Turn: true})
		}
		s = newSearcher(&j, seed, meterOf(ForSearch.In(t.Context())))
		cost = s.prove(s.newMaster(&plan{}), func() bool { return false })
		// No lower than what area says, and no higher than any layout there is.
		r, err := Solve(t.Context(), &j, Effort{Rounds: 3, Steps: 200})
		if err != nil || ceil(cost) > len(r.Sheets) || ceil(cost) < j.bound().Sheets-1 {
			t.Errorf("seed %d: %g are proved, %d laid, %v", seed, cost, len(r.Sheets), err)
		}
	}
}
