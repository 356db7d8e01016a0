package draw

import (
	"fmt"

	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// Drawer draws the paper in stock, every card at one scale.
type Drawer struct {
	Units measure.Unit
	Tick  measure.Tick
}

// Sizes of the picture, mm: what stands in a row, the room between two piles
// and under a row, the shift of the sheets under the top one.
const (
	rowWidth     = 1900.0
	betweenPiles = 44.0
	underRow     = 84.0
	pileShift    = 8.0
	mostShown    = 4 // sheets of a pile
	thick        = 1.7
)

// Picture draws one card's piles side by side, in rows: as many edges under
// the top sheet as there are sheets, up to three.
func (d Drawer) Picture(g drawer.Group) *Picture {
	p := &Picture{X: -6, Y: -10, Width: rowWidth + 12, U: thick, Title: g.Card.Name + " in the drawer"}
	foot := 0.0
	var labels []func()
	for _, row := range rows(g.Lots) {
		x := 0.0
		for _, l := range row {
			foot = max(foot, p.Height+tall(l))
		}
		for _, l := range row {
			d.pile(p, l, x, foot)
			at, line := x, foot
			labels = append(labels, func() { d.label(p, l, at, line) })
			x += long(l) + betweenPiles
		}
		foot += underRow
		p.Height = foot
	}
	p.Height += 10
	for _, write := range labels { // over all of the paper
		write()
	}
	return p
}

// rows parts piles into rows.
func rows(lots []drawer.Lot) [][]drawer.Lot {
	var out [][]drawer.Lot
	x := rowWidth
	for _, l := range lots {
		if x += long(l) + betweenPiles; x > rowWidth || len(out) == 0 {
			out, x = append(out, nil), long(l)+betweenPiles
		}
		out[len(out)-1] = append(out[len(out)-1], l)
	}
	return out
}

// spread is how far the sheets under the top one reach out.
func spread(l drawer.Lot) float64 { return pileShift * float64(min(l.Count, mostShown)-1) }
func long(l drawer.Lot) float64   { return l.Width.MM() + spread(l) }
func tall(l drawer.Lot) float64   { return l.Height.MM() + spread(l) }

// pile draws a pile that stands on a line.
func (d Drawer) pile(p *Picture, l drawer.Lot, x, foot float64) {
	w, h := l.Width.MM(), l.Height.MM()
	size := measure.Sides(d.Units, d.Tick, l.Width, l.Height)
	class := SheetArea
	if l.Offcut {
		class = Offcut
	}
	for i := min(l.Count, mostShown) - 1; i >= 0; i-- {
		at := pileShift * float64(i)
		edge := rect(x+at, foot-h-at, w, h)
		if shape := l.Shape.Points(); shape != nil {
			edge = edge[:0]
			for _, q := range shape {
				edge = append(edge, q.Add(pattern.Pt(x+at, foot-h-at)))
			}
		}
		s := p.polygon(class, edge...)
		s.About = l.Sheet + ", " + size
		s.Fill = From{Card: l.Card}.fill(w, h)
		s.Fill.Lay = Affine{1, 0, 0, 1, x + at, foot - h - at}
	}
}

// label writes what a pile is, and under it how many there are.
func (d Drawer) label(p *Picture, l drawer.Lot, x, foot float64) {
	w, h := l.Width.MM(), l.Height.MM()
	name, under := l.Sheet, measure.Sides(d.Units, d.Tick, l.Width, l.Height)
	if l.Offcut || name == "own size" {
		// What can be used of it is told in whole ticks.
		name, under = fmt.Sprintf(
			"%s × %s",
			measure.Number(measure.Down(l.Width, d.Tick), d.Units, d.Tick),
			measure.Number(measure.Down(l.Height, d.Tick), d.Units, d.Tick),
		), ""
	} else if (paper.Sheet{Name: l.Sheet, Width: l.Width, Height: l.Height}).NamedBySize() {
		under = ""
	}
	what := "one"
	if l.Count > 1 {
		what = fmt.Sprintf("%d of these", l.Count)
	}
	if !p.label(area{x, foot - h, w, h}, Text, name, under, 26) { // under it there is room
		what = fmt.Sprintf("%d × %s", l.Count, name)
	}
	p.text(TextQuiet, pattern.Pt(x, foot+34), 17, Start, what)
	if l.Reserved > 0 {
		p.text(TextQuiet, pattern.Pt(x, foot+62), 15, Start, fmt.Sprintf("%d reserved", l.Reserved))
	}
}
