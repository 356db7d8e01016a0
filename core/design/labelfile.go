package design

import (
	"cmp"
	"slices"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/paper"
)

type (
	// bareLabel is what a label is, wherever it lies.
	bareLabel struct {
		ID     bandID       `json:"id,omitzero"`
		Name   string       `json:"name,omitempty"`
		Shape  string       `json:"shape"`
		Width  measure.Text `json:"width"`
		Height measure.Text `json:"height"`
		Layers []layerFile  `json:"layers,omitempty"`
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
		Stands measure.Text `json:"stands,omitempty"`
		Colour string       `json:"colour,omitempty"`
		Film   bool         `json:"film,omitempty"`
	}
	onFile struct {
		Piece  string `json:"piece,omitempty"`
		Face   string `json:"face,omitempty"`
		Band   string `json:"band,omitempty"`
		Placed string `json:"placed,omitempty"`
		Paper  string `json:"paper,omitempty"`
	}
	offFile struct {
		From string       `json:"from,omitempty"`
		At   measure.Text `json:"at,omitempty"`
	}
)

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
		if len(x.Size) > 0 {
			r.fail(fault.New(fault.UnknownField, at("layers", n, "size"), "a layer of a label is as large as its border leaves it; give the label its width and height"))
		}
		l.Layers = append(l.Layers, dress.Layer{Card: r.card(at("layers", n, "card"), x.Card), Border: r.border(at("layers", n, "border"), x.Border)})
	}
	return l
}

func (r *reader) placed(all []placedFile) {
	for i, f := range all {
		at := func(path ...any) string { return fault.Path(append([]any{"placed", i}, path...)...) }
		what := label.What(f.What)
		if f.What == windowWhat {
			r.window(at, f)
			continue
		}
		if !slices.Contains(label.Whats, what) {
			r.fail(fault.New(fault.UnknownChoice, at("what"), "what is placed is a window or one of %v", label.Whats))
		}
		if f.Side != "" && f.Side != string(dress.Outside) {
			r.fail(fault.New(fault.UnknownPlace, at("side"), "what is placed lies on the outside"))
		}
		l := r.label(at, f.bareLabel)
		l.Piece, l.Face, l.Band = f.On.Piece, f.On.Face, f.On.Band
		if l.Upon = (label.Upon{Thing: f.On.Placed, Paper: f.On.Paper}); l.Upon != (label.Upon{}) && f.On != (onFile{Placed: f.On.Placed}) && f.On != (onFile{Paper: f.On.Paper}) {
			r.fail(fault.New(fault.BothGiven, at("on"), "a thing lies on a face, a band, a paper or another thing: on one of them"))
		}
		if l.What = what; what == label.Plain {
			l.What = ""
		}
		if what.Bought() {
			r.bought(at, f, &l)
		}
		if f.Raised {
			l.Raised = r.length(at("pads"), f.Pads, usualPads)
		}
		l.Place = r.place(at, f)
		r.in.Labels = append(r.in.Labels, l)
	}
}

// windowWhat is what a window is called among what is placed.
const windowWhat = "window"

// window reads a window, of which nothing else can be said than what it is and where.
func (r *reader) window(at func(...any) string, f placedFile) {
	if len(f.Layers) > 0 || f.Text != "" || f.Hole || f.Raised || f.Colour != "" || f.Copies > 1 || f.Name != "" {
		r.fail(fault.New(fault.UnknownField, at("what"), "a window has a shape, a size, a place and film, and nothing else"))
	}
	r.in.Windows = append(r.in.Windows, label.Window{
		ID: f.ID.n, Shape: label.Shape(f.Shape), Width: r.length(at("width"), f.Width, 0), Height: r.length(at("height"), f.Height, 0),
		Piece: f.On.Piece, Face: f.On.Face, Place: r.place(at, f), Film: f.Film,
	})
}

// place reads where something lies on its face.
func (r *reader) place(at func(...any) string, f placedFile) label.Place {
	off := func(field string, x offFile) label.Off {
		if x.From == "middle" {
			x.From = ""
		}
		return label.Off{From: label.Edge(x.From), At: r.signed(at(field, "at"), x.At)}
	}
	return label.Place{Across: off("across", f.Across), Up: off("up", f.Up), Turn: f.Turn}
}

// bought reads a thing that is not cut; what is not said of it is as usual.
func (r *reader) bought(at func(...any) string, f placedFile, l *label.Label) {
	usual := UsualBought(l.What, r.unit)
	l.Width, l.Height = r.length(at("width"), f.Width, usual.Width), r.length(at("height"), f.Height, usual.Height)
	l.Stands, l.Colour = r.length(at("stands"), f.Stands, usual.Stands), usual.Colour
	if f.Shape == "" {
		l.Shape = usual.Shape
	}
	if f.Name == "" {
		l.Name = usual.Name
	}
	if f.Colour != "" {
		c, err := paper.ParseColour(f.Colour)
		if err != nil {
			r.fail(fault.At(at("colour"), err))
		}
		l.Colour = c
	}
}

// isPlaced reports whether a label is more than one in the middle of a face.
func isPlaced(l label.Label) bool {
	return l.Place != (label.Place{}) || l.Band != "" || l.Upon != (label.Upon{}) || l.Called != "" || l.What != ""
}

func writeBare(l label.Label) bareLabel {
	f := bareLabel{ID: bandID{l.ID, l.Called}, Name: l.Name, Shape: string(l.Shape), Width: mmText(l.Width), Height: mmText(l.Height), Text: l.Text, Copies: l.Copies, Hole: l.Hole}
	for _, x := range l.Layers {
		f.Layers = append(f.Layers, writeLayer(x))
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
	f := placedFile{What: string(cmp.Or(l.What, label.Plain)), Colour: string(l.Colour), bareLabel: writeBare(l), On: onFile{Piece: l.Piece, Face: l.Face, Band: l.Band}}
	if l.Upon != (label.Upon{}) {
		f.On = onFile{Placed: l.Upon.Thing, Paper: l.Upon.Paper}
	}
	if l.Raised > 0 {
		f.Raised, f.Pads = true, mmText(l.Raised)
	}
	if l.Stands > 0 {
		f.Stands = mmText(l.Stands)
	}
	f.put(l.Place)
	return f
}

func writeWindow(w label.Window) placedFile {
	f := placedFile{What: windowWhat, On: onFile{Piece: w.Piece, Face: w.Face}, Film: w.Film,
		bareLabel: bareLabel{ID: bandID{n: w.ID}, Shape: string(w.Shape), Width: mmText(w.Width), Height: mmText(w.Height)}}
	f.put(w.Place)
	return f
}

// put writes where something lies on its face.
func (f *placedFile) put(p label.Place) {
	off := func(o label.Off) offFile {
		if o == (label.Off{}) {
			return offFile{}
		}
		return offFile{string(o.From), mmText(o.At)}
	}
	f.Across, f.Up, f.Turn = off(p.Across), off(p.Up), p.Turn
}
