package design

import (
	"math/rand"
	"slices"
	"testing"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// Many boxes are made one kind of work after the other: in that order, too, the moves make the
// box, whatever is on it. Each step comes after those that it needs, told as it may be.
func TestTheOrderOfABatchMakesTheBox(t *testing.T) {
	t.Parallel()
	made := 0
	for n, s := range style.All {
		rng := rand.New(rand.NewSource(sample.Seed(int64(77 + n))))
		for i := range sample.Of(t, 12) {
			r, err := papered(rng, s.ID, []measure.Unit{measure.In, measure.MM}[i%2])
			if err != nil {
				continue // no paper fits there
			}
			made++
			batch(t, r)
			told := map[string]bool{}
			for _, x := range recipe.Flat(r.Steps) {
				for _, key := range x.Needs {
					if !told[key] {
						t.Errorf("%s: %s is told before %s, which it needs", s.ID, x.Key, key)
					}
				}
				told[x.Key] = true
			}
		}
	}
	if made < 25 {
		t.Errorf("only %d boxes were made", made)
	}
	for _, s := range style.All {
		for _, way := range []string{ByHandle, ThroughTop} {
			in := New("x", measure.In, s.ID)
			in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
			x := UsualRibbon(in.Units)
			x.ID, x.Way = 1, way
			in.Ribbons = []Ribbon{x}
			r, err := Make(t.Context(), in)
			if err != nil {
				continue // no hole goes there
			}
			batch(t, r)
			for _, step := range r.Steps {
				if wrong := unsayable(step.Text); wrong != "" {
					t.Errorf("%s by its %s: %s: %s", s.ID, way, wrong, step.Text)
				}
			}
		}
	}
	for _, with := range []string{
		`"bands":[{"axis":"length","at":"3/4 in","width":"1 in","lap":"1/2 in","join":"back"},{"axis":"width","at":"-1/2 in","width":"1 in","lap":"1/2 in","join":"front"}]`,
		`"linings":["stiffener","liner","riser"],"ribbons":[{"name":"Satin ribbon","way":"handle","width":"1/2 in","bow":"none","rise":"2 in"}]`,
		`"covers":[{"piece":"lid","turn_in":"5/8 in","corners":"lapped","card":{"name":"Star paper","gsm":120}}],"ribbons":[{"name":"Satin ribbon","way":"crossed","width":"1/2 in","bow":"paper","loop":"2 1/2 in","tail":"3 in"}]`,
	} {
		batch(t, make_(t, read(t, `{"brevium":1,"name":"x","units":"in","style":"tray-lid","sheets":[{"name":"big","width":900,"height":900}],"tools":{"trimmer":900},`+with+`}`)))
	}
}

// batch does the moves of a design in the order of a batch, and holds the end against it.
func batch(t *testing.T, r *Result) {
	t.Helper()
	table, order := &hand.Table{}, recipe.ByKind(r.Steps)
	if len(order) != len(recipe.Flat(r.Steps)) {
		t.Errorf("%s: %d steps of %d", r.Inputs.Style, len(order), len(recipe.Flat(r.Steps)))
	}
	for _, s := range order {
		if err := table.Do(s.Piece, s.Does); err != nil {
			t.Errorf("%s: in a batch, at %s: %v", r.Inputs.Style, s.Key, err)
			return
		}
	}
	for _, f := range r.byHand(r.work(), table, nil) {
		t.Errorf("%s: in a batch: %s", r.Inputs.Style, f.Text)
	}
}

// A step that is done before what it needs is noticed by the hand, or does no harm: the needs
// name nothing that is not a step.
func TestNeedsAreSteps(t *testing.T) {
	t.Parallel()
	for _, s := range style.All {
		r := make_(t, New("x", measure.In, s.ID))
		steps := recipe.Flat(r.Steps)
		for i, x := range steps {
			if i > 0 && len(x.Needs) == 0 && x.Kind != recipe.Cut {
				t.Errorf("%s: %s needs nothing", s.ID, x.Key)
			}
			for _, key := range x.Needs {
				if !slices.ContainsFunc(steps, func(o recipe.Step) bool { return o.Key == key }) {
					t.Errorf("%s: %s needs %q, which is no step", s.ID, x.Key, key)
				}
			}
		}
	}
}
