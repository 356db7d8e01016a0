package dress

import (
	"fmt"
	"math"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// Cover is paper that covers a whole tray or lid: its panel, its walls, and over
// the rim to the inside.
type Cover struct {
	ID      int
	Piece   string
	Card    paper.Card
	TurnIn  measure.Length
	Corners CoverCorner
}

// CoverCorner is how the paper of two walls comes together at a corner.
type CoverCorner string

// Lapped walls each carry a flap that goes round the corner under the next one;
// meeting ones are cut so that they come edge to edge.
const (
	LappedCorners  CoverCorner = "lapped"
	MeetingCorners CoverCorner = "meeting"
)

// CoverCorners lists them in the order they are offered.
var CoverCorners = []CoverCorner{LappedCorners, MeetingCorners}

// coverLap is how far a flap goes round a corner.
const coverLap = 10 * measure.Millimetre

// Limits of the turned-in edge.
const (
	leastTurnIn = 6 * measure.Millimetre
	mostTurnIn  = 40 * measure.Millimetre
)

// PieceID is what the covering is called among the pieces of its box.
func (c Cover) PieceID() string { return fmt.Sprintf("cover-%d", c.ID) }

// Layers is how many layers of paper stand on the outside of each wall: one more
// where a flap laps.
func (c Cover) Layers() int {
	if c.Corners == MeetingCorners {
		return 1
	}
	return 2
}

// Outside is what the covering adds to one wall's outside, and Inside to its
// inside near the rim, where the edge is turned in.
func (c Cover) Outside() measure.Length { return measure.Length(c.Layers()) * c.Card.Thickness }
func (c Cover) Inside() measure.Length  { return c.Card.Thickness }

// Tray is what a covering needs to know of the piece: the sides of its panel and
// the height of its walls between folds, and its card.
type Tray struct{ Length, Width, Height, Card measure.Length }

// TrayOf finds them: a piece with one square panel and four walls of one height
// beside it, all upright.
func TrayOf(faces []pattern.Face, card measure.Length) (Tray, bool) {
	var panel *pattern.Face
	walls := 0
	t := Tray{Card: card}
	for i := range faces {
		f := &faces[i]
		along, up := f.Frame().Size(f.Polygon)
		switch {
		case f.Role == pattern.Panel && panel == nil:
			panel = f
			if len(f.Polygon) != 4 || math.Abs(f.Area()-along*up) > 1 {
				return t, false
			}
		case f.Role == pattern.Panel:
			return t, false
		case f.Role == pattern.Wall:
			high := measure.FromMM(up)
			if walls > 0 && (high-t.Height).Abs() > 10*measure.Micrometre || f.Area() < 0.98*along*up {
				return t, false
			}
			t.Height = high
			walls++
		case f.Role == pattern.Flap:
			return t, false
		}
	}
	if panel == nil || walls != 4 {
		return t, false
	}
	lo, hi := pattern.Bounds(panel.Polygon)
	t.Length, t.Width = measure.FromMM(hi.X-lo.X), measure.FromMM(hi.Y-lo.Y)
	return t, true
}

// Pattern is the covering flat: the panel as it is outside, the walls, the flaps
// round the corners and the edges that are turned in, mitred at their ends. Its
// lines are on the board's tick, all else is on the ruler's; the rim's own card is
// taken from the turned-in edge.
func (c Cover) Pattern(t Tray, board measure.Tick) (*pattern.Pattern, error) {
	ruler := board.Ruler()
	if c.TurnIn < leastTurnIn || c.TurnIn > mostTurnIn {
		return nil, fault.New(fault.OutOfRange, "turn_in", "the edge that is turned in can be 6 to 40 mm wide")
	}
	wall, turn := measure.Up(t.Height, ruler), measure.Up(c.TurnIn, board)
	if turn > wall {
		return nil, fault.New(fault.OutOfRange, "turn_in", "the walls are too low for so wide an edge to be turned in")
	}
	long, wide := measure.Up(t.Length+t.Card, ruler), measure.Up(t.Width+t.Card, ruler)
	lap := measure.Up(min(coverLap, wall/2, long/4, wide/4), ruler)
	columns := []measure.Length{turn, wall - lap, lap, long, lap, wall - lap, turn}
	rows := []measure.Length{turn, wall - lap, lap, wide, lap, wall - lap, turn}
	picture := `
		.      .     .       in.back   .        .       .
		.      .     .       back      lap.back .       .
		.      lap.left lap.left back  lap.back .       .
		in.left left left    panel     right    right   in.right
		.      .     lap.front front   lap.right lap.right .
		.      .     lap.front front   .        .       .
		.      .     .       in.front  .        .       .`
	if c.Corners == MeetingCorners {
		columns = []measure.Length{turn, wall, long, wall, turn}
		rows = []measure.Length{turn, wall, wide, wall, turn}
		picture = `
		.       .     in.back  .     .
		.       .     back     .     .
		in.left left  panel    right in.right
		.       .     front    .     .
		.       .     in.front .     .`
	}
	g := pattern.NewGrid(columns, rows, picture)
	panel := g.Face("panel")
	g.Role(pattern.Panel, panel)
	for _, side := range []string{"back", "right", "front", "left"} {
		w, in := g.Face(side), g.Face("in."+side)
		g.Up(panel, w)
		g.Call(w, side+" wall")
		g.Role(pattern.Tab, in)
		g.Call(in, "turned-in edge of the "+side+" wall")
		g.Tab(in, w, turn, turn)
	}
	if c.Corners != MeetingCorners {
		for _, pair := range [][2]string{{"back", "right"}, {"right", "front"}, {"front", "left"}, {"left", "back"}} {
			lap := g.Face("lap." + pair[0])
			g.Role(pattern.Tab, lap)
			g.Call(lap, "flap of the "+pair[0]+" wall")
			g.Slit(lap, g.Face(pair[1]))
		}
	}
	return g.Pattern()
}
