package web_test

import (
	"fmt"
	"html"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/people"
	"brevium/core/style"
	"brevium/store/jobbook"
	"brevium/web/webtest"
)

// How a form stands to what two hands can change:
// merged forms carry what they showed, a version or each field's value, and are held against
// what is there by now; adding ones make something new; telling ones say what is to be, whatever
// was (delete, undo of a change by its number, a piece by where it lies); own ones are of nobody else.
var formKinds = map[string]string{
	"/bin/:sort/:id/back": "telling", "/bin/:sort/:id/forget": "telling", "/bin/empty": "telling",
	"/boxes": "telling", "/boxes/:id/:stop": "merged", "/boxes/:id/bench": "telling", "/boxes/:id/biggest": "telling", "/boxes/:id/board": "telling", "/boxes/:id/sister": "adding", "/boxes/:id/class": "telling",
	"/boxes/:id/copy": "adding", "/boxes/:id/cover": "telling", "/boxes/:id/cost": "merged", "/boxes/:id/delete": "telling", "/boxes/:id/link": "telling", "/boxes/:id/history": "telling", "/boxes/:id/made": "adding",
	"/boxes/:id/mend": "telling", "/boxes/:id/redo": "telling", "/boxes/:id/rename": "merged", "/boxes/:id/savings": "telling", "/boxes/:id/set": "telling",
	"/boxes/:id/share": "telling", "/boxes/:id/small/:small/alone": "adding", "/boxes/:id/things/add": "adding", "/boxes/:id/things/import": "adding",
	"/boxes/:id/things/keep": "adding", "/boxes/:id/tick": "telling", "/boxes/:id/undo": "telling", "/boxes/:id/units": "telling", "/bring": "adding",
	"/class/:code": "adding", "/class/:code/at": "own", "/class/:code/up": "own",
	"/data/bring": "telling", "/data/check": "telling", "/data/copy": "adding", "/data/locked": "adding", "/data/restore": "telling",
	"/drawer": "adding", "/drawer/:id": "merged", "/drawer/cupboard": "merged", "/drawer/tools": "merged", "/drawer/card-and-glue": "merged", "/drawer/cupboard/import": "telling", "/drawer/import": "adding", "/drawer/look": "merged", "/drawer/shape": "adding", "/drawer/shape/:id": "own",
	"/example": "adding",
	"/jobs":    "adding", "/jobs/:id": "merged", "/jobs/:id/:step": "telling", "/jobs/:id/class": "telling", "/jobs/:id/cost": "merged", "/jobs/:id/evenings": "merged",
	"/jobs/:id/hold": "telling", "/jobs/:id/search": "telling", "/jobs/:id/share": "telling",
	"/join/:code": "adding", "/logbook/:id/again": "adding", "/logbook/:id/strike": "telling", "/logbook/import": "adding", "/look/:code/copy": "adding",
	"/me/everywhere": "own", "/me/leave": "own", "/me/passkeys": "own", "/me/passkeys/begin": "own", "/me/passkeys/drop": "own", "/me/password": "own", "/me/sessions/end": "own",
	"/new": "adding", "/paper": "own", "/papers": "adding", "/papers/:id/straighten": "adding", "/read/sketch": "adding", "/read/sketch/:id/lines": "own",
	"/people/:id": "merged", "/people/:id/recover": "adding", "/people/codes": "telling", "/people/invite": "adding",
	"/read": "adding", "/set-up": "adding", "/sign-in": "own", "/sign-in/passkey": "own", "/sign-in/passkey/begin": "own", "/sign-in/strength": "own", "/light": "own", "/sign-out": "own",
	"/styles": "merged", "/styles/:file/strike": "telling", "/styles/table": "merged", "/units": "own",
}

// pageForm is a form of a page: where it goes, and what it sends when nothing is touched.
type pageForm struct {
	action string
	fields url.Values
}

var (
	formTag   = regexp.MustCompile(`(?s)<form\b([^>]*)>(.*?)</form>`)
	entryTag  = regexp.MustCompile(`(?s)<input\b[^>]*>|<textarea\b[^>]*>.*?</textarea>|<select\b[^>]*>.*?</select>`)
	optionTag = regexp.MustCompile(`<option value="([^"]*)"( selected)?`)
)

func attribute(tag, name string) string {
	m := regexp.MustCompile(`\s` + name + `="([^"]*)"`).FindStringSubmatch(tag)
	if m == nil {
		return ""
	}
	return html.UnescapeString(m[1])
}

// formsOf reads the forms of a page that change something.
func formsOf(page string) []pageForm {
	var out []pageForm
	for _, m := range formTag.FindAllStringSubmatch(page, -1) {
		if !strings.Contains(m[1], `method="post"`) {
			continue
		}
		x := pageForm{attribute(m[1], "action"), url.Values{}}
		for _, tag := range entryTag.FindAllString(m[2], -1) {
			name, value := attribute(tag, "name"), attribute(tag, "value")
			switch kind := attribute(tag, "type"); {
			case name == "" || kind == "file" || (kind == "checkbox" || kind == "radio") && !strings.Contains(tag, " checked"):
				continue
			case strings.HasPrefix(tag, "<textarea"):
				value = html.UnescapeString(strings.TrimSuffix(tag[strings.Index(tag, ">")+1:], "</textarea>"))
			case strings.HasPrefix(tag, "<select"):
				for i, o := range optionTag.FindAllStringSubmatch(tag, -1) {
					if i == 0 || o[2] != "" {
						value = html.UnescapeString(o[1])
					}
				}
			}
			x.fields.Add(name, value)
		}
		out = append(out, x)
	}
	return out
}

// routeOf is the route that an address is of.
func routeOf(routes []string, action string) string {
	path, _, _ := strings.Cut(action, "?")
	best := ""
	for _, r := range routes {
		a, b := strings.Split(path, "/"), strings.Split(r, "/")
		fits := len(a) == len(b)
		for i := 0; fits && i < len(a); i++ {
			fits = a[i] == b[i] || strings.HasPrefix(b[i], ":") && a[i] != ""
		}
		if fits && (best == "" || strings.Count(r, ":") < strings.Count(best, ":")) {
			best = r
		}
	}
	return best
}

// Every form of the program is in the table above, and every one that two hands can send at once
// carries what it showed: a new form without it fails here.
func TestEveryFormCarriesWhatItShowed(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	var posts []string
	for _, r := range w.Routes {
		if r.Method == http.MethodPost {
			posts = append(posts, r.Path)
			if formKinds[r.Path] == "" {
				t.Errorf("POST %s is not in the table of forms", r.Path)
			}
		}
	}
	if len(posts) != len(formKinds) {
		t.Errorf("the table has %d forms, and there are %d", len(formKinds), len(posts))
	}
	carried := map[string]int{}
	look := func(path, page string) {
		for _, f := range formsOf(page) {
			route := routeOf(posts, f.action)
			if route == "" {
				t.Errorf("%s has a form that goes to %q", path, f.action)
				continue
			}
			if formKinds[route] != "merged" {
				continue
			}
			bare := true // one that is but a button says what is to be
			for name := range f.fields {
				was := strings.HasPrefix(name, "was.") || name == "version" || name == "began" || name == "draft" || name == "at" && f.fields.Get(name) == "new" || name == "key"
				if was {
					carried[route]++
				}
				if _, is := f.fields["was."+name]; !was && !is && f.fields.Get("version")+f.fields.Get("draft") == "" && !f.fields.Has("began") {
					bare = bare && (name == "stop" || name == "kind" || name == "name" || name == "card" || name == "searched" || name == "find" || name == "to" || strings.HasPrefix(name, "card.") || name == "from")
				}
			}
			if !bare && carried[route] == 0 {
				t.Errorf("%s: the form to %s does not carry what it showed: %v", path, f.action, f.fields)
			}
		}
	}
	x, pages := full(t)
	for _, path := range pages {
		if _, page, _ := x.Get(path); page != "" {
			look(path, page)
		}
	}
	x.Post("/styles/table", "name", "Mine")
	for _, path := range []string{"/styles/table?piece=0", "/styles?from=hinged-carton"} {
		_, page, _ := x.Get(path)
		look(path, page)
	}
	wren := w.Person("Wren", people.Steward)
	w.Person("Ash", people.Maker)
	for _, path := range []string{"/people", "/me", "/data"} {
		_, page, _ := wren.Get(path)
		look(path, page)
	}
	for route, kind := range formKinds {
		if kind == "merged" && carried[route] == 0 {
			t.Errorf("no page has a form to %s that carries what it showed", route)
		}
	}
}

// Two windows show the same. In the first a field is changed; in the second, which is older by
// then, the same field, or another. The first change is never lost: of the same field the second
// is asked, and what it changed beside stays as it says.
func TestTwoWindows(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct {
		page, action  string
		field, other  string
		first, second string
		beside        string
		also          map[string]string // that the second window's button sends
		workshop      bool
	}{
		"the drawer's counts":  {page: "/drawer", action: "/drawer/1", field: "count.1", first: "7", second: "4", other: "price.1", beside: "0.75"},
		"the drawer's prices":  {page: "/drawer", action: "/drawer/1", field: "price.1", first: "0.60", second: "0.40", other: "count.1", beside: "9"},
		"how a card looks":     {page: "/drawer", action: "/drawer/look", field: "look.outside", first: "#112233", second: "#445566", other: "look.inside", beside: "#eeddcc"},
		"the cupboard":         {page: "/drawer/cupboard", action: "/drawer/cupboard", field: "amount", first: "7", second: "4", other: "price", beside: "1.25"},
		"what card does":       {page: "/drawer/card-and-glue", action: "/drawer/card-and-glue", field: "constants.air.slow", first: "9", second: "10", other: "constants.crack.folds", beside: "1.5"},
		"a maker's tools":      {page: "/drawer/tools", action: "/drawer/tools", field: "tools.punches", first: "1/8", second: "1/4", other: "tools.rounders", beside: "3/8"},
		"a supply taken out":   {page: "/drawer/cupboard", action: "/drawer/cupboard", field: "amount", first: "7", second: "0", also: map[string]string{"out": "1"}},
		"paper taken out":      {page: "/drawer", action: "/drawer/1", field: "count.1", first: "7", second: "0", also: map[string]string{"out": "1"}},
		"what is reckoned":     {page: "/boxes/1/cost", action: "/boxes/1/cost", field: "hour", first: "14.00", second: "9.00", other: "margin", beside: "25"},
		"a price by hand":      {page: "/boxes/1/cost", action: "/boxes/1/cost", field: "price.1", first: "4.50", second: "3.00", other: "fee", beside: "12"},
		"a price in a job":     {page: "/jobs/1/cost", action: "/jobs/1/cost", field: "price.1", first: "4.50", second: "3.00", other: "each", beside: "0.30"},
		"evenings":             {page: "/jobs/1/evenings", action: "/jobs/1/evenings", field: "evenings", first: "Monday 18 to 20", second: "Friday 9 to 12", other: "boards", beside: "2"},
		"a box's name":         {page: "/boxes/1/box", action: "/boxes/1/rename", field: "name", first: "Figs", second: "Dates"},
		"a box's name, listed": {page: "/", action: "/boxes/1/rename", field: "name", first: "Figs", second: "Dates"},
		"a job's name":         {page: "/jobs/1", action: "/jobs/1", field: "name", first: "Fair", second: "Market", other: "copies.1", beside: "5"},
		"what somebody is":     {page: "/people", action: "/people/2", field: "role", first: "guest", second: "steward", workshop: true},
		"where somebody sits":  {page: "/people", action: "/people/2", field: "place", first: "Stall", second: "Kitchen", workshop: true},
	} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			get, post := twoHands(t, c.workshop)
			shown := func() pageForm {
				t.Helper()
				for _, f := range formsOf(get(c.page)) {
					for name := range f.fields {
						if f.action == c.action && (name == c.field || strings.HasSuffix(name, "."+c.field)) && !strings.HasPrefix(name, "was.") && f.fields.Get("at") != "new" {
							return f
						}
					}
				}
				t.Fatalf("%s has no form to %s with %s", c.page, c.action, c.field)
				return pageForm{}
			}
			full := func(f pageForm, field string) string {
				for name := range f.fields {
					if name == field || strings.HasSuffix(name, "."+field) && !strings.HasPrefix(name, "was.") {
						return name
					}
				}
				t.Fatalf("there is no field %s", field)
				return ""
			}
			send := func(f pageForm, field, value string, also map[string]string) (int, string) {
				fields := url.Values{}
				for k, v := range also {
					fields.Set(k, v)
				}
				for k, v := range f.fields {
					fields[k] = v
				}
				fields.Set(full(f, field), value)
				return post(f.action, fields)
			}
			one, two := shown(), shown()
			if status, page := send(one, c.field, c.first, nil); status >= 400 {
				t.Fatalf("the first window: %d, %.400s", status, page)
			}
			status, page := send(two, c.field, c.second, c.also)
			if status != http.StatusUnprocessableEntity || !strings.Contains(page, "meanwhile") && !strings.Contains(page, "In another window") {
				t.Errorf("the older window: %d, and nothing is said", status)
			}
			if now := shown(); now.fields.Get(full(now, c.field)) != c.first {
				t.Errorf("%s is %q; the first window made it %q", c.field, now.fields.Get(full(now, c.field)), c.first)
			}
			if c.other == "" {
				return
			}
			if status, page := send(two, c.other, c.beside, nil); status >= 400 {
				t.Errorf("another field in the older window: %d, %.400s", status, page)
			}
			now := shown()
			if got := now.fields.Get(full(now, c.field)); got != c.first {
				t.Errorf("afterwards %s is %q; the first window made it %q", c.field, got, c.first)
			}
			if got := now.fields.Get(full(now, c.other)); strings.TrimRight(strings.TrimRight(got, "0"), ".") != strings.TrimRight(strings.TrimRight(c.beside, "0"), ".") {
				t.Errorf("%s is %q; the older window made it %q", c.other, got, c.beside)
			}
		})
	}
}

// twoHands is an application with something of everything, as one who changes it.
func twoHands(t *testing.T, workshop bool) (get func(string) string, post func(string, url.Values) (int, string)) {
	if workshop {
		w := webtest.NewAtelier(t)
		wren := w.Person("Wren", people.Steward)
		w.Person("Ash", people.Maker)
		return func(path string) string { _, page, _ := wren.Get(path); return page },
			func(path string, fields url.Values) (int, string) {
				var pairs []string
				for k, v := range fields {
					pairs = append(pairs, k, v[0])
				}
				status, page, _ := wren.Post(path, pairs...)
				return status, page
			}
	}
	x := webtest.NewTable(t)
	x.JarBox()
	x.Lot(3, 12*measure.Inch, 12*measure.Inch, false)
	x.Post("/jobs", "copies.1", "2")
	x.Post("/drawer/cupboard", "at", "new", "new.kind", "tape", "new.amount", "3")
	return func(path string) string { _, page, _ := x.Get(path); return page },
		func(path string, fields url.Values) (int, string) {
			var pairs []string
			for k, v := range fields {
				pairs = append(pairs, k, v[0])
			}
			status, page, _ := x.Post(path, pairs...)
			return status, page
		}
}

// What is done of a task is what any hand did: one who says so from an older page takes nothing
// back. A version of a style is kept where it was begun from the newest, or when that is said
// again; a table that is drawn in two windows loses nothing unseen.
func TestOlderPagesTakeNothingBack(t *testing.T) {
	defer style.SetOwn(nil)
	x := webtest.NewTable(t)
	ctx := t.Context()
	id := x.JarBox()
	job, err := x.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: id, Copies: 12}}})
	if err != nil {
		t.Fatal(err)
	}
	at := fmt.Sprintf("/jobs/%d/evenings", job)
	_, page, _ := x.Get(at)
	var key string
	for _, f := range formsOf(page) {
		if key = f.fields.Get("key"); key != "" {
			break
		}
	}
	for _, upto := range []string{"9", "4"} {
		x.Post(at, "key", key, "upto", upto)
	}
	var kept struct{}
	if done, err := x.Store.Of(ctx).Evenings(ctx, job, &kept); err != nil || done[key] != 9 {
		t.Errorf("of %s %d are done, %v; one hand did 9", key, done[key], err)
	}
	_, page, _ = x.Get("/styles?from=hinged-carton")
	var file string
	for _, f := range formsOf(page) {
		if f.action == "/styles" {
			file = f.fields.Get("style")
		}
	}
	keep := func(began string) int {
		status, _, _ := x.Post("/styles", "style", file, "began", began, "keep", "1")
		return status
	}
	if first := keep(""); first >= 400 {
		t.Fatalf("the first version: %d", first)
	}
	if again := keep(""); again != http.StatusUnprocessableEntity {
		t.Errorf("a second that was begun from nothing: %d", again)
	}
	if again := keep("1"); again >= 400 {
		t.Errorf("a second from the first: %d", again)
	}
	x.Post("/styles/table", "name", "One")
	_, page, _ = x.Get("/styles/table")
	var draft string
	for _, f := range formsOf(page) {
		draft += f.fields.Get("draft")
	}
	x.Post("/styles/table", "draft", draft, "name", "Two")
	if status, page, _ := x.Post("/styles/table", "draft", draft, "name", "Three"); !strings.Contains(page, "in another window") || !strings.Contains(page, `value="Two"`) {
		t.Errorf("a table of an older window: %d", status)
	}
}

// An older page on which nothing was touched changes nothing: the form of a table lets nobody in
// who was struck.
func TestAnUntouchedFormLetsNobodyIn(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	wren := w.Person("Wren", people.Steward)
	w.Person("Ash", people.Maker)
	at := fmt.Sprintf("/people/%d", people.Of(w.As("Ash")).ID)
	wren.Post(at, "struck", "1", "was.struck", "false")
	// Another steward's page still shows her as let in.
	if status, page, _ := wren.Post(at, "struck", "1", "was.struck", "false"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "Another steward changed Ash meanwhile") {
		t.Errorf("from an older page: %d", status)
	}
	wren.Post(at, "place", "Stall", "was.place", "")
	wren.Post(at, "place", "", "was.place", "") // of a page from before
	p, err := w.Store.Of(t.Context()).PersonCalled(t.Context(), "Ash")
	if err != nil || !p.Struck || p.Place != "Stall" {
		t.Errorf("Ash is struck %v, and sits at %q, %v", p.Struck, p.Place, err)
	}
}
