package layout

import (
	"cmp"
	"context"
	"math"
	"math/rand"
	"slices"
	"sync"
	"time"

	"brevium/core/measure"
)

// Effort bounds a search: by time, by an amount of work (the answer is then
// the same at every run), or both. No effort at all gives the first filling.
type Effort struct {
	Seconds float64
	Rounds  int // rounds of work; 0 is no bound but time
	Steps   int // ruins and recreations in a round; 0 is stepsPerRound
	Seed    int64
}

// stepsPerRound is how many ruins and recreations each worker makes before
// the workers compare.
const stepsPerRound = 400

// workers is how many search at once, each from its own seed.
const workers = 2

// How the search takes its chances, found by trial on random batches; none is
// critical.
const (
	wholeSheets = 0.35  // ruins that take a whole sheet
	overlook    = 16    // one place in so many is overlooked
	hottest     = 0.005 // of a sheet's area: how much worse a change may be and stay
)

// sheetUse is one sheet of a layout in the making.
type sheetUse struct {
	kind int
	root *strip
	used float64 // area of its pieces
}

// plan is a layout in the making: sheets, and the pieces that have no place.
type plan struct {
	sheets []sheetUse
	pool   []int
	out    float64 // area of the pool
}

func (p *plan) clone() *plan {
	return &plan{slices.Clone(p.sheets), slices.Clone(p.pool), p.out}
}

// searcher improves a plan by ruin and recreate (Schrimpf and others, 2000):
// take parts of some sheets apart, put everything without a place back where
// it wastes least, and keep the change when it is no worse, or only a little.
type searcher struct {
	job   *Job
	w, h  []measure.Length // of pieces, widened by the kerf
	area  []float64
	rooms [][2]measure.Length // of the kinds of sheet
	rng   *rand.Rand
	seek  seeker
}

func newSearcher(j *Job, seed int64) *searcher {
	s := &searcher{job: j, rng: rand.New(rand.NewSource(seed))}
	for _, p := range j.Pieces {
		s.w, s.h = append(s.w, p.Width+j.Kerf), append(s.h, p.Height+j.Kerf)
		s.area = append(s.area, area(p.Width+j.Kerf, p.Height+j.Kerf))
	}
	for _, k := range j.Sheets {
		s.rooms = append(s.rooms, [2]measure.Length{k.Width - 2*j.Trim + j.Kerf, k.Height - 2*j.Trim + j.Kerf})
	}
	s.seek.blink = func() bool { return s.rng.Intn(overlook) == 0 }
	return s
}

// ruin takes parts of one to three sheets out into the pool: whole sheets,
// or single strips with all that is on them.
func (s *searcher) ruin(p *plan) {
	for range 1 + s.rng.Intn(3) {
		i := s.rng.Intn(len(p.sheets))
		u := &p.sheets[i]
		if u.root == nil {
			continue
		}
		n := 0
		if s.rng.Float64() > wholeSheets {
			n = s.rng.Intn(u.root.count())
		}
		rest, taken := u.root.without(n)
		before := len(p.pool)
		p.pool = taken.pieces(p.pool)
		for _, piece := range p.pool[before:] {
			u.used -= s.area[piece]
			p.out += s.area[piece]
		}
		u.root = rest
	}
}

// recreate puts what it can of the pool back, larger pieces first by one
// measure or another.
func (s *searcher) recreate(p *plan) {
	key := make([]float64, len(s.w))
	by := s.rng.Intn(4)
	noise := 0.25 * s.rng.Float64()
	for i := range key {
		w, h := s.w[i].MM(), s.h[i].MM()
		key[i] = []float64{w * h, max(w, h), w, w + h}[by] * (1 + noise*(s.rng.Float64()-0.5))
	}
	slices.SortFunc(p.pool, func(a, b int) int { return cmp.Or(cmp.Compare(key[b], key[a]), cmp.Compare(a, b)) })
	s.seek.fuss = []float64{0, 0.01, 0.1}[s.rng.Intn(3)]
	left := p.pool[:0]
	failed := -1
	for _, piece := range p.pool {
		if piece == failed || !s.put(p, piece) {
			left = append(left, piece)
			failed = piece // its copies have no place either
			continue
		}
		p.out -= s.area[piece]
	}
	p.pool = left
	if len(left) == 0 {
		p.out = 0
	}
}

// put places one copy of a piece where it wastes least on any sheet.
func (s *searcher) put(p *plan, piece int) bool {
	w, h := s.w[piece], s.h[piece]
	k := &s.seek
	k.best.score, k.best.way = math.Inf(1), waysEnd
	turns := s.job.Pieces[piece].Turn && w != h
	for i, u := range p.sheets {
		room := s.rooms[u.kind]
		if area(room[0], room[1])-u.used < s.area[piece]-1e-6 {
			continue
		}
		if u.root == nil {
			if w <= room[0] && h <= room[1] {
				k.fresh(i, false, min(area(room[0]-w, room[1]), area(room[0], room[1]-h)))
			}
			if turns && h <= room[0] && w <= room[1] {
				k.fresh(i, true, min(area(room[0]-h, room[1]), area(room[0], room[1]-w)))
			}
			continue
		}
		k.look(u.root, room[0], room[1], w, h, false, i)
		if turns {
			k.look(u.root, room[0], room[1], h, w, true, i)
		}
	}
	if k.best.way == waysEnd {
		return false
	}
	if k.best.turned {
		w, h = h, w
	}
	u := &p.sheets[k.best.sheet]
	u.used += s.area[piece]
	one := &strip{w: w, h: h, piece: piece, turned: k.best.turned}
	if u.root == nil {
		u.root = one
	} else {
		u.root = u.root.join(k.best.path, k.best.way, one)
	}
	return true
}

// fresh offers an empty sheet, after any place on one in use that wastes
// nothing.
func (k *seeker) fresh(sheet int, turned bool, over float64) {
	if score := 1 + k.fuss*over; score < k.best.score {
		k.best.score, k.best.sheet, k.best.way, k.best.turned = score, sheet, beside, turned
		k.best.path = k.best.path[:0]
	}
}

// run makes one round of steps from a plan, keeping the best met. It stops
// early when everything has a place, or when told.
func (s *searcher) run(now *plan, steps int, stop func() bool) (last, best *plan) {
	room := s.rooms[0]
	heat := hottest * area(room[0], room[1]) * s.rng.Float64()
	best = now
	for step := range steps {
		if best.out == 0 && len(best.pool) == 0 || step%16 == 0 && stop() {
			break
		}
		next := now.clone()
		s.ruin(next)
		s.recreate(next)
		if next.out <= now.out+heat*s.rng.ExpFloat64() {
			now = next
			if now.out < best.out || len(now.pool) == 0 {
				best = now
			}
		}
	}
	return now, best
}

// improve drops one sheet after another: the pieces of the sheet whose loss
// saves most and costs least to rehouse are put without a place, and the
// workers search until all have one again. It returns the cheapest plan in
// which they have.
func (j *Job) improve(ctx context.Context, first *plan, least int, e Effort) *plan {
	deadline := time.Time{}
	if e.Seconds > 0 {
		deadline = time.Now().Add(time.Duration(e.Seconds * float64(time.Second)))
	}
	stop := func() bool { return ctx.Err() != nil || !deadline.IsZero() && time.Now().After(deadline) }
	var crew [workers]*searcher
	for i := range crew {
		crew[i] = newSearcher(j, e.Seed*workers+int64(i)+1)
	}
	bounded := e.Rounds > 0
	if e.Steps == 0 {
		e.Steps = stepsPerRound
	}
	whole := first
	for attempt := 0; len(whole.sheets) > max(1, least) && !stop(); attempt++ {
		target := j.drop(whole, attempt)
		var now, best [workers]*plan
		for i := range crew {
			now[i], best[i] = target, target
		}
		won := -1
		for round := 0; won < 0 && !stop(); round++ {
			if bounded && e.Rounds == 0 {
				return whole
			}
			e.Rounds--
			var all sync.WaitGroup
			for i := range crew {
				all.Go(func() { now[i], best[i] = crew[i].run(now[i], e.Steps, stop) })
			}
			all.Wait()
			for i := range crew {
				if won < 0 && len(best[i].pool) == 0 {
					won = i
				}
			}
			// Now and then the worker that is behind starts from the other's best.
			if round%8 == 7 {
				lead := 0
				if best[1].out < best[0].out {
					lead = 1
				}
				now[1-lead] = best[lead]
			}
			if len(j.Sheets) > 1 && round > 20 {
				break // try dropping another sheet
			}
		}
		if won >= 0 {
			whole, attempt = best[won], -1
		}
	}
	return whole
}

// drop takes one sheet out of a plan, its pieces into the pool: the one with
// least on it for its price, or at later attempts the next.
func (j *Job) drop(p *plan, attempt int) *plan {
	order := make([]int, len(p.sheets))
	for i := range order {
		order[i] = i
	}
	worth := func(i int) float64 { return p.sheets[i].used / sheetCost(j.Sheets[p.sheets[i].kind]) }
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(worth(a), worth(b)) })
	out := order[attempt%len(order)]
	next := p.clone()
	next.pool = p.sheets[out].root.pieces(next.pool)
	next.out += p.sheets[out].used
	next.sheets = slices.Delete(next.sheets, out, out+1)
	return next
}
