package style

import (
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
)

var (
	lidDepth = &Option{
		ID: "lid.depth", Label: "Lid depth", Kind: LengthKind, Default: measure.Inch, Min: 6 * mm, Max: 600 * mm,
		About:   "h: how far the lid comes down; what is left of the base shows as the reveal",
		Follows: func(s Spec) measure.Length { return min(s.about(measure.Inch), s.Size(height)) },
		Varies:  true,
		Small:   func(s Spec) measure.Length { return min(s.about(halfInch), s.Size(height)) },
	}
	lidAllowance = &Option{
		ID: AllowanceID, Label: "How much bigger the lid is", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: mostAllowance,
		About:  "a: how much bigger the lid's panel is than the base's, each way; leave it out to have it worked out",
		ForFit: true,
	}
	lidAllowanceWidth = &Option{
		ID: "lid.allowance.width", Label: "How much wider the lid is", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: mostAllowance, ForFit: true,
		About:   "How much wider the lid's panel is than the base's; the same as in length when it is left out",
		Follows: func(s Spec) measure.Length { return s.Length(lidAllowance) },
	}
	lidCustom = &Option{
		ID:            "lid.custom",
		Label:         "How the lid gets its gap",
		Kind:          ChoiceKind,
		Choices:       []string{"bigger-lid", "smaller-base", "shim"},
		DefaultChoice: "bigger-lid",
		About:         "A bigger lid blank, a smaller base blank, or a shim at the scoring board's fence: the same gap",
		ForFit:        true,
		Varies:        true,
		Smaller:       &Smaller{Choice: "smaller-base", Words: "Trim the base instead", Trims: true},
	}
	baseWalls = &Option{
		ID: "base.walls", Label: "Base walls", Kind: ChoiceKind, Choices: []string{"single", "double"}, DefaultChoice: "single",
		About:   "Double walls roll over: strong, and clean at the rim",
		Smaller: &Smaller{Choice: "single", Words: "A single-walled base"},
	}
	lidWalls = &Option{
		ID: "lid.walls", Label: "Lid walls", Kind: ChoiceKind, Choices: []string{"single", "double"}, DefaultChoice: "single",
		About:   "Double walls take room inside the lid; the fit takes that into account",
		Smaller: &Smaller{Choice: "single", Words: "A single-walled lid"},
	}
)

var lidNotch = &Option{
	ID: "lid.notch", Label: "Thumb notches in the lid", Kind: LengthKind, Default: 0, Min: 0, Max: 60 * mm,
	About: "The diameter of a half circle in the rim of both end walls, to take hold of the base and to let the air out; 0 for none",
}

var trayLid = &Style{
	ID: "tray-lid", Name: "Base with a lift-off lid", About: "Two trays, one over the other; each single or double walled",
	For:   []Use{ForGifts, ForTreats},
	Opens: "the lid lifts off", Strength: "good; strong with double walls",
	Parameters: lengthWidthHeight[:],
	Options:    []*Option{lidDepth, lidAllowance, lidAllowanceWidth, lidCustom, baseWalls, lidWalls, lidNotch, corners, adhesive},
	Axes:       lengthWidthHeight,
	Allowance:  lidAllowance,
	Build:      buildTrayLid,
}

// deeperLid is what comes of a lid that reaches further down than what it goes over.
const deeperLid = "it stands on the table before it lies on the rim, and the box has that much air under it"

func buildTrayLid(s Spec) (*Box, error) {
	base := s.trayShape("base", "Base", s.Size(length), s.Size(width), s.Size(height))
	lid := base
	lid.id, lid.name, lid.panel, lid.opens = "lid", "Lid", "top", Downwards
	lid.height = s.Length(lidDepth)
	s.most(lidDepth.limited(), base.height, deeperLid)
	a, across, outermost := s.Length(lidAllowance), s.Length(lidAllowanceWidth), lid.height
	custom := s.Choice(lidCustom)
	if custom == "shim" && across != a {
		return nil, outOfRange("options.lid.allowance.width", "a shim makes it bigger by the same both ways; leave this one out, or make the lid's blank bigger instead")
	}
	switch custom {
	case "smaller-base":
		base.length, base.width = base.length-a, base.width-across
	case "shim":
		// Held off the fence by half the allowance, the wall at each edge of the
		// blank loses that much, which of a double one is the rolled-in wall,
		// and the panel gains the whole of it.
		outermost -= a / 2
		s.most(lidAllowance.limited(), max(0, 2*(lid.height-6*mm)), "it is taken from the lid's walls, and leaves them too low for their tabs")
		if s.Choice(lidWalls) != "double" {
			lid.height = outermost
		}
		lid.length, lid.width, lid.shim = lid.length+a, lid.width+a, a/2
	default:
		lid.length, lid.width = lid.length+a, lid.width+across
	}
	if outermost <= 0 {
		return nil, fault.New(
			fault.TooLarge,
			"options.lid.allowance",
			"this is more than the walls it is taken from; make it smaller",
		)
	}
	if s.Choice(baseWalls) == "double" {
		base.lining = base.height
	}
	if s.Choice(lidWalls) == "double" {
		lid.lining = outermost
	}
	if r := s.Length(lidNotch) / 2; r > 0 {
		// A rolled wall, and with pinwheel corners a tab, would stand behind the notch.
		if lid.lining > 0 || lid.corners == "pinwheel" || r > lid.height-3*mm || lid.width/2-r < 15*mm {
			return nil, outOfRange("options.lid.notch",
				"notches of %s need a deeper or wider lid with single walls, and two-tab or slim corners; make them smaller, or 0 for none", s.show(2*r))
		}
		lid.notch, lid.bothEnds, lid.notchBy = r, true, lidNotch
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
	case "shim":
		lidPart.Shim = a / 2
	default:
	}
	tBase, tLid := s.Card("base"), s.Card("lid")
	rim := base.height
	if base.lining > 0 { // a rolled rim stands half a card above its fold
		rim += tBase / 2
	}
	lidPart.lidOver(rim, lid.height, tLid)
	return &Box{
		Doubled:  base.lining > 0,
		Parts:    []Part{basePart, lidPart},
		Fits:     lid.over(base, fit.LidOn, tLid, tBase),
		Shut:     ByFriction,
		Together: []hand.Move{hand.Fill{Into: "base"}, lowered("lid")},
	}, nil
}

// lidOver puts a lid where its panel lies on a rim so high; open, it hangs in
// the air above.
func (p *Part) lidOver(rim, depth, card measure.Length) {
	p.At = r3.Vec{Z: (rim + card/2 - depth).MM()}
	p.Away = r3.Vec{Z: 1.9*depth.MM() + 8}
}
