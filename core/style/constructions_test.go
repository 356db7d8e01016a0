package style

import (
	"math"
	"slices"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// With the corners on the ends every cut of a carton lies on a score: it is
// slit from the flap's end along the columns to where back and base meet, the
// wings of flap and top fall away, and the four squares stay whole.
func TestCartonCornersOnTheEnds(t *testing.T) {
	half := inch / 2
	b := build(t, hingedCarton, map[string]measure.Length{"length": 5 * inch, "width": 2 * inch, "height": 5 * half, "flap": 3 * inch / 4},
		map[string]string{"corners": "on-the-ends"})
	p := b.Parts[0].Pattern
	wantScores(t, b.Parts[0], 10*inch, 39*inch/4, []measure.Length{5 * half, 15 * half}, []measure.Length{3 * inch / 4, 11 * inch / 4, 21 * inch / 4, 29 * inch / 4})
	onScore := func(x, y float64) bool {
		near := func(all []measure.Length, v float64) bool {
			return slices.ContainsFunc(all, func(l measure.Length) bool { return math.Abs(l.MM()-v) < 1e-6 })
		}
		return near(append(p.Scores.Vertical, 0, p.Width), x) || near(append(p.Scores.Horizontal, 0, p.Height), y)
	}
	outline := p.Outline.Flat()
	for i, a := range outline {
		q := outline[(i+1)%len(outline)]
		if a.X != q.X && a.Y != q.Y || !onScore(a.X, a.Y) || !onScore(q.X, q.Y) {
			t.Errorf("the cut from %v to %v lies off the scores", a, q)
		}
	}
	for _, s := range p.Slits {
		if s.A.X != s.B.X || !slices.Contains(p.Scores.Vertical, measure.FromMM(s.A.X)) {
			t.Errorf("the slit %v lies off the columns", s)
		}
	}
	// From the top's fold down to the base's, and from the front's end to the base's.
	cut := 0.0
	for _, s := range p.Slits {
		cut += s.B.Sub(s.A).Len()
	}
	if want := 4 * 2.5 * 25.4; math.Abs(cut-want) > 1e-6 {
		t.Errorf("slits of %v mm beside back and front; want %v", cut, want)
	}
	if want := 2 * 2.5 * 2.75 * 25.4 * 25.4; math.Abs(p.Removed()-want) > 1e-6 {
		t.Errorf("%v mm² fall away; want the wings of flap and top, %v", p.Removed(), want)
	}
	squares := 0
	for _, g := range p.Glue {
		if !g.Dry && math.Abs(pattern.Area(g.Area)-2.5*2.5*25.4*25.4) < 1e-6 {
			squares++
		}
	}
	if squares != 4 {
		t.Errorf("%d squares of 2 1/2 in are glued whole; want 4", squares)
	}
	// Where two would meet behind the back they are trimmed to half of it.
	b = build(t, hingedCarton, map[string]measure.Length{"length": 3 * inch, "width": 2 * inch, "height": 2 * inch, "flap": inch / 2},
		map[string]string{"corners": "on-the-ends"})
	for _, g := range b.Parts[0].Pattern.Glue {
		if lo, hi := pattern.Bounds(g.Area); !g.Dry && hi.Y-lo.Y > 1.5*25.4+1e-6 {
			t.Errorf("the %s reaches %v mm behind a back of 3 in", g.Face, hi.Y-lo.Y)
		}
	}
}

// A pressed top has no score: only the columns and the bottom line. Scored, it
// has the ridge's.
func TestPressedTopHasNoScores(t *testing.T) {
	size := map[string]measure.Length{"width": 9 * inch / 4, "depth": 9 * inch / 4, "height": 9 * inch}
	for _, scored := range []string{"none", "scored"} {
		s := usual(tallBox, size, map[string]string{"top": "clip", "top.scores": scored})
		s.Lengths["bottom"] = 7 * inch / 4
		b, err := tallBox.Make(s)
		if err != nil {
			t.Fatal(err)
		}
		p := b.Parts[0].Pattern
		if len(p.Scores.Vertical) != 4 || p.Scores.Vertical[3] != 9*inch {
			t.Errorf("%s: columns at %v", scored, p.Scores.Vertical)
		}
		ridge := len(p.Scores.Horizontal) > 1 || len(p.Scores.Part) > 0
		if ridge != (scored == "scored") || !slices.Contains(p.Scores.Horizontal, 9*inch) {
			t.Errorf("%s: level scores %v, short ones %v", scored, p.Scores.Horizontal, p.Scores.Part)
		}
		f, err := p.Finished("front")
		if err != nil || f.Residual > 1e-6 {
			t.Errorf("%s: folded shut the ring is open by %v, %v", scored, f.Residual, err)
		}
		if f, err = p.Opened("front"); err != nil || f.Residual > 1e-6 {
			t.Errorf("%s: opened the ring is open by %v, %v", scored, f.Residual, err)
		}
	}
}

// A sleeve's width and height have allowances of their own, and it joins by a
// tab or by a whole side over a side.
func TestSleeveJoins(t *testing.T) {
	size := map[string]measure.Length{
		"length": 4 * inch, "width": 3 * inch, "height": inch, "sleeve.allowance": inch / 16, "sleeve.allowance.height": 0, "tab": inch / 2,
	}
	wide := 3*inch + inch/16
	b := build(t, drawerSleeve, size, nil)
	if got, want := b.Parts[1].Pattern.Scores.Horizontal, []measure.Length{wide, wide + inch, 2*wide + inch, 2*wide + 2*inch}; !slices.Equal(got, want) {
		t.Errorf("with a tab it is scored at %v; want %v", got, want)
	}
	if a := b.Fits[1]; a.Axis != "height" || a.OuterSpan != inch || a.OuterLayers != 1 {
		t.Errorf("the height's account is %+v", a)
	}
	b = build(t, drawerSleeve, size, map[string]string{"sleeve.join": "side"})
	p := b.Parts[1].Pattern
	if got, want := p.Scores.Horizontal, []measure.Length{inch, inch + wide, 2*inch + wide, 2*inch + 2*wide}; !slices.Equal(got, want) || p.Height != 3*inch+2*wide {
		t.Errorf("with a side it is scored at %v of %v; want %v", got, p.Height, want)
	}
	if a := b.Fits[1]; a.OuterLayers != 0 {
		t.Errorf("nothing lies under its floor, and %d layers are counted", a.OuterLayers)
	}
}

// A lid may be given another allowance in width than in length.
func TestLidAllowancesDiffer(t *testing.T) {
	s := usual(trayLid, size(4*inch, 3*inch, inch), nil)
	s.Lengths["lid.allowance"], s.Lengths["lid.allowance.width"] = inch/16, inch/8
	b, err := trayLid.Make(s)
	if err != nil {
		t.Fatal(err)
	}
	if l, w := b.Fits[0].OuterSpan, b.Fits[1].OuterSpan; l != 4*inch+inch/16 || w != 3*inch+inch/8 {
		t.Errorf("the lid's panel is %v × %v", l, w)
	}
}

// Loose corners let a flat-fold tray lie flat again, its folds at nothing and no
// face through another; glued ones do not.
func TestFlatFoldLiesFlat(t *testing.T) {
	for choice, lies := range map[string]bool{"loose": true, "glued": false} {
		b := build(t, flatFoldTray, nil, map[string]string{"gussets": choice})
		if b.Flat != lies {
			t.Errorf("%s: it lies flat: %v", choice, b.Flat)
		}
		for _, p := range b.Parts {
			f, err := p.Pattern.Fold(p.Root, func(int) float64 { return 0 })
			if err != nil || f.Residual > 1e-9 || len(f.Collisions()) > 0 {
				t.Errorf("%s flat: %v, %v", p.ID, f.Collisions(), err)
			}
		}
	}
}
