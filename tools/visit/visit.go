// Package visit is a maker's browser for the load and soak tools: it asks for
// pages of a Brevium on this machine and posts its forms.
package visit

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"mime/multipart"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"time"
)

// Browser is one window.
type Browser struct {
	At     string // http://127.0.0.1:port
	Window string
	Client *http.Client

	mu      sync.Mutex
	cookies map[string]string
}

// New opens a window on the address, which must be of this machine.
func New(at, window string) (*Browser, error) {
	u, err := url.Parse(at)
	if err != nil || u.Hostname() != "127.0.0.1" {
		return nil, fmt.Errorf("%q is not an address of this machine", at)
	}
	return &Browser{At: at, Window: window, Client: &http.Client{
		Timeout:       60 * time.Second,
		CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse },
	}}, nil
}

// send takes the cookies along; on this machine the safe ones too, without TLS.
func (b *Browser) send(q *http.Request) {
	b.mu.Lock()
	defer b.mu.Unlock()
	for name, value := range b.cookies {
		q.AddCookie(&http.Cookie{Name: name, Value: value})
	}
}

func (b *Browser) keep(r *http.Response) {
	b.mu.Lock()
	defer b.mu.Unlock()
	for _, c := range r.Cookies() {
		if b.cookies == nil {
			b.cookies = map[string]string{}
		}
		if c.MaxAge < 0 || c.Value == "" {
			delete(b.cookies, c.Name)
		} else {
			b.cookies[c.Name] = c.Value
		}
	}
}

// Password is that of all who are let in by the tools.
const Password = "seven kraft sheets for the tools"

// Enter sets a workshop up by its code, or joins it by the address of a link, as a person.
func (b *Browser) Enter(ctx context.Context, path, code, name string) error {
	a, err := b.Post(ctx, path, "code", code, "name", name, "password", Password)
	if err == nil && a.Status != http.StatusSeeOther {
		err = fmt.Errorf("%s is not let in at %s: %d", name, path, a.Status)
	}
	return err
}

var joins = regexp.MustCompile(`/join/\w+`)

// Invite makes a link to join by, as the steward does, and gives its path.
func (b *Browser) Invite(ctx context.Context) (string, error) {
	a, err := b.Post(ctx, "/people/invite", "role", "maker", "days", "1")
	if err != nil {
		return "", err
	}
	if path := joins.FindString(a.Body); path != "" {
		return path, nil
	}
	return "", fmt.Errorf("there is no link to join by: %d", a.Status)
}

// SignIn lets a person in who joined before.
func (b *Browser) SignIn(ctx context.Context, name string) error {
	a, err := b.Post(ctx, "/sign-in", "name", name, "password", Password)
	if err == nil && a.Status != http.StatusSeeOther {
		err = fmt.Errorf("%s is not let in: %d", name, a.Status)
	}
	return err
}

// Answer is what came back.
type Answer struct {
	Status int
	Body   string
	Bytes  int // as they travelled
	Took   time.Duration
	Next   string // where it sends the browser
}

func (b *Browser) do(ctx context.Context, method, path string, body io.Reader, kind string) (Answer, error) {
	start := time.Now()
	q, err := http.NewRequestWithContext(ctx, method, b.At+path, body)
	if err != nil {
		return Answer{}, err
	}
	q.Header.Set("X-Window", b.Window)
	b.send(q)
	if kind != "" {
		q.Header.Set("Content-Type", kind)
	}
	r, err := b.Client.Do(q)
	if err != nil {
		return Answer{}, err
	}
	defer r.Body.Close()
	b.keep(r)
	text, err := io.ReadAll(r.Body)
	return Answer{r.StatusCode, string(text), len(text), time.Since(start), r.Header.Get("Location")}, err
}

// Get asks for a page.
func (b *Browser) Get(ctx context.Context, path string) (Answer, error) {
	return b.do(ctx, http.MethodGet, path, nil, "")
}

// Post sends a form; pairs are names and values.
func (b *Browser) Post(ctx context.Context, path string, pairs ...string) (Answer, error) {
	f := url.Values{}
	for i := 0; i+1 < len(pairs); i += 2 {
		f.Add(pairs[i], pairs[i+1])
	}
	return b.do(ctx, http.MethodPost, path, strings.NewReader(f.Encode()), "application/x-www-form-urlencoded")
}

// File sends a file as a form does, under a name.
func (b *Browser) File(ctx context.Context, path, field string, file []byte) (Answer, error) {
	var body bytes.Buffer
	form := multipart.NewWriter(&body)
	part, err := form.CreateFormFile(field, "file")
	if err == nil {
		_, err = part.Write(file)
	}
	if err = errors.Join(err, form.Close()); err != nil {
		return Answer{}, err
	}
	return b.do(ctx, http.MethodPost, path, &body, form.FormDataContentType())
}

var markup = regexp.MustCompile(`(?s)<(style|script|svg).*?</(style|script|svg)>|<[^>]*>|\s+`)

// Plain is the text of an answer, without its markup.
func (a Answer) Plain() string { return markup.ReplaceAllString(a.Body, " ") }

var version = regexp.MustCompile(`name="version" value="(\d+)"`)

// Version is which version of a box or job a page shows.
func (a Answer) Version() string {
	if m := version.FindStringSubmatch(a.Body); m != nil {
		return m[1]
	}
	return ""
}
