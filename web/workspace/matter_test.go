package workspace_test

import (
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/paper"
	"brevium/core/stuff"
	"brevium/web/webtest"
)

// A load is said where it is said what goes in; what is too much is told with how that comes
// about, and one press lays a board.
func TestALoadAndItsBoard(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	const at = "/boxes/1/contents"
	x.Post(at, "load.grams", "2500", "load.carry", "walls", "load.stacked", "1", "for", "child-3-7")
	in := x.Box(id).Inputs
	if in.Load.Grams != 2500 || in.For != design.ChildFrom3 || in.Load.Stacked != 0 {
		t.Fatalf("it has %+v for %s", in.Load, in.For)
	}
	words := x.Words(at)
	for _, want := range []string{"2.5 kg is too much for this floor", "Lay a board on the floor", "How that comes about", "it sags about"} {
		if !strings.Contains(words, want) {
			t.Errorf("the page does not say %q: %s", want, words)
		}
	}
	x.Post(at, "mend", "linings")
	if in := x.Box(id).Inputs; len(in.Linings) != 1 || in.CardOf("stiffener") != design.GreyBoard {
		t.Errorf("pressed, it has %v of %+v", in.Linings, in.CardOf("stiffener"))
	}
	if words := x.Words(at); strings.Contains(words, "too much for this floor") {
		t.Error("the board carries nothing")
	}
	for field, typed := range map[string]string{"load.grams": "much", "load.stacked": "900", "load.humidity": "140", "load.foot[0]": "zonk"} {
		if code, _, _ := x.Post(at, field, typed); code < 400 {
			t.Errorf("%s %s: %d", field, typed, code)
		}
	}
}

// Which card a piece is cut from is chosen from those there are, with the reason, and how its
// grain lies; what papers are stuck with is a choice of its own.
func TestWhichCardAndHowItLies(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	words := x.Words("/boxes/1/card")
	for _, want := range []string{"Base", "Lid", "to 284 gsm", "suits", "How to find the grain"} {
		if !strings.Contains(words, want) {
			t.Errorf("Which card does not say %q: %s", want, words)
		}
	}
	_, page, _ := x.Get("/boxes/1/card")
	_, rest, _ := strings.Cut(page, `value="cards.base=`) // the first is the present one
	pick := webtest.ButtonValue(t, rest, "card.pick")
	x.Post("/boxes/1/box", "card.pick", pick)
	if in := x.Box(id).Inputs; in.CardOf("base") == in.CardOf("lid") {
		t.Errorf("pressed, the base is of %+v, as the lid", in.CardOf("base"))
	}
	x.Post("/boxes/1/box", "grain.lid", "width", "card.grain", "long", "card.finish", "coated", "glue.papers", "foam-pad")
	in := x.Box(id).Inputs
	if in.Grains["lid"] != paper.RunWidth || in.Card.Grain != paper.LongGrain || in.Card.Finish != paper.Coated || in.Glue[stuff.Papers] != stuff.FoamPad {
		t.Errorf("it has %v, %+v, %v", in.Grains, in.Card, in.Glue)
	}
	x.Post("/boxes/1/box", "grain.lid", "free", "card.grain", "unknown", "card.finish", "solid", "glue.papers", "as-the-box")
	if in := x.Box(id).Inputs; len(in.Grains)+len(in.Glue) > 0 || in.Card.Grain != "" || in.Card.Finish != "" {
		t.Errorf("put back it has %v, %+v, %v", in.Grains, in.Card, in.Glue)
	}
}

// Where it is said how steady the hand is, the page draws how many boxes fit, and what to watch.
func TestHowManyWillFit(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	const at = "/boxes/1/fit"
	if words := x.Words(at); strings.Contains(words, "of a hundred") {
		t.Error("it is said how many fit, and nobody has said who makes them")
	}
	x.Post("/boxes/1/sheets", "copies", "30")
	x.Post(at, "hand", "practised", "fit", "snug")
	words := x.Words(at)
	for _, want := range []string{"of a hundred fit", "in 100", "of 30, right in the mean", "a millimetre more on the lid’s blank"} {
		if !strings.Contains(words, want) {
			t.Errorf("the page does not say %q: %s", want, words)
		}
	}
	x.Post(at, "hand", "any")
	if in := x.Box(id).Inputs; in.Hand != "" {
		t.Errorf("the hand is still %q", in.Hand)
	}
}
