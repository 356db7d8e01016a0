// Package page is what every room of the application shares: the frame of a
// page, the way back from a form, and the box of an address.
package page

import (
	"cmp"
	"context"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"html/template"
	"io/fs"
	"log/slog"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/draw"
	"brevium/store"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/web/form"
)

// Room is what the rooms' handlers share.
type Room struct {
	Store *store.Store
	Log   *slog.Logger
	// Disk keeps what was worked out over a restart; it may be nil.
	Disk  *store.Cache
	Turns Turns
	// Shares lets nobody work out more at a time than others can.
	Shares Shares
	// Looking is the search that runs.
	Looking Looking
	// Merging lets one form at a time be held against what is stored, and kept.
	Merging sync.Mutex

	sketches *Kept[Sketch]
	results  *Kept[*design.Result]
	biggest  *Kept[*design.Biggest]
	shaped   *Kept[Shaped]
	layouts  *Kept[map[string]json.RawMessage]
	// Drawn is what was drawn of results.
	Drawn Drawn
}

// Sketch is a box in small: its picture, the area of its card in mm², or why
// it cannot be made.
type Sketch struct {
	Picture template.HTML
	Card    float64
	Fault   *fault.Fault
	Late    bool // there was no time for it
}

// What is kept in memory at most: sketches are some kilobytes each, results
// some hundreds.
const (
	mostSketches = 2000
	mostResults  = 48
)

// NewRoom readies what the rooms share.
func NewRoom(kept *store.Store, disk *store.Cache, log *slog.Logger) *Room {
	return &Room{
		Store: kept, Disk: disk, Log: log,
		sketches: NewKept[Sketch](mostSketches, disk), results: NewKept[*design.Result](mostResults, nil), biggest: NewKept[*design.Biggest](mostResults, disk), shaped: NewKept[Shaped](mostResults, nil), layouts: NewKept[map[string]json.RawMessage](mostResults, disk),
	}
}

// Made works a design out, once for the same inputs. One that is cut with scissors or by a machine is as
// it was laid by shape, if it was. Nobody may change the result.
func (s *Room) Made(ctx context.Context, in design.Inputs) (*design.Result, error) {
	r, err := s.Trimmed(ctx, in)
	if err == nil && in.Tools.With.ByShape() {
		if by := s.ByShape(r); by.Known() {
			shaped, err := by.Laid(ctx)
			return shaped.Result, err
		}
	}
	return r, err
}

// Trimmed works a design out as the trimmer lays it.
func (s *Room) Trimmed(ctx context.Context, in design.Inputs) (*design.Result, error) {
	if err := in.Check(); err != nil {
		return nil, err
	}
	return s.results.Of("made", in, func() (*design.Result, error) {
		end, err := s.Shares.Take(ctx)
		if err != nil {
			return nil, err
		}
		defer end()
		r, err := design.Make(ctx, in)
		if err == nil {
			err = ctx.Err() // one that was broken off may not be the best
		}
		if err == nil && r.Short() {
			err = errShort
		}
		return r, err
	})
}

// Photos gives the photographs of papers to a print; a paper without one is printed in its colour.
func (s *Room) Photos(ctx context.Context) func(id string) []byte {
	return func(id string) []byte {
		p, err := s.Store.Of(ctx).Photo(ctx, id)
		if err != nil {
			return nil
		}
		return p.JPEG
	}
}

// FreeLots are the sheets of the drawer that nobody has reserved.
func (s *Room) FreeLots(ctx context.Context) ([]drawer.Lot, error) {
	all, err := s.Store.Of(ctx).Lots(ctx)
	return drawer.Free(all), err
}

// Before is a box as it stood before a change: worked out, or where that goes
// wrong at the sheets, its pieces only.
func (s *Room) Before(ctx context.Context, in design.Inputs) (*design.Result, error) {
	if r, err := s.Made(ctx, in); err == nil {
		return r, nil
	}
	b, err := design.Sketch(in)
	if err != nil {
		return nil, err
	}
	return b.Bare(), nil
}

// Sketched draws a box in small, once for the same inputs, if its asker still waits. One
// that panics is a fault of that box alone.
func (s *Room) Sketched(ctx context.Context, in design.Inputs) Sketch {
	out, err := s.sketches.Of("sketch", in, func() (Sketch, error) {
		layout.Yield(ctx)
		if err := ctx.Err(); err != nil {
			return Sketch{}, err
		}
		var out Sketch
		err := fault.Guard(func() error {
			r, err := design.Sketch(in)
			if err == nil {
				out = Sketch{Picture: BoxPicture(r.Bare(), ""), Card: r.CardArea()}
			}
			return err
		})
		if err != nil {
			out.Fault = fault.Of(err)
			if out.Fault.Code == fault.Internal {
				s.Log.Error("a style cannot be sketched", "style", in.Style, "error", out.Fault.Cause)
			}
		}
		return out, nil
	})
	if err != nil {
		out.Late = true
	}
	return out
}

//go:embed *.html
var own embed.FS

// Templates parses the pages of all rooms, each of which brings its own.
// static gives the address of a file that ships with them.
func Templates(static func(name string) string, rooms ...fs.FS) (*echo.TemplateRenderer, error) {
	t := template.New("")
	t.Funcs(template.FuncMap{
		// part is a template whose name is worked out, such as that of one stop of several.
		"part": func(name string, of any) (template.HTML, error) {
			var out strings.Builder
			err := t.ExecuteTemplate(&out, name, of)
			return template.HTML(out.String()), err
		},
		"inc":      func(i int) int { return i + 1 },
		"legend":   legend,
		"lower":    strings.ToLower,
		"cardtext": form.CardText,
		"pair":     func(a, b any) []any { return []any{a, b} },
		"swatch":   swatch,
		"num":      num,
		"static":   static,
		"unitname": func(u measure.Unit) string { return unitNames[u] },
	})
	for _, room := range append(rooms, own) {
		if _, err := t.ParseFS(room, "*.html"); err != nil {
			return nil, err
		}
	}
	return &echo.TemplateRenderer{Template: t}, nil
}

// Tries is how often a change is put onto what others changed in the same
// moment before it is given up.
const Tries = 8

// Window names the window a request comes from, so that two windows of one
// maker are told apart; "" for a page without scripts.
func Window(c *echo.Context) string {
	name := c.Request().Header.Get("X-Window")
	return name[:min(len(name), 40)]
}

func Itoa(n int64) string { return strconv.FormatInt(n, 10) }

// SVG marks a drawing as markup: draw escapes every text in it.
func SVG(p *draw.Picture) template.HTML { return template.HTML(p.Inline()) }

var fraction = regexp.MustCompile(`(\d+ )?\b(\d+/\d+)`)

// num marks the fractions in a text, so that 3/8 is set as one.
func num(text string) template.HTML {
	return template.HTML(
		fraction.ReplaceAllString(template.HTMLEscapeString(text), `<span class="nowrap">$1<span class="frac">$2</span></span>`),
	)
}

type legendEntry struct {
	Text   string
	Sample template.HTML
}

func legend() []legendEntry {
	var out []legendEntry
	for _, e := range draw.Legend() {
		out = append(out, legendEntry{e.Text, SVG(e.Sample)})
	}
	return out
}

type overTLS struct{}

// Secure marks a request that a proxy took over TLS.
func Secure(r *http.Request) *http.Request {
	return r.WithContext(context.WithValue(r.Context(), overTLS{}, true))
}

// IsSecure reports whether a request came over TLS, here or at a proxy.
func IsSecure(r *http.Request) bool {
	by, _ := r.Context().Value(overTLS{}).(bool)
	return r.TLS != nil || by
}

// Here is how this machine was asked for: its scheme and name.
func Here(c *echo.Context) string {
	scheme := "http"
	if IsSecure(c.Request()) {
		scheme = "https"
	}
	return scheme + "://" + c.Request().Host
}

// Place is where a maker can go from every page.
type Place struct{ Name, Path string }

var places = []Place{{"Boxes", "/"}, {"Jobs", "/jobs"}, {"Drawer", "/drawer"}, {"Logbook", "/logbook"}, {"Your data", "/data"}}

// placeOf is the place that an address belongs to.
func placeOf(path string) string {
	switch {
	case strings.HasPrefix(path, "/jobs"):
		return "Jobs"
	case strings.HasPrefix(path, "/logbook"):
		return "Logbook"
	case strings.HasPrefix(path, "/drawer"):
		return "Drawer"
	case strings.HasPrefix(path, "/data"), strings.HasPrefix(path, "/bin"):
		return "Your data"
	}
	return "Boxes"
}

// unitNames are what is said aloud of a unit.
var unitNames = map[measure.Unit]string{measure.In: "inches", measure.CM: "centimetres", measure.MM: "millimetres"}

// Chrome is what stands round every page.
type Chrome struct {
	Title   string
	Place   string
	Swap    bool   // the page shows itself anew in place, as its #work
	Carry   string // the form whose typed values go along to another unit
	Units   measure.Unit
	UnitsAt string // where the unit switch posts to
	To      string // the page to come back to from there
	Stop    string
	Light   Light
	Notices []string
	// Who is signed in, where a workshop is served.
	Who people.Person
	// Live is where the page is told that somebody else changed what it shows, LiveAt the state that
	// it shows.
	Live, LiveAt string
}

// Places are where one can go: in a workshop all its data are the steward's.
func (x Chrome) Places() []Place {
	if x.Who.Name == "" || x.Who.Role == people.Steward {
		return places
	}
	return places[:len(places)-1]
}

// AllUnits lists the units of the switch.
func (Chrome) AllUnits() []measure.Unit { return measure.Units }

func (s *Room) Chrome(c *echo.Context, title string) Chrome {
	x := Chrome{Title: title, Place: placeOf(c.Path()), Units: UnitsOf(c), UnitsAt: "/units", Light: lightOf(c), Who: people.Of(c.Request().Context())}
	if x.Who.Role == people.Guest {
		x.Notices = append(x.Notices, "You look on as a guest: what you change here is not kept.")
	}
	if damage := s.Store.Damage(); damage != "" {
		x.Notices = append(x.Notices, "The data file is damaged. Make nothing new here: stop Brevium and bring a copy back with “brevium restore”; the page “Your data” lists the copies. What was found: "+damage)
	}
	x.To = c.Request().URL.Path
	if of, _, is := strings.Cut(c.Path(), "/:id"); is && x.Who.Name != "" && slices.Contains(liveAt, c.Path()) {
		x.Live = "/live" + of
	} else if c.Path() == "/boxes/:id/class" {
		x.Live = "/live/classes"
	} else if c.Path() == "/jobs/:id/class" {
		x.Live = "/live/job-classes"
	}
	if x.Live != "" {
		sort := LiveSorts[x.Live]
		x.Live += "/" + c.Param("id")
		if id, err := ID(c); err == nil {
			// Without it the page is shown anew when it is first told of a state: no harm.
			x.LiveAt, _ = s.State(c.Request().Context(), sort, id)
		}
	}
	if at, own := strings.CutPrefix(c.Path(), "/jobs/:id"); own && !slices.Contains([]string{"/cost", "/evenings", "/kits", "/class", "/cutting"}, at) {
		x.To = "/jobs/" + c.Param("id")
	}
	return x
}

type problemPage struct {
	Chrome
	Text string
}

// Fail turns any error into a page with a sentence on it.
func (s *Room) Fail(c *echo.Context, err error) {
	if r, _ := echo.UnwrapResponse(c.Response()); r != nil && r.Committed {
		return
	}
	if errors.Is(err, context.Canceled) && c.Request().Context().Err() != nil {
		return // nobody is there to be told
	}
	s.Store.Note(err)
	status, text := http.StatusInternalServerError, "Something went wrong here, and nothing was changed. Go back and try again."
	var f *fault.Fault
	switch code := echo.StatusCode(err); {
	case errors.Is(err, desk.ErrNotFound):
		what, list := cmp.Or(desk.Missing(err), "box"), "the list"
		if what == "job" {
			list = "the list of jobs"
		}
		status, text = http.StatusNotFound, fmt.Sprintf("There is no %s here. It may have been deleted; %s shows what there is.", what, list)
	case errors.As(err, &f):
		status, text = http.StatusUnprocessableEntity, f.Text
	case store.Reason(err) != "":
		status, text = http.StatusInsufficientStorage, store.Reason(err)
	case code == http.StatusNotFound:
		status, text = code, "There is no such page. The list shows what there is."
	case errors.Is(err, context.DeadlineExceeded):
		status, text = http.StatusServiceUnavailable, "This took too long and was broken off; nothing was changed. Try it again, or with less at once."
	case code == http.StatusRequestEntityTooLarge:
		status, text = code, "That is over 4 MiB, far more than a box needs. Nothing was changed."
	case code != 0 && code < 500:
		status, text = code, http.StatusText(code)
	}
	if status >= 500 {
		s.Log.Error("request failed", "path", c.Request().URL.Path, "error", err)
	}
	if c.Request().Header.Get("HX-Request") != "" {
		// The page stays, and says this over what was typed.
		c.Response().Header().Set("HX-Reswap", "none")
		if err := c.String(status, text); err != nil {
			s.Log.Error("a problem could not be told", "error", err)
		}
		return
	}
	page := problemPage{Chrome: s.Chrome(c, "Nothing here"), Text: text}
	if err := c.Render(status, "problem.html", page); err != nil {
		s.Log.Error("the problem page failed", "error", err)
	}
}

// ID reads the box number from the address; anything else is not found.
func ID(c *echo.Context) (int64, error) {
	n, err := strconv.ParseInt(c.Param("id"), 10, 64)
	if err != nil {
		return 0, desk.ErrNotFound
	}
	return n, nil
}

// Box loads the box of the address.
func (s *Room) Box(c *echo.Context) (boxshelf.Box, error) {
	n, err := ID(c)
	if err != nil {
		return boxshelf.Box{}, err
	}
	b, err := s.Store.Of(c.Request().Context()).Box(c.Request().Context(), n)
	if err == nil && b.Broken != nil {
		err = fault.New(fault.Unreadable, "", "“%s” is kept, but cannot be read: %s. Open it in the list to mend it.", b.Name, fault.Of(b.Broken).Text)
	}
	return b, err
}

// local is an address of this application's own, with a query of plain words at most.
var local = regexp.MustCompile(`^((/[a-z0-9-]+)+|/)(\?[a-z0-9=&-]{1,200})?$`)

// Asked is the page of this application that a form asks to come back to, or
// the other address.
func Asked(c *echo.Context, other string) string {
	if to := c.FormValue("to"); local.MatchString(to) {
		return to
	}
	return other
}

// Searched is what the list of boxes was found and ordered by when a form was posted
// from it, to come back to.
func Searched(c *echo.Context) url.Values {
	q := url.Values{}
	for field, name := range map[string]string{"find": "find", "order": "order", "in.tag": "tag", "in.archived": "archived"} {
		if v := c.FormValue(field); v != "" {
			q.Set(name, v)
		}
	}
	return q
}

// Back sends the browser to an address after a change, as a plain redirect
// or, for htmx, a fresh page.
func Back(c *echo.Context, format string, args ...any) error {
	url := fmt.Sprintf(format, args...)
	if c.Request().Header.Get("HX-Request") != "" {
		c.Response().Header().Set("HX-Redirect", url)
		return c.NoContent(http.StatusNoContent)
	}
	return c.Redirect(http.StatusSeeOther, url)
}

func IsFault(err error) bool {
	var f *fault.Fault
	return errors.As(err, &f)
}

func BadForm(err error) error {
	var coder interface{ StatusCode() int }
	if errors.As(err, &coder) {
		return err
	}
	return echo.NewHTTPError(http.StatusBadRequest, "the form cannot be read").Wrap(err)
}

func StopURL(id int64, stop string) string {
	u := url.URL{Path: "/boxes/" + Itoa(id) + "/" + stop}
	return u.String()
}

// Try works the inputs out, or notes what is wrong with them.
func (s *Room) Try(c *echo.Context, f *form.Form, in *design.Inputs) *design.Result {
	made, err := s.Made(c.Request().Context(), *in)
	if err != nil {
		x := form.Placed(err)
		if x.Code == fault.Internal {
			s.Log.Error("a design cannot be worked out", "error", err)
			x.Text = "This cannot be drawn; the last good box is kept."
		}
		f.Fail(x)
	}
	return made
}
