package workspace

import (
	"bytes"
	"net/http"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/draw"
	"brevium/draw/pdf"
	"brevium/store"
	"brevium/web/page"
)

// result works the box of the address out.
func (s *room) result(c *echo.Context) (store.Box, *design.Result, error) {
	b, err := s.Box(c)
	if err != nil {
		return b, nil, err
	}
	r, err := s.Made(c.Request().Context(), b.Inputs)
	return b, r, err
}

// designFile gives a box's design; of one that cannot be read, what is stored.
func (s *room) designFile(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	b, err := s.Store.Box(c.Request().Context(), n)
	if err != nil {
		return err
	}
	text := b.Inputs.Write()
	if b.Broken != nil {
		text = []byte(b.Text)
	}
	return page.Download(c, b.Name, ".json", "application/json", text)
}

func (s *room) planFile(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	text, err := r.Plan()
	if err != nil {
		return err
	}
	return page.Download(c, b.Name, "-plan.json", "application/json", text)
}

func (s *room) pieceSVG(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	piece, _ := strings.CutSuffix(c.Param("piece"), ".svg")
	i := slices.IndexFunc(r.Parts, func(p design.Part) bool { return p.ID == piece })
	if i < 0 {
		return echo.NewHTTPError(http.StatusNotFound, "no such piece")
	}
	q := c.QueryParams()
	file := draw.Machine{Mirrored: q.Has("mirror"), Perforate: q.Has("perforate"), Notes: q.Has("notes")}.SVG(r.Parts[i].Part)
	return page.Download(c, b.Name+"-"+piece, ".svg", "image/svg+xml", file)
}

func (s *room) sheetPDF(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	paper := pdf.A4
	if c.QueryParam("paper") == "letter" {
		paper = pdf.Letter
	}
	var out bytes.Buffer
	if err := pdf.Write(&out, r, paper); err != nil {
		return err
	}
	return page.Download(c, b.Name, ".pdf", "application/pdf", out.Bytes())
}

// netOf is how a part of the design is drawn flat.
func netOf(r *design.Result, p design.Part) draw.Net {
	var bad []inspect.Finding
	for _, c := range r.Checks {
		if c.Verdict != inspect.OK {
			bad = append(bad, c)
		}
	}
	return draw.Net{
		Part:     p.Part,
		Mats:     r.Mats,
		Findings: bad,
		Fence:    r.Inputs.Tools.Fence,
		Units:    r.Inputs.Units,
		Tick:     r.Inputs.Tools.Tick,
	}
}
