// Package boxes is the list of boxes, and where a new one begins.
package boxes

import (
	"embed"
	"maps"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/measure"
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
	e.POST("/example", s.example)
	e.GET("/kinds", s.kinds)
	e.POST("/units", s.preferUnits)
	e.POST("/light", s.preferLight)
	e.POST("/boxes", s.many)
	e.GET("/print.pdf", s.print)
	e.GET("/boxes.zip", s.files)
	e.GET("/side", s.side)
	e.GET("/go", s.goTo)
	e.POST("/boxes/:id/copy", s.copy)
	e.POST("/boxes/:id/delete", s.delete)
}

// preferUnits sets the unit of the pages that show no one box, and shows the
// page it was asked on again, with what was typed there.
func (s *room) preferUnits(c *echo.Context) error {
	u, err := measure.ParseUnit(c.FormValue("units"))
	if err != nil {
		return err
	}
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	page.SetUnits(c, u)
	typed := maps.Clone(posted)
	for _, name := range []string{"units", "to", "stop"} {
		typed.Del(name)
	}
	to := page.Asked(c, "/")
	if path, query, _ := strings.Cut(to, "?"); len(typed) > 0 {
		to = path + "?" + strings.TrimPrefix(query+"&"+typed.Encode(), "&")
	}
	return page.Back(c, "%s", to)
}

// preferLight sets how bright the pages are, and shows the page it was asked on again.
func (s *room) preferLight(c *echo.Context) error {
	page.SetLight(c, page.Light(c.FormValue("light")))
	return page.Back(c, "%s", page.Asked(c, "/"))
}

func (s *room) copy(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	if n, err = s.Store.Of(c.Request().Context()).Copy(c.Request().Context(), n); err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(n, "box"))
}

func (s *room) delete(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	if err := s.Store.Of(c.Request().Context()).Delete(c.Request().Context(), n); err != nil {
		return err
	}
	to := page.Searched(c)
	to.Set("deleted", page.Itoa(n))
	return page.Back(c, "/?%s", to.Encode())
}
