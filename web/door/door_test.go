package door_test

import (
	"net/http"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"regexp"
	"strings"
	"testing"
	"time"

	"brevium/store/roster"
	"brevium/web"
	"brevium/web/webtest"
)

// The steward sets the workshop up by the printed code; a maker joins by a link, once;
// the password is not asked twice; signed out, the old cookie is worth nothing.
func TestAWorkshopIsSetUpAndJoined(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	v := w.Visitor("10.0.0.1")
	if status, _, h := v.Get("/jobs?x=1"); status != http.StatusSeeOther || h.Get("Location") != "/sign-in?to=/jobs?x=1" {
		t.Errorf("a stranger gets %d, %s", status, h.Get("Location"))
	}
	code, err := w.Store.Of(t.Context()).NewCode(t.Context(), roster.Code{For: roster.ForSetUp, Until: w.Now.Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	if status, page, _ := v.Post("/set-up", "code", "aaaa-bbbb", "name", "Wren", "password", webtest.GoodPassword); status != http.StatusUnprocessableEntity || !strings.Contains(page, "not right") {
		t.Errorf("a wrong code: %d", status)
	}
	if status, page, _ := v.Post("/set-up", "code", code.Written(), "name", "Wren", "password", "short"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "at least 12 letters") {
		t.Errorf("a short password: %d", status)
	}
	status, _, h := v.Post("/set-up", "code", code.Written(), "name", "Wren", "password", webtest.GoodPassword)
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
	if status, page, _ := v.Get("/people"); status != 200 || !strings.Contains(page, "Wren") {
		t.Fatalf("the steward's people: %d", status)
	}
	_, page, _ := v.Post("/people/invite", "role", "maker", "days", "3")
	link := regexp.MustCompile(`https://[^"]+/join/\w+`).FindString(page)
	if link == "" {
		t.Fatalf("there is no link in %.600s", page)
	}
	at, _ := url.Parse(link)
	ash := w.Visitor("10.0.0.2")
	if status, page, _ := ash.Get(at.Path); status != 200 || !strings.Contains(page, "as a maker") || !strings.Contains(page, "Kept of you here") {
		t.Errorf("the link: %d", status)
	}
	if status, _, h := ash.Post(at.Path, "name", "Ash", "password", "four blue ribbons"); status != http.StatusSeeOther || h.Get("Location") != "/" {
		t.Errorf("joining: %d", status)
	}
	if status, page, _ := ash.Get("/"); status != 200 || !strings.Contains(page, "Ash") {
		t.Errorf("the first page: %d", status)
	}
	if status, page, _ := w.Visitor("10.0.0.3").Get(at.Path); status != http.StatusNotFound || !strings.Contains(page, "leads nowhere") {
		t.Errorf("the link a second time: %d", status)
	}
	token := ash.Token()
	if status, _, _ := ash.Post("/sign-out"); status != http.StatusSeeOther {
		t.Errorf("signing out: %d", status)
	}
	if status, _, _ := w.Visitor("10.0.0.2").Do(http.MethodGet, "/", map[string]string{"Cookie": "__Host-brevium=" + token}); status != http.StatusSeeOther {
		t.Errorf("the cookie after signing out: %d", status)
	}
	// A session is another one after signing in, and a made-up one is none.
	fixed := w.Visitor("10.0.0.2")
	if status, _, h := fixed.Do(http.MethodPost, "/sign-in", map[string]string{"Cookie": "__Host-brevium=chosen-by-somebody"}, "name", "ash", "password", "four blue ribbons", "to", "//elsewhere.example/x"); status != http.StatusSeeOther || h.Get("Location") != "/" || strings.Contains(h.Get("Set-Cookie"), "chosen") {
		t.Errorf("signed in over a chosen session: %d, %s, %s", status, h.Get("Location"), h.Get("Set-Cookie"))
	}
	if status, _, _ := fixed.Do(http.MethodPost, "/jobs", map[string]string{"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"}); status != http.StatusForbidden {
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
		p, err := web.ParseProxies(proxies)
		if err != nil {
			t.Fatal(err)
		}
		r := httptest.NewRequest(http.MethodGet, "/", nil)
		r.RemoteAddr = remote
		r.Header.Set("X-Forwarded-For", forwarded)
		r.Header.Set("X-Forwarded-Proto", "https")
		web.Behind(p, seen).ServeHTTP(httptest.NewRecorder(), r)
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
	if _, err := web.ParseProxies([]string{"everywhere"}); err == nil {
		t.Error("a word is taken as a proxy")
	}
}
