package web

import (
	"context"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/labstack/echo/v5"

	"brevium/core/people"
	"brevium/store"
	"brevium/store/storetest"
)

// atelier is a workshop on a fresh database, served over TLS.
type atelier struct {
	*table
	routes echo.Routes
	url    string
	client *http.Client // of the test server, whose certificate it knows
	now    time.Time
	data   string       // the file
	again  http.Handler // in place of the first, when it was started again
}

// testPepper goes into the passwords of all tests.
var testPepper = people.NewPepper()

const goodPassword = "seven kraft sheets"

// goodHash is worked out once for all who are let in.
var goodHash = sync.OnceValue(func() string { return testPepper.Hash(goodPassword) })

func newAtelier(t testing.TB) *atelier {
	t.Helper()
	w := &atelier{now: time.Now(), data: storetest.File(t)}
	w.table = &table{t: t}
	w.start()
	server := httptest.NewTLSServer(http.HandlerFunc(func(a http.ResponseWriter, r *http.Request) { w.http.ServeHTTP(a, r) }))
	t.Cleanup(server.Close)
	w.url, w.client = server.URL, server.Client()
	return w
}

// start opens the data, again after they were closed, and serves them.
func (w *atelier) start() {
	w.t.Helper()
	s := storetest.At(w.t, w.data)
	s.UseClock(func() time.Time { return w.now })
	h, routes, err := NewWorkshop(s, nil, quiet(), testPepper)
	if err != nil {
		w.t.Fatal(err)
	}
	// The test's clients say whom they come from, as by a proxy.
	proxies, err := ParseProxies([]string{"127.0.0.1"})
	if err != nil {
		w.t.Fatal(err)
	}
	w.store, w.http, w.routes = s, Behind(proxies, h), routes
}

// visitor is somebody at a machine, with cookies of their own.
type visitor struct {
	w    *atelier
	http *http.Client
	from string
}

func (w *atelier) visitor(from string) *visitor {
	jar, _ := cookiejar.New(nil)
	return &visitor{w, &http.Client{Transport: w.client.Transport, Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}, from}
}

func (v *visitor) do(method, path string, header map[string]string, pairs ...string) (int, string, http.Header) {
	v.w.t.Helper()
	form := url.Values{}
	for i := 0; i+1 < len(pairs); i += 2 {
		form.Set(pairs[i], pairs[i+1])
	}
	r, err := http.NewRequest(method, v.w.url+path, strings.NewReader(form.Encode()))
	if err != nil {
		v.w.t.Fatal(err)
	}
	r.Header.Set("X-Forwarded-For", v.from)
	if method == http.MethodPost {
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("Origin", v.w.url)
	}
	for k, x := range header {
		r.Header.Set(k, x)
	}
	if host := header["Host"]; host != "" {
		r.Host = host
	}
	a, err := v.http.Do(r)
	if err != nil {
		v.w.t.Fatal(err)
	}
	defer a.Body.Close()
	body, err := io.ReadAll(a.Body)
	if err != nil {
		v.w.t.Fatal(err)
	}
	return a.StatusCode, string(body), a.Header
}

func (v *visitor) get(path string) (int, string, http.Header) { return v.do(http.MethodGet, path, nil) }

func (v *visitor) post(path string, pairs ...string) (int, string, http.Header) {
	return v.do(http.MethodPost, path, nil, pairs...)
}

// person lets one in, and signs them in.
func (w *atelier) person(name string, role people.Role) *visitor {
	w.t.Helper()
	c := store.Code{For: store.ForJoining, Role: role, Until: w.now.Add(time.Hour)}
	if role == people.Steward {
		c.For = store.ForSetUp
	}
	code, err := w.store.Of(w.t.Context()).NewCode(w.t.Context(), c)
	if err != nil {
		w.t.Fatal(err)
	}
	if _, err := w.store.Of(w.t.Context()).Join(w.t.Context(), code.Text, name, goodHash()); err != nil {
		w.t.Fatal(err)
	}
	v := w.visitor("10.0.0.1")
	if status, _, _ := v.post("/sign-in", "name", name, "password", goodPassword); status != http.StatusSeeOther {
		w.t.Fatalf("%s is not let in: %d", name, status)
	}
	return v
}

// as is the context of a person, to ask the store by.
func (w *atelier) as(name string) context.Context {
	w.t.Helper()
	p, err := w.store.Of(w.t.Context()).PersonCalled(w.t.Context(), name)
	if err != nil {
		w.t.Fatal(err)
	}
	return people.With(w.t.Context(), p)
}

func (v *visitor) token() string {
	at, _ := url.Parse(v.w.url)
	for _, c := range v.http.Jar.Cookies(at) {
		if c.Name == "__Host-brevium" {
			return c.Value
		}
	}
	return ""
}

// The steward sets the workshop up by the printed code; a maker joins by a link, once;
// the password is not asked twice; signed out, the old cookie is worth nothing.
func TestAWorkshopIsSetUpAndJoined(t *testing.T) {
	t.Parallel()
	w := newAtelier(t)
	v := w.visitor("10.0.0.1")
	if status, _, h := v.get("/jobs?x=1"); status != http.StatusSeeOther || h.Get("Location") != "/sign-in?to=/jobs?x=1" {
		t.Errorf("a stranger gets %d, %s", status, h.Get("Location"))
	}
	code, err := w.store.Of(t.Context()).NewCode(t.Context(), store.Code{For: store.ForSetUp, Until: w.now.Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	if status, page, _ := v.post("/set-up", "code", "aaaa-bbbb", "name", "Wren", "password", goodPassword); status != http.StatusUnprocessableEntity || !strings.Contains(page, "not right") {
		t.Errorf("a wrong code: %d", status)
	}
	if status, page, _ := v.post("/set-up", "code", code.Written(), "name", "Wren", "password", "short"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "at least 12 letters") {
		t.Errorf("a short password: %d", status)
	}
	status, _, h := v.post("/set-up", "code", code.Written(), "name", "Wren", "password", goodPassword)
	if status != http.StatusSeeOther {
		t.Fatalf("set up: %d", status)
	}
	cookie := ""
	for _, c := range h.Values("Set-Cookie") {
		if strings.HasPrefix(c, "__Host-brevium=") {
			cookie = c
		}
	}
	for _, want := range []string{"__Host-brevium=", "Path=/", "Secure", "HttpOnly", "SameSite=Lax"} {
		if !strings.Contains(cookie, want) {
			t.Errorf("the cookie %q is without %s", cookie, want)
		}
	}
	if status, page, _ := v.get("/people"); status != 200 || !strings.Contains(page, "Wren") {
		t.Fatalf("the steward's people: %d", status)
	}
	_, page, _ := v.post("/people/invite", "role", "maker", "days", "3")
	link := regexp.MustCompile(`https://[^"]+/join/\w+`).FindString(page)
	if link == "" {
		t.Fatalf("there is no link in %.600s", page)
	}
	at, _ := url.Parse(link)
	ash := w.visitor("10.0.0.2")
	if status, page, _ := ash.get(at.Path); status != 200 || !strings.Contains(page, "as a maker") || !strings.Contains(page, "Kept of you here") {
		t.Errorf("the link: %d", status)
	}
	if status, _, h := ash.post(at.Path, "name", "Ash", "password", "four blue ribbons"); status != http.StatusSeeOther || h.Get("Location") != "/" {
		t.Errorf("joining: %d", status)
	}
	if status, page, _ := ash.get("/"); status != 200 || !strings.Contains(page, "Ash") {
		t.Errorf("the first page: %d", status)
	}
	if status, page, _ := w.visitor("10.0.0.3").get(at.Path); status != http.StatusNotFound || !strings.Contains(page, "leads nowhere") {
		t.Errorf("the link a second time: %d", status)
	}
	token := ash.token()
	if status, _, _ := ash.post("/sign-out"); status != http.StatusSeeOther {
		t.Errorf("signing out: %d", status)
	}
	if status, _, _ := w.visitor("10.0.0.2").do(http.MethodGet, "/", map[string]string{"Cookie": "__Host-brevium=" + token}); status != http.StatusSeeOther {
		t.Errorf("the cookie after signing out: %d", status)
	}
	// A session is another one after signing in, and a made-up one is none.
	fixed := w.visitor("10.0.0.2")
	if status, _, h := fixed.do(http.MethodPost, "/sign-in", map[string]string{"Cookie": "__Host-brevium=chosen-by-somebody"}, "name", "ash", "password", "four blue ribbons", "to", "//elsewhere.example/x"); status != http.StatusSeeOther || h.Get("Location") != "/" || strings.Contains(h.Get("Set-Cookie"), "chosen") {
		t.Errorf("signed in over a chosen session: %d, %s, %s", status, h.Get("Location"), h.Get("Set-Cookie"))
	}
	if status, _, _ := fixed.do(http.MethodPost, "/jobs", map[string]string{"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"}); status != http.StatusForbidden {
		t.Errorf("a form of another origin: %d", status)
	}
}

// What a proxy says is taken from those that are believed alone.
func TestProxies(t *testing.T) {
	t.Parallel()
	var from string
	var header http.Header
	seen := http.HandlerFunc(func(_ http.ResponseWriter, r *http.Request) { from, header = r.RemoteAddr, r.Header })
	ask := func(proxies []string, remote, forwarded string) string {
		p, err := ParseProxies(proxies)
		if err != nil {
			t.Fatal(err)
		}
		r := httptest.NewRequest(http.MethodGet, "/", nil)
		r.RemoteAddr = remote
		r.Header.Set("X-Forwarded-For", forwarded)
		r.Header.Set("X-Forwarded-Proto", "https")
		Behind(p, seen).ServeHTTP(httptest.NewRecorder(), r)
		at, err := netip.ParseAddrPort(from)
		if err != nil {
			t.Fatal(from, err)
		}
		if header.Get("X-Forwarded-For") != "" {
			t.Error("the proxy's word goes on")
		}
		return at.Addr().String()
	}
	for _, c := range []struct {
		proxies                 []string
		remote, forwarded, want string
	}{
		{nil, "10.0.0.5:99", "1.2.3.4", "10.0.0.5"},
		{[]string{"10.0.0.0/8"}, "10.0.0.5:99", "1.2.3.4", "1.2.3.4"},
		{[]string{"10.0.0.0/8"}, "10.0.0.5:99", "6.6.6.6, 1.2.3.4, 10.0.0.7", "1.2.3.4"},
		{[]string{"10.0.0.5"}, "10.0.0.6:99", "1.2.3.4", "10.0.0.6"},
		{[]string{"10.0.0.5"}, "10.0.0.5:99", "nonsense", "10.0.0.5"},
		{[]string{"::1"}, "[::1]:99", "fe80::2", "fe80::2"},
	} {
		if got := ask(c.proxies, c.remote, c.forwarded); got != c.want {
			t.Errorf("%v: from %s, who says %s, it is %s, not %s", c.proxies, c.remote, c.forwarded, got, c.want)
		}
	}
	if _, err := ParseProxies([]string{"everywhere"}); err == nil {
		t.Error("a word is taken as a proxy")
	}
}

// In the browser: the workshop is set up, somebody joins by the link on another phone,
// and what the steward does not let them do is said.
func TestTheDoorInTheBrowser(t *testing.T) {
	t.Parallel()
	w := newAtelier(t)
	code, err := w.store.Of(t.Context()).NewCode(t.Context(), store.Code{For: store.ForSetUp, Until: w.now.Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	h := newHand(t, w.table, 1280, 800) // over plain http, at the machine itself
	h.visit("/")
	h.until(`location.pathname === "/sign-in"`)
	h.visit("/set-up")
	h.write("The code", code.Written())
	h.write("Your name", "Wren")
	h.write("A password, at least 12 letters", "too short")
	h.until(`document.querySelector(".field [role=status]")?.innerText === "3 letters to go"`)
	h.press("button", "Show: A password, at least 12 letters")
	h.until(`document.getElementById("password").type === "text"`)
	h.do(js(`(() => { const f = document.getElementById("password"); f.select(); document.execCommand("insertText", false, "pasted from a keeper"); })()`))
	h.until(`document.getElementById("password").value === "pasted from a keeper" && document.querySelector(".field [role=status]").innerText === "hard to guess"`)
	h.press("button", "Show: A password, at least 12 letters")
	h.write("A password, at least 12 letters", goodPassword)
	h.press("button", "Set it up")
	h.until(`location.pathname === "/" && document.querySelector(".who").innerText === "Wren"`)
	h.visit("/people")
	h.press("button", "Make a link")
	h.until(`document.getElementById("link").value.includes("/join/")`)
	h.visit("/me")
	h.press("button", "Sign out")
	h.until(`location.pathname === "/sign-in"`)
	h.write("Your name", "wren")
	h.write("Password", "not this one at all")
	h.press("button", "Sign in")
	h.until(`document.getElementById("fault")?.innerText.includes("do not go together")`)
	h.write("Password", goodPassword)
	h.press("button", "Sign in")
	h.until(`location.pathname === "/"`)
}

// No page of a workshop has an accessibility fault, nor does it scroll sideways.
func TestAxeAtTheDoor(t *testing.T) {
	t.Parallel()
	w := newAtelier(t)
	board, _, path := openClass(t, w)
	w.visitor("10.0.0.5").post(path, "name", "red")
	w.person("Wren", people.Steward)
	h := newHand(t, w.table, 1280, 800)
	look := func(pages ...string) {
		t.Helper()
		for n, page := range pages { // at the desk and on a phone in turn
			size := [][2]int64{{390, 844}, {1280, 800}}[n%2]
			h.do(chromedp.EmulateViewport(size[0], size[1]))
			h.visit(page)
			h.audit(page, size[0])
		}
	}
	look("/sign-in", path)
	h.write("What are you called here?", "green")
	h.press("button", "Sit down")
	h.until(`document.getElementById("follow-where")?.textContent.startsWith("1 of")`)
	look(path)
	for _, name := range []string{"Wren", "Ash"} {
		h.visit("/sign-in")
		h.write("Your name", name)
		h.write("Password", goodPassword)
		h.press("button", "Sign in")
		h.until(`location.pathname === "/"`)
		if name == "Wren" {
			look("/people", "/me")
		} else {
			look(board, "/styles/table?from=gable-lid")
		}
	}
}
