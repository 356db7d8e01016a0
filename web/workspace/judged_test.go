package workspace_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// A maker's number that is judged is kept, what comes of it stands at its field and at the bench's
// door, and one press on either page mends it; undone, it stands again.
func TestAJudgedNumberIsMendedByAPress(t *testing.T) {
	t.Parallel()
	for _, stop := range []string{"box", "making"} {
		x := webtest.NewTable(t)
		id := x.JarBox()
		made, err := design.Make(t.Context(), x.Box(id).Inputs)
		if err != nil {
			t.Fatal(err)
		}
		high := made.Spec.Lengths["height"]
		at := fmt.Sprintf("/boxes/%d/", id)
		if code, page, _ := x.Post(at+"box", "options.lid.depth", "4"); code >= 400 || !strings.Contains(page, "stands on the table") {
			t.Fatalf("a lid 4 in deep: %d", code)
		}
		_, page, _ := x.Get(at + stop)
		if strings.Count(page, "it stands on the table") != 1 {
			t.Errorf("at %s it is said %d times", stop, strings.Count(page, "stands on the table"))
		}
		field := webtest.ButtonValue(t, page, "mend")
		if code, _, _ := x.Post(at+stop, "mend", field); code >= 400 {
			t.Fatalf("at %s it cannot be pressed: %d", stop, code)
		}
		if got := x.Box(id).Inputs.Lengths["lid.depth"]; got != measure.Down(high, measure.In.Ruler()) {
			t.Errorf("at %s: it is mended to %v of walls %v high", stop, got, high)
		}
		if _, page, _ = x.Get(at + stop); strings.Contains(page, "stands on the table") {
			t.Errorf("at %s: it is said still", stop)
		}
	}
}

// A label is moved about its face on the ticket, over an edge too, and onto a band; without the
// band it hangs.
func TestALabelIsPlacedOnTheTicket(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	tea := design.New("Tea", measure.In, "hinged-carton")
	tea.Size["length"], tea.Size["width"], tea.Size["height"] = 3*measure.Inch, 2*measure.Inch, 2*measure.Inch
	id, err := x.Store.Of(t.Context()).Add(t.Context(), tea)
	if err != nil {
		t.Fatal(err)
	}
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	post := func(pairs ...string) {
		t.Helper()
		if code, page, _ := x.Post(at, pairs...); code >= 400 {
			t.Fatalf("%v: %d %s", pairs, code, page[:200])
		}
	}
	its := func() label.Label { return x.Box(id).Inputs.Labels[0] }
	post("labels.add", "label")
	post("labels[0].width", "1", "labels[0].height", "1", "labels[0].face", "body/front")
	post("labels[0].across.from", "left", "labels[0].across.at", "1/4", "labels[0].up.from", "bottom", "labels[0].up.at", "-1/2", "labels[0].turn", "-15")
	if want := (label.Place{Across: label.Off{From: label.Left, At: measure.Inch / 4}, Up: label.Off{From: label.Bottom, At: -measure.Inch / 2}, Turn: -15}); its().Place != want {
		t.Errorf("it lies at %+v", its().Place)
	}
	_, page, _ := x.Get(at)
	for _, shown := range []string{`value="-1/2"`, `value="1/4"`, `value="-15"`} {
		if !strings.Contains(page, shown) {
			t.Errorf("the ticket does not show %s", shown)
		}
	}
	if code, page, _ := x.Post(at, "labels[0].turn", "500"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "180 degrees") {
		t.Errorf("turned by 500 degrees: %d", code)
	}
	post("bands.add", "1")
	post("bands[0].axis", "height", "bands[0].join", "front")
	band := x.Box(id).Inputs.Bands[0].PieceID()
	post("labels[0].face", "band:"+band)
	if l := its(); l.Band != band || l.Piece != "" || l.Place != (label.Place{}) {
		t.Errorf("on the band it is %+v", l)
	}
	if _, page, _ := x.Get(fmt.Sprintf("/boxes/%d/making", id)); !strings.Contains(page, "over its join, and nowhere on the box") {
		t.Error("the making stop does not say that it hides the join")
	}
	post("bands.remove", "0")
	if l := its(); l.Band != "" || l.Piece != "" {
		t.Errorf("without its band it is %+v", l)
	}
}
