package strokes

import (
	"math"
	"slices"

	"brevium/core/pattern"
)

// touch is how near a line's end is to another for the two to meet, in mm: files round.
const touch = 0.02

// piece of a flattened line, and whose it is.
type part struct {
	a, b pattern.Point
	of   int
}

// grid finds what lies near without trying all.
type grid struct {
	cell  float64
	parts map[[2]int][]int
}

func gridOf(parts []part, cell float64) *grid {
	g := &grid{cell, map[[2]int][]int{}}
	for i, p := range parts {
		g.over(p.a, p.b, func(at [2]int) { g.parts[at] = append(g.parts[at], i) })
	}
	return g
}

// over visits the cells of the rectangle about a straight, a little wider.
func (g *grid) over(a, b pattern.Point, do func([2]int)) {
	at := func(v float64) int { return int(math.Floor(v / g.cell)) }
	for x := at(min(a.X, b.X) - touch); x <= at(max(a.X, b.X)+touch); x++ {
		for y := at(min(a.Y, b.Y) - touch); y <= at(max(a.Y, b.Y)+touch); y++ {
			do([2]int{x, y})
		}
	}
}

// pairs visits the pairs of parts that may meet, each once.
func (g *grid) pairs(parts []part, do func(i, j int)) {
	seen := map[[2]int]bool{}
	for i, p := range parts {
		g.over(p.a, p.b, func(at [2]int) {
			for _, j := range g.parts[at] {
				if j < i && !seen[[2]int{i, j}] {
					seen[[2]int{i, j}] = true
					do(i, j)
				}
			}
		})
	}
}

// meet gives where along two parts they touch or cross, as shares of each; none when they do not.
func meet(p, q part) (on [][2]float64) {
	ends := func(o part, at pattern.Point) (float64, bool) {
		d := o.b.Sub(o.a)
		t := max(0, min(1, at.Sub(o.a).Dot(d)/d.Dot(d)))
		return t, o.a.Add(d.Scale(t)).Sub(at).Len() < touch
	}
	for i, at := range []pattern.Point{q.a, q.b} {
		if t, near := ends(p, at); near {
			on = append(on, [2]float64{t, float64(i)})
		}
	}
	for i, at := range []pattern.Point{p.a, p.b} {
		if t, near := ends(q, at); near {
			on = append(on, [2]float64{float64(i), t})
		}
	}
	if len(on) > 0 {
		return on
	}
	d, e := p.b.Sub(p.a), q.b.Sub(q.a)
	across := d.Cross(e)
	if across == 0 {
		return nil
	}
	s, t := q.a.Sub(p.a).Cross(e)/across, q.a.Sub(p.a).Cross(d)/across
	if s < 0 || s > 1 || t < 0 || t > 1 {
		return nil
	}
	return [][2]float64{{s, t}}
}

// group is lines that touch one another: what goes round them, and which of them are part of a ring;
// the others hang on by one end, as slits do.
type group struct {
	lines  []int
	round  []pattern.Point
	ringed map[int]bool
}

// groups parts flattened lines into those that touch, and finds what goes round each.
func groups(flat [][]pattern.Point) []group {
	var parts []part
	for i, l := range flat {
		for k := 1; k < len(l); k++ {
			if l[k].Sub(l[k-1]).Len() > 1e-9 {
				parts = append(parts, part{l[k-1], l[k], i})
			}
		}
	}
	of := make([]int, len(flat))
	for i := range of {
		of[i] = i
	}
	var root func(int) int
	root = func(i int) int {
		if of[i] != i {
			of[i] = root(of[i])
		}
		return of[i]
	}
	splits := make([][]float64, len(parts))
	gridOf(parts, 4).pairs(parts, func(i, j int) {
		for _, m := range meet(parts[i], parts[j]) {
			splits[i], splits[j] = append(splits[i], m[0]), append(splits[j], m[1])
			of[root(parts[i].of)] = root(parts[j].of)
		}
	})
	byRoot := map[int]int{}
	var out []group
	for i := range flat {
		r := root(i)
		k, known := byRoot[r]
		if !known {
			k = len(out)
			byRoot[r] = k
			out = append(out, group{ringed: map[int]bool{}})
		}
		out[k].lines = append(out[k].lines, i)
	}
	pieces := make([][]part, len(out))
	for i, p := range parts {
		k := byRoot[root(p.of)]
		ts := append(splits[i], 0, 1)
		slices.Sort(ts)
		d := p.b.Sub(p.a)
		for n := 1; n < len(ts); n++ {
			if (ts[n]-ts[n-1])*d.Len() > Tolerance {
				pieces[k] = append(pieces[k], part{p.a.Add(d.Scale(ts[n-1])), p.a.Add(d.Scale(ts[n])), p.of})
			}
		}
	}
	for k := range out {
		out[k].goRound(pieces[k])
	}
	return out
}

// goRound finds the outermost way round parts that meet only at their ends; what hangs on by one end
// is no part of it.
func (g *group) goRound(parts []part) {
	nodes := newPlaces(touch)
	type half struct{ from, to, of int }
	var halves []half // an edge and its other way stand beside each other
	known := map[[2]int]bool{}
	for _, p := range parts {
		a, b := nodes.of(p.a), nodes.of(p.b)
		if a != b && !known[[2]int{min(a, b), max(a, b)}] {
			known[[2]int{min(a, b), max(a, b)}] = true
			halves = append(halves, half{a, b, p.of}, half{b, a, p.of})
		}
	}
	leaving := make([][]int, len(nodes.where))
	for i, h := range halves {
		leaving[h.from] = append(leaving[h.from], i)
	}
	gone := make([]bool, len(halves))
	var loose []int
	for k, l := range leaving {
		if len(l) == 1 {
			loose = append(loose, k)
		}
	}
	for len(loose) > 0 {
		k := loose[len(loose)-1]
		loose = loose[:len(loose)-1]
		if len(leaving[k]) != 1 {
			continue
		}
		h := leaving[k][0]
		gone[h], gone[h^1] = true, true
		leaving[k] = nil
		far := halves[h].to
		leaving[far] = slices.DeleteFunc(leaving[far], func(i int) bool { return i == h^1 })
		if len(leaving[far]) == 1 {
			loose = append(loose, far)
		}
	}
	way := func(h int) float64 {
		d := nodes.where[halves[h].to].Sub(nodes.where[halves[h].from])
		return math.Atan2(d.Y, d.X)
	}
	for k := range leaving {
		slices.SortFunc(leaving[k], func(a, b int) int {
			if way(a) < way(b) {
				return -1
			}
			return 1
		})
	}
	next := func(h int) int {
		around := leaving[halves[h].to]
		return around[(slices.Index(around, h^1)+1)%len(around)]
	}
	widest := 0.0
	for h := range halves {
		if gone[h] {
			continue
		}
		var ring []pattern.Point
		for at := h; !gone[at]; at = next(at) {
			gone[at] = true
			ring = append(ring, nodes.where[halves[at].from])
			g.ringed[halves[at].of] = true
		}
		if area := math.Abs(pattern.Area(ring)); area > widest {
			widest, g.round = area, ring
		}
	}
}
