package workspace

import (
	"context"
	"slices"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/web/form"
)

// boxStop is where the kind of box, its sizes and its card are chosen.
var boxStop = &stop{
	ID: "box", Title: "Which box", Decides: "Choose the kind of box, its sizes and its card.",
	read: readBox, page: showBox, settlesRest: true, small: true,
	answer: func(p *workPage) string { return p.Result.Style.Name },
}

type boxPage struct {
	*workPage
	Fields, More, Tools []form.Field
	Card                form.CardView
	Cards               []pieceCard
	Shelf               []paper.Card // to choose from
	Kinds               kindsView
	StyleFault          string
	OtherBoard          string // that the box could be fitted to
}

func showBox(ctx context.Context, frame *workPage) (any, error) {
	lots, err := frame.room.Store.Of(ctx).Lots(ctx)
	if err != nil {
		return nil, err
	}
	in := &frame.Box.Inputs
	p := &boxPage{workPage: frame, Shelf: shelf(in, lots)}
	p.Kinds = p.kinds(ctx, in)
	p.fill(in, frame.Form)
	return p, nil
}

// pieceCard is the card of one piece.
type pieceCard struct {
	Name string
	Card form.CardView
}

// fill makes the fields.
func (p *boxPage) fill(in *design.Inputs, f *form.Form) {
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
	p.More = append(p.More, glueFields(f, p.Result)...)
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
func (p *boxPage) refusedStyle(in *design.Inputs, f *form.Form) {
	asked := f.Posted.Get("style")
	name := func(id string) string {
		if s, err := style.ByID(id); err == nil {
			return s.Name
		}
		return id
	}
	p.StyleFault = f.GroupOf("style", "Kind of box", "style-"+asked, name(asked), name(in.Style))
}

func readBox(f *form.Form, in *design.Inputs, now *design.Result) {
	if id := f.Posted.Get("style"); id != "" && id != in.Style {
		said, err := in.Carry(id, &now.Built)
		if err != nil {
			f.Fail(err)
		}
		f.Notes = append(f.Notes, said...)
		if f.Posted.Get("from") == "drawer" {
			readCards(f, in, now)
		}
		return // the other fields were those of the old style
	}
	for _, p := range now.Style.Parameters {
		name := "size." + p.ID
		shown := now.Spec.Lengths[p.ID]
		if in.Basis != design.Scored {
			shown = p.Usual(in.Tools.Tick)
		}
		readLength(f, name, in.Size, p.ID, shown)
	}
	if b := design.Basis(f.Posted.Get("size.basis")); slices.Contains(design.Bases, b) {
		in.Basis = b
	}
	for _, o := range now.Style.Options {
		readOption(f, in, now, o, false)
	}
	readCards(f, in, now)
	readGrain(f, in, now)
	readGlue(f, in)
	tick := in.Tools.Tick.Length()
	f.Length("options.tick", &tick)
	in.Tools.Tick = measure.Tick(tick)
	if v := recipe.Fence(f.Posted.Get("tools.fence")); v == recipe.Left || v == recipe.Right {
		in.Tools.Fence = v
	}
	following(f, in, now)
}

// following forgets what was posted of values that follow from others and were
// not typed: their fields show what they follow to.
func following(f *form.Form, in *design.Inputs, now *design.Result) {
	if !f.OK() {
		return
	}
	for _, p := range now.Style.Parameters {
		if _, typed := in.Size[p.ID]; !typed {
			f.Posted.Del("size." + p.ID)
		}
	}
	for _, o := range now.Style.Options {
		if _, typed := in.Lengths[o.ID]; !typed && o.Kind == style.LengthKind {
			f.Posted.Del("options." + o.ID)
		}
	}
	for _, p := range now.Parts {
		if _, own := in.Cards[p.ID]; !own {
			f.ForgetCard("cards." + p.ID)
		}
	}
}

// readCards reads the box's card and those of single pieces, which follow the
// box's until they are typed.
func readCards(f *form.Form, in *design.Inputs, now *design.Result) {
	before := in.Card
	f.ReadCard("card", &in.Card)
	for _, p := range now.Parts {
		if p.Loose {
			continue
		}
		own, has := in.Cards[p.ID]
		if !has {
			own = before
		}
		shown := own
		if f.ReadCard("cards."+p.ID, &own); own == shown {
			continue
		}
		in.Cards[p.ID] = own
		if own == in.Card {
			delete(in.Cards, p.ID)
		}
	}
}
