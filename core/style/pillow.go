package style

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	pillowWidth = &Parameter{
		ID: "width", Label: "Width", Default: 3 * measure.Inch, Min: 36 * mm, Max: 250 * mm,
		About: "w: one panel from side score to side score, flat",
	}
	pillowLength = &Parameter{
		ID: "length", Label: "Length", Default: 5 * measure.Inch, Min: 40 * mm, Max: 300 * mm,
		About: "h: from corner to corner along a side score",
	}
	pillowPlate = &Parameter{
		ID: "plate", Label: "Plate's radius", Default: 5 * measure.Inch / 2, Min: 26 * mm, Max: 1000 * mm,
		About:   "R: of the plate or template that the ends are scored along; a flatter box from a larger one",
		Follows: func(s Spec) measure.Length { return measure.Nearest(s.Size(pillowWidth)*5/6, s.Tick) },
	}
	pillowTab = &Parameter{
		ID: "tab", Label: "Tab", Default: measure.Inch / 2, Min: 6 * mm, Max: 25 * mm,
		About: "The strip that joins the two panels",
	}
	pillowEase = &Parameter{
		ID: "ease", Label: "Ease", Default: measure.Inch / 16, Min: 0, Max: 4 * mm,
		About:   "How much the flaps end short of the other panel's crease",
		Follows: func(s Spec) measure.Length { return measure.Up(mm, s.cutting()) },
	}
)

var pillow = &Style{
	ID: "pillow", Name: "Pillow", About: "Two bulging panels whose ends close along arcs, for something small and soft",
	For:   []Use{ForGifts, ForFavours},
	Suits: []string{"scarf", "shawl", "tie", "glove", "mitten", "sock", "handkerchief", "towel"},
	Opens: "at both ends: the flaps spring apart", Strength: "light: it gives when pressed",
	Untold:     true,
	Lies:       true,
	Parameters: []*Parameter{pillowWidth, pillowLength, pillowPlate, pillowTab, pillowEase},
	Options:    []*Option{adhesive},
	Axes:       [3]*Parameter{pillowLength, pillowWidth, pillowWidth},
	Build:      buildPillow,
}

const (
	// pillowFlats is how many flats stand for a panel's curve between its flaps' ends: odd, so that
	// the middle one lies level. Its creases are then within a tenth of a millimetre of the arc for a
	// panel of 72 mm.
	pillowFlats = 13
	// leastFlat is the narrowest flat that is drawn, in mm.
	leastFlat = 0.05
	// pillowSteep is the steepest crease at the side that closes at all, as a slope; over
	// pillowBulged of the width the card breaks at the sides, and under pillowThin flaps hold badly.
	pillowSteep  = 0.999
	pillowBulged = 0.185
	pillowThin   = 10 * measure.Millimetre
	// pillowBetween is what is left of a panel between its creases at the least.
	pillowBetween = 20 * measure.Millimetre
)

// cushion is a pillow's shape in mm. A panel is part of a cylinder, its half-section the arc that its
// ends are scored along: only there do the flaps of both panels share one surface when they are shut.
type cushion struct {
	w, h, rise, radius, ease, tab float64
	// at is where flats meet, from a panel's left side, and crease how far its crease lies there
	// inside the chord between its corners; whole nanometres, as the card's corners are kept.
	at, crease []float64
}

// meet adds a place where flats meet.
func (p *cushion) meet(at float64) {
	nano := func(mm float64) float64 { return measure.FromMM(mm).MM() }
	u := at - p.w/2
	p.at = append(p.at, nano(at))
	p.crease = append(p.crease, nano(max(0, math.Sqrt(max(0, p.radius*p.radius-u*u))-(p.radius-p.rise))))
}

// slope is that of the nth flat, and lean the angle by which it lies off the level, in degrees.
func (p cushion) slope(i int) float64 { return (p.crease[i+1] - p.crease[i]) / (p.at[i+1] - p.at[i]) }
func (p cushion) lean(i int) float64  { return math.Asin(p.slope(i)) * 180 / math.Pi }

// cushion is the shape for the sizes: the rise of the arc lies on the ruler's mark, and the radius is
// that of the arc through the marks.
func (s Spec) cushion() (cushion, error) {
	w, r := s.Size(pillowWidth).MM(), s.Size(pillowPlate).MM()
	if 2*r <= w {
		return cushion{}, outOfRange("size.plate", "the plate must be more than %s, half the width, or no arc goes from corner to corner", s.show(s.Size(pillowWidth)/2))
	}
	rise := measure.Nearest(measure.FromMM(r-math.Sqrt(r*r-w*w/4)), s.cutting())
	p := cushion{w: w, h: s.Size(pillowLength).MM(), rise: rise.MM(), ease: s.Size(pillowEase).MM(), tab: s.Size(pillowTab).MM()}
	if rise <= s.Size(pillowEase) {
		return p, outOfRange("size.plate", "the plate is so large that no flaps are left; make it smaller")
	}
	p.radius = w*w/8/p.rise + p.rise/2
	if steep := w / 2 / (p.radius - p.rise); steep >= pillowSteep {
		return p, outOfRange("size.plate", "the plate must be at least %s, or the ends do not close", s.show(measure.Up(measure.FromMM(w/math.Sqrt2), s.cutting())))
	}
	if least := 2*rise + pillowBetween; s.Size(pillowLength) < least {
		return p, outOfRange("size.length", "the length must be at least %s, or the flaps of both ends meet", s.show(least))
	}
	// A flap ends where its cut meets the crease.
	drop := p.radius - p.rise + p.ease/2
	end := math.Sqrt(p.radius*p.radius - drop*drop)
	beside := w/2-end > leastFlat
	if beside {
		p.meet(0)
	} else {
		end = w / 2
	}
	for i := range pillowFlats + 1 {
		p.meet(w/2 + end*(2*float64(i)/pillowFlats-1))
	}
	if beside {
		p.meet(w)
	}
	return p, nil
}

func buildPillow(s Spec) (*Box, error) {
	p, err := s.cushion()
	if err != nil {
		return nil, err
	}
	s.least(pillowPlate.limited(), s.flattest(pillowBulged), "the panels bend so sharply at their sides that card breaks there")
	if err := s.atMost(pillowTab, s.Size(pillowWidth)/2, "it would lie over the middle of the panel"); err != nil {
		return nil, err
	}
	if 2*p.rise < pillowThin.MM() {
		s.most(pillowPlate.limited(), measure.Down(measure.FromMM(p.w*p.w/8/(pillowThin.MM()/2)+pillowThin.MM()/4), s.Tick), "the flaps are so narrow that they spring open")
	}
	b := pattern.NewBuilder()
	b.CutOn(s.cutting())
	p.draw(b)
	pat, err := b.Pattern()
	if err != nil {
		return nil, err
	}
	p.opened(pat)
	t := s.Card("body").MM()
	part := Part{
		ID: "body", Name: "Pillow", Pattern: pat, Root: panelName(0, (len(p.at)-1)/2), Opens: Upwards, Card: s.Card("body"),
		Lies:   &pattern.Pose{Turn: r3.NewRotation(math.Pi/2, r3.Vec{Z: 1})}, // its length to the right
		Making: told(func() []hand.Move { return s.pillowMaking(pat, p) }),
	}
	return &Box{
		Parts: []Part{part}, Room: p.room(t), Shut: ByTuck,
		Together: []hand.Move{hand.Fill{Into: "body", Said: hand.Say("fill-end")}, hand.Shut{Said: hand.Say("shut-pillow")}},
	}, nil
}

// flattest is the smallest plate whose arc rises by no more than a share of the width.
func (s Spec) flattest(share float64) measure.Length {
	w := s.Size(pillowWidth).MM()
	rise := share * w
	return measure.Up(measure.FromMM(w*w/8/rise+rise/2), s.Tick)
}

func panelName(panel, i int) string { return fmt.Sprint("panel.", panel+1, ".", i+1) }

func flapName(end string, panel, i int) string {
	return fmt.Sprint("flap.", end, ".", panel+1, ".", i+1)
}

// draw lays the two panels side by side, flat by flat, with a flap at either end and the tab.
func (p cushion) draw(b *pattern.Builder) {
	flats := len(p.at) - 1
	chord := p.rise - p.ease // from the blank's end to the corners
	high := p.h + 2*chord
	panels := make([][]*pattern.Leaf, 2)
	for n := range panels {
		left := float64(n) * p.w
		for i := range flats {
			x0, x1, y0, y1 := left+p.at[i], left+p.at[i+1], chord+p.crease[i], chord+p.crease[i+1]
			leaf := b.Polygon(panelName(n, i), pattern.Pt(x0, y0), pattern.Pt(x1, y1), pattern.Pt(x1, high-y1), pattern.Pt(x0, high-y0))
			b.Call(leaf, []string{"first", "second"}[n]+" panel")
			b.Role(pattern.Bend, leaf)
			panels[n] = append(panels[n], leaf)
		}
	}
	p.bends(b, panels[0], pattern.Away)
	p.bends(b, panels[1], pattern.Away)
	side := 180 + 2*p.lean(flats-1)
	b.Fold(panels[0][flats-1], panels[1][0], side, pattern.Away)
	var flaps [2][2][]*pattern.Leaf // by end and panel
	for e, end := range []string{"top", "bottom"} {
		for n := range panels {
			flaps[e][n] = p.flap(b, end, n, panels[n], chord, high)
		}
	}
	for e := range flaps { // shut, the second panel's lie inside the first's
		for i, leaf := range flaps[e][0] {
			under := flaps[e][1][len(flaps[e][1])-1-i]
			if i > 1 && i < len(flaps[e][0])-2 {
				b.Lap(leaf, under)
			}
		}
	}
	p.joint(b, panels[0], panels[1][flats-1], chord, high, side)
}

// bends rolls neighbours over one another by the difference of their leans.
func (p cushion) bends(b *pattern.Builder, leaves []*pattern.Leaf, side pattern.Side) {
	for i := range len(leaves) - 1 {
		b.Roll(leaves[i], leaves[i+1], p.lean(i)-p.lean(i+1), side)
	}
}

// flap is one panel's flap at one end, cut along the arc turned over and creased along the arc.
func (p cushion) flap(b *pattern.Builder, end string, n int, panel []*pattern.Leaf, chord, high float64) []*pattern.Leaf {
	left := float64(n) * p.w
	from := (len(panel) - pillowFlats) / 2
	place := func(u, y float64) pattern.Point {
		if end == "bottom" {
			y = high - y
		}
		return pattern.Pt(left+u, y)
	}
	var out []*pattern.Leaf
	for i := from; i < from+pillowFlats; i++ {
		u0, u1, c0, c1 := p.at[i], p.at[i+1], p.crease[i], p.crease[i+1]
		corners := []pattern.Point{place(u0, p.rise-c0), place(u1, p.rise-c1), place(u1, chord+c1), place(u0, chord+c0)}
		switch i { // where the cut meets the crease
		case from:
			corners = corners[1:]
		case from + pillowFlats - 1:
			corners = slices.Delete(corners, 1, 2)
		}
		if end == "bottom" {
			slices.Reverse(corners)
		}
		leaf := b.Polygon(flapName(end, n, i), corners...)
		b.Call(leaf, end+" flap of the "+[]string{"first", "second"}[n]+" panel")
		b.Role(pattern.Flap, leaf)
		q := p.slope(i)
		b.Hinge(panel[i], leaf, 2*math.Acos(math.Sqrt((1-q*q)/2))*180/math.Pi, 0)
		if len(out) > 0 {
			b.Roll(out[len(out)-1], leaf, p.lean(i-1)-p.lean(i), pattern.Towards)
		}
		out = append(out, leaf)
	}
	return out
}

// joint is the tab beside the second panel, whose flats lie on the first ones of the first panel.
func (p cushion) joint(b *pattern.Builder, first []*pattern.Leaf, last *pattern.Leaf, chord, high, side float64) {
	before := last
	for i := range first {
		x0, x1 := p.at[i], p.at[i+1]
		if x0 > p.tab-leastFlat && i > 0 {
			break // the one before went as far
		}
		if x1 > p.tab-leastFlat {
			x1 = p.tab
		}
		foot := 2 * p.w
		leaf := b.Polygon(fmt.Sprint("tab.", i+1), pattern.Pt(foot+x0, chord+x0), pattern.Pt(foot+x1, chord+x1), pattern.Pt(foot+x1, high-chord-x1), pattern.Pt(foot+x0, high-chord-x0))
		b.Role(pattern.Tab, leaf)
		b.Call(leaf, "tab")
		if i == 0 {
			b.Fold(before, leaf, side, pattern.Away)
		} else {
			b.Roll(before, leaf, p.lean(i-1)-p.lean(i), pattern.Away)
		}
		b.Glue(leaf, true, first[i])
		before = leaf
	}
}

// opened says that the flaps go on as the panels do when the box is open: their bends are turned over.
func (p cushion) opened(pat *pattern.Pattern) {
	for i, c := range pat.Creases {
		if c.Rolled && c.Side == pattern.Towards {
			pat.Creases[i].Hinge, pat.Creases[i].Opened = true, -c.Angle
		}
	}
}

// room is what lies between two curved panels, on no level floor: the thicker, the narrower. It claims
// as much of the width as leaves half the height.
func (p cushion) room(card float64) Room {
	sec := p.section(card)
	long := p.h - 2*p.rise - 3*card
	wide := sec.width(p.rise)
	thick := func(width float64) float64 { return max(0, sec.thickness(width)) }
	largest := Extent{measure.Down(measure.FromMM(long), measure.Tenth), measure.Down(measure.FromMM(wide), measure.Tenth), measure.Down(measure.FromMM(thick(wide)), measure.Tenth)}
	r := Block(largest, r3.Vec{Z: p.crease[len(p.at)/2]})
	r.Floor, r.Cradles = rectangle(long, wide), true
	return r.under("between two curved panels", func(_, width float64) float64 { return thick(width) })
}

// roofline is half of the free section of a shut pillow: straight lines from its middle to the side,
// each as high over the plane between the panels as start + fall × distance from the middle, in mm. A
// line is a flat's inner face, so the free space lies under the lowest of them.
type roofline []struct{ start, fall float64 }

// section is a pillow's free section. Flats lie as far out and as high as their creases in the pattern
// take them: a flat of slope s is cos(asin s) of its width across. Inside it lie the card and, as if at
// both sides, the tab.
func (p cushion) section(card float64) roofline {
	var lines roofline
	out := 0.0 // how far from the middle the flat begins
	for i := len(p.at)/2 - 1; i < len(p.at)-1; i++ {
		slope := p.slope(i)
		across := math.Sqrt(1 - slope*slope)
		span := (p.at[i+1] - p.at[i]) * across
		if i == len(p.at)/2-1 {
			span /= 2 // the middle flat lies half on either side
		}
		layers := card
		if p.w-p.at[i+1] < p.tab {
			layers = 2 * card
		}
		fall := slope / across
		lines = append(lines, struct{ start, fall float64 }{p.crease[i+1] - fall*(out+span) - layers/across, fall})
		out += span
	}
	return lines
}

// thickness is how thick a block may be that is so wide, both in mm; under nothing where none may.
func (lines roofline) thickness(width float64) float64 {
	least := math.Inf(1)
	for _, l := range lines {
		least = min(least, 2*(l.start+l.fall*width/2))
	}
	return least
}

// width is how wide a block may be that is so thick, both in mm.
func (lines roofline) width(thick float64) float64 {
	least := math.Inf(1)
	for _, l := range lines {
		if l.fall < 0 {
			least = min(least, 2*(thick/2-l.start)/l.fall)
		}
	}
	return max(0, least)
}

// pillowMaking is how a hand makes it: scored and cut along a plate, by three marks an arc.
func (s Spec) pillowMaking(p *pattern.Pattern, shape cushion) []hand.Move {
	m := s.make(p)
	m.scores()
	rise := measure.FromMM(shape.rise)
	corners, middles := rise-s.Size(pillowEase), 2*rise-s.Size(pillowEase)
	m.do(hand.Names{Across: true, Panels: true, Words: []string{"1", "2", "tab"}})
	m.do(hand.Template{Pattern: p, Said: said("pillow-marks", map[string][]measure.Length{"at": {corners}, "off": {middles}})})
	var arcs []pattern.Segment
	for _, c := range p.Creases {
		if !c.Rolled && !m.onBoard(c.Segment) {
			arcs = append(arcs, c.Segment)
		}
	}
	m.do(hand.ScoreTraced{Lines: arcs, Said: said("pillow-arcs", one("across", measure.Nearest(2*measure.FromMM(shape.radius), s.Tick)))})
	m.do(hand.CutTraced{Said: hand.Say("pillow-ends")}, hand.Bend{Said: hand.Say("pillow-bend")}, hand.FoldWays{Said: hand.Say("pillow-folds")})
	tab, onto := m.parts("tab", nil), m.parts("panel", nil)
	for _, g := range p.Glue {
		if g.Dry {
			continue
		}
		from, _ := p.Mark(g.Face)
		on, _ := p.Mark(g.Onto)
		tab.At, onto.At = append(tab.At, from.At), append(onto.At, on.At)
	}
	m.stick(hand.Stick{Way: pillowTube, What: tab, Onto: onto, Outside: true})
	return m.moves
}

// pillowTube is how a pillow is joined: pressed flat.
const pillowTube hand.Way = "pillow"
