package loose

import "brevium/core/measure"

// Usual are loose pieces that boxes often have, to begin from.
var Usual = []struct {
	ID, Name, For string
	make          func(size) Piece
}{
	{"strap", "Strap", "goes round the box", func(s size) Piece {
		w := s(7*inch, 180)
		lap := s(inch, 25)
		return Piece{Width: w, Height: s(3*inch/4, 20), Vertical: []measure.Length{lap, w - lap}}
	}},
	{"tag", "Tag", "hangs on a ribbon", func(s size) Piece {
		w, h := s(2*inch, 50), s(3*inch, 75)
		return Piece{Width: w, Height: h, Corners: Cut, Radius: s(3*inch/8, 10),
			Holes: []Hole{{Point: Point{w / 2, s(3*inch/8, 10)}, Width: s(inch/8, 4)}}}
	}},
	{"label", "Label", "is stuck on", func(s size) Piece {
		return Piece{Width: s(2*inch, 50), Height: s(inch, 25), Corners: Rounded, Radius: s(inch/4, 6)}
	}},
	{"strip", "Strip", "covers the end of a ribbon or a join", func(s size) Piece {
		return Piece{Width: s(3*inch, 75), Height: s(inch/2, 12)}
	}},
	{"stiffener", "Stiffener", "makes a panel firm", func(s size) Piece {
		return Piece{Width: s(3*inch, 75), Height: s(3*inch, 75)}
	}},
	{"pull-tab", "Pull tab", "is folded once and glued on to pull by", func(s size) Piece {
		w := s(2*inch, 50)
		return Piece{Width: w, Height: w / 2, Vertical: []measure.Length{w / 2}, Corners: Rounded, Radius: s(inch/4, 6)}
	}},
	{"blank", "Blank", "is whatever you score and cut", func(s size) Piece {
		return Piece{Width: s(4*inch, 100), Height: s(2*inch, 50)}
	}},
}

const inch = measure.Inch

// size gives a length that is round in the unit that one works in.
type size func(inches, millimetres measure.Length) measure.Length

// Begin is a usual piece for someone who works in a unit; false when there is
// none of that name.
func Begin(id string, unit measure.Unit) (Piece, bool) {
	for _, u := range Usual {
		if u.ID == id {
			p := u.make(func(inches, millimetres measure.Length) measure.Length {
				if unit == measure.In {
					return inches
				}
				return millimetres * mm
			})
			p.Name, p.Copies = u.Name, 1
			if p.Corners == "" {
				p.Corners = Square
			}
			return p, true
		}
	}
	return Piece{}, false
}
