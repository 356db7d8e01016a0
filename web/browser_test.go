package web_test

import (
	"context"
	"errors"
	"fmt"
	"net/http/httptest"
	"os"
	"os/exec"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/design"
	"brevium/web/webtest"
)

// browser drives the real pages in Debian's headless Chromium.
type browser struct {
	t   *testing.T
	at  string
	ctx context.Context
}

// chrome is the one Chromium of a run: it starts with the first test that asks, and each
// test has a profile of its own in it. A crowded machine may fail to bring it up: it is
// tried again.
var chrome = sync.OnceValues(func() (context.Context, error) {
	path, err := exec.LookPath("chromium-headless-shell")
	if err != nil {
		path, err = exec.LookPath("chromium")
	}
	if err != nil {
		return nil, errors.New("chromium is not installed; run make test, which installs it")
	}
	flags := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(path), chromedp.NoSandbox, chromedp.DisableGPU, chromedp.NoFirstRun, chromedp.WindowSize(1280, 800),
		chromedp.Flag("disable-background-networking", true), chromedp.Flag("disable-renderer-backgrounding", true),
		chromedp.Flag("disable-background-timer-throttling", true), chromedp.Flag("disable-backgrounding-occluded-windows", true),
		chromedp.Flag("use-angle", "swiftshader"), chromedp.Flag("enable-unsafe-swiftshader", true), chromedp.Flag("disable-features", "Translate,BlinkGenPropertyTrees,SpareRendererForSitePerProcess,PaintHolding"))
	for try := 1; ; try++ {
		all, end := chromedp.NewExecAllocator(context.Background(), flags...)
		ctx, stop := chromedp.NewContext(all)
		err := chromedp.Do(ctx)
		if err == nil {
			endChrome = func() { stop(); end() }
			return ctx, nil
		}
		stop()
		end()
		if try == 3 {
			return nil, err
		}
	}
})

// endChrome ends the browser, where one was started.
var endChrome = func() {}

func TestMain(m *testing.M) {
	os.Exit(webtest.Main(m, func() error {
		endChrome()
		return os.RemoveAll(filled.folder)
	}))
}

func openBrowser(t *testing.T, x *webtest.Table) *browser {
	t.Helper()
	server := httptest.NewServer(x.HTTP)
	t.Cleanup(server.Close)
	one, err := chrome()
	if err != nil {
		t.Fatal(err)
	}
	ctx, stop := chromedp.NewContext(one, chromedp.WithNewBrowserContext(), chromedp.WithNewWindow(true))
	t.Cleanup(stop)
	if err := chromedp.Do(ctx, chromedp.EmulateViewport(1280, 800)); err != nil {
		t.Fatal(err)
	}
	if _, err := chromedp.Call(ctx, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true}); err != nil {
		t.Fatal(err)
	}
	b := &browser{t, server.URL, ctx}
	b.watch()
	return b
}

func (b *browser) do(steps ...chromedp.Action[chromedp.Void]) {
	b.t.Helper()
	ctx, stop := context.WithTimeout(b.ctx, webtest.Patience)
	defer stop()
	if err := chromedp.Do(ctx, steps...); err != nil {
		b.t.Fatalf("at %s: %v", b.where(), err)
	}
}

func (b *browser) where() string {
	ctx, stop := context.WithTimeout(b.ctx, webtest.Patience)
	defer stop()
	at, err := chromedp.Run(ctx, chromedp.Location())
	if err != nil {
		return err.Error()
	}
	return strings.TrimPrefix(at, b.at)
}

// visit goes to a page; where the last page was still on its way, which ends the first try or
// loses its end, it goes again.
func (b *browser) visit(path string) {
	b.t.Helper()
	const tries = 3
	for try := 1; ; try++ {
		ctx, stop := context.WithTimeout(b.ctx, webtest.Patience/tries)
		err := chromedp.Do(ctx, chromedp.Navigate(b.at+path))
		stop()
		if err == nil {
			return
		}
		if try == tries {
			b.t.Fatalf("at %s: %v", b.where(), err)
		}
	}
}

// until waits for a JavaScript condition; it may come true on the page after
// a navigation, so a page that is just going away is no error.
func (b *browser) until(condition string) {
	b.t.Helper()
	ctx, stop := context.WithTimeout(b.ctx, webtest.Patience)
	defer stop()
	for pause := 15 * time.Millisecond; ; pause = min(pause*3/2, 100*time.Millisecond) {
		ok, err := chromedp.Run(ctx, chromedp.Evaluate[bool](`document.readyState != "loading" && !!(`+condition+")"))
		if ok && err == nil {
			return
		}
		select {
		case <-ctx.Done():
			b.t.Fatalf("at %s, still not: %s (%v)", b.where(), condition, err)
		case <-time.After(pause):
		}
	}
}

// js runs a script for its effect.
func js(script string) chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](script)
}

// unheard keeps the pages that come from hearing what others change, as where the line is
// broken: they learn of it when they send something.
func (b *browser) unheard() {
	b.t.Helper()
	b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: "delete window.EventSource"})
		return err
	}))
}

// says waits until the page's text holds the words.
func (b *browser) says(words string) {
	b.t.Helper()
	b.until(fmt.Sprintf("document.body.innerText.includes(%q)", words))
}

// set types a value into a field in place of what is there, and leaves it.
func (b *browser) set(selector, value string) {
	b.t.Helper()
	// Where the page was just brought up to date under the hand, it types again.
	for try := 1; ; try++ {
		b.still()
		b.do(chromedp.Focus(selector), js(fmt.Sprintf("document.querySelector(%q).select()", selector)), chromedp.SendKeys(selector, value))
		if b.value(fmt.Sprintf("document.querySelector(%q)?.value", selector)) == value || try == 5 {
			break
		}
	}
	b.do(chromedp.KeyEvent(kb.Tab))
}

// choose picks a value of a select.
func (b *browser) choose(selector, value string) {
	b.t.Helper()
	b.do(chromedp.WaitReady(selector), js(fmt.Sprintf(
		`(() => { const s = document.querySelector(%q); s.value = %q; s.dispatchEvent(new Event("change", {bubbles: true})); })()`,
		selector,
		value,
	)))
}

// follow clicks a link. A page that is just being brought up to date can lose
// a click between press and release; a hand would click again.
func (b *browser) follow(path string) {
	b.t.Helper()
	for range 5 {
		b.press(fmt.Sprintf(`a[href$=%q]`, path))
		for range 50 {
			if strings.HasSuffix(b.where(), path) {
				b.until(`document.readyState == "complete"`)
				return
			}
			time.Sleep(50 * time.Millisecond)
		}
	}
	b.t.Fatalf("at %s: the link to %s leads nowhere", b.where(), path)
}

// value reads an expression; where the page was just on its way to another, from that one.
func (b *browser) value(expression string) string {
	b.t.Helper()
	ctx, stop := context.WithTimeout(b.ctx, webtest.Patience)
	defer stop()
	for {
		out, err := chromedp.Run(ctx, chromedp.Evaluate[string]("String("+expression+")"))
		if err == nil {
			return out
		}
		if !strings.Contains(err.Error(), "navigated") {
			b.t.Fatalf("at %s: %v", b.where(), err)
		}
		time.Sleep(20 * time.Millisecond)
	}
}

// From nothing to the printed sheet, as a newcomer does it.
func TestTheJarBoxInABrowser(t *testing.T) {
	t.Parallel()
	b := openBrowser(t, webtest.NewTable(t))
	b.visit("/")
	b.says("No boxes yet")
	b.press(`#way-things`)
	b.says("measure its widest places")
	b.set(`[name="contents[0].name"]`, "Jar")
	b.set(`[name="contents[0].length"]`, "48 mm")
	b.set(`[name="contents[0].height"]`, "62 mm")
	b.set(`[name="contents[0].count"]`, "4")
	b.press(`#begin`)
	b.says("How they stand")
	b.until(`document.querySelectorAll(".one circle").length == 4`)
	b.follow("/box")
	b.press(`input[value="tray"]`)
	b.until(`document.querySelector(".tape .here .answer").innerText == "Open tray"`)
	b.press(`input[value="tray-lid"]`)
	b.until(`document.querySelectorAll(".nets figure").length == 3`)
	b.follow("/fit")
	b.press(`input[name=allowance][value=typed]`)
	b.set(`[name="options.lid.allowance"]`, "1/16")
	b.until(`document.querySelector(".tape .here .answer").innerText == "snug"`)
	b.follow("/dressing")
	b.press(`[name="mats.add"][value=base]`)
	b.until(`document.querySelectorAll(".tape a")[2].innerText.includes("tight")`)
	b.says("8 papers")
	b.follow("/fit")
	b.says("over these papers it is tight")
	b.press(`input[name=allowance][value=solve]`)
	b.until(`!document.querySelector(".tape .here .fail") && document.querySelector(".worked-out")?.innerText.includes("1/8")`)
	b.follow("/sheets")
	b.until(`document.querySelectorAll(".sheets figure").length >= 3 && document.querySelector(".sheets circle.cut-number")`)
	b.follow("/making")
	b.says("each of the four edges in turn on the fence")
	b.press(`#step-1`)
	b.says("1 of ")
	// The sheet is fetched by the page's own link, as the browser would print it.
	got := b.value(`document.querySelector('a[href*="sheet.pdf?paper=Letter"]').href`)
	b.do(
		js(fmt.Sprintf(`fetch(%q).then(r => r.arrayBuffer()).then(a => { window.pdf = new TextDecoder().decode(a.slice(0, 5)) }); 0`, got)),
	)
	b.until(`window.pdf == "%PDF-"`)
	// Come back tomorrow: it is all there.
	b.visit("/")
	b.says("Box for 4 × Jar")
	b.visit("/boxes/1/making")
	b.until(`document.querySelector("#step-1").checked`)
}

func TestUnitsInABrowser(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	b := openBrowser(t, x)
	b.visit("/boxes/1/making")
	b.until(`document.querySelector(".score-numbers b").innerText == "2 9/16"`)
	b.press(`.units button[value=cm]`)
	b.until(`document.querySelector(".score-numbers b").innerText == "6.51"`) // the same groove
	b.do(chromedp.Reload())
	b.until(
		`document.querySelector(".units button[aria-pressed=true]").value == "cm" && document.querySelector(".score-numbers b").innerText == "6.51"`,
	)
}

// A broken value is said at its field while the drawing stays; mending it
// moves on; the page around a field being typed in changes without taking
// the field away.
func TestBreakAndMendInABrowser(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	b := openBrowser(t, x)
	b.visit("/boxes/1/box")
	depth := `[name="options.lid.depth"]`
	b.set(depth, "3//4")
	b.says("Not yet:")
	if got := b.value(
		`document.querySelector('` + depth + `').value + " " + document.querySelectorAll(".nets svg").length`,
	); got != "3//4 3" {
		t.Errorf("after a broken value: %s; want it kept, and three drawings", got)
	}
	b.press(`#back-f-options-lid-depth`)
	b.until(`document.querySelector('` + depth + `').value == "1" && !document.querySelector(".refusal")`)
	b.do(chromedp.Focus(depth), js(`document.querySelector('`+depth+`').select()`), chromedp.SendKeys(depth, "1 1/4"))
	// No blur, no Enter: it updates as it is typed, and keeps the focus.
	b.until(`[...document.querySelectorAll(".nets text")].some(e => e.textContent == "1 1/4")`)
	if got := b.value(`document.activeElement.name + "=" + document.activeElement.value`); got != "options.lid.depth=1 1/4" {
		t.Errorf("while typing, the focus is at %s", got)
	}
	b.do(chromedp.SendKeys(depth, kb.ArrowUp))
	b.until(`[...document.querySelectorAll(".nets text")].some(e => e.textContent == "1 5/16")`)
	// Typed in one go the two are one change; on a slow machine they are two.
	b.press("#undo")
	b.until(`["1", "1 1/4"].includes(document.querySelector('` + depth + `').value)`)
	if b.value(`document.querySelector('`+depth+`').value`) != "1" {
		b.press("#undo")
	}
	b.until(`document.querySelector('` + depth + `').value == "1"`)
}

func TestKeyboardOnly(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	b := openBrowser(t, x)
	b.visit("/boxes/1/contents")
	press := func(keys string) { b.t.Helper(); b.do(chromedp.KeyEvent(keys)) }
	press("3")
	b.until(`location.pathname == "/boxes/1/fit"`)
	b.until(`document.readyState == "complete" && window.Alpine`)
	press("]")
	b.until(`location.pathname == "/boxes/1/dressing" && document.readyState == "complete"`)
	press("[")
	b.until(`location.pathname == "/boxes/1/fit" && document.readyState == "complete"`)
	press("?")
	b.until(`document.querySelector("#help").open && document.querySelectorAll("#help .craft-words li").length == 20`)
	press(kb.Escape)
	b.until(`!document.querySelector("#help").open`)
	// Tab to the ticket's first choice and change it with the arrow keys.
	for range 40 {
		press(kb.Tab)
		if b.value(`document.activeElement.name || ""`) == "fit" {
			break
		}
	}
	press(kb.ArrowDown)
	b.until(`document.querySelector("[name=fit]").value == "easy" && document.querySelector("#undo").innerText.includes("fit wanted")`)
	// In a field a digit is a digit.
	b.visit("/boxes/1/contents")
	b.do(chromedp.Focus(`[name="contents[0].count"]`))
	press("6")
	b.until(`location.pathname == "/boxes/1/contents" && document.querySelector('[name="contents[0].count"]').value.includes("6")`)
}

// The picture in space really changes between stages, and turns by keyboard.
func TestFoldingInABrowser(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	b := openBrowser(t, x)
	b.visit("/boxes/1/box")
	b.press(`a[href$="/fold"]`)
	b.until(`document.getElementById("space")?.dataset.ready == "yes"`)
	frame := func() string {
		b.t.Helper()
		b.do(js(`new Promise(r => requestAnimationFrame(() => requestAnimationFrame(r))); 0`))
		return b.value(
			`(() => { const c = document.getElementById("space-canvas"); const s = document.createElement("canvas"); s.width = s.height = 64;
			const g = s.getContext("2d"); g.drawImage(c, 0, 0, 64, 64); return [...g.getImageData(0, 0, 64, 64).data].join() })()`,
		)
	}
	slide := func(at int) {
		b.do(
			js(
				fmt.Sprintf(
					`(() => { const s = document.getElementById("fold-at"); s.value = %d; s.dispatchEvent(new Event("input")) })()`,
					at,
				),
			),
		)
		b.do(js(`window.drawn = false; requestAnimationFrame(() => requestAnimationFrame(() => { window.drawn = true })); 0`))
		b.until("window.drawn")
	}
	seen := map[string]int{}
	for _, at := range []int{0, 40, 100} {
		slide(at)
		picture := frame()
		if strings.Count(picture, "0,0,0,0") == len(picture)/8 {
			t.Errorf("at %d %% nothing is drawn", at)
		}
		if before, same := seen[picture]; same {
			t.Errorf("the picture is the same at %d %% and %d %%", before, at)
		}
		seen[picture] = at
	}
	b.do(chromedp.Focus("#space-canvas"), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight))
	slide(100)
	if _, same := seen[frame()]; same {
		t.Error("the arrow keys do not turn the box")
	}
	b.until(`document.querySelectorAll(".stages svg").length >= 3`)
}

// The file for a cutting machine is seen by another program as it is meant:
// every score on top and as long as in the pattern, the outline as long.
func TestAMachineFileInABrowser(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	b := openBrowser(t, x)
	r, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	for _, part := range r.Parts {
		var scores, outline float64
		for _, c := range part.Pattern.Creases {
			scores += c.B.Sub(c.A).Len()
		}
		flat := part.Pattern.Outline.Flat()
		for i, p := range flat {
			outline += flat[(i+1)%len(flat)].Sub(p).Len()
		}
		b.visit("/boxes/1/pieces/" + part.ID + ".svg")
		length := func(layer string) string {
			return b.value(`[...document.querySelectorAll("#` + layer + ` path")].reduce((sum, p) => sum + p.getTotalLength(), 0).toFixed(1)`)
		}
		if got := length("score"); got != fmt.Sprintf("%.1f", scores) {
			t.Errorf("%s: scores of %s mm; want %.1f", part.ID, got, scores)
		}
		if got := length("cut"); got != fmt.Sprintf("%.1f", outline) {
			t.Errorf("%s: cuts of %s mm; want %.1f", part.ID, got, outline)
		}
		b.do(js(`document.documentElement.setAttribute("height", "500px")`)) // all of it on the screen
		hidden := b.value(`[...document.querySelectorAll("#score path")].filter(p => {
			const at = p.getPointAtLength(p.getTotalLength() / 2).matrixTransform(p.getScreenCTM());
			return document.elementsFromPoint(at.x, at.y)[0] !== p;
		}).length + ""`)
		if hidden != "0" {
			t.Errorf("%s: %s scores are hidden", part.ID, hidden)
		}
	}
}
