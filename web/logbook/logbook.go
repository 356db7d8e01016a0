// Package logbook is the pages of what was made: the questions when a box is done,
// and the notes.
package logbook

import (
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/logbook"
	"brevium/core/recipe"
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
	e.GET("/logbook.csv", s.asCSV)
	e.GET("/logbook.json", s.asJSON)
	e.POST("/logbook/import", s.bring)
	e.GET("/boxes/:id/made", s.ask)
	e.POST("/boxes/:id/made", s.write, page.ForPhotographs)
	e.POST("/logbook/:id/again", s.again)
	e.POST("/logbook/:id/strike", s.strike)
}

// perPage is how many notes stand on a page.
const perPage = 24

// logPage is the logbook, or what was looked for in it.
type logPage struct {
	page.Chrome
	Notes         []noteView
	Written       bool
	Changed       []string // by the note that was just written
	Any           bool
	Taken         string
	Find          string
	Found         int
	Before, After string // the pages there are besides
	Learned       []string
	NotYet        []string // and why
	Paces         []string
	Form          *form.Form
}

type noteView struct {
	logbook.Note
	Day, Kind, Took string
	Picture         template.HTML
	Again           bool // there is a box to make
}

func (s *room) show(c *echo.Context) error {
	return s.showLog(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showLog(c *echo.Context, status int, f *form.Form) error {
	v := logPage{Chrome: s.Chrome(c, "The logbook"), Written: c.QueryParam("written") != "", Taken: c.QueryParam("taken"), Find: strings.TrimSpace(c.QueryParam("find")), Form: f}
	at, err := strconv.Atoi(c.QueryParam("page"))
	if err != nil || at < 0 {
		at = 0
	}
	ctx := c.Request().Context()
	n, err := s.Store.Of(ctx).CountNotes(ctx)
	if err != nil {
		return err
	}
	v.Any, v.Found = n > 0, n
	var notes []logbook.Note
	if v.Find == "" {
		notes, err = s.Store.Of(ctx).NotesFrom(ctx, at*perPage, perPage)
	} else if notes, err = s.Store.Of(ctx).Notes(ctx); err == nil {
		notes = found(notes, v.Find)
		v.Found = len(notes)
		notes = notes[min(len(notes), at*perPage):min(len(notes), (at+1)*perPage)]
	}
	if err != nil {
		return err
	}
	turn := func(to int) string {
		q := url.Values{"page": {fmt.Sprint(to)}}
		if v.Find != "" {
			q.Set("find", v.Find)
		}
		return "/logbook?" + q.Encode()
	}
	if at > 0 {
		v.Before = turn(at - 1)
	}
	if (at+1)*perPage < v.Found {
		v.After = turn(at + 1)
	}
	for _, n := range notes {
		v.Notes = append(v.Notes, s.view(c.Request().Context(), n))
	}
	if at == 0 && v.Find == "" {
		if err := s.learned(c, &v); err != nil {
			return err
		}
	}
	return c.Render(status, "logbook.html", v)
}

func (s *room) view(ctx context.Context, n logbook.Note) noteView {
	x := noteView{Note: n, Day: n.Made.Format("2 January 2006"), Kind: kindOf(n)}
	if n.Minutes > 0 {
		x.Took = "took " + recipe.Clock(n.Minutes)
	}
	if in, err := design.ReadKept(n.Design); err == nil {
		x.Picture, x.Again = s.Sketched(ctx, in).Picture, true
	}
	return x
}

func kindOf(n logbook.Note) string {
	if kind, err := style.ByID(n.Style); err == nil {
		return kind.Name
	}
	return n.Style
}

// found are the notes that have all words of a search: in the box's name, its kind and
// card, what it was for, how it felt, what there is to remember.
func found(notes []logbook.Note, find string) []logbook.Note {
	var out []logbook.Note
	for _, n := range notes {
		var of struct {
			Contents []struct{ Name string }
		}
		json.Unmarshal(n.Design, &of) // what is no box has no contents
		var things []string
		for _, t := range of.Contents {
			things = append(things, t.Name)
		}
		if n.Matches(find, kindOf(n), things) {
			out = append(out, n)
		}
	}
	return out
}

// learned fills in what the notes teach of cards and of the maker's pace.
func (s *room) learned(c *echo.Context, v *logPage) error {
	ctx := c.Request().Context()
	felt, err := s.Store.Of(ctx).Felt(ctx)
	if err != nil {
		return err
	}
	for _, l := range logbook.Learn(felt) {
		v.Learned = append(v.Learned, l.Says())
	}
	v.NotYet = logbook.NotYet(felt)
	if v.Written && len(felt) > 0 {
		v.Changed = logbook.Changed(felt[:len(felt)-1], felt)
	}
	times, err := s.Store.Of(ctx).Times(ctx, 0)
	if err != nil {
		return err
	}
	paces := logbook.Paces(times)
	for _, kind := range recipe.Kinds {
		if p, known := paces[string(kind)]; known {
			v.Paces = append(v.Paces, p.Says())
		}
	}
	return nil
}

// bring takes notes of another logbook, from CSV or JSON. A bad row is said, and then
// none is taken.
func (s *room) bring(c *echo.Context) error {
	text, err := page.Listed(c)
	if err != nil {
		return err
	}
	notes, faults := logbook.ReadFile(text)
	if len(faults) == 0 {
		n, err := s.Store.Of(c.Request().Context()).BringNotes(c.Request().Context(), notes)
		if err == nil {
			return page.Back(c, "/logbook?%s", url.Values{"taken": {page.Counted(n, "note")}}.Encode())
		}
		if !page.IsFault(err) {
			return err
		}
		faults = []error{err}
	}
	f := form.New(nil, page.UnitsOf(c))
	f.Refuse(text, faults)
	return s.showLog(c, http.StatusUnprocessableEntity, f)
}

// again makes the box of a note once more: as it was, or for other things.
func (s *room) again(c *echo.Context) error {
	n, err := s.note(c)
	if err != nil {
		return err
	}
	in, err := design.ReadKept(n.Design)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	if c.FormValue("for") == "others" {
		r, err := s.Made(ctx, in)
		if err != nil {
			return err
		}
		in = r.BySize()
	}
	id, err := s.Store.Of(ctx).Add(ctx, in)
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
	if err := s.Store.Of(c.Request().Context()).DropNote(c.Request().Context(), n.ID); err != nil {
		return err
	}
	return page.Back(c, "/logbook")
}

func (s *room) note(c *echo.Context) (logbook.Note, error) {
	id, err := page.ID(c)
	if err != nil {
		return logbook.Note{}, fault.New(fault.Invalid, "note", "There is no such note; reload the page.")
	}
	return s.Store.Of(c.Request().Context()).LoggedNote(c.Request().Context(), id)
}

func (s *room) asCSV(c *echo.Context) error {
	notes, err := s.Store.Of(c.Request().Context()).Notes(c.Request().Context())
	if err != nil {
		return err
	}
	return page.Download(c, "logbook", ".csv", "text/csv; charset=utf-8", logbook.WriteCSV(notes))
}

func (s *room) asJSON(c *echo.Context) error {
	notes, err := s.Store.Of(c.Request().Context()).Notes(c.Request().Context())
	if err != nil {
		return err
	}
	return page.Download(c, "logbook", ".json", "application/json", logbook.WriteJSON(notes))
}
