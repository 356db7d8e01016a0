package reading

import (
	"encoding/json"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
)

// answer is a recipe of the corpus with what it means, in mm.
type answer struct {
	Text   string
	Pieces []struct {
		Name                 string
		Width, Height        float64
		Vertical, Horizontal []float64
		Copies               int
	}
	Marked []string
	Claim  []float64
}

func corpus(t *testing.T, name string) []answer {
	t.Helper()
	text, err := os.ReadFile("testdata/" + name)
	if err != nil {
		t.Fatal(err)
	}
	var out []answer
	if err := json.Unmarshal(text, &out); err != nil {
		t.Fatal(err)
	}
	return out
}

func same(a []measure.Length, b []float64) bool {
	return slices.EqualFunc(a, b, func(x measure.Length, y float64) bool { return math.Abs(x.MM()-y) < 0.002 })
}

// wrong says what of a recipe was read otherwise, "" for nothing.
func (a answer) wrong(r *Reading) string {
	if len(r.Pieces) != len(a.Pieces) {
		return "pieces"
	}
	for i, want := range a.Pieces {
		got := r.Pieces[i]
		switch {
		case math.Abs(got.Width.MM()-want.Width) > 0.002 || math.Abs(got.Height.MM()-want.Height) > 0.002:
			return "blank of " + want.Name
		case !same(got.Vertical, want.Vertical) || !same(got.Horizontal, want.Horizontal):
			return "scores of " + want.Name
		case got.Copies != want.Copies:
			return "copies of " + want.Name
		}
	}
	if a.Claim != nil {
		if len(r.Claims) != 1 {
			return "claim"
		}
		for i, x := range a.Claim {
			if math.Abs(r.Claims[0].Size[i].MM()-x) > 0.002 {
				return "claim"
			}
		}
	}
	return ""
}

// marked reports whether what was not understood has a text in it.
func marked(r *Reading, text string) bool {
	return slices.ContainsFunc(r.NotUnderstood, func(s Span) bool { return strings.Contains(s.Text, text) || strings.Contains(text, s.Text) })
}

// Recipes as people write them: blanks, scores and panels are right in 95 of 100, and
// where they are not, something is marked as not understood.
func TestTheCorpus(t *testing.T) {
	for _, name := range []string{"recipes.json", "kept-out.json"} {
		all := corpus(t, name)
		right := 0
		for _, a := range all {
			r, err := Read(a.Text, measure.In)
			if err != nil {
				t.Errorf("%q: %v", a.Text, err)
				continue
			}
			wrong := a.wrong(r)
			if wrong == "" {
				right++
			} else if len(r.NotUnderstood) == 0 && len(r.Said) == 0 {
				t.Errorf("%s: %q: %s wrong, and nothing is said", name, a.Text, wrong)
			} else {
				t.Logf("%s: %q: %s; not understood %v", name, a.Text, wrong, r.NotUnderstood)
			}
			for _, m := range a.Marked {
				if !marked(r, m) {
					t.Errorf("%q: %q is not marked: %v", a.Text, m, r.NotUnderstood)
				}
			}
			if len(a.Marked) == 0 && wrong == "" && len(r.NotUnderstood) > 0 {
				t.Errorf("%q: %v is not understood", a.Text, r.NotUnderstood)
			}
		}
		if right*100 < 95*len(all) {
			t.Errorf("%s: %d of %d are right", name, right, len(all))
		}
		t.Logf("%s: %d of %d are right", name, right, len(all))
	}
}
