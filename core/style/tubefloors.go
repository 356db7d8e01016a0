package style

import (
	"math"
	"slices"
	"strconv"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// A tube's floor: four flaps glued over one another, four that lock without glue, or one that is
// glued flat and unfolds when the tube is opened.
const (
	wedgeFloor   = "wedge"
	snapFloor    = "snap"
	openingFloor = "self-opening"
)

var (
	tallFloor = &Option{
		ID: "floor", Label: "Floor", Kind: ChoiceKind, Choices: []string{wedgeFloor, snapFloor, openingFloor}, DefaultChoice: wedgeFloor,
		About: "Glued flaps; flaps that lock in one another without glue; or a glued floor that lies flat and opens by itself",
	}
	tallOverlap = &Parameter{
		ID: "overlap", Label: "Floor's overlap", Default: measure.Inch / 2, Min: 5 * mm, Max: 80 * mm,
		About:   "e: how far the flaps of a floor without glued wedges reach past the middle",
		Follows: func(s Spec) measure.Length { return s.overlapOf(s.Size(tallDepth)) },
		Only:    func(s Spec) bool { return s.Choice(tallFloor) != wedgeFloor },
	}
)

const (
	// leastReach is how deep the side flaps of a locking floor are at least, leastTongue how wide its
	// tongue, and aboveFloor what the walls leave free over a flap that swings in.
	leastReach  = 10 * measure.Millimetre
	leastTongue = 15 * measure.Millimetre
	aboveFloor  = 5 * measure.Millimetre
	// tongueTip is what a tongue loses at either tip.
	tongueTip = 3 * measure.Millimetre
)

// tubeFloor is the floor of a tube so wide and deep.
type tubeFloor struct {
	kind    string
	long, w measure.Length // of front and back, of the sides
	over    measure.Length // past the middle
	clear   measure.Length // beside each free edge
	reach   measure.Length // of the side flaps
	deep    measure.Length // the row under the walls
	least   measure.Length // how high the walls must be at least
}

// tubeFloor is the floor as chosen of a tube so long and wide; sizes of which no such floor can be
// folded are refused. bottom is how deep glued flaps are.
func (s Spec) tubeFloor(kind *Option, long, wide, overlap, bottom *Parameter) (tubeFloor, error) {
	f := tubeFloor{kind: s.Choice(kind), long: s.Size(long), w: s.Size(wide), over: s.Size(overlap), clear: measure.Up(mm, s.cutting())}
	switch f.kind {
	case snapFloor:
		return s.snapFloor(f, long, wide, overlap)
	case openingFloor:
		f.deep = measure.Up(f.w/2, s.cutting()) + f.over
		f.reach, f.least = measure.Down(f.w/2, s.cutting())-f.clear, f.deep
		if err := s.atMost(wide, f.long, "the side flaps of a floor that opens by itself would meet"); err != nil {
			return f, err
		}
		return f, s.atMost(overlap, min(f.w/2-f.clear, f.long-f.w/2-2*f.clear-mm), "the flaps would reach past the far wall")
	}
	f.deep = s.Size(bottom)
	if least := min(f.long, f.w) / 2; f.deep < least {
		return f, outOfRange("size."+bottom.ID, "the bottom flaps must be at least %s, half the narrower side, or they do not meet", s.show(least))
	}
	return f, s.atMost(bottom, min(f.long, f.w), "they would reach past the far wall")
}

// snapFloor is one that locks without glue. It is closed empty: three flaps are swung in past level
// until the tongue passes over them.
func (s Spec) snapFloor(f tubeFloor, long, wide, overlap *Parameter) (tubeFloor, error) {
	f.deep = measure.Up(f.w/2, s.cutting()) + f.over
	f.reach = measure.Down(min(f.long/4, f.w/2), s.Tick)
	if err := s.atMost(overlap, f.w*2/5, "the flaps would not pass one another"); err != nil {
		return f, err
	}
	if f.reach < leastReach {
		return f, outOfRange("size."+wide.ID, "the side flaps of a floor that locks are a quarter of the %s deep, or half the %s, and need %s; take glued flaps", long.ID, wide.ID, s.show(leastReach))
	}
	if least := 2*f.reach + 4*f.clear + leastTongue; f.long < least {
		return f, outOfRange("size."+long.ID, "the %s must be at least %s for a floor that locks, or its tongue is too narrow", long.ID, s.show(least))
	}
	part := f.over.MM() / f.w.MM()
	past := math.Acos(1 - part - part*part)
	f.least = measure.FromMM(f.deep.MM()*math.Sin(past)) + aboveFloor
	return f, nil
}

// overlapOf is an overlap that follows from how wide the sides are: a fifth, or 8 mm.
func (s Spec) overlapOf(w measure.Length) measure.Length {
	return min(measure.Up(max(w/5, 8*mm), s.Tick), max(5*mm, measure.Down(w*2/5, s.Tick)))
}

// row is the grid's row under the walls, whose cells only glued flaps fill.
func (f tubeFloor) row(around [4]string) string {
	if f.kind == wedgeFloor {
		return row(around, under("bottom"), "")
	}
	return ". . . . ."
}

// draw hangs the flaps on the walls, whose feet lie so far down.
func (f tubeFloor) draw(g *pattern.Grid, around [4]string, columns []measure.Length, foot measure.Length) {
	if f.kind == wedgeFloor {
		bottoms(g, around, f.deep)
		return
	}
	left := measure.Length(0)
	for i, side := range around {
		next, wide := around[(i+1)%4], columns[i]
		var shape []pattern.Point
		switch {
		case f.kind == openingFloor:
			shape = towardsSeam(f.opening(side, wide), wide, around)
		case side == "back":
			shape = f.snapBack()
		case side == "front":
			shape = f.snapFront()
		default:
			shape = f.snapSide(wide, next == "back")
		}
		flap := g.Polygon("bottom."+side, moved(shape, left, foot)...)
		g.Call(flap, side+" floor flap")
		g.Role(pattern.Tab, flap)
		if f.kind == openingFloor && (side == "left" || side == "right") {
			c, r := f.clear, f.reach
			corner := towardsSeam([]pattern.Point{pt(c, c), pt(r, r), pt(c, r)}, wide, around)
			patch := g.Polygon("patch."+side, moved(corner, left, foot)...)
			g.Call(patch, "triangle of the "+side+" floor flap")
			g.Role(pattern.Tab, patch)
			g.Upwards(pattern.Pt(0, -1), patch)
		}
		left += wide
	}
	f.hold(g, around)
}

// hold says what lies on what when the floor is shut.
func (f tubeFloor) hold(g *pattern.Grid, around [4]string) {
	flap := func(side string) *pattern.Leaf { return g.Face("bottom." + side) }
	for i, side := range around {
		if side != "left" && side != "right" {
			continue
		}
		if f.kind == openingFloor { // glued while it is folded out flat; open, its crease lies flat
			patch := g.Face("patch." + side)
			g.Fold(flap(side), patch, 0, pattern.Towards)
			g.Over(patch, flap(beside(around, i)))
			continue
		}
		// From inside: the back's over the sides', those over the front's.
		g.Lap(flap("front"), flap(side))
		g.Lap(flap(side), flap("back"))
	}
}

// beside is the wall on whose flap a side's triangle is glued: the one to its left, or where a side
// comes first, to its right, so that both are glued before the tube is joined.
func beside(around [4]string, i int) string {
	if around[0] == "left" {
		return around[(i+1)%4]
	}
	return around[(i+3)%4]
}

// towardsSeam is a flap as it is drawn where a side comes first.
func towardsSeam(shape []pattern.Point, wide measure.Length, around [4]string) []pattern.Point {
	if around[0] != "left" {
		return shape
	}
	out := make([]pattern.Point, len(shape))
	for i, q := range shape {
		out[len(shape)-1-i] = pattern.Pt(wide.MM()-q.X, q.Y)
	}
	return out
}

func moved(shape []pattern.Point, x, y measure.Length) []pattern.Point {
	out := make([]pattern.Point, len(shape))
	for i, q := range shape {
		out[i] = q.Add(pt(x, y))
	}
	return out
}

// snapBack is a flap with a recess in the middle for the tongue to come through.
func (f tubeFloor) snapBack() []pattern.Point {
	l, c, r, half := f.long, f.clear, f.reach, f.deep-f.over
	return []pattern.Point{pt(c, 0), pt(l-c, 0), pt(l-c, f.deep), pt(l-r-c, f.deep), pt(l-r-c, half), pt(r+c, half), pt(r+c, f.deep), pt(c, f.deep)}
}

// snapFront is a flap that runs to a tongue.
func (f tubeFloor) snapFront() []pattern.Point {
	l, c, r, tip := f.long, f.clear, f.reach, tongueTip
	near, far := r+2*c, l-r-2*c
	return []pattern.Point{pt(c, 0), pt(l-c, 0), pt(far, r+c), pt(far, f.deep-tip), pt(far-tip, f.deep), pt(near+tip, f.deep), pt(near, f.deep-tip), pt(near, r+c)}
}

// snapSide is a side's flap, cut off at 45° towards the back.
func (f tubeFloor) snapSide(wide measure.Length, backNext bool) []pattern.Point {
	c, r := f.clear, f.reach
	if backNext {
		return []pattern.Point{pt(c, 0), pt(wide-c, 0), pt(wide-c-r, r), pt(c, r)}
	}
	return []pattern.Point{pt(c, 0), pt(wide-c, 0), pt(wide-c, r), pt(c+r, r)}
}

// opening is a flap of a floor that opens by itself: of front or back, half of it reaches past the
// middle; of a side, cut off at 45° to the right, with a triangle to the left that is glued.
func (f tubeFloor) opening(side string, wide measure.Length) []pattern.Point {
	c, r := f.clear, f.reach
	if side == "left" || side == "right" {
		return []pattern.Point{pt(c, 0), pt(wide-c, 0), pt(wide-c-r, r), pt(r, r), pt(c, c)}
	}
	return []pattern.Point{pt(c, 0), pt(wide-c, 0), pt(wide-c-f.deep/2, f.deep), pt(wide/2, f.deep), pt(wide/2, r), pt(c, r)}
}

// shapedTube is how a hand makes a tube whose floor is drawn round its template.
func (s Spec) shapedTube(p *pattern.Pattern, around [4]string, floor string) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Across: true, Panels: true, Words: []string{"1", "2", "3", "4", "tab"}})
	m.traced()
	bent := slices.ContainsFunc(p.Creases, func(c pattern.Crease) bool { return c.Rolled })
	if slices.ContainsFunc(p.Creases, func(c pattern.Crease) bool { return towards(c) || overFlat(c) }) {
		m.do(hand.FoldWays{Towards: m.creases(towards), Flat: m.creases(overFlat), Said: hand.Say("fold-as-shown")})
	} else {
		m.do(hand.FoldAll{})
	}
	if bent {
		m.do(hand.Bend{Said: hand.Say("top-stays")})
	}
	if floor == openingFloor {
		m.patches(around)
	}
	if _, sloped := p.Mark("tab.slope"); sloped {
		m.stick(hand.Stick{Way: hand.Ring, What: m.parts("tab", nil, "tab", "tab.slope"), Onto: m.parts("panel", nil, around[0], "slope."+around[0]), Outside: true})
	} else {
		m.stick(hand.Stick{Way: hand.Tube, What: m.parts("tab", nil, "tab"), Onto: m.parts("panel", nil, around[0]), Outside: true})
	}
	if floor == openingFloor {
		m.do(hand.Dry{Said: hand.Say("floor-opens")})
		return m.moves
	}
	var sides []string
	for i, w := range around {
		if w == "left" || w == "right" {
			sides = append(sides, strconv.Itoa(i+1))
		}
	}
	back, front := []string{panelOf(around, "back")}, []string{panelOf(around, "front")}
	m.do(hand.Dry{Said: hand.Said{Key: "floor-locks", Names: map[string][]string{"panel": back, "panels": sides}}},
		hand.Dry{Said: hand.Said{Key: "floor-tongue", Names: map[string][]string{"panel": front}}})
	return m.moves
}

// patches sticks the two triangles of a floor that opens by itself, while it lies flat.
func (m *making) patches(around [4]string) {
	var what, onto []string
	for i, w := range around {
		if w == "left" || w == "right" {
			what, onto = append(what, "patch."+w), append(onto, "bottom."+beside(around, i))
		}
	}
	m.stick(hand.Stick{Way: openingWay, OntoOutside: true, What: m.parts("triangle", nil, what...), Onto: m.parts("bottom-flap", nil, onto...)})
}

// openingWay is how the triangles of a floor that opens by itself are stuck.
const openingWay hand.Way = "floor-flat"

// bottoms wedges the bottom flaps and lays front and back over the sides.
func bottoms(g *pattern.Grid, around [4]string, b measure.Length) {
	for i, side := range around {
		flap := g.Face("bottom." + side)
		g.Call(flap, side+" bottom flap")
		g.Role(pattern.Tab, flap)
		g.Tab(flap, g.Face(side), b, min(b/4, 2*flapWedge))
		if i > 0 {
			g.Slit(g.Face("bottom."+around[i-1]), flap)
		}
	}
	for _, over := range []string{"front", "back"} {
		for _, under := range []string{"right", "left"} {
			g.Over(g.Face("bottom."+over), g.Face("bottom."+under))
		}
	}
}
