package recipe

import (
	"maps"
	"testing"
)

// Ticks put when steps were told by their kind tick all moves of that piece and kind; one that
// is taken back stays back. A step that tells others is done with them, and they with it.
func TestTicked(t *testing.T) {
	steps := []Step{
		{Key: "cut/base", Mark: "m1", Piece: "base", Kind: Cut},
		{Key: "remove/base/slit", Mark: "m2", Piece: "base", Kind: Remove},
		{Key: "remove/base/taper-tab", Mark: "m3", Piece: "base", Kind: Remove},
		{Key: "glue/lid/same", Mark: "m4", Piece: "lid", Kind: Glue, Inner: []Step{
			{Key: "cut/lid", Mark: "m5", Piece: "lid", Kind: Cut},
			{Key: "glue/lid/walls-up", Mark: "m6", Piece: "lid", Kind: Glue},
		}},
	}
	for name, c := range map[string]struct {
		kept map[string]string
		done map[string]bool
	}{
		"nothing":        {nil, nil},
		"an old tick":    {map[string]string{"remove/base": "0123456789abcdef"}, map[string]bool{"remove/base/slit": true, "remove/base/taper-tab": true}},
		"numbered":       {map[string]string{"glue/lid/1": "0123456789abcdef"}, map[string]bool{"glue/lid/same": true, "cut/lid": true, "glue/lid/walls-up": true}},
		"taken back":     {map[string]string{"remove/base": "0123456789abcdef", "remove/base/slit": ""}, map[string]bool{"remove/base/taper-tab": true}},
		"a new one":      {map[string]string{"cut/base": "m1"}, map[string]bool{"cut/base": true}},
		"other numbers":  {map[string]string{"cut/base": "m9"}, nil},
		"all of another": {map[string]string{"glue/lid/same": "m4"}, map[string]bool{"glue/lid/same": true, "cut/lid": true, "glue/lid/walls-up": true}},
		"each by itself": {map[string]string{"cut/lid": "m5", "glue/lid/walls-up": "m6"}, map[string]bool{"glue/lid/same": true, "cut/lid": true, "glue/lid/walls-up": true}},
		"one of two":     {map[string]string{"cut/lid": "m5"}, map[string]bool{"cut/lid": true}},
	} {
		before := maps.Clone(c.kept)
		got := Ticked(steps, c.kept)
		for _, s := range append(Flat(steps), steps[3]) {
			if done := got[s.Key] == s.Mark; done != c.done[s.Key] {
				t.Errorf("%s: %s is done: %v", name, s.Key, done)
			}
		}
		if !maps.Equal(before, c.kept) {
			t.Errorf("%s: what was kept is changed", name)
		}
	}
}
