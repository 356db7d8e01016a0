package page

import (
	"cmp"
	"context"
	"fmt"
	"html/template"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/nest"
	"brevium/core/pattern"
	"brevium/core/strokes"
	"brevium/core/tool"
	"brevium/draw/export"
	"brevium/plotter"
)

// CuttingPage plays how a simulated machine cuts a sheet, and says what came off.
type CuttingPage struct {
	Chrome
	Name, At, Back string
	Laid           []Choice // by the trimmer or by shape
	Shapes         string   // where it is asked what laying by shape saves
	Waiting        bool     // as long as they are not laid by shape
	Mats           []Choice
	Sheets         []Choice
	Refused        string
	Says           string
	Sheet          Cut
	// Rough are straight cuts by hand before scissors go round each piece, where it is laid by shape;
	// nil otherwise.
	Rough []string
	Round bool // scissors are what it is laid for
	// Files are those a machine takes, by name; empty for a job. Printed is where what is printed on
	// Paper and then cut is asked for; empty where there is nothing.
	Files, Printed, Paper string
}

// forShapes is how long a box's pieces are laid by shape, in seconds.
const forShapes = 1.5

// Shapes is how a box or a job is laid by the true shapes of its pieces: worked out once for the same
// inputs.
type Shapes struct {
	room *Room
	key  []byte
	lay  func(context.Context) (export.Shaped, error)
}

// ByShape is how a made box is laid.
func (s *Room) ByShape(r *design.Result) Shapes {
	key := r.Inputs.Key()
	return Shapes{s, key[:], func(ctx context.Context) (export.Shaped, error) { return export.ByShape(ctx, r, forShapes) }}
}

// JobByShape is how a job is laid, as long as its sheets and pieces are the same.
func (s *Room) JobByShape(stocks []batch.Stock, made []*design.Result) Shapes {
	var key []byte
	for _, r := range made {
		of := r.Inputs.Key()
		key = append(key, of[:]...)
	}
	for _, one := range stocks {
		key = append(append(key, one.Card.Key()...), one.Job.JSON()...)
	}
	return Shapes{s, key, func(ctx context.Context) (export.Shaped, error) {
		return export.JobByShape(ctx, stocks, made, forShapes)
	}}
}

// byShape is the word for what is kept.
const byShape = "by shape"

// Known reports whether it is there without being worked out.
func (x Shapes) Known() bool { return x.room.shaped.Known(byShape, x.key) }

// Laid gives it, worked out when it is not there.
func (x Shapes) Laid(ctx context.Context) (export.Shaped, error) {
	return x.room.shaped.OfKey(byShape, x.key, func() (export.Shaped, error) {
		end, err := x.room.Shares.Take(ctx)
		if err != nil {
			return export.Shaped{}, err
		}
		defer end()
		by, err := x.lay(ctx)
		if err == nil {
			err = ctx.Err() // one that was broken off may not be the best
		}
		return by, err
	})
}

// On shows a page's sheets as they are laid: by shape where the query asks for it. No page waits for
// that: as long as it is not there the trimmer's sheets are shown, and the page comes again with the
// others.
func (x Shapes) On(c *echo.Context, p *CuttingPage, trimmer []export.Drawing) ([]export.Drawing, error) {
	wanted := c.QueryParam("laid") == "shape"
	p.Laid = []Choice{{"for the trimmer", p.At, !wanted}, {"by shape", p.At + "?laid=shape", wanted}}
	p.Shapes = strings.TrimSuffix(p.At, "/cutting") + "/shapes?here=1"
	if !wanted {
		return trimmer, nil
	}
	p.Files += "&laid=shape"
	if !x.Known() {
		p.Shapes += "&waiting=1"
		p.Waiting = true
		return trimmer, nil
	}
	by, err := x.Laid(c.Request().Context())
	return by.Drawings, err
}

// Saves answers what laying by shape saves; a page that waits for it comes again.
func (x Shapes) Saves(c *echo.Context, at string) error {
	by, err := x.Laid(c.Request().Context())
	if err != nil {
		return err
	}
	if c.QueryParam("waiting") != "" {
		c.Response().Header().Set("HX-Refresh", "true")
	}
	return c.Render(http.StatusOK, "shapes", ShapesView{At: at, Shaped: by, Sheets: len(by.Drawings), Here: c.QueryParam("here") != ""})
}

// ShapesView is what laying by shape saves, of the box or job at an address.
type ShapesView struct {
	At string
	export.Shaped
	Sheets int
	Here   bool // it is asked by the page that shows them
}

// Knife is how a blade trails that a file is asked for.
func Knife(c *echo.Context) export.Knife {
	if c.QueryParam("blade") == "" {
		return export.Knife{}
	}
	return export.Usual
}

// Choice is one of several, and whether it is the one.
type Choice struct {
	Name, At string
	Here     bool
}

// Cut is a sheet on its mat, stroke by stroke.
type Cut struct {
	Name                string
	Width, Height       float64 // of the sheet, in mm
	MatWidth, MatHeight float64
	// The mat has a rim of 4 mm, and a word over its middle.
	RimWidth, RimHeight, Middle float64
	Colour, View, MatName       string
	Strokes                     []CutStroke
	Off                         []CutPiece
	Held                        []string
	Seconds                     float64
	Grid                        template.HTMLAttr
	Key                         []string
}

// CutStroke is one line that a tool follows; Of is what it is, for people.
type CutStroke struct {
	N        int
	D        template.HTMLAttr
	Tool, Of string
	X, Y     float64
	From, To float64
	Short    bool // too short for its number to stand by it
}

// CutPiece is what came off, and with which stroke.
type CutPiece struct {
	Name string
	D    template.HTMLAttr
	With int
	True bool
}

// Cutting shows one of several sheets on the mat that the query names; wanted are the pieces that should
// come off, names what people call them.
func (s *Room) Cutting(c *echo.Context, p *CuttingPage, sheets []export.Drawing, wanted []strokes.Piece, names map[string]string) error {
	if len(sheets) == 0 {
		return fault.New(fault.NoSheets, "sheet", "nothing is laid on a sheet here yet")
	}
	p.To = c.Request().URL.RequestURI() // the same sheet in another unit
	at := 0
	if _, err := fmt.Sscanf(c.QueryParam("sheet"), "%d", &at); err != nil || at < 1 || at > len(sheets) {
		at = 1
	}
	d := sheets[at-1]
	tools, err := s.Tools(c.Request().Context(), p.Units)
	if err != nil {
		return err
	}
	own := tools.Owned.Machine
	mat := cmp.Or(c.QueryParam("mat"), own.Mat, matFor(d))
	m, err := tool.ParseMat(mat)
	if err != nil {
		m, _ = tool.ParseMat(matFor(d))
	}
	laid := ""
	if len(p.Laid) > 0 && p.Laid[len(p.Laid)-1].Here {
		laid = "&laid=shape"
	}
	to := func(mat string, sheet int) string {
		return fmt.Sprintf("%s?mat=%s&sheet=%d%s", p.At, mat, sheet, laid)
	}
	for _, one := range tool.Mats {
		p.Mats = append(p.Mats, Choice{one.Called(), to(one.Name, at), one.Name == m.Name})
	}
	for i := range sheets {
		p.Sheets = append(p.Sheets, Choice{fmt.Sprint(i + 1), to(m.Name, i+1), i+1 == at})
	}
	p.Sheet = Cut{Name: d.Name, Width: d.Width, Height: d.Height, MatName: m.Called(), Colour: string(d.Card.Seen().Outside)}
	file, err := plotter.ReadSVG(d.SVG(export.Layers{}))
	if err != nil {
		return err
	}
	end, err := s.Shares.Take(c.Request().Context())
	if err != nil {
		return err
	}
	defer end()
	report, err := plotter.Cut(file, plotter.With(own, m, d.Card.Thickness.MM()), wanted)
	if err != nil {
		f := fault.Of(err)
		if f.Code == fault.Internal {
			return err
		}
		p.Refused = f.Text
	} else {
		p.Says = report.Says()
		p.Sheet.fill(report, names)
	}
	if p.Round = laid != ""; p.Round {
		var outlines [][]pattern.Point
		for _, l := range d.Cuts {
			outlines = append(outlines, l.Flat())
		}
		for _, cut := range nest.Rough(d.Width, d.Height, outlines) {
			p.Rough = append(p.Rough, fmt.Sprintf("%s, %s from its %s edge", cut.Part, measure.Label(measure.FromMM(cut.At), p.Units, p.Units.Tick()), cut.Edge()))
		}
	}
	p.Sheet.MatWidth, p.Sheet.MatHeight = m.Width, m.Height
	p.Sheet.RimWidth, p.Sheet.RimHeight, p.Sheet.Middle = m.Width+8, m.Height+8, m.Width/2
	w, h := max(m.Width, d.Width), max(m.Height, d.Height)
	p.Sheet.View = fmt.Sprintf("-8 -17 %g %g", w+16, h+25)
	var grid strings.Builder
	for x := 25.4; x < m.Width; x += 25.4 {
		fmt.Fprintf(&grid, "M%g 0V%g", x, m.Height)
	}
	for y := 25.4; y < m.Height; y += 25.4 {
		fmt.Fprintf(&grid, "M0 %gH%g", y, m.Width)
	}
	p.Sheet.Grid = template.HTMLAttr(`d="` + grid.String() + `"`)
	return c.Render(http.StatusOK, "cutting.html", p)
}

// matFor is the smallest mat that takes a sheet; the first when none does.
func matFor(d export.Drawing) string {
	best := tool.Mats[0]
	for _, m := range tool.Mats {
		fits := d.Width <= m.Width+0.01 && d.Height <= m.Height+0.01
		if fits && (best.Width < d.Width || best.Height < d.Height || m.Width*m.Height < best.Width*best.Height) {
			best = m
		}
	}
	return best.Name
}

// strokeWords are what strokes are to people.
var strokeWords = map[strokes.Kind]string{
	strokes.Scored: "a score", strokes.Perforated: "a perforation", strokes.Kissed: "a cut in the face", strokes.Inner: "a cut inside", strokes.Outer: "an outline",
}

func (x *Cut) fill(r *plotter.Report, names map[string]string) {
	x.Seconds = r.Seconds
	tips := make([][]pattern.Point, len(r.Strokes))
	for i, s := range r.Strokes {
		for _, p := range s.Points {
			tips[i] = append(tips[i], pattern.Pt(p[0], p[1]))
		}
		tool := s.Tool
		if s.Kind == strokes.Inner || s.Kind == strokes.Outer {
			tool = string(s.Kind)
		}
		x.Strokes = append(x.Strokes, CutStroke{s.N, pathOf(tips[i], false), tool, strokeWords[s.Kind], s.Points[0][0], s.Points[0][1], s.From, s.To, strokes.Line{Path: pattern.Straight(tips[i]...)}.Length() < 12})
	}
	for _, f := range r.Free {
		x.Off = append(x.Off, CutPiece{cmp.Or(names[f.Piece], f.Piece), pathOf(f.Outline, true), r.FreedBy(f, tips), f.True()})
	}
	for _, h := range r.Held {
		x.Held = append(x.Held, cmp.Or(names[h.Piece], h.Piece))
	}
}

func pathOf(points []pattern.Point, closed bool) template.HTMLAttr {
	var b strings.Builder
	b.WriteString(`d="`)
	for i, p := range points {
		b.WriteString(map[bool]string{true: "M", false: "L"}[i == 0])
		fmt.Fprintf(&b, "%.2f %.2f", p.X, p.Y)
	}
	if closed {
		b.WriteString("Z")
	}
	b.WriteString(`"`)
	return template.HTMLAttr(b.String())
}
