package page

import (
	"context"
	"math"
	"slices"
	"sync"
	"sync/atomic"
	"time"

	"brevium/core/layout"
	"brevium/core/people"
	"brevium/web/behind"
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
	light   atomic.Int64 // pages that are being answered, but for those of the heavy
	flying  atomic.Int64 // all that are being answered
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
// is heavy, which is who keeps a core busy a twelfth of the time (all of it comes to 7.2 s); and so
// many people are remembered.
const (
	halfForgotten = 5 * time.Second
	heavyFrom     = 0.6
	mostTook      = 1000
)

// How the heavy let the pages of others go first: for so long at most before their own begins
// and over and over while it is worked out, looking so often.
const (
	longestPolite = 250 * time.Millisecond
	politeAWhile  = 25 * time.Millisecond
	politeNap     = 2 * time.Millisecond
)

// visit is one request of somebody, from when it came: how long it waited for turns, and whether
// it has the only turn of its person, in which it may take others.
type visit struct {
	waited atomic.Int64 // nanoseconds
	turn   bool
}

type visitKey struct{}

// Page counts a request as what somebody takes, until leave is called; what works for them goes
// by the context that it gives. In a workshop, who took much of late lets the pages of others go
// first, has one page at a time, and leaves a core to the others.
func (s *Shares) Page(ctx context.Context) (_ context.Context, leave func(), err error) {
	who := people.Of(ctx).ID
	if !s.Shop || who <= 0 {
		return ctx, func() {}, nil
	}
	began, v := time.Now(), &visit{}
	in := context.WithValue(ctx, visitKey{}, v)
	before := s.flying.Add(1)
	if !s.isHeavy(who) {
		s.light.Add(1)
		return in, func() {
			s.light.Add(-1)
			// Where more are answered than there are cores, each has a part of one.
			beside := float64(before+s.flying.Add(-1)+1) / 2
			took := time.Since(began) - time.Duration(v.waited.Load())
			s.spent(who, time.Duration(float64(took)*min(1, float64(behind.Cores())/beside)))
		}, nil
	}
	s.polite(ctx, longestPolite)
	end, err := s.Take(ctx)
	if err != nil {
		s.flying.Add(-1)
		return ctx, func() {}, err
	}
	v.turn = true
	return layout.Polite(in, func() { s.polite(ctx, politeAWhile) }), func() { s.flying.Add(-1); end() }, nil
}

// polite sleeps while pages of others are being answered, for so long at most.
func (s *Shares) polite(ctx context.Context, most time.Duration) {
	for began := time.Now(); s.light.Load() > 0 && time.Since(began) < most && ctx.Err() == nil; {
		time.Sleep(politeNap)
	}
}

func (s *Shares) isHeavy(who int64) bool {
	s.mu.Lock()
	defer s.mu.Unlock()
	t := s.of[who]
	return t != nil && t.now(time.Now()) > heavyFrom
}

func (s *Shares) spent(who int64, lasted time.Duration) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.ready()
	t := s.took(who)
	t.now(time.Now())
	t.seconds += lasted.Seconds()
	s.forget()
}

// ready makes the maps at first; the lock is held.
func (s *Shares) ready() {
	if s.busy == nil {
		s.busy, s.of = map[int64]*took{}, map[int64]*took{}
	}
}

func (t *took) now(at time.Time) float64 {
	t.seconds *= math.Exp2(-float64(at.Sub(t.at)) / float64(halfForgotten))
	t.at = at
	return t.seconds
}

// Take waits for one's share, until end is called; an error where the asker is gone before.
func (s *Shares) Take(ctx context.Context) (end func(), err error) {
	v, _ := ctx.Value(visitKey{}).(*visit)
	if v != nil && v.turn {
		return func() {}, nil
	}
	asked := time.Now()
	me := &share{people.Of(ctx).ID, make(chan struct{})}
	s.mu.Lock()
	if me.who == 0 && !s.Shop {
		s.alone--
		me.who = s.alone
	}
	s.ready()
	s.waiting = append(s.waiting, me)
	s.next()
	s.mu.Unlock()
	select {
	case <-me.turn:
		began := time.Now()
		if v != nil { // the page counts all that it takes
			v.waited.Add(int64(began.Sub(asked)))
			return func() { s.end(me, 0) }, nil
		}
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
	s.forget()
	s.next()
}

// forget lets go of those who took nothing of late, where they are many.
func (s *Shares) forget() {
	if len(s.of) > mostTook {
		for who, t := range s.of {
			if s.busy[who] == nil && t.now(time.Now()) < 0.01 || len(s.of) > 2*mostTook {
				delete(s.of, who)
			}
		}
	}
}

// next gives turns to those who wait and may have one, who took least first.
func (s *Shares) next() {
	cores := behind.Cores()
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

// Behind reports whether a page is one of the heavy, whose work goes behind that of others.
func Behind(ctx context.Context) bool {
	v, _ := ctx.Value(visitKey{}).(*visit)
	return v != nil && v.turn
}
