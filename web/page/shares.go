package page

import (
	"context"
	"runtime"
	"slices"
	"sync"

	"brevium/core/people"
)

// Shares parts the machine among those who ask: what is worked out for one person goes one
// after the other, and of all people so many at a time as there are cores, each in turn.
type Shares struct {
	// Shop tells that all is somebody's: those who did not sign in have one share together.
	Shop    bool
	mu      sync.Mutex
	alone   int64          // counts those who are nobody in particular, downwards
	busy    map[int64]bool // by person
	waiting []*share       // as they came
}

type share struct {
	who  int64
	turn chan struct{}
}

// Take waits for one's share, until end is called; an error where the asker is gone before.
func (s *Shares) Take(ctx context.Context) (end func(), err error) {
	me := &share{people.Of(ctx).ID, make(chan struct{})}
	s.mu.Lock()
	if me.who == 0 && !s.Shop {
		s.alone--
		me.who = s.alone
	}
	if s.busy == nil {
		s.busy = map[int64]bool{}
	}
	s.waiting = append(s.waiting, me)
	s.next()
	s.mu.Unlock()
	select {
	case <-me.turn:
		return func() { s.end(me) }, nil
	case <-ctx.Done():
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if at := slices.Index(s.waiting, me); at >= 0 {
		s.waiting = slices.Delete(s.waiting, at, at+1)
	} else { // it came just now
		delete(s.busy, me.who)
		s.next()
	}
	return nil, ctx.Err()
}

func (s *Shares) end(x *share) {
	s.mu.Lock()
	defer s.mu.Unlock()
	delete(s.busy, x.who)
	s.next()
}

// next gives turns to those who wait and have none, first come first served.
func (s *Shares) next() {
	for i := 0; i < len(s.waiting) && len(s.busy) < runtime.GOMAXPROCS(0); {
		x := s.waiting[i]
		if s.busy[x.who] {
			i++
			continue
		}
		s.busy[x.who] = true
		s.waiting = slices.Delete(s.waiting, i, i+1)
		close(x.turn)
	}
}
