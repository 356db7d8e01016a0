package nest

import (
	"context"
	"math"
	"math/rand"
	"slices"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// begin is what is gone on from: an earlier layout, if there is one and it is right; else held pieces
// where they lie, offcuts with an outline filled and sheets that are cut through for a mat, and the
// trimmer's layout of the rest.
func (x *search) begin(ctx context.Context) (*state, error) {
	if e := x.effort.Start; e != nil && x.job.Wrong(e) == "" {
		x.trimmer = e.Trimmer
		return x.stateOf(e), nil
	}
	s := &state{}
	left, used := make([]int, len(x.job.Pieces)), make([]int, len(x.job.Sheets))
	for i, p := range x.job.Pieces {
		left[i] = p.Copies
	}
	for n, h := range x.job.Held {
		one := x.held(n, h)
		for _, p := range h.Pieces {
			left[p.Piece]--
		}
		used[h.Sheet]++
		s.sheets = append(s.sheets, one)
	}
	rng := rand.New(rand.NewSource(x.effort.Seed))
	pack := choice{contact: true, rng: rng}
	if len(s.sheets) > 0 {
		x.fill(ctx, s, left, pack)
	}
	var plain []int
	for k, sheet := range x.job.Sheets {
		if sheet.Outline == nil && len(sheet.X)+len(sheet.Y) == 0 {
			plain = append(plain, k)
			continue
		}
		for n := used[k]; n < sheet.Count || sheet.Count < 0; n++ {
			one := newSpread(x.rooms[k], x.fits)
			x.fill(ctx, &state{sheets: []*spread{one}}, left, pack)
			if len(one.placed) == 0 {
				break
			}
			s.sheets = append(s.sheets, one)
		}
	}
	s.out = left
	if err := x.byTrimmer(ctx, s, plain, used); err != nil {
		return nil, err
	}
	for i, n := range s.out {
		s.outArea += float64(n) * x.shapes[i][0].area
	}
	x.trimmer = len(s.sheets)
	return s, nil
}

// byTrimmer lays what is out by rectangles on the sheets that are left.
func (x *search) byTrimmer(ctx context.Context, s *state, plain, used []int) error {
	job := &layout.Job{Kerf: max(x.job.Kerf, measure.FromMM(x.job.Gap)), Trim: measure.FromMM(x.job.Trim)}
	var of []int
	for i, p := range x.job.Pieces {
		if s.out[i] == 0 {
			continue
		}
		first := x.shapes[i][0]
		turn := slices.ContainsFunc(x.shapes[i], func(s *shape) bool { return (s.turn-first.turn)%180 != 0 })
		one := layout.Piece{Name: p.Name, Width: upTo(first.width), Height: upTo(first.height), Copies: s.out[i], Turn: turn || first.width == first.height}
		if !slices.ContainsFunc(plain, func(k int) bool { return x.job.fits(p, x.job.Sheets[k]) }) {
			continue
		}
		job.Pieces = append(job.Pieces, one)
		of = append(of, i)
	}
	for _, k := range plain {
		sheet := x.job.Sheets[k].Sheet
		if sheet.Count > 0 {
			sheet.Count -= used[k]
		}
		if sheet.Count != 0 {
			job.Sheets = append(job.Sheets, sheet)
		}
	}
	if len(of) == 0 || len(job.Sheets) == 0 {
		return nil
	}
	e := x.effort.First
	if e.Rounds == 0 {
		e = layout.Effort{Seconds: min(0.3, x.effort.Seconds/4), Seed: x.effort.Seed}
	}
	cut, err := layout.Solve(ctx, job, e)
	if err != nil {
		return err
	}
	for _, l := range cut.Sheets {
		kind := slices.IndexFunc(x.job.Sheets, func(o Sheet) bool { return o.Name == l.Sheet.Name })
		one := newSpread(x.rooms[kind], x.fits)
		for _, p := range l.Placed {
			shapes := x.shapes[of[p.Piece]]
			k := 0
			if p.Turned {
				k = max(0, slices.IndexFunc(shapes, func(s *shape) bool { return (s.turn-shapes[0].turn)%180 != 0 }))
			}
			one.add(shapes[k], pattern.Pt(p.X.MM()-x.job.Trim, p.Y.MM()-x.job.Trim))
		}
		s.sheets = append(s.sheets, one)
	}
	for k, i := range of {
		s.out[i] = 0
		for _, u := range cut.Unplaced {
			if u.Piece == k {
				s.out[i]++
			}
		}
	}
	return nil
}

// held is a sheet with the pieces that a hand keeps on it.
func (x *search) held(n int, h layout.Held) *spread {
	one := newSpread(x.rooms[h.Sheet], x.fits)
	one.held = n + 1
	for _, p := range h.Pieces {
		x.lie(one, p, true)
	}
	return one
}

// lie puts a piece where a layout has it.
func (x *search) lie(one *spread, p layout.Placed, fixed bool) {
	b := x.shapeOf(p)
	one.add(b, pattern.Pt(p.X.MM()-x.job.Trim, p.Y.MM()-x.job.Trim))
	one.placed[len(one.placed)-1].fixed = fixed
}

// shapeOf is a placed piece's shape: of turns that are alike, the one that is kept.
func (p *prepared) shapeOf(at layout.Placed) *shape {
	all := p.shapes[at.Piece]
	turn := 90 * at.Quarters()
	if i := slices.IndexFunc(all, func(s *shape) bool { return s.turn == turn }); i >= 0 {
		return all[i]
	}
	key := shapeOf(p.job.Pieces[at.Piece], at.Piece, turn).key()
	return all[max(0, slices.IndexFunc(all, func(s *shape) bool { return s.key() == key }))]
}

// stateOf is a right layout as the search has it.
func (x *search) stateOf(r *layout.Result) *state {
	s := &state{out: make([]int, len(x.job.Pieces))}
	for n, l := range r.Sheets {
		kind := slices.IndexFunc(x.job.Sheets, func(o Sheet) bool { return o.Name == l.Sheet.Name })
		one := newSpread(x.rooms[kind], x.fits)
		var fixed []layout.Placed
		if n < len(x.job.Held) {
			one.held, fixed = n+1, x.job.Held[n].Pieces
		}
		for _, p := range l.Placed {
			x.lie(one, p, slices.ContainsFunc(fixed, func(h layout.Placed) bool { return h.Rect == p.Rect && h.Piece == p.Piece }))
		}
		s.sheets = append(s.sheets, one)
	}
	for _, u := range r.Unplaced {
		s.out[u.Piece]++
	}
	for i, n := range s.out {
		s.outArea += float64(n) * x.shapes[i][0].area
	}
	return s
}

// checkHeld refuses held pieces that are not in the job, stick out, lie turned as they may not, or over
// one another.
func (j *Job) checkHeld() error {
	used, copies := make([]int, len(j.Sheets)), make([]int, len(j.Pieces))
	for i, h := range j.Held {
		field := fault.Path("held", i)
		if h.Sheet < 0 || h.Sheet >= len(j.Sheets) || used[h.Sheet] == j.Sheets[h.Sheet].Count {
			return fault.New(fault.UnknownSheet, field+".sheet", "there is no such sheet left to keep pieces on")
		}
		used[h.Sheet]++
		on := j.laying(h.Sheet)
		for k, p := range h.Pieces {
			at := fault.Path(field+".pieces", k)
			if p.Piece < 0 || p.Piece >= len(j.Pieces) {
				return fault.New(fault.UnknownPiece, at, "there is no such piece to keep in place")
			}
			piece := j.Pieces[p.Piece]
			if copies[p.Piece]++; copies[p.Piece] > piece.Copies {
				return fault.New(fault.CountRange, at, "more copies of %q are kept in place than there are", piece.Name)
			}
			if !slices.Contains(piece.Turns, 90*p.Quarters()) {
				return fault.New(fault.MayNotTurn, at, "%q may not be turned so: its pattern or grain runs one way", piece.Name)
			}
			switch on.put(p) {
			case "":
			case off:
				return fault.New(fault.Outside, at, "there %q would stick out of the sheet; keep it inside", piece.Name)
			default:
				return fault.New(fault.Overlaps, at, "there %q would lie over another, or too near to it; move one of them", piece.Name)
			}
		}
	}
	return nil
}

// reachOfHand is how far a piece that is put down by hand goes to touch something, in mm.
const reachOfHand = 4.0

// Near is the place nearest to one that a hand gave a piece where it touches the sheet's edge or what lies
// there, if that is near; where it may not lie at all, the nearest place where it may.
func (j *Job) Near(sheet int, there []layout.Placed, p layout.Placed) layout.Placed {
	x := &search{prepared: j.prepared()}
	one := newSpread(x.rooms[sheet], x.fits)
	for _, o := range there {
		x.lie(one, o, true)
	}
	b := x.shapeOf(p)
	want := pattern.Pt(p.X.MM()-j.Trim, p.Y.MM()-j.Trim)
	best, far := want, math.Inf(1)
	for _, l := range one.places(b) {
		// A corner that is hardly farther than the line is where a hand means it.
		for _, q := range []pattern.Point{pattern.Segment{A: l.a, B: l.b}.Nearest(want), l.a, l.b} {
			off := q.Sub(want).Len()
			if q == l.a || q == l.b {
				off -= reachOfHand / 2
			}
			if off < far {
				best, far = q, off
			}
		}
	}
	if math.IsInf(far, 1) || far > reachOfHand && one.mayLie(b, want) {
		return p
	}
	p.X, p.Y = measure.FromMM(best.X+j.Trim), measure.FromMM(best.Y+j.Trim)
	return p
}

// mayLie tells whether a shape may lie at a place.
func (s *spread) mayLie(b *shape, at point) bool {
	if at.X < -inside || at.Y < -inside || at.X > s.room.width-b.width+inside || at.Y > s.room.height-b.height+inside {
		return false
	}
	in := func(a *shape, from point) bool {
		n := s.fits.of(a, b)
		return slices.ContainsFunc(n.sums, func(c convex) bool { return c.has(at.Sub(from)) })
	}
	if s.room.lacks != nil && in(s.room.lacks, point{}) {
		return false
	}
	return !slices.ContainsFunc(s.placed, func(l laid) bool { return in(l.shape, l.at) })
}
