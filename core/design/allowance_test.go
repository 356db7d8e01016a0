package design

import (
	"testing"

	"brevium/core/fit"
	"brevium/core/measure"
)

// An allowance is solved on its own tick, whatever the board's: 4 × 3 × 1 1/2
// in of 0.3 mm card on a board of eighths needs 1/16 in, and has 0.99 − 0.6 =
// 0.39 mm along its length and 0.99 mm across.
func TestAllowanceOnItsOwnTick(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray-lid")
	in.Tools.Tick = measure.Tick(measure.Inch / 8)
	in.Size["length"], in.Size["width"], in.Size["height"] = 4*measure.Inch, 3*measure.Inch, 3*measure.Inch/2
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	if a := r.Spec.Lengths["lid.allowance"]; a != measure.Inch/16 || !r.Solved {
		t.Errorf("the allowance is %v mm; want 1/16 in", a.MM())
	}
	for i, want := range []measure.Length{387500, 987500} {
		if a := r.Fits[i]; a.Gap != want || a.Pair.Axis != []string{"length", "width"}[i] {
			t.Errorf("%s: a gap of %v mm; want %v", a.Pair.Axis, a.Gap.MM(), want.MM())
		}
	}
	if r.Fits[0].Verdict != fit.Snug || r.Fits[1].Verdict != fit.Easy {
		t.Errorf("%s and %s", r.Fits[0].Verdict, r.Fits[1].Verdict)
	}
	// One axis with an allowance of its own leaves the other to be solved.
	in = New("x", measure.In, "drawer-sleeve")
	in.Lengths["sleeve.allowance.height"] = 0
	if r, err = Make(t.Context(), in); err != nil {
		t.Fatal(err)
	}
	if a := r.Spec.Lengths["sleeve.allowance"]; a != measure.Inch/16 || r.Spec.Lengths["sleeve.allowance.height"] != 0 {
		t.Errorf("sleeve: %v mm in width and %v in height", a.MM(), r.Spec.Lengths["sleeve.allowance.height"].MM())
	}
}
