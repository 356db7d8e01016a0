package drawer

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
	"brevium/core/measure"
	"brevium/core/paper"
)

// headings are the columns of the file, in order.
var headings = []string{"card", "gsm", "thickness", "direction", "sheet", "width", "height", "count", "price", "offcut", "from"}

// WriteCSV gives lots as CSV under a row of headings, lengths in millimetres.
// Reserved sheets are counted with the others.
func WriteCSV(lots []Lot) []byte {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	mm := func(l measure.Length) string { return measure.Field(l, measure.MM) + " mm" }
	rows := [][]string{headings}
	for _, l := range lots {
		rows = append(rows, []string{
			inert(l.Card.Name), decimal(l.Card.GSM), mm(l.Card.Thickness), string(l.Card.Direction), inert(l.Sheet), mm(l.Width), mm(l.Height),
			strconv.Itoa(l.Count), decimal(l.Price), yesNo(l.Offcut), inert(l.From),
		})
	}
	if err := w.WriteAll(rows); err != nil {
		panic(err) // a buffer takes everything
	}
	return out.Bytes()
}

// commanding starts a cell that a spreadsheet would run.
const commanding = "=+-@\t\r"

// inert writes a cell so that no spreadsheet runs it: an apostrophe before what
// would start a formula, and before an apostrophe that stood there already.
func inert(cell string) string {
	if cell != "" && strings.ContainsAny(cell[:1], commanding+"'") {
		return "'" + cell
	}
	return cell
}

// alive reads what inert wrote.
func alive(cell string) string {
	if len(cell) > 1 && cell[0] == '\'' && strings.ContainsAny(cell[1:2], commanding+"'") {
		return cell[1:]
	}
	return cell
}

func yesNo(b bool) string {
	if b {
		return "yes"
	}
	return "no"
}

func decimal(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }

// ReadCSV reads lots as WriteCSV writes them, in any order of columns. Card is
// needed, and a width and a height or the name of a standard sheet; the rest
// may be left out. Bare lengths are in the unit. Every bad row is reported, by
// its number under the heading, and then none is given.
func ReadCSV(text []byte, unit measure.Unit) ([]Lot, []error) {
	in := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(text, []byte("\ufeff"))))
	in.TrimLeadingSpace = true
	heads, err := in.Read()
	if err != nil {
		return nil, []error{fault.New(fault.Empty, "file", "this is not CSV with a heading row such as card,sheet,count,price")}
	}
	var faults []error
	for i, h := range heads {
		heads[i] = strings.ToLower(strings.TrimSpace(h))
		if !slices.Contains(headings, heads[i]) {
			faults = append(faults, fault.New(fault.UnknownField, "heading", "%q is not a column; use %s", h, strings.Join(headings, ", ")))
		}
	}
	if len(faults) > 0 {
		return nil, faults
	}
	var out []Lot
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
		l, err := lotOf(heads, record, unit)
		if err != nil {
			faults = append(faults, fault.At(row, err))
		}
		out = append(out, l)
	}
	if len(out) == 0 && len(faults) == 0 {
		faults = append(faults, fault.New(fault.Empty, "file", "there is no paper in this file; give each pile a row"))
	}
	if len(faults) > 0 {
		return nil, faults
	}
	return out, nil
}

// lotOf reads one row.
func lotOf(heads, record []string, unit measure.Unit) (Lot, error) {
	l := Lot{Count: 1, Card: paper.Card{Direction: paper.NoDirection}}
	for i, h := range heads {
		text := strings.TrimSpace(record[i])
		if text == "" {
			continue
		}
		var err error
		switch h {
		case "card":
			l.Card.Name = alive(text)
		case "gsm":
			l.Card.GSM, err = paper.ParseWeight(text)
		case "thickness":
			l.Card.Thickness, err = measure.Parse(text, measure.MM)
		case "direction":
			l.Card.Direction = paper.Direction(text)
		case "sheet":
			l.Sheet = alive(text)
		case "width":
			l.Width, err = measure.Parse(text, unit)
		case "height":
			l.Height, err = measure.Parse(text, unit)
		case "count":
			if l.Count, err = strconv.Atoi(text); err != nil {
				err = fault.New(fault.NotANumber, "", "%q is not a whole number of sheets", text)
			}
		case "price":
			if l.Price, err = strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64); err != nil {
				err = fault.New(fault.NotANumber, "", "%q is not a price; type one such as 0.80", text)
			}
		case "offcut":
			l.Offcut = strings.EqualFold(text, "yes") || strings.EqualFold(text, "true") || text == "1"
		case "from":
			l.From = alive(text)
		}
		if err != nil {
			return l, fault.At(h, err)
		}
	}
	l.Complete()
	return l, l.Check()
}

// Complete fills in what follows from the rest: the size of a standard sheet
// by its name, the name of a sheet by its size, and a thickness from the
// weight.
func (l *Lot) Complete() {
	if s, known := paper.SheetNamed(l.Sheet); known && l.Width == 0 && l.Height == 0 {
		l.Width, l.Height = s.Width, s.Height
	}
	if l.Sheet == "" {
		l.Sheet = "own size"
		for _, s := range paper.Standard {
			if s.Width == l.Width && s.Height == l.Height || s.Width == l.Height && s.Height == l.Width {
				l.Sheet = s.Name
			}
		}
		if l.Offcut {
			l.Sheet = "offcut"
		}
	}
	if l.Card.GSM == 0 {
		l.Card.GSM = 240
	}
	if l.Card.Thickness == 0 {
		l.Card.Thickness = paper.ThicknessOf(l.Card.GSM, paper.SmoothBulk)
	}
	if l.Card.Direction == "" {
		l.Card.Direction = paper.NoDirection
	}
}
