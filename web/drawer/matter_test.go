package drawer_test

import (
	"net/http"
	"strings"
	"testing"

	"brevium/web/webtest"
)

// What a maker reckons of card is kept, goes into new boxes and judges them; what can be no such
// number is said at its field, and nothing is kept.
func TestConstantsOfOnesOwn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	const at = "/drawer/card-and-glue"
	if code, _, _ := x.Post(at, "constants.crack.across", "2.5", "classes[0].name", "card", "classes[0].long", "200"); code >= 400 {
		t.Fatalf("it is not kept: %d", code)
	}
	words := x.Words(at)
	if !strings.Contains(words, "Yours. Usually 1.35") {
		t.Errorf("the page does not say what is one's own: %.600s", words)
	}
	old := x.JarBox()
	if in := x.Box(fresh(t, x, 2)).Inputs; in.Constants["crack.across"] != 2.5 {
		t.Errorf("a new box reckons with %v", in.Constants)
	}
	_, page, _ := x.Get("/boxes/1/card")
	listed := webtest.ButtonValue(t, page, "constants.listed")
	x.Post("/boxes/1/box", "constants.listed", listed)
	if in := x.Box(old).Inputs; in.Constants["crack.across"] != 2.5 {
		t.Errorf("asked to, an older box reckons with %v", in.Constants)
	}
	if code, page, _ := x.Post(at, "constants.crack.across", "much"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "is not a number") {
		t.Errorf("a word is taken for a number: %d", code)
	}
	if code, page, _ := x.Post(at, "constants.crack.across", "900"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "usually 1.35") {
		t.Errorf("nonsense is taken: %d", code)
	}
	if code, _, _ := x.Post(at, "classes[0].name", "card", "classes[0].long", "-3"); code != http.StatusUnprocessableEntity {
		t.Errorf("a class of less than nothing is taken: %d", code)
	}
	x.Post(at, "constants.crack.across", "1.35")
	if in := x.Box(fresh(t, x, 3)).Inputs; len(in.Constants) != 0 {
		t.Errorf("put back to usual, a new box reckons with %v", in.Constants)
	}
	if words := x.Words("/boxes/1/post"); !strings.Contains(words, "it goes as a") || !strings.Contains(words, "in a layer") {
		t.Errorf("the post says nothing: %s", words)
	}
}

// fresh is a new box, which gets the number that is told.
func fresh(t *testing.T, x *webtest.Table, id int64) int64 {
	t.Helper()
	x.Post("/new", "start", "size", "style", "tray", "size.length", "4", "size.width", "3", "size.height", "1")
	if x.Box(id).Inputs.Style != "tray" {
		t.Fatal("no new box")
	}
	return id
}
