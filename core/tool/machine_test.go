package tool

import (
	"testing"

	"brevium/core/fault"
	"brevium/core/measure"
)

// A machine has a mat that there is and a blade as they are made; without any it is none.
func TestMachines(t *testing.T) {
	show := func(l measure.Length) string { return measure.Label(l, measure.MM, 1) }
	for field, m := range map[string]Machine{
		"":                      UsualMachine("12x12"),
		"tools.machine.mat":     {Mat: "a0"},
		"tools.machine.blade":   {Mat: "a4", Blade: 3 * measure.Millimetre},
		"tools.machine.overcut": {Mat: "a4", Overcut: -1},
		"tools.machine.force":   {Mat: "a4", Force: 5},
	} {
		err := Owned{Machine: m}.Check(show)
		if (err == nil) != (field == "") || err != nil && fault.Of(err).Field != field {
			t.Errorf("%+v: %v; want it at %q", m, err, field)
		}
	}
	if err := (Owned{}).Check(show); err != nil {
		t.Error(err)
	}
	for _, m := range Mats {
		if got, err := ParseMat(m.Name); err != nil || got != m || m.Called() == "" {
			t.Errorf("%s: %+v, %v", m.Name, got, err)
		}
	}
}
