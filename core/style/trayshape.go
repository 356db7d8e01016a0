package style

import (
	"maps"
	"slices"

	"fmt"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// trayShape is an open tray, single or double walled: the building block of
// every style that stands on four walls. Its panel is length × width and its
// walls are height tall, all score to score.
type trayShape struct {
	id, name, panel       string
	length, width, height measure.Length
	lining                measure.Length // the rolled-in second wall; 0 for single walls
	corners               string
	ends                  bool // the two end walls carry the tabs, not back and front; of single walls
	adhesive              Adhesive
	tick                  measure.Tick
	opens                 Facing
	// notch is the radius of a thumb notch in the rim of the right end wall,
	// and of the left one too when bothEnds.
	notch    measure.Length
	bothEnds bool
	notchBy  *Option // the option that sets it
	// shim is what is held between fence and card where it is scored.
	shim measure.Length
	// onto are faces of other pieces that the tray's own, by name, are glued to
	// with their outsides.
	onto map[string]onto
}

// onto is a face of another piece.
type onto struct {
	piece string
	face  *pattern.Leaf
}

// trayShape is a single-walled base of the given size, its corners as chosen.
func (s Spec) trayShape(id, name string, l, w, h measure.Length) trayShape {
	return trayShape{id: id, name: name, panel: "base", opens: Upwards, length: l, width: w, height: h,
		corners: s.Choice(corners), adhesive: s.adhesive(), tick: s.Tick}
}

// layers counts the layers inside the walls, both sides together, along the
// length and across the width: tabs glued there, and rolled-in walls.
func (t trayShape) layers() (length, width int) {
	if t.lining > 0 {
		length, width = 2, 2
	}
	switch {
	case t.corners == "pinwheel":
		return length + 2, width + 2
	case t.ends:
		return length, width + 2
	}
	return length + 2, width
}

// layersWhat names the layers along each axis for the account.
func (t trayShape) layersWhat() (length, width string) {
	length, width = "tabs", "tabs"
	if t.lining > 0 {
		length, width = "tabs and second wall", "second wall"
		if t.corners == "pinwheel" {
			width = length
		}
	}
	return length, width
}

// over pairs two trays, one going over the other in the given kind of way.
func (t trayShape) over(inner trayShape, kind *fit.Kind, tOuter, tInner measure.Length) []fit.Pair {
	kLength, kWidth := t.layers()
	whatLength, whatWidth := t.layersWhat()
	pair := fit.Pair{
		Kind: kind, Outer: t.id, Inner: inner.id, OuterName: t.name, InnerName: inner.name,
		OuterCard: tOuter, InnerCard: tInner, OuterDepth: t.height, InnerDepth: inner.height,
	}
	along, across := pair, pair
	along.Axis, along.OuterSpan, along.InnerSpan = "length", t.length, inner.length
	along.OuterLayers, along.OuterWhat = kLength, whatLength
	across.Axis, across.OuterSpan, across.InnerSpan = "width", t.width, inner.width
	across.OuterLayers, across.OuterWhat = kWidth, whatWidth
	return []fit.Pair{along, across}
}

// leastFloor is the smallest floor that folds between two walls.
const leastFloor = 5 * measure.Millimetre

// The walls of a tray by the hand that holds it, its front towards you.
var walls = map[string]string{"back": "back wall", "front": "front wall", "left": "left end wall", "right": "right end wall"}

// wallNames are the walls in the order they are made.
var wallNames = []string{"back", "front", "left", "right"}

func (t trayShape) part() (Part, error) {
	if min(t.length, t.width) < leastFloor {
		return Part{}, fault.New(
			fault.NoRoom,
			"",
			"the walls take more than half the blank: less than 5 mm of floor is left between them; make the walls lower or the box larger",
		)
	}
	g := t.grid()
	panel := g.Face(t.panel)
	g.Role(pattern.Panel, panel)
	for _, w := range wallNames {
		wall := g.Face(w)
		g.Call(wall, walls[w])
		t.opens.Raise(g.Builder, panel, wall)
		if t.lining > 0 {
			lining := g.Face(w + ".lining")
			g.Call(lining, "second wall of the "+walls[w])
			g.Role(pattern.Lining, lining)
			g.Tab(lining, wall, t.lining, sliver)
			g.Fold(wall, lining, 180, pattern.Away)
			g.Glue(lining, false, wall)
		}
	}
	t.cutCorners(g)
	for _, name := range slices.Sorted(maps.Keys(t.onto)) {
		o := t.onto[name]
		g.Elsewhere(g.Face(name), true, o.piece, o.face, false)
	}
	if t.notch > 0 {
		tooWide := fault.New(
			fault.OutOfRange,
			"options."+t.notchBy.ID,
			"a notch this wide does not fit in the end wall; make it smaller, or 0 for none",
		)
		whole, mid := t.length+2*t.height+2*t.lining, t.notchAt()
		g.Notch(g.Face("right"), pt(whole, mid), t.notch.MM(), tooWide)
		if t.bothEnds {
			g.Notch(g.Face("left"), pt(0, mid), t.notch.MM(), tooWide)
		}
	}
	p, err := g.Pattern()
	if err != nil {
		return Part{}, err
	}
	return Part{
		ID: t.id, Name: t.name, Pattern: p, Root: t.panel, Opens: t.opens,
		Making: told(func() []hand.Move { return t.making(p) }),
	}, nil
}

// making is how a hand makes it.
func (t trayShape) making(p *pattern.Pattern) []hand.Move {
	m := newMaking(p, t.adhesive)
	pinwheel, double := t.corners == "pinwheel", t.lining > 0
	at := []measure.Length{t.height + t.shim}
	if double {
		at = []measure.Length{t.lining + t.shim, t.lining + t.height + t.shim}
	}
	m.scoreFour(t.shim, at...)
	near, far, to := 0, 1, 1 // the scores that are slit, and to which crossing
	if double {
		near, far, to = 1, 2, 2
	}
	if pinwheel {
		m.do(hand.Slit{Runs: []hand.Run{
			{From: hand.Top, Line: near, To: to}, {From: hand.Right, Line: near, To: to},
			{From: hand.Bottom, Line: far, To: to}, {From: hand.Left, Line: far, To: to},
		}})
	} else if t.ends {
		m.slit(to, []hand.Edge{hand.Top, hand.Bottom}, near, far)
	} else {
		m.slit(to, leftAndRight, near, far)
	}
	if double {
		m.do(hand.CutOff{What: m.cells("three-of-four", nil,
			[2]int{0, 0}, [2]int{1, 0}, [2]int{0, 1}, [2]int{3, 0}, [2]int{4, 0}, [2]int{4, 1},
			[2]int{0, 3}, [2]int{0, 4}, [2]int{1, 4}, [2]int{4, 3}, [2]int{3, 4}, [2]int{4, 4})})
	}
	tabs, onto := []string{"back.left", "back.right", "front.left", "front.right"}, []string{"left", "right", "left", "right"}
	if pinwheel {
		tabs, onto = []string{"left.back", "back.right", "right.front", "front.left"}, []string{"back", "right", "front", "left"}
	} else if t.ends {
		tabs, onto = []string{"left.back", "left.front", "right.back", "right.front"}, []string{"back", "front", "back", "front"}
	}
	if pinwheel {
		m.shape("corner-tab", group{"tab-at-sides", nil, []string{tabs[0], tabs[2]}}, group{"tab-at-ends", nil, []string{tabs[1], tabs[3]}})
	} else {
		m.shape("corner-tab", group{"corner-tab", nil, tabs})
	}
	linings := []string{"back.lining", "front.lining", "left.lining", "right.lining"}
	outer := m.parts("outer-strip", nil, linings...)
	if double {
		m.shape("outer-strip", group{"outer-strip", nil, linings})
	}
	if t.notch > 0 {
		edges := []hand.Edge{hand.Right}
		if t.bothEnds {
			edges = leftAndRight
		}
		m.do(hand.Notch{Edges: edges, Across: 2 * t.notch, At: t.notchAt()})
	}
	m.do(hand.FoldAll{})
	if double {
		m.do(hand.FoldOver{What: outer})
	}
	tab, way := m.parts("tab", nil, tabs...), hand.WallsUp
	if pinwheel {
		way = hand.InTurn
	}
	m.stick(hand.Stick{Way: way, What: tab, Onto: m.parts("wall", nil, onto...), Outside: true})
	if double {
		m.stick(hand.Stick{Way: hand.Over, What: outer, Onto: m.parts("wall", nil, "back", "front", "left", "right")})
	}
	return m.moves
}

// notchAt is where along its edge the middle of a notch lies, on the ruler's mark.
func (t trayShape) notchAt() measure.Length {
	return measure.Nearest((t.width+2*t.height+2*t.lining)/2, t.tick.Cut())
}

// sliver is what a rolled wall loses at each end so that the corner lies flat.
const sliver = measure.Millimetre

// tabWedge is the most a tab loses on each side at its free end.
const tabWedge = 2 * measure.Millimetre

func (t trayShape) grid() *pattern.Grid {
	g := t.cells()
	g.CutOn(t.tick.Cut())
	return g
}

func (t trayShape) cells() *pattern.Grid {
	l, w, h, n := t.length, t.width, t.height, t.lining
	pinwheel := t.corners == "pinwheel"
	switch {
	case n == 0 && pinwheel:
		return pattern.NewGrid([]measure.Length{h, l, h}, []measure.Length{h, w, h}, fmt.Sprintf(`
			left.back   back   back.right
			left        %s     right
			front.left  front  right.front`, t.panel))
	case n == 0 && t.ends:
		return pattern.NewGrid([]measure.Length{h, l, h}, []measure.Length{h, w, h}, fmt.Sprintf(`
			left.back   back   right.back
			left        %s     right
			left.front  front  right.front`, t.panel))
	case n == 0:
		return pattern.NewGrid([]measure.Length{h, l, h}, []measure.Length{h, w, h}, fmt.Sprintf(`
			back.left   back   back.right
			left        %s     right
			front.left  front  front.right`, t.panel))
	case pinwheel:
		return pattern.NewGrid([]measure.Length{n, h, l, h, n}, []measure.Length{n, h, w, h, n}, fmt.Sprintf(`
			.            .           back.lining   .            .
			.            left.back   back          back.right   .
			left.lining  left        %s            right        right.lining
			.            front.left  front         right.front  .
			.            .           front.lining  .            .`, t.panel))
	}
	return pattern.NewGrid([]measure.Length{n, h, l, h, n}, []measure.Length{n, h, w, h, n}, fmt.Sprintf(`
		.            .           back.lining   .            .
		.            back.left   back          back.right   .
		left.lining  left        %s            right        right.lining
		.            front.left  front         front.right  .
		.            .           front.lining  .            .`, t.panel))
}

// cutCorners slits and shapes the tabs in the chosen manner. Two tabs that
// meet inside one wall are kept from lying over each other.
func (t trayShape) cutCorners(g *pattern.Grid) {
	tab := func(from, to string, reach, wedge measure.Length) {
		leaf, hinge, wall := g.Face(from+"."+to), g.Face(from), g.Face(to)
		name := to + " tab of the " + walls[from]
		if t.corners == "pinwheel" {
			name = "tab of the " + walls[from]
		}
		g.Call(leaf, name)
		g.Role(pattern.Tab, leaf)
		g.Tab(leaf, hinge, reach, wedge)
		g.Slit(leaf, wall)
		g.Glue(leaf, true, wall)
	}
	if t.corners == "pinwheel" {
		tab("left", "back", min(t.height, t.length), 0)
		tab("back", "right", min(t.height, t.width), 0)
		tab("right", "front", min(t.height, t.length), 0)
		tab("front", "left", min(t.height, t.width), 0)
		return
	}
	reach := t.tabReach()
	wedge := min(tabWedge, reach/4)
	carry, hold := []string{"back", "front"}, []string{"left", "right"}
	if t.ends {
		carry, hold = hold, carry
	}
	for _, wall := range carry {
		for _, to := range hold {
			tab(wall, to, reach, wedge)
		}
	}
}

// clearOfNotch is how far a tab stays away from a notch.
const clearOfNotch = 2 * measure.Millimetre

// tabReach is how far a tab reaches from its crease: the whole wall height
// (two-tab), or what the adhesive needs (slim), but never past the middle of
// the wall it is glued to, where it would meet its neighbour, nor to a notch.
func (t trayShape) tabReach() measure.Length {
	half := t.width / 2
	if t.ends {
		half = t.length / 2
	}
	if t.notch > 0 {
		half -= t.notch + clearOfNotch
	}
	half = max(measure.Down(half, t.tick.Cut()), t.tick.Cut().Length())
	reach := min(t.height, half)
	if t.corners == "slim" {
		reach = min(reach, t.adhesive.cut(t.tick))
	}
	return reach
}
