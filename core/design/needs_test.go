package design

import (
	"slices"
	"testing"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Many boxes are made one kind of work after the other: in that order, too, the moves make the
// box, whatever is on it. Each step comes after those that it needs, told as it may be.
func TestTheOrderOfABatchMakesTheBox(t *testing.T) {
	t.Parallel()
	made := 0
	eachPapered(t, 77, func(r *Result) {
		made++
		batch(t, r)
		told := map[string]bool{}
		for _, x := range recipe.Flat(r.Steps) {
			for _, key := range x.Needs {
				if !told[key] {
					t.Errorf("%s: %s is told before %s, which it needs", r.Inputs.Style, x.Key, key)
				}
			}
			told[x.Key] = true
		}
	})
	if made < 25 {
		t.Errorf("only %d boxes were made", made)
	}
	for _, s := range style.All {
		for _, way := range []string{ByHandle, ThroughTop, ByPull} {
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

// Whatever is put on a box, into it or round it: left out, it is missed.
func TestWhatIsNotPutIsMissed(t *testing.T) {
	t.Parallel()
	paper := `"card":{"name":"Star paper","gsm":120}`
	for _, c := range []struct{ style, with string }{
		{"tray-lid", `"linings":["stiffener","liner"],"wrap":{"way":"straight","roll":"28 in",` + paper + `},"ribbons":[{"name":"Satin ribbon","way":"crossed","width":"1/2 in","bow":"paper","loop":"2 1/2 in","tail":"3 in"}],` +
			`"bands":[{"axis":"length","at":"3/4 in","width":"1 in","lap":"1/2 in","join":"back"}],"loose":[{"name":"strap","width":"7 in","height":"3/4 in","copies":1}],` +
			`"labels":[{"name":"Tag","shape":"rectangle","width":"2 1/2 in","height":"2 in","text":"Winter fair","copies":1,"hole":true,"layers":[{` + paper + `,"border":0}]}]`},
		{"wallet-box", `"closures":[{"kind":"magnets","pairs":2,"across":"1 in"}]`},
		{"wallet-box", `"closures":[{"kind":"brad","pairs":1}]`},
	} {
		r := make_(t, read(t, `{"brevium":1,"name":"x","units":"in","style":"`+c.style+`","sheets":[{"name":"big","width":900,"height":900}],"tools":{"trimmer":900},`+c.with+`}`))
		if wrong := judged(r); wrong != nil {
			t.Fatalf("%s: %s", c.style, wrong[0].Text)
		}
		tried := 0
		for _, of := range []func(*recipe.Work) *[]hand.Put{
			func(w *recipe.Work) *[]hand.Put { return &w.Fixings }, func(w *recipe.Work) *[]hand.Put { return &w.Inserting }, func(w *recipe.Work) *[]hand.Put { return &w.Closing },
		} {
			whole := r.work()
			for i, put := range *of(&whole) {
				w := r.work()
				left := of(&w)
				*left = slices.Delete(slices.Clone(*left), i, i+1)
				tried++
				if _, table, err := w.Tell(); r.byHand(w, table, err) == nil {
					t.Errorf("%s: nobody misses the %s", c.style, put.Thing)
				}
			}
		}
		if tried == 0 {
			t.Errorf("%s: nothing is put", c.style)
		}
	}
}
