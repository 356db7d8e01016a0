package web_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/sample"
	"brevium/core/style"
	"brevium/web/webtest"
)

// The unit buttons work on every page that has them, and what was typed there
// stays.
func TestUnitButtonsOnEveryPage(t *testing.T) {
	t.Parallel()
	x, pages := full(t)
	h := newHand(t, x, 1280, 800)
	for n, page := range pages {
		if !sample.Takes(t, n) || strings.Contains(page, "nowhere") || strings.Contains(page, "deleted") || strings.HasSuffix(page, "/bench") {
			continue // at the bench there is nothing but the move
		}
		unit := []string{"cm (centimetres)", "in (inches)"}[n/4%2]
		h.visit(page)
		h.press("button", unit)
		path, _, _ := strings.Cut(page, "?")
		h.until(fmt.Sprintf(`location.pathname == %q && document.querySelector(".units [aria-pressed=true]").innerText.startsWith(%q)`, path, unit[:2]))
	}
	h.visit("/new")
	h.write("What is it?", "Thimble")
	h.write("How many", "7")
	h.press("button", "mm (millimetres)")
	h.until(`document.querySelector(".units [aria-pressed=true]").innerText.startsWith("mm")`)
	if name, n := h.find("textbox", "What is it?").Value, h.find("textbox", "How many").Value; name != "Thimble" || n != "7" {
		t.Errorf("in another unit it is %s × %q", n, name)
	}
}

// By keyboard any kind of box can be chosen: the list of those that go keeps its
// order under the arrow keys, and the focus stays in it; one of the others is a
// press away with its reason, and when it is chosen all the same it is said.
func TestBoxesAreChosenByKeyboard(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	h := newHand(t, x, 1280, 800)
	h.visit("/boxes/1/box")
	order := func() string {
		return h.value(`[...document.querySelectorAll(".styles > .style-tile input")].map(e => e.value).join(" ")`)
	}
	before := order()
	h.do(chromedp.Focus(`input[name=style]:checked`))
	h.key(kb.ArrowUp)
	h.until(`document.querySelector(".tape .here .answer").innerText == "Open tray"`)
	if at := h.focus(); !strings.HasPrefix(at.Name, "Open tray") {
		t.Errorf("the focus is at %q", at.Name)
	}
	if order() != before {
		t.Errorf("the list changed its order under the keys: %s, then %s", before, order())
	}
	h.press("link", "Kinds that don’t fit: see why")
	h.until(`document.querySelector("#not-going #style-tray-double")`)
	h.do(chromedp.Focus(`#style-tray-double`))
	h.key(" ")
	h.says("Not taken: Kind of box “Double-walled tray”")
	if at := h.focus(); !strings.HasPrefix(at.Name, "Double-walled tray") {
		t.Errorf("refused, the focus is at %q", at.Name)
	}
}

// A first look at Which box draws the kinds in sight, and the others as they are scrolled to; what was
// seen stays in its order when another is chosen.
func TestKindsComeAsTheyAreScrolledTo(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := design.New("Plain", measure.MM, "hinged-carton")
	if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
		t.Fatal(err)
	}
	h := newHand(t, x, 1280, 800)
	h.visit("/boxes/1/box")
	const shown = `[...document.querySelectorAll(".styles > .style-tile input")].map(e => e.value).join(" ")`
	if n := len(strings.Fields(h.value(shown))); n != 6 {
		t.Errorf("%d kinds are drawn at first; want 6", n)
	}
	var want []string
	for _, s := range style.Listed() {
		want = append(want, s.ID)
	}
	for range want {
		if h.value(`document.querySelectorAll("#more-kinds").length`) == "0" {
			break
		}
		n := h.value(`document.querySelectorAll(".style-tile").length`)
		h.until(`(() => { // a hand scrolls again where nothing came
		  const l = document.querySelector(".styles");
		  l.scrollTop = l.scrollTop > 0 ? 0 : l.scrollHeight;
		  return document.querySelectorAll(".style-tile").length != ` + n + ` || !document.querySelector("#more-kinds");
		})()`)
	}
	if got := h.value(shown); got != strings.Join(want, " ") {
		t.Errorf("scrolled to its end the list has %s; want %s", got, strings.Join(want, " "))
	}
	if bare := h.value(`[...document.querySelectorAll(".styles > .style-tile:not(:has(svg))")].map(e => e.id).join(" ")`); bare != "" {
		t.Errorf("no picture is there of %s", bare)
	}
	h.do(chromedp.Click("#tile-clam-box"))
	h.until(`document.querySelector(".tape .here .answer").innerText.startsWith("Clam box")`)
	after := strings.Fields(h.value(shown)) // those that fit at the sizes of the one before
	if rest := slices.DeleteFunc(want, func(id string) bool { return !slices.Contains(after, id) }); len(after) <= 6 || !slices.Equal(after, rest) {
		t.Errorf("with another chosen the list has %s", after)
	}
}

// What is open stays open and the focus stays where it was, whatever changes
// around them; undone to the start, the button that did it keeps it.
func TestOpenThingsStayOpen(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	h := newHand(t, x, 1280, 800)
	h.visit("/boxes/1/box")
	h.press("DisclosureTriangle", "Name, weight, colours and print")
	h.write("Weight", "300")
	h.until(`document.querySelector("#undo").innerText.includes("card")`)
	if h.value(`document.querySelector("#f-card-gsm").closest("details").open`) != "true" {
		t.Error("the card's fields closed after a change")
	}
	if at := h.focus(); !strings.HasPrefix(at.Name, "Thickness") {
		t.Errorf("after Tab the focus is at %q", at.Name)
	}
	h.press("button", "Undo")
	h.until(`document.querySelector("#undo").getAttribute("aria-disabled") == "true"`)
	if at := h.focus(); !strings.HasPrefix(at.Name, "Undo") || strings.Contains(at.Name, "card") {
		t.Errorf("after undo the focus is at %s %q", at.Role, at.Name)
	}
}

// A new box follows what is chosen at once: its fields, its picture, its size.
func TestANewBoxFollowsAtOnce(t *testing.T) {
	t.Parallel()
	h := newHand(t, webtest.NewTable(t), 1280, 800)
	h.visit("/new")
	h.pick("Shape", "a block")
	h.find("textbox", "Width")
	if n := h.value(`document.querySelectorAll('[name="contents[0].width"]').length`); n != "1" {
		t.Errorf("a block has %s widths", n)
	}
	h.write("Length", "48")
	h.says("48 in is larger than any sheet")
	h.press("button", "48 mm?")
	h.until(`!document.querySelector("[aria-invalid=true]") && document.querySelector("#preview-says").innerText.includes("Inside")`)
	h.pick("Cut from", "A4")
	h.says("cut from A4")
	h.press("link", "From a sheet")
	h.press("radio", "Wallet")
	h.says("The biggest that")
	h.find("image", "Wallet")
}

// Single keys do nothing on a button, and nothing at all once switched off.
func TestSingleKeysCanBeSwitchedOff(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	h := newHand(t, x, 1280, 800)
	h.visit("/boxes/1/fit")
	h.do(chromedp.Focus("#undo"))
	h.key("2")
	if h.where() != "/boxes/1/fit" {
		t.Error("a key on a button goes elsewhere")
	}
	h.press("link", "Help")
	h.press("checkbox", "single keys work")
	h.press("button", "Close")
	h.do(js(`document.activeElement.blur()`))
	h.key("2")
	if h.where() != "/boxes/1/fit" {
		t.Error("switched off, a key still goes elsewhere")
	}
	// The caliper is out of the way until it is switched on.
	h.visit("/boxes/1/contents")
	if h.value(`document.querySelector(".measuring").checkVisibility()`) != "false" {
		t.Error("the caliper is in the way")
	}
	h.visit("/help")
	h.press("checkbox", "show the caliper")
	h.visit("/boxes/1/contents")
	h.until(`document.querySelector(".measuring").checkVisibility()`)
}

// On a phone the fields begin in the first screen, the drawing stays in sight
// while they are scrolled, and Next is at hand.
func TestOnAPhone(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	h := newHand(t, x, 390, 844)
	for _, page := range []string{"contents", "box", "fit", "dressing"} {
		h.visit("/boxes/1/" + page)
		if top := h.value(`document.querySelector("#stop-form").getBoundingClientRect().top < 700`); top != "true" {
			t.Errorf("%s: the fields begin below the first screen", page)
		}
		h.do(js(`window.scrollTo(0, 500)`))
		if seen := h.value(`(() => { const b = document.querySelector(".band").getBoundingClientRect(), n = document.querySelector("#next").getBoundingClientRect();
			return (b.top >= 0 && b.bottom < 300) + " " + (n.top > 0 && n.bottom <= innerHeight) })()`); seen != "true true" && h.value(`document.documentElement.scrollHeight > 1500`) == "true" {
			t.Errorf("%s: scrolled, the drawing and Next in sight: %s", page, seen)
		}
	}
}

// What is deleted by mistake comes back, and a box that a job waits for says so.
func TestDeletingIsSaidAndUndone(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/jobs", "copies.1", "2", "name", "Winter fair")
	h := newHand(t, x, 1280, 800)
	h.visit("/jobs/1")
	h.press("button", "Delete this job")
	h.press("button", "Undo: bring it back")
	h.find("link", "Winter fair")
	x.Post("/boxes/1/delete")
	h.visit("/?deleted=1")
	h.says("The job “Winter fair” makes it")
	// A stray size beside a sheet that has its own is not passed over.
	if code, body, _ := x.Post("/drawer", "card", "Oat", "gsm", "240", "direction", "none", "sheet", "A4", "width", "5", "count", "1", "price", "0"); code != 422 || !strings.Contains(body, "has its own size") {
		t.Errorf("a stray width: %d", code)
	}
	// Nor is a job without a name, or one that only loses it.
	if code, body, _ := x.Post("/jobs/1", "name", " "); code != 422 || !strings.Contains(body, "A job needs a name") || x.Job(1).Name != "Winter fair" {
		t.Errorf("a job's name taken away: %d, %q", code, x.Job(1).Name)
	}
}

// What a page says of sheets, cuts and air agrees with itself.
func TestSentencesAgree(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/sheets", "copies", "1")
	lot := drawer.Lot{Card: paper.Card{Name: "Plain card", GSM: 240, Direction: paper.NoDirection}, Sheet: "12 × 12 in", Width: 12 * measure.Inch, Height: 12 * measure.Inch, Count: 38}
	if err := x.Store.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{lot}); err != nil {
		t.Fatal(err)
	}
	x.Post("/jobs", "copies.1", "30", "name", "Thirty")
	_, job, _ := x.Get("/jobs/1")
	for _, says := range []string{"sheets 1–30: cuts 1 and 2", "38 sheets", "at these sizes no fewer can do"} {
		if !strings.Contains(job, says) {
			t.Errorf("the job does not say %q", says)
		}
	}
	for _, wrong := range []string{"Longest cuts first", "sheet 1: cut 1; sheet 2: cut 1", "They are bought"} {
		if strings.Contains(job, wrong) {
			t.Errorf("the job says %q", wrong)
		}
	}
	x.Post("/jobs/1", "copies.1", "34")
	if _, more, _ := x.Get("/jobs/1"); !strings.Contains(more, "They are bought: put them in the drawer") {
		t.Error("two sheets to buy are not said as two")
	}
	_, contents, _ := x.Get("/boxes/1/contents")
	var first, chosen int
	i := strings.Index(contents, " % of the room they need is air")
	fmt.Sscan(contents[strings.LastIndexAny(contents[:i], " >;")+1:i], &first)
	drawn := contents[:strings.Index(contents, "<b>drawn here</b>")]
	j := strings.LastIndex(drawn, " % air")
	fmt.Sscan(drawn[strings.LastIndexAny(drawn[:j], " >;")+1:j], &chosen)
	if first == 0 || first != chosen {
		t.Errorf("the account has %d %% air and the way chosen %d %%", first, chosen)
	}
}
