package web_test

import (
	"bytes"
	"compress/gzip"
	"encoding/json"
	"maps"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"brevium/core/sample"
	"brevium/web/webtest"
)

// What a page may weigh and how far down anything of it may be.
const (
	mostOfAPage    = 120_000 // bytes, packed
	mostToSeeFirst = 60_000  // of the first page and its styles, packed
	screens        = 3       // of 800 px
	mostShift      = 0.01    // of the window, as browsers count it
	mostTabs       = 6
)

// weighs measures a page as it stands: how far down its last thing begins, what moved when it came,
// and how many Tabs it is from where the focus is to the first thing of its work.
const weighs = `(() => {
	const main = document.querySelector("main");
	const scrolls = (e) => { for (let at = e.parentElement; at && at !== main; at = at.parentElement) if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return true; return false; };
	const down = [...main.querySelectorAll("*")].filter((e) => e.checkVisibility() && !scrolls(e)).map((e) => e.getBoundingClientRect().top + scrollY);
	let shift = 0;
	const moved = new PerformanceObserver(() => {});
	moved.observe({type: "layout-shift", buffered: true});
	const what = [];
	for (const e of moved.takeRecords()) {
		shift += e.value;
		for (const s of e.sources) what.push((s.node?.tagName ?? s.node?.nodeName) + "." + (s.node?.className ?? "") + " " + Math.round(s.previousRect.top) + "+" + Math.round(s.previousRect.height) + " to " + Math.round(s.currentRect.top) + "+" + Math.round(s.currentRect.height));
	}
	const groups = new Set(), reached = [];
	for (const e of main.querySelectorAll("a[href], button, input, select, textarea, summary, [tabindex]")) {
		if (e.tabIndex < 0 || e.disabled || e.type === "hidden" || !e.checkVisibility({visibilityProperty: true})) continue;
		if (e.type === "radio" && (groups.has(e.name) || !groups.add(e.name))) continue;
		reached.push(e);
	}
	const work = reached.findIndex((e) => e.matches("input, select, textarea, button, .btn-main"));
	const packed = (all) => all.reduce((sum, e) => sum + e.encodedBodySize, 0);
	return JSON.stringify({Title: document.querySelector("h1")?.innerText ?? "", Down: Math.max(...down), Shift: shift, What: what.join("; "), Tabs: document.activeElement === main ? work + 1 : 0,
		Styles: packed(performance.getEntriesByType("resource").filter((e) => /\.css/.test(e.name) && !/print\.css/.test(e.name)))});
})()`

// Pages are light and short, nothing moves when they have come, and from where the keyboard is it is
// not far to the work: half of the pages each time.
func TestPagesAreLightAndShort(t *testing.T) {
	t.Parallel()
	x, pages := full(t)
	b := openBrowser(t, x)
	slow := httptest.NewServer(inPieces(x.HTTP))
	t.Cleanup(slow.Close)
	b.at = slow.URL
	for n, page := range pages {
		if !sample.Other(n, 1) {
			continue
		}
		heavy := packed(t, x, page)
		if heavy > mostOfAPage {
			t.Errorf("%s weighs %d bytes packed", page, heavy)
		}
		b.visit(page)
		b.until(`document.readyState == "complete" && !document.querySelector(".htmx-request, #space:not([data-ready])")`)
		var w struct {
			Title, What  string
			Down, Shift  float64
			Tabs, Styles int
		}
		if err := json.Unmarshal([]byte(b.value(weighs)), &w); err != nil {
			t.Fatal(err)
		}
		if w.Down > screens*800 {
			t.Errorf("%s goes down to %.0f px", page, w.Down)
		}
		if w.Shift > mostShift {
			t.Errorf("%s moves by %.3f of the window when it has come: %s", page, w.Shift, w.What)
		}
		if strings.HasSuffix(w.Title, "?") {
			t.Errorf("%s asks %q in the place of a title", page, w.Title)
		}
		if w.Tabs > mostTabs {
			t.Errorf("%s: %d Tabs to its work", page, w.Tabs)
		}
		if page == "/" && heavy+w.Styles > mostToSeeFirst {
			t.Errorf("to see the first page takes %d and %d bytes", heavy, w.Styles)
		}
	}
}

// inPieces answers as a slow wire does, a page in eight pieces, so that what is drawn before a page is
// whole is seen to stay where it is: columns that are only known when the last of them has come move.
func inPieces(next http.Handler) http.Handler {
	const pieces, apart = 8, 25 * time.Millisecond
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Header.Get("Sec-Fetch-Dest") != "document" {
			next.ServeHTTP(w, r)
			return
		}
		whole := httptest.NewRecorder()
		next.ServeHTTP(whole, r)
		maps.Copy(w.Header(), whole.Header())
		w.WriteHeader(whole.Code)
		for piece := range slices.Chunk(whole.Body.Bytes(), whole.Body.Len()/pieces+1) {
			if _, err := w.Write(piece); err != nil {
				return
			}
			w.(http.Flusher).Flush()
			time.Sleep(apart)
		}
	})
}

// packed is how many bytes a page takes, packed.
func packed(t *testing.T, x *webtest.Table, page string) int {
	t.Helper()
	code, body, _ := x.Get(page)
	if code != http.StatusOK && page != "/nowhere" {
		t.Errorf("%s: %d", page, code)
	}
	var small bytes.Buffer
	z := gzip.NewWriter(&small)
	if _, err := z.Write([]byte(body)); err != nil || z.Close() != nil || !strings.Contains(body, "<html") {
		t.Fatalf("%s cannot be packed, or is no page: %v", page, err)
	}
	return small.Len()
}

// A page to send is given to what the system sends with, where the browser can, and is else saved.
func TestAPageIsShared(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	b := openBrowser(t, x)
	b.visit("/boxes/1/making")
	const button = `document.querySelector("[data-share]")`
	b.do(js(`Object.defineProperty(navigator, "canShare", {configurable: true, value: undefined}); document.dispatchEvent(new Event("htmx:afterSettle"))`))
	if b.value(button+`.hidden`) != "true" {
		t.Error("it is offered by a browser that cannot share")
	}
	b.do(js(`window.given = null;
		Object.defineProperty(navigator, "canShare", {configurable: true, value: (what) => what.files[0].type === "text/html"});
		Object.defineProperty(navigator, "share", {configurable: true, value: async (what) => { window.given = what.title + "|" + what.files[0].name + "|" + (await what.files[0].text()); }});
		document.dispatchEvent(new Event("htmx:afterSettle"))`))
	b.press(`[data-share]`)
	b.until(`window.given !== null`)
	_, sent, _ := x.Get("/boxes/1/page.html")
	if given := b.value(`window.given`); !strings.HasPrefix(given, "Jars|Jars.html|<!doctype html>") || len(given) < len(sent) {
		t.Errorf("what is given: %.80s, %d of %d bytes", given, len(given), len(sent))
	}
	b.until(`!` + button + `.disabled`)
}
