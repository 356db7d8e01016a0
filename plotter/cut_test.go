package plotter

import (
	"bytes"
	"math"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/strokes"
	"brevium/core/tool"
)

func aSheet(lines ...strokes.Line) *File {
	return &File{Width: 100, Height: 80, Lines: lines, Card: 0.3}
}

func ringOf(points ...float64) strokes.Line {
	l := strokes.Line{Tool: strokes.Cut, Closed: true}
	for i := 0; i < len(points); i += 2 {
		l.Path = append(l.Path, pattern.Vertex{Point: pattern.Pt(points[i], points[i+1])})
	}
	return l
}

func usual(t *testing.T) Options {
	t.Helper()
	mat, err := tool.ParseMat("12x12")
	if err != nil {
		t.Fatal(err)
	}
	return Usual(mat, 0.3)
}

// Swung at its corners the blade's tip keeps to its way; left to trail it is a quarter of a
// millimetre off at a square corner.
func TestTheBladeTrails(t *testing.T) {
	f := aSheet(ringOf(20, 20, 60, 20, 60, 50, 20, 50))
	o := usual(t)
	r, err := Cut(f, o, nil)
	if err != nil || r.Tip > 0.01 {
		t.Errorf("the tip strays by %g, %v", r.Tip, err)
	}
	o.Raw = true
	if r, err = Cut(f, o, nil); err != nil || math.Abs(r.Tip-0.25) > 0.01 {
		t.Errorf("left to trail it strays by %g, %v; want 0.25", r.Tip, err)
	}
}

// On a straight the blade swings in behind the head: tan(φ/2) falls by exp(−s/e). From across, after
// 0.25 mm with e = 0.25, φ is 2·atan(1/e) = 40.4°.
func TestTheTractrix(t *testing.T) {
	b := strokes.Blade{Behind: 0.25, Heading: math.Pi / 2}
	tip := b.Tip([]pattern.Point{pattern.Pt(0, 0), pattern.Pt(0.25, 0)})
	if got := b.Heading * 180 / math.Pi; math.Abs(got-40.395) > 0.01 {
		t.Errorf("it points %g° off its way", got)
	}
	if last := tip[len(tip)-1]; math.Abs(last.Sub(pattern.Pt(0.25, 0)).Len()-0.25) > 1e-9 {
		t.Errorf("the tip is at %v", last)
	}
}

// A pass of p grams sinks p/700 mm: 0.3 mm of card want 224 g, in one pass or in two.
func TestDepth(t *testing.T) {
	for _, c := range []struct {
		force  float64
		passes int
		free   bool
	}{{224, 1, true}, {223, 1, false}, {112, 2, true}, {111, 2, false}} {
		o := usual(t)
		o.Force[strokes.Cut], o.Passes[strokes.Cut] = c.force, c.passes
		want := []strokes.Piece{{Name: "tag", Copies: 1, Outline: []pattern.Point{pattern.Pt(0, 0), pattern.Pt(40, 0), pattern.Pt(40, 30), pattern.Pt(0, 30)}}}
		r, err := Cut(aSheet(ringOf(20, 20, 60, 20, 60, 50, 20, 50)), o, want)
		if err != nil || (len(r.Free) == 1) != c.free || (len(r.Held) == 0) != c.free || r.AsPlanned() != c.free {
			t.Errorf("%g g, %d times: %+v, %v", c.force, c.passes, r, err)
		}
	}
	o := usual(t)
	o.Force[strokes.Score] = 200
	r, err := Cut(aSheet(strokes.Line{Tool: strokes.Score, Path: pattern.Straight(pattern.Pt(10, 10), pattern.Pt(60, 10))}), o, nil)
	if err != nil || len(r.Warnings) != 1 || r.Warnings[0].Code != "deep-score" {
		t.Errorf("%+v, %v", r.Warnings, err)
	}
}

// By hand: set up 15 s, two tools 40, a score of 60 at 200 mm/s and its 0.2; a ring of 140 and 0.5 more
// at 100 mm/s, 0.2 and its three turns of 0.05, and the way through the air at 300 mm/s.
func TestTime(t *testing.T) {
	o := usual(t)
	o.Blade = 0
	r, err := Cut(aSheet(
		strokes.Line{Tool: strokes.Score, Path: pattern.Straight(pattern.Pt(0, 10), pattern.Pt(60, 10))},
		ringOf(60, 10, 90, 10, 90, 50, 60, 50),
	), o, nil)
	air := 10 + math.Hypot(60, 10)
	want := 15 + 40 + 0.2 + 60.0/200 + 0.2 + 140.5/100 + 3*0.05 + air/300
	if err != nil || math.Abs(r.Seconds-want) > 0.011 || math.Abs(r.Travel.MM-air) > 0.01 {
		t.Errorf("%g s, %g mm through the air, %v; want %g, %g", r.Seconds, r.Travel.MM, err, want, air)
	}
}

// What no blade leaves whole is refused: a neck that is too narrow, a hole, a slit.
func TestTooSmall(t *testing.T) {
	neck := func(wide float64) []float64 {
		return []float64{10, 10, 30, 10, 30, 20, 50, 20, 50, 10, 70, 10, 70, 40, 50, 40, 50, 20 + wide, 30, 20 + wide, 30, 40, 10, 40}
	}
	for name, c := range map[string]struct {
		lines []strokes.Line
		fine  bool
	}{
		"a neck of 1.2": {[]strokes.Line{ringOf(neck(1.2)...)}, false},
		"a neck of 2":   {[]strokes.Line{ringOf(neck(2)...)}, true},
		"a hole of 1":   {[]strokes.Line{ringOf(10, 10, 70, 10, 70, 40, 10, 40), ringOf(20, 20, 21, 20, 21, 21, 20, 21)}, false},
		"a hole of 2":   {[]strokes.Line{ringOf(10, 10, 70, 10, 70, 40, 10, 40), ringOf(20, 20, 22, 20, 22, 22, 20, 22)}, true},
		"a slit of 1":   {[]strokes.Line{ringOf(10, 10, 70, 10, 70, 40, 10, 40), {Tool: strokes.Cut, Path: pattern.Straight(pattern.Pt(20, 20), pattern.Pt(21, 20))}}, false},
	} {
		want := strokes.Piece{Name: "bar", Copies: 1, Outline: c.lines[0].Path.Flat()}
		for _, l := range c.lines[1:] {
			if l.Closed {
				want.Holes = append(want.Holes, l.Path.Flat())
			} else {
				want.Slits = append(want.Slits, l.Path.Open())
			}
		}
		r, err := Cut(aSheet(c.lines...), usual(t), []strokes.Piece{want})
		if c.fine != (err == nil) || c.fine && !r.AsPlanned() {
			t.Errorf("%s: %v", name, err)
		}
		if !c.fine && (err == nil || !strings.HasPrefix(err.Error(), "too-small")) {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// The same seed gives the same bytes.
func TestTheSameReport(t *testing.T) {
	var last []byte
	for range 2 {
		f := aSheet(ringOf(25, 25, 60, 25, 60, 50, 25, 50))
		f.Marks = []pattern.Point{pattern.Pt(12.5, 12.5), pattern.Pt(87.5, 12.5), pattern.Pt(12.5, 67.5), pattern.Pt(87.5, 67.5)}
		o := usual(t)
		o.Seed, o.Marks = 7, 4
		r, err := Cut(f, o, nil)
		if err != nil {
			t.Fatal(err)
		}
		text, err := JSON([]*Report{r})
		if err != nil || last != nil && !bytes.Equal(text, last) || !bytes.Contains(text, []byte(`"fit": "affine"`)) {
			t.Errorf("%s, %v", text, err)
		}
		last = text
	}
}

// A machine that presses too little for a card goes over its cuts again: 0.5 mm want 364 g, which 150 g
// make in three passes.
func TestOnesOwnMachine(t *testing.T) {
	m := tool.UsualMachine(tool.Mats[0])
	m.Force, m.Blade = 150, 300*measure.Micrometre
	mat := m.Mats[0]
	o := With(m, mat, 0.5)
	if o.Blade != 0.3 || o.Force[strokes.Cut] != 150 || o.Passes[strokes.Cut] != 3 {
		t.Errorf("%+v", o)
	}
	want := strokes.Piece{Name: "tag", Copies: 1, Outline: []pattern.Point{pattern.Pt(0, 0), pattern.Pt(40, 0), pattern.Pt(40, 30), pattern.Pt(0, 30)}}
	if r, err := Cut(aSheet(ringOf(20, 20, 60, 20, 60, 50, 20, 50)), o, []strokes.Piece{want}); err != nil || !r.AsPlanned() || r.Tools[0].Passes != 3 {
		t.Errorf("%+v, %v", r, err)
	}
	if o = With(m, mat, 0.15); o.Passes[strokes.Cut] != 0 {
		t.Errorf("thin card in %d passes", o.Passes[strokes.Cut])
	}
}
