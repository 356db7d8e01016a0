package draw

import (
	"strconv"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// ReadLine is a line of a blank that a number of a recipe tells, or a side of it; lines of one
// number have one key.
type ReadLine struct {
	At     measure.Length // from the left, or from the top; of a side nothing
	Down   bool           // it lies across the height, or is the height
	Side   bool
	Number int // as it stands beside it
	Key    string
}

// Marks beside the lines of a blank that was read, in strokes.
const (
	readMargin = 58
	readText   = 40
)

// ReadBlank draws a blank of w × h mm with what the numbers of a recipe tell of it, each with its
// own number: of a line at its end, of a side in its middle.
func ReadBlank(name string, w, h float64, lines []ReadLine) *Picture {
	p := newPicture(name+" as it was read", w, h, readMargin)
	p.polygon(Card, rect(0, 0, w, h)...)
	p.polygon(Cut, rect(0, 0, w, h)...)
	off, size := 0.4*readMargin*p.U, readText*p.U
	for _, l := range lines {
		at := l.At.MM()
		a, b, label := pattern.Pt(at, 0), pattern.Pt(at, h), pattern.Pt(at, -off)
		switch {
		case l.Side && l.Down:
			a, b, label = pattern.Pt(w, 0), pattern.Pt(w, h), pattern.Pt(w+1.4*off, h/2+size/3)
		case l.Side:
			a, b, label = pattern.Pt(0, h), pattern.Pt(w, h), pattern.Pt(w/2, h+off+0.7*size)
		case l.Down:
			a, b, label = pattern.Pt(0, at), pattern.Pt(w, at), pattern.Pt(-off, at+size/3)
		}
		class := Score
		if l.Side {
			class = Cut
		}
		s := p.line(class, a, b)
		s.Key, s.Aside = l.Key, true
		p.add(Shape{Class: TextNumber, Label: strconv.Itoa(l.Number), At: label, Size: size, Anchor: Middle, Key: l.Key, Aside: true})
	}
	return p
}
