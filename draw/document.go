package draw

import "brevium/core/pattern"

// Document draws in small what a print looks like, so that one finds it without reading: a page
// with what stands on it. Kinds are those of the prints; one that is not known is an empty page.
func Document(kind string) *Picture {
	const wide, high = 60.0, 80.0
	p := &Picture{X: -2, Y: -2, Width: wide + 4, Height: high + 4, U: 0.5} // the words beside it say what it is
	p.polygon(Card, rect(0, 0, wide, high)...)
	line := func(x, y, long float64) { p.line(Guide, pattern.Pt(x, y), pattern.Pt(x+long, y)) }
	box := func(class Class, x, y, w, h float64) { p.polygon(class, rect(x, y, w, h)...) }
	cells := func(across, down int, top float64) {
		w, h := (wide-8)/float64(across), (high-top-6)/float64(down)
		for i := range across * down {
			x, y := 4+w*float64(i%across), top+h*float64(i/across)
			box(CardShade, x+1, y+1, w-2, h*0.6)
			line(x+1, y+h*0.75, w-3)
		}
	}
	switch kind {
	case "":
		box(MatOne, 6, 6, 14, 10)
		line(24, 9, 28)
		line(24, 14, 20)
		cells(3, 4, 20)
	case "large":
		box(MatOne, 6, 6, 18, 13)
		line(28, 12, 24)
		cells(2, 3, 24)
	case "scores":
		for i, n := range []string{"1 ½", "4", "7"} {
			p.text(TextNumber, pattern.Pt(8, 22+float64(i)*22), 28, Start, n)
			line(34, 18+float64(i)*22, 20)
		}
	case "shopping", "batch":
		for i := range 7 {
			y := 8 + float64(i)*10
			box(Outline, 7, y, 5, 5)
			line(17, y+3, 34-float64(i%3)*6)
		}
	case "cuts":
		box(CardShade, 8, 10, 44, 44)
		p.line(Cut, pattern.Pt(8, 34), pattern.Pt(52, 34))
		p.line(Cut, pattern.Pt(30, 10), pattern.Pt(30, 34))
		line(8, 62, 36)
		line(8, 68, 26)
	case "labels":
		for i := range 6 {
			p.circle(MatOne, pattern.Pt(18+float64(i%2)*24, 17+float64(i/2)*23), 9)
		}
	case "marked":
		for i := range 4 {
			p.circle(Outline, pattern.Pt(8+float64(i%2)*44, 8+float64(i/2)*58), 2.5)
		}
		p.circle(MatOne, pattern.Pt(30, 22), 11)
		box(MatOne, 14, 40, 32, 18)
	case "slips", "cards":
		for i := range 4 {
			x, y := 5+float64(i%2)*26, 6+float64(i/2)*35
			box(CardShade, x, y, 24, 32)
			line(x+3, y+8, 16)
			line(x+3, y+14, 12)
			if kind == "cards" {
				box(MatOne, x+6, y+18, 12, 9)
			}
		}
	case "templates", "mirror":
		cross := []pattern.Point{{X: 20, Y: 12}, {X: 40, Y: 12}, {X: 40, Y: 26}, {X: 54, Y: 26}, {X: 54, Y: 48}, {X: 40, Y: 48}, {X: 40, Y: 62}, {X: 20, Y: 62}, {X: 20, Y: 48}, {X: 6, Y: 48}, {X: 6, Y: 26}, {X: 20, Y: 26}}
		p.polygon(CardShade, cross...)
		p.line(Score, pattern.Pt(20, 26), pattern.Pt(20, 48))
		p.line(Score, pattern.Pt(40, 26), pattern.Pt(40, 48))
		if kind == "mirror" {
			p.line(Arrow, pattern.Pt(46, 70), pattern.Pt(14, 70))
			p.add(Shape{Class: Arrow, Loops: [][]pattern.Point{{{X: 19, Y: 67}, {X: 14, Y: 70}, {X: 19, Y: 73}}}})
		}
	}
	return p
}
