package design

import (
	"fmt"
	"slices"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Papered is a built design with the papers on its faces and the coverings of its pieces.
type Papered struct {
	Built
	Mats []dress.Mat
}

// putPapers puts the papers on, and the coverings to the parts. Every fault names the paper.
func putPapers(b Built) (*Papered, error) {
	p := &Papered{Built: b}
	p.Parts = slices.Clone(b.Parts) // to be put to, and pierced
	if err := p.cutWindows(); err != nil {
		return nil, err
	}
	for i, d := range p.Inputs.Mats {
		if err := p.put(i, d); err != nil {
			return nil, err
		}
	}
	return p, p.cover()
}

// put puts one dressing on, the ith.
func (p *Papered) put(i int, d dress.Dressing) error {
	field := fault.Path("mats", i)
	part, known := p.part(d.Piece)
	if !known {
		return fault.New(fault.UnknownPiece, fault.Path(field, "piece"), "this box has no piece %q to put a paper on", d.Piece)
	}
	mats, err := d.Mats(part.Pattern, part.Faces, p.Inputs.Tools.Tick.Ruler())
	if err != nil {
		return fault.At(field, err)
	}
	if d.Runs != dress.Ends {
		order, err := p.round(d.Piece)
		if err != nil {
			return err
		}
		last := d.Layers[len(d.Layers)-1].Card
		if mats, err = d.RunOn(mats, part.Faces, order, longestStrip(&p.Inputs, last)); err != nil {
			return fault.At(field, err)
		}
	}
	for _, m := range mats {
		if slices.ContainsFunc(p.Mats, func(have dress.Mat) bool {
			return have.Piece == m.Piece && have.Side == m.Side && have.Layer == m.Layer && meet(have, m)
		}) {
			return fault.New(fault.NamedTwice, fault.Path(field, "faces"), "the %s has a paper already; put another layer on that one, or leave it out here", m.Words)
		}
	}
	p.Mats = append(p.Mats, mats...)
	return nil
}

// hidesEdges says of the papers that stand over the edges of the card what a hand does there.
func (p *Papered) hidesEdges() []inspect.Finding {
	var out []inspect.Finding
	for _, part := range p.Parts {
		over, places := measure.Length(0), []string(nil)
		for _, m := range p.Mats {
			if m.Piece == part.ID && m.Layer == 1 && m.Over() > 0 {
				over, places = max(over, m.Over()), append(places, m.FaceWords())
			}
		}
		if len(places) > 0 {
			out = append(out, inspect.Finding{ID: "paper.over", Verdict: inspect.Warn, Piece: part.ID, Text: fmt.Sprintf(
				"The paper on the %s stands up to %s over the card, to hide its edge: bend it with the folds while the glue is fresh, and trim it flush at the rim, where parts slide.",
				style.And(places), p.Inputs.show(over))})
		}
	}
	return out
}

// staySquare says which papers are too narrow for a corner rounder.
func (p *Papered) staySquare() []inspect.Finding {
	var out []inspect.Finding
	for _, d := range p.Inputs.Mats {
		var places []string
		for _, m := range p.Mats {
			if d.Shape == dress.Rounded && m.Piece == d.Piece && m.Radius == 0 && d.Covers(m.Face, m.Role) && !slices.Contains(places, m.FaceWords()) {
				places = append(places, m.FaceWords())
			}
		}
		if len(places) > 0 {
			out = append(out, inspect.Finding{ID: "paper.round", Verdict: inspect.Warn, Piece: d.Piece, Text: fmt.Sprintf(
				"The paper on the %s is less than %s wide or high, too narrow to round its corners to %s: it stays square.", style.And(places), p.Inputs.show(2*d.Radius), p.Inputs.show(d.Radius))})
		}
	}
	return out
}

// meet reports whether two mats lie on one face.
func meet(a, b dress.Mat) bool {
	return slices.ContainsFunc(a.On, func(p dress.Patch) bool {
		return slices.ContainsFunc(b.On, func(q dress.Patch) bool { return p.Face == q.Face })
	})
}

// papered reports whether a paper is glued over a spot.
func (p *Papered) papered(s Spot) bool {
	return slices.ContainsFunc(p.Mats, func(m dress.Mat) bool {
		return m.Piece == s.Piece && (m.Side != dress.Inside) == s.Outside && slices.ContainsFunc(m.On, func(p dress.Patch) bool {
			return p.Face == s.Face && pattern.Contains(p.Corners, s.At)
		})
	})
}
