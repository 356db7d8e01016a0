package draw

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/num/quat"
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Model is a whole box that can be drawn at any stage of its making: its
// pieces are folded beside one another, put together, and shut.
type Model struct {
	parts    []style.Part
	finished []*pattern.Folded
	stages   [][]pattern.Stage
	levels   [][]int
	apart    [][]pattern.Pose // where each copy lies while it is folded
	mats     []dress.Mat
	lying    []design.Lying  // on the shut box
	from     map[string]From // what the pieces are cut from; nil leaves them plain
	order    []string        // of the first part's faces when it is shut
	// Stages names the stages in order: those of folding all pieces, bringing
	// them together, and shutting the box.
	Stages   []string
	folds    int
	together bool
	shuts    bool
	shown    style.State
	pick     bool       // faces can be pressed
	looked   []Solid    // once asked for
	things   [][]r3.Vec // outlines of what goes in, where they are drawn
	// ways are how pieces move whose rings would not close on the plain way; nil
	// when they do.
	ways   map[string][][]float64
	pieces map[string]*Model // each alone, once asked for
}

// Names of the stages after folding.
const (
	Together = "put together"
	Shutting = "shut"
)

// NewModel readies the pieces of a box. finished holds each one folded; pictures
// of the whole show it as shown, and order is that in which the faces of the
// first part are folded to shut it, if it matters.
func NewModel(parts []style.Part, finished []*pattern.Folded, mats []dress.Mat, shown style.State, order []string) *Model {
	m := &Model{parts: parts, finished: finished, mats: mats, shown: shown, order: order}
	copies := 0
	for i := range parts {
		p := &parts[i]
		m.stages = append(m.stages, finished[i].Stages(p.Pattern, p.Root))
		if n := len(m.stages[i]); n > len(m.Stages) {
			m.Stages = m.Stages[:0]
			for _, s := range m.stages[i] {
				m.Stages = append(m.Stages, s.Name)
			}
		}
		m.shuts = m.shuts || p.Pattern.Hinged() || p.Away != (r3.Vec{})
		copies += p.Copies()
	}
	m.levels = make([][]int, len(parts))
	if bodies, err := style.Assemble(parts, finished, style.Finished); err == nil { // without hinges to open it does not fail
		for _, b := range bodies {
			m.levels[slices.IndexFunc(parts, func(p style.Part) bool { return p.ID == b.Part.ID })] = b.Levels
		}
	}
	m.folds = len(m.Stages)
	if m.together = copies > 1; m.together {
		m.Stages = append(m.Stages, Together)
	}
	if m.shuts {
		m.Stages = append(m.Stages, Shutting)
	}
	m.spread()
	return m
}

// Shows makes pictures show the card that each piece is cut from, by its id, and
// the papers on it.
func (m *Model) Shows(from map[string]From) *Model {
	m.from = from
	return m
}

// Picks lets a page have the faces of its pictures pressed: their keys are those
// of a Net's.
func (m *Model) Picks() *Model {
	m.pick = true
	return m
}

// cutFrom is what the nth part is cut from, nil where that is not shown.
func (m *Model) cutFrom(n int) *From {
	f, known := m.from[m.parts[n].ID]
	if !known {
		return nil
	}
	return &f
}

// Opens reports whether it stands otherwise open than shut.
func (m *Model) Opens() bool { return m.shuts }

// Open is the point of the stages at which the box is made and stands open, and
// Shut the last, at which it is shut.
func (m *Model) Open() float64 {
	if m.shuts {
		return float64(len(m.Stages) - 1)
	}
	return m.Shut()
}

// Shut is the last point of the stages.
func (m *Model) Shut() float64 { return float64(len(m.Stages)) }

// between is how far apart, in mm, pieces lie while they are folded.
const between = 12

// spread lays every copy of the pieces out in rows, so that no flat one covers
// another; a piece alone stays where it stands.
func (m *Model) spread() {
	places := style.Places(m.parts, m.finished, m.finished, 1)
	type laid struct {
		part, copy int
		pose       pattern.Pose
		lo, hi     r3.Vec
	}
	var all []laid
	area := 0.0
	for i := range m.parts {
		flat, err := m.parts[i].Pattern.Fold(m.parts[i].Root, func(int) float64 { return 0 })
		for n, pose := range places[i] {
			x := laid{part: i, copy: n, pose: pose}
			x.lo, x.hi = m.finished[i].Bounds(pose)
			if err == nil {
				lo, hi := flat.Bounds(pose)
				x.lo = r3.Vec{X: min(x.lo.X, lo.X), Y: min(x.lo.Y, lo.Y), Z: min(x.lo.Z, lo.Z)}
				x.hi = r3.Vec{X: max(x.hi.X, hi.X), Y: max(x.hi.Y, hi.Y), Z: max(x.hi.Z, hi.Z)}
			}
			area += (x.hi.X - x.lo.X + between) * (x.hi.Y - x.lo.Y + between)
			all = append(all, x)
		}
	}
	m.apart = places
	if len(all) < 2 {
		return
	}
	wide := 1.3 * math.Sqrt(area)
	at, row, deepest, widest := 0.0, 0.0, 0.0, 0.0
	for i, x := range all {
		if at > 0 && at+x.hi.X-x.lo.X > wide {
			at, row, deepest = 0, row+deepest+between, 0
		}
		all[i].pose.Shift = r3.Add(x.pose.Shift, r3.Vec{X: at - x.lo.X, Y: row - x.lo.Y, Z: -x.lo.Z})
		at += x.hi.X - x.lo.X + between
		deepest, widest = max(deepest, x.hi.Y-x.lo.Y), max(widest, at-between)
	}
	for _, x := range all {
		x.pose.Shift = r3.Sub(x.pose.Shift, r3.Vec{X: widest / 2, Y: (row + deepest) / 2})
		m.apart[x.part][x.copy] = x.pose
	}
}

// Solid is one piece at one stage: its faces, and where each stands.
type Solid struct {
	Part  style.Part
	Faces []pattern.Face
	Poses []pattern.Pose
	// Residual is how far, in mm, a ring of faces is from closing.
	Residual float64
	levels   []int // the faces', when the piece is shut
	from     *From // nil leaves it plain
	pick     bool  // its faces can be pressed
}

// flapsFirst is the part of shutting in which what hinges is folded.
const flapsFirst = 0.7

// At stands every piece as it is at a point of the stages. Rings of faces are
// kept closed where the card can fold so without bending.
func (m *Model) At(at float64) ([]Solid, error) {
	folded := min(at, float64(m.folds))
	gathered := 1.0
	if m.together {
		gathered = min(1, max(0, at-float64(m.folds)))
	}
	shut := min(1, max(0, at-m.Open()))
	if !m.shuts {
		shut = 1
	}
	// Flaps are folded in before a lid comes down on them.
	hinged, lids := shut, shut
	if slices.ContainsFunc(m.parts, func(p style.Part) bool { return p.Pattern.Hinged() }) {
		hinged, lids = min(1, shut/flapsFirst), max(0, (shut-flapsFirst)/(1-flapsFirst))
	}
	forms := make([]*pattern.Folded, len(m.parts))
	for i := range m.parts {
		f, err := m.form(i, folded, hinged)
		if err != nil {
			return nil, err
		}
		forms[i] = f
	}
	open := 1 - lids
	if !m.shuts {
		open = 0
	}
	places := style.Places(m.parts, m.finished, forms, open)
	var out []Solid
	for i := range m.parts {
		for n, pose := range places[i] {
			s := Solid{Part: m.parts[i], Faces: forms[i].Faces, Residual: forms[i].Residual, levels: m.levels[i], from: m.cutFrom(i)}
			if gathered < 1 {
				pose = halfway(m.apart[i][n], pose, gathered)
			}
			for _, q := range forms[i].Poses {
				s.Poses = append(s.Poses, q.Then(pose))
			}
			out = append(out, s)
		}
	}
	return out, nil
}

// form folds a piece so far in its stages, and from open to shut by the other.
func (m *Model) form(i int, folded, shut float64) (*pattern.Folded, error) {
	p := &m.parts[i]
	open, closed := m.ends(i)
	var angles []float64
	var err error
	switch {
	case folded < float64(m.folds) && p.Via != nil:
		if at := 2 * folded / float64(m.folds); at < 1 {
			angles = straight(make([]float64, len(open)), p.Via, at)
		} else {
			angles, err = p.Way(at - 1)
		}
	case folded < float64(m.folds):
		angles, err = m.on(i, "fold", folded/float64(m.folds), m.folds*framesPerStage, make([]float64, len(open)), open, func(at float64) ([]float64, error) {
			// Pieces with fewer stages finish when the last one does.
			out := p.Pattern.Done(m.stages[i], at*float64(len(m.stages[i])))
			for k := range out {
				out[k] *= open[k]
			}
			return out, nil
		})
	case p.Way != nil && p.Via == nil && m.shuts:
		angles, err = p.Way(shut)
	default:
		angles, err = m.on(i, "shut", shut, framesPerStage, open, closed, func(at float64) ([]float64, error) {
			out, err := m.turning(i, at)
			for k := range out {
				out[k] = open[k] + (closed[k]-open[k])*out[k]
			}
			return out, err
		})
	}
	if err != nil {
		return nil, err
	}
	return p.Pattern.Fold(p.Root, func(k int) float64 { return angles[k] })
}

// straight are angles so far from some to others.
func straight(from, to []float64, at float64) []float64 {
	out := slices.Clone(from)
	for k := range out {
		out[k] += (to[k] - from[k]) * at
	}
	return out
}

// ends are the angles of a piece's creases when the box is open and when it is
// shut.
func (m *Model) ends(i int) (open, shut []float64) {
	for _, c := range m.parts[i].Pattern.Creases {
		shut = append(shut, c.Angle)
		if m.shuts && c.Hinge {
			open = append(open, c.Opened)
		} else {
			open = append(open, c.Angle)
		}
	}
	return open, shut
}

// on gives the angles of a piece's creases so far on a way of n steps: the plain
// one, if rings of faces stay closed on it, else one on which the card need not
// bend, if there is one.
func (m *Model) on(i int, way string, at float64, n int, from, to []float64, plain func(at float64) ([]float64, error)) ([]float64, error) {
	p := &m.parts[i]
	key := fmt.Sprint(way, i)
	steps, known := m.ways[key]
	for k := 1; k < n && !known && steps == nil; k++ {
		angles, err := plain(float64(k) / float64(n))
		if err != nil {
			return nil, err
		}
		open, err := p.Pattern.Bends(p.Root, angles)
		if err != nil {
			return nil, err
		}
		if open > bends {
			if steps, err = p.Pattern.Rigid(p.Root, from, to, n); err != nil {
				return nil, err
			}
		}
	}
	if m.ways == nil {
		m.ways = map[string][][]float64{}
	}
	m.ways[key] = steps
	if steps == nil {
		return plain(at)
	}
	whole := min(n-1, int(at*float64(n)))
	rest := at*float64(n) - float64(whole)
	out := slices.Clone(steps[whole])
	for k := range out {
		out[k] += (steps[whole+1][k] - out[k]) * rest
	}
	return out, nil
}

// bends is how many mm of bending of the card are not worth another way.
const bends = 0.05

// turning is how far each crease of a piece is turned from open to shut, all at
// once or in the order that matters.
func (m *Model) turning(i int, shut float64) ([]float64, error) {
	out := make([]float64, len(m.parts[i].Pattern.Creases))
	for k := range out {
		out[k] = shut
	}
	if i > 0 || len(m.order) == 0 {
		return out, nil
	}
	hinges, err := m.parts[0].Pattern.Towards(m.parts[0].Root)
	if err != nil {
		return nil, err
	}
	each := 1 / float64(len(m.order))
	for n, face := range m.order {
		if k, known := hinges[face]; known {
			out[k] = min(1, max(0, (shut-float64(n)*each)/each))
		}
	}
	return out, nil
}

// halfway is a pose between two, the turn by the shortest way.
func halfway(from, to pattern.Pose, at float64) pattern.Pose {
	a, b := quat.Number(from.Turn), quat.Number(to.Turn)
	dot := a.Real*b.Real + a.Imag*b.Imag + a.Jmag*b.Jmag + a.Kmag*b.Kmag
	if dot < 0 {
		b, dot = quat.Scale(-1, b), -dot
	}
	// Spherical interpolation of quaternions (Shoemake, 1985).
	wa, wb := 1-at, at
	if angle := math.Acos(min(1, dot)); angle > 1e-6 {
		wa, wb = math.Sin((1-at)*angle)/math.Sin(angle), math.Sin(at*angle)/math.Sin(angle)
	}
	turn := quat.Add(quat.Scale(wa, a), quat.Scale(wb, b))
	return pattern.Pose{
		Turn:  r3.Rotation(quat.Scale(1/quat.Abs(turn), turn)),
		Shift: r3.Add(r3.Scale(1-at, from.Shift), r3.Scale(at, to.Shift)),
	}
}

// Picture draws the box at a point of its stages, hidden faces hidden.
func (m *Model) Picture(title string, at float64) (*Picture, error) {
	solids, err := m.At(at)
	if err != nil {
		return nil, err
	}
	return scene(title, solids, m.plates(at >= m.Shut()), m.mats, at < float64(m.folds)), nil
}

// Look draws the whole box as pictures show it: apart, so that one sees in, or
// shut.
func (m *Model) Look(title string) (*Picture, error) { return m.Where(title) }

// Where draws the whole box with pieces or mats of it marked, by their ids;
// what is hidden of them shows as broken lines.
func (m *Model) Where(title string, ids ...string) (*Picture, error) {
	if m.looked == nil {
		open := 1.0
		if m.shown == style.Finished {
			open = 0
		}
		for i, poses := range style.Places(m.parts, m.finished, m.finished, open) {
			for _, pose := range poses {
				s := Solid{Part: m.parts[i], Faces: m.finished[i].Faces, levels: m.levels[i], from: m.cutFrom(i), pick: m.pick}
				for _, q := range m.finished[i].Poses {
					s.Poses = append(s.Poses, q.Then(pose))
				}
				m.looked = append(m.looked, s)
			}
		}
	}
	p := scene(title, m.looked, m.plates(m.shown == style.Finished), m.mats, false, ids...)
	for _, line := range m.things {
		var flat []pattern.Point
		for _, v := range line {
			flat = append(flat, project(v))
		}
		p.polygon(Hidden, flat...)
	}
	return p, nil
}

// plates are what lies on the box when it is shut.
func (m *Model) plates(shut bool) []panel {
	if !shut {
		return nil
	}
	var out []panel
	for _, l := range m.lying {
		look := l.Card.Seen()
		for _, p := range l.Plates {
			n := p.Outward()
			q := panel{normal: n, owner: l.Piece}
			for _, v := range p.Corners { // a hair off, so that it is before what it lies on
				q.points = append(q.points, r3.Add(v, r3.Scale(0.05, n)))
			}
			q.at = r3.Dot(n, q.points[0])
			if m.from != nil {
				q.fill = &Fill{Look: look, Lay: onPlate(q.points)}
			}
			out = append(out, q)
		}
	}
	return out
}

// onPlate is where the paper of a plate lies on the picture: its first side is
// the top edge.
func onPlate(corners []r3.Vec) Affine {
	x, y := r3.Sub(corners[1], corners[0]), r3.Sub(corners[len(corners)-1], corners[0])
	o := project(corners[0])
	a, b := project(r3.Add(corners[0], r3.Unit(x))), project(r3.Add(corners[0], r3.Unit(y)))
	return Affine{a.X - o.X, a.Y - o.Y, b.X - o.X, b.Y - o.Y, o.X, o.Y}
}

// Piece is the model of one of the pieces alone: made, its hinged flaps stand open, and shut as
// in the shut box. Of no such piece it is the box itself. Asked again it is the same.
func (m *Model) Piece(id string) *Model {
	if one, known := m.pieces[id]; known {
		return one
	}
	if m.pieces == nil {
		m.pieces = map[string]*Model{}
	}
	m.pieces[id] = m.alone(id)
	return m.pieces[id]
}

func (m *Model) alone(id string) *Model {
	i := slices.IndexFunc(m.parts, func(p style.Part) bool { return p.ID == id })
	if i < 0 {
		return m
	}
	p := m.parts[i]
	p.On, p.Lies, p.Away, p.Places, p.Count = nil, nil, r3.Vec{}, p.Places[:min(1, len(p.Places))], 0
	one := &Model{parts: []style.Part{p}, finished: m.finished[i : i+1], stages: m.stages[i : i+1], levels: m.levels[i : i+1], mats: m.mats, from: m.from}
	for _, s := range m.stages[i] {
		one.Stages = append(one.Stages, s.Name)
	}
	one.folds = len(one.Stages)
	if one.shuts = p.Pattern.Hinged(); one.shuts {
		one.Stages = append(one.Stages, Shutting)
		if i == 0 {
			one.order = m.order
		}
	}
	one.apart = style.Places(one.parts, one.finished, one.finished, 0)
	return one
}
