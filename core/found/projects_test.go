package found

import (
	"os"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/reading"
)

// testdata/projects.txt has recipes of several pieces, with the style that they are ("> style"),
// with the number that a remedy puts right ("! number"), or with what is marked ("? word").
func TestProjectsOfSeveralPieces(t *testing.T) {
	t.Parallel()
	text, err := os.ReadFile("testdata/projects.txt")
	if err != nil {
		t.Fatal(err)
	}
	for _, one := range strings.Split(string(text), "-- ")[1:] {
		about, rest, _ := strings.Cut(one, "\n")
		recipe, want, _ := strings.Cut(strings.TrimSpace(rest), "\n> ")
		recipe, mend, mended := strings.Cut(recipe, "\n! ")
		recipe, odd, marked := strings.Cut(recipe, "\n? ")
		told, err := Tell(recipe, measure.In)
		if err != nil {
			t.Errorf("%s: %v", about, err)
			continue
		}
		got := ""
		if told.Match != nil {
			got = told.Match.Style.ID
		}
		if got != want {
			t.Errorf("%s: it is %q; want %q: %q, %d pieces, not understood %v", about, got, want, told.Says, len(told.Pieces), told.NotUnderstood)
		}
		if marked && !slices.ContainsFunc(told.NotUnderstood, func(s reading.Span) bool { return s.Text == odd }) {
			t.Errorf("%s: %q is not marked: %v", about, odd, told.NotUnderstood)
		}
		if remedies := told.Remedies(recipe, measure.In); mended && (len(remedies) == 0 || !strings.Contains(remedies[0].Put, mend)) {
			t.Errorf("%s: %+v is offered; want %q: %q", about, remedies, mend, told.Says)
		}
	}
}
