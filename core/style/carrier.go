package style

import (
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	carriedLength = &Parameter{
		ID: "length", Label: "Small box, length", Default: 3 * measure.Inch / 2, Min: 20 * mm, Max: 120 * mm,
		About: "Of one small box, between folds; in a strip the side of the square one",
	}
	carriedWidth = &Parameter{
		ID: "width", Label: "Small box, width", Default: 3 * measure.Inch / 2, Min: 20 * mm, Max: 120 * mm,
		About: "Of one small box, between folds",
		Only:  func(s Spec) bool { return s.Choice(carrierForm) == "cross" },
	}
	carriedHeight = &Parameter{
		ID: "height", Label: "Small box, height", Default: 3 * measure.Inch / 2, Min: 15 * mm, Max: 150 * mm,
		About: "Of one small box, without its lid",
	}
	carrierWalls = &Parameter{
		ID: "walls", Label: "Carrier's walls", Default: 7 * measure.Inch / 4, Min: 20 * mm, Max: 200 * mm,
		About:   "How high they stand round the boxes; as high as a box is wide with its lid, and a little",
		Only:    func(s Spec) bool { return s.Choice(carrierForm) == "cross" },
		Follows: func(s Spec) measure.Length { return min(200*mm, max(20*mm, s.cross().least)) },
	}
	carriedLid = &Parameter{
		ID: "lid.depth", Label: "Small box's lid", Default: measure.Inch / 2, Min: 6 * mm, Max: 60 * mm,
		About: "How far it comes down",
		Only:  func(s Spec) bool { return s.Choice(carrierForm) == "cross" },
	}
	carrierForm = &Option{
		ID: "form", Label: "Form", Kind: ChoiceKind, Choices: []string{"cross", "strip"}, DefaultChoice: "cross",
		About: "A cross whose walls fall open, with lidded boxes on its long walls; or a strip of four panels round three open trays",
	}
	carrierCount = &Option{
		ID: "count", Label: "Small boxes", Kind: ChoiceKind, Choices: counts, DefaultChoice: "3",
		About: "How many lidded boxes a cross carries; a strip has three trays",
	}
	carrierAllowance = &Option{
		ID: "carrier.allowance", Label: "Room round the boxes", Kind: LengthKind, Default: measure.Inch / 8, Min: 0, Max: mostAllowance,
		ForFit: true, Chained: true,
		About: "How much more the carrier measures inside than what it carries; leave it out for a millimetre a box",
		Follows: func(s Spec) measure.Length {
			return measure.Up(measure.Length(s.carried())*3*measure.Inch/100, s.Tick.System().Tick())
		},
	}
	capDepth = &Option{
		ID: "cap.depth", Label: "Depth of lid or caps", Kind: LengthKind, Default: measure.Inch / 2, Min: 6 * mm, Max: 60 * mm,
		About: "How far the carrier's lid, or a cap at each end of a strip, comes over it",
	}
)

var foldOutCarrier = &Style{
	ID: "fold-out-carrier", Name: "Fold-out carrier", About: "A hinged card that closes round small boxes; opened, they stand in a row",
	For:   []Use{ForSeveral},
	Opens: "its walls fall open", Strength: "fair: held by its lid, and a ribbon when it is carried",
	Parameters: []*Parameter{carriedLength, carriedWidth, carriedHeight, carriedLid, carrierWalls},
	Options:    []*Option{carrierForm, carrierCount, lidAllowance, carrierAllowance, capDepth, corners, adhesive},
	Axes:       [3]*Parameter{carriedLength, carriedWidth, carriedHeight},
	Allowance:  lidAllowance,
	Rooms:      Spec.carried,
	Build: func(s Spec) (*Box, error) {
		if s.Choice(carrierForm) == "strip" {
			return buildStrip(s)
		}
		return buildCross(s)
	},
}

// carried is how many small boxes there are.
func (s Spec) carried() int {
	if s.Choice(carrierForm) == "strip" {
		return 3
	}
	return s.count(carrierCount)
}

// clearOfScores is how far a small box stays from a carrier's scores and edges,
// both sides together, at its lid.
const clearOfScores = 2 * measure.Millimetre

// crossSizes are a cross's floor, and how high its walls must be for what they go round.
type crossSizes struct{ length, width, least measure.Length }

// cross sizes the carrier to its lidded boxes, lying on their sides in a row.
func (s Spec) cross() crossSizes {
	a, n := s.Length(lidAllowance), s.carried()
	tB, tL := measure.Length(0), measure.Length(0)
	for k := range n {
		tB, tL = max(tB, s.Card(fmt.Sprint("box-", k+1))), max(tL, s.Card(fmt.Sprint("lid-", k+1)))
	}
	room := s.Length(carrierAllowance)
	return crossSizes{
		length: measure.Up(measure.Length(n)*(s.Size(carriedLength)+a+tL)+room, s.Tick),
		width:  measure.Up(s.Size(carriedHeight)+tB/2+tL+room, s.Tick),
		least:  measure.Up(s.Size(carriedWidth)+a+tL+clearOfScores, s.Tick),
	}
}

func buildCross(s Spec) (*Box, error) {
	l, w, h, depth := s.Size(carriedLength), s.Size(carriedWidth), s.Size(carriedHeight), s.Size(carriedLid)
	s.most(carriedLid.limited(), h, deeperLid)
	size, wall, a := s.cross(), s.Size(carrierWalls), s.Length(lidAllowance)
	s.least(carrierWalls.limited(), size.least, "the boxes stand out above them")
	s.most(capDepth.limited(), wall, "the carrier's lid is deeper than its walls are high, and stands on the table before it closes")
	g := s.grid([]measure.Length{wall, size.length, wall}, []measure.Length{wall, size.width, wall}, `
		.     back   .
		left  base   right
		.     front  .`)
	base := g.Face("base")
	g.Role(pattern.Panel, base)
	for _, wall := range wallNames {
		g.Call(g.Face(wall), walls[wall])
		g.Up(base, g.Face(wall))
		g.Hinge(base, g.Face(wall), 90, 0)
	}
	g.Call(g.Face("back"), "first long wall")
	g.Call(g.Face("front"), "other long wall")
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	tC := s.Card("carrier")
	// The closed carrier is drawn lying on its first long wall; its lid, which
	// goes round it, keeps that off the table.
	off := (a / 2).MM()
	carrier := Part{At: r3.Vec{Z: off}, ID: "carrier", Name: "Carrier", Pattern: p, Root: "back", Opens: Upwards, Card: tC,
		Making: told(func() []hand.Move { return s.crossMaking(p, s.Size(carrierWalls)) })}
	box := &Box{Parts: []Part{carrier}, Shut: ByBand, Shuts: []string{"front", "left", "right", "base"}}
	pitch := size.length / measure.Length(s.carried())
	shape, small := s.trayShape("", "", l, w, h), s.trayShape("", "", l+a, w+a, depth)
	small.panel, small.opens = "top", Downwards
	boxPart, err := shape.part()
	if err != nil {
		return nil, err
	}
	lidPart, err := small.part()
	if err != nil {
		return nil, err
	}
	var bonds []hand.Across
	for k := range s.carried() {
		n := fmt.Sprint(k + 1)
		one, lid := boxPart, lidPart // all of them are cut alike
		one.ID, one.Name, lid.ID, lid.Name = "box-"+n, "Box "+n, "lid-"+n, "Lid "+n
		shape.id, shape.name, small.id, small.name = one.ID, one.Name, lid.ID, lid.Name
		bonds = append(bonds, hand.Across{Piece: one.ID, Face: "base", Onto: "carrier"})
		wall, over := "back", k%2 == 1
		if over {
			wall = "front"
		}
		if err := one.glued("base", "carrier", wall, false); err != nil {
			return nil, err
		}
		one.Card, lid.Card = s.Card(one.ID), s.Card(lid.ID)
		foot := (tC + one.Card) / 2
		one.At = r3.Vec{X: (pitch * (2*measure.Length(k) + 1 - measure.Length(s.carried())) / 2).MM(), Z: foot.MM()}
		if !over {
			one.At.Z += off
		}
		lid.lidOver(h, depth, lid.Card)
		lid.At = r3.Add(lid.At, one.At)
		if over { // set upside down against the wall that comes over them
			lies := pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{X: 1}), Shift: r3.Vec{Z: size.width.MM() + off}}
			one.Lies, lid.Lies = &lies, &lies
		}
		as := s.as(trayLid)
		as.Lengths[length.ID], as.Lengths[width.ID], as.Lengths[height.ID], as.Lengths[lidDepth.ID] = l, w, h, depth
		as.Lengths[lidAllowance.ID], as.Lengths[lidAllowanceWidth.ID] = a, a
		box.Small = append(box.Small, smallBox(one.ID, one.Name, as, map[string]string{"base": one.ID, "lid": lid.ID}))
		one.On, lid.On = &Carrier{"carrier", wall}, &Carrier{"carrier", wall}
		box.Parts = append(box.Parts, one, lid)
		box.Fits = s.unlike(box.Fits, small.over(shape, fit.LidOn, lid.Card, one.Card))
	}
	outer := trayShape{id: "carrier", name: "Carrier", length: size.length, width: size.width, height: wall}
	over := s.trayShape("lid", "Carrier's lid", size.length+a, size.width+a, s.Length(capDepth))
	over.panel, over.opens = "top", Downwards
	lid, err := over.part()
	if err != nil {
		return nil, err
	}
	lid.Card = s.Card("lid")
	lid.Lies = &pattern.Pose{Turn: r3.NewRotation(math.Pi/2, r3.Vec{X: 1}),
		Shift: r3.Vec{Y: (over.height - wall/2 - (tC+lid.Card)/2).MM(), Z: size.width.MM()/2 + off}}
	lid.Away = r3.Vec{Y: -1.5*wall.MM() - 20}
	box.Parts = append(box.Parts, lid)
	box.Fits = append(box.Fits, over.over(outer, fit.LidOn, lid.Card, tC)...)
	box.Together = s.crossTogether(size, bonds)
	inside, err := roomOf(box.Parts[1])
	if err != nil {
		return nil, err
	}
	box.Room, box.Room.Part = inside, "box-1"
	return box, nil
}

// unlike adds accounts that differ in card from those there are.
func (s Spec) unlike(all, more []fit.Pair) []fit.Pair {
	for _, p := range more {
		known := false
		for _, q := range all {
			known = known || q.Axis == p.Axis && q.OuterCard == p.OuterCard && q.InnerCard == p.InnerCard
		}
		if !known {
			all = append(all, p)
		}
	}
	return all
}

// crossMaking is how a hand makes a cross with walls of this height, which fall open.
func (s Spec) crossMaking(p *pattern.Pattern, wall measure.Length) []hand.Move {
	m := s.make(p)
	m.scoreFour(0, wall)
	m.do(hand.CutOff{What: m.cells("corners-open", nil, [2]int{0, 0}, [2]int{2, 0}, [2]int{0, 2}, [2]int{2, 2})}, hand.FoldAll{})
	return m.moves
}

// crossTogether is how boxes and carrier go together, are filled and closed.
func (s Spec) crossTogether(size crossSizes, bonds []hand.Across) []hand.Move {
	var standing, hanging []string
	var at, upside []measure.Length
	var first, second []hand.Across
	for k := range s.carried() {
		middle := measure.Nearest(size.length*measure.Length(2*k+1)/measure.Length(2*s.carried()), s.cutting())
		if k%2 == 0 {
			standing, at, first = append(standing, bonds[k].Piece), append(at, middle), append(first, bonds[k])
		} else {
			hanging, upside, second = append(hanging, bonds[k].Piece), append(upside, middle), append(second, bonds[k])
		}
	}
	gap := size.width - s.Size(carriedHeight) - s.Card("box-1")/2 - s.Card("lid-1")
	scraps := max(1, int((gap+s.Card("carrier")/2)/max(1, s.Card("carrier"))))
	stand, hang := strings.Join(standing, " "), strings.Join(hanging, " ")
	tell := func(key, boxes string, at []measure.Length) hand.Said {
		return hand.Said{Key: key, Pieces: map[string]string{"boxes": boxes}, Lengths: map[string][]measure.Length{"at": at}, Counts: map[string]int{"count": scraps}}
	}
	return []hand.Move{
		hand.Join{Said: hand.Say("lids-on")},
		hand.Join{Uses: []string{"carrier"}, Said: tell("cross-dry", stand, at)},
		hand.Join{Said: tell("cross-dry-between", hang, upside)}, hand.Join{Said: hand.Say("cross-try")},
		hand.Join{Bonds: first, Said: tell("cross-stand", stand, at)},
		hand.Join{Said: tell("cross-scraps", hang, upside)},
		hand.Join{Bonds: second, Said: hand.Say("cross-press")},
		hand.Fill{Into: "box-1", Said: hand.Say("fill-boxes")},
		hand.Shut{Said: tell("cross-raise", hang, nil)}, hand.Shut{Said: tell("cross-swing", stand, nil)},
		hand.Shut{Uses: []string{"lid"}, Said: hand.Say("cross-lid")}, hand.Hold{Said: hand.Say("hold-ribbon")},
	}
}
