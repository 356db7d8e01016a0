package data_test

import (
	"bytes"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/store"
	"brevium/store/jobbook"
	"brevium/web"
	"brevium/web/page"
	"brevium/web/webtest"
)

func TestEverythingGoesToAnotherWorkshop(t *testing.T) {
	t.Parallel()
	x := webtest.Workshop(t)
	code, zip, _ := x.Get("/data/everything.zip")
	if code != http.StatusOK || !strings.HasPrefix(zip, "PK") {
		t.Fatalf("%d", code)
	}
	want := x.Told()
	other := webtest.NewTable(t)
	for _, turn := range []string{"brought in", "brought in again"} {
		if code, body, h := other.Send("/data/bring", []byte(zip), "how", "merge"); code != http.StatusSeeOther {
			t.Fatalf("%d: %s", code, body)
		} else if _, body, _ := other.Get(h.Get("Location")); !strings.Contains(body, "Taken in") {
			t.Error("nothing is said")
		}
		if got := other.Told(); got != want {
			t.Errorf("%s: %s\nwant %s", turn, got, want)
		}
	}
	// A begun job goes on there, and its paper comes back.
	jobs, err := other.Store.Of(t.Context()).Jobs(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	begun := jobs[0]
	if begun.State != jobbook.Begun {
		begun = jobs[1]
	}
	if code, body, _ := other.Post("/jobs/" + page.Itoa(begun.ID) + "/finish"); code != http.StatusNoContent {
		t.Errorf("the job does not end there: %d %s", code, body)
	}
	// In place of what is there, and undone.
	other.Post("/boxes/1/rename", "name", "Changed")
	before := other.Told()
	code, body, h := other.Send("/data/bring", []byte(zip), "how", "replace")
	if code != http.StatusSeeOther || other.Told() != want {
		t.Errorf("%d %s: %s\nwant %s", code, body, other.Told(), want)
	}
	at, err := url.Parse(h.Get("Location"))
	if err != nil {
		t.Fatal(err)
	}
	other.Post("/data/restore", "copy", at.Query().Get("undo"))
	if got := other.Told(); got != before {
		t.Errorf("undone: %s\nwant %s", got, before)
	}
	for _, bad := range [][]byte{nil, []byte("no zip"), []byte(zip[:len(zip)/2])} {
		if code, body, _ := other.Send("/data/bring", bad); code != http.StatusUnprocessableEntity || !strings.Contains(body, "Not done:") {
			t.Errorf("%d bytes: %d", len(bad), code)
		}
	}
	if got := other.Told(); got != before {
		t.Errorf("after what was refused: %s", got)
	}
}

func TestCopiesOnThePage(t *testing.T) {
	t.Parallel()
	x := webtest.Workshop(t)
	want := x.Told()
	x.Post("/data/copy")
	copies, err := x.Store.Copies()
	if err != nil || len(copies) != 1 {
		t.Fatalf("%v, %v", copies, err)
	}
	name := copies[0].Name
	if code, body, _ := x.Get("/data"); code != http.StatusOK || !strings.Contains(body, name) {
		t.Errorf("the page: %d, without the copy", code)
	}
	_, file, _ := x.Get("/data/copies/" + name)
	if !strings.HasPrefix(file, "SQLite format 3") {
		t.Error("the copy is not what is downloaded")
	}
	if code, _, _ := x.Get("/data/copies/..%2Fbrevium.db"); code != http.StatusNotFound {
		t.Errorf("another file: %d", code)
	}
	x.Post("/boxes/1/delete")
	x.Post("/data/restore", "copy", name)
	if got := x.Told(); got != want {
		t.Errorf("brought back: %s\nwant %s", got, want)
	}
	x.Post("/boxes/1/delete")
	if code, body, _ := x.Send("/data/restore", []byte(file)); code != http.StatusSeeOther || x.Told() != want {
		t.Errorf("brought back from a file: %d %s, %s", code, body, x.Told())
	}
	for _, bad := range [][]byte{nil, []byte("nothing of the kind"), []byte(file[:5000])} {
		if code, _, _ := x.Send("/data/restore", bad); code != http.StatusUnprocessableEntity {
			t.Errorf("%d bytes: %d", len(bad), code)
		}
	}
	if code, body, h := x.Post("/data/check"); code != http.StatusNoContent {
		t.Errorf("%d %s", code, body)
	} else if _, body, _ := x.Get(h.Get("HX-Redirect")); !strings.Contains(body, "it is sound") {
		t.Error("a full check says nothing")
	}
}

// The bin is looked into, brought back from and emptied; a job tells of its
// boxes there.
func TestTheBin(t *testing.T) {
	t.Parallel()
	x := webtest.Workshop(t)
	x.Post("/boxes/2/delete")
	x.Post("/boxes/1/contents", "contents[0].name", "Jar")
	things, err := x.Store.Of(t.Context()).Things(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	x.Post("/boxes/1/things/add", "thing", page.Itoa(things[0].ID), "forget", "1")
	if _, body, _ := x.Get("/bin"); !strings.Contains(body, "Second") || !strings.Contains(body, things[0].Name) {
		t.Error("the bin does not show what was deleted")
	}
	if _, body, _ := x.Get("/jobs/2"); !strings.Contains(body, "Second lies in the bin") {
		t.Error("the job does not name its box")
	}
	if code, body, _ := x.Post("/bin/box/2/forget"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "makes this box") {
		t.Errorf("a box that a job makes is forgotten: %d", code)
	}
	if _, _, h := x.Post("/bin/box/2/back", "job", "2"); h.Get("HX-Redirect") != "/jobs/2" || x.Box(2).Name != "Second" {
		t.Error("the box is not back")
	}
	x.Post("/bin/thing/" + page.Itoa(things[0].ID) + "/back")
	if again, err := x.Store.Of(t.Context()).Things(t.Context()); err != nil || len(again) != len(things) {
		t.Errorf("%d things, %v; want %d", len(again), err, len(things))
	}
	// Jobs and paper.
	x.Post("/jobs/2/delete")
	if code, _, _ := x.Post("/jobs/1/delete"); code != http.StatusUnprocessableEntity {
		t.Errorf("a job whose sheets are set aside is deleted: %d", code)
	}
	x.Post("/jobs/1/release")
	lots, err := x.Store.Of(t.Context()).Lots(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	x.Post("/drawer/"+page.Itoa(lots[0].ID), "out", "1")
	if _, body, _ := x.Get("/bin"); !strings.Contains(body, "later") || !strings.Contains(body, "20 × Plain card") {
		t.Error("the bin shows no job, or no paper")
	}
	x.Post("/bin/paper/" + page.Itoa(lots[0].ID) + "/back")
	x.Post("/bin/job/2/back")
	if got, err := x.Store.Of(t.Context()).Lots(t.Context()); err != nil || len(got) != 1 || got[0].Count != 20 {
		t.Errorf("the paper is %+v, %v", got, err)
	}
	x.Post("/jobs/1/delete")
	x.Post("/jobs/2/delete")
	x.Post("/boxes/2/delete")
	x.Post("/bin/empty")
	if all, err := x.Store.Of(t.Context()).Bin(t.Context()); err != nil || len(all) != 0 {
		t.Errorf("the bin still has %v, %v", all, err)
	}
	if code, _, _ := x.Post("/bin/hat/1/back"); code != http.StatusNotFound {
		t.Errorf("what there is no bin for: %d", code)
	}
}

// Damage stands on every page and in the health answer.
func TestDamageStandsOnEveryPage(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := x.Box(x.JarBox()).Inputs
	in.Name = strings.Repeat("x", 100)
	for range 200 {
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
	}
	file := filepath.Join(t.TempDir(), "brevium.db")
	if err := x.Store.Backup(t.Context(), file); err != nil {
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
	h, err := web.New(kept, nil, webtest.Quiet())
	if err != nil {
		t.Fatal(err)
	}
	y := &webtest.Table{T: t, Store: kept, HTTP: h}
	if code, _, _ := y.Get("/health"); code != http.StatusServiceUnavailable {
		t.Errorf("health answers %d", code)
	}
	for _, path := range []string{"/data", "/new"} {
		if _, body, _ := y.Get(path); !strings.Contains(body, "The data file is damaged") {
			t.Errorf("%s does not say so", path)
		}
	}
	// The page exchanges it for a copy while the program runs.
	var whole bytes.Buffer
	if err := x.Store.Backup(t.Context(), file+".whole"); err != nil {
		t.Fatal(err)
	}
	if text, err = os.ReadFile(file + ".whole"); err != nil {
		t.Fatal(err)
	}
	whole.Write(text)
	code, body, header := y.Send("/data/restore", whole.Bytes())
	if code != http.StatusSeeOther || header.Get("Location") != "/data?done=exchange" {
		t.Fatalf("brought back over damaged data: %d, %s, %.300s", code, header.Get("Location"), body)
	}
	if _, body, _ := y.Get("/data?done=exchange"); strings.Contains(body, "Damaged:") || !strings.Contains(body, "in place of the damaged data") {
		t.Error("afterwards the page tells of damage, or of nothing")
	}
	if code, _, _ := y.Get("/health"); code != http.StatusOK {
		t.Errorf("afterwards health answers %d", code)
	}
	if all, err := kept.Of(t.Context()).Boxes(t.Context()); err != nil || len(all) != 201 {
		t.Errorf("%d boxes afterwards, %v", len(all), err)
	}
}

// A copy that is downloaded locked is brought back by its passphrase alone.
func TestALockedCopy(t *testing.T) {
	t.Parallel()
	x := webtest.Workshop(t)
	before := x.Told()
	if code, body, _ := x.Post("/data/locked", "passphrase", "password1234"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "too easy to guess") {
		t.Errorf("an easy passphrase: %d", code)
	}
	code, file, header := x.Post("/data/locked", "passphrase", webtest.GoodPassword)
	if code != http.StatusOK || !strings.HasPrefix(file, "age-encryption.org/v1\n") || !strings.Contains(header.Get("Content-Disposition"), ".db.age") || strings.Contains(file, "SQLite format") {
		t.Fatalf("locked: %d, %v", code, header)
	}
	x.Post("/boxes/1/delete")
	for pass, says := range map[string]string{"": "give its passphrase", "seven craft sheets": "not the passphrase"} {
		if code, body, _ := x.Send("/data/restore", []byte(file), "passphrase", pass); code != http.StatusUnprocessableEntity || !strings.Contains(body, says) {
			t.Errorf("with %q: %d, without %q", pass, code, says)
		}
	}
	if x.Told() == before {
		t.Fatal("nothing was deleted")
	}
	if code, _, _ := x.Send("/data/restore", []byte(file), "passphrase", webtest.GoodPassword); code != http.StatusSeeOther || x.Told() != before {
		t.Errorf("brought back: %d; here is %s", code, x.Told())
	}
}

// A large file is only taken where files are brought back.
func TestLargeFilesOnlyWhereTheyBelong(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	large := bytes.Repeat([]byte("x"), 5<<20)
	if code, _, _ := x.Send("/boxes/1/things/import", large); code != http.StatusRequestEntityTooLarge {
		t.Errorf("a list of 5 MiB: %d", code)
	}
	if code, _, _ := x.Send("/data/restore", large); code != http.StatusUnprocessableEntity {
		t.Errorf("a copy of 5 MiB that is none: %d", code)
	}
	if x.Box(1).Inputs.Tools.Trimmer != 12*measure.Inch {
		t.Error("the box changed")
	}
}
