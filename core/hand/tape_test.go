package hand

import (
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// woven is a card of 90 × 90 mm whose corner squares of 30 mm get tape along their upper edge and
// are stuck to the middle of the upper row.
func woven(change func([]Move) []Move) error {
	tape := func(x float64) []pattern.Point { return box(x, 0, 30, 10) }
	stick := Stick{
		Way: Weave, OntoOutside: true,
		What: Parts{Noun: "strip", At: []pattern.Point{pattern.Pt(15, 15), pattern.Pt(75, 15)}},
		Onto: Parts{Noun: "wall", At: []pattern.Point{pattern.Pt(45, 15), pattern.Pt(45, 15)}},
	}
	moves := []Move{
		Cut{Width: mm(90), Height: mm(90)}, ScoreFour{At: []measure.Length{mm(30)}}, LayTape{Strips: [][]pattern.Point{tape(0), tape(60)}},
		Slit{Runs: []Run{{Top, 0, 1}, {Top, 1, 1}}}, FoldAll{}, stick,
	}
	table, err := Do(Work{Piece: "basket", Moves: change(moves)})
	if err != nil {
		return err
	}
	return table.Peeled()
}

func TestTapeIsLaidBeforeTheSlitAndPeeled(t *testing.T) {
	for _, c := range []struct {
		what   string
		change func([]Move) []Move
		says   string
	}{
		{"as told", func(m []Move) []Move { return m }, ""},
		{"no tape", func(m []Move) []Move { return append(m[:2:2], m[3:]...) }, "no tape lies on the part"},
		{"tape on one side alone", func(m []Move) []Move {
			m[2] = LayTape{Strips: m[2].(LayTape).Strips[:1]}
			return m
		}, "no tape lies on the part"},
		{"the backing left on", func(m []Move) []Move {
			s := m[5].(Stick)
			s.What.At, s.Onto.At = s.What.At[:1], s.Onto.At[:1]
			m[5] = s
			return m
		}, "the backing is left on"},
		{"after it is folded", func(m []Move) []Move { m[2], m[4] = m[4], m[2]; return m }, "folded already"},
		{"over a slit", func(m []Move) []Move {
			m[2] = LayTape{Strips: [][]pattern.Point{box(0, 0, 90, 10)}}
			m[2], m[3] = m[3], m[2]
			return m
		}, "slit already"},
	} {
		err := woven(c.change)
		if c.says == "" && err != nil || c.says != "" && (err == nil || !strings.Contains(err.Error(), c.says)) {
			t.Errorf("%s: %v; want %q", c.what, err, c.says)
		}
	}
}
