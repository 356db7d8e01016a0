package found

import (
	"os"
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// testdata/papers.txt has recipes with the papers that they make: "> part: face size", a line for each
// face, and "? words" that are said.
func TestPapersGoWhereTheyAreSaidTo(t *testing.T) {
	t.Parallel()
	text, err := os.ReadFile("testdata/papers.txt")
	if err != nil {
		t.Fatal(err)
	}
	for _, one := range strings.Split(string(text), "-- ")[1:] {
		about, rest, _ := strings.Cut(one, "\n")
		var recipe strings.Builder
		var want, said []string
		for line := range strings.Lines(rest) {
			switch {
			case strings.HasPrefix(line, "> "):
				want = append(want, strings.TrimSpace(line[2:]))
			case strings.HasPrefix(line, "? "):
				said = append(said, strings.TrimSpace(line[2:]))
			default:
				recipe.WriteString(line)
			}
		}
		told, err := Tell(strings.TrimSpace(recipe.String()), measure.In)
		if err != nil || told.Made == nil {
			t.Errorf("%s: no box: %v, %q", about, err, told.Says)
			continue
		}
		if got := papersOf(told); !slices.Equal(got, want) {
			t.Errorf("%s\n%q; want\n%q\nsaid %q, not understood %v", about, got, want, told.Says, told.NotUnderstood)
		}
		in, layers := told.Match.Inputs, 0
		in.Mats = told.Papers
		for _, d := range told.Papers {
			layers += len(d.Faces) * len(d.Layers)
		}
		if made, err := design.Make(t.Context(), in); err != nil || len(made.Mats) != layers {
			t.Errorf("%s: the box with its papers: %v", about, err)
		}
		for _, s := range said {
			if !strings.Contains(strings.Join(told.Says, " "), s) {
				t.Errorf("%s: %q is not said: %q", about, s, told.Says)
			}
		}
	}
}

// Papers that are told by a border alone go on all kinds of box: never on what is glued or has one already,
// so that the box with them can be made.
func TestBorderedPapersOfProjects(t *testing.T) {
	t.Parallel()
	text, err := os.ReadFile("testdata/projects.txt")
	if err != nil {
		t.Fatal(err)
	}
	dressed := 0
	for _, one := range strings.Split(string(text), "-- ")[1:] {
		_, rest, _ := strings.Cut(one, "\n")
		recipe, _, is := strings.Cut(rest, "\n> ")
		if !is {
			continue
		}
		for _, papers := range []string{"Papers 1/8 smaller all round on every wall.", "Patterned paper everywhere, border 1/8.", "Mat the inside with an eighth showing."} {
			told, err := Tell(recipe+"\n"+papers, measure.In)
			if err != nil || told.Made == nil {
				t.Errorf("%s %s: no box: %v", recipe, papers, err)
				continue
			}
			in := told.Match.Inputs
			in.Mats = told.Papers
			dressed += len(told.Papers)
			if _, err := design.Make(t.Context(), in); err != nil {
				t.Errorf("%s: %s %v", told.Match.Style.ID, papers, err)
			}
		}
	}
	if dressed < 60 {
		t.Errorf("only %d papers are laid", dressed)
	}
}

// papersOf lists where the papers of a recipe lie and how large their layers are.
func papersOf(told *Told) (out []string) {
	for _, d := range told.Papers {
		for _, part := range told.Made.Parts {
			if part.ID != d.Piece {
				continue
			}
			for _, name := range d.Faces {
				f := part.Faces[slices.IndexFunc(part.Faces, func(f pattern.Face) bool { return f.Name == name })]
				along, up := f.Frame().Size(f.Polygon)
				w, h := measure.FromMM(along), measure.FromMM(up)
				var sizes []string
				for _, l := range d.Layers {
					w, h = w-2*l.Border.Across, h-2*l.Border.Up
					sizes = append(sizes, told.number(w)+" × "+told.number(h))
				}
				at := f.Plain() + " "
				if d.Side == dress.Inside {
					at = "inside " + at
				}
				out = append(out, strings.ToLower(part.Name)+": "+at+strings.Join(sizes, " + "))
			}
		}
	}
	slices.Sort(out)
	return out
}
