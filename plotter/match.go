package plotter

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"brevium/core/pattern"
)

// matcher finds the plan's pieces among what came off.
type matcher struct {
	cuts, scores *nearby
	through      []made
	plan         []Piece
	turns        [][4]*Piece
	copies       map[string]int
	placed       []*Piece
}

func (m *matcher) turn() {
	for i := range m.plan {
		var t [4]*Piece
		for q := range t {
			t[q] = m.plan[i].turned(q)
		}
		m.turns = append(m.turns, t)
	}
}

// match finds the piece and the turn that a region is; nil when it is none of them.
func (m *matcher) match(g *region) (*FreePiece, *Piece) {
	const like = 1.2 // mm that sides may differ for a piece to be looked at
	w, h := float64(g.hi[0]-g.lo[0])*cell, float64(g.hi[1]-g.lo[1])*cell
	var best *FreePiece
	var where *Piece
	for i := range m.plan {
		p := &m.plan[i]
		if p.Copies > 0 && m.copies[p.Name] >= p.Copies {
			continue
		}
		for _, t := range m.turns[i] {
			lo, hi := pattern.Bounds(t.Outline)
			if math.Abs(hi.X-lo.X-w) > like || math.Abs(hi.Y-lo.Y-h) > like || math.Abs(g.area()-p.area()) > 0.03*p.area()+0.2*p.lengthOf() {
				continue
			}
			at := t.turned(0)
			mid := pattern.Pt(float64(g.lo[0]+g.hi[0]), float64(g.lo[1]+g.hi[1])).Scale(cell / 2)
			off := mid.Sub(lo.Add(hi).Scale(0.5))
			at.moved(func(p pattern.Point) pattern.Point { return p.Add(off) })
			found := m.compare(at)
			found.Piece, found.Sheet, found.Area = p.Name, 1, hundredth(g.area())
			if better(found, best) {
				best, where = found, at
			}
		}
	}
	if best == nil || best.Deviation > 3 {
		return nil, nil
	}
	m.copies[best.Piece]++
	best.Copy = m.copies[best.Piece]
	best.Outline = where.Outline
	return best, where
}

func better(a, b *FreePiece) bool {
	if b == nil || a.True() != b.True() {
		return b == nil || a.True()
	}
	if math.Abs(a.Deviation-b.Deviation) > near/2 {
		return a.Deviation < b.Deviation
	}
	return a.SlitsMissing+a.CreasesMissing < b.SlitsMissing+b.CreasesMissing
}

// compare lays a piece where it lies best and says how far it is from what was cut.
func (m *matcher) compare(at *Piece) *FreePiece {
	const reach, step = 2, 0.5
	for range 3 {
		at.moved(m.settle(sampled(ring(at.Outline), step), reach))
	}
	out := &FreePiece{}
	for _, p := range sampled(ring(at.Outline), step) {
		out.Deviation = max(out.Deviation, m.cuts.to(p, reach).far)
	}
	missing := func(lines *nearby, way []pattern.Point) int {
		for _, p := range sampled(way, step) {
			if lines.to(p, reach).far > near {
				return 1
			}
		}
		return 0
	}
	for _, s := range at.Slits {
		out.SlitsMissing += missing(m.cuts, s)
	}
	for _, h := range at.Holes {
		out.SlitsMissing += missing(m.cuts, ring(h))
	}
	for _, c := range at.Creases {
		out.CreasesMissing += missing(m.scores, []pattern.Point{c.A, c.B})
	}
	out.Deviation = max(out.Deviation, m.besides(at))
	out.Deviation = math.Round(out.Deviation*1e4) / 1e4
	return out
}

// besides is how far what is cut inside a piece is from any line of it: a cut that the plan has not.
func (m *matcher) besides(at *Piece) float64 {
	lines := newNear(2)
	lines.add(ring(at.Outline))
	for _, h := range at.Holes {
		lines.add(ring(h))
	}
	for _, s := range at.Slits {
		lines.add(s)
	}
	lo, hi := pattern.Bounds(at.Outline)
	worst := 0.0
	for _, c := range m.through {
		for _, p := range sampled(c.tip, 0.5) {
			if p.X <= lo.X || p.Y <= lo.Y || p.X >= hi.X || p.Y >= hi.Y {
				continue
			}
			if far := lines.to(p, 2).far; far > max(worst, near) && pattern.Contains(at.Outline, p) && !inHole(at, p) {
				worst = far
			}
		}
	}
	return worst
}

func inHole(p *Piece, at pattern.Point) bool {
	for _, h := range p.Holes {
		if pattern.Contains(h, at) {
			return true
		}
	}
	return false
}

// settle is the small move and turn that lays points best on what was cut: least squares of how far
// they are across the lines there, without those that are too far off to belong.
func (m *matcher) settle(points []pattern.Point, reach float64) func(pattern.Point) pattern.Point {
	var mid pattern.Point
	for _, p := range points {
		mid = mid.Add(p.Scale(1 / float64(len(points))))
	}
	var a [3][4]float64
	for _, p := range points {
		h := m.cuts.to(p, reach)
		if h.far >= 0.6 || h.along.Len() == 0 {
			continue
		}
		n := pattern.Pt(-h.along.Y, h.along.X).Scale(1 / h.along.Len())
		q := p.Sub(mid)
		row := [4]float64{n.X, n.Y, q.Cross(n), h.way.Dot(n)}
		for i := range 3 {
			for k := range 4 {
				a[i][k] += row[i] * row[k]
			}
		}
	}
	move, ok := solve3(a)
	if !ok {
		return func(p pattern.Point) pattern.Point { return p }
	}
	sin, cos := math.Sincos(move[2])
	return func(p pattern.Point) pattern.Point {
		q := p.Sub(mid)
		return mid.Add(pattern.Pt(q.X*cos-q.Y*sin+move[0], q.X*sin+q.Y*cos+move[1]))
	}
}

// solve3 solves three equations.
func solve3(a [3][4]float64) (x [3]float64, ok bool) {
	left, right := mat.NewDense(3, 3, nil), mat.NewVecDense(3, nil)
	for i := range 3 {
		left.SetRow(i, a[i][:3])
		right.SetVec(i, a[i][3])
	}
	var out mat.VecDense
	if out.SolveVec(left, right) != nil {
		return x, false
	}
	return [3]float64(out.RawVector().Data), true
}

// stray counts the strokes that cut something that is no line of a true piece.
func (m *matcher) stray() int {
	lines := newNear(2)
	for _, p := range m.placed {
		lines.add(ring(p.Outline))
		for _, h := range p.Holes {
			lines.add(ring(h))
		}
		for _, s := range p.Slits {
			lines.add(s)
		}
	}
	n := 0
	for _, c := range m.through {
		for _, p := range sampled(c.tip, 0.5) {
			if lines.to(p, 2).far > 1.5*near {
				n++
				break
			}
		}
	}
	return n
}
