package layout

import (
	"cmp"
	"slices"

	"brevium/core/measure"
)

// cutter turns the strips of one kind of sheet into cuts, and says whether
// they may be made.
type cutter struct {
	kerf, trimmer measure.Length
	stages        int
}

func (j *Job) cutter(kind int) cutter {
	c := cutter{kerf: j.Kerf, trimmer: j.Trimmer, stages: j.Stages}
	if j.left != nil && j.left[kind] > 0 {
		c.stages = j.left[kind]
	}
	return c
}

// tooLong tells whether a cut along a widened part's side is longer than the
// trimmer.
func (c cutter) tooLong(side measure.Length) bool { return c.trimmer > 0 && side-c.kerf > c.trimmer }

// tree gives the cuts that take a room of w × h apart into the strip's
// pieces, and what is over. What is over stays as whole as it can: it comes
// off in one cut before the strips are parted, or is left at their ends,
// whichever leaves the larger rectangle.
func (c cutter) tree(s *strip, w, h measure.Length) *node {
	n := leaf(w, h)
	if s != nil {
		c.fill(s, n)
	}
	return n
}

// fill is tree in a part that is whole.
func (c cutter) fill(s *strip, n *node) {
	if s.piece >= 0 {
		n.place(s.piece, s.turned, s.w, s.h, c.acrossFirst(s, n.w, n.h))
		return
	}
	if c.cutOverFirst(s, n.w, n.h) {
		n = n.cutOver(s)
	}
	c.part(s, n)
}

// acrossFirst tells whether the first cut round a single piece runs beside it:
// the larger leftover is kept whole, if the trimmer can.
func (c cutter) acrossFirst(s *strip, w, h measure.Length) bool {
	across := area(w-s.w, h) > area(w, h-s.h)
	switch {
	case across && s.w < w && c.tooLong(h):
		return false
	case !across && s.h < h && c.tooLong(w):
		return true
	}
	return across
}

// cutOverFirst tells whether what is over across the strips comes off first.
func (c cutter) cutOverFirst(s *strip, w, h measure.Length) bool {
	if !s.across {
		w, h = h, w
	}
	// From here on as if the strips lay side by side, w wide and h high.
	long, high, under := s.w, s.h, 0.0
	if !s.across {
		long, high = high, long
	}
	if high == h {
		return false
	}
	if c.tooLong(h) || c.tooLong(w) {
		return c.tooLong(h) && !c.tooLong(w)
	}
	if c.stages > 0 {
		return false
	}
	for _, k := range s.kids {
		if s.across {
			under = max(under, area(k.w, h-k.h))
		} else {
			under = max(under, area(k.h, h-k.w))
		}
	}
	return area(w, h-high) >= max(area(w-long, h), under)
}

// cutOver takes what is over across the strips off a room, and gives what
// holds them.
func (n *node) cutOver(s *strip) *node {
	at := s.h
	if !s.across {
		at = s.w
	}
	keep, _ := n.cut(!s.across, at)
	return keep
}

// part cuts a room kid by kid, the narrow ones first: they come off while the
// part is wide enough to hold, and equal settings follow one another.
func (c cutter) part(s *strip, n *node) {
	kids := slices.Clone(s.kids)
	along := func(k *strip) measure.Length {
		if s.across {
			return k.w
		}
		return k.h
	}
	slices.SortStableFunc(kids, func(a, b *strip) int { return cmp.Compare(along(a), along(b)) })
	for i, k := range kids {
		at, of := along(k), n.w
		if !s.across {
			of = n.h
		}
		if at == of && i == len(kids)-1 {
			c.fill(k, n)
			return
		}
		first, rest := n.cut(s.across, at)
		c.fill(k, first)
		n = rest
	}
}

// may tells whether the trimmer makes every cut of a tree, in as few stages as
// are allowed.
func (c cutter) may(n *node) bool {
	return (c.stages == 0 || n.stages() <= c.stages) && (c.trimmer == 0 || !n.has(func(n *node) bool {
		return n.across && c.tooLong(n.h) || !n.across && c.tooLong(n.w)
	}))
}

// stages counts how often the cuts change direction on the way to any part,
// the first direction counted.
func (n *node) stages() int {
	if n.a == nil {
		return 0
	}
	most := 0
	for _, k := range []*node{n.a, n.b} {
		below := k.stages()
		if k.a != nil && k.across == n.across {
			below--
		}
		most = max(most, below)
	}
	return most + 1
}

// has tells whether any cut of the tree is one that is asked for.
func (n *node) has(it func(*node) bool) bool {
	return n.a != nil && (it(n) || n.a.has(it) || n.b.has(it))
}

// cutFromSome tells whether some kind of sheet gives a piece alone.
func (j *Job) cutFromSome(piece int) bool {
	p := j.Pieces[piece]
	for kind := range j.Sheets {
		w, h := j.room(kind)
		s := &strip{w: p.Width + j.Kerf, h: p.Height + j.Kerf, piece: piece}
		if j.cutFrom(kind, s, w, h) {
			return true
		}
		s.w, s.h, s.turned = s.h, s.w, true
		if p.Turn && j.cutFrom(kind, s, w, h) {
			return true
		}
	}
	return false
}

func (j *Job) cutFrom(kind int, s *strip, w, h measure.Length) bool {
	c := j.cutter(kind)
	return s.w <= w && s.h <= h && c.may(c.tree(s, w, h))
}
