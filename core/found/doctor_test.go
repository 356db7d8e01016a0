package found

import (
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/core/style"
)

// By hand: a carton of 1 1/2 in round 3 in has its third score at 3/4 + 3 + 1 1/2; a lid over a base
// of 5 x 3 in, 1/16 in larger and 1 in deep, is cut 7 1/16 x 5 1/16.
func TestTheDoctor(t *testing.T) {
	for text, want := range map[string][2]string{
		"carton 7 x 9 3/4, score 1 1/2 and 5 1/2, turn, 3/4, 3 3/4, 5 and 8 1/4":                        {"Put 5 1/4 for 5", "3/4, 3 3/4, 5 1/4 and 8 1/4"},
		"carton 7 x 9 3/4, score 1 1/2 and 5 1/2, turn, 3/4, 3 3/4, ? and 8 1/4":                        {"Put 5 1/4 for ?", "3/4, 3 3/4, 5 1/4 and 8 1/4"},
		"Base 8 x 6 in, score 1 1/2 on all four sides. Lid 5 1/8 x 3 1/8, score 1 all round.":           {"Put 7 1/16 × 5 1/16 for the lid", "Lid 7 1/16 x 5 1/16, score 1 all round."},
		"Base 8 x 6 in, score 1 1/2 all sides. Lid - I don't remember the size - score 1 all sides.":    {"Add the lid over this base: 7 1/16 × 5 1/16", "\nLid 7 1/16 × 5 1/16 in, score 1 on all four sides."},
		"Base 8 x 6 in, score 1 1/2 all sides. Lid 5 1/8in x 3 1/8in, score 3/4in on all four sides.":   {"Put 6 9/16 × 4 9/16 for the lid", "Lid 6 9/16in x 4 9/16in, score 3/4in on all four sides."},
		"Base 8 x 6 in, score ? on all sides":                                                           {},
		"Base 8 x 6 in, score 1 1/2 all sides.":                                                         {},
		"Tray 8 x 6 in, with the 8 in side at the top score 1 and 7, turn, score 1 and 5. Slide it in.": {},
		"Strip 9 x 2 in, score at 2, 5 and ?":                                                           {},
		"Lid 8 x 6 in, score at 1 1/2 on all four sides. A bow":                                         {},
	} {
		told, err := Tell(text, measure.In)
		if err != nil {
			t.Fatal(err)
		}
		got := told.Remedies(text, measure.In)
		if want[0] == "" {
			if len(got) > 0 {
				t.Errorf("%q: %+v is offered; nothing follows from the rest", text, got)
			}
			continue
		}
		if len(got) == 0 || got[0].Put != want[0] || !strings.HasSuffix(got[0].Text, want[1]) {
			t.Errorf("%q: %+v; want %q, … %q", text, got, want[0], want[1])
			continue
		}
		again, err := Tell(got[0].Text, measure.In)
		if err != nil || again.Match == nil {
			t.Errorf("%q is no box: %v", got[0].Text, err)
		}
	}
}

// One number of a jotted box becomes a gap: where a number is offered, the text with it is a box of
// a known kind, with all its lines on the card; and mostly it is the number that was there.
func TestAGapIsFilled(t *testing.T) {
	t.Parallel()
	r := rand.New(rand.NewPCG(12, uint64(sample.Seed(3))))
	offered, same := 0, 0
	for n := range sample.Of(t, 32) {
		s := style.Boxes()[n%len(style.Boxes())]
		unit := measure.In
		in, _ := random(r, s, unit)
		made, err := design.Sketch(in)
		if err != nil {
			continue
		}
		j := newJot(r, unit)
		j.slip = false
		all := j.blanks(made)
		if len(all) == 0 || len(all[0].across) == 0 {
			continue
		}
		text := j.recipe(all)
		whole, err := Tell(text, unit)
		if err != nil || whole.Match == nil || len(whole.Uses) == 0 {
			continue
		}
		gap := whole.Uses[r.IntN(len(whole.Uses))]
		torn := text[:gap.From] + "?" + text[gap.To:]
		told, err := Tell(torn, unit)
		if err != nil {
			continue
		}
		for i, x := range told.Remedies(torn, unit) {
			again, err := Tell(x.Text, unit)
			if err != nil || again.Match == nil {
				t.Errorf("%s\n%q is offered and is no box: %v", torn, x.Text, err)
				continue
			}
			if strings.Contains(strings.Join(again.Said, " "), "lies off") {
				t.Errorf("%s\n%q is offered: %q", torn, x.Text, again.Said)
			}
			if i == 0 {
				offered++
				if otherwise(all, again.Reading) == "" {
					same++
				}
			}
		}
	}
	t.Logf("%d were offered a number, %d the one that was there", offered, same)
	if sample.Whole() && (offered == 0 || same*2 < offered) {
		t.Errorf("of %d numbers that are offered %d are those that were there", offered, same)
	}
}
