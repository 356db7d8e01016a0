package found

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
)

// By hand: where a text does not say, the ways in which it can be meant.
func TestWaysToReadAText(t *testing.T) {
	for text, want := range map[string][]string{
		// A tray as it stands, in either unit.
		"Tray 8 x 6, score 2 on all four sides": {"in cm: tray"},
		// 2 and 5 are the walls of the shorter side: so it is a tray, and as it stands none.
		"tray 8 x 7 in, score 2 and 5, turn, score 2 and 6": {"with the 7 in side of the tray at the top: tray"},
		"Base 8 x 6 in, score 1 1/2":                        {},
		// Told as it lies: nothing is left to guess.
		"carton 7 x 9 3/4, score 1 1/2 and 5 1/2, turn, 3/4, 3 3/4, 5 1/4 and 8 1/4":    {},
		"Base 8 x 6 in, score 1 1/2 all sides. Lid 5 1/8 x 3 1/8 in, score 1 all round": {},
	} {
		told, err := Tell(text, measure.In)
		if err != nil {
			t.Fatal(err)
		}
		var got []string
		for _, w := range told.Ways(text, measure.In) {
			got = append(got, strings.TrimPrefix(w.Put, "Read it ")+": "+w.Told.Match.Style.ID)
			if w.Told.sameAs(told.Reading) {
				t.Errorf("%q: %s is no other reading", text, w.Put)
			}
		}
		if !slices.Equal(got, want) {
			t.Errorf("%q\n%q; want\n%q", text, got, want)
		}
	}
}

// By hand: a name of a kind whose numbers these are not.
func TestANameThatTheNumbersDoNotBearOut(t *testing.T) {
	for text, want := range map[string]string{
		"A hinged carton: 8 x 6 in, score 2 on all four sides.": "It is called a hinged carton, but its numbers are those of an open tray.",
		"An open tray: 8 x 6 in, score 2 on all four sides.":    "",
		"A tray: 8 x 6 in, score 2 on all four sides.":          "",
	} {
		told, err := Tell(text, measure.In)
		if err != nil {
			t.Fatal(err)
		}
		i := slices.IndexFunc(told.Says, func(s string) bool { return strings.HasPrefix(s, "It is called") })
		if got := i >= 0; got != (want != "") || got && told.Says[i] != want {
			t.Errorf("%q: %q; want %q", text, told.Says, want)
		}
	}
}
