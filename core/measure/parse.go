package measure

import (
	"strconv"
	"strings"

	"brevium/core/fault"
)

// vulgar maps the single-character fractions to text.
var vulgar = strings.NewReplacer(
	"½", " 1/2", "¼", " 1/4", "¾", " 3/4",
	"⅛", " 1/8", "⅜", " 3/8", "⅝", " 5/8", "⅞", " 7/8",
	"⁄", "/", "−", "-", "–", "-", "\u00a0", " ", "\u202f", " ",
	"″", "\"", "”", "\"", "''", "\"", ",", ".",
)

// suffixes are the ways a unit is written, longest first.
var suffixes = []struct {
	text string
	unit Unit
}{
	{"inches", In}, {"inch", In}, {"in.", In}, {"in", In}, {"\"", In},
	{"centimetres", CM}, {"cm", CM}, {"millimetres", MM}, {"mm", MM},
}

// Parse reads a length as people type it: "3 1/2", "3-1/2\"", "3½ in",
// "7/8", "9.5 cm", "9,5 cm", "95 mm", and what Label writes ("5 3/8 in − 0.4 mm").
// A bare number is in the given unit. It refuses, with a Fault that says why,
// whatever is empty, negative, over Max or not a length.
func Parse(text string, unit Unit) (Length, error) {
	s := strings.ToLower(strings.TrimSpace(vulgar.Replace(text)))
	if s == "" {
		return 0, fault.New(fault.Empty, "", "a length is missing; type one such as %s", example(unit))
	}
	if whole, part, minus := strings.Cut(s, " - "); minus && strings.Contains(part, "/") {
		if _, _, named := cutUnit(whole); !named {
			return 0, fault.New(fault.NotALength, "", "%q could be a sum or one number; type %s %s if you mean that much, or what is left", text,
				strings.TrimSpace(whole), strings.TrimSpace(part))
		}
	}
	if len(s) > 60 {
		return 0, fault.New(fault.NotALength, "", "this is too long to be a length; type one such as %s", example(unit))
	}
	first, rest, sign := splitRemainder(s)
	l, err := term(first, text, unit)
	if err != nil {
		return 0, err
	}
	if rest != "" {
		r, err := term(rest, text, unit)
		if err != nil {
			return 0, err
		}
		l += sign * r
	}
	if l < 0 {
		return 0, fault.New(fault.Negative, "", "%q is less than nothing; a length is zero or more", text)
	}
	if l > Max {
		return 0, fault.New(fault.Absurd, "", "%q is over 2 m, longer than any card; check the unit", text)
	}
	return l, nil
}

func example(unit Unit) string {
	switch unit {
	case In:
		return "3 1/2"
	case CM:
		return "9.5"
	}
	return "95"
}

// splitRemainder parts "5 3/8 in - 0.4 mm" at the sign; a text whose first
// part has no unit is not parted.
func splitRemainder(s string) (first, rest string, sign Length) {
	for _, op := range []struct {
		text string
		sign Length
	}{{" - ", -1}, {" + ", 1}} {
		if a, b, ok := strings.Cut(s, op.text); ok {
			if _, _, found := cutUnit(a); found {
				return a, b, op.sign
			}
		}
	}
	return s, "", 0
}

func cutUnit(s string) (number string, unit Unit, found bool) {
	for _, x := range suffixes {
		if n, ok := strings.CutSuffix(s, x.text); ok {
			return strings.TrimSpace(n), x.unit, true
		}
	}
	return s, "", false
}

// term reads one number with an optional unit.
func term(s, text string, unit Unit) (Length, error) {
	number, u, found := cutUnit(strings.TrimSpace(s))
	if !found {
		u = unit
	}
	if number == "" {
		return 0, fault.New(fault.NotALength, "", "%q has no number in it; type one such as %s", text, example(unit))
	}
	if number[0] == '-' {
		return 0, fault.New(fault.Negative, "", "%q is less than nothing; a length is zero or more", text)
	}
	whole, fraction := splitMixed(number)
	var l Length
	if whole != "" {
		w, err := decimalNumber(whole, text, u.Size(), unit)
		if err != nil {
			return 0, err
		}
		l = w
	}
	if fraction != "" {
		f, err := ratio(fraction, text, u.Size(), unit)
		if err != nil {
			return 0, err
		}
		l += f
	}
	return l, nil
}

// splitMixed parts "3 1/2" or "3-1/2" into whole and fraction.
func splitMixed(s string) (whole, fraction string) {
	slash := strings.IndexByte(s, '/')
	if slash < 0 {
		return s, ""
	}
	gap := strings.LastIndexAny(s[:slash], " -")
	if gap < 0 {
		return "", s
	}
	// Blanks around the stroke, "1 / 2", belong to the fraction.
	if head := strings.TrimRight(s[:slash], " "); len(head) < slash {
		gap = strings.LastIndexAny(head, " -")
		if gap < 0 {
			return "", s
		}
	}
	return strings.TrimRight(s[:gap], " -"), s[gap+1:]
}

func decimalNumber(s, text string, size Length, unit Unit) (Length, error) {
	bad := fault.New(fault.NotALength, "", "%q is not a length; type one such as %s", text, example(unit))
	digits, dots := 0, 0
	for _, r := range s {
		switch {
		case r >= '0' && r <= '9':
			digits++
		case r == '.':
			dots++
		default:
			return 0, bad
		}
	}
	if digits == 0 || dots > 1 {
		return 0, bad
	}
	f, err := strconv.ParseFloat(s, 64)
	if err != nil {
		return 0, bad
	}
	if f*float64(size) > 4*float64(Max) {
		return 0, fault.New(fault.Absurd, "", "%q is over 2 m, longer than any card; check the unit", text)
	}
	// Up to 8 m the product is below 2^53, so a decimal that is a whole
	// number of nanometres comes out exactly.
	return FromMM(f * float64(size) / float64(Millimetre)), nil
}

func ratio(s, text string, size Length, unit Unit) (Length, error) {
	n, d, _ := strings.Cut(s, "/")
	num, errN := strconv.ParseUint(strings.TrimSpace(n), 10, 16)
	den, errD := strconv.ParseUint(strings.TrimSpace(d), 10, 16)
	if errN != nil || errD != nil {
		return 0, fault.New(fault.NotALength, "", "%q is not a fraction; type one such as 3 1/2", text)
	}
	switch den {
	case 0:
		return 0, fault.New(fault.NotALength, "", "%q divides by nothing; the lower number of a fraction is 2, 4, 8, 16, 32 or 64", text)
	case 1, 2, 4, 8, 16, 32, 64, 10, 100:
		return Length(num) * size / Length(den), nil
	}
	return 0, fault.New(fault.NotOnARuler, "", "%q is not on a ruler; the lower number of a fraction is 2, 4, 8, 16, 32 or 64", text)
}

// ParseLargest reads one length, or several readings of the same thing parted
// by semicolons, of which the largest counts. Errors are those of Parse.
func ParseLargest(text string, unit Unit) (Length, error) {
	largest := Length(0)
	for i, reading := range strings.Split(strings.TrimRight(text, "; "), ";") {
		l, err := Parse(reading, unit)
		if err != nil {
			return 0, err
		}
		if i == 0 || l > largest {
			largest = l
		}
	}
	return largest, nil
}

// Otherwise gives what a bare number may have meant that is too long in the
// unit it was read in: the same number in other units, where that is a length
// of 3 mm up to most. A number that names its unit means that.
func Otherwise(text string, unit Unit, most Length) []string {
	text = strings.TrimSpace(text)
	if _, _, named := cutUnit(strings.ToLower(vulgar.Replace(text))); named {
		return nil
	}
	var out []string
	for _, u := range []Unit{MM, CM, In} {
		if l, err := Parse(text, u); u != unit && err == nil && l <= most && l >= 3*Millimetre {
			out = append(out, text+" "+string(u))
		}
	}
	return out
}
