package workspace

import (
	"github.com/labstack/echo/v5"

	"brevium/core/marked"
	"brevium/draw/export"
	"brevium/web/page"
)

// cutting shows the box's sheets on the mat of a simulated cutting machine, as the trimmer lays them
// or by the pieces' shapes.
func (s *room) cutting(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	at := "/boxes/" + page.Itoa(b.ID)
	p := &page.CuttingPage{
		Chrome: s.beside(c, b.Name+", on the cutting mat", b, "making"), Name: b.Name, At: at + "/cutting", Back: at + "/making",
		Files: at + "/export?packed=1",
	}
	if marked.Any(r) {
		p.Printed, p.Paper = at+"/", page.PaperOf(c, b.Inputs.Units)
	}
	trimmed, err := s.Trimmed(c.Request().Context(), b.Inputs)
	if err != nil {
		return err
	}
	sheets, err := s.ByShape(trimmed).On(c, p, b.Inputs.Tools.With.ByShape(), export.Packed(trimmed))
	if err != nil {
		return err
	}
	return s.Cutting(c, p, sheets, export.Wanted(r), export.Names(r, ""))
}

// shapes is asked for once a page is there: what scissors or a machine save.
func (s *room) shapes(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	r, err := s.Trimmed(c.Request().Context(), b.Inputs)
	if err != nil {
		return err
	}
	return s.ByShape(r).Saves(c, "/boxes/"+page.Itoa(b.ID))
}
