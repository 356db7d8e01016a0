package style

import (
	"fmt"
	"math"
	"slices"
	"strconv"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	sliceLeg = &Parameter{
		ID: "leg", Label: "Leg", Default: 7 * measure.Inch / 2, Min: 35 * mm, Max: 250 * mm,
		About: "r: from the point to a back corner, along the floor",
	}
	sliceHeight = &Parameter{
		ID: "height", Label: "Height", Default: 2 * measure.Inch, Min: 15 * mm, Max: 150 * mm,
		About: "H: how high the walls stand",
	}
	sliceTab = &Parameter{
		ID: "tab", Label: "Tabs", Default: measure.Inch / 2, Min: 6 * mm, Max: 25 * mm,
		About: "g: how wide the three tabs are that join the walls",
	}
	sliceFlap = &Parameter{
		ID: "flap", Label: "Lid's flaps", Default: measure.Inch / 2, Min: 6 * mm, Max: 40 * mm,
		About: "f: how deep the lid's flaps are, that are tucked in behind the walls",
	}
	sliceCount = &Option{
		ID: "count", Label: "In a ring", Kind: ChoiceKind, Choices: []string{"4", "5", "6", "7", "8", "9", "10", "11", "12"}, DefaultChoice: "8",
		About: "How many slices make a round",
	}
	sliceMade = &Option{
		ID: "made", Label: "Made as", Kind: ChoiceKind, Choices: []string{oneSlice, wholeRing}, DefaultChoice: oneSlice,
		About: "One slice alone, or as many as make the round, points together",
	}
)

// What is made of slices.
const oneSlice, wholeRing = "slice", "ring"

var slice = &Style{
	ID: "slice", Name: "Slice", About: "A wedge with a lid, like a piece of cake; several in a ring make a round",
	For:   []Use{ForTreats},
	Suits: []string{"tart", "cake", "pie", "pizza", "quiche", "cheese"},
	Opens: "the lid folds back", Strength: "good: walls glued at all corners",
	Untold:     true,
	Parameters: []*Parameter{sliceLeg, sliceHeight, sliceTab, sliceFlap},
	Options:    []*Option{sliceMade, sliceCount, adhesive},
	Axes:       [3]*Parameter{sliceLeg, sliceLeg, sliceHeight},
	Rooms:      Spec.slices,
	Several:    ringOf,
	Build:      buildSlice,
}

const (
	// slicePlay is what a lid leaves free beside each wall besides the card.
	slicePlay = measure.Millimetre / 4
	// besideTab is what a lid's flap leaves free beside a tab, and mostOver how far slices may
	// lie over one another in a ring, by rounding.
	besideTab = 2 * measure.Millimetre
	mostOver  = measure.Millimetre
)

// wedge is a slice's floor, in mm: its back and how far that is from the point, on the board's
// grooves; half is the angle between its middle line and a leg.
type wedge struct {
	n                int
	back, deep, high float64
}

func (w wedge) half() float64 { return math.Atan(w.back / 2 / w.deep) }
func (w wedge) leg() float64  { return math.Hypot(w.back/2, w.deep) }

// opening is what a ring of them leaves open at its rim.
func (w wedge) opening() float64 { return (2*math.Pi - 2*float64(w.n)*w.half()) * w.leg() }

func (s Spec) wedge() wedge {
	n := s.count(sliceCount)
	r, at := s.Size(sliceLeg).MM(), math.Pi/float64(n)
	deep := measure.Nearest(measure.FromMM(r*math.Cos(at)), s.cutting())
	back := measure.Nearest(measure.FromMM(2*r*math.Sin(at)), s.cutting())
	w := wedge{n, back.MM(), deep.MM(), s.Size(sliceHeight).MM()}
	if over := -w.opening(); over > mostOver.MM() { // a back one mark narrower leaves them apart
		w.back -= s.cutting().Length().MM()
	}
	return w
}

func buildSlice(s Spec) (*Box, error) {
	w := s.wedge()
	t, tab, flap := s.Card("body").MM(), s.Size(sliceTab).MM(), s.Size(sliceFlap).MM()
	inset := t + slicePlay.MM()
	lidBack, lidDeep := w.back-2*inset/math.Cos(w.half()), w.deep-inset/math.Sin(w.half())
	lidLeg := math.Hypot(lidBack/2, lidDeep)
	from, to := tab+besideTab.MM(), lidLeg-tab-besideTab.MM()
	if to-from < 2*flap+5 {
		return nil, outOfRange("size.flap", "the lid's legs are too short for flaps of %s beside the tabs; make the leg longer, or flaps and tabs smaller", s.show(s.Size(sliceFlap)))
	}
	if err := s.atMost(sliceFlap, s.Size(sliceHeight)-2*mm, "they would stand on the floor"); err != nil {
		return nil, err
	}
	if err := s.atMost(sliceTab, measure.FromMM(w.back/2-1), "the two in the back would lie over each other"); err != nil {
		return nil, err
	}
	b := pattern.NewBuilder()
	b.CutOn(s.cutting())
	b.ByTemplate()
	right, left, foot := pattern.Pt(w.back/2, w.deep), pattern.Pt(-w.back/2, w.deep), w.deep+w.high
	floor := b.Polygon("base", pattern.Pt(0, 0), right, left)
	b.Role(pattern.Panel, floor)
	back := b.Polygon("back", left, right, pattern.Pt(w.back/2, foot), pattern.Pt(lidBack/2, foot), pattern.Pt(-lidBack/2, foot), pattern.Pt(-w.back/2, foot))
	b.Call(back, "back wall")
	sides := s.sliceWalls(b, w, back, tab)
	tip, lidRight, lidLeft := pattern.Pt(0, foot+lidDeep), pattern.Pt(lidBack/2, foot), pattern.Pt(-lidBack/2, foot)
	lid := b.Polygon("lid", lidLeft, lidRight, toward(lidRight, tip, lidLeg-to), toward(lidRight, tip, lidLeg-from), tip, toward(lidLeft, tip, lidLeg-from), toward(lidLeft, tip, lidLeg-to))
	b.Role(pattern.Panel, lid)
	b.Hinge(back, lid, 90, 0)
	// Folded over, the lid's right leg lies over the right wall.
	flaps := []*pattern.Leaf{
		hanging(b, "flap.right", toward(lidRight, tip, lidLeg-from), toward(lidRight, tip, lidLeg-to), flap, flap),
		hanging(b, "flap.left", toward(lidLeft, tip, lidLeg-to), toward(lidLeft, tip, lidLeg-from), flap, flap),
	}
	for i, f := range flaps {
		b.Call(f, []string{"right flap of the lid", "left flap of the lid"}[i])
		b.Role(pattern.Flap, f)
		b.TuckApart(f, sides[i], inset)
	}
	b.Up(floor, back, sides[0], sides[1])
	p, err := b.Pattern()
	if err != nil {
		return nil, err
	}
	part := Part{ID: "body", Name: "Slice", Pattern: p, Root: "base", Opens: Upwards, Card: s.Card("body"),
		Making: told(func() []hand.Move { return s.byTemplate(p) })}
	box := &Box{
		Parts: []Part{part}, Room: w.room(t, inset+t/2, s), Shut: ByTuck,
		Together: []hand.Move{hand.Fill{Into: "body"}, hand.Shut{Said: hand.Say("shut-slice")}},
	}
	if s.slices() > 1 {
		return box, box.round(w, flap)
	}
	return box, nil
}

// ringOf are the choices of a ring of so many.
func ringOf(n int) map[string]string {
	count := strconv.Itoa(n)
	if !slices.Contains(sliceCount.Choices, count) {
		return nil
	}
	return map[string]string{sliceMade.ID: wholeRing, sliceCount.ID: count}
}

// slices is how many the box has.
func (s Spec) slices() int {
	if s.Choice(sliceMade) == oneSlice {
		return 1
	}
	return s.count(sliceCount)
}

// round sets as many slices as make a ring with their points together, so far from its middle that
// the card of neighbours' walls lies side by side.
func (b *Box) round(w wedge, flap float64) error {
	p := &b.Parts[0]
	f, err := p.Pattern.Finished(p.Root)
	if err != nil {
		return err
	}
	p.Count = w.n
	out := r3.Vec{Y: w.deep/2 + p.Card.MM()/2/math.Sin(w.half())}
	for i := range w.n {
		pose := p.stand(f)
		pose.Shift = r3.Add(pose.Shift, out)
		p.Places = append(p.Places, pose.Then(pattern.Pose{Turn: r3.NewRotation(2*math.Pi*float64(i)/float64(w.n), r3.Vec{Z: 1})}))
	}
	p.Apart = flap / math.Sin(w.half()) // so that open lids' flaps pass one another
	b.Room.At = r3.Add(b.Room.At, out)
	b.Together = []hand.Move{hand.Fill{Into: "body", Said: hand.Say("fill-slices")}, hand.Shut{Said: hand.Say("shut-slices")}}
	return nil
}

// sliceWalls are the right and the left wall with their tabs: one at the point, inside the left
// wall, and one at either end of the back, inside it. Their tops stay under the rim, where the lid
// lies on them.
func (s Spec) sliceWalls(b *pattern.Builder, w wedge, back *pattern.Leaf, tab float64) []*pattern.Leaf {
	tall, turn := w.high-s.cutting().Length().MM(), w.half()*180/math.Pi
	point, rear := pattern.Pt(0, 0), []pattern.Point{pattern.Pt(w.back/2, w.deep), pattern.Pt(-w.back/2, w.deep)}
	var walls []*pattern.Leaf
	var ups []pattern.Point // from each wall's foot to its rim, of length 1
	for i, side := range []string{"right", "left"} {
		from, to := rear[0], point
		if i == 1 {
			from, to = point, rear[1]
		}
		along := to.Sub(from).Scale(1 / to.Sub(from).Len())
		up := pattern.Pt(-along.Y, along.X)
		wall := b.Polygon(side, from, to, to.Add(up.Scale(tall)), to.Add(up.Scale(w.high)), from.Add(up.Scale(w.high)), from.Add(up.Scale(tall)))
		b.Call(wall, side+" wall")
		walls, ups = append(walls, wall), append(ups, up)
	}
	join := func(name, words string, on, onto *pattern.Leaf, fold float64, from, to pattern.Point) {
		leaf := hanging(b, name, from, to, tab, tabWedge.MM())
		b.Role(pattern.Tab, leaf)
		b.Call(leaf, words)
		b.Fold(on, leaf, fold, pattern.Away)
		b.Glue(leaf, true, onto)
	}
	join("tab.point", "tab at the point", walls[0], walls[1], 180-2*turn, point.Add(ups[0].Scale(tall)), point)
	join("tab.right", "right tab at the back", walls[0], back, 90+turn, rear[0], rear[0].Add(ups[0].Scale(tall)))
	join("tab.left", "left tab at the back", walls[1], back, 90+turn, rear[1].Add(ups[1].Scale(tall)), rear[1])
	return walls
}

// hanging is a face on an edge, from its one end to the other with the face to the right: so deep,
// and narrower by a wedge at either free end.
func hanging(b *pattern.Builder, name string, from, to pattern.Point, deep, wedge float64) *pattern.Leaf {
	along := to.Sub(from).Scale(1 / to.Sub(from).Len())
	out, slope := pattern.Pt(-along.Y, along.X).Scale(deep), along.Scale(wedge)
	return b.Polygon(name, from, to, to.Add(out).Sub(slope), from.Add(out).Add(slope))
}

// room is a block against the back, half as wide as that is clear; walls, tabs and the lid's flaps
// take their share on all three sides.
func (w wedge) room(card, inset float64, s Spec) Room {
	slope := math.Tan(w.half())
	point, rear := inset/math.Sin(w.half()), w.deep-inset
	deep := rear - point
	middle := rear - deep/4
	half := deep * slope
	r := Block(Extent{
		measure.Down(measure.FromMM(half), measure.Tenth), measure.Down(measure.FromMM(deep/2), measure.Tenth),
		s.Size(sliceHeight) - s.Card("body"),
	}, r3.Vec{Y: middle - w.deep/2, Z: card / 2})
	r.Floor = []pattern.Point{{X: 0, Y: point - middle}, {X: half, Y: rear - middle}, {X: -half, Y: rear - middle}}
	r.Shape = "a wedge"
	if open := measure.FromMM(w.opening()); open > 0 {
		r.Shape += fmt.Sprintf("; %d of them in a ring leave %s open at the rim", w.n, s.show(measure.Nearest(open, measure.Tenth)))
	}
	return r
}
