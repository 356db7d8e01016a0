package design

import (
	"testing"

	"brevium/core/fit"
	"brevium/core/measure"
)

// What notes say of gaps is bounded on each side, and each bound is one's own fault to be told.
func TestLeansThatCannotBe(t *testing.T) {
	good := fit.Lean{By: LargestLean, Spread: LargestLean, From: -LargestLean, To: LargestLean, Notes: 1}
	if err := checkLeans(&Inputs{Leans: []fit.Lean{good}}); err != nil {
		t.Errorf("at every bound: %v", err)
	}
	over := LargestLean + measure.Micrometre
	for name, change := range map[string]func(l *fit.Lean){
		"by":             func(l *fit.Lean) { l.By = -over },
		"a wide spread":  func(l *fit.Lean) { l.Spread = over },
		"a spread below": func(l *fit.Lean) { l.Spread = -measure.Micrometre },
		"from":           func(l *fit.Lean) { l.From = -over },
		"to":             func(l *fit.Lean) { l.To = over },
		"no notes":       func(l *fit.Lean) { l.Notes = 0 },
	} {
		l := good
		change(&l)
		if checkLeans(&Inputs{Leans: []fit.Lean{l}}) == nil {
			t.Errorf("%s is taken: %+v", name, l)
		}
	}
}
