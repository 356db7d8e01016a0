package web

import (
	"fmt"
	"html/template"
	"slices"
	"strconv"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/draw"
	"brevium/store"
)

func thingName(i int, part string) string { return fmt.Sprintf("contents[%d].%s", i, part) }

// newThing is what an added row starts from.
func newThing(shape contents.Shape) contents.Thing {
	t := contents.Thing{Name: "Jar", Shape: shape, Length: 48 * measure.Millimetre, Width: 48 * measure.Millimetre,
		Height: 62 * measure.Millimetre, Count: 1, Ease: contents.UsualEase}
	if shape != contents.Round {
		t.Name = "Thing"
	}
	return t
}

func readContents(f *form, in *design.Inputs, now *design.Result) {
	for i := range in.Things {
		readThing(f, i, &in.Things[i])
	}
	if n, err := strconv.Atoi(f.posted.Get("remove")); err == nil && n >= 0 && n < len(in.Things) {
		in.Things = slices.Delete(in.Things, n, n+1)
		in.Stand = ""
	}
	if f.posted.Get("add") != "" {
		in.Things = append(in.Things, newThing(contents.Block))
		in.Stand = ""
	}
	switch f.posted.Get("start") {
	case "things":
		if len(in.Things) == 0 {
			in.Things = []contents.Thing{newThing(contents.Round)}
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
	if f.posted.Has("stand") {
		in.Stand = f.posted.Get("stand")
		if in.Stand == "best" {
			in.Stand = ""
		}
	}
	readInside(f, in)
}

// readInside reads the compartments and linings.
func readInside(f *form, in *design.Inputs) {
	old := in.Compartments
	if f.posted.Has("compartments.per") {
		in.Compartments.Per = contents.Per(f.posted.Get("compartments.per"))
		in.Compartments.As = design.As(f.posted.Get("compartments.as"))
		in.Compartments.Along = f.posted.Get("compartments.slots_up") == "along"
	}
	if in.Compartments.Per == contents.Together {
		in.Compartments = design.Compartments{}
	} else if in.Compartments.As == "" {
		in.Compartments.As = design.AsDividers
	}
	if old.Per != in.Compartments.Per || old.As != in.Compartments.As {
		in.Stand = "" // the ways to stand are others now
	}
	if f.posted.Has("choosing-linings") {
		in.Linings = nil
		for _, l := range design.Linings {
			if slices.Contains(f.posted["linings"], string(l)) {
				in.Linings = append(in.Linings, l)
			}
		}
	}
	f.length("riser", &in.RiserHeight)
}

func readThing(f *form, i int, t *contents.Thing) {
	name := func(part string) string { return thingName(i, part) }
	old, shape := *t, string(t.Shape)
	f.text(name("name"), &t.Name)
	f.text(name("shape"), &shape)
	t.Shape = contents.Shape(shape)
	for part, into := range map[string]*measure.Length{"length": &t.Length, "width": &t.Width, "height": &t.Height, "ease": &t.Ease, "each": &t.Each, "raised": &t.Raised} {
		f.length(name(part), into)
	}
	f.whole(name("count"), &t.Count)
	f.whole(name("cards"), &t.Cards)
	f.whole(name("squeeze"), &t.Squeeze)
	f.grams(name("grams"), &t.Grams)
	if t.Shape == contents.Round {
		t.Width = t.Length
	}
	if t.Shape != old.Shape && t.Ease == contents.UsualEaseOf(old.Shape) {
		t.Ease = contents.UsualEaseOf(t.Shape)
		f.posted.Del(name("ease"))
	}
	if f.posted.Has(name("more")) {
		t.Fragile, t.PullOut = f.posted.Has(name("fragile")), f.posted.Has(name("pull_out"))
		t.Up = []contents.Side{}
		for _, s := range contents.Sides {
			if slices.Contains(f.posted[name("up")], string(s)) {
				t.Up = append(t.Up, s)
			}
		}
	}
	if old.Count != t.Count || old.Fragile != t.Fragile || !slices.Equal(old.Up, t.Up) {
		f.posted.Set("stand", "best") // the ways to stand are others now
	}
}

// thingFields are the controls of one thing.
type thingFields struct {
	N                                  int
	Name, Shape, Length, Width, Height field
	Count, Ease, Grams                 field
	Squeeze, Cards, Each, Raised       field
	Up                                 []choice
	UpName, UpFault, MoreName          string
	FragileName, PullOutName           string
	Fragile, PullOut                   bool
	Round, Soft, Stack                 bool
}

func fieldsOf(f *form, i int, t contents.Thing) thingFields {
	name := func(part string) string { return thingName(i, part) }
	x := thingFields{
		N:    i,
		Name: f.control(name("name"), "What is it?", "", t.Name),
		Shape: f.choiceField(name("shape"), "Shape", "", string(t.Shape), choice{Value: "round", Label: "round: a jar, a tin, a ball"}, choice{Value: "block", Label: "a block"},
			choice{Value: "stack", Label: "a stack of cards"}, choice{Value: "soft", Label: "flat and soft: cloth, wool"}, choice{Value: "irregular", Label: "no plain shape"}),
		Width:   f.lengthField(name("width"), "Width", "front to back", t.Width),
		Height:  f.lengthField(name("height"), "Height", "as it will stand", t.Height),
		Count:   f.control(name("count"), "How many", "", fmt.Sprint(t.Count)),
		Ease:    f.lengthField(name("ease"), "Ease", "room to spare on each axis, in all; 2 to 3 mm for rigid things", t.Ease),
		Grams:   f.control(name("grams"), "Weight of one, grams", "if you know it", ""),
		Squeeze: f.control(name("squeeze"), "Squeeze, %", "how much of its loose height a gentle hand presses out", fmt.Sprint(t.Squeeze)),
		Cards:   f.control(name("cards"), "Cards in the stack", "0 to go by its height", fmt.Sprint(t.Cards)),
		Each:    f.lengthField(name("each"), "One card, with envelope", "measure ten and divide", t.Each),
		Raised:  f.lengthField(name("raised"), "Raised by decoration", "0 for flat cards", t.Raised),
		UpName:  name("up"), UpFault: f.faults[name("up")], MoreName: name("more"), FragileName: name("fragile"), PullOutName: name("pull_out"),
		Fragile: t.Fragile, PullOut: t.PullOut,
	}
	f.placed[name("up")] = true
	x.Round, x.Soft, x.Stack = x.Shape.Value == string(contents.Round), x.Shape.Value == string(contents.Soft), x.Shape.Value == string(contents.Stack)
	for part, shown := range map[string]bool{"squeeze": x.Soft, "cards": x.Stack, "each": x.Stack, "raised": x.Stack, "width": !x.Round} {
		if !shown {
			delete(f.placed, name(part))
		}
	}
	label, hint := "Length", "left to right"
	if x.Round {
		label, hint = "Across", "the widest place"
	}
	x.Length = f.lengthField(name("length"), label, hint, t.Length)
	if t.Grams > 0 && !f.posted.Has(name("grams")) {
		x.Grams.Value = fmt.Sprintf("%g", t.Grams)
	}
	up := t.Up
	if up == nil {
		up = []contents.Side{contents.HeightUp}
	}
	for _, s := range contents.Sides {
		if x.Round && s == contents.WidthUp {
			continue
		}
		words := sideWords[s]
		if x.Round && s == contents.LengthUp {
			words = "lying"
		}
		x.Up = append(x.Up, choice{Value: string(s), Label: words, Chosen: slices.Contains(up, s)})
	}
	return x
}

var sideWords = map[contents.Side]string{contents.HeightUp: "as measured", contents.WidthUp: "on its long side", contents.LengthUp: "on its end"}

// contentsView is what the first stop shows beside its drawing.
type contentsView struct {
	Things       []thingFields
	Ways         []way
	Account      []accountLine
	Wasted, Card string
	Per, As, Up  field
	Linings      []choice
	Riser        field
	Risen        bool
	Kept         []store.KeptThing
	Units        []measure.Unit
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

func (p *workPage) contents(in *design.Inputs, f *form) {
	v := &p.Goods
	for i, t := range in.Things {
		v.Things = append(v.Things, fieldsOf(f, i, t))
	}
	c := in.Compartments
	v.Per = f.choiceField("compartments.per", "Cells", "", string(c.Per), choice{Value: "", Label: "none: they share the box"},
		choice{Value: "thing", Label: "one for each thing"}, choice{Value: "kind", Label: "one for each kind"})
	v.As = f.choiceField("compartments.as", "Made by", "", string(c.As), choice{Value: "dividers", Label: "dividers that slot together"},
		choice{Value: "trays", Label: "small trays side by side"}, choice{Value: "insert", Label: "a floor with a hole for each"})
	up := "across"
	if c.Along {
		up = "along"
	}
	v.Up = f.choiceField("compartments.slots_up", "Slots that open upwards", "those strips go in first", up,
		choice{Value: "across", Label: "in the strips across"}, choice{Value: "along", Label: "in the strips along the length"})
	words := map[design.Lining]string{design.Stiffener: "a stiffener on the floor", design.Liner: "a liner inside the walls", design.Riser: "a riser, to lift what is in it"}
	for _, l := range design.Linings {
		v.Linings = append(v.Linings, choice{Value: string(l), Label: words[l], Chosen: slices.Contains(in.Linings, l)})
	}
	v.Riser = f.lengthField("riser", "It lifts by", "", in.RiserHeight)
	v.Risen = slices.Contains(in.Linings, design.Riser)
	if p.Result == nil || p.Result.Stand == nil {
		return
	}
	r := p.Result
	for _, l := range r.Stand.Account {
		n := func(x measure.Length) string {
			if x == 0 {
				return "–"
			}
			return measure.Number(x, measure.MM, measure.Millimetre/100)
		}
		v.Account = append(v.Account, accountLine{l.Text, n(l.Length), n(l.Width), n(l.Height)})
	}
	v.Wasted = fmt.Sprintf("%.0f %% of the inside is air", 100*r.Stand.Wasted())
	best := r.Ways[0]
	for i, a := range r.Ways {
		chosen := a.ID == r.Stand.ID
		if i >= mostWays && !chosen {
			continue
		}
		w := way{
			ID: a.ID, Label: roomLine(style.Extent{Length: a.Length, Width: a.Width, Height: a.Height}, in), Chosen: chosen,
			Picture: svg(draw.ContentsFromAbove(a.Arrangement, in.Things)),
		}
		if a.Layers > 1 {
			w.Label += fmt.Sprintf(", %d high", a.Layers)
		}
		switch {
		case a.Card == 0:
			w.Cost = "not in this box"
		case i == 0:
			w.Cost = areaOf(a.Card, in.Units) + " of card, the least"
		default:
			w.Cost = areaOf(a.Card-best.Card, in.Units) + " more"
		}
		if a.Card > 0 && !a.Goes {
			w.Cost += ", larger than the sheets"
		}
		w.Cost += fmt.Sprintf("; %.0f %% air", 100*a.Wasted())
		v.Ways = append(v.Ways, w)
	}
	v.Card = byHowMuch(r, in.Units)
}

// byHowMuch says what the chosen way saves against the next.
func byHowMuch(r *design.Result, unit measure.Unit) string {
	if len(r.Ways) < 2 || r.Stand.ID != r.Ways[0].ID {
		return ""
	}
	// Its mirror image takes the same.
	for _, w := range r.Ways[1:] {
		if w.Card > r.Ways[0].Card {
			return fmt.Sprintf("The next way takes %s more card.", areaOf(w.Card-r.Ways[0].Card, unit))
		}
	}
	return ""
}

// areaOf writes an area in mm² for people who work in the unit.
func areaOf(area float64, unit measure.Unit) string {
	if unit == measure.In {
		return fmt.Sprintf("%.1f sq in", area/645.16)
	}
	return fmt.Sprintf("%.0f cm²", area/100)
}

// roomLine writes a room rounded up to the tick: "3 7/8 × 3 7/8 × 2 9/16 in".
func roomLine(e style.Extent, in *design.Inputs) string {
	n := func(l measure.Length) string {
		return measure.Number(measure.Up(l, in.Tools.Tick), in.Units, in.Tools.Tick)
	}
	return fmt.Sprintf("%s × %s × %s %s", n(e.Length), n(e.Width), n(e.Height), in.Units)
}
