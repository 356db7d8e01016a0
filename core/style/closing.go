package style

import (
	"fmt"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/pattern"
)

// Carrier is a face of another piece that a piece stands on and moves with.
type Carrier struct{ Part, Face string }

// follow is the motion that takes a face of a piece from one form, and where
// the piece stands then, to another.
func follow(shut *pattern.Folded, stood pattern.Pose, now *pattern.Folded, stands pattern.Pose, face string) (pattern.Pose, bool) {
	was, _, i := shut.Face(face)
	is, _, j := now.Face(face)
	return was.Then(stood).Inverse().Then(is.Then(stands)), i >= 0 && j >= 0
}

// stages is how many places a hinge is looked at while it is shut.
const stages = 10

// Sweep shuts a box from open, the faces of its first part folded one after
// another in the given order, and gives the first thing that is in the way and
// the face that was being folded; nil when nothing is. What is taken away when
// the box is open is not there, unless it stands on the first part.
func (b *Box) Sweep(order []string) (*Hit, string, error) {
	var parts []Part
	var finished []*pattern.Folded
	for i, p := range b.Parts {
		if i > 0 && p.On == nil && p.Away != (r3.Vec{}) {
			continue
		}
		if p.On != nil {
			p.Away = r3.Vec{}
		}
		f, err := p.Pattern.Finished(p.Root)
		if err != nil {
			return nil, "", err
		}
		parts, finished = append(parts, p), append(finished, f)
	}
	first, forms := parts[0].Pattern, slices.Clone(finished)
	at := make([]float64, len(first.Creases))
	for i, c := range first.Creases {
		if at[i] = c.Angle; c.Hinge {
			at[i] = c.Opened
		}
	}
	folder, err := first.Folder(parts[0].Root)
	if err != nil {
		return nil, "", err
	}
	hinges, err := first.Towards(parts[0].Root)
	if err != nil {
		return nil, "", err
	}
	for _, face := range order {
		crease, known := hinges[face]
		if !known {
			return nil, "", fmt.Errorf("%s has no face %q that folds", parts[0].ID, face)
		}
		from, to := at[crease], first.Creases[crease].Angle
		for n := 1; n <= stages; n++ {
			at[crease] = from + (to-from)*float64(n)/stages
			now, err := folder.Fold(at)
			if err != nil {
				return nil, "", err
			}
			forms[0] = now
			if hits := Collisions(posed(parts, finished, forms, 0)); len(hits) > 0 {
				return &hits[0], face, nil
			}
		}
	}
	return nil, "", nil
}
