package draw

import (
	"fmt"

	"brevium/core/design"
	"brevium/core/fit"
	"brevium/core/pattern"
)

// Hill draws how the tightest gap of a fit comes out in many boxes, over the verdicts that its
// gaps earn: the higher, the more boxes; the gap that is worked out is marked.
func Hill(h design.Hill) *Picture {
	const from, to, wide, high, top = -1.5, 2.6, 340.0, 120.0, 46.0 // mm; strokes
	at := func(mm float64) float64 { return (min(max(mm, from), to) - from) / (to - from) * wide }
	most := 0.0
	for x := from; x <= to; x += 0.02 {
		most = max(most, h.Density(x))
	}
	p := &Picture{X: -10, Width: wide + 20, Height: top + high + 94, U: 1, Title: h.What + ": how the gap comes out in many boxes. " + h.Says}
	foot := top + high
	for i, v := range fit.Verdicts {
		least, below := v.Span()
		l, r := at(least.MM()), at(below.MM())
		class := Card
		if i%2 == 1 {
			class = CardShade
		}
		p.polygon(class, rect(l, top, r-l, high)...)
		share := h.Share(v)
		if share >= 0.005 {
			down := foot + float64(i%2)*36 // narrow neighbours stand under one another
			p.text(Text, pattern.Pt((l+r)/2, down+18), 14, Middle, string(v))
			p.text(TextQuiet, pattern.Pt((l+r)/2, down+33), 13, Middle, fmt.Sprintf("%.0f in 100", 100*share))
		}
	}
	hill := []pattern.Point{{X: 0, Y: foot}}
	for x := from; x <= to; x += 0.02 {
		hill = append(hill, pattern.Pt(at(x), foot-h.Density(x)/max(most, 1e-9)*(high-8)))
	}
	hill = append(hill, pattern.Pt(wide, foot))
	p.polygon(MatOne, hill...)
	mean := at(h.Mean())
	p.line(Guide, pattern.Pt(mean, top-6), pattern.Pt(mean, foot))
	p.text(TextQuiet, pattern.Pt(mean, top-12), 14, Middle, fmt.Sprintf("worked out: %.2f mm", h.Mean()))
	p.text(TextQuiet, pattern.Pt(0, foot+90), 13, Start, "tighter")
	p.text(TextQuiet, pattern.Pt(wide, foot+90), 13, End, "looser")
	return p
}
