package tool

import (
	"slices"
	"testing"

	"brevium/core/measure"
)

const inch = measure.Inch

var owned = Owned{
	Punches:  []Punch{{inch / 4, inch}, {inch / 8, 0}, {inch / 4, 2 * inch}},
	Rounders: []measure.Length{inch / 2, inch / 4},
	Circles:  Circles{2 * inch, 6 * inch},
	Dies:     []Die{{2 * inch, inch}, {3 * inch, 3 * inch}},
}

func TestWhatPunchesMake(t *testing.T) {
	for _, x := range []struct {
		across, deep measure.Length
		near         []measure.Length
		reach        measure.Length
		ok           bool
	}{
		{inch / 4, 2 * inch, nil, 0, true},           // the longer of two alike reaches
		{inch / 4, 2*inch + 1, nil, 2 * inch, false}, // and no further
		{inch / 8, 9 * inch, nil, 0, true},           // one that is struck
		{inch * 19 / 64, inch, []measure.Length{inch / 4}, 0, false},
		{inch * 3 / 16, 0, []measure.Length{inch / 8, inch / 4}, 0, false},
		{inch / 16, 0, []measure.Length{inch / 8}, 0, false},
		{2 * inch, 9 * inch, nil, 0, true}, // cut as a circle
		{6*inch + 1, 0, []measure.Length{inch / 4}, 0, false},
		{6350 * measure.Micrometre, inch, nil, 0, true},
	} {
		near, reach, ok := owned.Cuts(x.across, x.deep)
		if !slices.Equal(near, x.near) || reach != x.reach || ok != x.ok {
			t.Errorf("%v mm across, %v deep: %v, %v, %v", x.across.MM(), x.deep.MM(), near, reach, ok)
		}
	}
	if got := owned.Holes(); !slices.Equal(got, []measure.Length{inch / 8, inch / 4}) {
		t.Errorf("the holes are %v", got)
	}
}

func TestRoundersAndDies(t *testing.T) {
	if near, ok := owned.Rounds(inch * 3 / 8); ok || !slices.Equal(near, []measure.Length{inch / 4, inch / 2}) {
		t.Errorf("3/8: %v, %v", near, ok)
	}
	if _, ok := owned.Rounds(inch / 2); !ok {
		t.Error("1/2 is there")
	}
	if near, ok := owned.Die(inch*9/4, inch); ok || near != (Die{2 * inch, inch}) {
		t.Errorf("2 1/4 × 1: %v, %v", near, ok)
	}
	if _, ok := owned.Die(3*inch, 3*inch); !ok {
		t.Error("3 × 3 is there")
	}
}

func TestToolsNobodyMakes(t *testing.T) {
	show := func(l measure.Length) string { return measure.Label(l, measure.MM, measure.Tick(measure.Millimetre)) }
	for what, o := range map[string]Owned{
		"no hole":         {Punches: []Punch{{0, 0}}},
		"a manhole":       {Punches: []Punch{{200 * measure.Millimetre, 0}}},
		"a long arm":      {Punches: []Punch{{inch / 4, 400 * measure.Millimetre}}},
		"no radius":       {Rounders: []measure.Length{0}},
		"half a die":      {Dies: []Die{{inch, 0}}},
		"circles upended": {Circles: Circles{3 * inch, 2 * inch}},
		"too many":        {Rounders: slices.Repeat([]measure.Length{inch}, Most+1)},
	} {
		if o.Check(show) == nil {
			t.Errorf("%s is taken", what)
		}
	}
	if err := owned.Check(show); err != nil {
		t.Error(err)
	}
}
