package style

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	basketLength = &Parameter{
		ID: "length", Label: "Length", Default: 2 * measure.Inch, Min: 24 * mm, Max: 200 * mm,
		About: "L: the floor, from end to end",
	}
	basketWidth = &Parameter{
		ID: "width", Label: "Width", Default: 2 * measure.Inch, Min: 24 * mm, Max: 200 * mm,
		About: "W: the floor, from side to side",
	}
	basketSide = &Parameter{
		ID: "side", Label: "Side walls", Default: 2 * measure.Inch, Min: 20 * mm, Max: 150 * mm,
		About: "S: how high the two sides are that the strips are laid on; the strips are as long",
	}
	basketEnd = &Parameter{
		ID: "end", Label: "End walls", Default: 2 * measure.Inch, Min: 20 * mm, Max: 150 * mm,
		About:   "E: how high the two ends are, which carry the strips; they bow out a little",
		Follows: func(s Spec) measure.Length { return s.Size(basketSide) },
	}
	basketHandle = &Parameter{
		ID: "handle", Label: "Handle", Default: 3 * quarterInch, Min: 0, Max: 50 * mm,
		About: "How wide the handle's strip is; 0 for none",
	}
	basketHandleLength = &Parameter{
		ID: "handle.length", Label: "Handle's length", Default: 6 * measure.Inch, Min: 60 * mm, Max: 700 * mm,
		About:   "From end to end; as long as the basket's card when you leave it out",
		Only:    func(s Spec) bool { return s.Size(basketHandle) > 0 },
		Follows: func(s Spec) measure.Length { return s.Size(basketLength) + 2*s.Size(basketEnd) },
	}
	basketStrips = &Option{
		ID: "strips", Label: "Strips at each corner", Kind: ChoiceKind, Choices: []string{"2", "3", "4", "5", "6"}, DefaultChoice: "4",
		About: "How many strips each corner is cut into",
	}
	basketFan = &Option{
		ID: "fan", Label: "Fan", Kind: ChoiceKind, Choices: degrees(30), DefaultChoice: "25",
		About: "By how many degrees the lowest strip rises, so that the strips cross like a weave; 0 lays them level",
	}
	handleJoin = &Option{
		ID: "handle.join", Label: "Handle held by", Kind: ChoiceKind, Choices: []string{"glue", "brads"}, DefaultChoice: "glue",
		About: "Glued it is rigid; on two brads it swings",
	}
)

// degrees are the whole degrees from 0, as choices.
func degrees(most int) []string {
	var out []string
	for n := range most + 1 {
		out = append(out, fmt.Sprint(n))
	}
	return out
}

var wovenBasket = &Style{
	ID: "woven-basket", Name: "Woven basket", About: "A basket whose corners are cut into strips that cross like a weave",
	For:   []Use{ForShow},
	Suits: []string{"egg", "flower"},
	Opens: "it is open", Strength: "good: crossed strips on both sides",
	Weights:    map[string]float64{"": 200}, // its strips lie six deep
	Parameters: []*Parameter{basketLength, basketWidth, basketSide, basketEnd, basketHandle, basketHandleLength},
	Options:    []*Option{basketStrips, basketFan, handleJoin, adhesive},
	Axes:       [3]*Parameter{basketLength, basketWidth, basketSide},
	FromSheet:  inThirds, SheetWords: "is the sheet in thirds",
	Build: buildWovenBasket,
}

// inThirds makes the floor and the ends a third of a sheet's longer side, and
// the floor's width and the sides a third of the other.
func inThirds(width, height measure.Length, tick measure.Tick) map[string]measure.Length {
	long, short := measure.Down(max(width, height)/3, tick), measure.Down(min(width, height)/3, tick)
	return map[string]measure.Length{basketLength.ID: long, basketEnd.ID: long, basketWidth.ID: short, basketSide.ID: short}
}

// weave is one corner's strips as they lie on a side wall: heights and reach
// in mm from the wall's lower corner, k = 1 nearest the floor.
type weave struct {
	wide []measure.Length // each strip's width
	lean []float64        // how far each rises, and its band leans out, in radians
	x, y []float64        // where the bands end, from the floor up; x is inwards
	long float64
}

// woven lays n strips out, each leaning fan·(n − k)/(n − 1) degrees.
func (s Spec) woven() weave {
	n, end := s.count(basketStrips), s.Size(basketEnd)
	w := weave{x: []float64{0}, y: []float64{0}, long: s.Size(basketSide).MM()}
	fan := float64(s.count(basketFan)) * math.Pi / 180
	cut := func(k int) measure.Length {
		return measure.Nearest(end*measure.Length(k)/measure.Length(n), s.cutting())
	}
	for k := range n {
		w.wide = append(w.wide, cut(n-k)-cut(n-k-1))
		w.lean = append(w.lean, fan*float64(n-1-k)/float64(n-1))
		sin, cos := math.Sincos(w.lean[k])
		w.x, w.y = append(w.x, w.x[k]-w.wide[k].MM()*sin), append(w.y, w.y[k]+w.wide[k].MM()*cos)
	}
	return w
}

// reach is how far in the shorter edge of the least strip comes, in mm.
func (w weave) reach() float64 {
	least := math.Inf(1)
	for k, a := range w.lean {
		least = min(least, w.x[k+1]+w.long*math.Cos(a))
	}
	return least
}

// leastCross is how far past the middle of its side every strip must come.
const leastCross = 3 * measure.Millimetre

func buildWovenBasket(s Spec) (*Box, error) {
	l, w, side, end := s.Size(basketLength), s.Size(basketWidth), s.Size(basketSide), s.Size(basketEnd)
	if err := s.atMost(basketSide, l, "or the strips reach past the other end"); err != nil {
		return nil, err
	}
	strips := s.woven()
	if most := measure.Down(2*(measure.FromMM(strips.reach())-leastCross), s.Tick); l > most {
		return nil, outOfRange("size.length", "the length can be at most %s, or the ends do not meet: take fewer strips, less fan or higher sides", s.show(max(0, most)))
	}
	// The top strip must lie on the wall with a third of its width.
	n := len(strips.wide)
	if top := strips.y[n-1] + strips.wide[n-1].MM()/3; top > side.MM() {
		most := measure.Down(measure.FromMM(end.MM()*side.MM()/top), s.Tick)
		return nil, outOfRange("size.end", "the end walls can be at most %s, or their top strips stand clear of the sides", s.show(most))
	}
	body, grid, err := s.basket(strips)
	if err != nil {
		return nil, err
	}
	t := body.Card
	rim := measure.FromMM(strips.y[n])
	room := Block(Extent{Length: l - t, Width: w - t, Height: min(side, rim) - t/2}, r3.Vec{Z: t.MM() / 2})
	box := &Box{Parts: []Part{body}, Room: room}
	if s.Size(basketHandle) > 0 {
		handle, err := s.handle(grid)
		if err != nil {
			return nil, err
		}
		box.Parts = append(box.Parts, handle)
		if s.Choice(handleJoin) == "brads" {
			box.Brads = 2
		}
		box.Together = s.handleOn()
	} else {
		box.Together = []hand.Move{hand.Fill{Into: "body"}}
	}
	return box, nil
}

// basket is the basket's piece: floor, sides, ends in as many bands as there
// are strips, and the strips on them.
func (s Spec) basket(strips weave) (Part, *pattern.Grid, error) {
	l, w, side := s.Size(basketLength), s.Size(basketWidth), s.Size(basketSide)
	n := len(strips.wide)
	level := strips.lean[0] == 0
	band := func(end string, k int) string {
		if level {
			return end
		}
		return fmt.Sprint(end, ".", k+1)
	}
	strip := func(side, end string, k int) string { return fmt.Sprint(side, ".", end, ".", k+1) }
	columns := make([]measure.Length, 2*n+1)
	rows := [3][]string{make([]string, 2*n+1), make([]string, 2*n+1), make([]string, 2*n+1)}
	columns[n] = l
	rows[0][n], rows[1][n], rows[2][n] = "back", "base", "front"
	for k, wide := range strips.wide {
		for end, at := range map[string]int{"left": n - 1 - k, "right": n + 1 + k} {
			columns[at] = wide
			rows[0][at], rows[1][at], rows[2][at] = strip("back", end, k), band(end, k), strip("front", end, k)
		}
	}
	var picture []string
	for _, r := range rows {
		picture = append(picture, strings.Join(r, " "))
	}
	g := s.grid(columns, []measure.Length{side, w, side}, strings.Join(picture, "\n"))
	base := g.Face("base")
	g.Role(pattern.Panel, base)
	bend := float64(s.count(basketFan)) / float64(n-1)
	for _, end := range []string{"left", "right"} {
		lowest := g.Face(band(end, 0))
		g.Up(base, lowest)
		g.Call(lowest, end+" end wall")
		if level {
			continue
		}
		g.Fold(base, lowest, 90-strips.lean[0]*180/math.Pi, pattern.Away)
		g.Call(lowest, end+" end wall's lowest band")
		for k := 1; k < n; k++ {
			g.Call(g.Face(band(end, k)), fmt.Sprintf("%s end wall's band %d", end, k+1))
			g.Up(g.Face(band(end, k-1)), g.Face(band(end, k)))
			g.Roll(g.Face(band(end, k-1)), g.Face(band(end, k)), bend, pattern.Away)
		}
	}
	for _, wall := range []string{"back", "front"} {
		onto := g.Face(wall)
		g.Call(onto, wall+" side wall")
		g.Up(base, onto)
		for k := range n {
			for _, end := range []string{"left", "right"} { // left, right, left, right, from the floor
				one := g.Face(strip(wall, end, k))
				g.Call(one, fmt.Sprintf("%s %s strip %d", wall, end, k+1))
				g.Upwards(pattern.Pt(map[string]float64{"left": -1, "right": 1}[end], 0), one)
				g.Over(one, onto)
				if k == 0 {
					g.Slit(one, onto)
				} else {
					g.Slit(one, g.Face(strip(wall, end, k-1)))
				}
			}
		}
	}
	p, err := g.Pattern()
	if err != nil {
		return Part{}, nil, err
	}
	tip := min(tapeWide, side/3)
	for i := range p.Glue { // the tips are glued, where all of them cross the wall
		free, inner := pattern.Point{}, pattern.Point{}
		lo, hi := pattern.Bounds(p.Glue[i].Area)
		if free, inner = lo, pattern.Pt(hi.X, lo.Y+tip.MM()); lo.Y > 0 {
			free, inner = pattern.Pt(lo.X, hi.Y-tip.MM()), hi
		}
		p.Glue[i].Area = []pattern.Point{free, pattern.Pt(inner.X, free.Y), inner, pattern.Pt(free.X, inner.Y)}
	}
	return Part{
		ID: "body", Name: "Basket", Pattern: p, Root: "base", Opens: Upwards, Card: s.Card("body"), Making: told(func() []hand.Move { return s.weaveMaking(p, strips, tip) }),
	}, g, nil
}

// tapeWide is double-sided tape as it is sold, and as the supplies list it.
const tapeWide = 12 * mm

// handleFlats is how many flats stand for the bend of a handle.
const handleFlats = 12

// handleOverlap is how far the handle's ends lie on the sides.
func (s Spec) handleOverlap() measure.Length { return min(s.Size(basketHandle), s.Size(basketSide)) }

// handle is a strip from side to side in an arch.
func (s Spec) handle(body *pattern.Grid) (Part, error) {
	w, wide, long := s.Size(basketWidth), s.Size(basketHandle), s.Size(basketHandleLength)
	if wide < 6*mm {
		return Part{}, outOfRange("size.handle", "a handle is at least %s wide; 0 leaves it out", s.show(6*mm))
	}
	if err := s.atMost(basketHandle, s.Size(basketLength), "it would be wider than the basket is long"); err != nil {
		return Part{}, err
	}
	over := s.handleOverlap()
	flat := measure.FromMM(w.MM() * math.Sin(math.Pi/2/handleFlats))
	arch := handleFlats * flat
	if least := measure.Up(arch+2*over, s.Tick); long < least {
		return Part{}, outOfRange("size.handle.length", "the handle must be at least %s long, to reach over the basket and lie %s on each side", s.show(least), s.show(over))
	}
	rows, names := []measure.Length{(long - arch) / 2}, []string{"first"}
	for k := range handleFlats {
		rows, names = append(rows, flat), append(names, fmt.Sprint("bend.", k+1))
	}
	rows, names = append(rows, long-arch-(long-arch)/2), append(names, "second")
	g := s.grid([]measure.Length{wide}, rows, strings.Join(names, "\n"))
	all := g.All(names...)
	last := len(all) - 1
	g.Role(pattern.Bend, all[1:last]...)
	g.Call(all[0], "first end")
	g.Call(all[last], "second end")
	g.Upwards(pattern.Pt(0, 1), all[0])
	g.Upwards(pattern.Pt(0, -1), all[last])
	for k := range last {
		turn := 180.0 / handleFlats
		if k == 0 || k == last-1 {
			turn /= 2
		}
		g.Roll(all[k], all[k+1], turn, pattern.Away)
		if k > 0 {
			g.Call(all[k], fmt.Sprint("bend ", k))
		}
	}
	glued := s.Choice(handleJoin) == "glue"
	if glued {
		g.Elsewhere(all[0], false, "body", body.Face("back"), true)
		g.Elsewhere(all[last], false, "body", body.Face("front"), true)
	}
	p, err := g.Pattern()
	if err != nil {
		return Part{}, err
	}
	for i, ends := range [][2]measure.Length{{0, over}, {long - over, long}} {
		if glued {
			p.Glue[i].Area = []pattern.Point{pt(0, ends[0]), pt(wide, ends[0]), pt(wide, ends[1]), pt(0, ends[1])}
		}
	}
	return Part{
		ID: "handle", Name: "Handle", Handle: true, Pattern: p, Root: "first", Opens: Upright, Card: s.Card("handle"),
		At:     r3.Vec{Z: (s.Size(basketSide) - over).MM() + s.Card("body").MM()/2},
		Last:   true,
		Making: told(func() []hand.Move { return s.handleMaking(p) }),
	}, nil
}

// weaveMaking is how a hand makes the basket.
func (s Spec) weaveMaking(p *pattern.Pattern, strips weave, tip measure.Length) []hand.Move {
	side, end, n := s.Size(basketSide), p.Scores.Vertical[0], len(strips.wide)
	wide, high := p.Width, p.Height
	m := s.make(p)
	if side == end {
		m.scoreFour(0, side)
	} else {
		m.scores()
	}
	m.do(hand.Mark{Said: hand.Say("weave-names"), Calls: []hand.Call{
		{Name: "end", At: pt(end/2, high/2)}, {Name: "end", At: pt(wide-end/2, high/2)}, {Name: "side", At: pt(wide/2, side/2)}, {Name: "side", At: pt(wide/2, high-side/2)},
	}})
	var at []measure.Length // where strips are parted, from the left and the right edge
	x := measure.Length(0)
	for k := n - 1; k > 0; k-- {
		x += strips.wide[k]
		at = append(at, x)
	}
	var marks, cuts []pattern.Segment
	for i, x := range append(slices.Clone(at), end) {
		for _, x := range []measure.Length{x, wide - x} {
			ends := []pattern.Segment{{A: pt(x, 0), B: pt(x, side)}, {A: pt(x, high), B: pt(x, high-side)}}
			if cuts = append(cuts, ends...); i < len(at) {
				marks = append(marks, ends...)
			}
		}
	}
	m.do(hand.Mark{Lines: marks, Said: said("weave-marks", one("at", at...))})
	m.do(weaveTape(p, end, measure.Down(tip, s.cutting())))
	m.do(hand.Snip{Cuts: cuts, Said: hand.Said{Key: "weave-cuts", Counts: map[string]int{"count": n}}})
	m.do(hand.FoldAll{})
	if strips.lean[0] > 0 {
		m.do(hand.Bend{Said: hand.Say("weave-bend")})
	}
	stick := hand.Stick{Way: hand.Weave, OntoOutside: true}
	var what, onto []string
	for _, wall := range []string{"back", "front"} {
		for k := range n {
			for _, end := range []string{"left", "right"} {
				what, onto = append(what, fmt.Sprint(wall, ".", end, ".", k+1)), append(onto, wall)
			}
		}
	}
	stick.What, stick.Onto = m.parts("strip", nil, what...), m.parts("wall", nil, onto...)
	m.stick(stick)
	return m.moves
}

// weaveTape is the tape along both edges of the corner squares, on what will be the strips' ends.
func weaveTape(p *pattern.Pattern, end, tape measure.Length) hand.LayTape {
	m := hand.LayTape{Said: said("weave-tape", one("at", tape))}
	for _, x := range []measure.Length{0, p.Width - end} {
		for _, y := range []measure.Length{0, p.Height - tape} {
			m.Strips = append(m.Strips, []pattern.Point{pt(x, y), pt(x+end, y), pt(x+end, y+tape), pt(x, y+tape)})
		}
	}
	return m
}

// handleMaking is how a hand makes the handle.
func (s Spec) handleMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.do(hand.Bend{Said: hand.Say("bend-handle")})
	return m.moves
}

// handleOn is how the handle is put on, and the basket filled.
func (s Spec) handleOn() []hand.Move {
	at := one("at", s.handleOverlap())
	fill := hand.Fill{Into: "body", Said: hand.Say("fill-beside")}
	if s.Choice(handleJoin) == "brads" {
		return []hand.Move{hand.Join{Uses: []string{"handle", "body"}, Said: said("handle-held", at)}, hand.Join{Said: hand.Say("handle-brads")}, fill}
	}
	return []hand.Move{hand.Join{Bonds: bonds("handle", "first", "body", "handle", "second", "body"), Said: said("handle-on", at)}, fill}
}
