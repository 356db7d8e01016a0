package workspace_test

import (
	"strconv"
	"strings"
	"testing"

	"brevium/web/webtest"
)

// Every state of a box is shown, and one goes back to any, or copies it; going back is undone
// like other changes.
func TestHistory(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	if words := x.Words("/boxes/1/history"); !strings.Contains(words, "Nothing of this box was changed yet") {
		t.Errorf("a new box has a history: %s", words)
	}
	for _, copies := range []string{"3", "5", "9"} {
		x.Post("/boxes/1/sheets", "copies", copies)
	}
	_, page, _ := x.Get("/boxes/1/history")
	if n := strings.Count(page, "Before: copies"); n != 3 {
		t.Errorf("it shows %d states, not 3", n)
	}
	last := page[strings.LastIndex(page, `name="change" value="`)+len(`name="change" value="`):]
	change, _, _ := strings.Cut(last, `"`)
	x.Post("/boxes/1/history", "do", "back", "change", change)
	b := x.Box(id)
	if b.Inputs.Copies != 1 || b.Last.What != "an earlier state" {
		t.Errorf("gone back, it makes %d; undo takes back %q", b.Inputs.Copies, b.Last.What)
	}
	x.Post("/boxes/1/undo", "change", strconv.FormatInt(b.Last.ID, 10))
	if got := x.Box(id).Inputs.Copies; got != 9 {
		t.Errorf("undone, it makes %d", got)
	}
	_, _, to := x.Post("/boxes/1/history", "do", "copy", "change", change)
	if at := to.Get("HX-Redirect"); !strings.HasPrefix(at, "/boxes/2/") || x.Box(2).Inputs.Copies != 1 || !strings.Contains(x.Box(2).Name, "as it was") {
		t.Errorf("copied to %s: %+v", at, x.Box(2).Name)
	}
	for _, bad := range []string{"", "x", "999"} {
		if code, _, _ := x.Post("/boxes/1/history", "do", "back", "change", bad); code != 404 {
			t.Errorf("change %q: %d", bad, code)
		}
	}
}
