package page

import (
	"context"
	"fmt"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/cost"
	"brevium/core/fault"
	"brevium/core/logbook"
	"brevium/core/money"
	"brevium/core/recipe"
	"brevium/store/boxshelf"
	"brevium/web/form"
)

// Rates are those the maker reckons with.
func (s *Room) Rates(ctx context.Context) (cost.Rates, error) {
	r := cost.Usual
	err := s.Store.Of(ctx).Setting(ctx, cost.RatesKey, &r)
	if err == nil && r.Check() != nil { // out of another's zip
		r = cost.Usual
	}
	return r, err
}

// Costed adds a job up that is laid out, with what stands in drawer and cupboard.
func (s *Room) Costed(ctx context.Context, items []batch.Item, stocks []batch.Stock) (cost.Sum, error) {
	in := cost.Input{Items: items, Stocks: stocks}
	var err error
	if in.Lots, err = s.Store.Of(ctx).Lots(ctx); err != nil {
		return cost.Sum{}, err
	}
	if in.Goods, err = s.Store.Of(ctx).Goods(ctx); err != nil {
		return cost.Sum{}, err
	}
	if in.Rates, err = s.Rates(ctx); err != nil {
		return cost.Sum{}, err
	}
	times, err := s.Store.Of(ctx).Times(ctx, 0)
	if err != nil {
		return cost.Sum{}, err
	}
	in.Paces = logbook.Paces(times)
	return cost.Do(in), nil
}

// CostPage is what boxes cost and are sold for.
type CostPage struct {
	Chrome
	Name         string // of the box or the job
	Tags         bool   // a tag can be hung on it
	At, Back     string // its address, and that of what it is of
	Sum          cost.Sum
	Boxes        []CostRow
	Says         string // what has no price
	Form         *form.Form
	Rates        []form.Field
	Copies       int // of all boxes
	SellsFor     money.Amount
	RemainsInAll money.Amount
}

// CostRow is a box of it.
type CostRow struct {
	cost.Box
	ID    int64
	Time  string
	Price form.Field
	Way   string // how its price came about
}

// PriceField is the name of the field of a box's price.
func PriceField(box int64) string { return fmt.Sprintf("price.%d", box) }

// ShowCost readies the page; ids are the boxes', in the order of the items.
func (s *Room) ShowCost(ctx context.Context, p *CostPage, ids []int64) error {
	r, err := s.Rates(ctx)
	if err != nil {
		return err
	}
	f := p.Form
	f.Carry = true
	p.Rates = rateFields(f, r)
	p.Says = p.Sum.Says()
	for i, b := range p.Sum.Boxes {
		row := CostRow{Box: b, ID: ids[i], Time: recipe.Clock(b.Minutes), Way: "from the margin"}
		shown := ""
		if b.Typed {
			shown, row.Way = b.Price.String(), "set by hand"
		}
		row.Price = priceField(f, ids[i], b.Name, shown)
		p.Boxes = append(p.Boxes, row)
		p.Copies += b.Copies
		p.SellsFor += b.Price * money.Amount(b.Copies)
		p.RemainsInAll += b.Remains() * money.Amount(b.Copies)
	}
	return nil
}

// rateFields ask for what the maker reckons with.
func rateFields(f *form.Form, r cost.Rates) []form.Field {
	number := func(f float64) string { return strings.TrimSuffix(fmt.Sprintf("%.1f", f), ".0") }
	return []form.Field{
		f.Control("hour", "An hour of your work", "in your currency, such as 12", r.Hour.String()),
		f.Control("margin", "Profit margin", "percent of the price", number(r.Margin)),
		f.Control("fee", "The stall's fee", "percent of the price", number(r.Fee)),
		f.Control("each", "Cost per sale", "a bag, a card fee", r.Each.String()),
	}
}

// priceField asks for the price of a box by hand.
func priceField(f *form.Form, id int64, name, shown string) form.Field {
	return f.Control(PriceField(id), "Your own price for "+name, "empty: from the margin", shown)
}

// TakeCost keeps the rates of a form and the prices of boxes by hand; tag hangs each
// new price on its box. What cannot be taken is a fault of the form.
func (s *Room) TakeCost(c *echo.Context, boxes []boxshelf.Box, tag bool) (*form.Form, error) {
	posted, err := c.FormValues()
	if err != nil {
		return nil, BadForm(err)
	}
	s.Merging.Lock()
	defer s.Merging.Unlock()
	ctx := c.Request().Context()
	f := form.New(posted, UnitsOf(c))
	for i := range boxes { // as they stand by now
		if boxes[i], err = s.Store.Of(ctx).Box(ctx, boxes[i].ID); err != nil {
			return nil, err
		}
		shown := ""
		if boxes[i].Inputs.Price > 0 {
			shown = boxes[i].Inputs.Price.String()
		}
		f.Meet(priceField(form.New(nil, f.Unit), boxes[i].ID, boxes[i].Name, shown))
	}
	if err := s.readRates(ctx, f); err != nil {
		return nil, err
	}
	for _, b := range boxes {
		price, asked := readPrice(f, b.ID)
		if !f.OK() || !asked || price == b.Inputs.Price && !tag {
			continue
		}
		if b.Inputs.Price = price; tag && price > 0 {
			b.Inputs.HangPrice()
		}
		if err := s.Store.Of(ctx).Save(ctx, b.ID, b.Inputs, boxshelf.Edit{From: b.Version, What: "price", Page: Window(c)}); err != nil {
			return nil, err
		}
	}
	return f, nil
}

// readRates keeps the rates of a form.
func (s *Room) readRates(ctx context.Context, f *form.Form) error {
	r, err := s.Rates(ctx)
	if err != nil {
		return err
	}
	f.Meet(rateFields(form.New(nil, f.Unit), r)...)
	for name, into := range map[string]*money.Amount{"hour": &r.Hour, "each": &r.Each} {
		a, err := money.Parse(f.Posted.Get(name))
		if err != nil {
			f.Fail(fault.At(name, err))
		} else if f.Posted.Has(name) {
			*into = a
		}
	}
	f.Decimal("margin", &r.Margin)
	f.Decimal("fee", &r.Fee)
	if !f.OK() {
		return nil
	}
	if err := r.Check(); err != nil {
		f.Fail(err)
		return nil
	}
	return s.Store.Of(ctx).Set(ctx, cost.RatesKey, r)
}

// readPrice reads the price of a box, and whether it was asked for.
func readPrice(f *form.Form, box int64) (price money.Amount, asked bool) {
	name := PriceField(box)
	if !f.Posted.Has(name) {
		return 0, false
	}
	a, err := money.Parse(f.Posted.Get(name))
	if err != nil {
		f.Fail(fault.At(name, err))
		return 0, false
	}
	return a, true
}
