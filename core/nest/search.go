package nest

import (
	"context"
	"math"
	"math/rand"
	"runtime"
	"slices"
	"sync"
	"time"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
)

// Effort bounds the search.
type Effort struct {
	Seconds float64
	Seed    int64
	Rounds  int // 0 is no bound but time
	// First is how the trimmer's layout is found that is begun with; without rounds, for a part of the time.
	First layout.Effort
	// Start, when set, is an earlier layout of the same job to go on from.
	Start *layout.Result
	// Better, when set, is told each layout with fewer sheets as it is found.
	Better func(*layout.Result)
	// Yield, when set, is called over and over by all who search.
	Yield func()
	// Workers is how many search at once; 0 for as many as there are cores, two at most.
	Workers int
}

// tries is how many ruins a worker makes in a round, after which all go on from the best.
const tries = 12

// Solve lays a job: the trimmer's layout first, then the pieces by their shapes with fewer sheets. It
// ends when the bound is met, the time is over or ctx ends, with the best so far.
func Solve(ctx context.Context, j *Job, e Effort) (*layout.Result, error) {
	if err := j.Check(); err != nil {
		return nil, err
	}
	p := j.prepared()
	end := time.Now().Add(time.Duration(e.Seconds * float64(time.Second)))
	outer := ctx
	ctx, stop := context.WithDeadline(ctx, end)
	defer stop()
	short, done := context.WithTimeout(ctx, time.Duration(e.Seconds*float64(time.Second)/5))
	x := &search{prepared: p, effort: e, bound: p.bound(short)}
	done()
	first, err := x.begin(outer)
	if err != nil {
		return nil, err
	}
	best := first
	x.tell(best)
	for len(best.sheets) > max(x.bound.Sheets, len(j.Held)) && ctx.Err() == nil {
		fewer := x.oneFewer(ctx, best)
		if fewer == nil {
			break
		}
		best = fewer
		x.tell(best)
	}
	if out := x.result(best); j.Wrong(out) == "" {
		return out, nil
	}
	// What is not right is not given: the trimmer's layout is.
	out := x.result(first)
	if wrong := j.Wrong(out); wrong != "" {
		return nil, fault.New(fault.Internal, "", "the pieces could not be laid by shape: %s", wrong)
	}
	return out, nil
}

// state is a layout: sheets, and the pieces that lie on none.
type state struct {
	sheets  []*spread
	out     []int // by piece
	outArea float64
}

func (s *state) copied() *state {
	out := &state{out: slices.Clone(s.out), outArea: s.outArea}
	for _, one := range s.sheets {
		out.sheets = append(out.sheets, one.copied())
	}
	return out
}

type search struct {
	*prepared
	effort  Effort
	bound   layout.Bound
	trimmer int
	short   bool
}

func (x *search) tell(s *state) {
	if x.effort.Better != nil {
		x.effort.Better(x.result(s))
	}
}

// upTo is a length in whole nanometres that is no shorter.
func upTo(mm float64) measure.Length {
	return measure.Length(math.Ceil(mm*float64(measure.Millimetre) - 1e-3))
}

// fill puts what is left on a state's sheets, largest first.
func (x *search) fill(ctx context.Context, s *state, left []int, c choice) {
	type item struct {
		piece int
		key   float64
	}
	var order []item
	for i, n := range left {
		for range n {
			k := x.shapes[i][0].area * (1 + c.noise*c.rng.Float64())
			order = append(order, item{i, k})
		}
	}
	slices.SortFunc(order, func(a, b item) int {
		if a.key > b.key {
			return -1
		}
		return 1
	})
	fails := map[[2]int]bool{}
	for _, it := range order {
		if ctx.Err() != nil {
			return
		}
		for k, sheet := range s.sheets {
			if fails[[2]int{it.piece, k}] || sheet.filled+x.shapes[it.piece][0].area > sheet.room.area+1e-6 {
				continue
			}
			if x.put(sheet, it.piece, c) {
				left[it.piece]--
				break
			}
			fails[[2]int{it.piece, k}] = true
		}
	}
}

// match fills sheets one after the other, each time with the piece that lies best of all that are left:
// of whose outline most touches, large ones first.
func (x *search) match(ctx context.Context, s *state, left []int, c choice) {
	c.contact = true
	for _, sheet := range s.sheets {
		worths := make([]offer, len(left))
		for {
			best := -1
			for i, n := range left {
				if n == 0 || ctx.Err() != nil || sheet.filled+x.shapes[i][0].area > sheet.room.area+1e-6 {
					continue
				}
				if o := &worths[i]; !o.none {
					*o = x.offer(sheet, i, c)
					if !o.none && (best < 0 || o.worth > worths[best].worth) {
						best = i
					}
				}
			}
			if best < 0 {
				break
			}
			sheet.add(worths[best].shape, worths[best].at)
			left[best]--
		}
	}
}

// offer is where a piece would lie best on a sheet, and how well; none when it does not go.
type offer struct {
	shape *shape
	at    point
	worth float64
	none  bool
}

func (x *search) offer(sheet *spread, piece int, c choice) offer {
	out := offer{none: true, worth: math.Inf(-1)}
	for _, b := range x.shapes[piece] {
		at, v, ok := sheet.best(b, c)
		if !ok {
			continue
		}
		v = v/b.round + 0.6*math.Sqrt(b.area/sheet.room.area)*(1+c.noise*c.rng.Float64())
		if v > out.worth {
			out = offer{b, at, v, false}
		}
	}
	return out
}

// put lays a piece on a sheet where it lies best, in the turn that does; at times one turn is tried
// alone first.
func (x *search) put(sheet *spread, piece int, c choice) bool {
	shapes := x.shapes[piece]
	var best *shape
	var at point
	worth := math.Inf(-1)
	first := 0
	if c.noise > 0 {
		first = c.rng.Intn(len(shapes))
	}
	alone := c.noise > 0 && c.rng.Intn(4) == 0
	for k := range shapes {
		b := shapes[(first+k)%len(shapes)]
		p, v, ok := sheet.best(b, c)
		if ok && v > worth {
			best, at, worth = b, p, v
		}
		if alone && ok {
			break
		}
	}
	if best == nil {
		return false
	}
	sheet.add(best, at)
	return true
}

// oneFewer looks for a layout with one sheet fewer; nil when the time ends without one. Workers ruin
// and recreate for themselves, and after each round all go on from the best.
func (x *search) oneFewer(ctx context.Context, from *state) *state {
	best := x.without(from)
	n := x.effort.Workers
	if n == 0 {
		n = min(2, runtime.GOMAXPROCS(0))
	}
	for round := 0; x.effort.Rounds == 0 || round < x.effort.Rounds; round++ {
		tried := make([]*state, n)
		var all sync.WaitGroup
		for w := range n {
			all.Add(1)
			go func() {
				defer all.Done()
				rng := rand.New(rand.NewSource(x.effort.Seed + int64(round*n+w)*7919 + int64(len(from.sheets))*104729))
				tried[w] = x.round(ctx, best, rng)
			}()
		}
		all.Wait()
		for _, s := range tried {
			if s.outArea < best.outArea+1e-9 {
				best = s
			}
		}
		if best.outArea < 1e-6 {
			return best
		}
		if ctx.Err() != nil {
			x.short = true
			return nil
		}
	}
	return nil
}

// without leaves out the sheet that is emptiest for its price; what lay on it is out.
func (x *search) without(from *state) *state {
	s := from.copied()
	drop := 0
	value := func(k int) float64 {
		r := s.sheets[k].room
		return s.sheets[k].filled/r.area - x.prices[r.kind]
	}
	for k := range s.sheets {
		if s.sheets[k].held == 0 && (s.sheets[drop].held > 0 || value(k) < value(drop)) {
			drop = k
		}
	}
	for _, l := range s.sheets[drop].placed {
		s.out[l.piece]++
		s.outArea += l.area
	}
	s.sheets = slices.Delete(s.sheets, drop, drop+1)
	return s
}

// round ruins and recreates a number of times, and gives the best met.
func (x *search) round(ctx context.Context, from *state, rng *rand.Rand) *state {
	now, best := from.copied(), from
	for range tries {
		if ctx.Err() != nil {
			break
		}
		if x.effort.Yield != nil {
			x.effort.Yield()
		}
		next := x.again(ctx, now, rng)
		if next.outArea < best.outArea-1e-9 {
			best = next
		}
		if next.outArea < 1e-6 {
			return next
		}
		if next.outArea <= now.outArea+0.03*now.sheets[0].room.area*rng.Float64()*rng.Float64() {
			now = next
		}
	}
	if best == from && now.outArea <= from.outArea+1e-9 {
		return now // as good, and another
	}
	return best
}

// again empties one or two sheets, wholly or in part, and puts back what is out, largest first, each
// where it lies best.
func (x *search) again(ctx context.Context, from *state, rng *rand.Rand) *state {
	s := &state{out: slices.Clone(from.out)}
	ruin := map[int]bool{rng.Intn(len(from.sheets)): true}
	if len(from.sheets) > 1 && rng.Intn(5) > 0 {
		ruin[rng.Intn(len(from.sheets))] = true
	}
	share := 1.0
	if rng.Intn(2) == 0 {
		share = 0.3 + 0.6*rng.Float64()
	}
	var first, rest []*spread
	for k, one := range from.sheets {
		if !ruin[k] {
			rest = append(rest, one.copied())
			continue
		}
		first = append(first, one.emptied(func(l laid) bool {
			if rng.Float64() >= share {
				return true
			}
			s.out[l.piece]++
			return false
		}))
	}
	s.sheets = append(first, rest...)
	if rng.Intn(2) == 0 { // small ones into what others have left first
		s.sheets = append(rest, first...)
	}
	c := choice{contact: rng.Intn(4) > 0, corner: rng.Intn(8), noise: []float64{0, 0.1, 0.3, 0.8}[rng.Intn(4)], rng: rng}
	if rng.Intn(2) == 0 {
		x.match(ctx, s, s.out, c)
	} else {
		x.fill(ctx, s, s.out, c)
	}
	for i, n := range s.out {
		s.outArea += float64(n) * x.shapes[i][0].area
	}
	return s
}
