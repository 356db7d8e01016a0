package pattern

import (
	"slices"

	"gonum.org/v1/gonum/num/quat"
	"gonum.org/v1/gonum/spatial/r3"
)

// Stage is one stage of folding: a name for a person, and the creases that
// turn in it.
type Stage struct {
	Name    string
	creases []int
}

// order is the order in which faces are folded, by what they are for: tabs
// while the card is flat, walls up, second walls over, lids and slopes shut,
// and flaps last.
var order = []roleStage{{Tab, "tabs"}, {Wall, "walls"}, {Bend, "bends"}, {Lining, "second walls"}, {Panel, "panels"}, {Flap, "flaps"}}

type roleStage struct {
	role Role
	name string
}

// Stages states the folding order from the named root: each crease turns in
// the stage of the face that hangs on it, the one farther from the root.
// Stages in which nothing turns are left out.
func (f *Folded) Stages(p *Pattern, root string) []Stage {
	_, _, start := f.Face(root)
	if start < 0 {
		return nil
	}
	byRole := map[Role][]int{}
	reached := make([]bool, len(f.Faces))
	done := make([]bool, len(p.Creases))
	reached[start] = true
	for queue := []int{start}; len(queue) > 0; queue = queue[1:] {
		for _, e := range f.Faces[queue[0]].edges {
			if e.neighbour < 0 || e.crease < 0 {
				continue
			}
			if !done[e.crease] {
				done[e.crease] = true
				role := f.Faces[e.neighbour].Role
				byRole[role] = append(byRole[role], e.crease)
			}
			if !reached[e.neighbour] {
				reached[e.neighbour] = true
				queue = append(queue, e.neighbour)
			}
		}
	}
	var out []Stage
	for _, o := range order {
		if creases := byRole[o.role]; len(creases) > 0 {
			slices.Sort(creases)
			out = append(out, Stage{o.name, creases})
		}
	}
	return out
}

// FoldTo folds the piece to a point of its stages: 0 is flat, 1 is the first
// stage done, 1.5 the second half done, and len(stages) finished. Between
// stages a ring of faces need not close; the residual says by how much.
func (p *Pattern) FoldTo(root string, stages []Stage, at float64) (*Folded, error) {
	done := make([]float64, len(p.Creases))
	for i, s := range stages {
		for _, c := range s.creases {
			done[c] = min(1, max(0, at-float64(i)))
		}
	}
	return p.Fold(root, func(i int) float64 { return done[i] * p.Creases[i].Angle })
}

// Then is this pose followed by another.
func (p Pose) Then(q Pose) Pose {
	return Pose{
		Turn:  r3.Rotation(quat.Mul(quat.Number(q.Turn), quat.Number(p.Turn))),
		Shift: r3.Add(q.Turn.Rotate(p.Shift), q.Shift),
	}
}
