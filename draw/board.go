package draw

import (
	"math"

	"brevium/core/bench"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// Board is the scoring board as it lies on the table, a card on it with an edge on
// the fence, and one groove of it lit.
type Board struct {
	Fence recipe.Fence
	Units measure.Unit
	Tick  measure.Tick
	From  From // the card
	// Up is where its paper runs up to on the flat piece, as a Net's PaperUp.
	Up int
}

// tops is where the top edge of a card lies, seen from its middle, when another is on
// a fence on the left.
var tops = map[string]pattern.Point{"left": {Y: -1}, "top": {X: -1}, "right": {Y: 1}, "bottom": {X: 1}}

// Picture draws the board with a blank of w × h on it.
func (b Board) Picture(g bench.Groove, w, h measure.Length) *Picture {
	along, across := w.MM(), h.MM()
	if g.Edge == "top" || g.Edge == "bottom" {
		along, across = across, along
	}
	unit := measure.Inch
	if b.Units != measure.In {
		unit = measure.Centimetre
	}
	const rim = 9.0
	long := math.Ceil(max(along, g.At.MM()+g.Shim.MM())/unit.MM()+0.8) * unit.MM()
	high := across + 2*rim
	p := newPicture("The scoring board", long+2*rim, high+26, 12)
	// Everything is drawn from a fence on the left, and turned over for the other.
	x := func(at float64) float64 {
		if b.Fence == recipe.Right {
			return long - at
		}
		return at
	}
	box := func(c Class, from, to, top, foot float64) *Shape {
		l, r := min(x(from), x(to)), max(x(from), x(to))
		return p.polygon(c, rect(l, top, r-l, foot-top)...)
	}
	p.X, p.Y = p.X-rim, p.Y-rim-22
	box(CardShade, -rim, long, -rim, high-rim)
	for at := unit; at.MM() <= long; at += unit {
		p.line(Guide, pattern.Pt(x(at.MM()), -rim), pattern.Pt(x(at.MM()), high-rim))
		p.text(TextQuiet, pattern.Pt(x(at.MM()), -rim-3), 15, Middle, measure.Number(at, b.Units, b.Tick))
	}
	card := box(Card, g.Shim.MM(), g.Shim.MM()+along, 0, across)
	card.Fill = &Fill{Look: b.From.Card.Seen(), Lay: Still}
	if b.Up != 0 {
		d := tops[g.Edge].Scale(-float64(b.Up))
		if b.Fence == recipe.Right {
			d.X = -d.X
		}
		mid, long := pattern.Pt(x(g.Shim.MM()+along/2), across/2), 40*p.U
		tip := mid.Add(d.Scale(long))
		p.line(Arrow, mid.Sub(d.Scale(long)), tip)
		for _, side := range []float64{-1, 1} {
			p.line(Arrow, tip, tip.Sub(d.Scale(14*p.U)).Add(pattern.Pt(-d.Y, d.X).Scale(side*9*p.U)))
		}
		p.text(TextQuiet, mid.Add(pattern.Pt(12*p.U, 0)), 16, Start, "the paper's way up")
	}
	p.line(Fence, pattern.Pt(x(0), -rim), pattern.Pt(x(0), high-rim))
	p.line(Lit, pattern.Pt(x(g.At.MM()), -rim), pattern.Pt(x(g.At.MM()), high-rim))
	p.text(TextNumber, pattern.Pt(x(g.At.MM()), -rim-12), 44, Middle, measure.Number(g.At, b.Units, b.Tick))
	edge := p.text(Text, pattern.Pt(x(g.Shim.MM()+9), across/2), 20, Middle, g.Edge+" edge")
	edge.Angle = -90
	return p
}
