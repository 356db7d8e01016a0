// Package visit is a maker's browser for the load and soak tools: it asks for
// pages of a Brevium on this machine and posts its forms.
package visit

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"time"
)

// Browser is one window.
type Browser struct {
	At     string // http://127.0.0.1:port
	Window string
	Client *http.Client
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
	if kind != "" {
		q.Header.Set("Content-Type", kind)
	}
	r, err := b.Client.Do(q)
	if err != nil {
		return Answer{}, err
	}
	defer r.Body.Close()
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

var version = regexp.MustCompile(`name="version" value="(\d+)"`)

// Version is which version of a box or job a page shows.
func (a Answer) Version() string {
	if m := version.FindStringSubmatch(a.Body); m != nil {
		return m[1]
	}
	return ""
}
