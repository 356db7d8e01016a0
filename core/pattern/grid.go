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
// away. Two named cells that touch are joined by a 90° crease away from the
// viewer unless Fold, Slit or Flat says otherwise.
//
//	g := pattern.NewGrid([]measure.Length{h, l, h}, []measure.Length{h, w, h}, `
//		.     back   .
//		left  base   right
//		.     front  .`)
type Grid struct {
	columns, rows []measure.Length
	cells         map[string]*cell
	order         []string
	joints        map[[2]string]joint
	glue          []glueSpec
	err           error
}

type cell struct {
	name     string
	role     Role
	col, row int
	shape    []spot // clockwise as seen
	up       Point
}

// spot is a grid point kept exact, so that shared edges match.
type spot struct{ x, y measure.Length }

func (s spot) point() Point { return Point{s.x.MM(), s.y.MM()} }

type joint struct {
	kind  string // "slit", "flat" or "" for a crease
	angle float64
	side  Side
}

type glueSpec struct {
	face, onto string
	outside    bool
}

// NewGrid lays out the cells. Every column and row must be over zero.
func NewGrid(columns, rows []measure.Length, cells string) *Grid {
	g := &Grid{columns: columns, rows: rows, cells: map[string]*cell{}, joints: map[[2]string]joint{}}
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
	xs, ys := sums(columns), sums(rows)
	for row, line := range lines {
		names := strings.Fields(line)
		if len(names) != len(columns) {
			g.err = fmt.Errorf("grid row %q has %d cells for %d columns", line, len(names), len(columns))
			return g
		}
		for col, name := range names {
			if name == "." {
				continue
			}
			g.cells[name] = &cell{name: name, role: Wall, col: col, row: row, shape: []spot{
				{xs[col], ys[row]}, {xs[col+1], ys[row]}, {xs[col+1], ys[row+1]}, {xs[col], ys[row+1]},
			}}
			g.order = append(g.order, name)
		}
	}
	return g
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

// Up says that on each named cell's face the finished box's upwards
// direction points, on the pattern, from the cell towards its hinge reversed:
// that is, away from the panel it hangs on.
func (g *Grid) Up(panel string, names ...string) {
	p := g.cell(panel)
	for _, n := range names {
		c := g.cell(n)
		c.up = Point{float64(sign(c.col - p.col)), float64(sign(c.row - p.row))}
	}
}

func sign(n int) int { return min(1, max(-1, n)) }

// Slit cuts between two neighbours.
func (g *Grid) Slit(a, b string) { g.joints[pair(a, b)] = joint{kind: "slit"} }

// Flat leaves two neighbours joined without a crease.
func (g *Grid) Flat(a, b string) { g.joints[pair(a, b)] = joint{kind: "flat"} }

// Fold creases between two neighbours to an angle other than 90°.
func (g *Grid) Fold(a, b string, degrees float64, side Side) {
	g.joints[pair(a, b)] = joint{angle: degrees, side: side}
}

// Glue puts adhesive on the whole of a face, outside or inside, to land on
// another.
func (g *Grid) Glue(face string, outside bool, onto string) {
	g.glue = append(g.glue, glueSpec{face, onto, outside})
}

// Tab shapes a cell that hangs on hinge: it reaches at most reach from it,
// and at its free end each side loses wedge, so that it tucks in without
// showing at the rim or lifting the base.
func (g *Grid) Tab(name, hinge string, reach, wedge measure.Length) {
	c, h := g.cell(name), g.cell(hinge)
	s := c.shape
	// The hinge edge runs from s[i] to s[i+1]; s[i+2] and s[i+3] are free.
	i := 0
	switch {
	case h.row < c.row:
		i = 0
	case h.col > c.col:
		i = 1
	case h.row > c.row:
		i = 2
	case h.col < c.col:
		i = 3
	}
	a, b := s[i], s[(i+1)%4]
	out := spot{sgn(s[(i+3)%4].x - a.x), sgn(s[(i+3)%4].y - a.y)}
	along := spot{sgn(b.x - a.x), sgn(b.y - a.y)}
	depth := (s[(i+3)%4].x - a.x).Abs() + (s[(i+3)%4].y - a.y).Abs()
	span := (b.x - a.x).Abs() + (b.y - a.y).Abs()
	reach = min(reach, depth)
	wedge = min(wedge, span/3)
	s[(i+2)%4] = spot{b.x + out.x*reach - along.x*wedge, b.y + out.y*reach - along.y*wedge}
	s[(i+3)%4] = spot{a.x + out.x*reach + along.x*wedge, a.y + out.y*reach + along.y*wedge}
}

func sgn(l measure.Length) measure.Length { return min(1, max(-1, l)) }

type gridEdge struct{ from, to spot }

// Pattern derives outline, creases, slits and scores.
func (g *Grid) Pattern() (*Pattern, error) {
	if g.err != nil {
		return nil, g.err
	}
	xs, ys := sums(g.columns), sums(g.rows)
	p := &Pattern{Width: xs[len(xs)-1], Height: ys[len(ys)-1]}
	edges := map[gridEdge]string{}
	for _, name := range g.order {
		for i, s := range g.cells[name].shape {
			edges[gridEdge{s, g.cells[name].shape[(i+1)%4]}] = name
		}
	}
	free := map[spot][]gridEdge{} // outline edges by their start
	var first *gridEdge
	for _, name := range g.order {
		for i, s := range g.cells[name].shape {
			e := gridEdge{s, g.cells[name].shape[(i+1)%4]}
			other, shared := edges[gridEdge{e.to, e.from}]
			switch {
			case !shared:
				free[e.from] = append(free[e.from], e)
				if first == nil {
					first = &e
				}
			case name < other:
				g.join(p, name, other, e)
			}
		}
	}
	if first == nil {
		return nil, fmt.Errorf("grid has no cells")
	}
	if err := p.trace(free, *first); err != nil {
		return nil, err
	}
	p.Scores.Vertical = fullLines(xs)
	p.Scores.Horizontal = fullLines(ys)
	for _, name := range g.order {
		c := g.cells[name]
		mid := Point{}
		for _, s := range c.shape {
			mid = mid.Add(s.point().Scale(0.25))
		}
		p.Marks = append(p.Marks, Mark{Name: name, Role: c.role, At: mid, Up: c.up})
	}
	for _, s := range g.glue {
		var area []Point
		for _, at := range g.cell(s.face).shape {
			area = append(area, at.point())
		}
		p.Glue = append(p.Glue, Glue{Face: s.face, Outside: s.outside, Area: area, Onto: s.onto})
	}
	return p, g.err
}

func (g *Grid) join(p *Pattern, a, b string, e gridEdge) {
	seg := Segment{e.from.point(), e.to.point()}
	j, told := g.joints[pair(a, b)]
	switch {
	case !told:
		p.Creases = append(p.Creases, Crease{seg, 90, Away})
	case j.kind == "slit":
		p.Slits = append(p.Slits, seg)
	case j.kind == "":
		p.Creases = append(p.Creases, Crease{seg, j.angle, j.side})
	}
}

// fullLines drops the blank's own edges from the running totals.
func fullLines(at []measure.Length) []measure.Length { return at[1 : len(at)-1] }

// trace follows the free edges round. Where two meet in one point (a tab's
// wedge ends on a corner) the sharpest right-hand turn keeps to the same
// side of the card.
func (p *Pattern) trace(free map[spot][]gridEdge, first gridEdge) error {
	total := 0
	for _, es := range free {
		total += len(es)
	}
	e, path := first, []spot{}
	for range total {
		path = append(path, e.from)
		next := free[e.to]
		if len(next) == 0 {
			return fmt.Errorf("outline breaks off at %v", e.to.point())
		}
		best := 0
		for i := range next {
			if turn(e, next[i]) > turn(e, next[best]) {
				best = i
			}
		}
		e = next[best]
		if e == first {
			break
		}
	}
	if e != first || len(path) != total {
		return fmt.Errorf("outline is not one piece of card")
	}
	for i, s := range path {
		before, after := path[(i+len(path)-1)%len(path)], path[(i+1)%len(path)]
		in, out := s.point().Sub(before.point()), after.point().Sub(s.point())
		if in.Cross(out) != 0 || in.Dot(out) < 0 {
			p.Outline = append(p.Outline, s.point())
		}
	}
	return nil
}

// turn grows with how far b turns to the right (clockwise) after a.
func turn(a, b gridEdge) float64 {
	u, v := a.to.point().Sub(a.from.point()), b.to.point().Sub(b.from.point())
	return angle(u, v)
}
