package web_test

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/web/webtest"
)

// At the table: see where a piece goes, drag it, keep it, look for better,
// stop, set the sheets aside, cut, and find the offcuts in the drawer.
func TestAJobInABrowser(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Lot(12, 12*measure.Inch, 12*measure.Inch, false)
	b := openBrowser(t, x)
	// The box's own sheets show where a piece goes too.
	b.visit("/boxes/1/sheets")
	b.do(js(`document.querySelector("[data-key]").dispatchEvent(new PointerEvent("pointerover", {bubbles: true}))`))
	b.until(`document.querySelectorAll(".where:not([hidden])").length == 1`)
	b.visit("/jobs")
	b.set(`[name="copies.1"]`, "5")
	b.press(`form.sheet-of-paper .btn-main`)
	b.says("no fewer can do")
	piece := func(n int) string { return fmt.Sprintf(`document.querySelectorAll("[data-key]")[%d]`, n) }
	// Resting on a piece, and going to it by keyboard, show where it goes.
	b.do(js(piece(0) + `.dispatchEvent(new PointerEvent("pointerover", {bubbles: true}))`))
	b.until(`document.querySelectorAll(".where:not([hidden])").length == 1`)
	b.press(`.stock h2`)
	b.do(js(`(() => {
		const where = (p) => p.dataset.key.split(" ")[1], shown = document.querySelector(".where:not([hidden])").id;
		window.other = [...document.querySelectorAll("[data-key]")].find((p) => where(p) != shown);
		window.other.focus();
	})()`))
	b.until(`document.querySelector(".where:not([hidden])").id == window.other.dataset.key.split(" ")[1]`)
	b.do(js(piece(1) + `.focus(); ` + piece(1) + `.dispatchEvent(new KeyboardEvent("keydown", {key: "Enter", bubbles: true}))`))
	b.until(`document.querySelector("#piece [name=x]")`)
	b.press(`#piece button[value=keep]`)
	b.until(`document.querySelector(".kept")`)
	if held := x.Job(1).Choices.Held; len(held) != 1 {
		t.Fatalf("held: %+v", held)
	}
	b.do(
		js(
			`document.querySelector(".stock [data-key][aria-label*='kept']").focus(); document.activeElement.dispatchEvent(new KeyboardEvent("keydown", {key: "Enter", bubbles: true}))`,
		),
	)
	b.until(`document.querySelector("#piece button[value=free]")`)
	b.press(`#piece button[value=free]`)
	b.until(`!document.querySelector(".stock .kept") && !document.querySelector(".htmx-request, .htmx-swapping, .htmx-settling, .htmx-added")`)
	// Dragging puts a piece down on the nearest tick.
	b.do(js(`(() => {
		const piece = [...document.querySelectorAll("[data-key]")].find((p) => p.getBBox().x == 0 && p.getBBox().y == 0);
		const r = piece.getBoundingClientRect(), scale = r.width / piece.getBBox().width;
		const at = (mm) => ({bubbles: true, button: 0, clientX: r.left + 20 + mm * scale, clientY: r.top + 20 + mm * scale});
		piece.dispatchEvent(new PointerEvent("pointerdown", at(0)));
		document.dispatchEvent(new PointerEvent("pointermove", at(12)));
		document.dispatchEvent(new PointerEvent("pointermove", at(13)));
		document.dispatchEvent(new PointerEvent("pointerup", at(13)));
	})()`))
	b.until(`document.querySelector(".stock .kept")`)
	if p := x.Job(1).Choices.Held[0].Pieces[0]; p.X != measure.Inch/2 || p.Y != measure.Inch/2 {
		t.Errorf("dragged by 13 mm it lies at %v, %v mm; want half an inch", p.X.MM(), p.Y.MM())
	}
	// A search can be watched, and stopped long before its time.
	b.choose("#seconds", "300")
	b.press(`.search .btn-main`)
	b.until(`!document.querySelector("#stop-search").hidden`)
	b.until(`document.querySelector(".search [role=status]").innerText.includes("used")`)
	b.press(`#stop-search`)
	b.says("the best is kept")
	b.press(`form[action$="/begin"] button`)
	b.says("It is cut: take the sheets off")
	b.visit("/drawer")
	b.says("reserved")
	b.visit("/jobs/1")
	b.press(`form[action$="/finish"] button`)
	b.says("these offcuts are in it")
	b.visit("/drawer")
	b.until(
		`document.querySelector(".lots").textContent.includes("offcut of fair") || document.querySelector(".lots").textContent.includes("offcut of 5")`,
	)
	if got := x.Counts(); !strings.Contains(got, "1/0o") {
		t.Errorf("the drawer holds %s", got)
	}
}
