package web_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/design"
	"brevium/core/recipe"
	"brevium/web/webtest"
)

// The jar box is made at the bench by the keyboard alone, the page shut half-way and
// opened again; nothing scrolls, every step comes up once, and all are ticked.
func TestAtTheBench(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	r, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	b := openBrowser(t, x)
	b.do(chromedp.EmulateViewport(1280, 800))
	at := fmt.Sprintf("/boxes/%d/bench", id)
	b.visit(at)
	ticks := func() int {
		kept, err := x.Store.Of(t.Context()).Ticks(t.Context(), id)
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
	x := webtest.NewTable(t)
	id := x.JarBox()
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
	b.press("#bench-back")
	b.until(`!document.body.innerText.includes("It is made.")`)
	was := now()
	b.do(chromedp.MouseClickXY(40, 250))
	b.until(fmt.Sprintf(`Number(document.querySelector("input[name=at]").value) < %s`, was))
}

// After any Done, by mouse, by key or by touch, every link of the bench still leads where
// it says, "How did it come out?" too.
func TestTheBenchLetsGo(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
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
		b.press(".move-bar a")
		b.until(`location.pathname.endsWith("/making")`)
	}
	r, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range r.Steps[:len(r.Steps)-1] {
		x.Post(fmt.Sprintf("/boxes/%d/tick", id), "step", s.Key, "mark", s.Mark, "done", "1")
	}
	b.visit(at)
	for b.value(`document.body.innerText.includes("It is made.")`) != "true" {
		was := now()
		b.do(chromedp.KeyEvent(" "))
		b.until(fmt.Sprintf(`document.querySelector("input[name=at]").value !== %q`, was))
	}
	b.press(".move-on a.btn-main")
	b.says("How it came out")
	b.until(`location.pathname.endsWith("/made")`)
}

// Where the browser hears, and it is asked for, "done" goes on and "back" goes back.
func TestTheBenchByVoice(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
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
	b.press("[data-listen]")
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
