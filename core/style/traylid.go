package style

import (
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
)

var trayLid = &Style{
	ID: "tray-lid", Name: "Base with a lift-off lid", About: "Two trays, one over the other; each single or double walled",
	Opens: "the lid lifts off", Strength: "good; strong with double walls",
	Parameters: lengthWidthHeight,
	Options: []Option{
		{
			ID: "lid.depth", Label: "Lid depth", Kind: LengthKind, Default: measure.Inch, Min: 6 * mm, Max: 140 * mm,
			About:   "h: how far the lid comes down; what is left of the base shows as the reveal",
			Follows: func(s Spec) measure.Length { return min(measure.Inch, s.Lengths["height"]) },
		},
		{
			ID: "lid.allowance", Label: "Lid allowance", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: fit.LargestAllowance,
			About:  "a: how much bigger the lid's panel is than the base's, each way; leave it out to have it worked out",
			ForFit: true,
		},
		{
			ID: "lid.custom", Label: "How the lid gets its gap", Kind: ChoiceKind, Choices: []string{"bigger-lid", "smaller-base", "shim"}, DefaultChoice: "bigger-lid",
			About:  "A bigger lid blank, a trimmed base blank, or a shim at the scoring board's fence: the same gap",
			ForFit: true,
		},
		{
			ID: "base.walls", Label: "Base walls", Kind: ChoiceKind, Choices: []string{"single", "double"}, DefaultChoice: "single",
			About: "Double walls roll over: strong, and clean at the rim",
		},
		{
			ID: "lid.walls", Label: "Lid walls", Kind: ChoiceKind, Choices: []string{"single", "double"}, DefaultChoice: "single",
			About: "Double walls take room inside the lid; the account knows",
		},
		corners, adhesive,
	},
	Axes:      [3]string{"length", "width", "height"},
	Allowance: "lid.allowance",
	Build:     buildTrayLid,
}

func buildTrayLid(s Spec) (*Box, error) {
	base := trayShape{
		id: "base", name: "Base", panel: "base", opens: Upwards,
		length: s.Lengths["length"], width: s.Lengths["width"], height: s.Lengths["height"],
		corners: s.Choices["corners"], adhesive: s.Choices["adhesive"], tick: s.Tick,
	}
	lid := base
	lid.id, lid.name, lid.panel, lid.opens = "lid", "Lid", "top", Downwards
	lid.height = s.Lengths["lid.depth"]
	if lid.height > base.height {
		return nil, fault.New("lid-too-deep", "options.lid.depth", "a lid deeper than the base would stand on the table before it closes; make it no deeper than the base's walls")
	}
	a := s.Lengths["lid.allowance"]
	custom := s.Choices["lid.custom"]
	switch custom {
	case "smaller-base":
		base.length, base.width = base.length-a, base.width-a
	case "shim":
		// Held off the fence by half the allowance, each wall loses that much
		// and the panel between two of them gains the whole of it.
		lid.height -= a / 2
		lid.length, lid.width = lid.length+a, lid.width+a
	default:
		lid.length, lid.width = lid.length+a, lid.width+a
	}
	if lid.height <= 0 {
		return nil, fault.New("too-large", "options.lid.allowance", "this allowance is larger than the walls it is taken from; make it smaller")
	}
	if s.Choices["base.walls"] == "double" {
		base.lining = base.height
	}
	if s.Choices["lid.walls"] == "double" {
		lid.lining = lid.height
	}
	basePart, err := base.part()
	if err != nil {
		return nil, err
	}
	lidPart, err := lid.part()
	if err != nil {
		return nil, err
	}
	switch custom {
	case "smaller-base":
		basePart.Measuring = "Cut the base blank as if it were the lid's size, then trim the allowance off two neighbouring sides. Score the same number from each of the four edges, turning the blank."
	case "shim":
		lidPart.Shim = a / 2
		lidPart.Measuring = "A shim of half the allowance between the fence and the blank: the walls lose it and the panel gains it."
	case "bigger-lid":
		lidPart.Measuring = "This blank is bigger by the allowance each way; the first number scored from each of the four edges comes to the same lines."
	}
	tBase, tLid := s.Card("base"), s.Card("lid")
	return &Box{
		Parts:    []Part{basePart, lidPart},
		Fits:     lidOver(lid, base, tLid, tBase),
		Assembly: []string{"Lower the lid over the filled base; it comes to rest on the rim."},
		Extents:  func() (Extent, Extent, error) { return lidded(basePart, lidPart, tBase, tLid) },
	}, nil
}

// lidded measures a base under a lid whose panel lies on the base's rim.
func lidded(base, lid Part, tBase, tLid measure.Length) (inside, outside Extent, err error) {
	inside, below, err := measured(base, tBase)
	if err != nil {
		return inside, outside, err
	}
	_, outside, err = measured(lid, tLid)
	outside.Height = max(outside.Height, below.Height+tLid)
	return inside, outside, err
}

// lidOver pairs two trays, one going over the other.
func lidOver(lid, base trayShape, tLid, tBase measure.Length) []fit.Pair {
	kLength, kWidth := lid.layers()
	whatLength, whatWidth := lid.layersWhat()
	pair := fit.Pair{
		Outer: lid.id, Inner: base.id, OuterName: lid.name, InnerName: base.name,
		OuterCard: tLid, InnerCard: tBase, OuterDepth: lid.height, InnerDepth: base.height,
	}
	along, acrossWidth := pair, pair
	along.Axis, along.OuterSpan, along.InnerSpan = "length", lid.length, base.length
	along.OuterLayers, along.OuterWhat = kLength, whatLength
	acrossWidth.Axis, acrossWidth.OuterSpan, acrossWidth.InnerSpan = "width", lid.width, base.width
	acrossWidth.OuterLayers, acrossWidth.OuterWhat = kWidth, whatWidth
	return []fit.Pair{along, acrossWidth}
}
