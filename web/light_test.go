package web_test

import (
	"context"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	"brevium/web/webtest"
)

// Pages are as bright as the system is until one chooses; what is chosen stays from page to page; a
// drawing lies on a lit sheet by night, its card in its own colour; and a print is light always.
func TestByEveningLight(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	h := newHand(t, x, 1280, 800)
	system := func(scheme, media string) {
		t.Helper()
		h.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
			_, err := cdp.Call(ctx, t, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Media: media, Features: []*emulation.MediaFeature{{Name: "prefers-color-scheme", Value: scheme}}})
			return err
		}))
	}
	dark := func(want bool) {
		t.Helper()
		is := "false"
		if want {
			is = "true"
		}
		h.until(`String(getComputedStyle(document.body).backgroundColor.match(/\d+/)[0] < 90) == "` + is + `"`)
	}
	card := func() string {
		return h.value(`getComputedStyle(document.querySelector("#picture .drawing [fill]:not([fill=none])")).fill`)
	}
	system("light", "")
	h.visit("/boxes/1/box")
	dark(false)
	day := card()
	system("dark", "")
	dark(true)
	if night := card(); night != day || h.value(`getComputedStyle(document.querySelector("#picture .drawing")).backgroundColor`) == "rgba(0, 0, 0, 0)" {
		t.Errorf("the card is %s by day and %s by night", day, night)
	}
	system("dark", "print")
	dark(false)
	system("light", "")
	dark(false)
	h.press("button", "Light: as your system; press for evening")
	dark(true)
	h.press("link", "Boxes")
	dark(true)
	h.press("button", "Light: evening; press for day")
	system("dark", "")
	dark(false)
	h.press("button", "Light: day; press for as your system")
	dark(true)
}
