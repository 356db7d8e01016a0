// Package rows reads and writes lists as CSV under a row of headings, as a spreadsheet
// has them.
package rows

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
)

// Cell is a text under its heading.
type Cell struct{ Head, Text string }

// Write gives rows as CSV under their headings.
func Write(headings []string, rows [][]string) []byte {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	if err := w.WriteAll(append([][]string{headings}, rows...)); err != nil {
		panic(err) // a buffer takes everything
	}
	return out.Bytes()
}

// commanding starts a cell that a spreadsheet would run.
const commanding = "=+-@\t\r"

// Inert writes what a person typed so that no spreadsheet runs it: an apostrophe
// before what would start a formula, and before an apostrophe that stood there already.
func Inert(cell string) string {
	if cell != "" && strings.ContainsAny(cell[:1], commanding+"'") {
		return "'" + cell
	}
	return cell
}

// Alive reads what Inert wrote.
func Alive(cell string) string {
	if len(cell) > 1 && cell[0] == '\'' && strings.ContainsAny(cell[1:2], commanding+"'") {
		return cell[1:]
	}
	return cell
}

// Decimal writes a number in as many digits as it takes.
func Decimal(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }

// Number reads a number with a point or a comma.
func Number(text string) (float64, error) {
	f, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil {
		return 0, fault.New(fault.NotANumber, "", "%q is not a number; type one such as 0.80", text)
	}
	return f, nil
}

// Table is a list that can be read: its headings, some of which may be left out, in
// any order; an example of the row of headings; and what is said of a list with no
// row.
type Table struct {
	Headings       []string
	Example, Empty string
}

// Read reads every row of a list with of, which is given the cells that are not empty,
// in the order of the columns. Every bad row is reported, by its number under the
// heading, and then none is given.
func Read[T any](t Table, text []byte, of func([]Cell) (T, error)) ([]T, []error) {
	in := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(text, []byte("\ufeff"))))
	in.TrimLeadingSpace = true
	heads, err := in.Read()
	if err != nil {
		return nil, []error{fault.New(fault.Empty, "file", "this is not CSV with a heading row such as %s", t.Example)}
	}
	var faults []error
	for i, h := range heads {
		heads[i] = strings.ToLower(strings.TrimSpace(h))
		if !slices.Contains(t.Headings, heads[i]) {
			faults = append(faults, fault.New(fault.UnknownField, "heading", "%q is not a column; use %s", h, strings.Join(t.Headings, ", ")))
		}
	}
	if len(faults) > 0 {
		return nil, faults
	}
	var out []T
	for n := 1; ; n++ {
		record, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		row := fmt.Sprintf("row %d", n)
		if err != nil && !errors.Is(err, csv.ErrFieldCount) {
			return nil, append(faults, fault.New(fault.NotCSV, row, "this row cannot be read as CSV: %v", err))
		}
		if err != nil {
			faults = append(faults, fault.New(fault.NotCSV, row, "this row has %d columns and the heading %d", len(record), len(heads)))
			continue
		}
		var cells []Cell
		for i, h := range heads {
			if text := strings.TrimSpace(record[i]); text != "" {
				cells = append(cells, Cell{h, text})
			}
		}
		x, err := of(cells)
		if err != nil {
			faults = append(faults, fault.At(row, err))
		}
		out = append(out, x)
	}
	if len(out) == 0 && len(faults) == 0 {
		faults = append(faults, fault.New(fault.Empty, "file", "%s", t.Empty))
	}
	if len(faults) > 0 {
		return nil, faults
	}
	return out, nil
}
