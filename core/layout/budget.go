package layout

import (
	"context"
	"sync/atomic"
	"time"

	"golang.org/x/sync/errgroup"
)

// Spending is what one who asks may spend on layouts, in all that they ask for at once: time,
// places that are looked at, and workers at a time. What is kept in memory follows from it: a
// filling keeps two parts of a sheet for each place, a search mostTargets changes.
type Spending struct {
	Time    time.Duration // in solves; 0 for no end
	Looks   int64         // 0 for no end
	Workers int
}

// What a page may spend, and a command. A search is bounded by the seconds it is given, and by
// whoever stops it.
var (
	ForPage    = Spending{Time: 2 * time.Second, Looks: 300_000_000, Workers: 1}
	ForCommand = Spending{Time: 2 * time.Minute, Workers: workers}
	ForSearch  = Spending{Workers: workers}
)

// Budget is what is left of a spending. It may be shared by many solves at once.
type Budget struct {
	given   Spending
	took    atomic.Int64 // nanoseconds, in solves that have ended
	looked  atomic.Int64
	workers int
	short   atomic.Bool
}

type budgetKey struct{}

// In gives a context whose solves spend together no more than this.
func (x Spending) In(ctx context.Context) context.Context {
	b := &Budget{given: x, workers: max(1, x.Workers)}
	return context.WithValue(ctx, budgetKey{}, b)
}

// budgetOf is the budget of a context; one as for a command where nobody gave one.
func budgetOf(ctx context.Context) *Budget {
	if b, is := ctx.Value(budgetKey{}).(*Budget); is {
		return b
	}
	return budgetOf(ForCommand.In(ctx))
}

// Workers is how many may work at once for whoever asks by a context.
func Workers(ctx context.Context) int { return budgetOf(ctx).workers }

// Short reports whether the budget of a context was used up, so that what it gave is the best
// that was met and no more.
func Short(ctx context.Context) bool { return budgetOf(ctx).short.Load() }

type politeKey struct{}

// Polite gives a context whose work lets others go first: yield is called over and over by all
// that works for it, and may sleep.
func Polite(ctx context.Context, yield func()) context.Context {
	return context.WithValue(ctx, politeKey{}, yield)
}

// AtOnce is how many things a page may work on at once that others do not wait behind.
const AtOnce = workers

// Each does n things for whoever asks by a context, so many of them at once. One after the other,
// and where others are to go first, they are done by the goroutine that asks, on its thread: that
// may be one that the system puts behind others, which nothing that is begun beside it would be.
func Each(ctx context.Context, n, atOnce int, do func(i int)) {
	if _, polite := ctx.Value(politeKey{}).(func()); polite || atOnce <= 1 {
		for i := range n {
			Yield(ctx)
			do(i)
		}
		return
	}
	var all errgroup.Group
	all.SetLimit(atOnce)
	for i := range n {
		all.Go(func() error { do(i); return nil })
	}
	_ = all.Wait() // none gives an error
}

// Yield lets others go first where whoever asks by a context is to.
func Yield(ctx context.Context) {
	if yield, is := ctx.Value(politeKey{}).(func()); is {
		yield()
	}
}

// meter is a budget as one goroutine spends it, for an asker who may go.
type meter struct {
	*Budget
	ctx   context.Context
	until time.Time // zero for no end
	since int64     // looks that were not told to the budget yet
	over  bool
}

// meterOf begins to spend.
func meterOf(ctx context.Context) *meter {
	m := &meter{Budget: budgetOf(ctx), ctx: ctx}
	if m.given.Time > 0 {
		m.until = time.Now().Add(m.given.Time - time.Duration(m.took.Load()))
	}
	return m
}

// apart is a meter of the same spending for another goroutine.
func (m *meter) apart() *meter { return &meter{Budget: m.Budget, ctx: m.ctx, until: m.until} }

// end tells the budget how long a solve took.
func (m *meter) end(began time.Time) { m.took.Add(int64(time.Since(began))) }

// looksBetween is how often the clock is looked at.
const looksBetween = 4096

// more spends looks, and reports whether more may be spent.
func (m *meter) more(looks int) bool {
	m.since += int64(looks)
	if m.since < looksBetween {
		return !m.over && !m.short.Load()
	}
	looked := m.looked.Add(m.since)
	m.since = 0
	if m.given.Looks > 0 && looked > m.given.Looks || !m.until.IsZero() && time.Now().After(m.until) {
		m.short.Store(true)
	}
	Yield(m.ctx)
	m.over = m.over || m.ctx.Err() != nil
	return !m.over && !m.short.Load()
}
