package workspace

import (
	"errors"
	"net/http"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/caliper"
	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// keepThings keeps every thing of the box in the library of one's own things.
func (s *room) keepThings(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	for _, t := range b.Inputs.Things {
		if err := s.Store.Of(c.Request().Context()).KeepThing(c.Request().Context(), t); err != nil {
			return err
		}
	}
	return page.Back(c, "%s", page.StopURL(b.ID, "contents"))
}

// addKept puts a kept thing into the box.
func (s *room) addKept(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	n, _ := strconv.ParseInt(c.FormValue("thing"), 10, 64)
	kept, err := s.Store.Of(c.Request().Context()).Things(c.Request().Context())
	if err != nil {
		return err
	}
	for _, k := range kept {
		if k.ID != n {
			continue
		}
		if c.FormValue("forget") != "" {
			if err := s.Store.Of(c.Request().Context()).DropThing(c.Request().Context(), n); err != nil {
				return err
			}
			return page.Back(c, "%s", page.StopURL(b.ID, "contents"))
		}
		return s.withThings(c, b, []contents.Thing{k.Thing})
	}
	return fault.New(fault.UnknownThing, "thing", "That thing is no longer kept; reload the page.")
}

// importThings takes a list of things from a file or pasted text. A bad row is
// said, and then none is taken.
func (s *room) importThings(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	text, err := page.Listed(c)
	if err != nil {
		return err
	}
	things, faults := design.ReadContents(text, b.Inputs.Units)
	if len(faults) > 0 {
		f := form.New(nil, b.Inputs.Units)
		f.Refuse(text, faults)
		return s.workspace(c, http.StatusUnprocessableEntity, b, 0, f, nil)
	}
	return s.withThings(c, b, things)
}

// errNotTaken ends a change whose faults are in its form.
var errNotTaken = errors.New("the change cannot be taken")

// withThings adds things to the box's contents, if a box can be made so.
func (s *room) withThings(c *echo.Context, b boxshelf.Box, things []contents.Thing) error {
	f := form.New(nil, b.Inputs.Units)
	b, err := s.alter(c, func(b boxshelf.Box, in *design.Inputs) error {
		now, err := s.Before(c.Request().Context(), b.Inputs)
		if err != nil {
			return err
		}
		in.Things = append(in.Things, things...)
		in.Stand = ""
		for _, axis := range now.Style.Axes {
			delete(in.Size, axis.ID)
		}
		if s.Try(c, f, in); !f.OK() {
			return errNotTaken
		}
		return nil
	})
	if errors.Is(err, errNotTaken) {
		return s.workspace(c, http.StatusUnprocessableEntity, b, 0, f, nil)
	}
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(b.ID, "contents"))
}

// reading is what the stand-in for a caliper types for a thing of a true
// size.
func (s *room) reading(c *echo.Context) error {
	size, err := measure.Parse(c.QueryParam("of"), measure.MM)
	if err != nil {
		return c.String(http.StatusUnprocessableEntity, err.Error())
	}
	return c.String(http.StatusOK, caliper.New(time.Now().UnixNano()).Type(size))
}
