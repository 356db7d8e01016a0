package boxes

import (
	"context"
	"fmt"
	"html/template"
	"maps"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
	"brevium/draw"
	"brevium/web/form"
	"brevium/web/page"
)

// Way is a way to begin a box.
type Way struct {
	ID, Title, About string
	Picture          template.HTML
	Chosen           bool
}

// The ways to begin, in the order they are offered.
const (
	fromThings = "things"
	fromSize   = "size"
	fromSheet  = "sheet"
	forABox    = "have"
	fromFile   = "file"
)

// ways lists them, with the one that is chosen.
func ways(chosen string) []Way {
	out := []Way{
		{ID: fromThings, Title: "From what goes in", About: "You have the things. Measure them, and the box follows."},
		{ID: fromSize, Title: "From a size", About: "You know the box: its kind and its sides."},
		{ID: fromSheet, Title: "From a sheet", About: "You have one sheet. See the biggest box it gives."},
		{ID: forABox, Title: "For a box you have", About: "Measure its inside: dividers, or a floor with holes."},
		{ID: fromFile, Title: "From a file", About: "Another maker gave you a design."},
	}
	for i := range out {
		out[i].Picture, out[i].Chosen = page.SVG(draw.Beginning(out[i].ID)), out[i].ID == chosen
	}
	return out
}

// newPage is where a box begins: the form on one side, and what would come of
// it on the other.
type newPage struct {
	page.Chrome
	Way    string
	Ways   []Way
	Taken  int // designs that were brought in beside those that were not
	Form   *form.Form
	Name   form.Field
	Thing  form.ThingFields
	Kind   form.Field       // of box, for what goes in
	Cut    form.SheetFields // what it is cut from
	Styles []styleTile
	Style  *style.Style
	Size   []form.Field // of the chosen style: those that set its room
	More   []form.Field // and the others
	Basis  form.Field
	Sheet  form.SheetFields
	Fixed  []form.Field

	Preview template.HTML // the box as it stands in the form
	Says    []string      // and what it is
	Changed string        // of what was asked for
	Example string        // says that it is one
	Others  []otherWay
}

type styleTile struct {
	ID, Name, About string
	Picture         template.HTML
	Chosen          bool
}

// begun is a box as a form begins it.
type begun struct {
	in      design.Inputs
	next    string // the page of the work that comes then
	says    []string
	asked   form.AskedSheet    // that it begins from
	changed string             // what of it is not as it was asked for
	others  []design.Beginning // other ways
	open    []string           // of what goes in: left open, where an example stands until it is typed
}

// otherWay is another box that can be made of what was asked for.
type otherWay struct {
	URL, Name string
	Picture   template.HTML
}

func (s *room) newBox(c *echo.Context) error {
	q := c.QueryParams()
	f := form.New(q, page.UnitsOf(c))
	lots, err := s.FreeLots(c.Request().Context())
	if err != nil {
		return err
	}
	b, err := s.begin(c.Request().Context(), f, lots, false)
	if err != nil {
		return err
	}
	return s.showNew(c, http.StatusOK, f, b, lots)
}

// makeBox makes a box as the form begins it, and opens it at the page that
// comes next.
func (s *room) makeBox(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	asking := posted.Get("put") != "" // a button that types something else, not the last word
	f := form.New(posted, page.UnitsOf(c))
	lots, err := s.FreeLots(c.Request().Context())
	if err != nil {
		return err
	}
	b, err := s.begin(c.Request().Context(), f, lots, !asking)
	if err != nil {
		return err
	}
	if f.OK() {
		s.Try(c, f, &b.in)
	}
	if !f.OK() || asking {
		return s.showNew(c, http.StatusUnprocessableEntity, f, b, lots)
	}
	n, err := s.Store.Of(c.Request().Context()).Add(c.Request().Context(), b.in)
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(n, b.next))
}

// begin reads the form of any of the ways; the last word is what a box is made by.
func (s *room) begin(ctx context.Context, f *form.Form, lots []drawer.Lot, lastWord bool) (begun, error) {
	in := design.New("", f.Unit, styleOf(f).ID)
	if err := s.Equip(ctx, &in); err != nil {
		return begun{}, err
	}
	f.Text("name", &in.Name)
	in.Name = design.CleanName(in.Name)
	if way := f.Posted.Get("start"); way != fromSheet && way != fromFile {
		in.Sheets, in.Card = form.ReadCut(f, lots, in.Sheets, in.Card)
	}
	f.Longest = paper.Longest(in.Sheets)
	var out begun
	switch f.Posted.Get("start") {
	case fromSize, forABox:
		out = s.bySize(f, in)
	case fromSheet:
		out = s.bySheet(ctx, f, in, lots)
	case fromFile:
		return begun{in: in}, nil
	default:
		out = s.byThings(f, in, lastWord)
	}
	if out.in.Name == "" {
		out.in.Name = nameFor(&out.in)
	}
	return out, nil
}

// wished is what can be made of what was asked for: that, or the nearest to it, with what was
// changed and the other ways.
func wished(f *form.Form, b begun, anyKind bool) begun {
	if !f.OK() || b.in.Check() != nil {
		return b // what is no size is for its own field to say
	}
	found := design.Begin(b.in, anyKind)
	if len(found) == 0 {
		return b
	}
	b.in, b.others = found[0].Inputs, found[1:]
	b.changed = found[0].Changed
	return b
}

// bySize begins with a kind of box and its sizes.
func (s *room) bySize(f *form.Form, in design.Inputs) begun {
	st := styleOf(f)
	if was, err := style.ByID(f.Posted.Get("was")); err == nil && was != st {
		carry(f, was, st)
	}
	in.Style = st.ID
	for _, p := range st.Parameters {
		v := p.Usual(in.Tools.Tick)
		f.Length("size."+p.ID, &v)
		if st.IsAxis(p.ID) || f.Posted.Has("size."+p.ID) && p.Follows == nil {
			in.Size[p.ID] = v
		}
	}
	if b := design.Basis(f.Posted.Get("size.basis")); b != "" {
		in.Basis = b
	}
	return wished(f, begun{in: in, next: "box"}, false)
}

// bySheet begins with one sheet: the biggest box of the kind that it gives.
// The box keeps the sheet and its card.
func (s *room) bySheet(ctx context.Context, f *form.Form, in design.Inputs, lots []drawer.Lot) begun {
	if f.Posted.Get("sheet") == "" && len(lots) > 0 {
		f.Posted.Set("sheet", form.LotName(lots[0]))
	}
	asked := form.ReadSheet(f, lots, in.Sheets[0], in.Card)
	in.Sheets, in.Card = []paper.Sheet{asked.Sheet}, asked.Card
	st := styleOf(f)
	ask := design.Ask{Sheet: asked.Sheet, Fixed: map[string]measure.Length{}}
	form.ReadFixed(f, st, ask.Fixed)
	out := begun{in: in, next: "box", asked: asked}
	if !f.OK() {
		return out
	}
	found, err := s.Biggest(ctx, in, ask)
	if err != nil {
		x := *fault.Of(err)
		if x.Field == "fixed" {
			x.Field = "fix." + st.Axes[0].ID
		}
		f.Fail(&x)
		return out
	}
	out.in = found.Apply(in)
	out.says = []string{fmt.Sprintf("The biggest that %s gives, at these sizes: %.0f %% of it is used.", asked.Sheet.Name, 100*found.Used)}
	if more := found.Says(in.Units); more != "" {
		out.says = append(out.says, more)
	}
	return out
}

// usualThing is what the form stands at: a jar, in round numbers.
func usualThing(unit measure.Unit) contents.Thing {
	t := form.NewThing(contents.Round)
	t.Count = 4
	if unit == measure.In {
		t.Length, t.Width, t.Height = 2*measure.Inch, 2*measure.Inch, 5*measure.Inch/2
	}
	return t
}

// nameFor names a box after what goes in.
func nameFor(in *design.Inputs) string {
	if len(in.Things) > 0 && in.Things[0].Name != "" {
		return "Box for " + strconv.Itoa(in.Things[0].Count) + " × " + in.Things[0].Name
	}
	return "New box"
}

// styleOf is the style that is chosen in a form.
func styleOf(f *form.Form) *style.Style {
	way := f.Posted.Get("start")
	s, err := style.ByID(f.Posted.Get("style"))
	switch {
	case err == nil && (s.Inner || way != forABox):
		return s
	case way == forABox:
		return kindsFor(way)[0]
	}
	return style.Usual()
}

// kindsFor are the kinds that a way to begin offers.
func kindsFor(way string) []*style.Style {
	if way == forABox {
		return style.Fittings()
	}
	return style.Boxes()
}

// example keeps a box to look at: four jars in a base with a lid.
func (s *room) example(c *echo.Context) error {
	unit := page.UnitsOf(c)
	in := design.New("An example: four jars", unit, style.Usual().ID)
	in.Things = []contents.Thing{usualThing(unit)}
	if err := s.Equip(c.Request().Context(), &in); err != nil {
		return err
	}
	n, err := s.Store.Of(c.Request().Context()).Add(c.Request().Context(), in)
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(n, "contents"))
}

// showNew shows the page, and what the form begins if that can be made.
func (s *room) showNew(c *echo.Context, status int, f *form.Form, b begun, lots []drawer.Lot) error {
	p := newPage{Chrome: s.Chrome(c, "A new box"), Form: f, Style: styleOf(f), Way: f.Posted.Get("start")}
	if p.Way == "" {
		p.Way = fromThings
	}
	p.Ways, p.To = ways(p.Way), "/new"
	if p.Way != fromFile {
		p.Carry = "new-form"
	}
	if f.OK() && p.Way != fromFile {
		if _, err := s.Made(c.Request().Context(), b.in); err != nil {
			f.Fail(form.Placed(err))
		}
	}
	s.fill(c.Request().Context(), &p, b, lots)
	return c.Render(status, "new.html", p)
}

// fill prepares the fields of the way that is chosen, and the picture.
func (s *room) fill(ctx context.Context, p *newPage, b begun, lots []drawer.Lot) {
	f := p.Form
	switch p.Way {
	case fromThings:
		p.Thing = form.ThingFieldsOf(f, 0, b.in.Things[0])
		openFields(f, &p.Thing, b.open)
		kinds := []form.Choice{{Value: "", Label: "first kind that fits"}}
		for _, st := range style.Boxes() {
			kinds = append(kinds, form.Choice{Value: st.ID, Label: st.Name})
		}
		p.Kind = f.ChoiceField("kind", "In which kind of box", "you can change it later", "", kinds...)
	case fromSize, forABox:
		p.sizes(b)
	case fromSheet:
		p.Sheet = form.SheetFieldsOf(f, lots, b.asked)
		p.Fixed = form.FixedFields(f, p.Style)
	}
	if p.Way != fromThings && p.Way != fromFile {
		p.Name = f.Control("name", "Name of the box", "so you can find it later", "")
		for _, st := range kindsFor(p.Way) {
			sketch := s.Sketched(ctx, design.New("", f.Unit, st.ID))
			p.Styles = append(p.Styles, styleTile{st.ID, st.Name, st.About, sketch.Picture, st == p.Style})
		}
	}
	if p.Way != fromSheet && p.Way != fromFile {
		p.Cut = form.CutFields(f, lots, usualSheets(f.Unit), design.UsualSheets(f.Unit))
	}
	if r, err := design.Sketch(b.in); f.OK() && err == nil && p.Way != fromFile {
		p.Preview = page.FilledPicture(r.Bare())
		unit := r.Inputs.Units
		p.Changed = b.changed
		p.Others = otherWays(f, b.others)
		p.Example = b.example()
		p.Says = append([]string{kindName(r) + ", cut from " + sheetNames(r.Inputs.Sheets) + ".",
			"Inside " + r.Inside.FreeIn(unit) + ", outside " + r.Outside.TakenIn(unit) + "."}, b.says...)
	}
}

// kindName is that of a box's kind, and how many equal ones it has.
func kindName(b *design.Built) string {
	if n := b.Box.Room.Times; n > 1 && b.Style.Several != nil {
		return fmt.Sprintf("%s × %d", b.Style.Name, n)
	}
	return b.Style.Name
}

// otherWays are links to the page with another kind chosen.
func otherWays(f *form.Form, others []design.Beginning) []otherWay {
	var out []otherWay
	for _, o := range others {
		q := maps.Clone(f.Posted)
		name := "kind"
		if q.Get("start") == fromSize {
			name = "style"
			q.Set("was", q.Get("style"))
		}
		q.Set(name, o.Inputs.Style)
		out = append(out, otherWay{"/new?" + q.Encode(), kindName(o.Built), page.FilledPicture(o.Built.Bare())})
	}
	return out
}

// usualSheets names what a box is cut from when nothing is chosen.
func usualSheets(unit measure.Unit) string { return sheetNames(design.UsualSheets(unit)) }

func sheetNames(all []paper.Sheet) string {
	var out string
	for i, s := range all {
		if i > 0 {
			out += " or "
		}
		out += s.Name
	}
	return out
}

// sizes readies the sizes of the chosen style.
func (p *newPage) sizes(b begun) {
	f, tick := p.Form, p.Form.Unit.Tick()
	for _, x := range p.Style.Parameters {
		if p.Style.IsAxis(x.ID) {
			p.Size = append(p.Size, f.LengthField("size."+x.ID, x.Label, x.About, x.Usual(tick)))
		} else if x.Follows == nil && x.Only == nil {
			p.More = append(p.More, f.LengthField("size."+x.ID, x.Label, x.About, x.Usual(tick)))
		}
	}
	if p.Way != forABox { // an inside is what is measured
		p.Basis = form.BasisField(f, b.in.Basis)
	}
}

// carry moves the typed sizes of one style to the fields of another, by what
// they mean. What stood there by itself is left for the other's own.
func carry(f *form.Form, was, now *style.Style) {
	posted := f.Posted
	var typed [3]string
	for i, p := range was.Axes {
		if v := posted.Get("size." + p.ID); v != measure.Field(p.Usual(f.Unit.Tick()), f.Unit) {
			typed[i] = v
		}
	}
	for _, p := range was.Parameters {
		posted.Del("size." + p.ID)
	}
	for _, i := range now.Own() {
		if typed[i] != "" {
			posted.Set("size."+now.Axes[i].ID, typed[i])
		}
	}
}
