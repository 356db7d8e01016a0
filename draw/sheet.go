package draw

import (
	"fmt"
	"strings"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Sheet draws one sheet with its pieces named, its offcuts, and its cuts
// numbered in order with the fence setting of each.
func Sheet(laid layout.Laid, name func(piece int) string, unit measure.Unit, tick measure.Tick) *Picture {
	w, h := laid.Sheet.Width.MM(), laid.Sheet.Height.MM()
	p := newPicture(fmt.Sprintf("%s with %d pieces", laid.Sheet.Name, len(laid.Placed)), w, h, 26)
	p.polygon(SheetArea, LayerNotes, rect(0, 0, w, h)...)
	for _, o := range laid.Offcuts {
		s := p.polygon(Offcut, LayerNotes, rect(o.X.MM(), o.Y.MM(), o.Width.MM(), o.Height.MM())...)
		s.About = fmt.Sprintf("Offcut, %s × %s", measure.Label(o.Width, unit, tick), measure.Label(o.Height, unit, tick))
	}
	for _, pl := range laid.Placed {
		piece(p, pl, name(pl.Piece), unit, tick)
	}
	for _, c := range laid.Cuts {
		n := 17 * p.U
		a, b := pattern.Pt(c.X.MM(), c.Y.MM()), pattern.Pt(c.X.MM(), c.Y.MM())
		if c.Across {
			b.Y += c.Length.MM()
		} else {
			b.X += c.Length.MM()
		}
		p.line(Cut, LayerCut, a, b)
		// The number sits a little way along its own cut.
		d := b.Sub(a).Scale(1 / b.Sub(a).Len())
		at := a.Add(d.Scale(min(c.Length.MM()/2, 22*p.U)))
		p.circle(CutNumber, LayerNotes, at, n).About = fmt.Sprintf("Cut %d: fence at %s", c.N, measure.Label(c.At, unit, tick))
		p.text(TextNumber, at.Add(pattern.Pt(0, 7.5*p.U)), 22, Middle, fmt.Sprint(c.N))
	}
	return p
}

func piece(p *Picture, pl layout.Placed, name string, unit measure.Unit, tick measure.Tick) {
	x, y, w, h := pl.X.MM(), pl.Y.MM(), pl.Width.MM(), pl.Height.MM()
	class := CardShade
	if strings.Contains(name, "mat") {
		class = MatOne
	}
	size := fmt.Sprintf("%s × %s", measure.Number(pl.Width, unit, tick), measure.Number(pl.Height, unit, tick))
	p.polygon(class, LayerNotes, rect(x, y, w, h)...).About = fmt.Sprintf("%s, %s %s", name, size, unit)
	u := p.U
	mid := pattern.Pt(x+w/2, y+h/2)
	room, angle := w, 0.0
	if h > w*1.4 {
		room, angle = h, -90
	}
	// A letter is about half as wide as it is high.
	fit := func(text string, most float64) float64 {
		return min(most, room/u/(float64(len([]rune(text)))*0.55), min(w, h)/u*0.7)
	}
	if size1 := fit(name, 30); size1 >= 8 {
		line := 0.0
		if min(w, h)/u > 70 {
			line = 15 * u
			second := p.text(TextQuiet, mid, fit(size, 25), Middle, size)
			second.Angle = angle
			second.At = mid.Add(shift(0, 22*u, angle))
		}
		first := p.text(Text, mid, size1, Middle, name)
		first.Angle = angle
		first.At = mid.Add(shift(0, 8*u-line, angle))
	}
}

// shift turns an offset with a text that is turned by a quarter or not at all.
func shift(x, y, angle float64) pattern.Point {
	if angle != 0 {
		return pattern.Pt(y, -x)
	}
	return pattern.Pt(x, y)
}
