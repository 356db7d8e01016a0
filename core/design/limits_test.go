package design

import (
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
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
