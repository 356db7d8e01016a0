package pattern

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/spatial/r3"
)

// closed is how far apart, in mm, the two places of a shared edge may be for a
// ring to count as closed.
const closed = 0.02

// Rigid finds how the piece moves from one form to another with as little
// bending of the card as can be: n steps of the angles of all creases, in
// degrees on their own sides, at which its rings of faces close, the first and
// the last being those given. It goes back from the last form, each step from
// the one before with all angles a little on their way, moved by as little as
// closes the rings (Gauss and Newton's rule, damped). Where none is found
// nearby the angles are those straight on the way. Creases whose angle is the
// same in both forms keep it.
func (p *Pattern) Rigid(root string, from, to []float64, n int) ([][]float64, error) {
	faces, start, err := p.from(root)
	if err != nil {
		return nil, err
	}
	most := 0.0 // that a crease turns in one step
	var free []int
	for i := range to {
		most = max(most, jump+3*math.Abs(to[i]-from[i])/float64(n))
		if to[i] != from[i] {
			free = append(free, i)
		}
	}
	way := make([][]float64, n+1)
	way[0], way[n] = slices.Clone(from), slices.Clone(to)
	for k := n - 1; k > 0; k-- {
		straight, next := make([]float64, len(to)), slices.Clone(way[k+1])
		for i := range to {
			straight[i] = from[i] + (to[i]-from[i])*float64(k)/float64(n)
			// A step on, and towards the straight way, so that it comes to its end.
			pull := 2 / float64(k+1)
			next[i] += (straight[i]-next[i])*pull + (from[i]-to[i])/float64(n)*(1-pull)
		}
		way[k] = straight
		for _, guess := range [][]float64{next, slices.Clone(straight)} {
			if len(free) <= mostFree && p.closes(faces, start, free, guess) && near(guess, way[k+1], most) {
				way[k] = guess
				break
			}
		}
	}
	return way, nil
}

// mostFree is of how many creases a way is sought: a curve of more flats than this is card that
// bends on its way, not faces that turn.
const mostFree = 64

// jump is how much, in degrees, a crease may turn in one step besides thrice its
// share of the way.
const jump = 5

func near(a, b []float64, most float64) bool {
	for i := range a {
		if math.Abs(a[i]-b[i]) > most {
			return false
		}
	}
	return true
}

// closes moves the free ones of the angles by as little as closes the rings, or
// comes as near to it as it can; it reports whether they are nearer now.
func (p *Pattern) closes(faces []Face, start int, free []int, at []float64) bool {
	const rounds, nudge, damping = 30, 0.01, 1e-3
	first, best := math.Inf(1), math.Inf(1)
	kept := slices.Clone(at)
	for range rounds {
		now, err := p.walk(faces, start, at)
		if err != nil {
			return false
		}
		if first == math.Inf(1) {
			first = now.Residual
		}
		if now.Residual < best {
			best = now.Residual
			copy(kept, at)
		}
		if best < closed {
			break
		}
		slope := mat.NewDense(len(now.gaps), len(free), nil)
		for k, crease := range free {
			at[crease] += nudge
			moved, err := p.walk(faces, start, at)
			if err != nil {
				return false
			}
			at[crease] -= nudge
			for i, g := range moved.gaps {
				slope.Set(i, k, (g-now.gaps[i])/nudge)
			}
		}
		var square mat.Dense
		square.Mul(slope.T(), slope)
		for k := range free {
			square.Set(k, k, square.At(k, k)+damping)
		}
		var against, step mat.VecDense
		against.MulVec(slope.T(), mat.NewVecDense(len(now.gaps), now.gaps))
		if step.SolveVec(&square, &against) != nil {
			break
		}
		for k, crease := range free {
			at[crease] -= min(5, max(-5, step.AtVec(k)))
		}
	}
	copy(at, kept)
	return best < first || best < closed
}

// Folder folds the piece again and again, its faces found once.
type Folder struct {
	p     *Pattern
	faces []Face
	start int
}

// Folder readies it from the named root.
func (p *Pattern) Folder(root string) (*Folder, error) {
	faces, start, err := p.from(root)
	if err != nil {
		return nil, err
	}
	return &Folder{p, faces, start}, nil
}

// Fold turns each crease by its angle, in degrees on its own side.
func (f *Folder) Fold(degrees []float64) (*Folded, error) { return f.p.walk(f.faces, f.start, degrees) }

// Bends is by how many mm rings of faces are from closing when the creases are
// turned by the angles.
func (p *Pattern) Bends(root string, degrees []float64) (float64, error) {
	f, err := p.Fold(root, func(i int) float64 { return degrees[i] })
	if err != nil {
		return 0, err
	}
	return f.Residual, nil
}

// from gives the faces and the number of the one that stays on the table.
func (p *Pattern) from(root string) ([]Face, int, error) {
	faces, err := p.Faces()
	if err != nil {
		return nil, 0, err
	}
	start := slices.IndexFunc(faces, func(f Face) bool { return f.Name == root })
	if start < 0 {
		return nil, 0, fmt.Errorf("no face is named %q", root)
	}
	return faces, start, nil
}

// walk folds the faces one after another across the creases, turning each by
// its angle, and measures how far rings are from closing.
func (p *Pattern) walk(faces []Face, start int, degrees []float64) (*Folded, error) {
	f := &Folded{Faces: faces, Poses: make([]Pose, len(faces))}
	reached := make([]bool, len(faces))
	reached[start], f.Poses[start] = true, flat
	for queue := []int{start}; len(queue) > 0; queue = queue[1:] {
		i := queue[0]
		for e, edge := range faces[i].edges {
			if edge.neighbour < 0 || edge.crease < 0 || edge.neighbour == i {
				continue
			}
			a, b := faces[i].Polygon[e], faces[i].Polygon[(e+1)%len(faces[i].Polygon)]
			turn := degrees[edge.crease]
			if p.Creases[edge.crease].Side == Towards {
				turn = -turn
			}
			pose := across(f.Poses[i], a, b, turn)
			if !reached[edge.neighbour] {
				reached[edge.neighbour] = true
				f.Poses[edge.neighbour] = pose
				queue = append(queue, edge.neighbour)
				continue
			}
			there := f.Poses[edge.neighbour]
			for _, q := range faces[edge.neighbour].Polygon {
				gap := r3.Sub(there.Place(q), pose.Place(q))
				f.Residual = math.Max(f.Residual, r3.Norm(gap))
				f.gaps = append(f.gaps, gap.X, gap.Y, gap.Z)
			}
		}
	}
	if i := slices.Index(reached, false); i >= 0 {
		return nil, fmt.Errorf("the part %q hangs on no crease", faces[i].Name)
	}
	return f, nil
}
