// Package logbook is what was made and how it felt: the notes a maker writes when a
// box is done.
package logbook

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"slices"
	"strconv"
	"strings"
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
	Remember    string
	Design      []byte
}

// Felt is how one thing went over another: the gap that was worked out, both sides
// together, and what it was like in the hand.
type Felt struct {
	Pair string         `json:"pair"` // "Lid over base, length"
	Card string         `json:"card"` // of the outer part
	Gap  measure.Length `json:"gap_nm"`
	Felt fit.Verdict    `json:"felt"`
}

// LongestNote is how much there is to remember, in letters.
const LongestNote = 600

// Check refuses a note that cannot be, naming the field.
func (n Note) Check() error {
	if utf8.RuneCountInString(n.Remember) > LongestNote {
		return fault.New(fault.TooLong, "remember", "a note has up to %d letters", LongestNote)
	}
	for i, f := range n.Felt {
		if !slices.Contains(fit.Verdicts, f.Felt) {
			return fault.New(fault.UnknownFit, fmt.Sprintf("felt%d", i), "%q is not how a fit feels; use one of %v", f.Felt, fit.Verdicts)
		}
	}
	return nil
}

// Says tells in a line how it felt: "Lid over base, length: snug".
func (n Note) Says() []string {
	var out []string
	for _, f := range n.Felt {
		out = append(out, fmt.Sprintf("%s: %s, worked out %.2f mm", f.Pair, f.Felt, f.Gap.MM()))
	}
	return out
}

// headings are the columns of the file, one row to each fit that was noted.
var headings = []string{"made", "box", "style", "card", "fit", "gap_mm", "felt", "remember"}

// WriteCSV gives notes as CSV under a row of headings; a note without fits has one
// row.
func WriteCSV(notes []Note) []byte {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	rows := [][]string{headings}
	for _, n := range notes {
		felt := n.Felt
		if len(felt) == 0 {
			felt = []Felt{{}}
		}
		for _, f := range felt {
			gap := ""
			if f.Pair != "" {
				gap = strconv.FormatFloat(f.Gap.MM(), 'f', -1, 64)
			}
			rows = append(rows, []string{n.Made.Format(time.DateOnly), inert(n.Name), n.Style, inert(n.Card), f.Pair, gap, string(f.Felt), inert(n.Remember)})
		}
	}
	if err := w.WriteAll(rows); err != nil {
		panic(err) // a buffer takes everything
	}
	return out.Bytes()
}

// inert writes a cell so that no spreadsheet runs it.
func inert(cell string) string {
	if cell != "" && strings.ContainsAny(cell[:1], "=+-@\t\r'") {
		return "'" + cell
	}
	return cell
}
