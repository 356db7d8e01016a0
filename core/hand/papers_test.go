package hand

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/pattern"
)

// box is a rectangle on the flat piece, mm.
func box(x, y, w, h float64) []pattern.Point {
	return []pattern.Point{pattern.Pt(x, y), pattern.Pt(x+w, y), pattern.Pt(x+w, y+h), pattern.Pt(x, y+h)}
}

// The tray of 160 × 130 mm with a paper on its left wall, 24 × 64 mm, that has another of
// 20 × 60 mm on it; a round window of 10 mm lies under both.
func papered(without int) []Move {
	window := pattern.Circle(pattern.Pt(15, 65), 5)
	under := LayPapers{Papers: []Laid{{ID: "under", Outline: box(3, 33, 24, 64), Layer: 1}}, Layer: 1, Places: []string{"left wall"}}
	upper := LayPapers{Papers: []Laid{{ID: "upper", Outline: box(5, 35, 20, 60), Layer: 2}}, Layer: 2, Places: []string{"left wall"}}
	tray := trayMoves()
	moves := slices.Concat(tray[:5], []Move{
		Bite{Loops: []pattern.Loop{window}},
		CutPapers{IDs: []string{"under"}, Width: mm(24), Height: mm(64), Count: 1, Copies: 1},
		under,
		CutPapers{IDs: []string{"upper"}, Width: mm(20), Height: mm(60), Count: 1, Copies: 1},
		upper,
		CutThrough{At: []pattern.Loop{window}, Kind: "window"},
	}, tray[5:])
	moves[4], moves[5] = moves[5], moves[4] // the window is cut while the card is flat
	if without >= 0 {
		moves = slices.Delete(moves, without, without+1)
	}
	return moves
}

// papers does the moves and holds what lies on the tray against the two papers.
func papers(moves []Move) error {
	table, err := Do(Work{Piece: "body", Moves: moves})
	if err != nil {
		return err
	}
	window := pattern.Circle(pattern.Pt(15, 65), 5)
	return table.Papers(map[string][]Laid{"body": {
		{ID: "under", Outline: box(3, 33, 24, 64), Layer: 1}, {ID: "upper", Outline: box(5, 35, 20, 60), Layer: 2},
	}}, map[string][]pattern.Loop{"body": {window}})
}

func TestPapersLieWhereTheyBelong(t *testing.T) {
	if err := papers(papered(-1)); err != nil {
		t.Fatal(err)
	}
	lay := func(n int, change func(*LayPapers)) []Move {
		moves := papered(-1)
		m := moves[n].(LayPapers)
		m.Papers = slices.Clone(m.Papers)
		change(&m)
		moves[n] = m
		return moves
	}
	put := func(from, to int) []Move {
		moves := papered(-1)
		m := moves[from]
		return slices.Insert(slices.Delete(moves, from, from+1), to, m)
	}
	for _, c := range []struct {
		what  string
		moves []Move
		says  string
	}{
		{"never cut", papered(6), "not cut"},
		{"never glued", papered(9), "no paper covers|cut and never glued on|covers what"},
		{"without what is under it", papered(7), "no layer 1 under"},
		{"not cut through", papered(10), "covers what is cut out"},
		{"over the edge where tabs came off", lay(7, func(m *LayPapers) { m.Papers[0].Outline = box(3, 0, 24, 64) }), "hangs over"},
		{"larger than what is under it", lay(9, func(m *LayPapers) { m.Papers[0].Outline = box(2, 35, 28, 60) }), "no layer 1 under"},
		{"in another place", lay(9, func(m *LayPapers) { m.Papers[0].Outline = box(6, 35, 20, 60) }), "is not on the body"},
		{"after the tray is stuck", put(7, 11), "no layer 1 under|stuck already"},
		{"twice", slices.Insert(papered(-1), 8, papered(-1)[7]), "glued on already"},
		{"on the inside, where tabs are to be stuck", lay(7, func(m *LayPapers) { m.Inside, m.Papers[0].Inside = true, true }), "no layer 1 under"},
	} {
		err := papers(c.moves)
		if err == nil {
			t.Errorf("nobody notices of a paper that it is %s", c.what)
			continue
		}
		if !slices.ContainsFunc(strings.Split(c.says, "|"), func(s string) bool { return strings.Contains(err.Error(), s) }) {
			t.Errorf("of a paper that is %s it is said: %v; want %q", c.what, err, c.says)
		}
	}
}

// Papers inside a wall wait until the tabs are stuck onto it, and go over them.
func TestPapersInsideWaitForTheTabs(t *testing.T) {
	tray := trayMoves()
	cut := CutPapers{IDs: []string{"in"}, Width: mm(24), Height: mm(64), Count: 1, Copies: 1}
	lay := LayPapers{Papers: []Laid{{ID: "in", Outline: box(3, 33, 24, 64), Layer: 1, Inside: true}}, Layer: 1, Inside: true, Late: true}
	if _, err := Do(Work{Piece: "body", Moves: slices.Concat(tray, []Move{cut, lay})}); err != nil {
		t.Error(err)
	}
	lay.Late = false
	if _, err := Do(Work{Piece: "body", Moves: slices.Concat(tray[:5], []Move{cut, lay}, tray[5:])}); err == nil || !strings.Contains(err.Error(), "is to be stuck") {
		t.Errorf("a paper where tabs are stuck: %v", err)
	}
}

// What a strip gives lies within it, and a paper is cut once.
func TestPapersAreCutOnce(t *testing.T) {
	good := CutPapers{IDs: []string{"a", "b"}, Width: mm(100), Height: mm(20), Count: 1, Copies: 1, Strip: []StripPart{{0, mm(40), "front"}, {mm(42), mm(100), "back"}}}
	for what, moves := range map[string][]Move{
		"twice":         {good, good},
		"beyond":        {CutPapers{IDs: good.IDs, Width: mm(90), Height: mm(20), Count: 1, Copies: 1, Strip: good.Strip}},
		"of no size":    {CutPapers{IDs: good.IDs, Height: mm(20), Count: 1, Copies: 1}},
		"onto nothing":  {good, LayPapers{Papers: []Laid{{ID: "a", Outline: box(0, 0, 40, 20), Layer: 1}}, Layer: 1}},
		"through clear": {CutThrough{At: []pattern.Loop{pattern.Circle(pattern.Pt(5, 5), 2)}}},
	} {
		if _, err := Do(Work{Moves: moves}); err == nil {
			t.Errorf("papers cut %s are taken", what)
		}
	}
	if _, err := Do(Work{Moves: []Move{good}}); err != nil {
		t.Error(err)
	}
}

// Film goes behind a window that is cut and that no paper covers, once.
func TestFilmGoesBehindAnOpenWindow(t *testing.T) {
	window := pattern.Circle(pattern.Pt(15, 65), 5)
	film := Pane{Piece: "body", At: window}
	moves := papered(-1)
	through := slices.IndexFunc(moves, func(m Move) bool { _, is := m.(CutThrough); return is })
	if err := papers(slices.Insert(slices.Clone(moves), through+1, Move(film))); err != nil {
		t.Error(err)
	}
	other := film
	other.At = pattern.Circle(pattern.Pt(15, 65), 6)
	for what, moves := range map[string][]Move{
		"a paper":   slices.Insert(slices.Clone(moves), through, Move(film)),
		"card":      slices.Insert(slices.Clone(moves), through+1, Move(other)),
		"more film": slices.Insert(slices.Clone(moves), through+1, Move(film), Move(film)),
	} {
		if err := papers(moves); err == nil {
			t.Errorf("film goes behind %s", what)
		}
	}
}
