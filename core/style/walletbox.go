package style

import (
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

const quarterInch = measure.Inch / 4

var walletBox = &Style{
	ID: "wallet-box", Name: "Wallet box", About: "A shallow box for cards, its flap closing over the front",
	Opens: "a flap over the front", Strength: "light: for flat things",
	Parameters: []Parameter{
		{ID: "length", Label: "Length", Default: 9 * measure.Inch / 2, Min: 20 * mm, Max: 280 * mm, About: "L: left to right, score to score"},
		{ID: "depth", Label: "Depth", Default: 3 * quarterInch, Min: 5 * mm, Max: 60 * mm, About: "d: front to back"},
		{
			ID: "front", Label: "Front", Default: 3 * measure.Inch, Min: 12 * mm, Max: 250 * mm, About: "F: the front's height, no more than the back's",
			Follows: func(s Spec) measure.Length { return max(12*mm, s.Lengths["back"]-quarterInch) },
		},
		{ID: "back", Label: "Back", Default: 13 * quarterInch, Min: 12 * mm, Max: 250 * mm, About: "B: the back's height"},
		{
			ID: "flap", Label: "Flap", Default: measure.Inch, Min: 6 * mm, Max: 200 * mm, About: "f: how far the flap comes down the front",
			Follows: func(s Spec) measure.Length {
				return min(s.Lengths["back"], max(measure.Inch, s.Lengths["back"]-s.Lengths["front"]+quarterInch*2))
			},
		},
	},
	Options: []Option{{
		ID: "flap.shape", Label: "Flap's shape", Kind: ChoiceKind, Choices: []string{"straight", "rounded", "pointed"}, DefaultChoice: "straight",
		About: "Straight with a taper, rounded corners, or a point",
	}, {
		ID: "notch", Label: "Finger notch", Kind: LengthKind, Default: 0, Min: 0, Max: 60 * mm,
		About: "Its diameter, in the middle of the front's edge; 0 for none",
	}, {
		ID: "ends", Label: "Ends glued", Kind: ChoiceKind, Choices: []string{"over", "under"}, DefaultChoice: "over",
		About: "The front's wings over the back's, or under them",
	}, adhesive},
	Axes:  [3]string{"length", "back", "depth"},
	Build: buildWalletBox,
}

func buildWalletBox(s Spec) (*Box, error) {
	l, d, f, b, flap := s.Lengths["length"], s.Lengths["depth"], s.Lengths["front"], s.Lengths["back"], s.Lengths["flap"]
	if err := s.atMost("front", b, "the front is no higher than the back"); err != nil {
		return nil, err
	}
	if err := s.atMost("flap", b, "it would reach below the box"); err != nil {
		return nil, err
	}
	// A notch takes its depth from what the flap can lie on.
	if least := b - f + 10*mm + s.Lengths["notch"]/2; flap < least {
		return nil, fault.New("out-of-range", "size.flap", "the flap must be at least %s, or it does not reach over the front", s.show(least))
	}
	g := pattern.NewGrid([]measure.Length{d, l, d}, []measure.Length{f, d, b, d, flap}, `
		front.left   front   front.right
		bottom.left  bottom  bottom.right
		back.left    back    back.right
		top.left     top     top.right
		.            flap    .`)
	g.Role(pattern.Panel, "back", "front")
	g.Role(pattern.Flap, "flap")
	g.Lap("flap", "front")
	switch s.Choices["flap.shape"] {
	case "rounded":
		g.Round("flap", "top", min(flap, l/2))
	case "pointed":
		g.Point("flap", "top", flap/4)
	default:
		g.Tab("flap", "top", flap, flapWedge)
	}
	for _, end := range []string{".left", ".right"} {
		g.Tab("front"+end, "front", d, min(tabWedge, d/4))
		g.Tab("back"+end, "back", d, min(tabWedge, d/4))
		if s.Choices["ends"] == "under" {
			g.Glue("front"+end, true, "back"+end)
		} else {
			g.Over("front"+end, "back"+end)
		}
		for _, wall := range []string{"bottom", "top"} {
			tab := wall + end
			g.Role(pattern.Tab, tab)
			g.Tab(tab, wall, min(d, f/3), min(tabWedge, d/4))
			g.Slit(tab, "back"+end)
			g.Glue(tab, true, "back"+end)
		}
		g.Slit("bottom"+end, "front"+end)
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	if r := s.Lengths["notch"] / 2; r > 0 {
		if 2*r > l-10*mm || r > f/2 {
			return nil, fault.New("out-of-range", "options.notch", "a notch this wide takes the front's edge away; make it smaller, or 0 for none")
		}
		if err := p.Notch("front", pattern.Pt((d+l/2).MM(), 0), r.MM()); err != nil {
			return nil, err
		}
	}
	return alone(Part{
		ID: "body", Name: "Wallet", Pattern: p, Root: "back", Opens: Upwards,
		Folding: "Fold every score away from the outside and burnish it: bottom, top and flap, then the wings and tabs.",
		Gluing: []string{
			"Fold up bottom and front. Put adhesive on the tabs of bottom and top and press them inside the back's wings.",
			"Glue the front's and the back's wings over each other as the ends, " + s.Choices["ends"] + ".",
		},
	}, s.Card("body")), nil
}
