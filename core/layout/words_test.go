package layout

import (
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/paper"
)

// Each cut says which part it parts, which way and what comes off: a sheet cut
// into two pieces and an offcut by hand.
func TestCutsInWords(t *testing.T) {
	const mm = measure.Millimetre
	l := Laid{
		Sheet:  paper.Sheet{Width: 200 * mm, Height: 100 * mm},
		Placed: []Placed{{Rect: Rect{0, 0, 80 * mm, 60 * mm}, Piece: 0}, {Rect: Rect{80 * mm, 0, 80 * mm, 60 * mm}, Piece: 1}},
		Cuts: []Cut{
			{N: 1, Part: "1", At: 60 * mm}, {N: 2, Part: "1.1", Across: true, At: 80 * mm}, {N: 3, Part: "1.1.2", Across: true, At: 80 * mm},
		},
	}
	got := l.Words(func(n int) string { return []string{"base", "lid"}[n] }, func(x measure.Length) string { return measure.Label(x, measure.MM, measure.Tick(mm)) })
	want := []string{
		"the sheet, 60 mm from its top edge: base; lid | offcut",
		"what lies above cut 1, 80 mm from its left edge: base | lid",
		"what lies right of cut 2, 80 mm from its left edge: lid | offcut",
	}
	if strings.Join(got, "\n") != strings.Join(want, "\n") {
		t.Errorf("told as\n%s", strings.Join(got, "\n"))
	}
}
