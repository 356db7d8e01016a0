package workspace

import (
	"context"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/draw"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// questionPage is a page beside the stops that answers one question about a
// box and changes nothing.
type questionPage struct {
	page.Chrome
	Box  boxshelf.Box
	Form *form.Form

	Compared   []comparedView
	Senseless  []comparedView // that make no sense for what goes in
	FromDrawer bool
	Short      bool // not all was looked at

	Style   form.Field
	Every   []everyView
	Sheet   form.SheetFields
	Keep    form.Field
	Chose   string // what was chosen for the biggest box
	Varies  string // what may be
	Fixed   []form.Field
	Biggest *design.Biggest
	Size    string // between folds
	Beside  string
	Copies  int
	Picture template.HTML
	Choices []string

	Thing  form.ThingFields
	Asked  bool
	Holds  contents.Holds
	Raised *contents.Holds
	Inside string
	Says   string
}

// question readies the page: the box, and the form of the address's query.
func (s *room) question(c *echo.Context, title string) (questionPage, error) {
	b, err := s.Box(c)
	if err != nil {
		return questionPage{}, err
	}
	p := questionPage{Chrome: s.beside(c, title, b, "box"), Box: b, Form: form.New(c.QueryParams(), b.Inputs.Units)}
	p.Form.Tick = b.Inputs.Tools.Tick
	return p, nil
}

// centimetres are what a length of glue is told to.
const centimetres = measure.Tick(measure.Centimetre)

type comparedView struct {
	Style                   *style.Style
	Picture                 template.HTML
	Paper                   paper.Card
	Problem, Card           string
	Sheets, Pieces, Cuts    int
	Glued, Minutes, Outside string
	Chosen, Goes            bool
}

// compare puts every style side by side for what goes in.
func (s *room) compare(c *echo.Context) error {
	p, err := s.question(c, "Kinds compared")
	if err != nil {
		return err
	}
	in := p.Box.Inputs
	lots, err := s.Store.Of(c.Request().Context()).Lots(c.Request().Context())
	if err != nil {
		return err
	}
	p.FromDrawer = c.QueryParam("from") == "drawer"
	end, err := s.Shares.Take(c.Request().Context())
	if err != nil {
		return err
	}
	defer end()
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
		if v.Problem = x.Senseless; x.Result == nil {
			v.Problem = x.Fault.Text
		} else {
			v.Goes = true
			v.Picture, v.Card = page.BoxPicture(x.Result, ""), cardArea(x.Comparison.Card, in.Units)
			v.Sheets, v.Pieces, v.Cuts = x.Sheets, x.Pieces, x.Cuts
			v.Minutes = recipe.Clock(x.Minutes)
			v.Glued = measure.Label(measure.Nearest(measure.FromMM(x.Glued), centimetres), measure.CM, centimetres)
			v.Outside = x.Result.Outside.TakenIn(in.Units)
		}
		if v.Problem != "" && !v.Chosen {
			p.Senseless = append(p.Senseless, v)
		} else {
			p.Compared = append(p.Compared, v)
		}
	}
	p.Short = layout.Short(c.Request().Context())
	return c.Render(http.StatusOK, "compare.html", p)
}

// biggest answers how big a box one sheet gives.
func (s *room) biggest(c *echo.Context) error {
	p, err := s.question(c, "The biggest box from a sheet")
	if err != nil {
		return err
	}
	in, f := p.Box.Inputs.Clone(), p.Form
	now, err := design.Sketch(in)
	if err != nil {
		return err
	}
	if id := f.Posted.Get("style"); id != "" && id != in.Style {
		if in, now, err = in.Reshaped(id, now); err != nil {
			return err
		}
	}
	st, err := style.ByID(in.Style)
	if err != nil {
		return err
	}
	lots, err := s.FreeLots(c.Request().Context())
	if err != nil {
		return err
	}
	asked := form.ReadSheet(f, lots, p.Box.Inputs.Sheets[0], in.Card)
	in.Card, in.Cards = asked.Card, map[string]paper.Card{}
	ask := design.Ask{Sheet: asked.Sheet, Fixed: map[string]measure.Length{}}
	// A size that is filled in is meant to be kept, whatever stands above it.
	for _, i := range st.Own() {
		axis := st.Axes[i].ID
		if f.Posted.Get("keep") != "copies" && strings.TrimSpace(f.Posted.Get("fix."+axis)) != "" {
			f.Posted.Set("keep", "free")
		}
	}
	ways := []form.Choice{
		{Value: "free", Label: "holds as much as it can"}, {Value: "proportions", Label: "keeps its proportions"},
		{Value: "copies", Label: "stays as it is: how many?"},
	}
	if st.FromSheet != nil {
		ways = append(ways, form.Choice{Value: "parted", Label: st.SheetWords})
	}
	p.Keep = f.ChoiceField("keep", "And the box", "", "free", ways...)
	if p.Keep.Value == "proportions" {
		ask.Proportions = st.Along(now.Spec.Lengths)
	} else {
		form.ReadFixed(f, st, ask.Fixed)
	}
	if f.OK() {
		p.answer(c.Request().Context(), s, in, ask)
	}
	if f.OK() && len(ask.Fixed) == 0 && (p.Keep.Value == "free" || p.Keep.Value == "proportions") {
		ask.Proportions = st.Along(now.Spec.Lengths)
		p.every(c.Request().Context(), in, now, ask)
	}
	var styles []form.Choice
	for _, s := range style.Boxes() {
		styles = append(styles, form.Choice{Value: s.ID, Label: s.Name})
	}
	p.Style = f.ChoiceField("style", "Box", "", in.Style, styles...)
	var varies []string
	for _, o := range st.Options {
		if o.Varies {
			varies = append(varies, strings.ToLower(o.Label))
		}
	}
	p.Varies = strings.Join(varies, ", ")
	p.Sheet, p.Fixed = form.SheetFieldsOf(f, lots, asked), form.FixedFields(f, st)
	status := http.StatusOK
	if !f.OK() {
		status = http.StatusUnprocessableEntity
	}
	return c.Render(status, "biggest.html", p)
}

// Carried is what the form said of the sheet, for the form that takes the box.
func (p questionPage) Carried() []form.Choice {
	var out []form.Choice
	for _, name := range form.SheetNames {
		if v := p.Form.Posted.Get(name); v != "" {
			out = append(out, form.Choice{Value: name, Label: v})
		}
	}
	return out
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
func (p *questionPage) every(ctx context.Context, in design.Inputs, now *design.Built, ask design.Ask) {
	for _, x := range design.BiggestOfEvery(ctx, in, now, ask) {
		v := everyView{Style: x.Style, Size: "none"}
		if x.Biggest != nil {
			v.Size, v.Used, v.Holds = x.Size.FreeIn(in.Units), fmt.Sprintf("%.0f %%", 100*x.Used), litres(x.Size)
		}
		p.Every = append(p.Every, v)
	}
}

// litres is a size's room, as cubic centimetres.
func litres(e style.Extent) string {
	return fmt.Sprintf("%.0f cm³", e.Length.MM()*e.Width.MM()*e.Height.MM()/1000)
}

func (p *questionPage) answer(ctx context.Context, s *room, in design.Inputs, ask design.Ask) {
	if p.Keep.Value == "copies" {
		n, err := design.CopiesFrom(ctx, in, ask.Sheet)
		if err != nil {
			p.Form.Fail(err)
			return
		}
		p.Copies, p.Says = n, fmt.Sprintf("%d from one sheet", n)
		return
	}
	if p.Keep.Value == "parted" {
		p.part(in, ask.Sheet)
		return
	}
	found, err := s.Biggest(ctx, in, ask)
	if err != nil {
		x := fault.Of(err)
		if x.Field == "sheet" {
			x = fault.New(x.Code, "sheet.width", "%s", x.Text)
		}
		p.Form.Fail(x)
		return
	}
	p.Biggest = found
	size := []measure.Length{found.Size.Length, found.Size.Width, found.Size.Height}
	p.Size = measure.Labels(in.Units, in.Tools.Tick, size...)
	for i, l := range size {
		if i > 0 {
			p.Beside += " × "
		}
		p.Beside += measure.Beside(l, in.Units)
	}
	for _, n := range found.Near {
		p.Choices = append(p.Choices, n.Text)
	}
	with := found.Apply(in)
	with.Sheets = []paper.Sheet{ask.Sheet}
	if r, err := design.Sketch(with); err == nil {
		p.Picture = page.BoxPicture(r.Bare(), "")
	}
	p.Says = fmt.Sprintf("%.0f %% of %s", 100*found.Used, ask.Sheet.Name)
	p.Chose = found.Says(in.Units)
}

// part answers what a whole sheet gives that is parted as the style's makers do.
func (p *questionPage) part(in design.Inputs, sheet paper.Sheet) {
	with, can := in.Parted(sheet)
	if !can {
		return
	}
	with.Sheets = append([]paper.Sheet{sheet}, with.Sheets...)
	r, err := design.Sketch(with)
	if err != nil {
		p.Form.Fail(fault.New(fault.NoRoom, "sheet.width", "%s", fault.Of(err).Text))
		return
	}
	size := r.Style.Along(r.Spec.Lengths)
	p.Biggest = &design.Biggest{Size: size}
	p.Size = measure.Labels(in.Units, in.Tools.Tick, size.Length, size.Width, size.Height)
	p.Beside, p.Says = r.Outside.TakenIn(in.Units)+" outside", "the whole of "+sheet.Name
	p.Picture = page.BoxPicture(r.Bare(), "")
}

// takeBiggest gives the box the size that was found.
func (s *room) takeBiggest(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	lots, err := s.FreeLots(c.Request().Context())
	if err != nil {
		return err
	}
	f, e := form.New(posted, measure.MM), style.Extent{}
	f.Length("length", &e.Length)
	f.Length("width", &e.Width)
	f.Length("height", &e.Height)
	b, err := s.alter(c, func(b boxshelf.Box, in *design.Inputs) error {
		asked := form.ReadSheet(form.New(posted, in.Units), lots, b.Inputs.Sheets[0], in.Card)
		if id := posted.Get("style"); id != "" && id != in.Style {
			if err := in.SetStyle(id); err != nil {
				return err
			}
		}
		if parted, can := in.Parted(asked.Sheet); can && posted.Get("keep") == "parted" {
			*in = parted
		} else {
			chosen, err := chosenOf(in.Style, posted["choose"])
			if err != nil {
				return err
			}
			*in = (&design.Biggest{Size: e, Follow: posted["follow"], Chosen: chosen}).Apply(*in)
		}
		in.Sheets, in.Card = []paper.Sheet{asked.Sheet}, asked.Card
		if f.OK() {
			s.Try(c, f, in)
		}
		if !f.OK() {
			return fault.New(fault.NotTaken, "size", "%s Your box is as it was.", strings.Join(f.Unplaced(), " "))
		}
		return nil
	})
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(b.ID, "box"))
}

// holds answers how many of a thing go into the box.
func (s *room) holds(c *echo.Context) error {
	p, err := s.question(c, "The number that fits")
	if err != nil {
		return err
	}
	r, err := design.Sketch(p.Box.Inputs)
	if err != nil {
		return err
	}
	t := form.NewThing(contents.Round)
	if len(p.Box.Inputs.Things) > 0 {
		t = p.Box.Inputs.Things[0]
	}
	t.Count = 1
	p.Asked = len(c.QueryParams()) > 0
	form.ReadThing(p.Form, 0, &t)
	if err := t.Check(); err != nil && p.Asked {
		p.Form.Fail(fault.At("contents[0]", err))
	}
	p.Thing = form.ThingFieldsOf(p.Form, 0, t)
	p.Inside = r.Inside.FreeIn(p.Box.Inputs.Units)
	if !p.Form.OK() {
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
	p.Says = fmt.Sprintf(
		"The %s stops it: %s more would take another row.",
		last.Stops,
		show(measure.Up(last.Lacks, p.Box.Inputs.Tools.Tick)),
	)
	if last.Count == 0 {
		p.Says = fmt.Sprintf("Not one goes in: the %s lacks %s.", last.Stops, show(measure.Up(last.Lacks, p.Box.Inputs.Tools.Tick)))
	} else {
		p.Picture = page.SVG(draw.HeldFromAbove(room, p.Holds.Spots, flat))
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
	return measure.Number(max(0, l), measure.MM, measure.Tenth)
}

// chosenOf reads the options that were chosen for the biggest box of a style, as the page
// wrote them: "lid.custom=shim", "lid.depth=12".
func chosenOf(styleID string, posted []string) ([]design.Chosen, error) {
	st, err := style.ByID(styleID)
	if err != nil {
		return nil, err
	}
	var out []design.Chosen
	for _, text := range posted {
		id, value, _ := strings.Cut(text, "=")
		o, known := st.Option(id)
		c := design.Chosen{ID: id}
		switch {
		case known && slices.Contains(o.Choices, value):
			c.Choice = value
		case known && o.Kind == style.LengthKind:
			if c.Length, err = measure.Parse(value, measure.MM); err != nil {
				return nil, fault.At("choose", err)
			}
		default:
			return nil, fault.New(fault.NotTaken, "choose", "That choice is none of this kind of box; ask again.")
		}
		out = append(out, c)
	}
	return out, nil
}

// Choose are the options that were chosen, for the form that takes the box.
func (p questionPage) Choose() []string {
	var out []string
	for _, c := range p.Biggest.Chosen {
		value := c.Choice
		if value == "" {
			value = fmt.Sprint(c.Length.MM())
		}
		out = append(out, c.ID+"="+value)
	}
	return out
}
