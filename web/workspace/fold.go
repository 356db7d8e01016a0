package workspace

import (
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/draw"
	"brevium/store/boxshelf"
	"brevium/web/page"
)

// foldPage shows a box folding: in space where the browser can, and as one
// drawing a stage everywhere.
type foldPage struct {
	page.Chrome
	Box    boxshelf.Box
	Flat   string // what it is called when it lies flat
	Opens  bool
	Packed bool // something goes in, which the open box shows
	Stages []stagePicture
}

type stagePicture struct {
	Name    string
	Picture template.HTML
}

func (s *room) fold(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	m := draw.ModelOf(r, false)
	view := foldPage{Chrome: s.beside(c, b.Name+", folding", b, "box"), Box: b}
	view.Opens, view.Packed, view.Flat = m.Opens(), r.Stand != nil, "Flat"
	if r.Box.Flat {
		view.Flat = "Flat, to be stored"
	}
	for i := 0; i <= len(m.Stages); i++ {
		name := "flat"
		if i > 0 {
			name = m.Stages[i-1]
		}
		// Half-way through its stage shows best what turns.
		at := max(0, float64(i)-0.4)
		if name == draw.Together || name == draw.Shutting {
			at = float64(i)
		}
		p, err := m.Picture(name, at)
		if err != nil {
			return err
		}
		view.Stages = append(view.Stages, stagePicture{name, page.SVG(p)})
	}
	return c.Render(http.StatusOK, "fold.html", view)
}

// motion sends every pose of the folding box.
func (s *room) motion(c *echo.Context) error {
	_, r, err := s.result(c)
	if err != nil {
		return err
	}
	m := draw.ModelOf(r, false)
	motion, err := m.Motion()
	if err != nil {
		return err
	}
	if r.Stand != nil && r.Box.Room.Height != nil {
		motion.Contents = m.Holding(r.Box.Room, r.Needs)
	}
	return c.JSON(http.StatusOK, motion)
}

func (s *room) objFile(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	text, err := draw.ModelOf(r, false).OBJ()
	if err != nil {
		return err
	}
	return page.Download(c, b.Name, ".obj", "model/obj", text)
}
