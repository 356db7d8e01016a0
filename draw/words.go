package draw

import (
	"math"

	"brevium/core/pattern"
)

// Word is a word of the craft with what it means and a drawing of it.
type Word struct {
	Word, Means string
	Drawing     *Picture
}

// The window of a word's drawing, in mm.
const wordWide, wordHigh = 120.0, 72.0

// Words are the words a maker meets here, each once, in the order of the work.
func Words() []Word {
	word := func(name, means string, draw func(p *Picture)) Word {
		p := &Picture{Width: wordWide, Height: wordHigh, U: 1, Title: name}
		draw(p)
		return Word{name, means, p}
	}
	return []Word{
		word("sheet", "card as it is sold, before anything is cut", func(p *Picture) { p.polygon(SheetArea, rect(20, 6, 80, 60)...) }),
		word("blank", "the rectangle that the trimmer cuts for one piece", func(p *Picture) {
			p.polygon(SheetArea, rect(20, 6, 80, 60)...)
			p.polygon(Marked, rect(20, 6, 52, 40)...)
		}),
		word("offcut", "what is left of a sheet and worth keeping", func(p *Picture) {
			p.polygon(SheetArea, rect(20, 6, 80, 60)...)
			p.polygon(Card, rect(20, 6, 52, 60)...)
			p.polygon(Marked, rect(72, 6, 28, 60)...)
		}),
		word("score", "a line pressed into the card so that it folds there", func(p *Picture) {
			p.polygon(Card, rect(20, 6, 80, 60)...)
			fold(p, 60, 6, 60, 66, pattern.Away)
		}),
		word("fence", "the raised edge of the board that the card is pushed against", func(p *Picture) {
			p.line(Fence, pattern.Pt(20, 4), pattern.Pt(20, 68))
			p.polygon(Card, rect(22, 10, 70, 52)...)
		}),
		word("groove", "one of the board's slots: how fine its numbers go", func(p *Picture) {
			p.line(Fence, pattern.Pt(16, 4), pattern.Pt(16, 68))
			for x := 26.0; x < 112; x += 10 {
				p.line(Guide, pattern.Pt(x, 6), pattern.Pt(x, 66))
			}
			p.line(Arrow, pattern.Pt(56, 20), pattern.Pt(56, 52))
		}),
		word("between folds", "a size from one score to the next, as the board gives it", func(p *Picture) {
			p.polygon(Card, rect(10, 14, 100, 44)...)
			fold(p, 34, 14, 34, 58, pattern.Away)
			fold(p, 86, 14, 86, 58, pattern.Away)
			arrows(p, 34, 66, 86)
		}),
		word("fold away", "fold the card back, from the side you scored", func(p *Picture) {
			p.polygon(Card, pattern.Pt(10, 24), pattern.Pt(60, 24), pattern.Pt(60, 30), pattern.Pt(10, 30))
			p.polygon(CardShade, pattern.Pt(60, 24), pattern.Pt(96, 60), pattern.Pt(91, 64), pattern.Pt(57, 30))
		}),
		word("fold towards you", "fold the card up over the side you scored", func(p *Picture) {
			p.polygon(Card, pattern.Pt(10, 46), pattern.Pt(60, 46), pattern.Pt(60, 52), pattern.Pt(10, 52))
			p.polygon(CardShade, pattern.Pt(57, 46), pattern.Pt(93, 10), pattern.Pt(97, 15), pattern.Pt(60, 52))
		}),
		word("burnish", "rub a fold flat with the bone folder, once it is folded", func(p *Picture) {
			p.polygon(Card, rect(20, 34, 80, 30)...)
			fold(p, 20, 34, 100, 34, pattern.Away)
			p.polygon(CardDark, pattern.Pt(54, 34), pattern.Pt(62, 34), pattern.Pt(94, 6), pattern.Pt(86, 2))
		}),
		word("wall", "a side that stands up from the floor", func(p *Picture) { tray(p, 1) }),
		word("floor", "the face that everything stands on", func(p *Picture) { tray(p, 0) }),
		word("tab", "the small part that is glued behind a wall", func(p *Picture) {
			p.polygon(Card, rect(14, 14, 56, 44)...)
			fold(p, 70, 14, 70, 58, pattern.Away)
			p.polygon(Marked, pattern.Pt(70, 14), pattern.Pt(100, 20), pattern.Pt(100, 52), pattern.Pt(70, 58))
		}),
		word("notch", "a small piece cut out of an edge, so that a corner closes", func(p *Picture) {
			p.polygon(Card, pattern.Pt(20, 6), pattern.Pt(100, 6), pattern.Pt(100, 66), pattern.Pt(70, 66), pattern.Pt(60, 44), pattern.Pt(50, 66), pattern.Pt(20, 66))
			p.add(Shape{Class: Remove, Loops: hatch([][]pattern.Point{{pattern.Pt(50, 66), pattern.Pt(60, 44), pattern.Pt(70, 66)}}, 5)})
		}),
		word("slit", "a cut that takes nothing away", func(p *Picture) {
			p.polygon(Card, rect(20, 6, 80, 60)...)
			p.line(Cut, pattern.Pt(46, 36), pattern.Pt(74, 36))
		}),
		word("lid", "the part that goes over the base, a little larger than it", func(p *Picture) {
			p.polygon(CardShade, rect(30, 36, 60, 32)...)
			p.polygon(Marked, rect(26, 8, 68, 20)...)
		}),
		word("room to spare", "the air between a thing and the wall, or a lid and the base", func(p *Picture) {
			p.polygon(Room, rect(20, 10, 80, 52)...)
			p.circle(Thing, pattern.Pt(60, 36), 22)
			arrows(p, 82, 36, 100)
		}),
		word("cell", "the place of one thing in a box that is parted", func(p *Picture) {
			p.polygon(Room, rect(20, 6, 80, 60)...)
			p.polygon(Marked, rect(20, 6, 40, 30)...)
			p.line(Cut, pattern.Pt(60, 6), pattern.Pt(60, 66))
			p.line(Cut, pattern.Pt(20, 36), pattern.Pt(100, 36))
		}),
		word("paper on top", "patterned paper or card glued onto a face", func(p *Picture) {
			p.polygon(Card, rect(20, 6, 80, 60)...)
			p.polygon(MatOne, rect(28, 14, 64, 44)...)
		}),
		word("border", "the rim of the face that shows all round a paper on top", func(p *Picture) {
			p.polygon(MatOne, rect(20, 6, 80, 60)...)
			p.polygon(Card, rect(32, 18, 56, 36)...)
			arrows(p, 20, 36, 32)
		}),
	}
}

// Beginning is the drawing of a way to begin a box: from things, a size, a
// sheet or a file.
func Beginning(way string) *Picture {
	p := &Picture{Width: wordWide, Height: wordHigh, U: 1, Title: ""}
	switch way {
	case "things":
		for i := range 3 {
			x := 24 + 28*float64(i)
			p.polygon(Thing, rect(x, 22, 20, 40)...)
			p.polygon(CardDark, rect(x+1, 14, 18, 8)...)
		}
	case "size":
		tray(p, -1)
		arrows(p, 20, 68, 80)
	case "sheet":
		p.polygon(SheetArea, rect(34, 4, 52, 64)...)
		fold(p, 34, 20, 86, 20, pattern.Away)
		fold(p, 50, 4, 50, 68, pattern.Away)
	case "have": // an open box, seen from above, with dividers in it
		p.polygon(CardShade, rect(24, 6, 72, 60)...)
		p.polygon(CardInside, rect(28, 10, 64, 52)...)
		for _, x := range []float64{48, 70} {
			p.polygon(Marked, rect(x, 10, 2, 52)...)
		}
		p.polygon(Marked, rect(28, 35, 64, 2)...)
	case "file":
		p.polygon(SheetArea, pattern.Pt(36, 4), pattern.Pt(70, 4), pattern.Pt(84, 18), pattern.Pt(84, 68), pattern.Pt(36, 68))
		p.polygon(CardShade, pattern.Pt(70, 4), pattern.Pt(84, 18), pattern.Pt(70, 18))
		for y := 30.0; y < 62; y += 8 {
			p.line(Guide, pattern.Pt(44, y), pattern.Pt(76, y))
		}
	}
	return p
}

// fold draws a score.
func fold(p *Picture, x, y, toX, toY float64, side pattern.Side) {
	Net{}.crease(p, pattern.Crease{Segment: pattern.Segment{A: pattern.Pt(x, y), B: pattern.Pt(toX, toY)}, Side: side})
}

// arrows measures from x to to, at y.
func arrows(p *Picture, x, y, to float64) {
	p.line(Arrow, pattern.Pt(x, y), pattern.Pt(to, y))
	size := math.Min(4, (to-x)/3)
	for _, end := range [][2]float64{{x, size}, {to, -size}} {
		p.add(Shape{Class: Arrow, Loops: [][]pattern.Point{{pattern.Pt(end[0]+end[1], y-size), pattern.Pt(end[0], y), pattern.Pt(end[0]+end[1], y+size)}}})
	}
}

// tray draws an open tray; which face is marked: 0 the floor, 1 a wall.
func tray(p *Picture, marked int) {
	class := func(n int, usual Class) Class {
		if n == marked {
			return Marked
		}
		return usual
	}
	p.polygon(class(0, CardInside), pattern.Pt(20, 46), pattern.Pt(52, 26), pattern.Pt(112, 26), pattern.Pt(80, 46))
	p.polygon(CardShade, pattern.Pt(20, 46), pattern.Pt(52, 26), pattern.Pt(52, 4), pattern.Pt(20, 24))
	p.polygon(CardInside, pattern.Pt(52, 26), pattern.Pt(112, 26), pattern.Pt(112, 4), pattern.Pt(52, 4))
	p.polygon(CardDark, pattern.Pt(80, 64), pattern.Pt(112, 42), pattern.Pt(112, 22), pattern.Pt(80, 44))
	p.polygon(class(1, Card), rect(20, 44, 60, 20)...)
}
