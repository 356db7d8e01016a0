package workspace

import (
	"bytes"
	"fmt"
	"html/template"
	"regexp"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/web/page"
)

// sentPage is a box as one file that can be sent: pictures and steps, without a script and without
// anything that lies elsewhere.
type sentPage struct {
	Name, Style, Inside, Outside string
	Picture                      template.HTML
	Key                          string
	Pieces                       []sentPiece
	Supplies, Cautions           []string
	Steps                        []sentStep
	Pictured                     bool
}

type sentPiece struct{ Name, Size, Scores string }

type sentStep struct {
	N           int
	Group, Text string
	Picture     template.HTML
}

// mostSent is how large the file may be, in bytes; above it the steps go without pictures.
const mostSent = 390_000

// photographs are those of papers, which lie here and go not along.
var photographs = regexp.MustCompile(`<image href="/papers/[^>]*/>`)

// sent gives the box as one page to save or to send.
func (s *room) sent(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	one := b.Inputs.Clone()
	one.Copies = 1 // whoever gets it makes one
	r, err := s.Made(c.Request().Context(), one)
	if err != nil {
		return err
	}
	var out bytes.Buffer
	for _, pictured := range []bool{true, false} {
		out.Reset()
		if err := c.Echo().Renderer.Render(c, &out, "sent.html", s.sentOf(r, b.Name, pictured)); err != nil {
			return err
		}
		if out.Len() <= mostSent {
			break
		}
	}
	text := photographs.ReplaceAll(out.Bytes(), nil) // the paper is seen in its colour
	return page.Attach(c, page.FileName(b.Name)+".html", "text/html; charset=utf-8", text)
}

func (s *room) sentOf(r *design.Result, name string, pictured bool) sentPage {
	in := &r.Inputs
	v := sentPage{
		Name: name, Style: r.Style.Name, Inside: r.Inside.FreeIn(in.Units), Outside: r.Outside.TakenIn(in.Units),
		Picture: page.BoxPicture(r, name), Key: recipe.Key(in.Units), Pictured: pictured, Cautions: recipe.Cautions(len(in.Things) > 0, r.HotGlue()),
	}
	for i, p := range r.Parts {
		x := sentPiece{Name: p.Name, Size: measure.Labels(in.Units, in.Tools.Tick, p.Pattern.Width, p.Pattern.Height)}
		if n := p.Copies(); n > 1 {
			x.Name = fmt.Sprintf("%s, %d of it", x.Name, n)
		}
		for k, pass := range r.Scores[i].Passes {
			if k > 0 {
				x.Scores += "; "
			}
			x.Scores += pass.Against() + ": " + recipe.Numbers(pass.At, in.Units, in.Tools.Tick)
		}
		v.Pieces = append(v.Pieces, x)
	}
	for _, x := range r.Supplies {
		v.Supplies = append(v.Supplies, x.Text)
	}
	var pictures map[string]template.HTML
	if pictured {
		pictures = page.MovePictures(&s.Drawn, r)
	}
	group := ""
	for _, x := range r.Steps {
		st := sentStep{N: x.N, Text: x.Text, Picture: pictures[x.Key]}
		if x.Group != group {
			st.Group, group = x.Group, x.Group
		}
		v.Steps = append(v.Steps, st)
	}
	return v
}
