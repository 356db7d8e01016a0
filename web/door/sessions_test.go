package door_test

import (
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"
	"time"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/web/webtest"
)

// A new password, being let in no more, signing out everywhere and time itself end
// sessions; the last steward stays.
func TestSessionsEnd(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	wren := w.Person("Wren", people.Steward)
	ash := w.Person("Ash", people.Maker)
	second := w.Visitor("10.0.0.9")
	second.Post("/sign-in", "name", "Ash", "password", webtest.GoodPassword)
	in := func(v *webtest.Visitor) bool { status, _, _ := v.Get("/"); return status == 200 }
	if !in(ash) || !in(second) {
		t.Fatal("not both are let in")
	}
	if status, page, _ := ash.Post("/me/password", "now", "wrong", "password", "nine paper cranes"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "not right") {
		t.Errorf("with a wrong present password: %d", status)
	}
	if status, _, _ := ash.Post("/me/password", "now", webtest.GoodPassword, "password", "nine paper cranes"); status != http.StatusSeeOther || !in(ash) || in(second) {
		t.Errorf("a new password: %d; here %v, there %v", status, in(ash), in(second))
	}
	second.Post("/sign-in", "name", "Ash", "password", "nine paper cranes")
	if ash.Post("/me/everywhere"); in(ash) || in(second) {
		t.Error("signed out everywhere, a session holds")
	}
	second.Post("/sign-in", "name", "Ash", "password", "nine paper cranes")
	p, err := w.Store.Of(t.Context()).PersonCalled(t.Context(), "Ash")
	if err != nil {
		t.Fatal(err)
	}
	other := fmt.Sprintf("/people/%d", p.ID)
	if status, page, _ := wren.Post(other + "/recover"); status != 200 || !strings.Contains(page, "/join/") {
		t.Errorf("a link for a new password: %d", status)
	} else {
		at, _ := url.Parse(regexp.MustCompile(`https://[^"]+/join/\w+`).FindString(page))
		if status, page, _ := second.Get(at.Path); status != 200 || !strings.Contains(page, "Ash, choose a new password") {
			t.Errorf("the link: %d", status)
		}
		if status, _, _ := second.Post(at.Path, "password", "two glue sticks here"); status != http.StatusSeeOther || !in(second) {
			t.Errorf("a new password by a link: %d", status)
		}
	}
	if wren.Post(other, "struck", "1", "role", "maker"); in(second) {
		t.Error("one who is let in no more still is")
	}
	if status, _, _ := second.Post("/sign-in", "name", "Ash", "password", "two glue sticks here"); status != http.StatusUnauthorized {
		t.Errorf("one who is let in no more signs in: %d", status)
	}
	me, _ := w.Store.Of(t.Context()).PersonCalled(t.Context(), "Wren")
	if status, page, _ := wren.Post(fmt.Sprintf("/people/%d", me.ID), "role", "guest"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "last steward") {
		t.Errorf("the last steward becomes a guest: %d", status)
	}
	w.Now = w.Now.Add(20 * time.Minute)
	if !in(wren) {
		t.Error("after twenty minutes a session has ended")
	}
	w.Now = w.Now.Add(40 * time.Minute)
	if in(wren) {
		t.Error("after forty idle minutes a session holds")
	}
	w.Now = time.Now() // by which sessions are begun
	_, page, _ := w.Person("Rowan", people.Steward).Get("/people")
	for _, want := range []string{"wrong password", "changed the password", "signed out everywhere", "is let in no more", "chose a new password by a link", "10.0.0.1"} {
		if !strings.Contains(page, want) {
			t.Errorf("the steward is not told of %q", want)
		}
	}
}

// One sees where one is signed in and what happened with one's name, and ends a session
// with the password.
func TestOwnSessions(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	ash := w.Person("Ash", people.Maker)
	phone := w.Visitor("10.0.0.9")
	phone.Do(http.MethodPost, "/sign-in", map[string]string{"User-Agent": "Mozilla/5.0 (iPhone; CPU)"}, "name", "Ash", "password", webtest.GoodPassword)
	w.Visitor("10.0.0.8").Post("/sign-in", "name", "Ash", "password", "guessed wrong again")
	w.Person("Rowan", people.Maker)
	_, page, _ := ash.Get("/me")
	for _, want := range []string{"a phone, from 10.0.0.9", "from 10.0.0.1", "<b>here</b>", "wrong password", "from 10.0.0.8"} {
		if !strings.Contains(page, want) {
			t.Errorf("one's own page does not tell %q", want)
		}
	}
	if a, b := ash.Token(), phone.Token(); len(a) < 43 || a == b { // 256 bits, told by six each
		t.Errorf("the tokens are %q and %q", a, b)
	}
	ids := regexp.MustCompile(`name="id" value="([a-z0-9]+)"`).FindAllStringSubmatch(page, -1)
	if len(ids) != 1 {
		t.Fatalf("%d sessions can be ended", len(ids))
	}
	for _, c := range []struct {
		password string
		status   int
		holds    bool
	}{{"not the password", http.StatusUnprocessableEntity, true}, {webtest.GoodPassword, http.StatusSeeOther, false}} {
		if status, _, _ := ash.Post("/me/sessions/end", "now", c.password, "id", ids[0][1]); status != c.status {
			t.Errorf("with %q: %d", c.password, status)
		}
		if status, _, _ := phone.Get("/"); (status == 200) != c.holds {
			t.Errorf("with %q the phone's session: %d", c.password, status)
		}
	}
	if status, _, _ := ash.Get("/"); status != 200 {
		t.Errorf("the session here: %d", status)
	}
}

// One takes along what is one's own, and leaves; what was handed over is the steward's.
func TestLeavingAWorkshop(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	wren, ash := w.Person("Wren", people.Steward), w.Person("Ash", people.Maker)
	p, err := w.Store.Of(t.Context()).PersonCalled(t.Context(), "Ash")
	if err != nil {
		t.Fatal(err)
	}
	id, err := w.Store.Of(people.With(t.Context(), p)).Add(people.With(t.Context(), p), design.New("Ash's jars", measure.In, "tray-lid"))
	if err != nil {
		t.Fatal(err)
	}
	if status, zip, h := ash.Get("/me/everything.zip"); status != 200 || !strings.Contains(h.Get("Content-Disposition"), ".zip") || len(zip) < 1000 {
		t.Errorf("what is Ash's: %d, %d bytes", status, len(zip))
	}
	wren.Get("/data/everything.zip")
	if _, page, _ := wren.Get("/people"); !strings.Contains(page, "took along what is theirs") || !strings.Contains(page, "took everything along") {
		t.Error("the steward is not told what was taken along")
	}
	if status, page, _ := ash.Post("/me/leave", "now", "wrong one here"); status != http.StatusUnprocessableEntity || !strings.Contains(page, "nothing was changed") {
		t.Errorf("leaving with a wrong password: %d", status)
	}
	if status, page, _ := wren.Post("/me/leave", "now", webtest.GoodPassword); status != http.StatusUnprocessableEntity || !strings.Contains(page, "last steward") {
		t.Errorf("the last steward leaves: %d", status)
	}
	if status, _, _ := ash.Post("/me/leave", "now", webtest.GoodPassword, "with", "hand-over"); status != http.StatusSeeOther {
		t.Errorf("leaving: %d", status)
	}
	if status, _, _ := ash.Get("/"); status != http.StatusSeeOther {
		t.Errorf("after leaving: %d", status)
	}
	if status, _, _ := wren.Get(fmt.Sprintf("/boxes/%d/box", id)); status != 200 {
		t.Errorf("what was handed over: %d", status)
	}
	if _, page, _ := wren.Get("/people"); strings.Contains(page, "Ash") {
		t.Error("the name is left")
	}
}
