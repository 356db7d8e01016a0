package workspace

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// cost is what a box costs, all its copies cut from the drawer.
func (s *room) cost(c *echo.Context) error {
	return s.showCost(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showCost(c *echo.Context, status int, f *form.Form) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	item := batch.Item{Inputs: b.Inputs, Copies: b.Inputs.Copies}
	if item.Made, err = s.Made(ctx, item.One()); err != nil {
		return err
	}
	lots, err := s.Store.Of(ctx).Lots(ctx)
	if err != nil {
		return err
	}
	items := []batch.Item{item}
	stocks, err := batch.Gather(ctx, items, lots, batch.Choices{})
	if err != nil {
		return err
	}
	for i := range stocks {
		if err := stocks[i].Lay(ctx, batch.Quick); err != nil {
			return err
		}
	}
	at := "/boxes/" + page.Itoa(b.ID)
	v := &page.CostPage{Chrome: s.Chrome(c, "Cost · "+b.Name), Name: b.Name, At: at + "/cost", Back: at + "/sheets", Form: f, Tags: true}
	if v.Sum, err = s.Costed(ctx, items, stocks); err != nil {
		return err
	}
	if err := s.ShowCost(ctx, v, []int64{b.ID}); err != nil {
		return err
	}
	return c.Render(status, "cost.html", v)
}

// setCost keeps the rates, and the price of the box.
func (s *room) setCost(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	tag := c.FormValue("tag") != ""
	f, err := s.TakeCost(c, []boxshelf.Box{b}, tag)
	if err != nil {
		return err
	}
	if !f.OK() {
		return s.showCost(c, http.StatusUnprocessableEntity, f)
	}
	if tag {
		return page.Back(c, "%s", page.StopURL(b.ID, "dressing"))
	}
	return page.Back(c, "/boxes/%d/cost", b.ID)
}
