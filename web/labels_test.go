package web_test

import (
	"testing"

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
