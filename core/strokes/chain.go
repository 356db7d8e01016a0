package strokes

import (
	"math"
	"slices"

	"brevium/core/pattern"
)

// smooth is the most that a line turns where it goes on past a place that others meet in, in radians.
const smooth = 100 * math.Pi / 180

// places numbers points, those within a tolerance of one another alike.
type places struct {
	cell  float64
	at    map[[2]int][]int
	where []pattern.Point
}

func newPlaces(tolerance float64) *places { return &places{cell: tolerance, at: map[[2]int][]int{}} }

func (p *places) of(q pattern.Point) int {
	x, y := int(math.Floor(q.X/p.cell)), int(math.Floor(q.Y/p.cell))
	for dx := -1; dx <= 1; dx++ {
		for dy := -1; dy <= 1; dy++ {
			for _, k := range p.at[[2]int{x + dx, y + dy}] {
				if p.where[k].Sub(q).Len() <= p.cell {
					return k
				}
			}
		}
	}
	p.where = append(p.where, q)
	k := len(p.where) - 1
	p.at[[2]int{x, y}] = append(p.at[[2]int{x, y}], k)
	return k
}

// end is one end of an edge: edge e from its first corner, or from its second.
type end struct {
	e    int
	last bool
}

// away is the way an edge leaves by one of its ends.
func (g edge) away(last bool) pattern.Point {
	chord := g.b.Sub(g.a)
	turn := 2 * math.Atan(g.bulge) // from the chord to the tangent, at either end
	if last {
		chord = g.a.Sub(g.b)
		turn = -turn
	}
	sin, cos := math.Sincos(-turn)
	return pattern.Pt(chord.X*cos-chord.Y*sin, chord.X*sin+chord.Y*cos).Scale(1 / chord.Len())
}

// meeting is an edge's end and the one that a line goes on by.
type meeting map[end]end

// chained puts edges that meet into lines: where two meet they go on; where more do, those that turn
// least.
func chained(edges []edge, tool Tool) []Line {
	nodes := newPlaces(2 * Tolerance)
	at := map[int][]end{}
	for i, e := range edges {
		a, b := nodes.of(e.a), nodes.of(e.b)
		at[a], at[b] = append(at[a], end{i, false}), append(at[b], end{i, true})
	}
	on := meeting{}
	for k := range nodes.where {
		on.pair(edges, at[k])
	}
	used := make([]bool, len(edges))
	var out []Line
	follow := func(from end) {
		l := Line{Tool: tool}
		first, here := from, from
		for {
			e := edges[here.e]
			used[here.e] = true
			start, bulge := e.a, e.bulge
			if here.last {
				start, bulge = e.b, -e.bulge
			}
			l.Path = append(l.Path, pattern.Vertex{Point: start, Bulge: bulge})
			far := end{here.e, !here.last}
			next, goes := on[far]
			if goes && next == first {
				l.Closed = true
				break
			}
			if !goes || used[next.e] {
				stop := e.b
				if here.last {
					stop = e.a
				}
				l.Path = append(l.Path, pattern.Vertex{Point: stop})
				break
			}
			here = next
		}
		out = append(out, l)
	}
	for i := range edges { // lines with ends first, then rings
		for _, last := range []bool{false, true} {
			if _, goes := on[end{i, last}]; !goes && !used[i] {
				follow(end{i, last})
			}
		}
	}
	for i := range edges {
		if !used[i] {
			follow(end{i, false})
		}
	}
	return out
}

// pair joins the ends that meet in one place, those that turn least first.
func (m meeting) pair(edges []edge, ends []end) {
	if len(ends) == 2 {
		m[ends[0]], m[ends[1]] = ends[1], ends[0]
		return
	}
	type couple struct {
		a, b end
		turn float64
	}
	var all []couple
	for i, a := range ends {
		for _, b := range ends[:i] {
			in, out := edges[a.e].away(a.last).Scale(-1), edges[b.e].away(b.last)
			if turn := math.Abs(math.Atan2(in.Cross(out), in.Dot(out))); turn < smooth && a.e != b.e {
				all = append(all, couple{a, b, turn})
			}
		}
	}
	slices.SortStableFunc(all, func(a, b couple) int {
		switch {
		case a.turn < b.turn-1e-9:
			return -1
		case a.turn > b.turn+1e-9:
			return 1
		}
		return 0
	})
	for _, c := range all {
		_, one := m[c.a]
		_, other := m[c.b]
		if !one && !other {
			m[c.a], m[c.b] = c.b, c.a
		}
	}
}
