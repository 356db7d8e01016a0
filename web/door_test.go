package web_test

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"

	"brevium/core/people"
	"brevium/store/roster"
	"brevium/web/webtest"
)

// In the browser: the workshop is set up, somebody joins by the link on another phone,
// and what the steward does not let them do is said.
func TestTheDoorInTheBrowser(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	code, err := w.Store.Of(t.Context()).NewCode(t.Context(), roster.Code{For: roster.ForSetUp, Until: w.Now.Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	h := newHand(t, w.Table, 1280, 800) // over plain http, at the machine itself
	h.visit("/")
	h.until(`location.pathname === "/sign-in"`)
	h.visit("/set-up")
	h.write("The code", code.Written())
	h.write("Your name", "Wren")
	h.write("A password, at least 12 letters", "too short")
	h.until(`document.querySelector(".field [role=status]")?.innerText === "3 letters to go"`)
	h.press("button", "Show: A password, at least 12 letters")
	h.until(`document.getElementById("password").type === "text"`)
	h.do(js(`(() => { const f = document.getElementById("password"); f.select(); document.execCommand("insertText", false, "pasted from a keeper"); })()`))
	h.until(`document.getElementById("password").value === "pasted from a keeper" && document.querySelector(".field [role=status]").innerText === "hard to guess"`)
	h.press("button", "Show: A password, at least 12 letters")
	h.write("A password, at least 12 letters", webtest.GoodPassword)
	h.press("button", "Set it up")
	h.until(`location.pathname === "/" && document.querySelector(".who").innerText === "Wren"`)
	h.visit("/people")
	h.press("button", "Make a link")
	h.until(`document.getElementById("link").value.includes("/join/")`)
	h.visit("/me")
	h.press("button", "Sign out")
	h.until(`location.pathname === "/sign-in"`)
	h.write("Your name", "wren")
	h.write("Password", "not this one at all")
	h.press("button", "Sign in")
	h.until(`document.getElementById("fault")?.innerText.includes("do not go together")`)
	h.write("Password", webtest.GoodPassword)
	h.press("button", "Sign in")
	h.until(`location.pathname === "/"`)
}

// No page of a workshop has an accessibility fault, nor does it scroll sideways.
func TestAxeAtTheDoor(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	board, _, path := webtest.OpenClass(t, w)
	w.Visitor("10.0.0.5").Post(path, "name", "red")
	w.Person("Wren", people.Steward)
	h := newHand(t, w.Table, 1280, 800)
	look := func(pages ...string) {
		t.Helper()
		for n, page := range pages { // at the desk and on a phone in turn
			size := [][2]int64{{390, 844}, {1280, 800}}[n%2]
			h.do(chromedp.EmulateViewport(size[0], size[1]))
			h.visit(page)
			h.audit(page, size[0])
		}
	}
	look("/sign-in", path)
	h.write("What are you called here?", "green")
	h.press("button", "Sit down")
	h.until(`document.getElementById("follow-where")?.textContent.startsWith("1 of")`)
	look(path)
	for _, name := range []string{"Wren", "Ash"} {
		h.visit("/sign-in")
		h.write("Your name", name)
		h.write("Password", webtest.GoodPassword)
		h.press("button", "Sign in")
		h.until(`location.pathname === "/"`)
		if name == "Wren" {
			look("/people", "/me")
		} else {
			look(board, "/styles/table?from=gable-lid")
		}
	}
}
