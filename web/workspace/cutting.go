package workspace

import (
	"github.com/labstack/echo/v5"

	"brevium/draw/export"
	"brevium/web/page"
)

// cutting shows the box's sheets on the mat of a simulated cutting machine.
func (s *room) cutting(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	at := "/boxes/" + page.Itoa(b.ID)
	p := &page.CuttingPage{Chrome: s.beside(c, b.Name+", on the cutting mat", b, "making"), Name: b.Name, At: at + "/cutting", Back: at + "/making", Files: at + "/export"}
	return s.Cutting(c, p, export.Packed(r), export.Wanted(r), export.Names(r, ""))
}
