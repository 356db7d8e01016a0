package workspace_test

import (
	"net/http"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// A ribbon becomes a pull at the page: its loop is asked for, its bow is not; with a length of
// its own the loop follows from that.
func TestARibbonBecomesAPull(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/dressing", "ribbons.add", "1")
	page := func(pairs ...string) string {
		code, _, _ := x.Post("/boxes/1/dressing", pairs...)
		if code >= 400 {
			t.Fatalf("%v: %d", pairs, code)
		}
		_, body, _ := x.Get("/boxes/1/dressing")
		return body
	}
	shows := func(body string, want map[string]bool) {
		t.Helper()
		for name, there := range want {
			if strings.Contains(body, `name="ribbons[0].`+name+`"`) != there {
				t.Errorf("its %s is asked for: %v", name, !there)
			}
		}
	}
	shows(page(), map[string]bool{"bow": true, "loop": true, "rise": false, "length": true})
	shows(page("ribbons[0].way", "pull"), map[string]bool{"bow": false, "loop": false, "rise": true, "length": true})
	shows(page("ribbons[0].length", "4 in"), map[string]bool{"rise": false, "length": true})
	if told := x.Words("/boxes/1/making"); !strings.Contains(told, "The loop stands out 1 in.") {
		t.Errorf("4 in with 1 in taped at each end are told otherwise: %.3000s", told)
	}
}

// Magnets are asked for their width and thickness, and kept by the maker's own; another kind of
// closure comes in its own sizes.
func TestAClosureHasASize(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/boxes/1/box", "style", "wallet-box")
	x.Post("/boxes/1/contents", "contents[0].count", "1")
	if code, page, _ := x.Post("/boxes/1/dressing", "closures.add", "1"); code >= 400 {
		t.Fatalf("%d %.300s", code, page)
	}
	if code, _, _ := x.Post("/boxes/1/dressing", "closures[0].wide", "3/8", "closures[0].thick", "1 mm"); code >= 400 {
		t.Fatal(code)
	}
	if c := x.Box(id).Inputs.Closures[0]; c.Wide.MM() != 9.525 || c.Thick != 0 {
		t.Errorf("its sizes are %v and %v mm; 1 mm is as usual", c.Wide.MM(), c.Thick.MM())
	}
	x.Post("/boxes/1/dressing", "closures[0].kind", "dot", "closures[0].wide", "3/8")
	if c := x.Box(id).Inputs.Closures[0]; c.Wide != 0 {
		t.Errorf("the dot is %v mm wide", c.Wide.MM())
	}
	if _, page, _ := x.Get("/boxes/1/dressing"); strings.Contains(page, `name="closures[0].thick"`) {
		t.Error("a dot is asked for its thickness")
	}
}

// A list of what goes in each drawer is typed a line for each, and a press numbers the fronts.
func TestACalendarIsFilledByItsList(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := design.New("Tales", measure.MM, "calendar")
	if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
		t.Fatal(err)
	}
	if _, body, _ := x.Get("/boxes/1/contents"); !strings.Contains(body, "What goes in each of the 24") {
		t.Fatal("the list is not asked for")
	}
	x.Post("/boxes/1/contents", "rooms", "bell\r\n3 Dec: ribbon\r\n\r\n")
	if got := x.Box(1).Inputs.Each; len(got) != 2 || got[1] != "3 Dec: ribbon" {
		t.Errorf("listed are %q", got)
	}
	x.Post("/boxes/1/dressing", "labels.add", "numbers")
	labels := x.Box(1).Inputs.Labels
	if len(labels) != 1 || labels[0].Copies != 24 || labels[0].Text != "{n}" || labels[0].Piece != "drawer" {
		t.Errorf("the labels are %+v", labels)
	}
	if words := x.Words("/boxes/1/dressing"); strings.Contains(words, "another of its kind") {
		t.Error("a number on each drawer is said to lie on another")
	}
	if code, body, _ := x.Post("/boxes/1/contents", "rooms", strings.Repeat("long ", 30)); code != http.StatusUnprocessableEntity || !strings.Contains(body, "letters for each") {
		t.Errorf("a line too long gives %d", code)
	}
	x.JarBox()
	if _, body, _ := x.Get("/boxes/2/contents"); strings.Contains(body, "What goes in each of") {
		t.Error("a box of one room asks for a list")
	}
}
