package web

import (
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
)

// stop is one of the stops along the work.
type stop struct {
	ID, Title string
	// read changes the inputs by what was posted, noting faults in the form.
	read func(f *form, in *design.Inputs, now *design.Result)
}

// stops in the order of the work.
var stops = []stop{
	{"contents", "What goes in", readContents},
	{"box", "Which box", readBox},
	{"fit", "Will it fit", readFit},
	{"dressing", "Dressing", readDressing},
	{"sheets", "Sheets", readSheets},
	{"making", "Making", func(*form, *design.Inputs, *design.Result) {}},
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

func readBox(f *form, in *design.Inputs, now *design.Result) {
	if id := f.posted.Get("style"); id != "" && id != in.Style {
		if len(in.Things) == 0 && in.Basis == design.Scored {
			keepSize(in, now)
		}
		if err := in.SetStyle(id); err != nil {
			f.fail(err)
		}
		if f.posted.Get("from") == "drawer" {
			readCard(f, in)
		}
		return // the other fields were those of the old style
	}
	for _, p := range now.Style.Parameters {
		name := "size." + p.ID
		if f.posted.Has(name) {
			v := now.Spec.Lengths[p.ID]
			f.length(name, &v)
			in.Size[p.ID] = v
		}
	}
	if b := design.Basis(f.posted.Get("size.basis")); slices.Contains(design.Bases, b) {
		in.Basis = b
	}
	for _, o := range now.Style.Options {
		readOption(f, in, now, o, false)
	}
	readCard(f, in)
	f.length("options.tick", &in.Tools.Tick)
	if v := recipe.Fence(f.posted.Get("tools.fence")); v == recipe.Left || v == recipe.Right {
		in.Tools.Fence = v
	}
}

// readCard reads the box's card; a new weight brings its thickness with it.
func readCard(f *form, in *design.Inputs) {
	old := in.Card
	f.text("card.name", &in.Card.Name)
	f.weight("card.gsm", &in.Card.GSM)
	f.lengthIn("card.thickness", measure.MM, &in.Card.Thickness)
	if in.Card.GSM != old.GSM && in.Card.Thickness == old.Thickness {
		in.Card.Thickness = paper.ThicknessOf(in.Card.GSM, paper.SmoothBulk)
		f.posted.Del("card.thickness")
	}
	if in.Card.Name == "" {
		in.Card.Name = design.UsualCard.Name
	}
	if d := paper.Direction(f.posted.Get("card.direction")); slices.Contains(paper.Directions, d) {
		in.Card.Direction = d
	}
}

func readOption(f *form, in *design.Inputs, now *design.Result, o *style.Option, forFit bool) {
	name := "options." + o.ID
	if o.ForFit != forFit || !f.posted.Has(name) {
		return
	}
	if o.Kind == style.LengthKind {
		v := now.Spec.Lengths[o.ID]
		f.length(name, &v)
		in.Lengths[o.ID] = v
		return
	}
	if v := f.posted.Get(name); v != o.DefaultChoice || in.Choices[o.ID] != "" {
		in.Choices[o.ID] = v
	}
}

func readFit(f *form, in *design.Inputs, now *design.Result) {
	for _, o := range now.Style.Options {
		if o != now.Style.Allowance {
			readOption(f, in, now, o, true)
		}
	}
	if v := f.posted.Get("fit"); v != "" {
		want, err := fit.ParseVerdict(v)
		if err != nil {
			f.fail(err)
		}
		in.Fit = want
	}
	if now.Style.Allowance == nil {
		return
	}
	id := now.Style.Allowance.ID
	switch f.posted.Get("allowance") {
	case "solve":
		delete(in.Lengths, id)
		f.posted.Del("options." + id)
	case "typed":
		v := now.Spec.Lengths[id]
		f.length("options."+id, &v)
		in.Lengths[id] = v
	}
}

// matName is the form's name for a part of a piece's mat.
func matName(piece, part string) string { return "mats." + piece + "." + part }

// usualMat is what a piece's mat starts as: card, and patterned paper on it.
func usualMat(piece string, unit measure.Unit) dress.Dressing {
	border := measure.Inch / 16
	if unit != measure.In {
		border = 2 * measure.Millimetre
	}
	return dress.Dressing{Piece: piece, Layers: []dress.Layer{
		{Card: paper.Card{Name: "Mat card", GSM: 240, Thickness: 300 * measure.Micrometre}, Border: border},
		{Card: paper.Card{Name: "Patterned paper", GSM: 120, Thickness: 150 * measure.Micrometre, Direction: paper.OneWayUp}, Border: border},
	}}
}

// matOf finds a piece's mat; the second value tells whether it has one.
func matOf(in *design.Inputs, piece string) (dress.Dressing, bool) {
	i := slices.IndexFunc(in.Mats, func(d dress.Dressing) bool { return d.Piece == piece })
	if i < 0 {
		return usualMat(piece, in.Units), false
	}
	return in.Mats[i], true
}

func readDressing(f *form, in *design.Inputs, now *design.Result) {
	var mats []dress.Dressing
	for _, p := range now.Parts {
		d, has := matOf(in, p.ID)
		where := f.posted.Get(matName(p.ID, "where"))
		if where == "none" || where == "" && !has {
			continue
		}
		if where != "" {
			w, err := dress.ParseWhere(where)
			if err != nil {
				f.fail(err)
				continue
			}
			d.Where = w
		}
		switch n := f.posted.Get(matName(p.ID, "layers")); {
		case n == "1":
			d.Layers = d.Layers[:1]
		case n == "2" && len(d.Layers) == 1:
			d.Layers = append(d.Layers, usualMat(p.ID, in.Units).Layers[1])
		}
		for i := range d.Layers {
			l := &d.Layers[i]
			at := func(part string) string { return matName(p.ID, fault.Path("layers", i, part)) }
			f.text(at("name"), &l.Card.Name)
			f.lengthIn(at("thickness"), measure.MM, &l.Card.Thickness)
			f.length(at("border"), &l.Border)
			if v := paper.Direction(f.posted.Get(at("direction"))); slices.Contains(paper.Directions, v) {
				l.Card.Direction = v
			}
		}
		mats = append(mats, d)
	}
	in.Mats = mats
}

func readSheets(f *form, in *design.Inputs, _ *design.Result) {
	f.whole("copies", &in.Copies)
	f.length("tools.trimmer", &in.Tools.Trimmer)
	if f.posted.Has("choosing-sheets") {
		var chosen []paper.Sheet
		for _, s := range paper.Standard {
			if slices.Contains(f.posted["sheets"], s.Name) {
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

// matFault turns a fault of the nth dressing into the form's name for it.
func matFault(in *design.Inputs, name string) string {
	for i, d := range in.Mats {
		if rest, ok := strings.CutPrefix(name, fault.Path("mats", i)+"."); ok {
			return matName(d.Piece, rest)
		}
	}
	return name
}
