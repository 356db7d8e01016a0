package style

import (
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var drawerSleeve = &Style{
	ID: "drawer-sleeve", Name: "Drawer and sleeve", About: "A tray that slides out of a sleeve, with a thumb notch",
	Opens: "a drawer slides out", Strength: "good: two cards where the sleeve goes round",
	Parameters: lengthWidthHeight,
	Options: []Option{
		{
			ID: "sleeve.allowance", Label: "Sleeve allowance", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: fit.LargestAllowance, ForFit: true,
			About: "How much wider and higher the sleeve is scored than the drawer; leave it out to have it worked out",
		},
		{
			ID: "sleeve.slip", Label: "Sleeve longer by", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: 30 * mm,
			About: "Longer than the drawer: a tick for flush ends, more for a recessed drawer",
		},
		{ID: "tab", Label: "Sleeve's tab", Kind: LengthKind, Default: 15 * mm, Min: 6 * mm, Max: 40 * mm, About: "The strip that joins the sleeve, glued inside its floor"},
		{ID: "notch", Label: "Thumb notch", Kind: LengthKind, Default: 3 * measure.Inch / 4, Min: 0, Max: 60 * mm, About: "Its diameter; 0 for none",
			Follows: func(s Spec) measure.Length {
				return min(3*measure.Inch/4, measure.Down(s.Lengths["width"]/3, s.Tick), measure.Down(s.Lengths["height"], s.Tick))
			}},
		{ID: "notch.on", Label: "Notch in", Kind: ChoiceKind, Choices: []string{"sleeve", "drawer"}, DefaultChoice: "sleeve", About: "In the sleeve's end, or in the drawer's end wall"},
		{ID: "notch.ends", Label: "Notch at", Kind: ChoiceKind, Choices: []string{"one", "both"}, DefaultChoice: "one", About: "At one end or both"},
		corners, adhesive,
	},
	Axes:      [3]string{"length", "width", "height"},
	Allowance: "sleeve.allowance",
	Build:     buildDrawerSleeve,
}

func buildDrawerSleeve(s Spec) (*Box, error) {
	drawer := trayShape{
		id: "drawer", name: "Drawer", panel: "base", opens: Upwards,
		length: s.Lengths["length"], width: s.Lengths["width"], height: s.Lengths["height"],
		corners: s.Choices["corners"], adhesive: s.Choices["adhesive"], tick: s.Tick,
	}
	r := s.Lengths["notch"] / 2
	both := s.Choices["notch.ends"] == "both"
	if s.Choices["notch.on"] == "drawer" {
		// With pinwheel corners a tab would stand behind the notch.
		if r > 0 && (r > drawer.height-3*mm || drawer.width/2-r < 15*mm || drawer.corners == "pinwheel") {
			return nil, fault.New("out-of-range", "options.notch", "a notch of %s needs a higher or wider end wall and two-tab or slim corners; make it smaller, or 0 for none",
				s.show(2*r))
		}
		drawer.notch, drawer.bothEnds = r, both
	}
	dp, err := drawer.part()
	if err != nil {
		return nil, err
	}
	a := s.Lengths["sleeve.allowance"]
	w, h, tab := drawer.width+a, drawer.height+a, min(s.Lengths["tab"], drawer.width/2)
	g := pattern.NewGrid([]measure.Length{drawer.length + s.Lengths["sleeve.slip"]}, []measure.Length{w, h, w, h, tab}, `
		floor
		back
		roof
		front
		tab`)
	g.Role(pattern.Panel, "floor", "roof")
	g.Role(pattern.Tab, "tab")
	g.Up("floor", "back")
	g.Tab("tab", "front", tab, tabWedge)
	g.Glue("tab", true, "floor")
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	if r > 0 && s.Choices["notch.on"] == "sleeve" {
		mid := (w + h + w/2).MM()
		err := p.Notch("roof", pattern.Pt(p.Width.MM(), mid), r.MM())
		if both && err == nil {
			err = p.Notch("roof", pattern.Pt(0, mid), r.MM())
		}
		if err != nil || 2*r > p.Width/2 {
			return nil, fault.New("out-of-range", "options.notch", "a notch of %s does not fit in the sleeve's end; make it smaller, or 0 for none",
				s.show(2*r))
		}
	}
	sleeve := Part{
		ID: "sleeve", Name: "Sleeve", Pattern: p, Root: "floor", Opens: Upwards, Beside: [3]float64{-drawer.length.MM() * 0.6, 0, 0},
		Folding: "Fold the four scores away from the outside and burnish them over their whole length.",
		Gluing:  []string{"Put adhesive on the outside of the tab and join the sleeve with the drawer inside it, so that it slides; draw the drawer out before the glue sets."},
	}
	tD, tS := s.Card("drawer"), s.Card("sleeve")
	pair := fit.Pair{Outer: "sleeve", Inner: "drawer", OuterName: "Sleeve", InnerName: "Drawer", OuterCard: tS, InnerCard: tD}
	across, up := pair, pair
	across.Axis, across.OuterSpan, across.InnerSpan = "width", w, drawer.width
	up.Axis, up.OuterSpan, up.InnerSpan, up.OuterLayers, up.OuterWhat = "height", h, drawer.height, 1, "tab"
	return &Box{
		Parts: []Part{dp, sleeve}, Fits: []fit.Pair{across, up},
		Assembly: []string{"Slide the filled drawer into its sleeve, from the end with the notch."},
		Extents: func() (Extent, Extent, error) {
			in, _, err := measured(dp, tD)
			if err != nil {
				return in, in, err
			}
			_, out, err := measured(sleeve, tS)
			return in, out, err
		},
	}, nil
}
