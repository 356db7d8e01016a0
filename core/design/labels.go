package design

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// MostLabels is how many kinds of label a box has at most.
const MostLabels = 8

// UsualLabel is an oval label with what is inside, glued flat on a face; without
// one it is a tag to hang on.
func UsualLabel(piece, face string, unit measure.Unit) label.Label {
	l := label.Label{Name: "Label", Shape: label.Oval, Width: 60 * measure.Millimetre, Height: 40 * measure.Millimetre, Copies: 1,
		Text: "{name}", Piece: piece, Face: face}
	border := dress.Even(2 * measure.Millimetre)
	if unit == measure.In {
		l.Width, l.Height, border = 5*measure.Inch/2, 3*measure.Inch/2, dress.Even(measure.Inch/16)
	}
	l.Layers = []dress.Layer{
		{Card: paper.Card{Name: "Gold card", GSM: 220, Thickness: 280 * measure.Micrometre}},
		{Card: paper.Card{Name: "Snow card, light", GSM: 120, Thickness: 150 * measure.Micrometre}, Border: border},
	}
	if piece == "" {
		l.Name, l.Shape, l.Hole, l.Text = "Tag", label.Rounded, true, "{inside}"
	}
	return l
}

// HangPrice puts a tag with the box's name and price on it, unless a label has the
// price already or there is room for no more.
func (in *Inputs) HangPrice() {
	if len(in.Labels) >= MostLabels || slices.ContainsFunc(in.Labels, func(l label.Label) bool { return strings.Contains(l.Text, "{price}") }) {
		return
	}
	tag := UsualLabel("", "", in.Units)
	tag.Name, tag.Text = "Price tag", "{name}\n{price}"
	in.Labels = append(slices.Clone(in.Labels), tag)
	in.NumberThings()
}

func checkLabels(in *Inputs) error {
	if len(in.Labels) > MostLabels {
		return fault.New(fault.CountRange, "labels", "a box has at most %d kinds of label", MostLabels)
	}
	show := func(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
	for i, l := range in.Labels {
		if err := l.Check(show); err != nil {
			return fault.At(fault.Path("labels", i), err)
		}
		for n, x := range l.Layers {
			if err := checkCard(fault.Path("labels", i, "layers", n, "card"), x.Card); err != nil {
				return err
			}
		}
	}
	return nil
}

// labelID names a layer of a label among the pieces, the lowest 1.
func labelID(l label.Label, layer int) string { return fmt.Sprintf("label-%d.%d", l.ID, layer) }

// label makes the layers of the labels and puts them to the parts.
func (d *Dressed) label() error {
	for i, l := range d.Inputs.Labels {
		field := fault.Path("labels", i)
		if err := d.lands(l); err != nil {
			return fault.At(field, err)
		}
		for n := range l.Layers {
			part, err := labelPart(l, n)
			if err != nil {
				return fault.At(field, err)
			}
			if err := d.Inputs.goesOn(part, fault.Path(field, "width"), "make the label smaller"); err != nil {
				return err
			}
			d.Parts = append(d.Parts, part)
		}
		d.judged = append(d.judged, d.stands(l)...)
	}
	return nil
}

// labelPart is the nth layer of a label as a piece: its own outline on its blank.
func labelPart(l label.Label, n int) (Part, error) {
	w, h := l.Size(n)
	card := l.Layers[n].Card
	made := &pattern.Pattern{Width: w, Height: h, Outline: l.Outline(n)}
	off := pattern.Pt((l.Width-w).MM()/2, (l.Height-h).MM()/2)
	for k := range made.Outline {
		made.Outline[k].Point = made.Outline[k].Sub(off)
	}
	if l.Hole {
		at, _ := l.HoleAt()
		loop := pattern.Circle(at.Sub(off), label.HoleAcross.MM()/2)
		made.Holes = append(made.Holes, loop)
		made.Openings = append(made.Openings, pattern.Opening{Kind: "hole", Face: "face", Loop: loop})
	}
	made.Marks = []pattern.Mark{{Name: "face", Words: "face", Role: pattern.Panel, At: pattern.Pt(w.MM()/2, h.MM()*0.6)}}
	folded, err := made.Finished("face")
	if err != nil {
		return Part{}, err
	}
	name := l.Name
	if len(l.Layers) > 1 {
		name = fmt.Sprintf("%s, layer %d", l.Name, n+1)
	}
	part := style.Part{ID: labelID(l, n+1), Name: name, Pattern: made, Root: "face", Card: card.Thickness, Opens: style.Upwards, Count: l.Copies}
	return Part{Part: part, Faces: folded.Faces, Card: card, Folded: folded, Loose: true}, nil
}

// lands refuses a label on a face, or on a band, that is not there.
func (d *Dressed) lands(l label.Label) error {
	if _, there := d.upon(l); l.Upon.Thing != "" && !there {
		return fault.New(fault.UnknownPlace, "on.placed", "there is no %q before it to put the %s on", l.Upon.Thing, strings.ToLower(l.Name))
	}
	if l.What.Bought() && l.Piece == "" && l.Band == "" {
		return fault.New(fault.UnknownPlace, "face", "say which face or band the %s goes on", strings.ToLower(l.Name))
	}
	if l.Band != "" {
		if _, known := d.bandOf(l); !known {
			return fault.New(fault.UnknownPlace, "band", "this box has no band %q to put a label on", l.Band)
		}
		return nil
	}
	if _, known := d.faceOf(l); l.Piece != "" && !known {
		return fault.New(fault.UnknownPlace, "face", "this box has no face %q of a piece %q to put a label on", l.Face, l.Piece)
	}
	return nil
}

// bandOf is the band that a label is glued on.
func (t *Tied) bandOf(l label.Label) (Banded, bool) {
	i := slices.IndexFunc(t.Bands, func(b Banded) bool { return b.PieceID() == l.Band })
	if i < 0 {
		return Banded{}, false
	}
	return t.Bands[i], true
}

// faceOf is the face that a label is glued on.
func (b *Built) faceOf(l label.Label) (pattern.Face, bool) {
	p, _ := b.part(l.Piece)
	i := slices.IndexFunc(p.Faces, func(f pattern.Face) bool { return f.Name == l.Face })
	if i < 0 {
		return pattern.Face{}, false
	}
	return p.Faces[i], true
}

// LabelMats are the labels' layers as they lie on their faces, to be drawn.
func (p *Papered) LabelMats() []dress.Mat {
	var out []dress.Mat
	layer := map[int]int{} // the highest of each label
	for _, l := range p.Inputs.Labels {
		f, known := p.faceOf(l)
		if !known {
			continue
		}
		fr := f.Frame()
		under, _ := p.upon(l)
		layers := l.Layers
		if l.What.Bought() {
			layers = []dress.Layer{{Card: paper.Card{Name: l.Name, Look: paper.Look{Outside: l.Colour, Inside: l.Colour, Print: paper.Plain}}}}
		}
		layer[l.ID] = layer[under.ID] + len(layers)
		for n, x := range layers {
			m := dress.Mat{ID: labelID(l, n+1), Piece: l.Piece, Face: l.Face, Words: strings.ToLower(l.Name), Side: dress.Outside, Layer: layer[under.ID] + n + 1, Card: x.Card}
			m.Width, m.Height = l.Size(n)
			var on []pattern.Point
			for _, q := range p.outlined(l, n) {
				on = append(on, fr.At(q.X, q.Y))
			}
			m.On = []dress.Patch{{Face: l.Face, Corners: on}}
			sin, cos := math.Sincos(float64(l.Place.Turn) * math.Pi / 180)
			m.Lies = pattern.Face{Polygon: on, Up: fr.Up.Scale(cos).Add(fr.Along.Scale(sin))}.Frame()
			out = append(out, m)
		}
	}
	return out
}

// EveryCopy asks for what all copies of a label say.
const EveryCopy = -1

// LabelText is what the nth copy of a label says on this box, from 0, or EveryCopy.
func (b *Built) LabelText(l label.Label, n int) []string {
	inside := b.Filling()
	if inside == "" {
		inside = b.Inputs.Name
	}
	fills := label.Fills{Name: b.Inputs.Name, Inside: inside}
	fills.Size = b.Inside.FreeIn(b.Inputs.Units)
	if b.Inputs.Price > 0 {
		fills.Price = b.Inputs.Price.String()
	}
	fills.N, fills.Each = b.nth(l, n)
	return l.Says(fills)
}

// WordsOn is what is written on a layer of a label: on the top one what it says,
// nothing on others and on other pieces.
func (b *Built) WordsOn(piece string) []string {
	for _, l := range b.Inputs.Labels {
		if len(l.Layers) > 0 && piece == labelID(l, len(l.Layers)) {
			return b.LabelText(l, EveryCopy)
		}
	}
	return nil
}

// labelMoves are how the labels are put together and where they go.
func (d *Dressed) labelMoves() []hand.Put {
	var out []hand.Put
	for _, l := range d.Inputs.Labels {
		m := hand.Put{Thing: fmt.Sprintf("label %d", l.ID), When: d.atLast()}
		say := func(key string, words map[string]string, by map[string][]measure.Length) *hand.Said {
			words["label"] = strings.ToLower(l.Name)
			m.Phrase = append(m.Phrase, hand.Said{Key: key, Words: words, Lengths: by})
			return &m.Phrase[len(m.Phrase)-1]
		}
		for n := range l.Layers {
			m.Uses = append(m.Uses, labelID(l, n+1))
			if n > 0 {
				say("label-layer", map[string]string{"n": strconv.Itoa(n + 1), "under": strconv.Itoa(n)}, map[string][]measure.Length{"border": {d.ruled(l.Layers[n].Border.Across)}})
			}
		}
		if words := d.LabelText(l, EveryCopy); len(words) > 0 {
			key := "label-words"
			if l.Copies > 1 {
				key = "label-words-each"
			}
			say(key, map[string]string{"words": strings.Join(words, " / ")}, nil)
		}
		d.putOn(l, &m, say)
		out = append(out, m)
	}
	return out
}

// putOn says where a label goes.
func (d *Dressed) putOn(l label.Label, m *hand.Put, say func(string, map[string]string, map[string][]measure.Length) *hand.Said) {
	if b, banded := d.bandOf(l); banded {
		key := "label-band"
		if b.Joined() == "front" {
			key = "label-join"
		}
		say(key, map[string]string{"band": strings.ToLower(b.Name)}, nil)
		m.After = append(m.After, b.PieceID())
		return
	}
	f, known := d.faceOf(l)
	if !known {
		say("label-hang", map[string]string{}, nil)
		return
	}
	begins := "label"
	if l.Copies > 1 && l.Raised == 0 {
		begins = "label-each"
	}
	if l.What == label.Brad || l.What == label.Eyelet { // through the card: before the box is filled
		begins, m.When = string(l.What), hand.Empty
	}
	key := begins + "-glue"
	if l.Place != (label.Place{}) {
		key = begins + "-at"
	}
	if l.Raised > 0 {
		key += "-pads"
	}
	x := say(key, map[string]string{}, map[string][]measure.Length{"high": {d.ruled(l.Raised)}})
	where := hand.Said{Key: "spot", Words: map[string]string{"place": f.Plain(), "piece": d.called(l.Piece)}}
	if under, lies := d.upon(l); lies {
		where = hand.Said{Key: "spot-thing", Words: map[string]string{"thing": strings.ToLower(under.Name)}}
	} else if _, papered := d.paperUnder(l); papered {
		where.Key = "spot-paper"
	}
	x.Phrases = map[string]hand.Said{
		"where": where,
		"place": d.placed(l.Place), "turned": hand.Say("upright"),
	}
	if l.Place.Turn != 0 {
		way, n := "turned-right", l.Place.Turn
		if n < 0 {
			way, n = "turned-left", -n
		}
		x.Phrases["turned"] = hand.Said{Key: way, Words: map[string]string{"n": strconv.Itoa(n)}}
	}
}

// placed says how far a label lies from the edges of its face.
func (b *Built) placed(p label.Place) hand.Said {
	from := func(o label.Off) hand.Said {
		key := "from-edge"
		if o.At < 0 {
			key = "over-edge"
		}
		return hand.Said{Key: key, Words: map[string]string{"edge": string(o.From)}, Lengths: map[string][]measure.Length{"at": {b.ruled(o.At.Abs())}}}
	}
	switch {
	case p.Up.From == label.Middle && p.Across.From == label.Middle:
		return hand.Say("in-middle")
	case p.Across.From == label.Middle:
		return from(p.Up)
	case p.Up.From == label.Middle:
		return from(p.Across)
	}
	return hand.Said{Key: "from-both", Phrases: map[string]hand.Said{"one": from(p.Up), "other": from(p.Across)}}
}

// padEvery is how far apart, in mm, pads stand under a raised label.
const padEvery = 25.0

// labelSupplies are the pads and the string of all copies.
func (d *Dressed) labelSupplies() []recipe.Supply {
	pads, strings := 0, 0
	for _, l := range d.Inputs.Labels {
		if l.Raised > 0 {
			across := func(mm float64) int { return max(1, int(mm/padEvery+0.5)) }
			pads += l.Copies * across(l.Width.MM()) * across(l.Height.MM())
		}
		if l.Hole {
			strings += l.Copies
		}
	}
	out := d.boughtSupplies()
	if n := pads * d.Inputs.Copies; n > 0 {
		out = append(out, recipe.Supply{ID: "pads", Amount: float64(n), Unit: "pad", Text: fmt.Sprintf("%d foam pads, under labels", n)})
	}
	if n := strings * d.Inputs.Copies; n > 0 {
		out = append(out, recipe.Supply{ID: "tags.string", Amount: float64(n) * 250, Unit: "mm", Text: fmt.Sprintf("String for tags: %d of 25 cm (10 in)", n)})
	}
	return out
}
