package style

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// stripSlack is how much higher a strip is than its two storeys of trays.
const stripSlack = 5 * measure.Millimetre

func buildStrip(s Spec) (*Box, error) {
	side, h, room, cap := s.Size(carriedLength), s.Size(carriedHeight), s.Length(carrierAllowance), s.Length(capDepth)
	p := measure.Up(side+room, s.Tick)
	half := measure.Down((side-room)/2, s.Tick)
	if half < 8*mm {
		return nil, outOfRange("size.length", "the square tray must be at least %s long, or nothing is left for the two half ones", s.show(measure.Up(16*mm+room, s.Tick)))
	}
	tall, wide := measure.Up(2*h+stripSlack, s.Tick), p+s.about(mm)
	s.most(capDepth.limited(), h, "the caps reach past the first storey of trays, and hold the strip shut like a sleeve")
	g := s.grid([]measure.Length{wide, p, p, wide}, []measure.Length{tall}, `first second third fourth`)
	names := []string{"first", "second", "third", "fourth"}
	for i, name := range names {
		panel := g.Face(name)
		g.Call(panel, name+" panel")
		g.Upwards(pattern.Pt(0, -1), panel)
		if i > 0 {
			g.Hinge(g.Face(names[i-1]), panel, 90, 0)
		}
	}
	// The last panel lies over the edge of the first, which is that much wider
	// than the column, and so a little aslant.
	aslant := math.Atan2((wide - p).MM(), p.MM())
	g.Hinge(g.Face("third"), g.Face("fourth"), 90-aslant*180/math.Pi, 0)
	middle := r3.Vec{X: (p.MM() - wide.MM()*math.Cos(aslant)) / 2, Y: (wide - p).MM() / 2}
	made, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	tS, tC := s.Card("strip"), s.Card("cap-1")
	foot := (tC / 2).MM()
	box := &Box{
		Parts: []Part{{ID: "strip", Name: "Strip", Pattern: made, Root: "second", Opens: Upright, Card: tS, Making: told(func() []hand.Move { return s.stripMaking(made) }), At: r3.Vec{X: middle.X, Y: middle.Y, Z: foot}}},
		Shut:  ByFriction, Shuts: []string{"first", "third", "fourth"},
	}
	inside := func(t measure.Length) measure.Length { return p/2 - (tS+t)/2 } // of a tray's wall from the middle
	for _, t := range []struct {
		id, name, wall, panel string
		length, width, up     measure.Length
	}{
		{"tray-1", "Square tray", "back", "second", side, side, 0},
		{"tray-2", "First half tray", "left", "first", half, side, tall - h},
		{"tray-3", "Second half tray", "right", "third", half, side, tall - h},
	} {
		shape := s.trayShape(t.id, t.name, t.length, t.width, h)
		shape.onto = map[string]onto{t.wall: {"strip", g.Face(t.panel)}}
		one, err := shape.part()
		if err != nil {
			return nil, err
		}
		one.Card = s.Card(t.id)
		one.On = &Carrier{"strip", t.panel}
		one.At = r3.Vec{Z: foot + t.up.MM()}
		switch t.wall {
		case "back":
			one.At.Y = -(inside(one.Card) - t.width/2).MM()
			one.At.Z += one.Card.MM()/2 + tC.MM()/2
		case "left":
			one.At.X = -(inside(one.Card) - t.length/2).MM()
		default:
			one.At.X = (inside(one.Card) - t.length/2).MM()
		}
		box.Parts = append(box.Parts, one)
		box.Small = append(box.Small, s.smallTray(t.id, t.name, t.length, t.width, h))
	}
	small, err := roomOf(box.Parts[2])
	if err != nil {
		return nil, err
	}
	square, err := roomOf(box.Parts[1])
	if err != nil {
		return nil, err
	}
	// What goes into a half tray goes into the square one.
	box.Room = Block(small.Largest, square.At)
	box.Room.Part = "tray-1"
	if err := s.caps(box, middle, wide, cap, tall); err != nil {
		return nil, err
	}
	for _, axis := range []string{"length", "width"} {
		box.Fits = append(box.Fits, fit.Pair{Kind: fit.InBox, Outer: "strip", OuterName: "Column", OuterCard: tS, OuterSpan: p,
			Inner: "tray-1", InnerName: "Square tray", InnerCard: s.Card("tray-1"), InnerSpan: side, Axis: axis})
	}
	box.Together = []hand.Move{
		hand.Join{Uses: []string{"strip"}, Said: hand.Say("strip-dry")}, hand.Join{Said: hand.Say("strip-try")},
		hand.Join{Bonds: bonds("tray-1", "back", "strip"), Said: hand.Say("strip-square")},
		hand.Join{Bonds: bonds("tray-2", "left", "strip", "tray-3", "right", "strip"), Said: hand.Say("strip-halves")},
		hand.Fill{Into: "tray-1", Said: hand.Say("fill-trays")},
		hand.Shut{Said: hand.Say("strip-shut")}, hand.Shut{Uses: []string{"cap-1", "cap-2"}, Said: hand.Say("caps-on")},
	}
	return box, nil
}

// stripMaking is how a hand makes the column.
func (s Spec) stripMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Across: true, Panels: true, Words: []string{"1", "2", "3", "4"}}, hand.FoldAll{})
	return m.moves
}

// caps puts a tray over each end of the column.
func (s Spec) caps(box *Box, middle r3.Vec, wide, depth, tall measure.Length) error {
	column := trayShape{id: "strip", name: "Column", length: wide, width: wide, height: tall}
	a := s.Length(lidAllowance)
	for i, id := range []string{"cap-1", "cap-2"} {
		shape := s.trayShape(id, []string{"Lower cap", "Upper cap"}[i], wide+a, wide+a, depth)
		if i == 1 {
			shape.panel, shape.opens = "top", Downwards
		}
		one, err := shape.part()
		if err != nil {
			return err
		}
		one.Card = s.Card(id)
		one.At, one.Away = middle, r3.Vec{Y: -2.5 * wide.MM()}
		if i == 1 {
			one.At.Z = (tall - depth + (s.Card("cap-1")+one.Card)/2).MM()
			one.Away = r3.Vec{Z: 2 * depth.MM()}
		}
		box.Parts = append(box.Parts, one)
		box.Fits = s.unlike(box.Fits, shape.over(column, fit.LidOn, one.Card, s.Card("strip")))
	}
	return nil
}
