package jobs_test

import (
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/tool"
	"brevium/web/webtest"
)

// traysJob is a job of six trays with lids, which take eight sheets by the trimmer and six by shape.
func traysJob(t *testing.T, tools string) *webtest.Table {
	t.Helper()
	x := webtest.NewTable(t)
	in, err := design.Read([]byte(`{"brevium":1,"units":"in","style":"tray-lid","name":"Trays","size":{"length":"3 in","width":"3 in","height":"2 in"},"tools":{` + tools + `}}`))
	if err == nil {
		_, err = x.Store.Of(t.Context()).Add(t.Context(), in)
	}
	if err != nil {
		t.Fatal(err)
	}
	if code, body, _ := x.Post("/jobs", "copies.1", "6"); code >= 400 {
		t.Fatalf("%d: %s", code, body)
	}
	return x
}

var sheetsOf = regexp.MustCompile(`<p class="worked-out numbers">(\d+) sheets?`)

func sheets(t *testing.T, page string) string {
	t.Helper()
	m := sheetsOf.FindStringSubmatch(page)
	if m == nil {
		t.Fatalf("no sheets are said: %s", page)
	}
	return m[1]
}

// searched looks for fewer sheets than the trimmer's eight, longer and longer, for how long it takes is the
// machine's; it gives how many they are.
func searched(t *testing.T, x *webtest.Table) string {
	t.Helper()
	for _, seconds := range []string{"2", "4", "10", "30", "60"} {
		if code, body, _ := x.Post("/jobs/1/search", "seconds", seconds); code >= 400 {
			t.Fatalf("%d: %s", code, body)
		}
		_, page, _ := x.Get("/jobs/1")
		if n := sheets(t, page); n < "8" {
			return n
		}
	}
	t.Fatal("a minute's search saves no sheet")
	return ""
}

// A job that is cut with scissors begins with as many sheets as the trimmer's, looks for fewer by itself,
// keeps what it found, is begun and finished, and its offcuts of any shape lie in the drawer after.
func TestAJobIsCutWithScissors(t *testing.T) {
	t.Parallel()
	x := traysJob(t, `"with":"trimmer"`)
	x.Lot(12, 12*measure.Inch, 12*measure.Inch, false)
	_, page, _ := x.Get("/jobs/1")
	if sheets(t, page) != "8" || strings.Contains(page, `x-init="start"`) || !strings.Contains(page, `name="stages"`) {
		t.Error("by the trimmer it takes eight sheets, and no search begins by itself")
	}
	x.Post("/jobs/1", "with", "scissors")
	_, page, _ = x.Get("/jobs/1")
	if sheets(t, page) != "8" || !strings.Contains(page, `x-init="start"`) || strings.Contains(page, `name="stages"`) {
		t.Error("with scissors the first answer is the trimmer's, and a search begins")
	}
	fewer := searched(t, x)
	if _, page, _ = x.Get("/jobs/1"); strings.Contains(page, `x-init="start"`) {
		t.Error("it goes on by itself after what was found")
	}
	if code, body, _ := x.Post("/jobs/1", "kerf", "4 mm"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "0 to 3 mm") {
		t.Errorf("a gap of 4 mm: %d", code)
	}
	// It is printed, costed and put on the mat as it lies.
	if _, body, _ := x.Get("/jobs/1/cutting"); !strings.Contains(body, "laid by shape") || !strings.Contains(body, "came off in") || strings.Contains(body, `aria-label="How the pieces lie"`) {
		t.Error("the mat shows other sheets")
	}
	for _, at := range []string{"/jobs/1/cost", "/jobs/1/cut-files?to=hpgl"} {
		if code, _, _ := x.Get(at); code != http.StatusOK {
			t.Errorf("%s: %d", at, code)
		}
	}
	x.Post("/jobs/1/begin")
	if got := x.Counts(); got != "12/"+fewer {
		t.Errorf("begun, the drawer holds %s", got)
	}
	_, page, _ = x.Get("/jobs/1")
	if sheets(t, page) != fewer || !strings.Contains(page, "of any shape") {
		t.Error("what is begun is not what was planned, or keeps no offcut of a shape")
	}
	x.Post("/jobs/1/finish")
	lots, err := x.Store.Of(t.Context()).Lots(t.Context())
	shapes := 0
	for _, l := range lots {
		if l.Shape != "" {
			shapes++
		}
	}
	if err != nil || shapes == 0 {
		t.Errorf("%v, %v: no offcut has a shape", lots, err)
	}
	if _, body, _ := x.Get("/drawer"); !strings.Contains(body, "of any shape") {
		t.Error("the drawer does not say what they are")
	}
	// They go with the drawer's list, and what is no shape is refused there.
	_, list, _ := x.Get("/drawer.csv")
	other := webtest.NewTable(t)
	if code, body, _ := other.Post("/drawer/import", "list", list); code != http.StatusNoContent || other.Counts() != x.Counts() {
		t.Errorf("%d, %s: %s", code, other.Counts(), body)
	}
	if code, body, _ := other.Post("/drawer/import", "list", "card,shape\nOat,\"0,0 50,50 50,0 0,50\""); code != http.StatusUnprocessableEntity || !strings.Contains(body, "without crossing") {
		t.Errorf("a shape that crosses itself: %d", code)
	}
}

// A piece that is put down by hand touches what is near, in any of its turns, and keeps its place while the
// rest is laid round it; where it cannot lie it is said.
func TestAPieceIsHeldByShape(t *testing.T) {
	t.Parallel()
	x := traysJob(t, `"with":"scissors"`)
	if x.Job(1).Choices.With != tool.Scissors {
		t.Fatal("the job is not cut as its boxes are")
	}
	place := func() string {
		_, page, _ := x.Get("/jobs/1")
		at := strings.Split(strings.SplitN(page, `data-key="`, 2)[1], " ")[0]
		return at
	}
	at := place()
	if _, body, _ := x.Get("/jobs/1/piece?at=" + at); !strings.Contains(body, "upside down") || !strings.Contains(body, "a quarter against the clock") {
		t.Errorf("its turns are not offered: %s", body)
	}
	// Dragged to 2 mm from the sheet's corner it lies in it.
	if code, body, _ := x.Post("/jobs/1/hold", "at", at, "x", "2 mm", "y", "1 mm", "do", "keep"); code >= 400 {
		t.Fatalf("%d: %s", code, body)
	}
	held := x.Job(1).Choices.Held
	if len(held) != 1 || held[0].Pieces[0].X != 0 || held[0].Pieces[0].Y != 0 {
		t.Fatalf("%+v", held)
	}
	// By numbers it lies just there, turned as is said.
	if code, body, _ := x.Post("/jobs/1/hold", "at", place(), "moving", "1", "x", "1", "y", "2", "turn", "180", "do", "keep"); code >= 400 {
		t.Fatalf("%d: %s", code, body)
	}
	held = x.Job(1).Choices.Held
	if len(held) != 1 || held[0].Pieces[0].X != measure.Inch || held[0].Pieces[0].Y != 2*measure.Inch || held[0].Pieces[0].Turn != 180 {
		t.Fatalf("%+v", held)
	}
	x.Post("/jobs/1/search", "seconds", "1")
	if after := x.Job(1); len(after.Layouts) < 10 || fmt.Sprint(after.Choices.Held) != fmt.Sprint(held) {
		t.Error("a search does not keep what is held")
	}
	for _, c := range [][]string{{"x", "9", "turn", "0"}, {"x", "1", "turn", "45"}} {
		code, body, _ := x.Post("/jobs/1/hold", append([]string{"at", place(), "moving", "1", "y", "1", "do", "keep"}, c...)...)
		if code != http.StatusUnprocessableEntity || !strings.Contains(body, "Not taken") {
			t.Errorf("%v: %d", c, code)
		}
	}
	if code, _, _ := x.Post("/jobs/1/hold", "at", place(), "do", "free"); code >= 400 || len(x.Job(1).Choices.Held) != 0 {
		t.Errorf("it is not let go: %+v", x.Job(1).Choices.Held)
	}
}

// A job for a machine goes onto its mat in loads, by its list of tools; files are one a load.
func TestAJobIsDividedOverMats(t *testing.T) {
	t.Parallel()
	x := traysJob(t, `"with":"machine","machine":{"mat":"210x305","margin":"2 mm"}`)
	x.Post("/drawer/tools", "tools.machine", "210 × 305 mm; 12 × 24 in", "tools.machine.margin", "2 mm")
	_, page, _ := x.Get("/jobs/1/cutting")
	if !strings.Contains(page, "part 1 of 2") || !strings.Contains(page, "210 × 305 mm") || strings.Contains(page, "It was not cut") {
		t.Error("the sheets are not parted for the mat")
	}
	_, body, _ := x.Get("/jobs/1/cut-files?to=svg")
	if !strings.Contains(body, "sheet-1-part-1.svg") {
		t.Error("the files are not one a load")
	}
	// A record of before the choice is read as it was.
	stocks, err := batch.ReadStocks([]byte("[]"))
	if err != nil || len(stocks) != 0 {
		t.Errorf("%v, %v", stocks, err)
	}
}

// What goes on no mat is the trimmer's, which is given no offcut that is no rectangle.
func TestAJobThatGoesOnNoMat(t *testing.T) {
	t.Parallel()
	x := traysJob(t, `"with":"machine","machine":{"mat":"150x150"}`)
	x.Lot(12, 12*measure.Inch, 12*measure.Inch, false)
	x.Post("/drawer/shape", "card", "Plain card", "gsm", "240", "direction", "none", "count", "9", "shape", "0, 0; 12, 0; 12, 11; 11, 11; 11, 12; 0, 12")
	_, page, _ := x.Get("/jobs/1")
	if sheets(t, page) != "8" || strings.Contains(page, "kept offcut") {
		t.Errorf("%s sheets, or an offcut is cut edge to edge", sheets(t, page))
	}
	// With scissors those offcuts are used first: nine of them hold it all, and nothing else is taken.
	x.Post("/jobs/1", "with", "scissors")
	x.Post("/jobs/1/search", "seconds", "2")
	if _, page, _ = x.Get("/jobs/1"); !strings.Contains(page, "kept offcut") || strings.Contains(page, "12 × 12 in of Plain card") {
		t.Error("offcuts of any shape are not used first")
	}
}
