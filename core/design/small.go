package design

import (
	"maps"
	"slices"

	"brevium/core/dress"
	"brevium/core/style"
)

// SmallBox finds a small box of an assembly.
func (s *Sized) SmallBox(id string) (style.Small, bool) {
	i := slices.IndexFunc(s.Box.Small, func(x style.Small) bool { return x.ID == id })
	if i < 0 {
		return style.Small{}, false
	}
	return s.Box.Small[i], true
}

// Alone is a small box of an assembly as a design of its own: its size, its card
// and its papers, with the sheets and tools of the assembly.
func (s *Sized) Alone(x style.Small) Inputs {
	in := &s.Inputs
	out := New(in.Name+", "+x.Name, in.Units, x.Style.ID)
	out.Sheets, out.Tools, out.Fit = slices.Clone(in.Sheets), in.Tools, in.Fit
	out.Size, out.Lengths, out.Choices = maps.Clone(x.Sizes), maps.Clone(x.Options), maps.Clone(x.Choices)
	out.Card = in.Card
	for own, piece := range x.Pieces {
		if c := in.CardOf(piece); c != in.Card {
			out.Cards[own] = c
		}
		for _, d := range in.Mats {
			if d.Piece == piece {
				d.Piece, d.ID = own, 0
				d.Faces, d.Layers = slices.Clone(d.Faces), slices.Clone(d.Layers)
				out.Mats = append(out.Mats, d)
			}
		}
	}
	slices.SortStableFunc(out.Mats, func(a, b dress.Dressing) int { return len(a.Piece) - len(b.Piece) })
	return out
}
