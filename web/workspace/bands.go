package workspace

import (
	"context"
	"slices"
	"strconv"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/web/form"
)

// bandView is a belly band as the ticket asks about it, and what it came to.
type bandView struct {
	Head   slipHead
	N      int
	Fields []form.Field
	Card   form.CardView
	Girth  string
	Notch  bool
}

func bandAt(n int, part string) string { return fault.Path("bands", n, part) }

// bands shows the belly bands.
func (p *dressingPage) bands(in *design.Inputs, f *form.Form) {
	for n, b := range in.Bands {
		v := bandView{N: n, Notch: b.Notch}
		joined := ""
		if side := b.Joined(); side != b.Join {
			joined = "this way round it comes to the " + side
		}
		v.Fields = []form.Field{
			f.ChoiceField(bandAt(n, "axis"), "Round the", "", b.Axis, form.Plain(design.BandAxes...)...),
			f.ChoiceField(bandAt(n, "join"), "Joined at the", joined, b.Join, form.Plain(design.BandJoins...)...),
			f.LengthField(bandAt(n, "width"), "Width", "", b.Width),
			f.LengthField(bandAt(n, "at"), "From the middle", "to the right, to the back or up; - the other way", b.At),
			f.LengthField(bandAt(n, "lap"), "Lap", "glued to itself", b.Lap),
		}
		card := in.Card
		if b.Card != nil {
			card = *b.Card
		}
		v.Card = f.CardView(bandAt(n, "card"), card, p.Shelf)
		if n < len(p.Result.Bands) {
			strip := p.Result.Bands[n].Strip
			v.Girth = p.Result.Show(measure.Up(strip.Girth, in.Tools.Tick.Ruler()))
		}
		v.Head = p.head("band", n, len(in.Bands), "Belly band", v.Girth)
		p.Bands = append(p.Bands, v)
	}
}

// readBands reads the bands: those there are, one that is taken away and one that
// is added.
func readBands(f *form.Form, in *design.Inputs) {
	var all []design.Band
	for n, b := range in.Bands {
		if f.Posted.Get("bands.remove") == strconv.Itoa(n) {
			continue
		}
		if v := f.Posted.Get(bandAt(n, "axis")); slices.Contains(design.BandAxes, v) {
			b.Axis = v
		}
		if v := f.Posted.Get(bandAt(n, "join")); slices.Contains(design.BandJoins, v) {
			b.Join = v
		}
		f.Length(bandAt(n, "width"), &b.Width)
		f.Signed(bandAt(n, "at"), &b.At)
		f.Length(bandAt(n, "lap"), &b.Lap)
		if f.Posted.Has(bandAt(n, "asked")) {
			b.Notch = f.Posted.Get(bandAt(n, "notch")) != ""
		}
		b.Card = readOwnCard(f, bandAt(n, "card"), b.Card, in.Card)
		all = append(all, b)
	}
	forgetMoved(f, "bands")
	in.Bands = all
	for i, l := range in.Labels { // without its band it is a tag
		if l.Band != "" && !slices.ContainsFunc(all, func(b design.Band) bool { return b.PieceID() == l.Band }) {
			in.Labels = slices.Clone(in.Labels)
			in.Labels[i].Band = ""
		}
	}
	if f.Posted.Get("bands.add") != "" && len(all) < design.MostBands {
		*in = in.WithBand(context.Background())
		if f.Posted.Get("bands.add") == "crossing" && len(in.Bands) < design.MostBands { // the other way round
			other := in.Bands[len(in.Bands)-1]
			other.ID, other.Axis = 0, map[string]string{"length": "width"}[other.Axis]
			if other.Axis == "" {
				other.Axis = "length"
			}
			in.Bands = append(in.Bands, other)
			in.NumberThings()
		}
		f.Posted.Del("bands.add")
	}
}
