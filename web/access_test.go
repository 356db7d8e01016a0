package web_test

import (
	"context"
	_ "embed"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/store"
	"brevium/store/storetest"
	"brevium/web/webtest"
)

//go:embed testdata/axe.min.js
var axe string

// full is an application with something on every page, and its pages. It is filled once, and
// each test has a copy of its data.
func full(t *testing.T) (*webtest.Table, []string) {
	t.Helper()
	filledOnce.Do(func() { filled.folder, filled.pages = fill(t) })
	if filled.pages == nil {
		t.Fatal("it could not be filled; the test that tried says why")
	}
	folder := storetest.Folder(t)
	if err := os.CopyFS(folder, os.DirFS(filled.folder)); err != nil {
		t.Fatal(err)
	}
	return tableAt(t, filepath.Join(folder, "b.db")), slices.Clone(filled.pages)
}

var (
	filledOnce sync.Once
	filled     struct {
		folder string
		pages  []string
	}
)

// fill makes a folder of such data, and lists the pages that show them.
func fill(t *testing.T) (folder string, pages []string) {
	folder, err := os.MkdirTemp("", "brevium-full-")
	if err != nil {
		t.Fatal(err)
	}
	s, err := store.Open(t.Context(), filepath.Join(folder, "b.db"))
	if err != nil {
		t.Fatal(err)
	}
	x := webtest.TableOf(t, s)
	id := x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "base")
	x.Post("/boxes/1/fit", "allowance", "typed", "options.lid.allowance", "1/16")
	if b := x.Box(id); b.Inputs.Lengths["lid.allowance"] != measure.Inch/16 {
		t.Fatal("the failing lid was not set up")
	}
	x.Lot(3, 12*measure.Inch, 12*measure.Inch, false)
	x.Lot(1, 5*measure.Inch, 7*measure.Inch, true)
	x.Post("/jobs", "copies.1", "2")
	x.Post("/data/copy")
	x.JarBox()
	x.Post("/boxes/2/delete")
	// One of everything that dresses a box.
	for _, add := range []string{"covers.add=lid", "ribbons.add=1", "wrap.add=1", "windows.add=1", "labels.add=label", "labels.add=tag"} {
		name, value, _ := strings.Cut(add, "=")
		x.Post("/boxes/1/dressing", name, value)
	}
	x.Post("/drawer/cupboard", "at", "new", "new.kind", "tape", "new.amount", "3")
	for range 3 { // so that something is learned
		x.Post("/boxes/1/made", "felt0", "loose", "felt1", "loose", "remember", "less glue")
	}
	_, _, sent := x.Send("/papers", webtest.PaperPicture(t, 1))
	_, _, drawn := x.Send("/read/sketch", webtest.Sketched(t))
	sketched := drawn.Get("Location")
	carried := x.Carried()
	carrier := fmt.Sprintf("/boxes/%d/", carried)
	x.Post(carrier+"dressing", "loose.add", "tag")
	pages = []string{carrier + "small/box-2", carrier + "box", carrier + "dressing", "/", "/new", "/new?start=size", "/new?start=have", "/new?start=sheet", "/new?start=file", "/help", "/walk", "/kinds", "/kinds?minutes=1", "/nowhere", "/go?go=tray", fmt.Sprintf("/side?box=1&box=%d", carried), "/?deleted=1", "/?find=nothing+of+it",
		"/boxes/1/fold", "/boxes/1/compare", "/boxes/1/compare?from=drawer", "/boxes/1/biggest", "/boxes/1/holds", "/boxes/1/board", "/boxes/1/palettes", "/boxes/1/card", "/boxes/1/history",
		"/boxes/1/bench", "/boxes/1/made", "/logbook", "/drawer", "/drawer/cupboard", "/drawer/tools", "/drawer/shape", "/drawer/card-and-glue", "/boxes/1/post", "/boxes/1/cutting", "/jobs/1/cutting", "/papers/new", sent.Get("Location"), "/read/sketch", sketched, sketched + "/lines?wide=100+mm&high=80+mm&x0=0&y0=0&x1=100&y1=0&x2=100&y2=100&x3=0&y3=100", "/data", "/bin", "/jobs", "/jobs?deleted=1", "/jobs/1",
		"/styles", "/styles?from=tray", "/read", "/read?text=Base+8+x+6,+score+1+all+round.+Zonk+it.", "/boxes/1/cost", "/jobs/1/cost", "/jobs/1/evenings", "/jobs/1/kits"}
	for _, s := range webtest.Stops {
		pages = append(pages, "/boxes/1/"+s)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	return folder, pages
}

// Half of the pages are come to once, at the desk or on a phone in turn (all at both with BREVIUM_EACH): what
// a screen reader has of it is told, Tab goes through it, and with everything opened it has no
// accessibility fault and scrolls sideways at no width. 320 px is a phone's smallest, and a desk
// at 400 %; 640 px is a desk at 200 %.
func TestEveryPage(t *testing.T) {
	titles := &calledSo{by: map[string]string{}}
	const shards = 2
	for shard := range shards {
		t.Run(fmt.Sprint(shard), func(t *testing.T) {
			t.Parallel()
			x, pages := full(t)
			b := openBrowser(t, x)
			for n, page := range pages {
				if n%shards != shard || !sample.Part(t, n/shards/2, 4) {
					continue
				}
				for at, size := range [][2]int64{{1280, 800}, {390, 844}} {
					if !sample.Other(n/shards, at) {
						continue
					}
					b.do(chromedp.EmulateViewport(size[0], size[1]))
					b.visit(page)
					b.until(`document.readyState == "complete" && !document.querySelector(".htmx-request, #space:not([data-ready])")`)
					b.reads(page, titles)
					b.walk(fmt.Sprintf("%s at %d", page, size[0]))
					b.sideways(page, size[0])
					b.do(js(`for (const d of document.querySelectorAll("details")) d.open = true`))
					b.audit(page+", all open", size[0])
					for i, dragged := range [][2]int64{{320, 640}, {1280, 800}, {820, 1180}, {640, 400}, {390, 844}} {
						if i > 0 && !sample.Part(t, n+i, 4) { // the narrowest, and one of the others
							continue
						}
						b.do(chromedp.EmulateViewport(dragged[0], dragged[1]))
						b.sideways(page+", all open", dragged[0])
					}
				}
			}
		})
	}
}

// The same with a fault shown, with help over the page, and where there is nothing yet.
func TestAxeInEveryState(t *testing.T) {
	t.Parallel()
	x, _ := full(t)
	b := openBrowser(t, x)
	b.visit("/boxes/1/box")
	b.set(`[name="options.lid.depth"]`, "x")
	b.says("Not taken:")
	b.audit("a broken value", 1280)
	b.do(chromedp.EmulateViewport(390, 844))
	b.audit("a broken value", 390)
	b.sideways("a broken value", 390)
	b.do(js(`document.querySelector("[data-help]").click()`))
	b.says("rub a fold flat")
	b.audit("help over the page", 390)
	empty := openBrowser(t, webtest.NewTable(t))
	for n, page := range []string{"/", "/new", "/drawer", "/data", "/bin", "/jobs"} {
		if !sample.Part(t, n, 3) {
			continue
		}
		empty.visit(page)
		empty.audit(page+", empty", 1280)
	}
}

// audit looks for faults of accessibility, by day and, for contrast, by evening.
func (b *browser) audit(page string, width int64) {
	b.t.Helper()
	if b.value("typeof axe") == "undefined" {
		b.do(js(axe + `; const still = new CSSStyleSheet(); still.replaceSync("* { transition: none !important }"); document.adoptedStyleSheets.push(still); 0`))
	}
	for _, in := range []struct{ light, of string }{{"day", `{resultTypes: ["violations"]}`}, {"evening", `{resultTypes: ["violations"], runOnly: ["color-contrast"]}`}} {
		b.do(js(fmt.Sprintf(`document.documentElement.dataset.light = %q; window.report = ""; axe.run(%s).then(r => { window.report = JSON.stringify(r.violations
			.map(v => ({id: v.id, help: v.help, impact: v.impact, at: v.nodes.map(n => n.target.join(" ") + " " + (n.any[0]?.message ?? ""))}))) }); 0`, in.light, in.of)))
		b.until("window.report")
		report := b.value("window.report")
		var faults []struct {
			ID, Help, Impact string
			At               []string
		}
		if err := json.Unmarshal([]byte(report), &faults); err != nil {
			b.t.Fatal(err)
		}
		for _, f := range faults {
			b.t.Errorf("%s at %d, by %s: %s: %s (%s) at %v", page, width, in.light, f.Impact, f.Help, f.ID, f.At)
		}
	}
	b.do(js(`delete document.documentElement.dataset.light`))
}

func (b *browser) sideways(page string, width int64) {
	b.t.Helper()
	if over := b.value("document.documentElement.scrollWidth - document.documentElement.clientWidth"); over != "0" {
		b.t.Errorf("%s at %d scrolls %s px sideways: %s", page, width, over, b.value(`[...document.querySelectorAll("body *")].filter(e => e.getBoundingClientRect().right > innerWidth + 1)
			.map(e => e.tagName + "." + e.className + " " + e.textContent.trim().slice(0, 30)).slice(0, 6).join(" / ")`))
	}
}

// noteStops is a script that notes of each thing that has the focus its place in the
// document, whether a ring is seen round it, and whether it is covered.
const noteStops = `(() => {
	const all = new Map([...document.querySelectorAll("*")].map((e, i) => [e, i]));
	const ring = (e) => e && getComputedStyle(e).outlineStyle !== "none" && parseFloat(getComputedStyle(e).outlineWidth) >= 2;
	window.stops = [];
	document.body.tabIndex = -1; // from the top of the page, not from where its work begins
	document.body.focus();
	document.body.removeAttribute("tabindex");
	document.addEventListener("focusin", (event) => {
		const at = event.target;
		const box = at.getBoundingClientRect();
		const x = Math.min(innerWidth - 1, Math.max(0, box.x + Math.min(box.width / 2, 40))), y = Math.max(box.y + Math.min(box.height / 2, 40), Math.min(box.bottom - 2, 40))
		const top = document.elementFromPoint(x, y);
		const seen = top && (at.contains(top) || top.contains(at) || at.labels && [...at.labels].some(l => l.contains(top)));
		window.stops.push({
			at: all.get(at) ?? -1, name: at.id || at.name || at.className.baseVal || at.innerText || at.tagName, group: at.type === "radio" ? at.name : "",
			ring: ring(at) || ring(at.closest("label")), seen: !!seen || box.width < 2, where: Math.round(box.x) + "," + Math.round(box.y),
		});
	});
})()`

// Tab goes through a page once, in the order of its reading, never without a ring that is seen
// and never under something else: walk presses Tab from the top of a page to its end.
func (b *browser) walk(page string) {
	b.t.Helper()
	b.do(js(noteStops))
	first, last, count := -1, -1, 0
walking:
	for {
		b.do(chromedp.KeyEvent(strings.Repeat(kb.Tab, 20))) // what it comes to is noted in the page
		var stops []struct {
			At                 int
			Name, Group, Where string
			Ring, Seen         bool
		}
		if err := json.Unmarshal([]byte(b.value("JSON.stringify(window.stops.splice(0))")), &stops); err != nil {
			b.t.Fatal(err)
		}
		for _, stop := range stops {
			if stop.At <= last {
				if count < 5 && stop.At != first {
					b.t.Errorf("%s: from thing %d Tab goes back to %q", page, last, stop.Name)
				}
				break walking // round again
			}
			if !stop.Ring {
				b.t.Errorf("%s: %q has no ring", page, stop.Name)
			}
			if !stop.Seen {
				b.t.Errorf("%s: %q is under something else at %s", page, stop.Name, stop.Where)
			}
			if first < 0 {
				first = stop.At
			}
			last, count = stop.At, count+1
		}
		if count > 600 {
			b.t.Fatalf("%s: Tab never comes to the end", page)
		}
		if len(stops) == 0 {
			break // nothing can be pressed
		}
	}
	// All that can be pressed was come to: radios of a group count as one.
	want := b.value(`(() => {
		const groups = new Set();
		return [...document.querySelectorAll("a[href], button, input, select, textarea, summary, [tabindex]")].filter(e => {
			if (e.tabIndex < 0 || e.disabled || e.type === "hidden" || !e.checkVisibility({visibilityProperty: true})) return false;
			if (e.type !== "radio") return true;
			const key = (e.form?.id || e.form?.action) + e.name;
			return !groups.has(key) && groups.add(key);
		}).length;
	})()`)
	if fmt.Sprint(count) != want {
		b.t.Errorf("%s: Tab comes to %d things of %s", page, count, want)
	}
}

var trees = flag.String("trees", "", "write what a screen reader has of every page into this directory")

// calledSo is which page has a title.
type calledSo struct {
	sync.Mutex
	by map[string]string
}

// take notes a page's title, and gives another page of that title, "" for none.
func (c *calledSo) take(title, page string) string {
	c.Lock()
	defer c.Unlock()
	other := c.by[title]
	c.by[title] = page
	return other
}

// reads looks at what a screen reader has of a page: everything that can be pressed or filled in
// has a name, headings go down one step at a time, the page has one main part and one first
// heading, and there is a place where changes are said.
func (b *browser) reads(page string, titles *calledSo) {
	b.t.Helper()
	all := b.tree()
	if *trees != "" {
		b.write(page, all)
	}
	mains, firsts, level := 0, 0, 0
	for _, s := range all {
		switch s.Role {
		case "link", "button", "textbox", "searchbox", "combobox", "checkbox", "radio", "slider", "DisclosureTriangle":
			if s.Name == "" {
				b.t.Errorf("%s: a %s without a name", page, s.Role)
			}
		case "main":
			mains++
		case "heading":
			var at int
			fmt.Sscan(s.State["level"], &at)
			if at > level+1 {
				b.t.Errorf("%s: from a heading of level %d to “%s” of level %d", page, level, s.Name, at)
			}
			if level = at; at == 1 {
				firsts++
			}
		}
	}
	if mains != 1 || firsts != 1 {
		b.t.Errorf("%s: %d main parts and %d first headings", page, mains, firsts)
	}
	title := b.value("document.title")
	if other := titles.take(title, page); other != "" && other != page && !strings.Contains(page, "?") && !strings.Contains(other, "?") {
		b.t.Errorf("%s is called “%s” as %s is", page, title, other)
	}
	if strings.HasPrefix(page, "/boxes/1/") && slices.ContainsFunc(webtest.Stops, func(s string) bool { return strings.HasSuffix(page, "/"+s) }) &&
		b.value(`document.querySelector("#verdict[role=status]").textContent`) == "" {
		b.t.Errorf("%s: how the box stands is not said", page)
	}
}

// write keeps a tree to be read.
func (b *browser) write(page string, all []said) {
	var out strings.Builder
	for _, s := range all {
		if s.Role == "StaticText" || s.Role == "InlineTextBox" || s.Role == "ListMarker" {
			continue
		}
		fmt.Fprintf(&out, "%s%s “%s”", strings.Repeat("  ", s.Level), s.Role, s.Name)
		for _, more := range []string{s.Value, s.Description} {
			if more != "" {
				fmt.Fprintf(&out, " | %s", more)
			}
		}
		for _, state := range []string{"checked", "expanded", "pressed", "disabled", "invalid", "live", "level"} {
			if v := s.State[state]; v != "" && v != "false" {
				fmt.Fprintf(&out, " [%s %s]", state, v)
			}
		}
		out.WriteString("\n")
	}
	name := strings.NewReplacer("/", "_", "?", "_", "=", "-").Replace(strings.Trim(page, "/")) + ".txt"
	if err := os.WriteFile(filepath.Join(*trees, name), []byte(out.String()), 0o644); err != nil {
		b.t.Fatal(err)
	}
}

// In forced colours what is chosen can still be told, and with less motion
// nothing moves.
func TestForcedColoursAndLessMotion(t *testing.T) {
	t.Parallel()
	x, _ := full(t)
	b := openBrowser(t, x)
	b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{
			{Name: "forced-colors", Value: "active"}, {Name: "prefers-reduced-motion", Value: "reduce"},
		}})
		return err
	}))
	b.visit("/boxes/1/box")
	for _, pair := range [][2]string{{".tape .here a", ".tape li:not(.here) a"}, {".units [aria-pressed=true]", ".units [aria-pressed=false]"}} {
		look := func(selector string) string {
			return b.value(`getComputedStyle(document.querySelector(` + fmt.Sprintf("%q", selector) + `)).backgroundColor`)
		}
		if look(pair[0]) == look(pair[1]) {
			t.Errorf("in forced colours %s looks like %s", pair[0], pair[1])
		}
	}
	if moves := b.value(`[...document.querySelectorAll("*")].filter(e => parseFloat(getComputedStyle(e).transitionDuration) > 0).length`); moves != "0" {
		t.Errorf("with less motion %s things still move", moves)
	}
	b.do(chromedp.KeyEvent(kb.Tab), chromedp.KeyEvent(kb.Tab))
	if ring := b.value(`getComputedStyle(document.activeElement).outlineStyle`); ring == "none" {
		t.Error("in forced colours the ring is lost")
	}
}
