package style

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// halved builds a box with tools marked in millimetres; sizes in half millimetres.
func halved(t *testing.T, s *Style, size map[string]int, choices map[string]string) *Box {
	t.Helper()
	spec := s.Usual(measure.Tick(mm), 300*measure.Micrometre)
	given := map[string]measure.Length{}
	for id, halves := range size {
		given[id] = measure.Length(halves) * mm / 2
		spec.Lengths[id] = given[id]
	}
	for id, c := range choices {
		spec.Choices[id] = c
	}
	s.Follow(&spec, func(id string) bool { _, is := given[id]; return is })
	b, err := s.Make(spec)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

// halves are numbers of half millimetres.
func halves(n ...int) []measure.Length {
	var out []measure.Length
	for _, x := range n {
		out = append(out, measure.Length(x)*mm/2)
	}
	return out
}

func TestPouchByHand(t *testing.T) {
	size := map[string]int{"length": 190, "back": 130, "front": 110, "flap": 70, "tab": 24}
	b := halved(t, pouch, size, nil)
	wantScores(t, b.Parts[0], 119*mm, 155*mm, halves(24, 214), halves(70, 200))
	size["depth"] = 6
	b = halved(t, pouch, size, nil)
	wantScores(t, b.Parts[0], 125*mm, 161*mm, halves(24, 30, 220, 226), halves(70, 76, 206, 212))
	// The tabs are 3 mm shorter than the front at either end.
	for _, g := range b.Parts[0].Pattern.Glue {
		if lo, hi := pattern.Bounds(g.Area); g.Face != "flap" && math.Abs(hi.Y-lo.Y-49) > 1e-6 {
			t.Errorf("%s is %v mm high; want 49", g.Face, hi.Y-lo.Y)
		}
	}
}

func TestPyramidByHand(t *testing.T) {
	size := map[string]int{"side": 120, "slant": 140}
	b := halved(t, pyramid, size, nil)
	p := b.Parts[0].Pattern
	wantScores(t, b.Parts[0], 200*mm, 200*mm, halves(140, 260), halves(140, 260))
	if got := p.Creases[0].Angle; math.Abs(got-115.4) > 0.05 {
		t.Errorf("the sides are folded up by %v°; want 115.4", got)
	}
	if got := b.Room.Largest; got.Length != 30*mm || got.Width != 30*mm || got.Height/mm != 31 {
		t.Errorf("a block of %v × %v × %v mm; want 30 × 30 × 31", got.Length.MM(), got.Width.MM(), got.Height.MM())
	}
	turned := halved(t, pyramid, size, map[string]string{"turned": "turned"}).Parts[0].Pattern
	if turned.Width != 283*mm/2 || turned.Height != turned.Width {
		t.Errorf("turned, the card is %v mm; want 141.5", turned.Width.MM())
	}
}

// The tips of pyramids of any number of sides meet, wherever they lie on the card.
func TestTipsMeet(t *testing.T) {
	for _, turned := range []string{"straight", "turned"} {
		for n := 3; n <= 8; n++ {
			b := halved(t, pyramid, map[string]int{"side": 100, "slant": 180}, map[string]string{"sides": fmt.Sprint(n), "turned": turned})
			body := assembled(t, b, Finished)[0]
			var tips []r3.Vec
			for i, f := range body.Faces {
				if !strings.HasPrefix(f.Name, "side.") {
					continue
				}
				top := r3.Vec{Z: -1}
				for _, q := range f.Polygon {
					if v := body.Poses[i].Place(q); v.Z > top.Z {
						top = v
					}
				}
				tips = append(tips, top)
			}
			for _, tip := range tips {
				if d := r3.Norm(r3.Sub(tip, tips[0])); d > 5e-6 || len(tips) != n {
					t.Errorf("%s, %d sides: %d tips, %v mm apart", turned, n, len(tips), d)
				}
			}
		}
	}
}

// A slice of eight: point to back 83 mm and a back of 68.5, so that eight lie in a ring with a little
// left; a lid that is smaller by a card and play on either leg.
func TestSliceByHand(t *testing.T) {
	b := halved(t, slice, map[string]int{"leg": 180, "height": 100, "tab": 24, "flap": 24}, nil)
	f, err := b.Parts[0].Pattern.Faces()
	if err != nil {
		t.Fatal(err)
	}
	size := func(name string) pattern.Point {
		i := slices.IndexFunc(f, func(x pattern.Face) bool { return x.Name == name })
		lo, hi := pattern.Bounds(f[i].Polygon)
		return hi.Sub(lo)
	}
	if got := size("base"); math.Abs(got.X-68.5) > 1e-6 || math.Abs(got.Y-83) > 1e-6 {
		t.Errorf("the floor is %v; want 68.5 × 83", got)
	}
	half := math.Atan(68.5 / 2 / 83)
	if got := size("lid"); math.Abs(got.X-(68.5-1.1/math.Cos(half))) > 1e-5 || math.Abs(got.Y-(83-0.55/math.Sin(half))) > 1e-5 {
		t.Errorf("the lid is %v", got)
	}
	if !strings.Contains(b.Room.Shape, "8 of them in a ring leave 1.9 mm open") {
		t.Errorf("its room is %q", b.Room.Shape)
	}
	for n := 4; n <= 12; n++ {
		spec := usual(slice, lengths("leg", 36), map[string]string{"count": fmt.Sprint(n)})
		w := spec.wedge()
		if w.opening() < -mostOver.MM() {
			t.Errorf("%d in a ring overlap by %v mm", n, -w.opening())
		}
	}
}

// Eight slices of 90 mm, on the board 68.5 wide and 83 deep, with the card beside their points by
// .15/sin 22.4° = .39 from the middle, make a ring of 2√(34.25² + 83.39²) = 180.3 mm.
func TestRingOfSlicesByHand(t *testing.T) {
	b := halved(t, slice, map[string]int{"leg": 180, "height": 100, "tab": 24, "flap": 24}, map[string]string{"made": wholeRing})
	if n := len(b.Parts[0].Places); n != 8 || b.Parts[0].Copies() != 8 || b.Room.Times != 8 {
		t.Errorf("%d places, %d copies, %d rooms", n, b.Parts[0].Copies(), b.Room.Times)
	}
	bodies := assembled(t, b, Finished)
	far := 0.0
	for _, body := range bodies {
		for i, f := range body.Faces {
			for _, q := range f.Polygon {
				v := body.Poses[i].Place(q)
				far = max(far, math.Hypot(v.X, v.Y))
			}
		}
	}
	if math.Abs(2*far-180.3) > 0.05 {
		t.Errorf("the ring is %v mm across; want 180.3", 2*far)
	}
	if hits := Collisions(bodies); len(hits) > 0 {
		t.Errorf("slices pass through one another: %v and %v", hits[0].FaceA.Name, hits[0].FaceB.Name)
	}
}

func TestExplodingBoxByHand(t *testing.T) {
	b := build(t, explodeBox, map[string]measure.Length{"length": 4 * inch, "height": 4 * inch, "lid.depth": inch, "lid.allowance": inch / 16, "lid.allowance.width": inch / 16}, nil)
	sixteenths := func(n ...measure.Length) []measure.Length {
		out := make([]measure.Length, len(n))
		for i, x := range n {
			out[i] = x * inch / 16
		}
		return out
	}
	for i, want := range []struct{ blank, near, far measure.Length }{{192, 64, 128}, {188, 63, 125}, {184, 62, 122}} {
		at := sixteenths(want.near, want.far)
		wantScores(t, b.Parts[i], want.blank*inch/16, want.blank*inch/16, at, at)
	}
	if gap := b.Fits[0].Do(0).Gap; gap != inch/16-1200*measure.Micrometre {
		t.Errorf("the lid has %v mm of gap", gap.MM())
	}
	// The walls of two layers fall past each other: more room than a card.
	for _, f := range b.Fits[2:] {
		if apart := (f.OuterSpan - f.InnerSpan) / 2; apart < f.InnerCard {
			t.Errorf("%s and %s stand %v mm apart", f.OuterName, f.InnerName, apart.MM())
		}
	}
}

func TestCollarBoxByHand(t *testing.T) {
	size := map[string]int{"length": 200, "width": 160, "base": 80, "lid": 50, "tab": 24}
	spec := func(choices map[string]string) *Box {
		s := collarBox.Usual(measure.Tick(mm), 300*measure.Micrometre)
		for id, h := range size {
			s.Lengths[id] = measure.Length(h) * mm / 2
		}
		s.Lengths["gap"] = 400 * measure.Micrometre
		for id, c := range choices {
			s.Choices[id] = c
		}
		b, err := collarBox.Make(s)
		if err != nil {
			t.Fatal(err)
		}
		return b
	}
	b := spec(nil)
	wantScores(t, b.Parts[1], 366*mm, 109*mm/2, halves(198, 354, 552, 708), nil)
	for i, want := range []measure.Length{400, 800, 400, 800} {
		if got := b.Fits[i].Do(0).Gap; got != want*measure.Micrometre {
			t.Errorf("%s in %s, %s: a gap of %v mm; want %v", b.Fits[i].InnerName, b.Fits[i].OuterName, b.Fits[i].Axis, got.MM(), want)
		}
	}
	two := spec(map[string]string{"collar.pieces": "two"})
	for _, part := range two.Parts[1:3] {
		wantScores(t, part, 189*mm, 109*mm/2, halves(198, 354), nil)
	}
	// With a shadow line the collar carries the lid, that far above the base.
	size["shadow"] = 10
	b = spec(nil)
	if got := b.Parts[2].At.Z - 40; math.Abs(got-5) > 0.5 {
		t.Errorf("base and lid stand %v mm apart; want 5", got)
	}
}

// The floors of a tube of 80 × 60 × 110 mm: blanks, and of the one that locks the recess, the tongue
// and the side flaps.
func TestTubeFloorsByHand(t *testing.T) {
	size := map[string]int{"width": 160, "depth": 120, "height": 372, "tab": 24, "tuck": 32}
	p := halved(t, tallBox, size, map[string]string{"floor": "snap"}).Parts[0]
	wantScores(t, p, 292*mm, 228*mm, halves(160, 280, 440, 560), halves(32, 152, 372))
	faces, err := p.Pattern.Faces()
	if err != nil {
		t.Fatal(err)
	}
	outline := func(name string) []pattern.Point {
		i := slices.IndexFunc(faces, func(x pattern.Face) bool { return x.Name == name })
		return faces[i].Polygon
	}
	wide := func(name string, down float64) float64 { // how wide a flap is so far below the fold
		var at []float64
		ring := outline(name)
		for i, a := range ring {
			b := ring[(i+1)%len(ring)]
			if y := 186 + down; (a.Y > y) != (b.Y > y) {
				at = append(at, a.X+(y-a.Y)/(b.Y-a.Y)*(b.X-a.X))
			}
		}
		slices.Sort(at)
		return at[len(at)-1] - at[0]
	}
	for _, c := range []struct {
		name       string
		down, want float64
	}{{"bottom.left", 0.001, 58}, {"bottom.left", 19.999, 38}, {"bottom.front", 22, 36}, {"bottom.back", 41, 78}} {
		if got := wide(c.name, c.down); math.Abs(got-c.want) > 0.01 {
			t.Errorf("%s is %v mm wide at %v; want %v", c.name, got, c.down, c.want)
		}
	}
	back := outline("bottom.back")
	if notch := math.Abs(pattern.Area(back)) - (78*42 - 38*12); math.Abs(notch) > 1e-6 {
		t.Errorf("the recess is off by %v mm²", notch)
	}
	size["overlap"] = 20
	wantScores(t, halved(t, tallBox, size, map[string]string{"floor": "self-opening"}).Parts[0], 292*mm, 226*mm, halves(160, 280, 440, 560), halves(32, 152, 372))
}

// A carton of 110 × 60 × 70 mm with slopes of 50 rises by 40; its eaves lean 36.9° and the creases of
// its ends fold by 111.1°.
func TestGableCartonByHand(t *testing.T) {
	b := halved(t, gableCarton, map[string]int{"length": 220, "width": 120, "height": 140, "slope": 100, "fin": 80, "tab": 24, "overlap": 24}, nil)
	p := b.Parts[0].Pattern
	wantScores(t, b.Parts[0], 352*mm, 202*mm, halves(220, 340, 560, 680), halves(80, 180, 320))
	for _, c := range p.Creases {
		want := math.NaN()
		switch slanted := c.A.X != c.B.X && c.A.Y != c.B.Y; {
		case slanted && max(c.A.Y, c.B.Y) < 100:
			want = 111.1
		case c.A.Y == 90 && c.B.Y == 90 && min(c.A.X, c.B.X) < 100:
			want = 36.9
		}
		if !math.IsNaN(want) && math.Abs(c.Angle-want) > 0.05 {
			t.Errorf("a fold of %v° from %v to %v; want %v", c.Angle, c.A, c.B, want)
		}
	}
	for _, o := range p.Openings {
		if lo, hi := pattern.Bounds(o.Loop.Flat()); math.Abs(hi.Y-32) > 1e-6 || lo.Y < 10 || math.Abs(hi.Y-lo.Y-20) > 1e-6 {
			t.Errorf("a hole from %v to %v; want 20 high, 8 over the score", lo, hi)
		}
	}
}

// Two by three drawers of 60 × 30 × 80 mm, on a board of half millimetres: shells of 61.5 × 31.5 and a
// case of 124.5 × 96.5.
func TestDrawerChestByHand(t *testing.T) {
	s := drawerChest.Usual(measure.Tick(mm/2), 300*measure.Micrometre)
	s.Lengths["length"], s.Lengths["width"], s.Lengths["height"], s.Lengths["tab"], s.Lengths["gap"] = 80*mm, 60*mm, 30*mm, 12*mm, 700*measure.Micrometre
	b, err := drawerChest.Make(s)
	if err != nil {
		t.Fatal(err)
	}
	wantScores(t, b.Parts[0], 140*mm, 120*mm, halves(60, 220), halves(60, 180))
	wantScores(t, b.Parts[1], 80*mm, 198*mm, nil, halves(123, 186, 309, 372))
	wantScores(t, b.Parts[2], 80*mm, 233*mm, nil, halves(249, 442))
	if b.Parts[0].Count != 6 || b.Parts[1].Count != 6 || b.Room.Times != 6 {
		t.Errorf("%d drawers, %d shells, %d rooms", b.Parts[0].Count, b.Parts[1].Count, b.Room.Times)
	}
	s.Choices["case.pieces"] = "one"
	if b, err = drawerChest.Make(s); err != nil {
		t.Fatal(err)
	}
	wantScores(t, b.Parts[2], 80*mm, 454*mm, nil, halves(249, 442, 691, 884))
}

// Six by four drawers of 42 × 28 × 49 mm: blanks of 98 × 105, six of them from an A4, and a frame of
// 260.5 × 117.5 × 51.
func TestCalendarByHand(t *testing.T) {
	b := halved(t, calendar, map[string]int{"length": 98, "width": 84, "height": 56}, nil)
	drawer, around := b.Parts[0].Pattern, b.Parts[1].Pattern
	if drawer.Width != 105*mm || drawer.Height != 98*mm || b.Parts[0].Count != 24 {
		t.Errorf("%d drawers of %v × %v mm", b.Parts[0].Count, drawer.Width.MM(), drawer.Height.MM())
	}
	wantScores(t, b.Parts[1], 725*mm/2, 439*mm/2, halves(102, 623), halves(102, 337))
	if around.Width-2*51*mm != 521*mm/2 {
		t.Errorf("the frame is %v mm wide", (around.Width - 102*mm).MM())
	}
	for _, f := range b.Fits {
		if gap := f.Do(0).Gap; gap < 0 {
			t.Errorf("a drawer does not go into the narrowest cell, %s: %v mm", f.Axis, gap.MM())
		}
	}
}

// A pillow of 72 × 120 mm along a plate of 60: 12 mm of rise, 24 deep, 65.9 wide when it is shut; its
// corners lie 11 mm from the blank's ends and the arcs' middles 23. The flap's edge reaches the other
// panel's crease.
func TestPillowByHand(t *testing.T) {
	b := halved(t, pillow, map[string]int{"width": 144, "length": 240, "plate": 120, "tab": 24, "ease": 2}, nil)
	p := b.Parts[0].Pattern
	wantScores(t, b.Parts[0], 156*mm, 142*mm, halves(144, 288), nil)
	top, middle := math.Inf(1), 0.0
	for _, c := range p.Creases {
		if !c.Rolled && max(c.A.X, c.B.X) <= 72 && c.A.X != c.B.X && max(c.A.Y, c.B.Y) < 71 {
			top, middle = min(top, c.A.Y, c.B.Y), max(middle, c.A.Y, c.B.Y)
		}
	}
	if math.Abs(top-11) > 0.6 || math.Abs(middle-23) > 0.15 { // the flap ends beside the corner
		t.Errorf("the arcs run from %v to %v mm; want 11 and 23", top, middle)
	}
	body := assembled(t, b, Finished)
	f := body[0].Folded
	lo, hi := f.Bounds(pattern.Pose{Turn: r3.NewRotation(0, r3.Vec{X: 1})})
	if got := hi.Z - lo.Z; math.Abs(got-24) > 0.15 {
		t.Errorf("it is %v mm deep; want 24", got)
	}
	if got := hi.Y - lo.Y; math.Abs(got-65.9) > 0.15 {
		t.Errorf("it is %v mm wide; want 65.9", got)
	}
	for _, c := range p.Creases {
		if c.A.X == 72 && c.B.X == 72 && math.Abs(c.Angle-83) > 2 {
			t.Errorf("its sides are folded by %v°; want about 83", c.Angle)
		}
	}
	_, flap, i := f.Face(flapName("top", 0, 7))
	_, panel, j := f.Face(panelName(1, 7))
	if i < 0 || j < 0 {
		t.Fatal("there is no middle flap")
	}
	apart := math.Inf(1)
	for _, q := range flap.Polygon {
		for _, o := range panel.Polygon {
			apart = min(apart, r3.Norm(r3.Sub(f.Poses[i].Place(q), f.Poses[j].Place(o))))
		}
	}
	if math.Abs(apart-1) > 0.2 {
		t.Errorf("the flap ends %v mm from the other panel's crease; want the ease of 1", apart)
	}
	for d, want := range map[float64]float64{0.2: 0.85, 0.5: 0.70, 0.75: 0.51, 0.9: 0.33} {
		spec := pillow.Usual(measure.Tick(mm), 300*measure.Micrometre)
		spec.Lengths["width"], spec.Lengths["plate"], spec.Lengths["length"] = 72*mm, 60*mm, 120*mm
		shape, err := spec.cushion()
		if got := shape.section(0).width(24*d) / 72; err != nil || math.Abs(got-want) > 0.011 {
			t.Errorf("a block of %v of the depth may be %v of the width; want %v, %v", d, got, want, err)
		}
	}
}

// A circle of 88 mm across and 50 high: a wall of 279 mm and its lap, thirty teeth, a lid of 283.5. A
// heart of 30, 21 and 45°: 307.3 round, 102 × 93.4, a wall of 310. Polygons moved out are as long as
// their curves by 2π.
func TestRoundBoxByHand(t *testing.T) {
	size := map[string]int{"across": 176, "height": 100, "teeth": 16, "lap": 24}
	b := halved(t, roundBox, size, nil)
	wantScores(t, b.Parts[0], 291*mm, 58*mm, nil, halves(100))
	if lid := b.Parts[1].Pattern.Width; lid != 591*mm/2 {
		t.Errorf("the lid's wall is %v mm; want 295.5", lid.MM())
	}
	teeth := 0
	for _, g := range b.Parts[0].Pattern.Glue {
		if strings.HasPrefix(g.Face, "tooth.") {
			teeth++
		}
	}
	if teeth != 30 {
		t.Errorf("%d teeth; want 30", teeth)
	}
	h := newHeart(30, 21, math.Pi/4, 0.25)
	if got := h.length(0); math.Abs(got-307.3) > 0.05 {
		t.Errorf("a heart is %v mm round; want 307.3", got)
	}
	lo, hi := pattern.Bounds(h.smooth(0))
	if got := hi.Sub(lo); math.Abs(got.X-102) > 0.05 || math.Abs(got.Y-93.4) > 0.05 {
		t.Errorf("a heart is %v; want 102 × 93.4", got)
	}
	wall := halved(t, roundBox, map[string]int{"lobe": 60, "apart": 42, "height": 100, "teeth": 16, "lap": 24}, map[string]string{"curve": "heart"}).Parts[0]
	if wall.Pattern.Width != 322*mm {
		t.Errorf("a heart's wall is %v mm; want 310 and 12 of lap", wall.Pattern.Width.MM())
	}
	for name, c := range map[string]curve{"circle": newEgg(88, 44, 44, 0.25), "oval": newEgg(100, 30, 30, 0.25), "egg": newEgg(80, 60, 40, 0.25), "heart": h} {
		for _, by := range []float64{0.4, 2, 5} {
			moved := around(c.smooth(by))
			if off := c.length(by) - moved; off < 0 || off > 0.3 { // a polygon is a little shorter
				t.Errorf("%s moved out by %v is %v mm off", name, by, off)
			}
			if off := c.length(by) - c.length(0) - 2*math.Pi*by; name != "heart" && math.Abs(off) > 1e-3 {
				t.Errorf("%s moved out by %v grows by %v mm more", name, by, off)
			}
		}
	}
}
