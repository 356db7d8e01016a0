package style

import (
	"maps"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	foldOverhang = &Parameter{
		ID: "overhang", Label: "Overhang", Default: measure.Inch / 8, Min: 0, Max: 20 * mm,
		About: "o: how far the cover reaches past the tray at each end",
	}
	foldFlap = &Parameter{
		ID: "flap", Label: "Flap", Default: 5 * measure.Inch / 8, Min: 8 * mm, Max: 100 * mm,
		About: "f: how far the cover comes down over the front",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(8*mm, s.Tick), measure.Down(s.Size(height)*5/8, s.Tick))
		},
	}
	gussets = &Option{
		ID: "gussets", Label: "Corners", Kind: ChoiceKind, Choices: []string{"loose", "glued"}, DefaultChoice: "loose",
		About: "Loose, held by dots, so that it folds flat again; or glued for good",
	}
	foldClosure = &Option{
		ID: "closure", Label: "Closed by", Kind: ChoiceKind, Choices: []string{"brad", "dot", "ribbon"}, DefaultChoice: "dot",
		About: "A brad through the flap's middle, a removable dot, or a ribbon round it",
	}
	wrapLid = &Option{
		ID: AllowanceID, Label: "How much deeper the lid is", Kind: LengthKind, Default: measure.Inch / 32, Min: 0, Max: mostAllowance,
		ForFit: true, Chained: true,
		About:   "How much deeper the cover's lid is than the tray, so that the flap clears the front; at least the card",
		Follows: func(s Spec) measure.Length { return measure.Up(s.Card("cover"), min(s.Tick, s.Tick.System().Tick())) },
	}
	wrapSpine = &Option{
		ID: "spine.allowance", Label: "How much higher the cover is", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: mostAllowance,
		ForFit: true, Chained: true,
		About: "How much higher spine and front are than the tray, so that the lid closes over the walls; leave it out to have it worked out",
	}
)

var flatFoldTray = &Style{
	ID: "flat-fold-tray", Name: "Flat-fold tray", About: "A tray whose corners are folded, not cut, in a cover that wraps it",
	For:   []Use{ForPaper, ForShow},
	Opens: "the cover lifts; its corners loosened, all of it lies flat", Strength: "fair: three cards at the ends",
	Parameters: []*Parameter{length, width, height, foldOverhang, foldFlap},
	Options:    []*Option{wrapSpine, wrapLid, gussets, foldClosure, adhesive},
	Axes:       lengthWidthHeight,
	Allowance:  wrapSpine,
	Build:      buildFlatFoldTray,
}

func buildFlatFoldTray(s Spec) (*Box, error) {
	l, w, h := s.Size(length), s.Size(width), s.Size(height)
	if err := s.atMost(height, w, "or the corners folded onto an end reach past it"); err != nil {
		return nil, err
	}
	high, flap := h+s.Length(wrapSpine), s.Size(foldFlap)
	s.most(foldFlap.limited(), high, "it reaches below the front, and stands on the table before the lid lies down")
	s.least(wrapLid.limited(), s.Card("cover"), "the flap presses on the front's card, and springs out by that much")
	cover := s.grid([]measure.Length{l + 2*s.Size(foldOverhang)}, []measure.Length{flap, w + s.Length(wrapLid), high, w, high}, `
		flap
		lid
		spine
		base
		front`)
	base, spine, front := cover.Face("base"), cover.Face("spine"), cover.Face("front")
	cover.Role(pattern.Panel, base, cover.Face("lid"))
	cover.Role(pattern.Flap, cover.Face("flap"))
	cover.Up(base, spine, front)
	cover.Hinge(spine, cover.Face("lid"), 90, 0)
	inside, err := s.gussetTray(l, w, h, map[string]*pattern.Leaf{"base": base, "back": spine, "front": front})
	if err != nil {
		return nil, err
	}
	wrap, err := cover.Pattern()
	if err != nil {
		return nil, err
	}
	tT, tC := s.Card("tray"), s.Card("cover")
	inside.Card = tT
	room, err := roomOf(inside)
	if err != nil {
		return nil, err
	}
	// The tray lies in the cover, whose card is under and on both sides of it.
	room = Block(Extent{Length: room.Largest.Length, Width: room.Largest.Width - 2*tT, Height: room.Largest.Height - tT}, r3.Add(room.At, r3.Vec{Z: tT.MM()}))
	pair := fit.Pair{Kind: fit.CoverRound, Outer: "cover", Inner: "tray", OuterName: "Cover", InnerName: "Tray", Axis: "height",
		OuterCard: tC, InnerCard: tT, OuterSpan: high, InnerSpan: h}
	box := &Box{
		Parts: []Part{inside, {
			ID: "cover", Name: "Cover", Pattern: wrap, Root: "base", Opens: Upwards, Making: told(func() []hand.Move { return s.wrapCoverMaking(wrap) }),
			At: r3.Vec{Y: s.Length(wrapLid).MM() / 2}, // the flap stands that much before the front
		}},
		Room: room, Fits: []fit.Pair{pair},
	}
	if s.Choice(gussets) == "loose" {
		box.Dots, box.Flat = 2, true
	}
	box.Together = s.foldTogether()
	box.Shut = map[string]Shut{"dot": ByDot, "brad": ByBrad, "ribbon": ByBand}[s.Choice(foldClosure)]
	return box, nil
}

// overlap is the least by which two corners lie over each other that counts.
const overlap = 3 * measure.Millimetre

// gussetTray is a tray from one blank without a cut: each corner is folded along
// its diagonal and laid against the end wall, outside. onto are the cover's
// faces that its own are glued to.
func (s Spec) gussetTray(l, w, h measure.Length, cover map[string]*pattern.Leaf) (Part, error) {
	b := pattern.NewBuilder()
	x, y := [4]measure.Length{0, h, h + l, 2*h + l}, [4]measure.Length{0, h, h + w, 2*h + w}
	cell := func(name string, i, j int) *pattern.Leaf {
		return b.Polygon(name, pt(x[i], y[j]), pt(x[i+1], y[j]), pt(x[i+1], y[j+1]), pt(x[i], y[j+1]))
	}
	base := cell("base", 1, 1)
	b.Role(pattern.Panel, base)
	made := map[string]*pattern.Leaf{"base": base, "back": cell("back", 1, 0), "left": cell("left", 0, 1), "right": cell("right", 2, 1), "front": cell("front", 1, 2)}
	for _, name := range wallNames {
		b.Call(made[name], walls[name])
		b.Up(base, made[name])
	}
	// Corner by corner: the blank's, the floor's, and where the side wall's and
	// the end wall's edges leave the blank.
	for _, c := range []struct {
		side, end              string
		outer, floor, up, wide pattern.Point
		clockwise              bool
	}{
		{"back", "left", pt(x[0], y[0]), pt(x[1], y[1]), pt(x[1], y[0]), pt(x[0], y[1]), true},
		{"back", "right", pt(x[3], y[0]), pt(x[2], y[1]), pt(x[2], y[0]), pt(x[3], y[1]), false},
		{"front", "left", pt(x[0], y[3]), pt(x[1], y[2]), pt(x[1], y[3]), pt(x[0], y[2]), false},
		{"front", "right", pt(x[3], y[3]), pt(x[2], y[2]), pt(x[2], y[3]), pt(x[3], y[2]), true},
	} {
		by, on := []pattern.Point{c.outer, c.up, c.floor}, []pattern.Point{c.outer, c.floor, c.wide}
		if !c.clockwise {
			by, on = []pattern.Point{c.outer, c.floor, c.up}, []pattern.Point{c.outer, c.wide, c.floor}
		}
		half, ear := b.Polygon(c.side+"."+c.end+".side", by...), b.Polygon(c.side+"."+c.end+".end", on...)
		b.Call(half, "half of the "+c.side+" "+c.end+" corner at the "+c.side+" wall")
		b.Call(ear, "half of the "+c.side+" "+c.end+" corner at the "+c.end+" end wall")
		b.Role(pattern.Tab, half, ear)
		b.Fold(half, ear, 180, pattern.Away)
		b.Fold(ear, made[c.end], 180, pattern.Towards)
		made[c.side+"."+c.end] = half
		against := made[c.end]
		if back := made["back."+c.end]; c.side == "front" && 2*h > w+overlap {
			against = back // the two lie over each other
		}
		b.Against(ear, against, s.Choice(gussets) == "loose")
	}
	for _, name := range slices.Sorted(maps.Keys(cover)) {
		b.Elsewhere(made[name], true, "cover", cover[name], false)
	}
	p, err := b.Pattern()
	if err != nil {
		return Part{}, err
	}
	return Part{ID: "tray", Name: "Tray", Pattern: p, Root: "base", Opens: Upwards, Making: told(func() []hand.Move { return s.gussetMaking(p, l, w, h) })}, nil
}

// gussetMaking is how a hand makes the tray: nothing is cut.
func (s Spec) gussetMaking(p *pattern.Pattern, l, w, h measure.Length) []hand.Move {
	m := s.make(p)
	m.scoreFour(0, h)
	right, foot := 2*h+l, 2*h+w
	m.do(hand.Score{Said: hand.Say("gusset-lines"), Lines: []pattern.Segment{
		{A: pt(0, 0), B: pt(h, h)}, {A: pt(right, 0), B: pt(right-h, h)},
		{A: pt(0, foot), B: pt(h, foot-h)}, {A: pt(right, foot), B: pt(right-h, foot-h)},
	}})
	m.do(hand.FoldWays{Towards: m.creases(towards), Flat: m.creases(overFlat), Said: hand.Say("gusset-folds")})
	m.do(hand.Dry{Said: hand.Say("gusset-points")})
	if s.Choice(gussets) == "loose" {
		return m.moves
	}
	points := m.parts("corner-point", nil, "back.left.end", "back.right.end", "front.left.end", "front.right.end")
	stick := hand.Stick{Way: hand.Gusset, What: points, Onto: m.parts("wall", nil, "left", "right", "left", "right"), Outside: true, OntoOutside: true}
	if 2*h > w+overlap { // the front ones lie on the back ones
		stick.Way = hand.GussetTurn
		stick.Onto = m.parts("wall", nil, "left", "right", "back.left.side", "back.right.side")
	}
	m.stick(stick)
	return m.moves
}

// wrapCoverMaking is how a hand makes the cover.
func (s Spec) wrapCoverMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Words: []string{"flap", "lid", "spine", "base", "front"}}, hand.FoldAll{})
	return m.moves
}

// foldTogether is how tray and cover go together, are filled and closed.
func (s Spec) foldTogether() []hand.Move {
	out := []hand.Move{
		hand.Join{Bonds: bonds("tray", "base", "cover"), Said: said("wrap-floor", one("off", s.Size(foldOverhang)))},
		hand.Join{Bonds: bonds("tray", "back", "cover", "tray", "front", "cover"), Said: hand.Say("wrap-walls")},
	}
	if s.Choice(gussets) == "loose" {
		out = append(out, hand.Join{Uses: []string{"tray"}, Said: hand.Say("wrap-points")})
	}
	hold := map[string]string{"dot": "hold-flap", "brad": "hold-brad", "ribbon": "hold-ribbon"}[s.Choice(foldClosure)]
	return append(out, hand.Fill{Into: "tray"}, hand.Shut{Said: hand.Say("shut-lid")}, hand.Hold{Said: hand.Say(hold)})
}
