package cupboard

import (
	"strings"

	"brevium/core/fault"
	"brevium/core/rows"
)

// table is the file's.
var table = rows.Table{
	Headings: []string{"kind", "name", "amount", "unit", "price", "spare"},
	Example:  "kind,name,amount,price",
	Empty:    "there are no supplies in this file; give each a row",
}

// WriteCSV gives goods as CSV under a row of headings; lengths are in mm.
func WriteCSV(goods []Good) []byte {
	var out [][]string
	for _, g := range goods {
		out = append(out, []string{string(g.Kind), rows.Inert(g.Name), rows.Decimal(g.Amount), g.Kind.Unit(), rows.Decimal(g.Price), rows.Decimal(g.Spare)})
	}
	return rows.Write(table.Headings, out)
}

// ReadCSV reads goods as WriteCSV writes them, in any order of columns; all but
// the kind may be left out. Lengths may be in m, cm or mm by their unit. Every bad
// row is reported by its number, and then none is given.
func ReadCSV(text []byte) ([]Good, []error) { return rows.Read(table, text, goodOf) }

// perUnit is how many mm a unit of length has.
var perUnit = map[string]float64{"m": 1000, "cm": 10, "mm": 1, "in": 25.4}

func goodOf(cells []rows.Cell) (Good, error) {
	g, unit := Good{Spare: -1}, ""
	for _, c := range cells {
		var err error
		switch c.Head {
		case "kind":
			g.Kind = Kind(strings.ToLower(c.Text))
		case "name":
			g.Name = rows.Alive(c.Text)
		case "amount":
			g.Amount, err = rows.Number(c.Text)
		case "unit":
			unit = strings.ToLower(c.Text)
		case "price":
			g.Price, err = rows.Number(c.Text)
		case "spare":
			g.Spare, err = rows.Number(c.Text)
		}
		if err != nil {
			return g, fault.At(c.Head, err)
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
