package people

import (
	"context"
	"errors"
	"runtime"
	"slices"
	"sync"
	"time"
)

// ErrBusy means that passwords are being worked out for so many that one's own turn does not
// come soon.
var ErrBusy = errors.New("too many sign in at once")

// Queue lets few passwords be worked out at once, for each takes a core and memory. Those
// wait in a line of bounded length: who is known goes before who is not, and of those who are
// not few from one address wait at a time, so that a crowd there is in nobody else's way.
type Queue struct {
	mu      sync.Mutex
	busy    int       // of those who have a turn or rest after it
	waiting []*waiter // who is known first, then as they came
}

type waiter struct {
	address string
	known   bool
	turn    chan struct{}
}

// turnsAtOnce is how many are worked out at once: half of the cores are left to the pages.
var turnsAtOnce = max(1, runtime.NumCPU()/2)

// How many wait, who are known and who are not, and of these from one address; and how long.
const (
	mostKnown     = 64
	mostUnknown   = 32
	mostFromOne   = 16
	longestInLine = 2 * time.Second
	// longestRest keeps a machine that is slow by itself from being slower still.
	longestRest = 100 * time.Millisecond
)

// Turn waits for a turn, which ends by calling done: of who is not known it rests then for as
// long as it took, so that all of these together take half of what there is. ErrBusy where none comes in two seconds
// or too many wait; the context's error where that ends first.
func (q *Queue) Turn(ctx context.Context, address string, known bool) (done func(), err error) {
	q.mu.Lock()
	if q.busy < turnsAtOnce {
		q.busy++
		q.mu.Unlock()
		return q.from(known), nil
	}
	like, here := 0, 0
	for _, w := range q.waiting {
		if w.known == known {
			like++
			if w.address == address {
				here++
			}
		}
	}
	if known && like >= mostKnown || !known && (like >= mostUnknown || here >= mostFromOne) {
		q.mu.Unlock()
		return nil, ErrBusy
	}
	me := &waiter{address, known, make(chan struct{})}
	at := len(q.waiting)
	if known {
		if first := slices.IndexFunc(q.waiting, func(w *waiter) bool { return !w.known }); first >= 0 {
			at = first
		}
	}
	q.waiting = slices.Insert(q.waiting, at, me)
	q.mu.Unlock()
	late := time.NewTimer(longestInLine)
	defer late.Stop()
	select {
	case <-me.turn:
		return q.from(known), nil
	case <-late.C:
		err = ErrBusy
	case <-ctx.Done():
		err = ctx.Err()
	}
	q.mu.Lock()
	defer q.mu.Unlock()
	if at := slices.Index(q.waiting, me); at >= 0 {
		q.waiting = slices.Delete(q.waiting, at, at+1)
		return nil, err
	}
	return q.from(known), nil // it came just now
}

// from is what ends a turn that begins.
func (q *Queue) from(known bool) (done func()) {
	if known {
		return q.done
	}
	began := time.Now()
	return func() { time.AfterFunc(min(time.Since(began), longestRest), q.done) }
}

// done gives the turn on.
func (q *Queue) done() {
	q.mu.Lock()
	defer q.mu.Unlock()
	if len(q.waiting) == 0 {
		q.busy--
		return
	}
	close(q.waiting[0].turn)
	q.waiting = slices.Delete(q.waiting, 0, 1)
}
