package workspace_test

import (
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/recipe"
	"brevium/web/webtest"
)

// A step of one's own is added on Making, said when and to what it is done, told there, at the
// bench, on the sheet's shopping line and in the plan, counted in the minutes, and taken away.
func TestAStepOfOnesOwn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/making", id)
	made := func() *design.Result {
		t.Helper()
		r, err := design.Make(t.Context(), x.Box(id).Inputs)
		if err != nil {
			t.Fatal(err)
		}
		return r
	}
	before := made().One
	post := func(pairs ...string) {
		t.Helper()
		if code, page, _ := x.Post(at, pairs...); code >= 400 {
			t.Fatalf("%v: %d %s", pairs, code, page[:200])
		}
	}
	post("own_steps.add", "own")
	post("own_steps[0].text", "Stamp a star on the lid.", "own_steps[0].after", "fold", "own_steps[0].piece", "lid", "own_steps[0].minutes", "2.5", "own_steps[0].supplies", "star stamp, gold ink")
	if o := x.Box(id).Inputs.OwnSteps; len(o) != 1 || o[0].ID == 0 || o[0].After != recipe.AfterFold || o[0].Piece != "lid" || o[0].Minutes != 2.5 || len(o[0].Supplies) != 2 {
		t.Fatalf("it is kept as %+v", o)
	}
	r := made()
	if more := r.One - before; more < 2.4 || more > 2.6 {
		t.Errorf("it takes %v minutes more", more)
	}
	for _, path := range []string{at, fmt.Sprintf("/boxes/%d/plan.json", id)} {
		if _, page, _ := x.Get(path); !strings.Contains(page, "Stamp a star on the lid.") {
			t.Errorf("%s does not tell it", path)
		}
	}
	if !slices.ContainsFunc(bench.Moves(r), func(m bench.Move) bool { return m.Says == "Stamp a star on the lid." }) {
		t.Error("the bench does not tell it")
	}
	if _, page, _ := x.Get(fmt.Sprintf("/boxes/%d/sheets", id)); !strings.Contains(page, "gold ink") {
		t.Error("what it takes is not among the supplies")
	}
	for field, bad := range map[string]string{"own_steps[0].minutes": "soon", "own_steps[0].text": " ", "own_steps[0].supplies": strings.Repeat("x", 60)} {
		if code, page, _ := x.Post(at, field, bad); code != http.StatusUnprocessableEntity || !strings.Contains(page, `aria-invalid="true"`) {
			t.Errorf("%s = %q: %d", field, bad, code)
		}
	}
	post("own_steps.add", "0")
	if o := x.Box(id).Inputs.OwnSteps; len(o) != 2 || o[1].Text != design.ReadySteps[0].Text || o[1].Piece != "base" {
		t.Errorf("a ready one is %+v", o)
	}
	post("own_steps.remove", "0")
	if o := x.Box(id).Inputs.OwnSteps; len(o) != 1 || o[0].Text != design.ReadySteps[0].Text {
		t.Errorf("taken away, there are %+v", o)
	}
}
