package reader

import (
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/photo"
	"brevium/sketch"
	"brevium/web/form"
	"brevium/web/page"
)

// sketchPath is where photographs of sketches are read.
const sketchPath = "/read/sketch"

func (s *room) sketchRoutes(e *echo.Echo) {
	e.GET(sketchPath, s.newSketch)
	e.POST(sketchPath, s.sendSketch, page.ForPhotographs)
	e.GET(sketchPath+"/:id", s.corners)
	e.GET(sketchPath+"/:id/straight.jpg", s.straight)
	e.GET(sketchPath+"/:id/lines", s.lines)
	e.POST(sketchPath+"/:id/lines", s.takeLines, middleware.BodyLimit(128<<10))
}

type newSketchPage struct {
	page.Chrome
	Fault string
}

func (s *room) newSketch(c *echo.Context) error {
	return c.Render(http.StatusOK, "sketch-new.html", newSketchPage{Chrome: s.Chrome(c, "From a sketch")})
}

// sendSketch keeps the photograph while it is worked on.
func (s *room) sendSketch(c *echo.Context) error {
	sent, err := page.Photograph(c)
	var p photo.Picture
	if err == nil {
		p, err = photo.Sketch(sent)
	}
	if page.IsFault(err) {
		return c.Render(http.StatusUnprocessableEntity, "sketch-new.html", newSketchPage{s.Chrome(c, "From a sketch"), fault.Of(err).Text})
	} else if err != nil {
		return err
	}
	if err := s.Store.Of(c.Request().Context()).PutPhoto(c.Request().Context(), p, true); err != nil {
		return err
	}
	return page.Back(c, sketchPath+"/%s", p.ID)
}

// cornersPage asks where the paper lies in the picture and how large it is.
type cornersPage struct {
	page.Chrome
	ID         string
	Wide, High int // pixels
	Form       *form.Form
	Corners    []page.Corner
	Size       []form.Field
	Squares    form.Field
	CornerBad  string
}

// squares are how wide those of squared paper may be, mm.
var squares = []form.Choice{
	{Value: "", Label: "None: plain paper, or a printed pattern"}, {Value: "5 mm", Label: "5 mm"}, {Value: "10 mm", Label: "1 cm"},
	{Value: "4 mm", Label: "4 mm"}, {Value: "1/4 in", Label: "1/4 in"}, {Value: "1/2 in", Label: "1/2 in"}, {Value: "1 in", Label: "1 in"},
}

func (s *room) corners(c *echo.Context) error {
	return s.showCorners(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showCorners(c *echo.Context, status int, f *form.Form) error {
	p, err := s.Store.Of(c.Request().Context()).Photo(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	v := cornersPage{Chrome: s.Chrome(c, "The corners of your sketch"), ID: p.ID, Wide: p.Wide, High: p.High, Form: f}
	v.Corners = page.Corners(f)
	v.CornerBad = f.Group("corners", "Corners", "f-x0")
	w, h := 210*measure.Millimetre, 297*measure.Millimetre
	if f.Unit == measure.In {
		w, h = 17*measure.Inch/2, 11*measure.Inch
	}
	if p.Wide > p.High {
		w, h = h, w
	}
	v.Size = []form.Field{f.LengthField("wide", "How wide", "between the marks", w), f.LengthField("high", "How high", "", h)}
	v.Squares = f.ChoiceField("squares", "Its squares", "lines are put on them", "", squares...)
	return c.Render(status, "sketch-corners.html", v)
}

// laid is how a sketch lies in its photograph: what the corners' form tells.
type laid struct {
	corners    [4]photo.Corner
	wide, high measure.Length
	step       measure.Length // of its squares, 0 for none
}

// readLaid reads the form of the corners; faults stay at its fields.
func readLaid(f *form.Form) (l laid) {
	l.corners = page.ReadCorners(f)
	for name, into := range map[string]*measure.Length{"wide": &l.wide, "high": &l.high} {
		if f.Length(name, into); f.Faults[name] == "" && (*into < 20*measure.Millimetre || *into > 2000*measure.Millimetre) {
			f.Fail(fault.New(fault.ScaleRange, name, "How large is the paper between these marks? 20 to 2000 mm."))
		}
	}
	if said := f.Posted.Get("squares"); said != "" {
		step, err := measure.Parse(said, f.Unit)
		if err != nil || step < measure.Millimetre {
			f.Fail(fault.New(fault.Invalid, "squares", "%q is no size of squares", said))
		}
		l.step = step
	}
	return l
}

// straight gives the photograph as seen from straight above.
func (s *room) straight(c *echo.Context) error {
	p, err := s.Store.Of(c.Request().Context()).Photo(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	f := form.New(c.QueryParams(), page.UnitsOf(c))
	l := readLaid(f)
	if !f.OK() {
		return echo.ErrNotFound
	}
	made, err := photo.Straighten(p.JPEG, l.corners, l.wide.MM(), l.high.MM())
	if page.IsFault(err) {
		return echo.ErrNotFound
	} else if err != nil {
		return err
	}
	c.Response().Header().Set("Cache-Control", "private, max-age=3600")
	return c.Blob(http.StatusOK, "image/jpeg", made.JPEG)
}

// linesPage shows the lines that were found over the photograph.
type linesPage struct {
	page.Chrome
	ID         string
	Asked      template.URL // the corners, as they were asked for
	Wide, High float64      // mm
	Form       *form.Form
	Lines      form.Field
	Found      []lineView
	Known      []form.Field
	Said       []string
}

// lineView is a line as the page draws it.
type lineView struct {
	sketch.Line
	Number int
}

// Name tells a line to somebody who does not see it.
func (l lineView) Name() string {
	kind := "cut"
	if l.Fold {
		kind = "fold"
	}
	text := fmt.Sprintf("Line %d, a %s, %.0f mm long", l.Number, kind, l.Length())
	if l.Doubt != "" {
		text += ": look at it, " + l.Doubt
	}
	return text
}

func (l lineView) MiddleX() float64 { return (l.X1 + l.X2) / 2 }
func (l lineView) MiddleY() float64 { return (l.Y1 + l.Y2) / 2 }

// looking lets one sketch be looked at at a time.
var looking = make(chan struct{}, 1)

// lines finds the lines of a sketch.
func (s *room) lines(c *echo.Context) error {
	f := form.New(c.QueryParams(), page.UnitsOf(c))
	l := readLaid(f)
	ctx := c.Request().Context()
	p, err := s.Store.Of(ctx).Photo(ctx, c.Param("id"))
	if err != nil {
		return err
	}
	if !f.OK() {
		return s.showCorners(c, http.StatusUnprocessableEntity, f)
	}
	looking <- struct{}{} // one at a time, which bounds the memory
	defer func() { <-looking }()
	img, perMM, err := photo.Above(p.JPEG, l.corners, l.wide.MM(), l.high.MM())
	if page.IsFault(err) {
		f.Fail(err)
		return s.showCorners(c, http.StatusUnprocessableEntity, f)
	} else if err != nil {
		return err
	}
	sheet := sketch.Look(img, perMM)
	var left, top, step float64
	var said []string
	if l.step > 0 {
		var there bool
		if left, top, there = sheet.Squares(l.step.MM()); there {
			step = l.step.MM()
		} else {
			said = append(said, "The squares are too faint to be seen; lines are where they were drawn.")
		}
	}
	all := sketch.Snapped(sheet.Lines(), left, top, step)
	if len(all) == 0 {
		said = append(said, "No line was found. A darker pencil, or more light, helps; lines can be drawn here too.")
	}
	return s.showLines(c, http.StatusOK, form.New(url.Values{}, page.UnitsOf(c)), l, sketch.Write(all), said)
}

func (s *room) showLines(c *echo.Context, status int, f *form.Form, l laid, text string, said []string) error {
	v := linesPage{Chrome: s.Chrome(c, "The lines of your sketch"), ID: c.Param("id"), Wide: l.wide.MM(), High: l.high.MM(), Form: f, Said: said}
	asked := url.Values{}
	for name, values := range c.QueryParams() {
		if len(values) > 0 {
			asked.Set(name, values[0])
		}
	}
	v.Asked = template.URL(asked.Encode())
	v.Lines = f.Control("lines", "The lines in numbers", "a line each: fold or cut, and where it begins and ends, in mm from the left and the top", text)
	v.Lines.Kind = "lines"
	if all, err := sketch.Read(v.Lines.Value); err == nil {
		for i, x := range all {
			v.Found = append(v.Found, lineView{x, i + 1})
		}
	}
	v.Known = []form.Field{f.Control("line", "Line number", "of one that you measured", ""), f.EmptyLength("long", "is really", "all others follow")}
	return c.Render(status, "sketch-lines.html", v)
}

// takeLines makes a recipe of the lines.
func (s *room) takeLines(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	all, err := sketch.Read(plain(posted.Get("lines")))
	if err != nil {
		f.Fail(fault.At("lines", err))
	}
	if said := strings.TrimSpace(posted.Get("line")); said != "" {
		n, wrong := strconv.Atoi(said)
		long := measure.Length(0)
		if f.Length("long", &long); wrong != nil || n < 1 || n > len(all) {
			f.Fail(fault.New(fault.Invalid, "line", "There is no line %q; their numbers stand beside them, 1 to %d.", said, len(all)))
		} else if f.Faults["long"] == "" && long <= 0 {
			f.Fail(fault.New(fault.Empty, "long", "How long is line %d really?", n))
		}
		all = sketch.Scaled(all, n-1, long.MM())
	}
	blanks := sketch.Blanks(all)
	if f.OK() && len(blanks) == 0 {
		f.Fail(fault.New(fault.Invalid, "lines", "These lines make no piece yet: draw round it, edge to edge."))
	}
	if !f.OK() {
		where := form.New(c.QueryParams(), page.UnitsOf(c))
		return s.showLines(c, http.StatusUnprocessableEntity, f, readLaid(where), posted.Get("lines"), nil)
	}
	return page.Back(c, "/read?%s", url.Values{"text": {sketch.Recipe(blanks, unitOf(c))}}.Encode())
}

// unitOf is the unit of a sketch: that of its squares, else the maker's.
func unitOf(c *echo.Context) measure.Unit {
	unit, step := page.UnitsOf(c), c.QueryParam("squares")
	switch {
	case strings.HasSuffix(step, "mm") && unit == measure.In:
		return measure.MM
	case strings.HasSuffix(step, "in"):
		return measure.In
	}
	return unit
}
