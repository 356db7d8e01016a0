package design

import (
	"slices"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/label"
	"brevium/core/measure"
)

type (
	// bareLabel is what a label is, wherever it lies.
	bareLabel struct {
		ID     bandID       `json:"id,omitzero"`
		Name   string       `json:"name"`
		Shape  string       `json:"shape"`
		Width  measure.Text `json:"width"`
		Height measure.Text `json:"height"`
		Layers []layerFile  `json:"layers"`
		Text   string       `json:"text,omitempty"`
		Copies int          `json:"copies,omitempty"`
		Hole   bool         `json:"hole,omitempty"`
	}
	// labelFile is a label in the middle of a face, or a tag.
	labelFile struct {
		bareLabel
		Piece  string       `json:"piece,omitempty"`
		Face   string       `json:"face,omitempty"`
		Raised measure.Text `json:"raised,omitempty"`
	}
	// placedFile is a label with a place of its own.
	placedFile struct {
		What string `json:"what"`
		bareLabel
		On     onFile       `json:"on"`
		Side   string       `json:"side,omitempty"`
		Across offFile      `json:"across,omitzero"`
		Up     offFile      `json:"up,omitzero"`
		Turn   int          `json:"turn,omitempty"`
		Raised bool         `json:"raised,omitempty"`
		Pads   measure.Text `json:"pads,omitempty"`
	}
	onFile struct {
		Piece string `json:"piece,omitempty"`
		Face  string `json:"face,omitempty"`
		Band  string `json:"band,omitempty"`
	}
	offFile struct {
		From string       `json:"from,omitempty"`
		At   measure.Text `json:"at,omitempty"`
	}
)

// placeable are the things that can be given a place, each a label with a name of its kind.
var placeable = []string{"label", "topper", "tag", "flag", "strip"}

// usualPads is how high pads lift what is raised when nothing is said.
const usualPads = 2 * measure.Millimetre

func (r *reader) labels(all []labelFile) {
	for i, f := range all {
		at := func(path ...any) string { return fault.Path(append([]any{"labels", i}, path...)...) }
		l := r.label(at, f.bareLabel)
		l.Piece, l.Face, l.Raised = f.Piece, f.Face, r.length(at("raised"), f.Raised, 0)
		r.in.Labels = append(r.in.Labels, l)
	}
}

func (r *reader) label(at func(...any) string, f bareLabel) label.Label {
	l := label.Label{ID: f.ID.n, Called: f.ID.word, Name: f.Name, Shape: label.Shape(f.Shape), Text: f.Text, Copies: max(1, f.Copies), Hole: f.Hole}
	l.Width, l.Height = r.length(at("width"), f.Width, 0), r.length(at("height"), f.Height, 0)
	for n, x := range f.Layers {
		l.Layers = append(l.Layers, dress.Layer{Card: r.card(at("layers", n, "card"), x.Card), Border: r.border(at("layers", n, "border"), x.Border)})
	}
	return l
}

func (r *reader) placed(all []placedFile) {
	for i, f := range all {
		at := func(path ...any) string { return fault.Path(append([]any{"placed", i}, path...)...) }
		if !slices.Contains(placeable, f.What) {
			r.fail(fault.New(fault.UnknownChoice, at("what"), "what is placed is one of %v", placeable))
		}
		if f.Side != "" && f.Side != string(dress.Outside) {
			r.fail(fault.New(fault.UnknownPlace, at("side"), "what is placed lies on the outside"))
		}
		l := r.label(at, f.bareLabel)
		l.Piece, l.Face, l.Band = f.On.Piece, f.On.Face, f.On.Band
		if f.Raised {
			l.Raised = r.length(at("pads"), f.Pads, usualPads)
		}
		off := func(field string, x offFile) label.Off {
			if x.From == "middle" {
				x.From = ""
			}
			return label.Off{From: label.Edge(x.From), At: r.signed(at(field, "at"), x.At)}
		}
		l.Place = label.Place{Across: off("across", f.Across), Up: off("up", f.Up), Turn: f.Turn}
		r.in.Labels = append(r.in.Labels, l)
	}
}

// isPlaced reports whether a label is more than one in the middle of a face.
func isPlaced(l label.Label) bool {
	return l.Place != (label.Place{}) || l.Band != "" || l.Called != ""
}

func writeBare(l label.Label) bareLabel {
	f := bareLabel{ID: bandID{l.ID, l.Called}, Name: l.Name, Shape: string(l.Shape), Width: mmText(l.Width), Height: mmText(l.Height), Text: l.Text, Copies: l.Copies, Hole: l.Hole}
	for _, x := range l.Layers {
		f.Layers = append(f.Layers, layerFile{writeCard(x.Card), borderOf(x.Border)})
	}
	return f
}

func writeLabel(l label.Label) labelFile {
	f := labelFile{bareLabel: writeBare(l), Piece: l.Piece, Face: l.Face}
	if l.Raised > 0 {
		f.Raised = mmText(l.Raised)
	}
	return f
}

func writePlaced(l label.Label) placedFile {
	f := placedFile{What: placeable[0], bareLabel: writeBare(l), On: onFile{l.Piece, l.Face, l.Band}, Turn: l.Place.Turn}
	if l.Raised > 0 {
		f.Raised, f.Pads = true, mmText(l.Raised)
	}
	off := func(o label.Off) offFile {
		if o == (label.Off{}) {
			return offFile{}
		}
		return offFile{string(o.From), mmText(o.At)}
	}
	f.Across, f.Up = off(l.Place.Across), off(l.Place.Up)
	return f
}
