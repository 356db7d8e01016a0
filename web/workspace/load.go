package workspace

import (
	"cmp"
	"fmt"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/web/form"
)

// loadFields ask what a box carries, how, and who gets it.
type loadFields struct {
	Grams, Rests, Carry, For form.Field
	Stacked, Humidity        form.Field
	Foot                     []form.Field
	Loaded                   bool
}

func loadFieldsOf(f *form.Form, in *design.Inputs) loadFields {
	l := in.Load
	grams, hint := "", "left empty, nothing is said of it"
	if l.Grams > 0 {
		grams = fmt.Sprintf("%g", l.Grams)
	}
	if goods := contents.Grams(in.Things); goods > 0 {
		hint = fmt.Sprintf("left empty, it is what goes in: %.0f g", goods)
	}
	rests := "spread"
	if l.One {
		rests = "one"
	}
	v := loadFields{
		Grams: f.Control("load.grams", "Weight of all that is in it, grams", hint, grams),
		Rests: f.ChoiceField("load.rests", "It rests", "", rests, form.Choice{Value: "spread", Label: "all over the floor"}, form.Choice{Value: "one", Label: "on one foot"}),
		Carry: f.ChoiceField("load.carry", "It is carried", "", string(cmp.Or(l.Carry, design.CarryWalls)),
			form.Choice{Value: string(design.CarryWalls), Label: "lifted by its walls"}, form.Choice{Value: string(design.CarryBelow), Label: "with a hand below"},
			form.Choice{Value: string(design.CarryTable), Label: "not at all: it stays on the table"}, form.Choice{Value: string(design.CarryHandle), Label: "by its handle"}),
		Stacked:  f.Control("load.stacked", "Stacked", "how many high; 1 stands alone", fmt.Sprint(max(1, l.Stacked))),
		Humidity: f.Control("load.humidity", "The air’s damp, %", "if you know it", empty(l.Humidity)),
		For: f.ChoiceField("for", "It is for", "", string(cmp.Or(in.For, design.Anyone)),
			form.Choice{Value: string(design.Anyone), Label: "anyone"}, form.Choice{Value: string(design.ChildUnder3), Label: "a child under 3"},
			form.Choice{Value: string(design.ChildFrom3), Label: "a child of 3 to 7"}),
		Loaded: l != (design.Load{}) || in.For != "",
	}
	if l.One {
		v.Foot = []form.Field{f.LengthField("load.foot[0]", "Its foot is long", "left to right", l.Foot[0]), f.LengthField("load.foot[1]", "and wide", "front to back", l.Foot[1])}
	}
	for _, x := range []form.Field{v.Grams, v.Stacked, v.Humidity} {
		v.Loaded = v.Loaded || x.Fault != ""
	}
	return v
}

// empty writes a number, and nothing for none.
func empty(n int) string {
	if n == 0 {
		return ""
	}
	return fmt.Sprint(n)
}

func readLoad(f *form.Form, in *design.Inputs) {
	l := &in.Load
	f.Grams("load.grams", &l.Grams)
	if v := f.Posted.Get("load.rests"); v != "" {
		l.One = v == "one"
	}
	for i := range l.Foot {
		f.Length(fmt.Sprintf("load.foot[%d]", i), &l.Foot[i])
	}
	if v := design.Carry(f.Posted.Get("load.carry")); v != "" && (v != design.CarryWalls || l.Carry != "") {
		l.Carry = v
	}
	if stacked := max(1, l.Stacked); f.Posted.Has("load.stacked") {
		f.Whole("load.stacked", &stacked)
		if stacked != max(1, l.Stacked) {
			l.Stacked = stacked
		}
	}
	if f.Posted.Get("load.humidity") == "" && f.Posted.Has("load.humidity") {
		l.Humidity = 0
	} else {
		f.Whole("load.humidity", &l.Humidity)
	}
	if v := design.Audience(f.Posted.Get("for")); v != "" {
		in.For = v
		if v == design.Anyone {
			in.For = ""
		}
	}
}

// Settled are the findings whose matter is settled at this stop.
func (p *workPage) Settled() []inspect.Finding {
	var out []inspect.Finding
	for _, f := range p.Findings() {
		if stopOf(f.ID) == p.Here {
			out = append(out, f)
		}
	}
	return out
}
