package boxes

import (
	"fmt"
	"net/http"
	"net/url"
	"path/filepath"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/strict"
	"brevium/web/form"
	"brevium/web/page"
)

// mostBrought is how many designs may be brought in at once.
const mostBrought = 200

// bring takes design files, one or many: each that reads becomes a box, and of
// the others it is said what is wrong, by their names. One alone is opened.
func (s *room) bring(c *echo.Context) error {
	posted, err := c.MultipartForm()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(url.Values{"start": {fromFile}}, page.UnitsOf(c))
	files := posted.File["designs"]
	switch {
	case len(files) == 0:
		f.Fail(fault.New(fault.Empty, "designs", "Choose a design file first: one that was saved from a box."))
	case len(files) > mostBrought:
		f.Fail(fault.New(fault.CountRange, "designs", "These are %d files; bring in at most %d at once.", len(files), mostBrought))
		files = nil
	}
	var last int64
	taken := 0
	for i, file := range files {
		one := func() error {
			r, err := file.Open()
			if err != nil {
				return err
			}
			defer r.Close()
			text, err := strict.Read(r)
			if err != nil {
				return err
			}
			in, err := design.ReadKept(text)
			if err != nil {
				return err
			}
			if in.Name = design.CleanName(in.Name); in.Name == "" {
				in.Name = strings.TrimSuffix(filepath.Base(file.Filename), filepath.Ext(file.Filename))
			}
			if _, err := s.Store.Of(c.Request().Context()).Photo(c.Request().Context(), in.Photograph); err != nil {
				in.Photograph = "" // the photograph stayed in another folder: its drawing is shown
			}
			last, err = s.Store.Of(c.Request().Context()).Add(c.Request().Context(), in)
			return err
		}
		if err := one(); err != nil {
			f.Fail(fault.New(fault.Unreadable, fmt.Sprint("designs.", i), "%s was not taken: %s", filepath.Base(file.Filename), fault.Of(err).Error()))
			continue
		}
		taken++
	}
	if f.OK() && taken == 1 {
		return page.Back(c, "%s", page.StopURL(last, "box"))
	}
	if f.OK() {
		return page.Back(c, "/")
	}
	view := newPage{Chrome: s.Chrome(c, "A new box"), Form: f, Way: fromFile, Ways: ways(fromFile), Taken: taken}
	return c.Render(http.StatusUnprocessableEntity, "new.html", view)
}
