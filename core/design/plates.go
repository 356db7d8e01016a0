package design

import (
	"brevium/core/paper"
	"brevium/core/style"
)

// Lying is what lies on the closed box: a band, a ribbon. Piece is the part it is
// cut as, "" when it is none.
type Lying struct {
	Piece  string
	Card   paper.Card
	Plates []style.Plate
}

// lies notes what lies on the closed box now; what comes after goes over it.
func (r *Result) lies(piece string, c paper.Card, plates []style.Plate) {
	r.Lying = append(r.Lying, Lying{piece, c, plates})
}

// over is all that lies on the closed box so far.
func (r *Result) over() []style.Plate {
	var out []style.Plate
	for _, l := range r.Lying {
		out = append(out, l.Plates...)
	}
	return out
}
