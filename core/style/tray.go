package style

import "brevium/core/measure"

const mm = measure.Millimetre

// The three sizes of anything with a floor and four walls.
var lengthWidthHeight = []Parameter{
	{ID: "length", Label: "Length", Default: 4 * measure.Inch, Min: 12 * mm, Max: 290 * mm, About: "L: the floor from score to score, left to right"},
	{ID: "width", Label: "Width", Default: 3 * measure.Inch, Min: 12 * mm, Max: 290 * mm, About: "W: the floor from score to score, front to back"},
	{ID: "height", Label: "Height", Default: 3 * measure.Inch / 2, Min: 6 * mm, Max: 140 * mm, About: "H: the wall, from the floor's score to the rim"},
}

var tray = &Style{
	ID: "tray", Name: "Open tray", About: "A floor and four walls from one blank; corners with tabs",
	Opens: "open at the top", Strength: "one card at the walls",
	Parameters: lengthWidthHeight,
	Options:    []Option{corners, adhesive},
	Axes:       [3]string{"length", "width", "height"},
	Build: func(s Spec) (*Box, error) {
		return oneTray(s, "single", 0)
	},
}

var trayDouble = &Style{
	ID: "tray-double", Name: "Double-walled tray", About: "A tray whose walls roll over and glue down: strong, with a clean rim",
	Opens: "open at the top", Strength: "strong: two cards at every wall",
	Parameters: lengthWidthHeight,
	Options: []Option{corners, adhesive, {
		ID: "walls.inner", Label: "Second wall", Kind: ChoiceKind, Choices: []string{"full", "less-thickness"}, DefaultChoice: "full",
		About: "Full height, or one card thickness lower so that it lands flat on the floor",
	}},
	Axes: [3]string{"length", "width", "height"},
	Build: func(s Spec) (*Box, error) {
		less := measure.Length(0)
		if s.Choices["walls.inner"] == "less-thickness" {
			less = s.Card("tray")
		}
		return oneTray(s, "double", less)
	},
}

func oneTray(s Spec, walls string, less measure.Length) (*Box, error) {
	t := trayShape{
		id: "tray", name: "Tray", panel: "base", opens: Upwards,
		length: s.Lengths["length"], width: s.Lengths["width"], height: s.Lengths["height"],
		corners: s.Choices["corners"], adhesive: s.Choices["adhesive"], tick: s.Tick,
	}
	if walls == "double" {
		t.lining = t.height - less
	}
	part, err := t.part()
	if err != nil {
		return nil, err
	}
	return alone(part, s.Card(t.id)), nil
}
