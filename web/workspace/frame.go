package workspace

import (
	"cmp"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/core/recipe"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// workPage is the frame round every stop of the work on a box. Result is nil when the stored
// design cannot be made any more.
type workPage struct {
	page.Chrome
	Box    boxshelf.Box
	Here   *stop
	Next   *stop // the one after this
	Form   *form.Form
	Result *design.Result
	Tape   []tapeStop
	Steps  []stepView
	Done   int // of the steps
	room   *room
	query  url.Values // of the address

	Changed          bool   // it answers a change
	InLines          bool   // prints leave the colours of papers out
	Paper            string // that is printed on
	Printing         bool   // it was just chosen
	Heading, Decides string
	Name, NameFault  string
	Verdict          string
	Band             template.HTML // the drawing in small, for a narrow screen
}

// tapeStop is a stop on the tape: its present answer in half a line, and a
// mark if something is wrong there.
type tapeStop struct {
	ID, Title, Answer string
	Current           bool
	Verdict           inspect.Verdict
}

type stepView struct {
	recipe.Step
	Done, Stale bool
	Picture     template.HTML
}

// beside is the frame of a page beside the work on a box: in the box's unit, and a change of that
// shows a stop.
func (s *room) beside(c *echo.Context, title string, b boxshelf.Box, stop string) page.Chrome {
	x := s.Chrome(c, title)
	x.Units, x.UnitsAt, x.Stop = b.Inputs.Units, "/boxes/"+page.Itoa(b.ID)+"/units", stop
	return x
}

// frame is the page round the stop at a place in the work. A tick put against other numbers is
// stale and does not count.
func (s *room) frame(c *echo.Context, b boxshelf.Box, at int, f *form.Form, r *design.Result, ticks map[string]string) *workPage {
	here := stops[at]
	p := &workPage{
		Chrome: s.beside(c, here.Title+" · "+b.Name, b, here.ID), Box: b, Here: here, Form: f, Result: r, room: s, query: c.QueryParams(),
		Changed: c.Request().Method == http.MethodPost, InLines: c.QueryParam("print") == "lines", Paper: page.PaperOf(c, b.Inputs.Units), Printing: c.QueryParams().Has("printing") || c.QueryParams().Has("print"), Heading: here.Title, Decides: here.Decides, Name: b.Name,
	}
	p.Swap, p.To = true, ""
	if at+1 < len(stops) {
		p.Next = stops[at+1]
	}
	if text, wrong := f.Faults["name"]; wrong {
		p.NameFault, p.Name = text, f.Control("name", "Name of the box", "", b.Name).Value
	}
	if r == nil {
		return p
	}
	for _, x := range r.Checks {
		if x.Mend != nil {
			f.Judge(x.Mend.Field, form.Judged{Text: x.Text, Words: p.Mends(x.Mend)})
		}
	}
	p.Steps, p.Done = stepViews(r.Steps, ticks)
	p.tape()
	if here.small {
		p.Band = page.Draw(&s.Drawn, r, "small", func() template.HTML { return page.BoxPicture(r, "small") })
	}
	said := []string{}
	for _, t := range p.Tape[:len(p.Tape)-1] {
		said = append(said, t.Answer)
	}
	p.Verdict = fmt.Sprintf("Inside %s. %s. %s", p.Inside(), strings.Join(said, "; "), verdictWords[inspect.Worst(r.Checks)])
	return p
}

// asked is how a page is to be shown, as its form or else its address says.
func (p *workPage) asked(name string) string {
	return cmp.Or(p.Form.Posted.Get(name), p.query.Get(name))
}

// verdictWords say aloud how a box stands.
var verdictWords = map[inspect.Verdict]string{
	inspect.OK: "Nothing is wrong.", inspect.Warn: "There is something to check.", inspect.Fail: "There is a fault: do not cut yet.",
}

func (p *workPage) tape() {
	for _, s := range stops {
		var here []inspect.Finding
		for _, c := range p.Result.Checks {
			if stopOf(c.ID) == s {
				here = append(here, c)
			}
		}
		p.Tape = append(p.Tape, tapeStop{ID: s.ID, Title: s.Title, Answer: s.answer(p), Current: s == p.Here, Verdict: inspect.Worst(here)})
	}
}

// Refusals are what the page's fields could not take, and Cures what would help.
func (p *workPage) Refusals() []form.Refusal { return p.Form.Refusals() }
func (p *workPage) Cures() []design.Cure     { return p.Form.Cures }

// stepViews are steps with what is ticked off of them, and how many are done.
func stepViews(steps []recipe.Step, kept map[string]string) (out []stepView, done int) {
	ticks := recipe.Ticked(steps, kept)
	for _, s := range steps {
		mark := ticks[s.Key]
		v := stepView{Step: s, Done: mark == s.Mark, Stale: mark != "" && mark != s.Mark}
		if v.Done {
			done++
		}
		out = append(out, v)
	}
	return out, done
}
