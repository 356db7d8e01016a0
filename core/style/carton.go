package style

import (
	"brevium/core/measure"
	"brevium/core/pattern"
)

var hingedCarton = &Style{
	ID: "hinged-carton", Name: "Hinged carton", About: "One sheet: four walls and a lid hinged at the back, its flap tucked in or lapped over the front",
	Opens: "a lid hinged at the back", Strength: "fair: one card, the flap holds it",
	Parameters: append(lengthWidthHeight[:3:3], Parameter{
		ID: "flap", Label: "Flap", Default: 3 * measure.Inch / 4, Min: 6 * mm, Max: 60 * mm, About: "f: how far the lid's flap comes down the front",
		Follows: func(s Spec) measure.Length { return min(3*measure.Inch/4, s.Lengths["height"]) },
	}),
	Options: []Option{{
		ID: "flap.tuck", Label: "The flap goes", Kind: ChoiceKind, Choices: []string{"inside", "outside"}, DefaultChoice: "inside",
		About: "Tucked inside the front, or over it and held by a dot",
	}, adhesive},
	Axes: [3]string{"length", "width", "height"},
	Build: func(s Spec) (*Box, error) {
		l, d, h, f := s.Lengths["length"], s.Lengths["width"], s.Lengths["height"], s.Lengths["flap"]
		if err := s.atMost("flap", h, "it would stand on the table before the lid closes"); err != nil {
			return nil, err
		}
		g := pattern.NewGrid([]measure.Length{h, l, h}, []measure.Length{f, d, h, d, h}, `
			.           flap   .
			.           top    .
			back.left   back   back.right
			left        base   right
			front.left  front  front.right`)
		g.Role(pattern.Panel, "base", "top")
		g.Role(pattern.Flap, "flap")
		g.Up("base", "back", "left", "right", "front")
		g.Tab("flap", "top", f, flapWedge)
		if s.Choices["flap.tuck"] == "outside" {
			g.Lap("flap", "front")
		} else {
			g.Tuck("flap", "front")
		}
		endTabs(g, min(h, d/2), "back", "front")
		p, err := g.Pattern()
		if err != nil {
			return nil, err
		}
		return alone(Part{
			ID: "body", Name: "Carton", Pattern: p, Root: "base", Opens: Upwards,
			Folding: "Fold every score away from the outside and burnish it: the four walls, their tabs, the lid and its flap.",
			Gluing:  []string{"Put adhesive on the outside of the four tabs, stand the walls up and press the tabs inside the two end walls."},
		}, s.Card("body")), nil
	},
}

// flapWedge is what a tucked flap loses on each side at its free end.
const flapWedge = 3 * measure.Millimetre

// endTabs makes tabs of the wings of the given walls, slit from the end walls
// left and right and glued inside them; each reaches at most reach.
func endTabs(g *pattern.Grid, reach measure.Length, walls ...string) {
	for _, wall := range walls {
		for _, end := range []string{"left", "right"} {
			tab := wall + "." + end
			g.Role(pattern.Tab, tab)
			g.Tab(tab, wall, reach, min(tabWedge, reach/4))
			g.Slit(tab, end)
			g.Glue(tab, true, end)
		}
	}
}
