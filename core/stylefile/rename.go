package stylefile

import "slices"

// rename gives what was said of a face another name.
func (t *Table) rename(was, now string) {
	p := t.piece()
	to := func(s *string) {
		if *s == was {
			*s = now
		}
	}
	for i := range p.Divide {
		to(&p.Divide[i].Face)
	}
	for i := range p.Rounds {
		to(&p.Rounds[i].Face)
		to(&p.Rounds[i].On)
	}
	if slices.Contains(p.shares(), was) {
		return // what else is said of the name is said of that part of the face
	}
	to(&p.Root)
	for _, m := range []map[string]string{p.Roles, p.Called} {
		if v, there := m[was]; there {
			delete(m, was)
			m[now] = v
		}
	}
	if all, there := p.Up[was]; there {
		delete(p.Up, was)
		p.Up[now] = all
	}
	for _, faces := range p.Up {
		for i := range faces {
			to(&faces[i])
		}
	}
	for i := range p.Folds {
		to(&p.Folds[i].Between[0])
		to(&p.Folds[i].Between[1])
	}
	for _, pairs := range [][][2]string{p.Slits, p.Tucks, p.Laps, p.Within} {
		for i := range pairs {
			to(&pairs[i][0])
			to(&pairs[i][1])
		}
	}
	for i := range p.Tabs {
		to(&p.Tabs[i].Face)
		to(&p.Tabs[i].On)
	}
	for i := range p.Glue {
		to(&p.Glue[i].Face)
		to(&p.Glue[i].Onto)
	}
	for _, bites := range [][]bite{p.Notches, p.Holes} {
		for i := range bites {
			to(&bites[i].Face)
		}
	}
	for _, faces := range p.Upwards {
		for i := range faces {
			to(&faces[i])
		}
	}
}

// forget lets go of what was said of faces that are no more, and of edges between faces
// that do not touch.
func (t *Table) forget() {
	p := t.piece()
	cells := t.cells()
	p.Divide = slices.DeleteFunc(p.Divide, func(d divide) bool { return !slices.Contains(cells, d.Face) })
	faces := t.Faces()
	gone := func(names ...string) bool {
		return slices.ContainsFunc(names, func(n string) bool { return !slices.Contains(faces, n) })
	}
	apart := func(a, b string) bool { // which parts of a face touch the table does not know
		return slices.Contains(cells, a) && slices.Contains(cells, b) && !slices.ContainsFunc(t.Edges(), func(e Edge) bool { return e.A == a && e.B == b || e.A == b && e.B == a })
	}
	for _, m := range []map[string]string{p.Roles, p.Called} {
		for n := range m {
			if gone(n) {
				delete(m, n)
			}
		}
	}
	pairs := func(all [][2]string, touch bool) [][2]string {
		return slices.DeleteFunc(all, func(x [2]string) bool { return gone(x[0], x[1]) || touch && apart(x[0], x[1]) })
	}
	p.Slits, p.Tucks, p.Laps, p.Within = pairs(p.Slits, true), pairs(p.Tucks, false), pairs(p.Laps, false), pairs(p.Within, false)
	p.Folds = slices.DeleteFunc(p.Folds, func(f fold) bool { return gone(f.Between[0], f.Between[1]) || apart(f.Between[0], f.Between[1]) })
	p.Tabs = slices.DeleteFunc(p.Tabs, func(x tab) bool { return gone(x.Face, x.On) })
	p.Glue = slices.DeleteFunc(p.Glue, func(x glue) bool { return gone(x.Face, x.Onto) })
	p.Rounds = slices.DeleteFunc(p.Rounds, func(x round) bool { return gone(x.Face) || !slices.Contains(cells, x.On) })
	bitten := func(all []bite) []bite {
		return slices.DeleteFunc(all, func(x bite) bool { return gone(x.Face) })
	}
	p.Notches, p.Holes = bitten(p.Notches), bitten(p.Holes)
	for way, all := range p.Upwards {
		p.Upwards[way] = slices.DeleteFunc(all, func(n string) bool { return gone(n) })
	}
	if gone(p.Root) && len(cells) > 0 {
		p.Root = cells[0]
	}
	for root, all := range p.Up {
		if p.Up[root] = slices.DeleteFunc(all, func(n string) bool { return gone(n) }); gone(root) || len(p.Up[root]) == 0 {
			delete(p.Up, root)
		}
	}
}

// shares are the names of the parts of faces that are divided.
func (p *piece) shares() []string {
	var out []string
	for _, d := range p.Divide {
		out = append(out, d.names()...)
	}
	return out
}
