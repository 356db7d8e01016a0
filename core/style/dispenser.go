package style

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	dispenserLength = &Parameter{ID: "length", Label: "Length", Default: 15 * quarterInch, Min: 30 * mm, Max: 130 * mm, About: "l: the long sides, between folds"}
	dispenserWidth  = &Parameter{ID: "width", Label: "Width", Default: 7 * quarterInch, Min: 20 * mm, Max: 100 * mm, About: "w: the narrow sides, between folds"}
	dispenserHeight = &Parameter{ID: "height", Label: "Height", Default: 9 * quarterInch, Min: 20 * mm, Max: 180 * mm, About: "h: the walls, from the bottom's fold to the top's"}
	dispenserLedge  = &Parameter{
		ID: "ledge", Label: "Ledge", Default: measure.Inch / 2, Min: 6 * mm, Max: 40 * mm,
		About: "How far the top's ledges reach in; they carry the window's panel",
		Follows: func(s Spec) measure.Length {
			return min(s.about(measure.Inch/2), measure.Down(s.Size(dispenserWidth)/4, s.Tick))
		},
	}
	dispenserTuck = &Parameter{
		ID: "tuck", Label: "Tuck", Default: measure.Inch / 2, Min: 8 * mm, Max: 40 * mm, About: "How far the closing flap goes in behind the back",
		Follows: func(s Spec) measure.Length {
			return min(s.about(measure.Inch/2), measure.Down(s.Size(dispenserHeight)/2, s.Tick))
		},
	}
	dispenserTab = &Parameter{
		ID: "tab", Label: "Tab", Default: usualJoin, Min: 6 * mm, Max: 25 * mm, About: "The strip that joins the tube, glued inside the front",
		// A hair narrower than tape wants it, where that keeps the tube on the usual sheet.
		Follows: func(s Spec) measure.Length {
			wanted, round := s.about(usualJoin), 2*(s.Size(dispenserLength)+s.Size(dispenserWidth))
			if least := s.about(5 * measure.Inch / 16); round+wanted > usualSheet && round+least <= usualSheet {
				return least
			}
			return wanted
		},
	}
	windowShape = &Option{
		ID: "window", Label: "Window", Kind: ChoiceKind, Choices: []string{"oval", "slot", "round"}, DefaultChoice: "oval",
		About: "An oval, a slot with round ends, or a round hole",
	}
	windowLength = &Option{
		ID: "window.length", Label: "Window's length", Kind: LengthKind, Default: measure.Inch, Min: 6 * mm, Max: 120 * mm,
		About: "Left to right; it must clear the ledges",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(6*mm, s.cutting()), measure.Down((s.Size(dispenserLength)-2*s.Size(dispenserLedge))*3/4, s.cutting()))
		},
	}
	windowWidth = &Option{
		ID: "window.width", Label: "Window's width", Kind: LengthKind, Default: measure.Inch / 2, Min: 6 * mm, Max: 100 * mm,
		About: "Front to back; a round one is as wide",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(6*mm, s.cutting()), measure.Down((s.Size(dispenserWidth)-2*s.Size(dispenserLedge))*3/4, s.cutting()))
		},
	}
	pullTab = &Option{
		ID: "pull", Label: "Pull tab", Kind: ChoiceKind, Choices: []string{"tab", "none"}, DefaultChoice: "none",
		About: "A strip twice as long as wide, folded once, glued in the middle of the closing flap to open it by",
	}
)

// usualJoin is a tab that tape holds, on the marks of both kinds of tools, and usualSheet the sheet
// that most have.
const (
	usualJoin  = 27 * measure.Inch / 64
	usualSheet = 12 * measure.Inch
)

var dispenser = &Style{
	ID: "dispenser", Name: "Dispenser", About: "An upright box with a window in its top, opened from below",
	For:   []Use{ForSeveral},
	Opens: "a flap at the bottom", Strength: "fair: a tube with a doubled top",
	Parameters: []*Parameter{dispenserLength, dispenserWidth, dispenserHeight, dispenserLedge, dispenserTuck, dispenserTab, refillDepth, refillLength, refillHeight, refillFront, refillFlap},
	Options:    []*Option{windowShape, windowLength, windowWidth, pullTab, dispenserRefills, refillShape, refillShoulder, adhesive},
	Axes:       [3]*Parameter{dispenserLength, dispenserWidth, dispenserHeight},
	Beside:     Spec.beside,
	Build:      buildDispenser,
}

func buildDispenser(s Spec) (*Box, error) {
	l, w, h := s.Size(dispenserLength), s.Size(dispenserWidth), s.Size(dispenserHeight)
	ledge, tuck, tab := s.Size(dispenserLedge), s.Size(dispenserTuck), s.Size(dispenserTab)
	for _, c := range []struct {
		p       *Parameter
		most    measure.Length
		because string
	}{
		{dispenserWidth, l, "the window's sides are the long ones"},
		{dispenserLedge, w/2 - 6*mm, "no window is left between the ledges"},
		{dispenserTuck, h - 4*mm, "it would reach the top"},
		{dispenserTab, l - 2*mm, "it is glued inside the front"},
	} {
		if err := s.atMost(c.p, c.most, c.because); err != nil {
			return nil, err
		}
	}
	window, err := s.window(l, w, ledge)
	if err != nil {
		return nil, err
	}
	g := s.grid([]measure.Length{l, w, l, w, tab}, []measure.Length{ledge, h, w, tuck}, `
		ledge.front  ledge.right  ledge.back  ledge.left  .
		front        right        back        left        tab
		lid          dust.right   .           dust.left   .
		tongue       .            .           .           .`)
	front, back, lid, tongue, join := g.Face("front"), g.Face("back"), g.Face("lid"), g.Face("tongue"), g.Face("tab")
	g.Call(lid, "closing flap")
	g.Call(tongue, "tuck")
	g.Role(pattern.Tab, join)
	g.Glue(join, true, front)
	g.Role(pattern.Panel, lid)
	g.Role(pattern.Flap, tongue)
	g.Tuck(tongue, back)
	g.Hinge(front, lid, 90, 0)
	around := []string{"front", "right", "back", "left"}
	for i, side := range around {
		top := g.Face("ledge." + side)
		g.Call(top, side+" ledge")
		g.Role(pattern.Tab, top)
		g.Upwards(pattern.Pt(0, -1), g.Face(side))
		if i > 0 {
			g.Slit(g.Face("ledge."+around[i-1]), top)
		}
	}
	for _, long := range []string{"ledge.front", "ledge.back"} {
		for _, short := range []string{"ledge.right", "ledge.left"} {
			g.Over(g.Face(long), g.Face(short))
		}
		g.Elsewhere(g.Face(long), true, "window", window.Face("panel"), false)
	}
	for _, side := range []string{"right", "left"} {
		dust := g.Face("dust." + side)
		g.Call(dust, side+" dust flap")
		g.Role(pattern.Flap, dust)
		g.Tab(dust, g.Face(side), min(w, measure.Down(l/2, s.cutting())), 0)
		if side == "right" {
			g.Slit(dust, lid)
		}
		g.Tuck(dust, lid)
		g.Hinge(g.Face(side), dust, 90, 0)
	}
	tube, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	panel, err := window.Pattern()
	if err != nil {
		return nil, err
	}
	tB, tW := s.Card("body"), s.Card("window")
	body := Part{
		ID: "body", Name: "Tube", Pattern: tube, Root: "front", Opens: Upright, Card: tB,
		Making: told(func() []hand.Move { return s.dispenserMaking(tube) }),
	}
	room, err := roomOf(body)
	if err != nil {
		return nil, err
	}
	// Up to the two layers of the ledges; the dust flaps lie on the closing flap.
	room = Block(Extent{Length: room.Largest.Length, Width: room.Largest.Width, Height: h - 3*tB}, r3.Vec{Z: (tB + tB/2).MM()})
	room.FromBelow = true
	box := &Box{
		Parts: []Part{body, {ID: "window", Name: "Window panel", Pattern: panel, Root: "panel", Opens: Downwards, Making: told(func() []hand.Move { return s.windowMaking(panel) }),
			At: r3.Vec{Z: (h + tB + (tB+tW)/2).MM()}, Card: tW}},
		Room: room, Fits: s.windowFits(l, w, ledge), Shut: ByTuck,
	}
	box.Together = s.dispenserTogether()
	return box, s.refills(box)
}

// dispenserMaking is how a hand makes the tube.
func (s Spec) dispenserMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Across: true, Panels: true, Words: []string{"1", "2", "3", "4", "tab"}})
	m.do(hand.Slit{Runs: slices.Concat(runs(1, []hand.Edge{hand.Top}, 0, 1, 2, 3), runs(2, []hand.Edge{hand.Bottom}, 0, 1, 2, 3))})
	m.do(hand.CutOff{What: m.cells("dispenser", nil, [2]int{2, 2}, [2]int{1, 3}, [2]int{2, 3}, [2]int{3, 3}, [2]int{4, 0}, [2]int{4, 2}, [2]int{4, 3})})
	m.shape("dust-flap", group{"dust-flap", nil, []string{"dust.right", "dust.left"}})
	m.do(hand.FoldAll{})
	m.stick(hand.Stick{Way: hand.Tube, What: m.parts("tab", nil, "tab"), Onto: m.parts("panel", nil, "front"), Outside: true})
	way := hand.Ledges
	if s.Size(dispenserLength) == s.Size(dispenserWidth) {
		way = hand.LedgesSquare
	}
	m.stick(hand.Stick{Way: way, OntoOutside: true, What: m.parts("ledge", nil, "ledge.front", "ledge.front", "ledge.back", "ledge.back"),
		Onto: m.parts("ledge", nil, "ledge.right", "ledge.left", "ledge.right", "ledge.left")})
	return m.moves
}

// windowMaking is how a hand makes the panel with the window.
func (s Spec) windowMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	long, wide := s.windowSize()
	m.do(hand.Bite{Loops: p.Holes, Said: said("window-"+s.Choice(windowShape), map[string][]measure.Length{"size": {long, wide}, "across": {wide}})})
	return m.moves
}

// dispenserTogether is how the window goes on, and how it is filled and closed.
func (s Spec) dispenserTogether() []hand.Move {
	out := []hand.Move{hand.Join{Bonds: bonds("body", "ledge.front", "window", "body", "ledge.back", "window"), Said: hand.Say("window-on")}}
	if s.Choice(pullTab) == "tab" {
		wide := s.about(3 * measure.Inch / 4)
		out = append(out, hand.Join{Said: said("pull-tab", one("size", wide, 2*wide))}, hand.Join{Said: hand.Say("pull-tab-on")})
	}
	return append(out, hand.Join{Said: hand.Say("on-its-head")}, hand.Fill{Into: "body", Said: hand.Say("fill-above")},
		hand.Shut{Said: hand.Say("shut-below")}, hand.Shut{Said: hand.Say("turn-over")})
}

// windowFits are the accounts of the window between the ledges.
func (s Spec) windowFits(l, w, ledge measure.Length) []fit.Pair {
	pair := fit.Pair{Kind: fit.Clears, Outer: "body", Inner: "window", OuterName: "Ledges", InnerName: "Window", OuterIs: "apart"}
	long, wide := s.windowSize()
	along, across := pair, pair
	along.Axis, along.OuterSpan, along.InnerSpan, along.InnerIs = "length", l-2*ledge, long, "as cut"
	across.Axis, across.OuterSpan, across.InnerSpan, across.InnerIs = "width", w-2*ledge, wide, "as cut"
	return []fit.Pair{along, across}
}

// windowSize is how long and wide the window is.
func (s Spec) windowSize() (long, wide measure.Length) {
	long, wide = s.Length(windowLength), s.Length(windowWidth)
	if s.Choice(windowShape) == "round" {
		long = wide
	}
	return long, wide
}

// window is the panel on the ledges with its opening, which must clear them.
func (s Spec) window(l, w, ledge measure.Length) (*pattern.Grid, error) {
	long, wide := s.windowSize()
	for _, c := range []struct {
		o          *Option
		is, within measure.Length
	}{{windowLength, long, l - 2*ledge}, {windowWidth, wide, w - 2*ledge}} {
		if c.is > c.within {
			return nil, outOfRange("options."+c.o.ID, "the window can be at most %s, so that it clears the ledges", s.show(c.within))
		}
	}
	if s.Choice(windowShape) == "slot" && long < wide {
		return nil, outOfRange("options.window.length", "a slot is at least as long as it is wide, %s", s.show(wide))
	}
	g := s.grid([]measure.Length{l}, []measure.Length{w}, `panel`)
	panel := g.Face("panel")
	g.Role(pattern.Panel, panel)
	middle := pt(measure.Nearest(l/2, s.cutting()), measure.Nearest(w/2, s.cutting()))
	g.Hole(panel, "window", opening(s.Choice(windowShape), middle, long.MM()/2, wide.MM()/2))
	return g, nil
}

// ovalCorners is how many corners stand for an oval's curve.
const ovalCorners = 72

// opening is a window about its middle, of half its length and width.
func opening(shape string, at pattern.Point, a, b float64) pattern.Loop {
	switch shape {
	case "round":
		return pattern.Circle(at, b)
	case "slot":
		if a-b < 0.05 {
			return pattern.Circle(at, b)
		}
		return pattern.Loop{
			{Point: pattern.Pt(at.X-a+b, at.Y-b)}, {Point: pattern.Pt(at.X+a-b, at.Y-b), Bulge: 1},
			{Point: pattern.Pt(at.X+a-b, at.Y+b)}, {Point: pattern.Pt(at.X-a+b, at.Y+b), Bulge: 1},
		}
	}
	var out []pattern.Point
	for i := range ovalCorners {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / ovalCorners)
		out = append(out, pattern.Pt(at.X+a*cos, at.Y+b*sin))
	}
	return pattern.Straight(out...)
}
