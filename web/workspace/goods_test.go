package workspace_test

import (
	"strings"
	"testing"

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
