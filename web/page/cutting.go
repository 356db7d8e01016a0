package page

import (
	"cmp"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/fault"
	"brevium/core/measure"
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
	Blade                 string // how the maker's blade trails
}

// ForMachine are the options of a file that a page asks for: how the blade of the maker's machine trails
// where it is asked for, and with "mine" scores as that machine makes them.
func (s *Room) ForMachine(c *echo.Context) (export.Layers, export.Knife, error) {
	tools, err := s.Tools(c.Request().Context(), UnitsOf(c))
	if err != nil {
		return export.Layers{}, export.Knife{}, err
	}
	m, layers, knife := tools.Owned.Machine.Usually(), export.Layers{}, export.Knife{}
	if c.QueryParam("mine") != "" {
		layers = layersOf(m)
	}
	if c.QueryParam("blade") != "" {
		knife = export.Knife{Behind: m.Blade.MM(), Overcut: m.Overcut.MM()}
	}
	return layers, knife, nil
}

// layersOf are scores as a machine makes them.
func layersOf(m tool.Machine) export.Layers {
	return export.Layers{Board: m.Scores == tool.OnBoard, Perforate: m.Scores == tool.Perforated}
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
	own, mats := tools.Owned.Machine, tool.Mats
	if !own.None() {
		mats = own.Mats
	}
	p.Blade = measure.Number(own.Usually().Blade, measure.MM, measure.Hundredth) + " mm"
	m, err := tool.ParseMat(c.QueryParam("mat"))
	if err != nil {
		m = matFor(d, mats)
	}
	if !slices.Contains(mats, m) {
		mats = append(slices.Clone(mats), m)
	}
	laid := ""
	if q := c.QueryParam("laid"); q != "" {
		laid = "&laid=" + url.QueryEscape(q)
	}
	to := func(mat string, sheet int) string {
		return fmt.Sprintf("%s?mat=%s&sheet=%d%s", p.At, mat, sheet, laid)
	}
	for _, one := range mats {
		p.Mats = append(p.Mats, Choice{one.Called(), to(one.Name, at), one.Name == m.Name})
	}
	for i := range sheets {
		p.Sheets = append(p.Sheets, Choice{fmt.Sprint(i + 1), to(m.Name, i+1), i+1 == at})
	}
	p.Sheet = Cut{Name: d.Name, Width: d.Width, Height: d.Height, MatName: m.Called(), Colour: string(d.Card.Seen().Outside)}
	file, err := plotter.ReadSVG(d.SVG(layersOf(own)))
	if err != nil {
		return err
	}
	end, err := s.Shares.Take(c.Request().Context())
	if err != nil {
		return err
	}
	defer end()
	if own.Scores == tool.OnBoard {
		wanted = withoutCreases(wanted)
	}
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
	if l := d.Laid; l.ByShape {
		p.Round = len(l.Loads) == 0
		p.Rough = l.Words(d.Called, func(x measure.Length) string { return measure.Label(x, p.Units, p.Units.Tick()) })
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

// withoutCreases are pieces that are scored by other means.
func withoutCreases(all []strokes.Piece) []strokes.Piece {
	out := slices.Clone(all)
	for i := range out {
		out[i].Creases = nil
	}
	return out
}

// matFor is the smallest of some mats that takes a sheet; the first when none does.
func matFor(d export.Drawing, mats []tool.Mat) tool.Mat {
	best := mats[0]
	for _, m := range mats {
		fits := d.Width <= m.Width+0.01 && d.Height <= m.Height+0.01
		if fits && (best.Width < d.Width || best.Height < d.Height || m.Width*m.Height < best.Width*best.Height) {
			best = m
		}
	}
	return best
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
