package hand

import (
	"slices"
	"strings"
	"testing"
)

// closed is the tray with a magnet under its paper, filled, with two bands crossing round it.
func closed() []Work {
	tray := trayMoves()
	return []Work{
		{Piece: "body", Moves: slices.Concat(tray[:5], []Move{
			Put{Key: "closure/1", Thing: "magnet", On: "body", When: Lying},
			CutPapers{IDs: []string{"over"}, Width: mm(24), Height: mm(64), Count: 1, Copies: 1},
			LayPapers{Papers: []Laid{{ID: "over", Outline: box(3, 33, 24, 64), Layer: 1}}, Layer: 1},
		}, tray[5:])},
		{Piece: "band", Moves: []Move{Cut{Width: mm(300), Height: mm(20)}}},
		{Piece: "band across", Moves: []Move{Cut{Width: mm(280), Height: mm(20)}}},
		{Piece: "divider", Moves: []Move{Cut{Width: mm(70), Height: mm(20)}}},
		{Moves: []Move{
			Put{Thing: "divider", When: Empty, Uses: []string{"divider"}},
			Fill{Into: "body"},
			Put{Thing: "band", When: Closed, Uses: []string{"band"}},
			Put{Thing: "band across", When: Closed, Uses: []string{"band across"}, After: []string{"band"}},
		}},
	}
}

func things(works []Work) error {
	table, err := Do(works...)
	if err != nil {
		return err
	}
	return table.Things([]string{"magnet", "divider", "band", "band across"}, []string{"divider", "band", "band across"})
}

func TestWhatIsPutIsThereOnce(t *testing.T) {
	if err := things(closed()); err != nil {
		t.Fatal(err)
	}
	change := func(work int, f func([]Move) []Move) []Work {
		all := closed()
		all[work].Moves = f(slices.Clone(all[work].Moves))
		return all
	}
	swap := func(i, k int) func([]Move) []Move {
		return func(m []Move) []Move { m[i], m[k] = m[k], m[i]; return m }
	}
	without := func(i int) func([]Move) []Move { return func(m []Move) []Move { return slices.Delete(m, i, i+1) } }
	for _, c := range []struct {
		what  string
		works []Work
		says  string
	}{
		{"a magnet over its paper", change(0, func(m []Move) []Move { m[5], m[6], m[7] = m[6], m[7], m[5]; return m }), "would not hide"},
		{"a magnet in a tray that stands", change(0, func(m []Move) []Move { m[5], m[8] = m[8], m[5]; return m }), "does not lie flat"},
		{"no magnet", change(0, without(5)), "put nowhere"},
		{"a divider in a full box", change(4, swap(0, 1)), "filled already"},
		{"a band round an empty box", change(4, swap(1, 2)), "not filled and closed"},
		{"the upper band first", change(4, swap(2, 3)), "goes under"},
		{"one band twice", change(4, func(m []Move) []Move { return append(m, m[2]) }), "put on already"},
		{"a band of the other's card", change(4, func(m []Move) []Move {
			m[3] = Put{Thing: "band across", When: Closed, Uses: []string{"band"}, After: []string{"band"}}
			return m
		}), "used up already"},
		{"no band", change(4, without(3)), "put nowhere"},
		{"a band that is not cut", change(2, without(0)), "not cut yet"},
		{"a thing that nobody asked for", change(4, func(m []Move) []Move { return append(m, Put{Thing: "bell", When: Closed}) }), "is none of it"},
		{"a divider that is cut and lies there", change(4, func(m []Move) []Move { m[0] = Put{Thing: "divider", When: Empty}; return m }), "never used"},
	} {
		if err := things(c.works); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v; want %q", c.what, err, c.says)
		}
	}
	if _, err := Do(Work{Piece: "none", Moves: []Move{Put{Thing: "magnet", On: "none", When: Lying}}}); err == nil {
		t.Error("a magnet is put on card that is not cut")
	}
}
