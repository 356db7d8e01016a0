package style

import (
	"math"
	"strings"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

func lengths(pairs ...any) map[string]measure.Length {
	out := map[string]measure.Length{}
	for i := 0; i < len(pairs); i += 2 {
		switch v := pairs[i+1].(type) {
		case measure.Length:
			out[pairs[i].(string)] = v
		case int:
			out[pairs[i].(string)] = measure.Length(v) * inch / 8
		}
	}
	return out
}

// The numbers worked by hand for one box of each style, in eighths of an inch.
func TestNumbersByHand(t *testing.T) {
	for _, c := range []struct {
		style                *Style
		size                 map[string]measure.Length
		width, height        measure.Length
		vertical, horizontal []measure.Length
	}{
		{hingedCarton, lengths("length", 40, "width", 16, "height", 20, "flap", 6), 10 * inch, 78 * inch / 8, eighths(20, 60), eighths(6, 22, 42, 58)},
		{clamBox, lengths("length", 56, "width", 24, "height", 10), 76 * inch / 8, 78 * inch / 8, eighths(10, 66), eighths(10, 34, 44, 68)},
		{walletBox, lengths("length", 36, "depth", 6, "front", 24, "back", 26, "flap", 8), 6 * inch, 70 * inch / 8, eighths(6, 42), eighths(24, 30, 56, 62)},
		{foldTopBag, lengths("width", 24, "depth", 8, "panel", 16, "turn", 4), 5 * inch, 7 * inch, eighths(8, 32), eighths(4, 8, 24, 32, 48, 52)},
	} {
		b := build(t, c.style, c.size, nil)
		wantScores(t, b.Parts[0], c.width, c.height, c.vertical, c.horizontal)
		if len(b.Parts[0].Pattern.Scores.Part) != 0 {
			t.Errorf("%s: %d scores stop short", c.style.ID, len(b.Parts[0].Pattern.Scores.Part))
		}
	}
	tall := build(t, tallBox, lengths("width", 20, "depth", 16, "height", 64, "bottom", 10, "tab", 4), nil).Parts[0].Pattern
	if tall.Width != 76*inch/8 || tall.Height != 74*inch/8 {
		t.Errorf("the tube's blank is %v × %v mm", tall.Width.MM(), tall.Height.MM())
	}
	sleeve := build(
		t,
		drawerSleeve,
		lengths("length", 32, "width", 24, "height", 8, "sleeve.allowance", inch/16, "sleeve.slip", 1, "tab", 4, "notch", 4),
		nil,
	)
	wantScores(t, sleeve.Parts[1], 33*inch/8, 8*inch+inch/4+inch/2, nil, []measure.Length{
		3*inch + inch/16, 4*inch + inch/8, 7*inch + 3*inch/16, 8*inch + inch/4,
	})
}

// The bound box's example: covers of 31.5 | 91.5 | 30 or 22 by 122, the holes in
// the middle of the flap and 25 below the front's rim. A second one in inches.
func TestBoundBoxByHand(t *testing.T) {
	half := mm / 2
	b := build(t, boundBox, map[string]measure.Length{"length": 110 * mm, "width": 90 * mm, "height": 30 * mm, "overhang": 6 * mm, "flap": 22 * mm,
		"front": 30 * mm, "spine.allowance": 3 * half}, nil)
	base, lid := b.Parts[1], b.Parts[2]
	wantScores(t, base, 122*mm, 153*mm, nil, []measure.Length{63 * half, 123 * mm})
	wantScores(t, lid, 122*mm, 145*mm, nil, []measure.Length{63 * half, 123 * mm})
	const cut = 25.4 / 32 // half a mark of a ruler in inches
	middle := func(p Part) pattern.Point {
		lo, hi := pattern.Bounds(p.Pattern.Openings[0].Loop.Flat())
		return lo.Add(hi).Scale(0.5)
	}
	if at := middle(lid); math.Abs(at.X-61) > cut || math.Abs(at.Y-(145-11)) > cut {
		t.Errorf("the flap's hole is at %v; want 61, 11 from the edge", at)
	}
	if at := middle(base); math.Abs(at.X-61) > cut || math.Abs(at.Y-(153-25)) > cut {
		t.Errorf("the front's hole is at %v; want 61, 25 from the rim", at)
	}
	b = build(t, boundBox, lengths("length", 32, "width", 24, "height", 12, "overhang", 2, "flap", 6, "front", 12, "spine.allowance", inch/16), nil)
	wantScores(t, b.Parts[1], 36*inch/8, 12*inch/8+36*inch/8+inch/8, nil, []measure.Length{25 * inch / 16, 25*inch/16 + 49*inch/16})
}

// inMetric builds a box with tools that are marked in millimetres; sizes that
// are not given and follow from others do.
func inMetric(t *testing.T, s *Style, lengths map[string]measure.Length) *Box {
	t.Helper()
	spec := usual(s, lengths, nil)
	spec.Tick = measure.Tick(mm)
	for _, p := range s.Parameters {
		if _, given := lengths[p.ID]; !given && p.Follows != nil {
			spec.Lengths[p.ID] = p.Follows(spec) // options keep their usual values
		}
	}
	b, err := s.Make(spec)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

// The book wrap's example: a tin of 44 × 66 × 15 has a cover of 47 | 17 | 47,
// 72 tall, and a strap 2·(44+15)+12 = 130 long. A deck of cards in inches, whose
// strap is lapped on the back.
func TestBookWrapByHand(t *testing.T) {
	b := inMetric(t, bookWrap, map[string]measure.Length{"width": 44 * mm, "height": 66 * mm, "depth": 15 * mm, "margin": 3 * mm, "front": 47 * mm, "back": 47 * mm,
		"tall": 72 * mm, "strap": 12 * mm, "spine": 17 * mm})
	wantScores(t, b.Parts[1], 111*mm, 72*mm, []measure.Length{47 * mm, 64 * mm}, nil)
	wantScores(t, b.Parts[0], 130*mm, 12*mm, []measure.Length{15 * mm, 59 * mm, 74 * mm, 118 * mm}, nil)
	b = build(t, bookWrap, lengths("width", 20, "height", 28, "depth", 3, "margin", 1, "front", 21, "back", 21, "tall", 30, "strap", 6, "spine", 7*inch/16), nil)
	wantScores(t, b.Parts[1], 42*inch/8+7*inch/16, 30*inch/8, []measure.Length{21 * inch / 8, 21*inch/8 + 7*inch/16}, nil)
	wantScores(t, b.Parts[0], 46*inch/8+inch/2, 6*inch/8, eighths(20, 23, 43, 46), nil)
}

// The corner shells' example: a tray of 70 square and 22 high in shells of 72
// and 23. Given a panel of 75 they are loose by 3.5 mm across the flaps. A second
// set in inches.
func TestCornerShellsByHand(t *testing.T) {
	sizes := map[string]measure.Length{"length": 70 * mm, "height": 22 * mm, "panel": 72 * mm, "shell.depth.allowance": mm}
	b := inMetric(t, cornerShells, sizes)
	wantScores(t, b.Parts[0], 158*mm, 158*mm, []measure.Length{22 * mm, 44 * mm, 114 * mm, 136 * mm}, []measure.Length{22 * mm, 44 * mm, 114 * mm, 136 * mm})
	for _, shell := range b.Parts[1:] {
		wantScores(t, shell, 167*mm, 95*mm, []measure.Length{72 * mm, 95 * mm}, []measure.Length{72 * mm})
	}
	sizes["panel"] = 75 * mm
	loose := inMetric(t, cornerShells, sizes)
	wantScores(t, loose.Parts[1], 173*mm, 98*mm, []measure.Length{75 * mm, 98 * mm}, []measure.Length{75 * mm})
	if gap := loose.Fits[1].Do(0).Gap; gap != 3500*measure.Micrometre {
		t.Errorf("given 75 they are loose by %v", gap)
	}
	// Over both legs they are closed and over the long side open: shut, the two
	// meet along the diagonal of the square of P, pulled apart they are clear.
	shut, open := assembled(t, b, Finished), assembled(t, b, Open)
	if hits := Collisions(open); len(hits) > 0 {
		t.Errorf("pulled apart, %s and %s still touch", hits[0].FaceA.Name, hits[0].FaceB.Name)
	}
	if out := Outside(shut); (out.Length-72*mm).Abs() > 2*mm || (out.Width-72*mm).Abs() > 2*mm {
		t.Errorf("shut, the shells are %v", out)
	}
	b = build(t, cornerShells, lengths("length", 24, "height", 8, "panel", 25, "shell.depth.allowance", inch/16), nil)
	wantScores(t, b.Parts[1], 50*inch/8+17*inch/16, 25*inch/8+17*inch/16, []measure.Length{25 * inch / 8, 25*inch/8 + 17*inch/16}, eighths(25))
}

// The flat-fold tray's example on a board of whole millimetres, and with a lid
// half a millimetre deeper; a second set in inches. Nothing of the tray is cut.
func TestFlatFoldTrayByHand(t *testing.T) {
	half := mm / 2
	sizes := map[string]measure.Length{"length": 80 * mm, "width": 80 * mm, "height": 25 * mm, "overhang": 3 * mm, "flap": 15 * mm, "spine.allowance": mm, "lid.allowance": mm}
	b := inMetric(t, flatFoldTray, sizes)
	wantScores(t, b.Parts[0], 130*mm, 130*mm, []measure.Length{25 * mm, 105 * mm}, []measure.Length{25 * mm, 105 * mm})
	if n := len(b.Parts[0].Pattern.Slits); n > 0 || len(b.Parts[0].Pattern.Outline) != 4 {
		t.Errorf("the tray has %d slits and an outline of %d corners", n, len(b.Parts[0].Pattern.Outline))
	}
	wantScores(t, b.Parts[1], 86*mm, 228*mm, nil, []measure.Length{15 * mm, 96 * mm, 122 * mm, 202 * mm})
	sizes["lid.allowance"] = half
	wantScores(t, inMetric(t, flatFoldTray, sizes).Parts[1], 86*mm, 455*half, nil, []measure.Length{15 * mm, 191 * half, 243 * half, 403 * half})
	b = build(t, flatFoldTray, lengths("length", 32, "width", 24, "height", 8, "overhang", 1, "flap", 5, "spine.allowance", inch/16, "lid.allowance", inch/16), nil)
	wantScores(t, b.Parts[0], 6*inch, 5*inch, eighths(8, 40), eighths(8, 32))
	wantScores(t, b.Parts[1], 34*inch/8, 69*inch/8+3*inch/16, nil, []measure.Length{5 * inch / 8, 29*inch/8 + inch/16, 37*inch/8 + inch/8, 61*inch/8 + inch/8})
	// Loose, it lies flat: with every crease undone no face lies over another.
	tray := b.Parts[0].Pattern
	area := 0.0
	faces, err := tray.Faces()
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range faces {
		area += math.Abs(pattern.Area(f.Polygon))
	}
	if want := tray.Width.MM() * tray.Height.MM(); math.Abs(area-want) > 1 {
		t.Errorf("flat, its faces cover %v of %v mm²", area, want)
	}
}

// The dispenser's example: a blank of 288 × 125, scores at 95, 140, 235 and 280
// across and 12, 67 and 112 down, a panel of 95 × 45 whose window clears the
// ledges. A second one in inches.
func TestDispenserByHand(t *testing.T) {
	sizes := map[string]measure.Length{"length": 95 * mm, "width": 45 * mm, "height": 55 * mm, "ledge": 12 * mm, "tuck": 13 * mm, "tab": 8 * mm,
		"window.length": 60 * mm, "window.width": 18 * mm}
	b := inMetric(t, dispenser, sizes)
	wantScores(t, b.Parts[0], 288*mm, 125*mm, []measure.Length{95 * mm, 140 * mm, 235 * mm, 280 * mm}, []measure.Length{12 * mm, 67 * mm, 112 * mm})
	panel := b.Parts[1].Pattern
	lo, hi := pattern.Bounds(panel.Openings[0].Loop.Flat())
	if panel.Width != 95*mm || panel.Height != 45*mm || lo.X < 12 || lo.Y < 12 || hi.X > 83 || hi.Y > 33 {
		t.Errorf("the panel is %v × %v, its window %v to %v", panel.Width, panel.Height, lo, hi)
	}
	b = build(t, dispenser, lengths("length", 32, "width", 16, "height", 20, "ledge", 4, "tuck", 4, "tab", 4, "window.length", 16, "window.width", 6), nil)
	wantScores(t, b.Parts[0], 100*inch/8, 44*inch/8, eighths(32, 48, 80, 96), eighths(4, 24, 40))
}

// Four refills cover the four sides: the two on the long ones lie flat on them,
// those on the narrow ones reach over their ends; the window clears the ledges by
// 11 and 3 mm. A refill that is too short for that is refused.
func TestDispenserRefills(t *testing.T) {
	sizes := map[string]measure.Length{"length": 95 * mm, "width": 45 * mm, "height": 55 * mm, "ledge": 12 * mm, "tuck": 13 * mm, "tab": 8 * mm,
		"window.length": 60 * mm, "window.width": 18 * mm, "refill.length": 90 * mm, "refill.depth": 14 * mm, "refill.height": 55 * mm}
	spec := usual(dispenser, sizes, map[string]string{"refills": "4"})
	spec.Tick = measure.Tick(mm)
	b, err := dispenser.Make(spec)
	if err != nil {
		t.Fatal(err)
	}
	var gaps []measure.Length
	for _, p := range b.Fits {
		gaps = append(gaps, p.Do(0).Gap)
	}
	if len(gaps) != 2 || gaps[0] != 11*mm || gaps[1] != 3*mm {
		t.Errorf("the window clears the ledges by %v", gaps)
	}
	sides := map[string]float64{}
	for _, body := range assembled(t, b, Finished) {
		if !strings.HasPrefix(body.Part.ID, "refill-") {
			continue
		}
		lo, hi := body.Bounds(pattern.Pose{Turn: r3.NewRotation(0, r3.Vec{Z: 1})})
		at := r3.Scale(0.5, r3.Add(lo, hi))
		switch {
		case math.Abs(at.X) < 1e-6:
			sides[map[bool]string{true: "back", false: "front"}[at.Y > 0]] = hi.X - lo.X
		case math.Abs(at.Y) < 1e-6:
			sides[map[bool]string{true: "right", false: "left"}[at.X > 0]] = hi.Y - lo.Y
		}
	}
	if len(sides) != 4 || sides["left"] < 45+2*14 || sides["front"] > 95 || b.Hooks != 4 {
		t.Errorf("sides covered: %v", sides)
	}
	spec.Lengths["refill.length"] = 72 * mm
	if _, err := dispenser.Make(spec); err == nil || fault.Of(err).Field != "size.refill.length" || !strings.Contains(err.Error(), "73 mm") {
		t.Errorf("a refill too short to cover the end: %v", err)
	}
}

// A tower of clam boxes from three sheets, the example: 30, 25 and 20 cm with
// 40, 30 and 24 mm give 220 × 90, 190 × 80 and 152 × 64. A height that does not
// halve what is left goes to the next that does.
func TestTowerBySheets(t *testing.T) {
	spec := usual(tower, map[string]measure.Length{"sheet.1": 300 * mm, "sheet.2": 250 * mm, "sheet.3": 200 * mm,
		"height.1": 40 * mm, "height.2": 30 * mm, "height.3": 24 * mm}, map[string]string{"grade": "sheets", "boxes": "clam-box", "count": "3"})
	spec.Tick = measure.Tick(mm)
	b, err := tower.Make(spec)
	if err != nil {
		t.Fatal(err)
	}
	for i, want := range [][3]measure.Length{{220, 90, 40}, {190, 80, 30}, {152, 64, 24}} {
		l, d, h := want[0]*mm, want[1]*mm, want[2]*mm
		p := b.Parts[i].Pattern
		if p.Width != l+2*h || p.Height != 2*d+3*h {
			t.Errorf("box %d is cut %v × %v", i+1, p.Width, p.Height)
		}
		if v := p.Scores.Vertical; v[0] != h || v[len(v)-1] != h+l {
			t.Errorf("box %d is scored at %v", i+1, v)
		}
	}
	spec.Lengths["height.1"] = 41 * mm
	if b, err = tower.Make(spec); err != nil || b.Parts[0].Pattern.Scores.Vertical[0] != 42*mm {
		t.Errorf("41 leaves 177 to be halved; it becomes %v, %v", b.Parts[0].Pattern.Scores.Vertical, err)
	}
}

func TestSteppedScoresStopShort(t *testing.T) {
	s := usual(clamBox, lengths("length", 56, "width", 24, "height", 10), map[string]string{"lid.scores": "stepped"})
	s.Lengths["lid.allowance"] = inch / 8
	b, err := clamBox.Make(s)
	if err != nil {
		t.Fatal(err)
	}
	p := b.Parts[0].Pattern
	if len(p.Scores.Vertical) != 0 || len(p.Scores.Part) != 4 {
		t.Fatalf("%d full lines and %d short ones; want none and four", len(p.Scores.Vertical), len(p.Scores.Part))
	}
	for _, seg := range p.Scores.Part {
		x, long := seg.A.X/25.4, (seg.B.Y-seg.A.Y)/25.4
		inner := math.Abs(x-1.25) < 1e-9 || math.Abs(x-8.25) < 1e-9
		outer := math.Abs(x-1.1875) < 1e-9 || math.Abs(x-8.3125) < 1e-9
		if !(inner && math.Abs(long-5.5) < 1e-9) && !(outer && math.Abs(long-4.375) < 1e-9) {
			t.Errorf("a score at %v in, %v in long", x, long)
		}
	}
	if gap := b.Fits[0].Do(0).Gap; gap != inch/8-1200*measure.Micrometre {
		t.Errorf("the stepped lid's gap is %v mm", gap.MM())
	}
}

// On a tray of 2¼ in a slope of 1½ in rises √(1.5² − 1.125²) in.
func TestGableRises(t *testing.T) {
	b := build(t, gableLid, lengths("width", 18, "height", 16, "wall", 8, "slope", 12, "fin", 4, "tab", 4), map[string]string{})
	lid := b.Parts[1]
	f, err := lid.Pattern.Finished(lid.Root)
	if err != nil || f.Residual > 1e-6 {
		t.Fatalf("the rings are open by %v mm, %v", f.Residual, err)
	}
	// In the frame of the front wall, y runs down the pattern, towards the ridge.
	least, most := math.Inf(1), math.Inf(-1)
	for i, face := range f.Faces {
		for _, q := range face.Polygon {
			y := -f.Poses[i].Place(q).Y
			least, most = min(least, y), max(most, y)
		}
	}
	want := 1 + math.Sqrt(1.5*1.5-1.125*1.125) + 0.5
	if got := (most - least) / 25.4; math.Abs(got-want) > 1e-6 {
		t.Errorf("the lid stands %v in high; want %v", got, want)
	}
}

func TestArchIsRoundedToTheTick(t *testing.T) {
	s := usual(archedBox, map[string]measure.Length{"width": 40 * mm, "straight": 15 * mm, "length": 60 * mm, "tab": 10 * mm}, nil)
	s.Tick = measure.Tick(mm)
	b, err := archedBox.Make(s)
	if err != nil {
		t.Fatal(err)
	}
	cover := b.Parts[1]
	// 30 + 20π = 92.83 mm.
	if got := cover.Pattern.Scores.Horizontal; len(got) != 2 || got[1]-got[0] != 93*mm {
		t.Errorf("the cover is scored at %v", got)
	}
}

func TestRoundAndPointedFlaps(t *testing.T) {
	size := lengths("length", 36, "depth", 6, "front", 24, "back", 26, "flap", 10)
	areas := map[string]float64{}
	for _, shape := range []string{"straight", "rounded", "pointed"} {
		p := build(t, walletBox, size, map[string]string{"flap.shape": shape}).Parts[0].Pattern
		areas[shape] = p.Area()
	}
	r := 31.75
	full := areas["rounded"] + 2*(r*r-math.Pi*r*r/4)
	straight := areas["straight"] + r*flapWedge.MM()
	if math.Abs(full-straight) > 1 {
		t.Errorf("with the corners put back the flaps cover %v and %v mm²", full, straight)
	}
	if areas["pointed"] >= areas["straight"] {
		t.Error("a pointed flap is no smaller than a straight one")
	}
	notched := build(t, walletBox, merge(size, lengths("notch", 8)), nil).Parts[0].Pattern
	if d := areas["straight"] - notched.Area(); math.Abs(d-math.Pi*12.7*12.7/2) > 1 || len(notched.Openings) != 1 {
		t.Errorf("the notch takes %v mm² away", d)
	}
}

func merge(a, b map[string]measure.Length) map[string]measure.Length {
	out := map[string]measure.Length{}
	for _, m := range []map[string]measure.Length{a, b} {
		for k, v := range m {
			out[k] = v
		}
	}
	return out
}

// A tab stops short of a thumb notch.
func TestTabsStopShortOfTheNotch(t *testing.T) {
	size := lengths("length", 32, "width", 20, "height", 12, "notch", 8)
	p := build(t, drawerSleeve, size, map[string]string{"notch.on": "drawer"}).Parts[0].Pattern
	for _, g := range p.Glue {
		lo, hi := pattern.Bounds(g.Area)
		if reach := hi.X - lo.X; reach > 20*3.175/2-12.7-2+1e-9 {
			t.Errorf("tab %s reaches %v mm, into the notch", g.Face, reach)
		}
	}
}

func TestSizesFromLayersAgreeWithTheRule(t *testing.T) {
	third := 300 * measure.Micrometre
	for _, c := range []struct {
		style   *Style
		choices map[string]string
		kl, kw  measure.Length // layers on each side
		rolled  bool
	}{
		{tray, nil, 1, 0, false}, {tray, map[string]string{"corners": "pinwheel"}, 1, 1, false},
		{trayDouble, nil, 2, 1, true}, {trayDouble, map[string]string{"corners": "pinwheel"}, 2, 2, true},
		{trayLid, map[string]string{"base.walls": "double"}, 2, 1, true},
	} {
		b := build(t, c.style, size(4*inch, 3*inch, inch), c.choices)
		in, out := b.Room.Largest, Outside(assembled(t, b, Finished))
		want := Extent{4*inch - third*(1+2*c.kl), 3*inch - third*(1+2*c.kw), inch - third/2}
		if in != want {
			t.Errorf("%s %v: inside %v; want %v", c.style.ID, c.choices, in, want)
		}
		if c.style != trayLid {
			high := inch + third/2
			if c.rolled {
				high += third / 2
			}
			if want := (Extent{4*inch + third, 3*inch + third, high}); out != want {
				t.Errorf("%s %v: outside %v; want %v", c.style.ID, c.choices, out, want)
			}
		}
	}
}

func TestNestAndTower(t *testing.T) {
	b := build(t, nest, size(5*inch, 4*inch, 2*inch), map[string]string{"count": "4"})
	if len(b.Parts) != 4 || len(b.Fits) != 6 {
		t.Fatalf("%d trays and %d fits", len(b.Parts), len(b.Fits))
	}
	for _, f := range b.Fits {
		if f.Do(0).Gap < 0 {
			t.Errorf("%s in %s: %v mm", f.Inner, f.Outer, f.Do(0).Gap.MM())
		}
	}
	tw := build(t, tower, merge(size(6*inch, 6*inch, inch), lengths("step", 8)), map[string]string{"boxes": "tray", "count": "3"})
	for i, p := range tw.Parts {
		if want := measure.Length(8-i) * inch; p.Pattern.Width != want {
			t.Errorf("storey %d is %v mm wide; want %v", i+1, p.Pattern.Width.MM(), want.MM())
		}
	}
	sheets := build(t, tower, size(6*inch, 6*inch, 2*inch), map[string]string{"boxes": "tray", "grade": "sheets"})
	for i, p := range sheets.Parts {
		if side := sheetSides[i].Default; p.Pattern.Width != side || p.Pattern.Height != side {
			t.Errorf("storey %d is cut from %v mm; want the whole sheet", i+1, p.Pattern.Width.MM())
		}
	}
}
