package design

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/inspect"
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

type labelFile struct {
	ID     int          `json:"id,omitempty"`
	Name   string       `json:"name"`
	Shape  string       `json:"shape"`
	Width  measure.Text `json:"width"`
	Height measure.Text `json:"height"`
	Layers []layerFile  `json:"layers"`
	Text   string       `json:"text,omitempty"`
	Copies int          `json:"copies,omitempty"`
	Piece  string       `json:"piece,omitempty"`
	Face   string       `json:"face,omitempty"`
	Raised measure.Text `json:"raised,omitempty"`
	Hole   bool         `json:"hole,omitempty"`
}

func (r *reader) labels(all []labelFile) {
	for i, f := range all {
		at := func(path ...any) string { return fault.Path(append([]any{"labels", i}, path...)...) }
		l := label.Label{ID: f.ID, Name: f.Name, Shape: label.Shape(f.Shape), Text: f.Text, Copies: max(1, f.Copies), Piece: f.Piece, Face: f.Face, Hole: f.Hole}
		l.Width, l.Height, l.Raised = r.length(at("width"), f.Width, 0), r.length(at("height"), f.Height, 0), r.length(at("raised"), f.Raised, 0)
		for n, x := range f.Layers {
			l.Layers = append(l.Layers, dress.Layer{Card: r.card(at("layers", n, "card"), x.Card), Border: r.border(at("layers", n, "border"), x.Border)})
		}
		r.in.Labels = append(r.in.Labels, l)
	}
}

func writeLabel(l label.Label) labelFile {
	f := labelFile{ID: l.ID, Name: l.Name, Shape: string(l.Shape), Width: mmText(l.Width), Height: mmText(l.Height), Text: l.Text, Copies: l.Copies, Piece: l.Piece, Face: l.Face, Hole: l.Hole}
	if l.Raised > 0 {
		f.Raised = mmText(l.Raised)
	}
	for _, x := range l.Layers {
		f.Layers = append(f.Layers, layerFile{writeCard(x.Card), borderOf(x.Border)})
	}
	return f
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

// lands refuses a label on a face that is not there, or that is smaller than it.
func (d *Dressed) lands(l label.Label) error {
	if l.Piece == "" {
		return nil
	}
	p, known := d.part(l.Piece)
	i := slices.IndexFunc(p.Faces, func(f pattern.Face) bool { return f.Name == l.Face })
	if !known || i < 0 {
		return fault.New(fault.UnknownPlace, "face", "this box has no face %q of a piece %q to put a label on", l.Face, l.Piece)
	}
	if along, up := p.Faces[i].Frame().Size(p.Faces[i].Polygon); l.Width.MM() > along || l.Height.MM() > up {
		return fault.New(fault.OutOfRange, "width", "the label is larger than the %s of the %s, %s × %s", p.Faces[i].Plain(), strings.ToLower(p.Name),
			d.Show(measure.FromMM(along)), d.Show(measure.FromMM(up)))
	}
	return nil
}

// stands looks whether a label is in the way of what goes over its face.
func (d *Dressed) stands(l label.Label) []inspect.Finding {
	for _, a := range d.Fits {
		p, known := d.part(l.Piece)
		if !known || a.Pair.Inner != l.Piece || !a.Pair.Kind.Dressed {
			continue
		}
		i := slices.IndexFunc(p.Faces, func(f pattern.Face) bool { return f.Name == l.Face })
		if p.Faces[i].Role == pattern.Wall && l.Thick() > max(0, a.Gap/2) {
			return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf(
				"The %s stands %s off the %s, where the %s goes over it with %s to spare: put it lower than that reaches, glue it flat, or allow more.",
				strings.ToLower(l.Name), measure.Label(l.Thick(), measure.MM, measure.Tenth), p.Faces[i].Plain(), strings.ToLower(a.Pair.OuterName), measure.Label(max(0, a.Gap/2), measure.MM, measure.Tenth))}}
		}
	}
	for _, b := range d.Bands {
		if l.Piece != "" && l.Raised > 0 && b.Width.MM() > 0 {
			return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf(
				"The %s is raised on pads: put the %s on first, for it does not slide over a raised label.", strings.ToLower(l.Name), strings.ToLower(b.Name))}}
		}
	}
	if l.Piece == "" {
		return nil
	}
	if over := d.under(l); over != "" {
		return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf("The %s lies over %s: put one of them on another face.", strings.ToLower(l.Name), over)}}
	}
	return []inspect.Finding{{ID: "label", Verdict: inspect.OK, Piece: l.Piece, Text: fmt.Sprintf("The %s is in the way of nothing.", strings.ToLower(l.Name))}}
}

// under names what a label would lie on in the middle of its face: another of its kind, a
// label, a hole or a notch; "" where there is nothing.
func (d *Dressed) under(l label.Label) string {
	if l.Copies > 1 {
		return "another of its kind"
	}
	for _, o := range d.Inputs.Labels {
		if o.ID == l.ID {
			break // each pair is told once, by the later one
		}
		if o.Piece == l.Piece && o.Face == l.Face {
			return "the " + strings.ToLower(o.Name)
		}
	}
	p, _ := d.part(l.Piece)
	for _, m := range d.LabelMats() {
		if m.ID != labelID(l, 1) {
			continue
		}
		for _, o := range p.Pattern.Openings {
			if o.Face == l.Face && len(pattern.Clip(o.Loop.Flat(), m.On[0].Corners)) > 2 {
				return "the " + o.Kind + " there"
			}
		}
	}
	return ""
}

// LabelMats are the labels' layers as they lie on their faces, to be drawn: in the
// middle, upright.
func (b *Built) LabelMats() []dress.Mat {
	var out []dress.Mat
	for _, l := range b.Inputs.Labels {
		p, known := b.part(l.Piece)
		i := slices.IndexFunc(p.Faces, func(f pattern.Face) bool { return f.Name == l.Face })
		if !known || i < 0 {
			continue
		}
		fr := p.Faces[i].Frame()
		along, up := fr.Size(p.Faces[i].Polygon)
		left, foot := (along-l.Width.MM())/2, (up-l.Height.MM())/2
		for n, layer := range l.Layers {
			m := dress.Mat{ID: labelID(l, n+1), Piece: l.Piece, Face: l.Face, Words: strings.ToLower(l.Name), Side: dress.Outside, Layer: n + 1, Card: layer.Card}
			m.Width, m.Height = l.Size(n)
			var on []pattern.Point
			for _, q := range l.Outline(n).Flat() {
				on = append(on, fr.At(left+q.X, foot+l.Height.MM()-q.Y))
			}
			m.On = []dress.Patch{{Face: l.Face, Corners: on}}
			m.Lies = pattern.Face{Polygon: on, Up: fr.Up}.Frame()
			out = append(out, m)
		}
	}
	return out
}

// LabelText is what a label says on this box.
func (b *Built) LabelText(l label.Label) []string {
	inside := b.Filling()
	if inside == "" {
		inside = b.Inputs.Name
	}
	fills := label.Fills{Name: b.Inputs.Name, Inside: inside}
	fills.Size = b.Inside.FreeIn(b.Inputs.Units)
	if b.Inputs.Price > 0 {
		fills.Price = b.Inputs.Price.String()
	}
	return l.Says(fills)
}

// WordsOn is what is written on a layer of a label: on the top one what it says,
// nothing on others and on other pieces.
func (b *Built) WordsOn(piece string) []string {
	for _, l := range b.Inputs.Labels {
		if piece == labelID(l, len(l.Layers)) {
			return b.LabelText(l)
		}
	}
	return nil
}

// labelMoves are how the labels are put together and where they go.
func (d *Dressed) labelMoves() []hand.Put {
	var out []hand.Put
	for _, l := range d.Inputs.Labels {
		m := hand.Put{Thing: fmt.Sprintf("label %d", l.ID), When: hand.Closed}
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
		if words := d.LabelText(l); len(words) > 0 {
			say("label-words", map[string]string{"words": strings.Join(words, " / ")}, nil)
		}
		if l.Piece == "" {
			say("label-hang", map[string]string{}, nil)
		} else if p, known := d.part(l.Piece); known {
			i := slices.IndexFunc(p.Faces, func(f pattern.Face) bool { return f.Name == l.Face })
			key := "label-glue"
			if l.Raised > 0 {
				key = "label-pads"
			}
			x := say(key, map[string]string{}, map[string][]measure.Length{"high": {d.ruled(l.Raised)}})
			x.Phrases = map[string]hand.Said{"where": {Key: "spot", Words: map[string]string{"place": p.Faces[i].Plain(), "piece": strings.ToLower(p.Name)}}}
		}
		out = append(out, m)
	}
	return out
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
	var out []recipe.Supply
	if n := pads * d.Inputs.Copies; n > 0 {
		out = append(out, recipe.Supply{ID: "pads", Amount: float64(n), Unit: "pad", Text: fmt.Sprintf("%d foam pads, under labels", n)})
	}
	if n := strings * d.Inputs.Copies; n > 0 {
		out = append(out, recipe.Supply{ID: "tags.string", Amount: float64(n) * 250, Unit: "mm", Text: fmt.Sprintf("String for tags: %d of 25 cm (10 in)", n)})
	}
	return out
}
