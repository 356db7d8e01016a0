package paper

import (
	"fmt"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
)

// MostMeasured is how many sheets are measured together at most.
const MostMeasured = 100

// ParseThickness reads what was measured, in mm unless it says otherwise: "0.31" of one
// sheet, "3.05 for 10" of ten together. It gives one sheet's thickness, of
// several to the micrometre, and how many were measured.
func ParseThickness(text string) (measure.Length, int, error) {
	stack, count, several := strings.Cut(strings.ToLower(text), " for ")
	sheets := 1
	if several {
		n, err := strconv.Atoi(strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(count), "sheets")))
		if err != nil || n < 1 || n > MostMeasured {
			return 0, 0, fault.New(fault.CountRange, "", "measure 1 to %d sheets together, as in 3.05 for 10", MostMeasured)
		}
		sheets = n
	}
	l, err := measure.Parse(strings.TrimSpace(stack), measure.MM)
	if err != nil {
		return 0, 0, err
	}
	if several {
		l = measure.Nearest(l/measure.Length(sheets), measure.Tick(measure.Micrometre))
	}
	return l, sheets, nil
}

// ThicknessText writes a card's thickness as ParseThickness reads it.
func (c Card) ThicknessText() string {
	if c.Measured > 1 {
		return fmt.Sprintf("%s mm for %d", measure.Field(c.Thickness*measure.Length(c.Measured), measure.MM), c.Measured)
	}
	return measure.Field(c.Thickness, measure.MM) + " mm"
}

// ThicknessFrom says how it is known.
func (c Card) ThicknessFrom() string {
	switch c.Measured {
	case 0:
		return "by its weight"
	case 1:
		return "measured"
	}
	return fmt.Sprintf("measured, %d sheets together", c.Measured)
}

// Measures gives the card the thickness of another sheet of it, if that is known
// better: what was measured beats a table, several sheets together beat one.
func (c Card) Measures(other Card) Card {
	if other.Measured > c.Measured {
		c.Thickness, c.Measured = other.Thickness, other.Measured
	}
	return c
}
