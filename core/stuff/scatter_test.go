package stuff

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"brevium/core/fit"
	"brevium/core/sample"
)

// fits are those that have been simulated, each along two axes.
func single(s Scored, first, second float64) []Gap {
	return []Gap{
		{Mean: first, Outer: s, Inner: s, Cards: 4, Tabs: 2, Thick: .3},
		{Mean: second, Outer: s, Inner: s, Cards: 2, Thick: .3},
	}
}

func double(first, second float64) []Gap {
	return []Gap{
		{Mean: first, Outer: FourEdges, Inner: FourEdges, Cards: 6, Tabs: 2, Thick: .3},
		{Mean: second, Outer: FourEdges, Inner: FourEdges, Cards: 4, Thick: .3},
	}
}

func axes(h Steadiness, gaps []Gap) []Axis {
	var out []Axis
	for _, g := range gaps {
		m, s := usual.Normal(HandOf(h), g)
		out = append(out, Axis{m, s})
	}
	return out
}

var sleeve = []Gap{
	{Mean: .99, Outer: OneEdge, Inner: FourEdges, Cards: 2, Thick: .3},
	{Mean: .69, Outer: OneEdge, Inner: WallUp, Cards: 2, Thick: .3, Sides: true},
}

func TestSpreads(t *testing.T) {
	for h, want := range map[Steadiness][2]float64{New: {.51, .23}, Practised: {.29, .13}, Careful: {.18, .09}} {
		near(t, string(h)+", four edges", HandOf(h).Spread(FourEdges), want[0], .005)
		near(t, string(h)+", one edge", HandOf(h).Spread(OneEdge), want[1], .005)
	}
	if HandOf(Learned) != HandOf(Practised) || HandOf(New).Spread(Given) != 0 || HandOf(New).Spread(Cut) != .35 {
		t.Error("a learned hand begins as a practised one; what is given scatters not at all")
	}
}

func TestFeel(t *testing.T) {
	for _, c := range []struct {
		name string
		hand Steadiness
		gaps []Gap
		want feel
	}{
		{"single", New, single(FourEdges, .39, .99), feel{GoesOn: .92, Tight: .28, Grips: .18, Snug: .32, Easy: .14}},
		{"single", Practised, single(FourEdges, .39, .99), feel{GoesOn: .996, Tight: .18, Grips: .26, Snug: .49, Easy: .07}},
		{"single", Careful, single(FourEdges, .39, .99), feel{GoesOn: 1, Tight: .07, Grips: .30, Snug: .61, Easy: .02}},
		{"one edge", Practised, single(OneEdge, .39, .99), feel{GoesOn: 1, Tight: .03, Grips: .31, Snug: .66}},
		{"double", New, double(.58, 1.18), feel{GoesOn: .95, Tight: .21, Grips: .17, Snug: .36, Easy: .22}},
		{"double", Practised, double(.58, 1.18), feel{GoesOn: .999, Tight: .08, Grips: .18, Snug: .56, Easy: .18}},
		{"sleeve", New, sleeve, feel{GoesOn: .999, Tight: .12, Grips: .31, Snug: .55, Easy: .02}},
		{"sleeve", Practised, sleeve, feel{GoesOn: 1, Grips: .09, Snug: .90, Easy: .01}},
	} {
		got := feelOf(axes(c.hand, c.gaps))
		for _, x := range []struct {
			what      string
			got, want float64
		}{{"goes on", got.GoesOn, c.want.GoesOn}, {"tight", got.Tight, c.want.Tight}, {"grips", got.Grips, c.want.Grips}, {"snug", got.Snug, c.want.Snug}, {"easy", got.Easy, c.want.Easy}} {
			near(t, fmt.Sprintf("%s, %s: %s", c.name, c.hand, x.what), x.got, x.want, .02)
		}
	}
}

func TestTheBestAllowance(t *testing.T) {
	const tick = 25.4 / 32
	hands := []Steadiness{New, Practised, Careful}
	for _, c := range []struct {
		n    int
		gaps func(a, b float64) []Gap
		zero float64
		want [3]float64
	}{
		{2, func(a, b float64) []Gap { return single(FourEdges, a, b) }, .39 - 2*tick, [3]float64{.64, .82, .93}},
		{3, func(a, b float64) []Gap { return single(FourEdges, a, b) }, .39 - 2*tick, [3]float64{.84, .97, 1}},
		{4, func(a, b float64) []Gap { return single(FourEdges, a, b) }, .39 - 2*tick, [3]float64{.49, .36, .25}},
		{3, double, .58 - 3*tick, [3]float64{.73, .91, .98}},
		{4, double, .58 - 3*tick, [3]float64{.80, .90, .96}},
	} {
		for i, h := range hands {
			g := c.zero + float64(c.n)*tick
			near(t, fmt.Sprintf("%d/32, %s", c.n, h), UsableOf(axes(h, c.gaps(g, g+.6))), c.want[i], .02)
		}
	}
}

func TestABatch(t *testing.T) {
	for _, c := range []struct {
		hand        Steadiness
		own, common Batch
	}{{New, Batch{19, 14, 24}, Batch{19, 2, 30}}, {Practised, Batch{25, 20, 28}, Batch{25, 7, 30}}, {Careful, Batch{28, 25, 30}, Batch{28, 16, 30}}} {
		a := axes(c.hand, single(FourEdges, .39, .99))
		for common, want := range map[float64]Batch{0: c.own, .5: c.common} {
			got := BatchOf(30, a, common)
			if d := max(abs(got.Mean-want.Mean), abs(got.Least-want.Least), abs(got.Most-want.Most)); d > 1 {
				t.Errorf("%s, common %v: %+v, and it is %+v", c.hand, common, got, want)
			}
		}
	}
	if got := BatchOf(5, []Axis{{.6, 0}}, 0); got != (Batch{5, 5, 5}) {
		t.Errorf("a sure hand: %+v", got)
	}
	if BatchOf(0, nil, 0) != (Batch{}) {
		t.Error("no boxes")
	}
}

func abs(x int) int { return max(x, -x) }

// A hundred thousand boxes made by chance feel as the closed form says.
func TestMonteCarlo(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	h := HandOf(Practised)
	const n = 100_000
	var tight, snugs float64
	for range n {
		panel := func() float64 {
			g := h.Groove * r.NormFloat64()
			return h.Cut*r.NormFloat64() + 2*g + h.Seat*(r.NormFloat64()+r.NormFloat64()) + h.Fold*(r.NormFloat64()+r.NormFloat64())
		}
		card := .3 * h.Thick * r.NormFloat64()
		length := .39 + panel() - panel() - 4*card + h.Tape*(r.NormFloat64()+r.NormFloat64())
		width := .99 + panel() - panel() - 2*card
		switch g := min(length, width); {
		case g >= -.7 && g < 0:
			tight++
		case g >= .3 && g < .9:
			snugs++
		}
	}
	got := feelOf(axes(Practised, single(FourEdges, .39, .99)))
	near(t, "tight", got.Tight, tight/n, .015)
	near(t, "snug", got.Snug, snugs/n, .015)
}

// feel is the chance of each way a fit may feel.
type feel struct{ GoesOn, Tight, Grips, Snug, Easy float64 }

func feelOf(axes []Axis) feel {
	return feel{GoesOn: 1 - Chance(fit.WontGoOn, axes), Tight: Chance(fit.Tight, axes), Grips: Chance(fit.Grips, axes), Snug: Chance(fit.Snug, axes), Easy: Chance(fit.Easy, axes)}
}

// spans are the gaps at which a hand feels each verdict, tightest first.
var spans = [][2]float64{{-1000, -.7}, {-.7, 0}, {0, .3}, {.3, .9}, {.9, 1.8}, {1.8, 1000}}

func felt(gap float64) [2]float64 {
	return spans[slices.IndexFunc(spans, func(s [2]float64) bool { return gap < s[1] })]
}

func TestLearning(t *testing.T) {
	note := func(gap float64, v int) Note { return Note{gap, spans[v][0], spans[v][1]} }
	got := Learn([]Note{note(.39, 1), note(.39, 2), note(.39, 1), note(.99, 3)})
	near(t, "lean", got.Lean, -.39, .015)
	near(t, "from", got.From, -.68, .041)
	near(t, "to", got.To, -.04, .041)
	near(t, "spread", got.Sigma, .26, .02)
	if got.Explains(note(.39, 2)) < .5 || got.Explains(note(.39, 5)) > .01 {
		t.Error("a note that agrees is explained, and a wild one is not")
	}
	if none := Learn(nil); math.Abs(none.Lean) > 1e-9 {
		t.Errorf("without a note: %+v", none)
	}
}

// Five hundred makers learn their lean with the errors of the table, and the ranges hold it.
func TestMakersLearn(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 3))
	for _, c := range []struct {
		notes int
		off   float64
	}{{2, .25}, {4, .21}, {8, .18}, {16, .12}} {
		makers := sample.Of(t, 500)
		squares, held := 0.0, 0
		for range makers {
			lean := leanPrior * r.NormFloat64()
			sigma := math.Exp(math.Log(sigmaMid) + sigmaLog*r.NormFloat64())
			var notes []Note
			for range c.notes {
				gap := []float64{.39, .69, .99}[r.IntN(3)]
				s := felt(gap + lean + sigma*r.NormFloat64())
				if r.Float64() < wild {
					s = spans[r.IntN(verdicts)]
				}
				notes = append(notes, Note{gap, s[0], s[1]})
			}
			got := Learn(notes)
			squares += (got.Lean - lean) * (got.Lean - lean)
			if lean >= got.From-leanStep/2 && lean <= got.To+leanStep/2 {
				held++
			}
		}
		if rms := math.Sqrt(squares / float64(makers)); rms > c.off+.03 {
			t.Errorf("%d notes: off by %.3f", c.notes, rms)
		}
		if share := float64(held) / float64(makers); share < .91 || share > .98 {
			t.Errorf("%d notes: the range holds %.3f", c.notes, share)
		}
	}
}

func TestPosting(t *testing.T) {
	cards := []float64{.3, .3}
	near(t, "30 boxes flat", FlatHigh(30, cards), 20, .3)
	for _, c := range []struct {
		size  [3]float64
		grams float64
		want  string
	}{{[3]float64{5, 240, 165}, 100, "letter"}, {[3]float64{5, 240, 165}, 101, "large letter"}, {[3]float64{300, 200, 26}, 90, "small parcel"}, {[3]float64{600, 400, 400}, 9000, "parcel"}} {
		if got := Post(Classes, c.size, c.grams); got.Index < 0 || Classes[got.Index].Name != c.want {
			t.Errorf("%v, %v g goes by %+v, not as a %s", c.size, c.grams, got, c.want)
		}
	}
	if got := Post(Classes, [3]float64{300, 200, 28}, 90); got.Over != [3]float64{0, 0, 3} || got.More != 0 {
		t.Errorf("what would go as a large letter is over by %+v", got)
	}
	if Post(Classes, Padded(700, 10, 10), 10).Index != -1 {
		t.Error("what is too long goes by none")
	}
	crate := usual.Crated([3]float64{400, 300, 250}, [3]float64{104.2, 78.7, 38.7}, 53.6, 340)
	if crate != (Crate{10, 6, 3, 30}) {
		t.Errorf("a crate: %+v", crate)
	}
}
