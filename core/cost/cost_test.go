package cost

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/batch"
	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/core/money"
	"brevium/core/recipe"
	"brevium/core/style"
)

// laid is a job of boxes on sheets of 12 in that cost so much each.
func laid(t *testing.T, price float64, rates Rates, items ...batch.Item) Input {
	t.Helper()
	in := Input{Rates: rates}
	for i := range items {
		r, err := design.Make(t.Context(), items[i].One())
		if err != nil {
			t.Fatal(err)
		}
		items[i].Made = r
		for _, p := range r.Parts {
			lot := drawer.Lot{ID: int64(len(in.Lots) + 1), Card: p.Card, Sheet: "12 × 12 in", Width: 12 * measure.Inch, Height: 12 * measure.Inch, Count: 400, Price: price}
			if !slices.ContainsFunc(in.Lots, func(l drawer.Lot) bool { return l.Card.Key() == lot.Card.Key() }) {
				in.Lots = append(in.Lots, lot)
			}
		}
	}
	in.Items = items
	stocks, err := batch.Gather(t.Context(), items, in.Lots, batch.Choices{})
	if err != nil {
		t.Fatal(err)
	}
	for i := range stocks {
		if err := stocks[i].Lay(t.Context(), batch.Quick); err != nil {
			t.Fatal(err)
		}
	}
	in.Stocks = stocks
	return in
}

func tray(length, width, height measure.Length) design.Inputs {
	in := design.New("Tray", measure.In, "tray")
	in.Size = map[string]measure.Length{"length": length, "width": width, "height": height}
	return in
}

// By hand: a tray of 6 × 6 × 1½ in takes a blank of 9 × 9 out of a sheet of 12 × 12 at
// 0.96; what is left, 3 × 12 and 3 × 9, is kept: 63 of 144 square inches, 0.42, and the
// tray pays 0.54. Its tape is counted at 0.50 a metre with a tenth to spare. At 12 an
// hour its minutes cost 0.20 each.
func TestOneTrayByHand(t *testing.T) {
	item := batch.Item{Inputs: tray(6*measure.Inch, 6*measure.Inch, 3*measure.Inch/2), Copies: 1}
	in := laid(t, 0.96, Rates{Hour: 1200, Each: 10, Margin: 25, Fee: 15}, item)
	in.Goods = []cupboard.Good{{Kind: cupboard.Tape, Amount: 1e5, Price: 0.5, Spare: 10}}
	s := Do(in)
	b := s.Boxes[0]
	if b.Paper != 54 || s.Leftovers != 42 {
		t.Errorf("the tray pays %v of its sheet, the rest %v", b.Paper, s.Leftovers)
	}
	tape := 0.0
	item = in.Items[0]
	for _, x := range item.Made.Supplies {
		if x.ID == "tape" {
			tape = x.Amount
		}
	}
	if want := money.Of(tape / 1000 * 1.1 * 0.5); tape == 0 || b.Supplies != want {
		t.Errorf("%v mm of tape cost %v, not %v", tape, b.Supplies, want)
	}
	if want := money.Of(item.Made.One * 0.2); b.Work != want {
		t.Errorf("%v min cost %v, not %v", item.Made.One, b.Work, want)
	}
	// The price pays all: of 0.60 of it, the cost and 0.10 for the bag.
	if want := money.Of((b.One() + 10).Coins() / 0.6).Asked(); b.Price != want || b.Typed {
		t.Errorf("the price is %v, not %v", b.Price, want)
	}
	if b.Remains() < b.Price/5 || b.ForWork()-b.Remains() != b.Work {
		t.Errorf("of %v there remain %v, %v for the work", b.Price, b.Remains(), b.ForWork())
	}
	item.Inputs.Price = 650
	in.Items = []batch.Item{item}
	if b := Do(in).Boxes[0]; b.Price != 650 || !b.Typed || b.Fees() != 108 || b.Remains() != 650-108-b.One() {
		t.Errorf("set by hand: %+v, fees %v", b, b.Fees())
	}
}

// A slow maker's hours cost more; what has no price is named and not counted.
func TestPaceAndWhatHasNoPrice(t *testing.T) {
	item := batch.Item{Inputs: tray(4*measure.Inch, 3*measure.Inch, measure.Inch), Copies: 5}
	in := laid(t, 0, Rates{Hour: 1000}, item)
	item = in.Items[0]
	s := Do(in)
	if s.Boxes[0].Paper != 0 || s.Leftovers != 0 || !strings.Contains(s.Says(), "Plain card, 240 gsm") || !strings.Contains(strings.ToLower(s.Says()), "tape") {
		t.Errorf("without prices: %+v; %s", s, s.Says())
	}
	if want := recipe.Seconds(item.Made.Steps, 5) / 60; math.Abs(s.Boxes[0].Minutes-want) > 1e-9 {
		t.Errorf("five take %v min, not %v", s.Boxes[0].Minutes, want)
	}
	in.Paces = map[string]logbook.Pace{"glue": {Kind: "glue", Times: 2, Notes: 4}}
	if slow := Do(in).Boxes[0]; slow.Minutes <= s.Boxes[0].Minutes || slow.Work <= s.Boxes[0].Work {
		t.Errorf("slow at gluing it takes %v min", slow.Minutes)
	}
}

// Whatever a job makes, its total is that of its boxes and leftovers to the hundredth:
// all sheets, all supplies with their spares, all hours.
func TestAJobIsTheSumOfItsBoxes(t *testing.T) {
	r := rand.New(rand.NewPCG(15, 3))
	styles := style.Boxes()
	for n := range 12 {
		var items []batch.Item
		for k := range 1 + r.IntN(3) {
			in := design.New(fmt.Sprint("Box ", k), measure.In, styles[r.IntN(len(styles))].ID)
			items = append(items, batch.Item{Inputs: in, Copies: 1 + r.IntN(9)})
		}
		price := 0.37 + r.Float64()
		in := laid(t, price, Rates{Hour: 1150, Margin: 20}, items...)
		in.Goods = []cupboard.Good{{Kind: cupboard.Tape, Amount: 1, Price: 0.43, Spare: 15}, {Kind: cupboard.Glue, Amount: 1, Price: 0.07}, {Kind: cupboard.Dots, Price: 0.031, Amount: 1}, {Kind: cupboard.Ribbon, Price: 0.9, Amount: 1, Spare: 10}}
		s := Do(in)
		sum := s.Leftovers
		var paper, work money.Amount
		for _, b := range s.Boxes {
			sum += b.Paper + b.Supplies + b.Work
			paper, work = paper+b.Paper, work+b.Work
		}
		if sum != s.Total {
			t.Errorf("job %d: %v, its parts %v", n, s.Total, sum)
		}
		var sheets money.Amount
		for _, take := range batch.Takes(in.Stocks) {
			sheets += money.Amount(take.Count) * money.Of(take.Price)
		}
		if paper+s.Leftovers != sheets {
			t.Errorf("job %d: sheets for %v, shared out %v", n, sheets, paper+s.Leftovers)
		}
	}
}

func TestRatesThatCannotBe(t *testing.T) {
	for field, r := range map[string]Rates{"hour": {Hour: -1}, "each": {Each: money.Of(5000)}, "margin": {Margin: 91}, "fee": {Fee: math.NaN()}} {
		if err := r.Check(); err == nil || fault.Of(err).Field != field {
			t.Errorf("%s: %v", field, err)
		}
	}
	if err := (Rates{Margin: 60, Fee: 40}).Check(); err == nil {
		t.Error("nothing is left of the price")
	}
	if err := Usual.Check(); err != nil {
		t.Error(err)
	}
}
