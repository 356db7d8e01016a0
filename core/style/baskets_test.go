package style

import (
	"math"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// The woven basket's example: a blank of 144 square with scores at 48 and 96,
// sixteen cuts 48 long, the strips leaning 25, 16.7, 8.3 and 0 degrees, coming
// 13.2 or more past the middle; the ends bow out by 10.3 and stand 46.2 high.
// The second stands 7.8 above its sides.
func TestWovenBasketByHand(t *testing.T) {
	for _, c := range []struct {
		length, width, end, side, handle measure.Length
		blank                            [2]measure.Length
		past, rim, bow                   float64
		cuts                             []measure.Length
	}{
		{48, 48, 48, 48, 144, [2]measure.Length{144, 144}, 13.2, 46.2, 10.3, []measure.Length{12, 24, 36, 48, 96, 108, 120, 132}},
		{60, 50, 60, 50, 180, [2]measure.Length{180, 150}, 6.7, 57.8, 12.8, []measure.Length{15, 30, 45, 60, 120, 135, 150, 165}},
	} {
		b := inMetric(t, wovenBasket, map[string]measure.Length{"length": c.length * mm, "width": c.width * mm, "end": c.end * mm, "side": c.side * mm})
		p := b.Parts[0].Pattern
		wantScores(t, b.Parts[0], c.blank[0]*mm, c.blank[1]*mm, []measure.Length{c.end * mm, (c.end + c.length) * mm}, []measure.Length{c.side * mm, (c.side + c.width) * mm})
		if got := b.Parts[1].Pattern.Height; got != c.handle*mm {
			t.Errorf("the handle is %v mm long", got.MM())
		}
		low := ((c.side + c.width) * mm).MM()
		for _, x := range c.cuts {
			for _, run := range []pattern.Segment{{A: pt(x*mm, 0), B: pt(x*mm, c.side*mm)}, {A: pattern.Pt((x * mm).MM(), low), B: pt(x*mm, c.blank[1]*mm)}} {
				if !slices.ContainsFunc(p.Slits, func(o pattern.Slit) bool { return o.Covers(run, 1e-6) || run.Covers(o.Segment, 1e-6) }) {
					t.Errorf("no cut along %v", run)
				}
			}
		}
		if len(p.Slits) != 2*len(c.cuts) {
			t.Errorf("%d cuts; want %d", len(p.Slits), 2*len(c.cuts))
		}
		bodies := assembled(t, b, Finished)
		rim, bow, least := 0.0, 0.0, math.Inf(1)
		for i, f := range bodies[0].Faces {
			for _, q := range f.Polygon {
				at := bodies[0].Poses[i].Place(q)
				if strings.HasPrefix(f.Name, "left.") {
					rim, bow = max(rim, at.Z), max(bow, -at.X-(c.length*mm).MM()/2)
				}
			}
			if strings.HasPrefix(f.Name, "back.left.") {
				inwards := []float64{}
				for _, q := range f.Polygon {
					inwards = append(inwards, bodies[0].Poses[i].Place(q).X)
				}
				slices.Sort(inwards) // the two at the free end come last
				least = min(least, inwards[2])
			}
		}
		if math.Abs(rim-c.rim) > 0.05 || math.Abs(bow-c.bow) > 0.1 || math.Abs(least-c.past) > 0.1 {
			t.Errorf("rim %.2f, bow %.2f, past the middle %.2f; want %v, %v, %v", rim, bow, least, c.rim, c.bow, c.past)
		}
	}
}

// With the fan every strip crosses at least two of those that come from the other
// end, on both sides; level, each lies on its opposite alone.
func TestStripsCross(t *testing.T) {
	for _, c := range []struct {
		fan   string
		least int
	}{{"25", 2}, {"0", 1}} {
		spec := usual(wovenBasket, map[string]measure.Length{"length": 48 * mm, "width": 48 * mm, "end": 48 * mm, "side": 48 * mm}, map[string]string{"fan": c.fan})
		spec.Tick = measure.Tick(mm)
		b, err := wovenBasket.Make(spec)
		if err != nil {
			t.Fatal(err)
		}
		body := assembled(t, b, Finished)[0]
		for i, f := range body.Faces {
			if !strings.HasPrefix(f.Name, "back.left.") {
				continue
			}
			crosses := 0
			for j, o := range body.Faces {
				if strings.HasPrefix(o.Name, "back.right.") && body.Overlap(i, j) > 1 {
					crosses++
				}
			}
			if crosses < c.least || c.fan == "0" && crosses != 1 {
				t.Errorf("fan %s: %s crosses %d", c.fan, f.Name, crosses)
			}
		}
	}
}

// A sheet of 22.5 × 18 cm in thirds is a basket on a floor of 75 × 60, its ends 75
// and its sides 60 high, from one blank as large as the sheet.
func TestBasketInThirds(t *testing.T) {
	b := inMetric(t, wovenBasket, wovenBasket.FromSheet(180*mm, 225*mm, measure.Tick(mm)))
	wantScores(t, b.Parts[0], 225*mm, 180*mm, []measure.Length{75 * mm, 150 * mm}, []measure.Length{60 * mm, 120 * mm})
}

// The facet basket's example: a blank of 265 × 190 with full scores at 40, 110,
// 155 and 225, wings at 45 and 145, the floor between 65 and 125, the bevels
// between 38 and 152, flaps 38 high with a play of three cards and a hundredth. A
// second one in inches.
func TestFacetBasketByHand(t *testing.T) {
	sizes := map[string]measure.Length{"width": 100 * mm, "height": 70 * mm, "depth": 45 * mm, "bevel": 20 * mm, "lip": 40 * mm}
	b := inMetric(t, facetBasket, sizes)
	wantScores(t, b.Parts[0], 265*mm, 190*mm, []measure.Length{40 * mm, 110 * mm, 155 * mm, 225 * mm}, nil)
	wantParts(t, b.Parts[0].Pattern, mm,
		[4]float64{0, 45, 90, 45}, [4]float64{0, 145, 90, 145}, [4]float64{110, 65, 155, 65}, [4]float64{110, 125, 155, 125},
		[4]float64{111, 38, 154, 38}, [4]float64{111, 152, 154, 152}, [4]float64{90, 45, 110, 65}, [4]float64{155, 65, 175, 45},
		[4]float64{90, 145, 110, 125}, [4]float64{155, 125, 175, 145}, [4]float64{175, 45, 225, 45}, [4]float64{175, 145, 225, 145})
	if gap := b.Fits[0].Do(0).Gap; (gap - 16*measure.Micrometre).Abs() > measure.Micrometre {
		t.Errorf("the flaps stand with %v mm of play", gap.MM())
	}
	b = build(t, facetBasket, lengths("width", 32, "height", 20, "depth", 12, "bevel", 6, "lip", 14, "slant", 8), nil)
	wantScores(t, b.Parts[0], 10*inch, 7*inch, eighths(14, 34, 46, 66), nil)
	wantParts(t, b.Parts[0].Pattern, inch/8,
		[4]float64{0, 12, 28, 12}, [4]float64{0, 44, 28, 44}, [4]float64{34, 18, 46, 18}, [4]float64{34, 38, 46, 38},
		[4]float64{52, 12, 66, 12}, [4]float64{52, 44, 66, 44}, [4]float64{28, 12, 34, 18}, [4]float64{46, 18, 52, 12},
		[4]float64{28, 44, 34, 38}, [4]float64{46, 38, 52, 44})
}

// wantParts looks for scores that stop short, in units of the given length.
func wantParts(t *testing.T, p *pattern.Pattern, unit measure.Length, lines ...[4]float64) {
	t.Helper()
	for _, l := range lines {
		u := unit.MM()
		want := pattern.Segment{A: pattern.Pt(l[0]*u, l[1]*u), B: pattern.Pt(l[2]*u, l[3]*u)}
		if !slices.ContainsFunc(p.Scores.Part, func(s pattern.Segment) bool { return s.Covers(want, 1e-3) }) {
			t.Errorf("no score along %v", l)
		}
	}
}

// With bevels as deep as the slope itself, and card of no thickness, all four
// corners lie on the bevels and the flaps in the plane of the wings.
func TestFacetRingCloses(t *testing.T) {
	s := usual(facetBasket, lengths("width", 32, "height", 20, "depth", 12, "bevel", 6, "lip", 14), nil)
	s.Lengths["slant"] = measure.FromMM((6 * inch / 8).MM() * math.Sqrt2)
	s.Thickness = map[string]measure.Length{}
	b, err := facetBasket.Make(s)
	if err != nil {
		t.Fatal(err)
	}
	f, err := b.Parts[0].Pattern.Finished("base")
	if err != nil {
		t.Fatal(err)
	}
	if f.Residual > 1e-6 {
		t.Errorf("rings open by %v mm", f.Residual)
	}
	flaps := 0
	for _, l := range f.Landings(b.Parts[0].Pattern) {
		if l.Off > 1e-6 || l.Glue.Play > 1e-6 {
			t.Errorf("%s is %v mm off, with %v of play", l.Glue.Face, l.Off, l.Glue.Play)
		}
		if strings.HasPrefix(l.Glue.Face, "flap") {
			flaps++
		}
	}
	if flaps != 2 {
		t.Errorf("%d flaps are glued", flaps)
	}
}
