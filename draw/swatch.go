package draw

import (
	"brevium/core/paper"
	"brevium/core/pattern"
)

// swatchSide is how much paper a swatch shows, in mm.
const swatchSide = 24.0

// Swatch shows a piece of a card at true scale, one corner turned over so that its
// inside is seen.
func Swatch(l paper.Look) *Picture {
	const s, fold = swatchSide, swatchSide * 0.3
	p := &Picture{Width: s, Height: s, U: s / 60}
	p.polygon(Outline, pattern.Pt(0, 0), pattern.Pt(s, 0), pattern.Pt(s, s-fold), pattern.Pt(s-fold, s), pattern.Pt(0, s)).Fill = &Fill{Look: l, Lay: Still}
	p.polygon(Outline, pattern.Pt(s, s-fold), pattern.Pt(s-fold, s), pattern.Pt(s-fold, s-fold)).Fill = &Fill{Look: l, Lay: Still, Inside: true, Shade: 0.05}
	return p
}
