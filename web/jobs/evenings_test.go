package jobs_test

import (
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"testing"
	"time"

	"brevium/store/jobbook"
	"brevium/web/webtest"
)

// A job is planned in evenings for two; what is done is taken off and the rest planned
// anew; too little time, a work nobody does and bad lines are said, and what was typed
// stays.
func TestAJobInEvenings(t *testing.T) {
	t.Parallel()
	x := webtest.Workshop(t)
	noon := time.Date(2026, 11, 30, 12, 0, 0, 0, time.Local)
	x.Store.UseClock(func() time.Time { return noon })
	x.Post("/jobs", "name", "Fair", "copies.1", "4", "copies.2", "6")
	at := "/jobs/1/evenings"
	x.Post(at, "evenings", "Tuesday 18 to 22\nThursday 18 to 22", "hands", "Ada\nBen: fold, glue, decorate", "trimmers", "1", "boards", "1", "ready", "")
	page := x.Words(at)
	for _, part := range []string{"Ready ", "Tuesday 1 December", "Ada", "Ben", "Cut the blanks of", "Latest start"} {
		if !strings.Contains(page, part) {
			t.Errorf("the plan lacks %q: %s", part, page)
		}
	}
	_, html, _ := x.Get(at)
	lot := regexp.MustCompile(`name="key" value="([^"]*)"><input type="hidden" name="upto" value="(\d+)"`).FindStringSubmatch(html)
	if lot == nil {
		t.Fatal("no lot can be said to be done")
	}
	x.Post(at, "key", lot[1], "upto", lot[2])
	if again := x.Words(at); strings.Contains(again, " 0 % is done") || strings.Count(again, "Cut the blanks of") >= strings.Count(page, "Cut the blanks of") {
		t.Errorf("what is done is planned again: %s", again)
	}
	x.Post(at, "evenings", "Tuesday 18 to 18:08")
	if page := x.Words(at); !strings.Contains(page, "too few") {
		t.Errorf("too little time: %s", page)
	}
	x.Post(at, "hands", "Ben: fold")
	if page := x.Words(at); !strings.Contains(page, "Nobody there does this") {
		t.Errorf("nobody cuts: %s", page)
	}
	for field, bad := range map[string]string{"evenings": "whenever", "hands": "Ben: juggle", "ready": "2026-01-01", "trimmers": "9", "boards": "none"} {
		if code, page, _ := x.Post(at, field, bad); code != http.StatusUnprocessableEntity || !strings.Contains(page, bad) || !strings.Contains(page, "Not yet") {
			t.Errorf("%s %s: %d", field, bad, code)
		}
	}
	if code, _, _ := x.Get("/jobs/99/evenings"); code != http.StatusNotFound {
		t.Errorf("no such job: %d", code)
	}
}

// Kits for a class: what is in a bag, what a table cuts with its spares, where the
// instruction sheet is.
func TestKitsForAClass(t *testing.T) {
	t.Parallel()
	x := webtest.Workshop(t)
	x.Post("/jobs", "name", "Class", "copies.1", "4")
	page := x.Words("/jobs/1/kits?people=9&tables=2&spare=20")
	for _, part := range []string{"9 bags", "5 bags to the fullest, and pieces for 1 more", "In each bag", "Base, ", "Double-sided tape", "Fence at", "the instruction sheet on A4"} {
		if !strings.Contains(page, part) {
			t.Errorf("the kits lack %q: %s", part, page)
		}
	}
	for _, bad := range []string{"people=0", "people=2&tables=3", "spare=lots"} {
		if code, page, _ := x.Get("/jobs/1/kits?" + bad); code != http.StatusUnprocessableEntity || !strings.Contains(page, "Not yet") {
			t.Errorf("%s: %d", bad, code)
		}
	}
}

// What a maker reckons with, how long steps took, who makes a job and what is done of
// it go along to another Brevium, where boxes have other numbers.
func TestTheWorkIsTakenAlong(t *testing.T) {
	t.Parallel()
	x := webtest.Workshop(t)
	x.Post("/boxes/2/cost", "hour", "12", "margin", "25", "fee", "0")
	x.Post("/boxes/2/bench", "at", "0", "go", "on", "took", "9")
	x.Post("/jobs", "name", "Fair", "copies.2", "6")
	fair := func(x *webtest.Table) jobbook.Job {
		jobs, err := x.Store.Of(t.Context()).Jobs(t.Context())
		for _, j := range jobs {
			if j.Name == "Fair" {
				return j
			}
		}
		t.Fatalf("no job of that name among %d, %v", len(jobs), err)
		return jobbook.Job{}
	}
	at := fmt.Sprintf("/jobs/%d/evenings", fair(x).ID)
	x.Post(at, "evenings", "Friday 18 to 20", "hands", "Ada")
	x.Post(at, "key", "2/cut/base", "upto", "4")
	_, zip, _ := x.Get("/data/everything.zip")
	y := webtest.NewTable(t)
	for range 5 {
		y.JarBox() // so that the numbers are others
	}
	y.Post("/boxes/1/rename", "name", "Another")
	if code, page, _ := y.Send("/data/bring", []byte(zip)); code >= 400 {
		t.Fatalf("%d %s", code, page)
	}
	there := fair(y)
	var table struct{ Evenings, Hands string }
	done, err := y.Store.Of(t.Context()).Evenings(t.Context(), there.ID, &table)
	box := there.Items[0].Box
	if err != nil || table.Evenings != "Friday 18 to 20" || table.Hands != "Ada" || done[fmt.Sprintf("%d/cut/base", box)] != 4 {
		t.Errorf("%+v, %v, %v", table, done, err)
	}
	if times, err := y.Store.Of(t.Context()).Times(t.Context(), 0); err != nil || len(times) != 1 || times[0].Seconds != 9 {
		t.Errorf("times: %+v, %v", times, err)
	}
	if _, page, _ := y.Get("/boxes/1/cost"); !strings.Contains(page, `value="12.00"`) {
		t.Error("the rates did not come along")
	}
}
