package web

import (
	"errors"
	"net/http"
	"net/url"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/store"
)

// open sends the bare address of a box to its first stop.
func (s *server) open(c *echo.Context) error {
	b, err := s.box(c)
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, stopURL(b.ID, "contents"))
}

// boxAtStop loads the box of the address and finds its stop.
func (s *server) boxAtStop(c *echo.Context) (store.Box, int, error) {
	b, err := s.box(c)
	if err != nil {
		return b, 0, err
	}
	i, ok := stopByID(c.Param("stop"))
	if !ok {
		return b, 0, echo.NewHTTPError(http.StatusNotFound, "no such stop")
	}
	return b, i, nil
}

func (s *server) show(c *echo.Context) error {
	b, i, err := s.boxAtStop(c)
	if err != nil {
		return err
	}
	return s.workspace(c, http.StatusOK, b, i, newForm(nil, b.Inputs.Units), nil)
}

// change takes a stop's form: reads it onto the inputs, works the design out,
// and only then saves. What cannot be taken is said at its field, over the
// last good drawing.
func (s *server) change(c *echo.Context) error {
	b, i, err := s.boxAtStop(c)
	if err != nil {
		return err
	}
	posted, err := c.FormValues()
	if err != nil {
		return badForm(err)
	}
	f := newForm(posted, b.Inputs.Units)
	now, err := design.Sketch(b.Inputs)
	if err != nil && !isFault(err) {
		return err
	}
	in := b.Inputs.Clone()
	if err == nil {
		stops[i].read(f, &in, now)
	}
	var made *design.Result
	if f.ok() {
		made = s.try(c, f, &in)
	}
	if !f.ok() {
		return s.workspace(c, http.StatusUnprocessableEntity, b, i, f, nil)
	}
	if b, err = s.save(c, b, in); err != nil {
		return err
	}
	if c.Request().Header.Get("HX-Request") == "" {
		return back(c, "%s", stopURL(b.ID, stops[i].ID))
	}
	return s.workspace(c, http.StatusOK, b, i, f, made)
}

// try works the inputs out, or notes what is wrong with them.
func (s *server) try(c *echo.Context, f *form, in *design.Inputs) *design.Result {
	made, err := design.Make(c.Request().Context(), *in)
	if err != nil {
		x := *fault.Of(err)
		x.Field = matFault(in, x.Field)
		if x.Code == fault.Internal {
			s.log.Error("a design cannot be worked out", "error", err)
			x.Text = "This cannot be drawn; the last good box is kept."
		}
		f.fail(&x)
	}
	return made
}

// save keeps changed inputs and gives the box as it is now.
func (s *server) save(c *echo.Context, b store.Box, in design.Inputs) (store.Box, error) {
	ctx := c.Request().Context()
	if what := design.Difference(b.Inputs, in); what != "" {
		if err := s.store.Save(ctx, b.ID, in, what); err != nil {
			return b, err
		}
	}
	return s.store.Box(ctx, b.ID)
}

func isFault(err error) bool {
	var f *fault.Fault
	return errors.As(err, &f)
}

func badForm(err error) error {
	var coder interface{ StatusCode() int }
	if errors.As(err, &coder) {
		return err
	}
	return echo.NewHTTPError(http.StatusBadRequest, "the form cannot be read").Wrap(err)
}

func stopURL(id int64, stop string) string {
	u := url.URL{Path: "/boxes/" + itoa(id) + "/" + stop}
	return u.String()
}

// workspace renders the page, or for htmx the part of it that changes. r is
// the box worked out, when that was done already.
func (s *server) workspace(c *echo.Context, status int, b store.Box, i int, f *form, r *design.Result) error {
	ticks, err := s.store.Ticks(c.Request().Context(), b.ID)
	if err != nil {
		return err
	}
	if r == nil {
		if r, err = design.Make(c.Request().Context(), b.Inputs); err != nil && !isFault(err) {
			return err
		}
		if err != nil {
			f.fail(err)
		}
	}
	page := &workPage{chrome: s.chrome(c, b.Name), Box: b, At: i, Form: f, Result: r, ticks: ticks}
	page.Units, page.UnitsAt = b.Inputs.Units, "/boxes/"+itoa(b.ID)+"/units"
	page.Stop = stops[i].ID
	if page.Stop == "contents" {
		if page.Goods.Kept, err = s.store.Things(c.Request().Context()); err != nil {
			return err
		}
	}
	page.prepare()
	if c.Request().Header.Get("HX-Request") != "" {
		return c.Render(status, "work", page)
	}
	return c.Render(status, "workspace.html", page)
}

// after shows the workspace again after something that is not a stop's form.
func (s *server) after(c *echo.Context, id int64) error {
	i, ok := stopByID(c.FormValue("stop"))
	if !ok {
		i = 0
	}
	if c.Request().Header.Get("HX-Request") == "" {
		return back(c, "%s", stopURL(id, stops[i].ID))
	}
	b, err := s.store.Box(c.Request().Context(), id)
	if err != nil {
		return err
	}
	return s.workspace(c, http.StatusOK, b, i, newForm(nil, b.Inputs.Units), nil)
}

func (s *server) undo(c *echo.Context) error {
	n, err := id(c)
	if err != nil {
		return err
	}
	if _, err := s.store.Undo(c.Request().Context(), n); err != nil {
		return err
	}
	return s.after(c, n)
}

func (s *server) units(c *echo.Context) error {
	b, err := s.box(c)
	if err != nil {
		return err
	}
	u, err := measure.ParseUnit(c.FormValue("units"))
	if err != nil {
		return err
	}
	in := b.Inputs.Clone()
	in.SetUnits(u)
	if _, err := s.save(c, b, in); err != nil {
		return err
	}
	setUnits(c, u)
	return s.after(c, b.ID)
}

// tick ticks a step off; mark is what the step said.
func (s *server) tick(c *echo.Context) error {
	n, err := id(c)
	if err != nil {
		return err
	}
	step, mark := c.FormValue("step"), c.FormValue("mark")
	if step == "" || len(step) > 100 || len(mark) > 40 {
		return fault.New(fault.UnknownStep, "step", "There is no such step; reload the page.")
	}
	if err := s.store.Tick(c.Request().Context(), n, step, mark, c.FormValue("done") != ""); err != nil {
		return err
	}
	return s.after(c, n)
}
