package page

import (
	"net/http"
	"sync/atomic"
	"time"
)

// Turns lets pages go before work that can wait, such as a search.
type Turns struct {
	pages atomic.Int64
	last  atomic.Int64 // when a page was asked for, in nanoseconds
	nap   atomic.Int64 // when one that can wait last slept, in nanoseconds
}

// How what can wait waits: while a page is being answered, for a while at a
// time; and it takes about half of its time off as long as pages keep coming.
const (
	shortWait   = 500 * time.Microsecond
	longestWait = 25 * time.Millisecond
	halfTime    = time.Millisecond
	lately      = 300 * time.Millisecond
	betweenNaps = time.Millisecond
	aNap        = 50 * time.Microsecond
)

// Page answers a request that others wait for.
func (t *Turns) Page(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		t.pages.Add(1)
		defer t.pages.Add(-1)
		t.last.Store(time.Now().UnixNano())
		next.ServeHTTP(w, r)
	})
}

// Wait is called over and over by work that can wait. It is for requests that
// are not counted as pages: they call Leave first.
func (t *Turns) Wait() {
	now := time.Now().UnixNano()
	if now-t.last.Load() < int64(lately) {
		time.Sleep(halfTime)
	} else if last := t.nap.Load(); now-last > int64(betweenNaps) && t.nap.CompareAndSwap(last, now) {
		// With every core at work nobody looks whether a request has come, so
		// one sleeps for a moment now and then.
		time.Sleep(aNap)
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
