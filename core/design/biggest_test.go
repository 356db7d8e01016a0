package design

import (
	"context"
	"encoding/json"
	"errors"
	"math/rand"
	"reflect"
	"strings"
	"testing"
	"time"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/sample"
	"brevium/core/style"
)

var square = paper.Sheet{Name: "12 × 12 in", Width: 12 * inch, Height: 12 * inch}

func biggest(t *testing.T, in Inputs, ask Ask) style.Extent {
	t.Helper()
	ask.Sheet = square
	b, err := FindBiggest(context.Background(), in, ask)
	if err != nil {
		t.Fatalf("%s: %v", in.Style, err)
	}
	return b.Size
}

func TestBiggestByHand(t *testing.T) {
	t.Parallel()
	in := New("", measure.In, "tray")
	if got := biggest(t, in, Ask{Fixed: map[string]measure.Length{"height": 2 * inch}}); got.Length != 8*inch || got.Width != 8*inch {
		t.Errorf("a tray with 2 in walls: %v", got)
	}
	in.Style = "tray-double"
	if got := biggest(t, in, Ask{Fixed: map[string]measure.Length{"height": inch}}); got.Length != 8*inch || got.Width != 8*inch {
		t.Errorf("a double-walled tray with 1 in walls: %v", got)
	}
	in.Style = "tray"
	cube := style.Extent{Length: 1, Width: 1, Height: 1}
	if got := biggest(t, in, Ask{Proportions: cube}); got != (style.Extent{Length: 4 * inch, Width: 4 * inch, Height: 4 * inch}) {
		t.Errorf("a cube: %v", got)
	}
	if got := biggest(t, in, Ask{Fixed: map[string]measure.Length{"height": 2 * inch, "width": 4 * inch}}); got.Length != 8*inch {
		t.Errorf("a tray 4 in wide with 2 in walls: %v", got)
	}
	carton := New("", measure.In, "hinged-carton")
	carton.Size["flap"] = 3 * inch / 4
	// Columns 4u, rows 3/4 + 4u: u is (12 − 3/4) / 4 = 2 13/16.
	if got := biggest(
		t,
		carton,
		Ask{Proportions: style.Extent{Length: 2, Width: 1, Height: 1}},
	); got.Width != 45*inch/16 || got.Length != 45*inch/8 ||
		got.Height != got.Width {
		t.Errorf("a carton of 2:1:1: %v", got)
	}
}

// No larger tick fits, and what is found does: for every style, by making it.
func TestBiggestIsTheBiggest(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(sample.Seed(2)))
	for n, s := range style.Boxes() {
		if !sample.Takes(t, n) {
			continue
		}
		in := New("", measure.MM, s.ID)
		sheet := paper.Sheet{
			Name:   "left over",
			Width:  measure.Length(200+rng.Intn(100)) * mm_,
			Height: measure.Length(200+rng.Intn(90)) * mm_,
			Count:  1,
		}
		if s.ID == "calendar" {
			in.Choices["columns"], in.Choices["rows"] = "2", "2"
		}
		if s.ID == "drawer-chest" || s.ID == "calendar" { // of many pieces
			sheet.Width, sheet.Height = 300*mm_, 300*mm_
		}
		ask := Ask{Sheet: sheet, Proportions: style.Extent{Length: 4, Width: 3, Height: 2}}
		if own, special := map[string]style.Extent{
			"tall-box":     {Length: 2, Width: 2, Height: 5},
			"woven-basket": {Length: 1, Width: 1, Height: 1},
			"pouch":        {Length: 40, Width: 30, Height: 1},
		}[s.ID]; special {
			ask.Proportions = own
		}
		b, err := FindBiggest(context.Background(), in, ask)
		if err != nil {
			t.Errorf("%s: %v", s.ID, err)
			continue
		}
		in.Sheets = []paper.Sheet{sheet}
		size := func(e style.Extent) Inputs {
			x := in.Clone()
			s.Give(x.Size, e) // of two axes with one parameter the larger counts
			return x
		}
		r, err := Make(context.Background(), size(b.Size))
		if err != nil || len(r.Stocks[0].Layout.Unplaced) > 0 {
			t.Errorf("%s of %v does not come out of the sheet: %v", s.ID, b.Size, err)
			continue
		}
		larger, p := b.Size, ask.Proportions // the smallest side a tick more, the others with it
		smallest := min(p.Length, p.Width, p.Height)
		for i := range 3 {
			*larger.Axis(i) += measure.Up(*p.Axis(i)*mm_/smallest, measure.Tick(mm_))
		}
		if r, err := Make(context.Background(), size(larger)); err == nil && len(r.Stocks[0].Layout.Unplaced) == 0 {
			t.Errorf("%s: %v fits too, larger than %v", s.ID, larger, b.Size)
		}
		for _, c := range b.Near {
			if r, err := Make(context.Background(), size(c.Size)); err != nil || len(r.Stocks[0].Layout.Unplaced) > 0 {
				t.Errorf("%s: %q does not come out of the sheet: %v", s.ID, c.Text, err)
			}
		}
	}
}

func TestBiggestRefuses(t *testing.T) {
	t.Parallel()
	in := New("", measure.In, "tray")
	for name, c := range map[string]struct {
		ask   Ask
		field string
	}{
		"no sheet":      {Ask{}, "sheet"},
		"a small sheet": {Ask{Sheet: paper.Sheet{Width: 10 * mm_, Height: 10 * mm_}, Fixed: map[string]measure.Length{"height": inch}}, "sheet"},
		"nothing free":  {Ask{Sheet: square, Fixed: map[string]measure.Length{"length": inch, "width": inch, "height": inch}}, "fixed"},
		"half a shape":  {Ask{Sheet: square, Proportions: style.Extent{Length: 1}}, "proportions"},
	} {
		_, err := FindBiggest(context.Background(), in, c.ask)
		if err == nil || err.Error()[:len(c.field)] != c.field {
			t.Errorf("%s: got %v; want a fault at %s", name, err, c.field)
		}
	}
	late, stop := context.WithDeadline(context.Background(), time.Unix(0, 0))
	defer stop()
	if _, err := FindBiggest(late, in, Ask{Sheet: square}); fault.Of(err).Field != "sheet" || !strings.Contains(err.Error(), "in the time a page has") {
		t.Errorf("when the time is over: %v", err)
	}
	gone, leave := context.WithCancel(context.Background())
	leave()
	if _, err := FindBiggest(gone, in, Ask{Sheet: square}); !errors.Is(err, context.Canceled) {
		t.Errorf("when nobody waits: %v", err)
	}
}

// A lid typed for a higher box does not keep a lower one from being found.
func TestBiggestLetsTheLidFollow(t *testing.T) {
	t.Parallel()
	in := New("", measure.In, "tray-lid")
	in.Lengths["lid.depth"] = 3 * inch
	b, err := FindBiggest(context.Background(), in, Ask{Sheet: square, Fixed: map[string]measure.Length{"height": inch, "width": 4 * inch}})
	if err != nil || len(b.Follow) != 1 || b.Follow[0] != "lid.depth" || b.Size.Height != inch {
		t.Fatalf("%+v, %v", b, err)
	}
	in.Lengths["lid.depth"] = inch / 2
	if b, err := FindBiggest(
		context.Background(),
		in,
		Ask{Sheet: square, Fixed: map[string]measure.Length{"height": 2 * inch, "width": 4 * inch}},
	); err != nil ||
		b.Follow != nil {
		t.Errorf("a lid that can be as deep as typed follows: %+v", b)
	}
}

func TestCopiesFromASheet(t *testing.T) {
	t.Parallel()
	in := New("", measure.In, "tray")
	in.Size = map[string]measure.Length{"length": 2 * inch, "width": 2 * inch, "height": inch}
	if n, err := CopiesFrom(context.Background(), in, square); n != 9 || err != nil {
		t.Errorf("%d trays with blanks of 4 in come out of 12 in; want 9 (%v)", n, err)
	}
}

// Every style is compared for the same things, the cheaper ones first.
func TestCompare(t *testing.T) {
	t.Parallel()
	all := Compare(context.Background(), read(t, jarsAndDeck))
	if len(all) != len(style.Boxes()) {
		t.Fatalf("%d styles of %d", len(all), len(style.Boxes()))
	}
	made := 0
	for i, c := range all {
		if c.Result == nil {
			if c.Fault == nil {
				t.Errorf("%s neither goes nor says why not", c.Style.ID)
			}
			continue
		}
		made++
		if in := c.Result.Inside; in.Length < c.Result.Inputs.Size[c.Style.Axes[0].ID] || c.Card <= 0 || c.Pieces < 1 || c.Sheets < 1 ||
			c.Cuts < 1 ||
			c.Minutes <= 0 {
			t.Errorf("%s: %+v", c.Style.ID, c)
		}
		if i > 0 && all[i-1].Result == nil || i > 0 && all[i-1].Cost > c.Cost {
			t.Errorf("%s stands behind %s", c.Style.ID, all[i-1].Style.ID)
		}
	}
	if made < 3 {
		t.Errorf("only %d styles go", made)
	}
}

// Halving finds what trying every size finds, also where sizes between cannot
// be made: m cannot be made, f fits, l is too large.
func TestTheLastThatFits(t *testing.T) {
	t.Parallel()
	sides := map[byte]side{'m': unmade, 'f': fitting, 'l': tooLarge}
	for pattern, want := range map[string]int{
		"": 0, "f": 1, "m": 0, "l": 0, "fffll": 3, "mmffl": 4, "mmmmm": 0, "mmmll": 0, "ffffm": 4, "fmmmm": 1, "ffmmmmml": 2, "mfmfmfml": 6, "fffff": 5,
	} {
		if got := lastFitting(1, len(pattern), func(n int) side { return sides[pattern[n-1]] }); got != want {
			t.Errorf("%q: %d; want %d", pattern, got, want)
		}
	}
}

// With nothing fixed the biggest is the biggest: compared with every size on the tick and
// every way of choosing what may vary.
func TestBiggestAgainstBruteForce(t *testing.T) {
	t.Parallel()
	sheet := paper.Sheet{Name: "half", Width: 210 * mm_, Height: 148 * mm_, Count: 1}
	for n, id := range []string{"tray", "tray-lid", "clam-box", "wallet-box", "drawer-sleeve", "hinged-carton", "woven-basket", "fold-top-bag"} {
		if !sample.Takes(t, n) {
			continue
		}
		s, _ := style.ByID(id)
		in := New("", measure.CM, id)
		in.Tools.Tick = measure.Tick(10 * mm_)
		b, err := FindBiggest(t.Context(), in, Ask{Sheet: sheet})
		if err != nil {
			t.Errorf("%s: %v", id, err)
			continue
		}
		q := seek{ctx: t.Context(), in: in, style: s, ask: Ask{Sheet: sheet}, tick: in.Tools.Tick, step: in.Tools.Tick.Length()}
		most, best := 0.0, style.Extent{}
		for _, v := range q.variants() {
			x := q
			x.in, x.small = in.Clone(), nil
			for _, c := range v {
				if o, _ := s.Option(c.ID); c.Choice == "" {
					x.small = append(x.small, o)
				} else {
					c.set(&x.in)
				}
			}
			x.allow()
			for l := 10 * mm_; l <= 210*mm_; l += 10 * mm_ {
				for w := 10 * mm_; w <= 210*mm_; w += 10 * mm_ {
					for h := 10 * mm_; h <= 150*mm_; h += 10 * mm_ {
						e := style.Extent{Length: l, Width: w, Height: h}
						at, _, room := x.tried(e)
						if at == tooLarge {
							break
						}
						if at == fitting && room > most+1 {
							most, best = room, e
						}
					}
				}
			}
		}
		in.Sheets = []paper.Sheet{sheet}
		r, err := Make(t.Context(), b.Apply(in))
		if err != nil || len(r.Stocks[0].Layout.Unplaced) > 0 || len(r.Stocks[0].Layout.Sheets) != 1 {
			t.Errorf("%s: what is found does not come out of the sheet: %v", id, err)
			continue
		}
		if got := volume(r.Box.Room.Largest); got < most-1 {
			t.Errorf("%s: found %v with %.1f cm³, %v has %.1f", id, b.Size, got/1000, best, most/1000)
		}
	}
}

// What is kept of the biggest box over a restart comes back whole.
func TestBiggestComesBackFromJSON(t *testing.T) {
	t.Parallel()
	in := New("", measure.In, "tray-lid")
	b, err := FindBiggest(t.Context(), in, Ask{Sheet: square, Fixed: map[string]measure.Length{"height": inch}})
	if err != nil {
		t.Fatal(err)
	}
	text, err := json.Marshal(b)
	if err != nil {
		t.Fatal(err)
	}
	var again *Biggest
	if err := json.Unmarshal(text, &again); err != nil || !reflect.DeepEqual(b, again) {
		t.Errorf("%v: %+v comes back as %+v", err, b, again)
	}
}
