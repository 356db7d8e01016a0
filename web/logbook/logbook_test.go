package logbook_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"brevium/core/design"
	"brevium/core/fit"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// What was made is written down: how it felt beside what was worked out, what to
// remember; it is made again from there as it was, taken along, and struck out.
func TestTheLogbook(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	ask := fmt.Sprintf("/boxes/%d/made", id)
	if page := x.Words(ask); !strings.Contains(page, "How it came out") || !strings.Contains(page, "worked out: ") {
		t.Errorf("it asks: %s", page)
	}
	if page := x.Words("/logbook"); !strings.Contains(page, "Nothing is written down yet") {
		t.Errorf("empty: %s", page)
	}
	for field, bad := range map[string]string{"felt0": "wobbly", "remember": strings.Repeat("long ", 200)} {
		if code, page, _ := x.Post(ask, field, bad); code != http.StatusUnprocessableEntity || !strings.Contains(page, "Not yet") {
			t.Errorf("%s: %d", field, code)
		}
	}
	if code, _, _ := x.Post(ask, "felt0", "tight", "felt1", "", "remember", "=wedge the tabs"); code != http.StatusNoContent {
		t.Fatalf("written: %d", code)
	}
	notes, err := x.Store.Of(t.Context()).Notes(t.Context())
	if err != nil || len(notes) != 1 || len(notes[0].Felt) != 1 || notes[0].Felt[0].Felt != "tight" || notes[0].Felt[0].Gap == 0 || notes[0].Box != id {
		t.Fatalf("the note is %+v, %v", notes, err)
	}
	if page := x.Words("/logbook"); !strings.Contains(page, "tight, worked out") || !strings.Contains(page, "=wedge the tabs") {
		t.Errorf("the logbook: %s", page)
	}
	if _, csv, _ := x.Get("/logbook.csv"); !strings.Contains(csv, ",tight,'=wedge the tabs") {
		t.Errorf("as CSV: %s", csv)
	}
	// Changed since, it is made again as it was.
	x.Post(fmt.Sprintf("/boxes/%d/box", id), "card.name", "Another card")
	x.Post(fmt.Sprintf("/logbook/%d/again", notes[0].ID))
	if again := x.Box(id + 1).Inputs; again.Card.Name == "Another card" || again.Style != "tray-lid" {
		t.Errorf("made again it is of %s", again.Card.Name)
	}
	_, zip, _ := x.Get("/data/everything.zip")
	y := webtest.NewTable(t)
	for range 2 { // twice brought, it is there once
		y.Send("/data/bring", []byte(zip))
	}
	if there, err := y.Store.Of(t.Context()).Notes(t.Context()); err != nil || len(there) != 1 || there[0].Remember != "=wedge the tabs" || !there[0].Made.Equal(notes[0].Made) {
		t.Errorf("taken along: %+v, %v", there, err)
	}
	x.Post(fmt.Sprintf("/logbook/%d/strike", notes[0].ID))
	if left, err := x.Store.Of(t.Context()).Notes(t.Context()); err != nil || len(left) != 0 {
		t.Errorf("struck out: %+v, %v", left, err)
	}
	for _, path := range []string{"/logbook/99/again", "/logbook/none/strike"} {
		if code, _, _ := x.Post(path); code < 400 || code >= 500 {
			t.Errorf("%s: %d", path, code)
		}
	}
}

// The logbook is looked through by thing, card, kind and word; notes are brought in
// from either file, once; a bad row is said and nothing lost; a box is made again for
// other things; a photograph is kept with the note, and what is none refused.
func TestTheLogbookIsLookedThrough(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	ask := fmt.Sprintf("/boxes/%d/made", id)
	if code, page, _ := x.Send(ask, webtest.PaperPicture(t, 1), "felt0", "snug", "minutes", "42,5", "remember", "lovely"); code >= 400 {
		t.Fatalf("written with a photograph: %d %s", code, page)
	}
	if code, page, _ := x.Send(ask, []byte("<svg onload=alert(1)>"), "felt0", "snug"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "no picture that can be read") {
		t.Errorf("no picture: %d", code)
	}
	if code, page, _ := x.Post(ask, "minutes", "ages"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "not a number") {
		t.Errorf("ages: %d", code)
	}
	notes, err := x.Store.Of(t.Context()).Notes(t.Context())
	if err != nil || len(notes) != 1 || notes[0].Minutes != 42.5 || notes[0].Photo == "" {
		t.Fatalf("the notes are %+v, %v", notes, err)
	}
	if code, _, h := x.Get("/papers/" + notes[0].Photo + ".jpg"); code != 200 || h.Get("Content-Type") != "image/jpeg" {
		t.Errorf("its photograph: %d %v", code, h)
	}
	if _, page, _ := x.Get("/logbook"); !strings.Contains(page, fmt.Sprintf(`action="/boxes/%d/cover"><input type="hidden" name="photo" value="%s">`, id, notes[0].Photo)) {
		t.Error("its photograph is not offered for the list of boxes")
	}
	if _, _, h := x.Post(fmt.Sprintf("/boxes/%d/cover", id), "photo", notes[0].Photo); x.Box(id).Inputs.Photograph != notes[0].Photo {
		t.Errorf("it does not stand in the list: %v", h)
	}
	thing := x.Box(id).Inputs.Things[0].Name
	for find, there := range map[string]bool{thing: true, "lovely snug": true, "lift-off": true, "purple": false} {
		if page := x.Words("/logbook?find=" + url.QueryEscape(find)); strings.Contains(page, "took 43 min") != there {
			t.Errorf("%q is found: %v: %s", find, !there, page)
		}
	}
	_, json, _ := x.Get("/logbook.json")
	_, csv, _ := x.Get("/logbook.csv")
	y := webtest.NewTable(t)
	for n, file := range []string{json, csv, json} {
		if code, page, _ := y.Send("/logbook/import", []byte(file)); code >= 400 {
			t.Errorf("file %d: %d %s", n, code, page)
		}
	}
	if there, err := y.Store.Of(t.Context()).Notes(t.Context()); err != nil || len(there) != 1 || there[0].Felt[0] != notes[0].Felt[0] {
		t.Errorf("brought: %+v, %v", there, err)
	}
	if code, page, _ := y.Post("/logbook/import", "list", "made,box\nyesterday,Jars"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "is not a day") || !strings.Contains(page, "yesterday,Jars") {
		t.Errorf("a bad row: %d %s", code, page)
	}
	x.Post(fmt.Sprintf("/logbook/%d/again", notes[0].ID), "for", "others")
	was, again := x.Box(id).Inputs, x.Box(id+1).Inputs
	if len(again.Things) != 0 || again.Basis != design.Scored || len(was.Things) == 0 || again.Style != was.Style {
		t.Errorf("for other things it holds %+v", again.Things)
	}
	var many []logbook.Note
	for n := range 60 {
		many = append(many, logbook.Note{Made: time.Date(2026, 1, 1, 0, n, 0, 0, time.UTC), Name: fmt.Sprint("Box ", n), Design: []byte("{}")})
	}
	if n, err := y.Store.Of(t.Context()).BringNotes(t.Context(), many); n != 60 || err != nil {
		t.Fatalf("%d, %v", n, err)
	}
	if first, last := y.Words("/logbook"), y.Words("/logbook?page=2"); !strings.Contains(first, "Earlier ones") || strings.Contains(last, "Earlier ones") || !strings.Contains(last, "Box 0") {
		t.Error("the pages do not end")
	}
}

// Five lids that felt tighter than was worked out are told of on the page that asks
// whether it will fit, and change nothing until one says so; then the lid is bigger
// and the account says why; set aside, all is as before.
func TestTheNextLidIsBigger(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/fit", id)
	r, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	tight, _ := r.Tightest()
	var notes []logbook.Note
	for n := range 5 {
		felt := logbook.Felt{Pair: "Lid over base, length", Kind: tight.Pair.Kind.ID, Card: r.Inputs.CardOf(tight.Pair.Outer).Label(), Gap: 400 * measure.Micrometre, Felt: fit.Tight}
		if n == 0 {
			if page := x.Words(at); strings.Contains(page, "From the logbook") {
				t.Error("something is learned from nothing")
			}
		}
		notes = append(notes, logbook.Note{Made: time.Date(2026, 1, 1+n, 0, 0, 0, 0, time.UTC), Name: "Jars", Felt: []logbook.Felt{felt}, Design: []byte("{}")})
	}
	if _, err := x.Store.Of(t.Context()).BringNotes(t.Context(), notes); err != nil {
		t.Fatal(err)
	}
	before, _, _ := x.Get(at)
	_, page, _ := x.Get(at)
	if before != http.StatusOK || !strings.Contains(x.Words(at), "mm tighter (0.") || len(x.Box(id).Inputs.Leans) != 0 {
		t.Fatalf("it is not offered: %s", x.Words(at))
	}
	take := webtest.ButtonValue(t, page, "lean")
	x.Post(at, "lean", take)
	now, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	if a := r.Style.Allowance.ID; now.Spec.Lengths[a] <= r.Spec.Lengths[a] {
		t.Errorf("the lid is bigger by %v, it was %v", now.Spec.Lengths[a].MM(), r.Spec.Lengths[a].MM())
	}
	if words := x.Words(at); !strings.Contains(words, "In use: your") || !strings.Contains(words, "as your notes say") || strings.Contains(words, "From the logbook") {
		t.Errorf("reckoned with: %s", words)
	}
	_, page, _ = x.Get(at)
	x.Post(at, "lean", webtest.ButtonValue(t, page, "lean"))
	if left := x.Box(id).Inputs.Leans; len(left) != 0 {
		t.Errorf("set aside: %+v", left)
	}
	if code, words, _ := x.Post(at, "lean", "{"); code != http.StatusUnprocessableEntity && !strings.Contains(words, "cannot be read") {
		t.Errorf("nonsense: %d", code)
	}
}
