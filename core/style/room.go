package style

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// Room is the free space that a finished box gives, as its style claims it; a
// Held says whether it is true. All in mm, from the middle of the clear floor.
type Room struct {
	// Shape says in words what kind of space it is.
	Shape string
	// Floor is the clear floor, x along the length and y along the width,
	// convex, clockwise as seen from above with y down.
	Floor []pattern.Point
	// Height is how high a block may be that stands in the middle of the floor
	// and is so long and wide.
	Height func(length, width float64) float64
	// At is the middle of the floor, on its upper side, in the finished box,
	// and Part the part whose floor it is, "" for the first.
	At   r3.Vec
	Part string
	// Largest is a block that fits: the whole of a block-shaped room.
	Largest Extent
	// Times is how many such rooms the box has.
	Times int
	// FromBelow: it is filled from below, standing on its head; what is its
	// ceiling carries what goes in meanwhile.
	FromBelow bool
	// Bulges: its walls lie on one another, and are bent apart by what goes in. No block can be
	// held against them.
	Bulges bool
	// Cradles: what goes in lies between curved walls, on no level floor; At is where its middle
	// lies, whatever its height.
	Cradles bool
}

// Block is a room of one height everywhere.
func Block(e Extent, at r3.Vec) Room {
	high := e.Height.MM()
	return Room{
		Shape:   "a block",
		Floor:   rectangle(e.Length.MM(), e.Width.MM()),
		Height:  func(_, _ float64) float64 { return high },
		At:      at,
		Largest: e,
	}
}

// under is a room that is as high as a roof over it leaves free.
func (r Room) under(shape string, height func(length, width float64) float64) Room {
	r.Shape, r.Height = shape, height
	return r
}

func rectangle(l, w float64) []pattern.Point {
	return []pattern.Point{{X: -l / 2, Y: -w / 2}, {X: l / 2, Y: -w / 2}, {X: l / 2, Y: w / 2}, {X: -l / 2, Y: w / 2}}
}

// Across is how wide a round thing may be, in mm: twice the least distance
// from the middle of the floor to a side.
func (r Room) Across() float64 {
	least := math.Inf(1)
	for i, a := range r.Floor {
		d := r.Floor[(i+1)%len(r.Floor)].Sub(a)
		least = min(least, math.Abs(d.Cross(a))/d.Len())
	}
	return 2 * least
}

// In gives the room as it is in a state of the box: where its part is.
func (r Room) In(state State, parts []Part) Room {
	for i, p := range parts {
		if state != Finished && (p.ID == r.Part || r.Part == "" && i == 0) {
			r.At = r3.Add(r.At, r3.Add(p.Away, r3.Scale(p.Apart, outwards(r.At))))
		}
	}
	return r
}

// square is how nearly, as a sine, a side must run along an axis to count for
// the other axis alone.
const square = 1e-6

// Lacks is how much wider, both sides together, and higher the room must be
// for a block to fit; less than nothing is what it has to spare. A side of the floor that runs
// along one axis limits the other; a slanting one limits both.
func (r Room) Lacks(need Extent) Extent {
	l, w := need.Length.MM(), need.Width.MM()
	length, width := math.Inf(-1), math.Inf(-1)
	for i, a := range r.Floor {
		d := r.Floor[(i+1)%len(r.Floor)].Sub(a)
		n := pattern.Pt(d.Y, -d.X).Scale(1 / d.Len()) // outwards
		lack := 2 * (math.Abs(n.X)*l/2 + math.Abs(n.Y)*w/2 - n.Dot(a))
		if math.Abs(n.X) > square {
			length = max(length, lack)
		}
		if math.Abs(n.Y) > square {
			width = max(width, lack)
		}
	}
	return Extent{measure.FromMM(length), measure.FromMM(width), need.Height - measure.FromMM(r.Height(l, w))}
}

// Held is what came of setting a block on the floor of a finished box and
// holding it against every face with its layers.
type Held struct {
	// Lacks is how far, in mm, the block would stick through something, 0 when
	// it stands free; Against is the face, by its part's and its own name, and
	// Up tells that it is the height that lacks.
	Lacks   float64
	Against string
	Up      bool
	// Floor tells whether there is a floor under it.
	Floor bool
	// At is where its middle came to stand.
	At r3.Vec
}

// slack is how far, in mm, a block may touch what it is held against.
const slack = 0.05

// Hold sets a block on the room's floor and moves it level, away from what it
// meets, until it stands free or is held from both sides.
func (r Room) Hold(bodies []Body, need Extent) Held {
	if r.Bulges {
		return Held{Floor: true, At: r3.Add(r.At, r3.Vec{Z: need.Height.MM() / 2})}
	}
	half := r3.Vec{X: need.Length.MM() / 2, Y: need.Width.MM() / 2, Z: need.Height.MM() / 2}
	at := r3.Add(r.At, r3.Vec{Z: half.Z})
	if r.Cradles {
		at = r.At
	}
	const rounds = 12
	var worst Held
	for range rounds {
		worst = Held{}
		var push r3.Vec
		for b := range bodies {
			for f := range bodies[b].Faces {
				depth, n := bodies[b].meets(f, at, half)
				if depth <= slack {
					continue
				}
				up := math.Abs(n.Z) > 0.75
				if depth > worst.Lacks {
					worst = Held{Lacks: depth, Against: bodies[b].Part.Name + ", " + bodies[b].Faces[f].Plain(), Up: up}
				}
				if level := math.Hypot(n.X, n.Y); !up && level > 0 {
					step := r3.Scale(depth/level/level, r3.Vec{X: n.X, Y: n.Y})
					push.X = larger(push.X, step.X)
					push.Y = larger(push.Y, step.Y)
				}
			}
		}
		if worst.Lacks == 0 || push == (r3.Vec{}) {
			break
		}
		at = r3.Add(at, push)
	}
	worst.Floor, worst.At = r.Cradles || carried(bodies, at, half), at
	if r.FromBelow && !worst.Floor {
		worst.Floor = carried(bodies, r3.Vec{X: at.X, Y: at.Y, Z: r.At.Z + r.Largest.Height.MM() + half.Z}, half)
	}
	return worst
}

// WayIn looks for a straight way by which a block comes to where it stands in
// the room, past every face: from above, from the front or back, or from a
// side, or from below when it is filled like that. Where there is none it names the face that is met from above.
func (r Room) WayIn(bodies []Body, need Extent) (from r3.Vec, against string, free bool) {
	if r.Bulges {
		return r3.Vec{Y: 1}, "", true
	}
	const far = 4000 // mm, beyond any box
	at := r.Hold(bodies, need).At
	ways := []r3.Vec{{Z: 1}, {Y: -1}, {Y: 1}, {X: -1}, {X: 1}}
	if r.FromBelow {
		ways = []r3.Vec{{Z: -1}}
	}
	for _, from = range ways {
		swept := r3.Add(at, r3.Scale(far/2, from))
		half := r3.Vec{
			X: need.Length.MM()/2 + math.Abs(from.X)*far/2,
			Y: need.Width.MM()/2 + math.Abs(from.Y)*far/2,
			Z: need.Height.MM()/2 + math.Abs(from.Z)*far/2,
		}
		met := ""
		for i := range bodies {
			for f := range bodies[i].Faces {
				if met == "" && bodies[i].crosses(f, swept, half) {
					met = bodies[i].Part.Name + ", " + bodies[i].Faces[f].Plain()
				}
			}
		}
		if met == "" {
			return from, "", true
		}
		if against == "" {
			against = met
		}
	}
	return from, against, false
}

// crosses reports whether a face's card, at its level, reaches into a block.
func (b *Body) crosses(face int, at, half r3.Vec) bool {
	pose := b.Poses[face]
	shift := r3.Scale(float64(b.Levels[face])*b.Part.Card.MM(), pose.Normal())
	var space []r3.Vec
	for _, q := range b.Faces[face].Polygon {
		space = append(space, r3.Sub(r3.Add(pose.Place(q), shift), at))
	}
	return len(within(space, half)) > 2
}

func larger(a, b float64) float64 {
	if math.Abs(b) > math.Abs(a) {
		return b
	}
	return a
}

// meets is how deep a block (its middle and half sides) reaches through the
// side of a face that looks at it, and the direction out of that side; 0 when
// they do not meet.
func (b *Body) meets(face int, at, half r3.Vec) (float64, r3.Vec) {
	pose, t := b.Poses[face], b.Part.Card.MM()
	n := pose.Normal()
	polygon := b.Faces[face].Polygon
	side := 1.0
	if r3.Dot(n, r3.Sub(at, pose.Place(polygon[0]))) < 0 {
		side = -1
	}
	// The surface lies half a card from the middle of its own level.
	shift := r3.Scale(float64(b.Levels[face])*t+side*t/2, n)
	space := make([]r3.Vec, len(polygon))
	for i, q := range polygon {
		space[i] = r3.Sub(r3.Add(pose.Place(q), shift), at)
	}
	n = r3.Scale(side, n)
	reach := math.Abs(n.X)*half.X + math.Abs(n.Y)*half.Y + math.Abs(n.Z)*half.Z
	depth := reach + r3.Dot(n, space[0])
	if depth <= 0 || len(within(space, half)) < 3 {
		return 0, n
	}
	return depth, n
}

// within clips a polygon in space to a block around the origin, a little
// smaller than told.
func within(polygon []r3.Vec, half r3.Vec) []r3.Vec {
	for axis := range 3 {
		for _, sign := range []float64{1, -1} {
			limit := []float64{half.X, half.Y, half.Z}[axis] - slack
			polygon = clip(polygon, func(v r3.Vec) float64 { return limit - sign*[]float64{v.X, v.Y, v.Z}[axis] })
			if len(polygon) < 3 {
				return nil
			}
		}
	}
	return polygon
}

// carried reports whether some level face lies under a block.
func carried(bodies []Body, at, half r3.Vec) bool {
	foot := at.Z - half.Z
	under := []pattern.Point{
		{X: at.X - half.X, Y: at.Y - half.Y},
		{X: at.X + half.X, Y: at.Y - half.Y},
		{X: at.X + half.X, Y: at.Y + half.Y},
		{X: at.X - half.X, Y: at.Y + half.Y},
	}
	for _, b := range bodies {
		for i, f := range b.Faces {
			if math.Abs(b.Poses[i].Normal().Z) < 0.99 {
				continue
			}
			var level []pattern.Point
			for _, q := range f.Polygon {
				v := b.Poses[i].Place(q)
				if math.Abs(v.Z-foot) > 3*b.Part.Card.MM() {
					break
				}
				level = append(level, pattern.Pt(v.X, v.Y))
			}
			if len(level) == len(f.Polygon) && len(pattern.Clip(level, under)) > 2 {
				return true
			}
		}
	}
	return false
}
