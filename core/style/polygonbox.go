package style

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	polygonSide = &Parameter{
		ID:      "side",
		Label:   "Side",
		Default: 2 * measure.Inch,
		Min:     15 * mm,
		Max:     150 * mm,
		About:   "One side of the floor, between folds",
	}
	polygonSides = &Option{
		ID:            "sides",
		Label:         "Sides",
		Kind:          ChoiceKind,
		Choices:       []string{"3", "4", "5", "6", "7", "8"},
		DefaultChoice: "6",
		About:         "How many sides the floor has",
	}
)

var polygonBox = &Style{
	ID: "polygon-box", Name: "Many-sided box", About: "A base and a lift-off lid with three to eight equal sides",
	For:   []Use{ForGifts, ForFavours},
	Suits: []string{"bauble", "truffle", "candle"},
	Opens: "the lid lifts off", Strength: "good; strong with double walls",
	Parameters: []*Parameter{polygonSide, height},
	Untold:     true,
	Options:    []*Option{polygonSides, lidDepth, lidAllowance, baseWalls, lidWalls, adhesive},
	Axes:       [3]*Parameter{polygonSide, polygonSide, height},
	Allowance:  lidAllowance,
	Build:      buildPolygonBox,
}

func buildPolygonBox(s Spec) (*Box, error) {
	n, err := strconv.Atoi(s.Choice(polygonSides))
	if err != nil {
		return nil, fault.New(fault.UnknownChoice, "options.sides", "a box has three to eight sides: %w", err)
	}
	side, high, deep := s.Size(polygonSide), s.Size(height), s.Length(lidDepth)
	s.most(lidDepth.limited(), high, deeperLid)
	// The flats of the lid stand apart by the allowance more; its side is what
	// gives that, rounded up on the ruler, which is twice as fine as the board.
	half := math.Pi / float64(n)
	over := measure.Up(side+measure.FromMM(s.Length(lidAllowance).MM()*math.Tan(half)), s.cutting())
	base, err := s.polygonTray(
		polygonShape{
			id:     "base",
			name:   "Base",
			panel:  "base",
			opens:  Upwards,
			sides:  n,
			side:   side,
			high:   high,
			double: s.Choice(baseWalls) == "double",
		},
	)
	if err != nil {
		return nil, err
	}
	lid, err := s.polygonTray(
		polygonShape{
			id:     "lid",
			name:   "Lid",
			panel:  "top",
			opens:  Downwards,
			sides:  n,
			side:   over,
			high:   deep,
			double: s.Choice(lidWalls) == "double",
		},
	)
	if err != nil {
		return nil, err
	}
	rim := high
	if s.Choice(baseWalls) == "double" { // a rolled rim stands half a card above its fold
		rim += s.Card("base") / 2
	}
	lid.lidOver(rim, deep, s.Card("lid"))
	flats := func(side measure.Length) measure.Length { return measure.FromMM(side.MM() / math.Tan(half)) }
	layers, what := 2, "tabs"
	if s.Choice(lidWalls) == "double" {
		layers, what = 4, "tabs and second wall"
	}
	pair := fit.Pair{
		Kind:        fit.LidOn,
		Outer:       "lid",
		Inner:       "base",
		OuterName:   "Lid",
		InnerName:   "Base",
		OuterCard:   s.Card("lid"),
		InnerCard:   s.Card("base"),
		OuterDepth:  deep,
		InnerDepth:  high,
		Axis:        "flats",
		OuterSpan:   flats(over),
		InnerSpan:   flats(side),
		OuterIs:     "flat to flat",
		InnerIs:     "flat to flat",
		OuterLayers: layers,
		OuterWhat:   what,
	}
	// Inside, every wall is nearer to the middle by its layers.
	in := 2
	if s.Choice(baseWalls) == "double" {
		in = 4
	}
	t := s.Card("base")
	clear := (flats(side) - t*measure.Length(1+in)).MM() / 2
	room := prism(n, clear, high-t/2)
	// The table's middle is that of the floor's bounds; with an odd number of
	// sides the floor's own lies beside it.
	lo, hi := pattern.Bounds(regular(n, side.MM()))
	room.At = r3.Vec{Y: -(lo.Y + hi.Y) / 2, Z: t.MM() / 2}
	return &Box{Parts: []Part{base, lid}, Doubled: s.Choice(baseWalls) == "double", Fits: []fit.Pair{pair}, Room: room,
		Shut:     ByFriction,
		Together: []hand.Move{hand.Fill{Into: "base"}, lowered("lid")}}, nil
}

// prism is a room on a regular floor of n sides, so far from its middle.
func prism(n int, clear float64, high measure.Length) Room {
	r := Room{Shape: fmt.Sprintf("a column of %d sides", n), Height: func(_, _ float64) float64 { return high.MM() }}
	r.Floor = regular(n, 2*clear*math.Tan(math.Pi/float64(n)))
	// The largest block: of every length the widest, on the tenth of a mm.
	best := 0.0
	for l := 0.1; l < 4*clear; l += 0.1 {
		w := widest(r.Floor, l)
		if l*w > best {
			best, r.Largest = l*w, Extent{
				measure.Down(measure.FromMM(l), measure.Tenth),
				measure.Down(measure.FromMM(w), measure.Tenth),
				high,
			}
		}
	}
	return r
}

// widest is how wide a rectangle so long may be, its middle on the floor's.
func widest(floor []pattern.Point, l float64) float64 {
	w := math.Inf(1)
	for i, a := range floor {
		d := floor[(i+1)%len(floor)].Sub(a)
		out := pattern.Pt(d.Y, -d.X).Scale(1 / d.Len())
		left := out.Dot(a) - math.Abs(out.X)*l/2
		if math.Abs(out.Y) < square {
			if left < 0 {
				return 0
			}
			continue
		}
		w = min(w, 2*left/math.Abs(out.Y))
	}
	return max(0, w)
}

// regular gives the corners of a polygon of n equal sides around the origin,
// clockwise as seen, its first edge at the bottom.
func regular(n int, side float64) []pattern.Point {
	half := math.Pi / float64(n)
	var out []pattern.Point
	for k := range n {
		sin, cos := math.Sincos(math.Pi/2 - half + 2*half*float64(k))
		out = append(out, pattern.Pt(cos, sin).Scale(side/2/math.Sin(half)))
	}
	return out
}

// polygonShape is a tray with so many equal sides, score to score; double
// walls roll over.
type polygonShape struct {
	id, name, panel string
	opens           Facing
	sides           int
	side, high      measure.Length
	double          bool
}

// polygonTray is a floor of n sides with a wall on each; each wall carries one
// tab that goes inside the wall before it, and a second wall when double.
func (s Spec) polygonTray(t polygonShape) (Part, error) {
	n, side, high := t.sides, t.side, t.high
	turn := 360 / float64(n)
	b := pattern.NewBuilder()
	b.CutOn(s.cutting())
	corners := regular(n, side.MM())
	if t.opens == Downwards { // drawn the other way up, to lie over its base
		for i := range corners {
			corners[i] = corners[i].Scale(-1)
		}
	}
	floor := b.Polygon(t.panel, corners...)
	b.Role(pattern.Panel, floor)
	var around, tabs []*pattern.Leaf
	for i := range n {
		wall := b.Beside(
			floor,
			i,
			fmt.Sprint("wall.", i+1),
			pattern.Step{Turn: 90, Length: high.MM()},
			pattern.Step{Turn: 90, Length: side.MM()},
		)
		t.opens.Raise(b, floor, wall)
		around = append(around, wall)
		// The tab's lower edge keeps clear of the next wall, the more the more
		// sides there are; what it reaches is bounded by what that leaves.
		lower := min(85, turn-6) * math.Pi / 180
		reach := min(s.TabWidth().MM(), side.MM()*0.4, (high.MM()-3)*math.Tan(lower))
		tab := b.Beside(wall, 1, fmt.Sprint("tab.", i+1),
			pattern.Step{Turn: 180 - lower*180/math.Pi, Length: reach / math.Sin(lower)},
			pattern.Step{Turn: lower * 180 / math.Pi, Length: (high.MM() - reach/math.Tan(lower)) * 0.9})
		b.Role(pattern.Tab, tab)
		b.Call(tab, fmt.Sprint("tab of wall ", i+1))
		b.Fold(wall, tab, turn, pattern.Away)
		tabs = append(tabs, tab)
		if t.double {
			sliver := sliver.MM()
			lining := b.Beside(
				wall,
				2,
				fmt.Sprint("lining.", i+1),
				pattern.Step{Turn: 90 + math.Atan(sliver/high.MM())*180/math.Pi, Length: math.Hypot(high.MM(), sliver)},
				pattern.Step{Turn: 90 - math.Atan(sliver/high.MM())*180/math.Pi, Length: side.MM() - 2*sliver},
			)
			b.Role(pattern.Lining, lining)
			b.Call(lining, fmt.Sprint("second wall of wall ", i+1))
			b.Fold(wall, lining, 180, pattern.Away)
			b.Glue(lining, false, wall)
		}
	}
	for i, tab := range tabs {
		b.Glue(tab, true, around[(i+n-1)%n])
	}
	p, err := b.Pattern()
	if err != nil {
		return Part{}, err
	}
	part := Part{ID: t.id, Name: t.name, Pattern: p, Root: t.panel, Opens: t.opens}
	if t.double {
	}
	part.Making = told(func() []hand.Move { return s.polygonMaking(p, t) })
	return part, nil
}

// polygonMaking is how a hand makes it, round a template.
func (s Spec) polygonMaking(p *pattern.Pattern, t polygonShape) []hand.Move {
	m := s.make(p)
	n := map[string]int{"count": t.sides}
	counted := func(key string) hand.Said { return hand.Said{Key: key, Counts: n} }
	begins := func(with string) func(string) bool {
		return func(name string) bool { return strings.HasPrefix(name, with) }
	}
	between := func(a, b string) []pattern.Segment {
		out, err := p.Between(begins(a), begins(b))
		if err != nil {
			return nil // a piece without faces is refused where it is folded
		}
		return out
	}
	m.do(hand.Template{Pattern: p, Said: hand.Say("template")})
	m.do(hand.Mark{Said: hand.Say("template-round")})
	m.do(hand.ScoreTraced{Lines: between("wall.", t.panel), Said: counted("template-floor")})
	m.do(hand.ScoreTraced{Lines: between("tab.", "wall."), Said: hand.Say("template-tabs")})
	if t.double {
		m.do(hand.ScoreTraced{Lines: between("lining.", "wall."), Said: hand.Say("template-linings")})
	}
	m.do(hand.CutTraced{Said: counted("template-cut")})
	m.do(hand.FoldAll{})
	if t.double {
		m.do(hand.FoldWays{Flat: m.creases(overFlat), Said: hand.Said{Key: "fold-over-outer-strip", Counts: n}})
	}
	var tabs, onto, linings, walls []string
	for i := range t.sides {
		tabs, onto = append(tabs, fmt.Sprint("tab.", i+1)), append(onto, fmt.Sprint("wall.", (i+t.sides-1)%t.sides+1))
		linings, walls = append(linings, fmt.Sprint("lining.", i+1)), append(walls, fmt.Sprint("wall.", i+1))
	}
	m.stick(hand.Stick{Way: hand.InTurn, What: m.parts("tab", nil, tabs...), Onto: m.parts("wall", nil, onto...), Outside: true})
	if t.double {
		m.stick(hand.Stick{Way: hand.OverAll, What: m.parts("outer-strip", nil, linings...), Onto: m.parts("wall", nil, walls...)})
	}
	return m.moves
}
