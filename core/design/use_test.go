package design

import (
	"math/rand"
	"slices"
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

func finding(all []inspect.Finding, id string) inspect.Finding {
	if i := slices.IndexFunc(all, func(f inspect.Finding) bool { return f.ID == id }); i >= 0 {
		return all[i]
	}
	return inspect.Finding{}
}

// Every style says of itself whether it can be filled, holds, opens, stays
// shut and stands; at its usual sizes all of it is well.
func TestEveryStyleCanBeUsed(t *testing.T) {
	t.Parallel()
	for _, s := range style.Boxes() {
		for _, unit := range measure.Units {
			r, err := Make(t.Context(), New("x", unit, s.ID))
			if err != nil {
				t.Fatal(err)
			}
			for _, id := range []string{"fill", "room", "open", "stay", "stand"} {
				if f := finding(r.Checks, id); f.Verdict != inspect.OK || f.Text == "" {
					t.Errorf("%s in %s, %s: %+v", s.ID, unit, id, f)
				}
			}
		}
	}
}

// A block as large as a box says it holds goes in through its opening at
// random sizes, and the steps fill a box before they close it.
func TestFilledThenClosed(t *testing.T) {
	t.Parallel()
	for _, id := range []string{"wallet-box", "tall-box", "arched-box", "fold-top-bag"} {
		s, err := style.ByID(id)
		if err != nil {
			t.Fatal(err)
		}
		rng := rand.New(rand.NewSource(sample.Seed(31)))
		for made := 0; made < sample.Of(t, 25); {
			in := randomSize(rng, measure.Units[rng.Intn(3)], s)
			r, err := Make(t.Context(), in)
			if err != nil {
				continue
			}
			made++
			parts, folded := r.Pieces()
			use, err := inspect.Whole{Parts: parts, Finished: folded, Box: r.Box, Fits: r.Fits, Inside: r.Inside, Units: in.Units}.Use()
			if err != nil {
				t.Fatal(err)
			}
			for _, f := range use {
				if f.ID != "stay" && f.Verdict != inspect.OK {
					t.Errorf("%s %v %v: %s", id, in.Size, in.Choices, f.Text)
				}
			}
			w := r.work()
			w.Contents = "figs"
			closed, glued, filled := -1, -1, -1
			for i, step := range w.Steps() {
				switch step.Kind {
				case recipe.Close:
					if closed < 0 {
						closed = i
					}
				case recipe.Glue:
					glued = i
				case recipe.Fill:
					filled = i
				}
			}
			if filled < glued || closed >= 0 && closed < filled {
				t.Errorf("%s: glued last at step %d, filled at %d, closed at %d", id, glued, filled, closed)
			}
		}
	}
}

// A wallet whose flap is glued to its front is glued shut, and one whose top
// does not turn back cannot be filled.
func TestGluedShutIsFound(t *testing.T) {
	t.Parallel()
	look := func(change func(*pattern.Pattern)) []inspect.Finding {
		t.Helper()
		r, err := Make(t.Context(), New("x", measure.In, "wallet-box"))
		if err != nil {
			t.Fatal(err)
		}
		change(r.Parts[0].Pattern)
		parts, folded := r.Pieces()
		use, err := inspect.Whole{Parts: parts, Finished: folded, Box: r.Box, Inside: r.Inside, Units: measure.In}.Use()
		if err != nil {
			t.Fatal(err)
		}
		return use
	}
	glued := look(func(p *pattern.Pattern) {
		for i := range p.Glue {
			p.Glue[i].Dry = false
		}
	})
	if f := finding(glued, "open"); f.Verdict != inspect.Fail || !strings.Contains(f.Text, "glued shut") {
		t.Errorf("a wallet whose flap is glued: %+v", f)
	}
	stiff := look(func(p *pattern.Pattern) {
		for i := range p.Creases {
			p.Creases[i].Hinge = false
		}
	})
	if f := finding(stiff, "fill"); f.Verdict != inspect.Fail {
		t.Errorf("a wallet whose top does not open: %+v", f)
	}
}
