package web

import (
	"fmt"
	"net/http"
	"regexp"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/store"
)

// openClass opens a class for a shared box, and gives the address that its code leads to.
func openClass(t testing.TB, w *atelier) (board string, ash *visitor, path string) {
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

// Of a box that is made three times each who follows makes one.
func TestAPupilMakesOne(t *testing.T) {
	t.Parallel()
	w := newAtelier(t)
	ash := w.person("Ash", people.Maker)
	moves := map[int]int{}
	for _, copies := range []int{1, 3} {
		in := design.New("Jars", measure.In, "tray-lid")
		in.Copies = copies
		id, err := w.store.Of(w.as("Ash")).Add(w.as("Ash"), in)
		if err != nil {
			t.Fatal(err)
		}
		board := fmt.Sprintf("/boxes/%d/class", id)
		ash.post(board, "do", "open")
		_, page, _ := ash.get(board)
		path := regexp.MustCompile(`/class/\w+`).FindString(page)
		pupil := w.visitor(fmt.Sprintf("10.3.0.%d", copies))
		pupil.post(path, "name", "plum")
		_, page, _ = pupil.get(path)
		moves[copies] = strings.Count(page, "follow-move")
		if strings.Contains(page, "Sheet 2") || strings.Contains(page, "of 3</p>") {
			t.Errorf("of %d boxes a pupil is told of further ones", copies)
		}
	}
	if moves[1] == 0 || moves[3] != moves[1] {
		t.Errorf("a pupil makes %d moves for one box, %d where three are made", moves[1], moves[3])
	}
}

// Thirty follow at once, each by a name of their own: the board has where each is, and who
// asks for help; nobody sees more than the steps, and when the class is closed nothing.
func TestAClass(t *testing.T) {
	t.Parallel()
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

// On three phones: one follows without signing in; the server is killed and started again,
// and what was done meanwhile arrives when it is back; the board shows it by itself.
func TestAClassOnPhones(t *testing.T) {
	t.Parallel()
	w := newAtelier(t)
	_, _, path := openClass(t, w)
	var line sync.RWMutex // held while the server is down
	down := false
	w.http = func(up http.Handler) http.Handler {
		return http.HandlerFunc(func(a http.ResponseWriter, r *http.Request) {
			line.RLock()
			now, cut := up, down
			if w.again != nil {
				now = w.again
			}
			line.RUnlock()
			if cut {
				panic(http.ErrAbortHandler)
			}
			now.ServeHTTP(a, r)
		})
	}(w.http)
	teacher := signedIn(t, w, "Ash")
	p, err := w.store.Of(t.Context()).PersonCalled(t.Context(), "Ash")
	if err != nil {
		t.Fatal(err)
	}
	boxes, err := w.store.Of(people.With(t.Context(), p)).Names(people.With(t.Context(), p))
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
		h := newHand(t, w.table, 390, 844)
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
	if err := w.store.Close(); err != nil {
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
	before := w.http
	w.start()
	line.Lock()
	w.again, w.http, down = w.http, before, false
	line.Unlock()
	for n, colour := range []string{"blue", "green", "red"} {
		phones[colour].until(at(n+3) + sent)
		phones[colour].visit(path)
		phones[colour].until(at(n + 3))
	}
	phones["green"].until(`document.getElementById("follow-help").getAttribute("aria-pressed") === "true"`)
	teacher.until(`document.querySelector(".seats li.asks b")?.innerText === "green"`)
}

// A job is followed with its kits: each makes one of every box of it, out of a bag whose
// pieces are cut already; the code on the printed page leads to the class.
func TestAClassOfKits(t *testing.T) {
	t.Parallel()
	w := newAtelier(t)
	id, ash, rowan := sharedBox(t, w)
	ctx := w.as("Ash")
	tray, err := w.store.Of(ctx).Add(ctx, design.New("Tray of sweets", measure.In, "tray"))
	if err != nil {
		t.Fatal(err)
	}
	job, err := w.store.Of(ctx).AddJob(ctx, store.Job{Name: "Fair", Items: []store.JobItem{{Box: id, Copies: 12}, {Box: tray, Copies: 12}}})
	if err != nil {
		t.Fatal(err)
	}
	board := fmt.Sprintf("/jobs/%d/class", job)
	if status, _, _ := rowan.post(board, "do", "open"); status != http.StatusNotFound {
		t.Errorf("another opens a class of Ash's job: %d", status)
	}
	sheet := fmt.Sprintf("/boxes/%d/sheet.pdf?paper=a4&job=%d", tray, job)
	lan := map[string]string{"Host": "workshop.lan", "Cookie": "__Host-brevium=" + ash.token()}
	print := func() string { // what is drawn, in whatever order its parts are kept
		t.Helper()
		status, text, _ := ash.do(http.MethodGet, sheet, lan)
		if status != http.StatusOK || !strings.HasPrefix(text, "%PDF") {
			t.Fatalf("the printed page: %d", status)
		}
		drawn := regexp.MustCompile(`(?s)stream\r?\n.*?endstream`).FindAllString(text, -1)
		slices.Sort(drawn)
		return strings.Join(drawn, "")
	}
	without := print()
	if print() != without {
		t.Fatal("two prints of one page differ by themselves")
	}
	ash.post(board, "do", "open")
	_, page, _ := ash.get(board)
	path := regexp.MustCompile(`/class/\w+`).FindString(page)
	if path == "" || !strings.Contains(page, "the steps of these boxes") {
		t.Fatalf("the way in is not on the board: %.600s", page)
	}
	if print() == without {
		t.Error("the printed page has the same code with a class and without")
	}
	if _, page, _ := ash.get(fmt.Sprintf("/jobs/%d/kits", job)); !strings.Contains(page, board) {
		t.Error("the kits do not lead to the class")
	}
	pupil := w.visitor("10.2.0.1")
	pupil.post(path, "name", "blue")
	_, page, _ = pupil.get(path)
	first, second := strings.Index(page, "<h1>Jars</h1>"), strings.Index(page, "<h1>Tray of sweets</h1>")
	if strings.Count(page, "In your bag") != 2 || first < 0 || second < first || strings.Contains(page, "<h1>Cut</h1>") || strings.Count(page, "It is made.") != 1 {
		t.Errorf("the steps: %d bags, at %d and %d", strings.Count(page, "In your bag"), first, second)
	}
	moves := strings.Count(page, "data-move=")
	for _, c := range []struct {
		at   int
		says string
	}{{0, "Jars, looks through the bag"}, {1, "Jars, step "}, {moves - 2, "Tray of sweets, step "}, {moves - 1, "it is made"}} {
		pupil.post(path+"/at", "at", fmt.Sprint(c.at))
		if _, page, _ := ash.get(board); !strings.Contains(page, c.says) {
			t.Errorf("at %d of %d the board does not say %q", c.at, moves, c.says)
		}
	}
	ash.post(board, "do", "close")
	if status, _, _ := pupil.get(path); status != http.StatusUnprocessableEntity {
		t.Errorf("after the class: %d", status)
	}
}

// Thirty phones that tell their steps at once.
func BenchmarkClass(b *testing.B) {
	w := newAtelier(b)
	_, _, path := openClass(b, w)
	var phones []*visitor
	for n := range 30 {
		v := w.visitor(fmt.Sprintf("10.2.0.%d", n))
		v.post(path, "name", fmt.Sprintf("pupil %d", n))
		v.get(path)
		phones = append(phones, v)
	}
	var all sync.Mutex
	var took []time.Duration
	at := 0
	for b.Loop() {
		at++
		var each sync.WaitGroup
		for _, v := range phones {
			each.Go(func() {
				began := time.Now()
				v.post(path+"/at", "at", fmt.Sprint(at%40))
				all.Lock()
				took = append(took, time.Since(began))
				all.Unlock()
			})
		}
		each.Wait()
	}
	slices.Sort(took)
	b.ReportMetric(float64(took[len(took)*95/100].Microseconds())/1000, "p95-ms")
}
