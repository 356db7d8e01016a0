package style

import (
	"fmt"
	"strconv"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
)

// How many boxes an assembly can have.
var counts = []string{"2", "3", "4", "5"}

var tower = &Style{
	ID: "tower", Name: "Tower", About: "Boxes standing on one another, each smaller by a step",
	Opens: "lid after lid", Strength: "good: each box holds the next",
	Parameters: append(lengthWidthHeight[:3:3], Parameter{
		ID: "step", Label: "Step", Default: measure.Inch / 2, Min: 2 * mm, Max: 60 * mm, About: "How much each base is smaller than the one below, each way",
	}),
	Options: []Option{
		{ID: "count", Label: "Boxes", Kind: ChoiceKind, Choices: counts, DefaultChoice: "3", About: "How many, the largest at the foot"},
		{ID: "boxes", Label: "Each is a", Kind: ChoiceKind, Choices: []string{"tray", "clam-box"}, DefaultChoice: "clam-box", About: "Open trays, or clam boxes that close"},
		{ID: "grade", Label: "Graded by", Kind: ChoiceKind, Choices: []string{"step", "sheets"}, DefaultChoice: "step",
			About: "A step, or one square sheet for each: 12, 8 and 6 in, the largest tray that each gives"},
		corners, adhesive,
	},
	Axes:  [3]string{"length", "width", "height"},
	Build: buildTower,
}

// squares are the sheets of a tower graded by sheets, the largest first.
var squares = []measure.Length{12 * measure.Inch, 8 * measure.Inch, 6 * measure.Inch}

func buildTower(s Spec) (*Box, error) {
	n, err := strconv.Atoi(s.Choices["count"])
	if err != nil {
		return nil, fault.New("unknown-choice", "options.count", "a tower has 2 to 5 boxes")
	}
	bySheets := s.Choices["grade"] == "sheets"
	if bySheets && (n > len(squares) || s.Choices["boxes"] != "tray") {
		return nil, fault.New("out-of-range", "options.grade", "there are three square sheets, for up to three trays; grade by a step instead")
	}
	tower := &Box{}
	step, floor := s.Lengths["step"], 0.0
	var foot *Box
	for i := range n {
		less := step * measure.Length(i)
		l, w, h := s.Lengths["length"]-less, s.Lengths["width"]-less, s.Lengths["height"]
		if bySheets {
			l = squares[i] - 2*h
			w = l
		}
		if min(l, w) < 12*mm {
			return nil, fault.New("out-of-range", "size.step", "the top box would be under 12 mm wide; make the step smaller, or fewer boxes")
		}
		one, err := storey(s, i+1, l, w, h)
		if err != nil {
			return nil, err
		}
		p := one.Parts[0]
		p.Beside[2] = floor
		floor += h.MM() + 2
		tower.Parts = append(tower.Parts, p)
		if i == 0 {
			foot = one
		}
	}
	tower.Assembly = []string{"Fill the boxes and stand them on one another, the largest at the foot; a dot of glue between them holds the tower."}
	tower.Extents = func() (Extent, Extent, error) {
		in, out, err := foot.Extents()
		out.Height += measure.FromMM(floor) - s.Lengths["height"]
		return in, out, err
	}
	return tower, nil
}

// storey is one box of a tower, numbered from its foot.
func storey(s Spec, n int, l, w, h measure.Length) (*Box, error) {
	one := Spec{Lengths: map[string]measure.Length{"length": l, "width": w, "height": h}, Choices: map[string]string{}, Thickness: s.Thickness, Tick: s.Tick}
	for k, v := range s.Choices {
		one.Choices[k] = v
	}
	build := oneTrayOf
	if s.Choices["boxes"] == "clam-box" {
		one.Choices["lid.scores"] = "same"
		build = buildClamBox
	}
	b, err := build(one)
	if err != nil {
		return nil, err
	}
	b.Parts[0].ID, b.Parts[0].Name = fmt.Sprint("box-", n), fmt.Sprint("Box ", n)
	return b, nil
}

func oneTrayOf(s Spec) (*Box, error) { return oneTray(s, "single", 0) }

var nest = &Style{
	ID: "nest", Name: "Nest", About: "Open trays each standing inside the next, with just the gap that lets them out",
	Opens: "lid after lid, one inside the other", Strength: "good",
	Parameters: lengthWidthHeight,
	Options: []Option{
		{ID: "count", Label: "Trays", Kind: ChoiceKind, Choices: counts, DefaultChoice: "3", About: "How many, the largest first"},
		{ID: "nest.gap", Label: "Gap", Kind: LengthKind, Default: 0, Min: 0, Max: fit.LargestAllowance, ForFit: true,
			About: "More room between two trays than the layers take; leave it out to have it worked out"},
		corners, adhesive,
	},
	Axes:      [3]string{"length", "width", "height"},
	Allowance: "nest.gap",
	Build:     buildNest,
}

func buildNest(s Spec) (*Box, error) {
	n, err := strconv.Atoi(s.Choices["count"])
	if err != nil {
		return nil, fault.New("unknown-choice", "options.count", "a nest has 2 to 5 trays")
	}
	nest := &Box{Assembly: []string{"Set the trays inside one another, the smallest last."}}
	t := s.Card("")
	shape := trayShape{
		panel: "base", opens: Upwards, length: s.Lengths["length"], width: s.Lengths["width"], height: s.Lengths["height"],
		corners: s.Choices["corners"], adhesive: s.Choices["adhesive"], tick: s.Tick,
	}
	for i := range n {
		shape.id, shape.name = fmt.Sprint("tray-", i+1), fmt.Sprint("Tray ", i+1)
		p, err := shape.part()
		if err != nil || shape.height < 6*mm {
			return nil, fault.New("out-of-range", "size.height", "the smallest tray would be under 6 mm high or have no floor; make the nest larger, or fewer trays")
		}
		p.Beside[2] = float64(i) * shape.height.MM() * 0.8
		nest.Parts = append(nest.Parts, p)
		if i+1 == n {
			break
		}
		inner := shape.within(s.Lengths["nest.gap"], t)
		pairs := lidOver(shape, inner, t, t)
		for k := range pairs {
			pairs[k].Inner, pairs[k].InnerName = fmt.Sprint("tray-", i+2), fmt.Sprint("Tray ", i+2)
		}
		nest.Fits = append(nest.Fits, pairs...)
		shape = inner
	}
	first := nest.Parts[0]
	nest.Extents = func() (Extent, Extent, error) { return measured(first, t) }
	return nest, nil
}

// within is the tray that stands inside this one: smaller each way by the
// layers of the walls (to the tick) and the gap, and lower by the floor.
func (t trayShape) within(gap, card measure.Length) trayShape {
	kl, kw := t.layers()
	less := measure.Up(card*measure.Length(2+max(kl, kw)), t.tick) + gap
	t.length, t.width = t.length-less, t.width-less
	t.height -= measure.Up(card, t.tick)
	return t
}
