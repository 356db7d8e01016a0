// Package reader is the page that reads a recipe: what it makes, what is not
// understood, and the box of it.
package reader

import (
	"embed"
	"html/template"
	"net/http"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/found"
	"brevium/core/measure"
	"brevium/core/stylefile"
	"brevium/draw"
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
	e.GET("/read", s.show)
	e.POST("/read", s.take)
	e.GET("/boxes/:id/recipe", s.mine)
	s.sketchRoutes(e)
}

// readPage is a recipe and what was made of it.
type readPage struct {
	page.Chrome
	Form     *form.Form
	Recipe   form.Field
	Told     *found.Told
	Marked   []run
	Pieces   []pieceView
	Picture  template.HTML
	Remedies []offer
	Ways     []offer // other ways to read it
	Make     string  // what the button makes, "" where there is no box
	Sister   string  // the same in the other unit
	Example  string
}

// offer is another text, and the box that it makes.
type offer struct {
	found.Remedy
	Picture template.HTML
}

func offers(all []found.Remedy, mark string) (out []offer) {
	for i, r := range all {
		x := offer{Remedy: r}
		if r.Told.Made != nil {
			x.Picture = page.BoxPicture(r.Told.Made.Bare(), mark+strconv.Itoa(i))
		}
		out = append(out, x)
	}
	return out
}

// run is a stretch of the recipe's text; Odd is one that is not understood.
type run struct {
	Text     string
	Odd      bool
	From, To int // in UTF-16, as a page counts
	// Key is of the lines that a number tells, Number stands beside them; As says what another
	// number was taken as.
	Key    string
	Number int
	As     string
}

// pieceView is a piece as it was read.
type pieceView struct {
	Name, Size, Also string
	Copies           int
	Across, Down     []string
	Panel            bool
	Net              template.HTML
	Draw             string // its number, where it can be drawn as a style of one's own
}

const example = "Base 7 x 6 in, score at 1 1/2 on all four sides.\nLid 6 1/16 x 5 1/16, score 1 all round."

func (s *room) show(c *echo.Context) error {
	return s.render(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) render(c *echo.Context, status int, f *form.Form) error {
	v := &readPage{Chrome: s.Chrome(c, "From a recipe"), Form: f, Example: example}
	text := plain(f.Posted.Get("text"))
	if strings.TrimSpace(text) != "" {
		t, err := found.Tell(text, page.UnitsOf(c))
		if page.IsFault(err) {
			f.Fail(err)
			status = http.StatusUnprocessableEntity
		} else if err != nil {
			return err
		} else {
			v.told(t, text)
			v.Remedies = offers(t.Remedies(text, page.UnitsOf(c)), "remedy")
			v.Ways = offers(t.Ways(text, page.UnitsOf(c)), "way")
		}
	}
	v.Recipe = f.Control("text", "The recipe", "as it is jotted down: what is cut, where it is scored", text)
	v.Recipe.Kind = "lines"
	return c.Render(status, "read.html", v)
}

// plain is a text with the ends of its lines as they are kept.
func plain(text string) string { return strings.ReplaceAll(text, "\r\n", "\n") }

// told fills in what was made of a recipe.
func (v *readPage) told(t *found.Told, text string) {
	v.Told = t
	at, units := 0, 0
	put := func(to int, x run) {
		if to > at {
			x.Text, x.From = text[at:to], units
			for _, r := range x.Text {
				units++
				if r > 0xffff {
					units++
				}
			}
			x.To = units
			v.Marked, at = append(v.Marked, x), to
		}
	}
	told := told(t)
	for _, s := range marks(t, told) {
		if s.Span.From >= at {
			put(s.Span.From, run{})
			put(s.Span.To, s.run)
		}
	}
	put(len(text), run{})
	unit, tick := t.Unit, t.Unit.Tick()
	for i, p := range t.Loose() {
		r := t.Pieces[i]
		x := pieceView{Name: p.Name, Size: measure.Sides(unit, tick, p.Width, p.Height), Also: also(unit, p.Width, p.Height), Copies: p.Copies, Panel: r.Panel}
		for _, at := range p.Vertical {
			x.Across = append(x.Across, measure.Number(at, unit, tick))
		}
		for _, at := range p.Horizontal {
			x.Down = append(x.Down, measure.Number(at, unit, tick))
		}
		x.Net = page.SVG(draw.ReadBlank(p.Name, p.Width.MM(), p.Height.MM(), linesOf(t, told, i)))
		if t.Match == nil && len(p.Vertical)+len(p.Horizontal) > 1 {
			x.Draw = strconv.Itoa(i)
		}
		v.Pieces = append(v.Pieces, x)
	}
	if t.Made != nil {
		v.Picture = page.BoxPicture(t.Made.Bare(), "read")
		v.Make = "Make this box: " + strings.ToLower(t.Match.Style.Name)
		if v.Sister = "Make it in centimetres, round"; t.Unit != measure.In {
			v.Sister = "Make it in inches, round"
		}
	}
}

// also is a size in the other unit.
func also(unit measure.Unit, w, h measure.Length) string {
	return measure.Beside(w, unit) + " × " + measure.Beside(h, unit)
}

// take reads a recipe again, or makes the box of it.
func (s *room) take(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	if draw := posted.Get("draw"); draw != "" {
		return s.asTable(c, f, draw)
	}
	if posted.Get("make") == "" {
		return s.render(c, http.StatusOK, f)
	}
	t, err := found.Tell(plain(posted.Get("text")), page.UnitsOf(c))
	if err == nil && t.Match == nil {
		err = fault.New(fault.Invalid, "text", "These pieces are no box that is known here yet; mend what is marked.")
	}
	if page.IsFault(err) {
		f.Fail(err)
		return s.render(c, http.StatusUnprocessableEntity, f)
	} else if err != nil {
		return err
	}
	in := t.Match.Inputs
	in.Units, in.Mats = t.Unit, t.Papers
	if err := s.Equip(c.Request().Context(), &in); err != nil {
		return err
	}
	in.Recipe = plain(posted.Get("text"))
	in.Name = design.CleanName(t.Match.Style.Name + ", from a recipe")
	if posted.Get("make") == "sister" {
		round, err := design.Sister(c.Request().Context(), in)
		if page.IsFault(err) {
			f.Fail(fault.At("text", err))
			return s.render(c, http.StatusUnprocessableEntity, f)
		} else if err != nil {
			return err
		}
		in = round.Inputs
	}
	id, err := s.Store.Of(c.Request().Context()).Add(c.Request().Context(), in)
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(id, "box"))
}

// asTable begins a style of one's own with a piece of the recipe.
func (s *room) asTable(c *echo.Context, f *form.Form, number string) error {
	t, err := found.Tell(plain(f.Posted.Get("text")), page.UnitsOf(c))
	n, wrong := strconv.Atoi(number)
	if err == nil && (wrong != nil || n < 0 || n >= len(t.Pieces)) {
		err = fault.New(fault.Invalid, "text", "There is no such piece in the recipe now; read it again.")
	}
	if page.IsFault(err) {
		f.Fail(err)
		return s.render(c, http.StatusUnprocessableEntity, f)
	} else if err != nil {
		return err
	}
	p := t.Pieces[n]
	if err := s.BeginStyle(c.Request().Context(), stylefile.OfScores(p.Name, p.Width, p.Height, p.Vertical, p.Horizontal)); err != nil {
		return err
	}
	return page.Back(c, "/styles/table")
}
