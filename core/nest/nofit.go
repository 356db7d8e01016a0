package nest

import (
	"math"
	"slices"
	"sync/atomic"

	"brevium/core/pattern"
)

// shape is a piece in one of its turns, the top left of its bounds at 0, 0.
type shape struct {
	id            int // alike shapes have one
	piece, turn   int
	outline       []point
	holes         [][]point
	parts         [][]point
	width, height float64
	area          float64
	edges         []edge
	round         float64 // how long all edges are
}

// edge is a straight of an outline and its way, for how much of two outlines touches.
type edge struct {
	a, b, way point
	long      float64
}

// line is a straight that a piece's top left may lie on.
type line struct{ a, b point }

// noFit is where the top left of one shape may not lie, measured from that of another: strictly inside
// of any of the sums. Its border is where it touches.
type noFit struct {
	sums   []convex
	border []line
	lo, hi point
}

// fits keeps the no-fits of pairs of shapes, by their ids.
type fits struct {
	gap  []point // a polygon about a circle of the gap; nil for none
	ids  int
	kept []atomic.Pointer[noFit]
	sums atomic.Int64 // in those that are kept
}

// mostKept is how many sums are kept, about 200 MB of them; what goes over is worked out anew.
const mostKept = 500_000

// newFits has room for shapes with ids below a number.
func newFits(gap float64, ids int) *fits {
	return &fits{gap: round16(gap), ids: ids, kept: make([]atomic.Pointer[noFit], ids*ids)}
}

// round16 is a polygon of sixteen sides about a circle.
func round16(radius float64) []point {
	if radius <= 0 {
		return nil
	}
	var out []point
	r := radius / math.Cos(math.Pi/16)
	for i := range 16 {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / 16)
		out = append(out, pattern.Pt(r*cos, r*sin))
	}
	return out
}

// of is where b may not lie about a. Each edge of each sum of their parts is on the border where it is
// strictly inside no other: exact fits stay, as lines and as points.
func (f *fits) of(a, b *shape) *noFit {
	at := &f.kept[a.id*f.ids+b.id]
	n := at.Load()
	if n == nil {
		n = noFitOf(a.parts, b, f.gap)
		if f.sums.Add(int64(len(n.sums))) < mostKept {
			at.Store(n)
		}
	}
	return n
}

func noFitOf(about [][]point, b *shape, gap []point) *noFit {
	n := &noFit{}
	for _, p := range about {
		for _, q := range b.parts {
			sum := minkowski(p, negated(q))
			if gap != nil {
				sum = minkowski(sum, gap)
			}
			n.sums = append(n.sums, newConvex(sum))
		}
	}
	n.lo, n.hi = n.sums[0].lo, n.sums[0].hi
	for _, c := range n.sums {
		n.lo = pattern.Pt(min(n.lo.X, c.lo.X), min(n.lo.Y, c.lo.Y))
		n.hi = pattern.Pt(max(n.hi.X, c.hi.X), max(n.hi.Y, c.hi.Y))
	}
	for i, c := range n.sums {
		for k, from := range c.points {
			l := line{from, c.points[(k+1)%len(c.points)]}
			n.border = n.outside(n.border, l, i)
		}
	}
	n.border = distinct(n.border)
	return n
}

// outside adds to lines what of a line is strictly inside no sum, but for one that is left out.
func (n *noFit) outside(to []line, l line, but int) []line {
	var cut [][2]float64
	for i := range n.sums {
		if i == but {
			continue
		}
		if from, end, in := n.sums[i].within(l.a, l.b); in {
			if from <= 0 && end >= 1 {
				return to
			}
			cut = append(cut, [2]float64{from, end})
		}
	}
	return without(to, l, cut)
}

// without adds to lines what of a line is left between the shares that are cut out of it.
func without(to []line, l line, cut [][2]float64) []line {
	if len(cut) == 0 {
		return append(to, l)
	}
	slices.SortFunc(cut, func(a, b [2]float64) int {
		if a[0] < b[0] {
			return -1
		}
		return 1
	})
	d := l.b.Sub(l.a)
	at := 0.0
	for _, c := range cut {
		if c[0] > at {
			to = append(to, line{l.a.Add(d.Scale(at)), l.a.Add(d.Scale(c[0]))})
		}
		at = max(at, c[1])
	}
	if at < 1 {
		to = append(to, line{l.a.Add(d.Scale(at)), l.b})
	}
	return to
}

// distinct leaves out lines that are there already.
func distinct(lines []line) []line {
	seen := map[[4]int64]bool{}
	return slices.DeleteFunc(lines, func(l line) bool {
		key := [4]int64{cell(l.a.X), cell(l.a.Y), cell(l.b.X), cell(l.b.Y)}
		if key[0] > key[2] || key[0] == key[2] && key[1] > key[3] {
			key = [4]int64{key[2], key[3], key[0], key[1]}
		}
		was := seen[key]
		seen[key] = true
		return was
	})
}

func cell(v float64) int64 { return int64(math.Round(v / (5 * inside))) }
