package workspace

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/style"
	"brevium/store/boxshelf"
	"brevium/web/page"
)

// mendPage shows a box that cannot be read as it is kept.
type mendPage struct {
	page.Chrome
	Box    boxshelf.Box
	Text   string
	Reason string
	Field  string
	Styles []string
}

func (s *room) mending(c *echo.Context, status int, b boxshelf.Box, text string, why error) error {
	f := fault.Of(why)
	p := mendPage{Chrome: s.Chrome(c, b.Name), Box: b, Text: text, Reason: f.Text, Field: f.Field}
	for _, x := range style.Listed() {
		p.Styles = append(p.Styles, x.ID)
	}
	return c.Render(status, "mend.html", p)
}

// mend takes a mended design for a box that cannot be read, if it can be read
// now.
func (s *room) mend(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	b, err := s.Store.Of(ctx).Box(ctx, n)
	if err != nil {
		return err
	}
	text := c.FormValue("design")
	in, err := design.ReadKept([]byte(text))
	if page.IsFault(err) {
		return s.mending(c, http.StatusUnprocessableEntity, b, text, err)
	}
	if err != nil {
		return err
	}
	if err := s.Store.Of(ctx).Save(ctx, b.ID, in, boxshelf.Edit{From: b.Version, What: "mended", Page: page.Window(c)}); err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(b.ID, "contents"))
}
