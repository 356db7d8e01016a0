// Package styles is the page of a maker's own styles: files that are written, tried and
// kept, and the box each gives.
package styles

import (
	"context"
	"embed"
	"encoding/json"
	"html/template"
	"net/http"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/style"
	"brevium/core/stylefile"
	"brevium/draw"
	"brevium/store/stockroom"
	"brevium/web/form"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct{ *page.Room }

// Routes adds the room's addresses, and makes known what styles are kept.
func Routes(e *echo.Echo, shared *page.Room) error {
	s := &room{shared}
	e.GET("/styles", s.show)
	e.POST("/styles", s.take)
	e.GET("/styles/table", s.table)
	e.POST("/styles/table", s.fill)
	e.GET("/styles/:file", s.file)
	e.POST("/styles/:file/strike", s.strike)
	return shared.KnowStyles(context.Background())
}

// stylesPage is the styles there are, and the file that is being written.
type stylesPage struct {
	page.Chrome
	Form     *form.Form
	File     form.Field
	Own      []ownView
	Examples []stylefile.Example
	Picture  template.HTML
	Nets     []template.HTML // of its pieces
	Says     string
	Kept     string
	Began    string // the version that the file was begun from
	// pick lets the faces of the picked piece be pressed.
	pick   bool
	picked int
	spots  []draw.Spot // of it, that a line can go between
}

type ownView struct {
	ID, Name, About string
	Version         int
	Struck          bool
}

func (s *room) show(c *echo.Context) error {
	f := form.New(c.QueryParams(), page.UnitsOf(c))
	for _, x := range stylefile.Examples() {
		if c.QueryParam("from") == x.ID {
			f.Posted.Set("style", x.Text)
		}
	}
	if id := c.QueryParam("own"); id != "" {
		x, err := s.newest(c.Request().Context(), id)
		if err != nil {
			return err
		}
		f.Posted.Set("style", string(x.File))
		f.Posted.Set("began", strconv.Itoa(x.Version))
	}
	return s.render(c, http.StatusOK, f)
}

// newest is the newest version of a style.
func (s *room) newest(ctx context.Context, id string) (stockroom.OwnStyle, error) {
	all, err := s.Store.Of(ctx).Styles(ctx)
	if err != nil {
		return stockroom.OwnStyle{}, err
	}
	found := stockroom.OwnStyle{}
	for _, x := range all {
		if x.ID == id && x.Version > found.Version {
			found = x
		}
	}
	if found.Version == 0 {
		return found, echo.NewHTTPError(http.StatusNotFound, "there is no such style of yours")
	}
	return found, nil
}

func (s *room) render(c *echo.Context, status int, f *form.Form) error {
	v := &stylesPage{Chrome: s.Chrome(c, "Styles of your own"), Form: f, Examples: stylefile.Examples(), Kept: c.QueryParam("kept"), Began: f.Posted.Get("began")}
	all, err := s.Store.Of(c.Request().Context()).Styles(c.Request().Context())
	if err != nil {
		return err
	}
	for _, x := range all {
		var of struct{ Name, About string }
		json.Unmarshal(x.File, &of) // it was read when it was kept
		y := ownView{x.ID, of.Name, of.About, x.Version, x.Struck}
		if n := len(v.Own); n > 0 && v.Own[n-1].ID == x.ID {
			v.Own[n-1] = y
		} else {
			v.Own = append(v.Own, y)
		}
	}
	text := f.Posted.Get("style")
	if strings.TrimSpace(text) != "" {
		if err := v.try(c.Request().Context(), text); page.IsFault(err) {
			x := *fault.Of(err)
			if x.Field != "" {
				x.Text = x.Field + ": " + x.Text
			}
			x.Field = "style"
			f.Fail(&x)
			if status = http.StatusUnprocessableEntity; c.Request().Method == http.MethodGet {
				status = http.StatusOK
			}
		} else if err != nil {
			return err
		}
	}
	v.File = f.Control("style", "The style file", "columns and rows are formulas of its sizes", text)
	v.File.Kind = "lines"
	return c.Render(status, "styles.html", v)
}

// try reads a file and draws what it gives at its usual sizes.
func (v *stylesPage) try(ctx context.Context, text string) error {
	st, err := stylefile.Read([]byte(text))
	if err != nil {
		return err
	}
	in := design.New(st.Name, v.Units, style.Usual().ID)
	r, err := design.MakeOf(ctx, in, st)
	if err != nil {
		return err
	}
	v.Picture = page.BoxPicture(r, "own")
	for i, p := range r.Parts {
		spots := v.spots
		if i != v.picked {
			spots = nil
		}
		net := draw.Net{Spots: spots, PickAll: v.pick && i == v.picked, Part: p.Part, Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick}
		v.Nets = append(v.Nets, page.SVG(net.Picture()))
	}
	for _, c := range r.Checks {
		if c.Verdict != "ok" {
			v.Says += c.Text + " "
		}
	}
	return nil
}

// take tries a file, or keeps it as the next version of its style.
func (s *room) take(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	if file, err := page.Listed(c); err == nil && len(file) > 0 {
		f.Posted.Set("style", string(file))
	}
	text := []byte(f.Posted.Get("style"))
	if posted.Get("keep") == "" || len(text) == 0 {
		return s.render(c, http.StatusOK, f)
	}
	if _, err := stylefile.Read(text); err != nil {
		return s.render(c, http.StatusUnprocessableEntity, f)
	}
	began, _ := strconv.Atoi(posted.Get("began"))
	newest, err := s.keep(c, text, began)
	if page.IsFault(err) {
		f.Posted.Set("began", strconv.Itoa(newest))
		f.Fail(err)
		return s.render(c, http.StatusUnprocessableEntity, f)
	}
	return err
}

// keep makes a file that can be read the next version of its style, where it was begun from the
// newest one; with a fault it gives that one's number.
func (s *room) keep(c *echo.Context, text []byte, began int) (newest int, err error) {
	id, err := stylefile.IDOf(text)
	if err != nil {
		return began, err
	}
	ctx := c.Request().Context()
	if newest, err = s.Store.Of(ctx).AddStyle(ctx, id, began, func(version int) ([]byte, error) { return stylefile.Versioned(text, version) }); err != nil {
		return newest, err
	}
	if err := s.KnowStyles(ctx); err != nil {
		return newest, err
	}
	return newest, page.Back(c, "/styles?own=%s&kept=1", id)
}

// file gives the newest version of a style as its file.
func (s *room) file(c *echo.Context) error {
	id, is := strings.CutSuffix(c.Param("file"), ".json")
	if !is {
		return echo.NewHTTPError(http.StatusNotFound, "there is no such style of yours")
	}
	x, err := s.newest(c.Request().Context(), id)
	if err != nil {
		return err
	}
	return page.Download(c, id, ".json", "application/json", x.File)
}

// strike offers a style no more, or again.
func (s *room) strike(c *echo.Context) error {
	ctx := c.Request().Context()
	x, err := s.newest(ctx, c.Param("file"))
	if err != nil {
		return err
	}
	if err := s.Store.Of(ctx).StrikeStyle(ctx, x.ID, c.FormValue("do") != "offer"); err != nil {
		return err
	}
	if err := s.KnowStyles(ctx); err != nil {
		return err
	}
	return page.Back(c, "/styles")
}
