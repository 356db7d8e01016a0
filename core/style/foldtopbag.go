package style

import (
	"math"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	bagWidth = &Parameter{
		ID:      "width",
		Label:   "Width",
		Default: 3 * measure.Inch,
		Min:     20 * mm,
		Max:     200 * mm,
		About:   "w: left to right, between folds",
	}
	bagDepth = &Parameter{ID: "depth", Label: "Depth", Default: measure.Inch, Min: 8 * mm, Max: 60 * mm, About: "d: front to back"}
	bagPanel = &Parameter{
		ID:      "panel",
		Label:   "Panel",
		Default: 2 * measure.Inch,
		Min:     15 * mm,
		Max:     120 * mm,
		About:   "F: the height of front and back below the turns",
	}
	bagTurn = &Parameter{
		ID:      "turn",
		Label:   "Turn",
		Default: measure.Inch / 2,
		Min:     4 * mm,
		Max:     60 * mm,
		About:   "n: how far the top folds in, and out again; at least half the depth",
		Follows: func(s Spec) measure.Length { return measure.Up(s.Size(bagDepth)/2, s.Tick) },
	}
)

var foldTopBag = &Style{
	ID: "fold-top-bag", Name: "Fold-top bag", About: "A little bag whose top folds in and out, held by a dot or a bow",
	For:   []Use{ForTreats, ForFavours},
	Suits: []string{"popcorn", "nut", "coffee", "caramel", "tea", "granola"},
	Opens: "unfolds at the top", Strength: "light: sides glued, top held by a dot",
	Weights:    map[string]float64{"": 200}, // it is turned in and out
	Parameters: []*Parameter{bagWidth, bagDepth, bagPanel, bagTurn},
	Options:    []*Option{adhesive},
	Axes:       [3]*Parameter{bagWidth, bagDepth, bagPanel},
	Build:      buildBag,
}

func buildBag(s Spec) (*Box, error) {
	w, d, f, n := s.Size(bagWidth), s.Size(bagDepth), s.Size(bagPanel), s.Size(bagTurn)
	s.least(bagTurn.limited(), measure.Up(d/2, s.Tick.Ruler()), "the top stays open in the middle by twice that much")
	g := s.grid([]measure.Length{d, w, d}, []measure.Length{n, n, f, d, f, n, n}, `
		.            crest.front  .
		.            turn.front   .
		front.left   front        front.right
		bottom.left  bottom       bottom.right
		back.left    back         back.right
		.            turn.back    .
		.            crest.back   .`)
	bottom := g.Face("bottom")
	g.Role(pattern.Panel, bottom)
	// Each turn leans in until the two meet over the middle, and the crests
	// stand up together: sin(lean) = (depth/2) / turn.
	lean := math.Asin(min(1, float64(d)/2/float64(n))) * 180 / math.Pi
	for _, side := range []string{"front", "back"} {
		wall, turn, crest := g.Face(side), g.Face("turn."+side), g.Face("crest."+side)
		g.Call(turn, side+" turn")
		g.Call(crest, side+" crest")
		g.Role(pattern.Flap, turn, crest)
		g.Up(bottom, wall)
		g.Hinge(wall, turn, lean, 0)
		g.Fold(turn, crest, lean, pattern.Towards)
	}
	for _, end := range []string{"left", "right"} {
		over, under, tab := g.Face("front."+end), g.Face("back."+end), g.Face("bottom."+end)
		g.Call(over, end+" wing of the front")
		g.Call(under, end+" wing of the back")
		g.Call(tab, end+" tab of the bottom")
		g.Tab(over, g.Face("front"), d, min(tabWedge, d/4))
		g.Tab(under, g.Face("back"), d, min(tabWedge, d/4))
		g.Over(over, under)
		g.Role(pattern.Tab, tab)
		g.Tab(tab, bottom, min(d, f/2), min(tabWedge, d/4))
		g.Slit(tab, over)
		g.Slit(tab, under)
		g.Tuck(tab, under)
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	part := Part{
		ID:      "body",
		Name:    "Bag",
		Pattern: p,
		Root:    "bottom",
		Opens:   Upwards,
		Card:    s.Card("body"),
		Making:  told(func() []hand.Move { return s.bagMaking(p) }),
	}
	room, err := roomOf(part)
	if err != nil {
		return nil, err
	}
	inside := room.Largest
	inside.Height = f - part.Card // under the turns, which lean in
	return &Box{Parts: []Part{part}, Room: Block(inside, room.At),
		Shut: ByDot, Together: []hand.Move{
			hand.Fill{Into: "body"},
			hand.Shut{Said: hand.Say("shut-bag")},
			hand.Hold{Said: hand.Say("hold-crests")},
		}}, nil
}

// bagMaking is how a hand makes it.
func (s Spec) bagMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Words: []string{"crest", "turn", "front", "bottom", "back", "turn", "crest"}})
	m.do(hand.CutOff{Width: s.Size(bagDepth), Height: 2 * s.Size(bagTurn), What: m.cells("corners", nil,
		[2]int{0, 0}, [2]int{0, 1}, [2]int{2, 0}, [2]int{2, 1}, [2]int{0, 5}, [2]int{0, 6}, [2]int{2, 5}, [2]int{2, 6})})
	m.slit(1, leftAndRight, 2, 3)
	wings := func(row string) group { return group{"wing", []string{row}, []string{row + ".left", row + ".right"}} }
	m.shape("side-wing", wings("front"), wings("bottom"), wings("back"))
	m.do(hand.FoldWays{Towards: m.level(0, 5), Said: hand.Say("fold-bag")})
	m.do(hand.Dry{Said: hand.Say("dry-bag")})
	m.stick(hand.Stick{Way: hand.StandOver, What: m.parts("wing", []string{"front"}, "front.left", "front.right"),
		Onto: m.parts("wing", []string{"back"}, "back.left", "back.right"), OntoOutside: true})
	return m.moves
}
