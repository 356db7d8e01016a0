package style

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/num/quat"
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// The curves that a round box may stand on.
const (
	circleCurve = "circle"
	ovalCurve   = "oval"
	eggCurve    = "egg"
	heartCurve  = "heart"
)

// onCurve tells that a size counts for some of them alone.
func onCurve(kinds ...string) func(Spec) bool {
	return func(s Spec) bool { return slices.Contains(kinds, s.Choice(roundCurve)) }
}

var (
	roundAcross = &Parameter{
		ID: "across", Label: "Across", Default: 3 * measure.Inch, Min: 30 * mm, Max: 250 * mm,
		About: "From side to side of the inner floor; of a circle, its diameter",
	}
	roundDeep = &Parameter{
		ID: "deep", Label: "Deep", Default: 2 * measure.Inch, Min: 30 * mm, Max: 250 * mm,
		About: "From front to back of the inner floor; of an egg, its longer half in front",
		Follows: func(s Spec) measure.Length {
			if s.Choice(roundCurve) == eggCurve {
				return measure.Nearest(s.Size(roundAcross)*5/4, s.Tick)
			}
			return measure.Nearest(s.Size(roundAcross)*2/3, s.Tick)
		},
		Only: onCurve(ovalCurve, eggCurve),
	}
	roundLobe = &Parameter{
		ID: "lobe", Label: "Lobes' radius", Default: 7 * measure.Inch / 8, Min: 14 * mm, Max: 90 * mm,
		About: "Of the heart's two circles",
		Only:  onCurve(heartCurve),
		Follows: func(s Spec) measure.Length {
			return measure.Nearest(s.Size(roundAcross)*5/17, s.Tick)
		},
	}
	roundApart = &Parameter{
		ID: "apart", Label: "Lobes' offset", Default: 5 * measure.Inch / 8, Min: 4 * mm, Max: 80 * mm,
		About:   "How far the middle of a lobe lies from the heart's middle line; less than the radius",
		Follows: func(s Spec) measure.Length { return measure.Nearest(s.Size(roundLobe)*7/10, s.Tick) },
		Only:    onCurve(heartCurve),
	}
	roundHeight = &Parameter{
		ID: "height", Label: "Height", Default: 7 * quarterInch, Min: 12 * mm, Max: 250 * mm,
		About: "H: the base's wall, above its teeth",
	}
	roundTeeth = &Parameter{
		ID: "teeth", Label: "Teeth", Default: 3 * measure.Inch / 8, Min: 5 * mm, Max: 20 * mm,
		About:   "d: how deep the sawtooth strip is that the floor is glued on",
		Follows: func(s Spec) measure.Length { return measure.Up(8*mm, s.Tick) },
	}
	roundLap = &Parameter{
		ID: "lap", Label: "Lap", Default: measure.Inch / 2, Min: 6 * mm, Max: 30 * mm,
		About: "How far a wall laps inside itself where it is joined",
	}
	roundGap = &Parameter{
		ID: "gap", Label: "Gap", Default: 8 * measure.Millimetre / 10, Min: 0, Max: 4 * mm,
		About:   "g: what is free between base and lid, both sides together",
		Follows: func(s Spec) measure.Length { return 8 * mm / 10 },
	}
	roundCurve = &Option{
		ID: "curve", Label: "Floor", Kind: ChoiceKind, Choices: []string{circleCurve, ovalCurve, eggCurve, heartCurve}, DefaultChoice: circleCurve,
		About: "The shape of the floor",
	}
	roundTip = &Option{
		ID: "tip", Label: "Heart's tip", Kind: ChoiceKind, Choices: []string{"40", "45", "50"}, DefaultChoice: "45",
		About: "Half the angle of the tip, in degrees",
	}
	roundLidDepth = &Option{
		ID: "lid.depth", Label: "Lid depth", Kind: LengthKind, Default: 3 * measure.Inch / 4, Min: 6 * mm, Max: 150 * mm,
		About: "How far down the lid's wall reaches",
	}
)

var roundBox = &Style{
	ID: "round-box", Name: "Round box", About: "A bent wall on a circle, an oval, an egg or a heart, with a lift-off lid",
	For:   []Use{ForGifts, ForTreats},
	Suits: []string{"wreath", "hat", "bauble", "garland", "sweet", "biscuit"},
	Opens: "the lid lifts off", Strength: "good: two discs in the floor and the lid",
	Untold:     true,
	Parameters: []*Parameter{roundAcross, roundDeep, roundLobe, roundApart, roundHeight, roundTeeth, roundLap, roundGap},
	Options:    []*Option{roundCurve, roundTip, roundLidDepth, adhesive},
	Axes:       [3]*Parameter{roundAcross, roundAcross, roundHeight},
	Build:      buildRoundBox,
}

const (
	// roundPlay is what is free between the inner floor and the wall, and how far the wall's flats may
	// lie beside the curve.
	roundPlay = measure.Millimetre / 4
	// tightestBend is the smallest radius that card is bent to.
	tightestBend = 12 * measure.Millimetre
	// toothPlay is what two teeth that are folded in leave free between them at their tips.
	toothPlay = measure.Millimetre / 2
)

// roundLine is the curve for the sizes.
func (s Spec) roundLine() (curve, error) {
	play := roundPlay.MM()
	across, deep := s.Size(roundAcross).MM(), s.Size(roundDeep).MM()
	var c curve
	switch s.Choice(roundCurve) {
	case circleCurve:
		c = newEgg(across, across/2, across/2, play)
	case ovalCurve:
		c = newEgg(across, deep/2, deep/2, play)
	case eggCurve:
		if err := s.atMost(roundAcross, s.Size(roundDeep)*2-2*mm, "an egg's half circle is deeper than the whole"); err != nil {
			return nil, err
		}
		c = newEgg(across, deep-across/2, across/2, play)
	default:
		if err := s.atMost(roundApart, s.Size(roundLobe)*95/100, "the lobes would not meet"); err != nil {
			return nil, err
		}
		c = newHeart(s.Size(roundLobe).MM(), s.Size(roundApart).MM(), float64(s.count(roundTip))*math.Pi/180, play)
	}
	if least := max(tightestBend.MM(), 2*s.Size(roundTeeth).MM()); c.tightest() < least {
		return nil, outOfRange("size.teeth", "the wall bends to a radius of %s, and needs %s: less card breaks, and teeth of this depth meet", s.show(measure.FromMM(c.tightest())), s.show(measure.FromMM(least)))
	}
	return c, nil
}

// bentWall is a strip that is bent along a curve, with teeth at its foot.
type bentWall struct {
	id, name   string
	line       []pattern.Point // where its flats meet
	high       measure.Length
	teeth, lap measure.Length
	long       measure.Length // without the lap
}

// bentWall is a strip so long that is bent along a curve; where that turns in, it is folded at half.
func (s Spec) bentWall(id, name string, c curve, long, high measure.Length) bentWall {
	w := bentWall{id: id, name: name, high: high, teeth: s.Size(roundTeeth), lap: s.Size(roundLap)}
	w.long = long
	// The flats lie a little further out than the curve, so that they are as long: by as much as a
	// line moved out grows, a few times over.
	out := (long.MM() - c.length(0)) / (2 * math.Pi)
	for range 8 {
		w.line = c.out(out)
		out += (long.MM() - around(w.line)) / (2 * math.Pi)
	}
	w.line = c.out(out)
	return w
}

func buildRoundBox(s Spec) (*Box, error) {
	c, err := s.roundLine()
	if err != nil {
		return nil, err
	}
	t, play, g := s.Card("base").MM(), roundPlay.MM(), s.Size(roundGap).MM()
	tick := s.cutting()
	if c.notched() { // half of it is scored, too
		tick = 2 * min(s.Tick, s.Tick.System().Tick())
	}
	// The lid's wall is longer by the card of both and the gap, all round.
	long := measure.Up(measure.FromMM(c.length(t/2+play)), tick)
	base := s.bentWall("base", "Base wall", c, long, s.Size(roundHeight))
	lid := s.bentWall("lid", "Lid wall", c, long+measure.Up(measure.FromMM(2*math.Pi*t+math.Pi*g), tick), s.Length(roundLidDepth))
	s.most(roundLidDepth.limited(), s.Size(roundHeight), deeperLid)
	wall, err := s.wallPart(base)
	if err != nil {
		return nil, err
	}
	over, err := s.wallPart(lid)
	if err != nil {
		return nil, err
	}
	box := &Box{Shut: ByFriction}
	high := s.Size(roundHeight).MM()
	floor := []struct {
		id, name, onto string
		out, z         float64
		lid            bool
	}{
		{"base.outer", "Bottom disc", "", play + t, 0, false}, {"base.inner", "Floor disc", "base", 0, 2 * t, false},
		{"lid.outer", "Top disc", "", 2*t + g/2 + play, high + 4*t, true}, {"lid.inner", "Lid disc", "lid", t + g/2, high + 2*t, true},
	}
	wall.Places = []pattern.Pose{base.stood(t, false)}
	over.Places = []pattern.Pose{lid.stood(high+3*t, true)}
	lift := r3.Vec{Z: 1.9*s.Length(roundLidDepth).MM() + 8}
	over.Away = lift
	box.Parts = append(box.Parts, wall, over)
	for _, d := range floor {
		part, err := s.disc(d.id, d.name, c, d.out, d.z, d.onto, d.lid)
		if err != nil {
			return nil, err
		}
		if d.lid {
			part.Away = lift
		}
		box.Parts = append(box.Parts, part)
	}
	box.Fits = []fit.Pair{s.roundFit(base, lid)}
	box.Room = s.roundRoom(c, t)
	box.Together = s.roundTogether(wall, over)
	return box, nil
}

// wallPart is the strip: flats side by side with a tooth each, then the lap.
func (s Spec) wallPart(w bentWall) (Part, error) {
	b := pattern.NewBuilder()
	n := len(w.line)
	x := make([]measure.Length, n+1)
	turn := make([]float64, n) // at each flat's left end, in degrees
	for i := range n {
		next, before := w.line[(i+1)%n].Sub(w.line[i]), w.line[i].Sub(w.line[(i+n-1)%n])
		x[i+1] = x[i] + measure.FromMM(next.Len())
		turn[i] = math.Atan2(before.Cross(next), before.Dot(next)) * 180 / math.Pi
	}
	x[n] = w.long
	var flats []*pattern.Leaf
	foot, deep := w.high, w.high+w.teeth
	other := w.id + ".outer"
	for i := range n {
		flat := b.Polygon(fmt.Sprint("wall.", i+1), pt(x[i], 0), pt(x[i+1], 0), pt(x[i+1], foot), pt(x[i], foot))
		b.Call(flat, "wall")
		b.Role(pattern.Bend, flat)
		if i > 0 {
			w.turn(b, flats[i-1], flat, turn[i])
		}
		flats = append(flats, flat)
		from, to := w.toothEnds(x[i], x[i+1], turn[i], turn[(i+1)%n])
		tooth := b.Polygon(fmt.Sprint("tooth.", i+1), pt(x[i], foot), pt(x[i+1], foot), pt(to, deep), pt(from, deep))
		b.Call(tooth, "tooth")
		b.Role(pattern.Tab, tooth)
		b.Elsewhere(tooth, true, other, nil, false)
		b.Upwards(pattern.Pt(0, -1), flat)
	}
	last := flats[n-1]
	for i, flat := range flats {
		from, to, end := w.long+x[i], w.long+x[i+1], w.long+w.lap
		if from > end-leastLapFlat && i > 0 {
			break // the one before went as far
		}
		if to > end-leastLapFlat {
			to = end
		}
		lap := b.Polygon(fmt.Sprint("lap.", i+1), pt(from, 0), pt(to, 0), pt(to, foot), pt(from, foot))
		b.Role(pattern.Tab, lap)
		b.Call(lap, "lap")
		w.turn(b, last, lap, turn[i])
		b.Glue(lap, true, flat)
		last = lap
	}
	p, err := b.Pattern()
	if err != nil {
		return Part{}, err
	}
	return Part{ID: w.id, Name: w.name, Pattern: p, Root: "wall.1", Opens: Upright, Card: s.Card(w.id),
		Making: told(func() []hand.Move { return s.bentMaking(p) })}, nil
}

// leastLapFlat is the narrowest flat of a lap that is drawn.
const leastLapFlat = measure.Millimetre / 20

// turn bends two flats; where the line turns in, or by much, it is scored.
func (w bentWall) turn(b *pattern.Builder, x, y *pattern.Leaf, degrees float64) {
	switch {
	case degrees < 0:
		b.Fold(x, y, -degrees, pattern.Towards)
	case degrees > mostBend:
		b.Fold(x, y, degrees, pattern.Away)
	default:
		b.Roll(x, y, degrees, pattern.Away)
	}
}

// mostBend is how much, in degrees, card is bent from one flat to the next; what turns more is a
// corner.
const mostBend = 45

// toothEnds are the ends of a tooth's tip: as much inside its flat that two neighbours do not meet
// when they are folded in.
func (w bentWall) toothEnds(left, right measure.Length, before, after float64) (from, to measure.Length) {
	off := func(turn float64) measure.Length {
		return measure.FromMM(w.teeth.MM()*math.Tan(max(0, turn)*math.Pi/360)) + toothPlay/2
	}
	from, to = left+off(before), right-off(after)
	if to-from < toothPlay { // a point
		mid := (left + right) / 2
		from, to = mid-toothPlay/2, mid+toothPlay/2
	}
	return from, to
}

// stood is how a wall stands: its first flat where the line has it, its teeth down at a height; or
// turned over, its teeth up.
func (w bentWall) stood(at float64, over bool) pattern.Pose {
	from, to := w.line[0], w.line[1]
	along := math.Atan2(to.Y-from.Y, to.X-from.X)
	up, round := r3.NewRotation(math.Pi/2, r3.Vec{X: 1}), r3.NewRotation(along, r3.Vec{Z: 1})
	pose := pattern.Pose{Turn: r3.Rotation(quat.Mul(quat.Number(round), quat.Number(up))), Shift: r3.Vec{X: from.X, Y: from.Y, Z: w.high.MM()}}
	return lain(pose, at, over)
}

// lain is a pose at a height, turned over from left to right first where that is asked for.
func lain(pose pattern.Pose, at float64, over bool) pattern.Pose {
	if over {
		pose = pose.Then(pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{Y: 1})})
	}
	pose.Shift.Z += at
	return pose
}

// disc is a floor or a top, the curve moved out by so much.
func (s Spec) disc(id, name string, c curve, out, at float64, onto string, over bool) (Part, error) {
	points := c.smooth(out)
	b := pattern.NewBuilder()
	b.CutOn(s.cutting())
	b.ByTemplate()
	face := b.Polygon("disc", points...)
	b.Call(face, "disc")
	b.Role(pattern.Panel, face)
	if onto != "" {
		b.Elsewhere(face, true, onto, nil, false)
	}
	p, err := b.Pattern()
	if err != nil {
		return Part{}, err
	}
	lo, _ := pattern.Bounds(points)
	pose := pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{X: 1}), Shift: r3.Vec{X: lo.X, Y: lo.Y}}
	part := Part{ID: id, Name: name, Pattern: p, Root: "disc", Opens: Upwards, Card: s.Card(id), Places: []pattern.Pose{lain(pose, at, over)}}
	if over {
		part.Opens = Downwards
	}
	part.Making = told(func() []hand.Move {
		m := s.make(p)
		m.traced()
		return m.moves
	})
	return part, nil
}

// bentMaking is how a hand makes a wall: scored, its teeth cut round a template, bent and joined.
func (s Spec) bentMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.traced()
	m.do(hand.Bend{Said: hand.Say("round-bend")})
	m.do(hand.FoldWays{Towards: m.creases(towards), Said: hand.Say("round-folds")})
	lap, onto := m.parts("tab", nil), m.parts("wall", nil)
	for _, g := range p.Glue {
		if g.Piece == "" {
			from, _ := p.Mark(g.Face)
			on, _ := p.Mark(g.Onto)
			lap.At, onto.At = append(lap.At, from.At), append(onto.At, on.At)
		}
	}
	m.stick(hand.Stick{Way: roundRing, What: lap, Onto: onto, Outside: true})
	return m.moves
}

// roundRing is how a bent wall is closed.
const roundRing hand.Way = "round"

// roundFit is the gap between base and lid.
func (s Spec) roundFit(base, lid bentWall) fit.Pair {
	span := func(w bentWall) measure.Length {
		lo, hi := pattern.Bounds(w.line)
		return measure.FromMM(hi.X - lo.X)
	}
	return fit.Pair{
		Kind: fit.LidOn, Outer: "lid", Inner: "base", OuterName: "Lid", InnerName: "Base", Axis: "across", OuterSpan: span(lid), InnerSpan: span(base),
		OuterCard: s.Card("lid"), InnerCard: s.Card("base"), OuterLayers: 1, OuterWhat: "the lid's lap", OuterDepth: lid.high, InnerDepth: base.high,
		OuterIs: "from the middle of its wall to the middle", InnerIs: "from the middle of its wall to the middle",
	}
}

// roundRoom is a column on the inner floor; of a heart, what lies in front of its notch.
func (s Spec) roundRoom(c curve, card float64) Room {
	floor := c.smooth(-s.Card("base").MM()) // the lap lies inside the wall
	if c.notched() {
		var kept []pattern.Point
		notch := floor[len(floor)/2].Y
		for _, q := range floor {
			if q.Y <= notch {
				kept = append(kept, q)
			}
		}
		floor = pattern.Hull(kept)
	}
	high := measure.FromMM(s.Size(roundHeight).MM() - 1.5*card)
	lo, hi := pattern.Bounds(floor)
	middle := lo.Add(hi).Scale(0.5)
	for i := range floor {
		floor[i] = floor[i].Sub(middle)
	}
	r := Room{Shape: "a column on " + map[string]string{circleCurve: "a circle", ovalCurve: "an oval", eggCurve: "an egg", heartCurve: "a heart, in front of its notch"}[s.Choice(roundCurve)], Floor: floor, Height: func(_, _ float64) float64 { return high.MM() }, At: r3.Vec{X: middle.X, Y: middle.Y, Z: 2.5 * card}}
	best := 0.0
	for l := 0.5; l < hi.X-lo.X; l += 0.5 {
		if w := widest(floor, l); l*w > best {
			best, r.Largest = l*w, Extent{measure.Down(measure.FromMM(l), measure.Tenth), measure.Down(measure.FromMM(w), measure.Tenth), high}
		}
	}
	return r
}

// roundTogether is how the discs are glued on the teeth, and the lid goes on.
func (s Spec) roundTogether(walls ...Part) []hand.Move {
	var out []hand.Move
	for i, w := range walls {
		outer := hand.Join{Uses: []string{w.ID}, Said: hand.Say([]string{"round-outer", "round-outer-lid"}[i])}
		for _, g := range w.Pattern.Glue {
			if g.Piece != "" {
				outer.Bonds = append(outer.Bonds, hand.Across{Piece: w.ID, Face: g.Face, Onto: g.Piece})
			}
		}
		inner := hand.Join{Bonds: bonds(w.ID+".inner", "disc", w.ID), Said: hand.Say([]string{"round-inner", "round-inner-lid"}[i])}
		out = append(out, outer, inner)
	}
	return append(out, hand.Fill{Into: "base", Said: hand.Say("fill-round")}, hand.Shut{Uses: []string{"lid"}, Said: hand.Say("lower-round")})
}
