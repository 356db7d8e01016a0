package fit

import (
	"strings"
	"testing"

	"brevium/core/measure"
)

const (
	um  = measure.Micrometre
	mm_ = measure.Millimetre
)

// lidOver is a lid of 4 + a inches over a base of 4, of 0.3 mm card, its tabs
// inside along this axis when k is 1.
func lidOver(a measure.Length, k int) Pair {
	return Pair{
		OuterName: "Lid", InnerName: "Base", Axis: "length", OuterWhat: "tabs",
		OuterSpan: 4*measure.Inch + a, InnerSpan: 4 * measure.Inch, OuterCard: 300 * um, InnerCard: 300 * um, OuterLayers: 2 * k,
	}
}

func TestTheAccount(t *testing.T) {
	sixteenth := measure.Inch / 16
	for _, c := range []struct {
		name    string
		a       measure.Length
		k       int
		between measure.Length
		gap     measure.Length
		verdict Verdict
	}{
		{"bare, tabs inside", sixteenth, 1, 0, 387_500, Snug},
		{"bare, no tabs", sixteenth, 0, 0, 987_500, Easy},
		{"two mat layers", sixteenth, 1, 900 * um, -512_500, Tight},
		{"two mat layers, 1/8 in", 2 * sixteenth, 1, 900 * um, 1_075_000, Easy},
		{"two mat layers, 2.5 mm", 2500 * um, 1, 900 * um, 400 * um, Snug},
	} {
		got := lidOver(c.a, c.k).Do(c.between)
		if got.Gap != c.gap || got.Verdict != c.verdict {
			t.Errorf("%s: gap %v mm, %s; want %v, %s", c.name, got.Gap.MM(), got.Verdict, c.gap.MM(), c.verdict)
		}
		var sum measure.Length
		for _, l := range got.Lines {
			sum += l.Amount
		}
		if sum != got.Gap {
			t.Errorf("%s: the lines add up to %v, the gap is %v", c.name, sum, got.Gap)
		}
	}
	one := lidOver(sixteenth, 0)
	one.OuterLayers = 1
	if got := one.Do(0); got.Gap != 687_500 || !strings.Contains(got.Lines[2].Text, "one side") {
		t.Errorf("a tab inside one wall leaves %v mm", got.Gap.MM())
	}
	bent := lidOver(0, 1)
	bent.Kind = ShutsOver
	if got := bent.Do(0); got.Gap >= 0 || got.Verdict != Tight {
		t.Errorf("walls that give leave %v mm, %s", got.Gap.MM(), got.Verdict)
	}
	inner := lidOver(sixteenth, 0)
	inner.InnerLayers, inner.InnerWhat = 2, "tabs"
	if got := inner.Do(0).Gap; got != 387_500 {
		t.Errorf("tabs outside the base leave %v mm; want 0.3875", got.MM())
	}
}

func TestVerdictsAtTheirEdges(t *testing.T) {
	for _, c := range []struct {
		gap  measure.Length
		want Verdict
	}{{-701 * um, WontGoOn}, {-700 * um, Tight}, {-1, Tight}, {0, Grips}, {299 * um, Grips}, {300 * um, Snug}, {899 * um, Snug}, {900 * um, Easy}, {1800 * um, Easy}, {1801 * um, Loose}} {
		if got := Judge(c.gap); got != c.want {
			t.Errorf("a gap of %v mm is %s; want %s", c.gap.MM(), got, c.want)
		}
	}
	for _, v := range Wanted {
		if Judge(v.Least()) != v {
			t.Errorf("the least gap for %s is judged %s", v, Judge(v.Least()))
		}
	}
}

func TestSolve(t *testing.T) {
	gap := lidOver(0, 1).Do(900 * um).Gap // −2.1 mm
	for _, c := range []struct {
		want Verdict
		tick measure.Tick
		a    measure.Length
	}{
		{Snug, measure.Tick(measure.Inch / 16), measure.Inch / 8},
		{Snug, measure.Tick(mm_ / 2), 2500 * um},
		{Grips, measure.Tick(mm_ / 10), 2100 * um},
		{Easy, measure.Tick(mm_), 3 * mm_},
	} {
		a, err := Solve(gap, c.want, c.tick)
		if err != nil || a != c.a {
			t.Errorf("%s on a tick of %v mm takes %v mm, %v; want %v", c.want, c.tick.Length().MM(), a.MM(), err, c.a.MM())
		}
	}
	if a, err := Solve(5*mm_, Snug, measure.Tick(mm_)); err != nil || a != 0 {
		t.Errorf("a gap that is there already takes %v, %v", a, err)
	}
	if _, err := Solve(-30*mm_, Snug, measure.Tick(mm_)); err == nil || !strings.Contains(err.Error(), "thinner card") {
		t.Errorf("a gap that cannot be met gives %v", err)
	}
}

func TestParseVerdict(t *testing.T) {
	if v, err := ParseVerdict("easy"); err != nil || v != Easy {
		t.Errorf("easy is %v, %v", v, err)
	}
	for _, s := range []string{"", "won't go on", "tight"} {
		if _, err := ParseVerdict(s); err == nil {
			t.Errorf("%q can be asked for", s)
		}
	}
}

// By hand: a lid 30 mm deep over a base 25 mm high is 5 mm too deep; one that is as deep is not,
// nor a sleeve, which need not close.
func TestALidTooDeep(t *testing.T) {
	for _, c := range []struct {
		kind         *Kind
		outer, inner measure.Length
		want         measure.Length
	}{{LidOn, 30, 25, 5}, {LidOn, 25, 25, 0}, {LidOn, 20, 25, 0}, {LidOn, 30, 0, 0}, {InBox, 30, 25, 0}} {
		p := Pair{Kind: c.kind, OuterDepth: c.outer * mm_, InnerDepth: c.inner * mm_}
		if got := p.TooDeep(); got != c.want*mm_ {
			t.Errorf("%s, %d mm over %d: %v too deep", c.kind.ID, c.outer, c.inner, got)
		}
	}
}
