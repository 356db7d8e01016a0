package workspace

import (
	"cmp"
	"context"
	"fmt"
	"html/template"
	"slices"
	"strconv"
	"strings"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/draw"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// contentsStop is where it is said what goes in, and how it stands.
var contentsStop = &stop{
	ID: "contents", Title: "What goes in", Decides: "Say what goes in the box and how it stands.",
	read: readContents, page: showContents, small: true, settles: []string{"load", "stack", "food", "child", "magnet", "candle", "heat"},
	answer: func(p *workPage) string {
		if len(p.Result.Inputs.Things) == 0 && p.Result.ByList() != "" {
			return "by your list"
		}
		return cmp.Or(p.Result.Filling(), "size typed in")
	},
}

type contentsPage struct {
	*workPage
	Goods contentsView
}

func showContents(ctx context.Context, frame *workPage) (any, error) {
	p := &contentsPage{workPage: frame}
	var err error
	if p.Goods.Kept, err = p.room.Store.Of(ctx).Things(ctx); err != nil {
		return nil, err
	}
	p.fill(&frame.Box.Inputs, frame.Form)
	return p, nil
}

// ThingPicture draws how the things stand.
func (p *contentsPage) ThingPicture() template.HTML {
	return page.SVG(draw.Contents(*p.Result.Stand, p.Box.Inputs.Things, p.Units, p.Box.Inputs.Tools.Tick))
}

// rooms is how many equal rooms the box has.
func (p *contentsPage) rooms() int {
	if p.Result == nil {
		return 1
	}
	return p.Result.Box.Room.Times
}

// readEach reads the list of what goes in each room; lines at its end that say nothing are left out.
func readEach(f *form.Form, in *design.Inputs) {
	if !f.Posted.Has("rooms") {
		return
	}
	lines := strings.Split(strings.ReplaceAll(f.Posted.Get("rooms"), "\r\n", "\n"), "\n")
	for i := range lines {
		lines[i] = strings.TrimSpace(lines[i])
	}
	for len(lines) > 0 && lines[len(lines)-1] == "" {
		lines = lines[:len(lines)-1]
	}
	in.Each = lines
	if len(lines) == 0 {
		in.Each = nil
	}
}

func readContents(f *form.Form, in *design.Inputs, now *design.Result) {
	readEach(f, in)
	for i := range in.Things {
		form.ReadThing(f, i, &in.Things[i])
	}
	if id, err := strconv.Atoi(f.Posted.Get("remove")); err == nil {
		left := slices.DeleteFunc(in.Things, func(t contents.Thing) bool { return t.ID == id })
		if len(left) < len(in.Things) {
			in.Things, in.Stand = left, ""
		}
	}
	if f.Posted.Get("add") != "" {
		in.Things = append(in.Things, form.NewThing(contents.Block))
		in.Stand = ""
	}
	switch f.Posted.Get("start") {
	case "things":
		if len(in.Things) == 0 {
			in.Things = []contents.Thing{form.NewThing(contents.Round)}
		}
	case "size":
		in.Things = nil
	}
	if len(in.Things) == 0 && now != nil && len(now.Inputs.Things) > 0 {
		// The box the things needed stays, as a size of its own.
		keepSize(in, now)
	}
	if len(in.Things) > 0 {
		for _, axis := range now.Style.Axes {
			delete(in.Size, axis.ID)
		}
	}
	if f.Posted.Has("stand") {
		in.Stand = f.Posted.Get("stand")
	}
	readInside(f, in)
	readLoad(f, in)
	if f.Posted.Has("parted") { // a way to stand in the cells that it asks for
		in.Stand = f.Posted.Get("stand")
	}
	if in.Stand == "best" {
		in.Stand = ""
	}
}

// readInside reads the compartments and linings.
func readInside(f *form.Form, in *design.Inputs) {
	old := in.Compartments
	if f.Posted.Has("compartments.per") {
		in.Compartments.Per = contents.Per(f.Posted.Get("compartments.per"))
		in.Compartments.As = design.As(f.Posted.Get("compartments.as"))
		in.Compartments.Along = f.Posted.Get("compartments.slots_up") == "along"
	}
	if in.Compartments.Per == contents.Together {
		in.Compartments = design.Compartments{}
	} else if in.Compartments.As == "" {
		in.Compartments.As = design.AsDividers
	}
	if old.Per != in.Compartments.Per || old.As != in.Compartments.As {
		in.Stand = "" // the ways to stand are others now
	}
	if f.Posted.Has("choosing-linings") {
		in.Linings = nil
		for _, l := range design.Linings {
			if slices.Contains(f.Posted["linings"], string(l)) {
				in.Linings = append(in.Linings, l)
			}
		}
	}
	f.Length("riser", &in.RiserHeight)
}

// contentsView is what the first stop shows beside its drawing.
type contentsView struct {
	Things       []form.ThingFields
	Ways         []way
	Account      []accountLine
	Wasted, Card string
	Per, As, Up  form.Field
	Linings      []form.Choice
	Each         []form.Field // the list of what goes in each room, where there are several
	Riser        form.Field
	Risen        bool
	Banded       bool // the dividers end in others; none slots into another
	Kept         []boxshelf.KeptThing
	loadFields
	Second []form.Field // of a set of two sizes, when one kind goes in
	Units  []measure.Unit
}

// way is one way for the things to stand.
type way struct {
	ID, Label, Cost string
	Picture         template.HTML
	Chosen          bool
}

type accountLine struct{ Text, Length, Width, Height string }

// mostWays is how many ways are shown to pick from.
const mostWays = 6

// fill makes the fields and the ways to stand.
func (p *contentsPage) fill(in *design.Inputs, f *form.Form) {
	v := &p.Goods
	for i, t := range in.Things {
		v.Things = append(v.Things, form.ThingFieldsOf(f, i, t))
	}
	if len(in.Things) == 1 {
		v.Second = setFields(f, in.Things[0])
	}
	c := in.Compartments
	v.Per = f.ChoiceField("compartments.per", "Cells", "", string(c.Per), form.Choice{Value: "", Label: "none: they share the box"},
		form.Choice{Value: "thing", Label: "one for each thing"}, form.Choice{Value: "kind", Label: "one for each kind"})
	v.As = f.ChoiceField(
		"compartments.as",
		"Made by",
		"",
		string(c.As),
		form.Choice{Value: "dividers", Label: "dividers"},
		form.Choice{Value: "trays", Label: "small trays side by side"},
		form.Choice{Value: "insert", Label: "a floor with a hole for each"},
	)
	up := "across"
	if c.Along {
		up = "along"
	}
	v.Up = f.ChoiceField("compartments.slots_up", "Slots that open upwards", "those strips go in first", up,
		form.Choice{Value: "across", Label: "in the strips across"}, form.Choice{Value: "along", Label: "in the strips along the length"})
	words := map[design.Lining]string{
		design.Stiffener: "a stiffener on the floor",
		design.Liner:     "a liner inside the walls",
		design.Riser:     "a riser, to lift what is in it",
	}
	for _, l := range design.Linings {
		v.Linings = append(v.Linings, form.Choice{Value: string(l), Label: words[l], Chosen: slices.Contains(in.Linings, l)})
	}
	if n := p.rooms(); n > 1 {
		v.Each = append(v.Each, f.Control("rooms", fmt.Sprintf("What goes in each of the %d", n), "a line for each: chocolate coin, or 24 Dec: chocolate coin", strings.Join(in.Each, "\n")))
		v.Each[0].Kind = "lines"
	}
	v.loadFields = loadFieldsOf(f, in)
	v.Riser = f.LengthField("riser", "It lifts by", "", in.RiserHeight)
	v.Risen = slices.Contains(in.Linings, design.Riser)
	if p.Result == nil || p.Result.Stand == nil {
		return
	}
	r := p.Result
	v.Banded = len(r.Stand.Bands) > 0
	for _, l := range r.Stand.Account {
		n := func(x measure.Length) string {
			if x == 0 {
				return "–"
			}
			return measure.Number(x, measure.MM, measure.Hundredth)
		}
		v.Account = append(v.Account, accountLine{l.Text, n(l.Length), n(l.Width), n(l.Height)})
	}
	v.Wasted = fmt.Sprintf("%.0f %% of the room they need is air", 100*wayOf(r).Wasted())
	best := r.Ways[0]
	for i, a := range r.Ways {
		chosen := a.ID == r.Stand.ID
		if i >= mostWays && !chosen {
			continue
		}
		w := way{
			ID: a.ID, Label: style.Extent{Length: a.Length, Width: a.Width, Height: a.Height}.TakenIn(in.Units), Chosen: chosen,
			Picture: page.SVG(draw.ContentsFromAbove(a.Arrangement, in.Things)),
		}
		if a.Layers > 1 {
			w.Label += fmt.Sprintf(", %d high", a.Layers)
		}
		switch {
		case a.Card == 0:
			w.Cost = "not in this box"
		case i == 0:
			w.Cost = cardArea(a.Card, in.Units) + " of card, the least"
		default:
			w.Cost = cardArea(a.Card-best.Card, in.Units) + " more"
		}
		if a.Card > 0 && !a.Goes {
			w.Cost += ", larger than the sheets"
		}
		w.Cost += fmt.Sprintf("; %.0f %% air", 100*a.Wasted())
		v.Ways = append(v.Ways, w)
	}
	v.Card = byHowMuch(r, in.Units)
}

// wayOf is the way the things stand, as it was chosen from the others.
func wayOf(r *design.Result) design.Way {
	i := slices.IndexFunc(r.Ways, func(w design.Way) bool { return w.ID == r.Stand.ID })
	return r.Ways[max(0, i)]
}

// byHowMuch says what the chosen way saves against the next.
func byHowMuch(r *design.Result, unit measure.Unit) string {
	if len(r.Ways) < 2 || r.Stand.ID != r.Ways[0].ID {
		return ""
	}
	// Its mirror image takes the same.
	for _, w := range r.Ways[1:] {
		if w.Card > r.Ways[0].Card {
			return fmt.Sprintf("The next way takes %s more card.", cardArea(w.Card-r.Ways[0].Card, unit))
		}
	}
	return ""
}

// cardArea writes an area in mm² for people who work in the unit.
func cardArea(area float64, unit measure.Unit) string {
	if unit == measure.In {
		return fmt.Sprintf("%.1f sq in", area/645.16)
	}
	return fmt.Sprintf("%.0f cm²", area/100)
}

// keepSize writes the sizes in force into the inputs.
func keepSize(in *design.Inputs, now *design.Result) {
	in.Basis, in.Stand = design.Scored, ""
	now.Style.Give(in.Size, now.Style.Along(now.Spec.Lengths))
}
