package web_test

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	"brevium/web/webtest"
)

// What a phone shows of the cost, and a print of a job, is all there and nothing else.
func TestCostOnAPhoneAndJobOnPaper(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/jobs", fmt.Sprintf("copies.%d", id), "2", "name", "Fair")
	b := openBrowser(t, x)
	b.do(chromedp.EmulateViewport(390, 844))
	b.visit(fmt.Sprintf("/boxes/%d/cost", id))
	if out := b.value(`[...document.querySelectorAll(".cost-table td")].filter(c => c.getBoundingClientRect().right > innerWidth).length`); out != "0" {
		t.Errorf("%s cells of the cost are out of sight", out)
	}
	b.do(chromedp.EmulateViewport(1280, 800))
	b.visit("/jobs/1")
	b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Media: "print"})
		return err
	}))
	if seen := b.value(`document.querySelector("main").innerText`); strings.Contains(seen, "Remove") || strings.Contains(seen, "Add a box") {
		t.Error("a printed job holds remains of its form")
	}
}

// The caliper types in place of what stands there, and after it only where asked to.
func TestTheCaliperTypesOnce(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	b := openBrowser(t, x)
	b.visit("/help")
	b.press("[data-caliper-switch]")
	b.visit(fmt.Sprintf("/boxes/%d/contents", id))
	b.press(".measuring summary")
	field := `#stop-form input[data-length]`
	// What is typed, whatever the page makes of it later.
	b.do(js(`document.addEventListener("input", (event) => { if (event.target.matches("[data-length]")) window.typedLast = event.target.value })`))
	read := func(size string) string {
		b.still()
		b.do(chromedp.Focus(field), js(fmt.Sprintf(`(() => { window.typedLast = ""; const s = document.querySelector("#caliper-size"); s.value = %q; s.dispatchEvent(new Event("input", {bubbles: true})) })()`, size)))
		b.press(".caliper button")
		b.until(fmt.Sprintf("Math.abs(parseFloat(window.typedLast.split(\";\").pop()) - %s) < 0.5", size))
		return b.value("window.typedLast")
	}
	if read("30"); strings.Contains(read("48"), ";") {
		t.Error("a reading is typed after another")
	}
	b.press(".caliper input[type=checkbox]")
	b.until(`document.querySelector(".caliper input[type=checkbox]").checked`)
	for n, size := range []string{"47", "46"} { // and again after an answer
		if got := read(size); strings.Count(got, ";") != n+1 {
			t.Errorf("the largest of several is not asked for: %q", got)
		}
	}
}

// What is looked for longer than half a second is said to be, until it is there.
func TestALongLookIsSaid(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	slow := make(chan struct{})
	b := openBrowser(t, &webtest.Table{T: t, Store: x.Store, HTTP: http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.URL.Query().Get("fix.height") != "" {
			<-slow
		}
		x.HTTP.ServeHTTP(w, r)
	})})
	b.visit("/new?start=sheet")
	b.until(`document.querySelector("[data-looking]").textContent === ""`)
	b.set(`[name="fix.height"]`, "2")
	b.says("Looking for the biggest box")
	close(slow)
	b.until(`document.querySelector("[data-looking]").textContent === ""`)
}
