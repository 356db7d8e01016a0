package web

import (
	"net/http"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/caliper"
	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/strict"
	"brevium/store"
)

// keepThings keeps every thing of the box in the library of one's own things.
func (s *server) keepThings(c *echo.Context) error {
	b, err := s.box(c)
	if err != nil {
		return err
	}
	for _, t := range b.Inputs.Things {
		if err := s.store.KeepThing(c.Request().Context(), t); err != nil {
			return err
		}
	}
	return back(c, "%s", stopURL(b.ID, "contents"))
}

// addKept puts a kept thing into the box.
func (s *server) addKept(c *echo.Context) error {
	b, err := s.box(c)
	if err != nil {
		return err
	}
	n, _ := strconv.ParseInt(c.FormValue("thing"), 10, 64)
	kept, err := s.store.Things(c.Request().Context())
	if err != nil {
		return err
	}
	for _, k := range kept {
		if k.ID != n {
			continue
		}
		if c.FormValue("forget") != "" {
			if err := s.store.DropThing(c.Request().Context(), n); err != nil {
				return err
			}
			return back(c, "%s", stopURL(b.ID, "contents"))
		}
		return s.withThings(c, b, []contents.Thing{k.Thing})
	}
	return fault.New(fault.UnknownThing, "thing", "That thing is no longer kept; reload the page.")
}

// importThings takes a list of things from a file or pasted text. A bad row is
// said, and then none is taken.
func (s *server) importThings(c *echo.Context) error {
	b, err := s.box(c)
	if err != nil {
		return err
	}
	text, err := listed(c)
	if err != nil {
		return err
	}
	things, faults := design.ReadContents(text, b.Inputs.Units)
	if len(faults) > 0 {
		f := newForm(nil, b.Inputs.Units)
		for _, err := range faults {
			f.Rows = append(f.Rows, err.Error())
		}
		f.List = string(text)
		return s.workspace(c, http.StatusUnprocessableEntity, b, 0, f, nil)
	}
	return s.withThings(c, b, things)
}

// listed is a list that was brought in, as a file or as text.
func listed(c *echo.Context) ([]byte, error) {
	file, err := c.FormFile("file")
	if err != nil || file.Size == 0 {
		return []byte(c.FormValue("list")), nil
	}
	in, err := file.Open()
	if err != nil {
		return nil, badForm(err)
	}
	defer in.Close()
	return strict.Read(in)
}

// withThings adds things to the box's contents, if a box can be made so.
func (s *server) withThings(c *echo.Context, b store.Box, things []contents.Thing) error {
	in := b.Inputs.Clone()
	now, err := design.Sketch(b.Inputs)
	if err != nil {
		return err
	}
	in.Things = append(in.Things, things...)
	in.Stand = ""
	for _, axis := range now.Style.Axes {
		delete(in.Size, axis.ID)
	}
	f := newForm(nil, in.Units)
	s.try(c, f, &in)
	if !f.ok() {
		return s.workspace(c, http.StatusUnprocessableEntity, b, 0, f, nil)
	}
	if b, err = s.save(c, b, in); err != nil {
		return err
	}
	return back(c, "%s", stopURL(b.ID, "contents"))
}

// reading is what the stand-in for a caliper types for a thing of a true
// size.
func (s *server) reading(c *echo.Context) error {
	size, err := measure.Parse(c.QueryParam("of"), measure.MM)
	if err != nil {
		return c.String(http.StatusUnprocessableEntity, err.Error())
	}
	return c.String(http.StatusOK, caliper.New(time.Now().UnixNano()).Type(size))
}
