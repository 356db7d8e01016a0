package draw

import (
	"brevium/core/paper"
	"brevium/core/pattern"
)

// grain draws which way a card's fibres run, beside what lies from 0, 0 to w, h: an arrow with two
// heads and its name, below where it runs from left to right, to the right where it runs up.
func (p *Picture) grain(run paper.Run, w, h float64) {
	if run == paper.RunUnknown {
		return
	}
	half, off := min(34*p.U, min(w, h)/2), 15*p.U
	mid, d := pattern.Pt(w/2, h+off), pattern.Pt(1, 0)
	if run == paper.RunWidth {
		mid, d = pattern.Pt(w+off, h/2), pattern.Pt(0, 1)
	}
	side := pattern.Pt(-d.Y, d.X)
	p.line(Arrow, mid.Sub(d.Scale(half)), mid.Add(d.Scale(half)))
	for _, way := range []float64{1, -1} {
		tip := mid.Add(d.Scale(way * half))
		back := tip.Sub(d.Scale(way * 9 * p.U))
		p.add(Shape{Class: Arrow, Loops: [][]pattern.Point{{back.Add(side.Scale(5 * p.U)), tip, back.Sub(side.Scale(5 * p.U))}}})
	}
	at := mid.Add(d.Scale(half + 8*p.U))
	if run == paper.RunLength {
		p.text(TextQuiet, at.Add(pattern.Pt(0, 6*p.U)), 18, Start, "grain")
		return
	}
	s := p.text(TextQuiet, at.Add(pattern.Pt(6*p.U, 0)), 18, End, "grain")
	s.Angle = -90
}
