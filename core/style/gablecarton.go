package style

import (
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	roofLength = &Parameter{
		ID: "length", Label: "Length", Default: 13 * quarterInch, Min: 40 * mm, Max: 300 * mm,
		About: "l: along the ridge, between folds; no less than the width",
	}
	roofWidth = &Parameter{
		ID: "width", Label: "Width", Default: 7 * quarterInch, Min: 25 * mm, Max: 200 * mm,
		About: "w: across the ridge, between folds",
	}
	roofHeight = &Parameter{
		ID: "height", Label: "Height", Default: 3 * measure.Inch, Min: 20 * mm, Max: 300 * mm,
		About: "h: the walls, from the floor to where the roof begins",
	}
	roofSlope = &Parameter{
		ID: "slope", Label: "Slope", Default: 3 * measure.Inch / 2, Min: 14 * mm, Max: 200 * mm,
		About:   "s: from the walls up to the ridge, along the card; more than half the width",
		Follows: func(s Spec) measure.Length { return measure.Up(s.Size(roofWidth)*5/6, s.Tick) },
	}
	roofFin = &Parameter{
		ID: "fin", Label: "Fin", Default: 3 * measure.Inch / 2, Min: 10 * mm, Max: 80 * mm,
		About: "n: how high the ridge stands up above the roof, for a hand",
	}
	roofTab = &Parameter{
		ID: "tab", Label: "Tab", Default: measure.Inch / 2, Min: 6 * mm, Max: 25 * mm,
		About: "The strip that joins the tube",
	}
	roofOverlap = &Parameter{
		ID: "overlap", Label: "Floor's overlap", Default: measure.Inch / 2, Min: 5 * mm, Max: 80 * mm,
		About:   "e: how far the flaps of a floor without glued wedges reach past the middle",
		Follows: func(s Spec) measure.Length { return s.overlapOf(s.Size(roofWidth)) },
	}
	roofFloor = &Option{
		ID: "floor", Label: "Floor", Kind: ChoiceKind, Choices: []string{snapFloor, openingFloor}, DefaultChoice: snapFloor,
		About: "Flaps that lock in one another without glue; or a glued floor that lies flat and opens by itself",
	}
	roofEnds = &Option{
		ID: "end.fins", Label: "Fins of the ends", Kind: ChoiceKind, Choices: []string{"folded", "cut"}, DefaultChoice: "folded",
		About: "Folded in between the other two, or cut away, so that a longer hole goes through two cards only",
	}
	roofHole = &Option{
		ID: "hole", Label: "Handle's hole", Kind: LengthKind, Default: measure.Inch, Min: 0, Max: 120 * mm,
		About: "q: how long the hole through the fins is; 0 for none",
		Follows: func(s Spec) measure.Length {
			most := min(measure.Down(s.mostHole(), s.Tick), s.about(3*measure.Inch/2))
			if most < leastHole || s.finHole() < leastHoleHigh {
				return 0
			}
			return most
		},
	}
)

var gableCarton = &Style{
	ID: "gable-carton", Name: "Gable carton", About: "A carton with a roof and a fin to carry it by",
	For:   []Use{ForTreats},
	Suits: []string{"cookie", "biscuit", "muffin", "cupcake", "gingerbread", "lunch"},
	Opens: "the roof's fins come apart", Strength: "good: a tube whose roof holds it square",
	Parameters: []*Parameter{roofLength, roofWidth, roofHeight, roofSlope, roofFin, roofTab, roofOverlap},
	Options:    []*Option{roofFloor, roofEnds, roofHole, adhesive},
	Axes:       [3]*Parameter{roofLength, roofWidth, roofHeight},
	Build:      buildGableCarton,
}

const (
	// finUnder is what card stays under a fin's hole and finOver above it; finBeside is what stays
	// beside it, both ends together.
	finUnder  = 8 * measure.Millimetre
	finOver   = 10 * measure.Millimetre
	finBeside = 10 * measure.Millimetre
	// leastHole is the shortest hole that fingers go through, leastHoleHigh the lowest, and
	// mostHoleHigh as high as they need.
	leastHole     = 25 * measure.Millimetre
	leastHoleHigh = 10 * measure.Millimetre
	mostHoleHigh  = 20 * measure.Millimetre
)

// finHole is how high the hole in the fins is.
func (s Spec) finHole() measure.Length {
	return min(s.about(mostHoleHigh), measure.Down(s.Size(roofFin)-finUnder-finOver, s.cutting()))
}

func buildGableCarton(s Spec) (*Box, error) {
	l, w, h := s.Size(roofLength), s.Size(roofWidth), s.Size(roofHeight)
	slope, fin, cut := s.Size(roofSlope), s.Size(roofFin), s.Choice(roofEnds) == "cut"
	if err := s.atMost(roofWidth, l, "the ends would meet under the ridge"); err != nil {
		return nil, err
	}
	if least := steeper(w, s.Tick); slope < least {
		return nil, outOfRange("size.slope", "the slope must be at least %s, over half the width, or the roof does not rise", s.show(least))
	}
	foot, err := s.tubeFloor(roofFloor, roofLength, roofWidth, roofOverlap, nil)
	if err != nil {
		return nil, err
	}
	if h < foot.least {
		return nil, outOfRange("size.height", "the walls must be at least %s high for this floor", s.show(foot.least))
	}
	if err := s.atMost(roofTab, l-2*mm, "it is glued inside the back"); err != nil {
		return nil, err
	}
	around, top := seams["back"], fin+slope
	columns := []measure.Length{l, w, l, w, s.Size(roofTab)}
	r := roof{w: l.MM(), d: w.MM(), wall: h.MM(), slope: slope.MM(), fin: fin.MM(), foot: (top + h).MM(), upwards: -1, ends: !cut}
	g := s.ridgedTube(around, columns, fin, slope, h, foot, !cut)
	r.panels(g)
	tab := g.Face("tab")
	g.Role(pattern.Tab, tab)
	g.Glue(tab, true, g.Face(around[0]))
	foot.draw(g, around, columns, top+h)
	for _, side := range around {
		g.Up(g.Face("bottom."+side), g.Face(side))
	}
	if err := s.finHoles(g, columns); err != nil {
		return nil, err
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	if err := p.AnglesFrom(r.place, r.closing(0.9)); err != nil {
		return nil, err
	}
	doubled(p)
	open(p, top)
	part := Part{
		ID: "body", Name: "Carton", Pattern: p, Root: "front", Opens: Upright, Card: s.Card("body"), Way: r.way(p),
		Handle: s.Length(roofHole) > 0,
		Making: told(func() []hand.Move { return s.shapedTube(p, around, foot.kind) }),
	}
	room, err := roomOf(part)
	if err != nil {
		return nil, err
	}
	t := part.Card.MM()
	straight := h.MM() - 3*t
	inside := room.Largest
	inside.Height = measure.FromMM(straight)
	box := &Box{Parts: []Part{part}, Room: Block(inside, r3.Vec{Z: t / 2}).under("a block under a ridge", r.under(straight, 5*t)), Shut: ByClip, Flat: foot.kind == openingFloor}
	box.Together = []hand.Move{hand.Fill{Into: "body"}, hand.Shut{Said: hand.Say("ridge-close")}, hand.Hold{Said: hand.Say("ridge-clip")}}
	if s.Length(roofHole) > 0 {
		box.Shut, box.Together[2] = ByRibbon, hand.Hold{Said: hand.Say("fins-tied")}
	}
	return box, nil
}

// mostHole is the longest hole that leaves finBeside of card beside it: between the fins of the
// ends, or between the corners where those are cut away.
func (s Spec) mostHole() measure.Length {
	if s.Choice(roofEnds) == "cut" {
		return s.Size(roofLength) - 2*finBeside
	}
	return s.Size(roofLength) - s.Size(roofWidth) - finBeside
}

// finHoles cuts a hole for a hand through both long fins.
func (s Spec) finHoles(g *pattern.Grid, columns []measure.Length) error {
	long, high := s.Length(roofHole), s.finHole()
	if long == 0 {
		return nil
	}
	if most := s.mostHole(); long > most {
		return outOfRange("options.hole", "the hole can be at most %s, beside the ends' fins; make it shorter, cut those fins away, or 0 for none", s.show(max(0, most)))
	}
	if high < leastHoleHigh {
		return outOfRange("size.fin", "a fin with a hole for a hand is at least %s high; 0 is no hole", s.show(finUnder+leastHoleHigh+finOver))
	}
	if long < high {
		return outOfRange("options.hole", "the hole is at least as long as it is high, %s; 0 is none", s.show(high))
	}
	left := measure.Length(0)
	for i, side := range seams["back"] {
		if side == "back" || side == "front" {
			middle := pt(left+columns[i]/2, s.Size(roofFin)-finUnder-high/2)
			g.Hole(g.Face("fin."+side), "hole", opening("slot", middle, long.MM()/2, high.MM()/2))
		}
		left += columns[i]
	}
	return nil
}
