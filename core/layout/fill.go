package layout

import (
	"cmp"
	"context"
	"slices"

	"brevium/core/measure"
	"brevium/core/paper"
)

// Solve lays the job out, within an effort: the best of the greedy fillings
// by all placed, least cost, fewest sheets and largest single offcut, then
// what the search finds, until the proved bound is met, the effort is spent or
// ctx is done. A piece that fits no sheet left is listed as unplaced. Without
// Seconds the same job and effort give the same answer.
func Solve(ctx context.Context, job *Job, e Effort) (*Result, error) {
	if err := job.Check(); err != nil {
		return nil, err
	}
	bound := job.bound()
	best := job.first(e.Start)
	if e.Better != nil {
		e.Better(job.result(best, bound))
	}
	if best.least(bound) || ctx.Err() != nil {
		return job.result(best, bound), nil
	}
	if p := job.exact(job.items()); p != nil {
		if a := p.attempt(job); a.better(best) {
			best = a
		}
		return job.result(best, job.proved(bound, best)), nil
	}
	if (e.Seconds > 0 || e.Rounds > 0) && len(best.unplaced) == 0 && len(best.roots) > bound.Sheets {
		start := best.plan(job)
		// Patterns take longer to try than a page can wait.
		if e.Seconds > 0 {
			if p := newSearcher(job, e.Seed).patterns(); p != nil && p.attempt(job).better(best) {
				start, best = p, p.attempt(job)
			}
		}
		found := job.improve(ctx, start, bound, e)
		if a := found.attempt(job); a.better(best) {
			best = a
		}
	}
	return job.result(best, bound), nil
}

// first is the best of the greedy fillings and of a layout to start from, if
// there is one.
func (j *Job) first(start *Result) *attempt {
	items := j.items()
	best := j.again(start)
	for _, r := range j.rules(len(items)) {
		a := j.fill(items, r)
		if best == nil || a.better(best) {
			best = a
		}
	}
	return best
}

// least tells whether nothing can be saved: all is placed on as few sheets as
// the bound, and each is as cheap as any.
func (a *attempt) least(b Bound) bool {
	return len(a.unplaced) == 0 && len(a.roots) <= b.Sheets && !slices.ContainsFunc(a.sheets, func(k int) bool { return k != a.sheets[0] })
}

// proved is the bound after every layout was gone through. Of several kinds of
// sheet the cheapest may not be the fewest.
func (j *Job) proved(b Bound, best *attempt) Bound {
	if n := len(best.roots); n > b.Sheets && len(j.Sheets) == 1 {
		return Bound{n, "every layout was tried"}
	}
	return b
}

// plan turns a filling into strips. Only the cuts' order is lost.
func (a *attempt) plan(j *Job) *plan {
	p := &plan{}
	for i, root := range a.roots {
		u := sheetUse{kind: a.sheets[i], root: root.strip()}
		for _, piece := range u.root.pieces(nil) {
			u.used += span(j.Pieces[piece].Width+j.Kerf, j.Pieces[piece].Height+j.Kerf)
		}
		p.sheets = append(p.sheets, u)
	}
	return p
}

// strip gives what is used of a part, or nil.
func (n *node) strip() *strip {
	switch {
	case n.a != nil:
		var kids []*strip
		for _, k := range []*strip{n.a.strip(), n.b.strip()} {
			if k != nil {
				kids = append(kids, k)
			}
		}
		return group(n.across, kids)
	case n.piece >= 0:
		return &strip{w: n.w, h: n.h, piece: n.piece, turned: n.turned}
	}
	return nil
}

// attempt turns a plan back into sheets and cuts.
func (p *plan) attempt(j *Job) *attempt {
	a := &attempt{}
	for _, u := range p.sheets {
		if u.root == nil {
			continue
		}
		s := j.Sheets[u.kind]
		a.sheets = append(a.sheets, u.kind)
		a.roots = append(a.roots, u.root.tree(s.Width-2*j.Trim+j.Kerf, s.Height-2*j.Trim+j.Kerf))
		a.cost += sheetCost(s)
	}
	return a
}

// item is one copy, widened by the kerf.
type item struct {
	piece int
	w, h  measure.Length
}

func (j *Job) items() []item {
	var out []item
	for i, p := range j.Pieces {
		for range p.Copies {
			out = append(out, item{i, p.Width + j.Kerf, p.Height + j.Kerf})
		}
	}
	return out
}

// rule is one way of filling.
type rule struct {
	order func(a, b item) int
	fit   func(n *node, w, h measure.Length) float64 // least is best
	split func(n *node, w, h measure.Length) bool    // whether to cut across first
	first int                                        // the kind of sheet opened first
}

func area(w, h measure.Length) float64 { return w.MM() * h.MM() }

var orders = []func(a, b item) int{
	func(a, b item) int { return cmp.Compare(area(b.w, b.h), area(a.w, a.h)) },
	func(a, b item) int {
		return cmp.Or(cmp.Compare(max(b.w, b.h), max(a.w, a.h)), cmp.Compare(min(b.w, b.h), min(a.w, a.h)))
	},
	func(a, b item) int { return cmp.Or(cmp.Compare(b.w, a.w), cmp.Compare(b.h, a.h)) },
	func(a, b item) int { return cmp.Or(cmp.Compare(b.h, a.h), cmp.Compare(b.w, a.w)) },
}

var fits = []func(n *node, w, h measure.Length) float64{
	func(n *node, w, h measure.Length) float64 { return area(n.w, n.h) - area(w, h) },
	func(n *node, w, h measure.Length) float64 { return min(n.w-w, n.h-h).MM() },
}

var splits = []func(n *node, w, h measure.Length) bool{
	// Keep the larger leftover whole.
	func(n *node, w, h measure.Length) bool { return area(n.w-w, n.h) > area(n.w, n.h-h) },
	func(n *node, w, h measure.Length) bool { return n.w-w > n.h-h },
	func(n *node, w, h measure.Length) bool { return n.w-w <= n.h-h },
}

// effort bounds the pieces times rules times open parts looked at.
const effort = 1_500_000

func (j *Job) rules(n int) []rule {
	var out []rule
	for _, order := range orders {
		for _, fit := range fits {
			for _, split := range splits {
				for first := range j.Sheets {
					out = append(out, rule{order, fit, split, first})
				}
			}
		}
	}
	return out[:min(len(out), max(2*len(j.Sheets), effort/(n*n)))]
}

// attempt is a filling in the making.
type attempt struct {
	sheets   []int // kinds
	roots    []*node
	free     []*node
	unplaced []item
	cost     float64
	offcut   float64
}

func (a *attempt) better(b *attempt) bool {
	return cmp.Or(cmp.Compare(len(a.unplaced), len(b.unplaced)), cmp.Compare(a.cost, b.cost),
		cmp.Compare(len(a.roots), len(b.roots)), cmp.Compare(b.offcut, a.offcut)) < 0
}

func (j *Job) fill(items []item, r rule) *attempt {
	items = slices.Clone(items)
	slices.SortStableFunc(items, r.order)
	a := &attempt{}
	left := make([]int, len(j.Sheets))
	for i, s := range j.Sheets {
		left[i] = s.Count
	}
	for _, it := range items {
		if !j.put(a, it, r) && !j.open(a, it, r, left) {
			a.unplaced = append(a.unplaced, it)
		}
	}
	for _, n := range a.free {
		a.offcut = max(a.offcut, area(n.w, n.h))
	}
	return a
}

// put places the item into the open part it fits best, if any.
func (j *Job) put(a *attempt, it item, r rule) bool {
	best, turned, score := -1, false, 0.0
	for i, n := range a.free {
		if it.w <= n.w && it.h <= n.h {
			if s := r.fit(n, it.w, it.h); best < 0 || s < score {
				best, turned, score = i, false, s
			}
		}
		if j.Pieces[it.piece].Turn && it.h <= n.w && it.w <= n.h {
			if s := r.fit(n, it.h, it.w); best < 0 || s < score {
				best, turned, score = i, true, s
			}
		}
	}
	if best < 0 {
		return false
	}
	n := a.free[best]
	w, h := it.w, it.h
	if turned {
		w, h = h, w
	}
	a.free[best] = a.free[len(a.free)-1]
	a.free = append(a.free[:len(a.free)-1], n.place(it.piece, turned, w, h, r.split(n, w, h))...)
	return true
}

// open starts a new sheet for the item: of the rule's first kind, or else the
// cheapest it fits.
func (j *Job) open(a *attempt, it item, r rule, left []int) bool {
	kind := -1
	for i := range j.Sheets {
		k := (r.first + i) % len(j.Sheets)
		s := j.Sheets[k]
		w, h := s.Width-2*j.Trim+j.Kerf, s.Height-2*j.Trim+j.Kerf
		fits := it.w <= w && it.h <= h || j.Pieces[it.piece].Turn && it.h <= w && it.w <= h
		if left[k] == 0 || !fits {
			continue
		}
		if kind < 0 || kind != r.first && sheetCost(s) < sheetCost(j.Sheets[kind]) {
			kind = k
		}
		if k == r.first {
			break
		}
	}
	if kind < 0 {
		return false
	}
	if left[kind] > 0 {
		left[kind]--
	}
	s := j.Sheets[kind]
	root := leaf(s.Width-2*j.Trim+j.Kerf, s.Height-2*j.Trim+j.Kerf)
	a.sheets = append(a.sheets, kind)
	a.roots = append(a.roots, root)
	a.free = append(a.free, root)
	a.cost += sheetCost(s)
	return j.put(a, it, r)
}

// sheetCost is a sheet's price, or where it has none its area in squares of
// twelve inches.
func sheetCost(s paper.Sheet) float64 {
	if s.Cost > 0 {
		return s.Cost
	}
	return area(s.Width, s.Height) / area(12*measure.Inch, 12*measure.Inch)
}

func (j *Job) result(a *attempt, bound Bound) *Result {
	r := &Result{Cost: a.cost, Bound: bound}
	next := make([]int, len(j.Pieces))
	used, total := 0.0, 0.0
	for i, root := range a.roots {
		laid := Laid{Sheet: j.Sheets[a.sheets[i]]}
		j.read(&laid, root, next)
		for _, p := range laid.Placed {
			used += area(p.Width, p.Height)
		}
		total += area(laid.Sheet.Width, laid.Sheet.Height)
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
