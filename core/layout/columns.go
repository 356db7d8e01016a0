package layout

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/paper"
)

// Work done for columns, by trial.
const (
	fillings    = 12 // of one sheet, for each round of values
	retries     = 30 // ruins of each filling
	fruitless   = 4  // doublings of the retries before the search for columns ends
	mostColumns = 4000
	mostPrices  = 80 // rounds of new columns at a dive's start
	fewPrices   = 2  // and after each sheet
)

// columnsPay tells whether a job suits columns: sheets without end, none of
// them free.
func (j *Job) columnsPay() bool {
	if slices.Contains(j.Prices(), 0) {
		return false
	}
	return !slices.ContainsFunc(j.Sheets, func(s paper.Sheet) bool { return s.Count != paper.Unlimited }) && len(j.Pieces) <= 200
}

// column makes a column of a filled sheet.
func (s *searcher) column(u sheetUse) column {
	u.scores = nil
	c := column{use: u, cost: s.price[u.kind]}
	held := u.root.pieces(nil)
	slices.Sort(held)
	for i, p := range held {
		if i > 0 && held[i-1] == p {
			c.counts[len(c.counts)-1]++
			continue
		}
		c.pieces, c.counts = append(c.pieces, int32(p)), append(c.counts, 1)
	}
	return c
}

// newMaster starts a master from one column for each piece alone and the
// sheets of the plans given. It is nil when a piece goes on no sheet.
func (s *searcher) newMaster(plans ...*plan) *master {
	m := &master{}
	value := make([]float64, len(s.w))
	for i := range s.w {
		clear(value)
		value[i] = s.area[i]
		best := sheetUse{}
		for kind := range s.rooms {
			if u := s.fill(
				kind,
				value,
				s.job.copies(),
				nil,
				0,
			); u.root != nil &&
				(best.root == nil || u.used/s.dear(kind) > best.used/s.dear(best.kind)) {
				best = u
			}
		}
		if best.root == nil {
			return nil
		}
		m.columns = append(m.columns, s.column(best))
	}
	for _, p := range plans {
		for _, u := range p.sheets {
			if u.root != nil {
				m.columns = append(m.columns, s.column(u))
			}
		}
	}
	return m
}

func (j *Job) copies() []int {
	out := make([]int, len(j.Pieces))
	for i, p := range j.Pieces {
		out[i] = p.Copies
	}
	return out
}

// filling is one sheet being filled for what its pieces are worth.
type filling struct {
	*searcher
	value, dear []float64 // by piece: its worth, and that for its area
	kinds       []int     // the pieces that are worth something
	use         sheetUse
	left        []int
	worth       float64
}

// fill fills one sheet with pieces so that what they are worth together is
// as much as can be found: dear pieces for their area first, with some chance
// in the order; then again and again a part is taken out and filled anew, and
// what is no worse is kept. It starts from a strip, or from nothing.
func (s *searcher) fill(kind int, value []float64, left []int, start *strip, retries int) sheetUse {
	f := filling{searcher: s, value: value, dear: make([]float64, len(value)), left: slices.Clone(left), use: sheetUse{kind: kind}}
	power := 0.6 + 0.6*s.rng.Float64()
	for i, v := range value {
		if v > epsilon && left[i] > 0 {
			f.kinds = append(f.kinds, i)
			f.dear[i] = v / math.Pow(s.area[i], power)
		}
	}
	f.use.root = start.only(f.left)
	f.add(f.use.root.pieces(nil), 1)
	f.refill(0.4 * s.rng.Float64())
	for range retries {
		before, left := f, f.left
		f.left = slices.Clone(left)
		f.step++
		if f.use.root != nil {
			rest, taken := f.use.root.without(s.rng.Intn(f.use.root.count()))
			f.use.root = rest
			f.forgetScores(&f.use)
			f.add(taken.pieces(nil), -1)
		}
		f.refill(0.6 * s.rng.Float64())
		if f.worth < before.worth {
			f = before
		}
	}
	return f.use
}

// add counts pieces in, or out with sign −1; those counted out are left again.
func (f *filling) add(pieces []int, sign float64) {
	for _, i := range pieces {
		f.use.used += sign * f.area[i]
		f.worth += sign * f.value[i]
		if sign < 0 {
			f.left[i]++
		}
	}
}

// refill puts in what goes, the dearest first but for some noise.
func (f *filling) refill(noise float64) {
	key := f.key
	for _, i := range f.kinds {
		key[i] = f.dear[i] * (1 + noise*(f.rng.Float64()-0.5))
	}
	slices.SortFunc(f.kinds, func(a, b int) int { return cmp.Or(cmp.Compare(key[b], key[a]), a-b) })
	p := plan{sheets: []sheetUse{f.use}}
	for _, i := range f.kinds {
		for f.left[i] > 0 && f.put(&p, i) {
			f.left[i]--
			f.worth += f.value[i]
		}
	}
	f.use = p.sheets[0]
}

// seekColumns seeks columns worth more than they cost, some from nothing and some
// out of columns in the solution, and tells whether it found any.
func (s *searcher) seekColumns(m *master, left []int, retries int, stop func() bool) bool {
	found := false
	for kind := range s.rooms {
		for n := range fillings {
			if stop() || len(m.columns) > mostColumns {
				return false
			}
			var start *strip
			if b := m.basis[s.rng.Intn(len(m.basis))]; n%2 == 1 && b >= 0 && m.columns[b].use.kind == kind {
				start = m.columns[b].use.root
			}
			u := s.fill(kind, m.value, left, start, retries)
			if u.root == nil {
				continue
			}
			c := s.column(u)
			if m.worth(&c) > c.cost+1e-6 {
				m.columns = append(m.columns, c)
				found = true
			}
		}
	}
	return found
}

// dive makes a plan from the master: it solves it, with new columns as long
// as they are found, cuts what the solution cuts whole times, or else the
// column it cuts most, and goes on with what is left until the sheets of the
// target are used up. What then has no place is the plan's pool. When late, it
// seeks no more columns.
func (s *searcher) dive(m *master, most float64, late, stop func() bool) *plan {
	left, out := s.job.copies(), &plan{}
	rest := 0
	for _, n := range left {
		rest += n
	}
	cost := 0.0
	for rounds := mostPrices; rest > 0 && !stop(); rounds = fewPrices {
		m.restart(left, s.rng.Float64)
		m.solve(stop)
		for dry := 0; rounds > 0 && dry < fruitless && !late(); rounds-- {
			if s.seekColumns(m, left, retries<<dry, late) {
				m.solve(stop)
				dry = max(0, dry-1)
			} else {
				dry++ // look harder
			}
		}
		taken := false
		best, share := -1, 0.0
		for r, b := range m.basis {
			if b < 0 {
				continue
			}
			for n := int(m.x[r] + 1e-3); n > 0; n-- {
				k := s.cut(out, &m.columns[b], left, &cost, most)
				rest -= k
				taken = taken || k > 0
			}
			if x := m.x[r] * (0.8 + 0.2*s.rng.Float64()); x > share {
				best, share = b, x
			}
		}
		if taken {
			continue
		}
		if best < 0 {
			break
		}
		k := s.cut(out, &m.columns[best], left, &cost, most)
		if rest -= k; k == 0 {
			break
		}
	}
	for i, n := range left {
		for range n {
			out.pool = append(out.pool, i)
			out.out += s.area[i]
		}
	}
	return out
}

// cut adds a sheet of a column to a plan, without the pieces of which none
// are left, if it may cost that; it gives how many pieces it took.
func (s *searcher) cut(p *plan, c *column, left []int, cost *float64, most float64) int {
	if *cost+c.cost > most+1e-9 {
		return 0
	}
	u := sheetUse{kind: c.use.kind}
	u.root = c.use.root.only(left)
	held := u.root.pieces(nil)
	if len(held) == 0 {
		return 0
	}
	for _, i := range held {
		u.used += s.area[i]
	}
	*cost += c.cost
	p.sheets = append(p.sheets, u)
	return len(held)
}

// only gives the strip without the pieces of which none are left, and counts
// those it keeps.
func (s *strip) only(left []int) *strip {
	if s == nil {
		return nil
	}
	if s.piece >= 0 {
		if left[s.piece] == 0 {
			return nil
		}
		left[s.piece]--
		return s
	}
	var kids []*strip
	for _, k := range s.kids {
		if k := k.only(left); k != nil {
			kids = append(kids, k)
		}
	}
	return group(s.across, kids)
}
