package design

import (
	"math"
	"reflect"
	"strings"
	"testing"

	"brevium/core/band"
	"brevium/core/dress"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/style"
)

// Covering a base of 4 × 3 × 1 1/2 in with paper of 0.12 mm: two layers stand on
// each wall, for a flap laps round each corner, so the lid has 4 × 0.12 mm less.
func TestCoveringTakesFromTheLid(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray-lid")
	for id, v := range map[string]measure.Length{"length": 4 * measure.Inch, "width": 3 * measure.Inch, "height": 3 * measure.Inch / 2} {
		in.Size[id] = v
	}
	in.Lengths["lid.allowance"] = measure.Inch / 8
	bare := make_(t, in)
	for corners, want := range map[dress.CoverCorner]float64{dress.LappedCorners: 0.48, dress.MeetingCorners: 0.24} {
		in.Covers = []dress.Cover{UsualCover("base", measure.In)}
		in.Covers[0].Corners = corners
		r := make_(t, in)
		for i, a := range r.Fits {
			if got := (bare.Fits[i].Gap - a.Gap).MM(); math.Abs(got-want) > 1e-9 {
				t.Errorf("%s, %s: the gap is %v mm less; want %v", corners, a.Pair.Axis, got, want)
			}
		}
	}
	// Of a lid, only the edge that is turned in lies between: 2 × 0.12.
	in.Covers = []dress.Cover{UsualCover("lid", measure.In)}
	if got := (bare.Fits[0].Gap - make_(t, in).Fits[0].Gap).MM(); math.Abs(got-0.24) > 1e-9 {
		t.Errorf("a covered lid takes %v mm", got)
	}
}

// By hand, for that base of 0.3 mm card: the panel is 4 in and a card, 102.39 on
// the ruler's next mark; a wall 1 1/2 in and an edge of 5/8 in to each side.
func TestCoveringByHand(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray-lid")
	in.Size["length"], in.Size["width"], in.Size["height"] = 4*measure.Inch, 3*measure.Inch, 3*measure.Inch/2
	in.Covers = []dress.Cover{UsualCover("base", measure.In)}
	r := make_(t, in)
	p := r.Parts[len(r.Parts)-1]
	thirtySecond := measure.Inch / 32
	if want := 4*measure.Inch + thirtySecond + 2*(3*measure.Inch/2+5*measure.Inch/8); p.Pattern.Width != want {
		t.Errorf("the sheet is %v in wide; want %v", p.Pattern.Width.MM()/25.4, want.MM()/25.4)
	}
	var told []string
	for _, s := range r.Steps {
		if s.Piece == p.ID {
			told = append(told, s.Text)
		}
	}
	text := strings.Join(told, "\n")
	for _, want := range []string{"Cut the base covering 8 9/32 × 7 9/32 in", "5/8 and 2 1/8 in from all four edges", "glued and dry", "Bring each flap round the corner", "over the rim"} {
		if !strings.Contains(text, want) {
			t.Errorf("the steps do not say %q:\n%s", want, text)
		}
	}
	for _, c := range r.Checks {
		if c.Piece == p.ID && c.Verdict != inspect.OK {
			t.Error(c.Text)
		}
	}
	// Folded up, the covering is a tray as high as the base, its panel a card larger.
	lo, hi := p.Folded.Bounds(p.Folded.Poses[0])
	if p.Folded.Residual > 0.01 {
		t.Errorf("it does not close, by %v mm (%v to %v)", p.Folded.Residual, lo, hi)
	}
}

func TestCoveringsThatCannotBe(t *testing.T) {
	t.Parallel()
	for _, c := range []struct {
		style, piece, says string
		change             func(*dress.Cover)
	}{
		{"tray-lid", "roof", "no piece", nil},
		{"wallet-box", "body", "put papers on its faces", nil},
		{"tray-lid", "base", "up to 0.25 mm", func(c *dress.Cover) { c.Card.Thickness = 400 * measure.Micrometre }},
		{"tray-lid", "base", "6 to 40 mm", func(c *dress.Cover) { c.TurnIn = measure.Millimetre }},
		{"tray-lid", "base", "lapped or meeting", func(c *dress.Cover) { c.Corners = "torn" }},
	} {
		in := New("x", measure.MM, c.style)
		cover := UsualCover(c.piece, measure.MM)
		if c.change != nil {
			c.change(&cover)
		}
		in.Covers = []dress.Cover{cover}
		if _, err := Make(t.Context(), in); err == nil || !strings.Contains(err.Error(), c.says) || !strings.HasPrefix(err.Error(), "covers[0]") {
			t.Errorf("%s of a %s: %v", c.piece, c.style, err)
		}
	}
}

// Ribbon crossed on a box that is 120 × 80 × 50 mm outside: 2 × (120 + 50) and
// 2 × (80 + 50), and what the bow takes.
func TestRibbonCrossed(t *testing.T) {
	t.Parallel()
	in := New("x", measure.MM, "tray")
	in.Basis, in.Tools.Tick = Outside, measure.Tenth
	in.Size["length"], in.Size["width"], in.Size["height"] = 120*mm_, 80*mm_, 50*mm_
	x := UsualRibbon(measure.MM)
	in.Ribbons = []Ribbon{x}
	r := make_(t, in)
	want := 2*(120+50) + 2*(80+50) + x.Tied.Takes().MM()
	// To a mark of the ruler up; a corner is sharp to a card's thickness.
	if got := r.Ribbons[0].Length.MM(); math.Abs(got-want) > 1.3 {
		t.Errorf("the ribbon is %v mm; want %v", got, want)
	}
	var told bool
	for _, s := range r.Steps {
		told = told || strings.Contains(s.Text, "of Satin ribbon, 12 mm wide") && strings.Contains(s.Text, "Cross the ends underneath") && strings.Contains(s.Text, "two loops, each 60 mm long")
	}
	supplied := false
	for _, s := range r.Supplies {
		supplied = supplied || s.ID == "ribbon.1" && s.Unit == "mm" && s.Amount == r.Ribbons[0].Length.MM()
	}
	if !told || !supplied {
		t.Errorf("told %v, supplied %v", told, supplied)
	}
}

// Round every kind of box a ribbon's path is the hull of what it goes round, to a
// millionth, and what it lies on has its corners on that hull; a wrap goes all
// round it and past both ends.
func TestRibbonsAndWrapsOfEveryStyle(t *testing.T) {
	t.Parallel()
	for _, s := range style.Boxes() {
		for n, way := range RibbonWays[:4] { // round it
			in := New("x", measure.MM, s.ID)
			x := UsualRibbon(measure.MM)
			x.ID, x.Way, x.Tied.Bow = 1, way, band.Lapped
			in.Ribbons = []Ribbon{x}
			in.Wrap = UsualWrapping(measure.MM)
			in.Wrap.Roll = 2500 * mm_
			in.Wrap.Way = WrapWays[n%2]
			r, err := Make(t.Context(), in)
			if err != nil {
				t.Errorf("%s, %s: %v", s.ID, way, err)
				continue
			}
			bodies, err := r.Bodies(style.Finished)
			if err != nil {
				t.Fatal(err)
			}
			sum := 0.0
			for axis, name := range BandAxes {
				if name == way || way == "crossed" && axis != style.AlongHeight {
					sum += band.Perimeter(style.Section(bodies, nil, axis, 0, x.Tied.Width.MM(), raisedBy(&r.Inputs)))
				}
			}
			if way != "crossed" { // the second of two that cross goes over the first
				if got := r.Ribbons[0].Path.MM(); math.Abs(got-sum) > 1e-6*sum+1e-5 {
					t.Errorf("%s, %s: the path is %v mm of a hull of %v", s.ID, way, got, sum)
				}
				long := 0.0
				for _, l := range r.Lying {
					for _, p := range l.Plates {
						d := [3]float64{p.Corners[1].X - p.Corners[0].X, p.Corners[1].Y - p.Corners[0].Y, p.Corners[1].Z - p.Corners[0].Z}
						long += math.Sqrt(d[0]*d[0] + d[1]*d[1] + d[2]*d[2])
					}
				}
				if other := long; math.Abs(other-sum) > 1e-3 && math.Abs(other-float64(len(r.Lying[0].Plates))*x.Tied.Width.MM()) > 1e-3 {
					t.Errorf("%s, %s: it lies along %v mm of %v", s.ID, way, long, sum)
				}
			} else if got := r.Ribbons[0].Path.MM(); got < sum-1e-3 || got > sum+8*ribbonThick+1e-3 {
				t.Errorf("%s, crossed: the path is %v mm of hulls of %v", s.ID, got, sum)
			}
			w := r.Wrapped
			if w.Diagonal != (w.Way == "diagonal") || w.High < r.Outside.Height-mm_ || w.Long < r.Outside.Length-mm_ {
				t.Errorf("%s: wrapped as %v × %v × %v, outside %v", s.ID, w.Long, w.Wide, w.High, r.Outside)
			}
			if !w.Diagonal && (w.Width.MM() < 2*min(w.Wide, w.High).MM()+band.WrapLap.MM() || w.Height < w.Long+min(w.High, w.Wide)) {
				t.Errorf("%s: a sheet of %v × %v for %v × %v × %v", s.ID, w.Width.MM(), w.Height.MM(), w.Long.MM(), w.Wide.MM(), w.High.MM())
			}
		}
	}
}

// Of two bands that cross, the second goes over the first and is longer by it.
func TestBandsThatCross(t *testing.T) {
	t.Parallel()
	in := New("x", measure.MM, "tray")
	b := UsualBand(measure.MM)
	b.ID, b.Axis = 1, "width"
	in.Bands = []Band{b}
	alone := make_(t, in).Bands[0].Strip.Girth
	first := UsualBand(measure.MM)
	first.ID, first.Axis = 2, "length"
	in.Bands = []Band{first, b}
	r := make_(t, in)
	if over := (r.Bands[1].Strip.Girth - alone).MM(); over < 0.001 || over > 1.3 {
		t.Errorf("over the first it is %v mm longer", over)
	}
	told := ""
	for _, s := range r.Steps {
		if strings.Contains(s.Text, "Where bands cross") {
			told = s.Text
		}
	}
	if !strings.Contains(told, "belly band 2") {
		t.Errorf("told: %q", told)
	}
}

func TestGoodsAreWrittenAndRead(t *testing.T) {
	t.Parallel()
	in := New("x", measure.MM, "tray-lid")
	in.Covers = []dress.Cover{UsualCover("base", measure.MM)}
	in.Ribbons = []Ribbon{UsualRibbon(measure.MM), {Name: "Twine", Way: "height", Colour: "#998877", Loops: 6, Tied: band.Tied{Bow: band.Curls, Width: mm_, Loop: 20 * mm_, Tail: 90 * mm_}}}
	in.Wrap = UsualWrapping(measure.MM)
	in.Wrap.Way = "diagonal"
	in.NumberThings()
	again, err := Read(in.Write())
	if err != nil {
		t.Fatal(err)
	}
	if !reflect.DeepEqual(in.Ribbons, again.Ribbons) || !reflect.DeepEqual(in.Wrap, again.Wrap) || !reflect.DeepEqual(in.Covers, again.Covers) {
		t.Errorf("read back: %+v %+v %+v", again.Ribbons, again.Wrap, again.Covers)
	}
	for field, bad := range map[string]string{
		"ribbons[0].way":            `"ribbons":[{"way":"sideways"}]`,
		"ribbons[0].bow":            `"ribbons":[{"bow":"tie"}]`,
		"ribbons[0].loop":           `"ribbons":[{"loop":"1 mm"}]`,
		"ribbons[0].colour":         `"ribbons":[{"colour":"red"}]`,
		"wrap.way":                  `"wrap":{"way":"crumpled"}`,
		"wrap.roll":                 `"wrap":{"roll":"1 mm"}`,
		"covers[0].card.look.print": `"covers":[{"piece":"base","card":{"look":{"print":"cats"}}}]`,
	} {
		if _, err := Read([]byte(`{"brevium":1,"name":"x","units":"mm","style":"tray-lid","contents":[],` + bad + `}`)); err == nil || !strings.HasPrefix(err.Error(), field+":") {
			t.Errorf("%s: %v", field, err)
		}
	}
}
