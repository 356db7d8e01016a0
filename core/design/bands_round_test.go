package design

import (
	"math"
	"math/rand"
	"reflect"
	"strings"
	"testing"

	"brevium/core/band"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/core/style"
)

// walletWith is a wallet of 5 × 3 × 5/8 in with a band round the middle of its
// length, and papers.
func walletWith(mats string) string {
	return `{"brevium":1,"name":"w","units":"in","style":"wallet-box","size":{"length":"5 in","back":"3 in","depth":"5/8 in","front":"2 in","flap":"1 1/2 in"},
	 "contents":[],"card":{"name":"c","gsm":240,"thickness":0.3},"bands":[{"axis":"length","width":"1 in","lap":"1/2 in","join":"back"}]` + mats + `}`
}

// A band round a wallet of 3 × 5/8 in of 0.3 mm card: by hand the section is 3 in and
// a card, 76.5, twice; 5/8 in and a card at the foot, 16.175, and a card more at the
// top, where the flap lies on the front. Two layers of paper, 0.3 and 0.15 mm, on the
// back and the flap add 0.45 at the foot and twice that at the top. Half a
// millimetre is to slide.
func TestBandRoundAWallet(t *testing.T) {
	t.Parallel()
	const mats = `,"mats":[{"piece":"body","faces":["back"],"layers":[{"card":{"thickness":0.3},"border":"1/8 in"},{"card":{"thickness":0.15},"border":"1/8 in"}]},
	 {"piece":"body","faces":["flap"],"layers":[{"card":{"thickness":0.3},"border":"1/8 in"},{"card":{"thickness":0.15},"border":"1/8 in"}]}]`
	for _, c := range []struct {
		mats      string
		foot, top float64
	}{{"", 15.875 + 0.3, 15.875 + 0.6}, {mats, 15.875 + 0.3 + 0.45, 15.875 + 0.6 + 0.9}} {
		in, err := Read([]byte(walletWith(c.mats)))
		if err != nil {
			t.Fatal(err)
		}
		again, err := Read(in.Write())
		if err != nil || !reflect.DeepEqual(in.Bands, again.Bands) {
			t.Errorf("read back as %+v, %v", again.Bands, err)
		}
		r := make_(t, in)
		b := r.Bands[0].Strip
		want := 2*(76.2+0.3) + c.foot + c.top
		if got := b.Girth.MM(); math.Abs(got-want-0.5) > 0.02 {
			t.Errorf("girth %v mm; want %v and half a millimetre", got, want)
		}
		if len(b.Scores) != 4 || b.Scores[0] != measure.Inch/2 {
			t.Errorf("scores %v", b.Scores)
		}
		if over := b.Length - b.Girth - measure.Inch/2; over < 0 || over >= measure.Inch/32 {
			t.Errorf("the strip is %v mm long for a girth of %v", b.Length.MM(), b.Girth.MM())
		}
		slides := false
		for _, f := range r.Checks {
			slides = slides || f.ID == "band" && strings.Contains(f.Text, "0.5 mm longer")
		}
		text, err := r.Plan()
		if err != nil || !slides || !strings.Contains(string(text), `"girth"`) || !strings.Contains(string(text), "Cut the belly band ") {
			t.Errorf("told: %v, %v", slides, err)
		}
	}
}

// A thumb's notch lies in the strip's upper edge, in the middle of the side across
// from the join, and is told by its middle.
func TestABandsNotch(t *testing.T) {
	t.Parallel()
	in, err := Read([]byte(strings.Replace(walletWith(""), `"join":"back"`, `"join":"back","notch":true`, 1)))
	if err != nil {
		t.Fatal(err)
	}
	r := make_(t, in)
	b, strip := r.Parts[len(r.Parts)-1], r.Bands[0].Strip
	if len(b.Pattern.Openings) != 1 {
		t.Fatalf("openings %+v", b.Pattern.Openings)
	}
	ring := b.Pattern.Openings[0].Loop
	mid := ring[0].Add(ring[1].Point).Scale(0.5)
	// The sides run round from the join at the back; the front is the third.
	if want := (strip.Scores[2] + strip.Scores[3]).MM() / 2; math.Abs(mid.X-want) > 0.5 && math.Abs(mid.X-(strip.Scores[1]+strip.Scores[2]).MM()/2) > 0.5 || mid.Y != 0 {
		t.Errorf("the notch is at %v, scores %v", mid, strip.Scores)
	}
	told := false
	for _, s := range r.Steps {
		told = told || s.Piece == b.ID && strings.Contains(s.Text, "notch")
	}
	if again, err := Read(in.Write()); !told || err != nil || !again.Bands[0].Notch {
		t.Errorf("told %v, read back %v", told, err)
	}
}

// Round every kind of box, on every axis: the path lies on the hull of what the
// box shows there, its length is the hull's to a millionth, and the scores come
// back to where the loop began.
func TestBandsRoundEveryStyle(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(5))
	for k, s := range style.Boxes() {
		if !sample.Takes(t, k) {
			continue
		}
		for n := range 6 {
			in := New("x", measure.Units[rng.Intn(3)], s.ID)
			in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
			b := UsualBand(in.Units)
			b.ID, b.Axis, b.Join = 1, BandAxes[n%3], BandJoins[n/2]
			b.Width = 10 * mm_
			in.Bands = []Band{b}
			r, err := Make(t.Context(), in)
			if err != nil {
				t.Errorf("%s round the %s: %v", s.ID, b.Axis, err)
				continue
			}
			bodies, err := r.Bodies(style.Finished)
			if err != nil {
				t.Fatal(err)
			}
			hull := style.Section(bodies, nil, n%3, 0, 10, raisedBy(&r.Inputs))
			strip := r.Bands[0].Strip
			if got := strip.Girth.MM() - 0.5; math.Abs(got-band.Perimeter(hull)) > 1e-5 {
				t.Errorf("%s round the %s: %v mm of %v", s.ID, b.Axis, got, band.Perimeter(hull))
			}
			sum := measure.Length(0)
			for _, side := range strip.Sides {
				sum += side
			}
			if math.Abs(sum.MM()-band.Perimeter(hull)) > 1e-4 || len(strip.Scores) != len(strip.Sides) {
				t.Errorf("%s round the %s: sides of %v mm, %d scores", s.ID, b.Axis, sum.MM(), len(strip.Scores))
			}
		}
	}
}

// The words say the side on which the band is in fact joined, and on which side
// of the middle it lies.
func TestBandsAreToldWhereTheyLie(t *testing.T) {
	t.Parallel()
	for _, c := range []struct {
		axis, join string
		at         measure.Length
		lies, told string
	}{
		{"length", "back", 0, "in the middle", "at the back"},
		{"length", "front", 10 * mm_, "10 mm to the right of the middle", "at the front"},
		{"length", "bottom", -10 * mm_, "10 mm to the left of the middle", "at the bottom"},
		{"width", "back", 10 * mm_, "10 mm behind the middle", "at the bottom"},
		{"width", "front", -10 * mm_, "10 mm in front of the middle", "at the bottom"},
		{"height", "bottom", 10 * mm_, "10 mm above the middle", "at the back"},
		{"height", "front", -10 * mm_, "10 mm below the middle", "at the front"},
	} {
		in := New("x", measure.MM, "tray-lid")
		b := UsualBand(in.Units)
		b.ID, b.Axis, b.Join, b.At, b.Width = 1, c.axis, c.join, c.at, 8*mm_
		in.Bands = []Band{b}
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
		r := make_(t, in)
		if said := r.work().Says(r.bandMoves()[0].Phrase[0]); !strings.Contains(said, ", "+c.lies+". ") || !strings.Contains(said, c.told+", to the band only") {
			t.Errorf("round the %s, joined at the %s: %s", c.axis, c.join, said)
		}
	}
}

func TestBandsAreRefused(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ old, new, field string }{
		{`"axis":"length"`, `"axis":"round"`, "bands[0].axis"}, {`"join":"back"`, `"join":"top"`, "bands[0].join"},
		{`"width":"1 in"`, `"width":"0"`, "bands[0].width"}, {`"lap":"1/2 in"`, `"lap":"9 in"`, "bands[0].lap"},
	} {
		if _, err := Read([]byte(strings.Replace(walletWith(""), c.old, c.new, 1))); err == nil || fault.Of(err).Field != c.field {
			t.Errorf("%s: %v at %q", c.new, err, fault.Of(err).Field)
		}
	}
	in, err := Read([]byte(walletWith("")))
	if err != nil {
		t.Fatal(err)
	}
	in.Bands[0].At = 300 * mm_
	if _, err := Make(t.Context(), in); err == nil || fault.Of(err).Field != "bands[0].at" {
		t.Errorf("beside the box: %v", err)
	}
}
