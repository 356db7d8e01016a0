package drawer

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/cupboard"
	"brevium/core/fault"
	"brevium/web/form"
	"brevium/web/page"
)

// cupboardPage is the supplies in stock.
type cupboardPage struct {
	page.Chrome
	Form  *form.Form
	Goods []goodView
	Add   []form.Field
	Worth string
	Put   bool
}

// goodView is a supply with its fields.
type goodView struct {
	cupboard.Good
	At                    string // names its fields
	Title, Unit, Reserved string
	Fields                []form.Field
}

// goodAt names the fields of a supply, the same in every window.
func goodAt(g cupboard.Good) string { return fmt.Sprintf("good%x", string(g.Kind)+"/"+g.Name) }

// lengthsIn is how lengths are typed: by the metre.
const lengthsIn = 1000.0

// shownAs is an amount as it is typed: metres of what is long.
func shownAs(k cupboard.Kind, amount float64) string {
	if k.Long() {
		amount /= lengthsIn
	}
	return strconv.FormatFloat(amount, 'f', -1, 64)
}

func unitOf(k cupboard.Kind) string {
	if k.Long() {
		return "m"
	}
	return k.Unit()
}

func (s *room) cupboard(c *echo.Context) error {
	return s.showCupboard(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showCupboard(c *echo.Context, status int, f *form.Form) error {
	goods, err := s.Store.Of(c.Request().Context()).Goods(c.Request().Context())
	if err != nil {
		return err
	}
	f.Carry = true
	v := cupboardPage{Chrome: s.Chrome(c, "The cupboard"), Form: f, Put: c.QueryParam("put") != ""}
	worth := 0.0
	for _, g := range goods {
		at := func(part string) string { return goodAt(g) + "." + part }
		x := goodView{Good: g, At: goodAt(g), Title: g.Named(), Unit: unitOf(g.Kind)}
		if g.Reserved > 0 {
			x.Reserved = g.Kind.Tells(g.Reserved) + " set aside"
		}
		x.Fields = s.goodFields(f, at, g)
		worth += g.Worth()
		v.Goods = append(v.Goods, x)
	}
	v.Worth = fmt.Sprintf("%.2f", worth)
	f.Carry = false
	var kinds []form.Choice
	for _, k := range cupboard.Kinds {
		kinds = append(kinds, form.Choice{Value: string(k), Label: k.Name()})
	}
	v.Add = append([]form.Field{
		f.ChoiceField("new.kind", "Kind", "", string(cupboard.Tape), kinds...),
		f.Control("new.name", "Its own name", "for ribbon and twine, such as gold ribbon", ""),
	}, s.goodFields(f, func(part string) string { return "new." + part }, cupboard.Good{Kind: cupboard.Ribbon, Spare: cupboard.UsualSpare})...)
	return c.Render(status, "cupboard.html", v)
}

func (s *room) goodFields(f *form.Form, at func(string) string, g cupboard.Good) []form.Field {
	amount, price := "how many", "of one"
	switch {
	case g.Kind.Long():
		amount, price = "metres; or how many", "of a metre, or of one"
	case g.Kind == cupboard.Glue:
		amount, price = "cm² it does", "of 100 cm²"
	}
	return []form.Field{
		f.Control(at("amount"), "There is", amount, shownAs(g.Kind, g.Amount)),
		f.Control(at("price"), "Price", price, fmt.Sprintf("%.2f", g.Price)),
		f.Control(at("spare"), "Spare", "percent", strconv.FormatFloat(g.Spare, 'f', -1, 64)),
	}
}

// readGood reads a supply's fields.
func readGood(f *form.Form, at func(string) string, g *cupboard.Good) {
	number := func(name string, into *float64) {
		text := strings.TrimSpace(f.Posted.Get(at(name)))
		if !f.Posted.Has(at(name)) || text == "" {
			return
		}
		v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
		if err != nil {
			f.Fail(fault.New(fault.NotANumber, at(name), "%q is not a number; type one such as 12.5", text))
			return
		}
		*into = v
	}
	amount := g.Amount
	if g.Kind.Long() {
		amount /= lengthsIn
	}
	number("amount", &amount)
	if g.Kind.Long() {
		amount *= lengthsIn
	}
	g.Amount = amount
	number("price", &g.Price)
	number("spare", &g.Spare)
	if err := g.Check(); err != nil {
		x := *fault.Of(err)
		x.Field = at(x.Field)
		f.Fail(&x)
	}
}

// meetGood holds the fields of a supply against how it stands by now; one that was taken out
// meanwhile is a fault.
func (s *room) meetGood(ctx context.Context, f *form.Form, at func(string) string, g *cupboard.Good) error {
	goods, err := s.Store.Of(ctx).Goods(ctx)
	if err != nil {
		return err
	}
	for _, x := range goods {
		if x.Kind == g.Kind && x.Name == g.Name {
			*g = cupboard.Good{Kind: x.Kind, Name: x.Name, Amount: x.Amount, Price: x.Price, Spare: x.Spare}
			f.Meet(s.goodFields(form.New(nil, f.Unit), at, x)...)
			return nil
		}
	}
	return fault.New(fault.Deleted, "", "%s was taken out of the cupboard meanwhile; put it in anew.", g.Named())
}

// putGood puts a supply in, changes one, or takes it out.
func (s *room) putGood(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	s.Merging.Lock()
	defer s.Merging.Unlock()
	f := form.New(posted, page.UnitsOf(c))
	ctx := c.Request().Context()
	g := cupboard.Good{Kind: cupboard.Kind(posted.Get("kind")), Name: posted.Get("name")}
	at := func(part string) string { return posted.Get("at") + "." + part }
	out := posted.Get("out") != ""
	if out { // what was seen is taken out, and no more
		posted.Set(at("amount"), "0")
	}
	if posted.Get("at") == "new" {
		g.Kind = cupboard.Kind(posted.Get("new.kind"))
		f.Text("new.name", &g.Name)
	} else if err := s.meetGood(ctx, f, at, &g); err != nil {
		return err
	}
	readGood(f, at, &g)
	if !f.OK() {
		return s.showCupboard(c, http.StatusUnprocessableEntity, f)
	}
	if out {
		if err := s.Store.Of(ctx).DropGood(ctx, g.Kind, g.Name); err != nil {
			return err
		}
		return page.Back(c, "/drawer/cupboard")
	}
	if err := s.Store.Of(ctx).SetGoods(ctx, []cupboard.Good{g}); err != nil {
		if !page.IsFault(err) {
			return err
		}
		f.Fail(err)
		return s.showCupboard(c, http.StatusUnprocessableEntity, f)
	}
	return page.Back(c, "/drawer/cupboard?%s", url.Values{"put": {"1"}}.Encode())
}

// importGoods takes supplies from a CSV file. A bad row is said, and then none is
// taken.
func (s *room) importGoods(c *echo.Context) error {
	text, err := page.Listed(c)
	if err != nil {
		return err
	}
	goods, faults := cupboard.ReadCSV(text)
	if len(faults) == 0 {
		if err = s.Store.Of(c.Request().Context()).SetGoods(c.Request().Context(), goods); err == nil {
			return page.Back(c, "/drawer/cupboard?%s", url.Values{"put": {"1"}}.Encode())
		}
		if !page.IsFault(err) {
			return err
		}
		faults = []error{err}
	}
	f := form.New(nil, page.UnitsOf(c))
	f.Refuse(text, faults)
	return s.showCupboard(c, http.StatusUnprocessableEntity, f)
}

func (s *room) exportGoods(c *echo.Context) error {
	goods, err := s.Store.Of(c.Request().Context()).Goods(c.Request().Context())
	if err != nil {
		return err
	}
	return page.Download(c, "cupboard", ".csv", "text/csv; charset=utf-8", cupboard.WriteCSV(goods))
}
