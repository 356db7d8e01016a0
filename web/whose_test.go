package web_test

import (
	"errors"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/people"
	"brevium/photo"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/web"
	"brevium/web/door"
	"brevium/web/webtest"
)

// Every route as every role: what is let through is what the table in the docs says, and
// no route is missing in it.
func TestWhoMayWhat(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	text, err := os.ReadFile("../docs/running-a-workshop.md")
	if err != nil {
		t.Fatal(err)
	}
	told := map[string]string{}
	for _, m := range regexp.MustCompile("(?m)^\\| `(GET|POST) ([^`]+)` \\| (\\w+) \\|$").FindAllStringSubmatch(string(text), -1) {
		told[m[1]+" "+m[2]] = m[3]
	}
	roles := map[string]*webtest.Visitor{"anybody": w.Visitor("10.0.0.1"), "steward": w.Person("Wren", people.Steward), "maker": w.Person("Ash", people.Maker), "guest": w.Person("Finch", people.Guest)}
	ranks := []string{"anybody", "guest", "maker", "steward"}
	var lines []string
	for _, r := range w.Routes {
		if r.Method != http.MethodGet && r.Method != http.MethodPost {
			continue
		}
		name := r.Method + " " + r.Path
		needs := map[people.Role]string{"": "anybody", people.Guest: "guest", people.Maker: "maker", people.Steward: "steward"}[door.Needs(r.Method, r.Path)]
		lines = append(lines, fmt.Sprintf("| `%s` | %s |", name, needs))
		if told[name] != needs {
			t.Errorf("%s needs a %q, and the table says %q", name, needs, told[name])
		}
		delete(told, name)
		if slices.Contains([]string{"/sign-out", "/me/everywhere", "/me/leave"}, r.Path) {
			continue // it would end the test's sessions
		}
		path := regexp.MustCompile(`:\w+|\*`).ReplaceAllString(r.Path, "99")
		for n, role := range ranks {
			status, _, h := roles[role].Do(r.Method, path, nil)
			refused := status == http.StatusForbidden || status == http.StatusUnauthorized && r.Path != "/sign-in" || status == http.StatusSeeOther && strings.HasPrefix(h.Get("Location"), "/sign-in?")
			if may := n >= slices.Index(ranks, needs); refused == may {
				t.Errorf("%s as %s: %d %s", name, role, status, h.Get("Location"))
			}
			if status >= http.StatusInternalServerError {
				t.Errorf("%s as %s fails: %d", name, role, status)
			}
		}
	}
	for name := range told {
		t.Errorf("the table has %s, which is no route", name)
	}
	if t.Failed() {
		slices.Sort(lines)
		t.Log("the table should be:\n" + strings.Join(slices.Compact(lines), "\n"))
	}
	if status, _, h := roles["anybody"].Get("/no-such-page"); status != http.StatusSeeOther {
		t.Errorf("a stranger is told that there is no such page: %d %s", status, h.Get("Location"))
	}
}

// Every route of a box or a job, as every person, with one's own, a private and a shared
// one of somebody else: what is private is not there for others, whatever is asked of it;
// what is shared is a maker's to work on and a guest's to look at; only its maker deletes
// or shares it.
func TestWhoseIsIt(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	who := map[string]*webtest.Visitor{"steward": w.Person("Wren", people.Steward), "owner": w.Person("Ash", people.Maker), "maker": w.Person("Rowan", people.Maker), "guest": w.Person("Finch", people.Guest)}
	ctx := w.As("Ash")
	id := func(n int64, err error) int64 {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return n
	}
	in := design.New("Jars", measure.In, "tray-lid")
	objects := map[string]map[bool]int64{"boxes": {}, "jobs": {}} // by whether it is shared
	for _, shared := range []bool{false, true} {
		objects["boxes"][shared] = id(w.Store.Of(ctx).Add(ctx, in))
		objects["jobs"][shared] = id(w.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: objects["boxes"][shared], Copies: 2}}}))
		if shared {
			if err := w.Store.Of(ctx).Share(ctx, desk.JobSort, objects["jobs"][true], true); err != nil {
				t.Fatal(err)
			}
		}
	}
	deletes := func(path string) bool {
		return strings.HasSuffix(path, "/delete") || strings.HasSuffix(path, "/share") || strings.HasSuffix(path, "/link")
	}
	tried := 0
	for _, r := range w.Routes {
		kind, _, of := strings.Cut(strings.TrimPrefix(r.Path, "/"), "/:id")
		if !of || objects[kind] == nil {
			continue
		}
		for shared, n := range objects[kind] {
			path := strings.Replace(r.Path, ":id", fmt.Sprint(n), 1)
			path = strings.NewReplacer(":stop", "box", ":step", "delete", ":piece", "base", ":small", "sleeve").Replace(path)
			for role, v := range who {
				if role == "owner" { // it would be gone for the others
					continue
				}
				status, _, _ := v.Do(r.Method, path, nil, "name", "Jars", "units", "cm", "step", "cut", "mark", "m", "done", "1")
				tried++
				refused := status == http.StatusNotFound || status == http.StatusForbidden
				switch {
				case !shared && !refused:
					t.Errorf("%s %s of somebody else, as the %s: %d", r.Method, r.Path, role, status)
				case shared && role == "guest" && r.Method == http.MethodPost && status != http.StatusForbidden:
					t.Errorf("%s %s as a guest: %d", r.Method, r.Path, status)
				case shared && role != "guest" && deletes(path) && !refused:
					t.Errorf("%s %s, as the %s: %d", r.Method, r.Path, role, status)
				case shared && role == "maker" && r.Method == http.MethodGet && status == http.StatusNotFound && !deletes(path) && !strings.Contains(r.Path, "recipe") && !strings.Contains(r.Path, "export") && !strings.Contains(r.Path, "small") && !strings.Contains(r.Path, "biggest"):
					t.Errorf("%s %s, shared, is not there for a maker", r.Method, r.Path)
				case status >= 500:
					t.Errorf("%s %s, shared %v, as the %s: %d", r.Method, r.Path, shared, role, status)
				}
			}
		}
	}
	if tried < 200 {
		t.Errorf("%d were tried", tried)
	}
	// In the list one shares, and is told by whom.
	private := fmt.Sprintf("/boxes/%d", objects["boxes"][false])
	if status, _, _ := who["owner"].Post(private+"/share", "shared", "1"); status != http.StatusSeeOther {
		t.Errorf("sharing: %d", status)
	}
	if _, page, _ := who["maker"].Get("/"); strings.Count(page, "shared by Ash") != 2 || strings.Contains(page, private+"/delete") {
		t.Errorf("the list of another: %d of Ash", strings.Count(page, "shared by Ash"))
	}
	who["owner"].Post(private + "/share")
	if status, _, _ := who["maker"].Get(private); status != http.StatusNotFound {
		t.Errorf("kept again: %d", status)
	}
}

// What one maker made alone is the steward's once the workshop is set up, and all of it is
// there for one maker alone again.
func TestAloneAndBack(t *testing.T) {
	t.Parallel()
	alone := webtest.NewTable(t)
	alone.JarBox()
	before, _, _ := alone.Get("/boxes/1/box")
	h, _, err := web.NewWorkshop(alone.Store, nil, webtest.Quiet(), webtest.Pepper)
	if err != nil {
		t.Fatal(err)
	}
	server := httptest.NewTLSServer(h)
	defer server.Close()
	w := &webtest.Atelier{Table: &webtest.Table{T: t, Store: alone.Store, HTTP: h}, URL: server.URL, Client: server.Client(), Now: time.Now()}
	wren := w.Person("Wren", people.Steward)
	if status, _, _ := wren.Get("/boxes/1/box"); before != 200 || status != 200 {
		t.Errorf("alone %d, as the steward %d", before, status)
	}
	if status, _, _ := w.Person("Ash", people.Maker).Get("/boxes/1/box"); status != http.StatusNotFound {
		t.Errorf("as a maker: %d", status)
	}
	if err := alone.Store.Close(); err != nil {
		t.Fatal(err)
	}
}

// By a link anybody looks at a box, and a maker copies it; a link that is ended leads
// nowhere, and a new one is another.
func TestLookingByALink(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	id, ash, rowan := webtest.SharedBox(t, w)
	ash.Post(fmt.Sprintf("/boxes/%d/share", id)) // kept to herself
	link := func() string {
		t.Helper()
		if status, _, _ := ash.Post(fmt.Sprintf("/boxes/%d/link", id), "do", "make"); status != http.StatusSeeOther {
			t.Fatalf("making a link: %d", status)
		}
		_, page, _ := ash.Get(fmt.Sprintf("/boxes/%d/link", id))
		return regexp.MustCompile(`/look/\w+`).FindString(page)
	}
	first := link()
	stranger := w.Visitor("10.0.0.9")
	if status, page, _ := stranger.Get(first); status != 200 || !strings.Contains(page, "Jars") || strings.Contains(page, "Copy it into my boxes") {
		t.Errorf("looking: %d", status)
	}
	if status, _, _ := stranger.Post(first + "/copy"); status != http.StatusUnauthorized {
		t.Errorf("a stranger copies it: %d", status)
	}
	status, _, h := rowan.Post(first + "/copy")
	if status != http.StatusSeeOther || !strings.HasPrefix(h.Get("Location"), "/boxes/") {
		t.Errorf("a maker copies it: %d", status)
	}
	if status, _, _ := rowan.Get(h.Get("Location") + "/box"); status != 200 {
		t.Errorf("the copy: %d", status)
	}
	if status, _, _ := rowan.Get(fmt.Sprintf("/boxes/%d/link", id)); status != http.StatusNotFound {
		t.Errorf("another sees the link: %d", status)
	}
	second := link()
	ash.Post(fmt.Sprintf("/boxes/%d/link", id), "do", "end")
	for _, path := range []string{first, second, "/look/aaaa"} {
		if status, _, _ := stranger.Get(path); status != http.StatusNotFound || first == second {
			t.Errorf("%s after its end: %d", path, status)
		}
	}
}

// Who may what with what: each cell of the table in the docs, tried.
func TestObjectsByRole(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	who := map[string]*webtest.Visitor{"steward": w.Person("Wren", people.Steward), "its maker": w.Person("Ash", people.Maker), "maker": w.Person("Rowan", people.Maker), "guest": w.Person("Finch", people.Guest)}
	ash, err := w.Store.Of(t.Context()).PersonCalled(t.Context(), "Ash")
	if err != nil {
		t.Fatal(err)
	}
	if err := w.Store.Of(t.Context()).SetPlace(t.Context(), ash.ID, "Stall"); err != nil {
		t.Fatal(err)
	}
	ctx := people.With(t.Context(), ash)
	boxes, jobs, photos := map[bool]int64{}, map[bool]int64{}, map[bool]string{}
	for n, shared := range []bool{false, true} {
		photos[shared] = fmt.Sprintf("%064x", n+1)
		in := design.New("Jars", measure.In, "tray-lid")
		in.Card.Look.Photo = paper.Photo{ID: photos[shared], Wide: 100 * measure.Millimetre, High: 100 * measure.Millimetre}
		var of [3]error
		of[0] = w.Store.Of(ctx).PutPhoto(ctx, photo.Picture{ID: photos[shared], JPEG: []byte{1}, Wide: 1, High: 1}, false)
		boxes[shared], of[1] = w.Store.Of(ctx).Add(ctx, in)
		jobs[shared], of[2] = w.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: boxes[shared], Copies: 2}}})
		if err := errors.Join(append(of[:], w.Store.Of(ctx).AddNote(ctx, logbook.Note{Box: boxes[shared], Name: fmt.Sprintf("a note, shared %v", shared), Style: "tray-lid", Card: "card", Design: in.Write(), Made: w.Now}))...); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Store.Of(ctx).Share(ctx, desk.JobSort, jobs[true], true); err != nil {
		t.Fatal(err)
	}
	ok := func(status int) bool { return status < 400 }
	get := func(v *webtest.Visitor, path string, args ...any) bool {
		status, _, _ := v.Get(fmt.Sprintf(path, args...))
		return ok(status)
	}
	post := func(v *webtest.Visitor, path string, id int64, pairs ...string) bool {
		status, _, _ := v.Post(fmt.Sprintf(path, id), pairs...)
		return ok(status)
	}
	deeds := map[string]func(v *webtest.Visitor, shared bool) bool{
		"look at a box": func(v *webtest.Visitor, shared bool) bool { return get(v, "/boxes/%d/box", boxes[shared]) },
		"change a box, tick it off": func(v *webtest.Visitor, shared bool) bool {
			renamed := post(v, "/boxes/%d/rename", boxes[shared], "name", "More jars")
			if ticked := post(v, "/boxes/%d/tick", boxes[shared], "step", "cut.base", "mark", "m", "done", "1"); ticked != renamed {
				t.Errorf("renaming %v, ticking off %v", renamed, ticked)
			}
			return renamed
		},
		"share or link a box, open a class of it": func(v *webtest.Visitor, shared bool) bool {
			pairs := []string{"do", "make"}
			if shared {
				pairs = append(pairs, "shared", "1") // it stays so
			}
			may := post(v, "/boxes/%d/share", boxes[shared], pairs...)
			for _, path := range []string{"/boxes/%d/link", "/boxes/%d/class"} {
				if post(v, path, boxes[shared], pairs...) != may {
					t.Errorf("sharing %v, but %s", may, path)
				}
			}
			post(v, "/boxes/%d/link", boxes[shared], "do", "end") // by it everybody sees what the box shows
			post(v, "/boxes/%d/class", boxes[shared], "do", "close")
			return may
		},
		"look at a job": func(v *webtest.Visitor, shared bool) bool { return get(v, "/jobs/%d", jobs[shared]) },
		"change, begin or finish a job": func(v *webtest.Visitor, shared bool) bool {
			return post(v, "/jobs/%d", jobs[shared], "name", "The fair")
		},
		"share a job, open a class of it": func(v *webtest.Visitor, shared bool) bool {
			pairs := []string{"do", "open"}
			if shared {
				pairs = append(pairs, "shared", "1")
			}
			may := post(v, "/jobs/%d/share", jobs[shared], pairs...)
			if post(v, "/jobs/%d/class", jobs[shared], pairs...) != may {
				t.Errorf("sharing a job %v, opening a class otherwise", may)
			}
			post(v, "/jobs/%d/class", jobs[shared], "do", "close")
			return may
		},
		"see a photograph that the box shows": func(v *webtest.Visitor, shared bool) bool { return get(v, "/papers/%s.jpg", photos[shared]) },
		"read a note of the box": func(v *webtest.Visitor, shared bool) bool {
			_, page, _ := v.Get("/logbook")
			return strings.Contains(page, fmt.Sprintf("a note, shared %v", shared))
		},
	}
	text, err := os.ReadFile("../docs/running-a-workshop.md")
	if err != nil {
		t.Fatal(err)
	}
	_, table, _ := strings.Cut(string(text), "| what | its maker |")
	table, _, _ = strings.Cut(table, "\n\n")
	columns := []string{"its maker", "maker, shared", "maker, not shared", "guest, shared", "guest, not shared", "steward, not shared"}
	rows := 0
	for _, line := range strings.Split(table, "\n")[2:] {
		cells := strings.Split(strings.Trim(line, "| "), " | ")
		deed := deeds[cells[0]]
		if deed == nil || len(cells) != len(columns)+1 {
			t.Fatalf("the table has %q, which is not tried", line)
		}
		rows++
		for n, column := range columns {
			name, state, _ := strings.Cut(column, ", ")
			shared := state != "not shared"
			if may := deed(who[name], shared); may != (cells[n+1] == "yes") {
				t.Errorf("%s, %s: %v", cells[0], column, may)
			}
			if column == "its maker" {
				if may := deed(who[name], false); may != (cells[n+1] == "yes") {
					t.Errorf("%s, %s, kept to oneself: %v", cells[0], column, may)
				}
			}
		}
	}
	if rows != len(deeds) {
		t.Errorf("%d of %d deeds are in the table", rows, len(deeds))
	}
	// Paper and supplies are a table's.
	lot := drawer.Lot{Card: design.UsualCard, Width: 12 * measure.Inch, Height: 12 * measure.Inch, Count: 7}
	lot.Card.Name = "Stall sage"
	lot.Complete()
	if err := w.Store.Of(ctx).AddLots(ctx, []drawer.Lot{lot}); err != nil {
		t.Fatal(err)
	}
	lots, err := w.Store.Of(ctx).Lots(ctx)
	if err != nil {
		t.Fatal(err)
	}
	for name, may := range map[string]bool{"its maker": true, "maker": false, "steward": false} {
		_, page, _ := who[name].Get("/drawer")
		changed := post(who[name], "/drawer/%d", lots[0].ID, "count", "5", "price", "1")
		if sees := strings.Contains(page, "Stall sage"); sees != may || changed != may {
			t.Errorf("%s sees another table's paper %v, changes it %v", name, sees, changed)
		}
	}
}
