package bench_test

import (
	"bytes"
	"fmt"
	"net/http"
	"os"
	"regexp"
	"strings"
	"testing"
	"time"

	"brevium/core/people"
	"brevium/web/webtest"
)

// One phone that asks again and again has one seat, two where it says so, and no third.
func TestADeviceHasOneSeat(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	board, ash, path := webtest.OpenClass(t, w)
	phone := w.Visitor("10.4.0.1")
	for n := range 70 {
		phone.Post(path, "name", fmt.Sprint("name ", n))
	}
	if _, page, _ := ash.Get(board); strings.Count(page, "Free this seat") != 1 {
		t.Errorf("one phone has %d seats", strings.Count(page, "Free this seat"))
	}
	if status, page, _ := phone.Post(path, "name", "plum"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "Go on as name 0") {
		t.Errorf("asked again: %d", status)
	}
	if status, _, _ := phone.Post(path, "name", "plum", "second", "1"); status != http.StatusSeeOther {
		t.Errorf("a second seat: %d", status)
	}
	if status, page, _ := phone.Post(path, "name", "pear", "second", "1"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "2 seats already") {
		t.Errorf("a third seat: %d", status)
	}
	if status, _, _ := phone.Post(path + "/up"); status != http.StatusSeeOther {
		t.Errorf("giving it back: %d", status)
	}
	if _, page, _ := ash.Get(board); strings.Contains(page, "plum") || !strings.Contains(page, "name 0") {
		t.Error("the seat that was given back is still there, or another is gone")
	}
	if _, page, _ := phone.Get(path); !strings.Contains(page, "What are you called here?") {
		t.Error("a phone that gave its seat back still sits")
	}
}

// Sixty phones that take seats and do nothing keep nobody out: after three minutes those come
// free one by one; seats at which somebody works stay; whoever teaches frees any, and nobody
// else does.
func TestSeatsComeFree(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	board, ash, path := webtest.OpenClass(t, w)
	working := w.Visitor("10.4.0.2")
	working.Post(path, "name", "working")
	working.Post(path+"/at", "at", "2")
	for n := range 59 {
		if status, _, _ := w.Visitor("10.4.0.3").Post(path, "name", fmt.Sprint("idle ", n)); status != http.StatusSeeOther {
			t.Fatalf("seat %d: %d", n, status)
		}
	}
	late := w.Visitor("10.4.0.4")
	if status, page, _ := late.Post(path, "name", "late"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "60 seats, and all are taken") {
		t.Errorf("the sixty-first at once: %d", status)
	}
	_, page, _ := ash.Get(board)
	seat := regexp.MustCompile(`name="seat" value="(\d+)"`).FindStringSubmatch(page)
	if seat == nil {
		t.Fatal("the board frees no seat")
	}
	if status, _, _ := w.Person("Alder", people.Maker).Post(board, "do", "free", "seat", seat[1]); status != http.StatusNotFound {
		t.Errorf("another maker frees a seat: %d", status)
	}
	if status, _, _ := ash.Post(board, "do", "free", "seat", seat[1]); status != http.StatusSeeOther {
		t.Errorf("Ash frees a seat: %d", status)
	}
	if status, _, _ := late.Post(path, "name", "late"); status != http.StatusSeeOther {
		t.Errorf("late, with a seat freed: %d", status)
	}
	late.Post(path+"/at", "at", "1")
	w.Now = w.Now.Add(4 * time.Minute)
	for n := range 50 {
		if status, _, _ := w.Visitor("10.4.0.5").Post(path, "name", fmt.Sprint("next ", n)); status != http.StatusSeeOther {
			t.Fatalf("four minutes later, %d: %d", n, status)
		}
	}
	for _, v := range []*webtest.Visitor{working, late} {
		if _, page, _ := v.Get(path); strings.Contains(page, "What are you called here?") {
			t.Error("one who works lost the seat")
		}
	}
	if status, _, _ := ash.Post(board, "do", "close"); status != http.StatusSeeOther {
		t.Errorf("closing: %d", status)
	}
}

// The data hold no code of a class or a link that could be read out of them; their makers
// see them again and again.
func TestCodesAreKeptAsMarks(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	_, ash, path := webtest.OpenClass(t, w)
	id := regexp.MustCompile(`\d+`).FindString(func() string {
		all, err := w.Store.Of(w.As("Ash")).Boxes(w.As("Ash"))
		if err != nil {
			t.Fatal(err)
		}
		return fmt.Sprint(all[0].ID)
	}())
	ash.Post("/boxes/"+id+"/link", "do", "make")
	_, page, _ := ash.Get("/boxes/" + id + "/link")
	link := regexp.MustCompile(`/look/(\w+)`).FindStringSubmatch(page)
	if link == nil {
		t.Fatalf("no link is shown: %.600s", page)
	}
	if _, again, _ := ash.Get("/boxes/" + id + "/link"); !strings.Contains(again, link[0]) {
		t.Error("seen again, the link is another")
	}
	if status, _, _ := w.Visitor("10.0.0.7").Get("/look/" + strings.ToUpper(link[1])); status != http.StatusOK {
		t.Errorf("by the link one gets %d", status)
	}
	copied := t.TempDir() + "/copy.db"
	if err := w.Store.Backup(t.Context(), copied); err != nil {
		t.Fatal(err)
	}
	data, err := os.ReadFile(copied)
	if err != nil {
		t.Fatal(err)
	}
	for what, code := range map[string]string{"class": strings.TrimPrefix(path, "/class/"), "link": link[1]} {
		if len(code) != 16 || bytes.Contains(data, []byte(code)) {
			t.Errorf("the code of the %s, %q, stands in the data", what, code)
		}
	}
	ash.Post("/boxes/"+id+"/link", "do", "end")
	if status, _, _ := w.Visitor("10.0.0.7").Get(link[0]); status != http.StatusNotFound {
		t.Errorf("the ended link: %d", status)
	}
}
