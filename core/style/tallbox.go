package style

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	tallWidth = &Parameter{
		ID:      "width",
		Label:   "Width",
		Default: 5 * measure.Inch / 2,
		Min:     15 * mm,
		Max:     200 * mm,
		About:   "W: left to right, between folds",
	}
	tallDepth = &Parameter{
		ID:      "depth",
		Label:   "Depth",
		Default: 5 * measure.Inch / 2,
		Min:     15 * mm,
		Max:     200 * mm,
		About:   "D: front to back; no more than the width when the top is pinched or clipped",
	}
	tallHeight = &Parameter{
		ID:      "height",
		Label:   "Height",
		Default: 8 * measure.Inch,
		Min:     60 * mm,
		Max:     700 * mm,
		About:   "The whole tube above the bottom flaps; the top is made out of its upper end",
	}
	tallBottom = &Parameter{
		ID:      "bottom",
		Label:   "Bottom flaps",
		Default: 2 * measure.Inch,
		Min:     8 * mm,
		Max:     110 * mm,
		About:   "b: at least half the narrower side, so that they meet",
		Follows: func(s Spec) measure.Length {
			return measure.Up(min(s.Size(tallWidth), s.Size(tallDepth))*3/4, s.Tick)
		},
		Only: func(s Spec) bool { return s.Choice(tallFloor) == "wedge" },
	}
	tallTuck = &Parameter{
		ID: "tuck", Label: "Tongue", Default: measure.Inch / 2, Min: 6 * mm, Max: 60 * mm,
		About:   "How deep the tongue of a tucked lid is",
		Follows: func(s Spec) measure.Length { return s.about(halfInch) },
		Only:    func(s Spec) bool { return s.Choice(tallTop) == "tuck" },
	}
	tallTab = &Parameter{
		ID:      "tab",
		Label:   "Tab",
		Default: measure.Inch / 2,
		Min:     6 * mm,
		Max:     25 * mm,
		About:   "The strip that joins the tube; wider for a heavy thing",
	}

	tallTopScores = &Option{
		ID: "top.scores", Label: "Clipped top", Kind: ChoiceKind, Choices: []string{"none", "scored"}, DefaultChoice: "none",
		About: "For a clip: pressed together corner to corner without a score, or folded along scores to a ridge",
	}
	tallSeam = &Option{
		ID: "seam", Label: "Seam", Kind: ChoiceKind, Choices: []string{"back", "side", "front"}, DefaultChoice: "back",
		About: "The face whose edge shows where the tube is joined: its tab is glued behind that face",
	}
	tallTop = &Option{
		ID: "top", Label: "Top", Kind: ChoiceKind, Choices: []string{"tuck", "pinch", "clip"}, DefaultChoice: "tuck",
		About: "A lid that tucks in, or a ridge that is pinched and glued, or clipped",
	}
)

var tallBox = &Style{
	ID: "tall-box", Name: "Tall box", About: "A tube for a bottle or a vial, its top tucked, pinched or clipped",
	For:   []Use{ForGifts, ForTall},
	Suits: []string{"bottle", "vial", "flask", "tube", "candlestick"},
	Opens: "at the top", Strength: "fair: a tube with a glued bottom",
	Parameters: []*Parameter{tallWidth, tallDepth, tallHeight, tallBottom, tallOverlap, tallTuck, tallTab},
	Options:    []*Option{tallTop, tallTopScores, tallFloor, tallSeam, adhesive},
	Axes:       [3]*Parameter{tallWidth, tallDepth, tallHeight},
	Build:      buildTallBox,
}

// tongue is the strip of a tucked lid that goes in behind the front, and ridge
// the fin that is pinched or clipped.
const (
	halfInch  = measure.Inch / 2
	leastBody = 20 * measure.Millimetre
)

func buildTallBox(s Spec) (*Box, error) {
	w, d, h := s.Size(tallWidth), s.Size(tallDepth), s.Size(tallHeight)
	foot, err := s.tubeFloor(tallFloor, tallWidth, tallDepth, tallOverlap, tallBottom)
	if err != nil {
		return nil, err
	}
	around := seams[s.Choice(tallSeam)]
	first := w
	if around[0] == "left" {
		first = d
	}
	if err := s.atMost(tallTab, first-2*mm, "it is glued inside the "+around[0]); err != nil {
		return nil, err
	}
	slope, tucked := measure.Up(d*3/4, s.Tick), s.Choice(tallTop) == "tuck"
	tongue, ridge := s.Size(tallTuck), s.about(halfInch)
	top, least := d+tongue, max(leastBody, foot.least, tongue+2*mm)
	if !tucked {
		top, least = slope+ridge, max(leastBody, foot.least)
		if err := s.atMost(tallDepth, w, "the ends of a pinched top would meet; pinch along the wider side"); err != nil {
			return nil, err
		}
		if around[0] == "left" {
			return nil, outOfRange("options.seam", "beside a ridge the tube is joined at the back or at the front: a side folds in along its middle")
		}
	}
	if h < top+least {
		return nil, outOfRange("size.height", "the tube must be at least %s high for a top that is made out of it", s.show(top+least))
	}
	columns := []measure.Length{w, d, w, d, s.Size(tallTab)}
	if around[0] == "left" {
		columns = []measure.Length{d, w, d, w, s.Size(tallTab)}
	}
	r := roof{w: w.MM(), d: d.MM(), wall: (h - top).MM(), slope: slope.MM(), fin: ridge.MM(), foot: h.MM(), upwards: -1, ends: true}
	g := s.tuckedTube(around, columns, tongue, h-top, foot)
	if !tucked {
		g = s.ridgedTube(around, columns, ridge, slope, h-top, foot, true)
		r.panels(g)
	}
	tab := g.Face("tab")
	g.Role(pattern.Tab, tab)
	g.Glue(tab, true, g.Face(around[0]))
	foot.draw(g, around, columns, h)
	for _, side := range []string{"front", "right", "back", "left"} {
		g.Up(g.Face("bottom."+side), g.Face(side))
	}
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	part := Part{
		ID: "body", Name: "Tube", Pattern: p, Root: "front", Opens: Upright, Card: s.Card("body"),
	}
	var together []hand.Move
	if tucked {
		part.Making = s.tubeMaking(p, around, func() []hand.Move { return s.tuckedMaking(p, around) })
		together = []hand.Move{hand.Fill{Into: "body"},
			hand.Shut{Said: hand.Said{Key: "shut-tube", Names: map[string][]string{"panel": {panelOf(around, "front")}}}}}
	}
	pressed := s.Choice(tallTop) == "clip" && s.Choice(tallTopScores) == "none"
	if !tucked {
		shut := "ridge-close"
		if pressed {
			shut = "press-top"
		}
		together = []hand.Move{hand.Fill{Into: "body"}, hand.Shut{Said: hand.Say(shut)}}
		if pressed {
			together = append(together, hand.Hold{Said: hand.Say("press-clip")})
		} else if s.Choice(tallTop) == "clip" {
			together = append(together, hand.Hold{Said: hand.Say("ridge-clip")})
		} else {
			together = append(together, hand.Shut{Said: hand.Say("ridge-glue")})
		}
	}
	shut := ByTuck
	if !tucked {
		if err := p.AnglesFrom(r.place, r.closing(0.9)); err != nil {
			return nil, err
		}
		doubled(p)
		open(p, top)
		part.Way = r.way(p)
		part.Making = s.tubeMaking(p, around, func() []hand.Move { return s.ridgedMaking(p, r, around) })
		shut = Sealed
		if s.Choice(tallTop) == "clip" {
			shut = ByClip
			if pressed {
				p.Unscored(func(at pattern.Segment) bool {
					return max(at.A.Y, at.B.Y) <= top.MM()+pattern.Tolerance && (math.Abs(at.A.X-at.B.X) > pattern.Tolerance || !slices.Contains(p.Scores.Vertical, measure.FromMM(at.A.X)))
				})
				part.Making = s.tubeMaking(p, around, func() []hand.Move { return s.pressedMaking(p, ridge, around) })
			}
		}
	}
	room, err := roomOf(part)
	if err != nil {
		return nil, err
	}
	if !tucked {
		// Straight up to where the slope begins, less the bottom's card and what
		// lies inside the slopes.
		t := part.Card.MM()
		straight := (h - top).MM() - 3*t
		inside := room.Largest
		inside.Height = measure.FromMM(straight)
		room = Block(inside, r3.Vec{Z: t / 2}).under("a block under a ridge", r.under(straight, 5*t))
	}
	return &Box{Parts: []Part{part}, Room: room, Shut: shut, Together: together, Flat: foot.kind == openingFloor}, nil
}

// tubeMaking is how a hand makes a tube with glued flaps, or with a floor of another kind.
func (s Spec) tubeMaking(p *pattern.Pattern, around [4]string, glued func() []hand.Move) func() []hand.Move {
	if s.Choice(tallFloor) == wedgeFloor {
		return told(glued)
	}
	return told(func() []hand.Move { return s.shapedTube(p, around, s.Choice(tallFloor)) })
}

// panelOf is the number of a tube's panel, from the left.
func panelOf(around [4]string, wall string) string {
	return strconv.Itoa(slices.Index(around[:], wall) + 1)
}

// tuckedMaking is how a hand makes a tube with a lid that tucks in.
func (s Spec) tuckedMaking(p *pattern.Pattern, around [4]string) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Across: true, Panels: true, Words: []string{"1", "2", "3", "4", "tab"}})
	m.do(hand.Slit{Runs: slices.Concat(runs(2, []hand.Edge{hand.Top}, 0, 1, 2, 3), runs(1, []hand.Edge{hand.Bottom}, 0, 1, 2, 3))})
	lid, front := slices.Index(around[:], "back"), slices.Index(around[:], "front")
	sides := []int{slices.Index(around[:], "right"), slices.Index(around[:], "left")}
	slices.Sort(sides)
	m.do(hand.CutOff{What: m.cells("tube-ends", []string{strconv.Itoa(lid + 1), strconv.Itoa(front + 1)},
		[2]int{front, 0}, [2]int{front, 1}, [2]int{4, 0}, [2]int{4, 1}, [2]int{4, 3})})
	dust := []string{"dust." + around[sides[0]], "dust." + around[sides[1]]}
	m.dustFlaps(dust, sides)
	m.taper("dust-and-tongue", group{"dust-flap", nil, dust}, group{"tongue", nil, []string{"tongue"}})
	m.bottomShapes(around)
	m.do(hand.FoldAll{})
	m.stick(hand.Stick{Way: hand.Tube, What: m.parts("tab", nil, "tab"), Onto: m.parts("panel", nil, around[0]), Outside: true})
	m.foot(around)
	return m.moves
}

// ridgedMaking is how a hand makes a tube whose top comes together in a ridge.
func (s Spec) ridgedMaking(p *pattern.Pattern, r roof, around [4]string) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Across: true, Panels: true, Words: []string{"1", "2", "3", "4", "tab"}})
	m.slit(1, []hand.Edge{hand.Bottom}, 0, 1, 2, 3)
	m.ridge(r, "ridge", [2]int{4, 0}, [2]int{4, 3})
	m.bottomShapes(around)
	m.do(hand.FoldWays{Towards: m.creases(towards), Flat: m.creases(overFlat), Said: hand.Say("ridge-folds")})
	m.stick(hand.Stick{Way: hand.Ring, What: m.parts("tab", nil, "tab", "tab.slope"), Onto: m.parts("panel", nil, around[0], "slope."+around[0]), Outside: true})
	m.foot(around)
	return m.moves
}

// pressedMaking is how a hand makes a tube whose top is pressed together without a score.
func (s Spec) pressedMaking(p *pattern.Pattern, ridge measure.Length, around [4]string) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Across: true, Panels: true, Words: []string{"1", "2", "3", "4", "tab"}})
	m.slit(1, []hand.Edge{hand.Bottom}, 0, 1, 2, 3)
	x := p.Scores.Vertical[3]
	m.do(hand.Snip{Said: said("tab-top", one("at", ridge)), Off: []pattern.Point{pt((x+p.Width)/2, ridge/2)},
		Cuts: []pattern.Segment{{A: pt(x, 0), B: pt(x, ridge)}, {A: pt(x, ridge), B: pt(p.Width, ridge)}}})
	m.do(hand.CutOff{What: m.cells("tab-foot", nil, [2]int{4, 1})})
	m.bottomShapes(around)
	m.do(hand.FoldAll{}, hand.Bend{Said: hand.Say("top-stays")})
	m.stick(hand.Stick{Way: hand.Ring, What: m.parts("tab", nil, "tab", "tab.slope"), Onto: m.parts("panel", nil, around[0], "slope."+around[0]), Outside: true})
	m.foot(around)
	return m.moves
}

// bottomOf are the bottom flaps of walls.
func bottomOf(walls ...string) []string {
	var out []string
	for _, w := range walls {
		out = append(out, "bottom."+w)
	}
	return out
}

func (m *making) bottomShapes(around [4]string) {
	m.shape("bottom-flap", group{"bottom-flap", nil, bottomOf(around[:]...)})
}

// foot closes a tube's bottom: the flaps of the sides folded in, then the other two.
func (m *making) foot(around [4]string) {
	var ends, others, panels []string
	for i, w := range around {
		if w == "left" || w == "right" {
			ends, panels = append(ends, w), append(panels, strconv.Itoa(i+1))
		} else {
			others = append(others, w)
		}
	}
	m.stick(hand.Stick{Way: hand.Foot, OntoOutside: true,
		What: m.parts("bottom-flap", panels, bottomOf(others[0], others[0], others[1], others[1])...),
		Onto: m.parts("bottom-flap", nil, bottomOf(ends[0], ends[1], ends[0], ends[1])...)})
}

// dustFlaps cuts the cells over two panels down to their dust flaps.
func (m *making) dustFlaps(faces []string, panels []int) {
	leave, _ := m.cutTo(faces[0])
	ys := stations(m.p.Scores.Horizontal, m.p.Height)
	deep := ys[2] - ys[1]
	if leave == 0 {
		leave = deep
	}
	xs := stations(m.p.Scores.Vertical, m.p.Width)
	x := hand.Snip{Said: hand.Said{Key: "dust-flaps", Lengths: map[string][]measure.Length{"leave": {leave}},
		Names: map[string][]string{"panels": {strconv.Itoa(panels[0] + 1), strconv.Itoa(panels[1] + 1)}}}}
	for _, k := range panels {
		x.Cuts = append(x.Cuts, pattern.Segment{A: pt(xs[k], ys[2]-leave), B: pt(xs[k+1], ys[2]-leave)})
		mid := (xs[k] + xs[k+1]) / 2
		x.Off = append(x.Off, pt(mid, ys[1]/2))
		if leave < deep {
			x.Off = append(x.Off, pt(mid, (ys[1]+ys[2]-leave)/2))
		}
	}
	m.do(x)
}

// open says that the creases of a ridge are undone when the box is open: the
// uprights square, all others flat.
func open(p *pattern.Pattern, top measure.Length) {
	roof := func(c pattern.Crease) bool { return max(c.A.Y, c.B.Y) <= top.MM()+pattern.Tolerance }
	for i, angle := range tubed(p, roof) {
		if c := &p.Creases[i]; roof(*c) {
			c.Hinge, c.Opened = true, angle
		}
	}
}

// tubed are the angles of the creases when a piece is a tube, those of its roof
// on their own sides: the uprights square, all others flat.
func tubed(p *pattern.Pattern, roof func(pattern.Crease) bool) []float64 {
	var out []float64
	for _, c := range p.Creases {
		angle := c.Angle
		if roof(c) {
			angle = 0
			if math.Abs(c.A.X-c.B.X) < pattern.Tolerance && slices.Contains(p.Scores.Vertical, measure.FromMM(c.A.X)) {
				angle = 90
				if c.Side == pattern.Towards {
					angle = -90
				}
			}
		}
		out = append(out, angle)
	}
	return out
}

// seams are the walls of a tube in the order of its columns, by the face whose edge shows
// where it is joined: the tab at the right end goes behind the first.
var seams = map[string][4]string{
	"front": {"front", "right", "back", "left"},
	"back":  {"back", "left", "front", "right"},
	"side":  {"left", "front", "right", "back"},
}

// row lays cells over or under the walls of a tube: "" is cut away.
func row(around [4]string, cell func(wall string) string, tab string) string {
	var out []string
	for _, wall := range around {
		out = append(out, cmp.Or(cell(wall), "."))
	}
	return strings.Join(append(out, cmp.Or(tab, ".")), " ")
}

// under names a cell by a word and its wall.
func under(word string) func(string) string {
	return func(wall string) string { return word + "." + wall }
}

// ofWalls names the walls' own cells.
func ofWalls(wall string) string { return wall }

// tuckedTube is a tube with a lid on its back that tucks in at the front.
func (s Spec) tuckedTube(around [4]string, columns []measure.Length, tongue, body measure.Length, foot tubeFloor) *pattern.Grid {
	d := columns[1]
	if around[0] == "left" {
		d = columns[0]
	}
	w := columns[0] + columns[1] - d
	tops := map[string]string{"back": "lid", "left": "dust.left", "right": "dust.right"}
	g := s.grid(columns, []measure.Length{tongue, d, body, foot.deep}, strings.Join([]string{
		row(around, func(wall string) string { return map[string]string{"back": "tongue"}[wall] }, ""),
		row(around, func(wall string) string { return tops[wall] }, ""),
		row(around, ofWalls, "tab"),
		foot.row(around),
	}, "\n"))
	lid, tuck, front := g.Face("lid"), g.Face("tongue"), g.Face("front")
	g.Role(pattern.Panel, lid)
	g.Role(pattern.Flap, tuck)
	g.Tab(tuck, lid, tongue, flapWedge)
	g.Tuck(tuck, front)
	g.Hinge(g.Face("back"), lid, 90, 0)
	for _, side := range []string{"right", "left"} {
		dust, wall := g.Face("dust."+side), g.Face(side)
		g.Call(dust, side+" dust flap")
		g.Role(pattern.Flap, dust)
		g.Tab(dust, wall, min(d, w/2-mm), flapWedge)
		if apart := slices.Index(around[:], side) - slices.Index(around[:], "back"); apart == 1 || apart == -1 {
			g.Slit(dust, lid)
		}
		g.Tuck(dust, lid)
		g.Hinge(wall, dust, 90, 0)
	}
	return g
}

// ridgedTube is a tube whose top comes together in a ridge.
func (s Spec) ridgedTube(around [4]string, columns []measure.Length, ridge, slope, body measure.Length, foot tubeFloor, ends bool) *pattern.Grid {
	fins := under("fin")
	if !ends {
		fins = func(wall string) string { return map[string]string{"front": "fin.front", "back": "fin.back"}[wall] }
	}
	g := s.grid(columns, []measure.Length{ridge, slope, body, foot.deep}, strings.Join([]string{
		row(around, fins, ""),
		row(around, under("slope"), "tab.slope"),
		row(around, ofWalls, "tab"),
		foot.row(around),
	}, "\n"))
	g.Role(pattern.Tab, g.Face("tab.slope"))
	g.Call(g.Face("tab.slope"), "tab beside the slopes")
	g.Glue(g.Face("tab.slope"), true, g.Face("slope."+around[0]))
	g.Upwards(pattern.Pt(0, -1), g.All("slope.front", "slope.right", "slope.back", "slope.left", "fin.front", "fin.back")...)
	if ends {
		g.Upwards(pattern.Pt(0, -1), g.All("fin.right", "fin.left")...)
	}
	return g
}
