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
	On                   On   // where, for a panel
	// Shim is held between the fence and the card.
	Shim     measure.Length
	From, To int      // where it stands in the text
	aliases  []string // words that the text knows it by: "outer", "A", "white"
	passes   []pass
	like     int // that other, −1 for none
	// guessed says that its one number was taken as from all four edges.
	guessed bool
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
	// Borders are papers that are told by what shows round them.
	Borders []Border
	// Said is what the text says of the work besides, such as how corners are cut, and
	// what of it was guessed or looks as if it were not all.
	Said []string
	// Uses are the numbers of blanks and scores, where they stand in the text.
	Uses []Use
	// Numbers are all numbers of the text, in its order, each with what it was taken as.
	Numbers []Number
	// NotUnderstood is the rest: words and numbers of which nothing was made.
	NotUnderstood []Span
	// OffCard says that a score lies beside its blank.
	OffCard bool
	// Voice is the language of the text.
	Voice   Voice
	guessed bool // its unit: the text does not tell
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
	fromSize               // from each of the two edges of a size
	endsOfSize             // from either end of the side of a size
	bothWays               // along the one side, and along the other
	bothEnds               // from either end, along
	fromLeft
	fromRight
	fromTop
	fromBottom
	besideMiddle // to either side of the middle, along
)

// pass is numbers that are scored one after the other.
type pass struct {
	from   edge
	turned bool
	size   measure.Length // of alongSize, fromSize and endsOfSize
	at     []measure.Length
	spans  []Span // of at, in the text
	shim   measure.Length
	every  bool // at all multiples of its number
	// parts are how many equal ones the side is parted into; mirrored numbers count from the other
	// end of it.
	parts    int
	mirrored bool
}

// cross turns the passes that do not say along which side they lie, where they lie on
// the piece only the other way: "1 1/2 x 12, score at 3, 6 and 9".
func (p *Piece) cross() {
	off := func(swap bool) bool {
		for _, x := range p.passes {
			whole := p.Width
			if x.turned != swap {
				whole = p.Height
			}
			if x.from == along && slices.ContainsFunc(x.at, func(at measure.Length) bool { return at-x.shim >= whole }) {
				return true
			}
		}
		return false
	}
	if !off(false) || off(true) {
		return
	}
	p.passes = slices.Clone(p.passes)
	for i := range p.passes {
		if p.passes[i].from == along {
			p.passes[i].turned = !p.passes[i].turned
		}
	}
}

// allRound takes the one number of a piece, where that is all that is said of its scores
// and not from where it counts ("8 x 8, scored 2 in"), as of all four edges. It reports
// whether it did.
func (p *Piece) allRound() bool {
	if p.Panel || len(p.passes) != 1 {
		return false
	}
	x := p.passes[0]
	if x.from != along || x.turned || x.every || len(x.at) != 1 || 2*x.at[0] >= min(p.Width, p.Height) {
		return false
	}
	p.passes, p.guessed = []pass{{from: fromAll, at: x.at, spans: x.spans, shim: x.shim}}, true
	return true
}

// level reports whether a pass that counts along a side makes lines across the height.
func (x pass) level(p *Piece) bool {
	switch x.from {
	case alongLong:
		return p.Width < p.Height
	case alongShort:
		return p.Width >= p.Height
	case alongSize:
		return x.size != p.Width
	}
	return x.turned
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
	ats := slices.Clone(x.at)
	for n := range max(0, x.parts-1) {
		whole := p.Width
		if x.level(p) {
			whole = p.Height
		}
		ats = append(ats, whole*measure.Length(n+1)/measure.Length(x.parts))
	}
	from := func(whole, at measure.Length) measure.Length {
		if x.mirrored {
			return whole - at
		}
		return at
	}
	if x.every && len(x.at) == 1 && x.at[0] > 0 {
		whole := p.Width
		if x.level(p) {
			whole = p.Height
		}
		for at := 2 * x.at[0]; at < whole && len(ats) < mostScores; at += x.at[0] {
			ats = append(ats, at)
		}
	}
	for _, at := range ats {
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
		case fromLong, fromShort:
			if (w >= h) == (x.from == fromLong) {
				mirrored(level, h)
			} else {
				mirrored(up, w)
			}
		case alongLong, alongShort, alongSize:
			if x.level(p) {
				put(level, h, from(h, at))
			} else {
				put(up, w, from(w, at))
			}
		case besideMiddle:
			into, whole := up, w
			if x.turned {
				into, whole = level, h
			}
			put(into, whole, whole/2-at)
			put(into, whole, whole/2+at)
		case fromSize, endsOfSize:
			if (x.size == w) == (x.from == fromSize) {
				mirrored(level, h)
			} else {
				mirrored(up, w)
			}
		case bothWays:
			put(up, w, at)
			put(level, h, at)
		case bothEnds:
			if x.turned {
				mirrored(level, h)
			} else {
				mirrored(up, w)
			}
		case fromLeft, fromRight:
			into, whole := up, w
			if x.turned {
				into, whole = level, h
			}
			if x.from == fromRight {
				at = whole - at
			}
			put(into, whole, at)
		case fromTop:
			put(level, h, at)
		case fromBottom:
			put(level, h, h-at)
		default:
			if x.turned {
				put(level, h, from(h, at))
			} else {
				put(up, w, from(w, at))
			}
		}
	}
	slices.Sort(*up)
	slices.Sort(*level)
	return off
}
