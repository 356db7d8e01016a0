package jobs_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"brevium/core/measure"
	"brevium/store/jobbook"
	"brevium/web/page"
	"brevium/web/webtest"
)

func TestTheDrawer(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	if _, body, _ := x.Get("/drawer"); !strings.Contains(body, "The drawer is empty") {
		t.Error("the empty drawer says nothing useful")
	}
	if code, body, _ := x.Post(
		"/drawer",
		"card",
		"Oat card",
		"gsm",
		"270 gsm",
		"direction",
		"none",
		"sheet",
		"A4",
		"count",
		"6",
		"price",
		"0,60",
	); code != http.StatusNoContent {
		t.Fatalf("%d: %s", code, body)
	}
	// More of the same are laid on the pile; an offcut lies by itself.
	x.Post("/drawer", "card", "oat card", "gsm", "270", "direction", "none", "sheet", "A4", "count", "2", "price", "0.60")
	x.Post(
		"/drawer",
		"card",
		"Oat card",
		"gsm",
		"270",
		"direction",
		"none",
		"sheet",
		"own",
		"width",
		"14.2 cm",
		"height",
		"30 cm",
		"count",
		"1",
		"offcut",
		"1",
	)
	if got := x.Counts(); got != "8/0 1/0o" {
		t.Errorf("the drawer holds %s", got)
	}
	_, body, _ := x.Get("/drawer")
	for _, says := range []string{"Oat card", "8 of these", "worth 4.80", "<svg"} {
		if !strings.Contains(body, says) {
			t.Errorf("the drawer does not say %q", says)
		}
	}
	for _, c := range [][]string{
		{"card", ""}, {"sheet", "own"}, {"count", "many"}, {"count", "-1"}, {"count", "0"}, {"price", "dear"}, {"gsm", "9 lb"}, {"direction", "up"},
	} {
		form := []string{"card", "Oat", "gsm", "240", "direction", "none", "sheet", "A4"}
		if i := slices.Index(form, c[0]); i >= 0 {
			form[i+1] = c[1]
		} else {
			form = append(form, c...)
		}
		code, body, _ := x.Post("/drawer", form...)
		if code != http.StatusUnprocessableEntity || !strings.Contains(body, "Not yet:") {
			t.Errorf("%v: %d", c, code)
		}
	}
	if code, _, _ := x.Post("/drawer/1", "count.1", "5", "price.1", "0.7"); code != http.StatusNoContent || x.Counts() != "5/0 1/0o" {
		t.Errorf("%d, the drawer holds %s", code, x.Counts())
	}
	if code, body, _ := x.Post(
		"/drawer/1",
		"count.1",
		"lots",
	); code != http.StatusUnprocessableEntity ||
		!strings.Contains(body, "not a whole number") {
		t.Errorf("%d", code)
	}
	x.Post("/drawer/2", "out", "1")
	if got := x.Counts(); got != "5/0" {
		t.Errorf("after taking the offcut out: %s", got)
	}
	if code, _, _ := x.Post("/drawer/2", "count.2", "1"); code != http.StatusNotFound {
		t.Errorf("a pile that is gone: %d", code)
	}
}

func TestTheDrawerAsAFile(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.Lot(7, 12*measure.Inch, 12*measure.Inch, false)
	_, file, header := x.Get("/drawer.csv")
	if !strings.Contains(header.Get("Content-Type"), "csv") ||
		!strings.Contains(file, "Plain card,240,0.3 mm,none,12 × 12 in,304.8 mm,304.8 mm,7,0.8,no,") {
		t.Errorf("%s", file)
	}
	other := webtest.NewTable(t)
	if code, body, _ := other.Post("/drawer/import", "list", file); code != http.StatusNoContent || other.Counts() != "7/0" {
		t.Errorf("%d: %s", code, body)
	}
	code, body, _ := other.Post("/drawer/import", "list", "card,sheet,count\nOat,A4,3\nOat,A4,x\n,A4,1\n")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, "row 2") || !strings.Contains(body, "row 3") ||
		other.Counts() != "7/0" {
		t.Errorf("%d; the drawer holds %s", code, other.Counts())
	}
}

// A job from its boxes to the drawer and back.
func TestAJobFromPlanToDrawer(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Lot(1, 12*measure.Inch, 12*measure.Inch, false)
	if _, body, _ := x.Get("/jobs"); !strings.Contains(body, "No jobs yet") {
		t.Error("no jobs say nothing useful")
	}
	if code, body, _ := x.Post(
		"/jobs",
		"name",
		"",
		"copies.1",
		"",
	); code != http.StatusUnprocessableEntity ||
		!strings.Contains(body, "at least one box") {
		t.Errorf("a job of nothing: %d", code)
	}
	if code, _, _ := x.Post("/jobs", "copies.1", "9999"); code != http.StatusUnprocessableEntity {
		t.Errorf("9999 boxes: %d", code)
	}
	if code, _, header := x.Post(
		"/jobs",
		"name",
		"fair",
		"copies.1",
		"2",
	); code != http.StatusNoContent ||
		header.Get("HX-Redirect") != "/jobs/1" {
		t.Fatalf("%d %s", code, header.Get("HX-Redirect"))
	}
	_, body, _ := x.Get("/jobs/1")
	for _, says := range []string{"the drawer runs short", "Fence at", "data-key=", "Where Jars: base goes", "Begin: set these sheets aside"} {
		if !strings.Contains(body, says) {
			t.Errorf("the job does not say %q", says)
		}
	}
	// It does not begin before what is missing is there.
	if code, body, _ := x.Post("/jobs/1/begin"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "must be bought first") {
		t.Errorf("begun without paper: %d", code)
	}
	if code, _, _ := x.Post("/jobs/1/buy"); code != http.StatusNoContent {
		t.Errorf("bought: %d", code)
	}
	before := x.Counts()
	if code, body, _ := x.Post("/jobs/1/begin"); code != http.StatusNoContent {
		t.Fatalf("%d: %s", code, body)
	}
	begun := x.Counts()
	if begun == before || x.Job(1).State != jobbook.Begun {
		t.Errorf("nothing is reserved: %s", begun)
	}
	if code, _, _ := x.Post("/drawer/1", "count.1", "0"); code != http.StatusUnprocessableEntity {
		t.Errorf("reserved sheets were taken out: %d", code)
	}
	// The box may change now; the job stays as it was.
	x.Post("/boxes/1/box", "style", "tray")
	if _, body, _ := x.Get("/jobs/1"); !strings.Contains(body, "Jars: lid") {
		t.Error("a begun job forgot its lid")
	}
	if code, _, _ := x.Post("/jobs/1/release"); code != http.StatusNoContent || x.Counts() != before {
		t.Errorf("%d, released: %s", code, x.Counts())
	}
	x.Post("/boxes/1/undo", "change", page.Itoa(x.Box(1).Last.ID))
	x.Post("/jobs/1/begin")
	if code, _, _ := x.Post("/jobs/1/finish"); code != http.StatusNoContent || x.Job(1).State != jobbook.Finished {
		t.Fatalf("%d, %s", code, x.Job(1).State)
	}
	if got := x.Counts(); strings.Contains(got, "0o") == false || got == begun {
		t.Errorf("finished, the drawer holds %s", got)
	}
	if code, _, _ := x.Post("/jobs/1/unfinish"); code != http.StatusNoContent || x.Counts() != begun {
		t.Errorf("%d, undone: %s; want %s", code, x.Counts(), begun)
	}
	x.Post("/jobs/1/finish")
	x.Post("/jobs/1/delete")
	if code, body, _ := x.Get("/jobs/1"); code != http.StatusNotFound || !strings.Contains(body, "no job here") {
		t.Errorf("a deleted job: %d", code)
	}
	for _, path := range []string{"/jobs/x", "/jobs/7"} {
		if code, _, _ := x.Get(path); code != http.StatusNotFound {
			t.Errorf("%s: %d", path, code)
		}
	}
	if code, _, _ := x.Post("/jobs/7/begin"); code != http.StatusNotFound {
		t.Errorf("beginning what is not there: %d", code)
	}
}

func TestAJobChanges(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	n := x.JarBox()
	x.JarBox()
	x.Post("/jobs", "copies.1", "1")
	if code, body, _ := x.Post(
		"/jobs/1",
		"name",
		"both",
		"copies.1",
		"3",
		"add",
		"2",
		"stages",
		"2",
	); code != http.StatusOK ||
		!strings.Contains(body, `id="job"`) {
		t.Fatalf("%d: %s", code, body)
	}
	j := x.Job(1)
	if j.Name != "both" || len(j.Items) != 2 || j.Items[0].Copies != 3 || j.Choices.Stages != 2 {
		t.Errorf("the job is %+v", j)
	}
	for _, bad := range [][]string{{"copies.1", "x"}, {"copies.1", "0", "copies.2", "0"}, {"copies.1", "1", "trim", "-1"}, {"copies.1", "1", "kerf", "20 in"}, {"copies.1", "1", "stages", "9"}} {
		if code, body, _ := x.Post("/jobs/1", bad...); code != http.StatusUnprocessableEntity || !strings.Contains(body, "Not taken:") {
			t.Errorf("%v: %d", bad, code)
		}
	}
	if got := x.Job(1); got.Items[0].Copies != 3 {
		t.Error("a refused change was kept")
	}
	// A box that is deleted is said, and can be taken out.
	x.Post(fmt.Sprintf("/boxes/%d/delete", n))
	if _, body, _ := x.Get("/jobs/1"); !strings.Contains(body, "is deleted") {
		t.Error("a deleted box is not said")
	}
	if code, _, _ := x.Post("/jobs/1", "copies.1", "0", "copies.2", "2", "stages", "0"); code != http.StatusOK || len(x.Job(1).Items) != 1 {
		t.Errorf("%d; the job makes %+v", code, x.Job(1).Items)
	}
}

// keys lists where the pieces of a page lie.
func keys(body string) []string {
	var out []string
	for _, part := range strings.Split(body, `data-key="`)[1:] {
		key, _, _ := strings.Cut(part, " ")
		out = append(out, key)
	}
	return out
}

func TestPiecesAreHeld(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Lot(9, 12*measure.Inch, 12*measure.Inch, false)
	x.Post("/jobs", "copies.1", "1")
	_, body, _ := x.Get("/jobs/1")
	at := keys(body)
	if len(at) == 0 {
		t.Fatal("no piece has a key")
	}
	code, panel, _ := x.Get("/jobs/1/piece?at=" + at[0])
	if code != http.StatusOK || !strings.Contains(panel, "Keep it here") || !strings.Contains(panel, "From the left") {
		t.Errorf("%d: %s", code, panel)
	}
	if code, body, _ := x.Post(
		"/jobs/1/hold",
		"at",
		at[0],
		"x",
		"1",
		"y",
		"1/2",
		"do",
		"keep",
	); code != http.StatusOK ||
		!strings.Contains(body, "kept where it lies") {
		t.Fatalf("%d: %s", code, body)
	}
	held := x.Job(1).Choices.Held
	if len(held) != 1 || len(held[0].Pieces) != 1 || held[0].Pieces[0].X != measure.Inch || held[0].Pieces[0].Y != measure.Inch/2 {
		t.Fatalf("held: %+v", held)
	}
	// Outside the sheet it cannot lie; what was kept stays.
	_, body, _ = x.Get("/jobs/1")
	at = keys(body)
	if code, body, _ := x.Post(
		"/jobs/1/hold",
		"at",
		at[0],
		"x",
		"11",
		"do",
		"keep",
	); code != http.StatusUnprocessableEntity ||
		!strings.Contains(body, "stick out") {
		t.Errorf("outside the sheet: %d", code)
	}
	if code, _, _ := x.Post(
		"/jobs/1/hold",
		"at",
		at[0],
		"x",
		"wide",
		"do",
		"keep",
	); code != http.StatusUnprocessableEntity ||
		len(x.Job(1).Choices.Held) != 1 {
		t.Errorf("no length: %d", code)
	}
	for _, key := range at {
		if strings.HasPrefix(key, "0.0.") {
			x.Post("/jobs/1/hold", "at", key, "do", "sheet")
			break
		}
	}
	if got := x.Job(1).Choices.Held; len(got) != 1 || len(got[0].Pieces) < 1 {
		t.Errorf("the sheet is not kept: %+v", got)
	}
	for range 9 { // let every piece go
		// The kept ones are on the first sheet.
		_, body, _ = x.Get("/jobs/1")
		if before, _, kept := strings.Cut(body, "kept where it lies"); kept {
			own := keys(before)
			x.Post("/jobs/1/hold", "at", own[len(own)-1], "do", "free")
		}
	}
	if got := x.Job(1).Choices.Held; len(got) != 0 {
		t.Errorf("still held: %+v", got)
	}
	for _, bad := range []string{"", "0.0.99", "9.0.0", "-1.0.0", "a.b.c"} {
		if code, _, _ := x.Post("/jobs/1/hold", "at", bad, "do", "keep"); code != http.StatusUnprocessableEntity {
			t.Errorf("a piece at %q: %d", bad, code)
		}
	}
}

// A search tells what it finds line by line and keeps the best; when the page
// goes, it ends at once.
func TestTheSearchIsWatchedAndStopped(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Lot(3, 12*measure.Inch, 12*measure.Inch, false)
	x.Post("/jobs", "copies.1", "23")
	web := httptest.NewServer(x.HTTP)
	defer web.Close()
	ask := func(ctx context.Context, seconds string) (*http.Response, error) {
		q, err := http.NewRequestWithContext(ctx, http.MethodPost, web.URL+"/jobs/1/search", strings.NewReader("seconds="+seconds))
		if err != nil {
			return nil, err
		}
		q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		q.Header.Set("Accept", "application/x-ndjson")
		return http.DefaultClient.Do(q)
	}
	answer, err := ask(t.Context(), "1")
	if err != nil {
		t.Fatal(err)
	}
	lines, last := 0, struct {
		Part float64
		HTML string
	}{}
	s := bufio.NewScanner(answer.Body)
	for s.Buffer(nil, 4<<20); s.Scan(); lines++ {
		if err := json.Unmarshal(s.Bytes(), &last); err != nil {
			t.Fatal(err)
		}
	}
	if lines < 2 || last.Part != 1 || !strings.Contains(last.HTML, "<svg") {
		t.Errorf("%d lines, the last %+v", lines, last)
	}
	if len(x.Job(1).Layouts) < 100 {
		t.Error("the best layout is not kept")
	}
	if code, _, _ := x.Get("/jobs/1"); code != http.StatusOK {
		t.Error("the job is gone")
	}
	// Closing the page ends a search that would go on for a minute.
	ctx, leave := context.WithCancel(t.Context())
	answer, err = ask(ctx, "60")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := bufio.NewReader(answer.Body).ReadString('\n'); err != nil {
		t.Fatal(err)
	}
	leave()
	done := make(chan struct{})
	go func() { web.Config.Shutdown(context.Background()); close(done) }() // waits for the handler
	select {
	case <-done:
	case <-time.After(30 * time.Second):
		t.Error("the search goes on after its page has gone")
	}
}

// Undo is offered of a job that lies in the bin, and no more once it is back.
func TestOnlyWhatIsDeletedIsBroughtBack(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/jobs", fmt.Sprintf("copies.%d", id), "2", "name", "Fair")
	offered := func() bool {
		_, page, _ := x.Get("/jobs?deleted=1")
		return strings.Contains(page, "/bin/job/1/back")
	}
	if offered() {
		t.Error("a job that is there is offered to be brought back")
	}
	x.Post("/jobs/1/delete")
	if !offered() {
		t.Error("a job that was deleted is not offered back")
	}
	if code, body, _ := x.Post("/bin/job/1/back"); code >= 400 || offered() {
		t.Errorf("brought back: %d %s; offered again: %v", code, body, offered())
	}
}
