package web

import (
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"brevium/core/people"
)

// openClass opens a class for a shared box, and gives the address that its code leads to.
func openClass(t *testing.T, w *atelier) (board string, ash *visitor, path string) {
	t.Helper()
	id, ash, rowan := sharedBox(t, w)
	board = fmt.Sprintf("/boxes/%d/class", id)
	if status, _, _ := rowan.post(board, "do", "open"); status < 400 { // it is not hers
		t.Errorf("another opens a class of Ash's box: %d", status)
	}
	if status, _, _ := ash.post(board, "do", "open"); status != http.StatusSeeOther {
		t.Fatalf("opening a class: %d", status)
	}
	_, page, _ := ash.get(board)
	if path = regexp.MustCompile(`/class/\w+`).FindString(page); path == "" || !strings.Contains(page, "<svg class=\"code\"") {
		t.Fatalf("the way in is not on the board: %.600s", page)
	}
	return board, ash, path
}

// Thirty follow at once, each by a name of their own: the board has where each is, and who
// asks for help; nobody sees more than the steps, and when the class is closed nothing.
func TestAClass(t *testing.T) {
	w := newAtelier(t)
	board, ash, path := openClass(t, w)
	var all sync.WaitGroup
	var slow atomic.Int64
	for n := range 30 {
		all.Go(func() {
			v := w.visitor(fmt.Sprintf("10.2.0.%d", n))
			if status, page, _ := v.get(path); status != 200 || !strings.Contains(page, "What are you called here?") {
				t.Errorf("the way in: %d", status)
			}
			if status, _, _ := v.post(path, "name", fmt.Sprintf("pupil %d", n)); status != http.StatusSeeOther {
				t.Errorf("sitting down: %d", status)
			}
			for at := 1; at <= n%7; at++ {
				began := time.Now()
				if status, _, _ := v.post(path+"/at", "at", fmt.Sprint(at), "help", fmt.Sprint(n%2)); status != http.StatusNoContent {
					t.Errorf("step %d: %d", at, status)
				}
				slow.Store(max(slow.Load(), int64(time.Since(began))))
			}
			if status, _, h := v.get("/"); status != http.StatusSeeOther || !strings.HasPrefix(h.Get("Location"), "/sign-in") {
				t.Errorf("who follows sees the boxes: %d", status)
			}
		})
	}
	all.Wait()
	t.Logf("the slowest step took %v", time.Duration(slow.Load()))
	_, page, _ := ash.get(board)
	if got := strings.Count(page, "<li"); got < 30 || strings.Count(page, "asks for help") != 13 || !strings.Contains(page, "pupil 29") {
		t.Errorf("the board has %d seats, %d ask for help", got, strings.Count(page, "asks for help"))
	}
	stranger := w.visitor("10.2.1.1")
	if status, page, _ := stranger.post(path, "name", "Pupil 3"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "somebody in this class") {
		t.Errorf("two of one name: %d", status)
	}
	if status, _, _ := stranger.post(path+"/at", "at", "3"); status != http.StatusUnprocessableEntity {
		t.Errorf("without a seat: %d", status)
	}
	if status, _, _ := stranger.get("/class/aaaaaaaaaaaaaaaa"); status != http.StatusUnprocessableEntity {
		t.Errorf("a code that is none: %d", status)
	}
	sat := w.visitor("10.2.1.2")
	sat.post(path, "name", "blue")
	for _, at := range []string{"-1", "x", "99999"} {
		if status, _, _ := sat.post(path+"/at", "at", at); status != http.StatusUnprocessableEntity {
			t.Errorf("at %q: %d", at, status)
		}
	}
	if status, page, _ := sat.get(path); status != 200 || strings.Count(page, "data-move=") < 10 {
		t.Errorf("the steps: %d, %d of them", status, strings.Count(page, "data-move="))
	}
	ash.post(board, "do", "close")
	if status, _, _ := sat.get(path); status != http.StatusUnprocessableEntity {
		t.Errorf("after the class: %d", status)
	}
}

// On a phone: one follows without signing in; while the machine cannot be reached the steps
// go on, and what was done then arrives when it can; the board shows it by itself.
func TestAClassOnAPhone(t *testing.T) {
	w := newAtelier(t)
	_, _, path := openClass(t, w)
	var down atomic.Bool
	up := w.http
	w.http = http.HandlerFunc(func(a http.ResponseWriter, r *http.Request) {
		if down.Load() {
			panic(http.ErrAbortHandler) // the line is cut
		}
		up.ServeHTTP(a, r)
	})
	teacher := newHand(t, w.table, 1280, 800)
	teacher.visit("/sign-in")
	teacher.write("Your name", "Ash")
	teacher.write("Password", goodPassword)
	teacher.press("button", "Sign in")
	teacher.until(`location.pathname === "/"`)
	p, err := w.store.PersonCalled(t.Context(), "Ash")
	if err != nil {
		t.Fatal(err)
	}
	boxes, err := w.store.Names(people.With(t.Context(), p))
	if err != nil {
		t.Fatal(err)
	}
	teacher.visit(fmt.Sprintf("/boxes/%d/class", boxes[0].ID))
	pupil := newHand(t, w.table, 390, 844)
	pupil.visit(path)
	pupil.write("What are you called here?", "green")
	pupil.press("button", "Sit down")
	pupil.until(`document.getElementById("follow-where")?.textContent.startsWith("1 of")`)
	teacher.until(`document.querySelector(".seats li b")?.innerText === "green"`)
	pupil.press("button", "Done")
	pupil.until(`document.getElementById("follow-where").textContent.startsWith("2 of") && document.getElementById("follow-sent").textContent === ""`)
	down.Store(true)
	pupil.press("button", "Done")
	pupil.press("button", "Done")
	pupil.press("button", "Help, please")
	pupil.until(`document.getElementById("follow-where").textContent.startsWith("4 of") && document.getElementById("follow-sent").textContent === "not sent yet"`)
	down.Store(false)
	pupil.until(`document.getElementById("follow-sent").textContent === ""`)
	pupil.visit(path)
	pupil.until(`document.getElementById("follow-where").textContent.startsWith("4 of") && document.getElementById("follow-help").getAttribute("aria-pressed") === "true"`)
	teacher.until(`document.querySelector(".seats li.asks b")?.innerText === "green"`)
}
