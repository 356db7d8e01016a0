package design

import (
	"brevium/core/inspect"
	"brevium/core/paper"
	"brevium/core/style"
)

// Tied is a papered design with what goes round the closed box: bands, ribbons, wrapping paper.
type Tied struct {
	Papered
	Bands   []Banded
	Ribbons []Ribboned
	Wrapped *Wrapped // nil when it is not wrapped
	Lying   []Lying  // on the closed box, in the order it is put on
	found   []inspect.Finding
}

// tie works out what goes round the box: bands first, ribbons over them, wrapping paper over
// all that is flat.
func tie(p Papered) (*Tied, error) {
	t := &Tied{Papered: p}
	if err := t.band(); err != nil {
		return nil, err
	}
	if err := t.ribbon(); err != nil {
		return nil, err
	}
	return t, t.wrapUp()
}

// Lying is what lies on the closed box: a band, a ribbon. Piece is the part it is
// cut as, "" when it is none.
type Lying struct {
	Piece  string
	Card   paper.Card
	Plates []style.Plate
}

// lies notes what lies on the closed box now; what comes after goes over it.
func (t *Tied) lies(piece string, c paper.Card, plates []style.Plate) {
	t.Lying = append(t.Lying, Lying{piece, c, plates})
}

// over is all that lies on the closed box so far.
func (t *Tied) over() []style.Plate {
	var out []style.Plate
	for _, l := range t.Lying {
		out = append(out, l.Plates...)
	}
	return out
}
