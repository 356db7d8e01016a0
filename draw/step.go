package draw

import (
	"slices"

	"brevium/core/design"
	"brevium/core/recipe"
)

// Step is the picture beside a step: the blank that is cut, the flat piece with its
// lines or its papers, the piece half folded or as it stands, the whole box. m is
// the box's model; plain leaves its colours out.
func Step(r *design.Result, m *Model, s recipe.Step, plain bool) (*Picture, error) {
	for _, x := range r.Mats {
		if s.Kind == recipe.Cut && s.Key == string(recipe.Cut)+"/"+x.ID {
			return BlankOf("paper", x.Width.MM(), x.Height.MM()), nil
		}
	}
	i := slices.IndexFunc(r.Parts, func(p design.Part) bool { return p.ID == s.Piece })
	if i < 0 {
		return m.Look(r.Style.Name)
	}
	p := r.Parts[i]
	in := &r.Inputs
	net := Net{Part: p.Part, PaperUp: p.PaperUp(), Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick, Plain: true}
	if !plain {
		net.From = FromOf(p)
	}
	one := m.Piece(p.ID)
	stands := one != m // a loose piece stands nowhere
	switch {
	case s.Kind == recipe.Cut:
		return BlankOf(p.Name, p.Pattern.Width.MM(), p.Pattern.Height.MM()), nil
	case s.Kind == recipe.Decorate:
		net.Mats = r.Mats
	case s.Kind == recipe.Fold && stands:
		return one.Picture(p.Name, one.Shut()*0.55)
	case s.Kind == recipe.Glue && stands:
		return one.Picture(p.Name, one.Shut())
	}
	return net.Picture(), nil
}
