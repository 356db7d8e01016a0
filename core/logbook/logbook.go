// Package logbook is what was made and how it felt: the notes a maker writes when a
// box is done.
package logbook

import (
	"fmt"
	"slices"
	"time"
	"unicode/utf8"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
)

// Note is one box that was made. Design is the box as it was then, as in its file.
type Note struct {
	ID          int64
	Box         int64 // it was, if it is still there
	Made        time.Time
	Name, Style string
	Card        string
	Felt        []Felt
	Minutes     float64 // it took; 0 is not known
	Remember    string
	Photo       string // its id, "" for none
	Design      []byte // "{}" where it is not known
}

// Felt is how one thing went over another: the gap that was worked out, both sides
// together, and what it was like in the hand.
type Felt struct {
	Pair string         `json:"pair"`           // "Lid over base, length"
	Kind string         `json:"kind,omitempty"` // of the fit, its id
	Card string         `json:"card"`           // of the outer part, by its label
	Gap  measure.Length `json:"gap_nm"`
	Felt fit.Verdict    `json:"felt"`
}

// What a note holds at most.
const (
	mostMinutes = 100_000.0
	longestName = 200
	mostFelt    = 60
	widestGap   = 100 * measure.Millimetre
)

// LongestNote is how much there is to remember, in letters.
const LongestNote = 600

// Check refuses a note that cannot be, naming the field.
func (n Note) Check() error {
	switch {
	case !(n.Minutes >= 0 && n.Minutes <= mostMinutes):
		return fault.New(fault.OutOfRange, "minutes", "a box takes up to %.0f minutes", mostMinutes)
	case utf8.RuneCountInString(n.Name) > longestName || utf8.RuneCountInString(n.Card) > longestName:
		return fault.New(fault.TooLong, "box", "a name has up to %d letters", longestName)
	case len(n.Felt) > mostFelt:
		return fault.New(fault.CountRange, "felt", "a note has up to %d fits", mostFelt)
	}
	if utf8.RuneCountInString(n.Remember) > LongestNote {
		return fault.New(fault.TooLong, "remember", "a note has up to %d letters", LongestNote)
	}
	for i, f := range n.Felt {
		field := fmt.Sprintf("felt%d", i)
		switch {
		case !slices.Contains(fit.Verdicts, f.Felt):
			return fault.New(fault.UnknownFit, field, "%q is not how a fit feels; use one of %v", f.Felt, fit.Verdicts)
		case f.Gap.Abs() > widestGap:
			return fault.New(fault.OutOfRange, field, "a gap is up to 100 mm")
		case utf8.RuneCountInString(f.Card) > longestName || utf8.RuneCountInString(f.Pair) > longestName:
			return fault.New(fault.TooLong, field, "a name has up to %d letters", longestName)
		}
	}
	return nil
}

// Says tells in a line how it felt: "Lid over base, length: snug".
func (n Note) Says() []string {
	var out []string
	for _, f := range n.Felt {
		out = append(out, fmt.Sprintf("%s: %s, worked out %s mm", f.Pair, f.Felt, measure.Hundredths(f.Gap)))
	}
	return out
}
