package workspace

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/store/boxshelf"
	"brevium/web/page"
)

// boardPage asks whether a box shall be made on a board of the other unit, and
// says what that changes.
type boardPage struct {
	questionPage
	Tick    string
	Changes []boardChange
	Problem string
	Sister  measure.Unit // that a box of its own would be in; "" for this box on another board
}

type boardChange struct{ What, From, To string }

// otherBoard is the usual board of the unit that the page is in.
func otherBoard(in *design.Inputs) measure.Tick { return in.Units.Tick() }

// board lists what another board changes.
func (s *room) board(c *echo.Context) error {
	q, err := s.question(c, "Another board")
	if err != nil {
		return err
	}
	in := q.Box.Inputs
	p := boardPage{questionPage: q, Tick: measure.Label(otherBoard(&in).Length(), in.Units, otherBoard(&in))}
	all, err := design.OnBoard(c.Request().Context(), in, otherBoard(&in))
	if err != nil {
		p.Problem = fault.Of(err).Text
	}
	for _, x := range all.Changes {
		p.Changes = append(p.Changes, boardChange{x.What, x.From, x.To})
	}
	return c.Render(http.StatusOK, "board.html", p)
}

// sister shows the box as it would be in the other unit, and keeps it as a box of its own.
func (s *room) sister(c *echo.Context) error {
	q, err := s.question(c, "In the other unit")
	if err != nil {
		return err
	}
	all, err := design.Sister(c.Request().Context(), q.Box.Inputs)
	if c.Request().Method == http.MethodPost && err == nil {
		n, err := s.Store.Of(c.Request().Context()).Add(c.Request().Context(), all.Inputs)
		if err != nil {
			return err
		}
		return page.Back(c, "%s", page.StopURL(n, "box"))
	}
	p := boardPage{questionPage: q, Sister: all.Inputs.Units}
	if err != nil {
		p.Problem = fault.Of(err).Text
	} else {
		p.Tick = measure.Label(all.Inputs.Tools.Tick.Length(), all.Inputs.Units, all.Inputs.Tools.Tick)
	}
	for _, x := range all.Changes {
		p.Changes = append(p.Changes, boardChange{x.What, x.From, x.To})
	}
	return c.Render(http.StatusOK, "board.html", p)
}

// takeBoard makes the box on it.
func (s *room) takeBoard(c *echo.Context) error {
	b, err := s.alter(c, func(_ boxshelf.Box, in *design.Inputs) error {
		all, err := design.OnBoard(c.Request().Context(), *in, otherBoard(in))
		if err == nil {
			*in = all.Inputs
		}
		return err
	})
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(b.ID, "box"))
}
