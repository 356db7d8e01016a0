package web_test

import (
	"bytes"
	"fmt"
	"log/slog"
	"net/http"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/store/jobbook"
	"brevium/web"
	"brevium/web/webtest"
)

// What every answer brings along, of each address: nothing of it may be framed, guessed at,
// kept by what lies between or read by another site; all text says in which letters; no
// method is answered that no page uses.
func TestAnswersAreSafe(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	wren := w.Person("Wren", people.Steward)
	ctx := w.As("Wren")
	box, err := w.Store.Of(ctx).Add(ctx, design.New("Jars", measure.In, "tray-lid"))
	if err != nil {
		t.Fatal(err)
	}
	job, err := w.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: box, Copies: 2}}})
	if err != nil {
		t.Fatal(err)
	}
	looked := 0
	for _, r := range w.Routes {
		if r.Method != http.MethodGet || strings.HasPrefix(r.Path, "/live/") || strings.HasPrefix(r.Path, "/static/") {
			continue
		}
		of := fmt.Sprint(box)
		if strings.HasPrefix(r.Path, "/jobs") {
			of = fmt.Sprint(job)
		}
		path := strings.NewReplacer(":id", of, ":stop", "box", ":piece", "base.svg", ":file", "none.jpg", ":code", "none", ":small", "sleeve", ":sort", "box").Replace(r.Path)
		status, _, h := wren.Do(http.MethodGet, path, map[string]string{"Origin": "https://elsewhere.example"})
		looked++
		for name, wants := range map[string]string{
			"Content-Security-Policy": "frame-ancestors 'none'", "X-Content-Type-Options": "nosniff", "Referrer-Policy": "same-origin", "Cross-Origin-Resource-Policy": "same-origin",
		} {
			if !strings.Contains(h.Get(name), wants) {
				t.Errorf("%s (%d) has %s %q", path, status, name, h.Get(name))
			}
		}
		if c := h.Get("Content-Security-Policy"); strings.Contains(c, "unsafe") || !strings.Contains(c, "default-src 'self'") {
			t.Errorf("%s: %s", path, c)
		}
		if c := h.Get("Cache-Control"); !strings.Contains(c, "no-store") && !strings.Contains(c, "private") {
			t.Errorf("%s is kept between: %q", path, c)
		}
		if kind := h.Get("Content-Type"); strings.HasPrefix(kind, "text/") && !strings.Contains(strings.ToLower(kind), "charset=utf-8") {
			t.Errorf("%s: %q", path, kind)
		}
		if h.Get("Access-Control-Allow-Origin") != "" || h.Get("Server") != "" || h.Get("X-Powered-By") != "" {
			t.Errorf("%s tells too much: %v", path, h)
		}
	}
	if looked < 60 {
		t.Errorf("%d were looked at", looked)
	}
	for _, method := range []string{http.MethodPut, http.MethodDelete, http.MethodPatch, http.MethodTrace, "BREW"} {
		if status, _, _ := wren.Do(method, "/jobs", nil); status != http.StatusMethodNotAllowed && status != http.StatusForbidden {
			t.Errorf("%s: %d", method, status)
		}
	}
	if status, _, _ := wren.Get("/static/"); status != http.StatusNotFound {
		t.Errorf("the folder of static files is listed: %d", status)
	}
	if status, _, _ := wren.Get("/static/../../b.db"); status == http.StatusOK {
		t.Error("a file beside is given")
	}
	refused := 0
	for _, r := range w.Routes { // every form, from another site
		if r.Method == http.MethodPost {
			path := regexp.MustCompile(`:\w+`).ReplaceAllString(r.Path, "1")
			for _, from := range []map[string]string{{"Origin": "https://elsewhere.example"}, {"Origin": "null", "Sec-Fetch-Site": "cross-site"}} {
				status, _, _ := wren.Do(http.MethodPost, path, from)
				if status != http.StatusForbidden {
					t.Errorf("POST %s from %v: %d", path, from, status)
				}
				refused++
			}
		}
	}
	if refused < 100 {
		t.Errorf("%d forms were sent from elsewhere", refused)
	}
	for _, kind := range []string{"text/plain", "application/xml", "nonsense"} {
		if status, _, _ := wren.Do(http.MethodPost, "/jobs", map[string]string{"Content-Type": kind}, "name", "x"); status != http.StatusUnsupportedMediaType {
			t.Errorf("a body of %s: %d", kind, status)
		}
	}
	var h http.Header
	web.OverTLS(http.HandlerFunc(func(http.ResponseWriter, *http.Request) {})).ServeHTTP(answer(func(x http.Header) { h = x }), nil)
	if !strings.HasPrefix(h.Get("Strict-Transport-Security"), "max-age=15768000") {
		t.Errorf("over TLS it says %v", h)
	}
}

// answer is a writer that shows its header at once.
func answer(seen func(http.Header)) http.ResponseWriter {
	x := &silent{h: http.Header{}}
	seen(x.h)
	return x
}

type silent struct{ h http.Header }

func (x *silent) Header() http.Header { return x.h }

func (x *silent) Write(b []byte) (int, error) { return len(b), nil }

func (x *silent) WriteHeader(int) {}

// What is typed comes back as text, on every page that shows it, and as a file's name; in
// the database it is a value.
func TestTextStaysText(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	ash := w.Person("Ash", people.Maker)
	ctx := w.As("Ash")
	const evil = `"><script>alert(1)</script>{{.}}'); DROP TABLE boxes;--`
	in := design.New(evil, measure.In, "tray-lid")
	in.Card.Name = evil
	box, err := w.Store.Of(ctx).Add(ctx, in)
	if err != nil {
		t.Fatal(err)
	}
	job, err := w.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: evil, Items: []jobbook.JobItem{{Box: box, Copies: 2}}})
	if err != nil {
		t.Fatal(err)
	}
	pages := 0
	for _, r := range w.Routes {
		if r.Method != http.MethodGet || strings.HasPrefix(r.Path, "/live/") {
			continue
		}
		of := fmt.Sprint(box)
		if strings.HasPrefix(r.Path, "/jobs") {
			of = fmt.Sprint(job)
		}
		for _, stop := range []string{"box", "contents", "papers", "sheets", "making"} {
			path := strings.NewReplacer(":id", of, ":stop", stop).Replace(r.Path)
			status, page, h := ash.Get(path)
			if strings.Contains(page, "<script>alert") {
				t.Errorf("%s writes it as it is", path)
			}
			if d := h.Get("Content-Disposition"); strings.ContainsAny(d, "<>\r\n") {
				t.Errorf("%s: a file called %s", path, d)
			}
			if status == http.StatusOK && strings.Contains(page, "&lt;script&gt;alert") {
				pages++
			}
			if !strings.Contains(r.Path, ":stop") {
				break
			}
		}
	}
	if pages < 10 {
		t.Errorf("%d pages show it as text", pages)
	}
	for _, path := range []string{"/?find=" + "%27%20OR%201%3D1--", "/read?text=%3Cscript%3Ealert(1)%3C/script%3E", "/logbook?find=%25%27"} {
		if status, page, _ := ash.Get(path); status >= 500 || strings.Contains(page, "<script>alert") {
			t.Errorf("%s: %d", path, status)
		}
	}
	if b, err := w.Store.Of(ctx).Box(ctx, box); err != nil || b.Name != evil {
		t.Errorf("the box is %q, %v", b.Name, err)
	}
}

// The log has who did what and when, as JSON lines with the request's number, and nothing
// that lets anybody in: no password, no code, no token; a line cannot be forged.
func TestTheLogTellsNoSecrets(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	var mu sync.Mutex
	var text bytes.Buffer
	h, _, err := web.NewWorkshop(w.Store, nil, slog.New(slog.NewJSONHandler(webtest.Writer(func(b []byte) {
		mu.Lock()
		defer mu.Unlock()
		text.Write(b)
	}), nil)), webtest.Pepper)
	if err != nil {
		t.Fatal(err)
	}
	w.HTTP = h
	wren := w.Person("Wren", people.Steward)
	_, page, _ := wren.Post("/people/invite", "role", "maker", "days", "3")
	link := regexp.MustCompile(`/join/(\w+)`).FindStringSubmatch(page)
	ash := w.Visitor("10.0.0.2")
	ash.Get(link[0])
	ash.Post(link[0], "name", "Ash", "password", "four blue ribbons")
	ash.Post("/sign-in", "name", "Ash\n{\"level\":\"INFO\"}", "password", "four red ribbons")
	ash.Get("/people")
	ash.Get("/look/" + strings.Repeat("a", 16))
	mu.Lock()
	log := text.String()
	mu.Unlock()
	for _, secret := range []string{webtest.GoodPassword, "four blue ribbons", "four red ribbons", link[1], wren.Token(), ash.Token(), strings.Repeat("a", 16)} {
		if secret == "" || strings.Contains(log, secret) {
			t.Errorf("the log has %q", secret)
		}
	}
	for _, line := range strings.Split(strings.TrimSpace(log), "\n") {
		if !strings.HasPrefix(line, `{"time":"`+time.Now().UTC().Format("2006")) || !strings.HasSuffix(line, "}") {
			t.Errorf("a line of the log: %s", line)
		}
	}
	for _, want := range []string{`"what":"joined"`, `"what":"invited"`, `"what":"refused"`, `"what":"wrong password"`, `"person":"Ash"`, `"request":"`, `"route":"/join/:code"`} {
		if !strings.Contains(log, want) {
			t.Errorf("the log does not tell %s", want)
		}
	}
}

// Once one has signed out, the browser has nothing of what was seen: it stores an address and settings of
// its own alone, and is told to drop its cache.
func TestTheBrowserKeepsNothingPrivate(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	id, ash, _ := webtest.SharedBox(t, w)
	h := signedIn(t, w, "Ash")
	for _, path := range []string{"/", fmt.Sprintf("/boxes/%d/box", id), fmt.Sprintf("/boxes/%d/making", id), fmt.Sprintf("/boxes/%d/bench", id), "/drawer", "/logbook", "/me"} {
		h.visit(path)
	}
	h.press("button", "Sign out")
	h.until(`location.pathname === "/sign-in"`)
	kept := h.tells(`Object.keys(localStorage).concat(Object.keys(sessionStorage)).sort().join()`)
	for _, name := range strings.FieldsFunc(kept, func(r rune) bool { return r == ',' }) {
		if name != "htmx-current-path-for-history" && name != "single-keys" && name != "caliper" && name != "bench-speaks" {
			t.Errorf("the browser keeps %s", name)
		}
	}
	if _, _, header := ash.Post("/sign-out"); header.Get("Clear-Site-Data") != `"cache"` {
		t.Errorf("signing out says %v", header)
	}
}
