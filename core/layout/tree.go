package layout

import (
	"brevium/core/measure"
)

// node is a part of a sheet, widened by the kerf: whole (a piece or an
// offcut) or cut in two. In an across cut a is left and b right; else a is
// the top and b the bottom. at is a's size along the cut's measure.
type node struct {
	w, h   measure.Length
	piece  int // what lies here, or −1
	turned bool
	across bool
	at     measure.Length
	a, b   *node
}

func leaf(w, h measure.Length) *node { return &node{w: w, h: h, piece: -1} }

// cut cuts a whole part in two, and gives what is left or above, and what is right or below.
func (n *node) cut(across bool, at measure.Length) (a, b *node) {
	two := &[2]node{{w: n.w, h: n.h, piece: -1}, {w: n.w, h: n.h, piece: -1}}
	n.across, n.at, n.a, n.b = across, at, &two[0], &two[1]
	if across {
		n.a.w, n.b.w = at, n.w-at
	} else {
		n.a.h, n.b.h = at, n.h-at
	}
	return n.a, n.b
}

// place puts a piece of the widened size pw × ph into the top left corner of
// a whole part, cutting the part down to it. With acrossFirst the first cut
// runs beside the piece from top to bottom; else below it from side to side.
// It returns the parts that are left over.
func (n *node) place(piece int, turned bool, pw, ph measure.Length, acrossFirst bool) []*node {
	rest := make([]*node, 0, 2)
	part := n
	cut := func(across bool, at, of measure.Length) {
		if at == of {
			return
		}
		keep, over := part.cut(across, at)
		rest, part = append(rest, over), keep
	}
	if acrossFirst {
		cut(true, pw, n.w)
		cut(false, ph, n.h)
	} else {
		cut(false, ph, n.h)
		cut(true, pw, n.w)
	}
	part.piece, part.turned = piece, turned
	return rest
}

// leastOffcut is the narrowest strip worth calling an offcut.
const leastOffcut = 5 * measure.Millimetre

// read writes a sheet's tree out as placed pieces, offcuts and cuts.
// next gives each piece's copy number.
func (j *Job) read(laid *Laid, root *node, next []int) {
	t := j.Trim
	w, h := laid.Sheet.Width, laid.Sheet.Height
	part, at := "1", Rect{0, 0, w, h}
	cut := func(across bool, fence measure.Length, keep string) {
		c := Cut{Part: part, Across: across, At: fence, X: at.X, Y: at.Y}
		if across {
			c.X, c.Length, c.Of = at.X+fence, at.Height, at.Width
		} else {
			c.Y, c.Length, c.Of = at.Y+fence, at.Width, at.Height
		}
		laid.Cuts = append(laid.Cuts, c)
		part += keep
	}
	if t > 0 {
		// The blade's own width comes out of the trimmed strip.
		fence := max(0, t-j.Kerf)
		cut(true, fence, ".2")
		at.X, at.Width = t, w-t
		cut(true, w-2*t, ".1")
		at.Width = w - 2*t
		cut(false, fence, ".2")
		at.Y, at.Height = t, h-t
		cut(false, h-2*t, ".1")
	}
	j.walk(laid, root, part, t, t, next)
	laid.Order()
}

func (j *Job) walk(laid *Laid, n *node, part string, x, y measure.Length, next []int) {
	w, h := n.w-j.Kerf, n.h-j.Kerf
	switch {
	case n.a != nil:
		c := Cut{Part: part, Across: n.across, At: n.at - j.Kerf, X: x, Y: y}
		bx, by := x, y
		if n.across {
			c.X, c.Length, c.Of, bx = x+c.At, h, w, x+n.at
		} else {
			c.Y, c.Length, c.Of, by = y+c.At, w, h, y+n.at
		}
		laid.Cuts = append(laid.Cuts, c)
		j.walk(laid, n.a, part+".1", x, y, next)
		j.walk(laid, n.b, part+".2", bx, by, next)
	case n.piece >= 0:
		next[n.piece]++
		laid.Placed = append(laid.Placed, Placed{Rect: Rect{x, y, w, h}, Piece: n.piece, Copy: next[n.piece], Turned: n.turned})
	case w >= leastOffcut && h >= leastOffcut:
		laid.Offcuts = append(laid.Offcuts, Rect{x, y, w, h})
	}
}
