package found

import (
	"encoding/json"
	"os"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/sample"
)

// Each piece of a recipe that was read is made by moves: it is cut, and then scored where the
// recipe scores it.
func TestWhatIsReadIsMadeByMoves(t *testing.T) {
	t.Parallel()
	text, err := os.ReadFile("../reading/testdata/recipes.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []struct{ Text string }
	if err := json.Unmarshal(text, &all); err != nil {
		t.Fatal(err)
	}
	pieces := 0
	for i, a := range all {
		if !sample.Part(t, i, 16) {
			continue
		}
		told, err := Tell(a.Text, measure.In)
		if err != nil {
			t.Errorf("%q: %v", a.Text, err)
			continue
		}
		out, err := told.JSON(nil, nil)
		if err != nil {
			t.Errorf("%q: %v", a.Text, err)
			continue
		}
		var f struct {
			Pieces []struct {
				Name   string
				Moves  []struct{ Kind, Piece, Text string }
				Scores struct{ Vertical, Horizontal []float64 }
			}
		}
		if err := json.Unmarshal(out, &f); err != nil {
			t.Fatal(err)
		}
		for _, p := range f.Pieces {
			pieces++
			var kinds []string
			for _, m := range p.Moves {
				kinds = append(kinds, m.Kind)
				if m.Text == "" || strings.Contains(m.Text, "{") {
					t.Errorf("%q: the %s is told %q", a.Text, p.Name, m.Text)
				}
			}
			scored := slices.ContainsFunc(kinds, func(k string) bool { return strings.HasPrefix(k, "score") })
			if len(kinds) == 0 || kinds[0] != "cut" || scored != (len(p.Scores.Vertical)+len(p.Scores.Horizontal) > 0) {
				t.Errorf("%q: the %s is made by %v", a.Text, p.Name, kinds)
			}
		}
	}
	if pieces == 0 {
		t.Error("no piece was made")
	}
}
