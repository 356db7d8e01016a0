package web_test

import (
	"testing"

	"brevium/web/webtest"
)

// What is not understood is pressed in the text, and lies under the hand to be written
// anew, whatever signs and lines stand before it; read again, the box is made of it.
func TestAMisreadIsMendedByAPress(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	h := newHand(t, x, 1280, 800)
	h.visit("/read")
	h.write("The recipe", "Base 7 × 6 in\nzonk at 1½ on all four sides.\nLid 6 1⁄16 × 5 1⁄16, score 1 all round")
	h.press("button", "Read it")
	h.says("What is marked is not understood")
	h.press("button", "zonk")
	h.until(`(() => { const t = document.activeElement; return t.value.slice(t.selectionStart, t.selectionEnd) == "zonk" })()`)
	h.key("score")
	h.press("button", "Read it")
	h.says("All of it is understood")
	h.press("button", "Make this box")
	h.until(`location.pathname.startsWith("/boxes/")`)
	if in := x.Box(1).Inputs; in.Style != "tray-lid" {
		t.Errorf("the box is a %s", in.Style)
	}
}
