package web

import (
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/draw"
)

// drawerPage is the paper in stock, drawn to scale.
type drawerPage struct {
	chrome
	Groups []groupView
	Form   *form
	Add    []field
	Own    []field
	Offcut bool
	Worth  string
	Put    bool // paper was just put in
}

// groupView is one card's sheets.
type groupView struct {
	Card    paper.Card
	About   string
	Picture template.HTML
	Lots    []lotView
}

type lotView struct {
	drawer.Lot
	Size, What string
	CountField field
	PriceField field
}

// directionWords says which way a card's pattern runs.
var directionWords = map[paper.Direction]string{paper.NoDirection: "no direction", paper.TwoWays: "two ways up", paper.OneWayUp: "one way up"}

func (s *server) drawer(c *echo.Context) error {
	return s.showDrawer(c, http.StatusOK, newForm(nil, unitsOf(c)))
}

func (s *server) showDrawer(c *echo.Context, status int, f *form) error {
	lots, err := s.store.Lots(c.Request().Context())
	if err != nil {
		return err
	}
	page := drawerPage{chrome: s.chrome(c, "The drawer"), Form: f, Put: c.QueryParam("put") != ""}
	worth := 0.0
	for _, g := range drawer.Groups(lots) {
		v := groupView{Card: g.Card, About: fmt.Sprintf("%.0f gsm, %s mm, %s", g.Card.GSM, measure.Number(g.Card.Thickness, measure.MM, measure.Millimetre/100), directionWords[g.Card.Direction])}
		v.Picture = svg(draw.Drawer{Units: page.Units, Tick: page.Units.Tick()}.Picture(g))
		for _, l := range g.Lots {
			worth += float64(l.Count) * l.Price
			x := lotView{Lot: l, Size: sizeOf(l.Width, l.Height, page.Units), What: l.Sheet}
			if l.Offcut && l.From != "" {
				x.What = "offcut of " + l.From
			}
			x.CountField = f.control(fmt.Sprintf("count.%d", l.ID), "How many", "", strconv.Itoa(l.Count))
			x.PriceField = f.control(fmt.Sprintf("price.%d", l.ID), "Price of one", "", fmt.Sprintf("%.2f", l.Price))
			v.Lots = append(v.Lots, x)
		}
		page.Groups = append(page.Groups, v)
	}
	page.Worth = fmt.Sprintf("%.2f", worth)
	page.addFields()
	return c.Render(status, "drawer.html", page)
}

// addFields readies the form that puts paper in.
func (p *drawerPage) addFields() {
	f := p.Form
	card := f.control("card", "Card", "the name your boxes call it by", "")
	kinds := []choice{}
	for _, s := range paper.Standard {
		kinds = append(kinds, choice{Value: s.Name, Label: s.Name})
	}
	kinds = append(kinds, choice{Value: "own", Label: "another size"})
	p.Add = []field{
		card,
		f.control("gsm", "Weight", "gsm, or 80 lb cover", "240"),
		f.choiceField("direction", "Its pattern", "", string(paper.NoDirection),
			choice{Value: "none", Label: "has no direction"}, choice{Value: "two-ways", Label: "runs two ways up"}, choice{Value: "one-way-up", Label: "runs one way up"}),
		f.choiceField("sheet", "Sheet", "", paper.Standard[0].Name, kinds...),
	}
	p.Own = []field{
		f.control("width", "Wide", "for another size", ""), f.control("height", "High", "", ""),
		f.control("count", "How many", "", "1"), f.control("price", "Price of one", "in your money", "0"),
	}
	for i := range 2 {
		p.Own[i].Unit = string(p.Units)
	}
	p.Offcut = f.posted.Get("offcut") != ""
}

func sizeOf(w, h measure.Length, unit measure.Unit) string {
	return fmt.Sprintf("%s × %s %s", measure.Number(w, unit, unit.Tick()), measure.Number(h, unit, unit.Tick()), unit)
}

// usable is what can be used of an offcut, in whole ticks.
func usable(w, h measure.Length, unit measure.Unit) string {
	return sizeOf(measure.Down(w, unit.Tick()), measure.Down(h, unit.Tick()), unit)
}

// price reads an amount of money.
func (f *form) price(name string, into *float64) {
	text := strings.TrimSpace(f.posted.Get(name))
	if text == "" {
		return
	}
	v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil {
		f.fail(fault.New(fault.NotANumber, name, "%q is not a price; type one such as 0.80", text))
		return
	}
	*into = v
}

// putPaper puts sheets or an offcut into the drawer.
func (s *server) putPaper(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return badForm(err)
	}
	f := newForm(posted, unitsOf(c))
	l := drawer.Lot{Count: 1, Offcut: posted.Get("offcut") != ""}
	f.text("card", &l.Card.Name)
	f.weight("gsm", &l.Card.GSM)
	l.Card.Direction = paper.Direction(posted.Get("direction"))
	f.whole("count", &l.Count)
	f.price("price", &l.Price)
	if l.Sheet = posted.Get("sheet"); l.Sheet == "own" || l.Sheet == "" {
		l.Sheet = ""
		f.length("width", &l.Width)
		f.length("height", &l.Height)
	}
	if l.Offcut {
		l.From = "put in by hand"
	}
	if f.ok() {
		l.Complete()
		if l.Count == 0 {
			f.fail(fault.New(fault.CountRange, "count", "put in one sheet or more"))
		} else if err := s.store.AddLots(c.Request().Context(), []drawer.Lot{l}); isFault(err) {
			f.fail(err)
		} else if err != nil {
			return err
		}
	}
	if !f.ok() {
		return s.showDrawer(c, http.StatusUnprocessableEntity, f)
	}
	return back(c, "/drawer?%s", url.Values{"put": {"1"}}.Encode())
}

// setPaper changes how many sheets a pile has, and what one costs.
func (s *server) setPaper(c *echo.Context) error {
	n, err := id(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	l, err := s.store.Lot(ctx, n)
	if err != nil {
		return err
	}
	posted, err := c.FormValues()
	if err != nil {
		return badForm(err)
	}
	f := newForm(posted, unitsOf(c))
	count, price := fmt.Sprintf("count.%d", n), fmt.Sprintf("price.%d", n)
	f.whole(count, &l.Count)
	f.price(price, &l.Price)
	if posted.Get("out") != "" {
		l.Count = 0
	}
	if f.ok() {
		if err := s.store.SetLot(ctx, n, l.Count, l.Price); isFault(err) {
			x := *fault.Of(err)
			x.Field = map[string]string{"count": count, "price": price}[x.Field]
			f.fail(&x)
		} else if err != nil {
			return err
		}
	}
	if !f.ok() {
		return s.showDrawer(c, http.StatusUnprocessableEntity, f)
	}
	return back(c, "/drawer")
}

// importPaper takes paper from a CSV file. A bad row is said, and then none is
// taken.
func (s *server) importPaper(c *echo.Context) error {
	text, err := listed(c)
	if err != nil {
		return err
	}
	lots, faults := drawer.ReadCSV(text, unitsOf(c))
	if len(faults) == 0 {
		err = s.store.AddLots(c.Request().Context(), lots)
		if err == nil {
			return back(c, "/drawer?%s", url.Values{"put": {"1"}}.Encode())
		}
		if !isFault(err) {
			return err
		}
		faults = []error{err}
	}
	f := newForm(nil, unitsOf(c))
	for _, err := range faults {
		f.Rows = append(f.Rows, err.Error())
	}
	f.List = string(text)
	return s.showDrawer(c, http.StatusUnprocessableEntity, f)
}

func (s *server) exportPaper(c *echo.Context) error {
	lots, err := s.store.Lots(c.Request().Context())
	if err != nil {
		return err
	}
	return download(c, "drawer", ".csv", "text/csv; charset=utf-8", drawer.WriteCSV(lots))
}
