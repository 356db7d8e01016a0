package layout

import (
	"cmp"
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
		for _, t := range c.job.targets(whole, c.known()) {
			if c.spent() {
				return whole
			}
			if found := c.house(t, whole); len(found.pool) == 0 {
				whole, better = found.used(), true
				tell(whole, c.known())
				break
			}
		}
		if !better && (c.spent() || len(c.job.targets(whole, c.known())) == 0) {
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

// target is a change of a plan's sheets: one or two kinds of sheet out, and a
// cheaper one in, or none (−1).
type target struct {
	out   []int
	in    int
	saves float64
	slack float64 // the room left over when every piece has its place
}

// targets gives plans with cheaper sheets, those with most room to spare
// first: nothing is left out that is cheaper, or as cheap and one sheet fewer.
func (j *Job) targets(p *plan, bound Bound) []*plan {
	if len(j.Sheets) == 1 {
		if len(p.sheets) <= max(1, bound.Sheets) {
			return nil
		}
		return []*plan{j.exchange(p, []int{p.sheets[0].kind}, -1)}
	}
	price, left := j.prices(), j.counts()
	has := make([]int, len(left))
	slack, cost := 0.0, 0.0
	roomOf := func(kind int) float64 { return span(j.room(kind)) }
	for _, u := range p.sheets {
		has[u.kind]++
		left[u.kind]--
		slack += roomOf(u.kind) - u.used
		cost += price[u.kind]
	}
	var all []target
	offer := func(in int, out ...int) {
		t := target{out: out, in: in, slack: slack}
		for _, k := range out {
			t.saves, t.slack = t.saves+price[k], t.slack-roomOf(k)
		}
		fewer := len(out)
		if in >= 0 {
			t.saves, t.slack, fewer = t.saves-price[in], t.slack+roomOf(in), fewer-1
		}
		saves := compareCost(t.saves, 0)
		if (saves > 0 || saves == 0 && fewer > 0) && t.slack >= -1 && compareCost(cost-t.saves, bound.Cost) >= 0 && len(p.sheets) > fewer {
			all = append(all, t)
		}
	}
	for a := range has {
		for b := a; b < len(has); b++ {
			for in := -1; in < len(left); in++ {
				if in >= 0 && left[in] == 0 && j.Sheets[in].Count != paper.Unlimited {
					continue
				}
				if a == b && has[a] > 0 && in != a {
					offer(in, a)
				}
				if has[a] > 0 && has[b] > 0 && (a != b || has[a] > 1) && in >= 0 {
					offer(in, a, b)
				}
			}
		}
	}
	slices.SortStableFunc(all, func(a, b target) int { return cmp.Compare(b.slack, a.slack) })
	out := make([]*plan, len(all))
	for i, t := range all {
		out[i] = j.exchange(p, t.out, t.in)
	}
	return out
}

// exchange takes a sheet of each of some kinds out of a plan, those with least
// on them, and adds an empty one of another, or none (−1).
func (j *Job) exchange(p *plan, out []int, in int) *plan {
	next := p.clone()
	for _, kind := range out {
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
	if in >= 0 {
		next.sheets = append(next.sheets, sheetUse{kind: in})
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
