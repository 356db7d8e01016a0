// Package paper holds cards and sheets: weight, thickness, direction.
package paper

import (
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
	Direction Direction
}

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
}

// SheetNamed finds a standard sheet.
func SheetNamed(name string) (Sheet, bool) {
	for _, s := range Standard {
		if s.Name == name {
			return s, true
		}
	}
	return Sheet{}, false
}

// NamedBySize reports whether the sheet is a standard one whose name is its
// size, so that the size need not be told beside it.
func (s Sheet) NamedBySize() bool {
	standard, there := SheetNamed(s.Name)
	series := slices.Contains([]string{"A3", "A4", "A5"}, s.Name)
	return there && !series && standard.Width == s.Width && standard.Height == s.Height
}
