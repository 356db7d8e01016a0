package design

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/core/inspect"
	"brevium/core/measure"
)

// By hand: a wallet 5 1/2 long, 4 high and 1 1/4 deep with a flap of 1 1/4 in, two layers of border
// 1/8 on the flap and on the seen wings of the front: under layers of 5 1/4 × 1 and 1 × 3 3/4, upper
// ones of 5 × 3/4 and 3/4 × 3 1/2, all rectangles though the flap tapers, nothing else said.
func TestPapersAreCutAsMakersDo(t *testing.T) {
	t.Parallel()
	in := New("Cards", measure.In, "wallet-box")
	const inch = measure.Inch
	for id, l := range map[string]measure.Length{"length": 11 * inch / 2, "front": 4 * inch, "back": 4 * inch, "depth": 5 * inch / 4, "flap": 5 * inch / 4} {
		in.Size[id] = l
	}
	layers := []dress.Layer{{Card: dress.Backing, Border: dress.Even(inch / 8)}, {Card: dress.Patterned, Border: dress.Even(inch / 8)}}
	in.Mats = []dress.Dressing{{ID: 1, Piece: "body", Faces: []string{"flap"}, Layers: layers}, {ID: 2, Piece: "body", Faces: []string{"front.left", "front.right"}, Layers: layers}}
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	want := map[string][2]measure.Length{
		"flap.1": {21 * inch / 4, inch}, "flap.2": {5 * inch, 3 * inch / 4},
		"front.left.1": {inch, 15 * inch / 4}, "front.left.2": {3 * inch / 4, 7 * inch / 2},
		"front.right.1": {inch, 15 * inch / 4}, "front.right.2": {3 * inch / 4, 7 * inch / 2},
	}
	for id, size := range want {
		i := slices.IndexFunc(r.Mats, func(m dress.Mat) bool { return strings.HasSuffix(m.ID, "."+id) })
		if i < 0 {
			t.Errorf("there is no %s: %+v", id, r.Mats)
			continue
		}
		m := r.Mats[i]
		if long, short := max(m.Width, m.Height), min(m.Width, m.Height); long != max(size[0], size[1]) || short != min(size[0], size[1]) {
			t.Errorf("%s is %v × %v", id, m.Width, m.Height)
		}
		if m.Blank.Width != 0 {
			t.Errorf("%s is cut by template", id)
		}
	}
	if said := toldOf(r); strings.Contains(said, "template") {
		t.Errorf("something is cut by template: %s", said)
	}
	for _, f := range r.Checks {
		if f.Verdict != inspect.OK && f.ID != "board" && f.ID != "trimmer" {
			t.Errorf("%s is said: %s", f.ID, f.Text)
		}
	}
	in.Mats[0].Shape = dress.FaceShaped
	if r, err = Make(t.Context(), in); err != nil || !strings.Contains(toldOf(r), "template") {
		t.Errorf("a paper in the shape of the flap is not cut by template: %v", err)
	}
}
