package style

import (
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	archLength = &Parameter{
		ID:      "length",
		Label:   "Length",
		Default: 3 * measure.Inch,
		Min:     20 * mm,
		Max:     200 * mm,
		About:   "l: front to back",
	}
	archWidth = &Parameter{
		ID:      "width",
		Label:   "Width",
		Default: 3 * measure.Inch / 2,
		Min:     20 * mm,
		Max:     120 * mm,
		About:   "w: across the arch",
	}
	archStraight = &Parameter{
		ID:      "straight",
		Label:   "Straight sides",
		Default: measure.Inch / 2,
		Min:     8 * mm,
		Max:     100 * mm,
		About:   "How far the cover's sides rise before they bend",
	}
	archTab = &Parameter{
		ID:      "tab",
		Label:   "Tabs",
		Default: measure.Inch / 2,
		Min:     6 * mm,
		Max:     30 * mm,
		About:   "Glued under the base, and inside the cover",
		Follows: func(s Spec) measure.Length {
			return min(s.about(measure.Inch/2), measure.Down(s.Size(archWidth)/3, s.Tick))
		},
	}
	archDoor = &Parameter{
		ID:      "door",
		Label:   "Door",
		Default: measure.Inch / 2,
		Min:     0,
		Max:     150 * mm,
		About:   "How high the base's front folds up; 0 for an open front",
		Follows: func(s Spec) measure.Length { return min(s.Size(archStraight), s.Size(archTab)) },
	}
	archBack = &Parameter{
		ID:      "back",
		Label:   "Back",
		Default: 5 * measure.Inch / 4,
		Min:     15 * mm,
		Max:     160 * mm,
		About:   "How high the back stands, its end rounded; it follows the arch",
		Follows: func(s Spec) measure.Length {
			return s.Size(archStraight) + measure.Down(s.Size(archWidth)/2, s.cutting())
		},
	}
)

var archKind = &Option{
	ID: "base", Label: "Base", Kind: ChoiceKind, Choices: []string{"strip", "sides"}, DefaultChoice: "strip",
	About: "A plain strip, its back stood in the arch and held by a dot; or with tabs that glue the back inside the cover",
}

var archedBox = &Style{
	ID: "arched-box", Name: "Arched box", About: "A base strip under an arched cover: closed at the back, open in front",
	For:   []Use{ForFavours},
	Opens: "at the front", Strength: "fair: an arch on a base strip",
	Parameters: []*Parameter{archLength, archWidth, archStraight, archTab, archDoor, archBack},
	Options:    []*Option{archKind, adhesive},
	Axes:       [3]*Parameter{archLength, archWidth, archStraight},
	Build:      buildArchedBox,
}

// rolls is how many flats stand for the bend of the arch when it is folded
// and drawn; with so many the cover's width is right to under a tenth of a
// millimetre.
const rolls = 32

func buildArchedBox(s Spec) (*Box, error) {
	l, w, straight, tab := s.Size(archLength), s.Size(archWidth), s.Size(archStraight), s.Size(archTab)
	if err := s.atMost(archTab, w/2, "the cover's two tabs would lie over each other"); err != nil {
		return nil, err
	}
	// arc = 2·straight + π·w/2, over the half circle.
	exact := 2*straight + measure.FromMM(math.Pi*w.MM()/2)
	arc := measure.Nearest(exact, s.Tick)
	cover, sides, err := s.archCover(l, straight, arc, tab)
	if err != nil {
		return nil, err
	}
	base, err := s.archBase(sides)
	if err != nil {
		return nil, err
	}
	tBase, tCover := s.Card("base"), s.Card("cover")
	base.At.Z = ((tBase + tCover) / 2).MM() // it lies on the cover's tabs
	// The floor is under the arch, which is as wide as its bend makes it; the
	// back's tabs stand inside its sides.
	floor := base.At.Z + tBase.MM()/2
	across := min(w.MM(), 2*(arc-2*straight).MM()/math.Pi) - 0.2
	beside := 2 * tBase // the back's tabs
	if s.archStrip() {
		beside = 0
	}
	inside := Extent{Length: l - tBase, Width: measure.FromMM(across) - tCover - beside, Height: straight - measure.FromMM(floor)}
	radius := (across - tCover.MM()) / 2
	room := Block(inside, r3.Vec{Z: floor}).under("a block under an arch", func(_, width float64) float64 {
		rise := 0.0
		if width < 2*radius {
			rise = math.Sqrt(radius*radius - width*width/4)
		}
		return straight.MM() + rise - floor
	})
	shut := StaysOpen
	if s.Size(archDoor) > straight {
		shut = ByDot
	}
	box := &Box{Parts: []Part{base, cover}, Room: room, Shut: shut, Together: s.archTogether()}
	if s.archStrip() {
		box.Dots = 1
	}
	return box, nil
}

// archStrip reports whether the base is a plain strip.
func (s Spec) archStrip() bool { return s.Choice(archKind) == "strip" }

// archBase is the strip of door, floor and back, the back's end rounded under the arch.
func (s Spec) archBase(sides [2]*pattern.Leaf) (Part, error) {
	if s.archStrip() {
		return s.archPlain()
	}
	return s.archTabbed(sides)
}

// archPlain is the strip alone: its back stands in the arch's end, and a dot holds it there.
func (s Spec) archPlain() (Part, error) {
	w, door, high := s.Size(archWidth), s.Size(archDoor), s.Size(archBack)
	round := measure.Down(w/2, s.cutting())
	s.most(archBack.limited(), s.Size(archStraight)+w/2, "it stands out above the arch")
	s.least(archBack.limited(), s.Size(archStraight)+measure.Down(w/2, s.cutting()), "the arch is open above it by that much")
	columns, cells := []measure.Length{s.Size(archLength), high}, "base back"
	if door > 0 {
		columns, cells = append([]measure.Length{door}, columns...), "door base back"
	}
	g := s.grid(columns, []measure.Length{w}, cells)
	base, back := g.Face("base"), g.Face("back")
	g.Role(pattern.Panel, base)
	g.Up(base, back)
	g.Round(back, base, min(round, high))
	if door > 0 {
		s.archDoor(g)
	}
	p, err := g.Pattern()
	return Part{ID: "base", Name: "Base", Pattern: p, Root: "base", Opens: Upwards, Making: told(func() []hand.Move {
		if err != nil {
			return nil
		}
		m := s.make(p)
		m.scores()
		key := "arch-row"
		if door == 0 {
			key = "arch-row-open"
		}
		m.do(hand.Mark{Said: hand.Say(key)}, s.archRounds(p, 0, min(round, high)), hand.FoldAll{})
		return m.moves
	})}, err
}

// archDoor rounds the door, and lets it fold up.
func (s Spec) archDoor(g *pattern.Grid) {
	base, front := g.Face("base"), g.Face("door")
	g.Role(pattern.Flap, front)
	g.Up(base, front)
	g.Hinge(base, front, 90, 0)
	g.Round(front, base, min(s.Size(archDoor), measure.Down(s.Size(archWidth)/2, s.cutting())))
}

// archRounds rounds the corners of a strip that lies so far from the blank's top edge: the back's
// by a radius, the door's by as much of it as there is.
func (s Spec) archRounds(p *pattern.Pattern, top, round measure.Length) hand.Bite {
	wide, foot := p.Width, top+s.Size(archWidth)
	m := hand.Bite{Said: said("arch-rounds-open", one("off", round)), Loops: []pattern.Loop{
		quarterRound(pt(wide-round, top), pt(wide, top+round), pt(wide, top)), quarterRound(pt(wide, foot-round), pt(wide-round, foot), pt(wide, foot))}}
	if r := min(s.Size(archDoor), measure.Down(s.Size(archWidth)/2, s.cutting())); r > 0 {
		m.Loops = append(m.Loops, quarterRound(pt(r, foot), pt(0, foot-r), pt(0, foot)), quarterRound(pt(0, top+r), pt(r, top), pt(0, top)))
		m.Said = said("arch-rounds", map[string][]measure.Length{"at": {r}, "off": {round}})
	}
	return m
}

// archTabbed is the strip with a tab on each side of the back, below its round.
func (s Spec) archTabbed(sides [2]*pattern.Leaf) (Part, error) {
	l, w, tab, door, high := s.Size(archLength), s.Size(archWidth), s.Size(archTab), s.Size(archDoor), s.Size(archBack)
	round := measure.Down(w/2, s.cutting())
	below := high - round
	if below < 6*mm || below > s.Size(archStraight) {
		return Part{}, outOfRange("size.back", "the back can be %s to %s high: its tabs are glued inside the cover's straight sides",
			s.show(round+6*mm), s.show(round+s.Size(archStraight)))
	}
	columns, cells := []measure.Length{l, below, round}, `
		.     back.1  .
		base  back    back
		.     back.2  .`
	if door > 0 {
		columns, cells = append([]measure.Length{door}, columns...), `
		.     .     back.1  .
		door  base  back    back
		.     .     back.2  .`
	}
	g := s.grid(columns, []measure.Length{tab, w, tab}, cells)
	base, back := g.Face("base"), g.Face("back")
	g.Role(pattern.Panel, base)
	g.Up(base, back)
	g.Round(back, base, round)
	if door > 0 {
		s.archDoor(g)
	}
	for i, name := range []string{"back.1", "back.2"} {
		strip := g.Face(name)
		g.Call(strip, []string{"left", "right"}[i]+" tab of the back")
		g.Role(pattern.Tab, strip)
		g.Tab(strip, back, tab, min(tabWedge, tab/4))
		// Seen from the front the base's first side is on the far side of the sheet.
		g.Elsewhere(strip, true, "cover", sides[i], false)
	}
	p, err := g.Pattern()
	return Part{
		ID: "base", Name: "Base", Pattern: p, Root: "base", Opens: Upwards,
		Making: told(func() []hand.Move { return s.archBaseMaking(p, below, round, err) }),
	}, err
}

// archBaseMaking is how a hand makes the strip of door, floor and back.
func (s Spec) archBaseMaking(p *pattern.Pattern, below, round measure.Length, err error) []hand.Move {
	if err != nil {
		return nil
	}
	w, tab, door := s.Size(archWidth), s.Size(archTab), s.Size(archDoor)
	m := s.make(p)
	m.scores()
	line, wide := door+s.Size(archLength)+below, p.Width
	key, beside := "arch-parts", 0
	if door == 0 {
		key = "arch-parts-open"
	} else {
		beside = 1
	}
	m.do(hand.Mark{Said: hand.Say(key)})
	m.do(hand.Mark{Lines: []pattern.Segment{{A: pt(line, 0), B: pt(line, p.Height)}}, Said: said("arch-line", one("at", line))})
	off := hand.Snip{Said: said("arch-strips", one("at", p.Scores.Vertical[beside]))}
	for _, y := range []measure.Length{tab, tab + w} {
		off.Cuts = append(off.Cuts, pattern.Segment{A: pt(0, y), B: pt(line-below, y)}, pattern.Segment{A: pt(line, y), B: pt(wide, y)})
	}
	for _, ends := range [][2]measure.Length{{0, tab}, {tab + w, p.Height}} {
		off.Cuts = append(off.Cuts, pattern.Segment{A: pt(line-below, ends[0]), B: pt(line-below, ends[1])}, pattern.Segment{A: pt(line, ends[0]), B: pt(line, ends[1])})
		mid := (ends[0] + ends[1]) / 2
		if door > 0 {
			off.Off = append(off.Off, pt(door/2, mid))
		}
		off.Off = append(off.Off, pt((door+line-below)/2, mid), pt((line+wide)/2, mid))
	}
	m.do(off)
	m.do(s.archRounds(p, tab, round))
	m.shape("tab", group{"tab", nil, []string{"back.1", "back.2"}})
	m.do(hand.FoldAll{})
	return m.moves
}

// archCover makes the cover and gives the handles of its two straight sides.
func (s Spec) archCover(l, straight, arc, tab measure.Length) (Part, [2]*pattern.Leaf, error) {
	rows, names := []measure.Length{tab, straight}, []string{"tab.1", "side.1"}
	bend := arc - 2*straight
	for i := range measure.Length(rolls) {
		// The flats' lengths add up to the bend exactly.
		rows = append(rows, bend*(i+1)/rolls-bend*i/rolls)
		names = append(names, fmt.Sprint("bend.", int64(i)+1))
	}
	rows, names = append(rows, straight, tab), append(names, "side.2", "tab.2")
	g := s.grid([]measure.Length{l}, rows, strings.Join(names, "\n"))
	all := g.All(names...)
	last := len(names) - 3 // the line between the last flat and the second side
	first, second, left, right := all[0], all[last+2], all[1], all[last+1]
	g.Role(pattern.Tab, first, second)
	g.Role(pattern.Bend, all[2:last+1]...)
	g.Call(left, "first side")
	g.Call(right, "second side")
	g.Call(first, "first tab")
	g.Call(second, "second tab")
	for i, flat := range all[2 : last+1] {
		g.Call(flat, fmt.Sprint("bend ", i+1))
	}
	g.Up(first, left)
	g.Up(second, right)
	g.Tab(first, left, tab, tabWedge)
	g.Tab(second, right, tab, tabWedge)
	for i := 1; i <= last; i++ {
		turn := 180.0 / rolls
		if i == 1 || i == last {
			turn /= 2
		}
		g.Roll(all[i], all[i+1], turn, pattern.Away)
	}
	for _, strip := range []*pattern.Leaf{first, second} {
		g.Elsewhere(strip, false, "base", nil, true)
	}
	p, err := g.Pattern()
	return Part{
		ID:      "cover",
		Name:    "Cover",
		Pattern: p,
		Root:    "side.1",
		Opens:   Upright,
		Making:  told(func() []hand.Move { return s.archCoverMaking(p, straight, err) }),
	}, [2]*pattern.Leaf{left, right}, err
}

// archCoverMaking is how a hand makes the cover.
func (s Spec) archCoverMaking(p *pattern.Pattern, straight measure.Length, err error) []hand.Move {
	if err != nil {
		return nil
	}
	m := s.make(p)
	m.scores()
	m.shape("end-strip", group{"end-strip", nil, []string{"tab.1", "tab.2"}})
	m.do(hand.FoldAll{}, hand.Bend{Said: said("bend-arch", one("at", straight))})
	return m.moves
}

// archTogether is how base and cover go together, are filled and closed.
func (s Spec) archTogether() []hand.Move {
	back := hand.Join{Bonds: bonds("base", "back.1", "cover", "base", "back.2", "cover"), Said: hand.Say("arch-back")}
	if s.archStrip() {
		back = hand.Join{Uses: []string{"base", "cover"}, Said: hand.Say("arch-dot")}
	}
	out := []hand.Move{
		hand.Join{Bonds: bonds("cover", "tab.1", "base", "cover", "tab.2", "base"), Said: hand.Say("arch-floor")},
		back,
		hand.Fill{Into: "base", Said: hand.Say("fill-front")},
	}
	if door := s.Size(archDoor); door > s.Size(archStraight) {
		return append(out, hand.Shut{Said: hand.Say("shut-door")}, hand.Hold{Said: hand.Say("hold-door")})
	} else if door > 0 {
		return append(out, hand.Shut{Said: hand.Say("shut-door")})
	}
	return out
}
