package pattern

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"
)

// pull gives where a point in space lies on the flat pattern of a face that
// is posed so, and how far it is off the face's plane.
func (p Pose) pull(v r3.Vec) (Point, float64) {
	back := p.Turn
	back.Imag, back.Jmag, back.Kmag = -back.Imag, -back.Jmag, -back.Kmag
	flat := back.Rotate(r3.Sub(v, p.Shift))
	return Point{flat.X, -flat.Y}, flat.Z
}

// Overlap is the area, in mm², over which two faces that lie on one plane
// cover each other; 0 when they lie on different planes. It is sampled on a
// grid of two millimetres, finer for small faces and coarser for large ones.
func (f *Folded) Overlap(i, j int) float64 { return f.OverlapOf(f.Faces[i].Polygon, i, j) }

// covers reports whether two faces on one plane cover each other over a
// square millimetre or more, sampled coarsely: enough to count layers.
func (f *Folded) covers(i, j int) bool {
	lo, hi := Bounds(f.Faces[i].Polygon)
	const n = 12
	step := Point{(hi.X - lo.X) / n, (hi.Y - lo.Y) / n}
	hits := 0.0
	for a := range n {
		for b := range n {
			at := Point{lo.X + (float64(a)+0.5)*step.X, lo.Y + (float64(b)+0.5)*step.Y}
			on, off := f.Poses[j].pull(f.Poses[i].Place(at))
			if math.Abs(off) < 0.05 && Contains(f.Faces[j].Polygon, on) && Contains(f.Faces[i].Polygon, at) {
				if hits++; hits*step.X*step.Y >= 1 {
					return true
				}
			}
		}
	}
	return false
}

// OverlapOf is Overlap for a part of face i, given on its flat pattern.
func (f *Folded) OverlapOf(area []Point, i, j int) float64 {
	lo, hi := Bounds(area)
	count := func(size float64) int { return int(min(60, max(12, size/2))) }
	nx, ny := count(hi.X-lo.X), count(hi.Y-lo.Y)
	step := Point{(hi.X - lo.X) / float64(nx), (hi.Y - lo.Y) / float64(ny)}
	hits := 0
	for a := range nx {
		for b := range ny {
			at := Point{lo.X + (float64(a)+0.5)*step.X, lo.Y + (float64(b)+0.5)*step.Y}
			if !Contains(area, at) {
				continue
			}
			on, off := f.Poses[j].pull(f.Poses[i].Place(at))
			if math.Abs(off) < 0.05 && f.Faces[j].contains(on) {
				hits++
			}
		}
	}
	return float64(hits) * step.X * step.Y
}

// touch is how far, in mm, one face must stick through another to collide.
const touch = 0.2

// Collisions lists pairs of faces that pass through each other: each has
// card on both sides of the other's plane, and they share a stretch of the
// line in which the planes meet.
func (f *Folded) Collisions() [][2]int {
	var out [][2]int
	for i := range f.Faces {
		for j := range i {
			if f.collide(i, j) {
				out = append(out, [2]int{j, i})
			}
		}
	}
	return out
}

func (f *Folded) collide(i, j int) bool {
	ni, nj := f.Poses[i].Normal(), f.Poses[j].Normal()
	along := r3.Cross(ni, nj)
	if r3.Norm(along) < 1e-9 {
		return false
	}
	along = r3.Unit(along)
	a := f.cutBy(i, j, along)
	if len(a) == 0 {
		return false
	}
	b := f.cutBy(j, i, along)
	for _, s := range a {
		for _, t := range b {
			if min(s[1], t[1])-max(s[0], t[0]) > touch {
				return true
			}
		}
	}
	return false
}

// cutBy gives the stretches, measured along a line, in which face i crosses
// the plane of face j, or nothing when it stays on one side of it.
func (f *Folded) cutBy(i, j int, along r3.Vec) [][2]float64 {
	n := f.Poses[j].Normal()
	at := r3.Dot(n, f.Poses[j].Place(f.Faces[j].Polygon[0]))
	polygon := f.Faces[i].Polygon
	space := make([]r3.Vec, len(polygon))
	least, most := math.Inf(1), math.Inf(-1)
	for k, q := range polygon {
		space[k] = f.Poses[i].Place(q)
		d := r3.Dot(n, space[k]) - at
		least, most = min(least, d), max(most, d)
	}
	if least > -touch || most < touch {
		return nil
	}
	var hits []float64
	for k, p := range space {
		q := space[(k+1)%len(space)]
		dp, dq := r3.Dot(n, p)-at, r3.Dot(n, q)-at
		if (dp > 0) != (dq > 0) {
			hits = append(hits, r3.Dot(along, r3.Add(p, r3.Scale(dp/(dp-dq), r3.Sub(q, p)))))
		}
	}
	slices.Sort(hits)
	var out [][2]float64
	for k := 0; k+1 < len(hits); k += 2 {
		out = append(out, [2]float64{hits[k], hits[k+1]})
	}
	return out
}

// Landing is how a glue patch meets the face it is meant for, when folded.
type Landing struct {
	Glue Glue
	Off  float64 // the farthest corner of the patch from the face's plane, in mm
	Area float64 // how much of the patch lies on the face, in mm²
}

// Landings measures every patch of the pattern; a patch whose faces are not
// there is off by infinity.
func (f *Folded) Landings(p *Pattern) []Landing {
	var out []Landing
	for _, g := range p.Glue {
		if g.Piece != "" {
			continue // it lands on another piece
		}
		l := Landing{Glue: g}
		from, _, i := f.Face(g.Face)
		onto, _, j := f.Face(g.Onto)
		if i < 0 || j < 0 {
			l.Off = math.Inf(1)
			out = append(out, l)
			continue
		}
		for _, q := range g.Area {
			_, off := onto.pull(from.Place(q))
			l.Off = max(l.Off, math.Abs(off))
		}
		l.Area = f.OverlapOf(g.Area, i, j)
		out = append(out, l)
	}
	return out
}
