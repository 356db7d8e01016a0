package reader

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/found"
	"brevium/core/measure"
	"brevium/web/page"
)

// minePage is the recipe that a box was read from, beside what it has become.
type minePage struct {
	page.Chrome
	ID        int64
	Name      string
	Was       string
	Mine      found.Mine
	In        measure.Unit // that it is written in, "" for its own
	Others    []measure.Unit
	Otherwise bool // the box is of another kind now, or its recipe is read otherwise
}

// mine shows the recipe of a box in the same words with the numbers of today.
func (s *room) mine(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	if b.Inputs.Recipe == "" {
		return echo.NewHTTPError(http.StatusNotFound, "this box was not read from a recipe")
	}
	r, err := s.Made(c.Request().Context(), b.Inputs)
	if err != nil {
		return err
	}
	v := minePage{Chrome: s.Chrome(c, "Its recipe · "+b.Name), ID: b.ID, Name: b.Name, Was: plain(b.Inputs.Recipe)}
	told, err := found.Tell(v.Was, b.Inputs.Units)
	if err != nil && !page.IsFault(err) {
		return err
	}
	ok := false
	if u, wrong := measure.ParseUnit(c.QueryParam("in")); wrong == nil && err == nil && u != told.Unit {
		v.In = u
	}
	if err == nil {
		for _, u := range measure.Units {
			if u != told.Unit {
				v.Others = append(v.Others, u)
			}
		}
	}
	if err == nil {
		v.Mine, ok = told.Mine(v.Was, &r.Built, v.In)
	}
	v.Otherwise = !ok
	return c.Render(http.StatusOK, "mine.html", v)
}
