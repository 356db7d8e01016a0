// Package boxes is the list of boxes, and where a new one begins.
package boxes

import (
	"embed"
	"html/template"
	"net/http"
	"net/url"
	"regexp"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
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
	e.POST("/bring", s.bring)
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
	q := c.QueryParams()
	view := newPage{Chrome: s.Chrome(c, "A new box"), BySize: q.Get("style") != ""}
	s.fill(&view, form.New(q, view.Units))
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
		st := styleOf(f)
		in.Style = st.ID
		for _, p := range st.Parameters {
			v := p.Usual(in.Tools.Tick)
			f.Length("size."+p.ID, &v)
			if st.IsAxis(p.ID) || f.Posted.Has("size."+p.ID) && p.Follows == nil {
				in.Size[p.ID] = v
			}
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
	if len(in.Things) > 0 && f.OK() {
		in = design.Started(in)
	}
	if f.OK() {
		s.Try(c, f, &in)
	}
	if !f.OK() {
		view := newPage{Chrome: s.Chrome(c, "A new box"), BySize: next == "box"}
		s.fill(&view, f)
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
	Taken  int // designs that were brought in beside those that were not
	Form   *form.Form
	Name   form.Field
	Thing  form.ThingFields
	Styles []styleTile
	Style  *style.Style
	Size   []form.Field // of the chosen style: those that set its room
	More   []form.Field // and the others
	Basis  form.Field
}

type styleTile struct {
	ID, Name, About string
	Picture         template.HTML
	Chosen          bool
}

// styleOf is the style that is chosen in a form.
func styleOf(f *form.Form) *style.Style {
	if s, err := style.ByID(f.Posted.Get("style")); err == nil {
		return s
	}
	return style.Boxes()[0]
}

// fill prepares the page: every style by its picture at its usual size, and the
// sizes of the one that is chosen. Sizes typed for another style keep their
// meaning.
func (s *room) fill(p *newPage, f *form.Form) {
	p.Form, p.Style = f, styleOf(f)
	p.Name = f.Control("name", "Name of the box", "So that you find it again", "")
	p.Thing = form.ThingFieldsOf(f, 0, form.NewThing(contents.Round))
	if !f.Posted.Has(form.ThingName(0, "count")) {
		p.Thing.Count.Value = "4"
	}
	for _, st := range style.Boxes() {
		sketch := s.Sketched(design.New("", f.Unit, st.ID))
		p.Styles = append(p.Styles, styleTile{st.ID, st.Name, st.About, sketch.Picture, st == p.Style})
	}
	if was, err := style.ByID(f.Posted.Get("was")); err == nil && was != p.Style {
		carry(f.Posted, was, p.Style)
	}
	tick := f.Unit.Tick()
	for _, x := range p.Style.Parameters {
		if p.Style.IsAxis(x.ID) {
			p.Size = append(p.Size, f.LengthField("size."+x.ID, x.Label, x.About, x.Usual(tick)))
		} else if x.Follows == nil {
			p.More = append(p.More, f.LengthField("size."+x.ID, x.Label, x.About, x.Usual(tick)))
		}
	}
	p.Basis = form.BasisField(f, design.Scored)
}

// carry moves the typed sizes of one style to the fields of another, by what
// they mean.
func carry(posted url.Values, was, now *style.Style) {
	var typed [3]string
	for i, p := range was.Axes {
		typed[i] = posted.Get("size." + p.ID)
	}
	for _, p := range was.Parameters {
		posted.Del("size." + p.ID)
	}
	for _, i := range now.Own() {
		if typed[i] != "" {
			posted.Set("size."+now.Axes[i].ID, typed[i])
		}
	}
}
