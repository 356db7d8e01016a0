package pattern

import (
	"fmt"
	"math"
	"path/filepath"
	"runtime"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Builder puts a piece together from faces that touch edge to edge: where two
// share an edge they are creased, 90° away from the viewer, unless Fold, Roll
// or Slit says otherwise; every other edge is cut. From the faces it derives
// outline, creases, slits, scores, glue and marks.
//
// Corners are kept in whole nanometres, so that shared edges match exactly;
// those nearer than Snap are one corner. The first thing that goes wrong is
// kept with the line of code that did it, and Pattern reports it.
type Builder struct {
	leaves []*Leaf
	joints map[[2]*Leaf]joint
	glue   []patch
	bites  []bite
	least  [2]measure.Length // the blank's top left corner
	most   [2]measure.Length // and its lower right one, when a grid sets them
	framed bool
	tick   measure.Tick // of the ruler that it is cut with, 0 for none
	drawn  bool         // round a template
	err    error
}

// Snap is how near two corners may lie to be one.
const Snap = 2 * measure.Micrometre

// Leaf is one face of a piece in the making: what the builder gives out and
// is told of. It belongs to the builder that made it.
type Leaf struct {
	name, words string
	role        Role
	shape       []spot // clockwise as seen
	panel       *Leaf  // upwards points away from it
	hangs       bool   // no: towards it
	up          Point
	of          *Builder
	made        trail

	left, top, right, down int // in a grid's lines
}

// Name is the leaf's id.
func (l *Leaf) Name() string { return l.name }

// spot is a corner kept exact, so that shared edges match; bulge is that of
// the edge to the next.
type spot struct {
	x, y  measure.Length
	bulge float64
}

func (s spot) point() Point { return Point{s.x.MM(), s.y.MM()} }

func (s spot) at() [2]measure.Length { return [2]measure.Length{s.x, s.y} }

func spotAt(p Point) spot { return spot{x: measure.FromMM(p.X), y: measure.FromMM(p.Y)} }

type joint struct {
	slit, rolled, hinge bool
	angle, opened       float64
	side                Side
}

type patch struct {
	face, onto *Leaf
	Glue
}

// bite is a notch or a hole to be made when the outline is known.
type bite struct {
	face   *Leaf
	kind   string
	centre Point
	radius float64 // of a notch
	loop   Loop    // of a hole or window
	fault  *fault.Fault
}

// NewBuilder starts a piece without faces.
func NewBuilder() *Builder { return &Builder{joints: map[[2]*Leaf]joint{}} }

// Misbuilt is what a builder was told that cannot be, and the line of code, if any, that
// told it.
type Misbuilt struct{ Line, Text string }

func (m *Misbuilt) Error() string {
	if m.Line == "" {
		return m.Text
	}
	return m.Line + ": " + m.Text
}

// fail keeps the first fault, with the line of code outside this package that
// caused it.
func (b *Builder) fail(format string, args ...any) {
	if b.err == nil {
		var t trail
		runtime.Callers(2, t[:])
		b.err = &Misbuilt{t.String(), fmt.Sprintf(format, args...)}
	}
}

// trail is how the code came to a place; its text is the nearest line outside
// this package's own files.
type trail [5]uintptr

func (t trail) String() string {
	frames := runtime.CallersFrames(t[:])
	for {
		f, more := frames.Next()
		dir, name := filepath.Split(f.File)
		if name != "" && (filepath.Base(dir) != "pattern" || strings.HasSuffix(name, "_test.go")) {
			return fmt.Sprintf("%s:%d", name, f.Line)
		}
		if !more {
			return "pattern"
		}
	}
}

// Polygon places a face by its corners, in mm, clockwise as seen. A name that
// is there already and an outline that crosses itself are faults.
func (b *Builder) Polygon(name string, corners ...Point) *Leaf {
	l := b.leaf(name)
	for _, c := range corners {
		l.shape = append(l.shape, b.snapped(spotAt(c)))
	}
	b.sound(l)
	return l
}

// sound makes a face that cannot be a fault.
func (b *Builder) sound(l *Leaf) {
	if flat := l.polygon(); len(flat) < 3 || Area(flat) <= Tolerance || Crosses(flat) {
		b.fail("the face %q has no area, runs against the clock or crosses itself", l.name)
	}
}

func (b *Builder) leaf(name string) *Leaf {
	l := &Leaf{name: name, role: Wall, of: b}
	if b.find(name) != nil {
		b.fail("there is a face %q already", name)
	}
	runtime.Callers(2, l.made[:])
	b.leaves = append(b.leaves, l)
	return l
}

func (b *Builder) find(name string) *Leaf {
	for _, l := range b.leaves {
		if l.name == name {
			return l
		}
	}
	return nil
}

// snapped gives a corner already there, when one is nearer than Snap.
func (b *Builder) snapped(s spot) spot {
	for _, l := range b.leaves {
		for _, o := range l.shape {
			if (o.x-s.x).Abs() <= Snap && (o.y-s.y).Abs() <= Snap {
				return spot{x: o.x, y: o.y, bulge: s.bulge}
			}
		}
	}
	return s
}

// Step is one side of a face that is told side by side: turn right by so many
// degrees, then go so many mm.
type Step struct{ Turn, Length float64 }

// Beside hinges a face on the given edge of another (edge i runs from its
// corner i to the next): from the edge's own start it goes the steps, and back
// to the edge's end. A rectangle d deep on an edge is {90, d}, {90, edge}.
func (b *Builder) Beside(on *Leaf, edge int, name string, steps ...Step) *Leaf {
	if !b.mine(on) {
		return b.leaf(name)
	}
	if edge < 0 || edge >= len(on.shape) {
		b.fail("the face %q has no edge %d", on.name, edge)
		return b.leaf(name)
	}
	from, to := on.shape[edge].point(), on.shape[(edge+1)%len(on.shape)].point()
	corners := []Point{to, from}
	heading := from.Sub(to).Scale(1 / from.Sub(to).Len())
	at := from
	for _, s := range steps {
		sin, cos := math.Sincos(s.Turn * math.Pi / 180)
		heading = Point{heading.X*cos - heading.Y*sin, heading.X*sin + heading.Y*cos}
		at = at.Add(heading.Scale(s.Length))
		corners = append(corners, at)
	}
	return b.Polygon(name, corners...)
}

// Share is one part of a face that is divided: its corners by fractions of
// the face's bounds, from the top left, clockwise. Rise is how far in mm the
// edge from a corner to the next stands out as an arc, negative inwards; none
// where all edges are straight. Where two parts meet in an arc they are cut
// apart. A part without a name is cut away.
type Share struct {
	Name string
	At   []Point
	Rise map[int]float64
}

// Divide replaces a rectangular face by parts of it. An arc is at most half a
// circle.
func (b *Builder) Divide(l *Leaf, shares ...Share) []*Leaf {
	if !b.mine(l) {
		return make([]*Leaf, len(shares))
	}
	lo, hi := Bounds(l.polygon())
	b.leaves = slices.DeleteFunc(b.leaves, func(x *Leaf) bool { return x == l })
	var out []*Leaf
	for _, s := range shares {
		if s.Name == "" {
			continue
		}
		var corners []Point
		for _, f := range s.At {
			corners = append(corners, Point{lo.X + f.X*(hi.X-lo.X), lo.Y + f.Y*(hi.Y-lo.Y)})
		}
		part := b.leaf(s.Name)
		for _, c := range corners {
			part.shape = append(part.shape, b.snapped(spotAt(c)))
		}
		for i, rise := range s.Rise {
			chord := corners[(i+1)%len(corners)].Sub(corners[i]).Len()
			if chord <= Tolerance || math.Abs(rise) > chord/2+Tolerance {
				b.fail("the arc of %q rises by more than half its chord", s.Name)
				return out
			}
			part.shape[i].bulge = 2 * rise / chord
		}
		b.sound(part)
		part.role, part.up, part.panel = l.role, l.up, l.panel
		part.left, part.top, part.right, part.down = l.left, l.top, l.right, l.down
		out = append(out, part)
	}
	return out
}

// On is the point of a face by fractions of its bounds from the top left, in mm.
func (b *Builder) On(l *Leaf, at Point) Point {
	if !b.mine(l) {
		return Point{}
	}
	lo, hi := Bounds(l.polygon())
	return Point{lo.X + at.X*(hi.X-lo.X), lo.Y + at.Y*(hi.Y-lo.Y)}
}

// mine reports whether a leaf is one of this builder's; one that is not is a
// fault.
func (b *Builder) mine(leaves ...*Leaf) bool {
	for _, l := range leaves {
		if l == nil || l.of != b || !slices.Contains(b.leaves, l) {
			name := "nothing"
			if l != nil {
				name = l.name
			}
			b.fail("%q is no face of this piece", name)
			return false
		}
	}
	return true
}

// CutOn gives the tick of the ruler that the piece is cut with. A blank that
// follows from its faces has its sides rounded up to it; a grid's tabs and
// tapers, which are free, are rounded down.
func (b *Builder) CutOn(tick measure.Tick) { b.tick = tick }

// ByTemplate says that the piece is drawn round its template: no line of it is scored by the board,
// however it runs.
func (b *Builder) ByTemplate() { b.drawn = true }

// Role says what faces are for; a face is a Wall until told.
func (b *Builder) Role(role Role, leaves ...*Leaf) {
	if b.mine(leaves...) {
		for _, l := range leaves {
			l.role = role
		}
	}
}

// Call gives a face the plain words a person knows it by.
func (b *Builder) Call(l *Leaf, words string) {
	if b.mine(l) {
		l.words = words
	}
}

// Up says that on each face the finished box's upwards points away from the
// panel, across the edge they share.
func (b *Builder) Up(panel *Leaf, leaves ...*Leaf) {
	if b.mine(append(leaves, panel)...) {
		for _, l := range leaves {
			l.panel = panel
		}
	}
}

// Hang says that on each face upwards points towards the panel: a lid's walls hang from it.
func (b *Builder) Hang(panel *Leaf, leaves ...*Leaf) {
	b.Up(panel, leaves...)
	if b.mine(leaves...) {
		for _, l := range leaves {
			l.hangs = true
		}
	}
}

// Upwards says which way, on the flat, is up on the finished box.
func (b *Builder) Upwards(up Point, leaves ...*Leaf) {
	if b.mine(leaves...) {
		for _, l := range leaves {
			l.up = up
		}
	}
}

// Slit cuts between two neighbours.
func (b *Builder) Slit(x, y *Leaf) { b.join(x, y, joint{slit: true}) }

// Fold creases between two neighbours to an angle other than 90°.
func (b *Builder) Fold(x, y *Leaf, degrees float64, side Side) {
	b.join(x, y, joint{angle: degrees, side: side})
}

// Roll bends two neighbours to an angle over an edge or a pencil; the line
// between them is not scored.
func (b *Builder) Roll(x, y *Leaf, degrees float64, side Side) {
	b.join(x, y, joint{rolled: true, angle: degrees, side: side})
}

// Hinge is a fold that is opened to get in: away to degrees when the box is
// shut, to opened when it is open.
func (b *Builder) Hinge(x, y *Leaf, degrees, opened float64) {
	b.join(x, y, joint{hinge: true, angle: degrees, opened: opened, side: Away})
}

func (b *Builder) join(x, y *Leaf, j joint) {
	if b.mine(x, y) {
		b.joints[pair(x, y)] = j
	}
}

func pair(x, y *Leaf) [2]*Leaf {
	if x.name > y.name {
		x, y = y, x
	}
	return [2]*Leaf{x, y}
}

// Glue puts adhesive on the whole of a face, outside or inside, to land on
// the inside of another.
func (b *Builder) Glue(face *Leaf, outside bool, onto *Leaf) {
	b.stick(face, onto, Glue{Outside: outside})
}

// Over puts adhesive on the inside of a face, to land on another's outside.
func (b *Builder) Over(face, onto *Leaf) { b.stick(face, onto, Glue{OntoOutside: true}) }

// Tuck says that a face lies inside another, its outside to it, dry.
func (b *Builder) Tuck(face, onto *Leaf) { b.stick(face, onto, Glue{Outside: true, Dry: true}) }

// TuckApart tucks a face in where it stands by its sizes so many mm from the other, middle to
// middle of the card.
func (b *Builder) TuckApart(face, onto *Leaf, play float64) {
	b.stick(face, onto, Glue{Outside: true, Dry: true, Play: play})
}

// Within says that a face lies inside another, inside to inside, dry.
func (b *Builder) Within(face, onto *Leaf) { b.stick(face, onto, Glue{Dry: true}) }

// Lap says that a face lies over the outside of another, dry.
func (b *Builder) Lap(face, onto *Leaf) { b.stick(face, onto, Glue{OntoOutside: true, Dry: true}) }

func (b *Builder) stick(face, onto *Leaf, g Glue) {
	if b.mine(face, onto) {
		b.glue = append(b.glue, patch{face, onto, g})
	}
}

// Against says that a face is laid back onto the outside of another with its
// own outside: glued there, or dry.
func (b *Builder) Against(face, onto *Leaf, dry bool) {
	b.stick(face, onto, Glue{Outside: true, OntoOutside: true, Dry: dry})
}

// Apart puts adhesive on a face that stands by its sizes a play of so many mm
// from the inside of the face it is glued to: other layers come between.
func (b *Builder) Apart(face *Leaf, outside bool, onto *Leaf, play float64) {
	b.stick(face, onto, Glue{Outside: outside, Play: play})
}

// Elsewhere puts adhesive on a face that lands on another piece: on the
// inside, or the outside, of its face onto; nil is whichever it meets.
func (b *Builder) Elsewhere(face *Leaf, outside bool, piece string, onto *Leaf, ontoOutside bool) {
	if !b.mine(face) {
		return
	}
	g := Glue{Outside: outside, Piece: piece, OntoOutside: ontoOutside}
	if onto != nil {
		g.Onto = onto.name
	}
	b.glue = append(b.glue, patch{face, nil, g})
}

// ElsewhereApart does so where the face stands by its sizes so many mm from the other, middle to
// middle of the card.
func (b *Builder) ElsewhereApart(face *Leaf, outside bool, piece string, onto *Leaf, play float64) {
	b.Elsewhere(face, outside, piece, onto, false)
	if n := len(b.glue); n > 0 {
		b.glue[n-1].Play = play
	}
}

// Notch bites a half circle out of the outline where a face has a straight
// edge, its centre on it, mm. What does not fit is the given fault.
func (b *Builder) Notch(face *Leaf, centre Point, radius float64, otherwise *fault.Fault) {
	if b.mine(face) {
		b.bites = append(b.bites, bite{face: face, kind: "notch", centre: centre, radius: radius, fault: otherwise})
	}
}

// Hole cuts an opening out of a face.
func (b *Builder) Hole(face *Leaf, kind string, loop Loop) {
	if b.mine(face) {
		b.bites = append(b.bites, bite{face: face, kind: kind, loop: loop})
	}
}

// Drawn is a face by itself, as it lies flat.
type Drawn struct {
	Name    string
	Polygon []Point
}

// Drawn are the faces so far, whether or not they make a piece.
func (b *Builder) Drawn() []Drawn {
	var out []Drawn
	for _, l := range b.leaves {
		out = append(out, Drawn{l.name, l.polygon()})
	}
	return out
}

func (l *Leaf) loop() Loop {
	out := make(Loop, 0, len(l.shape))
	for _, s := range l.shape {
		out = append(out, Vertex{s.point(), s.bulge})
	}
	return out
}

func (l *Leaf) polygon() []Point { return l.loop().Flat() }
