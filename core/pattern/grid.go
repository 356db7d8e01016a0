package pattern

import (
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Grid is a Builder whose faces are drawn as their scores: columns run across,
// rows down, and the picture names what stands where, one line a row. A dot is
// a cell that is cut away; a name repeated in neighbouring cells is one face,
// and scores stop short of it.
//
//	g := pattern.NewGrid([]measure.Length{h, l, h}, []measure.Length{h, w, h}, `
//		.     back   .
//		left  base   right
//		.     front  .`)
//	base := g.Face("base")
type Grid struct {
	*Builder
	columns, rows []measure.Length
	xs, ys        []measure.Length // where columns and rows begin, and the end
}

// NewGrid lays out the cells. Every column and row must be over zero.
func NewGrid(columns, rows []measure.Length, cells string) *Grid {
	g := &Grid{Builder: NewBuilder(), columns: columns, rows: rows, xs: sums(columns), ys: sums(rows)}
	for _, n := range slices.Concat(columns, rows) {
		if n <= 0 {
			g.err = fault.New(
				fault.NoRoom,
				"",
				"the walls take more than half the blank, so nothing is left between them; make the walls lower or the box larger",
			)
			return g
		}
	}
	g.framed, g.most = true, [2]measure.Length{g.xs[len(columns)], g.ys[len(rows)]}
	lines := strings.Split(strings.TrimSpace(cells), "\n")
	if len(lines) != len(rows) {
		g.fail("the grid has %d rows but its picture %d", len(rows), len(lines))
		return g
	}
	names := make([][]string, len(rows))
	for row, line := range lines {
		names[row] = strings.Fields(line)
		if len(names[row]) != len(columns) {
			g.fail("the row %q has %d cells for %d columns", line, len(names[row]), len(columns))
			return g
		}
		for col, name := range names[row] {
			if name != "." {
				g.put(name, col, row)
			}
		}
	}
	for _, c := range g.leaves {
		for row := c.top; row < c.down; row++ {
			for col := c.left; col < c.right; col++ {
				if names[row][col] != c.name {
					g.fail("the cells named %q are not one rectangle", c.name)
				}
			}
		}
		c.shape = []spot{
			{x: g.xs[c.left], y: g.ys[c.top]},
			{x: g.xs[c.right], y: g.ys[c.top]},
			{x: g.xs[c.right], y: g.ys[c.down]},
			{x: g.xs[c.left], y: g.ys[c.down]},
		}
	}
	return g
}

func (g *Grid) put(name string, col, row int) {
	c := g.find(name)
	if c == nil {
		c = g.leaf(name)
		c.left, c.top = col, row
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

// Face gives the handle of a face of the picture; a name that is not in it is
// a fault.
func (g *Grid) Face(name string) *Leaf {
	if l := g.find(name); l != nil {
		return l
	}
	g.fail("the grid has no face %q", name)
	return nil
}

// All gives the handles of several faces of the picture.
func (g *Grid) All(names ...string) []*Leaf {
	var out []*Leaf
	for _, n := range names {
		out = append(out, g.Face(n))
	}
	return out
}

// hinge gives the index of the edge that a rectangle hangs by, and the unit
// steps along it and away from it.
func (l *Leaf) hinge(on *Leaf) (i int, along, out spot) {
	switch {
	case on.down <= l.top:
		i = 0
	case on.left >= l.right:
		i = 1
	case on.top >= l.down:
		i = 2
	default:
		i = 3
	}
	a, b, far := l.shape[i], l.shape[(i+1)%4], l.shape[(i+3)%4]
	return i, spot{x: sgn(b.x - a.x), y: sgn(b.y - a.y)}, spot{x: sgn(far.x - a.x), y: sgn(far.y - a.y)}
}

// span gives the width along the hinge edge i and the depth away from it.
func (l *Leaf) span(i int) (width, depth measure.Length) {
	a, b, far := l.shape[i], l.shape[(i+1)%4], l.shape[(i+3)%4]
	return (b.x - a.x).Abs() + (b.y - a.y).Abs(), (far.x - a.x).Abs() + (far.y - a.y).Abs()
}

// shaped reports whether a face and its hinge may be shaped: both are of this
// grid and the face is still a rectangle.
func (g *Grid) shaped(l, hinge *Leaf) bool {
	if !g.mine(l, hinge) {
		return false
	}
	if len(l.shape) != 4 {
		g.fail("the face %q is shaped already", l.name)
		return false
	}
	return true
}

// Seen is the least by which a hand cuts something shorter, or scores one line beside another.
const Seen = 30 * measure.Micrometre

// Tab shapes a face that hangs on hinge: it reaches at most reach from it,
// and at its free end each side loses wedge, so that it tucks in without
// showing at the rim or lifting the base.
func (g *Grid) Tab(l, hinge *Leaf, reach, wedge measure.Length) {
	if !g.shaped(l, hinge) {
		return
	}
	i, along, out := l.hinge(hinge)
	width, depth := l.span(i)
	if reach < depth {
		reach = g.down(reach)
	}
	if reach > depth-Seen { // no hand cuts off so little
		reach = depth
	}
	wedge = g.down(min(wedge, width/3))
	a, b := l.shape[i], l.shape[(i+1)%4]
	l.shape[(i+2)%4] = spot{x: b.x + out.x*reach - along.x*wedge, y: b.y + out.y*reach - along.y*wedge}
	l.shape[(i+3)%4] = spot{x: a.x + out.x*reach + along.x*wedge, y: a.y + out.y*reach + along.y*wedge}
}

// Round cuts the free corners of a face to quarter circles; the radius is
// at most half its width and its depth.
func (g *Grid) Round(l, hinge *Leaf, radius measure.Length) {
	if !g.shaped(l, hinge) {
		return
	}
	i, along, out := l.hinge(hinge)
	width, depth := l.span(i)
	r := min(radius, width/2, depth)
	a, b := l.shape[i], l.shape[(i+1)%4]
	const quarter = 0.41421356237309503 // tan(90°/4)
	l.shape = []spot{
		{x: a.x, y: a.y},
		{x: b.x, y: b.y},
		{x: b.x + out.x*(depth-r), y: b.y + out.y*(depth-r), bulge: quarter},
		{x: b.x + out.x*depth - along.x*r, y: b.y + out.y*depth - along.y*r},
		{x: a.x + out.x*depth + along.x*r, y: a.y + out.y*depth + along.y*r, bulge: quarter},
		{x: a.x + out.x*(depth-r), y: a.y + out.y*(depth-r)},
	}
	if width-2*r <= measure.Micrometre { // the two arcs meet in one point
		l.shape = slices.Delete(l.shape, 3, 4)
	}
	if r == depth { // they begin at the hinge
		l.shape = slices.Delete(slices.Delete(l.shape, len(l.shape)-1, len(l.shape)), 1, 2)
	}
}

// Arch ends a face in an arc from side to side that stands out by rise: at most half its
// width, and so much of its depth that its sides begin straight.
func (g *Grid) Arch(l, hinge *Leaf, rise measure.Length) {
	if !g.shaped(l, hinge) {
		return
	}
	i, _, out := l.hinge(hinge)
	width, depth := l.span(i)
	rise = min(rise, width/2, depth-depth/20)
	if rise <= 0 {
		return
	}
	a, b := l.shape[i], l.shape[(i+1)%4]
	l.shape = []spot{
		{x: a.x, y: a.y},
		{x: b.x, y: b.y},
		{x: b.x + out.x*(depth-rise), y: b.y + out.y*(depth-rise), bulge: 2 * rise.MM() / width.MM()},
		{x: a.x + out.x*(depth-rise), y: a.y + out.y*(depth-rise)},
	}
}

// Point cuts a face to a point in the middle of its free end, with shoulders
// of the given depth left straight.
func (g *Grid) Point(l, hinge *Leaf, shoulder measure.Length) {
	if !g.shaped(l, hinge) {
		return
	}
	i, along, out := l.hinge(hinge)
	width, depth := l.span(i)
	shoulder = g.down(min(shoulder, depth))
	a, b := l.shape[i], l.shape[(i+1)%4]
	l.shape = []spot{
		{x: a.x, y: a.y},
		{x: b.x, y: b.y},
		{x: b.x + out.x*shoulder, y: b.y + out.y*shoulder},
		{x: a.x + out.x*depth + along.x*(width/2), y: a.y + out.y*depth + along.y*(width/2)},
		{x: a.x + out.x*shoulder, y: a.y + out.y*shoulder},
	}
}

func (g *Grid) down(l measure.Length) measure.Length {
	if g.tick == 0 {
		return l
	}
	return CutDown(l, g.tick)
}

// CutDown rounds what may be less down to what a hand cuts to; a sliver is half of that.
func CutDown(l measure.Length, tick measure.Tick) measure.Length {
	if l < tick.Length() {
		return measure.Down(l, max(1, tick/2))
	}
	return measure.Down(l, tick)
}

func sgn(l measure.Length) measure.Length { return min(1, max(-1, l)) }
