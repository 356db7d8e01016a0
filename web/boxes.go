package web

import (
	"context"
	"net/http"
	"net/url"
	"regexp"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/store"
)

func itoa(n int64) string { return strconv.FormatInt(n, 10) }

// unitsCookie remembers the unit for pages that show no one box.
const unitsCookie = "units"

func setUnits(c *echo.Context, u measure.Unit) {
	c.SetCookie(&http.Cookie{Name: unitsCookie, Value: string(u), Path: "/", MaxAge: 400 * 24 * 3600, HttpOnly: true, SameSite: http.SameSiteLaxMode})
}

func unitsOf(c *echo.Context) measure.Unit {
	if k, err := c.Cookie(unitsCookie); err == nil {
		if u, err := measure.ParseUnit(k.Value); err == nil {
			return u
		}
	}
	return measure.In
}

// ownPage is a page of this application that shows no one box.
var ownPage = regexp.MustCompile(`^/(drawer|jobs(/\d+)?)$`)

// preferUnits sets the unit of the list and of new boxes.
func (s *server) preferUnits(c *echo.Context) error {
	u, err := measure.ParseUnit(c.FormValue("units"))
	if err != nil {
		return err
	}
	setUnits(c, u)
	to := "/"
	if c.FormValue("stop") == "new" {
		to = "/new"
	} else if page := c.FormValue("to"); ownPage.MatchString(page) {
		to = page
	}
	return back(c, "%s", to)
}

func (s *server) list(c *echo.Context) error {
	boxes, err := s.store.Boxes(c.Request().Context())
	if err != nil {
		return err
	}
	page := listPage{chrome: s.chrome(c, "Boxes")}
	for _, b := range boxes {
		page.Boxes = append(page.Boxes, entryOf(c.Request().Context(), b, page.Units))
	}
	if n, err := strconv.ParseInt(c.QueryParam("deleted"), 10, 64); err == nil {
		page.Deleted = n
	}
	return c.Render(http.StatusOK, "list.html", page)
}

func (s *server) newBox(c *echo.Context) error {
	page := newPage{chrome: s.chrome(c, "A new box")}
	page.fill(newForm(nil, page.Units))
	return c.Render(http.StatusOK, "new.html", page)
}

// makeBox makes a box from what goes in, or from a size, and opens it at the
// stop that comes next.
func (s *server) makeBox(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return badForm(err)
	}
	u := unitsOf(c)
	f := newForm(posted, u)
	in := design.New("", u, "tray-lid")
	f.text("name", &in.Name)
	next := "contents"
	if posted.Get("start") == "size" {
		next = "box"
		for _, axis := range []string{"length", "width", "height"} {
			v := measure.Length(0)
			f.length("size."+axis, &v)
			in.Size[axis] = v
		}
		if b := design.Basis(posted.Get("size.basis")); b != "" {
			in.Basis = b
		}
	} else {
		t := contents.Thing{Count: 1, Ease: contents.UsualEase}
		readThing(f, 0, &t)
		in.Things = []contents.Thing{t}
	}
	if in.Name == "" {
		in.Name = nameFor(&in)
	}
	if f.ok() {
		s.try(c, f, &in)
	}
	if !f.ok() {
		page := newPage{chrome: s.chrome(c, "A new box"), BySize: next == "box"}
		page.fill(f)
		return c.Render(http.StatusUnprocessableEntity, "new.html", page)
	}
	n, err := s.store.Add(c.Request().Context(), in)
	if err != nil {
		return err
	}
	return back(c, "%s", stopURL(n, next))
}

// nameFor names a box after what goes in.
func nameFor(in *design.Inputs) string {
	if len(in.Things) > 0 && in.Things[0].Name != "" {
		return "Box for " + strconv.Itoa(in.Things[0].Count) + " × " + in.Things[0].Name
	}
	return "New box"
}

func (s *server) copy(c *echo.Context) error {
	n, err := id(c)
	if err != nil {
		return err
	}
	if n, err = s.store.Copy(c.Request().Context(), n); err != nil {
		return err
	}
	return back(c, "%s", stopURL(n, "box"))
}

func (s *server) rename(c *echo.Context) error {
	b, err := s.box(c)
	if err != nil {
		return err
	}
	in := b.Inputs.Clone()
	in.Name = strings.TrimSpace(c.FormValue("name"))
	switch {
	case in.Name == "":
		return fault.New(fault.Empty, "name", "A box needs a name. The old one is kept.")
	case len(in.Name) > design.LongestName:
		return fault.New(fault.TooLong, "name", "That name is too long. The old one is kept.")
	}
	if _, err := s.save(c, b, in); err != nil {
		return err
	}
	if c.FormValue("stop") == "" {
		return back(c, "/")
	}
	return s.after(c, b.ID)
}

func (s *server) delete(c *echo.Context) error {
	n, err := id(c)
	if err != nil {
		return err
	}
	if err := s.store.Delete(c.Request().Context(), n); err != nil {
		return err
	}
	return back(c, "/?%s", url.Values{"deleted": {itoa(n)}}.Encode())
}

func (s *server) restore(c *echo.Context) error {
	n, err := id(c)
	if err != nil {
		return err
	}
	if err := s.store.Restore(c.Request().Context(), n); err != nil {
		return err
	}
	return back(c, "/")
}

// entryOf is a box as the list shows it; one that can no longer be worked out
// says why.
func entryOf(ctx context.Context, b store.Box, unit measure.Unit) entry {
	e := entry{Box: b}
	r, err := design.Make(ctx, b.Inputs)
	if err != nil {
		e.Problem = fault.Of(err).Text
		return e
	}
	e.Style = r.Style.Name
	e.Size = sizeLine(r, unit)
	e.Picture = boxPicture(r)
	e.Verdict = worstOf(r)
	return e
}
