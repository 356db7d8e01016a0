// Package logbook is the pages of what was made: the questions when a box is done,
// and the notes.
package logbook

import (
	"embed"
	"fmt"
	"html/template"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/logbook"
	"brevium/core/style"
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
	e.GET("/logbook", s.show)
	e.GET("/logbook.csv", s.export)
	e.GET("/boxes/:id/made", s.ask)
	e.POST("/boxes/:id/made", s.write)
	e.POST("/logbook/:id/again", s.again)
	e.POST("/logbook/:id/strike", s.strike)
}

// askPage asks how a box came out: of each thing that goes over another how it felt,
// and what to remember.
type askPage struct {
	page.Chrome
	ID       int64
	Name     string
	Picture  template.HTML
	Form     *form.Form
	Felt     []form.Field
	Remember form.Field
}

func feltAt(n int) string { return fmt.Sprint("felt", n) }

// moving are the accounts of a box that a hand feels.
func moving(r *design.Result) []fit.Account {
	return slices.DeleteFunc(slices.Clone(r.Fits), func(a fit.Account) bool { return !a.Pair.Kind.Moves() })
}

func (s *room) ask(c *echo.Context) error {
	return s.showAsk(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showAsk(c *echo.Context, status int, f *form.Form) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	r, err := s.Made(c.Request().Context(), b.Inputs)
	if err != nil {
		return err
	}
	v := askPage{Chrome: s.Chrome(c, "How did it come out? · "+b.Name), ID: b.ID, Name: b.Name, Picture: page.BoxPicture(r, ""), Form: f}
	choices := []form.Choice{{Value: "", Label: "not noted"}}
	for _, verdict := range fit.Verdicts {
		choices = append(choices, form.Choice{Value: string(verdict), Label: string(verdict)})
	}
	for n, a := range moving(r) {
		v.Felt = append(v.Felt, f.ChoiceField(feltAt(n), pairOf(a), fmt.Sprintf("worked out: %s", a.Verdict), "", choices...))
	}
	v.Remember = f.Control("remember", "What to remember", "for the next one", "")
	v.Remember.Kind = "lines"
	return c.Render(status, "made.html", v)
}

// pairOf names what goes over what, and which way.
func pairOf(a fit.Account) string { return a.Pair.What() }

func (s *room) write(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	r, err := s.Made(c.Request().Context(), b.Inputs)
	if err != nil {
		return err
	}
	n := logbook.Note{Box: b.ID, Name: b.Name, Style: b.Inputs.Style, Card: b.Inputs.Card.Name, Design: b.Inputs.Write()}
	f := form.New(posted, page.UnitsOf(c))
	f.Text("remember", &n.Remember)
	for i, a := range moving(r) {
		if felt := posted.Get(feltAt(i)); felt != "" {
			n.Felt = append(n.Felt, logbook.Felt{Pair: pairOf(a), Card: b.Inputs.CardOf(a.Pair.Outer).Name, Gap: a.Gap, Felt: fit.Verdict(felt)})
		}
	}
	if err := s.Store.AddNote(c.Request().Context(), n); page.IsFault(err) {
		f.Fail(err)
		return s.showAsk(c, http.StatusUnprocessableEntity, f)
	} else if err != nil {
		return err
	}
	return page.Back(c, "/logbook?written=1")
}

// logPage is the logbook.
type logPage struct {
	page.Chrome
	Notes   []noteView
	Written bool
}

type noteView struct {
	logbook.Note
	Day, Kind string
	Picture   template.HTML
}

func (s *room) show(c *echo.Context) error {
	notes, err := s.Store.Notes(c.Request().Context())
	if err != nil {
		return err
	}
	v := logPage{Chrome: s.Chrome(c, "The logbook"), Written: c.QueryParam("written") != ""}
	for _, n := range notes {
		x := noteView{Note: n, Day: n.Made.Format("2 January 2006"), Kind: n.Style}
		if kind, err := style.ByID(n.Style); err == nil {
			x.Kind = kind.Name
		}
		if in, err := design.ReadKept(n.Design); err == nil {
			x.Picture = s.Sketched(in).Picture
		}
		v.Notes = append(v.Notes, x)
	}
	return c.Render(http.StatusOK, "logbook.html", v)
}

// again makes the box of a note once more, as it was.
func (s *room) again(c *echo.Context) error {
	n, err := s.note(c)
	if err != nil {
		return err
	}
	in, err := design.ReadKept(n.Design)
	if err != nil {
		return err
	}
	id, err := s.Store.Add(c.Request().Context(), in)
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(id, "contents"))
}

func (s *room) strike(c *echo.Context) error {
	n, err := s.note(c)
	if err != nil {
		return err
	}
	if err := s.Store.DropNote(c.Request().Context(), n.ID); err != nil {
		return err
	}
	return page.Back(c, "/logbook")
}

func (s *room) note(c *echo.Context) (logbook.Note, error) {
	id, err := page.ID(c)
	if err != nil {
		return logbook.Note{}, fault.New(fault.Invalid, "note", "There is no such note; reload the page.")
	}
	return s.Store.LoggedNote(c.Request().Context(), id)
}

func (s *room) export(c *echo.Context) error {
	notes, err := s.Store.Notes(c.Request().Context())
	if err != nil {
		return err
	}
	return page.Download(c, "logbook", ".csv", "text/csv; charset=utf-8", logbook.WriteCSV(notes))
}
