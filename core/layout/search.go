package layout

import (
	"cmp"
	"math"
	"math/rand"
	"slices"

	"brevium/core/measure"
)

// Effort bounds a search: by time, by an amount of work (the answer is then
// the same at every run), or both. No effort at all gives the first filling.
type Effort struct {
	Seconds float64
	Rounds  int // rounds of work; 0 is no bound but time
	Steps   int // ruins and recreations in a round; 0 is stepsPerRound
	Seed    int64
	// Better, when set, is told each better layout as it is found, the first
	// filling too, from the goroutine that called Solve.
	Better func(*Result)
	// Start, when set, is a layout of the same job to do better than.
	Start *Result
	// Yield, when set, is called over and over by all who search; one that
	// waits there leaves the machine to others.
	Yield func()
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
	overlook    = 100   // one place in so many is overlooked
	hottest     = 0.004 // of a sheet's area: how much worse a change may be and stay
	fuss        = 0.5   // how much the room left over weighs against waste
	emptySheet  = 1e12  // nm²: an empty sheet comes after a place that wastes a square mm
)

// sheetUse is one sheet of a layout in the making.
type sheetUse struct {
	kind int
	root *strip
	used float64 // area of its pieces
	// scores remembers, by piece, how well the best place on the sheet would
	// do, plus one; zero is not looked yet. It belongs to one searcher.
	scores []float32
	made   int // the step in which scores was made
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

// forget is a copy for another searcher, which looks for itself.
func (p *plan) forget() *plan {
	q := p.clone()
	for i := range q.sheets {
		q.sheets[i].scores = nil
	}
	return q
}

// searcher improves a plan by ruin and recreate (Schrimpf and others, 2000):
// take parts of some sheets apart, put everything without a place back where
// it wastes least, and keep the change when it is no worse, or only a little.
type searcher struct {
	job   *Job
	meter *meter              // what it may spend
	w, h  []measure.Length    // of pieces, widened by the kerf
	area  []float64           // in nm²
	rooms [][2]measure.Length // of the kinds of sheet
	room  []float64           // their areas
	price []float64           // what they cost
	rng   *rand.Rand
	seek  seeker
	found spot // the best of the places just looked at
	// measures are what a piece's size may go by when pieces are put in order:
	// its area, its longer and its shorter side, and the shorter one with some
	// of the longer. key is the order of the moment.
	measures [4][]float64
	key      []float64
	// step numbers the changes of plans, so that what a sheet remembers can
	// be used again within one.
	step int
	// journal, while a plan is being changed in place, holds the sheets as they
	// were before this step; touched is the step in which each last changed.
	journal    []entry
	journaling bool
	touched    []int
	spare      [][]float32 // scores to be used again
	// bound tells that not every tree may be cut.
	bound bool
}

func newSearcher(j *Job, seed int64, m *meter) *searcher {
	s := &searcher{job: j, meter: m, rng: rand.New(rand.NewSource(seed))}
	for _, p := range j.Pieces {
		s.w, s.h = append(s.w, p.Width+j.Kerf), append(s.h, p.Height+j.Kerf)
		s.area = append(s.area, span(p.Width+j.Kerf, p.Height+j.Kerf))
		w, h := (p.Width + j.Kerf).MM(), (p.Height + j.Kerf).MM()
		for i, m := range [4]float64{w * h, max(w, h), min(w, h), min(w, h) * math.Sqrt(max(w, h))} {
			s.measures[i] = append(s.measures[i], m)
		}
	}
	s.price = j.Prices()
	for kind := range j.Sheets {
		w, h := j.room(kind)
		s.rooms = append(s.rooms, [2]measure.Length{w, h})
	}
	s.bound = j.constrained()
	s.key = make([]float64, len(s.w))
	for _, r := range s.rooms {
		s.room = append(s.room, span(r[0], r[1]))
	}
	return s
}

// ruin takes parts of one to three sheets out into the pool: whole sheets,
// or single strips with all that is on them.
func (s *searcher) ruin(p *plan) {
	for range 1 + s.rng.Intn(3) {
		i := s.rng.Intn(len(p.sheets))
		if p.sheets[i].root == nil {
			continue
		}
		u := s.touch(p, i)
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

// recreate puts what it can of the pool back, pieces with a longer shorter side
// first, for they find a place least easily.
func (s *searcher) recreate(p *plan) {
	measures := s.measures[2+s.rng.Intn(2)]
	noise := 0.25 * s.rng.Float64()
	for _, i := range p.pool {
		s.key[i] = 0
	}
	for _, i := range p.pool {
		if s.key[i] == 0 {
			s.key[i] = measures[i] * (1 + noise*(s.rng.Float64()-0.5))
		}
	}
	s.putAll(p, s.key)
}

// putAll puts what it can of the pool back in the order of the keys by piece,
// the largest first.
func (s *searcher) putAll(p *plan, key []float64) {
	slices.SortFunc(p.pool, func(a, b int) int { return cmp.Or(cmp.Compare(key[b], key[a]), cmp.Compare(a, b)) })
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

// put places one copy of a piece where it wastes least on any sheet. How well
// each sheet would do is remembered, since few sheets change between two
// looks; now and then one is overlooked.
func (s *searcher) put(p *plan, piece int) bool {
	s.meter.more(len(p.sheets))
	best, looked, score := -1, -1, float32(math.Inf(1))
	for i := range p.sheets {
		u := &p.sheets[i]
		if s.room[u.kind]-u.used < s.area[piece]-1 {
			continue
		}
		if u.scores == nil {
			u.scores, u.made = s.newScores(), s.step
		}
		x := u.scores[piece]
		fresh := x == 0
		if fresh {
			x = float32(s.bestOn(u, piece).score + 1)
			u.scores[piece] = x
		}
		if x < score && (len(p.sheets) == 1 || !s.blink()) {
			best, score = i, x
			if fresh {
				looked = i
				s.found.copy(&s.seek.best)
			}
		}
	}
	if best < 0 {
		return false
	}
	found := &s.found
	if looked != best {
		found = s.bestOn(&p.sheets[best], piece)
	}
	u := s.touch(p, best)
	u.used += s.area[piece]
	u.root = u.with(found.path, found.way, s.one(piece, found.turned))
	return true
}

// forgetScores is called when a sheet has changed. Scores made in this step
// are no other plan's, and their room is used again.
func (s *searcher) forgetScores(u *sheetUse) {
	if u.scores != nil && u.made == s.step {
		clear(u.scores)
		return
	}
	u.scores = nil
}

// entry is a sheet of a plan as it was before a step.
type entry struct {
	at  int
	use sheetUse
}

// touch readies a sheet of a plan for a change: what it remembers is
// forgotten, and in a step that may be taken back it is noted as it was.
func (s *searcher) touch(p *plan, i int) *sheetUse {
	u := &p.sheets[i]
	switch {
	case !s.journaling:
		s.forgetScores(u)
	case s.touched[i] != s.step:
		s.touched[i] = s.step
		s.journal = append(s.journal, entry{i, *u})
		u.scores = nil
	default:
		clear(u.scores)
	}
	return u
}

func (s *searcher) newScores() []float32 {
	if n := len(s.spare); n > 0 {
		x := s.spare[n-1]
		s.spare = s.spare[:n-1]
		clear(x)
		return x
	}
	return make([]float32, len(s.w))
}

// settle ends a step: its changes are kept, or taken back.
func (s *searcher) settle(p *plan, keep bool) {
	for _, e := range s.journal {
		old := e.use.scores
		if !keep {
			old = p.sheets[e.at].scores
			p.sheets[e.at] = e.use
		}
		if old != nil {
			s.spare = append(s.spare, old)
		}
	}
	s.journal = s.journal[:0]
}

// bestOn finds the best place for a piece on one sheet; its score is infinite
// when there is none.
func (s *searcher) bestOn(u *sheetUse, piece int) *spot {
	w, h, room := s.w[piece], s.h[piece], s.rooms[u.kind]
	k := &s.seek
	k.best.score, k.best.way = math.Inf(1), waysEnd
	if s.bound {
		k.may = s.mayCut(u, piece)
	}
	turns := s.job.Pieces[piece].Turn && w != h
	if u.root != nil {
		k.look(u.root, room[0], room[1], w, h, false)
		if turns {
			k.look(u.root, room[0], room[1], h, w, true)
		}
		return &k.best
	}
	if w <= room[0] && h <= room[1] {
		k.fresh(false, min(span(room[0]-w, room[1]), span(room[0], room[1]-h)))
	}
	if turns && h <= room[0] && w <= room[1] {
		k.fresh(true, min(span(room[0]-h, room[1]), span(room[0], room[1]-w)))
	}
	return &k.best
}

// mayCut tells of each place for a piece on a sheet whether it can be cut.
func (s *searcher) mayCut(u *sheetUse, piece int) func([]int8, way, bool) bool {
	return func(path []int8, how way, turned bool) bool {
		room := s.rooms[u.kind]
		return s.job.cutFrom(u.kind, u.with(path, how, s.one(piece, turned)), room[0], room[1])
	}
}

// one is a piece as a strip of its own.
func (s *searcher) one(piece int, turned bool) *strip {
	if turned {
		return &strip{w: s.h[piece], h: s.w[piece], piece: piece, turned: true}
	}
	return &strip{w: s.w[piece], h: s.h[piece], piece: piece}
}

// with is the sheet's tree with a strip put at the end of a path.
func (u *sheetUse) with(path []int8, how way, p *strip) *strip {
	if u.root == nil {
		return p
	}
	return u.root.join(path, how, p)
}

func (s *searcher) blink() bool { return s.rng.Intn(overlook) == 0 }

// fresh offers an empty sheet, after any place on one in use that wastes
// nothing.
func (k *seeker) fresh(turned bool, over float64) {
	if score := emptySheet + fuss*over; score < k.best.score && (k.may == nil || k.may(nil, beside, turned)) {
		k.best.score, k.best.way, k.best.turned = score, beside, turned
		k.best.path = k.best.path[:0]
	}
}

// run makes one round of steps from a plan, which it changes in place, and
// gives the best met, which nobody changes. It stops early when everything has
// a place, or when told.
func (s *searcher) run(now, best *plan, steps int, stop func() bool) (met *plan) {
	room := s.rooms[0]
	heat := hottest * span(room[0], room[1]) * s.rng.Float64()
	if now.out < best.out {
		best = now.forget()
	}
	s.touched = append(s.touched[:0], make([]int, len(now.sheets))...)
	s.journaling = true
	defer func() { s.journaling = false }()
	var pool []int
	for step := range steps {
		if best.out == 0 && len(best.pool) == 0 || step%16 == 0 && stop() {
			break
		}
		out := now.out
		pool = append(pool[:0], now.pool...)
		s.step++
		s.ruin(now)
		s.recreate(now)
		keep := now.out <= out+heat*s.rng.ExpFloat64()
		s.settle(now, keep)
		if !keep {
			now.pool, now.out = append(now.pool[:0], pool...), out
		} else if now.out < best.out || len(now.pool) == 0 {
			best = now.forget()
		}
	}
	return best
}
