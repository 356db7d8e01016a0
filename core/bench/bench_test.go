package bench_test

import (
	"strings"
	"testing"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
)

func movesOf(t *testing.T, styleID string, unit measure.Unit, fence recipe.Fence) (*design.Result, []bench.Move) {
	t.Helper()
	in := design.New("x", unit, styleID)
	in.Tools.Fence = fence
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r, bench.Moves(r.Steps, r.Scores, fence, r.Show, func(l recipe.ScoreList) []string { return l.ShortLines(r.Telling()) })
}

// Every step of every style comes up once, in its place, its moves numbered; and the
// grooves that are lit are all those of the pattern, each from an edge that it is
// counted from.
func TestMovesOfEveryStyle(t *testing.T) {
	for _, s := range style.Boxes() {
		for _, fence := range []recipe.Fence{recipe.Left, recipe.Right} {
			r, moves := movesOf(t, s.ID, measure.In, fence)
			step := 0
			lit := map[string]int{}
			for i, m := range moves {
				if m.N == 1 {
					if step >= len(r.Steps) || m.Step.Key != r.Steps[step].Key {
						t.Fatalf("%s: move %d is of %s, out of turn", s.ID, i, m.Step.Key)
					}
					step++
				}
				if m.N < 1 || m.N > m.Of || m.N > 1 && (moves[i-1].N != m.N-1 || moves[i-1].Step.Key != m.Step.Key) {
					t.Errorf("%s: move %d is %d of %d", s.ID, i, m.N, m.Of)
				}
				if strings.TrimSpace(m.Says) == "" {
					t.Errorf("%s: move %d says nothing", s.ID, i)
				}
				if m.Groove != nil {
					lit[m.Step.Piece]++
					if !onPattern(r, m, fence) {
						t.Errorf("%s: %s is no groove of the %s", s.ID, m.Says, m.Step.Piece)
					}
				}
			}
			if step != len(r.Steps) {
				t.Errorf("%s: %d of %d steps come up", s.ID, step, len(r.Steps))
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
				if told := lit[l.Piece]; told != want && told != 0 { // a piece made like another is told once
					t.Errorf("%s: %d grooves of %d of the %s are lit", s.ID, told, want, l.Piece)
				}
			}
		}
	}
}

// onPattern reports whether a groove read from an edge is a line of the pattern.
func onPattern(r *design.Result, m bench.Move, fence recipe.Fence) bool {
	for _, p := range r.Parts {
		if p.ID != m.Step.Piece {
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
		_, moves := movesOf(t, "tray-lid", measure.In, fence)
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
	_, moves := movesOf(t, "tray", measure.MM, recipe.Left)
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
