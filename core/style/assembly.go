package style

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// State is how a box stands: shut; open, as one gets in; or packed, open with
// what goes in standing in it.
type State string

// The states every box goes through.
const (
	Finished State = "finished"
	Open     State = "open"
	Packed   State = "packed"
)

// States lists them.
var States = []State{Finished, Open, Packed}

// Body is one copy of a part as it stands in a box, in mm: x to the right,
// y back, z up, the middle of the table being the origin. Levels are its
// faces' (see pattern.Folded.Levels), glue across parts counted in.
type Body struct {
	*pattern.Folded
	Part   *Part
	Copy   int
	Levels []int
}

// stand sets a finished piece up as it is used: an opening upwards,
// downwards, or a tube on its end; its middle over the middle of the table,
// its foot on it, then moved to its place.
func (p *Part) stand(f *pattern.Folded) pattern.Pose {
	x := r3.Vec{X: 1}
	turn := r3.NewRotation(0, x)
	switch p.Opens {
	case Upwards:
		turn = r3.NewRotation(math.Pi, x)
	case Upright:
		// The root is a wall that faces the viewer, its upper side up.
		turn = r3.NewRotation(math.Pi/2, x)
		if mark, _ := p.Pattern.Mark(p.Root); mark.Up.Y > 0 {
			head := pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{Z: 1})}
			turn = head.Then(pattern.Pose{Turn: turn}).Turn
		}
	}
	pose := pattern.Pose{Turn: turn}
	if p.HalfTurn {
		pose = pose.Then(pattern.Pose{Turn: r3.NewRotation(math.Pi, r3.Vec{Z: 1})})
	}
	lo, hi := f.Bounds(pose)
	pose.Shift = r3.Add(p.At, r3.Vec{X: -(lo.X + hi.X) / 2, Y: -(lo.Y + hi.Y) / 2, Z: -lo.Z})
	return pose
}

// stood is the pose that the root's own is followed by in the finished box.
func (p *Part) stood(finished *pattern.Folded) pattern.Pose {
	pose := p.stand(finished)
	if p.Lies != nil {
		pose = pose.Then(*p.Lies)
	}
	return pose
}

// Assemble stands every copy of every part where it is in a state. finished
// holds the parts folded shut, in order.
func Assemble(parts []Part, finished []*pattern.Folded, state State) ([]Body, error) {
	forms, open := slices.Clone(finished), 0.0
	if state != Finished {
		open = 1
	}
	for i := range parts {
		if p := &parts[i]; state != Finished && p.Pattern.Hinged() {
			form, err := p.Pattern.Opened(p.Root)
			if err != nil {
				return nil, fmt.Errorf("%s: %w", p.ID, err)
			}
			forms[i] = form
		}
	}
	return bodies(parts, finished, forms, open), nil
}

// bodies are the parts, each in the form it has now, where they are.
func bodies(parts []Part, finished, forms []*pattern.Folded, open float64) []Body {
	out := posed(parts, finished, forms, open)
	for i := range out {
		if out[i].Copy == 0 {
			out[i].Levels = forms[indexOf(parts, out[i].Part)].Levels(out[i].Part.Pattern)
		} else {
			out[i].Levels = slices.Clone(out[i-1].Levels)
		}
	}
	for i := range out {
		out[i].across(out)
	}
	return out
}

// indexOf is the place of a part in its list.
func indexOf(parts []Part, part *Part) int {
	for i := range parts {
		if &parts[i] == part {
			return i
		}
	}
	return -1
}

// posed are bodies of which the levels are not known.
func posed(parts []Part, finished, forms []*pattern.Folded, open float64) []Body {
	var out []Body
	for i, poses := range Places(parts, finished, forms, open) {
		for n, pose := range poses {
			b := Body{Folded: &pattern.Folded{Faces: forms[i].Faces}, Part: &parts[i], Copy: n}
			for _, q := range forms[i].Poses {
				b.Folded.Poses = append(b.Folded.Poses, q.Then(pose))
			}
			out = append(out, b)
		}
	}
	return out
}

// Places gives, for each part and each copy of it, the pose that its root's own
// is followed by, when the parts have the given forms: what stands on a face of
// another goes with it. open is how far the box is open: 0 is shut, and at 1
// what is taken away lies where it is then.
func Places(parts []Part, finished, forms []*pattern.Folded, open float64) [][]pattern.Pose {
	out := make([][]pattern.Pose, len(parts))
	away := func(p *Part, pose pattern.Pose) pattern.Pose {
		pose.Shift = r3.Add(pose.Shift, r3.Scale(open, p.Away))
		return pose
	}
	for i := range parts {
		p := &parts[i]
		if len(p.Places) > 0 {
			for _, pose := range p.Places {
				moved := away(p, pose)
				moved.Shift = r3.Add(moved.Shift, r3.Scale(open*p.Apart, outwards(p.middle(finished[i], pose))))
				out[i] = append(out[i], moved)
			}
			continue
		}
		pose := p.stood(finished[i])
		if p.On != nil {
			k := slices.IndexFunc(parts, func(x Part) bool { return x.ID == p.On.Part })
			shut := parts[k].stood(finished[k])
			if by, known := follow(finished[k], shut, forms[k], away(&parts[k], shut), p.On.Face); known {
				pose = pose.Then(by)
			}
		}
		out[i] = []pattern.Pose{away(p, pose)}
	}
	return out
}

// middle is where the middle of the root comes to lie.
func (p *Part) middle(f *pattern.Folded, place pattern.Pose) r3.Vec {
	pose, root, i := f.Face(p.Root)
	if i < 0 {
		return r3.Vec{}
	}
	lo, hi := pattern.Bounds(root.Polygon)
	return pose.Then(place).Place(lo.Add(hi).Scale(0.5))
}

// outwards is the level direction of a place from the middle of the box, of length 1.
func outwards(at r3.Vec) r3.Vec {
	at.Z = 0
	if r3.Norm(at) < 1e-9 {
		return at
	}
	return r3.Unit(at)
}

// across sets the levels of faces that are glued to another part in whose very
// plane they lie; what stands a card's thickness from it already needs none.
func (b *Body) across(all []Body) {
	for _, g := range b.Part.Pattern.Glue {
		pose, _, i := b.Face(g.Face)
		if g.Piece == "" || g.Play != 0 || i < 0 {
			continue
		}
		for _, o := range all {
			onto, _, j := o.Face(g.Onto)
			if o.Part.ID != g.Piece || j < 0 || pattern.Land(g, pose, &o.Faces[j], onto).Off > b.Part.Card.MM()/2 {
				continue
			}
			side := -1
			if g.OntoOutside {
				side = 1
			}
			level := o.Levels[j] + side
			for k := range o.Faces { // what lies there already
				if k == j || pattern.Land(g, pose, &o.Faces[k], o.Poses[k]).Off > b.Part.Card.MM()/2 || pattern.Land(g, pose, &o.Faces[k], o.Poses[k]).Area < 1 {
					continue
				}
				lies := o.Levels[k]
				if r3.Dot(o.Poses[k].Normal(), onto.Normal()) < 0 {
					lies = -lies
				}
				if side*(lies+side-level) > 0 {
					level = lies + side
				}
			}
			if r3.Dot(pose.Normal(), onto.Normal()) < 0 {
				level = -level
			}
			b.Levels[i] = level
		}
	}
}

// give is how far, in mm, two parts may stand in each other before they
// collide: card gives, and the gap account says how a tight one feels.
const give = 0.8

// Hit is two faces of different bodies that pass through each other.
type Hit struct {
	A, B  *Body
	FaceA pattern.Face
	FaceB pattern.Face
}

// Collisions finds where bodies pass through one another.
func Collisions(bodies []Body) []Hit {
	var out []Hit
	around := make([]pattern.Around, len(bodies))
	for i := range bodies {
		around[i] = bodies[i].Around()
		for j := range i {
			for _, c := range bodies[i].CollisionsWith(bodies[j].Folded, around[i], around[j], give) {
				out = append(out, Hit{&bodies[i], &bodies[j], bodies[i].Faces[c[0]], bodies[j].Faces[c[1]]})
			}
		}
	}
	return out
}

// Landings measures every glue patch of some bodies that lands on another
// part, among those it may land onto. One that
// says no face is measured against whichever it meets best; OntoTheBox is any
// other part.
func Landings(from, onto []Body) []pattern.Landing {
	var out []pattern.Landing
	for _, b := range from {
		for _, g := range b.Part.Pattern.Glue {
			pose, _, i := b.Face(g.Face)
			if g.Piece == "" || i < 0 {
				continue
			}
			best := pattern.Landing{Glue: g, Off: math.Inf(1)}
			for _, o := range onto {
				if o.Part.ID != g.Piece && !(g.Piece == OntoTheBox && o.Part.ID != b.Part.ID) {
					continue
				}
				for j := range o.Faces {
					if g.Onto != "" && o.Faces[j].Name != g.Onto {
						continue
					}
					if l := pattern.Land(g, pose, &o.Faces[j], o.Poses[j]); l.Off < best.Off && l.Area > 0 {
						best = l
					}
				}
			}
			out = append(out, best)
		}
	}
	return out
}

// OntoTheBox stands for whatever box an inner piece is glued into.
const OntoTheBox = "box"

// Outside measures a finished box from its layers: the smallest upright block
// around all its card.
func Outside(bodies []Body) Extent {
	inf := math.Inf(1)
	lo, hi := r3.Vec{X: inf, Y: inf, Z: inf}, r3.Vec{X: -inf, Y: -inf, Z: -inf}
	for _, b := range bodies {
		t := b.Part.Card.MM()
		for i, face := range b.Faces {
			n := b.Poses[i].Normal()
			middle := r3.Scale(float64(b.Levels[i])*t, n)
			// Half the card lies on either side of its middle; a rolled rim is
			// round.
			half := r3.Vec{X: math.Abs(n.X) * t / 2, Y: math.Abs(n.Y) * t / 2, Z: math.Abs(n.Z) * t / 2}
			for k, q := range face.Polygon {
				v := r3.Add(b.Poses[i].Place(q), middle)
				h := half
				if face.RolledAt(b.Part.Pattern, k) {
					h = r3.Vec{X: t / 2, Y: t / 2, Z: t / 2}
				}
				lo = r3.Vec{X: min(lo.X, v.X-h.X), Y: min(lo.Y, v.Y-h.Y), Z: min(lo.Z, v.Z-h.Z)}
				hi = r3.Vec{X: max(hi.X, v.X+h.X), Y: max(hi.Y, v.Y+h.Y), Z: max(hi.Z, v.Z+h.Z)}
			}
		}
	}
	return Extent{measure.FromMM(hi.X - lo.X), measure.FromMM(hi.Y - lo.Y), measure.FromMM(hi.Z - lo.Z)}
}

// StandsOn reports whether one body stands on another: where the upper one's
// foot meets the lower one's level faces and rims, the middle of the foot
// lies between the places that carry it.
func StandsOn(upper, lower *Body) bool {
	var foot, carried []pattern.Point
	down := math.Inf(1)
	each := func(b *Body, do func(face int, points []r3.Vec)) {
		for i, f := range b.Faces {
			var points []r3.Vec
			for _, q := range f.Polygon {
				points = append(points, b.Poses[i].Place(q))
			}
			do(i, points)
		}
	}
	each(upper, func(_ int, points []r3.Vec) {
		for _, v := range points {
			down = min(down, v.Z)
		}
	})
	near := upper.Part.Card.MM() + lower.Part.Card.MM() + 0.5
	// Seen from above, to the tenth of a micrometre, so that corners agree.
	plan := func(v r3.Vec) pattern.Point { return pattern.Pt(math.Round(v.X*1e4)/1e4, math.Round(v.Y*1e4)/1e4) }
	each(upper, func(_ int, points []r3.Vec) {
		for _, v := range points {
			if v.Z < down+near {
				foot = append(foot, plan(v))
			}
		}
	})
	foot = pattern.Hull(foot)
	each(lower, func(_ int, points []r3.Vec) {
		var top []pattern.Point
		for _, v := range points {
			if math.Abs(v.Z-down) < near {
				top = append(top, plan(v))
			}
		}
		carried = append(carried, pattern.Clip(top, foot)...)
	})
	carried = pattern.Hull(carried)
	lo, hi := pattern.Bounds(foot)
	return len(carried) > 2 && pattern.Contains(carried, lo.Add(hi).Scale(0.5))
}
