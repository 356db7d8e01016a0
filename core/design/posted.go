package design

import (
	"math"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/stuff"
	"brevium/core/style"
)

// Parcel is how one box, full, and all of them flat, go by post, and how many a crate holds.
type Parcel struct {
	// Mine is what the box itself weighs, and Full what it weighs with what goes in, in grams.
	Mine, Full float64
	// MadeUp is the box with padding round it; Flat are the blanks of all copies, unglued, in a pile.
	MadeUp, Flat [3]float64
	FlatGrams    float64
	ByPost       stuff.Posted
	FlatByPost   stuff.Posted
	// Tubes are the pieces that lie flat glued, too, three cards thick, and GluedHigh how high the
	// pile is then, in mm.
	Tubes     []string
	GluedHigh float64
	// Bears is what the box bears, in N, and Crate how many go into the crate.
	Bears float64
	Crate stuff.Crate
}

// Parcel works out how the box goes by post, in classes, and into a crate of the given inside, in
// mm.
func (r *Result) Parcel(classes []stuff.Class, crate [3]float64) Parcel {
	var p Parcel
	var cards, glued []float64
	long, wide := 0.0, 0.0
	for _, x := range r.Parts {
		n := float64(x.Copies())
		p.Mine += n * x.Pattern.Area() * x.Card.GSM / 1e6
		for range x.Copies() {
			cards = append(cards, x.Card.Thickness.MM())
			glued = append(glued, x.Card.Thickness.MM())
			if tube(x) {
				glued[len(glued)-1] *= 3
			}
		}
		if tube(x) {
			p.Tubes = append(p.Tubes, strings.ToLower(x.Name))
		}
		w, h := x.Pattern.Width.MM(), x.Pattern.Height.MM()
		long, wide = max(long, max(w, h)), max(wide, min(w, h))
	}
	for _, m := range r.Mats {
		area := m.Width.MM() * m.Height.MM()
		p.Mine += area * m.Card.GSM / 1e6
	}
	p.Full = p.Mine + r.Inputs.Carried().Grams
	p.FlatGrams = p.Mine * float64(r.Inputs.Copies)
	out := r.Outside
	p.MadeUp = stuff.Padded(out.Length.MM(), out.Width.MM(), out.Height.MM())
	p.Flat = [3]float64{long, wide, stuff.FlatHigh(r.Inputs.Copies, cards)}
	p.GluedHigh = stuff.FlatHigh(r.Inputs.Copies, glued)
	p.ByPost, p.FlatByPost = stuff.Post(classes, p.MadeUp, p.Full), stuff.Post(classes, p.Flat, p.FlatGrams)
	m := r.matter()
	if standing, is := m.Standing(r.Box); is {
		p.Bears = m.Table.BoxHolds(m.OuterWalls(standing))
	}
	p.Crate = m.Table.Crated(crate, [3]float64{out.Length.MM(), out.Width.MM(), out.Height.MM()}, p.Bears, p.Full)
	return p
}

// tube reports whether a piece is one all round, open at both ends or closed by flaps: joined by
// a tab to itself, its long folds all one way.
func tube(p Part) bool {
	joined := slices.ContainsFunc(p.Pattern.Glue, func(g pattern.Glue) bool {
		from, _ := p.Pattern.Mark(g.Face)
		onto, _ := p.Pattern.Mark(g.Onto)
		return !g.Dry && g.Piece == "" && from.Role == pattern.Tab && (onto.Role == pattern.Wall || onto.Role == pattern.Panel)
	})
	if !joined {
		return false
	}
	if p.Opens == style.Upright {
		return true
	}
	along := p.Pattern.Creases[0].B.Sub(p.Pattern.Creases[0].A)
	return !slices.ContainsFunc(p.Pattern.Creases, func(c pattern.Crease) bool {
		d := c.B.Sub(c.A)
		return math.Abs(d.Cross(along)) > 1e-6*d.Len()*along.Len()
	})
}

// FullSize is the box with padding round it, for a person.
func (p Parcel) FullSize() style.Extent { return extentMM(p.MadeUp) }

// FlatSize is the pile of blanks.
func (p Parcel) FlatSize() style.Extent { return extentMM(p.Flat) }

func extentMM(sides [3]float64) style.Extent {
	return style.Extent{Length: measure.FromMM(sides[0]), Width: measure.FromMM(sides[1]), Height: measure.FromMM(sides[2])}
}
