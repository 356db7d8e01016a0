package web_test

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"

	"github.com/chromedp/chromedp"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/web/webtest"
)

// signedIn is somebody at a machine of their own, signed in.
func signedIn(t *testing.T, w *webtest.Atelier, name string) *hand {
	t.Helper()
	h := newHand(t, w.Table, 1280, 900)
	h.visit("/sign-in")
	h.write("Your name", name)
	h.write("Password", webtest.GoodPassword)
	h.press("button", "Sign in")
	h.until(`location.pathname === "/"`)
	return h
}

// tells is what a script comes to on the page.
func (b *browser) tells(script string) string {
	b.t.Helper()
	ctx, stop := context.WithTimeout(b.ctx, webtest.Patience)
	defer stop()
	said, err := chromedp.Run(ctx, chromedp.Evaluate[string](script))
	if err != nil {
		b.t.Fatalf("at %s: %v", b.where(), err)
	}
	return said
}

// A guest looks at a shared box and its making, without a button that would be refused; the
// units are theirs to choose.
func TestAGuestLooksOn(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	id, _, _ := webtest.SharedBox(t, w)
	w.Person("Finch", people.Guest)
	h := signedIn(t, w, "Finch")
	for _, stop := range []string{"box", "contents", "making"} {
		h.visit(fmt.Sprintf("/boxes/%d/%s", id, stop))
		h.until(`document.querySelector("main").innerText.length > 200 && [...document.querySelectorAll("main form[method=post] button")].every(b => !b.checkVisibility())`)
	}
	h.press("button", "cm")
	h.until(`document.querySelector("[aria-pressed=true], .top [aria-current]") !== null`)
	h.visit("/me")
	h.find("button", "Sign out")
}

// Two at one box in two browsers: what one ticks off is ticked at the other's, who does
// nothing; and what one types is not lost by it.
func TestTwoAtOneTable(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	id, _, _ := webtest.SharedBox(t, w)
	ash, rowan := signedIn(t, w, "Ash"), signedIn(t, w, "Rowan")
	making := fmt.Sprintf("/boxes/%d/making", id)
	ash.visit(making)
	rowan.visit(making)
	ticked := `document.querySelectorAll("main [aria-pressed=true], main input[type=checkbox]:checked").length`
	rowan.until(ticked + ` === 0`)
	ash.do(js(`document.querySelector("form[action$='/tick'] button, form[action$='/tick'] input[type=checkbox]").click()`))
	ash.until(ticked + ` > 0`)
	rowan.until(ticked + ` > 0`)
}

// Two at one job in two browsers: a layout that one searches, what is said to be cut, and
// that it is begun and finished is seen by the other at once; a field that both change is
// asked about; sheets are set aside and taken once, however many press at one moment.
func TestTwoAtOneJob(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	one, _, _ := webtest.SharedBox(t, w)
	ctx := w.As("Ash")
	lot := drawer.Lot{Card: design.UsualCard, Width: 12 * measure.Inch, Height: 12 * measure.Inch, Count: 60}
	lot.Complete()
	id, err := w.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: one, Copies: 11}}})
	if err := errors.Join(err, w.Store.Of(ctx).AddLots(ctx, []drawer.Lot{lot}), w.Store.Of(ctx).Share(ctx, desk.JobSort, id, true)); err != nil {
		t.Fatal(err)
	}
	sheets := func() (all, reserved int) {
		t.Helper()
		lots, err := w.Store.Of(ctx).Lots(ctx)
		if err != nil {
			t.Fatal(err)
		}
		for _, l := range lots {
			if !l.Offcut {
				all, reserved = all+l.Count, reserved+l.Reserved
			}
		}
		return all, reserved
	}
	ash, rowan := signedIn(t, w, "Ash"), signedIn(t, w, "Rowan")
	job := fmt.Sprintf("/jobs/%d", id)
	ash.visit(job)
	rowan.visit(job)
	ash.press("button", "Start")
	ash.until(`!document.getElementById("stop-search").hidden`)
	rowan.until(`document.querySelector("main").innerText.includes("Ash is looking for a better layout now")`)
	ash.until(`document.getElementById("stop-search").hidden`)
	rowan.until(`!document.querySelector("main").innerText.includes("is looking for a better layout")`)
	ash.until(`document.querySelector("form.search").innerText.includes("This is the best found")`)
	if hidden := ash.tells(`String(document.getElementById("stop-search").hidden)`); hidden != "true" {
		t.Error("a search that has ended can still be stopped")
	}
	both := `[...document.querySelectorAll("#job-sheets figcaption")].map(x => x.innerText).join()`
	hers := ash.tells(both)
	if hers == "" {
		t.Fatal("no sheets are shown")
	}
	rowan.until(fmt.Sprintf(both+` === %q`, hers)) // without a press
	// Rowan is typing in a field when Ash changes it: it is asked about.
	field := fmt.Sprintf("copies.%d", one)
	rowan.do(js(fmt.Sprintf(`(() => { const f = document.querySelector("[name='%s']"); f.focus(); f.select(); document.execCommand("insertText", false, "7"); })()`, field)))
	ash.do(js(fmt.Sprintf(`(() => { const f = document.querySelector("[name='%s']"); f.focus(); f.select(); document.execCommand("insertText", false, "5"); f.blur(); })()`, field)))
	ash.rest()
	ash.until(fmt.Sprintf(`document.querySelector("[name='%s']").value === "5"`, field))
	rowan.do(js(`document.activeElement.blur()`))
	rowan.until(`document.querySelector("main").innerText.includes("5") && document.querySelector(".clash, [data-clash]") !== null`)
	if j, err := w.Store.Of(ctx).Job(ctx, id); err != nil || j.Items[0].Copies != 5 {
		t.Errorf("undecided there are %v, %v", j.Items, err)
	}
	rowan.visit(job)
	// Many press at one moment: begun and finished once.
	at := map[string]*webtest.Visitor{"Ash": w.Visitor("10.0.0.1"), "Rowan": w.Visitor("10.0.0.2")}
	for name, v := range at {
		v.Post("/sign-in", "name", name, "password", webtest.GoodPassword)
	}
	whole, _ := sheets()
	press := func(what string) {
		var all sync.WaitGroup
		for range 4 {
			for _, v := range at {
				all.Go(func() {
					if status, _, _ := v.Post(job + "/" + what); status >= 500 {
						t.Errorf("%s: %d", what, status)
					}
				})
			}
		}
		all.Wait()
	}
	press("begin")
	_, reserved := sheets()
	for _, h := range []*hand{ash, rowan} {
		h.until(`[...document.querySelectorAll("button")].some(b => b.innerText.startsWith("It is cut"))`)
	}
	ash.visit(job + "/evenings")
	rowan.visit(job + "/evenings")
	tasks := `document.querySelectorAll("form[action$='/evenings'] [name=key]").length`
	many := rowan.tells(`String(` + tasks + `)`)
	ash.do(js(`document.querySelector("form[action$='/evenings'] [name=key]").closest("form").querySelector("button").click()`))
	rowan.until(tasks + ` < ` + many)
	press("finish")
	rowan.visit(job)
	left, still := sheets()
	if reserved == 0 || left != whole-reserved || still != 0 {
		t.Errorf("of %d sheets %d were set aside; %d are left, %d set aside", whole, reserved, left, still)
	}
}
