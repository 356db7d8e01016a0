package workspace

import (
	"context"
	"fmt"
	"html/template"
	"slices"
	"strings"
	"sync"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// workPage is the workspace at one stop. Result is nil when the stored design
// cannot be worked out; the page then shows why and its fields.
type workPage struct {
	page.Chrome
	Box    boxshelf.Box
	At     int
	Form   *form.Form
	Result *design.Result
	Tape   []tapeStop
	ticks  map[string]string
	room   *room
	Done   int
	Steps  []stepView

	InLines          bool // prints leave the colours of papers out
	Heading, Decides string
	Name, NameFault  string
	Next             *stop // the page after this one
	Verdict          string
	Band             template.HTML // the drawing in small, for a narrow screen

	// The fields of this stop.
	Goods               contentsView
	Fields, More, Tools []form.Field
	Card                form.CardView
	Shelf               []paper.Card // of cards and papers to choose from
	lots                []drawer.Lot // in the drawer
	Cards               []pieceCard
	Styles              []styleTile
	StyleFault          string
	Allowance           form.Field
	Typed               bool
	Bare                string
	OtherBoard          string // that the box could be fitted to
	Dressings           []dressView
	Dressable           []dressable
	Loose               []looseView
	Bands               []bandView
	Round               goodsView
	Closures            []closureView
	Supplies            []page.SupplyLine // held against the cupboard
	SuppliesWorth       string
	Lessons, Reckoned   []leanView // of the logbook
	Labels              []labelView
	MayClose            string // the flap that can be held shut, if any
	LooseChoices        []looseChoice
	SheetKinds          []form.Choice
	SheetsFault         string
	Own                 []ownView
	ReadySteps          []readyStep
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
	Group       string
	Picture     template.HTML
}

type styleTile struct {
	ID, Name, About, Cost string
	Picture               template.HTML
	Chosen                bool
	// Problem says in half a line that it does not go, and Why in full.
	Problem, Why string
}

// Hidden reports whether a kind makes no sense for what goes in, and is not the
// one that is chosen.
func (t styleTile) Hidden() bool { return t.Problem != "" && !t.Chosen }

// NotGoing is how many kinds are hidden.
func (p *workPage) NotGoing() int {
	n := 0
	for _, t := range p.Styles {
		if t.Hidden() {
			n++
		}
	}
	return n
}

// pieceCard is the card of one piece.
type pieceCard struct {
	Name string
	Card form.CardView
}

// Refusals are what the page's fields could not take, and Cures what would help.
func (p *workPage) Refusals() []form.Refusal { return p.Form.Refusals() }
func (p *workPage) Cures() []design.Cure     { return p.Form.Cures }

// frame fills in what stands round every page of the work.
func (p *workPage) frame() {
	here := stops[p.At]
	p.Heading, p.Decides, p.Name = here.Title, here.Decides, p.Box.Name
	if p.At+1 < len(stops) {
		p.Next = &stops[p.At+1]
	}
	if text, wrong := p.Form.Faults["name"]; wrong {
		p.NameFault, p.Name = text, p.Form.Control("name", "Name of the box", "", p.Box.Name).Value
	}
	if p.Result == nil {
		return
	}
	p.steps()
	p.tape()
	if here.ID != "sheets" && here.ID != "making" {
		p.Band = page.Draw(&p.room.Drawn, p.Result, "small", func() template.HTML { return page.BoxPicture(p.Result, "small") })
	}
	said := []string{}
	for _, t := range p.Tape[:len(p.Tape)-1] {
		said = append(said, t.Answer)
	}
	p.Verdict = fmt.Sprintf("Inside %s. %s. %s", p.Inside(), strings.Join(said, "; "), verdictWords[inspect.Worst(p.Result.Checks)])
}

// verdictWords say aloud how a box stands.
var verdictWords = map[inspect.Verdict]string{
	inspect.OK: "Nothing is wrong.", inspect.Warn: "There is something to check.", inspect.Fail: "There is a fault: do not cut yet.",
}

// prepare fills in what the page shows.
func (p *workPage) prepare() {
	p.frame()
	in, f := &p.Box.Inputs, p.Form
	switch stops[p.At].ID {
	case "contents":
		p.contents(in, f)
	case "box":
		p.box(in, f)
	case "fit":
		p.fit(in, f)
	case "dressing":
		p.dressing(in, f)
	case "making":
		p.ownSteps(in, f)
	case "sheets":
		p.Fields = []form.Field{
			f.Control("copies", "How many boxes", "the pieces of all of them are laid out together", fmt.Sprint(in.Copies)),
		}
		p.Tools = []form.Field{f.LengthField("tools.trimmer", "Longest cut of the trimmer", "usually 12 in or 30.5 cm", in.Tools.Trimmer)}
		p.SheetsFault = f.Group("sheets", "Sheets to cut from", "f-sheets")
		for _, s := range paper.Standard {
			p.SheetKinds = append(
				p.SheetKinds,
				form.Choice{
					Value:  s.Name,
					Label:  s.Name,
					Chosen: slices.ContainsFunc(in.Sheets, func(x paper.Sheet) bool { return x.Name == s.Name }),
				},
			)
		}
	}
}

func (p *workPage) box(in *design.Inputs, f *form.Form) {
	if f.Faults["style"] != "" {
		p.refusedStyle(in, f)
	}
	s, err := style.ByID(in.Style)
	if err != nil {
		return
	}
	value := func(id string, usual measure.Length) measure.Length {
		if p.Result != nil && in.Basis == design.Scored {
			return p.Result.Spec.Lengths[id]
		}
		if v, ok := in.Size[id]; ok {
			return v
		}
		return usual
	}
	for _, x := range s.Parameters {
		if len(in.Things) > 0 && s.IsAxis(x.ID) || p.Result != nil && !x.Counts(p.Result.Spec) {
			continue
		}
		p.Fields = append(p.Fields, f.LengthField("size."+x.ID, x.Label, x.About, value(x.ID, x.Usual(in.Tools.Tick))))
	}
	if len(in.Things) == 0 {
		p.Fields = append(p.Fields, form.BasisField(f, in.Basis))
	}
	for _, o := range s.Options {
		if o.ForFit {
			continue
		}
		if o.Kind == style.LengthKind {
			v := o.Usual(in.Tools.Tick)
			if p.Result != nil {
				v = p.Result.Spec.Lengths[o.ID]
			}
			p.Fields = append(p.Fields, f.LengthField("options."+o.ID, o.Label, o.About, v))
			continue
		}
		p.More = append(p.More, optionField(f, in, o))
	}
	if !in.Units.Marks(in.Tools.Tick) {
		p.OtherBoard = map[measure.Unit]string{measure.In: "an inch", measure.CM: "a centimetre", measure.MM: "a millimetre"}[in.Units]
	}
	p.Card = f.CardView("card", in.Card, p.Shelf)
	if p.Result != nil && len(p.Result.Parts) > 1 {
		for _, part := range p.Result.Parts {
			if part.Loose {
				continue
			}
			p.Cards = append(p.Cards, pieceCard{part.Name, f.CardView("cards."+part.ID, in.CardOf(part.ID), p.Shelf)})
		}
	}
	p.Tools = []form.Field{
		f.LengthField("options.tick", "Board's grooves are", "apart", in.Tools.Tick.Length()),
		f.ChoiceField("tools.fence", "Its fence is on the", "", string(in.Tools.Fence), form.Plain("left", "right")...),
	}
}

// refusedStyle shows the kind of box that was asked for and cannot be.
func (p *workPage) refusedStyle(in *design.Inputs, f *form.Form) {
	asked := f.Posted.Get("style")
	name := func(id string) string {
		i := slices.IndexFunc(p.Styles, func(t styleTile) bool { return t.ID == id })
		if i < 0 {
			return id
		}
		return p.Styles[i].Name
	}
	p.StyleFault = f.GroupOf("style", "Kind of box", "style-"+asked, name(asked), name(in.Style))
	for i := range p.Styles {
		p.Styles[i].Chosen = p.Styles[i].ID == asked
	}
}

func optionField(f *form.Form, in *design.Inputs, o *style.Option) form.Field {
	chosen := in.Choices[o.ID]
	if chosen == "" {
		chosen = o.DefaultChoice
	}
	return f.ChoiceField("options."+o.ID, o.Label, o.About, chosen, form.Plain(o.Choices...)...)
}

// tiles draws every style for the present contents or size, with what each
// costs in card, always in the catalogue's order. The styles do not wait for
// one another, and what is not reached in a page's time says so.
func (p *workPage) tiles(ctx context.Context, in *design.Inputs) []styleTile {
	ctx, stop := context.WithTimeout(ctx, page.PageTakes)
	defer stop()
	styles := style.Listed()
	if len(in.Things) > 0 {
		styles = style.Boxes()
	}
	out := make([]styleTile, len(styles))
	var all sync.WaitGroup
	for i, s := range styles {
		all.Go(func() { out[i] = p.tile(ctx, in, s) })
	}
	all.Wait()
	return out
}

// problemWords says in half a line why a style does not go.
func problemWords(f *fault.Fault) string {
	switch f.Code {
	case fault.LargerThanSheet:
		return "too large for the sheets"
	case fault.LargerThanTrimmer:
		return "too long for the trimmer"
	}
	return "does not go at this size"
}

func (p *workPage) tile(ctx context.Context, in *design.Inputs, s *style.Style) styleTile {
	t := styleTile{ID: s.ID, Name: s.Name, About: s.About, Chosen: s.ID == in.Style}
	var now *design.Built
	if p.Result != nil {
		now = &p.Result.Built
	}
	with, err := in.With(s.ID, now)
	with.Copies, with.Name = 1, ""
	sketch := page.Sketch{}
	if err == nil {
		sketch = p.room.Sketched(ctx, with)
	} else {
		sketch.Fault = fault.Of(err)
	}
	if sketch.Late {
		t.Problem, t.Why = "not tried yet", "There was no time to try this one: load the page again."
		return t
	}
	if sketch.Fault != nil {
		t.Problem, t.Why = problemWords(sketch.Fault), sketch.Fault.Text
		return t
	}
	t.Picture, t.Cost = sketch.Picture, cardCost(sketch.Card, in.Units)
	return t
}

// cardCost is the area of a box's blanks, for comparing styles.
func cardCost(area float64, unit measure.Unit) string {
	if unit == measure.In {
		return fmt.Sprintf("%.0f sq in of card", area/645.16)
	}
	return fmt.Sprintf("%.0f cm² of card", area/100)
}

func (p *workPage) fit(in *design.Inputs, f *form.Form) {
	s, err := style.ByID(in.Style)
	if err != nil || s.Allowance == nil {
		return
	}
	if p.Result != nil {
		p.Bare = bare(p.Result)
	}
	o := s.Allowance
	_, p.Typed = in.Lengths[o.ID]
	if v := f.Posted.Get("allowance"); v != "" {
		p.Typed = v == "typed"
	}
	used := o.Usual(in.Tools.Tick)
	if p.Result != nil {
		used = p.Result.Spec.Lengths[o.ID]
	}
	p.Allowance = f.LengthField("options."+o.ID, o.Label, o.About, used)
	p.Fields = []form.Field{f.ChoiceField("fit", "It should be", "", string(in.Fit), fitChoices()...)}
	for _, o := range s.Options {
		switch {
		case !o.ForFit || o == s.Allowance:
		case o.Kind == style.ChoiceKind:
			p.Fields = append(p.Fields, optionField(f, in, o))
		default:
			v := o.Usual(in.Tools.Tick)
			if p.Result != nil {
				v = p.Result.Spec.Lengths[o.ID]
			}
			p.More = append(p.More, f.LengthField("options."+o.ID, o.Label, o.About, v))
		}
	}
}

func fitChoices() []form.Choice {
	words := map[fit.Verdict]string{
		fit.Grips: "gripping: stays on when shaken", fit.Snug: "snug: slides with a little air",
		fit.Easy: "easy: on and off with one hand", fit.Loose: "loose: drops over",
	}
	var out []form.Choice
	for _, v := range fit.Wanted {
		out = append(out, form.Choice{Value: string(v), Label: words[v]})
	}
	return out
}

// steps marks the steps that are ticked; a tick put against other numbers is
// stale and does not count.
func (p *workPage) steps() {
	p.Steps, p.Done = stepViews(p.Result.Steps, p.ticks)
	if stops[p.At].ID != "making" {
		return
	}
	pictures := page.MovePictures(&p.room.Drawn, p.Result)
	for i := range p.Steps {
		p.Steps[i].Picture = pictures[p.Steps[i].Key]
	}
}

// Key is what holds for all steps, said once.
func (p *workPage) Key() string { return recipe.Key(p.Box.Inputs.Units) }

// stepViews are steps with what is ticked off of them, under what they belong to, and how
// many are done.
func stepViews(steps []recipe.Step, kept map[string]string) (out []stepView, done int) {
	ticks, group := recipe.Ticked(steps, kept), ""
	for _, s := range steps {
		mark := ticks[s.Key]
		v := stepView{Step: s, Done: mark == s.Mark, Stale: mark != "" && mark != s.Mark}
		if s.Group != group {
			v.Group, group = s.Group, s.Group
		}
		if v.Done {
			done++
		}
		out = append(out, v)
	}
	return out, done
}

// stopOf says at which stop a check's matter is settled.
func stopOf(check string) string {
	switch {
	case strings.HasPrefix(check, "fit"):
		return "fit"
	case check == "sheets", check == "trimmer":
		return "sheets"
	}
	return "box"
}

func (p *workPage) tape() {
	r := p.Result
	for i, s := range stops {
		t := tapeStop{ID: s.ID, Title: s.Title, Current: i == p.At, Verdict: inspect.OK}
		var here []inspect.Finding
		for _, c := range r.Checks {
			if stopOf(c.ID) == s.ID {
				here = append(here, c)
			}
		}
		t.Verdict = inspect.Worst(here)
		switch s.ID {
		case "contents":
			t.Answer = r.Filling()
			if t.Answer == "" {
				t.Answer = "by its size"
			}
		case "box":
			t.Answer = r.Style.Name
		case "fit":
			t.Answer = "nothing to fit"
			if tightest, some := r.Tightest(); some {
				t.Answer = string(tightest.Verdict)
			}
		case "dressing":
			t.Answer = dressingAnswer(r)
		case "sheets":
			t.Answer = sheetsAnswer(r)
		case "making":
			t.Answer = fmt.Sprintf("%d of %d done", p.Done, len(p.Steps))
		}
		p.Tape = append(p.Tape, t)
	}
}

func sheetsAnswer(r *design.Result) string {
	sheets, used := 0, 0.0
	for _, s := range r.Stocks {
		sheets += len(s.Layout.Sheets)
		used += s.Layout.Used * float64(len(s.Layout.Sheets))
	}
	if sheets == 0 {
		return "none fit"
	}
	word := "sheets"
	if sheets == 1 {
		word = "sheet"
	}
	return fmt.Sprintf("%d %s, %.0f %%", sheets, word, 100*used/float64(sheets))
}

// dressingAnswer tells in half a line what dresses the box.
func dressingAnswer(r *design.Result) string {
	var parts []string
	for _, x := range []struct {
		n    int
		noun string
	}{{len(r.Mats), "paper"}, {len(r.Inputs.Covers), "covering"}, {len(r.Bands), "band"}, {len(r.Ribbons), "ribbon"}} {
		if x.n > 0 {
			parts = append(parts, page.Counted(x.n, x.noun))
		}
	}
	if r.Wrapped != nil {
		parts = append(parts, "wrapped")
	}
	if len(parts) == 0 {
		return "plain"
	}
	return strings.Join(parts[:min(2, len(parts))], ", ")
}
