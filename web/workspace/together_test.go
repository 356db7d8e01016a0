package workspace_test

import (
	"net/http"
	"strconv"
	"strings"
	"sync"
	"testing"

	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/store/jobbook"
	"brevium/web/form"
	"brevium/web/page"
	"brevium/web/webtest"
)

// Two windows show the same box and each changes a field: both changes count,
// though each form brings the old values of the other's fields along.
func TestTwoWindowsChangeDifferentFields(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	shown := x.Box(id).Version
	all := func(depth, weight string) []string {
		return []string{"options.lid.depth", depth, "card.gsm", weight, "card.name", "Plain card", "tools.fence", "left"}
	}
	if code, body := x.As("one", shown, "/boxes/1/box", all("1 1/4", "240")...); code != http.StatusOK {
		t.Fatalf("%d: %s", code, body)
	}
	if code, body := x.As("two", shown, "/boxes/1/box", all("1", "300")...); code != http.StatusOK {
		t.Fatalf("%d: %s", code, body)
	}
	in := x.Box(id).Inputs
	if in.Lengths["lid.depth"] != 5*measure.Inch/4 || in.Card.GSM != 300 {
		t.Errorf("the lid is %v deep and the card weighs %v; want both changes", in.Lengths["lid.depth"].MM(), in.Card.GSM)
	}
}

// The same field changed in both: the first stands, the page shows both, and
// the maker says which.
func TestTwoWindowsChangeTheSameField(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	shown := x.Box(id).Version
	x.As("one", shown, "/boxes/1/box", "options.lid.depth", "1 1/4")
	code, body := x.As("two", shown, "/boxes/1/box", "options.lid.depth", "1 1/2", "card.gsm", "300")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, "In another window this was changed to") ||
		!strings.Contains(body, `value="1 1/2"`) {
		t.Fatalf("%d without both values", code)
	}
	now := x.Box(id)
	if now.Inputs.Lengths["lid.depth"] != 5*measure.Inch/4 || now.Inputs.Card.GSM != 300 {
		t.Errorf("the lid is %v deep, the card %v; want the first, and what did not clash", now.Inputs.Lengths["lid.depth"].MM(), now.Inputs.Card.GSM)
	}
	if !strings.Contains(body, `name="version" value="`+page.Itoa(now.Version)+`"`) {
		t.Error("the page does not show what is kept now")
	}
	x.As("two", now.Version, "/boxes/1/box", "options.lid.depth", "1 1/2", "take", "options.lid.depth")
	if got := x.Box(id).Inputs.Lengths["lid.depth"]; got != 5*measure.Inch/4 {
		t.Errorf("having taken theirs the lid is %v deep", got.MM())
	}
	x.As("two", now.Version, "/boxes/1/box", "options.lid.depth", "1 1/2")
	if got := x.Box(id).Inputs.Lengths["lid.depth"]; got != 3*measure.Inch/2 {
		t.Errorf("having kept one's own the lid is %v deep", got.MM())
	}
}

// What one window sends twice in a row from the same page is no clash.
func TestOneWindowTypingOn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	shown := x.Box(id).Version
	for _, depth := range []string{"1 1/4", "1 3/8", "1 1/2"} {
		if code, _ := x.As("one", shown, "/boxes/1/box", "options.lid.depth", depth); code != http.StatusOK {
			t.Fatalf("%s: %d", depth, code)
		}
	}
	if got := x.Box(id).Inputs.Lengths["lid.depth"]; got != 3*measure.Inch/2 {
		t.Errorf("the lid is %v deep", got.MM())
	}
}

// A window that shows an older style does not put the old style back, nor its
// sizes into the new one.
func TestAnOlderWindowLeavesTheStyle(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	shown := x.Box(id).Version
	x.As("one", shown, "/boxes/1/box", "style", "tray")
	code, body := x.As("two", shown, "/boxes/1/box", "style", "tray-lid", "options.lid.depth", "1 1/2")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, "changed in another window") {
		t.Errorf("%d, nothing said", code)
	}
	if got := x.Box(id).Inputs.Style; got != "tray" {
		t.Errorf("the style went back to %s", got)
	}
	// Another stop's fields do not clash with it.
	if code, _ := x.As("two", shown, "/boxes/1/sheets", "copies", "3"); code != http.StatusOK || x.Box(id).Inputs.Copies != 3 {
		t.Errorf("copies: %d, %d", code, x.Box(id).Inputs.Copies)
	}
}

// Rows go by what they are: an older window changes and takes out the thing it
// shows, wherever it stands by now.
func TestRowsHaveNames(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := x.Box(x.JarBox()).Inputs
	in.Things = nil
	for _, name := range []string{"A", "B", "C"} {
		thing := form.NewThing(contents.Block)
		thing.Name = name
		in.Things = append(in.Things, thing)
	}
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	path := "/boxes/" + page.Itoa(id) + "/contents"
	b := x.Box(id)
	a, c := strconv.Itoa(b.Inputs.Things[0].ID), strconv.Itoa(b.Inputs.Things[2].ID)
	x.As("one", b.Version, path, "remove", a)
	if code, body := x.As("two", b.Version, path, "contents[2].count", "2"); code != http.StatusOK {
		t.Fatalf("%d %s", code, body)
	}
	if got := x.Box(id).Inputs.Things; len(got) != 2 || got[0].Name != "B" || got[1].Name != "C" || got[1].Count != 2 {
		t.Errorf("the things are %+v; want B and two C", got)
	}
	x.As("three", b.Version, path, "remove", c)
	if got := x.Box(id).Inputs.Things; len(got) != 2 {
		t.Errorf("what another window changed was taken out: %+v", got)
	}
	x.As("three", b.Version, path, "remove", a) // gone already
	if got := x.Box(id).Inputs.Things; len(got) != 2 || got[0].Name != "B" {
		t.Errorf("the wrong thing was taken out: %+v", got)
	}
}

// Undo says when the change its button names is not the last one any more,
// and redo brings back what undo took.
func TestUndoNamesItsChange(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.As("one", x.Box(id).Version, "/boxes/1/sheets", "copies", "3")
	named := page.Itoa(x.Box(id).Last.ID)
	x.As("two", x.Box(id).Version, "/boxes/1/box", "card.gsm", "300")
	code, body := x.As("one", 0, "/boxes/1/undo", "stop", "sheets", "change", named)
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, "was changed since") || x.Box(id).Inputs.Copies != 3 {
		t.Errorf("%d; copies %d", code, x.Box(id).Inputs.Copies)
	}
	x.As("one", 0, "/boxes/1/undo", "stop", "sheets", "change", page.Itoa(x.Box(id).Last.ID))
	if b := x.Box(id); b.Inputs.Card.GSM != 240 || b.Undone.What != "card" {
		t.Errorf("undone to %v gsm, to redo %q", b.Inputs.Card.GSM, b.Undone.What)
	}
	x.As("one", 0, "/boxes/1/redo", "stop", "sheets", "change", page.Itoa(x.Box(id).Undone.ID))
	if got := x.Box(id).Inputs.Card.GSM; got != 300 {
		t.Errorf("redone to %v gsm", got)
	}
}

// Many windows at once, each on a field or a row of its own and none of them
// up to date: no change is lost.
func TestNoChangeIsLostAmongMany(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := x.Box(x.JarBox()).Inputs
	thing := in.Things[0]
	thing.Length, thing.Width, thing.Height, thing.Count = 20*measure.Millimetre, 20*measure.Millimetre, 20*measure.Millimetre, 1
	in.Things = nil
	for i := range 8 {
		thing.ID, thing.Name = 0, string(rune('A'+i))
		in.Things = append(in.Things, thing)
	}
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	shown := x.Box(id)
	var all sync.WaitGroup
	for i := range 8 {
		all.Go(func() {
			name := form.ThingName(i, "name")
			code, body := x.As("w"+strconv.Itoa(i), shown.Version, "/boxes/"+page.Itoa(id)+"/contents", name, "thing "+strconv.Itoa(i))
			if code != http.StatusOK {
				t.Errorf("window %d: %d %s", i, code, body[:min(len(body), 200)])
			}
		})
	}
	all.Wait()
	for i, got := range x.Box(id).Inputs.Things {
		if got.Name != "thing "+strconv.Itoa(i) {
			t.Errorf("thing %d is %q", i, got.Name)
		}
	}
}

// A job's boxes go by the boxes, its pieces by what lies where.
func TestTwoWindowsOnAJob(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.JarBox()
	x.Post("/jobs", "copies.1", "1", "copies.2", "1")
	shown := x.Job(1).Version
	x.As("one", shown, "/jobs/1", "copies.1", "3", "copies.2", "1", "name", "fair")
	if code, _ := x.As("two", shown, "/jobs/1", "copies.1", "1", "copies.2", "4"); code != http.StatusOK {
		t.Errorf("another box's copies: %d", code)
	}
	j := x.Job(1)
	copies := func() map[int64]int {
		out := map[int64]int{}
		for _, it := range x.Job(1).Items {
			out[it.Box] = it.Copies
		}
		return out
	}
	if got := copies(); j.Name != "fair" || got[1] != 3 || got[2] != 4 {
		t.Errorf("the job is %s with %+v", j.Name, j.Items)
	}
	code, body := x.As("two", shown, "/jobs/1", "copies.1", "5")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, "In another window this was changed to") || copies()[1] != 3 {
		t.Errorf("the same copies: %d, kept %d", code, copies()[1])
	}
	if code, body := x.As("two", shown, "/jobs/1/hold", "at", "0.0.0-0", "do", "keep"); code != http.StatusUnprocessableEntity ||
		!strings.Contains(body, "lies elsewhere by now") {
		t.Errorf("a piece that is not there: %d", code)
	}
	if x.Job(1).State != jobbook.Planned {
		t.Error("the job went on")
	}
}
