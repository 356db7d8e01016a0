package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"hash/fnv"
	"net/http"
	"net/http/httptest"
	"regexp"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"
	"unicode"

	"github.com/chromedp/chromedp"

	"brevium/core/sample"
	"brevium/web/webtest"
)

// watched is the application with an ear on what it answers: how many requests are on
// their way and were made, and which were refused or went wrong.
type watched struct {
	http.Handler
	open, made atomic.Int64
	mu         sync.Mutex
	bad        []refusal
}

func (w *watched) ServeHTTP(out http.ResponseWriter, r *http.Request) {
	w.made.Add(1)
	w.open.Add(1)
	defer w.open.Add(-1)
	seen := &status{ResponseWriter: out, code: http.StatusOK}
	r.Header.Del("Accept-Encoding") // what is refused is read here
	w.Handler.ServeHTTP(seen, r)
	if seen.code >= 400 {
		w.mu.Lock()
		w.bad = append(w.bad, refusal{fmt.Sprintf("%s %s: %d", r.Method, r.URL.RequestURI(), seen.code), seen.code, saidWhy.FindString(seen.body.String())})
		w.mu.Unlock()
	}
}

// refusal is what was asked, how it was answered, and the first sentence of why.
type refusal struct {
	asked string
	code  int
	why   string
}

// saidWhy is where a page says what it does not take.
var saidWhy = regexp.MustCompile(`(?s)<p class="(?:fault|refused|finding fail|refusal)".{0,400}`)

// refused gives what was answered badly since it was asked last.
func (w *watched) refused() []refusal {
	w.mu.Lock()
	defer w.mu.Unlock()
	out := w.bad
	w.bad = nil
	return out
}

type status struct {
	http.ResponseWriter
	code int
	body bytes.Buffer // of a refusal
}

func (s *status) Write(part []byte) (int, error) {
	if s.code >= 400 {
		s.body.Write(part)
	}
	return s.ResponseWriter.Write(part)
}

func (s *status) WriteHeader(code int) {
	s.code = code
	s.ResponseWriter.WriteHeader(code)
}

func (s *status) Unwrap() http.ResponseWriter { return s.ResponseWriter }

// pressable is something on a page that a hand can press.
type pressable struct {
	N                     int
	Tag, Label, Href, Key string
	X, Y                  float64
	Covered               string // by what, where it cannot be reached
	Main                  bool   // it is part of the work of its page
}

// lists makes the page tell what can be pressed on it, in sight or after scrolling; what
// lies under something else says under what. A link that the page's own scripts do not
// stop would be followed: that is noted instead, so that the page stays.
const lists = `(() => {
  if (!window.pressing) {
    window.pressing = {followed: "", changed: 0, printed: 0};
    window.print = () => { pressing.printed++; };
    window.confirm = () => true;
    window.addEventListener("click", (e) => {
      const link = e.target.closest && e.target.closest("a[href]");
      if (!link || link.hasAttribute("hx-get")) return;
      pressing.followed = e.defaultPrevented ? "" : link.getAttribute("href");
      e.preventDefault();
    });
    new MutationObserver((all) => { pressing.changed += all.length; }).observe(document, {subtree: true, childList: true, attributes: true, characterData: true});
  }
  const label = (e) => (e.getAttribute("aria-label") || e.innerText || e.labels?.[0]?.innerText || e.value || e.name || "").replace(/\s+/g, " ").trim().slice(0, 80);
  const out = [];
  for (const e of document.querySelectorAll("a[href], button, summary, input[type=radio], input[type=checkbox], select")) {
    if (e.disabled || e.matches(".skip") || e.ownerSVGElement || // what is drawn is pressed by the tests of drawings
       e.tabIndex < 0 && e.tagName === "BUTTON" || !e.checkVisibility({visibilityProperty: true, opacityProperty: true}) || e.closest("[aria-hidden=true]")) continue;
    const at = e.type === "radio" || e.type === "checkbox" ? (e.checkVisibility() && e.getBoundingClientRect().width > 1 ? e : e.labels?.[0]) || e : e;
    let r = at.getClientRects()[0];
    if (!r || r.width < 1 || r.height < 1) continue;
    out.push({N: out.length, Main: e.closest("main") !== null, Tag: e.tagName.toLowerCase() + (e.type && e.tagName === "INPUT" ? ":" + e.type : ""), Label: label(e), Href: e.getAttribute("href") || "", Key: e.name ? e.name.replace(/\d+/g, "#") + "=" + (e.tagName === "BUTTON" || e.type === "radio" ? e.value : "") : ""});
    (window.pressables ||= []).length = out.length;
    window.pressables[out.length - 1] = at;
  }
  return JSON.stringify(out);
})()`

// aims scrolls to the nth thing and says where it is and what lies over it.
const aims = `((n) => {
  const e = window.pressables?.[n];
  if (!e || !e.isConnected) return JSON.stringify({Covered: "gone"});
  e.scrollIntoView({block: "center", inline: "center", behavior: "instant"});
  const r = [...e.getClientRects()].find((r) => r.width > 1 && r.height > 1);
  if (!r) return JSON.stringify({Covered: "gone"});
  const x = r.left + r.width / 2, y = r.top + r.height / 2;
  const top = document.elementFromPoint(x, y);
  const free = top && (e.contains(top) || top.contains(e) || top.closest("label") === e.closest("label") && e.closest("label") || top.closest("a, button, summary") === e);
  pressing.followed = null; pressing.changed = 0;
  return JSON.stringify({X: x, Y: y, Covered: free ? "" : (top ? top.tagName + "." + top.className : "nothing")});
})`

// notTwice are presses that take away what the other presses need: they are pressed when
// all else is done, each once.
var notTwice = regexp.MustCompile(`(?i)delete|remove|forget|empty the bin|strike|take .* away|in place of|bring .* back|replace|everything you have|undo|^no |block |finish|begin:|sold|release|close the class|sign out`)

// takesAway are presses whose page is another afterwards.
func (p pressable) takesAway() bool { return notTwice.MatchString(p.Label) }

// pages of the same sort are told by their address without numbers.
var numbers = regexp.MustCompile(`\d+`)

// settle waits until nothing is on its way.
func (w *watched) settle() {
	for calm := 0; calm < 3; {
		if time.Sleep(15 * time.Millisecond); w.open.Load() == 0 {
			calm++
		} else {
			calm = 0
		}
	}
}

// Every page is pressed: each link leads to a page that is there, each button, choice and
// fold does something, also after a change inside the page; nothing is answered by a fault.
// A tenth of the presses on half of the pages is tried each time, by their names; BREVIUM_EACH tries them all.
func TestEverythingThatIsOfferedWorks(t *testing.T) {
	t.Parallel()
	x, pages := full(t)
	w := &watched{Handler: x.HTTP}
	b := openBrowser(t, &webtest.Table{T: t, Store: x.Store, HTTP: w})
	b.do(chromedp.EmulateViewport(1280, 800))
	pressed, linked := map[string]bool{}, map[string]bool{}
	count, late := 0, []func(){}
	for n, page := range pages {
		if page == "/nowhere" || !sample.Part(t, n, 4) {
			continue
		}
		sort := numbers.ReplaceAllString(strings.SplitN(page, "?", 2)[0], "#")
		come(b, w, page)
		w.refused()
		for round := 0; round < 60; round++ {
			var all []pressable
			if err := json.Unmarshal([]byte(b.value(lists)), &all); err != nil {
				t.Fatal(err)
			}
			next := slices.IndexFunc(all, func(p pressable) bool {
				name := p.name(sort)
				if p.Tag == "a" {
					name = p.Label + " " + numbers.ReplaceAllString(p.Href, "#")
				}
				skip := pressed[name] || !pick(t, name)
				if !skip && p.takesAway() {
					pressed[name] = true
					late = append(late, func() { pressLate(t, b, w, page, p) })
					return false
				}
				if !skip {
					pressed[name] = true
				}
				return !skip
			})
			if next < 0 {
				break
			}
			count++
			p := all[next]
			if testing.Verbose() {
				t.Logf("%s: %s “%s”", page, p.Tag, p.Label)
			}
			href, stays := press(t, b, w, page, p)
			if badly(t, b, w, page, p); href != "" && !linked[href] {
				linked[href] = true
				opens(t, x, p.Label, href)
			} else if !stays {
				come(b, w, page)
			} else if p.Tag == "button" {
				linkLives(t, b, w, page, p)
			}
		}
	}
	for _, press := range late {
		press()
	}
	if t.Logf("%d things pressed, %d links followed, %d that take away", count, len(linked), len(late)); count < 8 {
		t.Errorf("only %d things were found to press", count)
	}
}

// name tells one thing of a sort of page from another.
func (p pressable) name(sort string) string {
	return sort + " " + p.Tag + " " + p.Key + " " + numbers.ReplaceAllString(p.Label, "#")
}

// pick takes a tenth of the things by their names, others on other days, or all.
func pick(t *testing.T, name string) bool {
	h := fnv.New32a()
	h.Write([]byte(name))
	return sample.Part(t, int(h.Sum32()%1000), 10)
}

// come comes to a page; what the page before still holds back is left behind.
func come(b *browser, w *watched, page string) {
	b.t.Helper()
	b.value(`(() => { document.querySelectorAll("[aria-invalid]").forEach((e) => e.removeAttribute("aria-invalid")); if (typeof unkept !== "undefined") unkept.clear() })()`)
	b.visit(page)
	w.settle()
}

// press presses one thing with the mouse. It gives where a link leads, and whether the page
// is still there; what does nothing at all is a fault.
func press(t *testing.T, b *browser, w *watched, page string, p pressable) (href string, stays bool) {
	t.Helper()
	for range 3 { // a link waits while a change is on its way
		if href, stays, dead := pressOnce(t, b, w, page, p); !dead {
			return href, stays
		}
	}
	t.Errorf("on %s the link “%s” is dead: the page swallows the press", page, p.Label)
	return "", true
}

func pressOnce(t *testing.T, b *browser, w *watched, page string, p pressable) (href string, stays, dead bool) {
	t.Helper()
	b.still()
	var at pressable
	if err := json.Unmarshal([]byte(b.value(fmt.Sprintf("%s(%d)", aims, p.N))), &at); err != nil {
		t.Fatal(err)
	}
	if at.Covered == "gone" {
		return "", true, false
	}
	if at.Covered != "" {
		t.Errorf("on %s, %s “%s” lies under %s", page, p.Tag, p.Label, at.Covered)
		return "", true, false
	}
	made := w.made.Load()
	if p.Tag == "select" { // the list itself is the system's: its next choice is taken
		b.do(js(fmt.Sprintf(`(() => { const s = pressables[%d]; if (s.options.length > 1) { s.selectedIndex = (s.selectedIndex + 1) %% s.options.length; s.dispatchEvent(new Event("input", {bubbles: true})); s.dispatchEvent(new Event("change", {bubbles: true})); } else { pressing.changed++; } pressing.changed++; })()`, p.N)))
	} else {
		b.do(chromedp.MouseClickXY(at.X, at.Y))
	}
	w.settle()
	after := b.value(`window.pressing ? JSON.stringify(pressing) : "{}"`)
	var now struct {
		Followed         *string
		Changed, Printed int
	}
	if err := json.Unmarshal([]byte(after), &now); err != nil {
		t.Fatalf("%q: %v", after, err)
	}
	if after == "{}" {
		return "", false, false
	}
	b.value(`document.querySelectorAll("dialog[open]").forEach((d) => d.close())`)
	if p.Tag == "a" && now.Followed != nil {
		return *now.Followed, true, *now.Followed == "" && now.Changed == 0
	}
	alive := w.made.Load() > made || now.Changed > 0 || now.Printed > 0 || strings.HasPrefix(p.Tag, "input")
	if !alive && b.value(`document.querySelector(":invalid") !== null || document.activeElement !== document.body`) != "true" {
		t.Errorf("on %s, %s “%s” does nothing", page, p.Tag, p.Label)
	}
	return "", true, false
}

// linkLives presses a link again after a button has changed the page: it still leads where
// it says.
func linkLives(t *testing.T, b *browser, w *watched, page string, after pressable) {
	t.Helper()
	dead := ""
	for range 4 { // the page may just be on its way to another
		var all []pressable
		if err := json.Unmarshal([]byte(b.value(lists)), &all); err != nil {
			t.Fatal(err)
		}
		i := slices.IndexFunc(all, func(p pressable) bool { return p.Tag == "a" && p.Main && !strings.HasPrefix(p.Href, "#") })
		if i < 0 {
			return
		}
		if href, stays := press(t, b, w, page, all[i]); href != "" || !stays {
			return
		}
		dead = all[i].Label
		time.Sleep(250 * time.Millisecond)
	}
	t.Errorf("on %s, after “%s”, the link “%s” leads nowhere", page, after.Label, dead)
}

// pressLate presses what takes something away, on a page that may have changed since.
func pressLate(t *testing.T, b *browser, w *watched, page string, p pressable) {
	come(b, w, page)
	w.refused()
	var all []pressable
	if err := json.Unmarshal([]byte(b.value(lists)), &all); err != nil {
		t.Fatal(err)
	}
	i := slices.IndexFunc(all, func(x pressable) bool { return x.Tag == p.Tag && x.Label == p.Label })
	if i < 0 {
		return // gone with something else
	}
	press(t, b, w, page, all[i])
	badly(t, b, w, page, p)
}

// badly tells what was answered badly. What cannot be taken as it stands is no fault where
// the page says so; it is put aside then, so that the page can be left.
func badly(t *testing.T, b *browser, w *watched, page string, p pressable) {
	t.Helper()
	for _, bad := range w.refused() {
		b.still() // a crowded browser may take its time to draw the answer
		said := false
		for try := 0; bad.code == http.StatusUnprocessableEntity && !said && try < 60; try++ { // a page that was sent for is drawn yet
			time.Sleep(50 * time.Millisecond)
			said = b.value(`[...document.querySelectorAll("[aria-invalid=true], .fault, [role=alert], .refused")].some((e) => e.checkVisibility())`) == "true"
		}
		if said {
			come(b, w, page)
			continue
		}
		t.Errorf("on %s, %s “%s”: %s, %s", page, p.Tag, p.Label, bad.asked, bad.why)
	}
}

// opens asks for what a link leads to: it is there, a page of its own has a heading, and a
// document ("Score card on A4") is the one that is named.
func opens(t *testing.T, x *webtest.Table, label, href string) {
	t.Helper()
	href, _, _ = strings.Cut(href, "#")
	if href == "" {
		return
	}
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, httptest.NewRequest(http.MethodGet, href, nil))
	if r.Code >= 400 {
		t.Errorf("the link %s answers %d", href, r.Code)
		return
	}
	kind := r.Header().Get("Content-Type")
	if name, _, ok := strings.Cut(label, " on "); ok && kind == "application/pdf" && unicode.IsUpper(rune(name[0])) {
		if title, _ := webtest.Printed(t, r.Body.String()); !strings.HasPrefix(title, name+":") {
			t.Errorf("the link “%s” opens %q", label, title)
		}
	}
	if strings.HasPrefix(kind, "text/html") && r.Code == http.StatusOK && !regexp.MustCompile(`<h1\b[^>]*>\s*\S`).MatchString(r.Body.String()) {
		t.Errorf("the link %s opens a page without a heading", href)
	}
}
