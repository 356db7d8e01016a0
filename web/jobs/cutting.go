package jobs

import (
	"cmp"
	"maps"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/strokes"
	"brevium/draw/export"
	"brevium/web/page"
)

// results are the job's boxes as they are made; what should come off its sheets, each piece of each
// box by itself, and what people call it.
func (s *room) results(c *echo.Context) (w *work, made []*design.Result, wanted []strokes.Piece, names map[string]string, err error) {
	if w, err = s.job(c); err != nil {
		return nil, nil, nil, nil, err
	}
	items, _, err := s.made(c.Request().Context(), w)
	if err != nil {
		return nil, nil, nil, nil, err
	}
	names = map[string]string{}
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
	return w, made, wanted, names, nil
}

// cutting shows the job's sheets on the mat of a simulated cutting machine, as the trimmer lays them or
// by the pieces' shapes.
func (s *room) cutting(c *echo.Context) error {
	w, made, wanted, names, err := s.results(c)
	if err != nil {
		return err
	}
	at := "/jobs/" + page.Itoa(w.ID)
	p := &page.CuttingPage{Chrome: s.Chrome(c, w.Name+", on the cutting mat"), Name: w.Name, At: at + "/cutting", Back: at, Files: at + "/cut-files?packed=1"}
	sheets := export.PackedJob(w.stocks, made)
	if !w.Choices.With.ByShape() {
		if sheets, err = s.JobByShape(w.stocks, made).On(c, p, false, sheets); err != nil {
			return err
		}
	}
	return s.Cutting(c, p, sheets, wanted, names)
}

// shapes is asked for once a page is there: what scissors or a machine save.
func (s *room) shapes(c *echo.Context) error {
	w, made, _, _, err := s.results(c)
	if err != nil {
		return err
	}
	return s.JobByShape(w.stocks, made).Saves(c, "/jobs/"+page.Itoa(w.ID))
}

// cutFiles gives the job's sheets for a machine.
func (s *room) cutFiles(c *echo.Context) error {
	w, made, _, _, err := s.results(c)
	if err != nil {
		return err
	}
	to, err := export.ParseFormat(cmp.Or(c.QueryParam("to"), string(export.SVG)))
	if err != nil || !export.Flat(to) {
		return echo.NewHTTPError(http.StatusNotFound, "no such format")
	}
	sheets := export.PackedJob(w.stocks, made)
	if c.QueryParam("laid") == "shape" {
		by, err := s.JobByShape(w.stocks, made).Laid(c.Request().Context())
		if err != nil {
			return err
		}
		sheets = by.Drawings
	}
	layers, knife, err := s.ForMachine(c)
	if err != nil {
		return err
	}
	text, err := export.Zip(export.FilesOf(sheets, to, export.Options{Layers: layers, Knife: knife}))
	if err != nil {
		return err
	}
	return page.Download(c, w.Name+"-"+string(to), ".zip", "application/zip", text)
}
