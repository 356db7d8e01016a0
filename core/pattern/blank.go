package pattern

import "brevium/core/measure"

// Blank is a rectangle that a trimmer cuts off a sheet, and what comes out of
// it: one piece that is scored and cut further, or several.
type Blank struct {
	ID, Name      string
	Width, Height measure.Length
	Gives         []Given
}

// Given is one thing that comes out of a blank, by its id, and its outline on
// it, in mm from the blank's top left corner.
type Given struct {
	ID      string
	Outline []Point
}

// Halved reports whether the blank is cut in two from corner to corner.
func (b Blank) Halved() bool { return len(b.Gives) == 2 && len(b.Gives[0].Outline) == 3 }

// Blank is the piece's own.
func (p *Pattern) Blank(id, name string) Blank {
	return Blank{ID: id, Name: name, Width: p.Width, Height: p.Height, Gives: []Given{{id, p.Outline.Flat()}}}
}
