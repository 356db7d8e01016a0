package stylefile

import (
	"fmt"
	"strings"

	"brevium/core/measure"
)

// OfScores is a table of a blank that is scored over its whole length: its columns and
// rows as they are, the face in the middle staying on the table, to be named and cut by
// hand. Its length, width and height follow the middle face and the row beside it.
func OfScores(name string, width, height measure.Length, across, down []measure.Length) *Table {
	steps := func(at []measure.Length, whole measure.Length) (out []measure.Length) {
		before := measure.Length(0)
		for _, x := range append(append([]measure.Length{}, at...), whole) {
			out, before = append(out, x-before), x
		}
		return out
	}
	columns, rows := steps(across, width), steps(down, height)
	t := NewTable()
	p := t.piece()
	p.Columns, p.Rows, p.Cells, p.Root, p.Roles = nil, nil, nil, "", nil
	mid, row := len(columns)/2, len(rows)/2
	sizes := []measure.Length{columns[mid], rows[row], measure.Inch}
	if row > 0 {
		sizes[2] = rows[row-1]
	} else if mid > 0 {
		sizes[2] = columns[mid-1]
	}
	names := []string{"L", "W", "H"}
	for i := range t.Sizes {
		t.Sizes[i].Usual = text(sizes[i])
	}
	// A step that is one of the sizes goes with it; another stays as long as it is.
	formula := func(x measure.Length, first int) string {
		for _, k := range []int{first, 2, 1 - first} {
			if sizes[k] == x {
				return names[k]
			}
		}
		return strings.ReplaceAll(string(text(x)), " mm", "") + " mm"
	}
	for _, x := range columns {
		p.Columns = append(p.Columns, formula(x, 0))
	}
	for _, x := range rows {
		p.Rows = append(p.Rows, formula(x, 1))
	}
	for r := range rows {
		var cells []string
		for c := range columns {
			cells = append(cells, fmt.Sprintf("r%dc%d", r+1, c+1))
		}
		p.Cells = append(p.Cells, strings.Join(cells, " "))
	}
	p.Root = fmt.Sprintf("r%dc%d", row+1, mid+1)
	p.Roles = map[string]string{p.Root: "panel"}
	if name != "" {
		p.Name = strings.ToUpper(name[:1]) + name[1:]
	}
	return t
}

func text(l measure.Length) measure.Text { return measure.Text(measure.Field(l, measure.MM) + " mm") }
