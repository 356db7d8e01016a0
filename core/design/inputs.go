// Package design turns a design's inputs into its whole result. It is the
// one place that knows all the rooms of the craft.
package design

import (
	"slices"
	"strings"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/label"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/money"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/strict"
	"brevium/core/stuff"
	"brevium/core/style"
	"brevium/core/tool"
)

// Basis says what a design's sizes are the sizes of.
type Basis string

// Scored sizes run score to score; inside and outside are of the finished box.
const (
	Scored  Basis = "scored"
	Inside  Basis = "inside"
	Outside Basis = "outside"
)

// Bases lists the bases in the order they are offered.
var Bases = []Basis{Scored, Inside, Outside}

// Inputs is everything a person decides. All else is computed from it.
type Inputs struct {
	Name  string
	Units measure.Unit
	Style string

	// Size by parameter id, of Basis. Parameters left out take their usual
	// value. When there are Things they set the inside and Size adds only
	// what is not an axis.
	Size  map[string]measure.Length
	Basis Basis

	// Room, when set, is the inside wanted, in place of Size and Things: what
	// another style is made for in a comparison. It is not kept in files.
	Room style.Extent

	Things []contents.Thing
	// Each lists what goes into each of a box's equal rooms, a line for each.
	Each  []string
	Stand string // the id of the arrangement chosen; "" for the best
	// Compartments part the things; Linings line the inside.
	Compartments Compartments
	Linings      []Lining
	RiserHeight  measure.Length

	Card  paper.Card
	Cards map[string]paper.Card // for single pieces, by piece id

	// Choices and Lengths are the style's options that are set.
	Choices map[string]string
	Lengths map[string]measure.Length
	Fit     fit.Verdict
	// Load is what it carries, For who gets it, "" being anyone; Grains fix how the grain runs
	// in a piece, and Hand is how steady the hand is that makes it, "" where nobody says.
	Load   Load
	For    Audience
	Grains map[string]paper.Run
	Hand   stuff.Steadiness
	// Glue is what is stuck with at a joint, where the maker chose it; Constants are those of card
	// and glue that the maker changed.
	Glue      map[stuff.Joint]stuff.Glue
	Constants map[string]float64
	// Leans is what it reckons with of a maker's notes.
	Leans []fit.Lean

	Mats     []dress.Dressing
	Loose    []loose.Piece // pieces of no style, cut with the box
	Covers   []dress.Cover
	Bands    []Band
	Closures []Closure
	Labels   []label.Label
	Windows  []label.Window
	// Ribbons go round the closed box, and Wrap, if it is wrapped, under them.
	Ribbons []Ribbon
	Wrap    *Wrapping
	Sheets  []paper.Sheet
	Tools   Tools
	Copies  int
	// OwnSteps are the maker's own, among those of the box.
	OwnSteps []recipe.Own
	Price    money.Amount // what one is asked for, set by hand; 0 for none

	// Photograph is that of the finished box which stands for it on the shelf, by its ID; "" for a
	// drawing.
	Photograph string

	// Recipe is the text it was read from, "" for none.
	Recipe string

	// Rest is what another version kept with the design, to be passed on.
	Rest strict.Rest
}

// Tools is what is on the table.
type Tools struct {
	Tick    measure.Tick
	Fence   recipe.Fence
	Trimmer measure.Length // its longest cut
	With    tool.With      // what is cut with
	Owned   tool.Owned
}

// UsualTrimmer is the cutting length of most paper trimmers: 12 in (30.5 cm).
const UsualTrimmer = 12 * measure.Inch

// LongestRecipe is how long the text is that a box was read from, in bytes.
const LongestRecipe = 8000

// MostCopies is the largest batch.
const MostCopies = 500

// UsualCard is medium card of 240 g/m², 0.3 mm thick.
var UsualCard = paper.Card{Name: paper.PlainName, GSM: 240, Thickness: 300 * measure.Micrometre}

// New gives inputs with the usual choices for a unit and a style.
func New(name string, unit measure.Unit, styleID string) Inputs {
	in := Inputs{
		Name: name, Units: unit, Style: styleID, Basis: Scored, Card: UsualCard, Fit: fit.Snug,
		Size: map[string]measure.Length{}, Cards: map[string]paper.Card{},
		Choices: map[string]string{}, Lengths: map[string]measure.Length{}, Grains: map[string]paper.Run{}, Glue: map[stuff.Joint]stuff.Glue{}, Constants: map[string]float64{},
		Sheets: UsualSheets(unit), Copies: 1, RiserHeight: UsualRiser,
		Tools: Tools{Tick: unit.Tick(), Fence: recipe.Left, Trimmer: UsualTrimmer},
	}
	in.useWeights(styleID)
	return in
}

// useWeights takes the cards that a style is usually made of.
func (in *Inputs) useWeights(styleID string) {
	s, err := style.ByID(styleID)
	if err != nil {
		return
	}
	for piece, gsm := range s.Weights {
		if piece == "" {
			in.Card = plainCard(gsm)
		} else {
			in.Cards[piece] = plainCard(gsm)
		}
	}
}

// leaveWeights puts the cards that a style is usually made of, and nobody chose, back to medium ones.
func (in *Inputs) leaveWeights(s *style.Style) {
	for piece, gsm := range s.Weights {
		switch {
		case piece == "" && in.Card == plainCard(gsm):
			in.Card = UsualCard
		case in.Cards[piece] == plainCard(gsm):
			delete(in.Cards, piece)
		}
	}
}

// lightCard is up to which weight, in g/m², card is called light.
const lightCard = 180

// plainCard is smooth card of a weight.
func plainCard(gsm float64) paper.Card {
	name := paper.PlainName
	if gsm <= lightCard {
		name = "Light card"
	}
	return paper.Card{Name: name, GSM: gsm, Thickness: paper.ThicknessOf(gsm, paper.SmoothBulk)}
}

// Plain is a box of the usual style.
func Plain(name string, unit measure.Unit) Inputs { return New(name, unit, style.Usual().ID) }

// UsualSheets are what people who work in a unit have in the drawer.
func UsualSheets(unit measure.Unit) []paper.Sheet {
	square, _ := paper.SheetNamed("12 × 12 in")
	if unit == measure.In {
		return []paper.Sheet{square}
	}
	metric, _ := paper.SheetNamed("30 × 30 cm")
	return []paper.Sheet{metric, square}
}

// CardOf is the card a piece is cut from.
func (in *Inputs) CardOf(piece string) paper.Card {
	if c, ok := in.Cards[piece]; ok {
		return c
	}
	if c, ok := in.Cards[style.KindOf(piece)]; ok {
		return c
	}
	return in.Card
}

// Check refuses what no style could use: inputs that pass can be written.
func (in *Inputs) Check() error {
	switch {
	case !slices.Contains(measure.Units, in.Units):
		return fault.New(fault.UnknownUnit, "units", "%q is not a unit; use in, cm or mm", in.Units)
	case in.Copies < 1 || in.Copies > MostCopies:
		return fault.New(fault.CountRange, "copies", "make 1 to %d boxes at a time, not %d", MostCopies, in.Copies)
	case in.Tools.Tick < measure.Tenth || in.Tools.Tick > measure.Tick(measure.Inch):
		return fault.New(fault.TickRange, "options.tick", "a board's grooves are 0.1 mm to 1 in apart; 1/16 in or 1 mm is usual")
	case in.Tools.Fence != recipe.Left && in.Tools.Fence != recipe.Right:
		return fault.New(fault.UnknownFence, "tools.fence", "the board's fence is on the left or the right")
	case in.Tools.Trimmer < 50*measure.Millimetre:
		return fault.New(fault.TooSmall, "tools.trimmer", "a trimmer this short cuts no blank; give its longest cut, usually 12 in")
	case len(in.Sheets) == 0:
		return fault.New(fault.NoSheets, "sheets", "choose at least one kind of sheet to cut from")
	}
	if len(in.Recipe) > LongestRecipe {
		return fault.New(fault.TooLong, "recipe", "a recipe has up to %d letters", LongestRecipe)
	}
	if strings.Trim(in.Photograph, "0123456789abcdef") != "" || len(in.Photograph) > paper.LongestPhotoID {
		return fault.New(fault.Invalid, "photograph", "a photograph's id is up to %d of the digits 0 to f", paper.LongestPhotoID)
	}
	if in.Price < 0 || in.Price > money.Most {
		return fault.New(fault.CostRange, "price", "a price is 0 to a million")
	}
	if err := in.Tools.Owned.Check(in.show); err != nil {
		return err
	}
	if err := checkName(in.Name); err != nil {
		return err
	}
	if err := checkCard("card", in.Card); err != nil {
		return err
	}
	for piece, c := range in.Cards {
		if err := checkCard(fault.Path("cards", piece), c); err != nil {
			return err
		}
	}
	if err := contents.CheckAll(in.Things, thingField); err != nil {
		return err
	}
	for _, check := range []func(*Inputs) error{
		checkMats, checkLoose, checkBands, checkCovers, checkClosures, checkRibbons, checkWrap, checkLabels, checkWindows, func(in *Inputs) error { return contents.CheckEach(in.Each) }, checkLeans, checkInside, checkOwnSteps, checkLoad,
	} {
		if err := check(in); err != nil {
			return err
		}
	}
	return nil
}

func checkCard(field string, c paper.Card) error {
	switch {
	case c.Thickness < 50*measure.Micrometre || c.Thickness > 3*measure.Millimetre:
		return fault.New(
			fault.ThicknessRange,
			fault.Path(field, "thickness"),
			"card that folds is 0.05 to 3 mm thick; measure ten sheets together and divide",
		)
	case c.Measured < 0 || c.Measured > paper.MostMeasured:
		return fault.New(fault.CountRange, fault.Path(field, "measured"), "0 to %d sheets are measured together", paper.MostMeasured)
	case !(c.GSM >= 0 && c.GSM <= paper.LargestGSM):
		return fault.New(fault.WeightRange, fault.Path(field, "gsm"), "card that folds weighs 40 to %d gsm", paper.LargestGSM)
	}
	return nil
}

// spec fills in every parameter and option of the style and checks ranges.
func (in *Inputs) spec(s *style.Style) (style.Spec, error) {
	out := style.Spec{
		Style: s, Lengths: map[string]measure.Length{}, Choices: map[string]string{},
		Thickness: map[string]measure.Length{"": in.Card.Thickness}, Tick: in.Tools.Tick, Units: in.Units,
	}
	for piece, c := range in.Cards {
		out.Thickness[piece] = c.Thickness
	}
	for _, p := range s.Parameters {
		out.Lengths[p.ID] = p.Usual(in.Tools.Tick)
		if v, ok := in.Size[p.ID]; ok {
			out.Lengths[p.ID] = v
		}
	}
	for _, o := range s.Options {
		if o.Kind == style.LengthKind {
			v, ok := in.Lengths[o.ID]
			if !ok {
				v = o.Usual(in.Tools.Tick)
			}
			if v < o.Min || v > o.Max {
				return out, in.outOfRange(fault.Path("options", o.ID), o.Label, v, o.Min, o.Max)
			}
			out.Lengths[o.ID] = v
			continue
		}
		out.Choices[o.ID] = o.DefaultChoice
		if v, ok := in.Choices[o.ID]; ok {
			if !slices.Contains(o.Choices, v) {
				return out, unknownChoice(fault.Path("options", o.ID), o, v)
			}
			out.Choices[o.ID] = v
		}
	}
	return out, nil
}

func (in *Inputs) outOfRange(field, label string, v, least, most measure.Length) error {
	show := func(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
	tick := in.Tools.Tick
	return fault.New(
		fault.OutOfRange,
		field,
		"%s is %s; it can be %s to %s",
		label,
		show(v),
		show(measure.Up(least, tick)),
		show(measure.Down(most, tick)),
	)
}
