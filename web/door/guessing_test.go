package door_test

import (
	"bytes"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"brevium/core/people"
	"brevium/store/roster"
	"brevium/web"
	"brevium/web/webtest"
)

// Ten wrong tries slow one down; a thousand from fifty addresses find nothing, and who has
// signed in on their phone before does not notice; names cannot be told from answers.
func TestGuessing(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	wren := w.Person("Wren", people.Steward)
	bad := w.Visitor("10.0.0.66")
	slow := 0
	for range 10 {
		status, _, _ := bad.Post("/sign-in", "name", "Wren", "password", "guessed wrong again")
		if status == http.StatusTooManyRequests {
			slow++
		}
	}
	if slow < 4 {
		t.Errorf("of ten wrong tries %d are slowed down", slow)
	}
	if status, _, _ := bad.Post("/sign-in", "name", "Wren", "password", webtest.GoodPassword); status != http.StatusTooManyRequests {
		t.Errorf("the right password while one waits: %d", status)
	}
	made := 0
	for n := range 1000 {
		v := w.Visitor(fmt.Sprintf("10.1.0.%d", n%50))
		switch status, _, _ := v.Post("/sign-in", "name", "Wren", "password", fmt.Sprintf("a guess of number %d", n)); status {
		case http.StatusSeeOther:
			t.Error("a guess was let in")
		case http.StatusUnauthorized:
			made++
		}
	}
	if made > 20 {
		t.Errorf("%d of a thousand guesses at once were looked at", made)
	}
	wren.Post("/sign-out")
	if status, _, _ := wren.Post("/sign-in", "name", "Wren", "password", webtest.GoodPassword); status != http.StatusSeeOther {
		t.Errorf("the steward is kept out on her own phone: %d", status)
	}
	w.Now = w.Now.Add(time.Minute)
	if status, _, _ := w.Visitor("10.0.0.2").Post("/sign-in", "name", "Wren", "password", webtest.GoodPassword); status != http.StatusSeeOther {
		t.Errorf("the steward is kept out on a new phone a minute later: %d", status)
	}
	w.Now = w.Now.Add(61 * time.Minute)
	plain := regexp.MustCompile(`value="[^"]*"`)
	_, known, _ := w.Visitor("10.0.0.3").Post("/sign-in", "name", "Wren", "password", "no such one here")
	_, unknown, _ := w.Visitor("10.0.0.4").Post("/sign-in", "name", "Nobody", "password", "no such one here")
	if !strings.Contains(known, "do not go together") || plain.ReplaceAllString(known, "") != plain.ReplaceAllString(unknown, "") {
		t.Error("the answer tells a known name from an unknown one")
	}
}

// Two hundred wrong tries at once from the address that all of a club share: each is counted
// before it is made, and afterwards everybody there is let in, by password, by link, and on a
// phone that was never there.
func TestOneAddressBarsNobody(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	const club = "10.0.0.1"
	ash, _, _ := w.Person("Ash", people.Steward), w.Person("Rowan", people.Maker), w.Person("Wren", people.Maker)
	ash.Post("/sign-out")
	code, err := w.Store.Of(t.Context()).NewCode(t.Context(), roster.Code{For: roster.ForJoining, Role: people.Maker, Until: w.Now.Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	var all sync.WaitGroup
	var mu sync.Mutex
	made := map[string]int{}
	for n := range 200 {
		name := "Wren"
		if n%2 == 0 {
			name = fmt.Sprint("nobody ", n)
		}
		all.Go(func() {
			status, _, _ := w.Visitor(club).Post("/sign-in", "name", name, "password", "guessed at the same moment")
			mu.Lock()
			defer mu.Unlock()
			if status == http.StatusUnauthorized {
				made[strings.Fields(name)[0]]++
			}
		})
	}
	// While they are under way somebody elsewhere signs in.
	began := time.Now()
	elsewhere := w.Visitor("10.0.0.50")
	if status, _, _ := elsewhere.Post("/sign-in", "name", "Rowan", "password", webtest.GoodPassword); status != http.StatusSeeOther {
		t.Errorf("Rowan elsewhere, meanwhile: %d", status)
	}
	t.Logf("Rowan was let in elsewhere after %v", time.Since(began))
	all.Wait()
	if made["Wren"] > 5 || made["nobody"] > 40 {
		t.Errorf("of two hundred at once these were looked at: %v", made)
	}
	if status, _, _ := ash.Post("/sign-in", "name", "Ash", "password", webtest.GoodPassword); status != http.StatusSeeOther {
		t.Errorf("Ash, on his own phone: %d", status)
	}
	w.Now = w.Now.Add(time.Second)
	if status, _, _ := w.Visitor(club).Post("/sign-in", "name", "Rowan", "password", webtest.GoodPassword); status != http.StatusSeeOther {
		t.Errorf("Rowan, on a new phone: %d", status)
	}
	if status, _, _ := w.Visitor(club).Post("/join/"+code.Text, "name", "Alder", "password", "two glue sticks here"); status != http.StatusSeeOther {
		t.Errorf("Alder, by a link: %d", status)
	}
	if status, _, _ := w.Visitor(club).Do(http.MethodPost, "/sign-in/passkey/begin", map[string]string{"Host": "workshop.lan", "Origin": "https://workshop.lan"}); status != http.StatusOK {
		t.Errorf("a passkey: %d", status)
	}
}

// A cookie that says a device is known is taken from this machine alone, for the person who
// signed in on it, and lets nobody in.
func TestADeviceIsKnown(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	w.Person("Wren", people.Steward)
	ash := w.Visitor("10.0.0.8")
	w.Person("Ash", people.Maker)
	_, _, h := ash.Post("/sign-in", "name", "Ash", "password", webtest.GoodPassword)
	cookie := ""
	for _, c := range h.Values("Set-Cookie") {
		if strings.HasPrefix(c, "__Host-brevium-device=") {
			cookie = c
		}
	}
	for _, want := range []string{"Path=/", "Secure", "HttpOnly", "SameSite=Lax"} {
		if !strings.Contains(cookie, want) {
			t.Errorf("the cookie %q is without %s", cookie, want)
		}
	}
	value, _, _ := strings.Cut(strings.TrimPrefix(cookie, "__Host-brevium-device="), ";")
	forged := people.NewPepper().Sign("device", "d1:1,2,3")
	looked := func(cookie string) (n int) {
		for range 12 {
			if status, _, _ := w.Visitor("10.0.0.9").Do(http.MethodPost, "/sign-in", map[string]string{"Cookie": "__Host-brevium-device=" + cookie}, "name", "Wren", "password", "no such one here"); status == http.StatusUnauthorized {
				n++
			}
		}
		w.Now = w.Now.Add(2 * time.Hour)
		return n
	}
	for name, c := range map[string]string{"a forged one": forged, "Ash's": value, "none": "", "nonsense": "a.b.c", "one of another use": webtest.Pepper.Sign("link", "d1:1")} {
		if n := looked(c); n != 5 {
			t.Errorf("with %s %d tries of Wren's password are made; want 5", name, n)
		}
	}
	if status, _, _ := w.Visitor("10.0.0.9").Do(http.MethodGet, "/", map[string]string{"Cookie": "__Host-brevium-device=" + value}); status != http.StatusSeeOther {
		t.Errorf("by the cookie alone: %d", status)
	}
}

// Passwords that are guessed, and names that look like somebody's, are refused with a
// sentence.
func TestWhoJoins(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	w.Person("Ash", people.Steward)
	code, err := w.Store.Of(t.Context()).NewCode(t.Context(), roster.Code{For: roster.ForJoining, Role: people.Maker, Until: w.Now.Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	v := w.Visitor("10.0.0.2")
	for _, c := range []struct{ name, password, says string }{
		{"Rowan", "P@ssw0rd1234", "too easy to guess"}, {"Rowan", "workshop1234", "too easy to guess"}, {"Rowan", "summer2026!!!", "too easy to guess"}, {"Rowan", "123456789abc", "too easy to guess"},
		{"\u0410sh", webtest.GoodPassword, "looks like"}, {"\uff21\uff53\uff48", webtest.GoodPassword, "is called"}, {"ASH", webtest.GoodPassword, "is called"}, {"As\u200bh", webtest.GoodPassword, "letters that can be seen"},
	} {
		if status, page, _ := v.Post("/join/"+code.Text, "name", c.name, "password", c.password); status != http.StatusUnprocessableEntity || !strings.Contains(page, c.says) {
			t.Errorf("%q, %q: %d, without %q", c.name, c.password, status, c.says)
		}
	}
	if status, said, _ := v.Post("/sign-in/strength", "name", "Rowan", "password", "rowan1234567"); status != http.StatusOK || !strings.Contains(said, "too easy") {
		t.Errorf("while it is typed: %d, %q", status, said)
	}
	if status, _, _ := v.Post("/join/"+code.Text, "name", "Rowan", "password", "two glue sticks here"); status != http.StatusSeeOther {
		t.Errorf("Rowan, after all that: %d", status)
	}
}

// One who is let in no more sees nothing from that moment on, the open line of a page
// included.
func TestAStreamEndsWithItsPerson(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	id, _, rowan := webtest.SharedBox(t, w)
	wren := w.Person("Wren", people.Steward)
	p, err := w.Store.Of(t.Context()).PersonCalled(t.Context(), "Rowan")
	if err != nil {
		t.Fatal(err)
	}
	ended := make(chan int)
	go func() {
		status, _, _ := rowan.Get(fmt.Sprintf("/live/boxes/%d", id))
		ended <- status
	}()
	select {
	case status := <-ended:
		t.Fatalf("the line was never open: %d", status)
	case <-time.After(300 * time.Millisecond):
	}
	if status, _, _ := wren.Post(fmt.Sprintf("/people/%d", p.ID), "struck", "1", "role", "maker"); status != http.StatusSeeOther {
		t.Fatalf("striking Rowan: %d", status)
	}
	select {
	case <-ended:
	case <-time.After(webtest.Patience):
		t.Error("Rowan's line is still open")
	}
}

// Refusals carry what all other answers do: of another name, of a form from elsewhere, of a
// body that is too long or of another kind, of what is not there.
func TestRefusalsAreSafe(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	v := w.Person("Wren", people.Steward)
	safe := func(what string, status, want int, h http.Header) {
		t.Helper()
		if status != want {
			t.Errorf("%s: %d; want %d", what, status, want)
		}
		for _, name := range []string{"Content-Security-Policy", "X-Content-Type-Options", "Referrer-Policy", "Permissions-Policy", "Cross-Origin-Opener-Policy", "Cross-Origin-Resource-Policy", "Cache-Control"} {
			if h.Get(name) == "" {
				t.Errorf("%s is without %s", what, name)
			}
		}
	}
	status, _, h := v.Do(http.MethodPost, "/jobs", map[string]string{"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"})
	safe("a form from elsewhere", status, http.StatusForbidden, h)
	status, _, h = v.Do(http.MethodPost, "/jobs", map[string]string{"Content-Type": "text/plain"}, "name", "x")
	safe("another kind of body", status, http.StatusUnsupportedMediaType, h)
	status, _, h = v.Post("/read", "text", strings.Repeat("x", 3<<20))
	safe("a long body", status, http.StatusUnprocessableEntity, h)
	status, _, h = v.Get("/nowhere")
	safe("no page", status, http.StatusNotFound, h)
	status, _, h = v.Do(http.MethodDelete, "/jobs", nil)
	safe("no method", status, http.StatusMethodNotAllowed, h)
	status, _, h = w.Visitor("10.0.0.2").Post("/jobs", "name", "x")
	safe("a stranger's form", status, http.StatusUnauthorized, h)
	r := httptest.NewRequest(http.MethodGet, "/", nil)
	r.Host = "evil.example"
	a := httptest.NewRecorder()
	web.OverTLS(web.OnlyHosts(w.HTTP, nil, webtest.Quiet())).ServeHTTP(a, r)
	safe("another name", a.Code, http.StatusMisdirectedRequest, a.Header())
	if a.Header().Get("Strict-Transport-Security") == "" {
		t.Error("another name is without Strict-Transport-Security")
	}
}

// Every refusal, at the door and before it, is in the log, with where it came from.
func TestEveryRefusalIsLogged(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	var mu sync.Mutex
	var text bytes.Buffer
	log := slog.New(slog.NewJSONHandler(webtest.Writer(func(b []byte) {
		mu.Lock()
		defer mu.Unlock()
		text.Write(b)
	}), nil))
	h, _, err := web.NewWorkshop(w.Store, nil, log, webtest.Pepper)
	if err != nil {
		t.Fatal(err)
	}
	proxies, err := web.ParseProxies([]string{"127.0.0.1"})
	if err != nil {
		t.Fatal(err)
	}
	w.HTTP = web.OnlyHosts(web.Behind(proxies, h), nil, log)
	w.Person("Wren", people.Steward)
	ash := w.Person("Ash", people.Maker)
	v := w.Visitor("10.7.7.7")
	said := func(what string, do func()) {
		t.Helper()
		mu.Lock()
		text.Reset()
		mu.Unlock()
		do()
		mu.Lock()
		defer mu.Unlock()
		for _, line := range strings.Split(text.String(), "\n") {
			if strings.Contains(line, `"msg":"door"`) && strings.Contains(line, `"what":"`+what+`"`) && strings.Contains(line, `"address":"`) {
				return
			}
		}
		t.Errorf("the log does not tell %q: %s", what, text.String())
	}
	said("not signed in", func() { v.Get("/jobs") })
	said("not signed in", func() { v.Post("/jobs", "name", "x") })
	said("refused", func() { ash.Get("/people") })
	said("wrong password", func() { v.Post("/sign-in", "name", "Wren", "password", "not this one at all") })
	said("has to wait", func() {
		for range 8 {
			v.Post("/sign-in", "name", "Wren", "password", "not this one at all")
		}
	})
	said("wrong code", func() { v.Post("/set-up", "code", "aaaa", "name", "x", "password", webtest.GoodPassword) })
	said("a form from elsewhere", func() {
		ash.Do(http.MethodPost, "/jobs", map[string]string{"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"})
	})
	said("asked for by another name", func() { v.Do(http.MethodGet, "/", map[string]string{"Host": "evil.example"}) })
	said("signed in", func() { v.Post("/sign-in", "name", "Ash", "password", webtest.GoodPassword) })
	said("signed out", func() { ash.Post("/sign-out") })
}

// A steward who has no passkey yet is told on the page that a password alone opens.
func TestAStewardWithoutAPasskeyIsTold(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	wren := w.Person("Wren", people.Steward)
	if _, page, _ := wren.Get("/people"); !strings.Contains(page, "Make a passkey") {
		t.Error("a steward by password alone is told nothing")
	}
	p := people.Of(w.As("Wren"))
	if err := w.Store.Of(t.Context()).AddPasskey(t.Context(), roster.Passkey{ID: []byte("key"), Person: p.ID, Key: []byte(`{}`)}); err != nil {
		t.Fatal(err)
	}
	if status, page, _ := wren.Get("/people"); status != http.StatusForbidden || strings.Contains(page, "<h2>Invite</h2>") {
		t.Errorf("with a passkey the password alone opens it: %d", status)
	}
}
