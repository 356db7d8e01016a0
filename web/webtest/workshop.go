package webtest

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/roster"
	"brevium/store/storetest"
	"brevium/web"
)

// Atelier is a workshop on a fresh database, served over TLS.
type Atelier struct {
	*Table
	Routes echo.Routes
	URL    string
	Client *http.Client // of the test server, whose certificate it knows
	Now    time.Time
	Data   string       // the file
	Again  http.Handler // in place of the first, when it was started again
}

// Pepper goes into the passwords of all tests.
var Pepper = people.NewPepper()

// GoodPassword is that of all who are let in.
const GoodPassword = "seven kraft sheets"

// goodHash is worked out once for all who are let in.
var goodHash = sync.OnceValue(func() string { return Pepper.Hash(GoodPassword) })

// NewAtelier opens a workshop.
func NewAtelier(t testing.TB) *Atelier {
	t.Helper()
	w := &Atelier{Now: time.Now(), Data: storetest.File(t)}
	w.Table = &Table{T: t}
	w.Start()
	server := httptest.NewTLSServer(http.HandlerFunc(func(a http.ResponseWriter, r *http.Request) { w.HTTP.ServeHTTP(a, r) }))
	t.Cleanup(server.Close)
	w.URL, w.Client = server.URL, server.Client()
	return w
}

// Start opens the data, again after they were closed, and serves them.
func (w *Atelier) Start() {
	w.T.Helper()
	s := storetest.At(w.T, w.Data)
	s.UseClock(func() time.Time { return w.Now })
	h, routes, err := web.NewWorkshop(s, nil, Quiet(), Pepper)
	if err != nil {
		w.T.Fatal(err)
	}
	// The test's clients say whom they come from, as by a proxy.
	proxies, err := web.ParseProxies([]string{"127.0.0.1"})
	if err != nil {
		w.T.Fatal(err)
	}
	w.Store, w.HTTP, w.Routes = s, web.Behind(proxies, h), routes
}

func (w *Atelier) Visitor(from string) *Visitor {
	jar, _ := cookiejar.New(nil)
	return &Visitor{w, &http.Client{Transport: w.Client.Transport, Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}, from}
}

// Person lets one in, and signs them in.
func (w *Atelier) Person(name string, role people.Role) *Visitor {
	w.T.Helper()
	c := roster.Code{For: roster.ForJoining, Role: role, Until: w.Now.Add(time.Hour)}
	if role == people.Steward {
		c.For = roster.ForSetUp
	}
	code, err := w.Store.Of(w.T.Context()).NewCode(w.T.Context(), c)
	if err != nil {
		w.T.Fatal(err)
	}
	if _, err := w.Store.Of(w.T.Context()).Join(w.T.Context(), code.Text, name, goodHash()); err != nil {
		w.T.Fatal(err)
	}
	v := w.Visitor("10.0.0.1")
	if status, _, _ := v.Post("/sign-in", "name", name, "password", GoodPassword); status != http.StatusSeeOther {
		w.T.Fatalf("%s is not let in: %d", name, status)
	}
	return v
}

// As is the context of a person, to ask the store by.
func (w *Atelier) As(name string) context.Context {
	w.T.Helper()
	p, err := w.Store.Of(w.T.Context()).PersonCalled(w.T.Context(), name)
	if err != nil {
		w.T.Fatal(err)
	}
	return people.With(w.T.Context(), p)
}

// Visitor is somebody at a machine, with cookies of their own.
type Visitor struct {
	W    *Atelier
	HTTP *http.Client
	From string
}

// Do asks for a page, with headers and a form of names and values.
func (v *Visitor) Do(method, path string, header map[string]string, pairs ...string) (int, string, http.Header) {
	v.W.T.Helper()
	form := url.Values{}
	for i := 0; i+1 < len(pairs); i += 2 {
		form.Set(pairs[i], pairs[i+1])
	}
	r, err := http.NewRequest(method, v.W.URL+path, strings.NewReader(form.Encode()))
	if err != nil {
		v.W.T.Fatal(err)
	}
	r.Header.Set("X-Forwarded-For", v.From)
	if method == http.MethodPost {
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("Origin", v.W.URL)
	}
	for k, x := range header {
		r.Header.Set(k, x)
	}
	if host := header["Host"]; host != "" {
		r.Host = host
	}
	a, err := v.HTTP.Do(r)
	if err != nil {
		v.W.T.Fatal(err)
	}
	defer a.Body.Close()
	body, err := io.ReadAll(a.Body)
	if err != nil {
		v.W.T.Fatal(err)
	}
	return a.StatusCode, string(body), a.Header
}

// Get asks for a page.
func (v *Visitor) Get(path string) (int, string, http.Header) { return v.Do(http.MethodGet, path, nil) }

// Post sends a form of names and values, as a page without scripts does.
func (v *Visitor) Post(path string, pairs ...string) (int, string, http.Header) {
	return v.Do(http.MethodPost, path, nil, pairs...)
}

// Token is the word that the session is known by.
func (v *Visitor) Token() string {
	at, _ := url.Parse(v.W.URL)
	for _, c := range v.HTTP.Jar.Cookies(at) {
		if c.Name == "__Host-brevium" {
			return c.Value
		}
	}
	return ""
}

// SharedBox is a box that Ash shares, and two makers.
func SharedBox(t testing.TB, w *Atelier) (id int64, ash, rowan *Visitor) {
	t.Helper()
	ash, rowan = w.Person("Ash", people.Maker), w.Person("Rowan", people.Maker)
	ctx := w.As("Ash")
	id, err := w.Store.Of(ctx).Add(ctx, design.New("Jars", measure.In, "tray-lid"))
	if err := errors.Join(err, w.Store.Of(ctx).Share(ctx, desk.BoxSort, id, true)); err != nil {
		t.Fatal(err)
	}
	return id, ash, rowan
}

// OpenClass opens a class for a shared box, and gives the address that its code leads to.
func OpenClass(t testing.TB, w *Atelier) (board string, ash *Visitor, path string) {
	t.Helper()
	id, ash, rowan := SharedBox(t, w)
	board = fmt.Sprintf("/boxes/%d/class", id)
	if status, _, _ := rowan.Post(board, "do", "open"); status < 400 { // it is not hers
		t.Errorf("another opens a class of Ash's box: %d", status)
	}
	if status, _, _ := ash.Post(board, "do", "open"); status != http.StatusSeeOther {
		t.Fatalf("opening a class: %d", status)
	}
	_, page, _ := ash.Get(board)
	if path = regexp.MustCompile(`/class/\w+`).FindString(page); path == "" || !strings.Contains(page, "<svg class=\"code\"") {
		t.Fatalf("the way in is not on the board: %.600s", page)
	}
	return board, ash, path
}
