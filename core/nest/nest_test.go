package nest_test

import (
	"context"
	"fmt"
	"math/rand"
	"reflect"
	"testing"
	"time"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/nest"
	"brevium/core/nest/jigsaw"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/sample"
)

func rect(w, h float64) []pattern.Point {
	return []pattern.Point{pattern.Pt(0, 0), pattern.Pt(w, 0), pattern.Pt(w, h), pattern.Pt(0, h)}
}

// ell is an L: a square of a side without a square of half of it at its top right.
func ell(side float64) []pattern.Point {
	h := side / 2
	return []pattern.Point{pattern.Pt(0, 0), pattern.Pt(h, 0), pattern.Pt(h, h), pattern.Pt(side, h), pattern.Pt(side, side), pattern.Pt(0, side)}
}

func square(side float64) nest.Sheet {
	return nest.Sheet{Sheet: paper.Sheet{Name: "S", Width: measure.FromMM(side), Height: measure.FromMM(side), Count: paper.Unlimited, Cost: 1}}
}

func solved(t *testing.T, j *nest.Job, e nest.Effort) *layout.Result {
	t.Helper()
	r, err := nest.Solve(t.Context(), j, e)
	if err != nil {
		t.Fatal(err)
	}
	if wrong := j.Wrong(r); wrong != "" {
		t.Fatal(wrong)
	}
	if r.Trimmer > 0 && len(r.Sheets) > r.Trimmer {
		t.Errorf("%d sheets, and the trimmer takes %d", len(r.Sheets), r.Trimmer)
	}
	return r
}

// By hand: an L of 100 and a square of 50 make a square of 100, so that two of each fill 200 × 100.
func TestWhatFitsExactly(t *testing.T) {
	sheet := square(200)
	sheet.Height = 100 * measure.Millimetre
	j := &nest.Job{Sheets: []nest.Sheet{sheet}, Pieces: []nest.Piece{
		{Name: "ell", Outline: ell(100), Copies: 2, Turns: nest.Quarters},
		{Name: "square", Outline: rect(50, 50), Copies: 2, Turns: nest.Quarters},
	}}
	r := solved(t, j, nest.Effort{Seconds: 5})
	if len(r.Sheets) != 1 || r.Used < 0.999999 || r.Bound.Sheets != 1 || len(r.Sheets[0].Offcuts) != 0 {
		t.Errorf("%+v", r)
	}
}

// Sheets that were cut to pieces by broken lines come together again: all of one and two sheets, and
// three of four of three and four.
func TestJigsaws(t *testing.T) {
	const of = 4 // of each size, whatever part is tried: three of four is of all of them
	for _, c := range []struct{ sheets, pieces, least int }{{1, 4, of}, {1, 6, of}, {2, 10, of}, {3, 15, of - 1}, {4, 24, of - 1}} {
		found := 0
		for i := range of {
			j := jigsaw.Job(rand.New(rand.NewSource(sample.Seed(int64(c.pieces*100+i)))), c.sheets, c.pieces)
			// By rounds and not by the clock: as far as 5 s go on a quiet machine.
			if r := solved(t, j, nest.Effort{Seconds: 600, Rounds: 100, Workers: 2}); len(r.Sheets) == c.sheets {
				found++
			}
		}
		if found < c.least {
			t.Errorf("%d sheets in %d pieces: %d of %d came together", c.sheets, c.pieces, found, of)
		}
	}
}

// Gaps are kept, papers with an up are not turned, and what a hole is large enough for may lie in it.
func TestWhatMayBe(t *testing.T) {
	for _, gap := range []float64{0.5, 1.5, 3} {
		j := jigsaw.Job(rand.New(rand.NewSource(5)), 2, 10)
		j.Gap = gap
		solved(t, j, nest.Effort{Rounds: 2, Seconds: 20})
	}
	up := &nest.Job{Sheets: []nest.Sheet{square(150)}, Pieces: []nest.Piece{{Name: "ell", Outline: ell(100), Copies: 4, Turns: []int{0}}}}
	for _, l := range solved(t, up, nest.Effort{Rounds: 2, Seconds: 20}).Sheets {
		for _, p := range l.Placed {
			if p.Turn != 0 {
				t.Errorf("a paper with an up lies turned by %d", p.Turn)
			}
		}
	}
	frame := nest.Piece{Name: "frame", Outline: rect(100, 100), Holes: [][]pattern.Point{{pattern.Pt(20, 20), pattern.Pt(80, 20), pattern.Pt(80, 80), pattern.Pt(20, 80)}}, Copies: 1, Turns: nest.Quarters}
	in := &nest.Job{Sheets: []nest.Sheet{square(100)}, Pieces: []nest.Piece{frame, {Name: "in it", Outline: rect(60, 60), Copies: 1, Turns: nest.Quarters}}}
	if r := solved(t, in, nest.Effort{Seconds: 5}); len(r.Sheets) != 1 {
		t.Errorf("%d sheets, and the square fits into the frame", len(r.Sheets))
	}
	in.Gap = 1
	if r := solved(t, in, nest.Effort{Rounds: 3, Seconds: 5}); len(r.Sheets) != 2 {
		t.Errorf("%d sheets, and with a gap the square does not fit into the frame", len(r.Sheets))
	}
}

// A kept offcut of any shape is used first, and nothing lies where it lacks something.
func TestAnOffcutIsUsedFirst(t *testing.T) {
	kept := square(200)
	kept.Name, kept.Count, kept.Offcut, kept.Outline = "offcut", 1, true, ell(200)
	j := &nest.Job{Sheets: []nest.Sheet{kept, square(300)}, Pieces: []nest.Piece{
		{Name: "long", Outline: rect(95, 195), Copies: 1, Turns: nest.Quarters},
		{Name: "small", Outline: rect(90, 90), Copies: 1, Turns: nest.Quarters},
	}}
	r := solved(t, j, nest.Effort{Seconds: 2})
	if len(r.Sheets) != 1 || r.Sheets[0].Sheet.Name != "offcut" || r.Cost != 0 {
		t.Errorf("%+v", r)
	}
	j.Pieces[1].Copies = 2
	if r = solved(t, j, nest.Effort{Rounds: 2, Seconds: 5}); len(r.Sheets) != 2 || len(r.Sheets[0].Placed) != 2 {
		t.Errorf("%+v", r)
	}
}

// What is left in one piece and takes a square of 40 mm is told with its outline.
func TestOffcutsHaveAnOutline(t *testing.T) {
	j := &nest.Job{Sheets: []nest.Sheet{square(200)}, Pieces: []nest.Piece{{Name: "square", Outline: rect(130, 130), Copies: 1, Turns: nest.Quarters}}}
	r := solved(t, j, nest.Effort{Seconds: 1})
	if len(r.Sheets[0].Offcuts) != 1 {
		t.Fatalf("%+v", r.Sheets[0])
	}
	o := r.Sheets[0].Shapes[0]
	if area := pattern.Area(o); len(o) != 6 || area*area < 23099*23099 || area*area > 23101*23101 {
		t.Errorf("%v, of %g mm²; want 200² − 130²", o, area)
	}
	j.Pieces[0].Outline = rect(165, 165) // 35 mm is left: nothing to keep
	if r = solved(t, j, nest.Effort{Seconds: 1}); len(r.Sheets[0].Offcuts) != 0 {
		t.Errorf("%+v", r.Sheets[0].Offcuts)
	}
}

// A search that somebody ends gives what it has, soon.
func TestASearchStops(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	j := jigsaw.Job(rand.New(rand.NewSource(9)), 6, 42)
	var stopped time.Time
	r, err := nest.Solve(ctx, j, nest.Effort{Seconds: 60, Better: func(*layout.Result) {
		if stopped.IsZero() {
			stopped = time.Now()
			stop()
		}
	}})
	if err != nil || len(r.Sheets) == 0 || j.Wrong(r) != "" {
		t.Errorf("%+v, %v", r, err)
	}
	if took := time.Since(stopped); took > 30*time.Second {
		t.Errorf("it went on for %v", took)
	}
}

// The same job, seed and rounds give the same layout.
func TestTheSameAgain(t *testing.T) {
	j := jigsaw.Job(rand.New(rand.NewSource(3)), 3, 15)
	a, b := solved(t, j, nest.Effort{Rounds: 2, Seconds: 60, Seed: 4}), solved(t, j, nest.Effort{Rounds: 2, Seconds: 60, Seed: 4})
	if !reflect.DeepEqual(a.Sheets, b.Sheets) {
		t.Error("twice the same, and two layouts")
	}
}

// Two pieces that share no sheet are not laid on one, which bounds the number of sheets.
func TestTheBound(t *testing.T) {
	j := &nest.Job{Sheets: []nest.Sheet{square(100)}, Pieces: []nest.Piece{{Name: "a", Outline: rect(60, 60), Copies: 3, Turns: nest.Quarters}, {Name: "b", Outline: rect(40, 40), Copies: 2, Turns: nest.Quarters}}}
	if r := solved(t, j, nest.Effort{Seconds: 2}); r.Bound.Sheets != 3 || r.Bound.How != "no two of these share a sheet" || len(r.Sheets) != 3 {
		t.Errorf("%+v", r)
	}
}

func BenchmarkJigsaw(b *testing.B) {
	for _, size := range [][2]int{{2, 10}, {4, 24}} {
		b.Run(fmt.Sprintf("%d sheets in %d", size[0], size[1]), func(b *testing.B) {
			for i := range b.N {
				j := jigsaw.Job(rand.New(rand.NewSource(int64(i))), size[0], size[1])
				if _, err := nest.Solve(b.Context(), j, nest.Effort{Seconds: 5}); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
