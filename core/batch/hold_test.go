package batch

import (
	"testing"

	"brevium/core/drawer"
	"brevium/core/layout"
)

// twoCards is a job whose trays of two cards lie on sheets of their own.
func twoCards(t *testing.T, ch Choices) []Stock {
	t.Helper()
	plum := tray("plum", 3*inch, inch)
	plum.Card.Name = "Plum card"
	return gather(
		t,
		[]Item{{Inputs: tray("oat", 6*inch, inch), Copies: 3}, {Inputs: plum, Copies: 4}},
		[]drawer.Lot{sheets(7, 9, 12*inch, 12*inch)},
		ch,
	)
}

// counts is how many pieces are held on each sheet.
func counts(all []Held) (out []int) {
	for _, h := range all {
		out = append(out, len(h.Pieces))
	}
	return out
}

func TestPlacesAreFound(t *testing.T) {
	stocks := twoCards(t, Choices{})
	if p, ok := At(stocks, Place{}); !ok || p != stocks[0].Layout.Sheets[0].Placed[0] {
		t.Errorf("the first piece is %+v, %v", p, ok)
	}
	for _, no := range []Place{{Stock: 2}, {Stock: -1}, {Sheet: 99}, {Sheet: -1}, {N: 99}, {N: -1}} {
		if p, ok := At(stocks, no); ok {
			t.Errorf("%+v is said to be at %+v", p, no)
		}
	}
}

// A piece is kept, another beside it, then each let go; the other card's
// pieces stay as they are held, and sheets keep their order.
func TestKeepingAndLettingGo(t *testing.T) {
	stocks := twoCards(t, Choices{})
	last := Place{Stock: 0, Sheet: len(stocks[0].Layout.Sheets) - 1}
	at := func(p Place) layout.Placed {
		t.Helper()
		x, ok := At(stocks, p)
		if !ok {
			t.Fatalf("nothing lies at %+v", p)
		}
		return x
	}
	to := at(last)
	to.X, to.Y = inch, 2*inch
	ch := Choices{Held: Keep(stocks, last, to)}
	if len(ch.Held) != 1 || ch.Held[0].Card != stocks[0].Card.Key() || ch.Held[0].Pieces[0].X != inch ||
		ch.Held[0].Pieces[0].Y != 2*inch {
		t.Fatalf("held: %+v", ch.Held)
	}
	// The kept sheet comes first now.
	stocks = twoCards(t, ch)
	if first := at(
		Place{},
	); !stocks[0].Keeps(0, first) &&
		!stocks[0].Keeps(0, stocks[0].Layout.Sheets[0].Placed[len(stocks[0].Layout.Sheets[0].Placed)-1]) {
		t.Error("no piece of the first sheet is kept")
	}
	// The other card's whole sheet.
	plum := Place{Stock: 1}
	ch.Held = KeepSheet(stocks, plum, at(plum))
	if got := counts(ch.Held); len(got) != 2 || got[0] != 1 || got[1] != len(stocks[1].Layout.Sheets[0].Placed) {
		t.Fatalf("held on each sheet: %v", got)
	}
	stocks = twoCards(t, ch)
	for _, p := range stocks[1].Layout.Sheets[0].Placed {
		if !stocks[1].Keeps(0, p) {
			t.Errorf("the piece at %v, %v mm is not kept", p.X.MM(), p.Y.MM())
		}
	}
	// A second sheet of the first card is kept behind the first.
	second := Place{Stock: 0, Sheet: 1}
	more := Keep(stocks, second, at(second))
	if len(more) != 3 || more[0].Pieces[0] != ch.Held[0].Pieces[0] || more[1].Card != more[0].Card || more[2].Card == more[0].Card {
		t.Errorf("three sheets held: %+v", more)
	}
	// Letting one of the sheet go leaves the others.
	if got := counts(Free(stocks, plum)); len(got) != 2 || got[1] != counts(ch.Held)[1]-1 {
		t.Errorf("after one was let go: %v of %v", got, counts(ch.Held))
	}
	// Letting the only one go leaves the sheet free.
	for n, p := range stocks[0].Layout.Sheets[0].Placed {
		if stocks[0].Keeps(0, p) {
			if got := Free(stocks, Place{N: n}); len(got) != 1 || got[0].Card != stocks[1].Card.Key() {
				t.Errorf("after the last was let go: %+v", got)
			}
		}
	}
}

// What must be bought goes into the drawer as it would lie there, at its real
// price; what is left of it is kept.
func TestWhatIsBoughtAndKept(t *testing.T) {
	stocks := gather(t, []Item{{Inputs: tray("oat", 6*inch, inch), Copies: 2}}, []drawer.Lot{sheets(7, 1, 12*inch, 12*inch)}, Choices{})
	buy := ToBuy(stocks)
	if len(buy) != 1 || buy[0].Count != 1 || buy[0].Price != 0.8 || buy[0].Sheet != "12 × 12 in" || buy[0].Check() != nil {
		t.Errorf("to buy: %+v", buy)
	}
	// A blank of 8 in leaves strips of 4 in by 12 and by 8 on each sheet.
	kept := Kept(stocks, "fair")
	if len(kept) != 2 || kept[0].Count != 2 || kept[1].Count != 2 || min(kept[0].Width, kept[0].Height) != 4*inch {
		t.Errorf("kept: %+v", kept)
	}
	if more := gather(
		t,
		[]Item{{Inputs: tray("oat", 6*inch, inch), Copies: 2}},
		append([]drawer.Lot{sheets(7, 1, 12*inch, 12*inch)}, sheets(8, 1, 12*inch, 12*inch)),
		Choices{},
	); len(
		ToBuy(more),
	) != 0 {
		t.Errorf("two sheets are there, yet to buy: %+v", ToBuy(more))
	}
}
