package recipe

import (
	"strings"
	"testing"
)

// Steps of one's own come where they are said to: before all, after the last of a kind, of one
// piece or of the whole, after a step by its key; at one place in their order; numbered anew.
func TestWhereOwnStepsCome(t *testing.T) {
	steps := []Step{
		{Key: "cut/base", Piece: "base", Kind: Cut, Group: "Base"}, {Key: "score/base", Piece: "base", Kind: Score, Group: "Base"},
		{Key: "fold/base", Piece: "base", Kind: Fold, Group: "Base"}, {Key: "glue/base", Piece: "base", Kind: Glue, Group: "Base"},
		{Key: "like", Group: "Lid", Inner: []Step{{Key: "cut/lid", Piece: "lid", Kind: Cut}, {Key: "fold/lid", Piece: "lid", Kind: Fold}}},
		{Key: "fill", Kind: Fill, Group: "Put together"},
	}
	for _, c := range []struct {
		own  []Own
		want string // the order, an own step by its text
	}{
		{[]Own{{1, "a", AtStart, "", 0, nil}}, "a cut/base score/base fold/base glue/base like fill"},
		{[]Own{{1, "a", AfterCut, "base", 0, nil}}, "cut/base a score/base fold/base glue/base like fill"},
		{[]Own{{1, "a", AfterCut, "", 0, nil}}, "cut/base score/base fold/base glue/base like a fill"},
		{[]Own{{1, "a", AfterScore, "base", 0, nil}, {2, "b", AfterScore, "base", 0, nil}}, "cut/base score/base a b fold/base glue/base like fill"},
		{[]Own{{1, "a", AfterGlue, "base", 0, nil}}, "cut/base score/base fold/base glue/base a like fill"},
		{[]Own{{1, "a", AfterGlue, "lid", 0, nil}}, "cut/base score/base fold/base glue/base like a fill"},
		{[]Own{{1, "a", AtEnd, "", 0, nil}, {2, "b", AtEnd, "", 0, nil}}, "cut/base score/base fold/base glue/base like fill a b"},
		{[]Own{{1, "a", "fold/base", "", 0, nil}}, "cut/base score/base fold/base a glue/base like fill"},
		{[]Own{{1, "a", "fold/lid", "", 0, nil}}, "cut/base score/base fold/base glue/base like a fill"},
		{[]Own{{1, "a", "gone", "base", 0, nil}}, "cut/base score/base fold/base glue/base a like fill"},
		{[]Own{{1, "a", AtStart, "lid", 0, nil}, {2, "b", AtStart, "lid", 0, nil}}, "cut/base score/base fold/base glue/base a b like fill"},
	} {
		out := WithOwn(steps, c.own)
		var got []string
		for i, s := range out {
			if s.N != i+1 {
				t.Errorf("step %d is numbered %d", i+1, s.N)
			}
			if got = append(got, s.Key); s.Move == "own" {
				got[i] = s.Text
			}
		}
		if order := strings.Join(got, " "); order != c.want {
			t.Errorf("%+v\ncome as %s\nnot as %s", c.own, order, c.want)
		}
	}
	if out := WithOwn(steps, []Own{{7, "Ink the edges", AfterCut, "base", 2, nil}}); out[1].Seconds != 120 || out[1].Group != "Base" || out[1].Key != "own/7" || steps[1].Key != "score/base" {
		t.Errorf("it is %+v", out[1])
	}
}
