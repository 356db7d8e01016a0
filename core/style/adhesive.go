package style

import "brevium/core/measure"

// Adhesive is what a box is stuck with.
type Adhesive string

// Tape is double-sided and holds at once; wet glue gives minutes to adjust, and is held until it
// has set.
const (
	TapeAdhesive Adhesive = "tape"
	WetGlue      Adhesive = "wet-glue"
)

// adhesive is the question that every style asks alike.
var adhesive = &Option{
	ID: "adhesive", Label: "Adhesive", Kind: ChoiceKind, Choices: []string{string(TapeAdhesive), string(WetGlue)}, DefaultChoice: string(TapeAdhesive),
	About: "Tape holds at once and wants tabs of 10 mm; wet glue gives minutes to adjust and wants 6 mm",
}

// AdhesiveOption is the question what a box is stuck with, for styles of one's own.
func AdhesiveOption() *Option { return adhesive }

// AdhesiveOf is what a box is stuck with; tape where its style does not ask.
func AdhesiveOf(s Spec) Adhesive {
	if Adhesive(s.Choices[adhesive.ID]) == WetGlue {
		return WetGlue
	}
	return TapeAdhesive
}

// Wet reports whether it is held until it sets.
func (a Adhesive) Wet() bool { return a == WetGlue }

// Words name it in a sentence.
func (a Adhesive) Words() string {
	if a.Wet() {
		return "wet glue"
	}
	return "double-sided tape"
}

// TabWidth is the narrowest tab that it holds.
func (a Adhesive) TabWidth() measure.Length {
	if a.Wet() {
		return 6 * measure.Millimetre
	}
	return 10 * measure.Millimetre
}

// cut is the narrowest tab that it holds, as tools of a tick cut it.
func (a Adhesive) cut(tick measure.Tick) measure.Length {
	return measure.Up(a.TabWidth(), tick.System().Tick())
}

// TabWidth is the narrowest tab that the box's adhesive holds, as its tools cut it.
func (s Spec) TabWidth() measure.Length { return s.adhesive().cut(s.Tick) }

// adhesive reads what the box is stuck with, of a style that asks.
func (s Spec) adhesive() Adhesive { return Adhesive(s.Choice(adhesive)) }
