package web_test

import (
	"fmt"
	"net/http"
	"sync"
	"testing"
	"time"

	"brevium/core/people"
	"brevium/web/webtest"
)

// On three phones: one follows without signing in; the server is killed and started again,
// and what was done meanwhile arrives when it is back; the board shows it by itself.
func TestAClassOnPhones(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	_, _, path := webtest.OpenClass(t, w)
	var line sync.RWMutex // held while the server is down
	down := false
	w.HTTP = func(up http.Handler) http.Handler {
		return http.HandlerFunc(func(a http.ResponseWriter, r *http.Request) {
			line.RLock()
			now, cut := up, down
			if w.Again != nil {
				now = w.Again
			}
			line.RUnlock()
			if cut {
				panic(http.ErrAbortHandler)
			}
			now.ServeHTTP(a, r)
		})
	}(w.HTTP)
	teacher := signedIn(t, w, "Ash")
	p, err := w.Store.Of(t.Context()).PersonCalled(t.Context(), "Ash")
	if err != nil {
		t.Fatal(err)
	}
	boxes, err := w.Store.Of(people.With(t.Context(), p)).Names(people.With(t.Context(), p))
	if err != nil {
		t.Fatal(err)
	}
	teacher.visit(fmt.Sprintf("/boxes/%d/class", boxes[0].ID))
	at := func(n int) string {
		return fmt.Sprintf(`document.getElementById("follow-where")?.textContent.startsWith("%d of")`, n)
	}
	const sent, unsent = ` && document.getElementById("follow-sent").textContent === ""`, ` && document.getElementById("follow-sent").textContent === "not sent yet"`
	phones := map[string]*hand{}
	for _, colour := range []string{"blue", "green", "red"} {
		h := newHand(t, w.Table, 390, 844)
		h.visit(path)
		h.write("What are you called here?", colour)
		h.press("button", "Sit down")
		h.until(at(1))
		phones[colour] = h
	}
	teacher.until(`document.querySelectorAll(".seats li").length === 3`)
	for colour, h := range phones {
		h.press("button", "Done")
		began := time.Now()
		h.until(at(2) + sent)
		teacher.until(fmt.Sprintf(`[...document.querySelectorAll(".seats li")].find(x => x.innerText.includes(%q)).querySelector("progress").value > 0`, colour))
		t.Logf("%s's step was on the board %v after it", colour, time.Since(began))
	}
	line.Lock()
	down = true
	if err := w.Store.Close(); err != nil {
		t.Fatal(err)
	}
	line.Unlock()
	for n, colour := range []string{"blue", "green", "red"} {
		for range n + 1 {
			phones[colour].press("button", "Done")
		}
		phones[colour].until(at(n+3) + unsent)
	}
	phones["green"].press("button", "Help, please")
	before := w.HTTP
	w.Start()
	line.Lock()
	w.Again, w.HTTP, down = w.HTTP, before, false
	line.Unlock()
	for n, colour := range []string{"blue", "green", "red"} {
		phones[colour].until(at(n+3) + sent)
		phones[colour].visit(path)
		phones[colour].until(at(n + 3))
	}
	phones["green"].until(`document.getElementById("follow-help").getAttribute("aria-pressed") === "true"`)
	teacher.until(`document.querySelector(".seats li.asks b")?.innerText === "green"`)
}
