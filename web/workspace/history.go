package workspace

import (
	"html/template"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/web/page"
)

// historyPage is a box as it was before each of its changes.
type historyPage struct {
	page.Chrome
	Box    boxshelf.Box
	States []stateView
}

type stateView struct {
	ID            int64
	What, By, At  string
	Inside, Style string
	Picture       template.HTML
	Problem       bool
}

// mostStates is how many states are drawn.
const mostStates = 24

func (s *room) history(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	all, err := s.Store.Of(ctx).History(ctx, b.ID)
	if err != nil {
		return err
	}
	p := historyPage{Chrome: s.beside(c, "History", b, "box"), Box: b}
	for _, past := range all[:min(mostStates, len(all))] {
		v := stateView{ID: past.ID, What: past.What, By: past.By, At: past.At.Format("2 January 2006, 15:04"), Problem: true}
		if past.Broken == nil {
			r, err := s.Made(ctx, past.Inputs)
			if err != nil && !page.IsFault(err) {
				return err
			}
			if err == nil {
				v.Picture, v.Style, v.Inside, v.Problem = page.BoxPicture(r, "before "+v.What), r.Style.Name, r.Inside.FreeIn(past.Inputs.Units), false
			}
		}
		p.States = append(p.States, v)
	}
	return c.Render(http.StatusOK, "history.html", p)
}

// backTo makes a box as it was before one of its changes, or a second box like that.
func (s *room) backTo(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	change, err := strconv.ParseInt(c.FormValue("change"), 10, 64)
	if err != nil {
		return desk.ErrNotFound
	}
	ctx := c.Request().Context()
	past, err := s.Store.Of(ctx).PastOf(ctx, b.ID, change)
	if err != nil {
		return err
	}
	if past.Broken != nil {
		return past.Broken
	}
	if c.FormValue("do") == "copy" {
		in := past.Inputs
		in.Name = design.CleanName(in.Name + ", as it was")
		id, err := s.Store.Of(ctx).Add(ctx, in)
		if err != nil {
			return err
		}
		return page.Back(c, "%s", page.StopURL(id, "box"))
	}
	err = s.Store.Of(ctx).Save(ctx, b.ID, past.Inputs, boxshelf.Edit{From: b.Version, What: "an earlier state", Page: page.Window(c)})
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(b.ID, "box"))
}
