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
	busy    int
	waiting []*waiter // who is known first, then as they came
}

type waiter struct {
	address string
	known   bool
	turn    chan struct{}
}

// turnsAtOnce is how many are worked out at once: half of the cores are left to the pages.
var turnsAtOnce = max(1, runtime.NumCPU()/2)

// How many wait, who are known and who are not, and of
// these from one address; and how long.
const (
	mostKnown     = 64
	mostUnknown   = 32
	mostFromOne   = 16
	longestInLine = 2 * time.Second
)

// Turn waits for a turn, which ends by calling done. ErrBusy where none comes in two seconds
// or too many wait; the context's error where that ends first.
func (t *Queue) Turn(ctx context.Context, address string, known bool) (done func(), err error) {
	t.mu.Lock()
	if t.busy < turnsAtOnce {
		t.busy++
		t.mu.Unlock()
		return t.done, nil
	}
	like, here := 0, 0
	for _, w := range t.waiting {
		if w.known == known {
			like++
			if w.address == address {
				here++
			}
		}
	}
	if known && like >= mostKnown || !known && (like >= mostUnknown || here >= mostFromOne) {
		t.mu.Unlock()
		return nil, ErrBusy
	}
	me := &waiter{address, known, make(chan struct{})}
	at := len(t.waiting)
	if known {
		if first := slices.IndexFunc(t.waiting, func(w *waiter) bool { return !w.known }); first >= 0 {
			at = first
		}
	}
	t.waiting = slices.Insert(t.waiting, at, me)
	t.mu.Unlock()
	late := time.NewTimer(longestInLine)
	defer late.Stop()
	select {
	case <-me.turn:
		return t.done, nil
	case <-late.C:
		err = ErrBusy
	case <-ctx.Done():
		err = ctx.Err()
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	if at := slices.Index(t.waiting, me); at >= 0 {
		t.waiting = slices.Delete(t.waiting, at, at+1)
		return nil, err
	}
	return t.done, nil // it came just now
}

// done gives the turn on.
func (t *Queue) done() {
	t.mu.Lock()
	defer t.mu.Unlock()
	if len(t.waiting) == 0 {
		t.busy--
		return
	}
	close(t.waiting[0].turn)
	t.waiting = slices.Delete(t.waiting, 0, 1)
}
