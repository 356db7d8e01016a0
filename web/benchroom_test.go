package web

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
)

// The jar box is made at the bench by the keyboard alone, the page shut half-way and
// opened again; nothing scrolls, every step comes up once, and all are ticked.
func TestAtTheBench(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	r, err := design.Make(t.Context(), x.box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	b := openBrowser(t, x)
	b.do(chromedp.EmulateViewport(1280, 800))
	at := fmt.Sprintf("/boxes/%d/bench", id)
	b.visit(at)
	ticks := func() int {
		kept, err := x.store.Of(t.Context()).Ticks(t.Context(), id)
		if err != nil {
			t.Fatal(err)
		}
		n := 0
		for _, s := range r.Steps {
			if kept[s.Key] == s.Mark {
				n++
			}
		}
		return n
	}
	now := func() string { return b.value(`document.querySelector("input[name=at]").value`) }
	seen, half := map[string]bool{}, false
	for n := 0; n < 200; n++ {
		if b.value(`document.body.innerText.includes("It is made.")`) == "true" {
			break
		}
		if over := b.value(`document.documentElement.scrollHeight > innerHeight`); over == "true" {
			t.Errorf("move %s scrolls", now())
		}
		seen[b.value(`document.querySelector(".move-bar .numbers").innerText`)] = true
		was := now()
		b.do(chromedp.KeyEvent([]string{" ", kb.ArrowRight, kb.PageDown}[n%3]))
		b.until(fmt.Sprintf(`document.querySelector("input[name=at]").value !== %q`, was))
		if !half && ticks() >= len(r.Steps)/2 {
			half = true
			there := now()
			b.visit("/")
			b.visit(at)
			if now() != there {
				t.Errorf("opened again one is at %s; one was at %s", now(), there)
			}
		}
	}
	// All cutting comes first, as one; then every other step.
	want := 1 + len(slices.DeleteFunc(slices.Clone(r.Steps), func(s recipe.Step) bool { return s.Kind == recipe.Cut }))
	if len(seen) != want || ticks() != len(r.Steps) {
		t.Errorf("%d of %d steps came up, %d are ticked", len(seen), len(r.Steps), ticks())
	}
	b.do(chromedp.KeyEvent(kb.ArrowLeft))
	b.until(`!document.body.innerText.includes("It is made.")`)
	if ticks() != len(r.Steps)-1 {
		t.Errorf("a step back leaves %d ticks", ticks())
	}
}

// By touch on a phone: a tap on the picture goes on, one at its left edge back.
func TestAtTheBenchByTouch(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	b := openBrowser(t, x)
	b.do(chromedp.EmulateViewport(390, 844, chromedp.EmulateTouch))
	b.visit(fmt.Sprintf("/boxes/%d/bench", id))
	now := func() string { return b.value(`document.querySelector("input[name=at]").value`) }
	for n := 0; b.value(`document.body.innerText.includes("It is made.")`) != "true"; n++ {
		if n > 200 {
			t.Fatal("it is never made")
		}
		if b.value(`document.documentElement.scrollHeight > innerHeight || document.documentElement.scrollWidth > innerWidth`) == "true" {
			t.Errorf("move %s scrolls", now())
		}
		was := now()
		b.do(chromedp.MouseClickXY(300, 250))
		b.until(fmt.Sprintf(`document.querySelector("input[name=at]").value !== %q`, was))
	}
	b.do(chromedp.Click("#bench-back"))
	b.until(`!document.body.innerText.includes("It is made.")`)
	was := now()
	b.do(chromedp.MouseClickXY(40, 250))
	b.until(fmt.Sprintf(`Number(document.querySelector("input[name=at]").value) < %s`, was))
}

// After any Done, by mouse, by key or by touch, every link of the bench still leads where
// it says, "How did it come out?" too.
func TestTheBenchLetsGo(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	b := openBrowser(t, x)
	at := fmt.Sprintf("/boxes/%d/bench", id)
	now := func() string { return b.value(`document.querySelector("input[name=at]").value`) }
	for name, done := range map[string]chromedp.Action[chromedp.Void]{
		"mouse": chromedp.Click("#bench-on"), "Enter": chromedp.KeyEvent(kb.Enter), "touch": chromedp.MouseClickXY(300, 250),
	} {
		if b.do(chromedp.EmulateViewport(1280, 800)); name == "touch" {
			b.do(chromedp.EmulateViewport(390, 844, chromedp.EmulateTouch))
		}
		b.visit(at)
		for range 3 {
			was := now()
			b.do(done)
			b.until(fmt.Sprintf(`document.querySelector("input[name=at]").value !== %q`, was))
		}
		b.do(chromedp.Click(".move-bar a"))
		b.until(`location.pathname.endsWith("/making")`)
	}
	r, err := design.Make(t.Context(), x.box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range r.Steps[:len(r.Steps)-1] {
		x.post(fmt.Sprintf("/boxes/%d/tick", id), "step", s.Key, "mark", s.Mark, "done", "1")
	}
	b.visit(at)
	for b.value(`document.body.innerText.includes("It is made.")`) != "true" {
		was := now()
		b.do(chromedp.KeyEvent(" "))
		b.until(fmt.Sprintf(`document.querySelector("input[name=at]").value !== %q`, was))
	}
	b.do(chromedp.Click(".move-on a.btn-main"))
	b.says("How did it come out?")
	b.until(`location.pathname.endsWith("/made")`)
}

// Without scripts the buttons do; a box whose steps are ticked elsewhere goes on
// where they end; nonsense goes nowhere.
func TestTheBenchWithoutScripts(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	at := fmt.Sprintf("/boxes/%d/bench", id)
	r, err := design.Make(t.Context(), x.box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range recipe.Flat(r.Steps) {
		if s.Kind == recipe.Cut {
			x.post(fmt.Sprintf("/boxes/%d/tick", id), "step", s.Key, "mark", s.Mark, "done", "1")
		}
	}
	if page := x.words(at); !strings.Contains(page, "Score") || !strings.Contains(page, "edge on the fence") {
		t.Errorf("with all cut: %s", page)
	}
	for _, n := range []string{"-1", "many", "9999"} {
		if code, _, _ := x.post(at, "at", n, "go", "on"); code >= 400 {
			t.Errorf("at %s: %d", n, code)
		}
	}
	if code, _, _ := x.get("/boxes/99/bench"); code != 404 {
		t.Errorf("no such box: %d", code)
	}
}

// Of three cartons each is counted; all can be passed over at once, and that undone.
// What a move took is kept beside what is usual, unless someone went away.
func TestTheBenchCountsCopies(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	in := design.New("Three cartons", measure.In, "hinged-carton")
	in.Copies = 3
	id, err := x.store.Of(t.Context()).Add(t.Context(), in)
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
	x.post(at, "at", fmt.Sprint(k), "go", "on", "took", "7")
	if page := x.words(at); !strings.Contains(page, "1 of 3") || !strings.Contains(page, "All 3 are done") {
		t.Errorf("the first of three: %s", page)
	}
	ticked := func() bool {
		kept, err := x.store.Of(t.Context()).Ticks(t.Context(), id)
		if err != nil {
			t.Fatal(err)
		}
		return kept[moves[k].Step.Key] == moves[k].Step.Mark
	}
	if ticked() {
		t.Error("scoring is ticked off after one groove")
	}
	x.post(at, "at", fmt.Sprint(k+1), "go", "all")
	if end := bench.AllOf(moves, k); !ticked() || !strings.Contains(x.words(at), moves[end].Says) {
		t.Error("all of them are not done")
	}
	x.post(at, "at", fmt.Sprint(bench.AllOf(moves, k)), "was", fmt.Sprint(k+1), "go", "undo")
	if ticked() || !strings.Contains(x.words(at), moves[k+1].Says) {
		t.Error("it is not undone")
	}
	x.post(at, "at", fmt.Sprint(k+1), "go", "on", "took", "5")
	x.post(at, "at", fmt.Sprint(k+2), "go", "on", "took", "9000")
	times, err := x.store.Of(t.Context()).Times(t.Context(), id)
	if err != nil || len(times) != 1 || times[0].Kind != "score" || times[0].Seconds != 12 || math.Abs(times[0].Usual-2*moves[k].Seconds) > 1e-9 {
		t.Errorf("kept times: %+v, %v", times, err)
	}
}

// Where the browser hears, and it is asked for, "done" goes on and "back" goes back.
func TestTheBenchByVoice(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	b := openBrowser(t, x)
	b.do(chromedp.EmulateViewport(1280, 800))
	b.visit(fmt.Sprintf("/boxes/%d/bench", id))
	b.value(`(window.SpeechRecognition = class { start() { window.heard = (said) => this.onresult({ results: [[{ transcript: said }]] }); } stop() { window.heard = null; } }, "x")`)
	b.do(chromedp.KeyEvent(" "))
	b.until(`document.querySelector("input[name=at]").value === "1"`)
	now := func() string { return b.value(`document.querySelector("input[name=at]").value`) }
	if b.value(`String(window.heard)`) != "undefined" {
		t.Error("it listens unasked")
	}
	b.until(`!document.querySelector("[data-listen]").closest("label").hidden`)
	b.do(chromedp.Click("[data-listen]"))
	b.until(`typeof window.heard === "function"`)
	for _, said := range []string{"all right, done", "next"} {
		was := now()
		b.value(fmt.Sprintf(`(heard(%q), "x")`, said))
		b.until(fmt.Sprintf(`document.querySelector("input[name=at]").value !== %q`, was))
	}
	b.value(`(heard("and back"), "x")`)
	b.until(`document.querySelector("input[name=at]").value === "2"`)
	b.until(`document.querySelector("[data-listen]").checked`)
}
