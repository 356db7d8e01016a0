package web_test

import (
	"fmt"
	"io"
	"net/http"
	"strconv"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/measure"
	"brevium/web/webtest"
)

// weather is what lies between a page and the application: nobody there, an
// error of the application, a full disk.
type weather struct {
	app  http.Handler
	fate atomic.Int32 // 0 is fair, -1 no answer, else a status
}

func (w *weather) ServeHTTP(to http.ResponseWriter, r *http.Request) {
	switch fate := int(w.fate.Load()); {
	case fate < 0:
		panic(http.ErrAbortHandler) // the connection is cut
	case fate > 0 && r.Method != http.MethodGet:
		to.Header().Set("Content-Type", "text/plain; charset=utf-8")
		to.WriteHeader(fate)
		_, _ = io.WriteString(to, "The disk is full, so this was not kept.")
	default:
		w.app.ServeHTTP(to, r)
	}
}

// TestAChangeThatIsNotKeptIsSaidAndSentAgain fails saves in every way there
// is, and looks whether the page says so, keeps what was typed, and sends it
// again when it can.
func TestAChangeThatIsNotKeptIsSaidAndSentAgain(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	sky := &weather{app: x.HTTP}
	b := openBrowser(t, &webtest.Table{T: t, Store: x.Store, HTTP: sky})
	// A minute lies between one change and the next, so that each is undone by itself.
	var minutes atomic.Int64
	x.Store.UseClock(func() time.Time { return time.Now().Add(time.Duration(minutes.Load()) * time.Minute) })
	b.visit("/boxes/1/sheets")
	for i, fate := range []int32{-1, 500, http.StatusInsufficientStorage} {
		minutes.Add(1)
		copies := string(rune('3' + i))
		sky.fate.Store(fate)
		b.set(`#f-copies`, copies)
		b.says("Not kept yet:")
		if fate == http.StatusInsufficientStorage {
			b.says("The disk is full")
		}
		b.until(`document.querySelector("#f-copies").value == "` + copies + `"`)
		if got := x.Box(id).Inputs.Copies; got == 3+i {
			t.Fatalf("with %d the change was kept after all", fate)
		}
		sky.fate.Store(0)
		b.says("Kept now.")
		if got := x.Box(id).Inputs.Copies; got != 3+i {
			t.Errorf("after %d the box has %d copies; want %d", fate, got, 3+i)
		}
	}
	// Undo that goes nowhere is said as well.
	sky.fate.Store(-1)
	b.do(js(`document.querySelector("#undo").click()`))
	b.says("Not kept yet:")
	sky.fate.Store(0)
	b.says("Kept now.")
	if got := x.Box(id).Inputs.Copies; got != 4 {
		t.Errorf("undone to %d copies; want 4", got)
	}
	// A box that is gone is not asked for again and again.
	if err := x.Store.Of(t.Context()).Delete(t.Context(), id); err != nil {
		t.Fatal(err)
	}
	b.set(`#f-copies`, "9")
	b.says("Not kept: There is no box here")
	// "Kept now." goes after four seconds, and takes nothing with it.
	b.do(chromedp.Sleep(4100 * time.Millisecond))
	b.says("Not kept: There is no box here")
}

// TestAFormThatLoadsAPageWaitsForSomebody types a new box while nobody
// answers; the form stays and goes when somebody does.
func TestAFormThatLoadsAPageWaitsForSomebody(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	sky := &weather{app: x.HTTP}
	b := openBrowser(t, &webtest.Table{T: t, Store: x.Store, HTTP: sky})
	b.visit("/new?start=size")
	sky.fate.Store(-1)
	b.set(`input[name="name"]`, "For the fair")
	b.do(js(`document.querySelector("#begin").click()`))
	b.says("Brevium does not answer")
	b.until(`document.querySelector('input[name="name"]').value == "For the fair"`)
	sky.fate.Store(0)
	b.until(`location.pathname == "/boxes/1/box"`)
	if got := x.Box(1); got.Name != "For the fair" || got.Inputs.Units != measure.In {
		t.Errorf("kept as %+v", got)
	}
}

func TestRefusalsComeAsASentence(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	code, body, header := x.Post("/boxes/1/rename", "name", "  ")
	if code != http.StatusUnprocessableEntity || !strings.HasPrefix(body, "A box needs a name") ||
		!strings.HasPrefix(header.Get("Content-Type"), "text/plain") || header.Get("HX-Reswap") != "none" {
		t.Errorf("%d %.80q %v", code, body, header)
	}
	// On the box's own page it is said at the field.
	code, body, _ = x.Post("/boxes/1/rename", "name", "  ", "stop", "box")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, `id="box-name-fault"`) || x.Box(1).Name != "Jars" {
		t.Errorf("%d, and the name is %q", code, x.Box(1).Name)
	}
}

// What another window changed meanwhile is shown beside what was typed, and
// the maker chooses by a button.
func TestAClashIsSettledInTheBrowser(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	b := openBrowser(t, x)
	b.unheard()
	b.visit("/boxes/1/box")
	depth := `[name="options.lid.depth"]`
	x.As("another", x.Box(id).Version, "/boxes/1/box", "options.lid.depth", "1 1/4")
	b.set(depth, "1 1/2")
	b.says("In another window this was changed to")
	b.press(`button[name=take]`)
	b.until(`document.querySelector('` + depth + `').value == "1 1/4" && !document.body.innerText.includes("In another window")`)
	x.As("another", x.Box(id).Version, "/boxes/1/box", "options.lid.depth", "1 1/8")
	b.set(depth, "1 3/8")
	b.says("In another window this was changed to")
	b.press(`.clash button:not([name])`)
	b.until(`document.querySelector('` + depth + `').value == "1 3/8" && !document.body.innerText.includes("In another window")`)
	if got := x.Box(id).Inputs.Lengths["lid.depth"]; got != 11*measure.Inch/8 {
		t.Errorf("kept, the lid is %v deep", got.MM())
	}
}

// slowly is a table whose changes are answered when the test says so.
func slowly(x *webtest.Table, answer <-chan bool) *webtest.Table {
	return &webtest.Table{T: x.T, Store: x.Store, HTTP: http.HandlerFunc(func(to http.ResponseWriter, r *http.Request) {
		if r.Method == http.MethodPost {
			select {
			case <-answer:
			case <-r.Context().Done():
			}
		}
		x.HTTP.ServeHTTP(to, r)
	})}
}

// Who types a value and goes on has it kept though the answer takes its time: that a field is
// left and that it was typed in is one change, and the second word of it does not end the first.
func TestASlowAnswerLosesNothing(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	answer := make(chan bool, 1)
	b := openBrowser(t, slowly(x, answer))
	b.visit("/boxes/1/sheets")
	for _, copies := range []int{7, 8} {
		b.do(chromedp.Focus(`#f-copies`), js(`document.querySelector("#f-copies").select()`), chromedp.SendKeys(`#f-copies`, strconv.Itoa(copies)))
		b.until(`sending.size === 1`) // half a second after it is typed
		b.do(chromedp.KeyEvent(kb.Tab))
		answer <- true
		b.until(`sending.size === 0 && unkept.size === 0 && !document.querySelector(".htmx-request")`)
		if got := x.Box(id).Inputs.Copies; got != copies {
			t.Errorf("%d copies are typed, and %d kept", copies, got)
		}
	}
}

// What is put into a field while the answer to something else is on its way stays, though the
// field has no focus: a reading of a caliper, a value left with the Tab key.
func TestAnAnswerTakesNothingBack(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	answer := make(chan bool, 2) // to 7, and to 9
	b := openBrowser(t, slowly(x, answer))
	b.visit("/boxes/1/sheets")
	const put = `(() => { const f = document.querySelector("#f-copies"); f.value = %q; f.dispatchEvent(new Event("input", {bubbles: true})) })()`
	b.do(js(fmt.Sprintf(put, "7")))
	b.until(`sending.size === 1`)
	b.do(js(`document.addEventListener("htmx:beforeSwap", () => { ` + fmt.Sprintf(put, "9") + ` }, { once: true, capture: true })`))
	answer <- true
	answer <- true
	b.until(`sending.size === 0 && !document.querySelector(".htmx-request")`)
	if got := b.value(`document.querySelector("#f-copies").value`); got != "9" {
		t.Errorf("9 is put in before the answer to 7 comes, and %s stands there after it", got)
	}
	for end := time.Now().Add(webtest.Patience); x.Box(id).Inputs.Copies != 9; time.Sleep(20 * time.Millisecond) {
		if time.Now().After(end) {
			t.Fatalf("9 is put in and %d kept", x.Box(id).Inputs.Copies)
		}
	}
}
