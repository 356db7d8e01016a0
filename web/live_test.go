package web

import (
	"bufio"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/store"
	"brevium/web/form"
)

// shared is a box that Ash shares, and two makers.
func sharedBox(t testing.TB, w *atelier) (id int64, ash, rowan *visitor) {
	t.Helper()
	ash, rowan = w.person("Ash", people.Maker), w.person("Rowan", people.Maker)
	p, err := w.store.PersonCalled(t.Context(), "Ash")
	if err != nil {
		t.Fatal(err)
	}
	ctx := people.With(t.Context(), p)
	if id, err = w.store.Add(ctx, design.New("Jars", measure.In, "tray-lid")); err != nil {
		t.Fatal(err)
	}
	if err := w.store.Share(ctx, store.BoxSort, id, true); err != nil {
		t.Fatal(err)
	}
	return id, ash, rowan
}

// Who looks at a shared box is told within a moment when another changes it; who may not
// see it is told nothing, and the line ends when it is kept again.
func TestChangesAreTold(t *testing.T) {
	w := newAtelier(t)
	id, ash, rowan := sharedBox(t, w)
	r, err := http.NewRequest(http.MethodGet, fmt.Sprintf("%s/live/boxes/%d", w.url, id), nil)
	if err != nil {
		t.Fatal(err)
	}
	a, err := rowan.http.Do(r)
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
	if status, _, _ := ash.post(fmt.Sprintf("/boxes/%d/rename", id), "name", "More jars"); status >= 400 {
		t.Fatalf("renaming: %d", status)
	}
	second := next()
	p, _ := w.store.PersonCalled(t.Context(), "Ash")
	if err := w.store.Tick(people.With(t.Context(), p), id, "cut.base", "m", true); err != nil {
		t.Fatal(err)
	}
	third := next()
	if first == second || second == third {
		t.Errorf("told are %q, %q, %q", first, second, third)
	}
	if status, _, _ := w.person("Finch", people.Guest).get(fmt.Sprintf("/live/boxes/%d", id+1)); status != http.StatusNotFound {
		t.Errorf("of a box that is not there: %d", status)
	}
	ash.post(fmt.Sprintf("/boxes/%d/share", id))
	for range lines { // to its end
	}
	if status, _, _ := rowan.get(fmt.Sprintf("/live/boxes/%d", id)); status != http.StatusNotFound {
		t.Errorf("of a box that is kept again: %d", status)
	}
}

// signedIn is somebody at a machine of their own, signed in.
func signedIn(t *testing.T, w *atelier, name string) *hand {
	t.Helper()
	h := newHand(t, w.table, 1280, 900)
	h.visit("/sign-in")
	h.write("Your name", name)
	h.write("Password", goodPassword)
	h.press("button", "Sign in")
	h.until(`location.pathname === "/"`)
	return h
}

// Two at one box in two browsers: what one ticks off is ticked at the other's, who does
// nothing; and what one types is not lost by it.
func TestTwoAtOneTable(t *testing.T) {
	w := newAtelier(t)
	id, _, _ := sharedBox(t, w)
	ash, rowan := signedIn(t, w, "Ash"), signedIn(t, w, "Rowan")
	making := fmt.Sprintf("/boxes/%d/making", id)
	ash.visit(making)
	rowan.visit(making)
	ticked := `document.querySelectorAll("main [aria-pressed=true], main input[type=checkbox]:checked").length`
	rowan.until(ticked + ` === 0`)
	ash.do(js(`document.querySelector("form[action$='/tick'] button, form[action$='/tick'] input[type=checkbox]").click()`))
	ash.until(ticked + ` > 0`)
	rowan.until(ticked + ` > 0`)
}

// One has one search at a time in a workshop, so that all take turns.
func TestSearchesTakeTurns(t *testing.T) {
	w := newAtelier(t)
	ash := w.person("Ash", people.Maker)
	p, err := w.store.PersonCalled(t.Context(), "Ash")
	if err != nil {
		t.Fatal(err)
	}
	ctx := people.With(t.Context(), p)
	in := design.New("Jars", measure.In, "tray-lid")
	jar := form.NewThing(contents.Round)
	jar.Count = 4
	in.Things = []contents.Thing{jar}
	id, err := w.store.Add(ctx, in)
	if err != nil {
		t.Fatal(err)
	}
	w.lot(3, 12*measure.Inch, 12*measure.Inch, false)
	_, _, h := ash.post("/jobs", fmt.Sprintf("copies.%d", id), "23")
	job := h.Get("Location")
	search := job + "/search"
	refused := 0
	for round := 0; round < 8 && refused == 0; round++ { // a search may end before the other is asked for
		said := make(chan string, 2)
		for range 2 { // whichever comes first is let through
			go func() {
				_, lines, _ := ash.do(http.MethodPost, search, map[string]string{"Accept": "application/x-ndjson"}, "seconds", "2")
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
	if _, lines, _ := ash.do(http.MethodPost, search, map[string]string{"Accept": "application/x-ndjson"}, "seconds", "1"); strings.Contains(lines, "under way already") {
		t.Error("afterwards a search is refused")
	}
}
