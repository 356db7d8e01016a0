package web_test

import (
	"context"
	"fmt"
	"time"

	"github.com/chromedp/cdproto/cdp"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"

	"brevium/web/webtest"
)

// tellsOfItself is what each page of a test tells of itself: whether something typed waits to be
// sent, and where the last presses landed.
const tellsOfItself = `(() => {
	let typed = 0;
	addEventListener("input", (event) => { if (event.target.closest?.("[hx-trigger*=delay]")) typed = performance.now(); }, true);
	addEventListener("htmx:beforeSend", () => { typed = 0; }, true);
	window.pageIsStill = () => document.readyState === "complete" && (!typed || performance.now() - typed > 1500) &&
		!document.querySelector(".htmx-request, .htmx-swapping, .htmx-settling");
	window.pressed = [];
	addEventListener("click", (event) => { window.pressed.push(event.target); }, true);
})()`

// watch has each page that opens tell of itself.
func (b *browser) watch() {
	b.t.Helper()
	b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: tellsOfItself})
		return err
	}))
}

// still waits until nothing that was typed waits to be sent and no answer is on its way. A
// page that never rests, since its server was told to wait, is pressed all the same.
func (b *browser) still() {
	b.t.Helper()
	for end := time.Now().Add(webtest.Patience / 6); time.Now().Before(end); time.Sleep(15 * time.Millisecond) {
		if b.value(`!window.pageIsStill || pageIsStill()`) == "true" {
			return
		}
	}
}

// aimsAt scrolls to a thing and says where its middle is, "" while it is not in sight; what is drawn by
// its label is pressed there.
const aimsAt = `((selector) => {
	const found = document.querySelector(selector);
	const at = found && (found.getBoundingClientRect().width > 1 ? found : found.labels?.[0]);
	if (!at || !at.checkVisibility({visibilityProperty: true})) return "";
	at.scrollIntoView({block: "center", inline: "center", behavior: "instant"});
	const r = [...at.getClientRects()].find((r) => r.width > 1 && r.height > 1);
	return r ? (r.left + r.width / 2) + " " + (r.top + r.height / 2) : "";
})(%q)`

// press clicks what a hand would: on a page that stands still, and once more where the page
// moved away from under it between press and release, so that the click landed elsewhere. What
// is gone after a press was met by it.
func (b *browser) press(selector string) {
	b.t.Helper()
	// A page that opened since, and knows nothing of this, was opened by the press.
	landed := fmt.Sprintf(`!window.pressing || window.pressed.some((at) => at.closest?.(%q))`, selector)
	tried := false
	for end := time.Now().Add(webtest.Patience); time.Now().Before(end); time.Sleep(25 * time.Millisecond) {
		b.still()
		var x, y float64
		if n, _ := fmt.Sscan(b.value(fmt.Sprintf(aimsAt, selector)), &x, &y); n < 2 {
			if tried {
				return
			}
			continue
		}
		b.do(js("window.pressed = []; window.pressing = true; 0"), chromedp.MouseClickXY(x, y))
		tried = true
		for range 40 {
			if b.value(landed) == "true" {
				return
			}
			time.Sleep(25 * time.Millisecond)
		}
	}
	b.t.Fatalf("at %s: %s is never met by a press", b.where(), selector)
}
