package style

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	chestLength = &Parameter{
		ID: "length", Label: "Drawer, deep", Default: 3 * measure.Inch, Min: 25 * mm, Max: 250 * mm,
		About: "L: one drawer from its front to its back, between folds",
	}
	chestWidth = &Parameter{
		ID: "width", Label: "Drawer, wide", Default: 5 * measure.Inch / 2, Min: 25 * mm, Max: 250 * mm,
		About: "W: one drawer from side to side, between folds",
	}
	chestHeight = &Parameter{
		ID: "height", Label: "Drawer, high", Default: 5 * quarterInch, Min: 12 * mm, Max: 120 * mm,
		About: "H: one drawer's walls",
	}
	chestTab = &Parameter{
		ID: "tab", Label: "Tabs", Default: measure.Inch / 2, Min: 6 * mm, Max: 25 * mm,
		About: "The strips that join shells and case",
	}
	chestGap = &Parameter{
		ID: "gap", Label: "Gap", Default: 7 * measure.Millimetre / 10, Min: 0, Max: 3 * mm,
		About:   "g: what is free round a drawer, both sides together, before its shell goes up to the board's groove",
		Follows: func(s Spec) measure.Length { return 7 * mm / 10 },
	}
	chestColumns = &Option{
		ID: "columns", Label: "Columns", Kind: ChoiceKind, Choices: []string{"1", "2", "3", "4"}, DefaultChoice: "2",
		About: "How many drawers stand side by side",
	}
	chestRows = &Option{
		ID: "rows", Label: "Rows", Kind: ChoiceKind, Choices: []string{"1", "2", "3", "4"}, DefaultChoice: "3",
		About: "How many drawers stand over one another",
	}
	chestNotch = thumbNotch(chestWidth, chestHeight)
	chestCase  = &Option{
		ID: "case.pieces", Label: "Case", Kind: ChoiceKind, Choices: []string{"two", "one"}, DefaultChoice: "two",
		About: "The strip round all: of two alike, or of one where a sheet is long enough",
	}
)

var drawerChest = &Style{
	ID: "drawer-chest", Name: "Chest of drawers", About: "Drawers in shells, side by side and over one another, in one case",
	For:   []Use{ForSeveral},
	Suits: []string{"button", "bead", "earring", "thread", "stud"},
	Opens: "each drawer slides out", Strength: "very good: three cards between drawers",
	Untold:     true,
	Parameters: []*Parameter{chestLength, chestWidth, chestHeight, chestTab, chestGap},
	Options:    []*Option{chestColumns, chestRows, chestNotch, chestCase, corners, adhesive},
	Axes:       [3]*Parameter{chestWidth, chestLength, chestHeight},
	Rooms:      func(s Spec) int { columns, rows := s.chest(); return columns * rows },
	Build:      buildDrawerChest,
}

// glueLine is how thick what sticks two cards on each other is.
const glueLine = measure.Millimetre / 10

// chest is how many drawers it has side by side, and over one another.
func (s Spec) chest() (columns, rows int) { return s.count(chestColumns), s.count(chestRows) }

// thumbNotch asks for a notch in the front of drawers so wide and high.
func thumbNotch(wide, high *Parameter) *Option {
	return &Option{
		ID: "notch", Label: "Thumb notch", Kind: LengthKind, Default: 3 * measure.Inch / 8, Min: 0, Max: 60 * mm,
		About: "Its diameter, in the rim of a drawer's front; 0 for none",
		Follows: func(s Spec) measure.Length {
			w, h := s.Size(wide), s.Size(high)
			beside := max(besideThumb, s.TabWidth()+clearOfNotch)
			fits := measure.Down(min(s.about(measure.Inch/2), w/3, h, 2*(w/2-beside), 2*(h-underThumb)), s.cutting())
			if s.Choice(corners) == "pinwheel" || fits < leastThumb {
				return 0
			}
			return fits
		},
	}
}

const (
	// besideThumb is what card stays beside a thumb notch, underThumb under it, and leastThumb the
	// smallest that a finger catches in.
	besideThumb = 8 * measure.Millimetre
	underThumb  = 3 * measure.Millimetre
	leastThumb  = 7 * measure.Millimetre
)

// drawerWith is a drawer, so many of them, with a notch in its front, which is its right end.
func (s Spec) drawerWith(notch *Option, deep, wide, high measure.Length, count int) (Part, error) {
	tray := s.trayShape("drawer", "Drawer", deep, wide, high)
	if r := s.Length(notch) / 2; r > 0 {
		if r > high-underThumb || wide/2-r < besideThumb || tray.corners == "pinwheel" {
			return Part{}, outOfRange("options."+notch.ID,
				"a notch of %s needs a higher or wider drawer and two-tab or slim corners; make it smaller, or 0 for none", s.show(2*r))
		}
		tray.notch, tray.notchBy = r, notch
	}
	part, err := tray.part()
	part.Card, part.Count, part.Away = s.Card("drawer"), count, r3.Vec{Y: -deep.MM() * 1.15}
	return part, err
}

// chestSizes are a shell's width and height, how far shells stand apart, and the case's.
type chestSizes struct{ wide, high, across, up, caseWide, caseHigh measure.Length }

// chestSizes are those of shells round a drawer, which lies on its shell's floor with the tab inside;
// and of a case round the block of shells.
func (s Spec) chestSizes(columns, rows int) chestSizes {
	t, g := s.Card("shell"), s.Size(chestGap)
	tick := min(s.Tick, s.Tick.System().Tick()) // they are scored one after the other
	drawer := s.Card("drawer")
	z := chestSizes{
		wide: s.Size(chestWidth) + measure.Up(t+drawer+g, tick),
		high: s.Size(chestHeight) + measure.Up(2*t+drawer/2+g, tick),
	}
	z.across, z.up = z.wide+t+glueLine, z.high+t+glueLine
	round := func(n int, pitch measure.Length) measure.Length {
		return measure.Up(measure.Length(n)*pitch-glueLine+s.Card(s.caseID(1))+g/2, tick)
	}
	z.caseWide, z.caseHigh = round(columns, z.across), round(rows, z.up)
	return z
}

// caseID is the case, or one of its halves.
func (s Spec) caseID(n int) string {
	if s.Choice(chestCase) == "one" {
		return "case"
	}
	return fmt.Sprint("case-", n)
}

func buildDrawerChest(s Spec) (*Box, error) {
	columns, rows := s.chest()
	z := s.chestSizes(columns, rows)
	deep, tab := s.Size(chestLength), s.Size(chestTab)
	if err := s.atMost(chestTab, s.Size(chestWidth)-2*mm, "it is glued inside the shell's floor"); err != nil {
		return nil, err
	}
	drawer, err := s.drawerWith(chestNotch, deep, s.Size(chestWidth), s.Size(chestHeight), columns*rows)
	if err != nil {
		return nil, err
	}
	p, err := s.tabSleeve(deep, z.wide, z.high, tab).Pattern()
	if err != nil {
		return nil, err
	}
	shell := Part{ID: "shell", Name: "Shell", Pattern: p, Root: "floor", Opens: Upwards, Card: s.Card("shell"), Count: columns * rows,
		Making: told(func() []hand.Move { return s.chestShell(p) })}
	cases, err := s.chestCases(z)
	if err != nil {
		return nil, err
	}
	// The block stands on the case's floor, each shell on the one below, each drawer in its shell.
	foot := (cases[0].Card + shell.Card) / 2
	for r := range rows {
		for c := range columns {
			at := r3.Vec{Y: (measure.Length(2*c+1-columns) * z.across / 2).MM(), Z: (foot + measure.Length(r)*z.up).MM()}
			if err := shell.place(at); err != nil {
				return nil, err
			}
			if err := drawer.place(r3.Add(at, r3.Vec{Z: ((shell.Card + drawer.Card) / 2).MM()})); err != nil {
				return nil, err
			}
		}
	}
	room, err := roomOf(drawer)
	if err != nil {
		return nil, err
	}
	inside := room.Largest
	inside = Extent{inside.Width, inside.Length, min(inside.Height, z.high-2*shell.Card-drawer.Card)}
	first := measure.Length(1-columns) * z.across / 2
	box := &Box{
		Parts: append([]Part{drawer, shell}, cases...), Shut: ByFriction,
		Room: Block(inside, r3.Vec{X: first.MM(), Z: (foot + shell.Card/2 + drawer.Card).MM()}),
		Fits: s.chestFits(z, columns, rows, cases[0].Card),
	}
	box.Room.Part = "drawer"
	box.Together = s.chestTogether(columns, rows, cases)
	return box, nil
}

// frontwards turns what was built with its front to the right, so that it looks at the viewer.
var frontwards = pattern.Pose{Turn: r3.NewRotation(-math.Pi/2, r3.Vec{Z: 1})}

// place adds a copy that is moved so far from where a single one would stand, and turned frontwards.
func (p *Part) place(at r3.Vec) error {
	f, err := p.Pattern.Finished(p.Root)
	if err != nil {
		return err
	}
	pose := p.stand(f)
	pose.Shift = r3.Add(pose.Shift, at)
	p.Places = append(p.Places, pose.Then(frontwards))
	return nil
}

// chestShell is how a hand makes a shell, round a drawer.
func (s Spec) chestShell(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Words: []string{"1", "2", "3", "4", "tab"}, Panels: true})
	m.shape("tab", group{"tab", nil, []string{"tab"}})
	m.do(hand.FoldAll{})
	m.stick(hand.Stick{Way: hand.Around, What: m.parts("tab", nil, "tab"), Onto: m.parts("panel", nil, "floor"), Outside: true, Round: "drawer"})
	return m.moves
}

// chestCases is the strip round the block, or its two halves, each a floor and a wall.
func (s Spec) chestCases(z chestSizes) ([]Part, error) {
	deep, tab := s.Size(chestLength), s.Size(chestTab)
	if s.Choice(chestCase) == "one" {
		p, err := s.tabSleeve(deep, z.caseWide, z.caseHigh, tab).Pattern()
		return []Part{{ID: "case", Name: "Case", Pattern: p, Root: "floor", Opens: Upwards, Card: s.Card("case"), Lies: &frontwards,
			Making: told(func() []hand.Move { return s.chestStrip(p) })}}, err
	}
	var out []Part
	for n := 1; n <= 2; n++ {
		g := s.grid([]measure.Length{deep}, []measure.Length{z.caseWide, z.caseHigh, tab}, `
			floor
			back
			tab`)
		g.Role(pattern.Panel, g.Face("floor"))
		g.Role(pattern.Tab, g.Face("tab"))
		if n == 1 {
			g.Up(g.Face("floor"), g.Face("back"))
		} else { // it is turned over
			g.Hang(g.Face("floor"), g.Face("back"))
		}
		g.Tab(g.Face("tab"), g.Face("back"), tab, tabWedge)
		g.Elsewhere(g.Face("tab"), true, s.caseID(3-n), g.Face("floor"), false)
		p, err := g.Pattern()
		if err != nil {
			return nil, err
		}
		part := Part{ID: s.caseID(n), Name: "Case bottom", Pattern: p, Root: "floor", Opens: Upwards, Card: s.Card(s.caseID(n)),
			Making: told(func() []hand.Move { return s.chestStrip(p) })}
		part.Lies = &frontwards
		if n == 2 { // turned over, end for end
			over := pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{X: 1}), Shift: r3.Vec{Z: z.caseHigh.MM()}}.Then(frontwards)
			part.Name, part.Lies = "Case top", &over
		}
		out = append(out, part)
	}
	return out, nil
}

// chestStrip is how a hand makes a strip that is closed when the block stands in it.
func (s Spec) chestStrip(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	words := []string{"1", "2", "3", "4", "tab"}
	whole := len(p.Scores.Horizontal) == 4
	if !whole {
		words = []string{"1", "2", "tab"}
	}
	m.do(hand.Names{Words: words, Panels: true})
	m.shape("tab", group{"tab", nil, []string{"tab"}})
	m.do(hand.FoldAll{})
	if whole {
		m.stick(hand.Stick{Way: hand.Tube, What: m.parts("tab", nil, "tab"), Onto: m.parts("panel", nil, "floor"), Outside: true})
	}
	return m.moves
}

// chestFits are the gaps of a drawer in its shell, and of the block in the case.
func (s Spec) chestFits(z chestSizes, columns, rows int, card measure.Length) []fit.Pair {
	slides := fit.Pair{Kind: fit.SleeveRound, Outer: "shell", Inner: "drawer", OuterName: "Shell", InnerName: "Drawer", OuterCard: s.Card("shell"), InnerCard: s.Card("drawer")}
	across, up := slides, slides
	across.Axis, across.OuterSpan, across.InnerSpan = "width", z.wide, s.Size(chestWidth)
	up.Axis, up.OuterSpan, up.InnerSpan, up.OuterLayers, up.OuterWhat = "height", z.high, s.Size(chestHeight), 1, "tab"
	block := fit.Pair{Kind: fit.GluedIn, Outer: s.caseID(1), Inner: "shell", OuterName: "Case", InnerName: "Block of shells", OuterCard: card, InnerCard: s.Card("shell"), InnerIs: "the middle of its outer walls"}
	wide, high := block, block
	wide.Axis, wide.OuterSpan, wide.InnerSpan = "width", z.caseWide, measure.Length(columns)*z.across-glueLine-s.Card("shell")
	high.Axis, high.OuterSpan, high.InnerSpan = "height", z.caseHigh, measure.Length(rows)*z.up-glueLine-s.Card("shell")
	return []fit.Pair{across, up, wide, high}
}

// chestTogether is how shells become a block, the case goes round and the drawers slide in.
func (s Spec) chestTogether(columns, rows int, cases []Part) []hand.Move {
	counts := map[string]int{"count": rows, "n": columns}
	var out []hand.Move
	if columns > 1 {
		out = append(out, hand.Join{Uses: []string{"shell"}, Said: hand.Said{Key: "chest-rows", Counts: counts}})
	}
	if rows > 1 {
		out = append(out, hand.Join{Uses: []string{"shell"}, Said: hand.Said{Key: "chest-stack", Counts: counts}})
	}
	if len(cases) == 1 {
		out = append(out, hand.Join{Uses: []string{"case"}, Said: hand.Say("chest-in")})
	} else {
		out = append(out, hand.Join{Bonds: bonds(cases[0].ID, "tab", cases[1].ID, cases[1].ID, "tab", cases[0].ID), Said: hand.Say("chest-round")})
	}
	return append(out, hand.Fill{Into: "drawer", Said: hand.Say("fill-drawers")}, hand.Shut{Uses: []string{"drawer"}, Said: hand.Say("slide-drawers")})
}
