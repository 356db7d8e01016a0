package page

import (
	"context"
	"errors"
	"slices"
	"sync"
	"testing"
	"time"

	"brevium/core/layout"
	"brevium/core/people"
)

// One who asks for a hundred things at once has one of them worked out at a time; another who
// comes later waits for one turn, not for a hundred; nobody who has gone keeps a turn.
func TestEachHasTheirShare(t *testing.T) {
	s := &Shares{Shop: true}
	as := func(id int64) context.Context { return people.With(t.Context(), people.Person{ID: id}) }
	var mu sync.Mutex
	now, most := map[int64]int{}, map[int64]int{}
	var order []int64
	hold := make(chan struct{})
	var all sync.WaitGroup
	work := func(id int64) {
		end, err := s.Take(as(id))
		if err != nil {
			t.Error(err)
			return
		}
		mu.Lock()
		order = append(order, id)
		now[id]++
		most[id] = max(most[id], now[id])
		mu.Unlock()
		<-hold
		mu.Lock()
		now[id]--
		mu.Unlock()
		end()
	}
	waits := func(n int) {
		t.Helper()
		for at := time.Now(); ; time.Sleep(time.Millisecond) {
			s.mu.Lock()
			is := len(s.waiting)
			s.mu.Unlock()
			if is == n {
				return
			}
			if time.Since(at) > time.Minute {
				t.Fatalf("%d wait; want %d", is, n)
			}
		}
	}
	for range 100 {
		all.Go(func() { work(1) })
	}
	waits(99)
	gone, leave := context.WithCancel(as(3))
	left := make(chan error)
	go func() {
		_, err := s.Take(people.With(gone, people.Person{ID: 1}))
		left <- err
	}()
	waits(100)
	leave()
	if err := <-left; !errors.Is(err, context.Canceled) {
		t.Errorf("one who has gone: %v", err)
	}
	all.Go(func() { work(2) })
	for here := false; !here; time.Sleep(time.Millisecond) { // let on at once, or in the queue
		s.mu.Lock()
		here = s.busy[2] != nil || slices.ContainsFunc(s.waiting, func(w *share) bool { return w.who == 2 })
		s.mu.Unlock()
	}
	hold <- struct{}{}
	hold <- struct{}{}
	hold <- struct{}{}
	close(hold)
	all.Wait()
	if most[1] != 1 || most[2] != 1 {
		t.Errorf("at a time there were %v", most)
	}
	for at, id := range order {
		if id == 2 && at > 4 {
			t.Errorf("the second person was let on after %d of the first's", at)
		}
	}
	if len(s.busy) > 0 || len(s.waiting) > 0 {
		t.Errorf("turns are kept: %v, %d wait", s.busy, len(s.waiting))
	}
}

// Who took much of late waits before a page while pages of others are answered, has the one
// turn of theirs in it, and counts no waiting; who took little does not wait.
func TestTheHeavyLetOthersGoFirst(t *testing.T) {
	s := &Shares{Shop: true}
	as := func(id int64) context.Context { return people.With(t.Context(), people.Person{ID: id}) }
	s.spent(1, time.Minute)
	if !s.isHeavy(1) || s.isHeavy(2) {
		t.Fatal("a minute is much, and nothing is little")
	}
	_, leave, err := s.Page(as(2))
	if err != nil {
		t.Fatal(err)
	}
	began := time.Now()
	in, done, err := s.Page(as(1))
	if err != nil {
		t.Fatal(err)
	}
	if waited := time.Since(began); waited < longestPolite {
		t.Errorf("the heavy waited %v beside a page; want %v", waited, longestPolite)
	}
	end, err := s.Take(in) // its own work waits for nobody: the turn is the page's
	if err != nil {
		t.Fatal(err)
	}
	end()
	began = time.Now()
	layout.Yield(in)
	if waited := time.Since(began); waited < politeAWhile {
		t.Errorf("its work let others go first for %v; want %v", waited, politeAWhile)
	}
	leave()
	gone, stop := context.WithCancel(as(1))
	stop()
	if _, _, err := s.Page(gone); !errors.Is(err, context.Canceled) {
		t.Errorf("a second page at once, of one who has gone: %v", err)
	}
	done()
	if len(s.busy) > 0 || len(s.waiting) > 0 || s.light.Load() != 0 {
		t.Errorf("turns are kept: %v, %d wait, %d pages", s.busy, len(s.waiting), s.light.Load())
	}
}
