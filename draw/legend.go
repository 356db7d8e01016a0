package draw

import "brevium/core/pattern"

// LegendEntry is one line of the line language with a sample of it.
type LegendEntry struct {
	Text   string
	Sample *Picture
}

// Legend tells the line language, for a page to set beside a drawing.
func Legend() []LegendEntry {
	entry := func(text string, draw func(p *Picture)) LegendEntry {
		p := &Picture{Width: 44, Height: 16, U: 1, Title: text}
		draw(p)
		return LegendEntry{text, p}
	}
	a, b := pattern.Pt(2, 8), pattern.Pt(42, 8)
	score := func(side pattern.Side) func(*Picture) {
		return func(p *Picture) { Net{}.crease(p, pattern.Crease{Segment: pattern.Segment{A: a, B: b}, Side: side}) }
	}
	return []LegendEntry{
		entry("cut", func(p *Picture) { p.line(Cut, a, b) }),
		entry("fold away from you", score(pattern.Away)),
		entry("fold towards you", score(pattern.Towards)),
		entry("score that stops short", func(p *Picture) {
			score(pattern.Away)(p)
			Net{}.bars(p, pattern.Segment{A: a, B: b})
		}),
		entry("cut away", func(p *Picture) {
			box := rect(3, 1, 38, 14)
			p.add(Shape{Class: Remove, Loops: hatch([][]pattern.Point{box}, 6)})
			p.polygon(Blank, box...)
		}),
		entry("glue", func(p *Picture) {
			Net{}.glue(p, pattern.Glue{Outside: true, Area: rect(2, 0, 40, 16)})
		}),
		entry("window", func(p *Picture) {
			p.polygon(Guide, rect(8, 2, 28, 12)...)
			p.polygon(Guide, rect(10, 4, 24, 8)...)
		}),
	}
}
