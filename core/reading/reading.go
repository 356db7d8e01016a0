// Package reading reads a recipe as people write it: blanks, where they are scored,
// panels, and what it claims to make. docs/recipes.md has the grammar.
package reading

import (
	"slices"

	"brevium/core/measure"
)

// Piece is a blank that a recipe cuts, with the scores over its whole length: where
// they lie across, from its left edge, and down, from its top edge.
type Piece struct {
	Name                 string
	Width, Height        measure.Length
	Vertical, Horizontal []measure.Length
	Copies               int
	Panel                bool // it is glued onto another, not scored
	// Shim is held between the fence and the card.
	Shim     measure.Length
	From, To int // where it stands in the text
	passes   []pass
	less     measure.Length // than another, whose scores it has
	like     int            // that other, −1 for none
}

// Span is a stretch of the text.
type Span struct {
	Text     string
	From, To int
}

// Claim is the finished size that a recipe says it makes.
type Claim struct {
	Size [3]measure.Length
	Span
}

// Reading is what was understood of a text.
type Reading struct {
	Unit   measure.Unit
	Pieces []Piece
	Claims []Claim
	// Said is what the text says of the work besides, such as how corners are cut.
	Said []string
	// Uses are the numbers of blanks and scores, where they stand in the text.
	Uses []Use
	// NotUnderstood is the rest: words and numbers of which nothing was made.
	NotUnderstood []Span
}

// Use is a number of the text that a piece was made of: its width, its height, or the
// nth number of a pass.
type Use struct {
	Span
	Piece   int
	What    What
	pass, n int
}

// What a number is of.
type What int

// The numbers of a piece.
const (
	Width What = iota
	Height
	Score
)

// edge tells from where the numbers of a pass count.
type edge int

const (
	along      edge = iota // from the left, or after a turn from the top
	fromAll                // from each of the four edges
	fromLong               // from each of the two long edges
	fromShort              // from each of the two short edges
	alongLong              // along the long side
	alongShort             // along the short side
	alongSize              // along the side of a size
	bothEnds               // from either end, along
	fromLeft
	fromRight
	fromTop
	fromBottom
)

// pass is numbers that are scored one after the other.
type pass struct {
	from   edge
	turned bool
	size   measure.Length // of alongSize
	at     []measure.Length
	spans  []Span // of at, in the text
	shim   measure.Length
}

// place puts the lines of a pass on a piece. What lies off it is given back.
func (p *Piece) place(x pass) (off []measure.Length) {
	up, level := &p.Vertical, &p.Horizontal
	put := func(into *[]measure.Length, whole, at measure.Length) {
		switch {
		case at <= 0 || at >= whole:
			off = append(off, at)
		case !slices.Contains(*into, at):
			*into = append(*into, at)
		}
	}
	for _, at := range x.at {
		at -= x.shim
		w, h := p.Width, p.Height
		mirrored := func(into *[]measure.Length, whole measure.Length) {
			put(into, whole, at)
			put(into, whole, whole-at)
		}
		switch x.from {
		case fromAll:
			mirrored(up, w)
			mirrored(level, h)
		case fromLong:
			if w >= h {
				mirrored(level, h)
			} else {
				mirrored(up, w)
			}
		case fromShort:
			if w >= h {
				mirrored(up, w)
			} else {
				mirrored(level, h)
			}
		case alongLong, alongShort, alongSize:
			across := (w >= h) == (x.from == alongLong)
			if x.from == alongSize {
				across = x.size == w
			}
			if across {
				put(up, w, at)
			} else {
				put(level, h, at)
			}
		case bothEnds:
			if x.turned {
				mirrored(level, h)
			} else {
				mirrored(up, w)
			}
		case fromLeft:
			put(up, w, at)
		case fromRight:
			put(up, w, w-at)
		case fromTop:
			put(level, h, at)
		case fromBottom:
			put(level, h, h-at)
		default:
			if x.turned {
				put(level, h, at)
			} else {
				put(up, w, at)
			}
		}
	}
	slices.Sort(*up)
	slices.Sort(*level)
	return off
}
