package inspect

import (
	"strings"
	"testing"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

const mm = measure.Millimetre

func TestFitsAreJudged(t *testing.T) {
	pair := fit.Pair{
		Kind:      fit.LidOn,
		Outer:     "lid",
		OuterName: "Lid",
		InnerName: "Base",
		Axis:      "length",
		InnerSpan: 100 * mm,
		OuterCard: 300_000,
		InnerCard: 300_000,
	}
	for _, c := range []struct {
		more measure.Length
		want Verdict
		says string
	}{
		{-200_000, Fail, "0.8 mm too tight"}, {0, Warn, "0.6 mm tight"}, {700_000, Warn, "grips"}, {1_000_000, OK, "snug"}, {2_000_000, OK, "easy"}, {5_000_000, Warn, "loose"},
	} {
		p := pair
		p.OuterSpan = p.InnerSpan + c.more
		got := Fits([]fit.Account{p.Do(0)})[0]
		if got.Verdict != c.want || !strings.Contains(got.Text, c.says) || got.ID != "fit.length" {
			t.Errorf("%v mm more: %+v", c.more.MM(), got)
		}
	}
}

func TestOnTick(t *testing.T) {
	list := recipe.ScoreList{
		Piece:  "base",
		Name:   "Base",
		Passes: []recipe.Pass{{Edge: "left", At: []measure.Length{10 * mm, 20*mm + 250_000}}},
	}
	if f := OnTick(list, measure.Tick(mm), measure.MM); f.Verdict != Warn || !strings.Contains(f.Text, "20.25 mm") {
		t.Errorf("off the tick: %+v", f)
	}
	list.Passes[0].At[1] = 20 * mm
	if f := OnTick(list, measure.Tick(mm), measure.MM); f.Verdict != OK {
		t.Errorf("on the tick: %+v", f)
	}
}

func TestTabs(t *testing.T) {
	narrow := style.Part{ID: "tray", Name: "Tray", Pattern: &pattern.Pattern{Glue: []pattern.Glue{{
		Face: "back.left", Area: []pattern.Point{{X: 0, Y: 0}, {X: 30, Y: 0}, {X: 30, Y: 8}, {X: 0, Y: 8}}}}}}
	if f := Tabs(
		narrow,
		"tape",
	); f.Verdict != Warn ||
		!strings.Contains(f.Text, "back.left is 8.0 mm wide where it is glued and double-sided tape wants 10 mm") {
		t.Errorf("tape on 8 mm: %+v", f)
	}
	if f := Tabs(narrow, "wet-glue"); f.Verdict != OK {
		t.Errorf("glue on 8 mm: %+v", f)
	}
}

func TestWorst(t *testing.T) {
	ok, warn, fail := Finding{Verdict: OK}, Finding{Verdict: Warn}, Finding{Verdict: Fail}
	for _, c := range []struct {
		all  []Finding
		want Verdict
	}{{nil, OK}, {[]Finding{ok, warn}, Warn}, {[]Finding{fail, warn, ok}, Fail}, {[]Finding{warn, fail}, Fail}} {
		if got := Worst(c.all); got != c.want {
			t.Errorf("the worst of %v is %s", c.all, got)
		}
	}
}
