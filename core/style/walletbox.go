package style

import (
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

const quarterInch = measure.Inch / 4

var (
	walletLength = &Parameter{
		ID:      "length",
		Label:   "Length",
		Default: 9 * measure.Inch / 2,
		Min:     20 * mm,
		Max:     280 * mm,
		About:   "L: left to right, between folds",
	}
	walletDepth = &Parameter{ID: "depth", Label: "Depth", Default: 3 * quarterInch, Min: 5 * mm, Max: 150 * mm, About: "d: front to back"}
	walletFront = &Parameter{
		ID:      "front",
		Label:   "Front",
		Default: 3 * measure.Inch,
		Min:     12 * mm,
		Max:     250 * mm,
		About:   "F: the front's height, no more than the back's",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(12*mm, s.Tick), s.Size(walletBack)-s.about(quarterInch))
		},
	}
	walletBack = &Parameter{
		ID:      "back",
		Label:   "Back",
		Default: 13 * quarterInch,
		Min:     12 * mm,
		Max:     250 * mm,
		About:   "B: the back's height",
	}
	walletFlap = &Parameter{
		ID: "flap", Label: "Flap", Default: measure.Inch, Min: 6 * mm, Max: 200 * mm, About: "f: how far the flap comes down the front",
		Follows: func(s Spec) measure.Length {
			b := s.Size(walletBack)
			return min(b, max(s.about(measure.Inch), b-s.Size(walletFront)+s.about(quarterInch*2)))
		},
	}
	walletShape = &Option{
		ID:            "flap.shape",
		Label:         "Flap's shape",
		Kind:          ChoiceKind,
		Choices:       []string{"straight", "rounded", "pointed"},
		DefaultChoice: "straight",
		About:         "Straight with a taper, rounded corners, or a point",
	}
	walletShoulder = &Option{
		ID: "flap.shoulder", Label: "Point's shoulder", Kind: LengthKind, Default: quarterInch, Min: 0, Max: 150 * mm,
		About:   "Of a pointed flap: how far its sides run straight before they go to the point",
		Follows: func(s Spec) measure.Length { return measure.Down(s.Size(walletFlap)/4, s.cutting()) },
	}
	walletNotch = &Option{
		ID: "notch", Label: "Finger notch", Kind: LengthKind, Default: 0, Min: 0, Max: 60 * mm,
		About: "Its diameter, in the middle of the front's edge; 0 for none",
	}
	walletEnds = &Option{
		ID: "ends", Label: "Ends glued", Kind: ChoiceKind, Choices: []string{"over", "under"}, DefaultChoice: "over",
		About: "The front's wings over the back's, or under them",
	}
)

var walletBox = &Style{
	ID: "wallet-box", Name: "Wallet box", About: "A shallow box for cards, its flap closing over the front",
	For:   []Use{ForPaper},
	Suits: []string{"notecard", "notelet", "postcard", "card", "envelope"},
	Opens: "a flap over the front; with it lifts the whole top", Strength: "light: for flat things",
	Lies:       true,
	Parameters: []*Parameter{walletLength, walletDepth, walletFront, walletBack, walletFlap},
	Options:    []*Option{walletShape, walletShoulder, walletNotch, walletEnds, adhesive},
	Axes:       [3]*Parameter{walletLength, walletBack, walletDepth},
	Build:      buildWalletBox,
}

func buildWalletBox(s Spec) (*Box, error) {
	l, d, f, b, flap := s.Size(walletLength), s.Size(walletDepth), s.Size(walletFront), s.Size(walletBack), s.Size(walletFlap)
	s.most(walletFront.limited(), b, "it stands over the back, and the top does not lie down on it")
	s.most(walletFlap.limited(), b, "it reaches below the box, and bends where that stands")
	s.most(walletDepth.limited(), f, "a front lower than the box is deep holds its ends by little")
	// A notch takes its depth from what the flap can lie on.
	s.least(walletFlap.limited(), b-f+10*mm+s.Length(walletNotch)/2, "it reaches over the front by little, or not at all")
	// The top is never glued: its wings go with the flap's, and lifting the
	// flap lifts it, so that the whole of length × depth is open.
	g := s.grid([]measure.Length{d, l, d}, []measure.Length{f, d, b, d, flap}, `
		front.left   front   front.right
		bottom.left  bottom  bottom.right
		back.left    back    back.right
		.            top     .
		.            flap    .`)
	front, bottom, back, top, lid := g.Face("front"), g.Face("bottom"), g.Face("back"), g.Face("top"), g.Face("flap")
	g.Role(pattern.Panel, back, front)
	g.Role(pattern.Flap, lid)
	g.Hinge(back, top, 90, 0)
	g.Lap(lid, front)
	switch s.Choice(walletShape) {
	case "rounded":
		g.Round(lid, top, min(flap, l/2))
	case "pointed":
		g.Point(lid, top, min(s.Length(walletShoulder), flap-mm))
	default:
		g.Tab(lid, top, flap, flapWedge)
	}
	for _, end := range []string{"left", "right"} {
		over, under, tab := g.Face("front."+end), g.Face("back."+end), g.Face("bottom."+end)
		g.Call(over, end+" wing of the front")
		g.Call(under, end+" wing of the back")
		g.Call(tab, end+" tab of the bottom")
		g.Tab(over, front, d, min(tabWedge, d/4))
		g.Tab(under, back, d, min(tabWedge, d/4))
		if s.Choice(walletEnds) == "under" {
			g.Glue(over, true, under)
		} else {
			g.Over(over, under)
		}
		g.Role(pattern.Tab, tab)
		g.Tab(tab, bottom, min(d, f/3), min(tabWedge, d/4))
		g.Slit(tab, under)
		g.Slit(tab, over)
		g.Glue(tab, true, under)
	}
	if r := s.Length(walletNotch) / 2; r > 0 {
		tooWide := fault.New(
			fault.OutOfRange,
			"options.notch",
			"a notch this wide takes the front's edge away; make it smaller, or 0 for none",
		)
		if 2*r > l-10*mm || r > f/2 {
			return nil, tooWide
		}
		g.Notch(front, pt(measure.Nearest(d+l/2, s.cutting()), 0), r.MM(), tooWide)
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	return &Box{Parts: []Part{{
		ID: "body", Name: "Wallet", Pattern: p, Root: "back", Opens: Upwards,
		Making: told(func() []hand.Move { return s.walletMaking(p) }),
	}}, Shut: ByDot, Together: []hand.Move{
		hand.Fill{Into: "body", Said: hand.Say("fill-top")},
		hand.Shut{Said: hand.Say("shut-wallet")},
		hand.Hold{Said: hand.Say("hold-flap")},
	}}, nil
}

// walletMaking is how a hand makes it.
func (s Spec) walletMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Words: []string{"front", "bottom", "back", "top", "flap"}})
	m.slit(1, leftAndRight, 0, 1, 2)
	m.slit(2, []hand.Edge{hand.Bottom}, 0, 1)
	m.do(hand.CutOff{Free: true, What: m.cells("fallen", []string{"top", "flap"}, [2]int{0, 3}, [2]int{2, 3}, [2]int{0, 4}, [2]int{2, 4})})
	wings := func(row string) group { return group{"wing", []string{row}, []string{row + ".left", row + ".right"}} }
	m.shape("side-wing", wings("front"), wings("bottom"), wings("back"))
	m.flapShape(s)
	if across := s.Length(walletNotch); across > 0 {
		m.do(hand.Notch{Edges: []hand.Edge{hand.Top}, Across: across, At: measure.Nearest(s.Size(walletDepth)+s.Size(walletLength)/2, s.cutting())})
	}
	m.do(hand.FoldAll{})
	back := m.parts("wing", []string{"back"}, "back.left", "back.right")
	m.stick(hand.Stick{Way: hand.StandInside, What: m.parts("wing", []string{"bottom"}, "bottom.left", "bottom.right"), Onto: back, Outside: true})
	front := hand.Stick{Way: hand.StandOver, What: m.parts("wing", []string{"front"}, "front.left", "front.right"), Onto: back, OntoOutside: true}
	if s.Choice(walletEnds) == "under" {
		front.Way, front.Outside, front.OntoOutside = hand.StandUnder, true, false
	}
	m.stick(front)
	return m.moves
}

// flapShape gives the flap, the last row, its taper, its round corners or its point.
func (m *making) flapShape(s Spec) {
	left, right := s.Size(walletDepth), s.Size(walletDepth)+s.Size(walletLength)
	foot, flap := m.p.Height, s.Size(walletFlap)
	switch s.Choice(walletShape) {
	case "rounded":
		m.roundFeet(left, right, foot, min(flap, s.Size(walletLength)/2))
	case "pointed":
		shoulder := pattern.CutDown(min(s.Length(walletShoulder), flap-mm), s.cutting())
		from, mid := foot-flap+shoulder, pt((left+right)/2, foot)
		m.do(hand.Snip{
			Cuts: []pattern.Segment{{A: pt(left, from), B: mid}, {A: pt(right, from), B: mid}},
			Off:  []pattern.Point{pt(left+mm/8, foot-mm/16), pt(right-mm/8, foot-mm/16)},
			Said: hand.Said{Key: "point-flap", Lengths: map[string][]measure.Length{"at": {shoulder}}},
		})
	default:
		m.shape("flap", group{"flap", nil, []string{"flap"}})
	}
}

// roundFeet rounds the two lower corners of the part between two scores at the foot of a
// blank.
func (m *making) roundFeet(left, right, foot, r measure.Length) {
	m.do(hand.Bite{Said: said("round-flap", one("at", r)), Loops: []pattern.Loop{
		quarterRound(pt(right, foot-r), pt(right-r, foot), pt(right, foot)), quarterRound(pt(left+r, foot), pt(left, foot-r), pt(left, foot)),
	}})
}

// quarterRound is what a quarter circle takes off a corner: from where the arc begins, clockwise, to
// where it ends.
func quarterRound(from, to, at pattern.Point) pattern.Loop {
	const quarter = 0.41421356237309503 // tan(90°/4)
	return pattern.Loop{{Point: from, Bulge: quarter}, {Point: to}, {Point: at}}
}
