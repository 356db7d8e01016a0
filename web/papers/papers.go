// Package papers is how papers are seen: swatches of them, and photographs of
// one's own.
package papers

import (
	"embed"
	"net/http"
	"net/url"
	"strings"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/draw"
	"brevium/photo"
	"brevium/web/form"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct{ *page.Room }

// Path is where what is sent to this room begins, for it sets its own limit.
const Path = "/papers"

// Routes adds the room's addresses.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{shared}
	e.GET("/swatch.svg", s.swatch)
	e.GET(Path+"/new", s.new)
	e.POST(Path, s.send, page.ForPhotographs)
	e.GET(Path+"/:file", s.picture)
	e.GET(Path+"/:id/straighten", s.straighten)
	e.POST(Path+"/:id/straighten", s.keep, middleware.BodyLimit(64<<10))
}

// forever lets a page keep what never changes under its address.
func forever(c *echo.Context) {
	c.Response().Header().Set("Cache-Control", "private, max-age=31536000, immutable")
}

// swatch draws a card by the look in its address.
func (s *room) swatch(c *echo.Context) error {
	l, err := form.LookOfText(c.QueryParam("l"))
	if err != nil || l.Photo.ID != "" {
		return echo.NewHTTPError(http.StatusNotFound, "there is no such card")
	}
	forever(c)
	return c.Blob(http.StatusOK, "image/svg+xml", []byte(draw.Swatch(paper.Card{Look: l}.Seen()).Inline()))
}

// picture gives a photograph.
func (s *room) picture(c *echo.Context) error {
	id, is := strings.CutSuffix(c.Param("file"), ".jpg")
	if !is {
		return echo.NewHTTPError(http.StatusNotFound, "there is no such picture")
	}
	p, err := s.Store.Of(c.Request().Context()).Photo(c.Request().Context(), id)
	if err != nil {
		return err
	}
	forever(c)
	return c.Blob(http.StatusOK, "image/jpeg", p.JPEG)
}

// newPage asks for a picture.
type newPage struct {
	page.Chrome
	Fault string
}

func (s *room) new(c *echo.Context) error {
	return c.Render(http.StatusOK, "paper-new.html", newPage{Chrome: s.Chrome(c, "A paper of your own")})
}

// send takes a picture; one that cannot be read is refused with a sentence.
func (s *room) send(c *echo.Context) error {
	refuse := func(err error) error {
		view := newPage{s.Chrome(c, "A paper of your own"), fault.Of(err).Text}
		return c.Render(http.StatusUnprocessableEntity, "paper-new.html", view)
	}
	sent, err := page.Photograph(c)
	var p photo.Picture
	if err == nil {
		p, err = photo.Read(sent)
	}
	if page.IsFault(err) {
		return refuse(err)
	} else if err != nil {
		return err
	}
	if err := s.Store.Of(c.Request().Context()).PutPhoto(c.Request().Context(), p, true); err != nil {
		return err
	}
	if c.FormValue("next") == "shape" { // it is of an offcut
		return page.Back(c, "/drawer/shape/%s", p.ID)
	}
	return page.Back(c, Path+"/%s/straighten", p.ID)
}

// straightenPage asks where the paper lies in the picture, and what it is.
type straightenPage struct {
	page.Chrome
	ID         string
	Wide, High int // of the picture, pixels
	Corners    []page.Corner
	Form       *form.Form
	Size, Card []form.Field
	Stock      []form.Field
	CornerBad  string
}

func (s *room) straighten(c *echo.Context) error {
	return s.showStraighten(c, http.StatusOK, form.New(url.Values{}, page.UnitsOf(c)))
}

func (s *room) showStraighten(c *echo.Context, status int, f *form.Form) error {
	p, err := s.Store.Of(c.Request().Context()).Photo(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	v := straightenPage{Chrome: s.Chrome(c, "The corners of your paper"), ID: p.ID, Wide: p.Wide, High: p.High, Form: f}
	v.Corners = page.Corners(f)
	v.CornerBad = f.Group("corners", "Corners", "f-x0")
	v.Size = []form.Field{f.EmptyLength("wide", "How wide", "between the corners"), f.EmptyLength("high", "How high", "")}
	v.Card = []form.Field{
		f.Control("name", "What do you call it?", "the name your boxes call it by", ""),
		f.Control("gsm", "Weight", "gsm, or 80 lb cover", "120"),
		form.DirectionField(f, "direction", paper.NoDirection),
	}
	kinds := []form.Choice{}
	for _, x := range paper.Standard {
		kinds = append(kinds, form.Choice{Value: x.Name, Label: x.Name})
	}
	v.Stock = []form.Field{
		f.ChoiceField("sheet", "Its sheets are", "", paper.Standard[0].Name, kinds...),
		f.Control("count", "How many you have", "", "1"),
	}
	return c.Render(status, "paper-straighten.html", v)
}

// keep straightens the picture and puts the paper in the drawer.
func (s *room) keep(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	ctx := c.Request().Context()
	p, err := s.Store.Of(ctx).Photo(ctx, c.Param("id"))
	if err != nil {
		return err
	}
	corners := page.ReadCorners(f)
	l := drawer.Lot{Count: 1, Sheet: posted.Get("sheet")}
	f.Text("name", &l.Card.Name)
	if l.Card.Name == "" {
		f.Fail(fault.New(fault.Empty, "name", "Give the paper a name, to choose it by."))
	}
	f.Weight("gsm", &l.Card.GSM)
	f.Whole("count", &l.Count)
	l.Card.Direction = paper.Direction(posted.Get("direction"))
	shows := paper.Photo{}
	for name, into := range map[string]*measure.Length{"wide": &shows.Wide, "high": &shows.High} {
		if f.Length(name, into); f.Faults[name] == "" && (*into < paper.LeastPhoto || *into > paper.MostPhoto) {
			f.Fail(fault.New(fault.ScaleRange, name, "Measure the real paper between these corners: 5 to 1000 mm."))
		}
	}
	if !f.OK() {
		return s.showStraighten(c, http.StatusUnprocessableEntity, f)
	}
	made, err := photo.Straighten(p.JPEG, corners, shows.Wide.MM(), shows.High.MM())
	if err == nil {
		shows.ID = made.ID
		l.Card.Look.Photo = shows
		l.Complete()
		if err = l.Check(); err == nil {
			err = s.Store.Of(ctx).PutPhoto(ctx, made, false)
		}
	}
	if err == nil {
		err = s.Store.Of(ctx).AddLots(ctx, []drawer.Lot{l})
	}
	if page.IsFault(err) {
		f.Fail(err)
		return s.showStraighten(c, http.StatusUnprocessableEntity, f)
	}
	if err != nil {
		return err
	}
	return page.Back(c, "/drawer?%s", url.Values{"put": {"1"}}.Encode())
}
