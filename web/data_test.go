package web

import (
	"bytes"
	"fmt"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/store"
	"brevium/web/page"
)

// send posts a form with a file, as a page without scripts does.
func (x *table) send(path string, file []byte, pairs ...string) (int, string, http.Header) {
	x.t.Helper()
	var body bytes.Buffer
	form := multipart.NewWriter(&body)
	for i := 0; i < len(pairs); i += 2 {
		if err := form.WriteField(pairs[i], pairs[i+1]); err != nil {
			x.t.Fatal(err)
		}
	}
	part, err := form.CreateFormFile("file", "f")
	if err == nil {
		_, err = part.Write(file)
	}
	if err != nil || form.Close() != nil {
		x.t.Fatal(err)
	}
	q := httptest.NewRequest(http.MethodPost, path, &body)
	q.Header.Set("Content-Type", form.FormDataContentType())
	r := httptest.NewRecorder()
	x.http.ServeHTTP(r, q)
	return r.Code, r.Body.String(), r.Header()
}

// workshop is a table with a bit of everything on it.
func workshop(t *testing.T) *table {
	t.Helper()
	x := newTable(t)
	x.jarBox()
	second := x.jarBox()
	x.post("/boxes/2/rename", "name", "Second")
	x.post("/boxes/2/sheets", "copies", "3")
	x.post("/boxes/1/tick", "step", "cut/base", "mark", "m", "done", "1")
	card := x.box(second).Inputs.Card
	sheet, _ := paper.SheetNamed("12 × 12 in")
	lot := drawer.Lot{Card: card, Sheet: sheet.Name, Width: sheet.Width, Height: sheet.Height, Count: 20, Price: 0.5}
	lot.Card.Direction = paper.NoDirection
	if err := x.store.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{lot}); err != nil {
		t.Fatal(err)
	}
	x.post("/jobs", "copies.1", "2", "copies.2", "1", "name", "fair")
	x.post("/jobs", "copies.2", "2", "name", "later")
	if code, body, _ := x.post("/jobs/1/begin"); code != http.StatusNoContent {
		t.Fatalf("the job does not begin: %d %s", code, body)
	}
	return x
}

// told is what is on a table, in words.
func (x *table) told() string {
	x.t.Helper()
	boxes, err := x.store.Of(x.t.Context()).Boxes(x.t.Context())
	if err != nil {
		x.t.Fatal(err)
	}
	var out []string
	for _, b := range boxes {
		ticks, err := x.store.Of(x.t.Context()).Ticks(x.t.Context(), b.ID)
		if err != nil {
			x.t.Fatal(err)
		}
		out = append(out, fmt.Sprintf("%s × %d, %d ticked", b.Name, b.Inputs.Copies, len(ticks)))
	}
	lots, err := x.store.Of(x.t.Context()).Lots(x.t.Context())
	if err != nil {
		x.t.Fatal(err)
	}
	for _, l := range lots {
		out = append(out, fmt.Sprintf("%d %s, %d reserved", l.Count, l.Sheet, l.Reserved))
	}
	jobs, err := x.store.Of(x.t.Context()).Jobs(x.t.Context())
	if err != nil {
		x.t.Fatal(err)
	}
	for _, j := range jobs {
		out = append(out, fmt.Sprintf("%s %s, %d kinds", j.Name, j.State, len(j.Items)))
	}
	things, err := x.store.Of(x.t.Context()).Things(x.t.Context())
	if err != nil {
		x.t.Fatal(err)
	}
	return strings.Join(append(out, fmt.Sprintf("%d things", len(things))), "; ")
}

func TestEverythingGoesToAnotherWorkshop(t *testing.T) {
	t.Parallel()
	x := workshop(t)
	code, zip, _ := x.get("/data/everything.zip")
	if code != http.StatusOK || !strings.HasPrefix(zip, "PK") {
		t.Fatalf("%d", code)
	}
	want := x.told()
	other := newTable(t)
	for _, turn := range []string{"brought in", "brought in again"} {
		if code, body, h := other.send("/data/bring", []byte(zip), "how", "merge"); code != http.StatusSeeOther {
			t.Fatalf("%d: %s", code, body)
		} else if _, body, _ := other.get(h.Get("Location")); !strings.Contains(body, "Taken in") {
			t.Error("nothing is said")
		}
		if got := other.told(); got != want {
			t.Errorf("%s: %s\nwant %s", turn, got, want)
		}
	}
	// A begun job goes on there, and its paper comes back.
	jobs, err := other.store.Of(t.Context()).Jobs(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	begun := jobs[0]
	if begun.State != store.Begun {
		begun = jobs[1]
	}
	if code, body, _ := other.post("/jobs/" + page.Itoa(begun.ID) + "/finish"); code != http.StatusNoContent {
		t.Errorf("the job does not end there: %d %s", code, body)
	}
	// In place of what is there, and undone.
	other.post("/boxes/1/rename", "name", "Changed")
	before := other.told()
	code, body, h := other.send("/data/bring", []byte(zip), "how", "replace")
	if code != http.StatusSeeOther || other.told() != want {
		t.Errorf("%d %s: %s\nwant %s", code, body, other.told(), want)
	}
	at, err := url.Parse(h.Get("Location"))
	if err != nil {
		t.Fatal(err)
	}
	other.post("/data/restore", "copy", at.Query().Get("undo"))
	if got := other.told(); got != before {
		t.Errorf("undone: %s\nwant %s", got, before)
	}
	for _, bad := range [][]byte{nil, []byte("no zip"), []byte(zip[:len(zip)/2])} {
		if code, body, _ := other.send("/data/bring", bad); code != http.StatusUnprocessableEntity || !strings.Contains(body, "Not done:") {
			t.Errorf("%d bytes: %d", len(bad), code)
		}
	}
	if got := other.told(); got != before {
		t.Errorf("after what was refused: %s", got)
	}
}

func TestCopiesOnThePage(t *testing.T) {
	t.Parallel()
	x := workshop(t)
	want := x.told()
	x.post("/data/copy")
	copies, err := x.store.Copies()
	if err != nil || len(copies) != 1 {
		t.Fatalf("%v, %v", copies, err)
	}
	name := copies[0].Name
	if code, body, _ := x.get("/data"); code != http.StatusOK || !strings.Contains(body, name) {
		t.Errorf("the page: %d, without the copy", code)
	}
	_, file, _ := x.get("/data/copies/" + name)
	if !strings.HasPrefix(file, "SQLite format 3") {
		t.Error("the copy is not what is downloaded")
	}
	if code, _, _ := x.get("/data/copies/..%2Fbrevium.db"); code != http.StatusNotFound {
		t.Errorf("another file: %d", code)
	}
	x.post("/boxes/1/delete")
	x.post("/data/restore", "copy", name)
	if got := x.told(); got != want {
		t.Errorf("brought back: %s\nwant %s", got, want)
	}
	x.post("/boxes/1/delete")
	if code, body, _ := x.send("/data/restore", []byte(file)); code != http.StatusSeeOther || x.told() != want {
		t.Errorf("brought back from a file: %d %s, %s", code, body, x.told())
	}
	for _, bad := range [][]byte{nil, []byte("nothing of the kind"), []byte(file[:5000])} {
		if code, _, _ := x.send("/data/restore", bad); code != http.StatusUnprocessableEntity {
			t.Errorf("%d bytes: %d", len(bad), code)
		}
	}
	if code, body, h := x.post("/data/check"); code != http.StatusNoContent {
		t.Errorf("%d %s", code, body)
	} else if _, body, _ := x.get(h.Get("HX-Redirect")); !strings.Contains(body, "it is sound") {
		t.Error("a full check says nothing")
	}
}

// The bin is looked into, brought back from and emptied; a job tells of its
// boxes there.
func TestTheBin(t *testing.T) {
	t.Parallel()
	x := workshop(t)
	x.post("/boxes/2/delete")
	x.post("/boxes/1/contents", "contents[0].name", "Jar")
	things, err := x.store.Of(t.Context()).Things(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	x.post("/boxes/1/things/add", "thing", page.Itoa(things[0].ID), "forget", "1")
	if _, body, _ := x.get("/bin"); !strings.Contains(body, "Second") || !strings.Contains(body, things[0].Name) {
		t.Error("the bin does not show what was deleted")
	}
	if _, body, _ := x.get("/jobs/2"); !strings.Contains(body, "Second lies in the bin") {
		t.Error("the job does not name its box")
	}
	if code, body, _ := x.post("/bin/box/2/forget"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "makes this box") {
		t.Errorf("a box that a job makes is forgotten: %d", code)
	}
	if _, _, h := x.post("/bin/box/2/back", "job", "2"); h.Get("HX-Redirect") != "/jobs/2" || x.box(2).Name != "Second" {
		t.Error("the box is not back")
	}
	x.post("/bin/thing/" + page.Itoa(things[0].ID) + "/back")
	if again, err := x.store.Of(t.Context()).Things(t.Context()); err != nil || len(again) != len(things) {
		t.Errorf("%d things, %v; want %d", len(again), err, len(things))
	}
	// Jobs and paper.
	x.post("/jobs/2/delete")
	if code, _, _ := x.post("/jobs/1/delete"); code != http.StatusUnprocessableEntity {
		t.Errorf("a job whose sheets are set aside is deleted: %d", code)
	}
	x.post("/jobs/1/release")
	lots, err := x.store.Of(t.Context()).Lots(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	x.post("/drawer/"+page.Itoa(lots[0].ID), "out", "1")
	if _, body, _ := x.get("/bin"); !strings.Contains(body, "later") || !strings.Contains(body, "20 × Plain card") {
		t.Error("the bin shows no job, or no paper")
	}
	x.post("/bin/paper/" + page.Itoa(lots[0].ID) + "/back")
	x.post("/bin/job/2/back")
	if got, err := x.store.Of(t.Context()).Lots(t.Context()); err != nil || len(got) != 1 || got[0].Count != 20 {
		t.Errorf("the paper is %+v, %v", got, err)
	}
	x.post("/jobs/1/delete")
	x.post("/jobs/2/delete")
	x.post("/boxes/2/delete")
	x.post("/bin/empty")
	if all, err := x.store.Of(t.Context()).Bin(t.Context()); err != nil || len(all) != 0 {
		t.Errorf("the bin still has %v, %v", all, err)
	}
	if code, _, _ := x.post("/bin/hat/1/back"); code != http.StatusNotFound {
		t.Errorf("what there is no bin for: %d", code)
	}
}

// Damage stands on every page and in the health answer.
func TestDamageStandsOnEveryPage(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	in := x.box(x.jarBox()).Inputs
	in.Name = strings.Repeat("x", 100)
	for range 200 {
		if _, err := x.store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
	}
	file := filepath.Join(t.TempDir(), "brevium.db")
	if err := x.store.Backup(t.Context(), file); err != nil {
		t.Fatal(err)
	}
	text, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	copy(text[len(text)/2:], bytes.Repeat([]byte("x"), 8192))
	if err := os.WriteFile(file, text, 0o600); err != nil {
		t.Fatal(err)
	}
	kept, err := store.Open(t.Context(), file)
	if err != nil {
		t.Fatal(err)
	}
	defer kept.Close()
	if said, err := kept.Check(t.Context(), false); said == "" || err != nil {
		t.Fatalf("%q, %v", said, err)
	}
	h, err := New(kept, nil, quiet())
	if err != nil {
		t.Fatal(err)
	}
	y := &table{t, kept, h}
	if code, _, _ := y.get("/health"); code != http.StatusServiceUnavailable {
		t.Errorf("health answers %d", code)
	}
	for _, path := range []string{"/data", "/new"} {
		if _, body, _ := y.get(path); !strings.Contains(body, "The data file is damaged") {
			t.Errorf("%s does not say so", path)
		}
	}
	// The page exchanges it for a copy while the program runs.
	var whole bytes.Buffer
	if err := x.store.Backup(t.Context(), file+".whole"); err != nil {
		t.Fatal(err)
	}
	if text, err = os.ReadFile(file + ".whole"); err != nil {
		t.Fatal(err)
	}
	whole.Write(text)
	code, body, header := y.send("/data/restore", whole.Bytes())
	if code != http.StatusSeeOther || header.Get("Location") != "/data?done=exchange" {
		t.Fatalf("brought back over damaged data: %d, %s, %.300s", code, header.Get("Location"), body)
	}
	if _, body, _ := y.get("/data?done=exchange"); strings.Contains(body, "Damaged:") || !strings.Contains(body, "in place of the damaged data") {
		t.Error("afterwards the page tells of damage, or of nothing")
	}
	if code, _, _ := y.get("/health"); code != http.StatusOK {
		t.Errorf("afterwards health answers %d", code)
	}
	if all, err := kept.Of(t.Context()).Boxes(t.Context()); err != nil || len(all) != 201 {
		t.Errorf("%d boxes afterwards, %v", len(all), err)
	}
}

// A copy that is downloaded locked is brought back by its passphrase alone.
func TestALockedCopy(t *testing.T) {
	t.Parallel()
	x := workshop(t)
	before := x.told()
	if code, body, _ := x.post("/data/locked", "passphrase", "password1234"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "too easy to guess") {
		t.Errorf("an easy passphrase: %d", code)
	}
	code, file, header := x.post("/data/locked", "passphrase", goodPassword)
	if code != http.StatusOK || !strings.HasPrefix(file, "age-encryption.org/v1\n") || !strings.Contains(header.Get("Content-Disposition"), ".db.age") || strings.Contains(file, "SQLite format") {
		t.Fatalf("locked: %d, %v", code, header)
	}
	x.post("/boxes/1/delete")
	for pass, says := range map[string]string{"": "give its passphrase", "seven craft sheets": "not the passphrase"} {
		if code, body, _ := x.send("/data/restore", []byte(file), "passphrase", pass); code != http.StatusUnprocessableEntity || !strings.Contains(body, says) {
			t.Errorf("with %q: %d, without %q", pass, code, says)
		}
	}
	if x.told() == before {
		t.Fatal("nothing was deleted")
	}
	if code, _, _ := x.send("/data/restore", []byte(file), "passphrase", goodPassword); code != http.StatusSeeOther || x.told() != before {
		t.Errorf("brought back: %d; here is %s", code, x.told())
	}
}

// A large file is only taken where files are brought back.
func TestLargeFilesOnlyWhereTheyBelong(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	x.jarBox()
	large := bytes.Repeat([]byte("x"), 5<<20)
	if code, _, _ := x.send("/boxes/1/things/import", large); code != http.StatusRequestEntityTooLarge {
		t.Errorf("a list of 5 MiB: %d", code)
	}
	if code, _, _ := x.send("/data/restore", large); code != http.StatusUnprocessableEntity {
		t.Errorf("a copy of 5 MiB that is none: %d", code)
	}
	if x.box(1).Inputs.Tools.Trimmer != 12*measure.Inch {
		t.Error("the box changed")
	}
}
