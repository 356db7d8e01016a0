package layout

import (
	"fmt"
	"math/rand"
	"runtime"
	"testing"

	"brevium/core/measure"
	"brevium/core/paper"
)

// What a sheet costs: its price; nothing for an offcut, or where others have a
// price and it has none; its area where none has.
func TestPrices(t *testing.T) {
	square := paper.Sheet{Name: "square", Width: 12 * measure.Inch, Height: 12 * measure.Inch}
	half := paper.Sheet{Name: "half", Width: 12 * measure.Inch, Height: 6 * measure.Inch}
	kept, dear := half, square
	kept.Offcut, dear.Cost = true, 0.8
	for name, c := range map[string]struct {
		sheets []paper.Sheet
		want   []float64
	}{
		"by area":           {[]paper.Sheet{square, half}, []float64{1, 0.5}},
		"an offcut is free": {[]paper.Sheet{square, kept}, []float64{1, 0}},
		"priced":            {[]paper.Sheet{dear, half}, []float64{0.8, 0}},
	} {
		got := (&Job{Sheets: c.sheets}).Prices()
		for i, want := range c.want {
			if d := got[i] - want; d > 1e-9 || d < -1e-9 {
				t.Errorf("%s: %v; want %v", name, got, c.want)
			}
		}
	}
}

// Pieces without a place weigh most, then cost, then the number of sheets,
// then the largest offcut.
func TestLayoutsAreCompared(t *testing.T) {
	order := []worth{{0, 1, 1, 9}, {0, 1, 1, 5}, {0, 1, 2, 9}, {0, 1.1, 1, 9}, {1, 0, 0, 99}}
	for i := range order {
		for k := range order {
			if got := order[i].better(order[k]); got != (i < k) {
				t.Errorf("%+v better than %+v: %v", order[i], order[k], got)
			}
		}
	}
	// Costs that differ by the rounding of a sum are equal.
	if (worth{cost: 0.1 + 0.2}).better(worth{cost: 0.3}) || (worth{cost: 0.3}).better(worth{cost: 0.1 + 0.2}) {
		t.Error("0.1 + 0.2 is not 0.3")
	}
	sheets := func(n int) []Laid { return make([]Laid, n) }
	cheap, dear := &Result{Sheets: sheets(2), Cost: 1}, &Result{Sheets: sheets(1), Cost: 2}
	more, lacking := &Result{Sheets: sheets(3), Cost: 1}, &Result{Unplaced: []Copy{{}}}
	for i, a := range []*Result{cheap, more, dear, lacking} {
		for k, b := range []*Result{cheap, more, dear, lacking} {
			if got := a.Dearer(b); got != (i > k) {
				t.Errorf("layout %d dearer than %d: %v", i, k, got)
			}
		}
	}
}

// The least cost that is proved holds: by area with the sheets there are, and
// by their least number.
func TestLeastCost(t *testing.T) {
	big, small := sheet("big", 100, 100, paper.Unlimited), sheet("small", 50, 50, 3)
	big.Cost, small.Cost = 4, 0.5
	j := &Job{Sheets: []paper.Sheet{big, small}, Pieces: []Piece{{Name: "p", Width: 50 * mm, Height: 50 * mm, Copies: 5, Turn: true}}}
	// Three small sheets for 1.5, and half of a big one for 2.
	if got := j.bound(); got.Cost != 3.5 || got.Sheets != 2 {
		t.Errorf("at least %v on %d sheets; want 3.5 on 2", got.Cost, got.Sheets)
	}
	r, err := Solve(t.Context(), j, Effort{Rounds: 2})
	if err != nil || r.Cost < 3.5 || r.Cost > 5.5 || len(r.Unplaced) > 0 {
		t.Errorf("five squares cost %v, %v; 4 and 3 × 0.5 do", r.Cost, err)
	}
}

// Cheaper sheets that are aimed at: each target costs less than the plan, or as
// much on fewer sheets; it has the room, and no sheet that there is not.
func TestTargetsAreCheaperAndThere(t *testing.T) {
	rng := rand.New(rand.NewSource(41))
	seen := 0
	for range 80 {
		j := randomJob(rng)
		j.Sheets[0].Cost = 1
		if len(j.Sheets) > 1 {
			j.Sheets[1].Cost = 0.3 + rng.Float64()
		}
		p := j.greedy(meterOf(t.Context()))
		if len(p.pool) > 0 {
			continue
		}
		prices := j.Prices()
		for _, change := range j.targets(p, j.bound(), mostTargets, func() bool { return false }) {
			x := j.exchange(p, change)
			seen++
			cost := compareCost(x.cost(prices), p.cost(prices))
			if cost > 0 || cost == 0 && len(x.sheets) >= len(p.sheets) {
				t.Fatalf("a target of %v on %d sheets after %v on %d", x.cost(prices), len(x.sheets), p.cost(prices), len(p.sheets))
			}
			held, used := map[int]int{}, len(x.pool)
			for _, u := range x.sheets {
				held[u.kind]++
				used += len(u.root.pieces(nil))
			}
			if used != j.total() {
				t.Fatalf("%d of %d pieces are in the target", used, j.total())
			}
			for kind, n := range held {
				if c := j.Sheets[kind].Count; c != paper.Unlimited && n > c {
					t.Fatalf("%d sheets of %d", n, c)
				}
			}
		}
	}
	if seen < 30 {
		t.Errorf("only %d targets", seen)
	}
}

// What is over comes off whole where that leaves the larger rectangle.
func TestWhatIsOverStaysWhole(t *testing.T) {
	for name, c := range map[string]struct {
		w, h  measure.Length
		first Cut
		most  float64 // mm², the largest offcut
	}{
		"below":  {120, 300, Cut{Across: false, At: 60 * mm}, 120 * 240},
		"beside": {300, 60, Cut{Across: true, At: 50 * mm}, 200 * 60},
	} {
		j := &Job{Sheets: []paper.Sheet{sheet("s", c.w, c.h, 1)}, Pieces: []Piece{{Name: "p", Width: 50 * mm, Height: 60 * mm, Copies: 2}}}
		two := group(true, []*strip{{w: 50 * mm, h: 60 * mm}, {w: 50 * mm, h: 60 * mm}})
		n := j.cutter(0).tree(two, c.w*mm, c.h*mm)
		if n.across != c.first.Across || n.at != c.first.At || n.largest() != c.most {
			t.Errorf(
				"%s: the first cut is across %v at %v mm and leaves %v mm²; want %+v and %v",
				name,
				n.across,
				n.at.MM(),
				n.largest(),
				c.first,
				c.most,
			)
		}
	}
}

// Two hundred kinds of sheet, one of each, for fifty boxes: there are a million changes of a
// plan, and they do not fill the memory; who stops asking is not worked for.
func TestManyKindsOfSheet(t *testing.T) {
	j := &Job{Trimmer: 1000 * mm}
	for i := range 200 {
		j.Sheets = append(j.Sheets, paper.Sheet{Name: fmt.Sprint("kind ", i), Width: measure.Length(300+i) * mm, Height: measure.Length(300-i/2) * mm, Count: 1})
	}
	j.Pieces = []Piece{{Name: "base", Width: 180 * mm, Height: 160 * mm, Copies: 50, Turn: true}, {Name: "lid", Width: 130 * mm, Height: 110 * mm, Copies: 50, Turn: true}}
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	r, err := Solve(t.Context(), j, Effort{Rounds: 1, Steps: 60})
	runtime.ReadMemStats(&after)
	if err != nil || len(r.Unplaced) > 0 {
		t.Fatalf("%v, %d without a place", err, len(r.Unplaced))
	}
	if used := (after.TotalAlloc - before.TotalAlloc) >> 20; used > 200 {
		t.Errorf("it took %d MB in all", used)
	}
	p := j.greedy(meterOf(t.Context()))
	if got := j.targets(p, j.bound(), mostTargets, func() bool { return true }); len(got) != 0 {
		t.Errorf("%d changes are worked out for nobody", len(got))
	}
	if got := j.targets(p, j.bound(), mostTargets, func() bool { return false }); len(got) > mostTargets {
		t.Errorf("%d changes are kept", len(got))
	}
}
