package found

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/reading"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// The printed numbers of each style, in inches, centimetres and millimetres, give the style, or say it
// as another that they could be, or say that they are no box that is known: never another in silence.
func TestPrintedNumbersGiveTheStyle(t *testing.T) {
	t.Parallel()
	given, silent := 0, 0
	for _, s := range style.Boxes() {
		for _, unit := range []measure.Unit{measure.In, measure.CM, measure.MM} {
			in := design.New("Box", unit, s.ID)
			in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*measure.Millimetre, 2000*measure.Millimetre, 2000*measure.Millimetre
			made, err := design.Make(t.Context(), in)
			if err != nil {
				t.Fatal(err)
			}
			var lines []string
			for _, step := range recipe.Flat(made.Steps) {
				if step.Kind == recipe.Cut || step.Passes != nil {
					lines = append(lines, step.Text)
				}
			}
			told, err := Tell(strings.Join(lines, "\n"), unit)
			switch {
			case err != nil:
				t.Errorf("%s in %s: %v", s.ID, unit, err)
			case told.Match == nil:
				t.Logf("%s in %s: %q", s.ID, unit, told.Says)
			case told.Match.Style == s || slices.ContainsFunc(told.Also, func(m Match) bool { return m.Style == s }):
				given++
			default:
				silent++
				t.Errorf("%s in %s is told to be %s: %q\n%s", s.ID, unit, told.Match.Style.ID, told.Says, strings.Join(lines, "\n"))
			}
		}
	}
	if all := 3 * len(style.Boxes()); given < all*4/5 || silent > 0 {
		t.Errorf("%d of %d give the style, %d another", given, all, silent)
	}
}

// What the steps of any style say of cutting and scoring, in inches or centimetres, is
// read back as the same blanks and lines; nothing of it is left that is not understood.
func TestPrintedRecipesAreReadBack(t *testing.T) {
	t.Parallel()
	r := rand.New(rand.NewPCG(16, uint64(sample.Seed(3))))
	for _, s := range style.Boxes() {
		for k := range sample.Of(t, 10) {
			unit := []measure.Unit{measure.In, measure.CM, measure.MM}[k%3]
			in, _ := random(r, s, unit)
			in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*measure.Millimetre, 2000*measure.Millimetre, 2000*measure.Millimetre
			made, err := design.Make(t.Context(), in)
			if err != nil {
				t.Fatal(err)
			}
			var lines []string
			var order []design.Part // in which they are told
			for _, step := range recipe.Flat(made.Steps) {
				if step.Kind == recipe.Cut {
					i := slices.IndexFunc(made.Parts, func(p design.Part) bool { return p.ID == step.Piece })
					order = append(order, made.Parts[i])
				}
				if step.Kind == recipe.Cut || step.Passes != nil {
					lines = append(lines, step.Text)
				}
			}
			text := strings.Join(lines, "\n")
			got, err := reading.Read(text, unit)
			if err != nil || len(got.Pieces) != len(made.Parts) {
				t.Errorf("%s: %v, %d pieces of %d\n%s", s.ID, err, len(got.Pieces), len(made.Parts), text)
				continue
			}
			if len(got.NotUnderstood) > 0 {
				t.Errorf("%s: not understood %v\n%s", s.ID, got.NotUnderstood, text)
			}
			for i, p := range order {
				g := got.Pieces[i]
				want := p.Pattern.Scores
				near := func(a, b []measure.Length) bool {
					return slices.EqualFunc(a, b, func(x, y measure.Length) bool { return (x - y).Abs() <= 60*measure.Micrometre })
				}
				if !near(g.Vertical, want.Vertical) || !near(g.Horizontal, want.Horizontal) || (g.Width-p.Pattern.Width).Abs() > 60*measure.Micrometre || (g.Height-p.Pattern.Height).Abs() > 60*measure.Micrometre {
					t.Errorf("%s, %s: %v %v, %v × %v; it is scored %v %v\n%s", s.ID, p.ID, g.Vertical, g.Horizontal, g.Width, g.Height, want.Vertical, want.Horizontal, text)
					break
				}
			}
		}
	}
}
