package layout

import (
	"slices"
	"testing"
)

// Every strip of a tree can be taken out: what is taken is the nth on the way through, and no piece is
// lost or there twice.
func TestEachStripIsTakenOut(t *testing.T) {
	leaf := func(piece int) *strip { return &strip{piece: piece} }
	of := func(across bool, kids ...*strip) *strip { return &strip{piece: -1, across: across, kids: kids} }
	tree := func() *strip {
		return of(true, leaf(0), of(false, leaf(1), of(true, leaf(2), leaf(3)), leaf(4)), leaf(5), of(false, leaf(6), leaf(7)))
	}
	var inOrder []*strip
	var walk func(s *strip)
	walk = func(s *strip) {
		inOrder = append(inOrder, s)
		for _, k := range s.kids {
			walk(k)
		}
	}
	for n := range tree().count() {
		whole := tree()
		inOrder = nil
		walk(whole)
		want := inOrder[n].pieces(nil)
		rest, taken := whole.without(n)
		if taken == nil || !slices.Equal(taken.pieces(nil), want) {
			t.Errorf("strip %d: %v is taken; want %v", n, taken, want)
			continue
		}
		left := taken.pieces(nil)
		if rest != nil {
			left = rest.pieces(left)
		}
		if slices.Sort(left); !slices.Equal(left, []int{0, 1, 2, 3, 4, 5, 6, 7}) {
			t.Errorf("strip %d: %v are there", n, left)
		}
	}
}
