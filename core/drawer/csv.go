package drawer

import (
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/rows"
)

// table is the file's.
var table = rows.Table{
	Headings: []string{"card", "gsm", "thickness", "direction", "sheet", "width", "height", "count", "price", "offcut", "from", "measured", "grain", "finish", "shape"},
	Example:  "card,sheet,count,price",
	Empty:    "there is no paper in this file; give each pile a row",
}

// WriteCSV gives lots as CSV under a row of headings, lengths in millimetres.
// Reserved sheets are counted with the others.
func WriteCSV(lots []Lot) []byte {
	mm := func(l measure.Length) string { return measure.Field(l, measure.MM) + " mm" }
	var out [][]string
	for _, l := range lots {
		out = append(out, []string{
			rows.Inert(l.Card.Name), rows.Decimal(l.Card.GSM), mm(l.Card.Thickness), string(l.Card.Direction), rows.Inert(l.Sheet), mm(l.Width), mm(l.Height),
			strconv.Itoa(l.Count), rows.Decimal(l.Price), yesNo(l.Offcut), rows.Inert(l.From), strconv.Itoa(l.Card.Measured), string(l.Card.Grain), string(l.Card.Finish), string(l.Shape),
		})
	}
	return rows.Write(table.Headings, out)
}

func yesNo(b bool) string {
	if b {
		return "yes"
	}
	return "no"
}

// ReadCSV reads lots as WriteCSV writes them, in any order of columns. Card is
// needed, and a width and a height or the name of a standard sheet; the rest
// may be left out. Bare lengths are in the unit. Every bad row is reported, by
// its number under the heading, and then none is given.
func ReadCSV(text []byte, unit measure.Unit) ([]Lot, []error) {
	return rows.Read(table, text, func(cells []rows.Cell) (Lot, error) { return lotOf(cells, unit) })
}

// lotOf reads one row.
func lotOf(cells []rows.Cell, unit measure.Unit) (Lot, error) {
	l, shape := Lot{Count: 1, Card: paper.Card{Direction: paper.NoDirection}}, ""
	for _, c := range cells {
		var err error
		switch text := c.Text; c.Head {
		case "card":
			l.Card.Name = rows.Alive(text)
		case "gsm":
			l.Card.GSM, err = paper.ParseWeight(text)
		case "thickness":
			sheets := 0
			if l.Card.Thickness, sheets, err = paper.ParseThickness(text); sheets > 1 {
				l.Card.Measured = sheets
			}
		case "direction":
			l.Card.Direction = paper.Direction(text)
		case "sheet":
			l.Sheet = rows.Alive(text)
		case "width":
			l.Width, err = measure.Parse(text, unit)
		case "height":
			l.Height, err = measure.Parse(text, unit)
		case "count":
			if l.Count, err = strconv.Atoi(text); err != nil {
				err = fault.New(fault.NotANumber, "", "%q is not a whole number of sheets", text)
			}
		case "price":
			l.Price, err = rows.Number(text)
		case "offcut":
			l.Offcut = strings.EqualFold(text, "yes") || strings.EqualFold(text, "true") || text == "1"
		case "measured":
			if l.Card.Measured, err = strconv.Atoi(text); err != nil || l.Card.Measured < 0 || l.Card.Measured > paper.MostMeasured {
				err = fault.New(fault.CountRange, "", "%q is not how many sheets were measured together, 0 to %d", text, paper.MostMeasured)
			}
		case "grain":
			l.Card.Grain = paper.Grain(strings.TrimPrefix(text, "unknown"))
		case "finish":
			l.Card.Finish = paper.Finish(strings.TrimPrefix(text, "solid"))
		case "shape":
			shape = text
		case "from":
			l.From = rows.Alive(text)
		}
		if err != nil {
			return l, fault.At(c.Head, err)
		}
	}
	if err := l.DrawText(shape); err != nil {
		return l, err
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
		l.Card.Thickness = paper.ThicknessOf(l.Card.GSM, l.Card.Finish.Bulk())
	}
	if l.Card.Direction == "" {
		l.Card.Direction = paper.NoDirection
	}
}
