package style

import (
	"strings"
	"testing"

	"brevium/core/measure"
)

// By hand: in a double-walled tray two tabs are glued inside each of two walls, and the second
// wall that rolls over them lies two cards off the first; on the other two walls there is no tab,
// and it lies one card off.
func TestWhatRollsOverTabsLiesTwoCardsOff(t *testing.T) {
	b, err := trayDouble.Make(usual(trayDouble, nil, nil))
	if err != nil {
		t.Fatal(err)
	}
	p := b.Parts[0]
	folded, err := p.Pattern.Finished(p.Root)
	if err != nil {
		t.Fatal(err)
	}
	off := map[int]int{}
	for i, level := range folded.Levels(p.Pattern) {
		if name := folded.Faces[i].Name; strings.Contains(name, "inner") || strings.Contains(name, "lining") {
			off[max(level, -level)]++
		}
	}
	if off[1] != 2 || off[2] != 2 || len(off) != 2 {
		t.Errorf("second walls lie so many cards off: %v", off)
	}
}

// By hand: the second wall of a tray 1 in high is 1 in high too, or one card of 0.3 mm lower,
// which is cut as 1/16 in, at either end of the blank.
func TestASecondWallIsOneCardLower(t *testing.T) {
	high := func(inner string) measure.Length {
		b, err := trayDouble.Make(usual(trayDouble, map[string]measure.Length{"height": measure.Inch}, map[string]string{"walls.inner": inner}))
		if err != nil {
			t.Fatal(err)
		}
		return b.Parts[0].Pattern.Width
	}
	if got := high("full") - high("less-thickness"); got != measure.Inch/8 {
		t.Errorf("one card lower at both ends takes %v of the blank", got)
	}
}
