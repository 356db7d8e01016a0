package design

import (
	"fmt"
	"math"
	"math/rand"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/fit"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/core/style"
)

// roomy is a random design of a style on sheets that any blank fits on; ok is false where
// these sizes are refused.
func roomy(t *testing.T, rng *rand.Rand, s *style.Style) (in Inputs, r *Result, ok bool) {
	t.Helper()
	unit := []measure.Unit{measure.In, measure.CM, measure.MM}[rng.Intn(3)]
	in = randomSize(rng, unit, s)
	r, err := Make(t.Context(), in)
	return in, r, err == nil
}

var sides = regexp.MustCompile(`(?:about )?([\d /.]+) × ([\d /.]+) × ([\d /.]+) (in|cm|mm)`)

// readSides reads a room as it is told.
func readSides(t *testing.T, text string) style.Extent {
	t.Helper()
	m := sides.FindStringSubmatch(text)
	if m == nil {
		t.Fatalf("no size in %q", text)
	}
	var e style.Extent
	for i := range 3 {
		l, err := measure.Parse(m[i+1], measure.Unit(m[4]))
		if err != nil {
			t.Fatalf("%q: %v", text, err)
		}
		*e.Axis(i) = l
	}
	return e
}

// What is said to be free is free, and what is said to be taken up is no less, whatever
// the board's grooves are: one size, one truth.
func TestRoomIsNotClaimed(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(sample.Seed(27)))
	claimed := 0
	for _, s := range style.Listed() {
		for range sample.Of(t, 8) {
			in, r, ok := roomy(t, rng, s)
			if !ok {
				continue
			}
			const rounding = measure.Micrometre
			for _, f := range r.Checks {
				if f.ID != "room" && f.ID != "fill" || f.Verdict != inspect.OK || !sides.MatchString(f.Text) {
					continue
				}
				claimed++
				said, has := readSides(t, f.Text), r.Inside
				for i := range 3 {
					if *said.Axis(i) > *has.Axis(i)+rounding {
						t.Errorf("%s on %v, %s: says %q, and has %v mm", s.ID, in.Tools.Tick.Length(), f.ID, f.Text, has.Axis(i).MM())
					}
				}
			}
			free, taken := readSides(t, r.Inside.FreeIn(in.Units)), readSides(t, r.Outside.TakenIn(in.Units))
			ruler := in.Units.Ruler().Length()
			for i := range 3 {
				if d := *r.Inside.Axis(i) - *free.Axis(i); d < -rounding || d >= ruler+rounding {
					t.Errorf("%s: inside %v mm is told as %v", s.ID, r.Inside.Axis(i).MM(), free.Axis(i).MM())
				}
				if d := *taken.Axis(i) - *r.Outside.Axis(i); d < -rounding || d >= ruler+rounding {
					t.Errorf("%s: outside %v mm is told as %v", s.ID, r.Outside.Axis(i).MM(), taken.Axis(i).MM())
				}
			}
		}
	}
	if claimed < sample.Of(t, 100) {
		t.Errorf("only %d claims were looked at", claimed)
	}
}

// On a board of 5 mm a room of 7.48 cm is that, and not 7.
func TestABoardsGroovesDoNotRoundARoom(t *testing.T) {
	t.Parallel()
	in := read(t, `{"brevium":1,"name":"x","units":"cm","style":"tray","options":{"tick":"0.5 cm"},"size":{"length":75,"width":50,"height":30}}`)
	r := make_(t, in)
	if got := fmt.Sprint(r.Inside.FreeIn(measure.CM)); got != "7.4 × 4.95 × 2.95 cm" {
		t.Errorf("inside %s: of %v", got, r.Inside)
	}
}

// Where a fit that holds is wanted, the program does not warn of its own answer.
func TestTheSolverStandsByItsAnswer(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(sample.Seed(19)))
	solved := 0
	for range sample.Of(t, 40) {
		for _, s := range style.Listed() {
			if s.Allowance == nil {
				continue
			}
			in := randomSize(rng, []measure.Unit{measure.In, measure.CM}[rng.Intn(2)], s)
			in.Fit = []fit.Verdict{fit.Snug, fit.Easy}[rng.Intn(2)]
			in.Card.Thickness = []measure.Length{200, 300, 400, 500}[rng.Intn(4)] * measure.Micrometre
			for id := range in.Lengths {
				if s.Allowance != nil && strings.HasPrefix(id, s.Allowance.ID) {
					delete(in.Lengths, id)
				}
			}
			r, err := Sketch(in)
			if err != nil || !r.Solved {
				continue
			}
			solved++
			for _, f := range inspect.Fits(r.Fits) {
				i := slices.IndexFunc(r.Fits, func(a fit.Account) bool { return "fit."+a.Pair.Axis == f.ID && a.Pair.Outer == f.Piece })
				// The same scores for both halves, or a size of the maker's, are no answer of it.
				own := r.Fits[i].Pair.Kind.Widened() && !r.Fits[i].Pair.Kind.Gives && r.Spec.Lengths[s.Allowance.ID] > 0
				if f.Verdict != inspect.OK && own {
					t.Errorf("%s, %s wanted, %v of card on %v mm: %s", s.ID, in.Fit, in.Card.Thickness.MM(), in.Tools.Tick.Length().MM(), f.Text)
				}
			}
		}
	}
	if solved < sample.Of(t, 150) {
		t.Errorf("only %d were worked out", solved)
	}
}

// A drawer's width and height are worked out each for itself.
func TestADrawersAllowancesAreItsOwn(t *testing.T) {
	t.Parallel()
	in := read(t, of("drawer-sleeve", `"card":{"gsm":400,"thickness":0.5}`))
	r := make_(t, in)
	for _, a := range r.Fits {
		if a.Pair.Kind.Widened() && a.Verdict != fit.Snug && a.Verdict != fit.Easy {
			t.Errorf("%s: %v mm is %s", a.Pair.What(), a.Gap.MM(), a.Verdict)
		}
	}
}

// Papers that begin below where a lid reaches take none of its gap.
func TestPapersBelowTheLidTakeNoGap(t *testing.T) {
	t.Parallel()
	base := `"size":{"length":"6 in","width":"4 in","height":"3 in"},"options":{"lid.depth":"1/2 in","lid.allowance":"1/16 in"}`
	paper := func(border string) string {
		return base + `,"mats":[{"piece":"base","where":"walls","layers":[{"card":{"name":"Sprigs","gsm":120},"border":{"across":"1/8 in","up":` + border + `}}]}]`
	}
	bare := make_(t, read(t, of("tray-lid", base))).Fits[0].Gap
	if low := make_(t, read(t, of("tray-lid", paper(`"1 in"`)))).Fits[0].Gap; low != bare {
		t.Errorf("papers that the lid never reaches: a gap of %v, bare %v", low.MM(), bare.MM())
	}
	if high := make_(t, read(t, of("tray-lid", paper(`"1/8 in"`)))).Fits[0].Gap; high >= bare {
		t.Errorf("papers that the lid goes over: a gap of %v, bare %v", high.MM(), bare.MM())
	}
}

// A clam box with the same scores is tight while its walls bend, and will not go on when
// the card is too thick for that.
func TestAClamBoxOfThickCard(t *testing.T) {
	t.Parallel()
	for thick, want := range map[string]inspect.Verdict{"0.3": inspect.Warn, "0.6": inspect.Fail} {
		r := make_(t, read(t, of("clam-box", `"card":{"gsm":300,"thickness":`+thick+`},"options":{"lid.scores":"same"}`)))
		worst := inspect.Worst(inspect.Fits(r.Fits))
		if worst != want {
			t.Errorf("in card of %s mm: %s", thick, worst)
		}
	}
}

// Dividers of one row or one column are whole by themselves: their tabs go onto the box
// that they are put into.
func TestDividersOfOneRow(t *testing.T) {
	t.Parallel()
	for _, cells := range []string{`"rows":"1","columns":"3"`, `"rows":"3","columns":"1"`} {
		r := make_(t, read(t, of("divider-grid", `"options":{`+cells+`}`)))
		for _, f := range r.Checks {
			if f.Verdict == inspect.Fail {
				t.Errorf("%s: %s", cells, f.Text)
			}
		}
	}
}

// A lid lies on a rolled rim half a card higher than on a cut one: 40 + 1.5 and 40 + 2
// thicknesses of card, by hand.
func TestALidOnARolledRim(t *testing.T) {
	t.Parallel()
	for walls, want := range map[string]float64{"single": 40.6, "double": 40.8} {
		r := make_(t, read(t, `{"brevium":1,"name":"x","units":"mm","style":"tray-lid","size":{"length":100,"width":80,"height":40},"card":{"gsm":240,"thickness":0.4},"options":{"base.walls":"`+walls+`","lid.depth":20}}`))
		if got := r.Outside.Height.MM(); math.Abs(got-want) > 1e-6 {
			t.Errorf("%s: %.3f mm high", walls, got)
		}
	}
}

// What is said of two parts names them.
func TestFitsNameTheirParts(t *testing.T) {
	t.Parallel()
	for id, wrong := range map[string]string{"book-wrap": "tray", "corner-shells": "drawer"} {
		allowance := `"spine.allowance":"3/8 in"`
		if id == "corner-shells" {
			allowance = `"shell.allowance":"1/4 in"`
		}
		r := make_(t, read(t, of(id, `"options":{`+allowance+`}`)))
		for _, f := range inspect.Fits(r.Fits) {
			if f.Verdict == inspect.OK {
				continue
			}
			if strings.Contains(f.Text, wrong+" may fall") || strings.Contains(f.Text, "off the "+wrong) {
				t.Errorf("%s: %s", id, f.Text)
			}
		}
	}
}

// The gaps of a lid over its base, by the account done anew: what is left of the allowance
// when the cards, the tabs inside the lid's end walls, its second walls and the papers on the
// base are taken off; and the verdict by its own table.
func TestGapsByHand(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(sample.Seed(4)))
	verdict := func(gap float64) fit.Verdict {
		for _, x := range []struct {
			below float64
			is    fit.Verdict
		}{{-0.7, fit.WontGoOn}, {0, fit.Tight}, {0.3, fit.Grips}, {0.9, fit.Snug}, {1.8 + 1e-9, fit.Easy}} {
			if gap < x.below {
				return x.is
			}
		}
		return fit.Loose
	}
	for range sample.Of(t, 400) {
		base, lid, paper := float64(15+rng.Intn(40))/100, float64(15+rng.Intn(40))/100, float64(rng.Intn(3)*10)/100
		a, walls, second := float64(rng.Intn(8))/2, "single", 0.0
		if rng.Intn(3) == 0 {
			walls, second = "double", 2*lid
		}
		mats := ""
		if paper > 0 {
			mats = fmt.Sprintf(`,"mats":[{"piece":"base","where":"walls","layers":[{"card":{"name":"Sprigs","gsm":100,"thickness":%g},"border":3}]}]`, paper)
		}
		r := make_(t, read(t, fmt.Sprintf(`{"brevium":1,"name":"x","units":"mm","style":"tray-lid","size":{"length":%d,"width":%d,"height":40},
			"cards":{"base":{"gsm":240,"thickness":%g},"lid":{"gsm":240,"thickness":%g}},
			"options":{"lid.allowance":%g,"lid.depth":20,"lid.walls":%q}%s}`, 70+rng.Intn(30), 60+rng.Intn(30), base, lid, a, walls, mats)))
		for _, f := range r.Fits {
			want := a - lid - second - base - 2*paper
			if f.Pair.Axis == "length" {
				want -= 2 * lid // a tab inside each end wall
			}
			if math.Abs(f.Gap.MM()-want) > 1e-6 {
				t.Errorf("%s: %.3f mm, by hand %.3f: base %g, lid %g %s, papers %g, allowance %g", f.Pair.Axis, f.Gap.MM(), want, base, lid, walls, paper, a)
			}
			if math.Abs(want*100-math.Round(want*100)) < 1e-6 && f.Verdict != verdict(math.Round(want*100)/100) {
				t.Errorf("%s: %.2f mm is %s, by the table %s", f.Pair.Axis, want, f.Verdict, verdict(math.Round(want*100)/100))
			}
		}
	}
}
