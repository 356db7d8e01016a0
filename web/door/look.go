package door

import (
	"errors"
	"html/template"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/people"
	"brevium/draw"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/web/page"
)

// lookPage is a box as anybody sees it who has its link; of its maker, the link.
type lookPage struct {
	page.Chrome
	Box     boxshelf.Box
	Style   string
	Inside  string
	Picture template.HTML
	Nets    []template.HTML
	Code    string
	Linked  bool   // on its maker's page: there is a link
	Link    string // which is shown, where it can be
	Copies  bool   // whoever looks may copy it into their own
}

// linked does something with the box that a link leads to.
func (d *Door) linked(do func(*echo.Context, boxshelf.Box) error) echo.HandlerFunc {
	return func(c *echo.Context) error {
		b, err := d.Store.Of(c.Request().Context()).Linked(c.Request().Context(), c.Param("code"))
		switch {
		case errors.Is(err, desk.ErrNotFound):
			return d.nowhere(c)
		case err != nil:
			return err
		case b.Broken != nil:
			return b.Broken
		}
		return do(c, b)
	}
}

// look shows a box to whoever has its link.
func (d *Door) look(c *echo.Context, b boxshelf.Box) error {
	ctx := c.Request().Context()
	r, err := d.Made(ctx, b.Inputs)
	if err != nil {
		return err
	}
	v := lookPage{Chrome: d.Chrome(c, b.Name), Box: b, Style: r.Style.Name, Picture: page.BoxPicture(r, "look"), Code: c.Param("code"), Copies: people.Of(ctx).Role.AtLeast(people.Maker)}
	in := &b.Inputs
	v.Inside = r.Inside.FreeIn(in.Units)
	for _, p := range r.Parts {
		net := draw.Net{Part: p.Part, Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick}
		v.Nets = append(v.Nets, page.SVG(net.Picture()))
	}
	return c.Render(http.StatusOK, "look.html", v)
}

// copyLook copies a box that one looks at into one's own.
func (d *Door) copyLook(c *echo.Context, b boxshelf.Box) error {
	in := b.Inputs
	in.Name = design.CleanName(in.Name)
	id, err := d.Store.Of(c.Request().Context()).Add(c.Request().Context(), in)
	if err != nil {
		return err
	}
	return page.Back(c, "/boxes/%d", id)
}

// linkOf shows the link of a box of one's own.
func (d *Door) linkOf(c *echo.Context) error {
	id, err := strconv.ParseInt(c.Param("id"), 10, 64)
	if err != nil {
		return desk.ErrNotFound
	}
	ctx := c.Request().Context()
	code, is, err := d.Store.Of(ctx).Link(ctx, id)
	if err != nil {
		return err
	}
	b, err := d.Store.Of(ctx).Box(ctx, id)
	if err != nil {
		return err
	}
	v := lookPage{Chrome: d.Chrome(c, "A link to "+b.Name), Box: b, Linked: is}
	if code != "" {
		v.Link = page.Here(c) + "/look/" + code
	}
	return c.Render(http.StatusOK, "link.html", v)
}

// setLink makes a link to a box of one's own, or ends it.
func (d *Door) setLink(c *echo.Context) error {
	id, err := strconv.ParseInt(c.Param("id"), 10, 64)
	if err != nil {
		return desk.ErrNotFound
	}
	on := c.FormValue("do") == "make"
	if err := d.Store.Of(c.Request().Context()).SetLink(c.Request().Context(), id, on); err != nil {
		return err
	}
	what := "made a link to a box"
	if !on {
		what = "ended the link to a box"
	}
	d.note(c, what, people.Of(c.Request().Context()).Name, strconv.FormatInt(id, 10))
	return page.Back(c, "/boxes/%d/link", id)
}
