package pattern

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/num/quat"
	"gonum.org/v1/gonum/spatial/r3"
)

// Pose places a face in space: turn about the origin, then shift, in mm.
type Pose struct {
	Turn  r3.Rotation
	Shift r3.Vec
}

// flat is the pose of a face left on the table.
var flat = Pose{Turn: r3.Rotation(quat.Number{Real: 1})}

// Place gives where a point of the flat pattern ends up.
func (p Pose) Place(at Point) r3.Vec { return r3.Add(p.Turn.Rotate(lift(at)), p.Shift) }

// Flat is the point of the flat pattern that Place takes nearest to a place: what
// lies off the face's plane is seen straight down on it.
func (p Pose) Flat(v r3.Vec) Point {
	q := r3.Rotation(quat.Conj(quat.Number(p.Turn))).Rotate(r3.Sub(v, p.Shift))
	return Pt(q.X, -q.Y)
}

// Normal is the direction the outside of the face looks in.
func (p Pose) Normal() r3.Vec { return p.Turn.Rotate(r3.Vec{Z: 1}) }

func lift(p Point) r3.Vec { return r3.Vec{X: p.X, Y: -p.Y} }

// Folded is a piece at one stage of folding.
type Folded struct {
	Faces []Face
	Poses []Pose // one a face
	// Residual is the largest distance, in mm, between the two places a
	// shared edge gets where the walk over the faces comes round in a ring.
	Residual float64
	gaps     []float64 // between the two places of every corner there, x, y and z
}

// Fold walks the faces from the one named root, which stays on the table,
// turning each crease i by degrees(i). It fails when root is not a face or
// part of the card is not reached.
func (p *Pattern) Fold(root string, degrees func(crease int) float64) (*Folded, error) {
	faces, start, err := p.from(root)
	if err != nil {
		return nil, err
	}
	at := make([]float64, len(p.Creases))
	for i := range at {
		at[i] = degrees(i)
	}
	return p.walk(faces, start, at)
}

// Finished folds every crease to its final angle.
func (p *Pattern) Finished(root string) (*Folded, error) {
	return p.Fold(root, func(i int) float64 { return p.Creases[i].Angle })
}

// Opened folds every crease as it is when the box is open.
func (p *Pattern) Opened(root string) (*Folded, error) {
	return p.Fold(root, func(i int) float64 {
		if c := p.Creases[i]; c.Hinge {
			return c.Opened
		}
		return p.Creases[i].Angle
	})
}

// Hinged reports whether a crease is turned back when the box is open.
func (p *Pattern) Hinged() bool {
	return slices.ContainsFunc(p.Creases, func(c Crease) bool { return c.Hinge })
}

// Towards gives, for each face but the root, the crease that it hangs on, on
// the side of the root.
func (p *Pattern) Towards(root string) (map[string]int, error) {
	faces, err := p.Faces()
	if err != nil {
		return nil, err
	}
	start := slices.IndexFunc(faces, func(f Face) bool { return f.Name == root })
	if start < 0 {
		return nil, fmt.Errorf("no face %q to start from", root)
	}
	out := map[string]int{}
	for queue := []int{start}; len(queue) > 0; queue = queue[1:] {
		for _, e := range faces[queue[0]].edges {
			if e.neighbour < 0 || e.crease < 0 {
				continue
			}
			name := faces[e.neighbour].Name
			if _, known := out[name]; !known && e.neighbour != start {
				out[name] = e.crease
				queue = append(queue, e.neighbour)
			}
		}
	}
	return out, nil
}

// across gives the pose of the neighbour over the edge from a to b, which
// the first face, at pose, keeps on its right-hand side as seen. Seen in
// space the neighbour lies to the left of a→b, so a turn about b→a by the
// right-hand rule takes it away from the viewer.
func across(pose Pose, a, b Point, degrees float64) Pose {
	pa := lift(a)
	turn := r3.NewRotation(degrees*math.Pi/180, r3.Sub(pa, lift(b)))
	local := Pose{turn, r3.Sub(pa, turn.Rotate(pa))}
	return Pose{
		Turn:  r3.Rotation(quat.Mul(quat.Number(pose.Turn), quat.Number(local.Turn))),
		Shift: r3.Add(pose.Turn.Rotate(local.Shift), pose.Shift),
	}
}

// Face finds a face by name; its index is −1 when there is none.
func (f *Folded) Face(name string) (Pose, *Face, int) {
	i := slices.IndexFunc(f.Faces, func(x Face) bool { return x.Name == name })
	if i < 0 {
		return Pose{}, nil, -1
	}
	return f.Poses[i], &f.Faces[i], i
}
