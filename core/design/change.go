package design

import (
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"
	"sync"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/stuff"
	"brevium/core/style"
)

// Clone is a copy that shares nothing with the original.
func (in Inputs) Clone() Inputs {
	in.Size = maps.Clone(in.Size)
	in.Cards = maps.Clone(in.Cards)
	in.Choices = maps.Clone(in.Choices)
	in.Lengths = maps.Clone(in.Lengths)
	in.Grains, in.Glue, in.Constants = maps.Clone(in.Grains), maps.Clone(in.Glue), maps.Clone(in.Constants)
	in.Things = slices.Clone(in.Things)
	in.Linings = slices.Clone(in.Linings)
	in.Sheets = slices.Clone(in.Sheets)
	own := &in.Tools.Owned
	own.Punches, own.Rounders, own.Dies = slices.Clone(own.Punches), slices.Clone(own.Rounders), slices.Clone(own.Dies)
	in.Leans = slices.Clone(in.Leans)
	in.Mats = slices.Clone(in.Mats)
	for i := range in.Mats {
		in.Mats[i].Layers, in.Mats[i].Faces = slices.Clone(in.Mats[i].Layers), slices.Clone(in.Mats[i].Faces)
	}
	in.Bands = slices.Clone(in.Bands)
	for i, b := range in.Bands {
		if b.Card != nil {
			card := *b.Card
			in.Bands[i].Card = &card
		}
	}
	in.Covers, in.Ribbons, in.Closures = slices.Clone(in.Covers), slices.Clone(in.Ribbons), slices.Clone(in.Closures)
	in.OwnSteps = slices.Clone(in.OwnSteps)
	for i := range in.OwnSteps {
		in.OwnSteps[i].Supplies = slices.Clone(in.OwnSteps[i].Supplies)
	}
	in.Windows, in.Each = slices.Clone(in.Windows), slices.Clone(in.Each)
	in.Labels = slices.Clone(in.Labels)
	for i := range in.Labels {
		in.Labels[i].Layers = slices.Clone(in.Labels[i].Layers)
	}
	if in.Wrap != nil {
		wrap := *in.Wrap
		in.Wrap = &wrap
	}
	in.Loose = slices.Clone(in.Loose)
	for i := range in.Loose {
		in.Loose[i] = in.Loose[i].Clone()
	}
	return in
}

// SetStyle changes the style, keeping the sizes, options and mats that mean
// something to the new one.
func (in *Inputs) SetStyle(id string) error {
	s, err := style.ByID(id)
	if err != nil {
		return fault.At("style", err)
	}
	if old, err := style.ByID(in.Style); err == nil {
		in.leaveWeights(old)
	}
	in.Style = id
	maps.DeleteFunc(in.Size, func(k string, _ measure.Length) bool {
		return !slices.ContainsFunc(s.Parameters, func(p *style.Parameter) bool { return p.ID == k })
	})
	maps.DeleteFunc(in.Lengths, func(k string, _ measure.Length) bool {
		o, there := s.Option(k)
		return !there || o.Kind != style.LengthKind
	})
	maps.DeleteFunc(in.Choices, func(k, v string) bool {
		o, there := s.Option(k)
		return !there || o.Kind != style.ChoiceKind || !slices.Contains(o.Choices, v)
	})
	if s.Inner { // cells are made in what holds it
		in.Compartments = Compartments{}
	}
	pieces, err := facesByPiece(in, s)
	if err != nil {
		return err
	}
	for _, p := range in.Loose { // they are of no style
		if made, err := p.Pattern(); err == nil {
			pieces = maps.Clone(pieces)
			for _, m := range made.Marks {
				pieces[p.PieceID()] = append(pieces[p.PieceID()], m.Name)
			}
		}
	}
	for i := range in.Mats {
		d := &in.Mats[i]
		if named := len(d.Faces) > 0; named {
			d.Faces = slices.DeleteFunc(slices.Clone(d.Faces), func(face string) bool { return !slices.Contains(pieces[d.Piece], face) })
			if len(d.Faces) == 0 && d.Where == "" {
				d.Piece = ""
			}
		}
	}
	in.Mats = slices.DeleteFunc(in.Mats, func(d dress.Dressing) bool { return pieces[d.Piece] == nil })
	if len(in.Mats) == 0 {
		in.Mats = nil
	}
	in.Labels = in.Rested()
	in.Labels = slices.DeleteFunc(in.Labels, func(l label.Label) bool { // a bow has nothing to sit on
		return l.What.Bought() && l.Piece != "" && !slices.Contains(pieces[l.Piece], l.Face)
	})
	for i := range in.Labels { // without its face a label is a tag
		if l := &in.Labels[i]; l.Piece != "" && !slices.Contains(pieces[l.Piece], l.Face) {
			l.Piece, l.Face, l.Upon = "", "", label.Upon{}
		}
	}
	in.Windows = slices.DeleteFunc(in.Windows, func(w label.Window) bool { return !slices.Contains(pieces[w.Piece], w.Face) })
	in.Covers = slices.DeleteFunc(slices.Clone(in.Covers), func(c dress.Cover) bool { return pieces[c.Piece] == nil })
	return nil
}

// usualPieces keeps what pieces found, by unit and style: it is always the
// same.
var usualPieces sync.Map

// usual is what the pieces of a style are at its usual size: the first one's id,
// and the faces of each.
type usual struct {
	first string
	faces map[string][]pattern.Mark
}

// facesByPiece are the ids of the pieces a style makes at its usual size, each with
// the names of its faces.
func facesByPiece(in *Inputs, s *style.Style) (map[string][]string, error) {
	u, err := usualOf(in, s)
	if err != nil {
		return nil, err
	}
	out := map[string][]string{}
	for id, marks := range u.faces {
		for _, m := range marks {
			out[id] = append(out[id], m.Name)
		}
	}
	return out, nil
}

func usualOf(in *Inputs, s *style.Style) (usual, error) {
	key := [2]string{string(in.Units), s.ID}
	if known, there := usualPieces.Load(key); there {
		return known.(usual), nil
	}
	plain := New("", in.Units, s.ID)
	spec, err := plain.spec(s)
	if err != nil {
		return usual{}, err
	}
	s.Follow(&spec, func(string) bool { return false })
	box, err := s.Make(spec)
	if err != nil {
		return usual{}, err
	}
	out := usual{first: box.Parts[0].ID, faces: map[string][]pattern.Mark{}}
	for _, p := range box.Parts {
		out.faces[p.ID] = p.Pattern.Marks
	}
	usualPieces.Store(key, out)
	return out, nil
}

// Parted gives the design the sizes by which its style parts a whole sheet;
// false when it has none.
func (in Inputs) Parted(sheet paper.Sheet) (Inputs, bool) {
	s, err := style.ByID(in.Style)
	if err != nil || s.FromSheet == nil {
		return in, false
	}
	out := in.Clone()
	out.Things, out.Basis = nil, Scored
	maps.Copy(out.Size, s.FromSheet(sheet.Width, sheet.Height, in.Tools.Tick))
	return out, true
}

// Mend makes the one change that mends what a check found.
func (in *Inputs) Mend(m inspect.Mend) {
	what, id, _ := strings.Cut(m.Field, ".")
	switch what {
	case "size":
		in.Size[id] = m.To
	case "options":
		if m.Choice != "" {
			in.Choices[id] = m.Choice
		} else {
			in.Lengths[id] = m.To
		}
	case "cards":
		in.Cards[id] = *m.Card
	case "grain":
		in.Grains[id] = paper.Run(m.Choice)
	case "glue":
		in.Glue[stuff.Joint(id)] = stuff.Glue(m.Choice)
	case "load":
		in.Load.Carry = Carry(m.Choice)
	case "linings":
		if !hasLining(in, Stiffener) {
			in.Linings = append(in.Linings, Stiffener)
		}
		in.Cards[string(Stiffener)] = GreyBoard
	}
}

// GreyBoard is what is laid on a floor that is to carry: 1.6 mm thick.
var GreyBoard = paper.Card{Name: "Grey board", GSM: 1000, Thickness: 1600 * measure.Micrometre}

// SetUnits changes the unit that lengths are shown and typed in. The board and
// every size stay as they are: it is the same box.
func (in *Inputs) SetUnits(u measure.Unit) { in.Units = u }

// Difference names, in a few words, what changed from a to b; "" when
// nothing did.
func Difference(a, b Inputs) string {
	var what []string
	note := func(same bool, words string) {
		if !same {
			what = append(what, words)
		}
	}
	note(a.Name == b.Name, "name")
	note(a.Style == b.Style, "box style")
	s, err := style.ByID(b.Style)
	if err == nil && a.Style == b.Style {
		for _, p := range s.Parameters {
			note(a.Size[p.ID] == b.Size[p.ID], strings.ToLower(p.Label))
		}
		for _, o := range s.Options {
			la, hasA := a.Lengths[o.ID]
			lb, hasB := b.Lengths[o.ID]
			note(la == lb && hasA == hasB && a.Choices[o.ID] == b.Choices[o.ID], strings.ToLower(o.Label))
		}
	}
	note(a.Basis == b.Basis, "what the size is of")
	note(reflect.DeepEqual(a.Things, b.Things) && a.Stand == b.Stand, "contents")
	note(slices.Equal(a.Each, b.Each), "what goes in each")
	note(a.Compartments == b.Compartments, "compartments")
	note(slices.Equal(a.Linings, b.Linings) && a.RiserHeight == b.RiserHeight, "linings")
	note(a.Card == b.Card && maps.Equal(a.Cards, b.Cards), "card")
	note(a.Fit == b.Fit, "fit wanted")
	note(a.Load == b.Load, "load")
	note(a.For == b.For, "who gets it")
	note(maps.Equal(a.Grains, b.Grains), "grain")
	note(a.Hand == b.Hand, "the hand")
	note(maps.Equal(a.Glue, b.Glue), "adhesives")
	note(maps.Equal(a.Constants, b.Constants), "what card does")
	note(slices.Equal(a.Leans, b.Leans), "what the notes say")
	note(reflect.DeepEqual(a.Mats, b.Mats), "dressing")
	note(reflect.DeepEqual(a.Loose, b.Loose), "loose pieces")
	note(reflect.DeepEqual(a.Bands, b.Bands), "bands")
	note(slices.Equal(a.Covers, b.Covers), "coverings")
	note(reflect.DeepEqual(a.Labels, b.Labels), "labels")
	note(slices.Equal(a.Windows, b.Windows), "windows")
	note(reflect.DeepEqual(a.OwnSteps, b.OwnSteps), "steps of your own")
	note(slices.Equal(a.Closures, b.Closures), "closures")
	note(slices.Equal(a.Ribbons, b.Ribbons), "ribbons")
	note(reflect.DeepEqual(a.Wrap, b.Wrap), "wrapping paper")
	note(slices.Equal(a.Sheets, b.Sheets), "sheets")
	note(a.Copies == b.Copies, "copies")
	note(a.Price == b.Price, "price")
	note(a.Recipe == b.Recipe, "the recipe")
	note(a.Photograph == b.Photograph, "its photograph")
	note(a.Tools.Same(b.Tools), "tools")
	if a.Units != b.Units {
		return "units" // the tick follows
	}
	if len(what) > 2 {
		return fmt.Sprintf("%s and %d more", what[0], len(what)-1)
	}
	return strings.Join(what, " and ")
}
