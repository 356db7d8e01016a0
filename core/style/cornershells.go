package style

import (
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	shellsLength = &Parameter{
		ID: "length", Label: "Length", Default: 11 * quarterInch, Min: 30 * mm, Max: 130 * mm,
		About: "L: the tray's square floor between its folds",
	}
	shellsHeight = &Parameter{
		ID: "height", Label: "Height", Default: 7 * measure.Inch / 8, Min: 10 * mm, Max: 60 * mm,
		About: "H: the tray's walls",
	}
	shellsPanel = &Parameter{
		ID: "panel", Label: "Shell's panel", Default: 23 * measure.Inch / 8, Min: 30 * mm, Max: 140 * mm,
		About:   "P: the shell's square before it is cut across; give it for a picture that it must carry",
		Follows: func(s Spec) measure.Length { return s.Size(shellsLength) + s.Length(shellAllowance) },
	}
	shellAllowance = &Option{
		ID: "shell.allowance", Label: "How much wider the shells are", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: mostAllowance,
		ForFit: true, Chained: true,
		About: "How much wider the shells' panel is than the tray; leave it out to have it worked out",
	}
	shellDepth = &Option{
		ID: "shell.depth.allowance", Label: "How much deeper the shells are", Kind: LengthKind, Default: measure.Inch / 32, Min: 0, Max: mostAllowance,
		ForFit: true, Chained: true,
		About: "How much deeper the shells are than the tray is high; leave it out for a snug fit",
		Follows: func(s Spec) measure.Length {
			return measure.Up(s.Card("tray")+s.Card("shell.first")+snugGap, min(s.Tick, s.Tick.System().Tick()))
		},
	}
	shellsKeep = &Option{
		ID: "keep", Label: "Shells that stay", Kind: ChoiceKind, Choices: []string{"none", "one"}, DefaultChoice: "none",
		About: "Both pull off, or one is glued to the tray: then half of it stays roofed, for small things only",
	}
)

// snugGap is the least that a part slides by.
const snugGap = 300 * measure.Micrometre

var cornerShells = &Style{
	ID: "corner-shells", Name: "Corner shells", About: "A square tray between two triangular shells that pull apart",
	For:   []Use{ForGifts},
	Opens: "two shells pull apart along the diagonal", Strength: "good: two cards at the tray's walls and a shell round them",
	Parameters: []*Parameter{shellsLength, shellsHeight, shellsPanel},
	Options:    []*Option{shellAllowance, shellDepth, shellsKeep, adhesive},
	Axes:       [3]*Parameter{shellsLength, shellsLength, shellsHeight},
	Allowance:  shellAllowance,
	Build:      buildCornerShells,
}

func buildCornerShells(s Spec) (*Box, error) {
	l, h, p := s.Size(shellsLength), s.Size(shellsHeight), s.Size(shellsPanel)
	d := h + s.Length(shellDepth)
	s.least(shellsPanel.limited(), l, "the tray is larger than its shells")
	if err := s.atMost(shellsHeight, l/2, "its flaps would be longer than the shell"); err != nil {
		return nil, err
	}
	tT, tS := s.Card("tray"), s.Card("shell.first")
	tray := s.doubleTray(l, l, h)
	first, floor, err := s.shell("shell.first", "First shell", p, d)
	if err != nil {
		return nil, err
	}
	second, _, err := s.shell("shell.second", "Second shell", p, d)
	if err != nil {
		return nil, err
	}
	keeps := s.Choice(shellsKeep) == "one"
	if keeps {
		tray.onto = map[string]onto{"base": {"shell.first", floor}}
	}
	inside, err := tray.part()
	if err != nil {
		return nil, err
	}
	inside.Card = tT
	inside.At = r3.Vec{Z: ((tT + tS) / 2).MM()}
	// They meet along the diagonal, and are pulled away from it.
	second.HalfTurn = true
	apart := p.MM() * 0.8
	first.Away, second.Away = r3.Vec{X: apart, Y: apart}, r3.Vec{X: -apart, Y: -apart}
	room, err := roomOf(inside)
	if err != nil {
		return nil, err
	}
	if keeps {
		first.Away = r3.Vec{}
		quarter := room.Largest
		quarter.Length, quarter.Width = quarter.Length/2, quarter.Width/2
		room = Block(quarter, r3.Add(room.At, r3.Vec{X: -quarter.Length.MM() / 2, Y: -quarter.Width.MM() / 2}))
	}
	pair := fit.Pair{Kind: fit.SleeveRound, Outer: "shell.first", Inner: "tray", OuterName: "Shells", InnerName: "Tray", OuterCard: tS, InnerCard: tT}
	along, across, up := pair, pair, pair
	along.Axis, along.OuterSpan, along.InnerSpan = "length", p, l
	across.Axis, across.OuterSpan, across.InnerSpan = "width", p, l
	across.OuterLayers, across.OuterWhat = 3, "flaps at both legs and at one corner"
	up.Axis, up.OuterSpan, up.InnerSpan = "height", d, h
	together := []hand.Move{hand.Fill{Into: "tray"}, hand.Shut{Uses: []string{"shell.first", "shell.second"}, Said: hand.Say("shells-on")}, hand.Hold{Said: hand.Say("shells-tied")}}
	if keeps {
		join := hand.Join{Bonds: bonds("tray", "base", "shell.first"), Said: hand.Say("shell-kept")}
		together = append([]hand.Move{join}, together...)
		together[2] = hand.Shut{Uses: []string{"shell.second"}, Said: hand.Say("shell-on")}
	}
	return &Box{
		Together: together,
		Parts:    []Part{inside, first, second}, Room: room, Fits: []fit.Pair{along, across, up},
		Shut: ByBand,
	}, nil
}

// shell is two right triangles, d apart, joined along both legs: by a wall, and
// by flaps that lie in one another.
func (s Spec) shell(id, name string, p, d measure.Length) (Part, *pattern.Leaf, error) {
	b := pattern.NewBuilder()
	sliver := s.sliver()
	at := func(x, y measure.Length) pattern.Point { return pt(x, y) }
	right, far := p+d, 2*p+d
	floor := b.Polygon("floor", at(0, p), at(p, 0), at(p, p))
	wall := b.Polygon("wall", at(p, 0), at(right, 0), at(right, p), at(p, p))
	roof := b.Polygon("roof", at(right, 0), at(far, p), at(right, p))
	low := b.Polygon("floor.flap", at(0, p), at(p, p), at(p, p+d), at(sliver, p+d))
	mid := b.Polygon("wall.flap", at(p, p), at(right, p), at(right-sliver, p+d), at(p+sliver, p+d))
	high := b.Polygon("roof.flap", at(right, p), at(far, p), at(far-sliver, p+d), at(right, p+d))
	b.Role(pattern.Panel, floor, roof)
	b.Role(pattern.Tab, low, mid, high)
	b.Call(low, "flap of the floor")
	b.Call(mid, "flap of the wall")
	b.Call(high, "flap of the roof")
	b.Up(floor, wall)
	b.Slit(low, mid)
	b.Slit(mid, high)
	b.Glue(high, true, low)
	b.Glue(mid, true, high)
	made, err := b.Pattern()
	if err != nil {
		return Part{}, nil, err
	}
	return Part{
		ID: id, Name: name, Pattern: made, Root: "floor", Opens: Upwards,
		Making: told(func() []hand.Move { return s.shellMaking(made, p, d) }),
	}, floor, nil
}

// shellMaking is how a hand makes a shell.
func (s Spec) shellMaking(made *pattern.Pattern, p, d measure.Length) []hand.Move {
	m := s.make(made)
	m.scores()
	m.slit(1, []hand.Edge{hand.Bottom}, 0, 1)
	right, far, foot, off := p+d, 2*p+d, p+d, s.sliver()
	m.do(hand.Snip{Said: hand.Say("shell-slants"),
		Cuts: []pattern.Segment{{A: pt(p, 0), B: pt(0, p)}, {A: pt(right, 0), B: pt(far, p)}},
		Off:  []pattern.Point{pt(mm/4, mm/4), pt(far-mm/4, mm/4)}})
	m.do(hand.Snip{Said: hand.Say("shell-slivers"),
		Cuts: []pattern.Segment{
			{A: pt(0, p), B: pt(off, foot)}, {A: pt(far, p), B: pt(far-off, foot)},
			{A: pt(p, p), B: pt(p+off, foot)}, {A: pt(right, p), B: pt(right-off, foot)},
		},
		Off: []pattern.Point{pt(off/4, foot-off/4), pt(far-off/4, foot-off/4), pt(p+off/4, foot-off/4), pt(right-off/4, foot-off/4)}})
	m.do(hand.FoldAll{})
	m.stick(hand.Stick{Way: hand.Shell, Outside: true, What: m.parts("flap", nil, "roof.flap", "wall.flap"), Onto: m.parts("flap", nil, "floor.flap", "roof.flap")})
	return m.moves
}
