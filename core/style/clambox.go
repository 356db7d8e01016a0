package style

import (
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	clamScores = &Option{
		ID: "lid.scores", Label: "Lid's scores", Kind: ChoiceKind, Choices: []string{"same", "stepped"}, DefaultChoice: "same",
		About: "Same: one set of numbers, a tight lid, taper the tabs well. Stepped: the lid half scored as much wider as you give below",
	}
	clamAllowance = &Option{
		ID:      "lid.allowance",
		Label:   "How much bigger the lid is",
		Kind:    LengthKind,
		Default: measure.Inch / 16,
		Min:     0,
		Max:     mostAllowance,
		ForFit:  true,
		Chained: true,
		About:   "How much wider the lid half is scored, when it is stepped",
	}
)

var clamBox = &Style{
	ID: "clam-box", Name: "Clam box", About: "One sheet: two trays hinged on a spine, one closing over the other",
	For:   []Use{ForGifts},
	Opens: "like a book, on a spine", Strength: "fair: one card, closed by friction",
	Parameters: lengthWidthHeight[:],
	Options:    []*Option{clamScores, clamAllowance, adhesive},
	Axes:       lengthWidthHeight,
	Allowance:  clamAllowance,
	Build:      buildClamBox,
}

func buildClamBox(s Spec) (*Box, error) {
	return clam(s, "body", "Clam box", s.Size(length), s.Size(width), s.Size(height))
}

func clam(s Spec, id, name string, l, d, h measure.Length) (*Box, error) {
	t := s.Card(id)
	a, kind := measure.Length(0), *fit.ShutsOver
	if s.Choice(clamScores) == "stepped" {
		a, kind.Gives = s.Length(clamAllowance), false
	}
	if a/2 < pattern.Seen { // its scores would be those of the base half
		a = 0
	}
	if most := 2 * (h - 3*mm); a > most {
		return nil, outOfRange("options.lid.allowance", "the lid can be at most %s bigger, or its end walls are lower than 3 mm", s.show(max(0, most)))
	}
	var g *pattern.Grid
	if a == 0 {
		g = s.grid([]measure.Length{h, l, h}, []measure.Length{h, d, h, d, h}, `
			front.left  front  front.right
			left        base   right
			spine.left  spine  spine.right
			lid.left    lid    lid.right
			lip.left    lip    lip.right`)
	} else {
		// The lid's panel is wider by half the allowance on each side, and
		// deeper by the whole of it at the lip.
		g = s.grid([]measure.Length{h - a/2, a / 2, l, a / 2, h - a/2}, []measure.Length{h, d, h, d + a, h}, `
			front.left  front.left  front  front.right  front.right
			left        left        base   right        right
			spine.left  spine.left  spine  spine.right  spine.right
			lid.left    lid         lid    lid          lid.right
			lip.left    lip         lip    lip          lip.right`)
	}
	base, lid, lip, spine, front := g.Face("base"), g.Face("lid"), g.Face("lip"), g.Face("spine"), g.Face("front")
	g.Role(pattern.Panel, base, lid)
	g.Call(g.Face("left"), walls["left"])
	g.Call(g.Face("right"), walls["right"])
	g.Up(base, front, g.Face("left"), g.Face("right"), spine)
	g.Hang(lid, lip, g.Face("lid.left"), g.Face("lid.right"))
	g.Hinge(spine, lid, 90, 0)
	endTabs(g, min(h, d/2), "front")
	// The spine's wings hold the back corners; narrow, they keep clear of the lid.
	endTabs(g, min(h, d/2, s.TabWidth()), "spine")
	for _, end := range []string{"left", "right"} {
		side, tab := g.Face("lid."+end), g.Face("lip."+end)
		g.Call(side, end+" end wall of the lid")
		g.Call(tab, end+" tab of the lip")
		g.Slit(g.Face("spine."+end), side)
		g.Role(pattern.Tab, tab)
		g.Tab(tab, lip, min(h, d), min(tabWedge, h/4))
		g.Slit(tab, side)
		g.Glue(tab, true, side)
		if a == 0 {
			g.Lap(side, g.Face(end))
		}
	}
	if a == 0 {
		g.Lap(lip, front)
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	part := Part{
		ID: id, Name: name, Pattern: p, Root: "base", Opens: Upwards, Card: t,
	}
	part.Making = told(func() []hand.Move { return s.clamMaking(p, h, a) })
	pair := fit.Pair{
		Kind: &kind, Outer: id, Inner: id, OuterName: "Lid half", InnerName: "Base half", OuterCard: t, InnerCard: t,
		OuterDepth: h, InnerDepth: h,
	}
	along, across := pair, pair
	along.Axis, along.OuterSpan, along.InnerSpan, along.OuterLayers, along.OuterWhat = "length", l+a, l, 2, "tabs"
	across.Axis, across.OuterSpan, across.InnerSpan = "width", d+a, d
	f, err := p.Finished(part.Root)
	if err != nil {
		return nil, err
	}
	return &Box{
		Parts: []Part{part}, Fits: []fit.Pair{along, across},
		// The lid half lies over the base half: inside is the base half's own.
		Room: blockRoom(part, f, Extent{l - 3*t, d - t, h - t}),
		Shut: ByFriction,
		Together: []hand.Move{
			hand.Fill{Into: id, Said: hand.Say("fill-base-half")},
			hand.Shut{Said: hand.Say("shut-clam")},
		},
	}, nil
}

// clamMaking is how a hand makes it.
func (s Spec) clamMaking(p *pattern.Pattern, h, a measure.Length) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Words: []string{"front", "base", "spine", "lid", "lip"}})
	if a == 0 {
		m.slit(1, leftAndRight, 0, 1, 2, 3)
	} else {
		m.steppedSides(h, a)
	}
	tabs := func(row string) group { return group{"tab", []string{row}, []string{row + ".left", row + ".right"}} }
	m.shape("tab", tabs("front"), tabs("spine"), tabs("lip"))
	m.do(hand.FoldAll{})
	m.stick(hand.Stick{Way: hand.Inside, Outside: true,
		What: m.parts("tab", []string{"front", "spine"}, "front.left", "front.right", "spine.left", "spine.right"),
		Onto: m.parts("side-wall", []string{"base"}, "left", "right", "left", "right")})
	m.stick(hand.Stick{Way: hand.Inside, Outside: true,
		What: m.parts("tab", []string{"lip"}, "lip.left", "lip.right"),
		Onto: m.parts("side-wall", []string{"lid"}, "lid.left", "lid.right")})
	return m.moves
}

// steppedSides scores and slits the sides of a box whose lid half is wider: its scores lie
// nearer to the side edges, from the spine's fold on.
func (m *making) steppedSides(h, a measure.Length) {
	wide, high, at := m.p.Width, m.p.Height, m.p.Scores.Horizontal
	fold := at[2]
	line := func(x, y1, y2 measure.Length) pattern.Segment { return pattern.Segment{A: pt(x, y1), B: pt(x, y2)} }
	m.do(hand.Score{Lines: []pattern.Segment{line(h, 0, fold), line(wide-h, 0, fold)}, Said: said("clam-base-half", one("at", h))})
	m.do(hand.Score{Lines: []pattern.Segment{line(h-a/2, fold, high), line(wide-h+a/2, fold, high)}, Said: said("clam-lid-half", one("at", h-a/2))})
	var cuts []pattern.Segment
	for i, y := range at {
		to := h
		if i == 3 {
			to = h - a/2
		}
		cuts = append(cuts, pattern.Segment{A: pt(0, y), B: pt(to, y)}, pattern.Segment{A: pt(wide, y), B: pt(wide-to, y)})
	}
	m.do(hand.Snip{Cuts: cuts, Said: hand.Said{Key: "clam-slits", Counts: map[string]int{"count": len(at)}}})
}
