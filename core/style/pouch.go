package style

import (
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	pouchLength = &Parameter{
		ID: "length", Label: "Length", Default: 15 * quarterInch, Min: 25 * mm, Max: 280 * mm,
		About: "L: left to right, between the tabs' folds",
	}
	pouchBack = &Parameter{
		ID: "back", Label: "Back", Default: 5 * measure.Inch / 2, Min: 20 * mm, Max: 280 * mm,
		About: "B: the back's height",
	}
	pouchFront = &Parameter{
		ID: "front", Label: "Front", Default: 9 * quarterInch, Min: 16 * mm, Max: 280 * mm,
		About: "F: the front's height, no more than the back's",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(16*mm, s.Tick), s.Size(pouchBack)-s.about(3*measure.Inch/8))
		},
	}
	pouchFlap = &Parameter{
		ID: "flap", Label: "Flap", Default: 11 * measure.Inch / 8, Min: 10 * mm, Max: 250 * mm,
		About: "f: how far the flap comes down over the front",
		Follows: func(s Spec) measure.Length {
			b := s.Size(pouchBack)
			return min(b, max(measure.Up(pouchLap+b-s.Size(pouchFront), s.Tick), measure.Nearest(b/2, s.Tick)))
		},
	}
	pouchDepth = &Parameter{
		ID: "depth", Label: "Depth", Default: 0, Min: 0, Max: 12 * mm,
		About: "d: 0 for single scores, or the width of its narrow sides",
	}
	pouchTab = &Parameter{
		ID: "tab", Label: "Tab", Default: measure.Inch / 2, Min: 6 * mm, Max: 40 * mm,
		About: "How wide the two tabs are that hold the front",
	}
)

var pouch = &Style{
	ID: "pouch", Name: "Pouch", About: "A flat pocket with a flap, for a voucher, seeds or a card",
	For:   []Use{ForPaper, ForFavours},
	Suits: []string{"voucher", "seed", "ticket", "card", "letter", "sachet", "tea bag", "bookmark"},
	Opens: "a flap over the front", Strength: "light: for flat things",
	Lies:       true,
	Untold:     true,
	Parameters: []*Parameter{pouchLength, pouchBack, pouchFront, pouchFlap, pouchDepth, pouchTab},
	Options:    []*Option{adhesive},
	Axes:       [3]*Parameter{pouchLength, pouchBack, pouchDepth},
	Build:      buildPouch,
}

const (
	// pouchLap is how far a flap comes over the front at least.
	pouchLap = 10 * measure.Millimetre
	// pouchShort is what the tabs are shorter than the front by, at either end.
	pouchShort = 3 * measure.Millimetre
	// pouchEase is what lies free beside a thing in a pouch without sides, both sides together,
	// besides the thickness that it bends the card out by.
	pouchEase = 2 * measure.Millimetre
	// twoScores is how near two scores may lie without crushing the card between.
	twoScores = 3 * measure.Millimetre / 2
	// leastDepth is the least that two scores can be apart in a drawing.
	leastDepth = measure.Millimetre / 100
	// mostDepth is how deep narrow sides hold by the tabs alone.
	mostDepth = 6 * measure.Millimetre
)

// pouchDeep is how deep its narrow sides are; none where they are too narrow to be drawn.
func (s Spec) pouchDeep() measure.Length {
	if d := s.Size(pouchDepth); d >= leastDepth {
		return d
	}
	return 0
}

func buildPouch(s Spec) (*Box, error) {
	l, b, f, flap, d, tab := s.Size(pouchLength), s.Size(pouchBack), s.Size(pouchFront), s.Size(pouchFlap), s.pouchDeep(), s.Size(pouchTab)
	if err := s.atMost(pouchFront, b, "it stands over the back, and the flap does not fold"); err != nil {
		return nil, err
	}
	if err := s.atMost(pouchTab, l/2-mm, "the two tabs would lie over each other"); err != nil {
		return nil, err
	}
	s.most(pouchFlap.limited(), b, "it reaches below the pouch, and bends where that stands")
	s.least(pouchFlap.limited(), b-f+pouchLap, "it reaches over the front by little, or not at all")
	s.most(pouchDepth.limited(), mostDepth, "narrow sides as deep as this stand by the tabs alone; a wallet box holds thicker things")
	if d > 0 {
		s.least(pouchDepth.limited(), twoScores, "two scores so near crush the card between; 0 is a single one")
	}
	from, to := s.pouchTabs()
	top := flap + d
	g := s.grid([]measure.Length{tab, l, tab}, []measure.Length{flap, from - top, to - from, top + b - to, f}, `
		.          flap   .
		.          back   .
		back.left  back   back.right
		.          back   .
		.          front  .`)
	if d > 0 {
		g = s.grid([]measure.Length{tab, d, l, d, tab}, []measure.Length{flap, d, from - top, to - from, top + b - to, d, f}, `
			.         .          flap   .           .
			.         .          top    .           .
			.         .          back   .           .
			tab.left  back.left  back   back.right  tab.right
			.         .          back   .           .
			.         .          bottom .           .
			.         .          front  .           .`)
	}
	back, front, lid := g.Face("back"), g.Face("front"), g.Face("flap")
	g.Role(pattern.Panel, back, front)
	g.Role(pattern.Flap, lid)
	g.Lap(lid, front)
	if d > 0 {
		g.Hinge(back, g.Face("top"), 90, 0)
		g.Hinge(g.Face("top"), lid, 90, 90)
		g.Up(back, g.Face("bottom"), g.Face("top"))
	} else {
		g.Hinge(back, lid, 180, 0)
		g.Fold(back, front, 180, pattern.Away)
	}
	for _, end := range []string{"left", "right"} {
		t := g.Face("back." + end)
		if d > 0 {
			g.Call(t, end+" side")
			t = g.Face("tab." + end)
		} else {
			g.Fold(back, t, 180, pattern.Away)
		}
		g.Call(t, end+" tab")
		g.Role(pattern.Tab, t)
		g.Glue(t, true, front)
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	part := Part{
		ID: "body", Name: "Pouch", Pattern: p, Root: "back", Opens: Upwards, Card: s.Card("body"),
		Making: told(func() []hand.Move { return s.pouchMaking(p) }),
	}
	box := &Box{Parts: []Part{part}, Shut: ByDot, Together: []hand.Move{
		hand.Fill{Into: "body", Said: hand.Say("fill-top")},
		hand.Shut{Said: hand.Say("shut-pouch")},
		hand.Hold{Said: hand.Say("hold-flap")},
	}}
	if d == 0 {
		box.Room = s.pouchRoom(part.Card)
	}
	return box, nil
}

// pouchTabs are where its tabs begin and end, from the top edge.
func (s Spec) pouchTabs() (from, to measure.Length) {
	short := s.about(pouchShort)
	foot := s.Size(pouchFlap) + s.pouchDeep() + s.Size(pouchBack)
	return foot - s.Size(pouchFront) + short, foot - short
}

// pouchRoom is that of a pouch without sides, which bulges: what goes in bends back and front
// apart by its thickness, and needs as much more length.
func (s Spec) pouchRoom(card measure.Length) Room {
	l, b := s.Size(pouchLength)-pouchEase, s.Size(pouchBack)-pouchEase/2
	thin := min(mm, 3*card)
	r := Block(Extent{l - thin, b - thin, thin}, r3.Vec{Z: card.MM() / 2})
	r.Floor, r.Bulges = rectangle(l.MM(), b.MM()), true
	return r.under("flat, between back and front", func(length, width float64) float64 {
		return max(0, min(mostDepth.MM(), l.MM()-length, b.MM()-width))
	})
}

// pouchMaking is how a hand makes it.
func (s Spec) pouchMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	tab, rows := "back.", []string{"flap", "back", "front"}
	if s.pouchDeep() > 0 {
		tab, rows = "tab.", []string{"flap", "top", "back", "bottom", "front"}
	}
	m.do(hand.Names{Words: rows})
	m.pouchStrips(s)
	if s.pouchDeep() > 0 {
		m.do(hand.FoldAll{})
	} else {
		m.do(hand.FoldWays{Flat: m.creases(overFlat), Said: hand.Say("fold-all-flat")})
	}
	m.stick(hand.Stick{Way: pouchFrontOn, Outside: true, What: m.parts("tab", nil, tab+"left", tab+"right"), Onto: m.parts("panel", nil, "front", "front")})
	return m.moves
}

// pouchStrips cuts the ends off both side strips, so that a tab stays on each.
func (m *making) pouchStrips(s Spec) {
	from, to := s.pouchTabs()
	xs, ys := stations(m.p.Scores.Vertical, m.p.Width), stations(m.p.Scores.Horizontal, m.p.Height)
	half := (len(xs) - 1) / 2 // columns on either side of the middle one
	left, right := xs[half], xs[half+1]
	cut := hand.Snip{Said: said("pouch-tabs", map[string][]measure.Length{"at": {from}, "off": {to}})}
	for _, y := range []measure.Length{from, to} {
		cut.Cuts = append(cut.Cuts, pattern.Segment{A: pt(0, y), B: pt(left, y)}, pattern.Segment{A: pt(right, y), B: pt(m.p.Width, y)})
	}
	for _, x := range []measure.Length{left, right} {
		cut.Cuts = append(cut.Cuts, pattern.Segment{A: pt(x, 0), B: pt(x, from)}, pattern.Segment{A: pt(x, to), B: pt(x, m.p.Height)})
	}
	for i := range len(xs) - 1 {
		for j := range len(ys) - 1 {
			if i == half {
				continue
			}
			x := (xs[i] + xs[i+1]) / 2
			if above := min(ys[j+1], from); above > ys[j] {
				cut.Off = append(cut.Off, pt(x, (ys[j]+above)/2))
			}
			if below := max(ys[j], to); below < ys[j+1] {
				cut.Off = append(cut.Off, pt(x, (below+ys[j+1])/2))
			}
		}
	}
	m.do(cut)
}

// pouchFrontOn is how a pouch is stuck: the front is folded up onto its tabs.
const pouchFrontOn hand.Way = "pouch"
