package layout

import (
	"math"
	"sync"
	"time"
)

// crew is the workers of a search and what they have left to do.
type crew struct {
	job      *Job
	workers  [workers]*searcher
	meter    *meter
	start    time.Time
	deadline time.Time // zero when work is the bound
	end      time.Time // of tidying too
	rounds   int       // left, when work is the bound
	steps    int
	master   *master
	yield    func()

	mu     sync.Mutex
	bound  Bound
	proved bool // columns were asked for a bound, and had the time
}

func newCrew(m *meter, j *Job, e Effort, bound Bound, start time.Time) *crew {
	c := &crew{job: j, meter: m, start: start, rounds: e.Rounds, steps: e.Steps, bound: bound, yield: e.Yield}
	if c.yield == nil {
		c.yield = func() {}
	}
	if e.Seconds > 0 {
		c.deadline = c.start.Add(time.Duration((1 - tidyShare) * e.Seconds * float64(time.Second)))
		c.end = c.start.Add(time.Duration(e.Seconds * float64(time.Second)))
	}
	if c.steps == 0 {
		c.steps = stepsPerRound
	}
	for i := range c.workers {
		c.workers[i] = newSearcher(j, e.Seed*workers+int64(i)+1, m.apart())
	}
	return c
}

// timed tells whether time is what bounds the search.
func (c *crew) timed() bool { return !c.deadline.IsZero() }

// gone tells whether nobody asks any more, or the budget is used up.
func (c *crew) gone() bool { return c.meter.ctx.Err() != nil || c.meter.short.Load() }

// stop tells the workers to end: the time is up, or someone said so.
func (c *crew) stop() bool {
	c.yield()
	return c.gone() || c.timed() && time.Now().After(c.deadline)
}

// time is all there is for the search without tidying; 0 when work is the
// bound.
func (c *crew) time() time.Duration {
	if !c.timed() {
		return 0
	}
	return c.deadline.Sub(c.start)
}

// within tells when a part of the time that there is has passed from now on,
// or the search is to end.
func (c *crew) within(share float64) func() bool {
	until := time.Now().Add(time.Duration(share * float64(c.time())))
	return func() bool { return c.stop() || time.Now().After(until) }
}

// stopped tells the workers to end their tidying too.
func (c *crew) stopped() bool {
	return c.gone() || c.timed() && time.Now().After(c.end)
}

// spent tells whether nothing more may be begun.
func (c *crew) spent() bool { return c.stop() || !c.timed() && c.rounds <= 0 }

// known is the bound as far as it is proved by now.
func (c *crew) known() Bound {
	c.mu.Lock()
	defer c.mu.Unlock()
	return c.bound
}

// hopeless tells whether a plan has fewer or cheaper sheets than is proved to
// be needed.
func (c *crew) hopeless(target *plan) bool {
	b := c.known()
	if len(c.job.Sheets) == 1 {
		return len(target.sheets) < b.Sheets
	}
	return compareCost(target.cost(c.workers[0].price), b.Cost) < 0
}

// Rounds between two dives, after which the leader's plan is shared, and
// after which another sheet is dropped where there are several kinds.
const (
	diveEvery  = 40
	shareEvery = 8
	mostRounds = 20
)

// diveShare is the part of the time in which a dive seeks columns.
const diveShare = 0.2

// house seeks a place for all the pieces that the target leaves without one.
// It gives the best plan it met, in which some may have none when it was told
// to stop, or when another target may do better.
func (c *crew) house(target, whole *plan) *plan {
	if c.timed() {
		return c.byTime(target, whole)
	}
	return c.byRounds(target)
}

// byRounds lets the workers wait for one another after each round, so that
// the same work gives the same answer.
func (c *crew) byRounds(target *plan) *plan {
	var now, best [workers]*plan
	for i := range c.workers {
		now[i] = target.forget()
		best[i] = target
	}
	lead := 0
	for round := 0; !c.spent(); round++ {
		c.rounds--
		var all sync.WaitGroup
		for i, w := range c.workers {
			work := func() { best[i] = w.run(now[i], best[i], c.steps, c.stop) }
			if c.meter.workers == 1 { // one after the other gives the same
				work()
			} else {
				all.Go(work)
			}
		}
		all.Wait()
		for i := range best {
			if len(best[i].pool) == 0 {
				return best[i]
			}
		}
		if best[lead].out > best[1-lead].out {
			lead = 1 - lead
		}
		// Now and then the worker that is behind starts from the other's best.
		if round%shareEvery == shareEvery-1 {
			now[1-lead] = best[lead].forget()
		}
		if len(c.job.Sheets) > 1 && round > mostRounds {
			break
		}
	}
	return best[lead]
}

// board is where workers that do not wait put their best.
type board struct {
	sync.Mutex
	best *plan
	done bool
}

// show puts a plan on the board if it is better, and gives back the board's
// if that is.
func (b *board) show(p *plan) *plan {
	b.Lock()
	defer b.Unlock()
	if len(p.pool) == 0 {
		b.done = true
	}
	if b.best == nil || len(p.pool) == 0 || p.out < b.best.out {
		b.best = p
		return nil
	}
	if p.out > b.best.out {
		return b.best
	}
	return nil
}

func (b *board) over() bool {
	b.Lock()
	defer b.Unlock()
	return b.done
}

// byTime lets each worker go its own way, the last one by columns now and
// then (columns.go), with a look at the board every few rounds.
func (c *crew) byTime(target, whole *plan) *plan {
	var all sync.WaitGroup
	b := &board{}
	stop := func() bool { return c.stop() || b.over() || c.hopeless(target) }
	for i, w := range c.workers {
		all.Go(func() {
			if i == workers-1 {
				c.proveFirst(w, whole, stop)
			}
			now, best := target.forget(), target
			defer func() { b.show(best) }()
			for round := 0; !stop(); round++ {
				if i == workers-1 && round%diveEvery == 0 && c.dives(round) {
					if p := c.dive(w, target, whole, stop); p != nil {
						now = p.forget()
						if p.out < best.out || len(p.pool) == 0 {
							best = p
						}
					}
					c.prove(w, stop)
				}
				best = w.run(now, best, c.steps, stop)
				if len(best.pool) == 0 || round%shareEvery == shareEvery-1 {
					if p := b.show(best); p != nil {
						now, best = p.forget(), p
					}
				}
				if len(c.job.Sheets) > 1 && round > mostRounds {
					return
				}
			}
		})
	}
	all.Wait()
	if b.best == nil {
		return target
	}
	return b.best
}

// Parts of the time: that which a bound by columns is given, and the seconds
// there must be for it.
const (
	proveShare = 0.65
	proveLeast = 0.05
)

// proveFirst seeks a better bound before anything else: what it finds is of use to the columns too, and a plan
// that is proved to be least ends the search.
func (c *crew) proveFirst(w *searcher, whole *plan, stop func() bool) {
	if c.master == nil && c.job.columnsPay() && len(c.job.Pieces) > fewPieces && c.time().Seconds() > diveLeast {
		c.master = w.newMaster(whole)
	}
	c.prove(w, stop)
}

// prove seeks a better bound by columns, until it was not cut short once.
func (c *crew) prove(w *searcher, stop func() bool) {
	if c.proved || c.master == nil || c.time().Seconds() < proveLeast {
		return
	}
	late := c.within(proveShare)
	cost := w.prove(c.master, func() bool { return stop() || late() })
	c.proved = !stop()
	c.mu.Lock()
	defer c.mu.Unlock()
	c.bound.Cost = max(c.bound.Cost, w.rounded(cost))
	if len(w.price) == 1 {
		if n := ceil(cost / w.price[0]); n > c.bound.Sheets {
			c.bound.Sheets, c.bound.How = n, "what the best fillings of a sheet are worth"
		}
	}
}

// batch tells whether most pieces come many times: then columns give a plan at
// once.
func (c *crew) batch() bool {
	return c.time().Seconds() >= proveLeast && c.job.columnsPay() && c.job.total() >= 4*len(c.job.Pieces)
}

// byColumns makes a plan by columns alone, after asking them for a bound; nil
// when there is none that is whole.
func (c *crew) byColumns(whole *plan) *plan {
	w := c.workers[workers-1]
	if c.master = w.newMaster(whole); c.master == nil {
		return nil
	}
	c.prove(w, c.stop)
	p := w.dive(c.master, math.Inf(1), c.within(diveShare), c.stop)
	if len(p.pool) > 0 {
		return nil
	}
	return p
}

// Columns of up to fewPieces kinds are found at once; of more they take a
// while, which a search of less than diveLeast seconds has not.
const (
	fewPieces = 30
	diveLeast = 0.3
)

// dives tells whether it is time for columns: of few kinds of piece at the
// beginning already, of more after a quarter of the time.
func (c *crew) dives(round int) bool {
	if len(c.job.Pieces) <= fewPieces {
		return true
	}
	return c.time().Seconds() > diveLeast && (round > 0 || time.Since(c.start) > c.time()/4)
}

// dive makes a plan by columns for no more than the target's cost; nil when
// they do not suit the job. It takes at most a part of the time there is.
func (c *crew) dive(w *searcher, target, whole *plan, stop func() bool) *plan {
	if !c.job.columnsPay() {
		return nil
	}
	if c.master == nil {
		c.master = w.newMaster(whole)
	}
	if c.master == nil {
		return nil
	}
	late := c.within(diveShare)
	p := w.dive(c.master, target.cost(w.price), func() bool { return stop() || late() }, stop)
	if len(p.sheets) == 0 {
		return nil
	}
	return p
}
