package form

import (
	"fmt"
	"strings"

	"brevium/core/drawer"
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
	for _, l := range lots {
		if LotName(l) == which {
			out.Sheet = paper.Sheet{Name: l.Sheet, Width: l.Width, Height: l.Height, Count: paper.Unlimited, Cost: l.Price}
			out.Card = l.Card
			if l.Offcut {
				out.Sheet.Name = "offcut"
			}
			return out
		}
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
		out.Sheet = paper.Sheet{Width: usual.Width, Height: usual.Height, Count: paper.Unlimited}
		f.Length("sheet.width", &out.Sheet.Width)
		f.Length("sheet.height", &out.Sheet.Height)
		out.Sheet.Name = measure.Sides(f.Unit, f.Tick, out.Sheet.Width, out.Sheet.Height)
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
