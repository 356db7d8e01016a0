package nest_test

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/nest"
)

// told are the cuts of the only sheet of a job that is laid by a hand.
func told(t *testing.T, j *nest.Job) string {
	t.Helper()
	r := solved(t, j, nest.Effort{Rounds: 1, Seconds: 5})
	l := r.Sheets[0]
	return strings.Join(l.Words(func(n int) string { return j.Pieces[n].Name }, func(x measure.Length) string { return fmt.Sprint(x.MM()) }), "\n")
}

// byHand is a sheet on which each piece is held at a place.
func byHand(w, h float64, pieces ...[4]float64) *nest.Job {
	j := &nest.Job{Sheets: []nest.Sheet{square(w)}, Held: []layout.Held{{}}}
	j.Sheets[0].Height = measure.FromMM(h)
	for i, p := range pieces {
		j.Pieces = append(j.Pieces, nest.Piece{Name: string(rune('a' + i)), Outline: rect(p[2], p[3]), Copies: 1, Turns: nest.Quarters})
		j.Held[0].Pieces = append(j.Held[0].Pieces, layout.Placed{Piece: i, Copy: 1, Rect: layout.Rect{X: measure.FromMM(p[0]), Y: measure.FromMM(p[1]), Width: measure.FromMM(p[2]), Height: measure.FromMM(p[3])}})
	}
	return j
}

// Two over two are parted in the middle and then each row; what is locked into one another, by no
// straight cut; what lies in a hole goes with what is round it.
func TestRoughCuts(t *testing.T) {
	want := "the sheet, 50 from its top edge: a; b | c; d\nwhat lies above cut 1, 40 from its left edge: a | b\nwhat lies below cut 1, 70 from its left edge: c | d"
	if got := told(t, byHand(100, 100, [4]float64{0, 0, 40, 50}, [4]float64{40, 0, 60, 50}, [4]float64{0, 50, 70, 50}, [4]float64{70, 50, 30, 50})); got != want {
		t.Errorf("%s", got)
	}
	// A pinwheel round a hole, which no straight cut parts.
	wheel := [][4]float64{{0, 0, 60, 40}, {60, 0, 40, 60}, {40, 60, 60, 40}, {0, 40, 40, 60}}
	if got := told(t, byHand(100, 100, wheel...)); got != "" {
		t.Errorf("%s", got)
	}
	if got := told(t, byHand(200, 100, append(wheel, [4]float64{100, 0, 100, 100})...)); got != "the sheet, 100 from its left edge: a; and 3 kinds more | e" {
		t.Errorf("%s", got)
	}
}

// A sheet of 12 × 24 in is cut through in the middle to lie on a mat of 12 × 12, and no piece lies over
// that; with a margin, none within it. A3 lies on A4 in two.
func TestSheetsAreDividedForAMat(t *testing.T) {
	for _, c := range []struct {
		w, h, mw, mh float64
		x, y         int
	}{{304.8, 609.6, 304.8, 304.8, 0, 1}, {304.8, 304.8, 304.8, 304.8, 0, 0}, {297, 420, 210, 297, 0, 1}, {297, 420, 304.8, 304.8, 0, 1}, {640, 900, 304.8, 609.6, 2, 1}} {
		if x, y := nest.OnMat(c.w, c.h, c.mw, c.mh); len(x) != c.x || len(y) != c.y {
			t.Errorf("%v: cut at %v across and %v down", c, x, y)
		}
	}
	for _, margin := range []float64{0, 2} {
		j := &nest.Job{Sheets: []nest.Sheet{square(304.8)}, Machine: true, Trim: margin, Pieces: []nest.Piece{{Name: "ell", Outline: ell(140), Copies: 8, Turns: nest.Quarters}}}
		j.Sheets[0].Height = measure.FromMM(609.6)
		j.Sheets[0].X, j.Sheets[0].Y = nest.OnMat(304.8, 609.6, 304.8, 304.8)
		r := solved(t, j, nest.Effort{Rounds: 3, Seconds: 20})
		cuts := r.Sheets[0].Cuts
		if len(r.Unplaced) > 0 || len(cuts) != 1 || cuts[0].Across || cuts[0].At != measure.FromMM(304.8) {
			t.Errorf("margin %g: %+v", margin, r)
		}
		for _, p := range r.Sheets[0].Placed {
			if at := p.Y.MM(); at < 304.8+margin-1e-6 && at+140 > 304.8-margin+1e-6 {
				t.Errorf("margin %g: a piece at %g lies over the cut", margin, at)
			}
		}
		// One that is longer than the mat goes on no part.
		j.Pieces = append(j.Pieces, nest.Piece{Name: "long", Outline: rect(20, 310), Copies: 1, Turns: nest.Quarters})
		if err := j.Check(); err == nil {
			t.Error("a piece longer than the mat is taken")
		}
	}
}

// What a hand puts somewhere stays there, whatever lies round it; what cannot lie there is refused.
func TestHeldPiecesStay(t *testing.T) {
	held := func(x, y float64, turn int) layout.Placed {
		return layout.Placed{Piece: 0, Copy: 1, Turn: turn, Turned: turn%180 != 0, Rect: layout.Rect{X: measure.FromMM(x), Y: measure.FromMM(y), Width: 100 * measure.Millimetre, Height: 100 * measure.Millimetre}}
	}
	j := &nest.Job{Sheets: []nest.Sheet{square(210)}, Pieces: []nest.Piece{{Name: "ell", Outline: ell(100), Copies: 5, Turns: nest.Quarters}, {Name: "square", Outline: rect(50, 50), Copies: 4, Turns: nest.Quarters}}}
	j.Held = []layout.Held{{Pieces: []layout.Placed{held(37, 55, 90), held(110, 1, 180)}}}
	j.Held[0].Pieces[1].Rect.Y = 0
	r := solved(t, j, nest.Effort{Rounds: 3, Seconds: 20})
	if len(r.Unplaced) > 0 || len(r.Sheets[0].Placed) < 2 {
		t.Errorf("%+v", r)
	}
	// Written and read back it is the same, and the search goes on from it.
	text, err := j.JSON(r, 1)
	if err != nil {
		t.Fatal(err)
	}
	back, err := j.ReadResult(text)
	if err != nil || len(back.Sheets) != len(r.Sheets) || len(back.Sheets[0].Placed) != len(r.Sheets[0].Placed) {
		t.Fatalf("%+v, %v", back, err)
	}
	if on := solved(t, j, nest.Effort{Rounds: 1, Seconds: 5, Start: back}); len(on.Sheets) > len(r.Sheets) {
		t.Errorf("%d sheets after %d", len(on.Sheets), len(r.Sheets))
	}
	j.Held[0].Pieces[0] = held(38, 55, 90)
	if _, err := j.ReadResult(text); err == nil {
		t.Error("a layout is read in which what is held lies elsewhere")
	}
	for why, p := range map[string]layout.Placed{"over another": held(37, 20, 0), "outside": held(150, 0, 0), "turned": held(0, 0, 270)} {
		bad := *j
		bad.Pieces = append([]nest.Piece{}, j.Pieces...)
		bad.Pieces[0].Turns = []int{0, 90, 180}
		bad.Held = []layout.Held{{Pieces: []layout.Placed{held(37, 55, 90), p}}}
		if bad.Check() == nil {
			t.Errorf("%s: taken", why)
		}
	}
}
