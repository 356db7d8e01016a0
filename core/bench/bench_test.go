package bench_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
)

func movesOf(t *testing.T, styleID string, unit measure.Unit, fence recipe.Fence, copies int) (*design.Result, []bench.Move) {
	t.Helper()
	in := design.New("x", unit, styleID)
	in.Tools.Fence, in.Copies = fence, copies
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r, bench.Moves(r)
}

// Every step of every style comes up once, its moves and copies numbered: what is cut
// first, the rest in its order. The time of the moves is that of the steps. The
// grooves that are lit are all those of the pattern on each copy, each from an edge
// that it is counted from; and every cut of the sheets is made once.
func TestMovesOfEveryStyle(t *testing.T) {
	for n, s := range style.Boxes() {
		fence, copies := []recipe.Fence{recipe.Left, recipe.Right}[n%2], 1+n%3
		r, moves := movesOf(t, s.ID, measure.In, fence, copies)
		var order []string
		lit := map[string]int{}
		seconds, cuts := 0.0, 0
		for i, m := range moves {
			if m.N == 1 && m.Copy == 1 {
				order = append(order, m.Step.Key)
			} else if was := moves[i-1]; was.Step.Key != m.Step.Key || was.Last() ||
				m.N != was.N%was.Of+1 || m.N > 1 && m.Copy != was.Copy || m.N == 1 && m.Copy != was.Copy+1 {
				t.Errorf("%s: move %d, %d of %d, copy %d of %d, is out of turn", s.ID, i, m.N, m.Of, m.Copy, m.Copies)
			}
			if m.Last() && i+1 < len(moves) && moves[i+1].Step.Key == m.Step.Key {
				t.Errorf("%s: %s goes on after its last move", s.ID, m.Step.Key)
			}
			if strings.TrimSpace(m.Says) == "" {
				t.Errorf("%s: move %d says nothing", s.ID, i)
			}
			seconds += m.Seconds
			if m.Trim != nil {
				cuts++
			}
			if m.Groove != nil {
				lit[m.Part.Piece]++
				if !onPattern(r, m, fence) {
					t.Errorf("%s: %s is no groove of the %s", s.ID, m.Says, m.Part.Piece)
				}
			}
		}
		// What is cut comes first, also of pieces that are told in one sentence.
		var want, cutFirst []string
		for _, st := range recipe.Flat(r.Steps) {
			if st.Kind == recipe.Cut {
				cutFirst = append(cutFirst, st.Key)
			}
		}
		for _, st := range r.Steps {
			if st.Kind != recipe.Cut {
				want = append(want, st.Key)
			}
		}
		if k := len(cutFirst); !slices.Equal(order[k:], want) || !slices.Equal(slices.Sorted(slices.Values(order[:k])), slices.Sorted(slices.Values(cutFirst))) {
			t.Errorf("%s: the steps come up as %v, not %v", s.ID, order, want)
		}
		if math.Abs(seconds-60*r.All) > 1e-6 {
			t.Errorf("%s: the moves take %v s, the steps %v", s.ID, seconds, 60*r.All)
		}
		all := 0
		for _, st := range r.Stocks {
			for _, l := range st.Layout.Sheets {
				all += len(l.Cuts)
			}
		}
		if cuts != all {
			t.Errorf("%s: %d of %d cuts come up", s.ID, cuts, all)
		}
		for _, l := range r.Scores {
			want := 0
			for _, p := range l.Passes {
				n := len(p.At)
				if p.Edge == recipe.EachEdge {
					n *= 4
				}
				want += n
			}
			i := slices.IndexFunc(r.Parts, func(p design.Part) bool { return p.ID == l.Piece })
			want *= copies * r.Parts[i].Copies()
			if lit[l.Piece] != want {
				t.Errorf("%s: %d grooves of %d of the %s are lit", s.ID, lit[l.Piece], want, l.Piece)
			}
		}
	}
}

// A blank is told to be free when every sheet that holds one of it is cut that far,
// and not before; a part is there before it is cut, and the fence is told to stay
// only where it stood.
func TestCutsInTheirOrder(t *testing.T) {
	for _, id := range []string{"tray-lid", "tower", "hinged-carton", "corner-shells"} {
		r, moves := movesOf(t, id, measure.MM, recipe.Left, 7)
		type part struct {
			stock, sheet int
			layout.Rect
		}
		there := map[part]bool{}
		for n, st := range r.Stocks {
			for i, l := range st.Layout.Sheets {
				there[part{n, i, layout.Rect{Width: l.Sheet.Width, Height: l.Sheet.Height}}] = true
			}
		}
		var fence measure.Length
		for _, m := range moves {
			if c := m.Trim; c != nil {
				whole := part{c.Stock, c.Sheet, c.Whole}
				if !there[whole] {
					t.Fatalf("%s: %s: that part is not there", id, m.Head)
				}
				delete(there, whole)
				there[part{c.Stock, c.Sheet, c.Near}], there[part{c.Stock, c.Sheet, c.Far}] = true, true
				if !c.Set && c.At != fence {
					t.Errorf("%s: the fence is not at %v: %s", id, c.At, m.Says)
				}
				fence = c.At
				if want := c.Near.Width; c.Edge == "left" && want != c.At {
					t.Errorf("%s: cut at %v leaves %v", id, c.At, want)
				}
				continue
			}
			if m.Step.Kind != recipe.Cut || !strings.HasSuffix(m.Head, " cut out") {
				continue
			}
			for n, st := range r.Stocks {
				for i, l := range st.Layout.Sheets {
					for _, p := range l.Placed {
						if blank := st.Job.Pieces[p.Piece]; "cut/"+blank.Name == m.Step.Key && !there[part{n, i, p.Rect}] {
							t.Errorf("%s: %s %d is not free yet", id, blank.Name, p.Copy)
						}
					}
				}
			}
		}
	}
}

// By hand: three cartons are gone through one after the other in each step, and all
// of them can be skipped to the end of it.
func TestCopiesInTurn(t *testing.T) {
	_, moves := movesOf(t, "hinged-carton", measure.In, recipe.Left, 3)
	at := slices.IndexFunc(moves, func(m bench.Move) bool { return m.Step.Kind == recipe.Score })
	each := moves[at].Of
	for k := range 3 * each {
		if m := moves[at+k]; m.Copy != k/each+1 || m.N != k%each+1 || m.Step.Kind != recipe.Score {
			t.Errorf("move %d of scoring is %d of copy %d", k, m.N, m.Copy)
		}
	}
	if told := moves[at+each].Counted(); !strings.HasSuffix(told, " 2 of 3") {
		t.Errorf("the second is told as %q", told)
	}
	if end := bench.AllOf(moves, at+1); end != at+3*each {
		t.Errorf("all of them end at %d, not %d", end, at+3*each)
	}
	if end := bench.AllOf(moves, len(moves)-1); end != len(moves) {
		t.Errorf("the last ends at %d of %d", end, len(moves))
	}
}

// onPattern reports whether a groove read from an edge is a line of the pattern.
func onPattern(r *design.Result, m bench.Move, fence recipe.Fence) bool {
	for _, p := range r.Parts {
		if p.ID != m.Part.Piece {
			continue
		}
		at, lines, whole := m.Groove.At-m.Groove.Shim, p.Pattern.Scores.Vertical, p.Pattern.Width
		if m.Groove.Edge == "top" || m.Groove.Edge == "bottom" {
			lines, whole = p.Pattern.Scores.Horizontal, p.Pattern.Height
		}
		for _, l := range lines {
			near := l
			if m.Groove.Edge == "right" || m.Groove.Edge == "bottom" {
				near = whole - l
			}
			if (near - at).Abs() <= measure.Micrometre {
				return true
			}
		}
	}
	return false
}

// By hand: a base with a lid of one number each is scored four times, turned a
// quarter after each; on a board with its fence on the right the right edge is first.
func TestGroovesByHand(t *testing.T) {
	for fence, want := range map[recipe.Fence]string{recipe.Left: "left top right bottom", recipe.Right: "right top left bottom"} {
		_, moves := movesOf(t, "tray-lid", measure.In, fence, 1)
		var got []string
		for _, m := range moves {
			if m.Groove != nil && m.Step.Piece == "base" {
				got = append(got, m.Groove.Edge)
				if m.Groove.Turn != (len(got) > 1) || m.Groove.Turn != strings.HasPrefix(m.Says, "Turn the card") {
					t.Errorf("%s edge: turned %v: %s", m.Groove.Edge, m.Groove.Turn, m.Says)
				}
				if m.Groove.Turned != len(got)-1 {
					t.Errorf("%s edge after %d turns", m.Groove.Edge, m.Groove.Turned)
				}
			}
		}
		if strings.Join(got, " ") != want {
			t.Errorf("fence %s: %v", fence, got)
		}
	}
}

func TestFrom(t *testing.T) {
	_, moves := movesOf(t, "tray", measure.MM, recipe.Left, 1)
	if at := bench.From(moves, func(recipe.Step) bool { return false }); at != 0 {
		t.Errorf("nothing done, one begins at %d", at)
	}
	cut := func(s recipe.Step) bool { return s.Kind == recipe.Cut }
	if at := bench.From(moves, cut); moves[at].Step.Kind == recipe.Cut || moves[at].N != 1 {
		t.Errorf("all cut, one begins at %+v", moves[at])
	}
	if at := bench.From(moves, func(recipe.Step) bool { return true }); at != len(moves) {
		t.Errorf("all done, one is at %d of %d", at, len(moves))
	}
}

// What is cut with scissors is parted by its straight cuts first, and then cut out piece by piece; for a
// machine the sheets that are larger than its mat are.
func TestMovesOfWhatIsCutByShape(t *testing.T) {
	for _, c := range []struct {
		with, machine, says string
		cuts                bool
	}{{"scissors", "", "Draw round the template of the base", false}, {"machine", `,"machine":{"mat":"210x305"}`, "Let the machine score", true}} {
		in, err := design.Read([]byte(`{"brevium":1,"units":"in","style":"tray-lid","copies":6,"size":{"length":"3 in","width":"3 in","height":"2 in"},"tools":{"with":"` + c.with + `"` + c.machine + `}}`))
		if err != nil {
			t.Fatal(err)
		}
		r, err := design.Make(t.Context(), in)
		if err == nil {
			r, err = r.ByShape(t.Context(), 1)
		}
		if err != nil {
			t.Fatal(err)
		}
		want, got := 0, 0
		for _, s := range r.Stocks {
			for _, l := range s.Layout.Sheets {
				want += len(l.Cuts)
			}
		}
		said, seconds := false, 0.0
		for _, m := range bench.Moves(r) {
			if m.Trim != nil {
				got++
			}
			said = said || strings.Contains(m.Says, c.says)
			seconds += m.Seconds
		}
		if got != want || c.cuts != (want > 0) || !said {
			t.Errorf("%s: %d of %d straight cuts; said: %v", c.with, got, want, said)
		}
		if all := recipe.Seconds(recipe.Flat(r.Steps), 6); math.Abs(seconds-all) > 1 {
			t.Errorf("%s: the moves take %g s, the steps %g", c.with, seconds, all)
		}
	}
}
