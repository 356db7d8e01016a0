package cupboard

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

// headings are the columns of the file, in order.
var headings = []string{"kind", "name", "amount", "unit", "price", "spare"}

// WriteCSV gives goods as CSV under a row of headings; lengths are in mm.
func WriteCSV(goods []Good) []byte {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	rows := [][]string{headings}
	number := func(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }
	for _, g := range goods {
		name := g.Name
		if name != "" && strings.ContainsAny(name[:1], "=+-@\t\r'") {
			name = "'" + name // so that no spreadsheet runs it
		}
		rows = append(rows, []string{string(g.Kind), name, number(g.Amount), g.Kind.Unit(), number(g.Price), number(g.Spare)})
	}
	if err := w.WriteAll(rows); err != nil {
		panic(err) // a buffer takes everything
	}
	return out.Bytes()
}

// ReadCSV reads goods as WriteCSV writes them, in any order of columns; all but
// the kind may be left out. Lengths may be in m, cm or mm by their unit. Every bad
// row is reported by its number, and then none is given.
func ReadCSV(text []byte) ([]Good, []error) {
	in := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(text, []byte("\ufeff"))))
	in.TrimLeadingSpace, in.FieldsPerRecord = true, -1
	heads, err := in.Read()
	if err != nil {
		return nil, []error{fault.New(fault.Empty, "file", "this is not CSV with a heading row such as kind,name,amount,price")}
	}
	for i, h := range heads {
		if heads[i] = strings.ToLower(strings.TrimSpace(h)); !slices.Contains(headings, heads[i]) {
			return nil, []error{fault.New(fault.UnknownField, "heading", "%q is not a column; use %s", h, strings.Join(headings, ", "))}
		}
	}
	var out []Good
	var faults []error
	for n := 1; ; n++ {
		record, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		row := fmt.Sprintf("row %d", n)
		if err != nil || len(record) > len(heads) {
			faults = append(faults, fault.New(fault.NotCSV, row, "this row cannot be read as CSV"))
			if err != nil {
				break
			}
			continue
		}
		g, err := goodOf(heads, record)
		if err != nil {
			faults = append(faults, fault.At(row, err))
		}
		out = append(out, g)
	}
	if len(out) == 0 && len(faults) == 0 {
		faults = append(faults, fault.New(fault.Empty, "file", "there are no supplies in this file; give each a row"))
	}
	if len(faults) > 0 {
		return nil, faults
	}
	return out, nil
}

// perUnit is how many mm a unit of length has.
var perUnit = map[string]float64{"m": 1000, "cm": 10, "mm": 1, "in": 25.4}

func goodOf(heads, record []string) (Good, error) {
	g, unit := Good{Spare: -1}, ""
	for i, text := range record {
		text = strings.TrimSpace(text)
		var err error
		number := func(into *float64) {
			if *into, err = strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64); err != nil {
				err = fault.New(fault.NotANumber, heads[i], "%q is not a number", text)
			}
		}
		if text == "" {
			continue
		}
		switch heads[i] {
		case "kind":
			g.Kind = Kind(strings.ToLower(text))
		case "name":
			g.Name = strings.TrimPrefix(text, "'")
		case "amount":
			number(&g.Amount)
		case "unit":
			unit = strings.ToLower(text)
		case "price":
			number(&g.Price)
		case "spare":
			number(&g.Spare)
		}
		if err != nil {
			return g, err
		}
	}
	if g.Spare < 0 {
		if g.Spare = 0; g.Kind.Long() {
			g.Spare = UsualSpare
		}
	}
	if g.Kind.Long() && unit != "" {
		each, known := perUnit[unit]
		if !known {
			return g, fault.New(fault.UnknownUnit, "unit", "%q is not a unit of length; use m, cm, mm or in", unit)
		}
		g.Amount *= each
	}
	return g, g.Check()
}
