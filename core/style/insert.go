package style

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Hole is an opening in an insert's floor, by its middle from the floor's
// near left corner: round when it has no Width.
type Hole struct{ X, Y, Length, Width measure.Length }

// Floor is a false floor on four folded skirts, score to score; without
// holes it is a riser.
type Floor struct {
	ID, Name              string
	Length, Width, Skirts measure.Length
	Holes                 []Hole
	Tick                  measure.Tick // of the board
}

// on is the hole as a hand marks it: its middle on the ruler's marks, and no
// smaller than it was.
func (h Hole) on(ruler measure.Tick) Hole {
	return Hole{measure.Nearest(h.X, ruler), measure.Nearest(h.Y, ruler), measure.Up(h.Length, ruler), measure.Up(h.Width, ruler)}
}

// LeastBridge is the narrowest card left between holes that does not tear.
const LeastBridge = 3 * measure.Millimetre

// Part makes the piece. Its skirts fold down, away from the outside.
func (f Floor) Part() (Part, error) {
	g := pattern.NewGrid([]measure.Length{f.Skirts, f.Length, f.Skirts}, []measure.Length{f.Skirts, f.Width, f.Skirts}, `
		.     back   .
		left  floor  right
		.     front  .`)
	floor := g.Face("floor")
	g.Role(pattern.Panel, floor)
	for _, w := range wallNames {
		g.Call(g.Face(w), w+" skirt")
	}
	for _, h := range f.Holes {
		h = h.on(f.Tick.Cut())
		mid := pattern.Pt((f.Skirts + h.X).MM(), (f.Skirts + h.Y).MM())
		loop := pattern.Circle(mid, h.Length.MM()/2)
		if h.Width > 0 {
			x, y := h.Length.MM()/2, h.Width.MM()/2
			loop = pattern.Straight(
				mid.Add(pattern.Pt(-x, -y)),
				mid.Add(pattern.Pt(x, -y)),
				mid.Add(pattern.Pt(x, y)),
				mid.Add(pattern.Pt(-x, y)),
			)
		}
		g.Hole(floor, "hole", loop)
	}
	flat, err := g.Pattern()
	if err != nil {
		return Part{}, err
	}
	p := Part{
		ID:      f.ID,
		Name:    f.Name,
		Pattern: flat,
		Root:    "floor",
		Opens:   Downwards,
		Making:  told(func() []hand.Move { return f.making(flat) }),
	}
	p.Places = []pattern.Pose{{Turn: r3.NewRotation(0, r3.Vec{X: 1}), Shift: r3.Vec{
		X: -flat.Width.MM() / 2, Y: flat.Height.MM() / 2, Z: f.Skirts.MM(),
	}}}
	return p, nil
}

// making is how a hand makes it, where its holes are alike and stand in rows; else nil.
func (f Floor) making(p *pattern.Pattern) []hand.Move {
	m := newMaking(p, "")
	m.scoreFour(0, f.Skirts)
	m.do(hand.CutOff{Width: f.Skirts, Height: f.Skirts, What: m.cells("corners", nil, [2]int{0, 0}, [2]int{2, 0}, [2]int{0, 2}, [2]int{2, 2})})
	if len(f.Holes) > 0 {
		var across, down []measure.Length
		one := f.Holes[0].on(f.Tick.Cut())
		for _, h := range f.Holes {
			h = h.on(f.Tick.Cut())
			if h.Length != one.Length || h.Width != one.Width {
				return nil
			}
			across, down = append(across, f.Skirts+h.X), append(down, f.Skirts+h.Y)
		}
		slices.Sort(across)
		slices.Sort(down)
		across, down = slices.Compact(across), slices.Compact(down)
		if len(across)*len(down) != len(f.Holes) {
			return nil
		}
		key := "holes-marked"
		if len(f.Holes) == 1 {
			key = "hole-marked"
		}
		var middles []pattern.Point
		for _, x := range across {
			for _, y := range down {
				middles = append(middles, pattern.Pt(x.MM(), y.MM()))
			}
		}
		m.do(hand.Mark{At: middles, Said: hand.Said{Key: key, Counts: map[string]int{"count": len(f.Holes)}, Lengths: map[string][]measure.Length{"at": across, "off": down}}})
		cut := hand.Bite{Loops: p.Holes, Said: hand.Said{Key: "holes-round", Lengths: map[string][]measure.Length{"across": {one.Length}}}}
		switch {
		case one.Width == one.Length:
			cut.Key = "holes-square"
		case one.Width > 0:
			cut.Key, cut.Lengths["shim"] = "holes-slot", []measure.Length{one.Width}
		}
		m.do(cut)
	}
	m.do(hand.FoldAll{})
	return m.moves
}

// Stiffener is a flat card laid on the floor.
func Stiffener(length, width, card measure.Length) Part {
	p := Part{ID: "stiffener", Name: "Stiffener", Root: "stiffener", Opens: Upwards, Pattern: &pattern.Pattern{
		Width:  length,
		Height: width,
		Outline: pattern.Straight(
			pattern.Pt(0, 0),
			pattern.Pt(length.MM(), 0),
			pattern.Pt(length.MM(), width.MM()),
			pattern.Pt(0, width.MM()),
		),
		Marks: []pattern.Mark{{Name: "stiffener", Role: pattern.Panel, At: pattern.Pt(length.MM()/2, width.MM()/2)}},
	}}
	p.Places = []pattern.Pose{flatOnFloor(p.Pattern, card)}
	return p
}

// flatOnFloor is the pose of a piece that lies on the floor, its outside down
// as a base's is.
func flatOnFloor(p *pattern.Pattern, up measure.Length) pattern.Pose {
	return pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{X: 1}), Shift: r3.Vec{X: -p.Width.MM() / 2, Y: -p.Height.MM() / 2, Z: up.MM()}}
}

// Liner is two equal strips that stand inside the four walls, each along one
// long wall and one end, their outsides to the middle of the box. Length and
// width are score to score.
func Liner(length, width, height measure.Length) (Part, error) {
	g := pattern.NewGrid([]measure.Length{length, width}, []measure.Length{height}, "front end")
	g.Fold(g.Face("front"), g.Face("end"), 90, pattern.Towards)
	g.Upwards(pattern.Pt(0, -1), g.All("front", "end")...)
	flat, err := g.Pattern()
	if err != nil {
		return Part{}, err
	}
	p := Part{ID: "liner", Name: "Liner half", Pattern: flat, Root: "front", Opens: Upright, Count: 2}
	one := pattern.Pose{
		Turn:  r3.NewRotation(math.Pi/2, r3.Vec{X: 1}),
		Shift: r3.Vec{X: -length.MM() / 2, Y: width.MM() / 2, Z: height.MM()},
	}
	about := pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{Z: 1})}
	p.Places = []pattern.Pose{one, one.Then(about)}
	return p, nil
}

// CellTray is a small open tray that stands inside a box and makes one cell,
// in several copies; length, width and height are score to score.
type CellTray struct {
	ID, Name              string
	Length, Width, Height measure.Length
	Card                  measure.Length
	Adhesive              Adhesive
	Tick                  measure.Tick
	Middles               [][2]measure.Length // where each stands, from the inside's middle
}

// Part makes the piece, each copy at its place.
func (c CellTray) Part() (Part, error) {
	t := trayShape{
		id: c.ID, name: c.Name, panel: "floor", opens: Upwards, length: c.Length, width: c.Width, height: c.Height,
		corners: "slim", adhesive: c.Adhesive, tick: c.Tick,
	}
	p, err := t.part()
	if err != nil {
		return Part{}, err
	}
	p.Count = len(c.Middles)
	for _, m := range c.Middles {
		place := flatOnFloor(p.Pattern, c.Card)
		place.Shift.X += m[0].MM()
		place.Shift.Y += m[1].MM()
		p.Places = append(p.Places, place)
	}
	return p, nil
}

// CellTrayWalls is what a cell tray's walls take along its length and width
// beyond its clear inside: the card on both sides, and the tabs inside its
// end walls. Floor is what its floor takes.
func CellTrayWalls(card measure.Length) (length, width, floor measure.Length) {
	layers, _ := trayShape{corners: "slim"}.layers()
	return measure.Length(2+layers) * card, 2 * card, card
}

var (
	insertLength = &Parameter{
		ID:      "length",
		Label:   "Inside length",
		Default: 6 * measure.Inch,
		Min:     20 * mm,
		Max:     290 * mm,
		About:   "the clear inside of the box, left to right",
	}
	insertWidth = &Parameter{
		ID:      "width",
		Label:   "Inside width",
		Default: 4 * measure.Inch,
		Min:     20 * mm,
		Max:     290 * mm,
		About:   "the clear inside of the box, front to back",
	}
	insertSkirts = &Parameter{
		ID:      "height",
		Label:   "Skirts",
		Default: measure.Inch,
		Min:     6 * mm,
		Max:     120 * mm,
		About:   "how high the floor stands",
	}

	insertGap = &Option{
		ID:      "gap",
		Label:   "Gap",
		Kind:    LengthKind,
		Default: measure.Millimetre,
		Min:     0,
		Max:     10 * mm,
		About:   "how much smaller than the inside it is, both sides together",
	}
	insertHoles = &Option{
		ID:            "holes",
		Label:         "Holes",
		Kind:          ChoiceKind,
		Choices:       []string{"round", "square", "slot", "none"},
		DefaultChoice: "round",
		About:         "round for jars, square for blocks, a slot for a card",
	}
	insertHole = &Option{
		ID:      "hole",
		Label:   "Hole size",
		Kind:    LengthKind,
		Default: 3 * measure.Inch / 2,
		Min:     3 * mm,
		Max:     280 * mm,
		About:   "across a round one; the sides of a square one; the length of a slot",
	}
	insertSlot = &Option{
		ID:      "slot",
		Label:   "Slot width",
		Kind:    LengthKind,
		Default: measure.Inch / 8,
		Min:     mm,
		Max:     50 * mm,
		About:   "of a slot only",
	}
	insertColumns = countOption("columns", "Holes along the length", "3")
	insertRows    = countOption("rows", "Holes across the width", "2")
)

var insert = &Style{
	ID:         "insert",
	Name:       "False floor",
	About:      "A floor with holes on four folded skirts, to hold things in place; without holes a riser",
	Inner:      true,
	Parameters: []*Parameter{insertLength, insertWidth, insertSkirts},
	Options:    []*Option{insertGap, insertHoles, insertHole, insertSlot, insertColumns, insertRows},
	Axes:       [3]*Parameter{insertLength, insertWidth, insertSkirts},
	Build:      buildInsert,
}

func buildInsert(s Spec) (*Box, error) {
	inside := Extent{s.Size(insertLength), s.Size(insertWidth), s.Size(insertSkirts)}
	t := s.Card("insert")
	f := Floor{ID: "insert", Name: "Insert", Skirts: inside.Height, Tick: s.Tick,
		Length: measure.Down(inside.Length-t-s.Length(insertGap), s.cutting()), Width: measure.Down(inside.Width-t-s.Length(insertGap), s.cutting())}
	columns, rows := s.count(insertColumns), s.count(insertRows)
	h := Hole{Length: s.Length(insertHole)}
	deep := h.Length // how far a hole reaches across the floor
	switch s.Choice(insertHoles) {
	case "none":
		columns = 0
	case "square":
		h.Width = h.Length
	case "slot":
		h.Width, deep = s.Length(insertSlot), s.Length(insertSlot)
	}
	stepX, stepY := f.Length/measure.Length(max(1, columns)), f.Width/measure.Length(rows)
	if columns > 0 && (h.Length > stepX-LeastBridge || deep > stepY-LeastBridge) {
		return nil, fault.New(
			fault.NoRoom,
			"options.hole",
			"%d × %d holes of %s leave less than 3 mm of card between them; make them smaller or fewer",
			columns,
			rows,
			s.show(h.Length),
		)
	}
	for row := range rows {
		for col := range columns {
			h.X, h.Y = stepX*measure.Length(col)+stepX/2, stepY*measure.Length(row)+stepY/2
			f.Holes = append(f.Holes, h)
		}
	}
	p, err := f.Part()
	if err != nil {
		return nil, err
	}
	return &Box{
		Parts:    []Part{p},
		Room:     Room{Shape: "a floor", Largest: inside},
		Together: []hand.Move{hand.Join{Uses: []string{"insert"}, Said: hand.Say("set-insert")}},
	}, nil
}
