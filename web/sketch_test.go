package web_test

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/web/webtest"
)

// A sketch is photographed and its lines mended by hand: one is taken out, a fold made a cut and a
// fold again, an end dragged away and put back by the keys, a line drawn; what is made of it is what
// is seen then.
func TestASketchIsMendedByHand(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	h := newHand(t, x, 1280, 900)
	file := filepath.Join(t.TempDir(), "sketch.png")
	if err := os.WriteFile(file, webtest.Sketched(t), 0o600); err != nil {
		t.Fatal(err)
	}
	h.visit("/read")
	h.press("link", "From a photograph of a sketch")
	h.until(`location.pathname == "/read/sketch"`)
	h.do(chromedp.SetUploadFiles(`#picture-file`, []string{file}))
	h.press("button", "Next: where the sheet lies")
	h.says("How large is it really?")
	h.write("How wide", "100 mm")
	h.write("How high", "80 mm")
	h.pick("Its squares", "5 mm")
	h.until(`[0, 0, 100, 0, 100, 100, 0, 100].every((v, i) => document.getElementById("f-" + "xy"[i % 2] + (i >> 1)).value = String(v))`)
	h.press("button", "Find its lines")
	h.says("12 lines are found")
	h.says("too faint to be seen")
	// The line that lies so, from its first end on.
	line := func(kind string, x1, y1, x2, y2 int) string {
		return fmt.Sprintf(`document.querySelector('[name="lines"]').value.split("\n").findIndex(r => { const w = r.split(/\s+/); return w[0] == %q && [%d, %d, %d, %d].every((v, i) => Math.abs(Number(w[i + 1]) - v) < 0.6) })`, kind, x1, y1, x2, y2)
	}
	either := func(kind string, x1, y1, x2, y2 int) string {
		return "Math.max(" + line(kind, x1, y1, x2, y2) + ", " + line(kind, x2, y2, x1, y1) + ")"
	}
	choose := func(of string) {
		t.Helper()
		h.until(of + " >= 0")
		h.until(`(() => { const l = document.querySelector('[data-line="' + (` + of + `) + '"]'); l.focus(); return document.activeElement == l })()`)
		h.key(kb.Enter)
		h.until(`document.querySelector(".sketch-line.chosen") == document.activeElement`)
	}
	slit := either("cut", 25, 10, 25, 25)
	choose(slit)
	h.press("button", "Take it out")
	h.until(slit + " < 0 && document.querySelectorAll('.sketch-line').length == 11")
	choose(either("fold", 10, 25, 90, 25))
	h.press("button", "It is a cut")
	h.until(either("cut", 10, 25, 90, 25) + " >= 0")
	h.press("button", "It is a fold")
	choose(either("fold", 10, 25, 90, 25))
	h.key(kb.ArrowDown, kb.ArrowDown)
	h.until(either("fold", 10, 26, 90, 26) + " >= 0")
	h.key(kb.ArrowUp, kb.ArrowUp)
	h.until(either("fold", 10, 25, 90, 25) + " >= 0")
	at := func(mmX, mmY int) (x, y float64) {
		t.Helper()
		said := h.value(fmt.Sprintf(`(() => { const p = new DOMPoint(%d, %d).matrixTransform(document.getElementById("sketch").getScreenCTM()); return p.x + " " + p.y })()`, mmX, mmY))
		if _, err := fmt.Sscan(said, &x, &y); err != nil {
			t.Fatal(said, err)
		}
		return x, y
	}
	// The end at the right edge is dragged in to 60 mm, and out again.
	for _, way := range [][2]int{{90, 60}, {60, 90}} {
		x1, y1 := at(way[0], 25)
		x2, y2 := at(way[1], 25)
		h.drag(x1, y1, x2, y2)
		h.until(either("fold", 10, 25, way[1], 25) + " >= 0")
	}
	// And the slit is drawn again, by two presses.
	h.press("button", "Draw a line")
	for _, end := range [][2]int{{25, 10}, {25, 25}} {
		px, py := at(end[0], end[1])
		h.do(chromedp.MouseClickXY(px, py))
	}
	h.until(slit + " >= 0")
	h.press("button", "Make its pieces")
	h.until(`location.pathname == "/read"`)
	h.says("It is an open tray")
	h.until(`document.getElementById("f-text").value == "Piece A: 80 x 60 mm, with the 80 side at the top score at 15 and 65, turn, score at 15 and 45."`)
	h.press("button", "Make this box")
	h.until(`location.pathname.startsWith("/boxes/")`)
}
