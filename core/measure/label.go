package measure

import (
	"fmt"
	"strconv"
	"strings"
)

// nearNothing is the largest remainder for which a label shows the tick alone.
const nearNothing = 50 * Micrometre

// Label writes l for a person in the given unit, on the tick or half-way
// between two, or on the ruler's marks: "5 3/8 in", "14.5 cm", "145 mm". What is off all by more than
// 0.05 mm is shown as the nearest tick with the remainder: "5 3/8 in − 0.4 mm".
// Parse reads it back, exactly when l is on a mark and within 0.05 mm otherwise.
func Label(l Length, unit Unit, tick Tick) string {
	return Number(l, unit, tick) + suffix(l, unit, tick)
}

// Number is Label without the unit, unless there is a remainder to show.
func Number(l Length, unit Unit, tick Tick) string {
	if l < 0 {
		return "−" + Number(-l, unit, tick)
	}
	near := readable(l, unit, tick)
	text := inUnit(near, unit)
	rest := l - near
	if rest.Abs() <= nearNothing {
		return text
	}
	sign := " + "
	if rest < 0 {
		sign = " − "
	}
	return text + " " + string(unit) + sign + rest.Abs().decimal(Millimetre, 1) + " mm"
}

// finestBoard is the finest tick between whose marks the eye finds the middle.
const finestBoard = Tick(Millimetre / 2)

// readable is the nearest mark to l: of the tick, or half-way between two,
// which a ruler gives and the eye can set, when l lies there; and also of
// the unit's ruler, or half-way between two of its marks. On a board that is
// marked in the other unit it is the nearest tenth of a millimetre or sixteenth.
func readable(l Length, unit Unit, tick Tick) Length {
	if !unit.Marks(tick) { // the box was made in the other unit
		return Nearest(l, fineTick(unit))
	}
	if tick >= finestBoard {
		for _, t := range []Tick{tick / 2, unit.Ruler(), unit.Ruler() / 2} {
			if near := Nearest(l, max(1, t)); (l - near).Abs() <= nearNothing {
				return near
			}
		}
	}
	return Nearest(l, tick)
}

func suffix(l Length, unit Unit, tick Tick) string {
	if (l.Abs() - readable(l.Abs(), unit, tick)).Abs() <= nearNothing {
		return " " + string(unit)
	}
	return ""
}

// inUnit writes a value that is on a tick: inches as whole and fraction in
// lowest terms (64ths at the finest), metric as a decimal.
func inUnit(l Length, unit Unit) string {
	if unit != In {
		return l.decimal(unit.Size(), 4)
	}
	whole, part := l/Inch, l%Inch
	if part%(Inch/64) != 0 {
		return l.decimal(Inch, 4)
	}
	num, den := int64(part/(Inch/64)), int64(64)
	for num != 0 && num%2 == 0 {
		num, den = num/2, den/2
	}
	var b strings.Builder
	if whole != 0 || num == 0 {
		b.WriteString(strconv.FormatInt(int64(whole), 10))
	}
	if num != 0 {
		if whole != 0 {
			b.WriteByte(' ')
		}
		b.WriteString(strconv.FormatInt(num, 10) + "/" + strconv.FormatInt(den, 10))
	}
	return b.String()
}

// fineTick is the tick of the unit shown beside the project's own.
func fineTick(unit Unit) Tick {
	if unit == In {
		return Tick(Inch / 16)
	}
	return Tenth
}

// Beside writes l in the other unit: centimetres to 0.1 mm, inches as the nearest
// sixteenth. What is not just that is "about 5 3/8 in": a remainder is told to no hand.
func Beside(l Length, unit Unit) string {
	other := unit.Other()
	near := Nearest(l, fineTick(other))
	if (l - near).Abs() > nearNothing {
		return "about " + Label(near, other, fineTick(other))
	}
	return Label(l, other, fineTick(other))
}

// Whole reports whether Label writes l as one number, without a remainder.
func Whole(l Length, unit Unit, tick Tick) bool {
	return unit.Marks(tick) && suffix(l, unit, tick) != ""
}

// Labels writes lengths that a hand sets, each exactly as Label does: the unit
// once at the end where none has a remainder.
func Labels(unit Unit, tick Tick, all ...Length) string {
	var numbers, labels []string
	plain := true
	for _, l := range all {
		numbers, labels = append(numbers, Number(l, unit, tick)), append(labels, Label(l, unit, tick))
		plain = plain && suffix(l, unit, tick) != ""
	}
	if plain {
		return strings.Join(numbers, " × ") + " " + string(unit)
	}
	return strings.Join(labels, " × ")
}

// Sides writes the sides of a sheet or a box: "12 × 12 in". Where one lies
// between the unit's marks all are written in the other unit, if they lie on its
// marks: A4 is 21 × 29.7 cm to everybody. Else each is the nearest mark, and that
// is said: "about 8 1/8 × 5 3/4 in".
func Sides(unit Unit, tick Tick, sides ...Length) string {
	write := func(u Unit, t Tick) (text string, exact bool) {
		exact = true
		for i, l := range sides {
			near := Nearest(l, t)
			exact = exact && (l-near).Abs() <= nearNothing
			if i > 0 {
				text += " × "
			}
			text += inUnit(near, u)
		}
		return text + " " + string(u), exact
	}
	first, exact := write(unit, unit.Own(tick))
	if exact {
		return first
	}
	other := unit.Other()
	if second, exact := write(other, fineTick(other)); exact {
		return second
	}
	return "about " + first
}

// Field writes l as it is put into an input: a text that Parse reads back
// to exactly l. Off the tick it falls back on a decimal.
func Field(l Length, unit Unit) string {
	if text := inUnit(l, unit); unit == In && l%(Inch/64) == 0 {
		return text
	}
	if unit == In {
		return l.decimal(Millimetre, 6) + " mm"
	}
	return l.decimal(unit.Size(), 7)
}

// Hundredths writes a gap in mm to the hundredth, without the unit: "−0.75".
func Hundredths(l Length) string {
	return strings.Replace(fmt.Sprintf("%.2f", l.MM()), "-", "−", 1)
}
