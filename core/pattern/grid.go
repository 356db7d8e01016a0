package pattern

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Grid is a piece drawn as its scores: columns run across, rows down, and
// Cells names what stands where, one line a row. A dot is a cell that is cut
// away; a name repeated in neighbouring cells is one face, and scores stop
// short of it. Two faces that touch are joined by a 90° crease away from the
// viewer unless Fold or Slit says otherwise.
//
//	g := pattern.NewGrid([]measure.Length{h, l, h}, []measure.Length{h, w, h}, `
//		.     back   .
//		left  base   right
//		.     front  .`)
type Grid struct {
	columns, rows []measure.Length
	xs, ys        []measure.Length // where columns and rows begin, and the end
	cells         map[string]*cell
	order         []string
	joints        map[[2]string]joint
	glue          []Glue
	err           error
}

// cell is a named rectangle of the grid and the shape it is cut to.
type cell struct {
	name                   string
	role                   Role
	left, top, right, down int    // in grid lines
	shape                  []spot // clockwise as seen
	up                     Point
}

// spot is a corner kept exact, so that shared edges match; bulge is that of
// the edge to the next.
type spot struct {
	x, y  measure.Length
	bulge float64
}

func (s spot) point() Point { return Point{s.x.MM(), s.y.MM()} }

func (s spot) at() [2]measure.Length { return [2]measure.Length{s.x, s.y} }

type joint struct {
	slit, rolled bool
	angle        float64
	side         Side
}

// NewGrid lays out the cells. Every column and row must be over zero.
func NewGrid(columns, rows []measure.Length, cells string) *Grid {
	g := &Grid{columns: columns, rows: rows, xs: sums(columns), ys: sums(rows), cells: map[string]*cell{}, joints: map[[2]string]joint{}}
	for _, n := range slices.Concat(columns, rows) {
		if n <= 0 {
			g.err = fault.New("no-room", "", "the walls take more than half the blank, so nothing is left between them; make the walls lower or the box larger")
			return g
		}
	}
	lines := strings.Split(strings.TrimSpace(cells), "\n")
	if len(lines) != len(rows) {
		g.err = fmt.Errorf("grid has %d rows but names %d", len(rows), len(lines))
		return g
	}
	names := make([][]string, len(rows))
	for row, line := range lines {
		names[row] = strings.Fields(line)
		if len(names[row]) != len(columns) {
			g.err = fmt.Errorf("grid row %q has %d cells for %d columns", line, len(names[row]), len(columns))
			return g
		}
		for col, name := range names[row] {
			if name != "." {
				g.put(name, col, row)
			}
		}
	}
	for _, c := range g.cells {
		for row := c.top; row < c.down; row++ {
			for col := c.left; col < c.right; col++ {
				if names[row][col] != c.name {
					g.err = fmt.Errorf("the cells named %q are not one rectangle", c.name)
				}
			}
		}
		c.shape = []spot{{x: g.xs[c.left], y: g.ys[c.top]}, {x: g.xs[c.right], y: g.ys[c.top]}, {x: g.xs[c.right], y: g.ys[c.down]}, {x: g.xs[c.left], y: g.ys[c.down]}}
	}
	return g
}

func (g *Grid) put(name string, col, row int) {
	c := g.cells[name]
	if c == nil {
		c = &cell{name: name, role: Wall, left: col, top: row}
		g.cells[name] = c
		g.order = append(g.order, name)
	}
	c.left, c.right, c.down = min(c.left, col), max(c.right, col+1), row+1
}

// sums gives the running totals of steps, from zero.
func sums(steps []measure.Length) []measure.Length {
	out := make([]measure.Length, len(steps)+1)
	for i, s := range steps {
		out[i+1] = out[i] + s
	}
	return out
}

func (g *Grid) cell(name string) *cell {
	if c := g.cells[name]; c != nil {
		return c
	}
	if g.err == nil {
		g.err = fmt.Errorf("grid has no cell %q", name)
	}
	return &cell{name: name, shape: make([]spot, 4)}
}

func pair(a, b string) [2]string {
	if a > b {
		a, b = b, a
	}
	return [2]string{a, b}
}

// Role says what the named cells are for; a cell is a Wall until told.
func (g *Grid) Role(role Role, names ...string) {
	for _, n := range names {
		g.cell(n).role = role
	}
}

// Up says that on each named cell the finished box's upwards points away
// from the panel it hangs on.
func (g *Grid) Up(panel string, names ...string) {
	p := g.cell(panel)
	for _, n := range names {
		c := g.cell(n)
		c.up = Point{side(c.left, c.right, p.left, p.right), side(c.top, c.down, p.top, p.down)}
	}
}

// side is −1 when a cell lies before another along an axis, 1 when after it.
func side(from, to, otherFrom, otherTo int) float64 {
	switch {
	case to <= otherFrom:
		return -1
	case from >= otherTo:
		return 1
	}
	return 0
}

// Slit cuts between two neighbours.
func (g *Grid) Slit(a, b string) { g.joints[pair(a, b)] = joint{slit: true} }

// Fold creases between two neighbours to an angle other than 90°.
func (g *Grid) Fold(a, b string, degrees float64, side Side) {
	g.joints[pair(a, b)] = joint{angle: degrees, side: side}
}

// Roll bends two neighbours to an angle away from the viewer over an edge or
// a pencil; the line between them is not scored.
func (g *Grid) Roll(a, b string, degrees float64) {
	g.joints[pair(a, b)] = joint{rolled: true, angle: degrees, side: Away}
}

// Elsewhere puts adhesive on a face that lands on another piece.
func (g *Grid) Elsewhere(face string, outside bool, piece string) {
	g.glue = append(g.glue, Glue{Face: face, Outside: outside, Piece: piece})
}

// Glue puts adhesive on the whole of a face, outside or inside, to land on
// the inside of another.
func (g *Grid) Glue(face string, outside bool, onto string) {
	g.glue = append(g.glue, Glue{Face: face, Outside: outside, Onto: onto})
}

// Over puts adhesive on the inside of a face, to land on another's outside.
func (g *Grid) Over(face, onto string) {
	g.glue = append(g.glue, Glue{Face: face, Onto: onto, OntoOutside: true})
}

// Tuck says that a face lies inside another, dry.
func (g *Grid) Tuck(face, onto string) {
	g.glue = append(g.glue, Glue{Face: face, Outside: true, Onto: onto, Dry: true})
}

// Lap says that a face lies over the outside of another, dry.
func (g *Grid) Lap(face, onto string) {
	g.glue = append(g.glue, Glue{Face: face, Onto: onto, OntoOutside: true, Dry: true})
}

// hinge gives the index of the shape's edge that a cell hangs by, and the
// unit steps along it and away from it.
func (g *Grid) hinge(c *cell, name string) (i int, along, out spot) {
	h := g.cell(name)
	switch {
	case h.down <= c.top:
		i = 0
	case h.left >= c.right:
		i = 1
	case h.top >= c.down:
		i = 2
	default:
		i = 3
	}
	a, b, far := c.shape[i], c.shape[(i+1)%4], c.shape[(i+3)%4]
	return i, spot{x: sgn(b.x - a.x), y: sgn(b.y - a.y)}, spot{x: sgn(far.x - a.x), y: sgn(far.y - a.y)}
}

// span gives the width along the hinge edge i and the depth away from it.
func (c *cell) span(i int) (width, depth measure.Length) {
	a, b, far := c.shape[i], c.shape[(i+1)%4], c.shape[(i+3)%4]
	return (b.x - a.x).Abs() + (b.y - a.y).Abs(), (far.x - a.x).Abs() + (far.y - a.y).Abs()
}

// Tab shapes a cell that hangs on hinge: it reaches at most reach from it,
// and at its free end each side loses wedge, so that it tucks in without
// showing at the rim or lifting the base.
func (g *Grid) Tab(name, hinge string, reach, wedge measure.Length) {
	c := g.cell(name)
	i, along, out := g.hinge(c, hinge)
	width, depth := c.span(i)
	reach, wedge = min(reach, depth), min(wedge, width/3)
	a, b := c.shape[i], c.shape[(i+1)%4]
	c.shape[(i+2)%4] = spot{x: b.x + out.x*reach - along.x*wedge, y: b.y + out.y*reach - along.y*wedge}
	c.shape[(i+3)%4] = spot{x: a.x + out.x*reach + along.x*wedge, y: a.y + out.y*reach + along.y*wedge}
}

// Round cuts the free corners of a cell to quarter circles; the radius is
// at most half its width and its depth.
func (g *Grid) Round(name, hinge string, radius measure.Length) {
	c := g.cell(name)
	i, along, out := g.hinge(c, hinge)
	width, depth := c.span(i)
	r := min(radius, width/2, depth)
	a, b := c.shape[i], c.shape[(i+1)%4]
	const quarter = 0.41421356237309503 // tan(90°/4)
	c.shape = []spot{
		{x: a.x, y: a.y},
		{x: b.x, y: b.y},
		{x: b.x + out.x*(depth-r), y: b.y + out.y*(depth-r), bulge: quarter},
		{x: b.x + out.x*depth - along.x*r, y: b.y + out.y*depth - along.y*r},
		{x: a.x + out.x*depth + along.x*r, y: a.y + out.y*depth + along.y*r, bulge: quarter},
		{x: a.x + out.x*(depth-r), y: a.y + out.y*(depth-r)},
	}
	if width-2*r <= measure.Micrometre { // the two arcs meet in one point
		c.shape = slices.Delete(c.shape, 3, 4)
	}
}

// Point cuts a cell to a point in the middle of its free end, with shoulders
// of the given depth left straight.
func (g *Grid) Point(name, hinge string, shoulder measure.Length) {
	c := g.cell(name)
	i, along, out := g.hinge(c, hinge)
	width, depth := c.span(i)
	a, b := c.shape[i], c.shape[(i+1)%4]
	c.shape = []spot{
		{x: a.x, y: a.y},
		{x: b.x, y: b.y},
		{x: b.x + out.x*shoulder, y: b.y + out.y*shoulder},
		{x: a.x + out.x*depth + along.x*(width/2), y: a.y + out.y*depth + along.y*(width/2)},
		{x: a.x + out.x*shoulder, y: a.y + out.y*shoulder},
	}
}

func sgn(l measure.Length) measure.Length { return min(1, max(-1, l)) }
