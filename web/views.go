package web

import (
	"embed"
	"fmt"
	"html/template"
	"regexp"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/draw"
	"brevium/store"
)

//go:embed templates/*.html
var templateFiles embed.FS

func parseTemplates() (*echo.TemplateRenderer, error) {
	t, err := template.New("").Funcs(template.FuncMap{
		"inc":    func(i int) int { return i + 1 },
		"legend": legend,
		"lower":  strings.ToLower,
		"num":    num,
	}).ParseFS(templateFiles, "templates/*.html")
	return &echo.TemplateRenderer{Template: t}, err
}

// svg marks a drawing as markup: draw escapes every text in it.
func svg(p *draw.Picture) template.HTML { return template.HTML(p.Inline()) }

var fraction = regexp.MustCompile(`(\d+ )?\b(\d+/\d+)`)

// num marks the fractions in a text, so that 3/8 is set as one.
func num(text string) template.HTML {
	return template.HTML(fraction.ReplaceAllString(template.HTMLEscapeString(text), `<span class="nowrap">$1<span class="frac">$2</span></span>`))
}

type legendEntry struct {
	Text   string
	Sample template.HTML
}

func legend() []legendEntry {
	var out []legendEntry
	for _, e := range draw.Legend() {
		out = append(out, legendEntry{e.Text, svg(e.Sample)})
	}
	return out
}

// chrome is what stands round every page.
type chrome struct {
	Title   string
	Units   measure.Unit
	UnitsAt string // where the unit switch posts to
	To      string // the page to come back to from there
	Stop    string
}

// AllUnits lists the units of the switch.
func (chrome) AllUnits() []measure.Unit { return measure.Units }

func (s *server) chrome(c *echo.Context, title string) chrome {
	x := chrome{Title: title, Units: unitsOf(c), UnitsAt: "/units"}
	switch path := c.Path(); {
	case path == "/new":
		x.Stop = "new"
	case strings.HasPrefix(path, "/drawer"):
		x.To = "/drawer"
	case strings.HasPrefix(path, "/jobs/:id"):
		x.To = "/jobs/" + c.Param("id")
	case strings.HasPrefix(path, "/jobs"):
		x.To = "/jobs"
	}
	return x
}

type problemPage struct {
	chrome
	Text string
}

type listPage struct {
	chrome
	Boxes   []entry
	Deleted int64
}

// entry is one box in the list.
type entry struct {
	store.Box
	Style, Size, Problem string
	Picture              template.HTML
	Verdict              inspect.Verdict
}

type newPage struct {
	chrome
	BySize bool
	Form   *form
	Name   field
	Thing  thingFields
	Size   []field
	Basis  field
}

func (p *newPage) fill(f *form) {
	p.Form = f
	p.Name = f.control("name", "Name of the box", "So that you find it again", "")
	p.Thing = fieldsOf(f, 0, newThing(contents.Round))
	if !f.posted.Has(thingName(0, "count")) {
		p.Thing.Count.Value = "4"
	}
	sizes := map[string]measure.Length{"length": 4 * measure.Inch, "width": 3 * measure.Inch, "height": 3 * measure.Inch / 2}
	if f.unit != measure.In {
		sizes = map[string]measure.Length{"length": 100 * measure.Millimetre, "width": 75 * measure.Millimetre, "height": 40 * measure.Millimetre}
	}
	for _, x := range [][3]string{{"length", "Length", "left to right"}, {"width", "Width", "front to back"}, {"height", "Height", "floor to rim"}} {
		p.Size = append(p.Size, f.lengthField("size."+x[0], x[1], x[2], sizes[x[0]]))
	}
	p.Basis = basisField(f, design.Scored)
}

func basisField(f *form, stored design.Basis) field {
	return f.choiceField("size.basis", "These sizes are", "", string(stored),
		choice{Value: "scored", Label: "score to score"}, choice{Value: "inside", Label: "the clear inside"}, choice{Value: "outside", Label: "the finished outside"})
}

// sizeLine is a box's clear inside in half a line, in the unit of the list.
func sizeLine(r *design.Result, unit measure.Unit) string {
	n := func(l measure.Length) string { return measure.Number(measure.Down(l, unit.Tick()), unit, unit.Tick()) }
	x := r.Inside
	return fmt.Sprintf("%s × %s × %s %s inside", n(x.Length), n(x.Width), n(x.Height), unit)
}

// boxPicture draws the finished box; one that cannot be folded shows nothing.
func boxPicture(r *design.Result) template.HTML {
	m := modelOf(r)
	p, err := m.Picture(r.Style.Name+", folded", float64(len(m.Stages)))
	if err != nil {
		return ""
	}
	return svg(p)
}

// modelOf readies a box for drawing in space.
func modelOf(r *design.Result) *draw.Model {
	parts, folded := r.Pieces()
	return draw.NewModel(parts, folded, r.Mats, r.Shown())
}

func worstOf(r *design.Result) inspect.Verdict { return inspect.Worst(r.Checks) }
