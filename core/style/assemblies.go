package style

import (
	"fmt"
	"slices"
	"strconv"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
)

// How many boxes an assembly can have.
var counts = []string{"2", "3", "4", "5"}

var (
	towerStep = &Parameter{
		ID:      "step",
		Label:   "Step",
		Default: measure.Inch / 2,
		Min:     2 * mm,
		Max:     60 * mm,
		About:   "How much each base is smaller than the one below, each way",
	}
	towerCount = &Option{
		ID:            "count",
		Label:         "Boxes",
		Kind:          ChoiceKind,
		Choices:       counts,
		DefaultChoice: "3",
		About:         "How many, the largest at the foot",
	}
	towerBoxes = &Option{
		ID:            "boxes",
		Label:         "Each is a",
		Kind:          ChoiceKind,
		Choices:       []string{"tray", "clam-box"},
		DefaultChoice: "clam-box",
		About:         "Open trays, or clam boxes that close",
	}
	towerGrade = &Option{ID: "grade", Label: "Graded by", Kind: ChoiceKind, Choices: []string{"step", "sheets"}, DefaultChoice: "step",
		About: "A step, or one square sheet and one height for each box: the largest that each sheet gives"}

	// sheetSides and sheetHeights are the square sheets of a tower graded by
	// them, the largest first, and how high the box of each is.
	sheetSides   = storeys("sheet", "Sheet", "The side of the square sheet that this box is cut from", 20*mm, 420*mm, 12, 8, 6, 5, 4)
	sheetHeights = storeys("height", "Height", "Of the box that is cut from it", 6*mm, 100*mm, 1.5, 1, 0.75, 0.625, 0.5)
)

// storeys are one parameter for each box of a tower by sheets, in inches.
func storeys(id, label, about string, least, most measure.Length, usual ...float64) []*Parameter {
	var out []*Parameter
	for i, l := range usual {
		out = append(out, &Parameter{
			ID: fmt.Sprintf("%s.%d", id, i+1), Label: fmt.Sprintf("%s %d", label, i+1), About: about, Min: least, Max: most,
			Default: measure.Length(l * float64(measure.Inch)),
			Only: func(s Spec) bool {
				n, _ := strconv.Atoi(s.Choice(towerCount))
				return s.Choice(towerGrade) == "sheets" && i < n
			},
		})
	}
	return out
}

var tower = &Style{
	ID: "tower", Name: "Tower", About: "Boxes standing on one another, each smaller by a step",
	For:   []Use{ForSeveral, ForGifts},
	Opens: "lid after lid", Strength: "good: each box holds the next",
	Parameters: slices.Concat([]*Parameter{length, width, height, towerStep}, sheetSides, sheetHeights),
	Options:    []*Option{towerCount, towerBoxes, towerGrade, corners, adhesive},
	Axes:       lengthWidthHeight,
	Build:      buildTower,
}

func buildTower(s Spec) (*Box, error) {
	n, err := strconv.Atoi(s.Choice(towerCount))
	if err != nil {
		return nil, fault.New(fault.UnknownChoice, "options.count", "a tower has 2 to 5 boxes: %w", err)
	}
	trays, bySheets := s.Choice(towerBoxes) == "tray", s.Choice(towerGrade) == "sheets"
	tower := &Box{
		Shut: ByRestick,
	}
	storeys, err := s.boxSizes(n, trays, bySheets)
	if err != nil {
		return nil, err
	}
	floor, beside := measure.Length(0), measure.Length(0)
	for i, e := range storeys {
		l, w, h := e.Length, e.Width, e.Height
		id, name := fmt.Sprint("box-", i+1), fmt.Sprint("Box ", i+1)
		t := s.Card(id)
		one, err := s.storey(id, name, l, w, h)
		if err != nil {
			return nil, err
		}
		p := one.Parts[0]
		// Open, they are set side by side.
		p.At, p.Away = r3.Vec{Z: floor.MM()}, r3.Vec{X: beside.MM(), Z: -floor.MM()}
		beside += l + 3*h
		floor += h + t
		if trays {
			floor -= t / 2 // it stands on the rim
		}
		tower.Parts = append(tower.Parts, p)
		if trays {
			tower.Small = append(tower.Small, s.smallTray(id, name, l, w, h))
		} else {
			as := s.as(clamBox)
			as.Lengths[length.ID], as.Lengths[width.ID], as.Lengths[height.ID] = l, w, h
			tower.Small = append(tower.Small, smallBox(id, name, as, map[string]string{"body": id}))
		}
		if i == 0 {
			tower.Room = one.Room
		} else {
			tower.Stands = append(tower.Stands, Standing{Upper: id, Lower: tower.Parts[i-1].ID,
				Otherwise: "Make them clam boxes, which close, or lay a stiffener as large as the lower rim between them"})
		}
	}
	tower.Together = []hand.Move{hand.Fill{Into: tower.Parts[0].ID, Said: hand.Say("fill-boxes")}}
	if trays {
		tower.Together = append(tower.Together, hand.Shut{Said: hand.Say("stand-trays")})
	} else {
		tower.Together = append(tower.Together, hand.Shut{Said: hand.Say("close-lids")}, hand.Shut{Said: hand.Say("stand-boxes")})
	}
	tower.Together = append(tower.Together, hand.Hold{Said: hand.Say("hold-tower")})
	return tower, nil
}

// boxSizes are the sizes of a tower's boxes, the largest first. It fails where the top one is
// too small, before any is built.
func (s Spec) boxSizes(n int, trays, bySheets bool) ([]Extent, error) {
	out := make([]Extent, n)
	for i := range out {
		less := s.Size(towerStep) * measure.Length(i)
		l, w, h := s.Size(length)-less, s.Size(width)-less, s.Size(height)
		if bySheets {
			var err error
			if l, w, h, err = s.fromSheet(i, trays); err != nil {
				return nil, err
			}
		}
		if min(l, w) < 12*mm {
			return nil, outOfRange("size.step", "the top box would be under 12 mm wide; make the step smaller, or fewer boxes")
		}
		out[i] = Extent{Length: l, Width: w, Height: h}
	}
	return out, nil
}

// fromSheet is the largest box that a square sheet gives: a tray leaves its
// walls on all sides, a clam box of the same length has two of them and a spine
// of the same height one way. There the height is the next that halves what is
// left on the board's marks.
func (s Spec) fromSheet(i int, tray bool) (l, w, h measure.Length, err error) {
	side := s.Size(sheetSides[i])
	h, tick := s.Size(sheetHeights[i]), s.Tick.Length()
	if i > 0 && side >= s.Size(sheetSides[i-1]) {
		return 0, 0, 0, outOfRange("size."+sheetSides[i].ID, "the sheets get smaller upwards; this one must be under %s", s.show(s.Size(sheetSides[i-1])))
	}
	l = side - 2*h
	w = l
	if !tray {
		for side%tick == 0 && h%tick == 0 && (side-3*h)/tick%2 != 0 {
			h += tick
		}
		l, w = side-2*h, (side-3*h)/2
	}
	if most := (side - 36*mm) / 3; min(l, w) < 12*mm {
		return 0, 0, 0, outOfRange("size."+sheetHeights[i].ID, "a sheet of %s gives no box so high; %s at most", s.show(side), s.show(most))
	}
	return l, w, h, nil
}

// storey is one box of a tower.
func (s Spec) storey(id, name string, l, w, h measure.Length) (*Box, error) {
	if s.Choice(towerBoxes) == "clam-box" {
		return clam(s.as(clamBox), id, name, l, w, h)
	}
	p, err := s.trayShape(id, name, l, w, h).part()
	if err != nil {
		return nil, err
	}
	p.Card = s.Card(id)
	room, err := roomOf(p)
	return &Box{Parts: []Part{p}, Room: room}, err
}

var (
	nestCount = &Option{
		ID:            "count",
		Label:         "Trays",
		Kind:          ChoiceKind,
		Choices:       counts,
		DefaultChoice: "3",
		About:         "How many, the largest first",
	}
	nestGap = &Option{ID: "nest.gap", Label: "Gap", Kind: LengthKind, Default: 0, Min: 0, Max: mostAllowance, ForFit: true,
		About: "More room between two trays than the layers take; leave it out to have it worked out"}
)

var nest = &Style{
	ID: "nest", Name: "Nest", About: "Open trays each standing inside the next, with just the gap that lets them out",
	For:   []Use{ForSeveral, ForShow},
	Opens: "one tray lifts out of the next; what goes in stands in the smallest", Strength: "good",
	Parameters: lengthWidthHeight[:],
	Options:    []*Option{nestCount, nestGap, corners, adhesive},
	Axes:       lengthWidthHeight,
	Allowance:  nestGap,
	Build:      buildNest,
}

func buildNest(s Spec) (*Box, error) {
	n, err := strconv.Atoi(s.Choice(nestCount))
	if err != nil {
		return nil, fault.New(fault.UnknownChoice, "options.count", "a nest has 2 to 5 trays: %w", err)
	}
	shapes := make([]trayShape, n)
	for i := range shapes {
		if i == 0 {
			shapes[0] = s.trayShape("", "", s.Size(length), s.Size(width), s.Size(height))
		} else {
			shapes[i] = shapes[i-1].within(s.Length(nestGap), s.Card(shapes[i-1].id))
		}
		shapes[i].id, shapes[i].name = fmt.Sprint("tray-", i+1), fmt.Sprint("Tray ", i+1)
	}
	tooSmall := outOfRange("size.height", "the smallest tray would be under 6 mm high or have no floor; make the nest larger, or fewer trays")
	if least := shapes[n-1]; least.height < 6*mm || min(least.length, least.width) <= 0 {
		return nil, tooSmall
	}
	nest := &Box{}
	foot := measure.Length(0)
	for i, shape := range shapes {
		t := s.Card(shape.id)
		p, err := shape.part()
		if err != nil {
			return nil, tooSmall
		}
		p.At, p.Away, p.Card = r3.Vec{Z: foot.MM()}, r3.Vec{Z: float64(i) * shape.height.MM() * 0.8}, t
		nest.Parts = append(nest.Parts, p)
		nest.Small = append(nest.Small, s.smallTray(shape.id, shape.name, shape.length, shape.width, shape.height))
		if i+1 == n {
			nest.Room, err = roomOf(p)
			nest.Room.Part = p.ID
			nest.Together = append(nest.Together, hand.Join{Said: hand.Say("nest")}, hand.Fill{Into: p.ID, Said: hand.Say("fill-smallest")})
			return nest, err
		}
		inner := shapes[i+1]
		foot += (t + s.Card(inner.id)) / 2
		nest.Fits = append(nest.Fits, shape.over(inner, fit.InNest, t, s.Card(inner.id))...)
	}
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
