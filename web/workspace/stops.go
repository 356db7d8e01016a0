package workspace

import (
	"slices"

	"brevium/core/design"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/web/form"
)

// stop is one of the pages along the work.
type stop struct {
	ID, Title string
	Decides   string // what is decided there, in a line
	// read changes the inputs by what was posted, noting faults in the form.
	read func(f *form.Form, in *design.Inputs, now *design.Result)
}

// stops in the order of the work.
var stops = []stop{
	{"contents", "What goes in", "Say what the box shall hold, and how it stands in it.", readContents},
	{"box", "Which box", "Choose the kind of box, its sizes and its card.", readBox},
	{"fit", "Will it fit", "Decide how easily one part goes over the other.", readFit},
	{"dressing", "Papers on top", "Say which faces get paper or card glued on, if any.", readDressing},
	{"sheets", "Sheets", "Say how many boxes you make, and which sheets you have.", readSheets},
	{"making", "Making", "Here is what to cut, score, fold and glue, in order.", readOwnSteps},
}

func stopByID(id string) (int, bool) {
	i := slices.IndexFunc(stops, func(s stop) bool { return s.ID == id })
	return i, i >= 0
}

// keepSize writes the sizes in force into the inputs.
func keepSize(in *design.Inputs, now *design.Result) {
	in.Basis, in.Stand = design.Scored, ""
	now.Style.Give(in.Size, now.Style.Along(now.Spec.Lengths))
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

func readFit(f *form.Form, in *design.Inputs, now *design.Result) {
	readLean(f, in)
	for _, o := range now.Style.Options {
		if o != now.Style.Allowance {
			readOption(f, in, now, o, true)
		}
	}
	if v := f.Posted.Get("fit"); v != "" {
		want, err := fit.ParseVerdict(v)
		if err != nil {
			f.Fail(err)
		}
		in.Fit = want
	}
	if now.Style.Allowance == nil {
		return
	}
	id := now.Style.Allowance.ID
	switch f.Posted.Get("allowance") {
	case "solve":
		delete(in.Lengths, id)
		f.Posted.Del("options." + id)
	case "typed":
		v := now.Spec.Lengths[id]
		f.Length("options."+id, &v)
		in.Lengths[id] = v
	}
}

func readSheets(f *form.Form, in *design.Inputs, _ *design.Result) {
	f.Whole("copies", &in.Copies)
	f.Length("tools.trimmer", &in.Tools.Trimmer)
	if f.Posted.Has("choosing-sheets") && !f.PutBack("sheets") {
		var chosen []paper.Sheet
		for _, s := range paper.Standard {
			if slices.Contains(f.Posted["sheets"], s.Name) {
				chosen = append(chosen, s)
			}
		}
		// Sheets of one's own are kept.
		for _, s := range in.Sheets {
			if _, standard := paper.SheetNamed(s.Name); !standard {
				chosen = append(chosen, s)
			}
		}
		in.Sheets = chosen
	}
}
