// Package measure holds exact lengths: how they are typed, shown and rounded.
//
// Makers work in binary fractions of an inch or in centimetres and
// millimetres. Both are whole numbers of nanometres (1/64 in is 396 875 nm,
// 0.1 mm is 100 000 nm), so a chain of sums never drifts.
package measure

import (
	"encoding/json"
	"math"
	"strconv"
	"strings"

	"brevium/core/fault"
)

// Length is a length in whole nanometres; differences may be negative.
// The range of int64 (some nine million kilometres) is never approached:
// lengths typed by people are refused above Max.
type Length int64

// Units to multiply by, as in 3*Inch + Inch/2.
const (
	Micrometre Length = 1_000
	Millimetre Length = 1_000_000
	Centimetre Length = 10 * Millimetre
	Inch       Length = 25_400_000

	// Max is the longest length accepted from a person or a file: two metres.
	Max Length = 2_000 * Millimetre
)

// FromMM rounds a number of millimetres to the nearest nanometre.
func FromMM(mm float64) Length { return Length(math.Round(mm * float64(Millimetre))) }

// MM is the length in millimetres.
func (l Length) MM() float64 { return float64(l) / float64(Millimetre) }

// String is the length in millimetres, for logs and tests: "12.7 mm". People
// are shown a Label.
func (l Length) String() string { return l.decimal(Millimetre, 6) + " mm" }

// Abs is the length without its sign.
func (l Length) Abs() Length { return max(l, -l) }

// decimal writes l in units of unit with all the digits it has, at most
// places of them after the point (rounded half away from zero).
func (l Length) decimal(unit Length, places int) string {
	step := unit
	for range places {
		step /= 10
	}
	l = Nearest(l, Tick(max(1, step)))
	s := strconv.FormatFloat(float64(l)/float64(unit), 'f', places, 64)
	if strings.Contains(s, ".") {
		s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	}
	if s == "-0" {
		return "0"
	}
	return s
}

// MarshalJSON writes a number of millimetres, exact to the nanometre.
func (l Length) MarshalJSON() ([]byte, error) { return []byte(l.decimal(Millimetre, 6)), nil }

// UnmarshalJSON reads a number of millimetres, exact to the nanometre.
func (l *Length) UnmarshalJSON(b []byte) error {
	mm, err := strconv.ParseFloat(string(b), 64)
	if err != nil || !(math.Abs(mm) < 1e9) {
		return fault.New(fault.NotALength, "", "a length is a number of millimetres")
	}
	*l = FromMM(mm)
	return nil
}

// Text is a length as it stands in a JSON file: a number of millimetres or
// a string such as "3 1/2 in". A string without a unit can only be read
// when the project's unit is known, so it is kept as written until Length.
type Text string

// UnmarshalJSON accepts a JSON number or string and checks nothing more.
func (t *Text) UnmarshalJSON(b []byte) error {
	var s string
	if err := json.Unmarshal(b, &s); err == nil {
		*t = Text(s)
		return nil
	}
	var n json.Number
	if err := json.Unmarshal(b, &n); err != nil || n == "" {
		return fault.New(fault.NotALength, "", "a length is a number of millimetres or a text such as \"3 1/2 in\"")
	}
	*t = Text(n.String() + " mm")
	return nil
}

// MarshalJSON writes "25.4 mm" as the number 25.4 and anything else as text.
func (t Text) MarshalJSON() ([]byte, error) {
	if n, ok := strings.CutSuffix(string(t), " mm"); ok && json.Valid([]byte(n)) {
		return []byte(n), nil
	}
	return json.Marshal(string(t))
}

// Length reads the text; unit is that of a string without one.
func (t Text) Length(unit Unit) (Length, error) {
	s := strings.TrimSuffix(string(t), " mm")
	if f, err := strconv.ParseFloat(s, 64); err == nil && s != string(t) && strings.ContainsAny(s, "eE") {
		s = strconv.FormatFloat(f, 'f', -1, 64)
		return Parse(s+" mm", unit)
	}
	return Parse(string(t), unit)
}
