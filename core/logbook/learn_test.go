package logbook

import (
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/fit"
	"brevium/core/measure"
)

const oat = "Oat card, 240 gsm"

func note(gap float64, felt fit.Verdict) []Felt {
	return []Felt{{Pair: "Lid over base, length", Kind: "lid", Card: oat, Gap: mm(gap), Felt: felt}}
}

func mm(x float64) measure.Length { return measure.Length(math.Round(x * float64(measure.Millimetre))) }

// learned is what notes teach of the lid, in mm.
func learned(notes [][]Felt) float64 {
	for _, l := range Learn(notes) {
		if l.Card == oat && l.Kind == "lid" {
			return l.By.MM()
		}
	}
	return 0
}

// Without notes, with one, or with two that cannot both be, nothing changes.
func TestNothingIsLearnedFromTooLittle(t *testing.T) {
	for name, notes := range map[string][][]Felt{
		"none":                      nil,
		"one":                       {note(0.8, fit.WontGoOn)},
		"one and its contradiction": {note(0.5, fit.Tight), note(0.5, fit.Loose)},
		"of an old kind":            {{{Pair: "Lid over base", Card: oat, Gap: mm(0.8), Felt: fit.Tight}}, {{Pair: "Lid over base", Card: oat, Gap: mm(0.8), Felt: fit.Tight}}},
		"one of both ways":          {append(note(0.8, fit.Tight), note(0.9, fit.Tight)...)},
	} {
		if got := Learn(notes); len(got) != 0 {
			t.Errorf("%s: %+v", name, got)
		}
	}
}

// By hand: lids worked out at 0.45 that grip lean by −0.15 at least; ones at 0.75 that
// are snug by no more than −0.45.
func TestNotesThatAgree(t *testing.T) {
	notes := [][]Felt{note(0.45, fit.Grips), note(0.45, fit.Grips), note(0.75, fit.Snug), note(0.45, fit.Grips), note(0.75, fit.Snug)}
	by := learned(notes)
	if by < -0.4 || by > -0.15 {
		t.Errorf("it leans by %v", by)
	}
	if l := Learn(notes)[0]; l.Notes != 5 || l.Says() != "your Oat card, 240 gsm, runs "+measure.Number(l.By.Abs(), measure.MM, measure.Tick(50*measure.Micrometre))+" mm tighter (0 to 0.45): 5 notes" {
		t.Errorf("it says %q", l.Says())
	}
	// Far off, and all of one mind, it goes as far as a lesson goes.
	far := [][]Felt{note(0.93, fit.Tight), note(1.6, fit.Grips), note(0.93, fit.Tight), note(1.6, fit.Grips)}
	if got := learned(far); got != -mostLean {
		t.Errorf("far off it leans by %v", got)
	}
	// One wild note among them moves it little.
	if wild := learned(append(slices.Clone(notes), note(0.5, fit.Loose))); math.Abs(wild-by) > 0.1 {
		t.Errorf("one wild note moves it from %v to %v", by, wild)
	}
	// Another card, or another kind of fit, learns nothing from them.
	for _, l := range Learn(notes) {
		if l.Card != oat || l.Kind != "lid" {
			t.Errorf("learned of %+v", l)
		}
	}
}

// Why a card has taught nothing is said.
func TestWhyNothingYet(t *testing.T) {
	for why, notes := range map[string][][]Felt{
		"your " + oat + ": one note so far; from the second on it learns": {note(0.8, fit.Tight)},
		"your " + oat + ": its 4 notes contradict one another":            {note(0.5, fit.WontGoOn), note(0.5, fit.Loose), note(0.5, fit.WontGoOn), note(0.5, fit.Loose)},
		"your " + oat + ": 2 notes, and boxes come out as worked out":     {note(0.6, fit.Snug), note(0.6, fit.Snug)},
	} {
		if got := NotYet(notes); len(got) != 1 || got[0] != why {
			t.Errorf("it says %q, not %q", got, why)
		}
	}
	if got := NotYet([][]Felt{note(0.9, fit.Grips), note(0.9, fit.Grips), note(0.9, fit.Grips)}); len(got) != 0 {
		t.Errorf("what has taught something is told of as nothing: %q", got)
	}
}

// A note more says what it changed.
func TestWhatANoteChanges(t *testing.T) {
	grips := func(n int) (out [][]Felt) {
		for range n {
			out = append(out, note(0.9, fit.Grips))
		}
		return out
	}
	for _, c := range []struct {
		before, after [][]Felt
		want          string
	}{
		{grips(1), grips(2), "It has taught something: your " + oat},
		{[][]Felt{note(0.45, fit.Grips), note(0.45, fit.Grips)}, [][]Felt{note(0.45, fit.Grips), note(0.45, fit.Grips), note(0.45, fit.Tight)}, "; before it was 0."},
		{[][]Felt{note(0.5, fit.WontGoOn), note(0.5, fit.WontGoOn)}, [][]Felt{note(0.5, fit.WontGoOn), note(0.5, fit.WontGoOn), note(0.5, fit.Loose), note(0.5, fit.Loose)}, "nothing is learned of it"},
	} {
		got := strings.Join(Changed(c.before, c.after), " ")
		if !strings.Contains(got, c.want) {
			t.Errorf("it says %q, not %q", got, c.want)
		}
	}
	if got := Changed(grips(3), grips(3)); len(got) != 0 {
		t.Errorf("nothing changed, and it says %q", got)
	}
}

// Ten notes that contradict one another, or five that were believed, swing no size by
// more than a tick.
func TestContradictionsSwingNothing(t *testing.T) {
	tick := 0.5
	r := rand.New(rand.NewPCG(15, 1))
	for range 200 {
		var notes [][]Felt
		for k := range 10 {
			v := fit.WontGoOn
			if k%2 == 1 {
				v = fit.Loose
			}
			notes = append(notes, note(0.3+0.5*r.Float64(), v))
		}
		if by := learned(notes); math.Abs(by) > tick {
			t.Errorf("contradictions lean by %v", by)
		}
		before := learned([][]Felt{note(0.4, fit.Grips), note(0.4, fit.Grips), note(0.4, fit.Tight), note(0.6, fit.Grips), note(0.5, fit.Grips)})
		after := learned(append([][]Felt{note(0.4, fit.Grips), note(0.4, fit.Grips), note(0.4, fit.Tight), note(0.6, fit.Grips), note(0.5, fit.Grips)}, notes...))
		if math.Abs(after-before) > tick {
			t.Errorf("from %v to %v", before, after)
		}
	}
}

// solve is the gap that an allowance on a tick gives to one that is worked out bare,
// wanted as a verdict, with a lean that is reckoned with.
func solve(t *testing.T, bare, lean float64, want fit.Verdict) float64 {
	t.Helper()
	a, err := fit.Solve(mm(bare+lean), want, measure.Tick(measure.Millimetre/2))
	if err != nil {
		t.Fatal(err)
	}
	return bare + a.MM()
}

// Makers by the hundred, each with a lean of a hand of their own, boxes that differ by
// a little and every tenth note wild: after five notes the next box is as it was
// wanted in 85 of a hundred, and far more often than without.
func TestMakersLearn(t *testing.T) {
	r := rand.New(rand.NewPCG(15, 2))
	const makers = 500
	for _, want := range []fit.Verdict{fit.Snug, fit.Easy} {
		with, without := 0, 0
		for range makers {
			hand := r.NormFloat64() * 0.3
			hand = max(-0.5, min(0.5, hand))
			var notes [][]Felt
			for range 5 {
				gap := solve(t, -2*r.Float64(), 0, want)
				felt := fit.Judge(mm(gap + hand + r.NormFloat64()*0.1))
				if r.Float64() < 0.1 {
					felt = fit.Verdicts[r.IntN(len(fit.Verdicts))]
				}
				notes = append(notes, note(gap, felt))
			}
			bare := -2 * r.Float64()
			if fit.Judge(mm(solve(t, bare, learned(notes), want)+hand)) == want {
				with++
			}
			if fit.Judge(mm(solve(t, bare, 0, want)+hand)) == want {
				without++
			}
		}
		t.Logf("%s: %d of %d with five notes, %d without", want, with, makers, without)
		if with < makers*85/100 {
			t.Errorf("%s: after five notes %d of %d are as wanted", want, with, makers)
		}
		if with < without+makers/10 {
			t.Errorf("%s: notes help from %d to %d", want, without, with)
		}
	}
}
