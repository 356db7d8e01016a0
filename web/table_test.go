package web_test

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/web/webtest"
)

// A box is drawn as a table from an empty sheet in the browser, reloaded half-way; a
// column is spoiled and it is said, and mended; it is kept, holds what goes in, and is
// printed.
func TestAStyleIsDrawnAsATable(t *testing.T) {
	defer style.SetOwn(nil)
	x := webtest.NewTable(t)
	h := newHand(t, x, 1280, 900)
	h.visit("/styles/table?from=nothing")
	for _, button := range []string{"+ column", "+ row on top", "+ row below"} {
		h.press("button", button)
	}
	h.until(`document.querySelectorAll(".own-grid tbody tr").length === 3`)
	h.until(`document.querySelectorAll(".own-grid thead th").length === 2`)
	h.visit("/styles/table")
	columns := []string{"H", "L", "H"}
	// The first of the two buttons puts a column before, the other behind.
	h.do(js(`document.querySelector("button[value=column-last]").click()`))
	h.until(`document.querySelectorAll(".own-grid thead th").length === 3`)
	for i, f := range columns {
		h.write(fmt.Sprintf("Width of column %d", i+1), f)
	}
	for i, f := range []string{"H", "W", "H"} {
		h.write(fmt.Sprintf("Height of row %d", i+1), f)
	}
	h.write("Row 1, column 2", "back")
	h.write("Row 2, column 1", "left")
	h.write("Row 2, column 3", "right")
	h.write("Row 3, column 2", "front")
	h.visit("/styles/table") // all of it is there after a reload
	if got := h.find("textbox", "Row 3, column 2").Value; got != "front" {
		t.Errorf("after a reload the front is %q", got)
	}
	h.until(`document.querySelector(".own-gives").innerText.includes("It folds")`)
	h.press("button", "left") // in the drawing
	h.until(`document.activeElement.getAttribute("aria-label") === "left is a"`)
	h.write("Width of column 3", "H/0")
	h.until(`document.querySelector(".own-gives .fault")?.innerText.includes("Column 3")`)
	h.press("button", "Undo")
	h.until(`document.querySelector(".own-gives").innerText.includes("It folds")`)
	h.write("Its name", "Four flaps")
	h.write("Its id", "four-flaps")
	h.press("button", "Keep it among the kinds of box")
	h.until(`location.pathname === "/styles"`)
	in := design.New("Soap", measure.In, "four-flaps")
	in.Things = []contents.Thing{{ID: 1, Name: "soap", Shape: contents.Block, Length: 3 * measure.Inch, Width: 2 * measure.Inch, Height: measure.Inch, Count: 1}}
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	if page := x.Words(fmt.Sprintf("/boxes/%d/making", id)); !strings.Contains(page, "Score 1 1/16 in from all four edges.") {
		t.Errorf("its steps: %.400s", page)
	}
	if code, pdf, _ := x.Get(fmt.Sprintf("/boxes/%d/sheet.pdf?paper=a4", id)); code != 200 || !strings.HasPrefix(pdf, "%PDF") {
		t.Errorf("its print: %d", code)
	}
}

// A ring that is broken in the table is said with by how much, and mended it folds again.
func TestABrokenRingIsSaid(t *testing.T) {
	x := webtest.NewTable(t)
	h := newHand(t, x, 1280, 900)
	h.visit("/styles/table?from=wallet-box")
	h.until(`document.querySelector(".own-gives").innerText.includes("It folds")`)
	h.write("Degrees between back.left and back", "40")
	h.until(`document.querySelector(".own-gives .fault")?.innerText.includes("a ring does not close")`)
	h.press("button", "Undo")
	h.until(`document.querySelector(".own-gives").innerText.includes("It folds")`)
}

// A tray gets a lid in the browser: one piece more, what it goes over, a thumb notch and a
// face that is parted by a line; each is in the drawing at once, and there after a reload.
func TestALidIsDrawnAsATable(t *testing.T) {
	x := webtest.NewTable(t)
	h := newHand(t, x, 1280, 900)
	h.visit("/styles/table?from=tray")
	folds := `document.querySelector(".own-gives").innerText.includes("It folds")`
	h.until(folds)
	h.press("button", "Add piece")
	h.until(`location.search === "?piece=1" && document.querySelectorAll(".own-pieces button").length === 3`)
	h.write("This piece is called", "Lid")
	h.write("Height of row 1", "W")
	for n, b := range []string{"column-first", "column-last", "row-first", "row-last"} {
		h.rest()
		h.do(js(`document.querySelector("button[value=` + b + `]").click()`))
		h.until(fmt.Sprintf(`document.querySelectorAll(%q).length === %d`, []string{".own-grid thead th", ".own-grid tbody tr"}[n/2], n%2+2))
	}
	for _, f := range []struct{ field, text string }{
		{"Row 1, column 2", "back"}, {"Row 2, column 1", "left"}, {"Row 2, column 3", "right"}, {"Row 3, column 2", "front"},
		{"Width of column 1", "3/4 in"}, {"Width of column 3", "3/4 in"}, {"Height of row 1", "3/4 in"}, {"Height of row 3", "3/4 in"},
	} {
		h.write(f.field, f.text)
	}
	h.press("button", "A piece goes over another")
	h.until(`document.querySelector("[name='over.0.outer_span']")?.value === "L + a"`)
	h.write("Width of column 2", "L + a")
	h.write("Height of row 2", "W + a")
	h.write("Fit 1: the outer walls come down", "3/4 in")
	h.write("Fit 1: the inner walls are high", "H")
	h.until(folds)
	h.visit("/styles/table?piece=1")
	if got := h.find("textbox", "Fit 1: the outer walls come down").Value; got != "3/4 in" {
		t.Errorf("after a reload the lid comes down %q", got)
	}
	h.do(js(`document.querySelector("button[value=notch]").closest("details").open = true`))
	h.press("button", "Add notch")
	h.until(folds + ` && document.querySelector("[name='bite.0.face']")?.value === "front"`)
	h.write("Cut 1, its radius", "1/0")
	h.until(`document.querySelector(".own-gives .fault") !== null`)
	h.press("button", "Undo")
	h.until(folds + ` && document.querySelector("[name='bite.0.radius']").value === "1/4 in"`)
	h.do(js(`document.querySelector("button[value=divide]").closest("details").open = true`))
	h.press("button", "Part it")
	h.until(`document.querySelector("[name='part.0.0']")?.value === "base.a"`)
	h.press("button", "Make base whole again")
	h.until(`document.querySelector("[name='part.0.0']") === null`)
}

// A tray's front gets a dip, pressed in the drawing alone: the face, and two of its points;
// the part that falls away is left without a name.
func TestAnArcIsPressedInTheDrawing(t *testing.T) {
	x := webtest.NewTable(t)
	h := newHand(t, x, 1280, 900)
	h.visit("/styles/table?from=tray")
	folds := `document.querySelector(".own-gives").innerText.includes("It folds")`
	h.until(folds + ` && document.querySelector("button[aria-label^='A line over']")?.checkVisibility() !== true`)
	h.do(js(`document.querySelector(".parting summary").click()`))
	h.press("button", "front")
	h.until(`document.querySelector("[name='divide.face']").value === "front"`)
	h.write("an arc that rises by", "H/2")
	h.press("button", "A line over front, bottom left")
	h.until(`document.querySelector(".point-pick[aria-pressed=true]")?.dataset.key === "bottom left"`)
	h.press("button", "A line over front, bottom right")
	h.until(`document.querySelector("[name='part.0.0']")?.value === "front.a"`)
	h.until(`document.querySelector(".own-gives .fault")?.innerText.includes('the face "front.a" hangs on nothing') && document.querySelector(".own-net .fault-place") !== null`)
	h.write("Part 1 of front", " ")
	h.rest()
	h.until(folds)
	// A fold along an arc goes from side to side; another is refused, and nothing changes.
	h.press("button", "left")
	h.until(`document.querySelector("[name='divide.face']").value === "left"`)
	h.write("an arc that rises by", "1/4 in")
	h.write("folded by degrees", "90")
	h.press("button", "A line over left, top left")
	h.press("button", "A line over left, bottom right")
	h.until(`document.querySelector(".parting [role=alert]")?.innerText.includes("point opposite")`)
	h.write("an arc that rises by", "-1/4 in")
	h.press("button", "A line over left, top left")
	h.press("button", "A line over left, bottom left")
	h.until(`document.querySelectorAll("[name^='part.1.']").length === 12`)
	h.until(`document.querySelector(".own-gives .fault")?.innerText.includes("a ring does not close")`) // a wall that bends does not stand on a straight fold
	h.press("button", "Undo")
	h.until(`document.querySelectorAll("[name^='part.1.']").length === 0`)
	h.visit("/styles/table")
	h.until(folds + ` && document.querySelector(".own-gives .own-net path") !== null`)
	h.do(js(`document.querySelector(".parting").open = true; document.querySelector(".parting").scrollIntoView()`))
	if got := h.find("textbox", "Part 1 of front").Value; got != "" {
		t.Errorf("after a reload what falls away is called %q", got)
	}
}
