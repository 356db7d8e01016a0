package style

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	pyramidSide = &Parameter{
		ID: "side", Label: "Side", Default: 5 * measure.Inch / 2, Min: 20 * mm, Max: 200 * mm,
		About: "a: one side of the floor, between folds",
	}
	pyramidSlant = &Parameter{
		ID: "slant", Label: "Slant", Default: 3 * measure.Inch, Min: 20 * mm, Max: 300 * mm,
		About:   "s: from the middle of a floor's side up to the tip, along the card",
		Follows: func(s Spec) measure.Length { return measure.Up(s.Size(pyramidSide)*7/6, s.Tick) },
	}
	pyramidSides = &Option{
		ID: "sides", Label: "Sides", Kind: ChoiceKind, Choices: []string{"3", "4", "5", "6", "7", "8"}, DefaultChoice: "4",
		About: "How many sides the floor has",
	}
	pyramidClosure = &Option{
		ID: "closure", Label: "Closed by", Kind: ChoiceKind, Choices: []string{"ribbon", "tuck"}, DefaultChoice: "ribbon",
		About: "A ribbon through a hole under each tip; or all sides glued but one, which is tucked in",
	}
	pyramidTurned = &Option{
		ID: "turned", Label: "On the sheet", Kind: ChoiceKind, Choices: []string{"straight", "turned"}, DefaultChoice: "straight",
		About:   "Of four sides and a ribbon: tips at the middles of the blank's edges, or in its corners, which takes half the card",
		Smaller: &Smaller{Choice: "turned", Words: "its tips in the corners of the card", Trims: true},
	}
)

var pyramid = &Style{
	ID: "pyramid", Name: "Pyramid", About: "A pointed box of three to eight sides for a small favour",
	For:   []Use{ForFavours},
	Suits: []string{"favour", "favor", "truffle", "praline", "sweet", "almond"},
	Opens: "a bow is undone and the sides fall open, or one side folds down", Strength: "fair: the sides hold one another",
	Untold:     true,
	Parameters: []*Parameter{pyramidSide, pyramidSlant},
	Options:    []*Option{pyramidSides, pyramidClosure, pyramidTurned, adhesive},
	Axes:       [3]*Parameter{pyramidSide, pyramidSide, pyramidSide},
	Build:      buildPyramid,
}

// ordinals name sides that are alike.
var ordinals = []string{"first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth"}

const (
	// underTip is how far under a tip its hole lies, tipHole how wide that is and besideHole how much
	// card it leaves on either side.
	underTip   = 8 * measure.Millimetre
	tipHole    = 3 * measure.Millimetre
	besideHole = 3 * measure.Millimetre
)

// tent is a pyramid's shape, in mm: n sides on a floor of side a, whose middles are so far from
// the floor's middle, and from the tips along the card.
type tent struct {
	n                    int
	side, apothem, slant float64
	floor                []pattern.Point // its corners as it stands
	corners              []pattern.Point // and as they lie on the flat card
}

// high is its height, and lean the angle by which a side is folded up.
func (p tent) high() float64 { return math.Sqrt(p.slant*p.slant - p.apothem*p.apothem) }
func (p tent) lean() float64 { return 180 - math.Acos(p.apothem/p.slant)*180/math.Pi }

// edge is where two sides meet, and seam the angle by which a tab on it is folded.
func (p tent) edge() float64 { return math.Hypot(p.side/2, p.slant) }
func (p tent) seam() float64 {
	up, in := p.high()/p.slant, p.apothem/p.slant
	return math.Acos(up*up*math.Cos(2*math.Pi/float64(p.n))+in*in) * 180 / math.Pi
}

// tip is the angle at its tip of one side.
func (p tent) tip() float64 { return 2 * math.Atan(p.side/2/p.slant) }

// turnedOnCard reports whether the tips lie in the corners of a square card.
func (s Spec) turnedOnCard(n int) bool {
	return n == 4 && s.Choice(pyramidTurned) == "turned" && s.Choice(pyramidClosure) == "ribbon"
}

// tent is the shape for the sizes. One that lies with its tips in the corners of the card has its
// floor's corners on marks of the ruler on the card's middle lines, which move its sizes by less
// than a tick.
func (s Spec) tent() (tent, error) {
	n, err := strconv.Atoi(s.Choice(pyramidSides))
	if err != nil {
		return tent{}, fault.New(fault.UnknownChoice, "options.sides", "a pyramid has three to eight sides: %w", err)
	}
	p := tent{n: n, side: s.Size(pyramidSide).MM(), slant: s.Size(pyramidSlant).MM()}
	if s.turnedOnCard(n) {
		blank, at := s.turnedCard()
		half := blank.MM()/2 - at.MM() // from the middle to the floor's corners
		p.side, p.slant = half*math.Sqrt2, (blank.MM()-half)/math.Sqrt2
		p.corners = []pattern.Point{{X: 0, Y: -half}, {X: half, Y: 0}, {X: 0, Y: half}, {X: -half, Y: 0}}
	}
	if p.floor = regular(n, p.side); p.corners == nil {
		p.corners = p.floor
	}
	p.apothem = p.side / 2 / math.Tan(math.Pi/float64(n))
	return p, nil
}

// turnedCard is a square card with the tips in its corners, and how far from its edges' middles the
// floor's corners lie.
func (s Spec) turnedCard() (blank, at measure.Length) {
	half, slant := s.Size(pyramidSide).MM()/2, s.Size(pyramidSlant).MM()
	blank = measure.Up(measure.FromMM(math.Sqrt2*(half+slant)), s.cutting())
	return blank, measure.Nearest(blank/2-measure.FromMM(half*math.Sqrt2), s.cutting())
}

func buildPyramid(s Spec) (*Box, error) {
	p, err := s.tent()
	if err != nil {
		return nil, err
	}
	if p.slant <= p.apothem+1 {
		return nil, outOfRange("size.slant", "the slant must be more than %s, or the sides do not meet over the floor", s.show(measure.FromMM(p.apothem+1)))
	}
	s.least(pyramidSlant.limited(), measure.FromMM(p.apothem*1.2), "the pyramid is as flat as a lid, and its sides hold badly")
	b := pattern.NewBuilder()
	floor := b.Polygon("base", p.corners...)
	b.Role(pattern.Panel, floor)
	tuck := s.Choice(pyramidClosure) == "tuck"
	if tuck || p.n != 4 {
		b.CutOn(s.cutting())
		b.ByTemplate()
	}
	var sides []*pattern.Leaf
	from, to, deep, err := s.pyramidTab(p)
	if tuck && err != nil {
		return nil, err
	}
	for i := range p.n {
		side := b.Polygon(fmt.Sprint("side.", i+1), p.outline(i, tuck, from, to)...)
		b.Call(side, ordinals[i]+" side")
		b.Role(pattern.Panel, side)
		b.Up(floor, side)
		if i == 0 || !tuck {
			b.Hinge(floor, side, p.lean(), 0)
		} else {
			b.Fold(floor, side, p.lean(), pattern.Away)
		}
		sides = append(sides, side)
	}
	if tuck {
		p.tabs(b, sides, from, to, deep)
	} else if err := s.pyramidHoles(b, p, sides); err != nil {
		return nil, err
	}
	pat, err := b.Pattern()
	if err != nil {
		return nil, err
	}
	part := Part{ID: "body", Name: "Pyramid", Pattern: pat, Root: "base", Opens: Upwards, Card: s.Card("body")}
	if s.turnedOnCard(p.n) { // it stands with a side to the front, however it was cut
		part.Lies = &pattern.Pose{Turn: r3.NewRotation(math.Pi/4, r3.Vec{Z: 1})}
	}
	box := &Box{Shut: ByTuck, Together: []hand.Move{hand.Fill{Into: "body"}, hand.Shut{Said: hand.Say("shut-door-in")}}}
	part.Making = told(func() []hand.Move { return s.pyramidMaking(pat, p) })
	if !tuck {
		box.Shut = ByRibbon
		box.Together = []hand.Move{hand.Fill{Into: "body"}, hand.Shut{Said: hand.Say("raise-tips")}, hand.Hold{Said: hand.Say("tie-tips")}}
	}
	box.Parts = []Part{part}
	box.Room = p.room(part.Card.MM(), tuck)
	return box, nil
}

// pyramidHoles are the holes for a ribbon, one under each tip.
func (s Spec) pyramidHoles(b *pattern.Builder, p tent, sides []*pattern.Leaf) error {
	across := s.about(tipHole)
	under := s.underTip(p, across)
	if under > p.slant/2 {
		return outOfRange("size.side", "the tips are too narrow for a ribbon's hole; make the side larger, or the slant smaller")
	}
	for i, side := range sides {
		out := p.outward(i)
		b.Hole(side, "hole", pattern.Circle(out.Scale(p.apothem+p.slant-under), across.MM()/2))
	}
	return nil
}

// underTip is how far from a tip its hole lies, so that it leaves card on either side.
func (s Spec) underTip(p tent, across measure.Length) float64 {
	beside := (across.MM()/2 + besideHole.MM()) / math.Sin(p.tip()/2)
	return max(s.about(underTip), measure.Up(measure.FromMM(beside), s.cutting())).MM()
}

// outward is the direction from the floor's middle over the middle of its nth side, on the flat card.
func (p tent) outward(i int) pattern.Point { return overSide(p.corners, i) }

func overSide(corners []pattern.Point, i int) pattern.Point {
	mid := corners[i].Add(corners[(i+1)%len(corners)]).Scale(0.5)
	return mid.Scale(1 / mid.Len())
}

// tipAt is the tip of the nth side, on the flat card.
func (p tent) tipAt(i int) pattern.Point { return p.outward(i).Scale(p.apothem + p.slant) }

// tabbed reports whether the nth side has a tab on its seam with the next, or the one before: of
// a pyramid with a door, its first side, that has both; each other seam has one.
func (p tent) tabbed(i int, next bool) bool { return i == 0 || next && i < p.n-1 }

// outline are the corners of the nth side, clockwise, with those of its tabs.
func (p tent) outline(i int, tabs bool, from, to float64) []pattern.Point {
	left, right, tip := p.corners[i], p.corners[(i+1)%p.n], p.tipAt(i)
	out := []pattern.Point{right, left}
	if tabs && p.tabbed(i, false) {
		out = append(out, toward(left, tip, from), toward(left, tip, to))
	}
	out = append(out, tip)
	if tabs && p.tabbed(i, true) {
		out = append(out, toward(right, tip, to), toward(right, tip, from))
	}
	return out
}

// toward is so far from a point on the way to another.
func toward(a, b pattern.Point, by float64) pattern.Point {
	return a.Add(b.Sub(a).Scale(by / b.Sub(a).Len()))
}

// pyramidTab says where on a seam a tab begins and ends, from the floor, and how deep it is. Near
// the tip it ends where the next side is wide enough for it.
func (s Spec) pyramidTab(p tent) (from, to, deep float64, err error) {
	deep = s.TabWidth().MM()
	from, to = deep, p.edge()-max(1.5*deep, deep/math.Tan(min(p.tip(), 1.5))+1)
	if to-from < 1.5*deep {
		err = outOfRange("size.side", "the sides are too narrow for tabs of %s; make the side larger, or close it by a ribbon", s.show(s.TabWidth()))
	}
	return from, to, deep, err
}

// tabs are those of a pyramid with a door: glued inside the next side, or the door's two, tucked in.
func (p tent) tabs(b *pattern.Builder, sides []*pattern.Leaf, from, to, deep float64) {
	for i, side := range sides {
		tip, right, left := p.tipAt(i), p.corners[(i+1)%p.n], p.corners[i]
		if p.tabbed(i, true) {
			lo, hi := toward(right, tip, from), toward(right, tip, to)
			name, words := fmt.Sprint("tab.", i+1), "tab of the "+ordinals[i]+" side"
			if i == 0 {
				name, words = "door.right", "right tab of the door"
			}
			p.tab(b, side, sides[(i+1)%p.n], name, words, deep, lo, hi)
		}
		if p.tabbed(i, false) {
			lo, hi := toward(left, tip, from), toward(left, tip, to)
			p.tab(b, side, sides[(i+p.n-1)%p.n], "door.left", "left tab of the door", deep, hi, lo)
		}
	}
}

// tab hangs a tab on a side, from one place on its edge to another, the side lying to the left.
func (p tent) tab(b *pattern.Builder, side, onto *pattern.Leaf, name, words string, deep float64, from, to pattern.Point) {
	door := strings.HasPrefix(name, "door")
	leaf := hanging(b, name, from, to, deep, deep/2)
	b.Role(pattern.Tab, leaf)
	b.Call(leaf, words)
	if door {
		b.Hinge(side, leaf, p.seam(), 0)
		b.Tuck(leaf, onto)
		return
	}
	b.Fold(side, leaf, p.seam(), pattern.Away)
	b.Glue(leaf, true, onto)
}

// underTent is how much of its floor a pyramid claims: over more of it hardly any height is left.
const underTent = 0.6

// room is what fits under the tip: the floor, narrower towards it, less the card that leans in
// over it. Through a door no block goes that is wider than the door is at its top.
func (p tent) room(card float64, door bool) Room {
	inset := card / 2 * p.slant / p.high()
	if door { // a tab inside
		inset *= 3
	}
	clear := underTent * (p.apothem - inset) / p.apothem
	var floor []pattern.Point
	for _, q := range p.floor {
		floor = append(floor, q.Scale(clear))
	}
	high := func(l, w float64) float64 {
		out := 0.0
		for i := range p.n {
			n := overSide(p.floor, i)
			out = max(out, math.Abs(n.X)*l/2+math.Abs(n.Y)*w/2)
		}
		z := p.high() * (1 - (out+inset)/p.apothem)
		if door {
			z = min(z, p.high()*(1-(l+4*inset)/p.side))
		}
		return z - card/2
	}
	half := p.apothem // a square block, half as wide as four sides are apart
	if door {
		half = min(half, p.side/2)
	}
	for i := range p.n {
		n := overSide(p.floor, i)
		half = min(half, 2*clear*p.apothem/(math.Abs(n.X)+math.Abs(n.Y)))
	}
	lo, hi := pattern.Bounds(p.floor)
	r := Block(Extent{
		measure.Down(measure.FromMM(half), measure.Tenth), measure.Down(measure.FromMM(half), measure.Tenth),
		measure.Down(measure.FromMM(high(half, half)), measure.Tenth),
	}, r3.Vec{Y: -(lo.Y + hi.Y) / 2, Z: card / 2})
	r.Floor = floor
	return r.under(fmt.Sprintf("a block under the tip of a pyramid of %d sides", p.n), high)
}

// pyramidMaking is how a hand makes one of four sides for a ribbon; others are drawn round a
// template.
func (s Spec) pyramidMaking(p *pattern.Pattern, shape tent) []hand.Move {
	if shape.n != 4 || s.Choice(pyramidClosure) == "tuck" {
		return s.byTemplate(p)
	}
	m := s.make(p)
	w := p.Width
	if s.turnedOnCard(shape.n) {
		_, at := s.turnedCard()
		m.turnedTent(w, at)
	} else {
		slant := s.Size(pyramidSlant)
		m.scoreFour(0, slant)
		m.do(hand.Mark{Said: hand.Say("middles")})
		m.straightTent(w, slant)
	}
	across := s.about(tipHole)
	under := measure.FromMM(s.underTip(shape, across))
	var holes []pattern.Loop
	for _, o := range p.Openings {
		holes = append(holes, o.Loop)
	}
	m.do(hand.Bite{Loops: holes, Said: hand.Said{Key: "tip-holes", Lengths: map[string][]measure.Length{"across": {across}, "at": {under}}}})
	m.do(hand.FoldAll{})
	return m.moves
}

// straightTent cuts a square scored from all four edges to four tips at the middles of its edges.
func (m *making) straightTent(w, slant measure.Length) {
	x := hand.Snip{Said: hand.Say("tent-cuts")}
	near, far, mid := slant, w-slant, w/2
	for _, c := range [][2]pattern.Point{
		{pt(mid, 0), pt(near, near)}, {pt(mid, 0), pt(far, near)}, {pt(w, mid), pt(far, near)}, {pt(w, mid), pt(far, far)},
		{pt(mid, w), pt(far, far)}, {pt(mid, w), pt(near, far)}, {pt(0, mid), pt(near, far)}, {pt(0, mid), pt(near, near)},
	} {
		x.Cuts = append(x.Cuts, pattern.Segment{A: c[0], B: c[1]})
	}
	for _, a := range []measure.Length{near / 2, w - near/2} {
		for _, b := range []measure.Length{near / 2, w - near/2} {
			x.Off = append(x.Off, pt(a, b))
		}
		for _, b := range []measure.Length{near + (mid-near)/8, far - (mid-near)/8} { // beside the tips
			edge := near / 8
			if a > mid {
				edge = w - near/8
			}
			x.Off = append(x.Off, pt(edge, b), pt(b, edge))
		}
	}
	m.do(x)
}

// turnedTent marks a floor's corners on the middle lines of a square card, and cuts to them from
// the card's corners.
func (m *making) turnedTent(w, at measure.Length) {
	mid, far := w/2, w-at
	floor := []pattern.Point{pt(mid, at), pt(far, mid), pt(mid, far), pt(at, mid)}
	tips := []pattern.Point{pt(0, 0), pt(w, 0), pt(w, w), pt(0, w)}
	score, cut := hand.Score{Said: hand.Say("turned-floor")}, hand.Snip{Said: hand.Say("turned-cuts")}
	for i, q := range floor {
		score.Lines = append(score.Lines, pattern.Segment{A: q, B: floor[(i+1)%4]})
		cut.Cuts = append(cut.Cuts, pattern.Segment{A: tips[i], B: q}, pattern.Segment{A: tips[(i+1)%4], B: q})
		edge := tips[i].Add(tips[(i+1)%4]).Scale(0.5)
		for _, tip := range []pattern.Point{tips[i], tips[(i+1)%4]} { // on either side of the middle line
			cut.Off = append(cut.Off, edge.Add(q.Sub(edge).Scale(0.3)).Add(tip.Sub(edge).Scale(0.1)))
		}
	}
	lines := []pattern.Segment{{A: pt(mid, 0), B: pt(mid, w)}, {A: pt(0, mid), B: pt(w, mid)}}
	m.do(hand.Mark{Lines: lines, At: floor, Said: said("turned-marks", one("at", at))}, score, cut)
}
