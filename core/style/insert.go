package style

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
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
}

// LeastBridge is the narrowest card left between holes that does not tear.
const LeastBridge = 3 * measure.Millimetre

// Part makes the piece. Its skirts fold down, away from the outside.
func (f Floor) Part() (Part, error) {
	g := pattern.NewGrid([]measure.Length{f.Skirts, f.Length, f.Skirts}, []measure.Length{f.Skirts, f.Width, f.Skirts}, `
		.     back   .
		left  floor  right
		.     front  .`)
	g.Role(pattern.Panel, "floor")
	flat, err := g.Pattern()
	if err != nil {
		return Part{}, err
	}
	for _, h := range f.Holes {
		mid := pattern.Pt((f.Skirts + h.X).MM(), (f.Skirts + h.Y).MM())
		loop := pattern.Circle(mid, h.Length.MM()/2)
		if h.Width > 0 {
			x, y := h.Length.MM()/2, h.Width.MM()/2
			loop = pattern.Straight(mid.Add(pattern.Pt(-x, -y)), mid.Add(pattern.Pt(x, -y)), mid.Add(pattern.Pt(x, y)), mid.Add(pattern.Pt(-x, y)))
		}
		flat.Holes = append(flat.Holes, loop)
		flat.Openings = append(flat.Openings, pattern.Opening{Kind: "hole", Face: "floor", Loop: loop})
	}
	for i, m := range flat.Marks {
		if m.Name == "floor" { // its middle may be a hole
			flat.Marks[i].At = pattern.Pt(f.Skirts.MM()+1, f.Skirts.MM()+1)
		}
	}
	p := Part{ID: f.ID, Name: f.Name, Pattern: flat, Root: "floor", Opens: Downwards, Folding: "Fold the four skirts down, away from the outside."}
	p.Places = []pattern.Pose{{Turn: r3.NewRotation(0, r3.Vec{X: 1}), Shift: r3.Vec{
		X: -flat.Width.MM() / 2, Y: flat.Height.MM() / 2, Z: f.Skirts.MM(),
	}}}
	if len(f.Holes) > 0 {
		p.Removing = "Cut the corners away with scissors, and the holes with a knife and rule or a circle cutter on a mat, before folding."
	}
	return p, nil
}

// Stiffener is a flat card laid on the floor.
func Stiffener(length, width, card measure.Length) Part {
	p := Part{ID: "stiffener", Name: "Stiffener", Root: "stiffener", Opens: Upwards, Pattern: &pattern.Pattern{
		Width: length, Height: width,
		Outline: pattern.Straight(pattern.Pt(0, 0), pattern.Pt(length.MM(), 0), pattern.Pt(length.MM(), width.MM()), pattern.Pt(0, width.MM())),
		Marks:   []pattern.Mark{{Name: "stiffener", Role: pattern.Panel, At: pattern.Pt(length.MM()/2, width.MM()/2)}},
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
	g.Fold("front", "end", 90, pattern.Towards)
	flat, err := g.Pattern()
	if err != nil {
		return Part{}, err
	}
	for i := range flat.Marks {
		flat.Marks[i].Up = pattern.Pt(0, -1)
	}
	p := Part{ID: "liner", Name: "Liner half", Pattern: flat, Root: "front", Opens: Upright, Count: 2,
		Folding: "Fold the score towards the outside, which will face the inside of the box."}
	one := pattern.Pose{
		Turn:  r3.NewRotation(math.Pi/2, r3.Vec{X: 1}),
		Shift: r3.Vec{X: -length.MM() / 2, Y: width.MM() / 2, Z: height.MM()},
	}
	about := pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{Z: 1})}
	p.Places = []pattern.Pose{one, one.Then(about)}
	return p, nil
}

// CellTray is a small open tray that stands inside a box and makes one cell;
// count of them, each at its place by its middle from the inside's.
func CellTray(id, name string, length, width, height, card measure.Length, s Spec, middles [][2]measure.Length) (Part, error) {
	t := trayShape{
		id: id, name: name, panel: "floor", opens: Upwards, length: length, width: width, height: height,
		corners: "slim", adhesive: s.Choices["adhesive"], tick: s.Tick,
	}
	p, err := t.part()
	if err != nil {
		return Part{}, err
	}
	p.Count = len(middles)
	for _, m := range middles {
		place := flatOnFloor(p.Pattern, card)
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

var insert = &Style{
	ID: "insert", Name: "False floor", About: "A floor with holes on four folded skirts, to hold things in place; without holes a riser", Inner: true,
	Parameters: []Parameter{
		{ID: "length", Label: "Inside length", Default: 6 * measure.Inch, Min: 20 * mm, Max: 290 * mm, About: "the clear inside of the box, left to right"},
		{ID: "width", Label: "Inside width", Default: 4 * measure.Inch, Min: 20 * mm, Max: 290 * mm, About: "the clear inside of the box, front to back"},
		{ID: "height", Label: "Skirts", Default: measure.Inch, Min: 6 * mm, Max: 120 * mm, About: "how high the floor stands"},
	},
	Options: []Option{
		{ID: "gap", Label: "Gap", Kind: LengthKind, Default: measure.Millimetre, Min: 0, Max: 10 * mm, About: "how much smaller than the inside it is, both sides together"},
		{ID: "holes", Label: "Holes", Kind: ChoiceKind, Choices: []string{"round", "square", "slot", "none"}, DefaultChoice: "round", About: "round for jars, square for blocks, a slot for a card"},
		{ID: "hole", Label: "Hole size", Kind: LengthKind, Default: 3 * measure.Inch / 2, Min: 3 * mm, Max: 280 * mm, About: "across a round one; the sides of a square one; the length of a slot"},
		{ID: "slot", Label: "Slot width", Kind: LengthKind, Default: measure.Inch / 8, Min: mm, Max: 50 * mm, About: "of a slot only"},
		countOption("columns", "Holes along the length", "3"),
		countOption("rows", "Holes across the width", "2"),
	},
	Axes: [3]string{"length", "width", "height"},
	Build: func(s Spec) (*Box, error) {
		inside := Extent{s.Lengths["length"], s.Lengths["width"], s.Lengths["height"]}
		t := s.Card("insert")
		f := Floor{ID: "insert", Name: "Insert", Skirts: inside.Height,
			Length: inside.Length - t - s.Lengths["gap"], Width: inside.Width - t - s.Lengths["gap"]}
		columns, rows := s.count("columns"), s.count("rows")
		if s.Choices["holes"] == "none" {
			columns = 0
		}
		h := Hole{Length: s.Lengths["hole"]}
		switch s.Choices["holes"] {
		case "square":
			h.Width = h.Length
		case "slot":
			h.Width = s.Lengths["slot"]
		}
		stepX, stepY := f.Length/measure.Length(max(1, columns)), f.Width/measure.Length(rows)
		if deep := max(h.Width, h.Length*map[bool]measure.Length{true: 1}[h.Width == 0]); columns > 0 && (h.Length > stepX-LeastBridge || deep > stepY-LeastBridge) {
			return nil, fault.New("no-room", "options.hole", "%d × %d holes of %s leave less than 3 mm of card between them; make them smaller or fewer", columns, rows, s.show(h.Length))
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
		return &Box{Parts: []Part{p}, Assembly: []string{"Set the floor into the box on its skirts."},
			Extents: func() (Extent, Extent, error) { return inside, inside, nil }}, nil
	},
}
