package draw

import (
	"fmt"
	"math"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// StackUp draws one side of a gap account, magnified: the inner wall, what
// stands between, what is left of the gap on this side, and the outer wall.
// A gap below zero is drawn as what is in the way.
func StackUp(a fit.Account) *Picture {
	const scale, top, height = 92.0, 34.0, 90.0 // strokes to the millimetre
	type band struct {
		class Class
		mm    float64
		text  string
	}
	pair := a.Pair
	bands := []band{{CardShade, pair.InnerCard.MM(), pair.InnerName}}
	add := func(c Class, l measure.Length, text string) {
		if l > 0 {
			bands = append(bands, band{c, l.MM(), text})
		}
	}
	add(CardDark, measure.Length(pair.InnerLayers)*pair.InnerCard/2, pair.InnerWhat)
	add(MatOne, a.Between/2, "papers")
	gap := a.Gap.MM() / 2
	bands = append(bands, band{Gap, gap, "gap"})
	add(CardDark, measure.Length(pair.OuterLayers)*pair.OuterCard/2, pair.OuterWhat)
	bands = append(bands, band{Card, pair.OuterCard.MM(), pair.OuterName})

	total := 0.0
	for _, b := range bands {
		total += math.Abs(b.mm) * scale
	}
	p := &Picture{X: -70, Width: max(total, 200) + 160, Height: 240, U: 1,
		Title: fmt.Sprintf("%s over %s, %s: %s", pair.OuterName, pair.InnerName, pair.Axis, a.Verdict)}
	x := (max(total, 200) - total) / 2
	for i, b := range bands {
		w := math.Abs(b.mm) * scale
		class := b.class
		if class == Gap && b.mm < 0 {
			class = GapBad
		}
		p.polygon(class, rect(x, top, w, height)...)
		if class == GapBad {
			p.add(Shape{Class: Remove, Loops: hatch([][]pattern.Point{rect(x, top, w, height)}, 7)})
		}
		// Names stand at three heights in turn so that thin bands do not crowd.
		y := top + height + 24 + float64(i%3)*31
		mid := pattern.Pt(x+w/2, y)
		p.line(Guide, pattern.Pt(mid.X, top+height+2), pattern.Pt(mid.X, y-15))
		label, text := b.text, Text
		if class == GapBad {
			label, text = "in the way", TextBad
		}
		p.text(text, mid, 16, Middle, label)
		p.text(TextQuiet, pattern.Pt(mid.X, y+15), 13, Middle, fmt.Sprintf("%.2f mm", math.Abs(b.mm)))
		x += w
	}
	p.text(TextQuiet, pattern.Pt(p.X+8, 20), 15, Start, "inside")
	p.text(TextQuiet, pattern.Pt(p.X+p.Width-8, 20), 15, End, "outside")
	return p
}
