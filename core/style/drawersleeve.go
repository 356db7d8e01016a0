package style

import (
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	sleeveAllowance = &Option{
		ID:      "sleeve.allowance",
		Label:   "How much wider the sleeve is",
		Kind:    LengthKind,
		Default: measure.Inch / 16,
		Min:     0,
		Max:     mostAllowance,
		ForFit:  true,
		Chained: true,
		About:   "How much wider and higher the sleeve is scored than the drawer; leave it out to have it worked out",
	}
	sleeveAllowanceHeight = &Option{
		ID:      "sleeve.allowance.height",
		Label:   "How much higher the sleeve is",
		Kind:    LengthKind,
		Default: measure.Inch / 16,
		Min:     0,
		Max:     mostAllowance,
		ForFit:  true,
		Chained: true,
		About:   "How much higher the sleeve is than the drawer; the same as its width's when it is left out",
		Follows: func(s Spec) measure.Length { return s.Length(sleeveAllowance) },
	}
	sleeveJoin = &Option{
		ID: "sleeve.join", Label: "Sleeve joins", Kind: ChoiceKind, Choices: []string{"tab", "side"}, DefaultChoice: "tab",
		About: "By a tab glued inside its floor, or by a whole side that lies over the first: smoother inside, and stronger",
	}
	sleeveSlip = &Option{
		ID: "sleeve.slip", Label: "Sleeve longer by", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: 30 * mm,
		About: "Longer than the drawer: a tick for flush ends, more for a recessed drawer",
	}
	sleeveTab = &Option{
		ID:      "tab",
		Label:   "Sleeve's tab",
		Kind:    LengthKind,
		Default: 15 * mm,
		Min:     6 * mm,
		Max:     40 * mm,
		About:   "The strip that joins the sleeve, glued inside its floor",
	}
	drawerNotch = &Option{
		ID:      "notch",
		Label:   "Thumb notch",
		Kind:    LengthKind,
		Default: 3 * measure.Inch / 4,
		Min:     0,
		Max:     60 * mm,
		About:   "Its diameter; 0 for none",
		Follows: func(s Spec) measure.Length {
			return min(s.about(3*measure.Inch/4), measure.Down(s.Size(width)/3, s.Tick), measure.Down(s.Size(height), s.Tick))
		},
	}
	notchOn = &Option{
		ID:            "notch.on",
		Label:         "Notch in",
		Kind:          ChoiceKind,
		Choices:       []string{"sleeve", "drawer"},
		DefaultChoice: "sleeve",
		About:         "In the sleeve's end, or in the drawer's end wall",
	}
	notchEnds = &Option{
		ID:            "notch.ends",
		Label:         "Notch at",
		Kind:          ChoiceKind,
		Choices:       []string{"one", "both"},
		DefaultChoice: "one",
		About:         "At one end or both",
	}
)

var drawerSleeve = &Style{
	ID: "drawer-sleeve", Name: "Drawer and sleeve", About: "A tray that slides out of a sleeve, with a thumb notch",
	For:   []Use{ForGifts},
	Suits: []string{"soap", "match", "chocolate bar", "pen"},
	Opens: "a drawer slides out", Strength: "good: two cards where the sleeve goes round",
	Parameters: lengthWidthHeight[:],
	Options:    []*Option{sleeveAllowance, sleeveAllowanceHeight, sleeveJoin, sleeveSlip, sleeveTab, drawerNotch, notchOn, notchEnds, corners, adhesive},
	Axes:       lengthWidthHeight,
	Allowance:  sleeveAllowance,
	Build:      buildDrawerSleeve,
}

func buildDrawerSleeve(s Spec) (*Box, error) {
	drawer := s.trayShape("drawer", "Drawer", s.Size(length), s.Size(width), s.Size(height))
	r := s.Length(drawerNotch) / 2
	both, inSleeve := s.Choice(notchEnds) == "both", s.Choice(notchOn) == "sleeve"
	if !inSleeve {
		// With pinwheel corners a tab would stand behind the notch.
		if r > 0 && (r > drawer.height-3*mm || drawer.width/2-r < 15*mm || drawer.corners == "pinwheel") {
			return nil, outOfRange(
				"options.notch",
				"a notch of %s needs a higher or wider end wall and two-tab or slim corners; make it smaller, or 0 for none",
				s.show(2*r),
			)
		}
		drawer.notch, drawer.bothEnds, drawer.notchBy = r, both, drawerNotch
	}
	dp, err := drawer.part()
	if err != nil {
		return nil, err
	}
	w, h := drawer.width+s.Length(sleeveAllowance), drawer.height+s.Length(sleeveAllowanceHeight)
	tab, long := min(s.Length(sleeveTab), measure.Down(drawer.width/2, s.cutting())), drawer.length+s.Length(sleeveSlip)
	g := s.sleeve(long, w, h, tab)
	roof := g.Face("roof")
	notchAt := w + h + w/2
	if s.Choice(sleeveJoin) == "side" {
		notchAt = 2*h + w + w/2
	}
	notch := hand.Notch{In: "3", Across: 2 * r, Edges: []hand.Edge{hand.Right}, At: measure.Nearest(notchAt, s.cutting())}
	if s.Choice(sleeveJoin) == "side" {
		notch.In = "4"
	}
	if both {
		notch.Edges = []hand.Edge{hand.Left, hand.Right}
	}
	if r > 0 && inSleeve {
		tooWide := fault.New(
			fault.OutOfRange,
			"options.notch",
			"a notch of %s does not fit in the sleeve's end; make it smaller, or 0 for none",
			s.show(2*r),
		)
		if 2*r > long/2 {
			return nil, tooWide
		}
		g.Notch(roof, pt(long, notch.At), r.MM(), tooWide)
		if both {
			g.Notch(roof, pt(0, notch.At), r.MM(), tooWide)
		}
	} else {
		notch.Across = 0
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	tD, tS := s.Card("drawer"), s.Card("sleeve")
	sleeve := Part{
		ID:      "sleeve",
		Name:    "Sleeve",
		Pattern: p,
		Root:    "floor",
		Opens:   Upwards,
		Away:    r3.Vec{X: -drawer.length.MM() * 0.6},
		Making:  told(func() []hand.Move { return s.sleeveMaking(p, notch) }),
	}
	slide := hand.Said{Key: "slide", Pieces: map[string]string{"piece": "drawer"}}
	if notch.Across > 0 && !both {
		slide.Key = "slide-notched"
	}
	dp.At.Z = ((tD + tS) / 2).MM() // it lies on the sleeve's floor
	pair := fit.Pair{
		Kind:      fit.SleeveRound,
		Outer:     "sleeve",
		Inner:     "drawer",
		OuterName: "Sleeve",
		InnerName: "Drawer",
		OuterCard: tS,
		InnerCard: tD,
	}
	across, up := pair, pair
	across.Axis, across.OuterSpan, across.InnerSpan = "width", w, drawer.width
	up.Axis, up.OuterSpan, up.InnerSpan = "height", h, drawer.height
	if s.Choice(sleeveJoin) == "tab" {
		up.OuterLayers, up.OuterWhat = 1, "tab"
	}
	dp.Card = tD
	room, err := roomOf(dp)
	if err != nil {
		return nil, err
	}
	inside := room.Largest
	inside.Height = min(inside.Height, h-tD-tS) // under the sleeve's roof
	return &Box{
		Parts: []Part{dp, sleeve}, Room: Block(inside, room.At), Fits: []fit.Pair{across, up},
		Shut:     ByFriction,
		Together: []hand.Move{hand.Fill{Into: "drawer"}, hand.Shut{Uses: []string{"sleeve"}, Said: slide}},
	}, nil
}

// sleeveMaking is how a hand makes the sleeve, round the drawer.
func (s Spec) sleeveMaking(p *pattern.Pattern, notch hand.Notch) []hand.Move {
	m := s.make(p)
	m.scores()
	names, way := []string{"1", "2", "3", "4", "tab"}, hand.Around
	if s.Choice(sleeveJoin) == "side" {
		names[4], way = "5", hand.AroundOver
	}
	m.do(hand.Names{Words: names, Panels: true})
	if notch.Across > 0 {
		m.do(notch)
	}
	if way == hand.AroundOver {
		m.do(hand.FoldAll{})
		m.stick(hand.Stick{Way: way, What: m.parts("panel", nil, "over"), Onto: m.parts("panel", nil, "front"), OntoOutside: true, Round: "drawer"})
		return m.moves
	}
	m.shape("tab", group{"tab", nil, []string{"tab"}})
	m.do(hand.FoldAll{})
	m.stick(hand.Stick{Way: way, What: m.parts("tab", nil, "tab"), Onto: m.parts("panel", nil, "floor"), Outside: true, Round: "drawer"})
	return m.moves
}

// sleeve is the strip that goes round a drawer, in rows: floor, back, roof and
// front with a tab that is glued inside the floor; or a front at both ends, the
// last over the first.
func (s Spec) sleeve(long, w, h, tab measure.Length) *pattern.Grid {
	if s.Choice(sleeveJoin) == "side" {
		g := s.grid([]measure.Length{long}, []measure.Length{h, w, h, w, h}, `
			front
			floor
			back
			roof
			over`)
		front, over, floor := g.Face("front"), g.Face("over"), g.Face("floor")
		g.Role(pattern.Panel, floor, g.Face("roof"))
		g.Call(over, "outer front")
		g.Up(floor, front, g.Face("back"))
		g.Upwards(pattern.Pt(0, -1), over)
		g.Over(over, front)
		return g
	}
	return s.tabSleeve(long, w, h, tab)
}

// tabSleeve is a strip that goes round something, in rows: floor, back, roof and front, with a tab
// that is glued inside the floor.
func (s Spec) tabSleeve(long, w, h, tab measure.Length) *pattern.Grid {
	g := s.grid([]measure.Length{long}, []measure.Length{w, h, w, h, tab}, `
		floor
		back
		roof
		front
		tab`)
	floor, strip := g.Face("floor"), g.Face("tab")
	g.Role(pattern.Panel, floor, g.Face("roof"))
	g.Role(pattern.Tab, strip)
	g.Up(floor, g.Face("back"))
	g.Upwards(pattern.Pt(0, -1), g.Face("front"))
	g.Tab(strip, g.Face("front"), tab, tabWedge)
	g.Glue(strip, true, floor)
	return g
}
