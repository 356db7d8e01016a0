package layout

import (
	"math"
	"math/bits"
	"slices"

	"brevium/core/measure"
	"brevium/core/paper"
)

// mostExact is the most pieces that are laid out exactly.
const mostExact = 8

// exact finds the cheapest layout of few pieces by going through all of them:
// for every set of pieces the smallest rectangles that hold it, each made of
// two smaller ones side by side or one below the other, which is what
// edge-to-edge cuts can take apart; then the cheapest way to part all pieces
// into sets that go on a sheet; of equals the one on fewer sheets, then the one
// that leaves the largest single offcut. It gives nil when there are too many
// pieces, when the sheets run out, when not every cut may be made, or when all of
// the budget is spent.
func (j *Job) exact(m *meter) *plan {
	if j.total() > mostExact || len(j.Sheets) > len(exactState{}.used) || j.constrained() {
		return nil
	}
	items := j.items()
	s := exactSearch{job: j, meter: m, items: items, shapes: make([][]*strip, 1<<len(items)), best: map[exactState]*exactPlan{}}
	s.prices, s.laid = j.Prices(), map[[2]int]exactSheet{}
	for kind := range j.Sheets {
		w, h := j.room(kind)
		s.rooms = append(s.rooms, [2]int64{int64(w), int64(h)})
	}
	s.likeness()
	for set := 1; set < len(s.shapes); set++ {
		if like := s.like[set]; like != set {
			s.shapes[set] = s.shapes[like]
		} else {
			s.shape(set)
		}
	}
	left := exactState{set: len(s.shapes) - 1}
	for i, k := range j.Sheets {
		left.used[i] = int8(min(k.Count, len(items)))
	}
	found := s.part(left)
	if !m.more(1) {
		return nil
	}
	if math.IsInf(found.cost, 1) {
		return nil
	}
	out := &plan{}
	taken := make([]bool, len(items))
	for p := found; p.root != nil; p = p.rest {
		out.sheets = append(out.sheets, j.use(p.kind, s.named(p.root, taken)))
	}
	return out
}

type exactSearch struct {
	job    *Job
	meter  *meter
	items  []item
	rooms  [][2]int64
	prices []float64
	shapes [][]*strip // by set: rectangles of which none holds another
	class  []int      // by item: the first that is as large as it, and may turn as it may
	like   []int      // by set: the first that holds as many of each class
	laid   map[[2]int]exactSheet
	best   map[exactState]*exactPlan
}

// exactSheet is the way of laying a set on a kind of sheet that leaves the
// largest offcut; the root is nil when it does not go.
type exactSheet struct {
	root   *strip
	offcut float64
}

// exactState is the pieces that are left and the sheets of each kind,
// paper.Unlimited for no end.
type exactState struct {
	set  int
	used [6]int8
}

// exactPlan is one sheet and what follows it.
type exactPlan struct {
	worth
	kind int
	root *strip
	rest *exactPlan
}

// likeness finds which items, and which sets of them, are as good as others.
func (s *exactSearch) likeness() {
	s.class, s.like = make([]int, len(s.items)), make([]int, len(s.shapes))
	for i, a := range s.items {
		s.class[i] = slices.IndexFunc(s.items, func(b item) bool {
			return a.w == b.w && a.h == b.h && s.job.Pieces[a.piece].Turn == s.job.Pieces[b.piece].Turn
		})
	}
	for set := range s.like {
		var counts [mostExact]int
		for i, class := range s.class {
			counts[class] += set >> i & 1
		}
		for i, class := range s.class {
			if counts[class] > 0 {
				counts[class]--
				s.like[set] |= 1 << i
			}
		}
	}
}

// named copies a strip, with an item of its own for each of its pieces.
func (s *exactSearch) named(r *strip, taken []bool) *strip {
	out := *r
	if r.piece >= 0 {
		first := slices.IndexFunc(s.items, func(it item) bool { return it.piece == r.piece })
		for i, class := range s.class {
			if class == s.class[first] && !taken[i] {
				taken[i], out.piece = true, s.items[i].piece
				break
			}
		}
		return &out
	}
	out.kids = nil
	for _, kid := range r.kids {
		out.kids = append(out.kids, s.named(kid, taken))
	}
	return &out
}

// fits tells whether a rectangle goes on some sheet.
func (s *exactSearch) fits(r *strip) bool {
	return slices.ContainsFunc(s.rooms, func(room [2]int64) bool { return int64(r.w) <= room[0] && int64(r.h) <= room[1] })
}

// shape finds the smallest rectangles for a set from those of its parts.
func (s *exactSearch) shape(set int) {
	if bits.OnesCount(uint(set)) == 1 {
		it := s.items[bits.TrailingZeros(uint(set))]
		s.offer(set, &strip{w: it.w, h: it.h, piece: it.piece})
		if s.job.Pieces[it.piece].Turn && it.w != it.h {
			s.offer(set, &strip{w: it.h, h: it.w, piece: it.piece, turned: true})
		}
		return
	}
	lowest := set & -set
	var tried [1 << mostExact]bool
	for part := (set - 1) & set; part > 0; part = (part - 1) & set {
		if part&lowest == 0 || tried[s.like[part]] {
			continue
		}
		tried[s.like[part]] = true
		if !s.meter.more(len(s.shapes[part])) {
			return
		}
		for _, a := range s.shapes[part] {
			for _, b := range s.shapes[set^part] {
				s.offer(set, &strip{piece: -1, across: true, w: a.w + b.w, h: max(a.h, b.h), kids: []*strip{a, b}})
				s.offer(set, &strip{piece: -1, w: max(a.w, b.w), h: a.h + b.h, kids: []*strip{a, b}})
			}
		}
	}
}

// offer keeps a rectangle unless one that is kept goes wherever it does.
func (s *exactSearch) offer(set int, r *strip) {
	if !s.fits(r) || slices.ContainsFunc(s.shapes[set], func(o *strip) bool { return o.w <= r.w && o.h <= r.h }) {
		return
	}
	kept := slices.DeleteFunc(s.shapes[set], func(o *strip) bool { return r.w <= o.w && r.h <= o.h })
	s.shapes[set] = append(kept, r)
}

// part parts the pieces that are left into sheets.
func (s *exactSearch) part(left exactState) *exactPlan {
	if left.set == 0 {
		return &exactPlan{}
	}
	if p, known := s.best[left]; known {
		return p
	}
	best := &exactPlan{worth: worth{cost: math.Inf(1)}}
	lowest := left.set & -left.set
	var tried [1 << mostExact]bool
	for part := left.set; part > 0; part = (part - 1) & left.set {
		if part&lowest == 0 || tried[s.like[part]] {
			continue
		}
		tried[s.like[part]] = true
		if !s.meter.more(len(s.rooms)) {
			break
		}
		for kind := range s.rooms {
			if left.used[kind] == 0 {
				continue
			}
			sheet := s.sheet(part, kind)
			if sheet.root == nil {
				continue
			}
			next := exactState{s.like[left.set^part], left.used}
			if next.used[kind] != paper.Unlimited {
				next.used[kind]--
			}
			rest := s.part(next)
			w := worth{cost: s.prices[kind] + rest.cost, sheets: 1 + rest.sheets, offcut: max(sheet.offcut, rest.offcut)}
			if w.better(best.worth) {
				best = &exactPlan{w, kind, sheet.root, rest}
			}
		}
	}
	s.best[left] = best
	return best
}

// sheet lays a set on a kind of sheet.
func (s *exactSearch) sheet(set, kind int) exactSheet {
	set = s.like[set]
	key := [2]int{set, kind}
	if known, ok := s.laid[key]; ok {
		return known
	}
	best := exactSheet{offcut: -1}
	room, c := s.rooms[kind], s.job.cutter(kind)
	for _, r := range s.shapes[set] {
		if int64(r.w) > room[0] || int64(r.h) > room[1] {
			continue
		}
		root := flat(r)
		if offcut := c.tree(root, measure.Length(room[0]), measure.Length(room[1])).largest(); offcut > best.offcut {
			best = exactSheet{root, offcut}
		}
	}
	s.laid[key] = best
	return best
}

// flat gives a strip of two kids at a time as one of the usual form.
func flat(s *strip) *strip {
	if s.piece >= 0 {
		return s
	}
	return group(s.across, []*strip{flat(s.kids[0]), flat(s.kids[1])})
}
