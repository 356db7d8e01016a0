package style

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	facetWidth = &Parameter{
		ID: "width", Label: "Width", Default: 4 * measure.Inch, Min: 50 * mm, Max: 200 * mm,
		About: "A: the front, from side to side at the rim",
	}
	facetHeight = &Parameter{
		ID: "height", Label: "Height", Default: 11 * quarterInch, Min: 30 * mm, Max: 150 * mm,
		About: "B: from the floor to the rim",
	}
	facetDepth = &Parameter{
		ID: "depth", Label: "Depth", Default: 7 * quarterInch, Min: 24 * mm, Max: 120 * mm,
		About: "D: from front to back",
	}
	facetBevel = &Parameter{
		ID: "bevel", Label: "Bevel", Default: 3 * quarterInch, Min: 8 * mm, Max: 60 * mm,
		About: "c: how far in and up the lower corners are cut off",
	}
	facetLip = &Parameter{
		ID: "lip", Label: "Lip", Default: 7 * quarterInch, Min: 10 * mm, Max: 100 * mm,
		About: "How far the rims of front and back are turned in",
		Follows: func(s Spec) measure.Length {
			b := s.Size(facetHeight)
			return max(10*mm, measure.Down(min(s.about(7*quarterInch), 2*b/3, b-s.Size(facetBevel)), s.Tick))
		},
	}
	facetSlant = &Parameter{
		ID: "slant", Label: "Bevel's face", Default: measure.Inch, Min: 8 * mm, Max: 90 * mm,
		About: "b: how deep the slanting faces are; less than the slope itself, because their flaps stand inside three cards",
		Follows: func(s Spec) measure.Length {
			within := s.Size(facetBevel) - 3*s.Card("body")
			b := measure.Nearest(measure.FromMM(within.MM()*math.Sqrt2), s.Tick)
			if most := measure.FromMM(s.Size(facetBevel).MM() * math.Sqrt2); b > most {
				b = measure.Down(most, s.Tick)
			}
			return max(8*mm, b)
		},
	}
)

var facetBasket = &Style{
	ID: "facet-basket", Name: "Facet basket", About: "An open basket whose lower edges are bevelled, from one blank",
	For:   []Use{ForShow, ForTreats},
	Suits: []string{"egg", "fruit", "sweet"},
	Opens: "it is open", Strength: "good: double at the rim, three cards at the sides",
	Parameters: []*Parameter{facetWidth, facetHeight, facetDepth, facetBevel, facetLip, facetSlant},
	Options:    []*Option{adhesive},
	Axes:       [3]*Parameter{facetDepth, facetWidth, facetHeight},
	Build:      buildFacetBasket,
}

// facetEase is what the floor loses at each end to the bevels' card and the
// corners glued inside them, in cards: they slope in from the fold.
const facetEase = 2

// facetPlay is how far a flap may stand from the layers it is glued to, on
// either side: the card still gives that much.
const facetPlay = 2 * measure.Millimetre

func buildFacetBasket(s Spec) (*Box, error) {
	a, b, d, c := s.Size(facetWidth), s.Size(facetHeight), s.Size(facetDepth), s.Size(facetBevel)
	slant := s.Size(facetSlant)
	for _, x := range []struct {
		p       *Parameter
		most    measure.Length
		because string
	}{
		{facetBevel, min(a/2-6*mm, b-10*mm), "no floor is left between the bevels, or no wall above them"},
		{facetLip, b - c, "or it covers the bevel"},
	} {
		if err := s.atMost(x.p, x.most, x.because); err != nil {
			return nil, err
		}
	}
	full := c.MM() * math.Sqrt2
	least := measure.Up(measure.FromMM(full-(3*s.Card("body")+facetPlay).MM()*math.Sqrt2), s.Tick)
	most := measure.Down(measure.FromMM(full+facetPlay.MM()*math.Sqrt2), s.Tick)
	if slant < least || slant > most {
		return nil, outOfRange("size.slant", "the bevel's face can be %s to %s, or its flap does not meet the walls", s.show(max(0, least)), s.show(most))
	}
	flap := d + c - slant
	if flap < 10*mm {
		return nil, outOfRange("size.depth", "the depth must be at least %s, or the flaps at the sides are too low to be glued", s.show(10*mm-c+slant))
	}
	trimmed := min(flap, measure.Down(b-c, s.cutting()))
	if flap-trimmed < pattern.Seen { // no hand cuts off so little
		trimmed = flap
	}
	if trimmed < 10*mm {
		return nil, outOfRange("size.bevel", "the bevel can be at most %s: its flaps need 10 mm of wall above it", s.show(b-10*mm))
	}
	body, err := s.facets(flap - trimmed)
	if err != nil {
		return nil, err
	}
	t := body.Card
	// Between the lips, turned in at front and back; down to a floor that ends
	// where the bevels begin.
	room := Block(Extent{Length: d - 3*t, Width: a - 2*c - 2*facetEase*t, Height: b - t/2}, r3.Vec{Z: t.MM() / 2})
	pair := fit.Pair{
		Kind: fit.GluedIn, Outer: "body", Inner: "body", OuterName: "Walls", InnerName: "Flaps", Axis: "width",
		OuterCard: t, InnerCard: t, OuterLayers: 4, OuterWhat: "the front's lip and the back's wing",
		OuterSpan: a, InnerSpan: a - 2*c + measure.FromMM(slant.MM()*math.Sqrt2), InnerIs: "apart on their bevels",
	}
	return &Box{Parts: []Part{body}, Room: room, Fits: []fit.Pair{pair}, Together: []hand.Move{hand.Fill{Into: "body"}}}, nil
}

// facets is the one piece: along it lip, front, base, back and lip, the wings
// of front and back and the base's bevels and flaps across. The flaps are
// shorter by what is cut off.
func (s Spec) facets(off measure.Length) (Part, error) {
	w, h, d, c := s.Size(facetWidth), s.Size(facetHeight), s.Size(facetDepth), s.Size(facetBevel)
	lip, slant := s.Size(facetLip), s.Size(facetSlant)
	b := pattern.NewBuilder()
	sliver := s.sliver()
	x := [6]measure.Length{0, lip, lip + h, lip + h + d, lip + 2*h + d, 2*lip + 2*h + d}
	near, far := d, d+w // the side edges of front and back
	f := facetSides{s: s, b: b, across: 2*d + w, near: near, far: far}
	// The four lower corners are cut off; their triangles stay on the slant.
	front := b.Polygon("front", pt(x[1], near), pt(x[2]-c, near), pt(x[2], near+c), pt(x[2], far-c), pt(x[2]-c, far), pt(x[1], far))
	back := b.Polygon("back", pt(x[3], near+c), pt(x[3]+c, near), pt(x[4], near), pt(x[4], far), pt(x[3]+c, far), pt(x[3], far-c))
	base := b.Polygon("base", pt(x[2], near+c), pt(x[3], near+c), pt(x[3], far-c), pt(x[2], far-c))
	inner := b.Polygon("lip.front", pt(x[0], near), pt(x[1], near), pt(x[1], far), pt(x[0], far))
	over := b.Polygon("lip.back", pt(x[4], near+sliver), pt(x[5], near+sliver), pt(x[5], far-sliver), pt(x[4], far-sliver))
	b.Role(pattern.Panel, base)
	b.Role(pattern.Lining, inner, over)
	b.Call(inner, "front's lip")
	b.Call(over, "back's lip")
	b.Up(base, front, back)
	b.Fold(front, inner, 180, pattern.Away)
	b.Fold(back, over, 180, pattern.Away)
	b.Glue(inner, false, front)
	play := c.MM() - slant.MM()/math.Sqrt2
	for _, side := range []string{"left", "right"} {
		top := near + c - slant // where bevel and flap meet, on the near side
		corner := func(name string, corners ...pattern.Point) *pattern.Leaf { return f.place(side, name, corners...) }
		bevel := corner("bevel", f.edge(x[2], x[3], top, near+c, near)...)
		low := corner("flap", pt(x[2]+sliver, off), pt(x[3]-sliver, off), pt(x[3]-sliver, top), pt(x[2]+sliver, top))
		tip1 := corner("corner.front", f.triangle(x[2], near, near+c, -c, top)...)
		tip2 := corner("corner.back", f.triangle(x[3], near, near+c, c, top)...)
		wing := corner("wing.front", pt(x[1], 0), pt(x[2]-c, 0), pt(x[2]-c, near), pt(x[1], near))
		lipWing := corner("lip.wing", pt(x[0], sliver), pt(x[1], sliver), pt(x[1], near), pt(x[0], near))
		half := measure.Nearest(d/2, s.cutting())
		narrow := corner("wing.back", pt(x[3]+c+s.wingTaper(), near-half), pt(x[4], near-half), pt(x[4], near), pt(x[3]+c, near))
		b.Call(bevel, side+" bevel")
		b.Call(low, side+" flap")
		b.Call(tip1, side+" corner of the front")
		b.Call(tip2, side+" corner of the back")
		b.Call(wing, side+" wing of the front")
		b.Call(lipWing, side+" wing of the lip")
		b.Call(narrow, side+" wing of the back")
		b.Role(pattern.Panel, bevel)
		b.Role(pattern.Tab, low, tip1, tip2, narrow)
		b.Role(pattern.Lining, lipWing)
		b.Fold(base, bevel, 45, pattern.Away)
		b.Fold(bevel, low, 45, pattern.Away)
		b.Slit(bevel, tip1)
		b.Slit(bevel, tip2)
		b.Fold(inner, lipWing, 90, pattern.Towards)
		b.Fold(wing, lipWing, 180, pattern.Away)
		b.Upwards(pattern.Pt(-1, 0), wing)
		b.Glue(lipWing, false, wing)
		b.Glue(tip1, true, bevel)
		b.Glue(tip2, true, bevel)
		b.Apart(low, true, narrow, math.Abs(play))
		b.Over(wing, narrow)
	}
	b.Glue(over, false, back)
	p, err := b.Pattern()
	if err != nil {
		return Part{}, err
	}
	return Part{
		Making: told(func() []hand.Move { return s.facetMaking(p, off, x) }),
		ID:     "body", Name: "Basket", Pattern: p, Root: "base", Opens: Upwards, Card: s.Card("body"),
	}, nil
}

// wingTaper is what the back's wings lose at their free ends beside the floor.
func (s Spec) wingTaper() measure.Length {
	return measure.Down(min(tabWedge, s.Size(facetDepth)/4), s.cutting())
}

// mirrored are lines with their mirror images across the blank.
func mirrored(height measure.Length, lines ...pattern.Segment) []pattern.Segment {
	flip := func(p pattern.Point) pattern.Point { return pattern.Pt(p.X, height.MM()-p.Y) }
	out := lines
	for _, l := range lines {
		out = append(out, pattern.Segment{A: flip(l.A), B: flip(l.B)})
	}
	return out
}

// facetMaking is how a hand makes it: x are its columns, off what the side flaps lose at their
// free ends.
func (s Spec) facetMaking(p *pattern.Pattern, off measure.Length, x [6]measure.Length) []hand.Move {
	w, d, c := s.Size(facetWidth), s.Size(facetDepth), s.Size(facetBevel)
	tall, foot, near := 2*d+w, d+c, d
	top := foot - s.Size(facetSlant)
	m := s.make(p)
	line := func(x1, y1, x2, y2 measure.Length) pattern.Segment {
		return pattern.Segment{A: pt(x1, y1), B: pt(x2, y2)}
	}
	both := func(points ...pattern.Point) []pattern.Point {
		out := points
		for _, q := range points {
			out = append(out, pattern.Pt(q.X, tall.MM()-q.Y))
		}
		return out
	}
	m.scores()
	m.do(hand.Names{Across: true, Words: []string{"lip", "front", "floor", "back", "lip"}})
	if len(p.Scores.Horizontal) > 0 { // bevels as wide as their flaps begin: one line right across
		m.do(hand.Score{Lines: mirrored(tall, line(x[2], foot, x[3], foot)), Said: said("facet-floor", one("at", foot))})
	} else {
		m.do(hand.Score{Lines: mirrored(tall, line(0, near, x[2], near), line(x[3], near, x[5], near)), Said: said("facet-but-floor", one("at", near))})
		m.do(hand.Score{Lines: mirrored(tall, line(x[2], top, x[3], top), line(x[2], foot, x[3], foot)), Said: said("facet-floor", one("at", top, foot))})
	}
	m.do(hand.Mark{Lines: mirrored(tall, line(x[2]-c, 0, x[2]-c, near), line(x[3]+c, 0, x[3]+c, near)), Said: said("facet-marks", map[string][]measure.Length{"at": {x[2] - c}, "off": {near}})})
	m.do(hand.Score{Lines: mirrored(tall, line(x[2]-c, near, x[2], foot), line(x[3]+c, near, x[3], foot)), Said: said("facet-slants", one("at", foot))})
	m.do(hand.Snip{Cuts: mirrored(tall, line(x[2], 0, x[2], foot), line(x[3], 0, x[3], foot)), Said: said("facet-slits", one("at", foot))})
	m.do(hand.Snip{Said: hand.Say("facet-rectangles"),
		Cuts: mirrored(tall, line(x[2]-c, 0, x[2]-c, near), line(x[2]-c, near, x[2], near), line(x[3]+c, 0, x[3]+c, near), line(x[3], near, x[3]+c, near)),
		Off:  both(pt(x[2]-c/2, near/2), pt(x[3]+c/2, near/2))})
	m.do(hand.Snip{Said: hand.Say("facet-lip"), Cuts: mirrored(tall, line(x[4], 0, x[4], near), line(x[4], near, x[5], near)),
		Off: both(pt((x[4]+x[5])/2, near/2))})
	m.do(hand.Mark{Said: hand.Say("facet-names"), Calls: []hand.Call{
		{Name: "floor", At: pt((x[2]+x[3])/2, tall/2)}, {Name: "bevel", At: pt((x[2]+x[3])/2, tall-(top+foot)/2)}, {Name: "flap", At: pt((x[2]+x[3])/2, tall-top/2)},
		{Name: "wing", At: pt((x[1]+x[2]-c)/2, near/2)}, {Name: "wing", At: pt((x[3]+c+x[4])/2, near/2)},
	}})
	half, taper := measure.Nearest(d/2, s.cutting()), s.wingTaper()
	wings := hand.Snip{Said: said("facet-wings", map[string][]measure.Length{"at": {half}, "off": {taper}}),
		Cuts: mirrored(tall, line(x[3]+c, near-half, x[4], near-half), line(x[3]+c, near, x[3]+c+taper, near-half)),
		Off:  both(pt((x[3]+c+x[4])/2, (near-half)/2), pt(x[3]+c+taper/4, near-half+taper/4))}
	m.do(wings)
	if off > 0 {
		m.do(hand.Snip{Said: said("facet-flaps", one("at", top-off)), Cuts: mirrored(tall, line(x[2], off, x[3], off)), Off: both(pt((x[2]+x[3])/2, off/2))})
	}
	sliver := s.sliver()
	m.do(hand.Snip{Said: hand.Say("facet-slivers"),
		Cuts: mirrored(tall, line(0, sliver, x[1], sliver), line(x[4], near+sliver, x[5], near+sliver),
			line(x[2]+sliver, off, x[2]+sliver, top), line(x[3]-sliver, off, x[3]-sliver, top),
			line(x[2], top, x[2]+sliver, top), line(x[3]-sliver, top, x[3], top), line(x[1], 0, x[1], sliver), line(x[4], near, x[4], near+sliver)),
		Off: both(pt(x[1]/2, sliver/2), pt((x[4]+x[5])/2, near+sliver/2), pt(x[2]+sliver/2, (off+top)/2), pt(x[3]-sliver/2, (off+top)/2))})
	m.do(hand.TurnIn{Said: hand.Say("facet-lip-in"), What: m.parts("lip", nil, "lip.front", "lip.wing.left", "lip.wing.right"),
		Onto: m.parts("wall", nil, "front", "wing.front.left", "wing.front.right")})
	m.do(hand.FoldWays{Towards: m.creases(towards), Flat: m.creases(overFlat), Said: hand.Say("facet-folds")})
	m.stick(hand.Stick{Way: hand.Facets, Outside: true, What: m.parts("corner", nil, "corner.front.left", "corner.front.right", "corner.back.left", "corner.back.right"),
		Onto: m.parts("bevel", nil, "bevel.left", "bevel.right", "bevel.left", "bevel.right")})
	back := m.parts("wing", []string{"back"}, "wing.back.left", "wing.back.right")
	m.stick(hand.Stick{Way: hand.Inside, Outside: true, What: m.parts("side-flap", nil, "flap.left", "flap.right"), Onto: back})
	m.stick(hand.Stick{Way: hand.FacetWings, OntoOutside: true, What: m.parts("wing", []string{"front"}, "wing.front.left", "wing.front.right"), Onto: back})
	m.stick(hand.Stick{Way: hand.FacetLip, What: m.parts("lip", nil, "lip.back"), Onto: m.parts("wall", nil, "back")})
	return m.moves
}

// facetSides places faces on the near side as they are given, and mirrored on
// the far one.
type facetSides struct {
	s                 Spec
	b                 *pattern.Builder
	across, near, far measure.Length
}

// place puts a face on the left side by its corners, on the right one
// mirrored.
func (f facetSides) place(side, name string, corners ...pattern.Point) *pattern.Leaf {
	if side == "right" {
		for i, j := 0, len(corners)-1; i <= j; i, j = i+1, j-1 {
			corners[i], corners[j] = corners[j], corners[i]
		}
		for i := range corners {
			corners[i].Y = f.across.MM() - corners[i].Y
		}
	}
	return f.b.Polygon(name+"."+side, corners...)
}

// edge is a bevel from top to foot, with corners where the flap's shaved ends
// and the front's side edge meet it.
func (f facetSides) edge(left, right, top, foot, side measure.Length) []pattern.Point {
	sliver := f.s.sliver()
	out := []pattern.Point{pt(left, top), pt(left+sliver, top), pt(right-sliver, top), pt(right, top)}
	if side > top {
		out = append(out, pt(right, side))
	}
	out = append(out, pt(right, foot), pt(left, foot))
	if side > top {
		out = append(out, pt(left, side))
	}
	return out
}

// triangle is a lower corner that is left on the slant: its right angle lies
// at the side edge where front or back meet the base. Where the bevel begins
// below that, it has a corner there.
func (f facetSides) triangle(at, side, foot, c, top measure.Length) []pattern.Point {
	out := []pattern.Point{pt(at+c, side), pt(at, side)}
	if top > side {
		out = append(out, pt(at, top))
	}
	out = append(out, pt(at, foot))
	if c > 0 {
		for i, j := 0, len(out)-1; i < j; i, j = i+1, j-1 {
			out[i], out[j] = out[j], out[i]
		}
	}
	return out
}
