package stuff

import (
	"slices"
	"strings"
)

// Glue is a kind of adhesive.
type Glue string

// What makers stick card with.
const (
	Tape      Glue = "tape"
	WetGlue   Glue = "wet-glue"
	GlueStick Glue = "glue-stick"
	Dot       Glue = "dot"
	HotGlue   Glue = "hot-glue"
	FoamPad   Glue = "foam-pad"
)

// Adhesive is how one holds: breaking values for minutes, and for days. Shear in N/mm², Peel in
// N/mm; of dots each, in N. Width is the least in mm, Hold how long it is pressed or held, and
// KeepOff what it is not for.
type Adhesive struct {
	Glue               Glue
	Words              string
	Shear, ShearDays   float64
	Peel, PeelDays     float64
	Width              float64
	Hold               string
	Minutes, FullHours float64
	KeepOff            string
	Each               bool // by the piece, not by area
	Melts, Wet, Slides bool // over 50 °C; brings water; not where parts slide
}

// Adhesives are all of them, in the order they are offered.
var Adhesives = []Adhesive{
	{Glue: Tape, Words: "double-sided tape", Shear: .05, ShearDays: .015, Peel: .05, PeelDays: .02, Width: 10, Hold: "press for 10 s", Minutes: .2, KeepOff: "where it must be moved once it lies"},
	{Glue: WetGlue, Words: "wet glue", Shear: .5, ShearDays: .3, Peel: .15, PeelDays: .1, Width: 6, Hold: "hold 5 to 10 minutes with a clip or peg, full strength in 12 hours", Minutes: 10, FullHours: 12,
		KeepOff: "thin paper all over, film, photo paper", Wet: true},
	{Glue: GlueStick, Words: "a glue stick", Shear: .1, ShearDays: .03, Peel: .03, PeelDays: 0, Width: 15, Hold: "press for a minute", Minutes: 1, KeepOff: "all that carries"},
	{Glue: Dot, Words: "glue dots", Shear: 2, ShearDays: .5, Peel: 1, PeelDays: .2, Width: 10, Hold: "press", KeepOff: "joints that are pulled", Each: true},
	{Glue: HotGlue, Words: "hot glue", Shear: .5, ShearDays: .3, Peel: .15, PeelDays: .1, Width: 3, Hold: "hold 30 s", Minutes: .5, KeepOff: "fits, film, what gets warm", Melts: true},
	{Glue: FoamPad, Words: "foam pads", Shear: .03, ShearDays: .01, Peel: .1, PeelDays: .02, Width: 10, Hold: "press for 10 s", KeepOff: "walls that slide", Slides: true},
}

// AdhesiveOf finds one; tape where it is not known.
func AdhesiveOf(g Glue) Adhesive {
	for _, a := range Adhesives {
		if a.Glue == g {
			return a
		}
	}
	return Adhesives[0]
}

// Days is the adhesive as it holds for days and weeks.
func (a Adhesive) Days() Adhesive {
	a.Shear, a.Peel = a.ShearDays, a.PeelDays
	return a
}

// Joint is a kind of place where something is stuck.
type Joint string

// The joints of a box that a maker may choose an adhesive for.
const (
	Tabs    Joint = "tabs"
	Papers  Joint = "papers"
	Floors  Joint = "floor"
	Handles Joint = "handle"
	Ribbons Joint = "ribbon"
)

// JointKind is what holds at a joint: the adhesives that are good there, the best first, and what
// a person calls the joint.
type JointKind struct {
	Joint Joint
	Words string
	Good  []Glue
}

// Joints are all of them, in the order they are offered.
var Joints = []JointKind{
	{Tabs, "Tabs", []Glue{Tape, WetGlue, HotGlue}},
	{Papers, "Papers", []Glue{Tape, WetGlue, GlueStick, Dot, FoamPad}},
	{Floors, "The floor’s flaps", []Glue{WetGlue, HotGlue}},
	{Handles, "The handle", []Glue{WetGlue, HotGlue}},
	{Ribbons, "The ribbon’s ends", []Glue{Tape, HotGlue}},
}

// JointOf finds one; tabs where it is not known.
func JointOf(j Joint) JointKind {
	for _, k := range Joints {
		if k.Joint == j {
			return k
		}
	}
	return Joints[0]
}

// Takes reports whether an adhesive is good there.
func (k JointKind) Takes(g Glue) bool { return slices.Contains(k.Good, g) }

// Says names the adhesives that are good there: "double-sided tape or wet glue".
func (k JointKind) Says() string {
	var out []string
	for _, g := range k.Good[:min(2, len(k.Good))] {
		out = append(out, AdhesiveOf(g).Words)
	}
	return strings.Join(out, " or ")
}
