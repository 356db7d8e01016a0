package workspace_test

import (
	"context"
	"database/sql"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/store/jobbook"
	"brevium/store/storetest"
	"brevium/web"
	"brevium/web/webtest"
)

// The four clicks that once took the server down, and every view after them.
func TestTheBagThatFell(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := design.New("Bag", measure.MM, "fold-top-bag")
	in.Things = []contents.Thing{{Shape: contents.Round, Length: 45600 * measure.Micrometre, Width: 45600 * measure.Micrometre,
		Height: 24 * measure.Millimetre, Count: 2, Ease: 2 * measure.Millimetre}}
	in.Compartments = design.Compartments{Per: contents.PerThing, As: design.AsInsert}
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	before := x.Box(id)
	x.Post(fmt.Sprintf("/boxes/%d/units", id), "units", "in", "stop", "box")
	for _, path := range []string{"/", fmt.Sprintf("/boxes/%d/box", id), fmt.Sprintf("/boxes/%d/compare", id)} {
		if code, _, _ := x.Get(path); code != http.StatusOK {
			t.Errorf("%s answers %d", path, code)
		}
	}
	if after := x.Box(id); len(after.Inputs.Things) != len(before.Inputs.Things) {
		t.Error("the things are gone")
	}
}

// One thing with a cell of its own needs no divider; it is the default new
// box, one choice on.
func TestOneCellNeedsNoDividers(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for _, s := range style.Boxes() {
		in := design.New("One jar", measure.MM, s.ID)
		in.Things = []contents.Thing{{Shape: contents.Round, Length: 40 * measure.Millimetre, Width: 40 * measure.Millimetre,
			Height: 30 * measure.Millimetre, Count: 1, Ease: 2 * measure.Millimetre}}
		id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
		if err != nil {
			t.Fatal(err)
		}
		for _, per := range []string{"thing", "kind"} {
			code, _, _ := x.Post(fmt.Sprintf("/boxes/%d/contents", id), "compartments.per", per, "compartments.as", "dividers")
			if code != http.StatusOK && code != http.StatusUnprocessableEntity {
				t.Errorf("%s, one for each %s: %d", s.ID, per, code)
			}
		}
	}
}

// A box that cannot be read stays in its list with its reason, can be taken
// away as a file and deleted, and takes neither the list nor a job down.
func TestABoxThatCannotBeRead(t *testing.T) {
	t.Parallel()
	file := storetest.File(t)
	kept := storetest.At(t, file)
	h, err := web.New(kept, nil, slog.New(slog.NewTextHandler(io.Discard, nil)))
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range []string{"good", "old"} {
		if _, err := kept.Of(t.Context()).Add(t.Context(), design.New(name, measure.MM, "tray")); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := kept.Of(t.Context()).AddJob(t.Context(), jobbook.Job{Name: "both", Items: []jobbook.JobItem{{Box: 1, Copies: 1}, {Box: 2, Copies: 1}}}); err != nil {
		t.Fatal(err)
	}
	db, err := sql.Open("sqlite", file)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.Exec(`UPDATE boxes SET inputs = '{"brevium":1,"name":"old","style":"hat-of-old","hue":"blue"}' WHERE id = 2`); err != nil {
		t.Fatal(err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	get := func(path string) (int, string) {
		w := httptest.NewRecorder()
		h.ServeHTTP(w, httptest.NewRequest(http.MethodGet, path, nil))
		return w.Code, w.Body.String()
	}
	if code, body := get("/"); code != http.StatusOK || !strings.Contains(body, ">good<") || !strings.Contains(body, ">old<") || !strings.Contains(body, "hat-of-old") {
		t.Errorf("the list answers %d", code)
	}
	if code, body := get("/boxes/2/box"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "Open it in the list") {
		t.Errorf("the box answers %d", code)
	}
	if code, body := get("/boxes/2"); code != http.StatusOK || !strings.Contains(body, "hue") || !strings.Contains(body, "Read it again") {
		t.Errorf("opened in the list it answers %d", code)
	}
	if code, body := get("/boxes/2/design.json"); code != http.StatusOK || !strings.Contains(body, "hat-of-old") {
		t.Errorf("its file answers %d: %s", code, body)
	}
	if code, body := get("/jobs/1"); code != http.StatusOK || !strings.Contains(body, "cannot be read") {
		t.Errorf("a job with it answers %d", code)
	}
	if code, _ := get("/jobs"); code != http.StatusOK {
		t.Errorf("the jobs answer %d", code)
	}
	// It is mended where it is opened, and what was not known stays with it.
	x := &webtest.Table{T: t, Store: kept, HTTP: h}
	if code, body, _ := x.Post("/boxes/2/mend", "design", `{"brevium":1,"name":"old","style":"hut"}`); code != http.StatusUnprocessableEntity || !strings.Contains(body, "hut") {
		t.Errorf("mended wrongly: %d", code)
	}
	x.Post("/boxes/2/mend", "design", `{"brevium":1,"name":"old","style":"tray","hue":"blue"}`)
	if b := x.Box(2); b.Broken != nil || b.Inputs.Style != "tray" || !strings.Contains(string(b.Inputs.Write()), "blue") {
		t.Errorf("mended it is %+v", b)
	}
	if err := kept.Of(t.Context()).Delete(t.Context(), 2); err != nil {
		t.Error(err)
	}
}

// Names in every script, with signs that no font has, print; what turns the
// text around is taken out.
func TestAnyNamePrints(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	for _, name := range []string{"Honey 🍯 jars", "贺礼盒", "Żółć", "a\u202eb"} {
		if code, _, _ := x.Post(fmt.Sprintf("/boxes/%d/rename", id), "name", name); code != http.StatusSeeOther && code != http.StatusNoContent {
			t.Errorf("%q is refused: %d", name, code)
		}
		if got := x.Box(id).Name; strings.ContainsRune(got, '\u202e') || got == "" {
			t.Errorf("%q is kept as %q", name, got)
		}
		if code, body, _ := x.Get(fmt.Sprintf("/boxes/%d/sheet.pdf", id)); code != http.StatusOK || !strings.HasPrefix(body, "%PDF-") {
			t.Errorf("%q prints with %d", name, code)
		}
	}
	if code, _, _ := x.Post(fmt.Sprintf("/boxes/%d/rename", id), "name", "\u200b \u202e"); code != http.StatusUnprocessableEntity {
		t.Errorf("a name of nothing is taken: %d", code)
	}
}

// Many that save and read at once are all answered.
func TestManyAtOnce(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	var all sync.WaitGroup
	answers := make(chan error, 60)
	for n := range 60 {
		all.Go(func() {
			in := design.New(fmt.Sprint("box ", n), measure.MM, "tray")
			ctx := context.WithoutCancel(t.Context())
			_, err := x.Store.Of(ctx).Add(ctx, in)
			if err == nil {
				err = x.Store.Of(ctx).Tick(ctx, id, fmt.Sprint("step/", n), "m", true)
			}
			if err == nil {
				_, err = x.Store.Of(ctx).Boxes(ctx)
			}
			answers <- err
		})
	}
	all.Wait()
	close(answers)
	for err := range answers {
		if err != nil {
			t.Error(err)
		}
	}
}
