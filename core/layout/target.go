package layout

import (
	"cmp"
	"container/heap"
	"slices"
	"time"

	"brevium/core/paper"
)

// improve aims at cheaper sheets again and again: some sheets are taken out of
// the plan, their pieces put without a place, perhaps an empty sheet of a
// cheaper kind added, and the workers search until every piece has a place
// again. With time to spare the last worker goes by columns every so often
// (columns.go). It returns the cheapest plan found.
func (c *crew) improve(whole *plan, tell func(*plan, Bound)) *plan {
	if len(whole.pool) > 0 {
		found := c.house(c.job.everySheet(whole), whole)
		if len(found.pool) >= len(whole.pool) {
			return whole
		}
		whole = found.used()
		tell(whole, c.known())
		if len(whole.pool) > 0 {
			return whole
		}
	}
	for !c.job.least(whole, c.known()) {
		better := false
		all := c.job.targets(whole, c.known(), c.tries(), c.spent)
		for _, t := range all {
			if c.spent() {
				return whole
			}
			if found := c.house(c.job.exchange(whole, t), whole); len(found.pool) == 0 {
				whole, better = found.used(), true
				tell(whole, c.known())
				break
			}
		}
		if !better && (c.spent() || len(all) == 0) {
			return whole
		}
	}
	return whole
}

// used leaves out the sheets of a plan on which nothing lies.
func (p *plan) used() *plan {
	q := p.clone()
	q.sheets = slices.DeleteFunc(q.sheets, func(u sheetUse) bool { return u.root == nil })
	return q
}

// everySheet adds all the sheets there are left to a plan that lacks some.
func (j *Job) everySheet(p *plan) *plan {
	q := p.clone()
	left := j.counts()
	for _, u := range p.sheets {
		left[u.kind]--
	}
	for kind, n := range left {
		for range max(0, n) {
			q.sheets = append(q.sheets, sheetUse{kind: kind})
		}
	}
	return q
}

// target is a change of a plan's sheets: one or two kinds of sheet out (the second −1), and
// a cheaper one in, or none (−1). The plan with it is made when it is tried, not before:
// with many kinds of sheet there are a million changes, and a plan is some kilobytes.
type target struct {
	out   [2]int
	in    int
	saves float64
	slack float64 // the room left over when every piece has its place
	n     int     // as it was offered
}

// mostTargets is how many changes of a plan are kept to be tried at most.
const mostTargets = 2048

// tries is how many changes there is still work for: each takes a round at least.
func (c *crew) tries() int {
	if c.timed() {
		return mostTargets
	}
	return min(mostTargets, max(1, c.rounds))
}

// promising keeps the changes with most room to spare, of equals those that were offered
// first, as a heap with the worst of them on top.
type promising struct {
	most, offered int
	kept          []target
}

func (h *promising) Len() int      { return len(h.kept) }
func (h *promising) Swap(a, b int) { h.kept[a], h.kept[b] = h.kept[b], h.kept[a] }
func (h *promising) Push(t any)    { h.kept = append(h.kept, t.(target)) }

// Less reports whether one is worse than another.
func (h *promising) Less(a, b int) bool { return h.kept[a].before(h.kept[b]) > 0 }

// Pop takes the last one off.
func (h *promising) Pop() any {
	last := len(h.kept) - 1
	t := h.kept[last]
	h.kept = h.kept[:last]
	return t
}

// before is negative where a change is tried before another.
func (t target) before(u target) int {
	return cmp.Or(cmp.Compare(u.slack, t.slack), cmp.Compare(t.n, u.n))
}

// full reports whether one with such slack, offered now, would not be kept.
func (h *promising) full(slack float64) bool {
	return slack < -1 || len(h.kept) == h.most && slack <= h.kept[0].slack
}

func (h *promising) offer(t target) {
	t.n = h.offered
	h.offered++
	switch {
	case len(h.kept) < h.most:
		heap.Push(h, t)
	case t.before(h.kept[0]) < 0:
		h.kept[0] = t
		heap.Fix(h, 0)
	}
}

// best are those that are kept, the most promising first.
func (h *promising) best() []target {
	slices.SortFunc(h.kept, target.before)
	return h.kept
}

// targets gives up to so many changes to cheaper sheets, those with most room to spare first:
// what is cheaper, or as cheap and one sheet fewer. It ends when stop says so.
func (j *Job) targets(p *plan, bound Bound, most int, stop func() bool) []target {
	if len(j.Sheets) == 1 {
		if len(p.sheets) <= max(1, bound.Sheets) {
			return nil
		}
		return []target{{out: [2]int{p.sheets[0].kind, -1}, in: -1}}
	}
	price, left := j.Prices(), j.counts()
	has := make([]int, len(left))
	slack, cost := 0.0, 0.0
	room := make([]float64, len(left))
	for kind := range room {
		room[kind] = span(j.room(kind))
	}
	for _, u := range p.sheets {
		has[u.kind]++
		left[u.kind]--
		slack += room[u.kind] - u.used
		cost += price[u.kind]
	}
	var used []int // the kinds that the plan has
	for kind, n := range has {
		if n > 0 {
			used = append(used, kind)
		}
	}
	all := promising{most: most}
	offer := func(in, one, two int) {
		t := target{out: [2]int{one, two}, in: in, saves: price[one], slack: slack - room[one]}
		fewer := 1
		if two >= 0 {
			t.saves, t.slack, fewer = t.saves+price[two], t.slack-room[two], 2
		}
		if in >= 0 {
			t.saves, t.slack, fewer = t.saves-price[in], t.slack+room[in], fewer-1
		}
		if all.full(t.slack) {
			return
		}
		saves := compareCost(t.saves, 0)
		if (saves > 0 || saves == 0 && fewer > 0) && compareCost(cost-t.saves, bound.Cost) >= 0 && len(p.sheets) > fewer {
			all.offer(t)
		}
	}
	for i, a := range used {
		for _, b := range used[i:] {
			if stop() {
				return all.best()
			}
			for in := -1; in < len(left); in++ {
				if in >= 0 && left[in] == 0 && j.Sheets[in].Count != paper.Unlimited {
					continue
				}
				if a == b && in != a {
					offer(in, a, -1)
				}
				if (a != b || has[a] > 1) && in >= 0 {
					offer(in, a, b)
				}
			}
		}
	}
	return all.best()
}

// exchange makes a plan with a change: it takes a sheet of each of the kinds out, those with
// least on them, and adds an empty one of the other.
func (j *Job) exchange(p *plan, t target) *plan {
	next := p.clone()
	for _, kind := range t.out {
		if kind < 0 {
			continue
		}
		least := -1
		for i, u := range next.sheets {
			if u.kind == kind && (least < 0 || u.used < next.sheets[least].used) {
				least = i
			}
		}
		next.pool = next.sheets[least].root.pieces(next.pool)
		next.out += next.sheets[least].used
		next.sheets = slices.Delete(next.sheets, least, least+1)
	}
	if t.in >= 0 {
		next.sheets = append(next.sheets, sheetUse{kind: t.in})
	}
	return next
}

// tidyShare is the part of the time that is kept for tidying.
const tidyShare = 0.03

// Rounds of tidying where work is the bound, and how often the pieces on the
// emptied sheet are laid anew.
const (
	tidyRounds = 1
	tidyTries  = 12
)

// tidy keeps a plan's sheets but moves pieces, so that one sheet has as little
// on it as can be: what is left of that is the most useful offcut.
func (c *crew) tidy(whole *plan) *plan {
	if len(whole.pool) > 0 || len(whole.sheets) == 0 {
		return whole
	}
	best, least := whole, c.job.worth(whole)
	until := time.Now().Add(time.Duration(2 * tidyShare * float64(c.end.Sub(c.start))))
	for round := 0; round < tidyRounds || c.timed() && time.Now().Before(until); round++ {
		if c.stopped() {
			break
		}
		if found := c.workers[0].emptied(best, c.steps, c.stopped); found != nil {
			if w := c.job.worth(found); w.better(least) {
				best, least = found, w
			}
		}
	}
	return best
}

// emptied frees one sheet of a plan as far as it goes, and lays what is left on
// it so that the largest rectangle stays free; nil when that does not go.
func (s *searcher) emptied(p *plan, steps int, stop func() bool) *plan {
	least := slices.IndexFunc(p.sheets, func(u sheetUse) bool {
		return !slices.ContainsFunc(p.sheets, func(v sheetUse) bool { return s.room[v.kind]-v.used > s.room[u.kind]-u.used })
	})
	kind := p.sheets[least].kind
	next := p.forget()
	next.pool = p.sheets[least].root.pieces(next.pool)
	next.out = p.sheets[least].used
	next.sheets = slices.Delete(next.sheets, least, least+1)
	if len(next.sheets) > 0 {
		next = s.run(next.forget(), next, steps, stop)
	}
	if len(next.pool) == 0 {
		return next
	}
	best, offcut := sheetUse{}, -1.0
	for range tidyTries {
		last := &plan{sheets: []sheetUse{{kind: kind}}, pool: slices.Clone(next.pool)}
		s.step++
		s.recreate(last)
		if len(last.pool) > 0 {
			continue
		}
		if free := s.job.tree(&last.sheets[0]).largest(); free > offcut {
			best, offcut = last.sheets[0], free
		}
	}
	if offcut < 0 {
		return nil
	}
	whole := next.forget()
	whole.pool, whole.out, whole.sheets = nil, 0, append(whole.sheets, best)
	return whole
}
