package page

import (
	"net/http"
	"sync/atomic"
	"time"
)

// Turns lets pages go before work that can wait, such as a search.
type Turns struct {
	pages atomic.Int64
	nap   atomic.Int64 // when one that can wait last slept, in nanoseconds
}

// How long what can wait waits for pages at a time.
const (
	shortWait   = 500 * time.Microsecond
	longestWait = 25 * time.Millisecond
	betweenNaps = time.Millisecond
)

// Page answers a request that others wait for.
func (t *Turns) Page(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		t.pages.Add(1)
		defer t.pages.Add(-1)
		next.ServeHTTP(w, r)
	})
}

// Wait returns when no page is being answered, or after a while. It is for
// requests that are not counted as pages: they call Leave first.
func (t *Turns) Wait() {
	// With every core at work nobody looks whether a request has come, so one
	// sleeps for a moment now and then.
	if now, last := time.Now().UnixNano(), t.nap.Load(); now-last > int64(betweenNaps) && t.nap.CompareAndSwap(last, now) {
		time.Sleep(shortWait / 10)
	}
	for waited := time.Duration(0); t.pages.Load() > 0 && waited < longestWait; waited += shortWait {
		time.Sleep(shortWait)
	}
}

// Leave takes a request that lasts out of the count, until the function that
// it gives is called.
func (t *Turns) Leave() (back func()) {
	t.pages.Add(-1)
	return func() { t.pages.Add(1) }
}
