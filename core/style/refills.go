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
	dispenserRefills = &Option{
		ID: "refills", Label: "Boxes for refills", Kind: ChoiceKind, Choices: []string{"0", "2", "4"}, DefaultChoice: "0",
		About: "Wallet boxes glued flat on its long sides, or on all four",
	}
	withRefills  = func(s Spec) bool { return s.Choice(dispenserRefills) != "0" }
	refillLength = &Parameter{
		ID: "refill.length", Label: "Refill's length", Default: 4 * measure.Inch, Min: 30 * mm, Max: 250 * mm, Only: withRefills,
		About: "At most the box's; on all four sides it must cover a narrow side with a refill on each side of it",
		Follows: func(s Spec) measure.Length {
			long, _, _ := s.pack()
			if long == 0 {
				return max(measure.Up(30*mm, s.Tick), s.Size(dispenserLength))
			}
			least := measure.Length(0)
			if s.Choice(dispenserRefills) == "4" {
				least = s.Size(dispenserWidth) + 2*s.Size(refillDepth)
			}
			return max(measure.Up(30*mm, s.Tick), least, long)
		},
	}
	refillDepth = &Parameter{
		ID: "refill.depth", Label: "Refill's depth", Default: 3 * measure.Inch / 8, Min: 3 * mm, Max: 50 * mm, Only: withRefills,
		About: "How thick a pack is that goes into it, and room to spare",
		Follows: func(s Spec) measure.Length {
			if _, _, thin := s.pack(); thin > 0 {
				return max(measure.Up(3*mm, s.Tick), thin)
			}
			return max(measure.Up(3*mm, s.Tick), min(s.about(3*measure.Inch/8), measure.Down((s.Size(dispenserLength)-s.Size(dispenserWidth))/2, s.Tick)))
		},
	}
	refillFront = &Parameter{
		ID: "refill.front", Label: "Refill's front", Default: 3 * measure.Inch / 2, Min: 12 * mm, Max: 250 * mm, Only: withRefills,
		About: "How high its front is; three quarters of its back",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(12*mm, s.Tick), measure.Down(s.Size(refillHeight)*3/4, s.Tick))
		},
	}
	refillFlap = &Parameter{
		ID: "refill.flap", Label: "Refill's flap", Default: measure.Inch, Min: 6 * mm, Max: 200 * mm, Only: withRefills,
		About: "How far its flap comes down the front",
		Follows: func(s Spec) measure.Length {
			high, front := s.Size(refillHeight), s.Size(refillFront)
			return max(measure.Up(6*mm, s.Tick), min(high, measure.Up(high-front+12*mm+s.refillNotch()/2, s.Tick)))
		},
	}
	refillShape = &Option{
		ID: "refill.shape", Label: "Refill's flap is", Kind: ChoiceKind, Choices: []string{"rounded", "straight", "pointed"}, DefaultChoice: "rounded",
		About: "Rounded, straight with a taper, or with a point",
	}
	refillShoulder = &Option{
		ID: "refill.shoulder", Label: "Its point's shoulder", Kind: LengthKind, Default: quarterInch, Min: 0, Max: 150 * mm,
		About:   "Of a pointed flap: how far its sides run straight before they go to the point",
		Follows: func(s Spec) measure.Length { return measure.Down(s.Size(refillFlap)/4, s.cutting()) },
	}
	refillHeight = &Parameter{
		ID: "refill.height", Label: "Refill's height", Default: 2 * measure.Inch, Min: 30 * mm, Max: 250 * mm, Only: withRefills,
		About: "Of its back, which is glued on; at most the box's",
		Follows: func(s Spec) measure.Length {
			if _, high, _ := s.pack(); high > 0 {
				return max(measure.Up(30*mm, s.Tick), high)
			}
			return max(measure.Up(30*mm, s.Tick), s.Size(dispenserHeight))
		},
	}
)

// pack is a refill's length, height and depth for one pack, lying flat in it:
// its sides, longest first, and the card; nothing when no pack is known.
func (s Spec) pack() (long, high, thin measure.Length) {
	if s.One == (Extent{}) {
		return 0, 0, 0
	}
	sides := []measure.Length{s.One.Length, s.One.Width, s.One.Height}
	slices.Sort(sides)
	card := s.Card("refill-1")
	up := func(l measure.Length) measure.Length { return measure.Up(l+card, s.Tick) }
	return up(sides[2]), up(sides[1]), up(sides[0])
}

// beside is how many packs stand in refills, and how large the middle must be for
// the refills to go on its sides.
func (s Spec) beside() (int, Extent) {
	n := s.count(dispenserRefills)
	long, high, thin := s.pack()
	if n == 0 || long == 0 {
		return n, Extent{}
	}
	if n == 4 { // an end one covers a narrow side, as wide as a pack is high, and two others
		long = max(long, high+2*thin)
	}
	return n, Extent{Length: long, Height: high}
}

// refillNotch is the finger notch of a refill's front, across: half an inch, or what a low front
// leaves.
func (s Spec) refillNotch() measure.Length {
	return min(s.about(measure.Inch/2), measure.Down(s.Size(refillFront)/4, s.cutting()))
}

// refills glues wallet boxes on the sides of a dispenser.
func (s Spec) refills(box *Box) error {
	n := s.count(dispenserRefills)
	if n == 0 {
		return nil
	}
	l, w, h := s.Size(dispenserLength), s.Size(dispenserWidth), s.Size(dispenserHeight)
	long, deep, high := s.Size(refillLength), s.Size(refillDepth), s.Size(refillHeight)
	s.most(refillHeight.limited(), h, "it stands over the box")
	s.most(refillLength.limited(), l, "it stands over the side that it is glued on")
	if least := w + 2*deep; n == 4 && long < least {
		return outOfRange("size.refill.length", "a refill must be at least %s long, to cover a narrow side with a refill on each side of it", s.show(least))
	}
	as := s.as(walletBox)
	as.Lengths[walletLength.ID], as.Lengths[walletDepth.ID], as.Lengths[walletBack.ID], as.Lengths[walletFront.ID] = long, deep, high, s.Size(refillFront)
	as.Lengths[walletFlap.ID], as.Lengths[walletNotch.ID] = s.Size(refillFlap), s.refillNotch()
	as.Choices[walletShape.ID], as.Lengths[walletShoulder.ID] = s.Choice(refillShape), s.Length(refillShoulder)
	s.most(refillFront.limited(), high, "it stands over its back, and the top does not lie down on it")
	s.most(refillFlap.limited(), high, "it reaches below the refill")
	s.least(refillFlap.limited(), high-s.Size(refillFront)+10*mm+s.refillNotch()/2, "it reaches over the front by little, or not at all")
	one, err := buildWalletBox(as)
	if err != nil {
		return outOfRange("size.refill.depth", "no refill of this depth goes on: %v", err)
	}
	names := []string{"front", "back", "right", "left"}
	for i, wall := range names[:n] {
		p := one.Parts[0] // all of them are cut alike
		p.ID, p.Name = fmt.Sprint("refill-", i+1), fmt.Sprint("Refill ", i+1)
		p.Card = s.Card(p.ID)
		if err := p.glued(p.Root, "body", wall, true); err != nil {
			return err
		}
		p.Lies = besides(i, l, w, high, (s.Card("body")+p.Card)/2)
		box.Parts = append(box.Parts, p)
		box.Small = append(box.Small, smallBox(p.ID, p.Name, as, map[string]string{"body": p.ID}))
	}
	var on []hand.Move
	on = append(on, hand.Join{Bonds: bonds("refill-1", one.Parts[0].Root, "body", "refill-2", one.Parts[0].Root, "body"), Said: hand.Say("refills-long")})
	if n == 4 {
		on = append(on, hand.Join{Bonds: bonds("refill-3", one.Parts[0].Root, "body", "refill-4", one.Parts[0].Root, "body"), Said: hand.Say("refills-narrow")})
	}
	on = append(on, hand.Join{Said: hand.Say("refills-held")})
	box.Together = append(append(on, box.Together...), hand.Shut{Said: hand.Say("refills-filled")})
	box.Hooks = n
	return nil
}

// glued adds a patch by which the outside of a face is glued to the inside or the
// outside of another piece's. The piece gets a pattern of its own.
func (p *Part) glued(face, piece, onto string, ontoOutside bool) error {
	faces, err := p.Pattern.Faces()
	if err != nil {
		return err
	}
	own := *p.Pattern
	own.Glue = slices.Clone(own.Glue)
	for _, f := range faces {
		if f.Name == face {
			own.Glue = append(own.Glue, pattern.Glue{Face: face, Outside: true, Area: f.Polygon, Onto: onto, OntoOutside: ontoOutside, Piece: piece})
		}
	}
	p.Pattern = &own
	return nil
}

// besides stands a wallet, which is made lying on its back, up against one of
// the four sides, by turns about a level axis and then the upright one.
func besides(side int, l, w, high, off measure.Length) *pattern.Pose {
	up := pattern.Pose{Turn: r3.NewRotation(math.Pi/2, r3.Vec{X: 1}), Shift: r3.Vec{Z: high.MM() / 2}}
	turn := []float64{0, math.Pi, math.Pi / 2, -math.Pi / 2}[side]
	from := (w/2 + off).MM()
	if side >= 2 {
		from = (l/2 + off).MM()
	}
	out := up.Then(pattern.Pose{Turn: r3.NewRotation(0, r3.Vec{Z: 1}), Shift: r3.Vec{Y: -from}})
	out = out.Then(pattern.Pose{Turn: r3.NewRotation(turn, r3.Vec{Z: 1})})
	return &out
}
