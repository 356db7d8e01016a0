package stylefile

import (
	"encoding/json"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/strict"
)

// Table is a piece of a style file as a table that is filled in by hand, the first until
// another is picked: its sizes, columns and rows, what each cell is, what each edge
// between two faces is, where faces go, how they are shaped.
type Table struct {
	file
	at int // the piece that is picked
}

// ReadTable reads a style file to be changed, whether or not it gives a box yet.
func ReadTable(text []byte) (*Table, error) {
	if len(text) > MostBytes {
		return nil, fault.New(fault.TooLarge, "file", "a style file has up to %d kB", MostBytes>>10)
	}
	var f file
	if err := strict.Decode(text, &f); err != nil {
		return nil, err
	}
	if len(f.Pieces) == 0 {
		f.Pieces = []piece{{ID: "body", Name: "Box"}}
	}
	t := &Table{file: f}
	for i := range t.Pieces { // as many cells as columns and rows
		t.at = i
		t.even()
	}
	t.at = 0
	return t, nil
}

// NewTable is an empty sheet: one face, and a size for each way of the room.
func NewTable() *Table {
	f := file{Format: 1, ID: "my-box", Name: "My box", Room: [3]string{"length", "width", "height"}}
	f.Sizes = []size{
		{ID: "length", As: "L", Label: "Length", Usual: "4 in"},
		{ID: "width", As: "W", Label: "Width", Usual: "3 in"},
		{ID: "height", As: "H", Label: "Height", Usual: "1 in"},
	}
	f.Pieces = []piece{{ID: "body", Name: "Box", Columns: []string{"L"}, Rows: []string{"W"}, Cells: []string{"base"}, Root: "base", Roles: map[string]string{"base": "panel"}}}
	return &Table{file: f}
}

// Text writes the file.
func (t *Table) Text() []byte {
	text, err := json.MarshalIndent(t.file, "", " ")
	if err != nil {
		panic(err) // texts and numbers alone
	}
	return text
}

// Flat reports whether there is one piece of one face, which nothing folds up from.
func (t *Table) Flat() bool { return len(t.Pieces) == 1 && len(t.Faces()) == 1 }

func (t *Table) piece() *piece { return &t.Pieces[t.at] }

// Grid gives the cells' names, row by row; "" is cut away.
func (t *Table) Grid() [][]string {
	var out [][]string
	for _, line := range t.piece().Cells {
		var row []string
		for _, name := range strings.Fields(line) {
			if name == "." {
				name = ""
			}
			row = append(row, name)
		}
		out = append(out, row)
	}
	return out
}

func (t *Table) setGrid(grid [][]string) {
	p := t.piece()
	p.Cells = nil
	for _, row := range grid {
		names := slices.Clone(row)
		for i, n := range names {
			if n == "" {
				names[i] = "."
			}
		}
		p.Cells = append(p.Cells, strings.Join(names, " "))
	}
}

// even makes as many cells as there are columns and rows.
func (t *Table) even() {
	p := t.piece()
	grid := t.Grid()
	for len(grid) < len(p.Rows) {
		grid = append(grid, nil)
	}
	grid = grid[:len(p.Rows)]
	for i := range grid {
		for len(grid[i]) < len(p.Columns) {
			grid[i] = append(grid[i], "")
		}
		grid[i] = grid[i][:len(p.Columns)]
	}
	t.setGrid(grid)
}

// Columns are the columns' formulas.
func (t *Table) Columns() []string { return t.piece().Columns }

// Rows are the rows' formulas.
func (t *Table) Rows() []string { return t.piece().Rows }

// Root is the face that stays on the table.
func (t *Table) Root() string { return t.piece().Root }

// Faces are the names of the faces, each once: of the cells, and where one is divided,
// of its parts.
func (t *Table) Faces() []string {
	var out []string
	for _, n := range t.cells() {
		if parts := t.Parts(n); parts != nil {
			out = append(out, slices.DeleteFunc(parts, func(n string) bool { return n == away })...)
		} else {
			out = append(out, n)
		}
	}
	return out
}

// cells are the names in the cells, each once.
func (t *Table) cells() []string {
	var out []string
	for _, row := range t.Grid() {
		for _, n := range row {
			if n != "" && !slices.Contains(out, n) {
				out = append(out, n)
			}
		}
	}
	return out
}

// Role is what a face is.
func (t *Table) Role(face string) string {
	if r := t.piece().Roles[face]; r != "" {
		return r
	}
	return "wall"
}

// Roles are what a face can be.
var Roles = []string{"panel", "wall", "tab", "flap", "lining"}

// SetColumn changes the formula of a column.
func (t *Table) SetColumn(i int, formula string) { set(t.piece().Columns, i, formula) }

// SetRow changes the formula of a row.
func (t *Table) SetRow(i int, formula string) { set(t.piece().Rows, i, formula) }

func set(all []string, i int, text string) {
	if i >= 0 && i < len(all) {
		all[i] = strings.TrimSpace(text)
	}
}

// AddColumn puts an empty column behind the last, or before the first.
func (t *Table) AddColumn(first bool) {
	p := t.piece()
	if len(p.Columns) >= mostLines {
		return
	}
	grid, at := t.Grid(), len(p.Columns)
	if first {
		at = 0
	}
	p.Columns = slices.Insert(p.Columns, at, t.Sizes[len(t.Sizes)-1].named())
	for i := range grid {
		grid[i] = slices.Insert(grid[i], at, "")
	}
	t.setGrid(grid)
}

// AddRow puts an empty row under the last, or over the first.
func (t *Table) AddRow(first bool) {
	p := t.piece()
	if len(p.Rows) >= mostLines {
		return
	}
	grid, at := t.Grid(), len(p.Rows)
	if first {
		at = 0
	}
	p.Rows = slices.Insert(p.Rows, at, t.Sizes[len(t.Sizes)-1].named())
	t.setGrid(slices.Insert(grid, at, make([]string, len(p.Columns))))
}

// RemoveColumn takes a column away; one is always left.
func (t *Table) RemoveColumn(i int) {
	p := t.piece()
	if i < 0 || i >= len(p.Columns) || len(p.Columns) == 1 {
		return
	}
	grid := t.Grid()
	for k := range grid {
		grid[k] = slices.Delete(grid[k], i, i+1)
	}
	p.Columns = slices.Delete(p.Columns, i, i+1)
	t.setGrid(grid)
	t.forget()
}

// RemoveRow takes a row away.
func (t *Table) RemoveRow(i int) {
	p := t.piece()
	if i < 0 || i >= len(p.Rows) || len(p.Rows) == 1 {
		return
	}
	grid := slices.Delete(t.Grid(), i, i+1)
	p.Rows = slices.Delete(p.Rows, i, i+1)
	t.setGrid(grid)
	t.forget()
}

// Name names a cell; "" cuts it away. A face that has lost its last cell to one name
// keeps all that was said of it under that name.
func (t *Table) Name(row, col int, name string) {
	grid := t.Grid()
	if row < 0 || row >= len(grid) || col < 0 || col >= len(grid[row]) {
		return
	}
	name = strings.Join(strings.Fields(strings.ToLower(name)), "-")
	was := grid[row][col]
	if name == was || len(name) > 40 {
		return
	}
	fresh := name != "" && !slices.Contains(t.cells(), name) && !slices.Contains(t.piece().shares(), name)
	grid[row][col] = name
	t.setGrid(grid)
	if was != "" && fresh && !slices.Contains(t.cells(), was) {
		t.rename(was, name)
	}
	t.forget()
}

// SetRole says what a face is.
func (t *Table) SetRole(face, role string) {
	p := t.piece()
	if roles[role] == "" || !slices.Contains(t.Faces(), face) || role == t.Role(face) {
		return
	}
	if p.Roles == nil {
		p.Roles = map[string]string{}
	}
	p.Roles[face] = role
	if role == "wall" {
		delete(p.Roles, face)
	}
	p.Tabs = slices.DeleteFunc(p.Tabs, func(x tab) bool { return x.Face == face && role != "tab" && role != "flap" })
}

// SetRoot says which face stays on the table.
func (t *Table) SetRoot(face string) {
	if slices.Contains(t.Faces(), face) {
		t.piece().Root = face
	}
}

// Edge is where two faces touch, and what is done there: "fold", "towards", "slit",
// "hinge", "roll" or "roll-towards". Angle is its formula in degrees, of a fold. Along an Arc two faces
// can only be cut apart.
type Edge struct {
	A, B, Is, Angle string
	Arc             bool
}

// EdgeKinds are what an edge can be.
var EdgeKinds = []string{"fold", "towards", "hinge", "slit", "roll", "roll-towards"}

// Edges are all edges between faces, from the top left on.
func (t *Table) Edges() []Edge {
	p := t.piece()
	grid := t.Grid()
	var out []Edge
	add := func(a, b string, arc bool) {
		if a == "" || b == "" || a == b || slices.ContainsFunc(out, func(e Edge) bool { return e.A == a && e.B == b || e.A == b && e.B == a }) {
			return
		}
		e := Edge{A: a, B: b, Is: "fold", Angle: "90", Arc: arc}
		joins := func(x [2]string) bool { return x == [2]string{a, b} || x == [2]string{b, a} }
		if i := slices.IndexFunc(p.Folds, func(f fold) bool { return joins(f.Between) }); i >= 0 {
			e.Angle = p.Folds[i].Angle
			switch {
			case p.Folds[i].Hinge:
				e.Is = "hinge"
			case p.Folds[i].Roll && p.Folds[i].Towards:
				e.Is = "roll-towards"
			case p.Folds[i].Roll:
				e.Is = "roll"
			case p.Folds[i].Towards:
				e.Is = "towards"
			}
		}
		if arc || slices.ContainsFunc(p.Slits, joins) {
			e.Is = "slit"
		}
		out = append(out, e)
	}
	meet := func(a, b string, side, facing int) {
		for _, x := range t.partsAt(a, side) {
			for _, y := range t.partsAt(b, facing) {
				add(x, y, false)
			}
		}
	}
	for r, row := range grid {
		for c, name := range row {
			if c+1 < len(row) && name != row[c+1] {
				meet(name, row[c+1], right, left)
			}
			if r+1 < len(grid) && name != grid[r+1][c] {
				meet(name, grid[r+1][c], bottom, top)
			}
		}
	}
	for _, d := range p.Divide {
		for i, x := range d.Into {
			for _, y := range d.Into[i+1:] {
				if meet, arc := x.meets(y); meet && x.Name != away && y.Name != away {
					add(x.Name, y.Name, arc)
				}
			}
		}
	}
	return out
}

// SetEdge says what is done at an edge.
func (t *Table) SetEdge(a, b, is, angle string) {
	p := t.piece()
	i := slices.IndexFunc(t.Edges(), func(e Edge) bool { return e.A == a && e.B == b && !e.Arc })
	if i < 0 || !slices.Contains(EdgeKinds, is) {
		return
	}
	joins := func(x [2]string) bool { return x == [2]string{a, b} || x == [2]string{b, a} }
	p.Slits = slices.DeleteFunc(p.Slits, joins)
	p.Folds = slices.DeleteFunc(p.Folds, func(f fold) bool { return joins(f.Between) })
	if angle = strings.TrimSpace(angle); angle == "" {
		angle = "90"
	}
	switch {
	case is == "slit":
		p.Slits = append(p.Slits, [2]string{a, b})
	case is != "fold" || angle != "90":
		p.Folds = append(p.Folds, fold{Between: [2]string{a, b}, Angle: angle, Towards: strings.HasSuffix(is, "towards"), Hinge: is == "hinge", Roll: strings.HasPrefix(is, "roll")})
	}
}

// Goes is where a face goes: "" nowhere, else "glue", "inside", "over", "tuck", "lap" or
// "within", and onto which other face.
type Goes struct{ Way, Onto string }

// Ways are how a face goes somewhere.
var Ways = []string{"glue", "inside", "over", "tuck", "lap", "within"}

// Goes says where a face goes.
func (t *Table) Goes(face string) Goes {
	p := t.piece()
	for _, g := range p.Glue {
		if g.Face == face {
			switch {
			case g.Over:
				return Goes{"over", g.Onto}
			case g.Inside:
				return Goes{"inside", g.Onto}
			}
			return Goes{"glue", g.Onto}
		}
	}
	for way, pairs := range map[string][][2]string{"tuck": p.Tucks, "lap": p.Laps, "within": p.Within} {
		for _, x := range pairs {
			if x[0] == face {
				return Goes{way, x[1]}
			}
		}
	}
	return Goes{}
}

// SetGoes says where a face goes.
func (t *Table) SetGoes(face string, to Goes) {
	p := t.piece()
	first := func(x [2]string) bool { return x[0] == face }
	if to == t.Goes(face) {
		return // what else is said of it stays
	}
	p.Tucks, p.Laps, p.Within = slices.DeleteFunc(p.Tucks, first), slices.DeleteFunc(p.Laps, first), slices.DeleteFunc(p.Within, first)
	p.Glue = slices.DeleteFunc(p.Glue, func(g glue) bool { return g.Face == face })
	if !slices.Contains(t.Faces(), to.Onto) || to.Onto == face {
		return
	}
	switch to.Way {
	case "glue", "inside", "over":
		p.Glue = append(p.Glue, glue{Face: face, Onto: to.Onto, Inside: to.Way == "inside", Over: to.Way == "over"})
	case "tuck":
		p.Tucks = append(p.Tucks, [2]string{face, to.Onto})
	case "within":
		p.Within = append(p.Within, [2]string{face, to.Onto})
	case "lap":
		p.Laps = append(p.Laps, [2]string{face, to.Onto})
	}
}
