package design

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// round names the upright faces of a piece as one passes them, walking round the
// finished box with the hand on it: to the right along the front, the corner at
// the left of the back first, so that a picture's seam is at the back.
func (b *Built) round(piece string) ([]string, error) {
	bodies, err := b.Bodies(style.Finished)
	if err != nil {
		return nil, err
	}
	back := style.Back(bodies)
	type passed struct {
		name string
		at   float64
	}
	var all []passed
	for _, body := range bodies {
		if body.Part.ID != piece {
			continue
		}
		for i, f := range body.Faces {
			n := body.Poses[i].Normal()
			if f.Role == pattern.Bend || math.Abs(n.Z) > 0.5 {
				continue
			}
			// 0 looks to the front, a quarter of the way round to the right.
			at := math.Mod(math.Atan2(back*n.X, -back*n.Y)+3*math.Pi-1e-6, 2*math.Pi)
			all = append(all, passed{f.Name, at})
		}
		break // another copy of it is dressed like the first
	}
	slices.SortStableFunc(all, func(a, body passed) int { return cmp.Compare(a.at, body.at) })
	var out []string
	for _, p := range all {
		out = append(out, p.name)
	}
	return out, nil
}

// longestStrip is the longest strip of a paper that the sheets and the trimmer
// give, along the way its picture runs.
func longestStrip(in *Inputs, c paper.Card) measure.Length {
	longest := measure.Length(0)
	for _, s := range in.Sheets {
		longest = max(longest, s.Width)
		if c.Direction.MayTurn() {
			longest = max(longest, s.Height)
		}
	}
	return min(longest, in.Tools.Trimmer)
}
