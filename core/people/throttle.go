package people

import (
	"strings"
	"sync"
	"time"
)

// Throttle makes guessing slow: after some wrong tries one has to wait, twice as long
// after each. It counts by address, and by address and name together, so that nobody
// else is kept out by it.
type Throttle struct {
	mu    sync.Mutex
	now   func() time.Time
	tries map[string]tally
	swept time.Time
}

type tally struct {
	wrong int
	last  time.Time
}

// How many wrong tries are free, for one name and for all names from one address; the
// longest wait; when tries are forgotten; and how many are remembered.
const (
	freeTries    = 5
	freeNames    = 20
	longestWait  = 15 * time.Minute
	forgottenFor = time.Hour
	mostTallies  = 20_000
)

// NewThrottle begins to count, by a clock.
func NewThrottle(now func() time.Time) *Throttle {
	return &Throttle{now: now, tries: map[string]tally{}}
}

func keys(name, address string) [2]string {
	return [2]string{address, address + "\x00" + strings.ToLower(name)}
}

// Wait is how long one still has to wait before the next try.
func (t *Throttle) Wait(name, address string) time.Duration {
	t.mu.Lock()
	defer t.mu.Unlock()
	wait := time.Duration(0)
	for i, key := range keys(name, address) {
		x, known := t.tries[key]
		over := x.wrong - []int{freeNames, freeTries}[i]
		if !known || over < 0 {
			continue
		}
		long := longestWait
		if over < 20 {
			long = min(long, time.Second<<over)
		}
		wait = max(wait, x.last.Add(long).Sub(t.now()))
	}
	return wait
}

// Wrong counts a try that was wrong.
func (t *Throttle) Wrong(name, address string) {
	t.mu.Lock()
	defer t.mu.Unlock()
	now := t.now()
	if len(t.tries) >= mostTallies && now.Sub(t.swept) > time.Minute {
		t.swept = now
		for k, x := range t.tries {
			if now.Sub(x.last) > forgottenFor {
				delete(t.tries, k)
			}
		}
	}
	for k := range t.tries { // none was old enough: any has to go
		if len(t.tries) < mostTallies-1 {
			break
		}
		delete(t.tries, k)
	}
	for _, key := range keys(name, address) {
		x := t.tries[key]
		if now.Sub(x.last) > forgottenFor {
			x = tally{}
		}
		t.tries[key] = tally{x.wrong + 1, now}
	}
}

// Right forgets the wrong tries of a name from an address; those from it under other
// names stay.
func (t *Throttle) Right(name, address string) {
	t.mu.Lock()
	defer t.mu.Unlock()
	delete(t.tries, keys(name, address)[1])
}
