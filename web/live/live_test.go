package live_test

import (
	"bufio"
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"testing"
	"time"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/web/form"
	"brevium/web/webtest"
)

// Who looks at a shared box is told within a moment when another changes it; who may not
// see it is told nothing, and the line ends when it is kept again.
func TestChangesAreTold(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	id, ash, rowan := webtest.SharedBox(t, w)
	r, err := http.NewRequest(http.MethodGet, fmt.Sprintf("%s/live/boxes/%d", w.URL, id), nil)
	if err != nil {
		t.Fatal(err)
	}
	a, err := rowan.HTTP.Do(r)
	if err != nil || a.StatusCode != 200 || a.Header.Get("Content-Type") != "text/event-stream" {
		t.Fatalf("%v, %v", a, err)
	}
	defer a.Body.Close()
	lines := make(chan string)
	go func() {
		defer close(lines)
		for s := bufio.NewScanner(a.Body); s.Scan(); {
			if data, is := strings.CutPrefix(s.Text(), "data: "); is {
				lines <- data
			}
		}
	}()
	next := func() string {
		t.Helper()
		select {
		case line := <-lines:
			return line
		case <-time.After(10 * time.Second):
			t.Fatal("nothing is told")
			return ""
		}
	}
	first := next()
	// The page says which state it shows: what changes before its line stands is told by the first word.
	shown := regexp.MustCompile(`data-live-at="([^"]+)"`)
	_, page, _ := rowan.Get(fmt.Sprintf("/boxes/%d/box", id))
	if m := shown.FindStringSubmatch(page); m == nil || m[1] != first {
		t.Errorf("the page shows the state %q, and told is %q", m, first)
	}
	if status, _, _ := ash.Post(fmt.Sprintf("/boxes/%d/rename", id), "name", "More jars"); status >= 400 {
		t.Fatalf("renaming: %d", status)
	}
	second := next()
	p, _ := w.Store.Of(t.Context()).PersonCalled(t.Context(), "Ash")
	if err := w.Store.Of(people.With(t.Context(), p)).Tick(people.With(t.Context(), p), id, "cut.base", "m", true); err != nil {
		t.Fatal(err)
	}
	third := next()
	if first == second || second == third {
		t.Errorf("told are %q, %q, %q", first, second, third)
	}
	if status, _, _ := w.Person("Finch", people.Guest).Get(fmt.Sprintf("/live/boxes/%d", id+1)); status != http.StatusNotFound {
		t.Errorf("of a box that is not there: %d", status)
	}
	ash.Post(fmt.Sprintf("/boxes/%d/share", id))
	for range lines { // to its end
	}
	if status, _, _ := rowan.Get(fmt.Sprintf("/live/boxes/%d", id)); status != http.StatusNotFound {
		t.Errorf("of a box that is kept again: %d", status)
	}
}

// One has one search at a time in a workshop, so that all take turns.
func TestSearchesTakeTurns(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	ash := w.Person("Ash", people.Maker)
	ctx := w.As("Ash")
	in := design.New("Jars", measure.In, "tray-lid")
	jar := form.NewThing(contents.Round)
	jar.Count = 4
	in.Things = []contents.Thing{jar}
	id, err := w.Store.Of(ctx).Add(ctx, in)
	if err != nil {
		t.Fatal(err)
	}
	w.Lot(3, 12*measure.Inch, 12*measure.Inch, false)
	_, _, h := ash.Post("/jobs", fmt.Sprintf("copies.%d", id), "23")
	job := h.Get("Location")
	search := job + "/search"
	refused := 0
	for round := 0; round < 8 && refused == 0; round++ { // a search may end before the other is asked for
		said := make(chan string, 2)
		for range 2 { // whichever comes first is let through
			go func() {
				_, lines, _ := ash.Do(http.MethodPost, search, map[string]string{"Accept": "application/x-ndjson"}, "seconds", "2")
				said <- lines
			}()
		}
		for _, lines := range []string{<-said, <-said} {
			if strings.Contains(lines, "under way already") {
				refused++
			}
		}
	}
	if refused != 1 {
		t.Errorf("of two searches of one %d are refused", refused)
	}
	if _, lines, _ := ash.Do(http.MethodPost, search, map[string]string{"Accept": "application/x-ndjson"}, "seconds", "1"); strings.Contains(lines, "under way already") {
		t.Error("afterwards a search is refused")
	}
}
