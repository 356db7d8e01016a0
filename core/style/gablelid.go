package style

import (
	"fmt"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var gableLid = &Style{
	ID: "gable-lid", Name: "Tray with a gable lid", About: "A square tray under a lid that rises to a ridge",
	Opens: "the lid lifts off by its ridge", Strength: "good: two cards where the lid goes over",
	Parameters: []Parameter{
		{ID: "width", Label: "Width", Default: 9 * quarterInch, Min: 25 * mm, Max: 70 * mm, About: "W': the lid's four sides, score to score; the tray is smaller by the allowance"},
		{ID: "height", Label: "Tray's height", Default: 2 * measure.Inch, Min: 15 * mm, Max: 110 * mm, About: "The tray's walls"},
		{ID: "wall", Label: "Lid's wall", Default: measure.Inch, Min: 8 * mm, Max: 110 * mm, About: "w: how far the lid comes down",
			Follows: func(s Spec) measure.Length { return min(measure.Inch, s.Lengths["height"]) }},
		{ID: "slope", Label: "Slope", Default: 3 * measure.Inch / 2, Min: 13 * mm, Max: 80 * mm, About: "s: from the wall to the ridge; over half the width",
			Follows: func(s Spec) measure.Length { return measure.Up(s.Lengths["width"]*2/3, s.Tick) }},
		{ID: "fin", Label: "Fin", Default: measure.Inch / 2, Min: 6 * mm, Max: 40 * mm, About: "n: what stands up along the ridge, glued or clipped"},
		{ID: "tab", Label: "Tab", Default: measure.Inch / 2, Min: 6 * mm, Max: 25 * mm, About: "The strip that joins the lid's four sides"},
	},
	Options: []Option{{
		ID: "lid.allowance", Label: "Lid allowance", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: fit.LargestAllowance, ForFit: true,
		About: "How much smaller the tray's panel is than the lid; leave it out to have it worked out",
	}, corners, adhesive},
	Axes:      [3]string{"width", "width", "height"},
	Allowance: "lid.allowance",
	Build:     buildGableLid,
}

func buildGableLid(s Spec) (*Box, error) {
	w, wall, slope, fin := s.Lengths["width"], s.Lengths["wall"], s.Lengths["slope"], s.Lengths["fin"]
	if least := steeper(w, s.Tick); slope < least {
		return nil, fault.New("out-of-range", "size.slope", "the slope must be at least %s, over half the width, or it does not reach the ridge",
			s.show(least))
	}
	if err := s.atMost("wall", s.Lengths["height"], "the lid would stand on the table before it closes"); err != nil {
		return nil, err
	}
	a := s.Lengths["lid.allowance"]
	base := trayShape{
		id: "tray", name: "Tray", panel: "base", opens: Upwards, length: w - a, width: w - a, height: s.Lengths["height"],
		corners: s.Choices["corners"], adhesive: s.Choices["adhesive"], tick: s.Tick,
	}
	tray, err := base.part()
	if err != nil {
		return nil, err
	}
	tab := s.Lengths["tab"]
	g := pattern.NewGrid([]measure.Length{w, w, w, w, tab}, []measure.Length{wall, slope, fin}, `
		front        right        back        left        tab
		slope.front  slope.right  slope.back  slope.left  tab.slope
		fin.front    fin.right    fin.back    fin.left    .`)
	g.Role(pattern.Tab, "tab", "tab.slope")
	g.Role(pattern.Panel, "slope.front", "slope.back", "slope.right", "slope.left")
	g.Role(pattern.Flap, "fin.front", "fin.back", "fin.right", "fin.left")
	g.Glue("tab", true, "front")
	g.Glue("tab.slope", true, "slope.front")
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	r := roof{w: w.MM(), d: w.MM(), wall: wall.MM(), slope: slope.MM(), fin: fin.MM(), foot: 0, upwards: 1}
	if err := r.shape(p); err != nil {
		return nil, err
	}
	for i := range p.Marks { // the wall's foot is the pattern's top edge
		p.Marks[i].Up = pattern.Pt(0, 1)
	}
	lid := Part{
		ID: "lid", Name: "Lid", Pattern: p, Root: "front", Opens: Upright, Beside: [3]float64{0, 0, base.height.MM() + 10},
		Folding: "Fold the four uprights and the scores of walls, slopes and fins; crease each end from its lower corners to the middle of its top, inwards.",
		Gluing: []string{
			"Put adhesive on the outside of the tab and join the four sides.",
			"Push the two ends in, bring the slopes together, and glue or clip the fins along the ridge.",
		},
		Measuring: fmt.Sprintf("The ridge rises %s above the lid's walls.", measure.Label(measure.FromMM(r.rise()), measure.MM, measure.Millimetre/10)),
	}
	tTray, tLid := s.Card("tray"), s.Card("lid")
	pair := fit.Pair{
		Outer: "lid", Inner: "tray", OuterName: "Lid", InnerName: "Tray", OuterCard: tLid, InnerCard: tTray,
		OuterSpan: w, InnerSpan: w - a, OuterDepth: wall, InnerDepth: base.height,
	}
	along, across := pair, pair
	along.Axis, across.Axis = "length", "width"
	across.OuterLayers, across.OuterWhat = 1, "tab"
	return &Box{
		Parts: []Part{tray, lid}, Fits: []fit.Pair{along, across},
		Assembly: []string{"Lower the lid over the filled tray."},
		Extents: func() (Extent, Extent, error) {
			in, below, err := measured(tray, tTray)
			if err != nil {
				return in, below, err
			}
			high := base.height + measure.FromMM(r.rise()) + fin
			return in, Extent{w + tLid, w + tLid, high + tTray/2}, nil
		},
	}, nil
}
