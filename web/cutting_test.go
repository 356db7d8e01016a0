package web_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/design"
	"brevium/web/webtest"
)

// A box is cut stroke by stroke: played, stopped, a stroke at a time by buttons and keys; its pieces
// lift when they are free.
func TestTheCuttingMatPlays(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	b := openBrowser(t, x)
	b.visit("/boxes/1/making")
	b.until(`document.querySelector('.files a[href$="/cutting"]')`)
	b.do(js(`document.querySelector(".files").open = true`))
	b.press(`.files a[href$="/cutting"]`)
	b.says("came off in")
	b.until(`document.getElementById("cutting-now").textContent.startsWith("All ")`)
	lifted := `document.querySelectorAll(".off .lifted").length`
	if b.value(lifted+` > 0 && `+lifted+` == document.querySelectorAll(".off path").length`) != "true" {
		t.Error("not all pieces lie free when all is cut")
	}
	b.press(`#cutting-back`)
	b.until(`document.getElementById("cutting-now").textContent.includes("Stroke ")`)
	b.do(js(`document.getElementById("cutting-at").value = 0; document.getElementById("cutting-at").dispatchEvent(new Event("input", {bubbles: true}))`))
	b.until(`document.getElementById("cutting-now").textContent.startsWith("Setting up") && ` + lifted + ` == 0 && document.querySelectorAll(".stroke.to-come").length == document.querySelectorAll(".stroke").length`)
	b.do(chromedp.Focus(`#main`), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight))
	b.until(`document.getElementById("cutting-now").textContent.startsWith("Stroke 2 of")`)
	b.do(js(`document.getElementById("cutting-speed").value = 60`), chromedp.KeyEvent(" "))
	b.until(`document.getElementById("cutting-run").textContent == "Stop"`)
	b.until(`document.getElementById("cutting-now").textContent.startsWith("All ") && document.getElementById("cutting-run").textContent == "Play"`)
	b.press(`.choices a[href*="mat=a4"]`)
	b.says("It was not cut:")
}

// What scissors save is said on the page of the sheets once it is there, and is followed to the sheets
// and their files.
func TestLaidByShapeOnThePages(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in, err := design.Read([]byte(`{"brevium":1,"units":"in","style":"tray-lid","copies":6,"name":"Trays","size":{"length":"3 in","width":"3 in","height":"2 in"}}`))
	if err == nil {
		_, err = x.Store.Of(t.Context()).Add(t.Context(), in)
	}
	if err != nil {
		t.Fatal(err)
	}
	b := openBrowser(t, x)
	b.visit("/boxes/1/sheets")
	b.says("instead of 8. See them laid by shape")
	b.press(`.shapes a`)
	b.says("came off in")
	b.until(`document.querySelector(".cutting-key b").innerText.includes("laid by shape") && document.querySelectorAll('nav[aria-label="Sheets"] a').length < 8`)
	files := b.value(`document.querySelector('.files a[href*="hpgl"]').getAttribute("href")`)
	if code, body, _ := x.Get(files); code != http.StatusOK || !strings.Contains(files, "laid=shape") || !strings.Contains(body, "sheet-6.plt") || strings.Contains(body, "sheet-8.plt") {
		t.Errorf("%s: %d", files, code)
	}
	b.press(`nav[aria-label="Mats"] a[href*="mat=12x24"]`)
	b.until(`location.search.includes("laid=shape") && document.querySelector('nav[aria-label="Mats"] [aria-current]').innerText == "12 × 24 in"`)
	b.press(`.units button[value=cm]`)
	b.until(`location.search.includes("laid=shape") && document.querySelector(".units [aria-pressed=true]").value == "cm"`)
	// A job too is laid by shape, and its files are given.
	if code, _, header := x.Post("/jobs", "copies.1", "6"); code >= 400 || header.Get("Location") == "" && header.Get("HX-Redirect") == "" {
		t.Fatalf("no job: %d", code)
	}
	b.visit("/jobs/1/cutting?laid=shape")
	b.says("came off in")
	b.until(`document.querySelector(".shapes").innerText.includes("instead of 8")`)
	files = b.value(`document.querySelector('.files a[href*="svg"]').getAttribute("href")`)
	if code, body, _ := x.Get(files); code != http.StatusOK || !strings.Contains(body, "sheet-6.svg") || strings.Contains(body, "sheet-8.svg") {
		t.Errorf("%s: %d", files, code)
	}
	if code, _, _ := x.Get("/jobs/1/cut-files?to=stl"); code != http.StatusNotFound {
		t.Errorf("a job as a solid: %d", code)
	}
}

// Each sheet of each mat is shown or refused with what would do; what is asked for and not there is
// answered with the first.
func TestTheCuttingPages(t *testing.T) {
	t.Parallel()
	x, _ := full(t)
	for at, want := range map[string]string{
		"/boxes/1/cutting":                  "came off in",
		"/boxes/1/cutting?mat=a4":           "would do",
		"/boxes/1/cutting?mat=none&sheet=x": "came off in",
		"/boxes/1/cutting?sheet=99":         "came off in",
		"/jobs/1/cutting":                   "came off in",
		"/boxes/1/cutting?laid=shape":       "came off in",
	} {
		code, body, _ := x.Get(at)
		if !strings.Contains(body, want) || code != http.StatusOK {
			t.Errorf("%s: %d, without %q", at, code, want)
		}
	}
	for _, to := range []string{"svg", "dxf", "hpgl", "hpgl&blade=1"} {
		if code, _, head := x.Get(fmt.Sprintf("/boxes/1/export?to=%s&packed=1", to)); code != http.StatusOK || head.Get("Content-Disposition") == "" {
			t.Errorf("%s: %d, %v", to, code, head)
		}
	}
}
