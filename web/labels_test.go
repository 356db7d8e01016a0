package web_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/label"
	"brevium/web/webtest"
)

// On a page of 1280 no label of a drawing is smaller than 9 px.
func TestLabelsCanBeRead(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "base")
	x.Post("/boxes/1/dressing", "mats.add", "lid")
	b := openBrowser(t, x)
	for _, stop := range webtest.Stops {
		b.visit("/boxes/1/" + stop)
		got := b.value(`(() => {
			let small = [];
			for (const text of document.querySelectorAll("svg.drawing text")) {
				const svg = text.ownerSVGElement;
				if (svg.getBoundingClientRect().width === 0) continue;
				const px = parseFloat(text.getAttribute("font-size")) * svg.getScreenCTM().a;
				if (px < 8.95) small.push(text.textContent + " " + px.toFixed(1));
			}
			return small.slice(0, 6).join("; ");
		})()`)
		if got != "" {
			t.Errorf("%s: too small to be read: %s", stop, got)
		}
	}
}

// With a paper and a label the ticket of the dressing is not over 900 px: each thing is a line that
// opens. One that is put on is open at once, those that were open stay so; a bow becomes a brad.
func TestTheDressingsTicketIsShort(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "lid")
	x.Post("/boxes/1/dressing", "labels.add", "label")
	h := newHand(t, x, 1280, 800)
	h.visit("/boxes/1/dressing")
	if high := h.value(`((high) => high > 900 ? "" + high : "")(Math.round(document.querySelector("#stop-form").getBoundingClientRect().bottom - document.querySelector(".ticket").getBoundingClientRect().top))`); high != "" {
		t.Errorf("the ticket is %s px high", high)
	}
	opened := `[...document.querySelectorAll(".slip-of[open]")].map((one) => one.id).join(" ")`
	if got := h.value(opened); got != "" {
		t.Errorf("open at first: %s", got)
	}
	h.do(js(`document.querySelector("#paper-0 summary").click()`))
	h.press("button", "Stick a bow on it")
	h.until(`document.querySelector("#label-1[open]")`)
	if got := h.value(opened); got != "paper-0 label-1" {
		t.Errorf("open with the bow: %s", got)
	}
	h.pick("It is a", "Brad")
	h.until(`document.querySelector("#label-1 summary").innerText.includes("Brad")`)
	in := x.Box(1).Inputs
	if l := in.Labels[1]; l.What != "brad" || l.Width >= in.Labels[0].Width || l.Piece != in.Labels[0].Piece {
		t.Errorf("it is kept as %+v", l)
	}
	if page := x.Words("/boxes/1/making"); !strings.Contains(page, "Pierce a small hole in the middle of the top of the lid") {
		t.Errorf("the brad is not told: %.2000s", page)
	}
}

// A label is dragged on the flat piece, and moved by its arrow keys; pressed, its part of the
// ticket opens.
func TestALabelIsDragged(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/boxes/1/dressing", "labels.add", "label")
	x.Post("/boxes/1/dressing", "ribbons.add", "1") // so that its ticket begins shut
	b := openBrowser(t, x)
	b.visit("/boxes/1/dressing")
	place := func() label.Place { return x.Box(id).Inputs.Labels[0].Place }
	waits := func(what string, is func(p label.Place) bool) {
		t.Helper()
		for end := time.Now().Add(webtest.Patience); !is(place()); time.Sleep(20 * time.Millisecond) {
			if time.Now().After(end) {
				t.Fatalf("%s: it lies at %+v", what, place())
			}
		}
		b.still()
	}
	const drag = `(() => { const pick = document.querySelector(".label-pick"), r = pick.getBoundingClientRect(), k = pick.ownerSVGElement.getScreenCTM().a;
		const at = (dx) => ({bubbles: true, button: 0, pointerId: 1, clientX: r.x + r.width / 2 + dx * k, clientY: r.y + r.height / 2});
		pick.setPointerCapture = () => {};
		pick.dispatchEvent(new PointerEvent("pointerdown", at(0))); pick.dispatchEvent(new PointerEvent("pointermove", at(%[1]d))); pick.dispatchEvent(new PointerEvent("pointerup", at(%[1]d))) })()`
	b.do(js(fmt.Sprintf(drag, 0)))
	b.until(`document.querySelector("[data-label]").closest("details").open`)
	if place() != (label.Place{}) {
		t.Errorf("a press moved it: %+v", place())
	}
	b.do(js(fmt.Sprintf(drag, 6)))
	waits("dragged by 6 mm", func(p label.Place) bool { return p.Across.From != label.Middle && p.Up.From == label.Middle })
	was := place().Across.At
	b.do(js(`document.querySelector(".label-pick").focus(); 0`), chromedp.KeyEvent(kb.ArrowUp))
	waits("moved by a key", func(p label.Place) bool { return p.Up.From != label.Middle && p.Across.At == was })
	b.until(fmt.Sprintf(`document.querySelector('[name="labels[0].up.from"]').value == %q`, place().Up.From))
}

// A window is cut by a press, made round, moved and taken away; what cannot be is said at its field, and
// the way it is made follows.
func TestWindowIsCutOnThePage(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	h := newHand(t, x, 1280, 800)
	h.visit("/boxes/1/dressing")
	h.press("button", "Cut a window")
	h.until(`document.querySelector("#window-0")`)
	if w := x.Box(1).Inputs.Windows; len(w) != 1 || w[0].Piece != "lid" || w[0].Face != "top" || !w[0].Film {
		t.Fatalf("it has the windows %+v", w)
	}
	h.pick("Shape", "Circle")
	h.until(`document.querySelector("[name='windows[0].width']").value == document.querySelector("[name='windows[0].height']").value`)
	h.press("checkbox", "clear film behind it")
	h.until(`document.querySelector(".tape .here .answer").innerText.includes("window")`)
	h.write("Width", "2")
	h.says("a circle is as high as it is wide")
	h.write("Height", "2")
	h.until(`!document.querySelector(".fault")`)
	if w := x.Box(1).Inputs.Windows[0]; w.Film || w.Shape != label.Circle {
		t.Errorf("the window is %+v", w)
	}
	h.visit("/boxes/1/making")
	h.until(`document.querySelector(".steps").textContent.includes("Draw a circle, ")`)
	h.visit("/boxes/1/dressing")
	h.do(chromedp.Evaluate[chromedp.Void](`document.getElementById("window-0").open = true`))
	h.press("button", "Take this window away")
	h.until(`!document.querySelector("#window-0")`)
	if w := x.Box(1).Inputs.Windows; len(w) != 0 {
		t.Errorf("it has the windows %+v still", w)
	}
}
