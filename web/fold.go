package web

import (
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/store"
)

// foldPage shows a box folding: in space where the browser can, and as one
// drawing a stage everywhere.
type foldPage struct {
	chrome
	Box    store.Box
	Stages []stagePicture
}

type stagePicture struct {
	Name    string
	Picture template.HTML
}

func (s *server) fold(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	m := modelOf(r)
	page := foldPage{chrome: s.chrome(c, b.Name+", folding"), Box: b}
	page.Units, page.UnitsAt, page.Stop = b.Inputs.Units, "/boxes/"+itoa(b.ID)+"/units", "box"
	for i := 0; i <= len(m.Stages); i++ {
		name := "flat"
		if i > 0 {
			name = m.Stages[i-1]
		}
		// Half-way through its stage shows best what turns.
		at := max(0, float64(i)-0.4)
		if i == len(m.Stages) {
			at = float64(i)
		}
		p, err := m.Picture(name, at)
		if err != nil {
			return err
		}
		page.Stages = append(page.Stages, stagePicture{name, svg(p)})
	}
	return c.Render(http.StatusOK, "fold.html", page)
}

// motion sends every pose of the folding box.
func (s *server) motion(c *echo.Context) error {
	_, r, err := s.result(c)
	if err != nil {
		return err
	}
	motion, err := modelOf(r).Motion()
	if err != nil {
		return err
	}
	return c.JSON(http.StatusOK, motion)
}

func (s *server) objFile(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	text, err := modelOf(r).OBJ()
	if err != nil {
		return err
	}
	return download(c, b.Name, ".obj", "model/obj", text)
}
