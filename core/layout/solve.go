package layout

import (
	"cmp"
	"context"
	"slices"
	"time"
)

// Solve lays the job out, within an effort: the best of the greedy fillings,
// then what the search finds, until the proved bound is met, the effort is
// spent, the budget of ctx is used up (which the result says) or ctx is done.
// Layouts are compared by what has no place, then by cost, by the number of
// sheets, and by the largest single offcut. A piece that fits no sheet left is
// listed as unplaced. Without Seconds the same job and effort give the same
// answer.
func Solve(ctx context.Context, job *Job, e Effort) (*Result, error) {
	if err := job.Check(); err != nil {
		return nil, err
	}
	if ctx.Value(budgetKey{}) == nil {
		if e.Seconds > 0 { // which bound it
			ctx = ForSearch.In(ctx)
		} else {
			ctx = ForCommand.In(ctx)
		}
	}
	if len(job.Held) > 0 {
		r, err := job.solveAround(ctx, e)
		if err == nil {
			r.Short = Short(ctx)
		}
		return r, err
	}
	tell := func(p *plan, b Bound) {
		if e.Better != nil {
			e.Better(job.result(p, b))
		}
	}
	best, bound := job.solve(ctx, e, tell)
	r := job.result(best, bound)
	r.Short = Short(ctx)
	return r, nil
}

// solve finds a plan; tell is told each better one as it is found, the first
// one too.
func (j *Job) solve(ctx context.Context, e Effort, tell func(*plan, Bound)) (*plan, Bound) {
	start, m := time.Now(), meterOf(ctx)
	defer m.end(start)
	bound := j.bound()
	best := j.first(e, m)
	tell(best, bound)
	if !m.more(1) || ctx.Err() != nil {
		return best, bound
	}
	if p := j.exact(m); p != nil {
		if j.worth(p).better(j.worth(best)) {
			best = p
		}
		return best, j.proved(bound, best)
	}
	if e.Seconds <= 0 && e.Rounds <= 0 {
		return best, bound
	}
	c := newCrew(m, j, e, bound, start)
	if !j.least(best, bound) {
		if c.batch() {
			if p := c.byColumns(best); p != nil && j.worth(p).better(j.worth(best)) {
				best = p
				tell(best, c.known())
			}
		} else if c.timed() {
			// Patterns take longer to try than a page can wait.
			soon := c.within(patternShare)
			if p := c.workers[0].patterns(soon); p != nil && j.worth(p).better(j.worth(best)) {
				best = p
				tell(best, bound)
			}
		}
		best = c.improve(best, tell)
	}
	return c.tidy(best), c.known()
}

// worth is what plans are compared by.
type worth struct {
	unplaced int
	cost     float64
	sheets   int
	offcut   float64 // the largest single one
}

func (a worth) better(b worth) bool {
	return cmp.Or(
		cmp.Compare(a.unplaced, b.unplaced),
		compareCost(a.cost, b.cost),
		cmp.Compare(a.sheets, b.sheets),
		cmp.Compare(b.offcut, a.offcut),
	) < 0
}

// Dearer tells whether a layout is worse than another of the same job by more
// than its offcuts: by what has no place, its cost, or its number of sheets.
func (r *Result) Dearer(than *Result) bool {
	of := func(r *Result) worth { return worth{unplaced: len(r.Unplaced), cost: r.Cost, sheets: len(r.Sheets)} }
	return of(than).better(of(r))
}

// compareCost takes sums that differ by their rounding for equal.
func compareCost(a, b float64) int {
	if d := a - b; d < 1e-9 && d > -1e-9 {
		return 0
	}
	return cmp.Compare(a, b)
}

func (j *Job) worth(p *plan) worth {
	w := worth{unplaced: len(p.pool), cost: p.cost(j.Prices()), sheets: len(p.sheets)}
	for _, u := range p.sheets {
		w.offcut = max(w.offcut, j.tree(&u).largest())
	}
	return w
}

// use is a sheet of a kind with a strip on it.
func (j *Job) use(kind int, root *strip) sheetUse {
	u := sheetUse{kind: kind, root: root}
	for _, i := range root.pieces(nil) {
		u.used += span(j.Pieces[i].Width+j.Kerf, j.Pieces[i].Height+j.Kerf)
	}
	return u
}

func (p *plan) cost(prices []float64) float64 {
	sum := 0.0
	for _, u := range p.sheets {
		sum += prices[u.kind]
	}
	return sum
}

// tree gives the cuts of one sheet.
func (j *Job) tree(u *sheetUse) *node {
	w, h := j.room(u.kind)
	return j.cutter(u.kind).tree(u.root, w, h)
}

// largest is the area of the largest part that holds no piece.
func (n *node) largest() float64 {
	switch {
	case n.a != nil:
		return max(n.a.largest(), n.b.largest())
	case n.piece >= 0:
		return 0
	}
	return area(n.w, n.h)
}

// first is the best of the greedy fillings and of a layout to start from, if
// there is one.
func (j *Job) first(e Effort, m *meter) *plan {
	var best *plan
	offer := func(p *plan) {
		if p != nil && (best == nil || j.worth(p).better(j.worth(best))) {
			best = p
		}
	}
	if j.constrained() {
		s := newSearcher(j, e.Seed, m)
		for _, by := range s.measures {
			if best == nil || m.more(1) {
				offer(s.construct(by))
			}
		}
	} else {
		offer(j.greedy(m))
	}
	offer(j.again(e.Start))
	return best
}

// construct opens sheet after sheet for the pieces in the order of a measure,
// each time the cheapest that takes the piece.
func (s *searcher) construct(measure []float64) *plan {
	p := &plan{}
	order := make([]int, len(s.w))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(measure[b], measure[a]) })
	left := s.job.counts()
	for _, piece := range order {
		for range s.job.Pieces[piece].Copies {
			if s.put(p, piece) || s.open(p, piece, left) && s.put(p, piece) {
				continue
			}
			p.pool, p.out = append(p.pool, piece), p.out+s.area[piece]
		}
	}
	return p
}

// open adds an empty sheet, the cheapest that takes the piece, if there is
// one left.
func (s *searcher) open(p *plan, piece int, left []int) bool {
	best := -1
	for kind := range s.rooms {
		if left[kind] == 0 || best >= 0 && s.price[kind] >= s.price[best] {
			continue
		}
		if u := (sheetUse{kind: kind}); s.bestOn(&u, piece).way != waysEnd {
			best = kind
		}
	}
	if best < 0 {
		return false
	}
	left[best]--
	p.sheets = append(p.sheets, sheetUse{kind: best})
	return true
}

// counts is how many sheets there are of each kind, a negative number for as
// many as needed.
func (j *Job) counts() []int {
	out := make([]int, len(j.Sheets))
	for i, s := range j.Sheets {
		out[i] = s.Count
	}
	return out
}

// least tells whether nothing can be saved: all is placed, and on as few
// sheets as the bound if they are all of one kind, or for no more than the
// least cost.
func (j *Job) least(p *plan, b Bound) bool {
	if len(p.pool) > 0 {
		return false
	}
	if len(j.Sheets) == 1 {
		return len(p.sheets) <= b.Sheets
	}
	return compareCost(p.cost(j.Prices()), b.Cost) <= 0 && len(p.sheets) <= max(1, b.Sheets)
}

// proved is the bound after every layout was gone through. Of several kinds of
// sheet the cheapest may not be the fewest.
func (j *Job) proved(b Bound, best *plan) Bound {
	if len(best.pool) > 0 {
		return b
	}
	if n := len(best.sheets); n > b.Sheets && len(j.Sheets) == 1 {
		b.Sheets, b.How = n, "every layout was tried"
	}
	b.Cost = best.cost(j.Prices())
	return b
}

// result writes a plan out.
func (j *Job) result(p *plan, bound Bound) *Result {
	var roots []*node
	var kinds []int
	for _, u := range p.sheets {
		if u.root != nil {
			roots, kinds = append(roots, j.tree(&u)), append(kinds, u.kind)
		}
	}
	return j.written(kinds, roots, bound)
}

// written writes cut trees out, each of a kind of sheet.
func (j *Job) written(kinds []int, roots []*node, bound Bound) *Result {
	r := &Result{Bound: bound}
	next, prices := make([]int, len(j.Pieces)), j.Prices()
	used, total := 0.0, 0.0
	for i, root := range roots {
		laid := Laid{Sheet: j.Sheets[kinds[i]]}
		j.read(&laid, root, next)
		for _, p := range laid.Placed {
			used += area(p.Width, p.Height)
		}
		total += area(laid.Sheet.Width, laid.Sheet.Height)
		r.Cost += prices[kinds[i]]
		r.Sheets = append(r.Sheets, laid)
	}
	for i, n := range next {
		for c := n + 1; c <= j.Pieces[i].Copies; c++ {
			r.Unplaced = append(r.Unplaced, Copy{i, c})
		}
	}
	if total > 0 {
		r.Used = used / total
	}
	return r
}
