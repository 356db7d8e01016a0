package layout

import "brevium/core/measure"

// strip is a used part of a sheet in a slicing tree: a single piece, or
// strips laid side by side (across) or one below the other. Its size is what
// its contents need; the room it stands in may be larger, and what is over is
// free. Strips are never changed once made: a change makes new ones along the
// path to the root, so that an older layout stays whole.
type strip struct {
	w, h   measure.Length
	piece  int // −1 for a group
	turned bool
	across bool
	kids   []*strip
}

// group makes a strip of its kids, taking in those that run the same way and
// leaving out groups of one.
func group(across bool, kids []*strip) *strip {
	switch len(kids) {
	case 0:
		return nil
	case 1:
		return kids[0]
	}
	flat := kids
	for _, k := range kids {
		if k.piece < 0 && k.across == across {
			flat = nil
			break
		}
	}
	if flat == nil {
		for _, k := range kids {
			if k.piece < 0 && k.across == across {
				flat = append(flat, k.kids...)
			} else {
				flat = append(flat, k)
			}
		}
	}
	s := &strip{piece: -1, across: across, kids: flat}
	for _, k := range flat {
		if across {
			s.w, s.h = s.w+k.w, max(s.h, k.h)
		} else {
			s.w, s.h = max(s.w, k.w), s.h+k.h
		}
	}
	return s
}

// way is how a piece can join a strip.
type way uint8

const (
	beside  way = iota // to the right of the whole strip
	below              // under the whole strip
	waysEnd            // no way found
)

// spot is the best place found so far for a piece.
type spot struct {
	score  float64
	path   []int8
	way    way
	turned bool
}

// copy keeps a spot beyond the next look.
func (s *spot) copy(from *spot) {
	path := append(s.path[:0], from.path...)
	*s = *from
	s.path = path
}

// seeker looks through a sheet's tree for the place where a piece wastes
// least, and of equals the one that leaves the smaller rest.
type seeker struct {
	best spot
	path []int8
	// may, when set, tells whether a place can be cut; not every tree can
	// where stages or the trimmer set limits.
	may func(path []int8, how way, turned bool) bool
}

// span is an area in nm², for comparing.
func span(w, h measure.Length) float64 { return float64(w) * float64(h) }

// look tries the piece of size pw × ph at every strip of the tree. The strip
// stands in a room of rw × rh, into which it may grow.
func (k *seeker) look(s *strip, rw, rh, pw, ph measure.Length, turned bool) {
	over, under := rw-s.w, rh-s.h
	if over >= pw && rh >= ph {
		k.offer(sides{s.w + pw, max(s.h, ph)}, sides{rw, rh}, sides{pw, ph}, s, beside, turned)
	}
	if under >= ph && rw >= pw {
		k.offer(sides{max(s.w, pw), s.h + ph}, sides{rw, rh}, sides{pw, ph}, s, below, turned)
	}
	if s.piece >= 0 || len(k.path) > 20 {
		return
	}
	// A kid may grow by what is over along the strip, and across it to the
	// whole room.
	for i, kid := range s.kids {
		w, h := rw, rh
		if s.across {
			w = over + kid.w
		} else {
			h = under + kid.h
		}
		if w < pw || h < ph || w-kid.w < pw && h-kid.h < ph && kid.piece >= 0 {
			continue
		}
		k.path = append(k.path, int8(i))
		k.look(kid, w, h, pw, ph, turned)
		k.path = k.path[:len(k.path)-1]
	}
}

// sides are the width and height of something.
type sides struct{ w, h measure.Length }

// offer scores a place for a piece in a room, where the strip would grow to so
// much: the area it grows by beyond the piece's own, and a little of the room
// left over on the tighter side.
func (k *seeker) offer(grown, room, piece sides, s *strip, how way, turned bool) {
	w, h, rw, rh, pw, ph := grown.w, grown.h, room.w, room.h, piece.w, piece.h
	score := span(w, h) - span(s.w, s.h) - span(pw, ph)
	if score >= k.best.score {
		return
	}
	score += fuss * min(span(rw-w, rh), span(rw, rh-h))
	if score >= k.best.score || k.may != nil && !k.may(k.path, how, turned) {
		return
	}
	k.best.score, k.best.way, k.best.turned = score, how, turned
	k.best.path = append(k.best.path[:0], k.path...)
}

// join gives the tree with a piece put at the end of a path.
func (s *strip) join(path []int8, how way, p *strip) *strip {
	if len(path) == 0 {
		return group(how == beside, []*strip{s, p})
	}
	kids := append(make([]*strip, 0, len(s.kids)+1), s.kids...)
	kids[path[0]] = kids[path[0]].join(path[1:], how, p)
	return group(s.across, kids)
}

// count is the number of strips in the tree.
func (s *strip) count() int {
	n := 1
	for _, k := range s.kids {
		n += k.count()
	}
	return n
}

// without gives the tree with its nth strip (in the order of count) taken
// out, and the strip that was taken; the tree may be nil.
func (s *strip) without(n int) (rest, taken *strip) {
	if n == 0 {
		return nil, s
	}
	n--
	for i, k := range s.kids {
		c := k.count()
		if n >= c {
			n -= c
			continue
		}
		left, taken := k.without(n)
		kids := append(make([]*strip, 0, len(s.kids)), s.kids[:i]...)
		if left != nil {
			kids = append(kids, left)
		}
		return group(s.across, append(kids, s.kids[i+1:]...)), taken
	}
	return s, nil
}

// pieces adds the pieces of a tree to a list.
func (s *strip) pieces(to []int) []int {
	if s == nil {
		return to
	}
	if s.piece >= 0 {
		return append(to, s.piece)
	}
	for _, k := range s.kids {
		to = k.pieces(to)
	}
	return to
}
