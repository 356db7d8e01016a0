package design

import (
	"fmt"
	"math/rand"
	"regexp"
	"strings"
	"sync"
	"testing"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// expressions are what was compiled before: a hand reads many steps.
var expressions sync.Map

func compiled(expression string) *regexp.Regexp {
	if known, there := expressions.Load(expression); there {
		return known.(*regexp.Regexp)
	}
	r := regexp.MustCompile(expression)
	expressions.Store(expression, r)
	return r
}

// A hand that has only the steps makes every piece of every style: each score, slit, cut-away
// edge, hole, notch and slot of the pattern is where the words put it, each fold goes the way
// they say, and each tab is stuck where they say.
func TestMadeFromTheWordsAlone(t *testing.T) {
	t.Parallel()
	metric := regexp.MustCompile(`\d (mm|cm)\b`)
	remainder := regexp.MustCompile(`[−+] ?\d*\.?\d+ mm`)
	for _, s := range style.All {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			for _, unit := range []measure.Unit{measure.In, measure.MM} {
				rng := rand.New(rand.NewSource(sample.Seed(23)))
				for made, tried := 0, 0; made < sample.Of(t, 50); tried++ {
					if tried > 4000 {
						t.Fatalf("only %d of %d random sizes could be made", made, tried)
					}
					in := randomSize(rng, unit, s)
					r, err := Make(t.Context(), in)
					if err != nil {
						if f := fault.Of(err); f.Code == fault.Internal {
							t.Fatal(err)
						}
						continue
					}
					made++
					steps := r.work().Steps()
					for _, step := range steps {
						if remainder.MatchString(step.Text) || unit == measure.In && metric.MatchString(step.Text) {
							t.Errorf("a number that is none of its unit: %s", step.Text)
						}
						if wrong := unsayable(step.Text); wrong != "" {
							t.Errorf("%s: %s", wrong, step.Text)
						}
					}
					read, err := readSteps(r, steps)
					if err != nil {
						t.Fatalf("in %s, %v %+v: %v", unit, in.Size, in.Choices, err)
					}
					for _, p := range r.Parts {
						c, there := read.table.Card(p.ID)
						if !there {
							t.Errorf("the %s is not made", p.ID)
						} else if err := c.Equal(p.Pattern); err != nil {
							t.Errorf("in %s, fence %s, %v %v: %v", unit, in.Tools.Fence, in.Size, in.Choices, err)
						}
					}
					if t.Failed() {
						for _, step := range steps {
							t.Log(step.Text)
						}
						return
					}
				}
			}
		})
	}
}

// randomSize is a design of a style with sizes on the board's grooves.
func randomSize(rng *rand.Rand, unit measure.Unit, s *style.Style) Inputs {
	in := New("x", unit, s.ID)
	in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
	if rng.Intn(3) == 0 {
		in.Tools.Fence = recipe.Right
	}
	switch rng.Intn(4) {
	case 0:
		in.Tools.Tick *= 2
	case 1:
		in.Card.Thickness = 450 * measure.Micrometre
	}
	for _, p := range s.Parameters {
		if rng.Intn(4) > 0 {
			l := p.Min + measure.Length(rng.Int63n(int64(max(p.Min+1, min(p.Max, 4*p.Usual(in.Tools.Tick)))-p.Min)))
			in.Size[p.ID] = measure.Down(l, in.Tools.Tick)
		}
	}
	randomChoices(rng, &in, s)
	return in
}

// unsayable is what no maker would say of a sentence; a row of numbers is one word of it.
func unsayable(text string) string {
	text = regexp.MustCompile(`[\d./ ]*\d(, [\d./ ]*\d)*( and [\d./ ]*\d)?`).ReplaceAllStringFunc(text, func(numbers string) string {
		if strings.Contains(numbers, ",") || strings.Contains(numbers, " and ") {
			return " 1"
		}
		return numbers
	})
	for _, sentence := range regexp.MustCompile(`[.;:] `).Split(text, -1) {
		if n := len(strings.Fields(sentence)); n > 25 {
			return fmt.Sprintf("%d words in one sentence", n)
		}
	}
	switch {
	case strings.Contains(text, "{"):
		return "a word is missing"
	case regexp.MustCompile(`\b[Ii]t\b`).MatchString(text):
		return "what is “it”?"
	case regexp.MustCompile(`\bfaces?\b`).MatchString(text):
		return "no hand sees a face"
	case regexp.MustCompile(`\d/64\b`).MatchString(text):
		return "a sixty-fourth"
	}
	return ""
}

// A hand that was told a wrong number makes another piece, and one that cannot
// read a sentence says so.
func TestAWrongWordIsNoticed(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray-lid")
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct{ right, wrong string }{
		{"Cut the base 7 × 6 in", "Cut the base 7 × 6 1/16 in"},
		{"Score 1 1/2 in from all", "Score 1 5/8 in from all"},
		{"both short edges", "both long edges"},
		{"first crossing", "second crossing"},
		{"the two scores you meet", "the three scores you meet"},
		{"four corner tabs, 1/16 in", "four corner tabs, 1/8 in"},
		{"the four corner tabs", "the six corner tabs"},
		{"Fold every score away from you and burnish.", "Fold every score and burnish."},
		{"Stand the walls up; press", "Stand the walls up in turn; press"},
		{"cut 6 1/16 × 5 1/16 in", "cut 6 × 5 1/16 in"},
		{"scored 1 in from", "scored 1 1/16 in from"},
		{"From both", "Snip both"},
	} {
		steps, changed := r.work().Steps(), false
		for i, s := range steps {
			steps[i].Text = strings.Replace(s.Text, c.right, c.wrong, 1)
			changed = changed || steps[i].Text != s.Text
		}
		if !changed {
			t.Fatalf("no step says %q", c.right)
		}
		read, err := readSteps(r, steps)
		for _, p := range r.Parts {
			if card, made := read.table.Card(p.ID); err == nil && made {
				err = card.Equal(p.Pattern)
			}
		}
		if err == nil {
			t.Errorf("%q for %q makes the same box", c.wrong, c.right)
		}
	}
}
