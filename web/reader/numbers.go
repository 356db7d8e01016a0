package reader

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/found"
	"brevium/core/reading"
	"brevium/draw"
)

// colours is how many a page has for lines; numbers go through them in turn.
const colours = 6

// numbered is a number of the text that tells lines of a piece, or a side of it: the how-manieth of
// that piece it is.
type numbered struct {
	reading.Use
	number int
}

// key names what a number tells to the page; it ends with its colour.
func (n numbered) key() string {
	return fmt.Sprintf("%d-%d-c%d", n.Piece, n.number, (n.number-1)%colours+1)
}

// told numbers what the numbers of a recipe tell, piece by piece, as they stand in the text.
func told(t *found.Told) []numbered {
	uses := slices.Clone(t.Uses)
	slices.SortStableFunc(uses, func(a, b reading.Use) int {
		return cmp.Or(cmp.Compare(a.Piece, b.Piece), cmp.Compare(a.From, b.From))
	})
	var out []numbered
	for i, u := range uses {
		n := numbered{u, 1}
		if i > 0 && uses[i-1].Piece == u.Piece {
			if n.number = out[i-1].number; uses[i-1].From != u.From {
				n.number++
			}
		}
		out = append(out, n)
	}
	return out
}

// linesOf are those of a piece, for its drawing.
func linesOf(t *found.Told, all []numbered, piece int) []draw.ReadLine {
	var out []draw.ReadLine
	for _, n := range all {
		if n.Piece != piece {
			continue
		}
		l := draw.ReadLine{Number: n.number, Key: n.key()}
		if n.What != reading.Score {
			l.Side, l.Down = true, n.What == reading.Height
			out = append(out, l)
			continue
		}
		across, down := t.Lines(n.Use)
		for _, at := range across {
			l.At, l.Down = at, false
			out = append(out, l)
		}
		for _, at := range down {
			l.At, l.Down = at, true
			out = append(out, l)
		}
	}
	return out
}

// taken are the words for what a number was taken as that tells no line.
var taken = map[reading.Role]string{
	reading.OfCount: "a count", reading.OfSize: "a size beside", reading.OfPaper: "paper or card",
	reading.OfFit: "an allowance", reading.OfClaim: "of a finished size that is claimed",
}

// marked is a stretch of the text that the page marks.
type marked struct {
	reading.Span
	run
}

// marks are the numbers of the text and what was not understood, in its order.
func marks(t *found.Told, told []numbered) []marked {
	var out []marked
	for _, s := range t.NotUnderstood {
		out = append(out, marked{s, run{Odd: true}})
	}
	for _, n := range t.Numbers {
		i := slices.IndexFunc(told, func(u numbered) bool { return u.From == n.From })
		switch {
		case i >= 0:
			out = append(out, marked{n.Span, run{Key: told[i].key(), Number: told[i].number}})
		case taken[n.As] != "":
			out = append(out, marked{n.Span, run{As: taken[n.As]}})
		}
	}
	slices.SortStableFunc(out, func(a, b marked) int { return a.Span.From - b.Span.From })
	return out
}
