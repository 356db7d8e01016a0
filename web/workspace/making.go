package workspace

import (
	"context"
	"fmt"
	"html/template"
	"net/url"

	"github.com/labstack/echo/v5"

	"brevium/core/marked"
	"brevium/core/recipe"
	"brevium/draw"
	"brevium/draw/export"
	"brevium/draw/pdf"
	"brevium/web/page"
)

// makingStop is where the steps are, and all that is printed.
var makingStop = &stop{
	ID: "making", Title: "Making", Decides: "Here is what to cut, score, fold and glue, in order.",
	read: readOwnSteps, page: showMaking,
	answer: func(p *workPage) string { return fmt.Sprintf("%d of %d done", p.Done, len(p.Steps)) },
}

type makingPage struct {
	*workPage
	Own        []ownView
	ReadySteps []readyStep
}

func showMaking(_ context.Context, frame *workPage) (any, error) {
	p := &makingPage{workPage: frame}
	if p.Result != nil {
		pictures := page.MovePictures(&p.room.Drawn, p.Result)
		for i := range p.Steps {
			p.Steps[i].Picture = pictures[p.Steps[i].Key]
		}
	}
	p.ownSteps(&frame.Box.Inputs, frame.Form)
	return p, nil
}

// stepsOf are the steps that stand under one heading.
type stepsOf struct {
	Name  string
	Steps []stepView
	Done  int
	Open  bool // the next step is among them
}

// Groups are the steps under what they belong to, in order: those with the next one are open.
func (p *makingPage) Groups() []stepsOf {
	var out []stepsOf
	next := false
	for _, s := range p.Steps {
		if len(out) == 0 || out[len(out)-1].Name != s.Group {
			out = append(out, stepsOf{Name: s.Group})
		}
		g := &out[len(out)-1]
		g.Steps = append(g.Steps, s)
		if s.Done {
			g.Done++
		} else if !next {
			next, g.Open = true, true
		}
	}
	return out
}

// Key is what holds for all steps, said once.
func (p *makingPage) Key() string { return recipe.Key(p.Box.Inputs.Units) }

// Cautions are those for this work.
func (p *makingPage) Cautions() []string {
	return recipe.Cautions(len(p.Box.Inputs.Things) > 0, p.Result != nil && p.Result.HotGlue())
}

// MachineFormats are the files that hold flat pieces.
func (p *makingPage) MachineFormats() []export.Format {
	return []export.Format{export.SVG, export.DXF, export.HPGL}
}

// printView is something to print: its name, what for, how it looks and where it is.
type printView struct {
	Name, For, At string
	Picture       template.HTML
}

// Prints are what can be printed of the box on the maker's paper, each by its name.
func (p *makingPage) Prints() []printView {
	var out []printView
	for _, x := range []struct {
		pdf.Print
		use string
	}{
		{pdf.Print{}, "how one box is made, a picture for each move"},
		{pdf.Print{Large: true}, "for a class"},
		{pdf.Print{What: pdf.ScoreCard}, "each piece with its numbers, read from a metre"},
		{pdf.Print{What: pdf.Shopping}, "what to have for " + page.Counted(p.Box.Inputs.Copies, "box")},
		{pdf.Print{What: pdf.Plan}, "the sheets and their cuts"},
		{pdf.Print{What: pdf.Labels}, "to go onto the boxes"},
		{pdf.Print{What: pdf.Marked}, "labels and printed papers, for a machine that finds its marks"},
		{pdf.Print{What: pdf.Slips}, "the numbers alone, to lie beside the work"},
		{pdf.Print{What: pdf.Cards}, "for whoever gets one, to go into them"},
		{pdf.Print{What: pdf.Batch}, "every step, with squares to tick"},
		{pdf.Print{What: pdf.Templates}, "true size"},
		{pdf.Print{What: pdf.Templates, Mirror: true}, "for the back of the card"},
	} {
		kind := string(x.What)
		switch {
		case x.What == pdf.Marked && !marked.Any(p.Result):
			continue
		case x.Large:
			kind = "large"
		case x.Mirror:
			kind = "mirror"
		}
		out = append(out, printView{x.Title(), x.use, p.printAt(x.Print, p.Paper), page.SVG(draw.Document(kind))})
	}
	return out
}

// paper remembers the paper that is printed on.
func (s *room) paper(c *echo.Context) error {
	page.SetPaper(c, c.FormValue("paper"))
	return page.Back(c, "%s?printing=1", page.Asked(c, "/"))
}

// printAt is the address of a print.
func (p *makingPage) printAt(print pdf.Print, paper string) string {
	q := url.Values{"paper": {paper}}
	if print.What != pdf.Instructions {
		q.Set("what", string(print.What))
	}
	for name, on := range map[string]bool{"large": print.Large, "mirror": print.Mirror, "plain": p.InLines} {
		if on {
			q.Set(name, "1")
		}
	}
	return page.StopURL(p.Box.ID, "sheet.pdf") + "?" + q.Encode()
}
