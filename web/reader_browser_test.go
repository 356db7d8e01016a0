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
	h.says("What is marked in red is not understood")
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

// A number that is pressed lights up the lines that it tells, those alone, and a line the number
// that tells it; what would mend the recipe is one press, and the text is mended with it.
func TestANumberShowsItsLine(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	h := newHand(t, x, 390, 844)
	h.visit("/read")
	h.write("The recipe", "carton 7 x 9 3/4, score 1 1/2 and 5 1/2, turn, 3/4, 3 3/4, ? and 8 1/4")
	h.press("button", "Read it")
	h.says("What is marked in red")
	lit := func(want string) {
		t.Helper()
		h.until(`[...document.querySelectorAll(".read-net path.told")].map(l => l.dataset.key).join() == "` + want + `"`)
		h.until(`[...document.querySelectorAll(".read-number[aria-pressed=true]")].map(b => b.dataset.use).join() == "` + want + `"`)
	}
	h.press("button", "5 1/2")
	lit("0-4-c4")
	h.until(`(() => { const at = document.querySelector(".read-net").getBoundingClientRect(); return at.top >= 0 && at.bottom <= innerHeight })()`)
	h.press("button", "9 3/4")
	lit("0-2-c2")
	h.press("button", "9 3/4")
	lit("")
	h.until(`document.querySelector('.read-net path[data-key="0-5-c5"]').dispatchEvent(new MouseEvent("click", {bubbles: true}))`)
	lit("0-5-c5")
	h.press("button", "Put 5")
	h.says("All of it is understood")
	h.until(`document.getElementById("f-text").value == "carton 7 x 9 3/4, score 1 1/2 and 5 1/2, turn, 3/4, 3 3/4, 5 1/4 and 8 1/4"`)
	h.press("button", "Make this box")
	h.until(`location.pathname.startsWith("/boxes/")`)
	if in := x.Box(1).Inputs; in.Style != "hinged-carton" {
		t.Errorf("the box is a %s", in.Style)
	}
}
