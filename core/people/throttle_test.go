package people

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"
	"time"
)

// clock is a time that a test sets.
type clock struct{ now time.Time }

func counting() (*Throttle, *clock) {
	c := &clock{time.Unix(1_000_000, 0)}
	return NewThrottle(func() time.Time { return c.now }), c
}

// By hand: on a device that is known five tries are free, the sixth waits a second, the next
// two, four, …, up to a quarter of an hour; nobody else waits for it.
func TestGuessingIsSlow(t *testing.T) {
	x, c := counting()
	mine := Try{"Wren", "10.0.0.1", "d1"}
	for n := range 20 {
		want := time.Duration(0)
		if n >= 5 {
			want = min(time.Second<<(n-5), 15*time.Minute)
		}
		if got := x.Wait(mine); got != want {
			t.Errorf("before try %d one waits %v, not %v", n+1, got, want)
		}
		c.now = c.now.Add(want)
		if _, wait := x.Begin(Try{"wren", "10.0.0.9", "d1"}); wait != 0 {
			t.Errorf("try %d cannot be made", n+1)
		}
	}
	for _, other := range []Try{{"Wren", "10.0.0.1", "d2"}, {"Wren", "10.0.0.1", ""}, {"Ash", "10.0.0.1", "d1"}} {
		if held, wait := x.Begin(other); held+wait > 0 {
			t.Errorf("%v waits for others", other)
		}
	}
	c.now = c.now.Add(15 * time.Minute)
	x.Begin(mine)
	x.Right(mine, true)
	if x.Wait(mine) != 0 {
		t.Error("one who is let in still waits")
	}
}

// However many addresses take part, no account is tried more than a hundred times an hour;
// who has signed in on their device before does not notice.
func TestNoAccountIsTriedOften(t *testing.T) {
	x, c := counting()
	made, end := 0, c.now.Add(time.Hour)
	for n := 0; c.now.Before(end); n++ {
		if _, wait := x.Begin(Try{"Wren", fmt.Sprint("10.0.0.", n%250), ""}); wait == 0 {
			made++
		}
		c.now = c.now.Add(500 * time.Millisecond)
	}
	if made > 100 || made < 50 {
		t.Errorf("Wren's password was tried %d times in an hour", made)
	}
	if held, wait := x.Begin(Try{"Wren", "10.0.0.1", "d1"}); held+wait > 0 {
		t.Errorf("Wren waits %v on her own phone", held+wait)
	}
}

// A crowd of wrong tries from one address lets the next pass within two seconds, and is held
// to a few a second.
func TestAnAddressIsSlowedNeverBarred(t *testing.T) {
	x, c := counting()
	made := 0
	for n := range 500 {
		if _, wait := x.Begin(Try{fmt.Sprint("name ", n), "10.0.0.3", ""}); wait == 0 {
			made++
		}
	}
	if made != freeAtOnce+int(longestHold/paceStep)+1 {
		t.Errorf("%d of 500 at once are made", made)
	}
	if _, wait := x.Begin(Try{"Ash", "10.0.0.3", "d9"}); wait != 0 {
		t.Error("who is known there waits")
	}
	c.now = c.now.Add(time.Second)
	if held, wait := x.Begin(Try{"Ash", "10.0.0.3", ""}); wait != 0 || held > longestHold {
		t.Errorf("a second later Ash is held up %v and waits %v", held, wait)
	}
	c.now = c.now.Add(61 * time.Minute)
	if held, wait := x.Begin(Try{"Ash", "10.0.0.3", ""}); held+wait != 0 {
		t.Error("an hour later it is not forgotten")
	}
}

// A clock that is set back keeps nobody waiting until it has caught up.
func TestAClockThatIsSetBack(t *testing.T) {
	x, c := counting()
	y := Try{"Wren", "10.0.0.1", ""}
	for range 100 {
		x.Begin(y)
		x.Begin(Try{"Ash", "10.0.0.1", "d1"})
		x.Begin(Try{"anybody", "10.0.0.1", ""})
	}
	c.now = c.now.Add(-48 * time.Hour)
	for _, y := range []Try{y, {"Ash", "10.0.0.1", "d1"}, {"Rowan", "10.0.0.1", ""}} {
		if held, wait := x.Begin(y); held+wait > 0 {
			t.Errorf("%v waits %v", y, held+wait)
		}
	}
}

// A try that was not made is not counted, and what is remembered has a bound.
func TestTriesThatAreTakenBack(t *testing.T) {
	x, _ := counting()
	y := Try{"Wren", "10.0.0.1", ""}
	for range 100 {
		if held, wait := x.Begin(y); held+wait != 0 {
			t.Fatal("a try that was not made is counted")
		}
		x.Right(y, false)
	}
	for n := range 3 * mostTallies {
		x.Begin(Try{fmt.Sprint(n), fmt.Sprint("10.", n), ""})
	}
	if len(x.tries)+len(x.paces) > 2*mostTallies {
		t.Errorf("%d are remembered", len(x.tries)+len(x.paces))
	}
}

// As many as there are turns go at once; those who are known go before those who are not; of
// one address few wait; who waits too long is told.
func TestTheQueue(t *testing.T) {
	q := &Queue{}
	var hold []func()
	for range turnsAtOnce {
		done, err := q.Turn(t.Context(), "10.0.0.1", false)
		if err != nil {
			t.Fatal(err)
		}
		hold = append(hold, done)
	}
	var mu sync.Mutex
	var order []string
	var all sync.WaitGroup
	enter := func(address string, known bool) {
		all.Go(func() {
			done, err := q.Turn(t.Context(), address, known)
			mu.Lock()
			defer mu.Unlock()
			if err != nil {
				order = append(order, "refused")
				return
			}
			order = append(order, fmt.Sprint(address, known))
			done()
		})
	}
	waits := func() int { q.mu.Lock(); defer q.mu.Unlock(); return len(q.waiting) }
	for n := range 30 { // fourteen too many
		enter("10.0.0.1", false)
		for n < mostFromOne && waits() != n+1 {
			time.Sleep(time.Millisecond)
		}
	}
	enter("10.0.0.2", true)
	for waits() != mostFromOne+1 {
		time.Sleep(time.Millisecond)
	}
	gone, end := context.WithCancel(t.Context())
	end()
	if _, err := q.Turn(gone, "10.0.0.3", false); !errors.Is(err, context.Canceled) {
		t.Errorf("whose asker is gone: %v", err)
	}
	late := make(chan error)
	go func() {
		done, err := q.Turn(t.Context(), "10.0.0.4", false)
		if err == nil {
			done()
		}
		late <- err
	}()
	for waits() != mostFromOne+2 {
		time.Sleep(time.Millisecond)
	}
	mu.Lock()
	refused := len(order)
	mu.Unlock()
	if refused != 30-mostFromOne {
		t.Errorf("%d of 30 are refused at once; want %d", refused, 30-mostFromOne)
	}
	hold[0]()
	all.Wait()
	if err := <-late; err != nil && !errors.Is(err, ErrBusy) {
		t.Errorf("the last: %v", err)
	}
	for _, done := range hold[1:] {
		done()
	}
	if first := order[30-mostFromOne]; first != "10.0.0.2true" {
		t.Errorf("the first let on is %s", first)
	}
	atRest := func() bool { q.mu.Lock(); defer q.mu.Unlock(); return q.busy == 0 && len(q.waiting) == 0 }
	for began := time.Now(); !atRest(); time.Sleep(time.Millisecond) {
		if time.Since(began) > time.Minute {
			t.Fatal("a turn is never given back")
		}
	}
}

// After a stranger's turn the next waits for as long as that took; after a known one's it does not.
func TestTheQueueRestsAfterStrangers(t *testing.T) {
	const work = 40 * time.Millisecond
	for _, known := range []bool{false, true} {
		q := &Queue{}
		var turns []func()
		for range turnsAtOnce {
			done, err := q.Turn(t.Context(), "10.0.0.1", known)
			if err != nil {
				t.Fatal(err)
			}
			turns = append(turns, done)
		}
		time.Sleep(work)
		for _, done := range turns {
			done()
		}
		q.mu.Lock()
		resting := q.busy
		q.mu.Unlock()
		if known && resting != 0 || !known && resting != turnsAtOnce {
			t.Errorf("known %v: %d of %d turns rest", known, resting, turnsAtOnce)
		}
		began := time.Now()
		done, err := q.Turn(t.Context(), "10.0.0.2", true)
		if err != nil {
			t.Fatal(err)
		}
		if waited := time.Since(began); !known && waited < work/2 {
			t.Errorf("after a stranger's %v the next waits %v", work, waited)
		}
		done()
	}
}
