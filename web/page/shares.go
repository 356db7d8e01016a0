package page

import (
	"context"
	"math"
	"runtime"
	"slices"
	"sync"
	"time"

	"brevium/core/people"
)

// Shares parts the machine among those who ask: what is worked out for one person goes one
// after the other, and of all people so many at a time as there are cores. Who took least of
// late goes first, and those who took much leave a core to the others.
type Shares struct {
	// Shop tells that all is somebody's: those who did not sign in have one share together.
	Shop    bool
	mu      sync.Mutex
	alone   int64           // counts those who are nobody in particular, downwards
	busy    map[int64]*took // by person
	waiting []*share        // as they came
	of      map[int64]*took
}

// took is the time that was worked for one person, what is long ago counting less.
type took struct {
	seconds float64
	at      time.Time
}

type share struct {
	who  int64
	turn chan struct{}
}

// Half of what was taken is forgotten after a while; who took more than so many seconds of late
// is heavy, which is who keeps a core busy half of the time (all of it comes to 7.2 s); and so
// many people are remembered.
const (
	halfForgotten = 5 * time.Second
	heavyFrom     = 3.6
	mostTook      = 1000
)

func (t *took) now(at time.Time) float64 {
	t.seconds *= math.Exp2(-float64(at.Sub(t.at)) / float64(halfForgotten))
	t.at = at
	return t.seconds
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
		s.busy, s.of = map[int64]*took{}, map[int64]*took{}
	}
	s.waiting = append(s.waiting, me)
	s.next()
	s.mu.Unlock()
	select {
	case <-me.turn:
		began := time.Now()
		return func() { s.end(me, time.Since(began)) }, nil
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

func (s *Shares) end(x *share, lasted time.Duration) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.busy[x.who].seconds += lasted.Seconds()
	delete(s.busy, x.who)
	if len(s.of) > mostTook {
		for who, t := range s.of {
			if s.busy[who] == nil && t.now(time.Now()) < 0.01 || len(s.of) > 2*mostTook {
				delete(s.of, who)
			}
		}
	}
	s.next()
}

// next gives turns to those who wait and may have one, who took least first.
func (s *Shares) next() {
	cores := runtime.GOMAXPROCS(0)
	for len(s.busy) < cores {
		now, heavy := time.Now(), 0
		for _, t := range s.busy {
			if t.now(now) > heavyFrom {
				heavy++
			}
		}
		best, least := -1, 0.0
		for i, x := range s.waiting {
			if s.busy[x.who] != nil {
				continue
			}
			used := s.took(x.who).now(now)
			if used > heavyFrom && heavy >= max(1, cores-1) {
				continue
			}
			if best < 0 || used < least {
				best, least = i, used
			}
		}
		if best < 0 {
			return
		}
		x := s.waiting[best]
		s.busy[x.who] = s.took(x.who)
		s.waiting = slices.Delete(s.waiting, best, best+1)
		close(x.turn)
	}
}

func (s *Shares) took(who int64) *took {
	t := s.of[who]
	if t == nil {
		t = &took{at: time.Now()}
		s.of[who] = t
	}
	return t
}
