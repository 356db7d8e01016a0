package workspace

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/web/form"
)

// labelView is a label as the ticket asks about it.
type labelView struct {
	Head   slipHead
	N, ID  int
	Name   string
	Fields []form.Field
	Where  []form.Field // on its face
	Placed bool         // not in the middle of it
	Text   form.Field
	Hole   bool
	Bought bool // a bow or the like, that is not cut
	Layers []layerView
}

func labelAt(n int, path ...any) string { return fault.Path(append([]any{"labels", n}, path...)...) }

// tagPlace stands among the faces for a tag that hangs; numberPlace asks for one on each room's front;
// bandPlace before the id of a band,
// thingPlace before that of another thing that is placed, paperPlace before a paper's.
const (
	tagPlace    = "tag"
	numberPlace = "numbers"
	bandPlace   = "band:"
	thingPlace  = "thing:"
	paperPlace  = "paper:"
)

// labels shows the labels, tags and toppers.
func (p *dressingPage) labels(in *design.Inputs, f *form.Form) {
	places := append([]form.Choice{{Value: tagPlace, Label: "hung on as a tag"}}, p.openFaces()...)
	for _, b := range p.Result.Bands {
		places = append(places, form.Choice{Value: bandPlace + b.PieceID(), Label: "on the " + strings.ToLower(b.Name)})
	}
	for _, m := range p.Result.Mats {
		if part := p.Result.PieceName(m.Piece); m.Side == dress.Outside && m.Layer == 1 {
			places = append(places, form.Choice{Value: paperPlace + m.ID, Label: "paper on the " + m.FaceWords() + " of the " + strings.ToLower(part)})
		}
	}
	for n, l := range in.Labels {
		at := func(path ...any) string { return labelAt(n, path...) }
		place := tagPlace
		switch {
		case l.Upon.Thing != "":
			place = thingPlace + l.Upon.Thing
		case l.Upon.Paper != "":
			place = paperPlace + l.Upon.Paper
		case l.Piece != "":
			place = l.Piece + "/" + l.Face
		case l.Band != "":
			place = bandPlace + l.Band
		}
		v := labelView{N: n, ID: l.ID, Name: l.Name, Hole: l.Hole, Bought: l.What.Bought()}
		if v.Bought {
			v.Fields = boughtFields(f, at, l, place, places[1:])
		} else {
			v.Fields = labelFields(f, at, l, place, places)
		}
		if v.Placed = l.Place != (label.Place{}); l.Piece != "" || l.Upon != (label.Upon{}) {
			v.Where = whereFields(f, at, l.Place, "with - it stands over that edge")
		}
		v.Text = f.Control(at("text"), "Words on it", "{name}, {inside}, {size}, {price} and, of many copies, {n} and {each} are filled in", l.Text)
		v.Text.Kind = "lines"
		for k, x := range l.Layers {
			layer := layerView{Card: f.CardView(at("layers", k), x.Card, p.Shelf)}
			if k > 0 {
				layer.Border = []form.Field{f.LengthField(at("layers", k, "border"), "Border", "of what is under it", x.Border.Across)}
			}
			v.Layers = append(v.Layers, layer)
		}
		i := slices.IndexFunc(places, func(c form.Choice) bool { return c.Value == place })
		v.Head = p.head("label", n, len(in.Labels), l.Name, places[max(0, i)].Label)
		p.Labels = append(p.Labels, v)
		if l.Piece != "" || l.Upon != (label.Upon{}) { // the next may lie on it
			places = append(places, form.Choice{Value: thingPlace + l.Word(), Label: strings.ToLower(l.Name) + ", on top of it"})
		}
	}
}

// openFaces are the faces that are seen, to put something on.
func (p *dressingPage) openFaces() []form.Choice {
	var out []form.Choice
	for _, part := range p.Result.Parts {
		if part.Loose {
			continue
		}
		for _, face := range dress.Open(part.Pattern, part.Faces, dress.Outside) {
			if face.Role == pattern.Panel || face.Role == pattern.Wall || face.Role == pattern.Flap {
				out = append(out, form.Choice{Value: part.ID + "/" + face.Name, Label: face.Plain() + " of the " + strings.ToLower(part.Name)})
			}
		}
	}
	return out
}

// whereFields ask where something lies on its face.
func whereFields(f *form.Form, at func(...any) string, p label.Place, hint string) []form.Field {
	return []form.Field{
		f.ChoiceField(at("across", "from"), "Across", "", string(p.Across.From), edges("in the middle", label.Left, label.Right)...),
		f.LengthField(at("across", "at"), "by", hint, p.Across.At),
		f.ChoiceField(at("up", "from"), "Up", "", string(p.Up.From), edges("in the middle", label.Top, label.Bottom)...),
		f.LengthField(at("up", "at"), "by", hint, p.Up.At),
		f.Control(at("turn"), "Turned by", "degrees to the right; with - to the left", strconv.Itoa(p.Turn)),
	}
}

// readWhere reads it.
func readWhere(f *form.Form, at func(...any) string, p *label.Place) {
	readOff(f, at, "across", &p.Across)
	readOff(f, at, "up", &p.Up)
	f.Whole(at("turn"), &p.Turn)
}

// labelFields ask what a label is, and where it goes.
func labelFields(f *form.Form, at func(...any) string, l label.Label, place string, places []form.Choice) []form.Field {
	return []form.Field{
		f.Control(at("name"), "Its name", "", l.Name),
		f.ChoiceField(at("shape"), "Shape", "", string(l.Shape), form.Plain(asPlain(label.Shapes)...)...),
		f.LengthField(at("width"), "Width", "", l.Width),
		f.LengthField(at("height"), "Height", "", l.Height),
		f.ChoiceField(at("face"), "It goes on the", "", place, places...),
		f.LengthField(at("raised"), "Raised by", "pads; 0 is glued flat", l.Raised),
		f.Control(at("copies"), "How many", "on each box", strconv.Itoa(l.Copies)),
		f.ChoiceField(at("layers"), "Layers", "", fmt.Sprint(len(l.Layers)), form.Plain("1", "2", "3")...),
	}
}

// boughtFields ask that of what is not cut.
func boughtFields(f *form.Form, at func(...any) string, l label.Label, place string, places []form.Choice) []form.Field {
	colour := f.Control(at("colour"), "Colour", "", string(l.Colour))
	colour.Kind = "color"
	return []form.Field{
		f.ChoiceField(at("what"), "It is a", "", string(l.What), form.Plain(asPlain(label.BoughtWhats)...)...),
		f.Control(at("name"), "Its name", "", l.Name),
		f.LengthField(at("width"), "Width", "", l.Width),
		f.LengthField(at("height"), "Height", "", l.Height),
		f.ChoiceField(at("face"), "It goes on the", "", place, places...),
		f.LengthField(at("stands"), "It stands out", "", l.Stands),
		colour,
		f.Control(at("copies"), "How many", "on each box", strconv.Itoa(l.Copies)),
	}
}

// edges are the choices of what a place is counted from.
func edges(middle string, of ...label.Edge) []form.Choice {
	out := []form.Choice{{Value: string(label.Middle), Label: middle}}
	for _, e := range of {
		out = append(out, form.Choice{Value: string(e), Label: "from the " + string(e) + " edge"})
	}
	return out
}

func asPlain[S ~string](all []S) []string {
	var out []string
	for _, s := range all {
		out = append(out, string(s))
	}
	return out
}

// readLabels reads them: those there are, one that is taken away, one that is added.
func readLabels(f *form.Form, in *design.Inputs, now *design.Result) {
	var all []label.Label
	rested := in.Rested()
	away, err := strconv.Atoi(f.Posted.Get("labels.remove"))
	if err != nil || away >= len(in.Labels) {
		away = -1
	}
	for n, l := range in.Labels {
		if n == away {
			continue
		}
		l = readLabel(f, n, l, in)
		if away >= 0 && in.Labels[away].Is(l.Upon.Thing) { // it comes to lie on what that lay on
			l.Piece, l.Face, l.Band, l.Upon = rested[away].Piece, rested[away].Face, rested[away].Band, in.Labels[away].Upon
		}
		all = append(all, l)
	}
	forgetMoved(f, "labels")
	in.Labels = all
	switch what := f.Posted.Get("labels.add"); {
	case what == "" || len(all) >= design.MostLabels:
	case label.What(what).Bought():
		l := design.UsualBought(label.What(what), in.Units)
		l.Piece, l.Face = now.LabelPlace()
		in.Labels = append(in.Labels, l)
	case what == numberPlace:
		if l, can := now.Numbered(); can {
			in.Labels = append(in.Labels, l)
		}
	case what == tagPlace:
		in.Labels = append(in.Labels, design.UsualLabel("", "", in.Units))
	default:
		piece, face := now.LabelPlace()
		in.Labels = append(in.Labels, now.Fitted(design.UsualLabel(piece, face, in.Units)))
	}
	f.Posted.Del("labels.add")
	readDrag(f, in, now)
	in.NumberThings()
}

// readDrag reads how far a hand has pushed a label on the flat piece: its number, then mm to the
// right and down.
func readDrag(f *form.Form, in *design.Inputs, now *design.Result) {
	text := f.Posted.Get("labels.drag")
	if text == "" {
		return
	}
	var id int
	var by pattern.Point
	_, err := fmt.Sscanf(text, "label-%d %g %g", &id, &by.X, &by.Y)
	n := slices.IndexFunc(in.Labels, func(l label.Label) bool { return l.ID == id })
	here := slices.IndexFunc(now.Inputs.Labels, func(l label.Label) bool { return l.ID == id })
	if err != nil || n < 0 || here < 0 || by.Len() > 5000 || math.IsNaN(by.Len()) {
		f.Fail(fault.New(fault.UnknownPlace, "labels.drag", "That label is not there any more."))
		return
	}
	in.Labels[n].Place = now.Moved(now.Inputs.Labels[here], by)
	for _, part := range []string{"across.from", "across.at", "up.from", "up.at"} { // the fields show where it came to
		f.Posted.Del(labelAt(n) + "." + part)
	}
	f.Posted.Del("labels.drag")
}

// readOff reads how far a label lies from an edge; of the middle there is nothing to count.
func readOff(f *form.Form, at func(...any) string, side string, o *label.Off) {
	if name := at(side, "from"); f.Posted.Has(name) {
		o.From = label.Edge(f.Posted.Get(name))
	}
	f.Signed(at(side, "at"), &o.At)
	if o.From == label.Middle {
		o.At = 0
		f.Posted.Del(at(side, "at"))
	}
}

// readBought reads what a thing is that is not cut: another is as large as such a thing is.
func readBought(f *form.Form, at func(...any) string, l *label.Label, unit measure.Unit) {
	if v := label.What(f.Posted.Get(at("what"))); v.Bought() && v != l.What {
		next := design.UsualBought(v, unit)
		next.ID, next.Piece, next.Face, next.Band, next.Place, next.Copies, next.Colour = l.ID, l.Piece, l.Face, l.Band, l.Place, l.Copies, l.Colour
		*l = next
		for _, part := range []string{"name", "width", "height", "stands"} {
			f.Posted.Del(at(part))
		}
	}
	f.Length(at("stands"), &l.Stands)
	if c, err := paper.ParseColour(f.Posted.Get(at("colour"))); err == nil {
		l.Colour = c
	}
}

func readLabel(f *form.Form, n int, l label.Label, in *design.Inputs) label.Label {
	at := func(path ...any) string { return labelAt(n, path...) }
	f.Text(at("name"), &l.Name)
	if l.What.Bought() {
		readBought(f, at, &l, in.Units)
	}
	if v := label.Shape(f.Posted.Get(at("shape"))); slices.Contains(label.Shapes, v) && v != l.Shape {
		if l.Shape = v; v == label.Circle {
			l.Height = l.Width
			f.Posted.Del(at("height"))
		}
	}
	f.Length(at("width"), &l.Width)
	f.Length(at("height"), &l.Height)
	v := f.Posted.Get(at("face"))
	if v != "" {
		l.Upon = label.Upon{}
	}
	if thing, is := strings.CutPrefix(v, thingPlace); is {
		l.Piece, l.Face, l.Band, l.Upon = "", "", "", label.Upon{Thing: thing}
	} else if paper, is := strings.CutPrefix(v, paperPlace); is {
		l.Piece, l.Face, l.Band, l.Upon = "", "", "", label.Upon{Paper: paper}
	} else if band, is := strings.CutPrefix(v, bandPlace); is {
		l.Piece, l.Face, l.Band, l.Place = "", "", band, label.Place{}
	} else if v == tagPlace {
		l.Piece, l.Face, l.Band, l.Place = "", "", "", label.Place{}
	} else if piece, face, ok := strings.Cut(v, "/"); ok {
		l.Piece, l.Face, l.Band = piece, face, ""
	}
	readWhere(f, at, &l.Place)
	f.Length(at("raised"), &l.Raised)
	f.Whole(at("copies"), &l.Copies)
	if f.Posted.Has(at("text")) {
		l.Text = strings.ReplaceAll(f.Posted.Get(at("text")), "\r\n", "\n")
	}
	if f.Posted.Has(at("asked")) {
		l.Hole = f.Posted.Get(at("hole")) != ""
	}
	l.Layers = slices.Clone(l.Layers)
	if want, err := strconv.Atoi(f.Posted.Get(at("layers"))); err == nil && want >= 1 && want <= label.MostLayers {
		for len(l.Layers) < want {
			l.Layers = append(l.Layers, form.UsualLayer(len(l.Layers), in.Units))
		}
		l.Layers = l.Layers[:want]
	}
	for k := range l.Layers {
		f.ReadCard(at("layers", k), &l.Layers[k].Card)
		if k > 0 {
			border := l.Layers[k].Border.Across
			f.Length(at("layers", k, "border"), &border)
			l.Layers[k].Border = dress.Even(border)
		}
	}
	return l
}
