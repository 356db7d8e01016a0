package web

import (
	"fmt"
	"net/http"
	"strings"
	"testing"
)

// What was made is written down: how it felt beside what was worked out, what to
// remember; it is made again from there as it was, taken along, and struck out.
func TestTheLogbook(t *testing.T) {
	x := newTable(t)
	id := x.jarBox()
	ask := fmt.Sprintf("/boxes/%d/made", id)
	if page := x.words(ask); !strings.Contains(page, "How did it come out?") || !strings.Contains(page, "worked out: ") {
		t.Errorf("it asks: %s", page)
	}
	if page := x.words("/logbook"); !strings.Contains(page, "Nothing is written down yet") {
		t.Errorf("empty: %s", page)
	}
	for field, bad := range map[string]string{"felt0": "wobbly", "remember": strings.Repeat("long ", 200)} {
		if code, page, _ := x.post(ask, field, bad); code != http.StatusUnprocessableEntity || !strings.Contains(page, "Not yet") {
			t.Errorf("%s: %d", field, code)
		}
	}
	if code, _, _ := x.post(ask, "felt0", "tight", "felt1", "", "remember", "=wedge the tabs"); code != http.StatusNoContent {
		t.Fatalf("written: %d", code)
	}
	notes, err := x.store.Notes(t.Context())
	if err != nil || len(notes) != 1 || len(notes[0].Felt) != 1 || notes[0].Felt[0].Felt != "tight" || notes[0].Felt[0].Gap == 0 || notes[0].Box != id {
		t.Fatalf("the note is %+v, %v", notes, err)
	}
	if page := x.words("/logbook"); !strings.Contains(page, "tight, worked out") || !strings.Contains(page, "=wedge the tabs") {
		t.Errorf("the logbook: %s", page)
	}
	if _, csv, _ := x.get("/logbook.csv"); !strings.Contains(csv, ",tight,'=wedge the tabs") {
		t.Errorf("as CSV: %s", csv)
	}
	// Changed since, it is made again as it was.
	x.post(fmt.Sprintf("/boxes/%d/box", id), "card.name", "Another card")
	x.post(fmt.Sprintf("/logbook/%d/again", notes[0].ID))
	if again := x.box(id + 1).Inputs; again.Card.Name == "Another card" || again.Style != "tray-lid" {
		t.Errorf("made again it is of %s", again.Card.Name)
	}
	_, zip, _ := x.get("/data/everything.zip")
	y := newTable(t)
	for range 2 { // twice brought, it is there once
		y.send("/data/bring", []byte(zip))
	}
	if there, err := y.store.Notes(t.Context()); err != nil || len(there) != 1 || there[0].Remember != "=wedge the tabs" || !there[0].Made.Equal(notes[0].Made) {
		t.Errorf("taken along: %+v, %v", there, err)
	}
	x.post(fmt.Sprintf("/logbook/%d/strike", notes[0].ID))
	if left, err := x.store.Notes(t.Context()); err != nil || len(left) != 0 {
		t.Errorf("struck out: %+v, %v", left, err)
	}
	for _, path := range []string{"/logbook/99/again", "/logbook/none/strike"} {
		if code, _, _ := x.post(path); code < 400 || code >= 500 {
			t.Errorf("%s: %d", path, code)
		}
	}
}
