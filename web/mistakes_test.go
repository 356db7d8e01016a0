package web_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/web/webtest"
)

// mistake is something that makers type, and what is said of it.
type mistake struct {
	path, field, typed, says string
	// beside is another field of the page, typed first, which keeps its value.
	beside, value string
}

var mistakes = []mistake{
	{"/boxes/1/box", "Lid depth", "3//4", "is not", "", ""},
	{"/boxes/1/box", "Lid depth", "-1", "less than nothing", "", ""},
	{"/boxes/1/box", "Lid depth", "", "a length is missing", "", ""},
	{"/boxes/1/box", "Lid depth", "9", "larger than every sheet chosen", "", ""},
	{"/boxes/1/box", "Lid depth", "1/3", "not on a ruler", "", ""},
	{"/boxes/1/box", "Lid depth", "1 - 1/4", "could be a sum", "", ""},
	{"/boxes/1/box", "Lid depth", "one inch", "is not a length", "", ""},
	{"/boxes/1/box", "Lid depth", "40", "larger than any sheet", "", ""},
	{"/boxes/1/contents", "Across", "48", "larger than any sheet", "Height", "3"},
	{"/boxes/1/contents", "Height", "0", "more than nothing", "Across", "2"},
	{"/boxes/1/contents", "How many", "four", "not a whole number", "Height", "3 1/8"},
	{"/boxes/1/contents", "How many", "0", "1 to", "Height", "3"},
	{"/boxes/1/sheets", "How many boxes", "1000", "1 to 500", "Longest cut", "13"},
	{"/boxes/1/sheets", "How many boxes", "a dozen", "not a whole number", "Longest cut", "12 1/2"},
	{"/boxes/1/sheets", "Longest cut", "1", "cuts no blank", "How many boxes", "3"},
	{"/boxes/1/dressing", "Border", "4", "make them narrower", "", ""},
	{"/jobs/1", "Trim off every edge", "-1", "less than nothing", "Jars", "3"},
	{"/jobs/1", "Jars", "many", "not a whole number", "Trim off every edge", "1/8"},
	{"/jobs/1", "Name of the job", "", "needs a name", "Trim off every edge", "1/4"},
	{"/boxes/1/fit", "Name of the box", "", "needs a name", "", ""},
}

// Twenty mistakes: each is said at its field, which has the focus; what was
// typed beside it is kept; and one press puts back what was there.
func TestTwentyMistakes(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "lid")
	x.Post("/jobs", "copies.1", "2", "name", "Fair")
	h := newHand(t, x, 1280, 800)
	for n, m := range mistakes {
		if !sample.Takes(t, n) {
			continue
		}
		t.Run(fmt.Sprintf("%s %s", m.field, m.typed), func(t *testing.T) {
			h.t = t
			h.visit(m.path)
			h.do(js(`for (const d of document.querySelectorAll("details")) d.open = true`))
			before := h.find("textbox", m.field).Value
			if m.value != "" {
				h.write(m.beside, m.value)
			}
			h.mistype(m.field, m.typed)
			h.until(`document.querySelector("[aria-invalid=true]")`)
			h.until(`document.activeElement.getAttribute("aria-invalid") == "true"`)
			at := h.focus()
			if !strings.Contains(at.Name, m.field) || !strings.Contains(at.Description, m.says) || at.Value != m.typed {
				t.Errorf("the focus is at %q with %q, which says %q", at.Name, at.Value, at.Description)
			}
			if m.value != "" && h.find("textbox", m.beside).Value != m.value {
				t.Errorf("%s was lost", m.beside)
			}
			h.find("alert", "")
			h.press("button", "Put ")
			h.until(`!document.querySelector("[aria-invalid=true]")`)
			if got := h.find("textbox", m.field).Value; got != before {
				t.Errorf("put back, it is %q; it was %q", got, before)
			}
			if m.value != "" && h.find("textbox", m.beside).Value != m.value {
				t.Errorf("%s was lost with it", m.beside)
			}
		})
	}
}

// mistype writes into a field and leaves it, by keyboard: a refused change may
// bring the focus back at any moment.
func (h *hand) mistype(words, value string) {
	h.t.Helper()
	if err := h.pressOnce(h.find("textbox", words)); err != nil {
		h.t.Fatal(err)
	}
	h.do(js(`document.activeElement.select?.()`), chromedp.KeyEvent(kb.Backspace))
	if value != "" {
		h.do(chromedp.KeyEvent(value))
	}
	h.do(chromedp.KeyEvent(kb.Tab))
	h.rest()
}

// After a refused change the next one is taken, and leaving the page asks.
func TestOnlyTheWrongFieldIsRefused(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	h := newHand(t, x, 1280, 800)
	h.visit("/boxes/1/box")
	h.mistype("Lid depth", "1//2")
	h.says("Showing your last valid size")
	h.press("radio", "Open tray")
	h.until(`document.querySelector(".tape .here .answer").innerText == "Open tray"`)
	if got := x.Box(id).Inputs.Style; got != "tray" {
		t.Errorf("the next change was dropped: it is a %s", got)
	}
	h.visit("/boxes/1/contents")
	h.mistype("Across", "48")
	h.find("button", "Put ")
	h.write("How many", "2")
	h.until(`document.querySelector("[name='contents[0].count']").value == "2"`)
	if in := x.Box(id).Inputs; in.Things[0].Count != 2 || in.Things[0].Length != 48*measure.Millimetre {
		t.Errorf("kept as %+v", in.Things[0])
	}
	asked := h.value(`(() => { const e = new Event("beforeunload", {cancelable: true}); window.dispatchEvent(e); return e.defaultPrevented })()`)
	if asked != "true" {
		t.Error("leaving with a refused change does not ask")
	}
	// What may have been meant is one press.
	h.press("button", "48 mm?")
	h.until(`!document.querySelector("[aria-invalid=true]")`)
	if in := x.Box(id).Inputs; in.Things[0].Length != 48*measure.Millimetre {
		t.Errorf("48 mm was taken as %v", in.Things[0].Length)
	}
}

// A choice that cannot be is put back, too, and what would help is offered
// where it is said.
func TestARefusedChoiceIsPutBack(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/boxes/1/box", "size.basis", "scored")
	h := newHand(t, x, 1280, 800)
	h.visit("/boxes/1/sheets")
	for _, sheet := range []string{"12 × 12 in"} {
		h.press("checkbox", sheet)
	}
	h.until(`document.activeElement.id == "f-sheets"`)
	if at := h.focus(); !strings.Contains(at.Description, "at least one kind of sheet") {
		t.Errorf("it says %q", at.Description)
	}
	h.press("button", "Put ")
	h.until(`!document.querySelector("[aria-invalid=true]") && document.querySelector("#f-sheets").checked`)
	if got := x.Box(id).Inputs.Sheets; len(got) != 1 {
		t.Errorf("the sheets are %v", got)
	}
}
