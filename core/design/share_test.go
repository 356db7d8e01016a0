package design

import (
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
)

// Three unlike things get a small box each, as large as the largest needs; six of
// one kind two to a box.
func TestThingsAreSharedOutAmongSmallBoxes(t *testing.T) {
	t.Parallel()
	carrier := func(contents string) *Result {
		t.Helper()
		in, err := Read([]byte(`{"brevium":1,"name":"x","units":"mm","style":"fold-out-carrier","contents":[` + contents + `],"sheets":[{"name":"A3"}],"tools":{"trimmer":"420 mm"}}`))
		if err != nil {
			t.Fatal(err)
		}
		return make_(t, in)
	}
	r := carrier(`{"name":"jar","across":40,"height":50},{"name":"die","length":30,"width":30,"height":30},{"name":"deck","length":20,"width":35,"height":60}`)
	if n := r.Needs; n.Length != 42*mm_ || n.Width != 42*mm_ || n.Height != 62*mm_ {
		t.Errorf("each box needs %v × %v × %v mm", n.Length.MM(), n.Width.MM(), n.Height.MM())
	}
	if len(r.Stand.Spots) != 1 || !strings.Contains(r.Filling(), "shared out among the 3 rooms") {
		t.Errorf("%d stand in the first, %q", len(r.Stand.Spots), r.Filling())
	}
	r = carrier(`{"name":"ball","across":30,"height":30,"count":6}`)
	if len(r.Stand.Spots) != 2 {
		t.Errorf("%d of six balls stand in one of three boxes", len(r.Stand.Spots))
	}
}

// Of six packs two stand in the dispenser and one in each refill, which is as
// large as a pack: 64 and a card, 42 and a card, 16 and a card, on whole
// millimetres. Then the narrow side of 43 is covered by 65 of 43 + 2 × 17.
func TestRefillsFollowFromAPack(t *testing.T) {
	t.Parallel()
	in, err := Read([]byte(`{"brevium":1,"name":"x","units":"mm","style":"dispenser","options":{"refills":"4"},
	 "contents":[{"name":"pack","length":62,"width":40,"height":14,"count":6}]}`))
	if err != nil {
		t.Fatal(err)
	}
	r := make_(t, in)
	if len(r.Stand.Spots) != 2 {
		t.Errorf("%d packs stand in the middle", len(r.Stand.Spots))
	}
	got := r.Spec.Lengths
	if got["refill.depth"] != 17*mm_ || got["refill.height"] != 43*mm_ || got["refill.length"] < got["width"]+2*17*mm_ || got["refill.length"] > got["length"] {
		t.Errorf("a refill is %v × %v × %v mm beside %v", got["refill.length"].MM(), got["refill.height"].MM(), got["refill.depth"].MM(), got["width"].MM())
	}
	for _, c := range r.Checks {
		if c.Verdict == inspect.Fail {
			t.Error(c.Text)
		}
	}
	if got := r.Spec.One; got.Height != 16*measure.Millimetre {
		t.Errorf("one pack takes %v mm", got.Height.MM())
	}
}
