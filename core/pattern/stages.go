package pattern

import (
	"slices"

	"gonum.org/v1/gonum/num/quat"
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
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

// Done is how far, 0 to 1, each crease is folded at a point of the stages: 0 is
// flat, 1 is the first stage done, 1.5 the second half done.
func (p *Pattern) Done(stages []Stage, at float64) []float64 {
	done := make([]float64, len(p.Creases))
	for i, s := range stages {
		for _, c := range s.creases {
			done[c] = min(1, max(0, at-float64(i)))
		}
	}
	return done
}

// Then is this pose followed by another.
func (p Pose) Then(q Pose) Pose {
	return Pose{
		Turn:  r3.Rotation(quat.Mul(quat.Number(q.Turn), quat.Number(p.Turn))),
		Shift: r3.Add(q.Turn.Rotate(p.Shift), q.Shift),
	}
}

// Inverse undoes a pose.
func (p Pose) Inverse() Pose {
	turn := r3.Rotation(quat.Conj(quat.Number(p.Turn)))
	return Pose{Turn: turn, Shift: r3.Scale(-1, turn.Rotate(p.Shift))}
}

// Unscored makes the creases that are chosen bends that are not scored, and
// takes their lines from the scores.
func (p *Pattern) Unscored(chosen func(Segment) bool) {
	for i := range p.Creases {
		if chosen(p.Creases[i].Segment) {
			p.Creases[i].Rolled = true
		}
	}
	used := func(line Segment) bool {
		return slices.ContainsFunc(p.Creases, func(c Crease) bool { return !c.Rolled && line.Covers(c.Segment, Tolerance) })
	}
	w, h := p.Width.MM(), p.Height.MM()
	p.Scores.Vertical = slices.DeleteFunc(p.Scores.Vertical, func(x measure.Length) bool {
		return !used(Segment{Pt(x.MM(), 0), Pt(x.MM(), h)})
	})
	p.Scores.Horizontal = slices.DeleteFunc(p.Scores.Horizontal, func(y measure.Length) bool {
		return !used(Segment{Pt(0, y.MM()), Pt(w, y.MM())})
	})
	p.Scores.Part = slices.DeleteFunc(p.Scores.Part, func(s Segment) bool { return !used(s) })
	if len(p.Scores.Part) == 0 {
		p.Scores.Part = nil
	}
}
