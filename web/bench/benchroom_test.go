package bench_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/web/webtest"
)

// Without scripts the buttons do; a box whose steps are ticked elsewhere goes on
// where they end; nonsense goes nowhere.
func TestTheBenchWithoutScripts(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/bench", id)
	r, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range recipe.Flat(r.Steps) {
		if s.Kind == recipe.Cut {
			x.Post(fmt.Sprintf("/boxes/%d/tick", id), "step", s.Key, "mark", s.Mark, "done", "1")
		}
	}
	if page := x.Words(at); !strings.Contains(page, "Score") || !strings.Contains(page, "edge on the fence") {
		t.Errorf("with all cut: %s", page)
	}
	for _, n := range []string{"-1", "many", "9999"} {
		if code, _, _ := x.Post(at, "at", n, "go", "on"); code >= 400 {
			t.Errorf("at %s: %d", n, code)
		}
	}
	if code, _, _ := x.Get("/boxes/99/bench"); code != 404 {
		t.Errorf("no such box: %d", code)
	}
}

// Of three cartons each is counted; all can be passed over at once, and that undone.
// What a move took is kept beside what is usual, unless someone went away.
func TestTheBenchCountsCopies(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := design.New("Three cartons", measure.In, "hinged-carton")
	in.Copies = 3
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	moves := bench.Moves(r)
	at := fmt.Sprintf("/boxes/%d/bench", id)
	k := slices.IndexFunc(moves, func(m bench.Move) bool { return m.Step.Kind == recipe.Score })
	x.Post(at, "at", fmt.Sprint(k), "go", "on", "took", "7")
	if page := x.Words(at); !strings.Contains(page, "1 of 3") || !strings.Contains(page, "All 3 are done") {
		t.Errorf("the first of three: %s", page)
	}
	ticked := func() bool {
		kept, err := x.Store.Of(t.Context()).Ticks(t.Context(), id)
		if err != nil {
			t.Fatal(err)
		}
		return kept[moves[k].Step.Key] == moves[k].Step.Mark
	}
	if ticked() {
		t.Error("scoring is ticked off after one groove")
	}
	x.Post(at, "at", fmt.Sprint(k+1), "go", "all")
	if end := bench.AllOf(moves, k); !ticked() || !strings.Contains(x.Words(at), moves[end].Says) {
		t.Error("all of them are not done")
	}
	x.Post(at, "at", fmt.Sprint(bench.AllOf(moves, k)), "was", fmt.Sprint(k+1), "go", "undo")
	if ticked() || !strings.Contains(x.Words(at), moves[k+1].Says) {
		t.Error("it is not undone")
	}
	x.Post(at, "at", fmt.Sprint(k+1), "go", "on", "took", "5")
	x.Post(at, "at", fmt.Sprint(k+2), "go", "on", "took", "9000")
	times, err := x.Store.Of(t.Context()).Times(t.Context(), id)
	if err != nil || len(times) != 1 || times[0].Kind != "score" || times[0].Seconds != 12 || math.Abs(times[0].Usual-2*moves[k].Seconds) > 1e-9 {
		t.Errorf("kept times: %+v, %v", times, err)
	}
}
