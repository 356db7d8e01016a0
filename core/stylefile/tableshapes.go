package stylefile

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/pattern"
)

// Shape is how far a tab reaches and how much narrower its end is, as formulas; "" is the
// whole cell.
func (t *Table) Shape(face string) (reach, wedge string) {
	for _, x := range t.piece().Tabs {
		if x.Face == face {
			return x.Reach, x.Wedge
		}
	}
	return "", ""
}

// SetShape shapes a tab: from the face that it was folded from, or the one it is.
func (t *Table) SetShape(face, reach, wedge string) {
	p := t.piece()
	on := ""
	if i := slices.IndexFunc(p.Tabs, func(x tab) bool { return x.Face == face }); i >= 0 {
		on = p.Tabs[i].On
	}
	p.Tabs = slices.DeleteFunc(p.Tabs, func(x tab) bool { return x.Face == face })
	if reach = strings.TrimSpace(reach); reach == "" {
		return
	}
	for _, e := range t.Edges() {
		if on == "" && e.Is != "slit" && (e.A == face || e.B == face) {
			if on = e.A; on == face {
				on = e.B
			}
		}
	}
	if on != "" {
		p.Tabs = append(p.Tabs, tab{Face: face, On: on, Reach: reach, Wedge: strings.TrimSpace(wedge)})
	}
}

// Round is how a face's free end is cut: its corners by a radius, or all of it to an arc
// that rises by so much, as formulas; "" for neither.
type Round struct{ Radius, Rise string }

// Rounded is how a face's free end is cut.
func (t *Table) Rounded(face string) Round {
	for _, x := range t.piece().Rounds {
		if x.Face == face {
			return Round{x.Radius, x.Rise}
		}
	}
	return Round{}
}

// SetRounded cuts the end of a face that is away from the one it was folded from. Where
// both are given it is an arc.
func (t *Table) SetRounded(face string, to Round) {
	p := t.piece()
	to.Radius, to.Rise = strings.TrimSpace(to.Radius), strings.TrimSpace(to.Rise)
	if to.Rise != "" {
		to.Radius = ""
	}
	if to == t.Rounded(face) || !slices.Contains(t.Faces(), face) {
		return
	}
	if i := slices.IndexFunc(p.Rounds, func(x round) bool { return x.Face == face }); i >= 0 {
		if p.Rounds[i].Radius, p.Rounds[i].Rise = to.Radius, to.Rise; to == (Round{}) {
			p.Rounds = slices.Delete(p.Rounds, i, i+1)
		}
		return
	}
	if on := t.neighbour(face); on != "" {
		p.Rounds = append(p.Rounds, round{face, on, to.Radius, to.Rise})
	}
}

// neighbour is the first face that a face is folded from, "" for none.
func (t *Table) neighbour(face string) string {
	for _, e := range t.Edges() {
		if e.Is != "slit" && (e.A == face || e.B == face) {
			if e.A == face {
				return e.B
			}
			return e.A
		}
	}
	return ""
}

// Bite is a half circle out of an edge of a face, or a hole in it: its centre by
// fractions of the face from its top left corner, and its radius, as formulas.
type Bite struct {
	Hole               bool
	Face, X, Y, Radius string
}

// Bites are the notches and then the holes.
func (t *Table) Bites() []Bite {
	var out []Bite
	for _, cut := range t.piece().bites() {
		for _, x := range cut.all {
			out = append(out, Bite{cut.hole, x.Face, x.At[0], x.At[1], x.Radius})
		}
	}
	return out
}

// mostBites is how many notches and holes a table asks for.
const mostBites = 20

// SetBites puts others in their place; one without a radius goes.
func (t *Table) SetBites(all []Bite) {
	p := t.piece()
	p.Notches, p.Holes = nil, nil
	for _, b := range all[:min(len(all), mostBites)] {
		x := bite{b.Face, [2]string{strings.TrimSpace(b.X), strings.TrimSpace(b.Y)}, strings.TrimSpace(b.Radius)}
		switch {
		case x.Radius == "" || !slices.Contains(t.Faces(), b.Face):
		case b.Hole:
			p.Holes = append(p.Holes, x)
		default:
			p.Notches = append(p.Notches, x)
		}
	}
}

// AddBite cuts a hole into the middle of the root, or a notch into the lower edge of a
// face of the last row.
func (t *Table) AddBite(hole bool) {
	b := Bite{hole, t.Root(), "0.5", "0.5", "1/8 in"}
	if grid := t.Grid(); !hole {
		b.Y, b.Radius = "1", "1/4 in"
		for _, n := range grid[len(grid)-1] {
			if parts := t.partsAt(n, bottom); len(parts) > 0 {
				b.Face = parts[0]
				if t.Role(b.Face) != "tab" {
					break
				}
			}
		}
	}
	t.SetBites(append(t.Bites(), b))
}

// The sides of a cell.
const (
	top = iota
	right
	bottom
	left
)

// corners are the corners and the middles of the sides of a face, clockwise from its top
// left corner, by fractions of it.
var corners = []struct {
	label string
	at    [2]string
}{
	{"top left", [2]string{"0", "0"}}, {"middle of the top", [2]string{"0.5", "0"}}, {"top right", [2]string{"1", "0"}}, {"middle of the right", [2]string{"1", "0.5"}},
	{"bottom right", [2]string{"1", "1"}}, {"middle of the bottom", [2]string{"0.5", "1"}}, {"bottom left", [2]string{"0", "1"}}, {"middle of the left", [2]string{"0", "0.5"}},
}

// Points are what a line that divides a face may go between: the corners and middles of
// a whole face, the corners of one that is a part.
func (t *Table) Points(face string) []string {
	if x := t.share(face); x != nil {
		var out []string
		for i := range x.At {
			out = append(out, fmt.Sprintf("corner %d", i+1))
		}
		return out
	}
	if !slices.Contains(t.cells(), face) || t.Parts(face) != nil {
		return nil
	}
	var out []string
	for _, c := range corners {
		out = append(out, c.label)
	}
	return out
}

// Spots are where the points of a face lie on the piece at its usual sizes, in mm from its
// top left corner, in the order of Points; none where its columns or rows come to nothing.
func (t *Table) Spots(face string) []pattern.Point {
	cell, at := face, make([][2]string, 0, len(corners))
	for _, c := range corners {
		at = append(at, c.at)
	}
	if x := t.share(face); x != nil {
		at = x.At
		for _, d := range t.piece().Divide {
			if slices.Contains(d.names(), face) {
				cell = d.Face
			}
		}
	}
	m, err := t.file.maker()
	if err != nil || t.Points(face) == nil {
		return nil
	}
	p := m.made[t.at]
	sizes := m.numbers(m.usual())
	columns, err := p.steps("columns", p.Columns, sizes)
	if err != nil {
		return nil
	}
	rows, err := p.steps("rows", p.Rows, sizes)
	if err != nil {
		return nil
	}
	g := pattern.NewGrid(columns, rows, strings.Join(p.Cells, "\n"))
	var out []pattern.Point
	for _, c := range at {
		if m.book.ready("", m.names, c[:]...) != nil {
			return nil
		}
		f, err := p.point(c, sizes)
		if err != nil {
			return nil
		}
		out = append(out, g.On(g.Face(cell), f))
	}
	return out
}

// Drawn are the faces of the piece as they lie flat at its usual sizes, whether or not it
// folds; none where its columns or rows come to nothing.
func (t *Table) Drawn() []pattern.Drawn {
	m, err := t.file.maker()
	if err != nil {
		return nil
	}
	s := m.usual()
	g, err := m.made[t.at].grid(s, m.numbers(s))
	if err != nil {
		return nil
	}
	return g.Drawn()
}

// names are the names of the parts of a face.
func (d divide) names() []string {
	var out []string
	for _, x := range d.Into {
		out = append(out, x.Name)
	}
	return out
}

// share is the part of a divided face that a name is of, nil for none.
func (t *Table) share(face string) *share {
	for _, d := range t.piece().Divide {
		for i := range d.Into {
			if d.Into[i].Name == face && face != away {
				return &d.Into[i]
			}
		}
	}
	return nil
}

// Parts are the names of the parts of a cell's face that is divided, nil for a whole one;
// "." is one that is cut away.
func (t *Table) Parts(face string) []string {
	for _, d := range t.piece().Divide {
		if d.Face == face {
			return d.names()
		}
	}
	return nil
}

// line finds the two points of a face that a line goes between, in their order.
func (t *Table) line(face, from, to string) (i, k int, err error) {
	points := t.Points(face)
	i, k = slices.Index(points, from), slices.Index(points, to)
	if i > k {
		i, k = k, i
	}
	if i < 0 || i == k {
		return 0, 0, fault.New(fault.Invalid, "", "choose a face and two of its points; the line goes from one to the other")
	}
	return i, k, nil
}

// Divide parts a face by a line between two of its points, as Points names them; where a
// rise is given, a formula, it is an arc, along which the card is cut. It refuses a line on
// an edge, and a face that is full of parts.
func (t *Table) Divide(face, from, to, rise string) error {
	points := t.Points(face)
	i, k, err := t.line(face, from, to)
	if err != nil {
		return err
	}
	p := t.piece()
	outline := make([][2]string, 0, len(points))
	part := t.share(face)
	for n := range points {
		if part != nil {
			outline = append(outline, part.At[n])
		} else {
			outline = append(outline, corners[n].at)
		}
	}
	one, other := outline[i:k+1], slices.Concat(outline[k:], outline[:i+1])
	if part == nil { // of the middles only those that the line goes to
		middle := func(at [2]string) bool {
			return slices.Contains(at[:], "0.5") && at != outline[i] && at != outline[k]
		}
		one, other = slices.DeleteFunc(slices.Clone(one), middle), slices.DeleteFunc(slices.Clone(other), middle)
	}
	least := 3
	if rise = strings.TrimSpace(rise); rise != "" {
		least = 2
	}
	if len(one) < least || len(other) < least {
		return fault.New(fault.Invalid, "", "a line from %s to %s lies on the edge of %s; choose points across it, or let it rise as an arc", from, to, face)
	}
	a, b := share{Name: t.free(face + ".a"), At: one}, share{Name: t.free(face + ".b"), At: other}
	if part != nil {
		for _, x := range part.Arcs { // those of its edges that are there already
			switch e := x.From - 1; {
			case e >= i && e < k:
				a.Arcs = append(a.Arcs, arc{e - i + 1, x.Rise})
			default:
				b.Arcs = append(b.Arcs, arc{(e-k+len(points))%len(points) + 1, x.Rise})
			}
		}
	}
	if rise != "" { // the line is the last edge of both
		a.Arcs, b.Arcs = append(a.Arcs, arc{len(one), rise}), append(b.Arcs, arc{len(other), "-(" + rise + ")"})
	}
	if part == nil {
		p.Divide = append(p.Divide, divide{face, []share{a, b}})
	} else {
		d := slices.IndexFunc(p.Divide, func(d divide) bool {
			return slices.ContainsFunc(d.Into, func(x share) bool { return x.Name == face })
		})
		if len(p.Divide[d].Into) >= mostCorners {
			return fault.New(fault.CountRange, "", "%s has %d parts already", p.Divide[d].Face, mostCorners)
		}
		n := slices.IndexFunc(p.Divide[d].Into, func(x share) bool { return x.Name == face })
		p.Divide[d].Into = slices.Replace(slices.Clone(p.Divide[d].Into), n, n+1, a, b)
	}
	t.inherit(face, a.Name, b.Name)
	t.forget()
	return nil
}

// free is a name that no face has, from one that is wished.
func (t *Table) free(name string) string {
	for slices.Contains(t.Faces(), name) {
		name += "x"
	}
	return name
}

// Whole takes the lines out of a face again.
func (t *Table) Whole(face string) {
	p := t.piece()
	parts := t.Parts(face)
	p.Divide = slices.DeleteFunc(p.Divide, func(d divide) bool { return d.Face == face })
	for _, part := range parts {
		if part != away {
			p.alone(part)
			t.inherit(part, face)
		}
	}
	t.forget()
}

// Divided are the cells' faces that are parted.
func (t *Table) Divided() []string {
	var out []string
	for _, d := range t.piece().Divide {
		out = append(out, d.Face)
	}
	return out
}

// partsAt are the faces of a cell that lie on one of its sides: its parts, or itself.
func (t *Table) partsAt(face string, side int) []string {
	if face == "" {
		return nil
	}
	lies := func(at [2]string) bool {
		return [4]bool{at[1] == "0", at[0] == "1", at[1] == "1", at[0] == "0"}[side]
	}
	for _, d := range t.piece().Divide {
		if d.Face != face {
			continue
		}
		var out []string
		for _, x := range d.Into {
			for i, at := range x.At {
				if x.Name != away && lies(at) && lies(x.At[(i+1)%len(x.At)]) {
					out = append(out, x.Name)
					break
				}
			}
		}
		return out
	}
	return []string{face}
}

// meets reports whether two parts of a face have an edge in common, told alike, and
// whether it is an arc.
func (x share) meets(y share) (meet, along bool) {
	for i := range x.At {
		a, b := x.At[i], x.At[(i+1)%len(x.At)]
		for k := range y.At {
			if y.At[k] == b && y.At[(k+1)%len(y.At)] == a {
				return true, slices.ContainsFunc(x.Arcs, func(c arc) bool { return c.From == i+1 })
			}
		}
	}
	return false, false
}

// RenamePart calls a part of a divided face otherwise, counted as Parts gives them; one
// without a name is cut away.
func (t *Table) RenamePart(face string, n int, now string) {
	d := slices.IndexFunc(t.piece().Divide, func(d divide) bool { return d.Face == face })
	if d < 0 || n >= len(t.piece().Divide[d].Into) {
		return
	}
	x := &t.piece().Divide[d].Into[n]
	now = strings.Join(strings.Fields(strings.ToLower(now)), "-")
	switch was := x.Name; {
	case was == now || now == "" && was == away:
		return
	case now == "" || now == away:
		x.Name = away
		if left := slices.DeleteFunc(t.Parts(face), func(n string) bool { return n == away }); len(left) > 0 {
			t.inherit(was, left...)
			if len(left) == 1 {
				t.piece().alone(left[0])
			}
		}
		t.forget()
		return
	case len(now) > 40 || slices.Contains(t.Faces(), now) || slices.Contains(t.cells(), now):
		return
	case was == away:
		x.Name = now
		return
	}
	was := x.Name
	divided := slices.Clone(t.piece().Divide)
	x.Name = now
	t.rename(was, now)
	for i, d := range divided { // the cell keeps its name
		t.piece().Divide[i].Face = d.Face
	}
}
