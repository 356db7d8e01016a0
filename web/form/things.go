package form

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/measure"
)

func ThingName(i int, part string) string { return fmt.Sprintf("contents[%d].%s", i, part) }

// NewThing is what an added row starts from.
func NewThing(shape contents.Shape) contents.Thing {
	t := contents.Thing{Name: "Jar", Shape: shape, Length: 48 * measure.Millimetre, Width: 48 * measure.Millimetre,
		Height: 62 * measure.Millimetre, Count: 1, Ease: contents.UsualEase}
	if shape != contents.Round {
		t.Name = "Thing"
	}
	return t
}

func ReadThing(f *Form, i int, t *contents.Thing) {
	name := func(part string) string { return ThingName(i, part) }
	old, shape := *t, string(t.Shape)
	f.Text(name("name"), &t.Name)
	f.Text(name("shape"), &shape)
	t.Shape = contents.Shape(shape)
	for part, into := range map[string]*measure.Length{"length": &t.Length, "width": &t.Width, "height": &t.Height, "ease": &t.Ease, "each": &t.Each, "raised": &t.Raised} {
		f.Length(name(part), into)
	}
	f.Whole(name("count"), &t.Count)
	f.Whole(name("cards"), &t.Cards)
	f.Whole(name("squeeze"), &t.Squeeze)
	f.Grams(name("grams"), &t.Grams)
	if k := f.Posted.Get(name("kind")); k != "" {
		t.Kind = contents.Kind(strings.TrimPrefix(k, otherKind))
	}
	if t.Shape == contents.Round {
		t.Width = t.Length
	}
	if t.Shape != old.Shape && t.Ease == contents.UsualEaseOf(old.Shape) {
		t.Ease = contents.UsualEaseOf(t.Shape)
		f.Posted.Del(name("ease"))
	}
	if f.Posted.Has(name("more")) {
		t.Fragile, t.PullOut = f.Posted.Has(name("fragile")), f.Posted.Has(name("pull_out"))
		if !f.PutBack(name("up")) {
			t.Up = []contents.Side{}
		}
		for _, s := range contents.Sides {
			if !f.PutBack(name("up")) && slices.Contains(f.Posted[name("up")], string(s)) {
				t.Up = append(t.Up, s)
			}
		}
	}
	if old.Count != t.Count || old.Fragile != t.Fragile || !slices.Equal(old.Up, t.Up) {
		f.Posted.Set("stand", "best") // the ways to stand are others now
	}
}

// ThingFields are the controls of one thing.
type ThingFields struct {
	N, ID                              int
	Name, Shape, Length, Width, Height Field
	Count, Ease, Grams, Kind           Field
	Squeeze, Cards, Each, Raised       Field
	Up                                 []Choice
	UpName, UpFault, MoreName          string
	FragileName, PullOutName           string
	Fragile, PullOut                   bool
	Round, Soft, Stack                 bool
}

func ThingFieldsOf(f *Form, i int, t contents.Thing) ThingFields {
	name := func(part string) string { return ThingName(i, part) }
	x := ThingFields{
		N:    i,
		ID:   t.ID,
		Name: f.Control(name("name"), "What is it?", "", t.Name),
		Shape: f.ChoiceField(
			name("shape"),
			"Shape",
			"",
			string(t.Shape),
			Choice{Value: "round", Label: "round: a jar, a tin, a ball"},
			Choice{Value: "block", Label: "a block"},
			Choice{
				Value: "stack",
				Label: "a stack of cards",
			},
			Choice{Value: "soft", Label: "flat and soft: cloth, wool"},
			Choice{Value: "irregular", Label: "no plain shape"},
		),
		Width:   f.LengthField(name("width"), "Width", "front to back", t.Width),
		Height:  f.LengthField(name("height"), "Height", "as it will stand", t.Height),
		Count:   f.Control(name("count"), "How many", "", fmt.Sprint(t.Count)),
		Ease:    f.LengthField(name("ease"), "Room to spare", "each way, in all; 2 to 3 mm for what does not give", t.Ease),
		Grams:   f.Control(name("grams"), "Weight of one, grams", "if you know it", ""),
		Kind:    f.ChoiceField(name("kind"), "It is", "for what to take care of", cmp.Or(string(t.Kind), otherKind), kindChoices()...),
		Squeeze: f.Control(name("squeeze"), "Squeeze, %", "how much of its loose height a gentle hand presses out", fmt.Sprint(t.Squeeze)),
		Cards:   f.Control(name("cards"), "Cards in the stack", "0 to go by its height", fmt.Sprint(t.Cards)),
		Each:    f.LengthField(name("each"), "One card, with envelope", "measure ten and divide", t.Each),
		Raised:  f.LengthField(name("raised"), "Raised by decoration", "0 for flat cards", t.Raised),
		UpName: name(
			"up",
		),
		UpFault:     f.Group(name("up"), "It may stand", fmt.Sprintf("up-%d-%s", i, contents.Sides[0])),
		MoreName:    name("more"),
		FragileName: name("fragile"),
		PullOutName: name("pull_out"),
		Fragile:     t.Fragile,
		PullOut:     t.PullOut,
	}
	x.Round, x.Soft, x.Stack = x.Shape.Value == string(
		contents.Round,
	), x.Shape.Value == string(
		contents.Soft,
	), x.Shape.Value == string(
		contents.Stack,
	)
	for part, shown := range map[string]bool{"squeeze": x.Soft, "cards": x.Stack, "each": x.Stack, "raised": x.Stack, "width": !x.Round} {
		if !shown {
			delete(f.placed, name(part))
		}
	}
	label, hint := "Length", "left to right"
	if x.Round {
		label, hint = "Across", "the widest place"
	}
	x.Length = f.LengthField(name("length"), label, hint, t.Length)
	if t.Grams > 0 && !f.Posted.Has(name("grams")) {
		x.Grams.Value = fmt.Sprintf("%g", t.Grams)
	}
	up := t.Up
	if up == nil {
		up = []contents.Side{contents.HeightUp}
	}
	for _, s := range contents.Sides {
		if x.Round && s == contents.WidthUp {
			continue
		}
		words := sideWords[s]
		if x.Round && s == contents.LengthUp {
			words = "lying"
		}
		x.Up = append(x.Up, Choice{Value: string(s), Label: words, Chosen: slices.Contains(up, s)})
	}
	return x
}

// otherKind stands in a form for a thing of which there is nothing to say.
const otherKind = "other"

// kindWords name what a thing is.
var kindWords = map[contents.Kind]string{
	contents.Other: "none of these", contents.Food: "food, dry", contents.GreasyFood: "food, greasy or moist", contents.Glass: "glass", contents.Candle: "a candle",
	contents.Jewellery: "jewellery", contents.Yarn: "yarn or cloth", contents.CardStack: "cards", contents.Soap: "soap", contents.Liquid: "liquid", contents.Hot: "hot when it is packed",
}

func kindChoices() []Choice {
	var out []Choice
	for _, k := range contents.Kinds {
		out = append(out, Choice{Value: cmp.Or(string(k), otherKind), Label: kindWords[k]})
	}
	return out
}

var sideWords = map[contents.Side]string{
	contents.HeightUp: "as measured",
	contents.WidthUp:  "on its long side",
	contents.LengthUp: "on its end",
}

// MatName is the form's name for a part of the nth mat: the design file's own.
func MatName(n int, part string) string { return fault.Path("mats", n, part) }

// UsualMat is what a mat on some faces of a piece starts as: card, and
// patterned paper on it.
func UsualMat(piece string, faces []string, unit measure.Unit) dress.Dressing {
	d := dress.Dressing{Piece: piece, Faces: faces}
	for n := range 2 {
		d.Layers = append(d.Layers, UsualLayer(n, unit))
	}
	return d
}

// UsualLayer is what the nth layer of a mat starts as: card and paper in turn.
func UsualLayer(n int, unit measure.Unit) dress.Layer {
	border := dress.Even(measure.Inch / 16)
	if unit != measure.In {
		border = dress.Even(2 * measure.Millimetre)
	}
	if n%2 == 0 {
		return dress.Layer{Card: dress.Backing, Border: border}
	}
	return dress.Layer{Card: dress.Patterned, Border: border}
}
