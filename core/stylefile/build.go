package stylefile

import (
	"errors"
	"maps"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// build makes the box of the file at some sizes; what cannot be is said at the first of
// them.
func (m *maker) build(s style.Spec) (*style.Box, error) {
	box, err := m.box(s)
	if err == nil || m.trying {
		return box, err
	}
	if f := fault.Of(err); strings.HasPrefix(f.Field, "pieces") {
		return nil, &fault.Fault{Code: f.Code, Field: "size." + m.parameters[0].ID, Text: "at these sizes it cannot be folded: " + f.Text, Cause: err}
	}
	return box, err
}

func (m *maker) box(s style.Spec) (*style.Box, error) {
	sizes := m.numbers(s)
	for i, n := range m.Needs {
		this, err := m.book[n.This].number(sizes)
		if err != nil {
			return nil, fault.At(fault.Path("needs", i), err)
		}
		most, err := m.book[n.Most].number(sizes)
		if err != nil {
			return nil, fault.At(fault.Path("needs", i), err)
		}
		if this > most+1e-6 {
			return nil, fault.New(fault.OutOfRange, "size."+m.parameters[0].ID, "%s can be at most %s: %s", n.This, n.Most, n.Why)
		}
	}
	box := &style.Box{Shut: shuts[m.Shut]}
	for i, p := range m.made {
		part, err := p.part(s, sizes)
		if err != nil {
			return nil, fault.At(fault.Path("pieces", i), err)
		}
		box.Parts = append(box.Parts, part)
	}
	box.Together = append(box.Together, hand.Fill{Into: box.Parts[0].ID})
	for _, text := range m.Closing {
		box.Together = append(box.Together, hand.Own{Kind: hand.OwnClosing, Text: text})
	}
	var err error
	box.Fits, err = m.pairs(s, sizes)
	return box, err
}

// part builds a piece. What the file names and is not there is a fault of the builder,
// which says so.
func (p made) part(s style.Spec, sizes map[string]float64) (style.Part, error) {
	g, err := p.grid(s, sizes)
	if err != nil {
		return style.Part{}, err
	}
	flat, err := g.Pattern()
	if wrong := (*pattern.Misbuilt)(nil); errors.As(err, &wrong) { // without the line of this code
		err = &fault.Fault{Code: fault.Invalid, Text: wrong.Text, Cause: err}
	}
	if err != nil {
		return style.Part{}, err
	}
	part := style.Part{ID: p.ID, Name: p.Name, Pattern: flat, Root: p.Root, Card: s.Card(p.ID)}
	if text := p.bends(flat); text != "" {
		part.Own = append(part.Own, hand.Own{Kind: hand.OwnFolding, Text: text})
	}
	for _, text := range p.Gluing {
		part.Own = append(part.Own, hand.Own{Kind: hand.OwnGluing, Text: text})
	}
	if err := p.stand(&part, sizes); err != nil {
		return part, err
	}
	return part, closes(part, s)
}

// grid draws a piece's faces and says what is done with them.
func (p made) grid(s style.Spec, sizes map[string]float64) (*pattern.Grid, error) {
	columns, err := p.steps("columns", p.Columns, sizes)
	if err != nil {
		return nil, err
	}
	rows, err := p.steps("rows", p.Rows, sizes)
	if err != nil {
		return nil, err
	}
	g := s.Grid(columns, rows, strings.Join(p.Cells, "\n"))
	if err := p.shape(g, sizes); err != nil {
		return nil, err
	}
	for _, face := range slices.Sorted(maps.Keys(p.Roles)) {
		g.Role(roles[p.Roles[face]], g.Face(face))
	}
	for _, face := range slices.Sorted(maps.Keys(p.Called)) {
		g.Call(g.Face(face), p.Called[face])
	}
	for _, face := range slices.Sorted(maps.Keys(p.Up)) {
		for _, up := range p.Up[face] {
			facings[p.Opens].Raise(g.Builder, g.Face(face), g.Face(up))
		}
	}
	for _, way := range slices.Sorted(maps.Keys(p.Upwards)) {
		for _, face := range p.Upwards[way] {
			g.Upwards(upwards[way], g.Face(face))
		}
	}
	for i, f := range p.Folds {
		angle, err := p.book[f.Angle].number(sizes)
		if err != nil {
			return nil, fault.At(fault.Path("folds", i), err)
		}
		a, b := g.Face(f.Between[0]), g.Face(f.Between[1])
		side := pattern.Away
		if f.Towards {
			side = pattern.Towards
		}
		switch {
		case f.Hinge:
			g.Hinge(a, b, angle, 0)
		case f.Roll:
			g.Roll(a, b, angle, side)
		default:
			g.Fold(a, b, angle, side)
		}
	}
	for i, t := range p.Tabs {
		reach, err := p.book[t.Reach].length(sizes)
		if err != nil {
			return nil, fault.At(fault.Path("tabs", i), err)
		}
		wedge, err := p.book[t.narrower()].length(sizes)
		if err != nil {
			return nil, fault.At(fault.Path("tabs", i), err)
		}
		g.Tab(g.Face(t.Face), g.Face(t.On), reach, wedge)
	}
	for _, x := range p.Slits {
		g.Slit(g.Face(x[0]), g.Face(x[1]))
	}
	for _, x := range p.Glue {
		if x.Over {
			g.Over(g.Face(x.Face), g.Face(x.Onto))
		} else {
			g.Glue(g.Face(x.Face), !x.Inside, g.Face(x.Onto))
		}
	}
	for _, x := range p.Tucks {
		g.Tuck(g.Face(x[0]), g.Face(x[1]))
	}
	for _, x := range p.Laps {
		g.Lap(g.Face(x[0]), g.Face(x[1]))
	}
	for _, x := range p.Within {
		g.Within(g.Face(x[0]), g.Face(x[1]))
	}
	return g, nil
}

// steps works out how wide columns are, or how high rows.
func (p made) steps(field string, all []string, sizes map[string]float64) ([]measure.Length, error) {
	var out []measure.Length
	for i, text := range all {
		l, err := p.book[text].length(sizes)
		if err == nil && l <= 0 {
			err = fault.New(fault.NoRoom, "", "%q comes to nothing; a column or row is more than that", text)
		}
		if err != nil {
			return nil, fault.At(fault.Path(field, i), err)
		}
		out = append(out, l)
	}
	return out, nil
}
