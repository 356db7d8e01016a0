package pattern

import (
	"fmt"
	"math"
	"slices"
	"sync"
)

// Tolerance, in mm: points nearer than this are one point. It is far below
// what a hand can cut and far above what arithmetic loses.
const Tolerance = 1e-6

// Face is a part of the card bounded by outline, creases and slits. Edge i
// of Polygon runs from point i to point i+1.
type Face struct {
	Name    string
	Words   string
	Role    Role
	Up      Point
	Polygon []Point
	Holes   [][]Point
	edges   []faceEdge
}

// faceEdge says what lies across an edge: the neighbouring face, or −1, and
// the crease between, or −1 where nothing folds.
type faceEdge struct{ neighbour, crease int }

// Faces divides the piece into its faces: a planar subdivision by outline,
// creases, slits and holes, cut where they meet (within Tolerance), traced
// half-edge by half-edge. Faces take their name and role from the mark that
// lies in them. It reports lines that are too short to be real, a mark that
// lies in no face, and two marks in one face.
func (p *Pattern) Faces() ([]Face, error) {
	if p.parted == nil {
		return p.divide()
	}
	return p.parted.of(p)
}

// parted keeps the faces of a pattern and of its copies, as long as their lines and marks are
// the same: it is asked for them again and again while a box is sized and looked over.
type parted struct {
	mu    sync.Mutex
	by    lines
	faces []Face
	err   error
}

// lines are what faces come from; two patterns that share them have the same faces.
type lines struct {
	outline                            *Vertex
	creases                            *Crease
	slits                              *Slit
	holes                              *Loop
	marks                              *Mark
	corners, folds, cuts, rings, names int
}

func (p *Pattern) lines() lines {
	return lines{
		first(p.Outline), first(p.Creases), first(p.Slits), first(p.Holes), first(p.Marks),
		len(p.Outline), len(p.Creases), len(p.Slits), len(p.Holes), len(p.Marks),
	}
}

// first is where a list lies.
func first[T any](list []T) *T {
	if len(list) == 0 {
		return nil
	}
	return &list[0]
}

// of gives the faces of a pattern, as new ones that may be changed.
func (k *parted) of(p *Pattern) ([]Face, error) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if by := p.lines(); k.by != by {
		k.faces, k.err = p.divide()
		k.by = by
	}
	return slices.Clone(k.faces), k.err
}

// divide works the faces out.
func (p *Pattern) divide() ([]Face, error) {
	s := subdivision{index: map[[2]int64]int{}}
	cuts := p.Cuts()
	if Crosses(cuts[0]) {
		return nil, fmt.Errorf("the outline crosses itself")
	}
	for _, loop := range cuts {
		s.loop(loop)
	}
	for i, c := range p.Creases {
		s.line(c.Segment, i)
	}
	for _, c := range p.Slits {
		way := c.Path().Open()
		for i := range way[1:] {
			s.line(Segment{way[i], way[i+1]}, -1)
		}
	}
	if s.err != nil {
		return nil, s.err
	}
	s.split()
	faces := s.trace(cuts[1:])
	for _, m := range p.Marks {
		i := slices.IndexFunc(faces, func(f Face) bool { return f.contains(m.At) })
		if i < 0 {
			return nil, fmt.Errorf("no face at the mark %q", m.Name)
		}
		if faces[i].Name != "" {
			return nil, fmt.Errorf("the marks %q and %q lie in one face", faces[i].Name, m.Name)
		}
		faces[i].Name, faces[i].Words, faces[i].Role, faces[i].Up = m.Name, m.Words, m.Role, m.Up
	}
	return faces, nil
}

// Plain is what a person calls the face.
func (f *Face) Plain() string { return plain(f.Name, f.Words) }

// Area is the face's area without its holes, in mm².
func (f *Face) Area() float64 {
	a := Area(f.Polygon)
	for _, h := range f.Holes {
		a -= math.Abs(Area(h))
	}
	return a
}

func (f *Face) contains(at Point) bool {
	if !Contains(f.Polygon, at) {
		return false
	}
	return !slices.ContainsFunc(f.Holes, func(h []Point) bool { return Contains(h, at) })
}

// subdivision is a planar graph in the making.
type subdivision struct {
	points []Point
	index  map[[2]int64]int
	lines  []graphLine
	err    error
}

type graphLine struct {
	a, b   int
	crease int // −1 where nothing folds
}

// point finds or adds a vertex, taking those within Tolerance as one.
func (s *subdivision) point(p Point) int {
	const cell = 16 * Tolerance
	kx, ky := int64(math.Floor(p.X/cell)), int64(math.Floor(p.Y/cell))
	for dx := int64(-1); dx <= 1; dx++ {
		for dy := int64(-1); dy <= 1; dy++ {
			if i, ok := s.index[[2]int64{kx + dx, ky + dy}]; ok && s.points[i].Sub(p).Len() < 16*Tolerance {
				return i
			}
		}
	}
	s.points = append(s.points, p)
	s.index[[2]int64{kx, ky}] = len(s.points) - 1
	return len(s.points) - 1
}

func (s *subdivision) line(seg Segment, crease int) {
	a, b := s.point(seg.A), s.point(seg.B)
	if a == b {
		s.err = fmt.Errorf("the line at (%.3f, %.3f) mm has no length", seg.A.X, seg.A.Y)
		return
	}
	s.lines = append(s.lines, graphLine{a, b, crease})
}

func (s *subdivision) loop(polygon []Point) {
	for i, p := range polygon {
		s.line(Segment{p, polygon[(i+1)%len(polygon)]}, -1)
	}
}

// split cuts every line where another meets or crosses it, and drops
// doubles, a crease giving way to a cut.
func (s *subdivision) split() {
	on := make([][]int, len(s.lines))
	for i := range s.lines {
		for j := i + 1; j < len(s.lines); j++ {
			s.meet(i, j, on)
		}
	}
	seen := map[[2]int]int{}
	var out []graphLine
	for i, l := range s.lines {
		a, b := s.points[l.a], s.points[l.b]
		stops := append([]int{l.a, l.b}, on[i]...)
		d := b.Sub(a)
		slices.SortFunc(stops, func(m, n int) int {
			return cmpFloat(s.points[m].Sub(a).Dot(d), s.points[n].Sub(a).Dot(d))
		})
		stops = slices.Compact(stops)
		for k := 1; k < len(stops); k++ {
			key := [2]int{min(stops[k-1], stops[k]), max(stops[k-1], stops[k])}
			if at, double := seen[key]; double {
				if l.crease < 0 {
					out[at].crease = -1
				}
				continue
			}
			seen[key] = len(out)
			out = append(out, graphLine{stops[k-1], stops[k], l.crease})
		}
	}
	s.lines = out
}

func cmpFloat(a, b float64) int {
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}

// meet records the vertices at which lines i and j touch or cross.
func (s *subdivision) meet(i, j int, on [][]int) {
	li, lj := s.lines[i], s.lines[j]
	a, b, c, d := s.points[li.a], s.points[li.b], s.points[lj.a], s.points[lj.b]
	if max(a.X, b.X) < min(c.X, d.X)-Tolerance || max(c.X, d.X) < min(a.X, b.X)-Tolerance ||
		max(a.Y, b.Y) < min(c.Y, d.Y)-Tolerance || max(c.Y, d.Y) < min(a.Y, b.Y)-Tolerance {
		return
	}
	for _, v := range []int{lj.a, lj.b} {
		if v != li.a && v != li.b && nearLine(s.points[v], a, b) {
			on[i] = append(on[i], v)
		}
	}
	for _, v := range []int{li.a, li.b} {
		if v != lj.a && v != lj.b && nearLine(s.points[v], c, d) {
			on[j] = append(on[j], v)
		}
	}
	u, w := b.Sub(a), d.Sub(c)
	det := u.Cross(w)
	if math.Abs(det) < 1e-12*u.Len()*w.Len() {
		return
	}
	t, r := c.Sub(a).Cross(w)/det, c.Sub(a).Cross(u)/det
	if t <= 0 || t >= 1 || r <= 0 || r >= 1 {
		return
	}
	v := s.point(a.Add(u.Scale(t)))
	if v != li.a && v != li.b {
		on[i] = append(on[i], v)
	}
	if v != lj.a && v != lj.b {
		on[j] = append(on[j], v)
	}
}

// nearLine reports whether p lies on the segment from a to b.
func nearLine(p, a, b Point) bool {
	d := b.Sub(a)
	t := p.Sub(a).Dot(d) / d.Dot(d)
	return t > 0 && t < 1 && p.Sub(a.Add(d.Scale(t))).Len() < Tolerance
}

// angle is the turn from u to v in (−π, π], clockwise as seen positive.
func angle(u, v Point) float64 { return math.Atan2(u.Cross(v), u.Dot(v)) }

// trace walks each half-edge keeping the face on its right (clockwise as
// seen). A walk with positive area bounds a face; one with negative area is
// the outer bound of a connected part, which is a hole in the face around it.
func (s *subdivision) trace(holes [][]Point) []Face {
	type half struct{ from, to, crease int }
	halves := make([]half, 0, 2*len(s.lines))
	for _, l := range s.lines {
		halves = append(halves, half{l.a, l.b, l.crease}, half{l.b, l.a, l.crease})
	}
	leaving := make([][]int, len(s.points))
	for i, h := range halves {
		leaving[h.from] = append(leaving[h.from], i)
	}
	next := func(i int) int {
		h := halves[i]
		in := s.points[h.to].Sub(s.points[h.from])
		best, turn := i^1, -math.Pi // turning back is the last resort
		for _, j := range leaving[h.to] {
			if j == i^1 {
				continue
			}
			if t := angle(in, s.points[halves[j].to].Sub(s.points[h.to])); t > turn {
				best, turn = j, t
			}
		}
		return best
	}
	owner := make([]int, len(halves))
	for i := range owner {
		owner[i] = -1
	}
	var faces []Face
	var walks [][]int
	var outer [][]Point
	for i := range halves {
		if owner[i] != -1 {
			continue
		}
		var walk []int
		var polygon []Point
		for j := i; owner[j] == -1; j = next(j) {
			owner[j] = -2
			walk = append(walk, j)
			polygon = append(polygon, s.points[halves[j].from])
		}
		if Area(polygon) <= Tolerance {
			outer = append(outer, polygon)
			continue
		}
		inside := inner(polygon)
		if slices.ContainsFunc(holes, func(h []Point) bool { return Contains(h, inside) }) {
			continue
		}
		for _, j := range walk {
			owner[j] = len(faces)
		}
		faces = append(faces, Face{Polygon: polygon})
		walks = append(walks, walk)
	}
	for f, walk := range walks {
		for _, j := range walk {
			faces[f].edges = append(faces[f].edges, faceEdge{max(owner[j^1], -1), halves[j].crease})
		}
	}
	nest(faces, outer)
	return faces
}

// nest gives each outer bound to the smallest face that holds it.
func nest(faces []Face, outer [][]Point) {
	for _, bound := range outer {
		best := -1
		for i := range faces {
			// A bound lies in a face when none of its points is a corner of it.
			if !slices.Contains(faces[i].Polygon, bound[0]) && Contains(faces[i].Polygon, bound[0]) &&
				(best < 0 || Area(faces[i].Polygon) < Area(faces[best].Polygon)) {
				best = i
			}
		}
		if best >= 0 {
			faces[best].Holes = append(faces[best].Holes, bound)
		}
	}
}

// Between are the creases between a face of one kind and a face of another, by their names.
func (p *Pattern) Between(one, other func(name string) bool) ([]Segment, error) {
	faces, err := p.Faces()
	var out []Segment
	for _, f := range faces {
		for _, e := range f.edges {
			if e.crease >= 0 && e.neighbour >= 0 && one(f.Name) && other(faces[e.neighbour].Name) {
				out = append(out, p.Creases[e.crease].Segment)
			}
		}
	}
	return out, err
}

// Inside is a point of the face, close beside its longest edge.
func (f Face) Inside() Point { return inner(f.Polygon) }

// nearEdge is how far inside a polygon, in mm, inner looks: nearer to the edge
// than any hole may come.
const nearEdge = 0.01

// inner finds a point strictly inside a simple polygon and outside the holes
// that lie in it: close beside the middle of its longest edge.
func inner(polygon []Point) Point {
	best, length := 0, 0.0
	for i, a := range polygon {
		if l := polygon[(i+1)%len(polygon)].Sub(a).Len(); l > length {
			best, length = i, l
		}
	}
	a := polygon[best]
	d := polygon[(best+1)%len(polygon)].Sub(a)
	right := Point{-d.Y, d.X}.Scale(1 / d.Len())
	step := min(length/4, nearEdge)
	for range 40 {
		if at := a.Add(d.Scale(0.5)).Add(right.Scale(step)); Contains(polygon, at) {
			return at
		}
		step /= 2
	}
	return a.Add(d.Scale(0.5))
}
