package web

import (
	"context"
	"fmt"
	"html/template"
	"net/http"
	"strings"
	"sync"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
	"brevium/draw"
	"brevium/store"
)

// questionPage is a page beside the stops that answers one question about a
// box and changes nothing.
type questionPage struct {
	chrome
	Box  store.Box
	Form *form

	Compared   []comparedView
	FromDrawer bool

	Style   field
	Every   []everyView
	Fields  []field
	Sheets  []choice
	Keep    field
	Fixed   []field
	Biggest *design.Biggest
	Sizes   []numberView
	Copies  int
	Picture template.HTML
	Choices []string

	Thing  thingFields
	Asked  bool
	Holds  contents.Holds
	Raised *contents.Holds
	Inside string
	Says   string
}

// question readies the page: the box, and the form of the address's query.
func (s *server) question(c *echo.Context, title string) (questionPage, error) {
	b, err := s.box(c)
	if err != nil {
		return questionPage{}, err
	}
	p := questionPage{chrome: s.chrome(c, title), Box: b, Form: newForm(c.QueryParams(), b.Inputs.Units)}
	p.Units, p.UnitsAt, p.Stop = b.Inputs.Units, "/boxes/"+itoa(b.ID)+"/units", "box"
	return p, nil
}

type comparedView struct {
	Style                   *style.Style
	Picture                 template.HTML
	Paper                   paper.Card
	Problem, Card           string
	Sheets, Pieces, Cuts    int
	Glued, Minutes, Outside string
	Chosen                  bool
}

// compare puts every style side by side for what goes in.
func (s *server) compare(c *echo.Context) error {
	p, err := s.question(c, "Which box?")
	if err != nil {
		return err
	}
	in := p.Box.Inputs
	lots, err := s.store.Lots(c.Request().Context())
	if err != nil {
		return err
	}
	p.FromDrawer = c.QueryParam("from") == "drawer"
	all := []batch.Offer{}
	if p.FromDrawer {
		all = batch.Makeable(c.Request().Context(), in, lots)
	} else {
		for _, x := range design.Compare(c.Request().Context(), in) {
			all = append(all, batch.Offer{Card: in.Card, Comparison: x})
		}
	}
	for _, x := range all {
		v := comparedView{Style: x.Style, Paper: x.Card, Chosen: x.Style.ID == in.Style && !p.FromDrawer}
		if x.Result == nil {
			v.Problem = x.Fault.Text
		} else {
			v.Picture, v.Card = boxPicture(x.Result), areaOf(x.Comparison.Card, in.Units)
			v.Sheets, v.Pieces, v.Cuts = x.Sheets, x.Pieces, x.Cuts
			v.Minutes = fmt.Sprintf("%.0f min", x.Minutes)
			v.Glued = measure.Label(measure.Nearest(measure.FromMM(x.Glued), measure.Centimetre), measure.CM, measure.Centimetre)
			v.Outside = roomLine(x.Result.Outside, &in)
		}
		p.Compared = append(p.Compared, v)
	}
	return c.Render(http.StatusOK, "compare.html", p)
}

// biggest answers how big a box one sheet gives.
func (s *server) biggest(c *echo.Context) error {
	p, err := s.question(c, "The biggest box from a sheet")
	if err != nil {
		return err
	}
	in, f := p.Box.Inputs.Clone(), p.Form
	now, err := design.Sketch(in)
	if err != nil {
		return err
	}
	if id := f.posted.Get("style"); id != "" && id != in.Style {
		if in, err = in.With(id, now); err != nil {
			return err
		}
		if now, err = design.Sketch(in); err != nil {
			// It is too large for the sheets as it is; its shape is what counts.
			in = sized(in, style.Extent{Length: 2 * measure.Inch, Width: 2 * measure.Inch, Height: 2 * measure.Inch})
			if now, err = design.Sketch(in); err != nil {
				return err
			}
		}
	}
	st, err := style.ByID(in.Style)
	if err != nil {
		return err
	}
	sheet := p.Box.Inputs.Sheets[0]
	ask := design.Ask{Sheet: sheet, Fixed: map[string]measure.Length{}}
	f.length("sheet.width", &ask.Sheet.Width)
	f.length("sheet.height", &ask.Sheet.Height)
	ask.Sheet.Name = "the sheet"
	// A size that is filled in is meant to be kept, whatever stands above it.
	for _, i := range st.Own() {
		axis := st.Axes[i].ID
		if f.posted.Get("keep") != "copies" && strings.TrimSpace(f.posted.Get("fix."+axis)) != "" {
			f.posted.Set("keep", "fixed")
		}
	}
	p.Keep = f.choiceField("keep", "And the box", "", "proportions",
		choice{Value: "proportions", Label: "keeps its proportions"}, choice{Value: "fixed", Label: "has some sizes fixed"}, choice{Value: "copies", Label: "stays as it is: how many?"})
	ask.Proportions = st.Along(now.Spec.Lengths)
	for _, i := range st.Own() {
		axis := st.Axes[i].ID
		name := "fix." + axis
		if p.Keep.Value == "fixed" && strings.TrimSpace(f.posted.Get(name)) != "" {
			l := measure.Length(0)
			f.length(name, &l)
			ask.Fixed[axis] = l
		}
	}
	if f.ok() {
		p.answer(c.Request().Context(), in, ask)
	}
	if f.ok() && p.Keep.Value == "proportions" {
		p.every(c.Request().Context(), in, now, ask)
	}
	var styles []choice
	for _, s := range style.Boxes() {
		styles = append(styles, choice{Value: s.ID, Label: s.Name})
	}
	p.Style = f.choiceField("style", "Box", "", in.Style, styles...)
	p.Fields = []field{
		f.lengthField("sheet.width", "The sheet is", "wide", sheet.Width),
		f.lengthField("sheet.height", "by", "high", sheet.Height),
	}
	for _, i := range st.Own() {
		axis := st.Axes[i]
		x := f.control("fix."+axis.ID, axis.Label, "leave empty to let it grow", "")
		x.Unit = string(in.Units)
		p.Fixed = append(p.Fixed, x)
	}
	status := http.StatusOK
	if !f.ok() {
		status = http.StatusUnprocessableEntity
	}
	return c.Render(status, "biggest.html", p)
}

// everyView is the biggest box of one style that the sheet gives.
type everyView struct {
	Style *style.Style
	Size  string
	Used  string
	Holds string
}

// every asks the same of every style: the biggest box of about the same
// proportions from the same sheet.
func (p *questionPage) every(ctx context.Context, in design.Inputs, now *design.Result, ask design.Ask) {
	boxes := style.Boxes()
	p.Every = make([]everyView, len(boxes))
	var all sync.WaitGroup
	for i, s := range boxes {
		all.Go(func() {
			v := everyView{Style: s, Size: "none"}
			if with, err := in.With(s.ID, now); err == nil {
				if b, err := design.FindBiggest(ctx, with, ask); err == nil {
					v.Size = roomLine(b.Size, &in)
					v.Used = fmt.Sprintf("%.0f %%", 100*b.Used)
					v.Holds = litres(b.Size)
				}
			}
			p.Every[i] = v
		})
	}
	all.Wait()
}

// litres is a size's room, as cubic centimetres.
func litres(e style.Extent) string {
	return fmt.Sprintf("%.0f cm³", e.Length.MM()*e.Width.MM()*e.Height.MM()/1000)
}

func (p *questionPage) answer(ctx context.Context, in design.Inputs, ask design.Ask) {
	if p.Keep.Value == "copies" {
		n, err := design.CopiesFrom(ctx, in, ask.Sheet)
		if err != nil {
			p.Form.fail(err)
			return
		}
		p.Copies, p.Says = n, fmt.Sprintf("%d from one sheet", n)
		return
	}
	found, err := design.FindBiggest(ctx, in, ask)
	if err != nil {
		x := fault.Of(err)
		if x.Field == "sheet" {
			x = fault.New(x.Code, "sheet.width", "%s", x.Text)
		}
		p.Form.fail(x)
		return
	}
	p.Biggest = found
	for _, l := range []measure.Length{found.Size.Length, found.Size.Width, found.Size.Height} {
		p.Sizes = append(p.Sizes, numberView{measure.Number(l, in.Units, in.Tools.Tick), string(in.Units), measure.Beside(l, in.Units)})
	}
	for _, n := range found.Near {
		p.Choices = append(p.Choices, n.Text)
	}
	with := sized(in, found.Size)
	for _, id := range found.Follow {
		delete(with.Lengths, id)
	}
	with.Sheets = []paper.Sheet{ask.Sheet}
	if r, err := design.Sketch(with); err == nil {
		p.Picture = boxPicture(r)
	}
	p.Says = fmt.Sprintf("%.0f %% of the sheet", 100*found.Used)
}

// sized gives the inputs a size of their own, score to score.
func sized(in design.Inputs, e style.Extent) design.Inputs {
	out := in.Clone()
	out.Things, out.Basis, out.Stand, out.Compartments, out.Linings = nil, design.Scored, "", design.Compartments{}, nil
	if s, err := style.ByID(in.Style); err == nil {
		s.Give(out.Size, e)
	}
	return out
}

// takeBiggest gives the box the size that was found.
func (s *server) takeBiggest(c *echo.Context) error {
	b, err := s.box(c)
	if err != nil {
		return err
	}
	posted, err := c.FormValues()
	if err != nil {
		return badForm(err)
	}
	f, e := newForm(posted, measure.MM), style.Extent{}
	f.length("length", &e.Length)
	f.length("width", &e.Width)
	f.length("height", &e.Height)
	in := b.Inputs.Clone()
	if id := posted.Get("style"); id != "" && id != in.Style {
		if err := in.SetStyle(id); err != nil {
			return err
		}
	}
	in = sized(in, e)
	for _, id := range posted["follow"] {
		delete(in.Lengths, id)
	}
	if f.ok() {
		s.try(c, f, &in)
	}
	if !f.ok() {
		return fault.New(fault.NotTaken, "size", "%s Your box is as it was.", strings.Join(f.Unplaced(), " "))
	}
	if _, err := s.save(c, b, in); err != nil {
		return err
	}
	return back(c, "%s", stopURL(b.ID, "box"))
}

// holds answers how many of a thing go into the box.
func (s *server) holds(c *echo.Context) error {
	p, err := s.question(c, "How many would fit?")
	if err != nil {
		return err
	}
	r, err := design.Sketch(p.Box.Inputs)
	if err != nil {
		return err
	}
	t := newThing(contents.Round)
	if len(p.Box.Inputs.Things) > 0 {
		t = p.Box.Inputs.Things[0]
	}
	t.Count = 1
	p.Asked = len(c.QueryParams()) > 0
	readThing(p.Form, 0, &t)
	if err := t.Check(); err != nil && p.Asked {
		p.Form.fail(fault.At("contents[0]", err))
	}
	p.Thing = fieldsOf(p.Form, 0, t)
	p.Inside = roomLine(r.Inside, &p.Box.Inputs)
	if !p.Form.ok() {
		return c.Render(http.StatusUnprocessableEntity, "holds.html", p)
	}
	room := contents.Room{Length: r.Inside.Length, Width: r.Inside.Width, Height: r.Inside.Height}
	flat := t
	flat.Raised = 0
	p.Holds = contents.Capacity(room, flat)
	if t.Shape == contents.Stack && t.Cards > 0 && t.Raised > 0 {
		raised := contents.Capacity(room, t)
		p.Raised = &raised
	}
	last := p.Holds
	if p.Raised != nil {
		last = *p.Raised
	}
	show := func(l measure.Length) string { return measure.Label(l, p.Units, p.Box.Inputs.Tools.Tick) }
	p.Says = fmt.Sprintf("The %s stops it: %s more would take another row.", last.Stops, show(measure.Up(last.Lacks, p.Box.Inputs.Tools.Tick)))
	if last.Count == 0 {
		p.Says = fmt.Sprintf("Not one goes in: the %s lacks %s.", last.Stops, show(measure.Up(last.Lacks, p.Box.Inputs.Tools.Tick)))
	} else {
		one := flat
		one.Count = min(p.Holds.Count, contents.MostThings)
		for _, a := range contents.Arrangements([]contents.Thing{one}) {
			if a.ID == p.Holds.ID {
				p.Picture = svg(draw.ContentsFromAbove(a, []contents.Thing{one}))
				break
			}
		}
	}
	return c.Render(http.StatusOK, "holds.html", p)
}

// HoldsWhat writes a capacity: "4", or "20 cards in 1 stack".
func (p questionPage) HoldsWhat(h contents.Holds) string {
	if h.Cards > 0 {
		return fmt.Sprintf("%d cards", h.Cards)
	}
	return fmt.Sprint(h.Count)
}

// Over is what is left along each axis.
func (p questionPage) Over() string {
	o := p.Holds.Over
	return fmt.Sprintf("%s × %s × %s mm over", mm1(o.Length), mm1(o.Width), mm1(o.Height))
}

func mm1(l measure.Length) string {
	return measure.Number(max(0, l), measure.MM, measure.Millimetre/10)
}
