// Package drawer is the paper in stock.
package drawer

import (
	"cmp"
	"embed"
	"fmt"
	"hash/fnv"
	"html/template"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"brevium/draw"

	"github.com/labstack/echo/v5"

	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/web/form"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct{ *page.Room }

// Routes adds the room's addresses.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{shared}
	e.GET("/drawer", s.drawer)
	e.POST("/drawer", s.putPaper)
	e.POST("/drawer/import", s.importPaper)
	e.GET("/drawer.csv", s.exportPaper)
	e.POST("/drawer/look", s.setLook)
	e.GET("/drawer/cupboard", s.cupboard)
	e.POST("/drawer/cupboard", s.putGood)
	e.POST("/drawer/cupboard/import", s.importGoods)
	e.GET("/cupboard.csv", s.exportGoods)
	e.GET("/drawer/shape", s.shape)
	e.POST("/drawer/shape", s.putShape)
	e.GET("/drawer/shape/:id", s.shapePhoto)
	e.POST("/drawer/shape/:id", s.straightenShape)
	e.GET("/drawer/tools", s.tools)
	e.POST("/drawer/tools", s.setTools)
	e.GET("/drawer/card-and-glue", s.matter)
	e.POST("/drawer/card-and-glue", s.setMatter)
	e.POST("/drawer/:id", s.setPaper)
}

// drawerPage is the paper in stock, drawn to scale.
type drawerPage struct {
	page.Chrome
	Groups []groupView
	Form   *form.Form
	Add    []form.Field
	Own    []form.Field
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
	At      string // names its fields
	Look    []form.Field
}

type lotView struct {
	drawer.Lot
	Size, What string
	CountField form.Field
	PriceField form.Field
}

func (s *room) drawer(c *echo.Context) error {
	return s.showDrawer(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showDrawer(c *echo.Context, status int, f *form.Form) error {
	lots, err := s.Store.Of(c.Request().Context()).Lots(c.Request().Context())
	if err != nil {
		return err
	}
	f.Carry = true
	view := drawerPage{Chrome: s.Chrome(c, "The drawer"), Form: f, Put: c.QueryParam("put") != ""}
	worth := 0.0
	for _, g := range drawer.Groups(lots) {
		at := paperAt(g.Card)
		v := groupView{
			Card: g.Card, At: at, Look: f.LookFields(at+".look", g.Card),
			About: fmt.Sprintf(
				"%.0f gsm, %s mm thick %s, its pattern %s",
				g.Card.GSM,
				measure.Number(g.Card.Thickness, measure.MM, measure.Hundredth),
				g.Card.ThicknessFrom(),
				form.DirectionWords[cmp.Or(g.Card.Direction, paper.NoDirection)],
			),
		}
		v.Picture = page.SVG(draw.Drawer{Units: view.Units, Tick: view.Units.Tick()}.Picture(g))
		for _, l := range g.Lots {
			worth += float64(l.Count) * l.Price
			x := lotView{Lot: l, Size: page.SizeOf(l.Width, l.Height, view.Units), What: l.Sheet}
			if l.Offcut && l.From != "" {
				x.What = "offcut of " + l.From
			}
			if l.Shape != "" {
				x.What += ", of any shape"
			}
			x.CountField, x.PriceField = lotFields(f, l)
			v.Lots = append(v.Lots, x)
		}
		view.Groups = append(view.Groups, v)
	}
	view.Worth = fmt.Sprintf("%.2f", worth)
	f.Carry = false
	view.addFields()
	return c.Render(status, "drawer.html", view)
}

// paperAt names the fields of a card, the same in every window.
func paperAt(c paper.Card) string {
	sum := fnv.New64a()
	sum.Write([]byte(c.Key())) // never fails
	return fmt.Sprintf("paper%x", sum.Sum64())
}

// lotFields ask how many sheets a pile has, and what one costs.
func lotFields(f *form.Form, l drawer.Lot) (count, price form.Field) {
	return f.Control(fmt.Sprintf("count.%d", l.ID), "How many", "", strconv.Itoa(l.Count)),
		f.Control(fmt.Sprintf("price.%d", l.ID), "Price of one", "", fmt.Sprintf("%.2f", l.Price))
}

// addFields readies the form that puts paper in.
func (p *drawerPage) addFields() {
	f := p.Form
	card := f.Control("card", "Card", "the name your boxes call it by", "")
	kinds := []form.Choice{}
	for _, s := range paper.Standard {
		kinds = append(kinds, form.Choice{Value: s.Name, Label: s.Name})
	}
	kinds = append(kinds, form.Choice{Value: "own", Label: "another size"})
	p.Add = []form.Field{
		card,
		f.Control("gsm", "Weight", "gsm, or 80 lb cover", "240"),
		form.DirectionField(f, "direction", paper.NoDirection),
		form.GrainField(f, "grain", paper.UnknownGrain),
		form.FinishField(f, "finish", paper.Solid),
		f.ChoiceField("sheet", "Sheet", "", paper.Standard[0].Name, kinds...),
	}
	p.Own = []form.Field{
		f.EmptyLength("width", "Wide", "for another size"), f.EmptyLength("height", "High", ""),
		f.Control("count", "How many", "of each", "1"), f.Control("price", "Price of one", "in your money", "0"),
		f.Control("papers", "Different papers", "more than one in a pack", "1"),
	}
	p.Offcut = f.Posted.Get("offcut") != ""
}

// putPaper puts sheets or an offcut into the drawer.
func (s *room) putPaper(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	l := drawer.Lot{Count: 1, Offcut: posted.Get("offcut") != ""}
	f.Text("card", &l.Card.Name)
	f.Weight("gsm", &l.Card.GSM)
	l.Card.Direction = paper.Direction(posted.Get("direction"))
	f.ReadMatter("", &l.Card)
	f.Whole("count", &l.Count)
	f.Price("price", &l.Price)
	papers := 1
	f.Whole("papers", &papers)
	if l.Sheet = posted.Get("sheet"); l.Sheet == "own" || l.Sheet == "" {
		l.Sheet = ""
		f.Length("width", &l.Width)
		f.Length("height", &l.Height)
	} else {
		for _, side := range []string{"width", "height"} {
			if strings.TrimSpace(posted.Get(side)) != "" {
				f.Fail(fault.New(fault.BothGiven, side, "%s has its own size; leave this empty, or choose “another size” above", l.Sheet))
			}
		}
	}
	if l.Offcut {
		l.From = "put in by hand"
	}
	if f.OK() {
		l.Complete()
		if l.Count == 0 {
			f.Fail(fault.New(fault.CountRange, "count", "put in one sheet or more"))
		} else if papers < 1 || papers > mostInPack {
			f.Fail(fault.New(fault.CountRange, "papers", "a pack has 1 to %d different papers", mostInPack))
		} else if err := s.Store.Of(c.Request().Context()).AddLots(c.Request().Context(), pack(l, papers)); page.IsFault(err) {
			f.Fail(err)
		} else if err != nil {
			return err
		}
	}
	if !f.OK() {
		return s.showDrawer(c, http.StatusUnprocessableEntity, f)
	}
	return page.Back(c, "/drawer?%s", url.Values{"put": {"1"}}.Encode())
}

// mostInPack is how many different papers are put in at once.
const mostInPack = 60

// pack is a lot for each of so many papers, which are numbered where there are several.
func pack(l drawer.Lot, papers int) []drawer.Lot {
	if papers == 1 {
		return []drawer.Lot{l}
	}
	out := make([]drawer.Lot, papers)
	for i := range out {
		out[i] = l
		out[i].Card.Name = fmt.Sprintf("%s %d", l.Card.Name, i+1)
	}
	return out
}

// setLook changes how the sheets of a card look.
func (s *room) setLook(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	old, known := form.CardOfText(posted.Get("card"))
	if !known {
		return page.BadForm(fault.New(fault.Invalid, "card", "This form names no card; reload the page."))
	}
	s.Merging.Lock()
	defer s.Merging.Unlock()
	lots, err := s.Store.Of(c.Request().Context()).Lots(c.Request().Context())
	if err != nil {
		return err
	}
	for _, l := range lots { // as it looks by now
		if l.Card.Key() == old.Key() {
			old.Look = l.Card.Look
		}
	}
	f.Meet(form.New(nil, f.Unit).LookFields(posted.Get("at")+".look", old)...)
	now := old
	f.ReadLook(posted.Get("at"), old, &now)
	if err := now.Look.Check(); err != nil {
		f.Fail(fault.At(posted.Get("at")+".look", err))
	}
	if !f.OK() {
		return s.showDrawer(c, http.StatusUnprocessableEntity, f)
	}
	now.Name, now.GSM, now.Direction = old.Name, old.GSM, old.Direction
	if err := s.Store.Of(c.Request().Context()).SetLook(c.Request().Context(), now); err != nil {
		return err
	}
	return page.Back(c, "/drawer")
}

// setPaper changes how many sheets a pile has, and what one costs.
func (s *room) setPaper(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	s.Merging.Lock()
	defer s.Merging.Unlock()
	ctx := c.Request().Context()
	l, err := s.Store.Of(ctx).Lot(ctx, n)
	if err != nil {
		return err
	}
	f := form.New(posted, page.UnitsOf(c))
	if posted.Get("out") != "" { // what was seen is taken out, and no more
		posted.Set(fmt.Sprintf("count.%d", n), "0")
	}
	nowCount, nowPrice := lotFields(form.New(nil, f.Unit), l)
	f.Meet(nowCount, nowPrice)
	count, price := fmt.Sprintf("count.%d", n), fmt.Sprintf("price.%d", n)
	f.Whole(count, &l.Count)
	f.Price(price, &l.Price)
	if f.OK() {
		if err := s.Store.Of(ctx).SetLot(ctx, n, l.Count, l.Price); page.IsFault(err) {
			x := *fault.Of(err)
			x.Field = map[string]string{"count": count, "price": price}[x.Field]
			f.Fail(&x)
		} else if err != nil {
			return err
		}
	}
	if !f.OK() {
		return s.showDrawer(c, http.StatusUnprocessableEntity, f)
	}
	return page.Back(c, "/drawer")
}

// importPaper takes paper from a CSV file. A bad row is said, and then none is
// taken.
func (s *room) importPaper(c *echo.Context) error {
	text, err := page.Listed(c)
	if err != nil {
		return err
	}
	lots, faults := drawer.ReadCSV(text, page.UnitsOf(c))
	if len(faults) == 0 {
		err = s.Store.Of(c.Request().Context()).AddLots(c.Request().Context(), lots)
		if err == nil {
			return page.Back(c, "/drawer?%s", url.Values{"put": {"1"}}.Encode())
		}
		if !page.IsFault(err) {
			return err
		}
		faults = []error{err}
	}
	f := form.New(nil, page.UnitsOf(c))
	f.Refuse(text, faults)
	return s.showDrawer(c, http.StatusUnprocessableEntity, f)
}

func (s *room) exportPaper(c *echo.Context) error {
	lots, err := s.Store.Of(c.Request().Context()).Lots(c.Request().Context())
	if err != nil {
		return err
	}
	return page.Download(c, "drawer", ".csv", "text/csv; charset=utf-8", drawer.WriteCSV(lots))
}
