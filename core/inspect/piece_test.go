package inspect

import (
	"strings"
	"testing"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// trayPart is a tray with tabs of the given reach inside its ends.
func trayPart(t *testing.T, reach measure.Length) style.Part {
	t.Helper()
	h := 30 * mm
	g := pattern.NewGrid([]measure.Length{h, 90 * mm, h}, []measure.Length{h, 70 * mm, h}, `
		back.left   back   back.right
		left        base   right
		front.left  front  front.right`)
	g.Role(pattern.Panel, g.Face("base"))
	for _, w := range []string{"back", "front"} {
		for _, e := range []string{"left", "right"} {
			tab := g.Face(w + "." + e)
			g.Role(pattern.Tab, tab)
			g.Tab(tab, g.Face(w), reach, 0)
			g.Slit(tab, g.Face(e))
			g.Glue(tab, true, g.Face(e))
		}
	}
	p, err := g.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	return style.Part{ID: "tray", Name: "Tray", Pattern: p, Root: "base"}
}

// look folds a piece, if it can be folded, and inspects it.
func look(p style.Part) []Finding {
	f, err := p.Pattern.Finished(p.Root)
	if err != nil {
		f = nil
	}
	return Piece(p, f)
}

func wantFinding(t *testing.T, all []Finding, id, says string) {
	t.Helper()
	for _, f := range all {
		if f.ID == id && f.Verdict != OK && strings.Contains(f.Text, says) {
			if id != "severed" && id != "closing" && id != "scores-close" && len(f.Where) == 0 {
				t.Errorf("%s is shown nowhere", id)
			}
			return
		}
	}
	t.Errorf("no finding %s saying %q among %+v", id, says, all)
}

func TestASoundTrayIsSound(t *testing.T) {
	all := look(trayPart(t, 30*mm))
	if len(all) != 1 || all[0].Verdict != OK {
		t.Errorf("a sound tray gives %+v", all)
	}
}

func TestANotchOverATab(t *testing.T) {
	p := trayPart(t, 30*mm)
	if err := p.Pattern.Notch("right", pattern.Pt(150, 65), 10); err != nil {
		t.Fatal(err)
	}
	wantFinding(t, look(p), "behind-opening", "the back right lies behind the notch in the right")
	clear := trayPart(t, 20*mm)
	if err := clear.Pattern.Notch("right", pattern.Pt(150, 65), 10); err != nil {
		t.Fatal(err)
	}
	if all := look(clear); Worst(all) != OK {
		t.Errorf("short tabs clear the notch, but: %+v", all)
	}
}

func TestALidLipLongerThanTheWall(t *testing.T) {
	pair := fit.Pair{
		Kind:       fit.LidOn,
		Outer:      "lid",
		OuterName:  "Lid",
		InnerName:  "Base",
		Axis:       "length",
		OuterDepth: 30 * mm,
		InnerDepth: 25 * mm,
	}
	wantFinding(t, Closing([]fit.Pair{pair}), "closing", "5.0 mm deeper")
	pair.OuterDepth = 25 * mm
	if all := Closing([]fit.Pair{pair}); len(all) != 0 {
		t.Errorf("an even lid gives %+v", all)
	}
}

func TestASlitThroughAWall(t *testing.T) {
	p := trayPart(t, 30*mm)
	p.Pattern.Slits = append(p.Pattern.Slits, pattern.Slit{Segment: pattern.Segment{A: pattern.Pt(120, 60), B: pattern.Pt(140, 60)}})
	wantFinding(t, look(p), "slit", "a slit runs into the right")
}

func TestACutThatSevers(t *testing.T) {
	p := trayPart(t, 30*mm)
	p.Pattern.Slits = append(p.Pattern.Slits, pattern.Slit{Segment: pattern.Segment{A: pattern.Pt(135, 30), B: pattern.Pt(135, 100)}})
	wantFinding(t, look(p), "severed", "severs part of it")
}

func TestTabsOfFourMillimetres(t *testing.T) {
	f := Tabs(trayPart(t, 4*mm), "tape")
	wantFinding(t, []Finding{f}, "tab", "4.0 mm wide")
}

func TestBridgesAndCloseScores(t *testing.T) {
	p := trayPart(t, 30*mm)
	p.Pattern.Holes = []pattern.Loop{pattern.Circle(pattern.Pt(144, 50), 4), pattern.Circle(pattern.Pt(144, 60), 4)}
	p.Pattern.Openings = []pattern.Opening{{Kind: "hole", Face: "right", Loop: p.Pattern.Holes[0]}}
	all := look(p)
	wantFinding(t, all, "bridge", "only 2.0 mm of card is left between a hole and the edge")
	wantFinding(t, all, "bridge", "two holes")
	p = trayPart(t, 30*mm)
	p.Pattern.Scores.Vertical = []measure.Length{30 * mm, 32 * mm}
	wantFinding(t, look(p), "scores-close", "2.0 mm apart")
}

func TestWallsThatPassThroughEachOther(t *testing.T) {
	g := pattern.NewGrid([]measure.Length{40 * mm, 20 * mm, 40 * mm}, []measure.Length{20 * mm}, `left base right`)
	g.Role(pattern.Panel, g.Face("base"))
	base := g.Face("base")
	g.Fold(base, g.Face("left"), 135, pattern.Away)
	g.Fold(base, g.Face("right"), 135, pattern.Away)
	p, err := g.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	wantFinding(t, look(style.Part{ID: "x", Name: "Tent", Pattern: p, Root: "base"}), "collision", "left and right pass through each other")
}

func TestABlankLongerThanTheBoard(t *testing.T) {
	p := trayPart(t, 30*mm)
	if f, long := Board(p, measure.In, measure.Tick(measure.Inch/16)); long {
		t.Errorf("a short blank gives %+v", f)
	}
	p.Pattern.Width = 14 * measure.Inch
	f, long := Board(p, measure.In, measure.Tick(measure.Inch/16))
	if !long || f.Verdict != Warn || !strings.Contains(f.Text, "14 in long and most scoring boards take 12 in") {
		t.Errorf("a long blank gives %+v, %v", f, long)
	}
}
