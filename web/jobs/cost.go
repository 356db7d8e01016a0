package jobs

import (
	"context"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/fault"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// made are the job's boxes, each worked out, and their ids; one that is gone is a fault.
func (s *room) made(ctx context.Context, w *work) (items []batch.Item, ids []int64, err error) {
	for _, it := range w.Items {
		b, there := w.boxes[it.Box]
		if !there || b.Broken != nil {
			return nil, nil, fault.New(fault.Deleted, copiesName(it.Box), "%s is gone or cannot be read; bring it back, or take it out of the job first", w.nameOf(it.Box))
		}
		item := batch.Item{Inputs: b.Inputs, Copies: it.Copies}
		if item.Made, err = s.Made(ctx, item.One()); err != nil {
			return nil, nil, err
		}
		items, ids = append(items, item), append(ids, it.Box)
	}
	return items, ids, nil
}

// cost is what the job costs, as it is laid out.
func (s *room) cost(c *echo.Context) error {
	return s.showCost(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showCost(c *echo.Context, status int, f *form.Form) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	items, ids, err := s.made(ctx, w)
	if err != nil {
		return err
	}
	at := "/jobs/" + page.Itoa(w.ID)
	v := &page.CostPage{Chrome: s.Chrome(c, "Cost · "+w.Name), Name: w.Name, At: at + "/cost", Back: at, Form: f}
	if v.Sum, err = s.Costed(ctx, items, w.stocks); err != nil {
		return err
	}
	if err := s.ShowCost(ctx, v, ids); err != nil {
		return err
	}
	return c.Render(status, "cost.html", v)
}

// setCost keeps the rates, and the prices of the job's boxes.
func (s *room) setCost(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	var boxes []boxshelf.Box
	for _, it := range w.Items {
		if b, there := w.boxes[it.Box]; there {
			boxes = append(boxes, b)
		}
	}
	f, err := s.TakeCost(c, boxes, false)
	if err != nil {
		return err
	}
	if !f.OK() {
		return s.showCost(c, http.StatusUnprocessableEntity, f)
	}
	return page.Back(c, "/jobs/%d/cost", w.ID)
}
