package web_test

import (
	"strconv"
	"testing"

	"github.com/chromedp/chromedp"

	"brevium/web/webtest"
)

// With one paper and one label the ticket of Papers on top is no longer than 900 px at a desk.
func TestTheTicketOfPapersIsShort(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "base")
	x.Post("/boxes/1/dressing", "labels.add", "label")
	b := openBrowser(t, x)
	b.do(chromedp.EmulateViewport(1280, 800))
	b.visit("/boxes/1/dressing")
	if high, err := strconv.Atoi(b.value(`Math.round(document.querySelector(".ticket").getBoundingClientRect().height)`)); err != nil || high > 900 {
		t.Errorf("the ticket is %d px high, %v", high, err)
	}
}
