package workspace

import (
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/store/boxshelf"
	"brevium/web/page"
)

// cover lets a photograph of the finished box stand for it in the list: one that is sent, or
// one of those there are; with neither the drawing stands there again, where that is asked for.
func (s *room) cover(c *echo.Context) error {
	if _, err := s.Box(c); err != nil {
		return err
	}
	id := strings.ToLower(c.FormValue("photo"))
	if id != "" { // it must be there, and be seen
		if _, err := s.Store.Of(c.Request().Context()).Photo(c.Request().Context(), id); err != nil {
			return err
		}
	} else if c.FormValue("drawing") == "" {
		sent, err := s.KeepPhotograph(c)
		if err != nil {
			return err
		}
		if id = sent; id == "" {
			return fault.New(fault.Empty, "file", "Choose a picture first.")
		}
	}
	b, err := s.alter(c, func(_ boxshelf.Box, in *design.Inputs) error {
		in.Photograph = id
		return nil
	})
	if err != nil {
		return err
	}
	return page.Back(c, "/?%s#box-%d", page.Searched(c).Encode(), b.ID)
}
