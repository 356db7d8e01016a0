package web

import (
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	"brevium/core/design"
	"brevium/core/measure"
)

// A box that is deleted or renamed out of a list that was searched leaves one in it.
func TestTheSearchStays(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	_, body, _ := x.get("/?find=jar&order=name")
	for _, hidden := range []string{`name="find" value="jar"`, `name="order" value="name"`} {
		if strings.Count(body, hidden) < 2 {
			t.Errorf("the forms of the list do not carry %s", hidden)
		}
	}
	plain := func(path string, pairs url.Values) string {
		q := httptest.NewRequest(http.MethodPost, path, strings.NewReader(pairs.Encode()))
		q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r := httptest.NewRecorder()
		x.http.ServeHTTP(r, q)
		return r.Header().Get("Location")
	}
	kept := url.Values{"find": {"jar"}, "order": {"name"}, "name": {"Jar box"}}
	for _, c := range []struct{ path, to string }{{"rename", "/?find=jar&order=name"}, {"delete", fmt.Sprintf("/?deleted=%d&find=jar&order=name", id)}} {
		if got := plain(fmt.Sprintf("/boxes/%d/%s", id, c.path), kept); got != c.to {
			t.Errorf("%s leads to %s", c.path, got)
		}
	}
}

// Nobody is greeted with a fault of what they have not begun.
func TestAnEmptyTableGreets(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	x.get("/styles/table?from=nothing")
	_, body, _ := x.get("/styles/table")
	if strings.Contains(body, "Not yet:") || !strings.Contains(body, "A flat sheet as yet") {
		i := strings.Index(body, "role=\"status\"")
		t.Errorf("an empty table greets with a fault: %.300s", body[i:])
	}
}

// What a phone shows of the cost, and a print of a job, is all there and nothing else.
func TestCostOnAPhoneAndJobOnPaper(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	x.post("/jobs", fmt.Sprintf("copies.%d", id), "2", "name", "Fair")
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
	if seen := b.value(`document.querySelector("main").innerText`); strings.Contains(seen, "takes a box out") || strings.Contains(seen, "Add a box") {
		t.Error("a printed job holds remains of its form")
	}
}

// The caliper types in place of what stands there, and after it only where asked to.
func TestTheCaliperTypesOnce(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	b := openBrowser(t, x)
	b.visit("/help")
	b.do(chromedp.Click("[data-caliper-switch]"))
	b.visit(fmt.Sprintf("/boxes/%d/contents", id))
	b.do(chromedp.Click(".measuring summary"))
	field := `#stop-form input[data-length]`
	const quietly = `sending.size === 0 && !document.querySelector(".htmx-request, .htmx-swapping, .htmx-settling")`
	// What is typed, whatever the page makes of it later.
	b.do(js(`document.addEventListener("input", (event) => { if (event.target.matches("[data-length]")) window.typedLast = event.target.value })`))
	read := func(size string) string {
		b.do(chromedp.Focus(field), js(fmt.Sprintf(`(() => { window.typedLast = ""; const s = document.querySelector("#caliper-size"); s.value = %q; s.dispatchEvent(new Event("input", {bubbles: true})) })()`, size)))
		b.until(quietly)
		b.do(chromedp.Click(".caliper button"))
		b.until(fmt.Sprintf("Math.abs(parseFloat(window.typedLast.split(\";\").pop()) - %s) < 0.5", size))
		out := b.value("window.typedLast")
		b.until(quietly)
		return out
	}
	if read("30"); strings.Contains(read("48"), ";") {
		t.Error("a reading is typed after another")
	}
	b.do(chromedp.Click(".caliper input[type=checkbox]"))
	b.until(`document.querySelector(".caliper input[type=checkbox]").checked`)
	for n, size := range []string{"47", "46"} { // and again after an answer
		if got := read(size); strings.Count(got, ";") != n+1 {
			t.Errorf("the largest of several is not asked for: %q", got)
		}
	}
}

// A box is told in the unit it was made in, wherever it is cut: no sheet, fence or bag has
// a number with a remainder, and no count runs into a size.
func TestJobsTellEachBoxInItsUnit(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	var pairs []string
	for i, unit := range []measure.Unit{measure.In, measure.CM} {
		in := design.New("Box in "+string(unit), unit, "tray-lid")
		id, err := x.store.Of(t.Context()).Add(t.Context(), in)
		if err != nil {
			t.Fatal(err)
		}
		pairs = append(pairs, fmt.Sprintf("copies.%d", id), fmt.Sprint(3+i))
	}
	x.post("/jobs", append(pairs, "name", "Both")...)
	remainder := regexp.MustCompile(`(in|cm) [+−] [\d.]+ mm|\d+ × \d+ × \d`)
	for _, path := range []string{"/jobs/1", "/jobs/1/kits"} {
		code, page, _ := x.get(path)
		if m := remainder.FindString(page); code != 200 || m != "" {
			t.Errorf("%s: %d, tells %q", path, code, m)
		}
		if !strings.Contains(page, " cm") || !strings.Contains(page, " in") {
			t.Errorf("%s does not tell each box in its unit", path)
		}
	}
}

// What is looked for longer than half a second is said to be, until it is there.
func TestALongLookIsSaid(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	slow := make(chan struct{})
	b := openBrowser(t, &table{t, x.store, http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.URL.Query().Get("fix.height") != "" {
			<-slow
		}
		x.http.ServeHTTP(w, r)
	})})
	b.visit("/new?start=sheet")
	b.until(`document.querySelector("[data-looking]").textContent === ""`)
	b.set(`[name="fix.height"]`, "2")
	b.says("Looking for the biggest box")
	close(slow)
	b.until(`document.querySelector("[data-looking]").textContent === ""`)
}
