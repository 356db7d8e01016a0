// Package guide tells a newcomer what this is: the keys, the words of the
// craft in drawings, and a walk through one box.
package guide

import (
	"embed"
	"fmt"
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/draw"
	"brevium/web/form"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct{ *page.Room }

// Routes adds the room's addresses.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{shared}
	e.GET("/help", s.help)
	e.GET("/walk", s.walk)
}

type helpPage struct {
	page.Chrome
	Words []wordView
}

type wordView struct {
	Word, Means string
	Drawing     template.HTML
}

// help is the keys and the words.
func (s *room) help(c *echo.Context) error {
	p := helpPage{Chrome: s.Chrome(c, "Help")}
	for _, w := range draw.Words() {
		p.Words = append(p.Words, wordView{w.Word, w.Means, page.SVG(w.Drawing)})
	}
	return c.Render(http.StatusOK, "help.html", p)
}

type walkPage struct {
	page.Chrome
	Sights []sight
}

// sight is one picture of the walk and what it shows.
type sight struct {
	Title, Text string
	Picture     template.HTML
}

// walk shows one box from the things to the lid, every picture worked out like
// those of a maker's own boxes.
func (s *room) walk(c *echo.Context) error {
	p := walkPage{Chrome: s.Chrome(c, "A box from start to finish")}
	in := design.New("Four jars", p.Units, style.Usual().ID)
	jar := form.NewThing(contents.Round)
	jar.Count = 4
	in.Things = []contents.Thing{jar}
	r, err := s.Made(c.Request().Context(), in)
	if err != nil {
		return err
	}
	p.Sights = sights(r)
	return c.Render(http.StatusOK, "walk.html", p)
}

func sights(r *design.Result) []sight {
	in := &r.Inputs
	size := func(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
	net := func(i int) template.HTML {
		return page.SVG(draw.Net{Part: r.Parts[i].Part, From: draw.FromOf(r.Parts[i]), Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick}.Picture())
	}
	model := draw.ModelOf(r, false)
	folding := func(at float64) template.HTML {
		p, err := model.Picture(fmt.Sprintf("Folding, at stage %.0f", at), at)
		if err != nil {
			return ""
		}
		return page.SVG(p)
	}
	last := model.Open()
	first := r.Stocks[0]
	sheet := draw.Sheet{
		Laid: first.Layout.Sheets[0], Card: first.Card, Units: in.Units, Tick: in.Tools.Tick,
		Label: func(n int) draw.PieceLabel { return draw.PieceLabel{Name: r.PieceName(first.Job.Pieces[n].Name)} },
	}
	base := r.Parts[0].Pattern
	return []sight{
		{"Measure what goes in", "Four jars. You type how wide and how high one is; the box needs a little room to spare.",
			page.SVG(draw.Contents(*r.Stand, in.Things, in.Units, in.Tools.Tick))},
		{"See the box it needs", "The kind of box is your choice. Its size follows from the jars.", page.BoxPicture(r, "")},
		{"Every line has a number", fmt.Sprintf("The base is cut %s by %s, and scored at the numbers along its edges.", size(base.Width), size(base.Height)), net(0)},
		{"The lid is a little larger", "How much larger is worked out from the card, so that it goes on and stays on.", net(len(r.Parts) - 1)},
		{"Both come out of your sheets", "The cuts are numbered in the order you make them.", page.SVG(sheet.Picture())},
		{"Fold and glue", "Each step is one movement of the hand, and you tick it off.", folding(last / 2)},
		{"Put the jars in", "Print the steps and true-size drawings, or keep the page open beside the board.", folding(last)},
	}
}
