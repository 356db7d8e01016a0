package people

import (
	"strings"
	"sync"
	"time"
)

// Throttle makes guessing slow, and keeps nobody out for what others do. A try is counted
// before the password is looked at, and taken back where it was right, so that a hundred at
// once are a hundred. It counts
//
//   - by account and device, where one was signed in on that device before: who mistypes
//     waits for themselves alone;
//   - from any other device by account and address, and by account from everywhere, up to a
//     minute between two;
//   - and by address for all accounts, which only lets them pass one by one.
type Throttle struct {
	mu    sync.Mutex
	now   func() time.Time
	tries map[string]tally
	paces map[string]pace
	swept time.Time
}

type tally struct {
	wrong int
	last  time.Time
}

// pace is of an address: its tries, and when the next may pass.
type pace struct {
	tally
	next time.Time
}

// Try is one try of a password: of an account, from an address, and on a device that the
// account was signed in on before ("" for any other).
type Try struct{ Account, Address, Device string }

// A rule is how many wrong tries are free, and the longest wait after that: it begins with
// a second and doubles.
type rule struct {
	free    int
	longest time.Duration
}

// The rules, so that no account is tried from outside more than a hundred times an hour.
var (
	byDevice  = rule{5, 15 * time.Minute}
	byPlace   = rule{5, time.Minute}
	byAccount = rule{15, time.Minute}
)

// What an address may do: so many wrong tries as they come, then one each step, of which
// those wait that are on within the longest hold. Tries are forgotten after a while, and so
// many are remembered.
const (
	freeAtOnce   = 20
	paceStep     = 250 * time.Millisecond
	longestHold  = 2 * time.Second
	forgottenFor = time.Hour
	mostTallies  = 20_000
)

// NewThrottle begins to count, by a clock.
func NewThrottle(now func() time.Time) *Throttle {
	return &Throttle{now: now, tries: map[string]tally{}, paces: map[string]pace{}}
}

// counted is where a try is counted.
func (y Try) counted() map[string]rule {
	account := strings.ToLower(y.Account)
	if y.Device != "" {
		return map[string]rule{"device\x00" + y.Device + "\x00" + account: byDevice}
	}
	return map[string]rule{"place\x00" + y.Address + "\x00" + account: byPlace, "account\x00" + account: byAccount}
}

// Begin counts a try as a wrong one until Right takes it back. One that has to wait longer is
// not counted and may not be made; held is how long one that may be made is to be held up
// first.
func (t *Throttle) Begin(y Try) (held, wait time.Duration) {
	t.mu.Lock()
	defer t.mu.Unlock()
	now := t.now()
	t.sweep(now)
	for key, r := range y.counted() {
		wait = max(wait, t.tries[key].wait(r, now))
	}
	if wait > 0 {
		return 0, wait
	}
	if y.Device == "" {
		p := t.paces[y.Address]
		if p.old(now) {
			p = pace{}
		}
		if p.wrong++; p.wrong > freeAtOnce {
			if held = max(0, p.next.Sub(now)); held > longestHold {
				return 0, held - longestHold
			}
			p.next = now.Add(held + paceStep)
		}
		p.last = now
		t.paces[y.Address] = p
	}
	for key := range y.counted() {
		x := t.tries[key]
		if x.old(now) {
			x = tally{}
		}
		t.tries[key] = tally{x.wrong + 1, now}
	}
	return held, 0
}

// old reports whether a tally is to be forgotten: after an hour, or when the clock was set back
// before it, lest everybody wait until it has caught up.
func (x tally) old(now time.Time) bool {
	return now.Sub(x.last) > forgottenFor || now.Before(x.last)
}

// wait is how long after its last try the next may be made.
func (x tally) wait(r rule, now time.Time) time.Duration {
	over := x.wrong - r.free
	if over < 0 || x.old(now) {
		return 0
	}
	long := r.longest
	if over < 20 {
		long = min(long, time.Second<<over)
	}
	return max(0, x.last.Add(long).Sub(now))
}

// Right takes a try back that was right, or was not made. A right one ends what its device or
// its place has to wait; what others tried elsewhere stays.
func (t *Throttle) Right(y Try, made bool) {
	t.mu.Lock()
	defer t.mu.Unlock()
	for key := range y.counted() {
		x := t.tries[key]
		if x.wrong--; x.wrong <= 0 || made && !strings.HasPrefix(key, "account\x00") {
			delete(t.tries, key)
		} else {
			t.tries[key] = x
		}
	}
	if p, known := t.paces[y.Address]; known && y.Device == "" {
		p.wrong--
		t.paces[y.Address] = p
	}
}

// Wait is how long a try would have to wait now.
func (t *Throttle) Wait(y Try) (wait time.Duration) {
	t.mu.Lock()
	defer t.mu.Unlock()
	for key, r := range y.counted() {
		wait = max(wait, t.tries[key].wait(r, t.now()))
	}
	return wait
}

// sweep forgets what is old once many are remembered; where nothing is, any has to go.
func (t *Throttle) sweep(now time.Time) {
	if len(t.tries)+len(t.paces) < mostTallies {
		return
	}
	if now.Sub(t.swept) > time.Minute {
		t.swept = now
		for k, x := range t.tries {
			if x.old(now) {
				delete(t.tries, k)
			}
		}
		for k, x := range t.paces {
			if x.old(now) {
				delete(t.paces, k)
			}
		}
	}
	for k := range t.tries {
		if len(t.tries) < mostTallies/2 {
			break
		}
		delete(t.tries, k)
	}
	for k := range t.paces {
		if len(t.paces) < mostTallies/2 {
			break
		}
		delete(t.paces, k)
	}
}
