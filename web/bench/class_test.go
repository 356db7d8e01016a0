package bench_test

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
	"brevium/store/jobbook"
	"brevium/web/webtest"
)

// Of a box that is made three times each who follows makes one.
func TestAPupilMakesOne(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	ash := w.Person("Ash", people.Maker)
	moves := map[int]int{}
	for _, copies := range []int{1, 3} {
		in := design.New("Jars", measure.In, "tray-lid")
		in.Copies = copies
		id, err := w.Store.Of(w.As("Ash")).Add(w.As("Ash"), in)
		if err != nil {
			t.Fatal(err)
		}
		board := fmt.Sprintf("/boxes/%d/class", id)
		ash.Post(board, "do", "open")
		_, page, _ := ash.Get(board)
		path := regexp.MustCompile(`/class/\w+`).FindString(page)
		pupil := w.Visitor(fmt.Sprintf("10.3.0.%d", copies))
		pupil.Post(path, "name", "plum")
		_, page, _ = pupil.Get(path)
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
	w := webtest.NewAtelier(t)
	board, ash, path := webtest.OpenClass(t, w)
	var all sync.WaitGroup
	var slow atomic.Int64
	for n := range 30 {
		all.Go(func() {
			v := w.Visitor(fmt.Sprintf("10.2.0.%d", n))
			if status, page, _ := v.Get(path); status != 200 || !strings.Contains(page, "What are you called here?") {
				t.Errorf("the way in: %d", status)
			}
			if status, _, _ := v.Post(path, "name", fmt.Sprintf("pupil %d", n)); status != http.StatusSeeOther {
				t.Errorf("sitting down: %d", status)
			}
			for at := 1; at <= n%7; at++ {
				began := time.Now()
				if status, _, _ := v.Post(path+"/at", "at", fmt.Sprint(at), "help", fmt.Sprint(n%2)); status != http.StatusNoContent {
					t.Errorf("step %d: %d", at, status)
				}
				slow.Store(max(slow.Load(), int64(time.Since(began))))
			}
			if status, _, h := v.Get("/"); status != http.StatusSeeOther || !strings.HasPrefix(h.Get("Location"), "/sign-in") {
				t.Errorf("who follows sees the boxes: %d", status)
			}
		})
	}
	all.Wait()
	t.Logf("the slowest step took %v", time.Duration(slow.Load()))
	_, page, _ := ash.Get(board)
	if got := strings.Count(page, "<li"); got < 30 || strings.Count(page, "asks for help") != 13 || !strings.Contains(page, "pupil 29") {
		t.Errorf("the board has %d seats, %d ask for help", got, strings.Count(page, "asks for help"))
	}
	stranger := w.Visitor("10.2.1.1")
	if status, page, _ := stranger.Post(path, "name", "Pupil 3"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "somebody in this class") {
		t.Errorf("two of one name: %d", status)
	}
	if status, _, _ := stranger.Post(path+"/at", "at", "3"); status != http.StatusUnprocessableEntity {
		t.Errorf("without a seat: %d", status)
	}
	if status, _, _ := stranger.Get("/class/aaaaaaaaaaaaaaaa"); status != http.StatusUnprocessableEntity {
		t.Errorf("a code that is none: %d", status)
	}
	sat := w.Visitor("10.2.1.2")
	sat.Post(path, "name", "blue")
	for _, at := range []string{"-1", "x", "99999"} {
		if status, _, _ := sat.Post(path+"/at", "at", at); status != http.StatusUnprocessableEntity {
			t.Errorf("at %q: %d", at, status)
		}
	}
	if status, page, _ := sat.Get(path); status != 200 || strings.Count(page, "data-move=") < 10 {
		t.Errorf("the steps: %d, %d of them", status, strings.Count(page, "data-move="))
	}
	ash.Post(board, "do", "close")
	if status, _, _ := sat.Get(path); status != http.StatusUnprocessableEntity {
		t.Errorf("after the class: %d", status)
	}
}

// A job is followed with its kits: each makes one of every box of it, out of a bag whose
// pieces are cut already; the code on the printed page leads to the class.
func TestAClassOfKits(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	id, ash, rowan := webtest.SharedBox(t, w)
	ctx := w.As("Ash")
	tray, err := w.Store.Of(ctx).Add(ctx, design.New("Tray of sweets", measure.In, "tray"))
	if err != nil {
		t.Fatal(err)
	}
	job, err := w.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: id, Copies: 12}, {Box: tray, Copies: 12}}})
	if err != nil {
		t.Fatal(err)
	}
	board := fmt.Sprintf("/jobs/%d/class", job)
	if status, _, _ := rowan.Post(board, "do", "open"); status != http.StatusNotFound {
		t.Errorf("another opens a class of Ash's job: %d", status)
	}
	sheet := fmt.Sprintf("/boxes/%d/sheet.pdf?paper=a4&job=%d", tray, job)
	lan := map[string]string{"Host": "workshop.lan", "Cookie": "__Host-brevium=" + ash.Token()}
	print := func() string { // what is drawn, in whatever order its parts are kept
		t.Helper()
		status, text, _ := ash.Do(http.MethodGet, sheet, lan)
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
	ash.Post(board, "do", "open")
	_, page, _ := ash.Get(board)
	path := regexp.MustCompile(`/class/\w+`).FindString(page)
	if path == "" || !strings.Contains(page, "the steps of these boxes") {
		t.Fatalf("the way in is not on the board: %.600s", page)
	}
	if print() == without {
		t.Error("the printed page has the same code with a class and without")
	}
	if _, page, _ := ash.Get(fmt.Sprintf("/jobs/%d/kits", job)); !strings.Contains(page, board) {
		t.Error("the kits do not lead to the class")
	}
	pupil := w.Visitor("10.2.0.1")
	pupil.Post(path, "name", "blue")
	_, page, _ = pupil.Get(path)
	first, second := strings.Index(page, "<h1>Jars</h1>"), strings.Index(page, "<h1>Tray of sweets</h1>")
	if strings.Count(page, "In your bag") != 2 || first < 0 || second < first || strings.Contains(page, "<h1>Cut</h1>") || strings.Count(page, "It is made.") != 1 {
		t.Errorf("the steps: %d bags, at %d and %d", strings.Count(page, "In your bag"), first, second)
	}
	moves := strings.Count(page, "data-move=")
	for _, c := range []struct {
		at   int
		says string
	}{{0, "Jars, looks through the bag"}, {1, "Jars, step "}, {moves - 2, "Tray of sweets, step "}, {moves - 1, "it is made"}} {
		pupil.Post(path+"/at", "at", fmt.Sprint(c.at))
		if _, page, _ := ash.Get(board); !strings.Contains(page, c.says) {
			t.Errorf("at %d of %d the board does not say %q", c.at, moves, c.says)
		}
	}
	ash.Post(board, "do", "close")
	if status, _, _ := pupil.Get(path); status != http.StatusUnprocessableEntity {
		t.Errorf("after the class: %d", status)
	}
}

// Thirty phones that tell their steps at once.
func BenchmarkClass(b *testing.B) {
	w := webtest.NewAtelier(b)
	_, _, path := webtest.OpenClass(b, w)
	var phones []*webtest.Visitor
	for n := range 30 {
		v := w.Visitor(fmt.Sprintf("10.2.0.%d", n))
		v.Post(path, "name", fmt.Sprintf("pupil %d", n))
		v.Get(path)
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
				v.Post(path+"/at", "at", fmt.Sprint(at%40))
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
