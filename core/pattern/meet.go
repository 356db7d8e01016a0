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

// onPlane is how far off a face's plane, in mm, a point counts as on it.
const onPlane = 0.05

// Overlap is the area, in mm², over which two faces that lie on one plane
// cover each other; 0 when they lie on different planes.
func (f *Folded) Overlap(i, j int) float64 { return f.OverlapOf(f.Faces[i].Polygon, i, j) }

// OverlapOf is Overlap for a part of face i, given on its flat pattern.
func (f *Folded) OverlapOf(area []Point, i, j int) float64 {
	return overlapOn(area, f.Poses[i], &f.Faces[j], f.Poses[j], onPlane)
}

// overlapOn is the area that a part of one posed face covers of another whose
// plane is at most off away: what it covers of the outline, less the holes.
func overlapOn(area []Point, from Pose, onto *Face, pose Pose, off float64) float64 {
	flat := make([]Point, len(area))
	for k, q := range area {
		on, away := pose.pull(from.Place(q))
		if math.Abs(away) > off {
			return 0
		}
		flat[k] = on
	}
	covered := Overlap(flat, onto.Polygon)
	for _, h := range onto.Holes {
		covered -= Overlap(flat, h)
	}
	return covered
}

// Levels says how far off its own plane each face really lies, in layers of
// card along its outside's direction (mm when multiplied by the thickness):
// folding takes card as having none, and what is glued or tucked onto a wall
// lies beside it, over what was put there before. Tabs are put first, then
// what rolls over them, flaps last.
func (f *Folded) Levels(p *Pattern) []int {
	levels := make([]int, len(f.Faces))
	type laid struct {
		glue       Glue
		face, onto int
	}
	var all []laid
	for _, g := range p.Glue {
		_, _, i := f.Face(g.Face)
		_, _, j := f.Face(g.Onto)
		if g.Piece == "" && g.Play == 0 && i >= 0 && j >= 0 { // what has play stands apart already
			all = append(all, laid{g, i, j})
		}
	}
	rank := func(r Role) int { return slices.IndexFunc(order, func(o roleStage) bool { return o.role == r }) }
	slices.SortStableFunc(all, func(a, b laid) int { return rank(f.Faces[a.face].Role) - rank(f.Faces[b.face].Role) })
	// same is 1 when two faces look the same way, −1 when against each other.
	same := func(i, j int) int {
		if r3.Dot(f.Poses[i].Normal(), f.Poses[j].Normal()) < 0 {
			return -1
		}
		return 1
	}
	placed := map[int]bool{}
	for _, x := range all {
		side := -1
		if x.glue.OntoOutside {
			side = 1
		}
		at := levels[x.onto] + side
		for k := range f.Faces {
			if !placed[k] || k == x.face || k == x.onto {
				continue
			}
			c := levels[k] * same(k, x.onto)
			if side*(c-at) >= 0 && f.Overlap(x.face, k) > 1 {
				at = c + side
			}
		}
		// What is on the face already, between it and what it goes onto, takes
		// its own room and moves with it.
		was := levels[x.face] * same(x.face, x.onto)
		deep := 0
		for _, y := range all {
			if y.onto == x.face && placed[y.face] && y.face != x.onto {
				deep = max(deep, side*(was-levels[y.face]*same(y.face, x.onto)))
			}
		}
		at += side * deep
		for _, y := range all {
			if y.onto == x.face && placed[y.face] {
				levels[y.face] += (at - was) * same(y.face, x.onto)
			}
		}
		if own := at * same(x.face, x.onto); !placed[x.face] || abs(own) > abs(levels[x.face]) {
			levels[x.face] = own
		}
		placed[x.face] = true
	}
	return levels
}

func abs(n int) int { return max(n, -n) }

// layers counts the most layers lying on one side of a wall at any one place.
func (f *Folded) layers(p *Pattern, levels []int, wall int, outside bool) int {
	most := 0
	for _, g := range p.Glue {
		_, _, i := f.Face(g.Face)
		if g.Piece != "" || g.Play != 0 || i < 0 || g.Onto != f.Faces[wall].Name || g.OntoOutside != outside {
			continue
		}
		own := levels[i]
		if r3.Dot(f.Poses[i].Normal(), f.Poses[wall].Normal()) < 0 {
			own = -own
		}
		most = max(most, abs(own-levels[wall]))
	}
	return most
}

// touch is how far, in mm, one face must stick through another to collide.
const touch = 0.2

// Collisions lists pairs of faces that pass through each other: each has
// card on both sides of the other's plane, and they share a stretch of the
// line in which the planes meet.
func (f *Folded) Collisions() [][2]int {
	var out [][2]int
	boxes := f.hulls()
	for i := range f.Faces {
		for j := range i {
			if !apart(boxes[i], boxes[j]) && collide(f, i, f, j, touch) {
				out = append(out, [2]int{j, i})
			}
		}
	}
	return out
}

// Around is the upright boxes around the faces of a folded piece, and around all
// of it, for telling quickly what cannot meet.
type Around struct {
	faces [][2]r3.Vec
	whole [2]r3.Vec
}

// Around works them out.
func (f *Folded) Around() Around {
	out := Around{faces: f.hulls()}
	for i, h := range out.faces {
		if i == 0 {
			out.whole = h
		}
		lo, hi := &out.whole[0], &out.whole[1]
		*lo = r3.Vec{X: min(lo.X, h[0].X), Y: min(lo.Y, h[0].Y), Z: min(lo.Z, h[0].Z)}
		*hi = r3.Vec{X: max(hi.X, h[1].X), Y: max(hi.Y, h[1].Y), Z: max(hi.Z, h[1].Z)}
	}
	return out
}

// CollisionsWith lists pairs of a face of f and one of another piece, standing
// in the same space, that pass through each other by more than give, mm; mine
// and others are the boxes around them.
func (f *Folded) CollisionsWith(g *Folded, mine, others Around, give float64) [][2]int {
	if apart(mine.whole, others.whole) {
		return nil
	}
	var out [][2]int
	for i := range f.Faces {
		if apart(mine.faces[i], others.whole) {
			continue
		}
		for j := range g.Faces {
			if !apart(mine.faces[i], others.faces[j]) && collide(f, i, g, j, give) {
				out = append(out, [2]int{i, j})
			}
		}
	}
	return out
}

func (f *Folded) hulls() [][2]r3.Vec {
	out := make([][2]r3.Vec, len(f.Faces))
	for i, face := range f.Faces {
		out[i] = hull(face.Polygon, f.Poses[i])
	}
	return out
}

// hull is the upright box around a posed polygon.
func hull(polygon []Point, pose Pose) [2]r3.Vec {
	inf := math.Inf(1)
	lo, hi := r3.Vec{X: inf, Y: inf, Z: inf}, r3.Vec{X: -inf, Y: -inf, Z: -inf}
	for _, q := range polygon {
		v := pose.Place(q)
		lo = r3.Vec{X: min(lo.X, v.X), Y: min(lo.Y, v.Y), Z: min(lo.Z, v.Z)}
		hi = r3.Vec{X: max(hi.X, v.X), Y: max(hi.Y, v.Y), Z: max(hi.Z, v.Z)}
	}
	return [2]r3.Vec{lo, hi}
}

func apart(a, b [2]r3.Vec) bool {
	return a[1].X < b[0].X || b[1].X < a[0].X || a[1].Y < b[0].Y || b[1].Y < a[0].Y || a[1].Z < b[0].Z || b[1].Z < a[0].Z
}

func collide(f *Folded, i int, g *Folded, j int, give float64) bool {
	along := r3.Cross(f.Poses[i].Normal(), g.Poses[j].Normal())
	if r3.Norm(along) < 1e-9 {
		return false
	}
	along = r3.Unit(along)
	a := cutBy(f.Faces[i].Polygon, f.Poses[i], g.Faces[j].Polygon, g.Poses[j], along, give)
	if len(a) == 0 {
		return false
	}
	b := cutBy(g.Faces[j].Polygon, g.Poses[j], f.Faces[i].Polygon, f.Poses[i], along, give)
	for _, s := range a {
		for _, t := range b {
			if min(s[1], t[1])-max(s[0], t[0]) > give {
				return true
			}
		}
	}
	return false
}

// cutBy gives the stretches, measured along a line, in which a posed polygon
// crosses the plane of another, or nothing when it stays on one side of it.
func cutBy(polygon []Point, pose Pose, other []Point, plane Pose, along r3.Vec, give float64) [][2]float64 {
	n := plane.Normal()
	at := r3.Dot(n, plane.Place(other[0]))
	space := make([]r3.Vec, len(polygon))
	least, most := math.Inf(1), math.Inf(-1)
	for k, q := range polygon {
		space[k] = pose.Place(q)
		d := r3.Dot(n, space[k]) - at
		least, most = min(least, d), max(most, d)
	}
	if least > -give || most < give {
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

// Landings measures every patch of the pattern that lands on the piece
// itself; a patch whose faces are not there is off by infinity.
func (f *Folded) Landings(p *Pattern) []Landing {
	var out []Landing
	for _, g := range p.Glue {
		if g.Piece != "" {
			continue // the assembly says where it lands
		}
		from, _, i := f.Face(g.Face)
		pose, onto, j := f.Face(g.Onto)
		if i < 0 || j < 0 {
			out = append(out, Landing{Glue: g, Off: math.Inf(1)})
			continue
		}
		out = append(out, Land(g, from, onto, pose))
	}
	return out
}

// Land measures one patch, its face posed as from, against a posed face.
func Land(g Glue, from Pose, onto *Face, pose Pose) Landing {
	l := Landing{Glue: g}
	far := 0.0
	for _, q := range g.Area {
		_, off := pose.pull(from.Place(q))
		far = max(far, math.Abs(off))
		l.Off = max(l.Off, math.Abs(math.Abs(off)-g.Play))
	}
	l.Area = overlapOn(g.Area, from, onto, pose, far+1e-9)
	return l
}
