// Package paper holds cards and sheets: weight, thickness, direction, and how
// they look.
package paper

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Card is what a piece is cut from. Thickness is that of one layer.
type Card struct {
	Name      string
	GSM       float64 // grams per square metre
	Thickness measure.Length
	Measured  int // how many sheets were measured together for it; 0 is by its weight
	Direction Direction
	Look      Look // the zero one is taken from the name
	Grain     Grain
	Finish    Finish
}

// Grain is which way the fibres of a card's sheet run: along its longer side, its shorter one, or
// nobody knows.
type Grain string

// Letter and A4 sheets are mostly long grain; of square ones it is not known.
const (
	UnknownGrain Grain = ""
	LongGrain    Grain = "long"
	ShortGrain   Grain = "short"
)

// Grains lists them in the order they are offered.
var Grains = []Grain{UnknownGrain, LongGrain, ShortGrain}

// Run is how a card's grain runs in a piece that lies outside up: along its blank's width or up
// its height, or nobody knows.
type Run string

// The ways a grain runs.
const (
	RunUnknown Run = ""
	RunLength  Run = "length"
	RunWidth   Run = "width"
)

// RunOn is how the grain of a sheet of the card runs in a blank that lies on it upright, or turned
// by a quarter; not known of a square sheet.
func (c Card) RunOn(s Sheet, turned bool) Run {
	if c.Grain == UnknownGrain || s.Width == s.Height {
		return RunUnknown
	}
	across := (c.Grain == LongGrain) == (s.Width > s.Height) // along the sheet's width
	if across != turned {
		return RunLength
	}
	return RunWidth
}

// GrainWords says which way the grain of a sheet of the card runs, as it is drawn: ", grain from left
// to right"; nothing where it is not known.
func (c Card) GrainWords(s Sheet) string {
	switch c.RunOn(s, false) {
	case RunLength:
		return ", grain from left to right"
	case RunWidth:
		return ", grain up and down"
	}
	return ""
}

// Runs lists them in the order they are offered.
var Runs = []Run{RunUnknown, RunLength, RunWidth}

// Finish is what a card's surface and core are.
type Finish string

// Solid is coloured through; a coated or white-core card breaks sooner at a fold, and a soft
// textured one later.
const (
	Solid     Finish = ""
	Coated    Finish = "coated"
	WhiteCore Finish = "white-core"
	Textured  Finish = "textured"
)

// Finishes lists them in the order they are offered.
var Finishes = []Finish{Solid, Coated, WhiteCore, Textured}

// PlainName is the name of card of which nobody has said what it is.
const PlainName = "Plain card"

// Key tells cards apart as a shop does: by name, however written, by weight and by
// direction.
func (c Card) Key() string {
	d := c.Direction
	if d == "" {
		d = NoDirection
	}
	return fmt.Sprintf("%s/%.0f/%s", strings.ToLower(strings.TrimSpace(c.Name)), c.GSM, d)
}

// Same reports whether two cards are one to whoever cuts them: their sheets lie on one
// pile and look alike.
func (c Card) Same(d Card) bool { return c.Key() == d.Key() && c.Seen() == d.Seen() }

// Direction says how a card may be turned on its sheet.
type Direction string

// A plain card has no direction; a two-way pattern may be turned end for
// end but not by a quarter; a one-way pattern has an up.
const (
	NoDirection Direction = "none"
	TwoWays     Direction = "two-ways"
	OneWayUp    Direction = "one-way-up"
)

// Directions lists the directions in the order they are offered.
var Directions = []Direction{NoDirection, TwoWays, OneWayUp}

// MayTurn reports whether a piece may be given a quarter turn on the sheet.
func (d Direction) MayTurn() bool { return d == NoDirection || d == "" }

// Bulk, in cm³/g: how thick a card is for its weight.
const (
	SmoothBulk   = 1.25
	TexturedBulk = 1.4
)

// Bulk is how thick a card of a finish is for its weight, in cm³/g.
func (f Finish) Bulk() float64 {
	if f == Textured {
		return TexturedBulk
	}
	return SmoothBulk
}

// LargestGSM is the heaviest board accepted; beyond it nothing folds.
const LargestGSM = 1200

// ThicknessOf estimates the thickness of a card from its weight in g/m² and
// its bulk in cm³/g: g/m² × cm³/g = 1e-6 m, so 240 × 1.25 = 300 µm.
func ThicknessOf(gsm, bulk float64) measure.Length { return measure.FromMM(gsm * bulk / 1000) }

// Grams per square metre of a pound of cover and of text stock.
const (
	CoverPound = 2.70
	TextPound  = 1.48
)

// ParseWeight reads "240", "240 gsm", "240 g/m²", "80 lb cover" or
// "60 lb text" into g/m².
func ParseWeight(text string) (float64, error) {
	s := strings.ToLower(strings.TrimSpace(text))
	factor := 1.0
	for _, x := range []struct {
		suffix string
		factor float64
	}{{"lb cover", CoverPound}, {"lb text", TextPound}, {"gsm", 1}, {"g/m²", 1}, {"g/m2", 1}, {"g", 1}} {
		if n, ok := strings.CutSuffix(s, x.suffix); ok {
			s, factor = strings.TrimSpace(n), x.factor
			break
		}
	}
	f, err := strconv.ParseFloat(strings.Replace(s, ",", ".", 1), 64)
	if err != nil {
		return 0, fault.New(fault.NotAWeight, "", "%q is not a card weight; type one such as 240 gsm or 80 lb cover", text)
	}
	gsm := f * factor
	if !(gsm >= 40 && gsm <= LargestGSM) {
		return 0, fault.New(fault.WeightRange, "", "%q is outside what folds by hand, 40 to %d gsm", text, LargestGSM)
	}
	return gsm, nil
}

// Sheet is a kind of sheet to cut from. Count is how many there are, or
// Unlimited; Cost is in any one currency. An Offcut was kept from earlier work
// and costs nothing.
type Sheet struct {
	Name          string
	Width, Height measure.Length
	Count         int
	Cost          float64
	Offcut        bool
}

// Unlimited is the Count of a sheet that can be bought as needed.
const Unlimited = -1

// Common is how many of the standard sheets lie in most cupboards; they stand first.
const Common = 12

// Standard lists the sheets on sale everywhere.
var Standard = []Sheet{
	{Name: "12 × 12 in", Width: 12 * measure.Inch, Height: 12 * measure.Inch, Count: Unlimited},
	{Name: "8 1/2 × 11 in", Width: 17 * measure.Inch / 2, Height: 11 * measure.Inch, Count: Unlimited},
	{Name: "8 × 8 in", Width: 8 * measure.Inch, Height: 8 * measure.Inch, Count: Unlimited},
	{Name: "6 × 6 in", Width: 6 * measure.Inch, Height: 6 * measure.Inch, Count: Unlimited},
	{Name: "A4", Width: 210 * measure.Millimetre, Height: 297 * measure.Millimetre, Count: Unlimited},
	{Name: "A5", Width: 148 * measure.Millimetre, Height: 210 * measure.Millimetre, Count: Unlimited},
	{Name: "A3", Width: 297 * measure.Millimetre, Height: 420 * measure.Millimetre, Count: Unlimited},
	{Name: "30 × 30 cm", Width: 30 * measure.Centimetre, Height: 30 * measure.Centimetre, Count: Unlimited},
	{Name: "12 × 24 in", Width: 12 * measure.Inch, Height: 24 * measure.Inch, Count: Unlimited},
	{Name: "11 × 17 in", Width: 11 * measure.Inch, Height: 17 * measure.Inch, Count: Unlimited},
	{Name: "6 × 12 in", Width: 6 * measure.Inch, Height: 12 * measure.Inch, Count: Unlimited},
	{Name: "30 × 60 cm", Width: 30 * measure.Centimetre, Height: 60 * measure.Centimetre, Count: Unlimited},
	{Name: "SRA3", Width: 320 * measure.Millimetre, Height: 450 * measure.Millimetre, Count: Unlimited},
	{Name: "A2", Width: 420 * measure.Millimetre, Height: 594 * measure.Millimetre, Count: Unlimited},
	{Name: "B4", Width: 250 * measure.Millimetre, Height: 353 * measure.Millimetre, Count: Unlimited},
	{Name: "B3", Width: 353 * measure.Millimetre, Height: 500 * measure.Millimetre, Count: Unlimited},
	{Name: "50 × 70 cm", Width: 50 * measure.Centimetre, Height: 70 * measure.Centimetre, Count: Unlimited},
	{Name: "70 × 100 cm", Width: 70 * measure.Centimetre, Height: 100 * measure.Centimetre, Count: Unlimited},
}

// SheetNamed finds a standard sheet by its name as people write it: "A4", "a4",
// "12 x 12", "8½ × 11 in", "8.5x11", "11 by 8 1/2", "30 x 30 cm". Sides without
// a unit are inches, or else centimetres.
func SheetNamed(name string) (Sheet, bool) {
	for _, s := range Standard {
		if strings.EqualFold(s.Name, strings.TrimSpace(name)) {
			return s, true
		}
	}
	text := strings.NewReplacer("×", "x", "*", "x", " by ", "x").Replace(strings.ToLower(name))
	a, b, two := strings.Cut(text, "x")
	if !two {
		return Sheet{}, false
	}
	// A unit behind the second side holds for both.
	units := []measure.Unit{measure.In, measure.CM}
	for _, u := range measure.Units {
		if strings.HasSuffix(strings.Trim(b, " ."), string(u)) || u == measure.In && strings.ContainsAny(b, "\"″") {
			units = []measure.Unit{u}
		}
	}
	for _, unit := range units {
		first, wrong := measure.Parse(a, unit)
		second, err := measure.Parse(b, unit)
		if wrong != nil || err != nil {
			continue
		}
		for _, s := range Standard {
			if same(s.Width, first) && same(s.Height, second) || same(s.Width, second) && same(s.Height, first) {
				return s, true
			}
		}
	}
	return Sheet{}, false
}

// same reports whether two sides of a sheet are one, to half a millimetre.
func same(a, b measure.Length) bool { return (a - b).Abs() <= measure.Millimetre/2 }

// NamedBySize reports whether the sheet is a standard one whose name is its
// size, so that the size need not be told beside it.
func (s Sheet) NamedBySize() bool {
	standard, there := SheetNamed(s.Name)
	series := slices.Contains([]string{"A3", "A4", "A5"}, s.Name)
	return there && !series && standard.Width == s.Width && standard.Height == s.Height
}

// Longest is the longest side of any sheet: of those given and of those on
// sale everywhere. No wall of a box is longer.
func Longest(sheets []Sheet) measure.Length {
	longest := measure.Length(0)
	for _, s := range slices.Concat(sheets, Standard) {
		longest = max(longest, s.Width, s.Height)
	}
	return longest
}

// Label tells a card in a line: "Oat card, 240 gsm".
func (c Card) Label() string {
	if c.GSM == 0 {
		return c.Name
	}
	return fmt.Sprintf("%s, %.0f gsm", c.Name, c.GSM)
}
