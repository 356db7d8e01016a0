package style

import (
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"

	"gonum.org/v1/gonum/spatial/r3"
)

var (
	gableWidth = &Parameter{
		ID:      "width",
		Label:   "Width",
		Default: 9 * quarterInch,
		Min:     25 * mm,
		Max:     70 * mm,
		About:   "W': the lid's four sides, between folds; the tray is that much smaller",
	}
	gableHeight = &Parameter{
		ID:      "height",
		Label:   "Tray's height",
		Default: 2 * measure.Inch,
		Min:     15 * mm,
		Max:     110 * mm,
		About:   "The tray's walls",
	}
	gableWall = &Parameter{
		ID:      "wall",
		Label:   "Lid's wall",
		Default: measure.Inch,
		Min:     8 * mm,
		Max:     110 * mm,
		About:   "w: how far the lid comes down",
		Follows: func(s Spec) measure.Length { return min(s.about(measure.Inch), s.Size(gableHeight)) },
	}
	gableSlope = &Parameter{
		ID:      "slope",
		Label:   "Slope",
		Default: 3 * measure.Inch / 2,
		Min:     13 * mm,
		Max:     80 * mm,
		About:   "s: from the wall to the ridge; over half the width",
		Follows: func(s Spec) measure.Length { return measure.Up(s.Size(gableWidth)*2/3, s.Tick) },
	}
	gableFin = &Parameter{
		ID:      "fin",
		Label:   "Fin",
		Default: measure.Inch / 2,
		Min:     6 * mm,
		Max:     40 * mm,
		About:   "n: what stands up along the ridge, glued or clipped",
	}
	gableTab = &Parameter{
		ID:      "tab",
		Label:   "Tab",
		Default: measure.Inch / 2,
		Min:     6 * mm,
		Max:     25 * mm,
		About:   "The strip that joins the lid's four sides",
	}

	gableAllowance = &Option{
		ID:      "lid.allowance",
		Label:   "How much bigger the lid is",
		Kind:    LengthKind,
		Default: measure.Inch / 16,
		Min:     0,
		Max:     mostAllowance,
		ForFit:  true,
		About:   "How much smaller the tray's panel is than the lid; leave it out to have it worked out",
	}
)

var gableLid = &Style{
	ID: "gable-lid", Name: "Tray with a gable lid", About: "A square tray under a lid that rises to a ridge",
	For:   []Use{ForTreats},
	Opens: "the lid lifts off by its ridge", Strength: "good: two cards where the lid goes over",
	Parameters: []*Parameter{gableWidth, gableHeight, gableWall, gableSlope, gableFin, gableTab},
	Options:    []*Option{gableAllowance, corners, adhesive},
	Axes:       [3]*Parameter{gableWidth, gableWidth, gableHeight},
	Allowance:  gableAllowance,
	Build:      buildGableLid,
}

func buildGableLid(s Spec) (*Box, error) {
	w, wall, slope, fin := s.Size(gableWidth), s.Size(gableWall), s.Size(gableSlope), s.Size(gableFin)
	if least := steeper(w, s.Tick); slope < least {
		return nil, outOfRange(
			"size.slope",
			"the slope must be at least %s, over half the width, or it does not reach the ridge",
			s.show(least),
		)
	}
	s.most(gableWall.limited(), s.Size(gableHeight), deeperLid)
	a, high := s.Length(gableAllowance), s.Size(gableHeight)
	base := s.trayShape("tray", "Tray", w-a, w-a, high)
	tray, err := base.part()
	if err != nil {
		return nil, err
	}
	g := s.grid([]measure.Length{w, w, w, w, s.Size(gableTab)}, []measure.Length{wall, slope, fin}, `
		front        right        back        left        tab
		slope.front  slope.right  slope.back  slope.left  tab.slope
		fin.front    fin.right    fin.back    fin.left    .`)
	g.Role(pattern.Tab, g.All("tab", "tab.slope")...)
	g.Call(g.Face("tab.slope"), "tab beside the slopes")
	g.Glue(g.Face("tab"), true, g.Face("front"))
	g.Glue(g.Face("tab.slope"), true, g.Face("slope.front"))
	g.Upwards(pattern.Pt(0, 1), g.All("front", "right", "back", "left", "tab", "tab.slope", // the wall's foot is the pattern's top edge
		"slope.front", "slope.right", "slope.back", "slope.left", "fin.front", "fin.right", "fin.back", "fin.left")...)
	r := roof{w: w.MM(), d: w.MM(), wall: wall.MM(), slope: slope.MM(), fin: fin.MM(), foot: 0, upwards: 1, ends: true}
	r.panels(g)
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	if err := p.AnglesFrom(r.place, r.closing(0.9)); err != nil {
		return nil, err
	}
	doubled(p)
	tTray, tLid := s.Card("tray"), s.Card("lid")
	lid := Part{
		ID:      "lid",
		Name:    "Lid",
		Pattern: p,
		Root:    "front",
		Opens:   Upright,
		Way:     r.way(p),
		Via:     tubed(p, func(c pattern.Crease) bool { return min(c.A.Y, c.B.Y) >= wall.MM()-pattern.Tolerance }),
		// The slopes come to rest on the tray's rim.
		At:     r3.Vec{Z: (high - wall).MM()},
		Away:   r3.Vec{Z: (wall + 10*mm).MM()},
		Making: told(func() []hand.Move { return s.gableMaking(p, r) }),
	}
	pair := fit.Pair{
		Kind: fit.LidOn, Outer: "lid", Inner: "tray", OuterName: "Lid", InnerName: "Tray", OuterCard: tLid, InnerCard: tTray,
		OuterSpan: w, InnerSpan: w - a, OuterDepth: wall, InnerDepth: high,
	}
	along, across := pair, pair
	along.Axis, across.Axis = "length", "width"
	across.OuterLayers, across.OuterWhat = 1, "tab"
	tray.Card = tTray
	room, err := roomOf(tray)
	if err != nil {
		return nil, err
	}
	// At the walls what lies inside the slopes takes a little of the height;
	// a narrower thing may stand up under them.
	straight := (high - 3*tLid).MM()
	inside := room.Largest
	inside.Height = measure.FromMM(straight)
	room = Block(inside, room.At).under("a block under a gable", r.under(straight, 5*tLid.MM()))
	return &Box{
		Parts: []Part{tray, lid}, Room: room, Fits: []fit.Pair{along, across},
		Shut:     ByFriction,
		Together: []hand.Move{hand.Fill{Into: "tray"}, lowered("lid")},
	}, nil
}

// gableMaking is how a hand makes the lid.
func (s Spec) gableMaking(p *pattern.Pattern, r roof) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Across: true, Panels: true, Words: []string{"1", "2", "3", "4", "tab"}})
	m.ridge(r, "gable", [2]int{4, 2})
	m.do(hand.FoldWays{Towards: m.creases(towards), Flat: m.creases(overFlat), Said: hand.Say("gable-folds")})
	m.stick(hand.Stick{Way: hand.Ring, What: m.parts("tab", nil, "tab", "tab.slope"), Onto: m.parts("panel", nil, "front", "slope.front"), Outside: true})
	m.do(hand.Dry{Said: hand.Say("gable-close")})
	return m.moves
}
