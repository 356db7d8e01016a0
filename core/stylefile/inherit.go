package stylefile

import (
	"slices"
	"strings"
)

// inherit says of the parts of a face what was said of it: each is folded, slit and glued
// as it was; what went to it goes to the part on its side.
func (t *Table) inherit(face string, parts ...string) {
	p := t.piece()
	cell := face
	for _, d := range p.Divide {
		if slices.Contains(d.names(), parts[0]) {
			cell = d.Face
		}
	}
	for i, part := range parts {
		if role, there := p.Roles[face]; there && p.Roles[part] == "" {
			p.Roles[part] = role
		}
		if words, there := p.Called[face]; there && p.Called[part] == "" {
			if p.Called[part] = words; len(parts) > 1 {
				p.Called[part] += " " + string(rune('a'+i))
			}
		}
	}
	touch := func(a, b string) bool {
		return slices.ContainsFunc(t.Edges(), func(e Edge) bool { return e.A == a && e.B == b || e.A == b && e.B == a })
	}
	for _, f := range slices.Clone(p.Folds) {
		for i, name := range f.Between {
			for _, part := range parts {
				other := f.Between[1-i]
				said := slices.ContainsFunc(p.Folds, func(f fold) bool { return f.Between == [2]string{part, other} || f.Between == [2]string{other, part} })
				if name == face && !said && touch(part, other) {
					p.Folds = append(p.Folds, fold{Between: [2]string{part, other}, Angle: f.Angle, Towards: f.Towards, Hinge: f.Hinge, Roll: f.Roll})
				}
			}
		}
	}
	for _, x := range slices.Clone(p.Slits) {
		for i, name := range x {
			for _, part := range parts {
				if name == face && touch(part, x[1-i]) {
					p.Slits = append(p.Slits, [2]string{part, x[1-i]})
				}
			}
		}
	}
	for _, g := range slices.Clone(p.Glue) {
		for _, part := range parts {
			if g.Face == face && !slices.ContainsFunc(p.Glue, func(g glue) bool { return g.Face == part }) {
				p.Glue = append(p.Glue, glue{Face: part, Onto: g.Onto, Inside: g.Inside, Over: g.Over})
			}
		}
	}
	for i := range p.Glue {
		p.Glue[i].Onto = t.nearest(p.Glue[i].Face, p.Glue[i].Onto, face, cell, parts)
	}
	for _, all := range [][][2]string{p.Tucks, p.Laps, p.Within} {
		for i := range all {
			all[i][1] = t.nearest(all[i][0], all[i][1], face, cell, parts)
			if all[i][0] == face {
				all[i][0] = parts[0]
			}
		}
	}
	for i := range p.Tabs { // all parts of a cell lie at the same columns and rows
		if p.Tabs[i].On == face {
			p.Tabs[i].On = parts[0]
		}
	}
	for from, all := range p.Up {
		if slices.Contains(all, face) {
			p.Up[from] = append(all, parts...)
		}
	}
	if p.Root == face {
		p.Root = parts[0]
	}
}

// nearest is where something goes that went onto a face: to the part of it that lies on its
// own side of the cell.
func (t *Table) nearest(from, onto, face, cell string, parts []string) string {
	if onto != face {
		return onto
	}
	grid := t.Grid()
	at := func(r, c int) string {
		if r < 0 || c < 0 || r >= len(grid) || c >= len(grid[r]) {
			return ""
		}
		return grid[r][c]
	}
	for r, row := range grid {
		for c, name := range row {
			if name != cell {
				continue
			}
			for side, next := range map[int]string{top: at(r-1, c), right: at(r, c+1), bottom: at(r+1, c), left: at(r, c-1)} {
				if next != from {
					continue
				}
				for _, part := range t.partsAt(cell, side) {
					if slices.Contains(parts, part) {
						return part
					}
				}
			}
		}
	}
	return parts[0]
}

// alone gives the one part that is left of a face the words of the whole face again.
func (p *piece) alone(part string) {
	for n := range mostCorners { // as many as inherit gives letters to
		if words, cut := strings.CutSuffix(p.Called[part], " "+string(rune('a'+n))); cut {
			p.Called[part] = words
			return
		}
	}
}
