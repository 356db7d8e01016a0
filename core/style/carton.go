package style

import (
	"slices"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	cartonFlap = &Parameter{
		ID:      "flap",
		Label:   "Flap",
		Default: 3 * measure.Inch / 4,
		Min:     6 * mm,
		Max:     60 * mm,
		About:   "f: how far the lid's flap comes down the front",
		Follows: func(s Spec) measure.Length { return min(s.about(3*measure.Inch/4), s.Size(height)) },
	}
	cartonCorners = &Option{
		ID: "corners", Label: "Corner squares", Kind: ChoiceKind, Choices: []string{"on-the-ends", "on-front-and-back"}, DefaultChoice: "on-the-ends",
		About: "Left whole on the end walls and glued behind back and front: every cut lies on a score. Or as tapered tabs of back and front, inside the ends",
	}
	cartonTuck = &Option{
		ID: "flap.tuck", Label: "The flap goes", Kind: ChoiceKind, Choices: []string{"inside", "outside"}, DefaultChoice: "inside",
		About: "Tucked inside the front, or over it and held by a dot",
	}
)

var hingedCarton = &Style{
	ID:         "hinged-carton",
	Name:       "Hinged carton",
	For:        []Use{ForGifts, ForTreats, ForTall},
	About:      "One sheet: four walls and a lid hinged at the back, its flap tucked in or lapped over the front",
	Opens:      "a lid hinged at the back",
	Strength:   "fair: one card, the flap holds it",
	Parameters: []*Parameter{length, width, height, cartonFlap},
	Options:    []*Option{cartonTuck, cartonCorners, adhesive},
	Axes:       lengthWidthHeight,
	Build:      buildCarton,
}

func buildCarton(s Spec) (*Box, error) {
	l, d, h, f := s.Size(length), s.Size(width), s.Size(height), s.Size(cartonFlap)
	s.most(cartonFlap.limited(), h, "it stands on the table before the lid lies down")
	g := s.grid([]measure.Length{h, l, h}, []measure.Length{f, d, h, d, h}, `
		.           flap   .
		.           top    .
		back.left   back   back.right
		left        base   right
		front.left  front  front.right`)
	base, top, flap, front := g.Face("base"), g.Face("top"), g.Face("flap"), g.Face("front")
	g.Role(pattern.Panel, base, top)
	g.Role(pattern.Flap, flap)
	for _, w := range wallNames {
		g.Call(g.Face(w), walls[w])
		g.Up(base, g.Face(w))
	}
	g.Hinge(g.Face("back"), top, 90, 0)
	shut := ByTuck
	if s.Choice(cartonTuck) == "outside" {
		g.Lap(flap, front)
		shut = ByDot
	} else {
		g.Tuck(flap, front)
	}
	if s.Choice(cartonCorners) == "on-the-ends" {
		onTheEnds(g, min(h, l/2))
	} else {
		g.Tab(flap, top, f, flapWedge)
		endTabs(g, min(h, d/2), "back", "front")
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	return &Box{Parts: []Part{{
		ID: "body", Name: "Carton", Pattern: p, Root: "base", Opens: Upwards,
		Making: told(func() []hand.Move { return s.cartonMaking(p) }),
	}}, Shut: shut, Together: s.cartonShut()}, nil
}

// cartonMaking is how a hand makes it.
func (s Spec) cartonMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Words: []string{"flap", "top", "back", "base", "front"}})
	beside := hand.CutOff{What: m.cells("beside", []string{"flap", "top"}, [2]int{0, 0}, [2]int{2, 0}, [2]int{0, 1}, [2]int{2, 1})}
	corners := []string{"back.left", "back.right", "front.left", "front.right"}
	if s.Choice(cartonCorners) == "on-the-ends" {
		m.do(hand.Slit{Runs: slices.Concat(runs(3, []hand.Edge{hand.Top}, 0, 1), runs(1, []hand.Edge{hand.Bottom}, 0, 1))}, beside)
		m.shape("square", group{"square", nil, corners})
		m.do(hand.FoldAll{})
		m.stick(hand.Stick{Way: hand.EndsFirst, What: m.parts("square", nil, corners...), Onto: m.parts("wall", nil, "back", "back", "front", "front"), Outside: true})
		return m.moves
	}
	m.slit(2, []hand.Edge{hand.Top}, 0, 1)
	m.do(beside)
	m.slit(1, leftAndRight, 2, 3)
	m.shape("tab", group{"tab", nil, corners})
	m.shape("flap", group{"flap", nil, []string{"flap"}})
	m.do(hand.FoldAll{})
	m.stick(hand.Stick{Way: hand.WallsUp, What: m.parts("tab", nil, corners...), Onto: m.parts("wall", nil, "left", "right", "left", "right"), Outside: true})
	return m.moves
}

// cartonShut is how it is filled and closed.
func (s Spec) cartonShut() []hand.Move {
	fill := hand.Fill{Into: "body"}
	if s.Choice(cartonTuck) == "outside" {
		return []hand.Move{fill, hand.Shut{Said: hand.Say("shut-lap")}, hand.Hold{Said: hand.Say("hold-flap")}}
	}
	return []hand.Move{fill, hand.Shut{Said: hand.Say("shut-tuck")}}
}

// flapWedge is what a tucked flap loses on each side at its free end.
const flapWedge = measure.Inch / 8

// onTheEnds leaves the corner squares on the end walls, slit from back and
// front, behind which they are glued; those that would meet there are trimmed
// to half its length.
func onTheEnds(g *pattern.Grid, reach measure.Length) {
	for _, wall := range []string{"back", "front"} {
		for _, end := range []string{"left", "right"} {
			square := g.Face(wall + "." + end)
			g.Call(square, wall+" square of the "+walls[end])
			g.Role(pattern.Tab, square)
			g.Tab(square, g.Face(end), reach, 0)
			g.Slit(square, g.Face(wall))
			g.Glue(square, true, g.Face(wall))
		}
	}
}

// endTabs makes tabs of the wings of the given walls, slit from the end walls
// left and right and glued inside them; each reaches at most reach.
func endTabs(g *pattern.Grid, reach measure.Length, from ...string) {
	for _, wall := range from {
		for _, end := range []string{"left", "right"} {
			tab := g.Face(wall + "." + end)
			g.Call(tab, end+" tab of the "+wall)
			g.Role(pattern.Tab, tab)
			g.Tab(tab, g.Face(wall), reach, min(tabWedge, reach/4))
			g.Slit(tab, g.Face(end))
			g.Glue(tab, true, g.Face(end))
		}
	}
}
