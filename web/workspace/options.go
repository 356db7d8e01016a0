package workspace

import (
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
	"brevium/web/form"
)

// readOwnCard reads the card of a piece that has the box's until another is given;
// nil is the box's.
func readOwnCard(f *form.Form, at string, own *paper.Card, box paper.Card) *paper.Card {
	card := box
	if own != nil {
		card = *own
	}
	shown := card
	f.ReadCard(at, &card)
	switch {
	case card == shown:
		return own
	case card == box:
		return nil
	}
	return &card
}

// readLength reads a length that follows from others until it is typed: as
// long as it is what was shown, it goes on following.
func readLength(f *form.Form, name string, into map[string]measure.Length, id string, shown measure.Length) {
	if !f.Posted.Has(name) {
		return
	}
	v, set := into[id]
	if !set {
		v = shown
	}
	if f.Length(name, &v); set || v != shown {
		into[id] = v
	}
}

func readOption(f *form.Form, in *design.Inputs, now *design.Result, o *style.Option, forFit bool) {
	name := "options." + o.ID
	if o.ForFit != forFit || !f.Posted.Has(name) {
		return
	}
	if o.Kind == style.LengthKind {
		readLength(f, name, in.Lengths, o.ID, now.Spec.Lengths[o.ID])
		return
	}
	if v := f.Posted.Get(name); v != o.DefaultChoice || in.Choices[o.ID] != "" {
		in.Choices[o.ID] = v
	}
}

func optionField(f *form.Form, in *design.Inputs, o *style.Option) form.Field {
	chosen := in.Choices[o.ID]
	if chosen == "" {
		chosen = o.DefaultChoice
	}
	return f.ChoiceField("options."+o.ID, o.Label, o.About, chosen, form.Plain(o.Choices...)...)
}
