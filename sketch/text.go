package sketch

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"brevium/core/fault"
)

// Lines that are read: how many, and how far from the corner, mm.
const (
	mostLines = 400
	farthest  = 4000
)

// Write writes lines as a text, a line each: "fold" or "cut", where it begins and where it ends, in
// mm from the left and from the top, and why it should be looked at.
func Write(lines []Line) string {
	var b strings.Builder
	for _, l := range lines {
		kind := "cut"
		if l.Fold {
			kind = "fold"
		}
		text := fmt.Sprintf("%s %.2f %.2f  %.2f %.2f", kind, l.X1, l.Y1, l.X2, l.Y2)
		if l.Doubt != "" {
			text += "  ? " + l.Doubt
		}
		b.WriteString(text + "\n")
	}
	return b.String()
}

// Read reads what Write wrote, mended by hand.
func Read(text string) ([]Line, error) {
	var out []Line
	n := 0
	for row := range strings.Lines(text) {
		n++
		said, doubt, _ := strings.Cut(strings.TrimSpace(row), "?")
		words := strings.Fields(said)
		if len(words) == 0 {
			continue
		}
		if len(words) != 5 || words[0] != "fold" && words[0] != "cut" {
			return nil, fault.New(fault.Invalid, "lines", "Line %d is not “fold” or “cut” and four numbers", n)
		}
		var at [4]float64
		for i := range at {
			x, err := strconv.ParseFloat(strings.Replace(words[i+1], ",", ".", 1), 64)
			if err != nil || math.IsNaN(x) || math.Abs(x) > farthest {
				return nil, fault.New(fault.NotANumber, "lines", "Line %d: %q is no place in mm", n, words[i+1])
			}
			at[i] = x
		}
		if len(out) == mostLines {
			return nil, fault.New(fault.TooLarge, "lines", "up to %d lines are read", mostLines)
		}
		out = append(out, Line{at[0], at[1], at[2], at[3], words[0] == "fold", strings.TrimSpace(doubt)})
	}
	return out, nil
}
