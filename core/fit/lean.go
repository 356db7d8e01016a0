package fit

import (
	"fmt"

	"brevium/core/measure"
)

// Lean is what a maker's notes say of a card and a kind of fit: by how much the gap
// in the hand is wider (over zero: looser) than the one worked out, and on how many
// notes that rests.
type Lean struct {
	Card, Kind string // as paper.Card.Label and Kind.ID give them
	By         measure.Length
	Notes      int
	// From and To hold it 95 times of 100, and Spread is how much a box scatters about it (a
	// standard deviation); 0 where it was learned before they were told.
	From, To, Spread measure.Length
}

// Says tells it in a line: "your Oat card, 240 gsm, runs 0.2 mm tighter: 5 notes".
func (l Lean) Says() string {
	noun := "notes"
	if l.Notes == 1 {
		noun = "note"
	}
	return fmt.Sprintf("your %s, runs %s%s: %d %s", l.Card, l.Short(), l.ranges(), l.Notes, noun)
}

// Short tells the lean alone: "0.2 mm tighter".
func (l Lean) Short() string {
	way := "looser"
	if l.By < 0 {
		way = "tighter"
	}
	return measure.Number(l.By.Abs(), measure.MM, leanTick) + " mm " + way
}

// ranges tells between what it lies: " (0.05 to 0.7)", from no lean on where it may be either way.
func (l Lean) ranges() string {
	if l.From == l.To {
		return ""
	}
	least, most := l.From, l.To
	if l.By < 0 {
		least, most = -l.To, -l.From
	}
	show := func(x measure.Length) string { return measure.Number(x, measure.MM, leanTick) }
	if least < 0 {
		return fmt.Sprintf(" (at most %s, or as much as %s the other way)", show(most), show(-least))
	}
	return fmt.Sprintf(" (%s to %s)", show(least), show(most))
}

// leanTick is how finely a lean is told, and known at best.
const leanTick = measure.Tick(50 * measure.Micrometre)

// LeanOf rounds what was estimated, in mm, to what is told.
func LeanOf(mm float64) measure.Length {
	return measure.Nearest(measure.Length(mm*float64(measure.Millimetre)), leanTick)
}

// Leaning is the account with what the maker's notes say put to it.
func (a Account) Leaning(l Lean) Account {
	if l.By == 0 {
		return a
	}
	a.Lines = append(a.Lines[:len(a.Lines):len(a.Lines)], Line{Text: "as your notes say: " + l.Says(), Amount: l.By})
	a.Gap, a.Leant, a.Spread = a.Gap+l.By, l.By, l.Spread
	a.judge()
	return a
}
