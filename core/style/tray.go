package style

import (
	"brevium/core/hand"
	"brevium/core/measure"
)

const mm = measure.Millimetre

// The three sizes of anything with a floor and four walls.
var (
	length = &Parameter{
		ID:      "length",
		Label:   "Length",
		Default: 4 * measure.Inch,
		Min:     12 * mm,
		Max:     600 * mm,
		About:   "L: the floor between its folds, left to right",
	}
	width = &Parameter{
		ID:      "width",
		Label:   "Width",
		Default: 3 * measure.Inch,
		Min:     12 * mm,
		Max:     600 * mm,
		About:   "W: the floor between its folds, front to back",
	}
	height = &Parameter{
		ID:      "height",
		Label:   "Height",
		Default: 3 * measure.Inch / 2,
		Min:     6 * mm,
		Max:     600 * mm,
		About:   "H: the wall, from the floor's score to the rim",
	}

	lengthWidthHeight = [3]*Parameter{length, width, height}
)

var tray = &Style{
	ID: "tray", Name: "Open tray", About: "A floor and four walls from one blank; corners with tabs",
	For:   []Use{ForShow},
	Opens: "open at the top", Strength: "one card at the walls",
	Parameters: lengthWidthHeight[:],
	Options:    []*Option{corners, adhesive},
	Axes:       lengthWidthHeight,
	Build: func(s Spec) (*Box, error) {
		return oneTray(s, 0)
	},
}

var innerWall = &Option{
	ID: "walls.inner", Label: "Second wall", Kind: ChoiceKind, Choices: []string{"full", "less-thickness"}, DefaultChoice: "full",
	About: "Full height, or a card's thickness lower, to the ruler's next mark, so that it lands flat on the floor",
}

var trayDouble = &Style{
	ID: "tray-double", Name: "Double-walled tray", About: "A tray whose walls roll over and glue down: strong, with a clean rim",
	For:   []Use{ForShow},
	Opens: "open at the top", Strength: "strong: two cards at every wall",
	Parameters: lengthWidthHeight[:],
	Options:    []*Option{corners, adhesive, innerWall},
	Axes:       lengthWidthHeight,
	Build: func(s Spec) (*Box, error) {
		lining := s.Size(height)
		if s.Choice(innerWall) == "less-thickness" {
			lining = measure.Down(lining-s.Card("tray"), s.cutting())
		}
		return oneTray(s, lining)
	},
}

// oneTray is a tray alone; lining is its second wall, 0 for none.
func oneTray(s Spec, lining measure.Length) (*Box, error) {
	t := s.trayShape("tray", "Tray", s.Size(length), s.Size(width), s.Size(height))
	t.lining = lining
	part, err := t.part()
	if err != nil {
		return nil, err
	}
	return &Box{Parts: []Part{part}, Doubled: lining > 0, Together: []hand.Move{hand.Fill{Into: part.ID}}}, nil
}
