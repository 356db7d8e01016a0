package design

import (
	"maps"
	"slices"
	"strings"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/stuff"
)

// Load is what the box carries and how. The zero one is what goes in, by its grams, lifted by
// the walls.
type Load struct {
	Grams float64 // 0 is by what goes in
	// One says that it is one stiff thing, and Foot how it stands: along the box and across, 0
	// where that is not known. Else the weight is spread.
	One  bool
	Foot [2]measure.Length
	// Carry is how it is carried, "" by its walls.
	Carry Carry
	// Stacked is how many such boxes stand one on another, 0 and 1 being a box alone.
	Stacked int
	// Humidity is the air's damp where the box is, in percent, 0 where nobody says: as much as that
	// it may change, and under 35 card is folded dry.
	Humidity int
}

// Carry is how a box is carried.
type Carry string

// A box is lifted by its walls unless it is said to stay on the table, or to be carried from below
// or by a handle.
const (
	CarryWalls  Carry = "walls"
	CarryTable  Carry = "table"
	CarryBelow  Carry = "below"
	CarryHandle Carry = "handle"
)

// Carries lists them in the order they are offered.
var Carries = []Carry{CarryWalls, CarryTable, CarryBelow, CarryHandle}

// Audience is who gets the box.
type Audience string

// For children there are cautions.
const (
	Anyone       Audience = "anyone"
	ChildUnder3  Audience = "child-under-3"
	ChildFrom3   Audience = "child-3-7"
	mostGrams             = 20_000
	mostStacked           = 50
	dryAir                = 35
	mostHumidity          = 100
)

// Audiences lists them in the order they are offered.
var Audiences = []Audience{Anyone, ChildUnder3, ChildFrom3}

// Carried is what the box carries: as it is said, or else by what goes in.
func (in *Inputs) Carried() Load {
	l := in.Load
	if l.Grams == 0 {
		l.Grams = contents.Grams(in.Things)
	}
	if l.Carry == "" {
		l.Carry = CarryWalls
	}
	return l
}

// RunOf is how the grain is to run in a piece, if that is fixed.
func (in *Inputs) RunOf(piece string) paper.Run { return in.Grains[piece] }

func checkLoad(in *Inputs) error {
	l := in.Load
	switch {
	case !(l.Grams >= 0 && l.Grams <= mostGrams):
		return fault.New(fault.OutOfRange, "load.grams", "a box of card carries up to %d g; give its contents' weight in grams", mostGrams)
	case l.Foot[0] < 0 || l.Foot[1] < 0:
		return fault.New(fault.Negative, "load.foot", "how long and how wide is the foot it stands on? Give two lengths over 0")
	case l.Carry != "" && !slices.Contains(Carries, l.Carry):
		return fault.New(fault.UnknownChoice, "load.carry", "%q is not how a box is carried; use %s", l.Carry, words(Carries))
	case l.Stacked < 0 || l.Stacked > mostStacked:
		return fault.New(fault.CountRange, "load.stacked", "1 to %d boxes stand one on another", mostStacked)
	case l.Humidity < 0 || l.Humidity > mostHumidity:
		return fault.New(fault.OutOfRange, "load.humidity", "the air's damp is 0 to 100 %%")
	case in.Hand != "" && !slices.Contains(stuff.Hands, in.Hand):
		return fault.New(fault.UnknownChoice, "hand", "%q is not a hand; use %s", in.Hand, words(stuff.Hands))
	case in.For != "" && !slices.Contains(Audiences, in.For):
		return fault.New(fault.UnknownChoice, "for", "%q is not who gets it; use %s", in.For, words(Audiences))
	}
	table := stuff.Usual()
	for id, v := range in.Constants {
		if err := table.Set(id, v); err != nil {
			return err
		}
	}
	for joint, glue := range in.Glue {
		field := fault.Path("glue", string(joint))
		if !slices.ContainsFunc(stuff.Joints, func(k stuff.JointKind) bool { return k.Joint == joint }) {
			return fault.New(fault.UnknownField, field, "%q is no joint; use tabs, papers, floor, handle or ribbon", joint)
		}
		if stuff.AdhesiveOf(glue).Glue != glue {
			return fault.New(fault.UnknownChoice, field, "%q is no adhesive; use tape, wet-glue, glue-stick, dot, hot-glue or foam-pad", glue)
		}
	}
	for piece, run := range in.Grains {
		if !slices.Contains(paper.Runs, run) || run == paper.RunUnknown {
			return fault.New(fault.UnknownChoice, fault.Path("grain", piece), "%q is not how a grain runs; use length or width", run)
		}
	}
	return nil
}

func words[S ~string](all []S) string {
	var out []string
	for _, s := range all {
		out = append(out, string(s))
	}
	last := len(out) - 1
	return strings.Join(out[:last], ", ") + " or " + out[last]
}

// loadFile is a load as it stands in a file.
type loadFile struct {
	Grams    float64        `json:"grams,omitempty"`
	Rests    string         `json:"rests,omitempty"`
	Foot     []measure.Text `json:"foot,omitempty"`
	Carry    string         `json:"carry,omitempty"`
	Stacked  int            `json:"stacked,omitempty"`
	Humidity int            `json:"humidity,omitempty"`
}

func (r *reader) load(f inputsFile) {
	r.in.Hand, r.in.For, r.in.Grains = stuff.Steadiness(f.Hand), Audience(f.For), map[string]paper.Run{}
	if r.in.For == Anyone {
		r.in.For = ""
	}
	for piece, run := range f.Grain {
		r.in.Grains[piece] = paper.Run(run)
	}
	for joint, glue := range f.Glue {
		r.in.Glue[stuff.Joint(joint)] = stuff.Glue(glue)
	}
	maps.Copy(r.in.Constants, f.Constants)
	if f.Load == nil {
		return
	}
	l := Load{Grams: f.Load.Grams, Carry: Carry(f.Load.Carry), Stacked: f.Load.Stacked, Humidity: f.Load.Humidity, One: f.Load.Rests == "one"}
	if rests := f.Load.Rests; rests != "" && rests != "one" && rests != "spread" {
		r.fail(fault.New(fault.UnknownChoice, "load.rests", "%q is not how a load rests; use spread or one", rests))
	}
	if n := len(f.Load.Foot); n > 0 && n != 2 {
		r.fail(fault.New(fault.CountRange, "load.foot", "a foot has two sides: how long and how wide it stands"))
	} else if n == 2 {
		for i := range l.Foot {
			l.Foot[i] = r.length(fault.Path("load.foot", i), f.Load.Foot[i], 0)
		}
	}
	r.in.Load = l
}

func writeLoad(in Inputs, f *inputsFile) {
	f.Hand, f.For = string(in.Hand), string(in.For)
	for piece, run := range in.Grains {
		if f.Grain == nil {
			f.Grain = map[string]string{}
		}
		f.Grain[piece] = string(run)
	}
	for joint, glue := range in.Glue {
		if f.Glue == nil {
			f.Glue = map[string]string{}
		}
		f.Glue[string(joint)] = string(glue)
	}
	f.Constants = in.Constants
	l := in.Load
	if l == (Load{}) {
		return
	}
	f.Load = &loadFile{Grams: l.Grams, Carry: string(l.Carry), Stacked: l.Stacked, Humidity: l.Humidity}
	if l.One {
		f.Load.Rests = "one"
	}
	if l.Foot != [2]measure.Length{} {
		f.Load.Foot = []measure.Text{mmText(l.Foot[0]), mmText(l.Foot[1])}
	}
}

// stuffing reads what a card is besides its weight: its sheet's grain, and its finish.
func (r *reader) stuffing(field string, f cardFile, c *paper.Card) {
	c.Grain, c.Finish = paper.Grain(f.Grain), paper.Finish(f.Finish)
	if f.Grain == "unknown" {
		c.Grain = paper.UnknownGrain
	}
	if f.Finish == "solid" {
		c.Finish = paper.Solid
	}
	if !slices.Contains(paper.Grains, c.Grain) {
		r.fail(fault.New(fault.UnknownChoice, fault.Path(field, "grain"), "%q is not the grain of a sheet; use long, short or unknown", f.Grain))
	}
	if !slices.Contains(paper.Finishes, c.Finish) {
		r.fail(fault.New(fault.UnknownChoice, fault.Path(field, "finish"), "%q is not a card's finish; use solid, coated, white-core or textured", f.Finish))
	}
}
