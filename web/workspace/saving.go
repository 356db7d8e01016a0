package workspace

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/store/boxshelf"
	"brevium/web/page"
)

// mostSavings is how many are offered.
const mostSavings = 3

type savingsView struct {
	ID      int64
	Savings []design.Saving
}

// savings is asked for once the page of the sheets is there: which sizes would
// save sheets when they gave a little.
func (s *room) savings(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	all := design.Savings(c.Request().Context(), b.Inputs)
	return c.Render(http.StatusOK, "savings", savingsView{b.ID, all[:min(len(all), mostSavings)]})
}

// takeSaving makes the size give.
func (s *room) takeSaving(c *echo.Context) error {
	b, err := s.alter(c, func(_ boxshelf.Box, in *design.Inputs) error {
		for _, x := range design.Savings(c.Request().Context(), *in) {
			if x.Key == c.FormValue("key") {
				*in = x.Inputs
				return nil
			}
		}
		return fault.New(fault.NotTaken, "sheets", "The box was changed meanwhile: this would not save a sheet any more.")
	})
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(b.ID, "sheets"))
}
