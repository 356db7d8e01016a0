package strokes

import (
	"math"
	"slices"
	"testing"

	"brevium/core/pattern"
)

func box(x, y, w, h float64) Line {
	return Line{Tool: Cut, Closed: true, Path: pattern.Straight(pattern.Pt(x, y), pattern.Pt(x+w, y), pattern.Pt(x+w, y+h), pattern.Pt(x, y+h))}
}

func total(lines []Line) float64 {
	sum := 0.0
	for _, l := range lines {
		sum += l.Length()
	}
	return sum
}

// Two boxes side by side in a sheet's corner: the line between them once, none along the sheet, and
// the line under both in one.
func TestNeighboursShareALine(t *testing.T) {
	lines := []Line{box(0, 0, 40, 30), box(40, 0, 40, 30)}
	got := Once(lines, 100, 80)
	if len(got) != 2 || math.Abs(total(got)-(30+80+30)) > 1e-9 {
		t.Errorf("%d lines, %g long: %v", len(got), total(got), got)
	}
	if got = Once(lines, 0, 0); math.Abs(total(got)-(2*80+3*30)) > 1e-9 {
		t.Errorf("with no sheet %g long: %v", total(got), got)
	}
	// A score on the sheet's edge stays, and a score is no cut.
	score := Line{Tool: Score, Path: pattern.Straight(pattern.Pt(0, 0), pattern.Pt(0, 30))}
	if got = Once(append(lines, score), 100, 80); len(got) != 3 || got[0].Tool != Score {
		t.Errorf("%v", got)
	}
}

// A line that is drawn in parts, some of them twice, is one; a gap stays a gap.
func TestStraightOn(t *testing.T) {
	part := func(a, b float64) Line {
		return Line{Tool: Cut, Path: pattern.Straight(pattern.Pt(a, a), pattern.Pt(b, b))}
	}
	got := Once([]Line{part(10, 20), part(30, 15), part(30, 40), part(41, 50)}, 0, 0)
	if len(got) != 2 || math.Abs(total(got)-39*math.Sqrt2) > 1e-9 {
		t.Errorf("%v", got)
	}
}

// A ring of arcs and straights stays a ring with its arcs, and the same arc twice is one.
func TestArcsAreKept(t *testing.T) {
	pill := Line{Tool: Cut, Closed: true, Path: pattern.Loop{{Point: pattern.Pt(10, 10)}, {Point: pattern.Pt(40, 10), Bulge: 1}, {Point: pattern.Pt(40, 30)}, {Point: pattern.Pt(10, 30), Bulge: 1}}}
	got := Once([]Line{pill, pill}, 0, 0)
	if len(got) != 1 || !got[0].Closed || len(got[0].Path) != 4 || math.Abs(total(got)-(60+20*math.Pi)) > 0.1 {
		t.Errorf("%v, %g long", got, total(got))
	}
	turned := Line{Tool: Cut, Path: pattern.Loop{{Point: pattern.Pt(0, 0), Bulge: 0.5}, {Point: pattern.Pt(10, 0)}}}
	back := turned.from(1)
	if back.Path[0].Bulge != -0.5 || back.Path[0].X != 10 {
		t.Errorf("the other way: %v", back)
	}
}

// A slit, a hole and what lies in the hole are cut before what they are cut out of, and outlines last;
// also where the piece lies in the sheet's corner and its outline is no ring any more.
func TestTheMostEnclosedFirst(t *testing.T) {
	hole := box(20, 20, 20, 20)
	inHole := box(25, 25, 10, 10)
	slit := Line{Tool: Cut, Path: pattern.Straight(pattern.Pt(10, 60), pattern.Pt(10, 70))}
	hanging := Line{Tool: Cut, Path: pattern.Straight(pattern.Pt(60, 5), pattern.Pt(60, 15))}
	outline := box(5, 5, 80, 70)
	score := Line{Tool: Score, Path: pattern.Straight(pattern.Pt(5, 50), pattern.Pt(85, 50))}
	place := func(all []Stroke, of Line) (int, Kind) {
		k := slices.IndexFunc(all, func(s Stroke) bool {
			return math.Abs(s.Length()-of.Length()) < 1e-6 && s.Closed == of.Closed
		})
		if k < 0 {
			t.Fatalf("%v is not there", of)
		}
		return k, all[k].Kind
	}
	all := Order([]Line{outline, hole, inHole, slit, hanging, score}, 100, 80)
	if all[0].Kind != Scored {
		t.Errorf("first a %s", all[0].Kind)
	}
	in, kindIn := place(all, inHole)
	ho, kindHo := place(all, hole)
	out, kindOut := place(all, outline)
	sl, kindSl := place(all, slit)
	if !(in < ho && ho < out && sl < out && out == len(all)-1) || kindIn != Outer || kindHo != Inner || kindOut != Outer || kindSl != Inner {
		t.Errorf("%d %s, %d %s, %d %s, %d %s", in, kindIn, ho, kindHo, sl, kindSl, out, kindOut)
	}
	corner := Once([]Line{box(0, 0, 85, 75), hole, score}, 100, 80)
	all = Order(corner, 100, 80)
	if ho, kindHo = place(all, hole); ho != 1 || kindHo != Inner || all[2].Kind != Outer {
		t.Errorf("in the sheet's corner the hole is number %d, %s", ho, kindHo)
	}
}

// The nearest next, from where the head is, rings begun at the nearest corner and lines at the
// nearest end.
func TestTheNearestNext(t *testing.T) {
	at := func(x float64) Line {
		return Line{Tool: Score, Path: pattern.Straight(pattern.Pt(x, 80), pattern.Pt(x, 0))}
	}
	got := Order([]Line{at(90), at(10), at(50)}, 100, 80)
	for i, want := range []pattern.Point{pattern.Pt(10, 0), pattern.Pt(50, 80), pattern.Pt(90, 0)} {
		if got[i].Path[0].Point != want {
			t.Errorf("number %d begins at %v; want %v", i, got[i].Path[0].Point, want)
		}
	}
}

// A blade ahead of its tip: the head's way of a straight is that straight, further on by the offset,
// and an arc where it turns.
func TestTheHead(t *testing.T) {
	b := Blade{Behind: 0.25}
	moves := b.Swings([]pattern.Point{pattern.Pt(0, 0), pattern.Pt(10, 0), pattern.Pt(10, 10)})
	want := []Move{{To: pattern.Pt(0.25, 0)}, {To: pattern.Pt(10.25, 0)}, {To: pattern.Pt(10, 0.25), About: pattern.Pt(10, 0), Turn: math.Pi / 2}, {To: pattern.Pt(10, 10.25)}}
	if len(moves) != len(want) {
		t.Fatalf("%v", moves)
	}
	for i, m := range moves {
		if m.To.Sub(want[i].To).Len() > 1e-9 || m.About.Sub(want[i].About).Len() > 1e-9 || math.Abs(m.Turn-want[i].Turn) > 1e-9 {
			t.Errorf("move %d: %v; want %v", i, m, want[i])
		}
	}
}
