package design

import (
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// looked is a box as it is looked over, whole.
func looked(r *Result) inspect.Whole {
	parts, folded := r.Pieces()
	return inspect.Whole{Parts: parts, Finished: folded, Box: r.Box, Fits: r.Fits, Inside: r.Inside, Units: r.Inputs.Units}
}

// A flap that reaches in 6 mm stays; one that reaches in less slips out.
func TestAShallowTuckSlipsOut(t *testing.T) {
	t.Parallel()
	for deep, want := range map[measure.Length]inspect.Verdict{3 * mm_: inspect.Warn, 59 * mm_ / 10: inspect.Warn, 6 * mm_: inspect.OK} {
		r := make_(t, New("x", measure.MM, "hinged-carton"))
		r.Spec.Lengths["flap"] = deep
		box, err := r.Style.Make(r.Spec)
		if err != nil {
			t.Fatal(err)
		}
		w := looked(r)
		w.Box, w.Parts = box, box.Parts
		found, err := w.Use()
		if err != nil {
			t.Fatal(err)
		}
		for _, f := range found {
			if f.ID == "stay" && f.Verdict != want {
				t.Errorf("a flap of %v: %s", deep, f.Text)
			}
		}
	}
}

// What is glued lies on what it meets within three cards; farther off it meets nothing.
func TestGlueThatLandsOnNothing(t *testing.T) {
	t.Parallel()
	for cards, lands := range map[float64]bool{0: true, 1.5: true, 3.5: false, 8: false} {
		in := New("x", measure.MM, "fold-out-carrier")
		in.Choices["form"] = "strip"
		w := looked(make_(t, in))
		for i, p := range w.Parts {
			if p.ID == "tray-1" { // away from the panel that its back is glued to
				w.Parts[i].At.Y += cards * p.Card.MM()
			}
		}
		found, err := w.Together()
		if err != nil {
			t.Fatal(err)
		}
		landed := true
		for _, f := range found {
			landed = landed && f.ID != "glue"
		}
		if landed != lands {
			t.Errorf("%v cards off, it lands: %v", cards, landed)
		}
	}
}

// A blank of 200 × 100 mm goes on a sheet that stands only where its card may be turned.
func TestABlankWithADirectionIsNotTurned(t *testing.T) {
	t.Parallel()
	for direction, goes := range map[paper.Direction]bool{paper.NoDirection: true, paper.TwoWays: false, paper.OneWayUp: false} {
		in := New("x", measure.MM, "tray")
		in.Card.Direction = direction
		in.Sheets = []paper.Sheet{{Name: "standing", Width: 150 * mm_, Height: 250 * mm_, Count: 1}}
		p := style.Part{ID: "tray", Pattern: &pattern.Pattern{Width: 200 * mm_, Height: 100 * mm_}}
		if got := blankFits(&in, p); got != goes {
			t.Errorf("with the direction %q it goes: %v", direction, got)
		}
		p.Pattern.Width, p.Pattern.Height = p.Pattern.Height, p.Pattern.Width
		if !blankFits(&in, p) {
			t.Errorf("standing, with the direction %q it does not go", direction)
		}
	}
}
