// Package workspace is the stops along the work on one box, the questions beside them, and its files.
package workspace

import (
	"context"
	"embed"
	"errors"
	"maps"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/store"
	"brevium/store/boxshelf"
	"brevium/store/desk"
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
	e.GET("/boxes/:id", s.open)
	e.POST("/boxes/:id/mend", s.mend)
	e.POST("/boxes/:id/undo", s.undo)
	e.POST("/boxes/:id/redo", s.redo)
	e.POST("/boxes/:id/rename", s.rename)
	e.POST("/boxes/:id/cover", s.cover, page.ForPhotographs)
	e.POST("/boxes/:id/units", s.units)
	e.POST("/paper", s.paper)
	e.POST("/boxes/:id/tick", s.tick)
	e.GET("/boxes/:id/design.json", s.designFile)
	e.GET("/boxes/:id/plan.json", s.planFile)
	e.GET("/boxes/:id/sheet.pdf", s.sheetPDF)
	e.GET("/boxes/:id/fold", s.fold)
	e.GET("/boxes/:id/compare", s.compare)
	e.GET("/boxes/:id/palettes", s.palettes)
	e.GET("/boxes/:id/card", s.card)
	e.GET("/boxes/:id/post", s.post)
	e.GET("/boxes/:id/cutting", s.cutting)
	e.GET("/boxes/:id/shapes", s.shapes)
	e.GET("/boxes/:id/history", s.history)
	e.POST("/boxes/:id/history", s.backTo)
	e.GET("/boxes/:id/page.html", s.sent)
	e.GET("/boxes/:id/biggest", s.biggest)
	e.POST("/boxes/:id/biggest", s.takeBiggest)
	e.GET("/boxes/:id/holds", s.holds)
	e.GET("/boxes/:id/savings", s.savings)
	e.GET("/boxes/:id/parted", s.parted)
	e.POST("/boxes/:id/set", s.set)
	e.GET("/boxes/:id/cost", s.cost)
	e.POST("/boxes/:id/cost", s.setCost)
	e.GET("/boxes/:id/small/:small", s.small)
	e.POST("/boxes/:id/small/:small/alone", s.alone)
	e.POST("/boxes/:id/savings", s.takeSaving)
	e.GET("/boxes/:id/board", s.board)
	e.POST("/boxes/:id/board", s.takeBoard)
	e.GET("/boxes/:id/sister", s.sister)
	e.POST("/boxes/:id/sister", s.sister)
	e.POST("/boxes/:id/things/keep", s.keepThings)
	e.POST("/boxes/:id/things/add", s.addKept)
	e.POST("/boxes/:id/things/import", s.importThings)
	e.GET("/caliper", s.reading)
	e.GET("/boxes/:id/motion.json", s.motion)
	e.GET("/boxes/:id/model.obj", s.objFile)
	e.GET("/boxes/:id/pieces/:piece", s.pieceSVG)
	e.GET("/boxes/:id/export", s.export)
	e.GET("/boxes/:id/:stop", s.show)
	e.POST("/boxes/:id/:stop", s.change)
}

// open sends the bare address of a box to its first stop; one that cannot be
// read is shown as it is kept, to be mended.
func (s *room) open(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	b, err := s.Store.Of(c.Request().Context()).Box(c.Request().Context(), n)
	if err != nil {
		return err
	}
	if b.Broken != nil {
		return s.mending(c, http.StatusOK, b, b.Text, b.Broken)
	}
	return c.Redirect(http.StatusSeeOther, page.StopURL(b.ID, "contents"))
}

// boxAtStop loads the box of the address and finds its stop.
func (s *room) boxAtStop(c *echo.Context) (boxshelf.Box, int, error) {
	b, err := s.Box(c)
	if err != nil {
		return b, 0, err
	}
	i, ok := stopByID(c.Param("stop"))
	if !ok {
		return b, 0, echo.NewHTTPError(http.StatusNotFound, "no such stop")
	}
	return b, i, nil
}

func (s *room) show(c *echo.Context) error {
	b, i, err := s.boxAtStop(c)
	if err != nil {
		return err
	}
	return s.workspace(c, http.StatusOK, b, i, form.New(nil, b.Inputs.Units), nil)
}

// change takes a stop's form: reads it, works the design out, and only then
// saves. What cannot be taken is said at its field, over the last good
// drawing.
func (s *room) change(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	for try := 1; ; try++ {
		b, i, err := s.boxAtStop(c)
		if err != nil {
			return err
		}
		f := form.New(maps.Clone(posted), b.Inputs.Units)
		t, err := s.take(c, f, b, i)
		if err != nil {
			return err
		}
		if t.made == nil {
			return s.workspace(c, http.StatusUnprocessableEntity, b, i, f, nil)
		}
		kept, err := s.save(c, b, t.in)
		if errors.Is(err, desk.ErrStale) && try < page.Tries {
			continue // somebody was quicker: onto what they kept
		}
		if err != nil {
			return err
		}
		if !f.OK() {
			return s.workspace(c, http.StatusUnprocessableEntity, kept, i, f, t.made)
		}
		if c.Request().Header.Get("HX-Request") == "" {
			return page.Back(c, "%s", page.Asked(c, page.StopURL(b.ID, stops[i].ID)))
		}
		return s.workspace(c, http.StatusOK, kept, i, f, t.made)
	}
}

// workspace renders the page, or for htmx the part of it that changes. r is
// the box worked out, when that was done already.
func (s *room) workspace(c *echo.Context, status int, b boxshelf.Box, i int, f *form.Form, r *design.Result) error {
	ticks, err := s.Store.Of(c.Request().Context()).Ticks(c.Request().Context(), b.ID)
	if err != nil {
		return err
	}
	if r == nil {
		if r, err = s.Made(c.Request().Context(), b.Inputs); err != nil && !page.IsFault(err) {
			return err
		}
		if err != nil {
			f.Fail(err)
		}
	}
	f.Tick = b.Inputs.Tools.Tick
	view, err := stops[i].page(c.Request().Context(), s.frame(c, b, i, f, r, ticks))
	if err != nil {
		return err
	}
	if c.Request().Header.Get("HX-Request") != "" {
		return c.Render(status, "work-anew", view)
	}
	return c.Render(status, "workspace.html", view)
}

// after shows the workspace again after something that is not a stop's form.
func (s *room) after(c *echo.Context, id int64) error { return s.afterwards(c, id, nil) }

// afterwards does so with what could not be done, if anything.
func (s *room) afterwards(c *echo.Context, id int64, failed *fault.Fault) error {
	i, ok := stopByID(c.FormValue("stop"))
	if !ok {
		i = 0
	}
	if c.Request().Header.Get("HX-Request") == "" && failed == nil {
		return page.Back(c, "%s", page.Asked(c, page.StopURL(id, stops[i].ID)))
	}
	b, err := s.Store.Of(c.Request().Context()).Box(c.Request().Context(), id)
	if err != nil {
		return err
	}
	f, status := form.New(nil, b.Inputs.Units), http.StatusOK
	if failed != nil {
		if failed.Field == "name" {
			f.Posted = url.Values{"name": {c.FormValue("name")}}
		}
		f.Fail(failed)
		status = http.StatusUnprocessableEntity
	}
	return s.workspace(c, status, b, i, f, nil)
}

// undo takes back the change that its button names, and redo brings back
// what its button names; when that is not the last one any more, it says so.
func (s *room) undo(c *echo.Context) error { return s.step(c, (*store.Desk).Undo) }
func (s *room) redo(c *echo.Context) error { return s.step(c, (*store.Desk).Redo) }

func (s *room) step(c *echo.Context, take func(d *store.Desk, ctx context.Context, id, change int64, window string) error) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	change, _ := strconv.ParseInt(c.FormValue("change"), 10, 64)
	ctx := c.Request().Context()
	err = take(s.Store.Of(ctx), ctx, n, change, page.Window(c))
	if errors.Is(err, desk.ErrStale) {
		return s.afterwards(c, n, fault.New(fault.NotTaken, "undo", "The box was changed since that button was drawn. It names the last change now; press it again if that is the one."))
	}
	if err != nil {
		return err
	}
	return s.after(c, n)
}

func (s *room) units(c *echo.Context) error {
	u, err := measure.ParseUnit(c.FormValue("units"))
	if err != nil {
		return err
	}
	b, err := s.alter(c, func(_ boxshelf.Box, in *design.Inputs) error {
		in.SetUnits(u)
		f := form.New(nil, u)
		if s.Try(c, f, in); !f.OK() {
			return fault.New(fault.NotTaken, "units", "The unit stays as it is: %s", strings.Join(f.Unplaced(), " "))
		}
		return nil
	})
	if err != nil {
		return err
	}
	page.SetUnits(c, u)
	if to := page.Asked(c, ""); to != "" {
		return page.Back(c, "%s", to)
	}
	return s.after(c, b.ID)
}

// tick ticks a step off; mark is what the step said.
func (s *room) tick(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	step, mark := c.FormValue("step"), c.FormValue("mark")
	if step == "" || len(step) > 100 || len(mark) > 40 {
		return fault.New(fault.UnknownStep, "step", "There is no such step; reload the page.")
	}
	if err := s.Store.Of(c.Request().Context()).Tick(c.Request().Context(), n, step, mark, c.FormValue("done") != ""); err != nil {
		return err
	}
	return s.after(c, n)
}

// rename gives the box another name; one that cannot be is said at the field,
// and the old one is kept.
func (s *room) rename(c *echo.Context) error {
	name := design.CleanName(c.FormValue("name"))
	var wrong *fault.Fault
	switch {
	case name == "":
		wrong = fault.New(fault.Empty, "name", "A box needs a name. The old one is kept.")
	case utf8.RuneCountInString(name) > design.LongestName:
		wrong = fault.New(fault.TooLong, "name", "That name is too long. The old one is kept.")
	}
	if wrong != nil && c.FormValue("stop") == "" {
		return wrong
	}
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	if wrong != nil {
		return s.afterwards(c, n, wrong)
	}
	_, err = s.alter(c, func(_ boxshelf.Box, in *design.Inputs) error {
		if was := c.FormValue(form.WasField("name")); was != "" && in.Name != was && in.Name != name && name != was {
			return fault.New(fault.NotTaken, "name", "In another window it was called %q meanwhile. Call it %q again if it shall be that.", in.Name, name)
		} else if was == name {
			return nil // not touched here
		}
		in.Name = name
		return nil
	})
	if page.IsFault(err) && c.FormValue("stop") != "" {
		return s.afterwards(c, n, fault.Of(err))
	} else if err != nil {
		return err
	}
	if c.FormValue("stop") == "" {
		return page.Back(c, "/?%s", page.Searched(c).Encode())
	}
	return s.after(c, n)
}
