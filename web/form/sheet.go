package form

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// AskedSheet is the one sheet that a box shall come out of: one of the
// drawer's, with its card, or one by its name or size.
type AskedSheet struct {
	Sheet paper.Sheet
	Card  paper.Card
	Which string // how the form's choice calls it
}

// ownSheet is the choice of a size that is typed.
const ownSheet = "own"

// SheetNames are the fields that say which sheet.
var SheetNames = []string{"sheet", "sheet.width", "sheet.height", "sheet.direction"}

// LotName is how the choice calls one of the drawer's sheets.
func LotName(l drawer.Lot) string { return fmt.Sprintf("lot.%d", l.ID) }

// lotNamed finds the drawer's sheet that a choice calls.
func lotNamed(lots []drawer.Lot, which string) (drawer.Lot, bool) {
	i := slices.IndexFunc(lots, func(l drawer.Lot) bool { return LotName(l) == which })
	if i < 0 {
		return drawer.Lot{}, false
	}
	return lots[i], true
}

// sheetOf is one of the drawer's sheets as a kind to cut from.
func sheetOf(l drawer.Lot) paper.Sheet {
	s := paper.Sheet{Name: l.Sheet, Width: l.Width, Height: l.Height, Count: paper.Unlimited, Cost: l.Price}
	if l.Offcut {
		s.Name = "offcut"
	}
	return s
}

// The sides of a sheet of one's own lie between.
const (
	leastSide = 20 * measure.Millimetre
	mostSide  = 3000 * measure.Millimetre
)

// OwnSheet reads a sheet whose sides are typed, in the fields width and height of a name; what is
// not typed is as usual. It is called by its size.
func OwnSheet(f *Form, name string, usual paper.Sheet) paper.Sheet {
	s := paper.Sheet{Width: usual.Width, Height: usual.Height, Count: paper.Unlimited}
	for field, side := range map[string]*measure.Length{name + ".width": &s.Width, name + ".height": &s.Height} {
		f.LongLength(field, side)
		if f.Faults[field] == "" && (*side < leastSide || *side > mostSide) {
			f.Fail(fault.New(fault.OutOfRange, field, "The side of a sheet is %s to %s.", measure.Label(leastSide, f.Unit, f.Tick), measure.Label(mostSide, f.Unit, f.Tick)))
		}
	}
	s.Name = measure.Sides(f.Unit, f.Tick, s.Width, s.Height)
	return s
}

// ReadSheet reads which sheet is asked for. Without an answer it is the first
// of the drawer that is of the given card, or else the usual one of it.
func ReadSheet(f *Form, lots []drawer.Lot, usual paper.Sheet, card paper.Card) AskedSheet {
	which := f.Posted.Get("sheet")
	typed := strings.TrimSpace(f.Posted.Get("sheet.width")+f.Posted.Get("sheet.height")) != ""
	switch {
	case which == "" && typed:
		which = ownSheet
	case which == "":
		which = usual.Name
		for _, l := range lots {
			if l.Card.Key() == card.Key() {
				which = LotName(l)
				break
			}
		}
	}
	out := AskedSheet{Sheet: usual, Card: card, Which: which}
	if l, there := lotNamed(lots, which); there {
		out.Sheet, out.Card = sheetOf(l), l.Card
		return out
	}
	if d := paper.Direction(f.Posted.Get("sheet.direction")); d != "" && d != paper.NoDirection {
		out.Card.Direction = d
	} else if d != "" {
		out.Card.Direction = ""
	}
	if s, known := paper.SheetNamed(which); known && which != ownSheet {
		out.Sheet = s
		return out
	}
	if which == ownSheet {
		out.Sheet = OwnSheet(f, "sheet", usual)
	}
	return out
}

// ReadCut reads what a new box is cut from: a sheet of the drawer with its card, a standard
// sheet, or one whose sides are typed. Without an answer it stays as it is.
func ReadCut(f *Form, lots []drawer.Lot, sheets []paper.Sheet, card paper.Card) ([]paper.Sheet, paper.Card) {
	which := f.Posted.Get("cut")
	if l, there := lotNamed(lots, which); there {
		return []paper.Sheet{sheetOf(l)}, l.Card
	}
	if which == ownSheet {
		return []paper.Sheet{OwnSheet(f, "cut", sheets[0])}, card
	}
	if s, known := paper.SheetNamed(which); known {
		return []paper.Sheet{s}, card
	}
	return sheets, card
}

// CutFields ask what a new box is cut from, the drawer first; usual says what it is else.
func CutFields(f *Form, lots []drawer.Lot, usual string, sheets []paper.Sheet) SheetFields {
	choices := []Choice{{Value: "", Label: usual}}
	for _, l := range lots {
		if !l.Offcut {
			choices = append(choices, Choice{Value: LotName(l), Label: "in the drawer: " + l.Card.Name + ", " + l.Sheet})
		}
	}
	for _, s := range paper.Standard {
		choices = append(choices, Choice{Value: s.Name, Label: s.Name})
	}
	choices = append(choices, Choice{Value: ownSheet, Label: "another size"})
	out := SheetFields{Which: f.ChoiceField("cut", "Cut from", "", "", choices...)}
	if f.Posted.Get("cut") == ownSheet {
		out.More = []Field{f.LengthField("cut.width", "Sheet, wide", "", sheets[0].Width), f.LengthField("cut.height", "Sheet, high", "", sheets[0].Height)}
	}
	return out
}

// SheetFields are the controls that ask for a sheet. The sides are asked only
// of a sheet of one's own size, and the direction where the drawer does not
// know it.
type SheetFields struct {
	Which Field
	More  []Field
}

// SheetFieldsOf makes them for what was asked.
func SheetFieldsOf(f *Form, lots []drawer.Lot, asked AskedSheet) SheetFields {
	var choices []Choice
	inDrawer := false
	for _, l := range lots {
		name := l.Sheet
		if l.Offcut {
			name = "offcut " + measure.Sides(f.Unit, f.Tick, l.Width, l.Height)
		}
		label := fmt.Sprintf("in the drawer: %s, %s", l.Card.Name, name)
		if words := DirectionWords[l.Card.Direction]; !l.Card.Direction.MayTurn() {
			label += ", pattern " + words
		}
		choices = append(choices, Choice{Value: LotName(l), Label: label})
		inDrawer = inDrawer || asked.Which == LotName(l)
	}
	for _, s := range paper.Standard {
		choices = append(choices, Choice{Value: s.Name, Label: s.Name})
	}
	choices = append(choices, Choice{Value: ownSheet, Label: "another size"})
	out := SheetFields{Which: f.ChoiceField("sheet", "The sheet", "", asked.Which, choices...)}
	if asked.Which == ownSheet {
		out.More = append(out.More, f.LengthField("sheet.width", "Wide", "left to right", asked.Sheet.Width),
			f.LengthField("sheet.height", "High", "the way its pattern stands", asked.Sheet.Height))
	}
	if !inDrawer {
		out.More = append(out.More, DirectionField(f, "sheet.direction", asked.Card.Direction))
	}
	return out
}

// DirectionWords say which way a pattern runs.
var DirectionWords = map[paper.Direction]string{
	paper.NoDirection: "has no direction",
	paper.TwoWays:     "runs two ways up",
	paper.OneWayUp:    "runs one way up",
}

// DirectionField asks which way the pattern of a card runs.
func DirectionField(f *Form, name string, stored paper.Direction) Field {
	if stored == "" {
		stored = paper.NoDirection
	}
	var choices []Choice
	for _, d := range paper.Directions {
		choices = append(choices, Choice{Value: string(d), Label: DirectionWords[d]})
	}
	return f.ChoiceField(name, "Its pattern", "", string(stored), choices...)
}

// ReadFixed reads the sizes that are to stay while the others grow.
func ReadFixed(f *Form, s *style.Style, fixed map[string]measure.Length) {
	for _, i := range s.Own() {
		axis := s.Axes[i].ID
		if name := "fix." + axis; strings.TrimSpace(f.Posted.Get(name)) != "" {
			l := measure.Length(0)
			f.Length(name, &l)
			fixed[axis] = l
		}
	}
}

// FixedFields ask for them.
func FixedFields(f *Form, s *style.Style) []Field {
	var out []Field
	for _, i := range s.Own() {
		out = append(out, f.EmptyLength("fix."+s.Axes[i].ID, s.Axes[i].Label, "leave empty to let it grow"))
	}
	return out
}
