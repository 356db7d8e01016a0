// Package cost is what boxes cost and are sold for: the paper they really take, what is
// used up, the maker's minutes, fees, and what remains.
package cost

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/batch"
	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/logbook"
	"brevium/core/money"
	"brevium/core/paper"
	"brevium/core/recipe"
)

// Rates are what a maker reckons with.
type Rates struct {
	// Hour is an hour of the maker's, Each what every sale costs (a bag, the stall's
	// fee for one).
	Hour money.Amount `json:"hour"`
	Each money.Amount `json:"each"`
	// Margin is what is to remain above all costs, and Fee what the stall takes, both
	// in percent of the price.
	Margin float64 `json:"margin"`
	Fee    float64 `json:"fee"`
}

// RatesKey is the name under which a maker's rates are kept.
const RatesKey = "rates"

// Usual are the rates before any is set.
var Usual = Rates{Margin: 20}

// Check refuses rates that leave nothing of a price.
func (r Rates) Check() error {
	switch {
	case r.Hour < 0 || r.Hour > money.Of(1000):
		return fault.New(fault.CostRange, "hour", "an hour is 0 to 1000")
	case r.Each < 0 || r.Each > money.Of(1000):
		return fault.New(fault.CostRange, "each", "what every sale costs is 0 to 1000")
	case !(r.Margin >= 0 && r.Margin <= 90):
		return fault.New(fault.OutOfRange, "margin", "a margin is 0 to 90 percent of the price")
	case !(r.Fee >= 0 && r.Fee <= 90):
		return fault.New(fault.OutOfRange, "fee", "a fee is 0 to 90 percent of the price")
	case r.Margin+r.Fee > 95:
		return fault.New(fault.OutOfRange, "margin", "margin and fee together leave too little of the price; keep them under 95 percent")
	}
	return nil
}

// Box is what all copies of one box of a job cost.
type Box struct {
	Item                  int
	Name                  string
	Copies                int
	Paper, Supplies, Work money.Amount
	Minutes               float64
	// Price is what one is asked for, and Typed tells that it was set by hand.
	Price money.Amount
	Typed bool
	rates Rates
}

// All is what all copies cost.
func (b Box) All() money.Amount { return b.Paper + b.Supplies + b.Work }

// One is the share of one copy, rounded to the hundredth.
func (b Box) One() money.Amount { return money.Of(b.All().Coins() / float64(b.Copies)) }

// Fees is what the stall takes of one at its price.
func (b Box) Fees() money.Amount {
	return money.Of(b.Price.Coins()*b.rates.Fee/100) + b.rates.Each
}

// Remains is what is left of one's price after all costs, the maker's hours among them;
// it may be less than nothing.
func (b Box) Remains() money.Amount { return b.Price - b.Fees() - b.One() }

// ForWork is what is left of one's price for the maker's work and beyond it.
func (b Box) ForWork() money.Amount {
	return b.Remains() + money.Of(b.Work.Coins()/float64(b.Copies))
}

// Sum is what a job costs: its boxes, what is left over of the paper that was taken for
// it, and all of it; what has no price is named.
type Sum struct {
	Boxes            []Box
	Leftovers, Total money.Amount
	Unpriced         []string
}

// Input is a job as it is laid out, what stands in drawer and cupboard, and the
// maker's rates and paces.
type Input struct {
	Items  []batch.Item // each with its box Made
	Stocks []batch.Stock
	Lots   []drawer.Lot
	Goods  []cupboard.Good
	Rates  Rates
	Paces  map[string]logbook.Pace
}

// Do adds a job up. Each sheet is paid whole: useful offcuts take their part of it as
// leftovers, and the pieces share the rest by their area, waste and all. Supplies are
// counted with their spares, at the cupboard's prices. Every sum is shared out to the
// hundredth, so that the total is the sum of the boxes and the leftovers.
func Do(in Input) Sum {
	s := Sum{Boxes: make([]Box, len(in.Items))}
	for i, it := range in.Items {
		s.Boxes[i] = Box{Item: i, Name: it.Inputs.Name, Copies: it.Copies, rates: in.Rates}
	}
	for _, st := range in.Stocks {
		s.paper(in, st)
	}
	s.supplies(in)
	s.Total = s.Leftovers
	for i, it := range in.Items {
		b := &s.Boxes[i]
		b.Minutes = minutes(it, in.Paces)
		b.Work = money.Of(b.Minutes / 60 * in.Rates.Hour.Coins())
		if b.Price, b.Typed = it.Inputs.Price, it.Inputs.Price > 0; !b.Typed {
			b.Price = Price(b.One(), in.Rates)
		}
		s.Total += b.All()
	}
	return s
}

// Price is what one is asked for by the margin: the price of which margin and fee take
// their percents and that pays the rest, rounded up to what is asked at a stall.
func Price(one money.Amount, r Rates) money.Amount {
	left := 1 - (r.Margin+r.Fee)/100
	return money.Of((one + r.Each).Coins() / left).Asked()
}

// minutes is how long this maker takes for all copies of an item.
func minutes(it batch.Item, paces map[string]logbook.Pace) float64 {
	sum := 0.0
	for _, st := range recipe.Flat(it.Made.Steps) {
		sum += logbook.Of(paces, string(st.Kind), recipe.Seconds([]recipe.Step{st}, it.Copies))
	}
	return sum / 60
}

// paper shares what the sheets of a card cost.
func (s *Sum) paper(in Input, st batch.Stock) {
	total := money.Amount(0)
	weights := make([]float64, len(in.Items)+1) // the last is left over
	for _, laid := range st.Layout.Sheets {
		kind := slices.IndexFunc(st.Job.Sheets, func(x paper.Sheet) bool { return x.Name == laid.Sheet.Name })
		if laid.Sheet.Offcut {
			continue // it was paid with the sheet it is of
		}
		if !in.priced(st, kind) {
			s.unpriced(st.Card.Label() + ", " + st.Names[kind])
			continue
		}
		price := st.Prices[kind]
		total += money.Of(price)
		whole := laid.Sheet.Width.MM() * laid.Sheet.Height.MM()
		kept, pieces := 0.0, 0.0
		for _, o := range laid.Offcuts {
			if drawer.Useful(o) {
				kept += o.Width.MM() * o.Height.MM()
			}
		}
		for _, p := range laid.Placed {
			pieces += p.Width.MM() * p.Height.MM()
		}
		weights[len(in.Items)] += price * kept / whole
		for _, p := range laid.Placed {
			weights[st.Origins[p.Piece].Item] += price * (1 - kept/whole) * p.Width.MM() * p.Height.MM() / pieces
		}
	}
	shares := money.Share(total, weights)
	for i := range s.Boxes {
		s.Boxes[i].Paper += shares[i]
	}
	s.Leftovers += shares[len(in.Items)]
}

// priced reports whether what a kind of sheet costs is known: from the drawer, or the
// price of the sheet that is bought.
func (in Input) priced(st batch.Stock, kind int) bool {
	if slices.ContainsFunc(in.Lots, func(l drawer.Lot) bool { return l.Price > 0 && l.Card.Key() == st.Card.Key() }) {
		return true
	}
	sheet := st.Job.Sheets[kind]
	return slices.ContainsFunc(in.Items, func(it batch.Item) bool {
		return slices.ContainsFunc(it.Inputs.Sheets, func(x paper.Sheet) bool {
			return x.Cost > 0 && x.Width == sheet.Width && x.Height == sheet.Height
		})
	})
}

// supplies shares what is used up of the cupboard.
func (s *Sum) supplies(in Input) {
	var each [][]cupboard.Need
	var all []cupboard.Need
	for _, it := range in.Items {
		n := cupboard.Times(cupboard.Needs(one(it.Made)), it.Copies)
		each = append(each, n)
		all = cupboard.Sum(all, n)
	}
	for _, l := range cupboard.Against(all, in.Goods) {
		if l.Cost == 0 {
			s.unpriced(cupboard.Good{Kind: l.Kind, Name: l.Name}.Named())
			continue
		}
		weights := make([]float64, len(in.Items))
		for i, needs := range each {
			for _, n := range needs {
				if n.Kind == l.Kind && strings.EqualFold(n.Name, l.Name) {
					weights[i] += n.Amount
				}
			}
		}
		for i, share := range money.Share(money.Of(l.Cost), weights) {
			s.Boxes[i].Supplies += share
		}
	}
}

// one is what one box uses up: the result may be of several.
func one(r *design.Result) []recipe.Supply {
	out := slices.Clone(r.Supplies)
	for i := range out {
		out[i].Amount /= float64(max(1, r.Inputs.Copies))
	}
	return out
}

func (s *Sum) unpriced(what string) {
	if !slices.Contains(s.Unpriced, what) {
		s.Unpriced = append(s.Unpriced, what)
	}
}

// Says names what has no price, in a sentence; "" when all is counted.
func (s Sum) Says() string {
	if len(s.Unpriced) == 0 {
		return ""
	}
	return fmt.Sprintf("Not counted, since it has no price: %s.", strings.Join(s.Unpriced, "; "))
}
