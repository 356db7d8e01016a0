package web_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
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

// spot is where a place of a drawing, in its own millimetres, lies in the window.
func (b *browser) spot(drawing string, x, y float64) (px, py float64) {
	b.t.Helper()
	text := b.value(fmt.Sprintf(`(() => { const d = document.querySelector(%q); d.scrollIntoView({block: "center"}); const p = new DOMPoint(%g, %g).matrixTransform(d.getScreenCTM()); return p.x + " " + p.y; })()`, drawing, x, y))
	if _, err := fmt.Sscan(text, &px, &py); err != nil {
		b.t.Fatalf("%s: %v", text, err)
	}
	return px, py
}

// drag takes what lies at a place of a drawing to another.
func (b *browser) drag(drawing string, x1, y1, x2, y2 float64) {
	b.t.Helper()
	ax, ay := b.spot(drawing, x1, y1)
	bx, by := b.spot(drawing, x2, y2)
	for _, e := range []struct {
		kind input.DispatchMouseEventType
		x, y float64
	}{{input.DispatchMouseEventTypeMousePressed, ax, ay}, {input.DispatchMouseEventTypeMouseMoved, (ax + bx) / 2, (ay + by) / 2}, {input.DispatchMouseEventTypeMouseMoved, bx, by}, {input.DispatchMouseEventTypeMouseReleased, bx, by}} {
		b.do(chromedp.MouseEvent(e.kind, e.x, e.y, chromedp.ButtonLeft, chromedp.ClickCount(1)))
	}
}

// An offcut is drawn by pressing its corners, one is dragged, one comes between two others, the last is taken
// back; what is typed is drawn, and all of it lies in the drawer as it was drawn.
func TestAnOffcutIsDrawnByHand(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	b := openBrowser(t, x)
	b.visit("/drawer/shape")
	const board = "#shape-board"
	corners := `document.querySelectorAll("#shape-corners circle").length`
	for i, p := range [][2]float64{{25.4, 25.4}, {152.4, 25.4}, {152.4, 76.2}, {25.4, 127}, {200, 200}} {
		b.do(chromedp.MouseClickXY(b.spot(board, p[0], p[1])))
		b.until(fmt.Sprintf("%s == %d", corners, i+1))
	}
	b.press("#shape-back")
	b.until(corners + ` == 4 && document.getElementById("f-shape").value == "1, 1; 6, 1; 6, 3; 1, 5" && document.getElementById("shape-size").textContent == "5 × 4 in over all"`)
	b.drag(board, 152.4, 76.2, 152.4, 101.6)
	b.do(chromedp.MouseClickXY(b.spot(board, 25.4, 76.2))) // on the left edge: between the last and the first
	b.drag(board, 25.4, 76.2, 50.8, 76.2)
	b.until(`document.getElementById("f-shape").value == "1, 1; 6, 1; 6, 4; 1, 5; 2, 3"`)
	b.set("#f-shape", "1, 1; 6, 1; 6, 4; 1, 5; 2 1/2, 3")
	b.until(`document.querySelectorAll("#shape-corners circle")[4].getAttribute("cx") == "63.5"`)
	b.set("#f-card", "Oat card")
	b.press(`main form[action="/drawer/shape"] .btn-main`)
	b.says("The paper is in the drawer")
	lots, err := x.Store.Of(t.Context()).Lots(t.Context())
	if err != nil || len(lots) != 1 || lots[0].Shape != "0,0 127,0 127,76.2 0,101.6 38.1,50.8" {
		t.Errorf("%+v, %v", lots, err)
	}
}

// A job that is cut with scissors looks for fewer sheets by itself as soon as that is chosen, and a piece that
// is dragged there comes to touch.
func TestAJobLooksForFewerSheets(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in, err := design.Read([]byte(`{"brevium":1,"units":"in","style":"tray-lid","name":"Trays","size":{"length":"3 in","width":"3 in","height":"2 in"}}`))
	if err == nil {
		_, err = x.Store.Of(t.Context()).Add(t.Context(), in)
	}
	if err != nil {
		t.Fatal(err)
	}
	x.Post("/jobs", "copies.1", "6")
	b := openBrowser(t, x)
	b.visit("/jobs/1")
	b.until(`document.querySelector(".worked-out").innerText.startsWith("8 sheets")`)
	b.choose("#f-with", "scissors")
	const found = `document.querySelector(".search [role=status]").textContent.includes("best found")`
	b.until(found + ` && document.querySelectorAll(".where-cut li").length == 12`)
	for range 6 { // on a busy machine five seconds may not do
		if b.value(`parseInt(document.querySelector(".worked-out").innerText) < 8`) == "true" {
			break
		}
		b.press(`.search .btn-main`)
		b.until(`!(` + found + `)`)
		b.until(found)
	}
	b.until(`parseInt(document.querySelector(".worked-out").innerText) < 8 && document.querySelectorAll(".where-cut li").length == 12`)
	// The first piece of the first sheet is dragged to 2 mm from its corner.
	var px, py float64
	mid := b.value(`(() => { const p = document.querySelector("#job-sheets [data-key]").getBBox(); return (p.x + p.width / 2) + " " + (p.y + p.height / 2) + " " + p.x + " " + p.y; })()`)
	var left, top float64
	if _, err := fmt.Sscan(mid, &px, &py, &left, &top); err != nil {
		t.Fatal(err)
	}
	b.drag("#job-sheets svg", px, py, px-left+2, py-top+2)
	b.until(`document.querySelector("#job-sheets .kept")`)
	if held := x.Job(1).Choices.Held; len(held) != 1 || held[0].Pieces[0].X != 0 || held[0].Pieces[0].Y != 0 {
		t.Errorf("%+v", held)
	}
}
