package web_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/sample"
	"brevium/web/webtest"
)

const mostActions = 25

// unitsOf are the two ways every task is done, one a run.
var unitsOf = []struct {
	name, button string
	unit         measure.Unit
}{{"inches", "in (inches)", measure.In}, {"centimetres", "cm (centimetres)", measure.CM}}

// A grandmother has four jars and only the keyboard, and knows no key of its own.
func TestTaskFourJarsByKeyboard(t *testing.T) {
	t.Parallel()
	for way, u := range unitsOf {
		if !sample.Other(0, way) {
			continue
		}
		t.Run(u.name, func(t *testing.T) {
			h := newHand(t, webtest.NewTable(t), 1280, 800)
			h.visit("/")
			h.says("No boxes yet")
			tabTo := func(words string) {
				t.Helper()
				for range 20 {
					if strings.Contains(h.focus().Name, words) {
						return
					}
					h.key(kb.Tab)
				}
				t.Fatalf("Tab does not come to “%s”; it is at %q", words, h.focus().Name)
			}
			// Back from where the work begins to the head of the page.
			backTo := func(words string) {
				t.Helper()
				for range 8 {
					if strings.Contains(h.focus().Name, words) {
						return
					}
					h.keys++
					h.do(chromedp.KeyEvent(kb.Tab, chromedp.KeyModifiers(chromedp.ModifierShift)))
				}
				t.Fatalf("Shift and Tab do not come to “%s”; they are at %q", words, h.focus().Name)
			}
			if u.unit != measure.In {
				backTo("centimetres")
				h.key(kb.Enter)
				h.until(`document.querySelector("#units-cm")?.getAttribute("aria-pressed") == "true"`)
			}
			tabTo("From what goes in")
			h.key(kb.Enter)
			h.says("measure its widest places")
			tabTo("Across")
			across, high := []string{"1", " ", "7", "/", "8"}, []string{"2", " ", "1", "/", "2"}
			if u.unit != measure.In {
				across, high = []string{"4", ".", "8"}, []string{"6", ".", "2"}
			}
			h.key(across...)
			h.key(kb.Tab)
			h.key(high...)
			h.key(kb.Tab, "4")
			tabTo("Make this box")
			h.key(kb.Enter)
			h.says("How they stand")
			h.until(`document.activeElement.id == "main"`)
			backTo("Making")
			h.key(kb.Enter)
			h.says("on the fence")
			h.until(`document.activeElement.id == "main"`)
			tabTo("Print")
			h.key(kb.Enter)
			tabTo("Instruction sheet on")
			h.key(kb.Enter)
			h.within(mostActions)
			if h.keys > 60 {
				t.Errorf("it took %d key presses; want at most 60", h.keys)
			}
		})
	}
}

// Of two hundred boxes five are found, tagged and printed as one document.
func TestTaskFiveOfTwoHundred(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for i := range 200 {
		in := design.New(fmt.Sprintf("Box %03d", i), measure.In, "tray")
		if i%40 == 7 {
			in.Name = "Stall " + in.Name
		}
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
	}
	h := newHand(t, x, 1280, 800)
	h.visit("/")
	h.writeInto("searchbox", "Find", "stall")
	h.until(`document.querySelectorAll("#boxes li.box").length === 5`)
	for _, n := range []string{"007", "047", "087", "127", "167"} {
		h.press("checkbox", "Choose Stall Box "+n)
	}
	h.says("5 boxes chosen")
	h.writeInto("combobox", "Tag", "winter")
	h.press("button", "Tag")
	h.says("5 boxes are tagged “winter”")
	if got := h.tells(`[...document.querySelectorAll(".tags a")].map(a => a.innerText).join()`); !strings.Contains(got, "winter 5") {
		t.Errorf("the tags are %s", got)
	}
	h.says("5 boxes chosen") // still, for what is next
	print := h.find("button", "Print as one")
	h.within(12)
	if print.Name == "" {
		t.Error("there is nothing to print with")
	}
}

// One key opens all that can be gone to or pressed: a box by its name, then a button of its page.
func TestEverythingByOneKey(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for _, name := range []string{"Owl lantern", "Jars", "Owl box"} {
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), design.New(name, measure.In, "tray")); err != nil {
			t.Fatal(err)
		}
	}
	h := newHand(t, x, 1280, 800)
	h.visit("/")
	h.key("/")
	h.until(`document.activeElement.id === "go-find"`)
	h.key("l", "a", "n", "t", "e", "r", "n")
	h.until(`document.querySelector("#go-list a")?.innerText === "Owl lantern"`)
	h.key(kb.Enter)
	h.says("Say what goes in the box")
	h.until(`document.readyState == "complete"`)
	h.key("/")
	h.until(`document.activeElement.id === "go-find"`)
	h.key("n", "e", "x", "t")
	h.until(`document.querySelector("#go-list button")?.innerText === "Next: which box"`)
	h.key(kb.Enter)
	h.says("Choose the kind of box")
	h.until(`document.readyState == "complete"`)
	h.key("/")
	h.until(`document.activeElement.id === "go-find"`)
	h.key("c", "u", "p", "b")
	h.until(`document.querySelector("#go-list a")?.innerText === "The cupboard of supplies"`)
	h.key(kb.ArrowDown, kb.Enter)
	h.says("The cupboard")
}

// prints presses a print, and looks at what opens: its own title.
func (h *hand) prints(x *webtest.Table, name, title string) {
	h.t.Helper()
	h.find("link", name+" on")
	h.actions++
	at := h.value(fmt.Sprintf(`[...document.querySelectorAll(".prints a")].find(a => a.innerText.startsWith(%q)).getAttribute("href")`, name))
	if code, pdf, _ := x.Get(at); code != http.StatusOK {
		h.t.Errorf("%s: %d", name, code)
	} else if got, _ := webtest.Printed(h.t, pdf); got != title {
		h.t.Errorf("%s opens %q", name, got)
	}
}

// A teacher makes twelve kits: cut plan, shopping list and sheet are printed, and the lists of the kits.
func TestTaskTwelveKits(t *testing.T) {
	t.Parallel()
	for way, u := range unitsOf {
		if !sample.Other(0, way) {
			continue
		}
		t.Run(u.name, func(t *testing.T) {
			x := webtest.NewTable(t)
			h := newHand(t, x, 1280, 800)
			h.visit("/")
			h.inUnit(u.button)
			h.press("link", "From what goes in")
			h.write("What is it?", "Paint set")
			h.pick("Shape", "a block")
			sizes := map[measure.Unit][3]string{measure.In: {"6", "2 1/2", "3/4"}, measure.CM: {"15", "6.5", "2"}}[u.unit]
			h.write("Length", sizes[0])
			h.write("Width", sizes[1])
			h.write("Height", sizes[2])
			h.write("How many", "1")
			h.press("button", "Make this box")
			h.press("link", "5 Sheets")
			h.write("How many boxes", "12")
			h.press("link", "Next: making")
			h.press("DisclosureTriangle", "Print")
			for _, print := range []string{"Cut plan", "Shopping list", "Instruction sheet"} {
				h.prints(x, print, print+": Box for 1 × Paint set")
			}
			h.press("link", "Boxes")
			h.press("checkbox", "Choose Box for 1")
			h.press("button", "Make a job")
			h.press("link", "Kits of it for a class")
			h.says("In each bag")
			h.press("button", "Print these lists")
			h.within(mostActions)
		})
	}
}

// A stall holder makes sixty little bags, on a phone.
func TestTaskSixtyBagsByTouch(t *testing.T) {
	t.Parallel()
	for way, u := range unitsOf {
		if !sample.Other(0, way) {
			continue
		}
		t.Run(u.name, func(t *testing.T) {
			x := webtest.NewTable(t)
			h := newHand(t, x, 390, 844).byTouch()
			h.visit("/")
			h.inUnit(u.button)
			h.press("link", "From a size")
			h.press("radio", "Fold-top bag")
			if u.unit == measure.In {
				h.write("Width", "3 9/16")
				h.pick("Cut from", "8 1/2 × 11")
			} else {
				h.write("Width", "9.9")
				h.pick("Cut from", "A4")
			}
			h.press("button", "Make this box")
			h.press("link", "5 Sheets")
			h.write("How many boxes", "60")
			h.press("button", "Take it:")
			h.press("link", "What it costs")
			h.until(`(() => { // the price of one, without scrolling
				const price = document.querySelector("[data-is='cost each']")?.getBoundingClientRect();
				return price && price.width > 0 && price.top >= 0 && price.bottom <= innerHeight && price.left >= 0 && price.right <= innerWidth;
			})()`)
			h.within(20)
			if in := x.Box(1).Inputs; in.Copies != 60 || in.Style != "fold-top-bag" {
				t.Errorf("made %d of %s", in.Copies, in.Style)
			}
		})
	}
}

// The owner of one precious sheet, whose pattern runs one way, makes the
// biggest box of it, and the job takes that very sheet.
func TestTaskOnePreciousSheet(t *testing.T) {
	t.Parallel()
	for way, u := range unitsOf {
		if !sample.Other(0, way) {
			continue
		}
		t.Run(u.name, func(t *testing.T) {
			x := webtest.NewTable(t)
			h := newHand(t, x, 1280, 800)
			h.visit("/")
			h.inUnit(u.button)
			h.press("link", "Drawer")
			h.write("Card", "Meadow")
			h.pick("Its pattern", "runs one way up")
			h.pick("Sheet", "A4")
			h.press("button", "Put it in")
			h.press("link", "Boxes")
			h.press("link", "From a sheet")
			h.find("combobox", "The sheet")
			h.press("radio", "Open tray")
			h.says("The biggest that A4 gives")
			h.press("button", "Make this box")
			h.press("link", "5 Sheets")
			h.press("button", "Cut it from the drawer")
			h.says("From the drawer: 1 sheet of A4 of Meadow")
			h.within(12)
			in := x.Box(1).Inputs
			if in.Card.Direction != paper.OneWayUp || len(in.Sheets) != 1 || in.Sheets[0].Name != "A4" {
				t.Errorf("the box is of %+v from %+v", in.Card, in.Sheets)
			}
		})
	}
}

// A maker has a recipe as somebody jotted it, and wants to make it.
func TestTaskARecipe(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	h := newHand(t, x, 1280, 800)
	h.visit("/")
	h.press("link", "From a recipe")
	h.write("The recipe", "Base 8 x 6 1/2, score 1 1/2 all round. Lid 6 5/8 x 5 1/8, score 3/4 all round.")
	h.press("button", "Read it")
	h.press("button", "Make")
	h.press("link", "6 Making")
	h.until(`document.querySelector(".score-numbers b").innerText == "1 1/2"`)
	h.within(10)
	if in := x.Box(1).Inputs; in.Style != "tray-lid" {
		t.Errorf("made a %s", in.Style)
	}
}

// A maker knows a box by its sizes and wants the numbers on the board.
func TestTaskByItsSizes(t *testing.T) {
	t.Parallel()
	for way, u := range unitsOf {
		if !sample.Other(0, way) {
			continue
		}
		t.Run(u.name, func(t *testing.T) {
			h := newHand(t, webtest.NewTable(t), 1280, 800)
			h.visit("/")
			h.inUnit(u.button)
			h.press("link", "From a size")
			h.press("radio", "Base with a lift-off lid")
			sizes := map[measure.Unit][4]string{measure.In: {"4", "3", "1 1/2", "3/4"}, measure.CM: {"10", "8", "4", "2"}}[u.unit]
			h.write("Length", sizes[0])
			h.write("Width", sizes[1])
			h.write("Height", sizes[2])
			h.press("button", "Make this box")
			h.write("Lid depth", sizes[3])
			h.press("link", "Next: will it fit")
			h.press("radio", "I set it myself")
			h.write("How much bigger the lid is", map[measure.Unit]string{measure.In: "1/16", measure.CM: "0.2"}[u.unit])
			h.press("link", "6 Making")
			h.until(`document.querySelector(".score-numbers b").innerText == "` + sizes[2] + `"`)
			h.within(mostActions)
		})
	}
}

// A sheet that is not used is said, with why.
func TestASheetThatIsPassedOverIsSaid(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/box", "card.name", "Meadow")
	lots := []drawer.Lot{{Card: paper.Card{Name: "meadow", GSM: 240, Direction: paper.OneWayUp}, Sheet: "A4", Width: 210 * measure.Millimetre, Height: 297 * measure.Millimetre, Count: 1}}
	if err := x.Store.Of(t.Context()).AddLots(t.Context(), lots); err != nil {
		t.Fatal(err)
	}
	x.Post("/jobs", "copies.1", "1")
	_, body, _ := x.Get("/jobs/1")
	if !strings.Contains(body, "1 sheet of A4 of meadow: its pattern runs one way up, and the box says that it has no direction") {
		t.Error("the sheet in the drawer is passed over silently")
	}
}
