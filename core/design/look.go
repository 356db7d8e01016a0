package design

import (
	"encoding/json"
	"maps"
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/strict"
)

// lookFile is a card's look in a file; what is left out is as the name says.
type lookFile struct {
	Outside string       `json:"outside,omitempty"`
	Inside  string       `json:"inside,omitempty"`
	Print   string       `json:"print,omitempty"`
	Inks    []string     `json:"inks,omitempty"`
	Scale   measure.Text `json:"scale,omitempty"`
	Turn    int          `json:"turn,omitempty"`
	Photo   *photoFile   `json:"photo,omitempty"`
}

type photoFile struct {
	ID   string       `json:"id"`
	Wide measure.Text `json:"wide"`
	High measure.Text `json:"high"`
}

// ReadLook reads a look that WriteLook wrote; nothing is the one by the name.
func ReadLook(text []byte) (paper.Look, error) {
	if len(text) == 0 {
		return paper.Look{}, nil
	}
	var f lookFile
	if err := strict.Decode(text, &f); err != nil {
		return paper.Look{}, err
	}
	r := reader{unit: measure.MM}
	l := r.look("look", &f)
	return l, r.err
}

// WriteLook writes a look, nothing for the one by the name.
func WriteLook(l paper.Look) []byte {
	f := writeLook(l)
	if f == nil {
		return nil
	}
	text, err := json.Marshal(f)
	if err != nil {
		panic(err) // every field is plain text
	}
	return text
}

// look reads a card's look.
func (r *reader) look(field string, f *lookFile) paper.Look {
	if f == nil {
		return paper.Look{}
	}
	colour := func(name any, text string) paper.Colour {
		if text == "" {
			return ""
		}
		c, err := paper.ParseColour(text)
		if err != nil {
			r.fail(fault.At(fault.Path(field, name), err))
		}
		return c
	}
	l := paper.Look{Outside: colour("outside", f.Outside), Inside: colour("inside", f.Inside), Print: paper.Print(f.Print), Turn: f.Turn}
	if len(f.Inks) > paper.MostInks {
		r.fail(fault.New(fault.CountRange, fault.Path(field, "inks"), "a print has up to %d colours on that of the paper", paper.MostInks))
	}
	for i := range min(len(f.Inks), paper.MostInks) {
		l.Inks[i] = colour(fault.Path("inks", i), f.Inks[i])
	}
	l.Scale = r.length(fault.Path(field, "scale"), f.Scale, 0)
	if p := f.Photo; p != nil {
		l.Photo = paper.Photo{ID: p.ID, Wide: r.length(fault.Path(field, "photo.wide"), p.Wide, 0), High: r.length(fault.Path(field, "photo.high"), p.High, 0)}
	}
	if err := l.Check(); err != nil {
		r.fail(fault.At(field, err))
	}
	return l
}

// writeLook is nil for a look that is taken from the name.
func writeLook(l paper.Look) *lookFile {
	if l == (paper.Look{}) {
		return nil
	}
	f := &lookFile{Outside: string(l.Outside), Inside: string(l.Inside), Print: string(l.Print), Turn: l.Turn}
	last := -1
	for i, c := range l.Inks {
		if c != "" {
			last = i
		}
	}
	for i := range last + 1 {
		f.Inks = append(f.Inks, string(l.Inks[i]))
	}
	if l.Scale != 0 {
		f.Scale = mmText(l.Scale)
	}
	if l.Photo.ID != "" {
		f.Photo = &photoFile{l.Photo.ID, mmText(l.Photo.Wide), mmText(l.Photo.High)}
	}
	return f
}

// AllCards are the cards and papers of a design: the box's, those of single
// pieces, of papers on top, of bands and of loose pieces; some more than once.
func (in *Inputs) AllCards() []paper.Card {
	out := []paper.Card{in.Card}
	for _, id := range slices.Sorted(maps.Keys(in.Cards)) {
		out = append(out, in.Cards[id])
	}
	for _, d := range in.Mats {
		for _, l := range d.Layers {
			out = append(out, l.Card)
		}
	}
	for _, b := range in.Bands {
		if b.Card != nil {
			out = append(out, *b.Card)
		}
	}
	for _, l := range in.Labels {
		for _, x := range l.Layers {
			out = append(out, x.Card)
		}
	}
	for _, p := range in.Loose {
		if p.Card != nil {
			out = append(out, *p.Card)
		}
	}
	return out
}
