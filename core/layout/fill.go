package layout

import (
	"cmp"
	"slices"

	"brevium/core/measure"
)

// greedy is the best of the fillings by every rule.
func (j *Job) greedy(m *meter) *plan {
	items := j.items()
	var best *attempt
	for _, r := range j.rules(len(items)) {
		if best != nil && !m.more(1) {
			break
		}
		if a := j.fill(items, r, m); best == nil || a.better(best) {
			best = a
		}
	}
	return best.plan(j)
}

// plan turns a filling into strips. Only the cuts' order is lost.
func (a *attempt) plan(j *Job) *plan {
	p := &plan{}
	for i, root := range a.roots {
		p.sheets = append(p.sheets, j.use(a.sheets[i], root.strip()))
	}
	for _, it := range a.unplaced {
		p.pool, p.out = append(p.pool, it.piece), p.out+span(it.w, it.h)
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
	price []float64                                  // of the kinds of sheet
	// cheapest are the kinds of sheet by their price.
	cheapest []int
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

// effort bounds the pieces times rules times open parts looked at; in a job of
// very many pieces only the parts opened last are looked at, leastWindow of
// them or more. Each kind of sheet is opened first by two rules, while that
// places mostPlaced pieces at most.
const (
	effort      = 1_500_000
	leastWindow = 100
	mostPlaced  = 20_000
)

func (j *Job) rules(n int) []rule {
	var out []rule
	price := j.Prices()
	cheapest := make([]int, len(j.Sheets))
	for i := range cheapest {
		cheapest[i] = i
	}
	slices.SortStableFunc(cheapest, func(a, b int) int { return cmp.Compare(price[a], price[b]) })
	for _, order := range orders {
		for _, fit := range fits {
			for _, split := range splits {
				for first := range j.Sheets {
					out = append(out, rule{order, fit, split, first, price, cheapest})
				}
			}
		}
	}
	return out[:min(len(out), max(1, min(2*len(j.Sheets), mostPlaced/n), effort/(n*n)))]
}

// attempt is a filling in the making.
type attempt struct {
	sheets   []int // kinds
	roots    []*node
	free     []*node
	unplaced []item
	cost     float64
	offcut   float64
	window   int
}

func (a *attempt) better(b *attempt) bool {
	return cmp.Or(cmp.Compare(len(a.unplaced), len(b.unplaced)), cmp.Compare(a.cost, b.cost),
		cmp.Compare(len(a.roots), len(b.roots)), cmp.Compare(b.offcut, a.offcut)) < 0
}

// fill fills sheets by a rule; what is left when no more may be spent has no place.
func (j *Job) fill(items []item, r rule, m *meter) *attempt {
	items = slices.Clone(items)
	slices.SortStableFunc(items, r.order)
	a := &attempt{window: max(leastWindow, effort/len(items))}
	left := make([]int, len(j.Sheets))
	for i, s := range j.Sheets {
		left[i] = s.Count
	}
	full := make([]bool, len(j.Pieces)) // of these no more goes anywhere: what is free only gets less
	for _, it := range items {
		if full[it.piece] || !m.more(1+min(a.window, len(a.free))) || !j.put(a, it, r) && !j.open(a, it, r, left, m) {
			a.unplaced = append(a.unplaced, it)
			full[it.piece] = true
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
	from := max(0, len(a.free)-a.window)
	for i, n := range a.free[from:] {
		i += from
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
func (j *Job) open(a *attempt, it item, r rule, left []int, m *meter) bool {
	fits := func(k int) bool {
		w, h := j.room(k)
		return left[k] != 0 && (it.w <= w && it.h <= h || j.Pieces[it.piece].Turn && it.h <= w && it.w <= h)
	}
	m.more(len(j.Sheets))
	kind := r.first
	if !fits(kind) {
		at := slices.IndexFunc(r.cheapest, fits)
		if at < 0 {
			return false
		}
		kind = r.cheapest[at]
	}
	if left[kind] > 0 {
		left[kind]--
	}
	root := leaf(j.room(kind))
	a.sheets = append(a.sheets, kind)
	a.roots = append(a.roots, root)
	a.free = append(a.free, root)
	a.cost += r.price[kind]
	return j.put(a, it, r)
}
