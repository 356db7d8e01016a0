package design

import (
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
)

// Four vials and a deck: in a grid of equal rows half of six cells is air. In
// bands the deck has a long cell to itself and the vials four small ones beside
// it, on a long divider of which three short ones stand: 4 × 22 and three cards
// beside 92 long, 22 and 64 wide and a card between.
func TestVialsAndADeckStandInBands(t *testing.T) {
	t.Parallel()
	in, err := Read([]byte(`{"brevium":1,"name":"x","units":"mm","style":"tray-lid",
	 "contents":[{"name":"vial","across":20,"height":55,"count":4},{"name":"deck","length":90,"width":62,"height":20}],
	 "compartments":{"per":"thing","as":"dividers"}}`))
	if err != nil {
		t.Fatal(err)
	}
	r := make_(t, in)
	if r.Stand.ID != "bands-1-1" || len(r.Stand.Cells) != 5 {
		t.Fatalf("they stand in %s", r.Stand.ID)
	}
	if got := r.Needs; got.Length != 92*mm_ || got.Width != 86300*measure.Micrometre {
		t.Errorf("they need %v × %v mm", got.Length.MM(), got.Width.MM())
	}
	copies := map[string]int{}
	for _, p := range r.Parts {
		copies[p.ID] = p.Copies()
	}
	if copies["divider.long"] != 1 || copies["divider.cross.1"] != 3 {
		t.Errorf("dividers: %v", copies)
	}
	grid := 0.0
	for _, w := range r.Ways {
		if strings.HasPrefix(w.ID, "cells-") && w.Card > 0 && (grid == 0 || w.Card < grid) {
			grid = w.Card
		}
	}
	if best := r.Ways[0].Card; grid <= best {
		t.Errorf("a grid takes %v mm² of card, the bands %v", grid, best)
	}
	for _, c := range r.Checks {
		if c.Verdict == inspect.Fail {
			t.Error(c.Text)
		}
	}
	// Every way in bands can be made, whatever the box.
	for _, w := range r.Ways {
		if w.Card == 0 || !strings.HasPrefix(w.ID, "bands-") {
			continue
		}
		in.Stand = w.ID
		for _, c := range make_(t, in).Checks {
			if c.Verdict == inspect.Fail {
				t.Errorf("%s: %s", w.ID, c.Text)
			}
		}
	}
}
