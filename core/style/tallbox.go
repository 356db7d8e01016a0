package style

import (
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var tallBox = &Style{
	ID: "tall-box", Name: "Tall box", About: "A tube for a bottle or a vial, its top tucked, pinched or clipped",
	Opens: "at the top", Strength: "fair: a tube with a glued bottom",
	Parameters: []Parameter{
		{ID: "width", Label: "Width", Default: 5 * measure.Inch / 2, Min: 15 * mm, Max: 110 * mm, About: "W: left to right, score to score"},
		{ID: "depth", Label: "Depth", Default: 5 * measure.Inch / 2, Min: 15 * mm, Max: 110 * mm, About: "D: front to back; no more than the width when the top is pinched or clipped"},
		{ID: "height", Label: "Height", Default: 8 * measure.Inch, Min: 60 * mm, Max: 280 * mm, About: "The whole tube above the bottom flaps; the top is made out of its upper end"},
		{ID: "bottom", Label: "Bottom flaps", Default: 2 * measure.Inch, Min: 8 * mm, Max: 110 * mm, About: "b: at least half the narrower side, so that they meet",
			Follows: func(s Spec) measure.Length {
				return measure.Up(min(s.Lengths["width"], s.Lengths["depth"])*3/4, s.Tick)
			}},
		{ID: "tab", Label: "Tab", Default: measure.Inch / 2, Min: 6 * mm, Max: 25 * mm, About: "The strip that joins the tube; wider for a heavy thing"},
	},
	Options: []Option{{
		ID: "top", Label: "Top", Kind: ChoiceKind, Choices: []string{"tuck", "pinch", "clip"}, DefaultChoice: "tuck",
		About: "A lid that tucks in, or a ridge that is pinched and glued, or clipped",
	}, adhesive},
	Axes:  [3]string{"width", "depth", "height"},
	Build: buildTallBox,
}

// tongue is the strip of a tucked lid that goes in behind the front, and ridge
// the fin that is pinched or clipped.
const (
	tongue    = measure.Inch / 2
	ridge     = measure.Inch / 2
	leastBody = 20 * measure.Millimetre
)

func buildTallBox(s Spec) (*Box, error) {
	w, d, h, b, tab := s.Lengths["width"], s.Lengths["depth"], s.Lengths["height"], s.Lengths["bottom"], s.Lengths["tab"]
	if least := min(w, d) / 2; b < least {
		return nil, fault.New("out-of-range", "size.bottom", "the bottom flaps must be at least %s, half the narrower side, or they do not meet", s.show(least))
	}
	if err := s.atMost("bottom", min(w, d), "they would reach past the far wall"); err != nil {
		return nil, err
	}
	slope := measure.Up(d*3/4, s.Tick)
	top := d + tongue
	if s.Choices["top"] != "tuck" {
		top = slope + ridge
		if err := s.atMost("depth", w, "the ends of a pinched top would meet; pinch along the wider side"); err != nil {
			return nil, err
		}
	}
	if least := top + leastBody; h < least {
		return nil, fault.New("out-of-range", "size.height", "the tube must be at least %s high for a top that is made out of it", s.show(least))
	}
	columns := []measure.Length{w, d, w, d, tab}
	var g *pattern.Grid
	if s.Choices["top"] == "tuck" {
		g = pattern.NewGrid(columns, []measure.Length{tongue, d, h - top, b}, `
			.             .           tongue      .           .
			.             dust.right  lid         dust.left   .
			front         right       back        left        tab
			bottom.front  bottom.right bottom.back bottom.left .`)
		g.Role(pattern.Panel, "lid")
		g.Role(pattern.Flap, "tongue", "dust.right", "dust.left")
		g.Tab("tongue", "lid", tongue, flapWedge)
		g.Tuck("tongue", "front")
		for _, side := range []string{"right", "left"} {
			dust := "dust." + side
			g.Tab(dust, side, min(d, w/2-mm), flapWedge)
			g.Slit(dust, "lid")
			g.Tuck(dust, "lid")
		}
	} else {
		g = pattern.NewGrid(columns, []measure.Length{ridge, slope, h - top, b}, `
			fin.front     fin.right    fin.back    fin.left    .
			slope.front   slope.right  slope.back  slope.left  tab.slope
			front         right        back        left        tab
			bottom.front  bottom.right bottom.back bottom.left .`)
		g.Role(pattern.Panel, "slope.front", "slope.right", "slope.back", "slope.left")
		g.Role(pattern.Flap, "fin.front", "fin.right", "fin.back", "fin.left")
		g.Role(pattern.Tab, "tab.slope")
		g.Glue("tab.slope", true, "slope.front")
	}
	g.Role(pattern.Tab, "tab")
	g.Glue("tab", true, "front")
	g.Up("bottom.front", "front")
	g.Up("bottom.back", "back")
	g.Up("bottom.left", "left")
	g.Up("bottom.right", "right")
	bottoms(g, b)
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	gluing := []string{
		"Put adhesive on the outside of the tab and join the tube.",
		"Fold in the two narrow bottom flaps, put adhesive on them, and press the other two down over them.",
	}
	if s.Choices["top"] != "tuck" {
		r := roof{w: w.MM(), d: d.MM(), wall: (h - top).MM(), slope: slope.MM(), fin: ridge.MM(), foot: h.MM(), upwards: -1}
		if err := r.shape(p); err != nil {
			return nil, err
		}
		how := "glue the fins together along the ridge."
		if s.Choices["top"] == "clip" {
			how = "hold the fins with a clip, so that it opens again."
		}
		gluing = append(gluing, "Push the two ends in at the top, bring the slopes together, and "+how)
	}
	return alone(Part{
		ID: "body", Name: "Tube", Pattern: p, Root: "front", Opens: Upright,
		Folding: "Fold the uprights, the bottom flaps and the top away from the outside and burnish them.",
		Gluing:  gluing,
	}, s.Card("body")), nil
}

// bottoms wedges the bottom flaps and lays front and back over the sides.
func bottoms(g *pattern.Grid, b measure.Length) {
	for _, wall := range []string{"front", "right", "back", "left"} {
		g.Role(pattern.Tab, "bottom."+wall)
		g.Tab("bottom."+wall, wall, b, min(b/4, 2*flapWedge))
	}
	for i, wall := range []string{"front", "right", "back"} {
		g.Slit("bottom."+wall, "bottom."+[]string{"right", "back", "left"}[i])
	}
	for _, over := range []string{"front", "back"} {
		g.Over("bottom."+over, "bottom.right")
		g.Over("bottom."+over, "bottom.left")
	}
}
