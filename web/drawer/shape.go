package drawer

import (
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/photo"
	"brevium/web/form"
	"brevium/web/page"
)

// shapePage draws an offcut of any shape, on squares or over its photograph.
type shapePage struct {
	page.Chrome
	Form       *form.Form
	Shape      form.Field
	Card       []form.Field
	Wide, High float64 // of the squared paper, mm
	Square     float64 // of its squares, mm
	Step       float64 // to which a corner goes, mm
	In         float64 // mm in the page's unit
	View       string
	Over       string // the photograph that lies under it
	Found      bool   // its outline was found there
}

// Squared paper that is drawn on, in mm, as large as most sheets.
const (
	squaredWide = 320.0
	squaredHigh = 320.0
)

// longestShape is how long a list of corners may be, in bytes.
const longestShape = 8000

// shape shows the drawing.
func (s *room) shape(c *echo.Context) error {
	return s.showShape(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showShape(c *echo.Context, status int, f *form.Form) error {
	v := shapePage{Chrome: s.Chrome(c, "An offcut of any shape"), Form: f, Wide: squaredWide, High: squaredHigh, Square: 10, Step: 1, In: 1}
	switch v.Units {
	case measure.In:
		v.Square, v.Step, v.In = 25.4/2, 25.4/16, 25.4
	case measure.CM:
		v.In = 10
	}
	if over := f.Posted.Get("over"); over != "" {
		if _, err := s.Store.Of(c.Request().Context()).Photo(c.Request().Context(), over); err != nil {
			return err
		}
		v.Over = over
		v.To = overAt(over, f.Posted.Get("wide"), f.Posted.Get("high"), f.Posted.Get("found"))
		for name, into := range map[string]*float64{"wide": &v.Wide, "high": &v.High} {
			if mm, err := strconv.Atoi(f.Posted.Get(name)); err == nil && mm > 0 && measure.Length(mm)*measure.Micrometre <= paper.MostPhoto {
				*into = (measure.Length(mm) * measure.Micrometre).MM()
			}
		}
	}
	v.View = fmt.Sprintf("-4 -4 %g %g", v.Wide+8, v.High+8)
	// What was found in a photograph comes in tenths of a millimetre, whatever the page's unit.
	if found := f.Posted.Get("found"); found != "" {
		f.Posted.Set("shape", cornersText(foundCorners(found), v.Units))
		v.Found = true
	}
	v.Shape = f.Control("shape", "Its corners, once round", "across, down; and so on: 0, 0; 6, 0; 6, 3 1/2", f.Posted.Get("shape"))
	v.Card = []form.Field{
		f.Control("card", "Card", "the name your boxes call it by", ""),
		f.Control("gsm", "Weight", "gsm, or 80 lb cover", "240"),
		form.DirectionField(f, "direction", paper.NoDirection),
		f.Control("count", "How many alike", "", "1"),
	}
	return c.Render(status, "shape.html", v)
}

// cornersText writes corners as a hand does, in a unit.
func cornersText(points []pattern.Point, unit measure.Unit) string {
	tick := measure.Tick(measure.Millimetre / 2)
	if unit == measure.In {
		tick = measure.Tick(measure.Inch / 32)
	}
	var out []string
	for _, p := range points {
		x, y := measure.FromMM(p.X), measure.FromMM(p.Y)
		out = append(out, measure.Number(measure.Nearest(x, tick), unit, tick)+", "+measure.Number(measure.Nearest(y, tick), unit, tick))
	}
	return strings.Join(out, "; ")
}

// readCorners reads what a hand or the drawing wrote.
func readCorners(text string, unit measure.Unit) ([]pattern.Point, error) {
	if len(text) > longestShape {
		return nil, fault.New(fault.TooLong, "shape", "That is longer than any outline; draw it coarser.")
	}
	var out []pattern.Point
	for _, corner := range strings.FieldsFunc(text, func(r rune) bool { return r == ';' || r == '\n' }) {
		if strings.TrimSpace(corner) == "" {
			continue
		}
		across, down, both := strings.Cut(corner, ",")
		x, err := measure.Parse(across, unit)
		y, err2 := measure.Parse(down, unit)
		if !both || err != nil || err2 != nil {
			return nil, fault.New(fault.UnknownShape, "shape", "Write each corner as across, down, with a ; before the next; %q is none.", strings.TrimSpace(corner))
		}
		out = append(out, pattern.Pt(x.MM(), y.MM()))
	}
	return out, nil
}

// putShape puts a drawn offcut into the drawer.
func (s *room) putShape(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	l := drawer.Lot{Count: 1}
	f.Text("card", &l.Card.Name)
	f.Weight("gsm", &l.Card.GSM)
	f.Whole("count", &l.Count)
	l.Card.Direction = paper.Direction(posted.Get("direction"))
	points, err := readCorners(posted.Get("shape"), f.Unit)
	if err == nil {
		err = l.Draw(points)
	}
	if err != nil {
		f.Fail(err)
	}
	if f.OK() {
		l.Complete()
		if l.Count == 0 {
			f.Fail(fault.New(fault.CountRange, "count", "put in one or more"))
		} else if err := s.Store.Of(c.Request().Context()).AddLots(c.Request().Context(), []drawer.Lot{l}); page.IsFault(err) {
			f.Fail(err)
		} else if err != nil {
			return err
		}
	}
	if !f.OK() {
		return s.showShape(c, http.StatusUnprocessableEntity, f)
	}
	return page.Back(c, "/drawer?%s", url.Values{"put": {"1"}}.Encode())
}

// shapePhoto asks where squared paper lies in a photograph of an offcut.
type shapePhoto struct {
	page.Chrome
	ID         string
	Wide, High int // of the picture, pixels
	Corners    []page.Corner
	Form       *form.Form
	Size       []form.Field
	CornerBad  string
}

func (s *room) shapePhoto(c *echo.Context) error {
	return s.showShapePhoto(c, http.StatusOK, form.New(url.Values{}, page.UnitsOf(c)))
}

func (s *room) showShapePhoto(c *echo.Context, status int, f *form.Form) error {
	p, err := s.Store.Of(c.Request().Context()).Photo(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	v := shapePhoto{Chrome: s.Chrome(c, "Squares round your offcut"), ID: p.ID, Wide: p.Wide, High: p.High, Form: f, Corners: page.Corners(f), CornerBad: f.Group("corners", "Corners", "f-x0")}
	v.Size = []form.Field{f.EmptyLength("wide", "How wide", "between the marks"), f.EmptyLength("high", "How high", "")}
	return c.Render(status, "shape-photo.html", v)
}

// straightenShape sees the photograph from straight above and looks for the offcut's outline in it.
func (s *room) straightenShape(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	ctx := c.Request().Context()
	p, err := s.Store.Of(ctx).Photo(ctx, c.Param("id"))
	if err != nil {
		return err
	}
	corners := page.ReadCorners(f)
	var size [2]measure.Length
	for i, name := range []string{"wide", "high"} {
		if f.Length(name, &size[i]); f.Faults[name] == "" && (size[i] < paper.LeastPhoto || size[i] > paper.MostPhoto) {
			f.Fail(fault.New(fault.ScaleRange, name, "Count the squares between these marks: 5 to 1000 mm."))
		}
	}
	if !f.OK() {
		return s.showShapePhoto(c, http.StatusUnprocessableEntity, f)
	}
	wide, high := size[0].MM(), size[1].MM()
	made, err := photo.Straighten(p.JPEG, corners, wide, high)
	var found [][2]float64
	if err == nil {
		found, err = photo.Outline(p.JPEG, corners, wide, high)
	}
	if err == nil {
		err = s.Store.Of(ctx).PutPhoto(ctx, made, true)
	}
	if page.IsFault(err) {
		f.Fail(err)
		return s.showShapePhoto(c, http.StatusUnprocessableEntity, f)
	}
	if err != nil {
		return err
	}
	var text []string
	for _, q := range found {
		text = append(text, fmt.Sprintf("%.0f-%.0f", 10*q[0], 10*q[1]))
	}
	um := func(l measure.Length) string { return fmt.Sprint(int64(l / measure.Micrometre)) }
	return page.Back(c, "%s", overAt(made.ID, um(size[0]), um(size[1]), strings.Join(text, "-")))
}

// overAt is the address of the drawing over a photograph: so wide and high, in µm, with corners that were
// found, in tenths of a millimetre, across and down in turn.
func overAt(over, wide, high, found string) string {
	at := "/drawer/shape?over=" + url.QueryEscape(over) + "&wide=" + url.QueryEscape(wide) + "&high=" + url.QueryEscape(high)
	if found != "" {
		at += "&found=" + url.QueryEscape(found)
	}
	return at
}

// foundCorners reads such corners; what is none is left out.
func foundCorners(text string) []pattern.Point {
	var out []pattern.Point
	numbers := strings.Split(text, "-")
	for i := 0; i+1 < len(numbers); i += 2 {
		x, err := strconv.Atoi(numbers[i])
		y, err2 := strconv.Atoi(numbers[i+1])
		if err == nil && err2 == nil && max(x, y) <= 100_000 {
			out = append(out, pattern.Pt(float64(x)/10, float64(y)/10))
		}
	}
	return out
}
