package workspace

import (
	"fmt"
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/draw"
	"brevium/web/page"
)

// partedView is the manners of parting the things, side by side.
type partedView struct {
	ID      int64
	Manners []mannerView
}

type mannerView struct {
	Name, Cost         string
	Picture            template.HTML
	Per, As, Stand, Up string
	Chosen             bool
}

// parted is asked for once the page of what goes in is there: what the manners
// of parting the things take.
func (s *room) parted(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	v := partedView{ID: b.ID}
	for _, m := range design.Manners(b.Inputs) {
		x := mannerView{
			Name: m.Name, Chosen: m.Chosen, Picture: page.SVG(draw.ContentsFromAbove(m.Way.Arrangement, b.Inputs.Things)),
			Cost: fmt.Sprintf("%s of card in all, %.0f %% air", cardArea(m.Way.Card, b.Inputs.Units), 100*m.Way.Wasted()),
			Per:  string(m.Inputs.Compartments.Per), As: string(m.Inputs.Compartments.As), Stand: m.Inputs.Stand,
		}
		if !m.Way.Goes {
			x.Cost += ", larger than the sheets"
		}
		if x.Stand == "" {
			x.Stand = "best"
		}
		if m.Inputs.Compartments.Along {
			x.Up = "along"
		}
		v.Manners = append(v.Manners, x)
	}
	return c.Render(http.StatusOK, "parted", v)
}
