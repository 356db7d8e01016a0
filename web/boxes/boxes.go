// Package boxes is the list of boxes, and where a new one begins.
package boxes

import (
	"embed"
	"net/http"
	"net/url"
	"regexp"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/web/form"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct {
	*page.Room
	looks *page.Kept[look]
}

// Routes adds the room's addresses.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{shared, page.NewKept[look](mostLooks, shared.Disk)}
	e.GET("/", s.list)
	e.GET("/new", s.newBox)
	e.POST("/new", s.makeBox)
	e.POST("/units", s.preferUnits)
	e.POST("/boxes/:id/copy", s.copy)
	e.POST("/boxes/:id/delete", s.delete)
}

// ownPage is a page of this application that shows no one box.
var ownPage = regexp.MustCompile(`^/(drawer|jobs(/\d+)?)$`)

// preferUnits sets the unit of the list and of new boxes.
func (s *room) preferUnits(c *echo.Context) error {
	u, err := measure.ParseUnit(c.FormValue("units"))
	if err != nil {
		return err
	}
	page.SetUnits(c, u)
	to := "/"
	if c.FormValue("stop") == "new" {
		to = "/new"
	} else if own := c.FormValue("to"); ownPage.MatchString(own) {
		to = own
	}
	return page.Back(c, "%s", to)
}

func (s *room) newBox(c *echo.Context) error {
	view := newPage{Chrome: s.Chrome(c, "A new box")}
	view.fill(form.New(nil, view.Units))
	return c.Render(http.StatusOK, "new.html", view)
}

// makeBox makes a box from what goes in, or from a size, and opens it at the
// stop that comes next.
func (s *room) makeBox(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	u := page.UnitsOf(c)
	f := form.New(posted, u)
	in := design.New("", u, "tray-lid")
	f.Text("name", &in.Name)
	in.Name = design.CleanName(in.Name)
	next := "contents"
	if posted.Get("start") == "size" {
		next = "box"
		for _, axis := range []string{"length", "width", "height"} {
			v := measure.Length(0)
			f.Length("size."+axis, &v)
			in.Size[axis] = v
		}
		if b := design.Basis(posted.Get("size.basis")); b != "" {
			in.Basis = b
		}
	} else {
		t := contents.Thing{Count: 1, Ease: contents.UsualEase}
		form.ReadThing(f, 0, &t)
		in.Things = []contents.Thing{t}
	}
	if in.Name == "" {
		in.Name = nameFor(&in)
	}
	if f.OK() {
		s.Try(c, f, &in)
	}
	if !f.OK() {
		view := newPage{Chrome: s.Chrome(c, "A new box"), BySize: next == "box"}
		view.fill(f)
		return c.Render(http.StatusUnprocessableEntity, "new.html", view)
	}
	n, err := s.Store.Add(c.Request().Context(), in)
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(n, next))
}

// nameFor names a box after what goes in.
func nameFor(in *design.Inputs) string {
	if len(in.Things) > 0 && in.Things[0].Name != "" {
		return "Box for " + strconv.Itoa(in.Things[0].Count) + " × " + in.Things[0].Name
	}
	return "New box"
}

func (s *room) copy(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	if n, err = s.Store.Copy(c.Request().Context(), n); err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(n, "box"))
}

func (s *room) delete(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	if err := s.Store.Delete(c.Request().Context(), n); err != nil {
		return err
	}
	return page.Back(c, "/?%s", url.Values{"deleted": {page.Itoa(n)}}.Encode())
}

type newPage struct {
	page.Chrome
	BySize bool
	Form   *form.Form
	Name   form.Field
	Thing  form.ThingFields
	Size   []form.Field
	Basis  form.Field
}

func (p *newPage) fill(f *form.Form) {
	p.Form = f
	p.Name = f.Control("name", "Name of the box", "So that you find it again", "")
	p.Thing = form.ThingFieldsOf(f, 0, form.NewThing(contents.Round))
	if !f.Posted.Has(form.ThingName(0, "count")) {
		p.Thing.Count.Value = "4"
	}
	sizes := map[string]measure.Length{"length": 4 * measure.Inch, "width": 3 * measure.Inch, "height": 3 * measure.Inch / 2}
	if f.Unit != measure.In {
		sizes = map[string]measure.Length{
			"length": 100 * measure.Millimetre,
			"width":  75 * measure.Millimetre,
			"height": 40 * measure.Millimetre,
		}
	}
	for _, x := range [][3]string{{"length", "Length", "left to right"}, {"width", "Width", "front to back"}, {"height", "Height", "floor to rim"}} {
		p.Size = append(p.Size, f.LengthField("size."+x[0], x[1], x[2], sizes[x[0]]))
	}
	p.Basis = form.BasisField(f, design.Scored)
}
