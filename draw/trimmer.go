package draw

import (
	"slices"
	"strings"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Trimmer is the paper trimmer with a part of a sheet on it: its edge on the fence,
// the blade where it is cut, and a part that is an offcut hatched.
func Trimmer(r *design.Result, t bench.Trim) *Picture {
	const rim = 8.0
	stock := r.Stocks[t.Stock]
	w, h := t.Whole.Width.MM(), t.Whole.Height.MM()
	// A part whose top edge comes to the fence is turned a quarter against the clock.
	place := func(x, y float64) pattern.Point { return pattern.Pt(x, y) }
	long, high := w, h
	if t.Edge == "top" {
		place = func(x, y float64) pattern.Point { return pattern.Pt(y, w-x) }
		long, high = h, w
	}
	area := func(of layout.Rect) []pattern.Point {
		x, y := (of.X - t.Whole.X).MM(), (of.Y - t.Whole.Y).MM()
		q := rect(x, y, of.Width.MM(), of.Height.MM())
		for i := range q {
			q[i] = place(q[i].X, q[i].Y)
		}
		return q
	}
	in := &r.Inputs
	p := newPicture("The trimmer", long+2*rim, high+2*rim+26, 12)
	p.X, p.Y = p.X-rim, p.Y-rim-24
	p.polygon(CardShade, rect(-rim, -rim, long+2*rim, high+2*rim)...)
	sheet := p.polygon(SheetArea, area(t.Whole)...)
	sheet.Fill = &Fill{Look: stock.Card.Seen(), Lay: Still}
	laid := stock.Layout.Sheets[t.Sheet]
	for _, pl := range laid.Placed {
		if !t.Whole.Holds(pl.Rect) {
			continue
		}
		q := area(pl.Rect)
		p.polygon(Outline, q...)
		lo, hi := pattern.Bounds(q)
		p.label(area4(lo, hi), Text, strings.ToLower(r.PieceName(stock.Job.Pieces[pl.Piece].Name)), "", 22)
	}
	for _, part := range []layout.Rect{t.Near, t.Far} {
		if slices.ContainsFunc(laid.Placed, func(pl layout.Placed) bool { return part.Holds(pl.Rect) }) {
			continue // it is kept
		}
		p.add(Shape{Class: Remove, Loops: hatch([][]pattern.Point{area(part)}, 16*p.U)})
		lo, hi := pattern.Bounds(area(part))
		p.label(area4(pattern.Pt(lo.X, hi.Y-min(hi.Y-lo.Y, 34*p.U)), hi), TextBad, layout.Leftover, "", 24)
	}
	p.line(Fence, pattern.Pt(0, -rim), pattern.Pt(0, high+rim))
	at := t.At.MM()
	p.line(Lit, pattern.Pt(at, -rim), pattern.Pt(at, high+rim))
	p.text(TextNumber, pattern.Pt(at, -rim-4), 44, Middle, measure.Number(t.At, in.Units, in.Tools.Tick))
	edge := p.text(Text, pattern.Pt(9*p.U+3, high/2), 20, Middle, t.Edge+" edge")
	edge.Angle = -90
	return p
}

func area4(lo, hi pattern.Point) area { return area{lo.X, lo.Y, hi.X - lo.X, hi.Y - lo.Y} }
