package tool

import (
	"slices"
	"testing"

	"brevium/core/fault"
	"brevium/core/measure"
)

// A machine has mats that are made and a blade as they are; without any mat it is none.
func TestMachines(t *testing.T) {
	show := func(l measure.Length) string { return measure.Label(l, measure.MM, 1) }
	a4 := []Mat{Mats[2]}
	for field, m := range map[string]Machine{
		"":                      UsualMachine(Mats[0], OfSize(228.6, 304.8)),
		"tools.machine":         {Mats: []Mat{OfSize(20, 300)}},
		"tools.machine.margin":  {Mats: a4, Margin: 21 * measure.Millimetre},
		"tools.machine.blade":   {Mats: a4, Blade: 3 * measure.Millimetre},
		"tools.machine.overcut": {Mats: a4, Overcut: -1},
		"tools.machine.force":   {Mats: a4, Force: 5},
		"tools.machine.score":   {Mats: a4, ScoreForce: 5001},
		"tools.machine.scores":  {Mats: a4, Scores: "drawn"},
	} {
		err := Owned{Machine: m}.Check(show)
		if (err == nil) != (field == "") || err != nil && fault.Of(err).Field != field {
			t.Errorf("%+v: %v; want it at %q", m, err, field)
		}
	}
	if (Owned{Machine: UsualMachine(Mats[2], Mats[2])}).Check(show) == nil {
		t.Error("a mat is there twice")
	}
	if err := (Owned{}).Check(show); err != nil || !(Machine{}).None() || (Machine{}).Usually().None() {
		t.Error(err)
	}
}

// Mats go by their names; one of another size by its millimetres.
func TestMats(t *testing.T) {
	for _, m := range append(slices.Clone(Mats), OfSize(228.6, 304.8)) {
		if got, err := ParseMat(m.Name); err != nil || got != m || m.Called() == "" {
			t.Errorf("%s: %+v, %v", m.Name, got, err)
		}
	}
	if got := OfSize(297, 420); got != Mats[3] {
		t.Errorf("%+v; want A3", got)
	}
	for name, called := range map[string]string{"A4": "A4", "12x24": "12 × 24 in", "230x300": "230 × 300 mm"} {
		if m, err := ParseMat(name); err != nil || m.Called() != called {
			t.Errorf("%s: %q, %v", name, m.Called(), err)
		}
	}
	for _, name := range []string{"a0", "10x300", "NaNx300", "300", "300x1501", ""} {
		if m, err := ParseMat(name); err == nil {
			t.Errorf("%q: %+v", name, m)
		}
	}
}

// What is cut with is said by a word.
func TestWhatIsCutWith(t *testing.T) {
	for word, want := range map[string]With{"": Trimmer, "trimmer": Trimmer, "scissors": Scissors, "machine": ByMachine} {
		if got, err := ParseWith(word); err != nil || got != want || word != "" && got.String() != word || got.ByShape() != (want != Trimmer) {
			t.Errorf("%q: %q, %v", word, got, err)
		}
	}
	if _, err := ParseWith("teeth"); err == nil {
		t.Error("teeth cut")
	}
}
