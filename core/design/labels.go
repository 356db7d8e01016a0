package design

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

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
	if l.Band == "" || i < 0 {
		return Banded{}, false
	}
	return t.Bands[i], true
}

// faceOf is the face that a label is glued on.
func (b *Built) faceOf(l label.Label) (pattern.Face, bool) {
	p, _ := b.part(l.Piece)
	i := slices.IndexFunc(p.Faces, func(f pattern.Face) bool { return f.Name == l.Face })
	if l.Piece == "" || i < 0 {
		return pattern.Face{}, false
	}
	return p.Faces[i], true
}

// stands looks whether a label is in the way of what goes over its face.
func (d *Dressed) stands(l label.Label) []inspect.Finding {
	face, known := d.faceOf(l)
	if !known {
		return nil // it hangs, or lies on a band
	}
	for _, a := range d.Fits {
		if a.Pair.Inner != l.Piece || !a.Pair.Kind.Dressed {
			continue
		}
		if face.Role == pattern.Wall && d.off(l) > max(0, a.Gap/2) && d.covered(l, face) {
			flat := ""
			if l.Raised > 0 {
				flat = " glue it flat,"
			}
			return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf(
				"The %s stands %s off the %s, where the %s goes over it with %s to spare: put it lower than that reaches,%s or allow more.",
				strings.ToLower(l.Name), measure.Label(d.off(l), measure.MM, measure.Tenth), face.Plain(), strings.ToLower(a.Pair.OuterName), measure.Label(max(0, a.Gap/2), measure.MM, measure.Tenth), flat)}}
		}
	}
	for _, b := range d.Bands {
		if l.Raised > 0 {
			return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf(
				"The %s is raised on pads: put the %s on first, for it does not slide over a raised label.", strings.ToLower(l.Name), strings.ToLower(b.Name))}}
		}
	}
	for _, b := range d.Bands {
		if d.reaches(b, l) {
			return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf(
				"The %s lies over the %s and on the card beside it, and holds it fast: glue it on the band alone.", strings.ToLower(l.Name), strings.ToLower(b.Name))}}
		}
	}
	if f := d.overEdges(l); f != nil {
		return f
	}
	if over := d.under(l); over != "" {
		return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf("The %s lies over %s: put one of them on another face.", strings.ToLower(l.Name), over)}}
	}
	return []inspect.Finding{{ID: "label", Verdict: inspect.OK, Piece: l.Piece, Text: fmt.Sprintf("The %s is in the way of nothing.", strings.ToLower(l.Name))}}
}

// covered reports whether another piece lies close before a label when the box is shut.
func (d *Dressed) covered(l label.Label, face pattern.Face) bool {
	bodies, err := d.Bodies(style.Finished)
	i := slices.IndexFunc(bodies, func(b style.Body) bool { return b.Part.ID == l.Piece })
	if err != nil || i < 0 {
		return true // it is not known
	}
	k := slices.IndexFunc(bodies[i].Faces, func(f pattern.Face) bool { return f.Name == face.Name })
	if k < 0 {
		return true
	}
	fr := face.Frame()
	return slices.ContainsFunc(d.outlined(l, 0), func(q pattern.Point) bool {
		return before(bodies, l.Piece, bodies[i].Poses[k].Place(fr.At(q.X, q.Y)), bodies[i].Poses[k].Normal()) != ""
	})
}

// overEdges says that a label stands over an edge of its face: as it was wished, or because it
// is larger.
func (d *Dressed) overEdges(l label.Label) []inspect.Finding {
	f, known := d.faceOf(l)
	if !known {
		return nil
	}
	along, up := f.Frame().Size(f.Polygon)
	lo, hi := pattern.Bounds(d.outlined(l, 0))
	var over []string
	wished := true
	for _, e := range []struct {
		edge label.Edge
		by   float64
		off  label.Off
	}{{label.Left, -lo.X, l.Place.Across}, {label.Right, hi.X - along, l.Place.Across}, {label.Bottom, -lo.Y, l.Place.Up}, {label.Top, hi.Y - up, l.Place.Up}} {
		if e.by > 0.05 {
			over = append(over, fmt.Sprintf("%s over its %s edge", d.Show(measure.FromMM(e.by)), e.edge))
			wished = wished && e.off.From == e.edge && e.off.At < 0
		}
	}
	if len(over) == 0 {
		return nil
	}
	out := inspect.Finding{ID: "label", Verdict: inspect.OK, Piece: l.Piece, Text: fmt.Sprintf("The %s stands %s, as wished: glue it to the %s alone.", strings.ToLower(l.Name), strings.Join(over, " and "), f.Plain())}
	if !wished {
		out.Verdict = inspect.Warn
		out.Text = fmt.Sprintf("The %s is larger than its place on the %s of the %s: it stands %s. Make it smaller, or move it.", strings.ToLower(l.Name), f.Plain(), d.called(l.Piece), strings.Join(over, " and "))
	}
	return []inspect.Finding{out}
}

// reaches reports whether a label on a face lies over a band that goes over that face, so that the
// band could not slide.
func (d *Dressed) reaches(band Banded, l label.Label) bool {
	f, known := d.faceOf(l)
	bodies, err := d.Bodies(style.Finished)
	if !known || err != nil {
		return false
	}
	axis := slices.Index(BandAxes, band.Axis)
	for _, body := range bodies {
		for i, g := range body.Faces {
			if body.Part.ID != l.Piece || g.Name != l.Face {
				continue
			}
			of := func(v r3.Vec) float64 { return []float64{v.X, v.Y, v.Z}[axis] }
			if math.Abs(of(body.Poses[i].Normal())) > 0.5 {
				return false // the band does not cross it
			}
			at := band.At.MM()
			if axis == style.AlongHeight {
				at += d.Outside.Height.MM() / 2
			} else {
				at *= style.Back(bodies)
			}
			lo, hi := math.Inf(1), math.Inf(-1)
			for _, q := range d.outlined(l, 0) {
				v := of(body.Poses[i].Place(f.Frame().At(q.X, q.Y))) - at
				lo, hi = min(lo, v), max(hi, v)
			}
			half := band.Width.MM() / 2
			return lo < half && hi > -half
		}
	}
	return false
}

// under names what a label would lie on: another of its kind, a label, a hole or a notch; ""
// where there is nothing.
func (d *Dressed) under(l label.Label) string {
	if l.Copies > 1 {
		return "another of its kind"
	}
	mats := d.LabelMats()
	lowest := func(x label.Label) []pattern.Point {
		i := slices.IndexFunc(mats, func(m dress.Mat) bool { return m.ID == labelID(x, 1) })
		if i < 0 {
			return nil
		}
		return boxed(mats[i].On[0].Corners)
	}
	mine := lowest(l)
	for _, o := range d.Inputs.Labels {
		if o.ID == l.ID {
			break // each pair is told once, by the later one
		}
		if o.Is(l.Upon.Thing) || l.What.Bought() && !o.What.Bought() && o.Raised == 0 {
			continue // it is to lie there, or a bow sits well on a flat label
		}
		if o.Piece == l.Piece && o.Face == l.Face && o.Band == l.Band && len(pattern.Clip(mine, lowest(o))) > 2 {
			return "the " + strings.ToLower(o.Name)
		}
	}
	p, _ := d.part(l.Piece)
	for _, o := range p.Pattern.Openings {
		if o.Face == l.Face && len(pattern.Clip(o.Loop.Flat(), mine)) > 2 {
			return "the " + o.Kind + " there"
		}
	}
	return ""
}

// boxed is the rectangle about an outline.
func boxed(points []pattern.Point) []pattern.Point {
	lo, hi := pattern.Bounds(points)
	return []pattern.Point{lo, pattern.Pt(hi.X, lo.Y), hi, pattern.Pt(lo.X, hi.Y)}
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
		if len(l.Layers) > 0 && piece == labelID(l, len(l.Layers)) {
			return b.LabelText(l)
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
		if words := d.LabelText(l); len(words) > 0 {
			say("label-words", map[string]string{"words": strings.Join(words, " / ")}, nil)
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
	} else if l.Upon.Paper != "" {
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
func (d *Dressed) placed(p label.Place) hand.Said {
	from := func(o label.Off) hand.Said {
		key := "from-edge"
		if o.At < 0 {
			key = "over-edge"
		}
		return hand.Said{Key: key, Words: map[string]string{"edge": string(o.From)}, Lengths: map[string][]measure.Length{"at": {d.ruled(o.At.Abs())}}}
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
