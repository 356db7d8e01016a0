package recipe_test

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/core/tool"
)

// told are the steps of a box that is cut out by shape.
func told(t *testing.T, id string, with tool.With, board bool) []recipe.Step {
	t.Helper()
	in := design.New("box", measure.In, id)
	in.Tools.With, in.Tools.Owned.Machine = with, tool.UsualMachine(tool.Mats[3])
	if board {
		in.Tools.Owned.Machine.Scores = tool.OnBoard
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatalf("%s: %v", id, err)
	}
	return r.Steps
}

func texts(steps []recipe.Step) string {
	var out []string
	for _, s := range steps {
		out = append(out, s.Text)
	}
	return strings.Join(out, "\n")
}

// With scissors a piece is drawn round its template and cut out: its corners are not cut off once more; with
// a machine nothing is cut and scored by hand that it has done.
func TestPiecesAreCutOut(t *testing.T) {
	for _, c := range []struct {
		style  string
		with   tool.With
		board  bool
		says   []string
		silent []string
	}{
		{"tray-lid", tool.Scissors, false, []string{"Print the templates at full size", "Draw round the template of the base", "Score 1 1/2 in from all four", "Make the lid the same way, cut out round its own template. Score 1 in from all four"}, []string{"Trim", "Slit", "Cut the base"}},
		{"tray-lid", tool.ByMachine, false, []string{"Let the machine score the base and cut it out", "Make the lid the same way; the machine scores it and cuts it out"}, []string{"Score 1", "Trim", "Slit", "template"}},
		{"tray-lid", tool.ByMachine, true, []string{"Let the machine cut the base out", "Score 1 1/2 in from all four", "Make the lid the same way; the machine cuts it out. Score 1 in"}, []string{"Trim", "Slit"}},
		{"dispenser", tool.Scissors, false, []string{"Slit the four scores between the panels", "Cut the window panel"}, nil},
		{"gable-carton", tool.Scissors, false, []string{"prick both ends of every score", "Cut out the holes, and along the cuts that the template shows inside"}, []string{"draw round. Prick"}},
		{"gable-carton", tool.ByMachine, false, nil, []string{"rick", "emplate on", "Cut out the holes"}},
		{"pyramid", tool.ByMachine, false, nil, []string{"mark", "Punch"}},
		{"drawer-sleeve", tool.Scissors, false, nil, []string{"notch,"}},
		{"calendar", tool.ByMachine, false, []string{"Let the machine cut three of the long strip out"}, nil},
	} {
		got := texts(told(t, c.style, c.with, c.board))
		for _, s := range c.says {
			if !strings.Contains(got, s) {
				t.Errorf("%s with %s does not say %q:\n%s", c.style, c.with, s, got)
			}
		}
		for _, s := range c.silent {
			if strings.Contains(got, s) {
				t.Errorf("%s with %s still says %q:\n%s", c.style, c.with, s, got)
			}
		}
	}
}

// Of every style each step that is needed is there, none says a key of the voice, and what glues and closes
// the box is told as ever.
func TestEveryStyleIsCutOut(t *testing.T) {
	for _, s := range style.All {
		plain := told(t, s.ID, tool.Trimmer, false)
		for _, with := range []tool.With{tool.Scissors, tool.ByMachine} {
			steps := told(t, s.ID, with, false)
			keys := map[string]bool{}
			for _, x := range recipe.Flat(steps) {
				keys[x.Key] = true
			}
			for _, x := range steps {
				for _, n := range x.Needs {
					if !keys[n] && !slices.ContainsFunc(steps, func(y recipe.Step) bool { return y.Key == n }) {
						t.Errorf("%s with %s: %s needs %s, which is not told", s.ID, with, x.Key, n)
					}
				}
				if strings.ContainsAny(x.Text, "{}") || x.Text == "" {
					t.Errorf("%s with %s: %q", s.ID, with, x.Text)
				}
			}
			took := func(steps []recipe.Step) (sum float64) {
				for _, x := range recipe.Flat(steps) {
					sum += x.Seconds
				}
				return sum
			}
			if a, b := took(steps), took(plain); with == tool.Scissors && a != b || with == tool.ByMachine && a >= b {
				t.Errorf("%s with %s takes %g s, and with the trimmer %g", s.ID, with, a, b)
			}
			for _, x := range plain {
				if (x.Kind == recipe.Assemble || x.Kind == recipe.Close || x.Kind == recipe.Fill) && !strings.Contains(texts(steps), x.Text) {
					t.Errorf("%s with %s does not tell %q", s.ID, with, x.Text)
				}
			}
		}
	}
}
