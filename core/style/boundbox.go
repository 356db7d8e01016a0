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
	boundOverhang = &Parameter{
		ID: "overhang", Label: "Overhang", Default: quarterInch, Min: 0, Max: 20 * mm,
		About: "o: how far the covers reach past the tray at both ends",
	}
	boundFlap = &Parameter{
		ID: "flap", Label: "Flap", Default: 7 * measure.Inch / 8, Min: leastFlap, Max: 300 * mm,
		About: "f: how far the lid comes down over the front",
		Follows: func(s Spec) measure.Length {
			front := s.Size(boundFront)
			return max(measure.Up(leastFlap, s.Tick), measure.Down(min(front*3/4, front-overHole), s.Tick))
		},
	}
	boundFront = &Parameter{
		ID: "front", Label: "Front", Default: 3 * measure.Inch / 2, Min: 12 * mm, Max: 600 * mm,
		About:   "How high the base cover's front is; the tray's height as a rule",
		Follows: func(s Spec) measure.Length { return s.Size(height) },
	}
	spineAllowance = &Option{
		ID: "spine.allowance", Label: "How much wider the cover is", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: mostAllowance,
		ForFit: true, Chained: true,
		About: "How much wider and higher the covers are scored than the tray; leave it out to have it worked out",
	}
	boundClosure = &Option{
		ID: "closure", Label: "Closed by", Kind: ChoiceKind, Choices: []string{"ribbon", "magnets", "hook"}, DefaultChoice: "ribbon",
		About: "A ribbon tied over the flap, a pair of magnets under paper, or hook-and-loop",
	}
	boundRibbon = &Option{
		ID: "ribbon.width", Label: "Ribbon's width", Kind: LengthKind, Default: 3 * measure.Inch / 8, Min: 3 * mm, Max: 3 * measure.Inch,
		About: "The hole it goes through is a third of it, as it gathers, and no larger than flap and front leave card round it",
	}
	coverCorners = &Option{
		ID: "corners", Label: "Cover's corners", Kind: ChoiceKind, Choices: []string{"square", "rounded"}, DefaultChoice: "square",
		About: "The free corners of flap and front",
	}
)

var boundBox = &Style{
	ID: "bound-box", Name: "Bound box", About: "A double-walled tray in a two-part cover, with a flap over the front",
	For:   []Use{ForPaper, ForGifts},
	Suits: []string{"notebook", "album", "diary", "letter"},
	Opens: "the cover lifts like a book's", Strength: "strong: two cards at the walls, four at the back",
	Parameters: []*Parameter{length, width, height, boundOverhang, boundFlap, boundFront},
	Options:    []*Option{spineAllowance, boundClosure, boundRibbon, coverCorners, adhesive},
	Axes:       lengthWidthHeight,
	Allowance:  spineAllowance,
	Build:      buildBoundBox,
}

// leastFlap holds a lid down; overHole is how much higher than the flap a front
// with a ribbon's hole is.
const (
	leastFlap = 10 * measure.Millimetre
	overHole  = 8 * measure.Millimetre
)

// roundHole is how much card a hole leaves beside it.
const roundHole = 3 * measure.Millimetre

// belowFlap is how far under the closed flap's edge the front's hole lies.
const belowFlap = 3 * measure.Millimetre

func buildBoundBox(s Spec) (*Box, error) {
	l, w, h := s.Size(length), s.Size(width), s.Size(height)
	a, flap, front := s.Length(spineAllowance), s.Size(boundFlap), s.Size(boundFront)
	s.most(boundFront.limited(), h, "it stands over the tray's rim by that much")
	ribboned := s.Choice(boundClosure) == "ribbon"
	if ribboned {
		s.most(boundFlap.limited(), front-overHole, "the ribbon's hole in the front lies behind it, and the ribbon comes out over its edge")
	} else {
		s.most(boundFlap.limited(), front, "it reaches below the box")
	}
	long := l + 2*s.Size(boundOverhang)
	base := s.grid([]measure.Length{long}, []measure.Length{h + a, w + a, front}, `
		back
		floor
		front`)
	lid := s.grid([]measure.Length{long}, []measure.Length{h + a, w + a, flap}, `
		back
		top
		flap`)
	floor, wall, tied := base.Face("floor"), base.Face("front"), lid.Face("flap")
	base.Role(pattern.Panel, floor)
	base.Up(floor, wall, base.Face("back"))
	lid.Role(pattern.Panel, lid.Face("top"))
	lid.Role(pattern.Flap, tied)
	lid.Upwards(pattern.Pt(0, 1), lid.Face("back"))
	lid.Hinge(lid.Face("back"), lid.Face("top"), 90, 0)
	lid.Elsewhere(lid.Face("back"), false, "base", base.Face("back"), true)
	// The front leans onto the tray, which stands at the back of a floor that
	// is wider.
	tT, tB := s.Card("tray"), s.Card("base")
	gap := max(0, a-tT/2-tB/2)
	base.Fold(floor, wall, 90+math.Atan2(gap.MM(), h.MM())*180/math.Pi, pattern.Away)
	if s.Choice(coverCorners) == "rounded" {
		r := min(s.about(quarterInch), flap/2)
		base.Round(wall, floor, r)
		lid.Round(tied, lid.Face("top"), r)
	}
	if ribboned {
		// A ribbon gathers; its hole leaves card all round, on both.
		across := max(s.cutting().Length(), min(measure.Nearest(s.Length(boundRibbon)/3, s.cutting()), measure.Down(min(flap, front)-2*roundHole, s.cutting())))
		mid, spine := measure.Nearest(long/2, s.cutting()), h+a+w+a
		lid.Hole(tied, "hole", pattern.Circle(pt(mid, spine+flap-measure.Nearest(flap/2, s.cutting())), across.MM()/2))
		up := max(front-measure.Up(flap+belowFlap, s.cutting()), measure.Up(across/2+roundHole, s.cutting()))
		base.Hole(wall, "hole", pattern.Circle(pt(mid, spine+up), across.MM()/2))
	}
	tray := s.doubleTray(l, w, h)
	tray.onto = map[string]onto{"base": {"base", floor}, "back": {"base", base.Face("back")}}
	parts, err := s.bound(tray, base, lid)
	if err != nil {
		return nil, err
	}
	pair := fit.Pair{Kind: fit.CoverRound, Outer: "base", Inner: "tray", OuterName: "Base cover", InnerName: "Tray", OuterCard: tB, InnerCard: tT}
	across, up := pair, pair
	across.Axis, across.OuterSpan, across.InnerSpan = "width", w+a, w
	up.Axis, up.OuterSpan, up.InnerSpan = "height", h+a, h
	shut := map[string]Shut{"magnets": ByMagnet, "hook": ByHook, "ribbon": ByRibbon}[s.Choice(boundClosure)]
	return &Box{Parts: parts, Fits: []fit.Pair{across, up}, Shut: shut, Together: s.bindingMoves()}, nil
}

// doubleTray is a double-walled tray without a choice of corners.
func (s Spec) doubleTray(l, w, h measure.Length) trayShape {
	return trayShape{id: "tray", name: "Tray", panel: "base", opens: Upwards, length: l, width: w, height: h, lining: h,
		corners: "two-tab", adhesive: s.adhesive(), tick: s.Tick}
}

// bound stands the tray on the floor of the base cover, at its back, and the
// lid cover behind that.
func (s Spec) bound(tray trayShape, base, lid *pattern.Grid) ([]Part, error) {
	tT, tB, tL := s.Card("tray"), s.Card("base"), s.Card("lid")
	inside, err := tray.part()
	if err != nil {
		return nil, err
	}
	bp, err := base.Pattern()
	if err != nil {
		return nil, err
	}
	lp, err := lid.Pattern()
	if err != nil {
		return nil, err
	}
	a := s.Length(spineAllowance)
	// Stood up, the sheet has its back towards −y.
	inside.At = r3.Vec{Y: ((tT+tB)/2 - a/2).MM(), Z: ((tT + tB) / 2).MM()}
	// Its back stands upright behind the base's, outside to the back, foot to foot.
	back := pattern.Pose{
		Turn:  r3.NewRotation(math.Pi, r3.Vec{Y: 1, Z: -1}),
		Shift: r3.Vec{X: (tray.length/2 + s.Size(boundOverhang)).MM(), Y: -((tray.width+a)/2 + (tB+tL)/2).MM()},
	}
	return []Part{
		inside,
		{ID: "base", Name: "Base cover", Pattern: bp, Root: "floor", Opens: Upwards,
			Making: told(func() []hand.Move { return s.coverMaking(bp, "back", "floor", "front") })},
		{ID: "lid", Name: "Lid cover", Pattern: lp, Root: "back", Places: []pattern.Pose{back},
			Making: told(func() []hand.Move { return s.coverMaking(lp, "back", "top", "flap") })},
	}, nil
}

// coverMaking is how a hand makes a cover of three rows.
func (s Spec) coverMaking(p *pattern.Pattern, rows ...string) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Words: rows})
	if s.Choice(coverCorners) == "rounded" {
		m.roundFeet(0, p.Width, p.Height, min(s.about(quarterInch), s.Size(boundFlap)/2))
	}
	for _, h := range p.Holes {
		lo, hi := pattern.Bounds(h.Flat())
		m.do(hand.Bite{Loops: []pattern.Loop{h}, Said: said("punch-last", map[string][]measure.Length{
			"across": {measure.FromMM(hi.X - lo.X)}, "off": {p.Height - measure.FromMM((lo.Y+hi.Y)/2)}})})
	}
	m.do(hand.FoldAll{})
	return m.moves
}

// bindingMoves are how tray and covers go together, are filled and closed.
func (s Spec) bindingMoves() []hand.Move {
	set := said("bind-floor", map[string][]measure.Length{"at": {s.Size(length)}, "off": {s.Size(boundOverhang)}})
	out := []hand.Move{
		hand.Join{Bonds: bonds("tray", "base", "base"), Said: set},
		hand.Join{Bonds: bonds("tray", "back", "base"), Said: hand.Say("bind-back")},
	}
	front := hand.Join{Uses: []string{"base"}, Said: hand.Say("bind-front")}
	lid := hand.Join{Bonds: bonds("lid", "back", "base"), Said: hand.Say("bind-lid")}
	fill := hand.Fill{Into: "tray"}
	switch s.Choice(boundClosure) {
	case "magnets":
		return append(out, lid, hand.Join{Said: hand.Say("magnets-poles")}, hand.Join{Said: hand.Say("magnets-glued")}, hand.Join{Said: hand.Say("magnets-care")},
			front, fill, hand.Shut{Said: hand.Say("bound-magnet")})
	case "hook":
		return append(out, front, lid, hand.Join{Said: hand.Say("hook-and-loop")}, fill, hand.Shut{Said: hand.Say("bound-hook")})
	}
	return append(out, hand.Join{Said: said("ribbons", one("at", s.about(measure.Inch)))}, front, lid, fill, hand.Shut{Said: hand.Say("bound-ribbons")})
}
