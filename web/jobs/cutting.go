package jobs

import (
	"maps"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/strokes"
	"brevium/draw/export"
	"brevium/web/page"
)

// cutting shows the job's sheets on the mat of a simulated cutting machine.
func (s *room) cutting(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	items, _, err := s.made(c.Request().Context(), w)
	if err != nil {
		return err
	}
	var made []*design.Result
	var wanted []strokes.Piece
	names := map[string]string{}
	for i, it := range items {
		made = append(made, it.Made)
		of := page.Itoa(int64(i)) + "/"
		for _, p := range export.Wanted(it.Made) {
			p.Name = of + p.Name
			p.Copies *= it.Copies
			wanted = append(wanted, p)
		}
		maps.Copy(names, export.Names(it.Made, of))
	}
	at := "/jobs/" + page.Itoa(w.ID)
	p := &page.CuttingPage{Chrome: s.Chrome(c, w.Name+", on the cutting mat"), Name: w.Name, At: at + "/cutting", Back: at}
	return s.Cutting(c, p, export.PackedJob(w.stocks, made), wanted, names)
}
