package style

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/num/quat"
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	calendarLength = &Parameter{
		ID: "length", Label: "Drawer, deep", Default: 5 * quarterInch, Min: 20 * mm, Max: 120 * mm,
		About: "L: one drawer from its front to its back, between folds",
	}
	calendarWidth = &Parameter{
		ID: "width", Label: "Drawer, wide", Default: 11 * measure.Inch / 8, Min: 20 * mm, Max: 150 * mm,
		About: "W: one drawer from side to side, between folds",
	}
	calendarHeight = &Parameter{
		ID: "height", Label: "Drawer, high", Default: measure.Inch, Min: 10 * mm, Max: 100 * mm,
		About: "H: one drawer's walls",
	}
	calendarColumns = calendarCount("columns", "Columns", "6")
	calendarRows    = calendarCount("rows", "Rows", "4")
	calendarNotch   = thumbNotch(calendarWidth, calendarHeight)
)

// calendarCount asks how many drawers lie in one direction; strips cross one another, so there are
// at least two.
func calendarCount(id, label, usual string) *Option {
	o := &Option{ID: id, Label: label, Kind: ChoiceKind, DefaultChoice: usual, About: "How many drawers in one direction"}
	for n := 2; n <= 8; n++ {
		o.Choices = append(o.Choices, fmt.Sprint(n))
	}
	return o
}

var calendar = &Style{
	ID: "calendar", Name: "Calendar of drawers", About: "A frame of cells with a small drawer in each, one for every day",
	For:   []Use{ForSeveral},
	Opens: "each drawer slides out", Strength: "good: the strips hold the frame square",
	Untold:     true,
	Parameters: []*Parameter{calendarLength, calendarWidth, calendarHeight, chestGap},
	Options:    []*Option{calendarColumns, calendarRows, calendarNotch, corners, adhesive},
	Axes:       [3]*Parameter{calendarWidth, calendarLength, calendarHeight},
	Rooms:      func(s Spec) int { return s.count(calendarColumns) * s.count(calendarRows) },
	Build:      buildCalendar,
}

// inFrame is what a frame is deeper than its drawers besides their card.
const inFrame = measure.Millimetre

// frame are a calendar's cells, what the frame is inside, and its panel and walls.
type frame struct {
	columns, rows          int
	cellWide, cellHigh     measure.Length
	insideWide, insideHigh measure.Length
	wide, high, deep       measure.Length
	across, up             []measure.Length // the middles of what parts the cells, from the middle
}

func (s Spec) calendarFrame() frame {
	t, g, drawer := s.Card("divider.long"), s.Size(chestGap), s.Card("drawer")
	card := s.Card("frame")
	f := frame{columns: s.count(calendarColumns), rows: s.count(calendarRows)}
	f.cellWide = measure.Up(s.Size(calendarWidth)+drawer+g, s.cutting())
	f.cellHigh = measure.Up(s.Size(calendarHeight)+drawer/2+g, s.cutting())
	cells := func(n int, cell measure.Length) measure.Length {
		return measure.Length(n)*cell + measure.Length(n-1)*t
	}
	along, across := trayShape{corners: s.Choice(corners)}.layers()
	f.wide = measure.Up(cells(f.columns, f.cellWide)+measure.Length(1+along)*card, s.cutting())
	f.high = measure.Up(cells(f.rows, f.cellHigh)+measure.Length(1+across)*card, s.cutting())
	f.insideWide, f.insideHigh = f.wide-measure.Length(1+along)*card, f.high-measure.Length(1+across)*card
	f.deep = measure.Up(s.Size(calendarLength)+2*card+inFrame, s.cutting())
	return f
}

func buildCalendar(s Spec) (*Box, error) {
	f := s.calendarFrame()
	drawer, err := s.drawerWith(calendarNotch, s.Size(calendarLength), s.Size(calendarWidth), s.Size(calendarHeight), f.columns*f.rows)
	if err != nil {
		return nil, err
	}
	around, err := s.trayShape("frame", "Frame", f.wide, f.high, f.deep).part()
	if err != nil {
		return nil, err
	}
	around.Card = s.Card("frame")
	stood := f.stood()
	around.Lies = &stood
	same := func(cell, inside measure.Length, n int) []measure.Length {
		t := s.Card("divider.long")
		out := Equal(measure.Length(n)*cell+measure.Length(n-1)*t, t, n)
		out[n-1] += inside - measure.Length(n)*cell - measure.Length(n-1)*t
		return out
	}
	grid := Dividers{
		Length: f.insideWide, Width: f.insideHigh, Height: s.Size(calendarLength), Card: s.Card("divider.long"), Tick: s.Tick,
		Columns: same(f.cellWide, f.insideWide, f.columns), Rows: same(f.cellHigh, f.insideHigh, f.rows),
	}
	strips, err := grid.Parts()
	if err != nil {
		return nil, err
	}
	for i := range strips {
		for k, pose := range strips[i].Places {
			pose.Shift.Z += around.Card.MM() / 2
			strips[i].Places[k] = pose.Then(stood)
		}
		strips[i].Card, strips[i].Name = s.Card(strips[i].ID), map[bool]string{true: "Long strip", false: "Cross strip"}[i == 0]
	}
	f.across, f.up = grid.walls(grid.Columns, f.insideWide), grid.walls(grid.Rows, f.insideHigh)
	first, err := f.place(&drawer, grid.Card)
	if err != nil {
		return nil, err
	}
	room, err := roomOf(drawer)
	if err != nil {
		return nil, err
	}
	inside := room.Largest
	inside = Extent{inside.Width, inside.Length, min(inside.Height, narrowest(f.up)-drawer.Card-grid.Card)}
	box := &Box{
		Parts: append([]Part{drawer, around}, strips...), Shut: ByFriction, Fits: s.calendarFits(f),
		Room: Block(inside, r3.Add(first, r3.Vec{Z: drawer.Card.MM() / 2})),
	}
	box.Room.Part = "drawer"
	set := hand.Join{Uses: []string{"divider.long", "divider.cross", "frame"}, Said: hand.Say("frame-grid")}
	box.Together = []hand.Move{set, hand.Fill{Into: "drawer", Said: hand.Say("fill-drawers")}, hand.Shut{Uses: []string{"drawer"}, Said: hand.Say("slide-drawers")}}
	return box, nil
}

// stood is how a frame that was made on its back stands: its length across, its opening to the front.
func (f frame) stood() pattern.Pose {
	up, round := r3.NewRotation(math.Pi/2, r3.Vec{X: 1}), r3.NewRotation(math.Pi/2, r3.Vec{Z: 1})
	return pattern.Pose{Turn: r3.Rotation(quat.Mul(quat.Number(round), quat.Number(up))), Shift: r3.Vec{X: -f.deep.MM() / 2, Z: f.high.MM() / 2}}.Then(frontwards)
}

// walls are the middles of what parts an inside into cells, from its own middle: the strips, where
// they are slotted, and as a card's middle at both ends the frame.
func (d Dividers) walls(cells []measure.Length, span measure.Length) []measure.Length {
	out := []measure.Length{-(span + d.Card) / 2}
	for _, at := range d.middles(cells, span) {
		out = append(out, at-StripLength(span, d.Tick)/2)
	}
	return append(out, (span+d.Card)/2)
}

// narrowest is the least from one of the walls to the next.
func narrowest(walls []measure.Length) measure.Length {
	least := walls[1] - walls[0]
	for i := range len(walls) - 1 {
		least = min(least, walls[i+1]-walls[i])
	}
	return least
}

// place puts the drawers into the cells, from the lowest left one on; it says where the first one's
// floor lies.
func (f frame) place(drawer *Part, strip measure.Length) (r3.Vec, error) {
	foot := (drawer.Card + strip) / 2
	for r := range f.rows {
		for c := range f.columns {
			at := r3.Vec{Y: ((f.across[c] + f.across[c+1]) / 2).MM(), Z: (f.high/2 + f.up[r] + foot).MM()}
			if err := drawer.place(at); err != nil {
				return r3.Vec{}, err
			}
		}
	}
	return r3.Vec{X: ((f.across[0] + f.across[1]) / 2).MM(), Z: (f.high/2 + f.up[0] + foot).MM()}, nil
}

// calendarFits are the gaps of a drawer in its cell: between strips, and under the one above.
func (s Spec) calendarFits(f frame) []fit.Pair {
	pair := fit.Pair{Kind: fit.SleeveRound, Outer: "divider.long", Inner: "drawer", OuterName: "Narrowest cell", InnerName: "Drawer", OuterCard: s.Card("divider.long"), InnerCard: s.Card("drawer"), OuterIs: "between the middles of two strips"}
	across, up := pair, pair
	across.Axis, across.OuterSpan, across.InnerSpan = "width", narrowest(f.across), s.Size(calendarWidth)
	up.Axis, up.OuterSpan, up.InnerSpan = "height", narrowest(f.up), s.Size(calendarHeight)
	return []fit.Pair{across, up}
}
