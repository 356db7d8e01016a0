package design

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/band"
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// A ribbon that goes through the card: as a handle through two opposite walls, through the top
// and back, tied over it, or as a loop out of one wall, to pull by.
const (
	ByHandle   = "handle"
	ThroughTop = "through-top"
	ByPull     = "pull"
)

// goesThrough reports whether the ribbon goes through the card and not round the box.
func (x Ribbon) goesThrough() bool {
	return x.Way == ByHandle || x.Way == ThroughTop || x.Way == ByPull
}

// Holes for ribbons: how far below a rim their middles lie, how far from the middle
// of a top, and how much wider than the ribbon they are.
const (
	holeDown = 12 * measure.Millimetre
	holeEase = 2 * measure.Millimetre
	// knotted is what each end of a handle takes inside: a knot, or a tail that a
	// strip of card hides.
	knotted = 40 * measure.Millimetre
)

// taped is the tail of a pull that is taped flat inside, at each end.
func taped(unit measure.Unit) measure.Length {
	if unit == measure.In {
		return measure.Inch
	}
	return 25 * measure.Millimetre
}

// concealed is how large the strip is that hides an end: wider than the ribbon on
// both sides, and as long as its tail.
const concealed = 8 * measure.Millimetre

// Threaded is the holes of a ribbon that goes through the card: two, or the one of a pull.
type Threaded struct {
	Piece, Words string // the piece, and the faces in words
	Holes        []Spot
	Across       measure.Length // of each hole
	Behind       bool           // of a pull: something lies behind it, to be pierced too
}

// pull reports whether it is the one hole of a pull.
func (t Threaded) pull() bool { return len(t.Holes) == 1 }

// hole is what a ribbon so wide goes through: narrow ribbon is drawn through a
// round hole as wide as half of it, folded; string through one with ease. It is the next that a
// punch of these sizes makes, and the largest for what is wider.
func (x Ribbon) hole(punches []measure.Length) measure.Length {
	for _, l := range punches {
		if l >= x.Tied.Width/2+holeEase {
			return l
		}
	}
	return punches[len(punches)-1]
}

// thread finds where the holes of a ribbon go, punches them in the piece's pattern,
// and gives the ribbon's path from hole to hole in space.
func (t *Tied) thread(x Ribbon) (Threaded, []r3.Vec, error) {
	bodies, err := t.Bodies(style.Finished)
	if err != nil {
		return Threaded{}, nil, err
	}
	var through Threaded
	var at [2]r3.Vec
	found := false
	for _, b := range bodies {
		p, known := t.part(b.Part.ID)
		if !known || found || len(b.Part.Places) > 0 {
			continue
		}
		switch {
		case x.Way == ThroughTop:
			through, at, found = throughTop(b, x, t.Inputs.punches())
		case b.Part.Opens == style.Downwards:
		case x.Way == ByPull:
			through, at, found = throughWall(bodies, b, x, t.Inputs.punches())
		default:
			through, at, found = throughWalls(b, x, t.Inputs.punches())
		}
		if found {
			through.Piece = p.ID
		}
	}
	if !found {
		return through, nil, fault.New(fault.UnknownPlace, "way", "this box has no walls, or no top, for the ribbon to go through; let it go round")
	}
	through.Across = x.hole(t.Inputs.punches())
	if err := t.punch(through); err != nil {
		return through, nil, err
	}
	if p, _ := t.part(through.Piece); through.pull() {
		through.Behind = behind(p, through.Holes[0], through.Across)
	}
	rise := r3.Vec{}
	if x.Way == ByHandle {
		rise.Z = x.Rise.MM()
	}
	return through, arch(at, rise, topOf(bodies)), nil
}

// throughWalls is the middle of two walls that look away from each other, the
// farthest apart, a little below their rims.
func throughWalls(b style.Body, x Ribbon, punches []measure.Length) (t Threaded, at [2]r3.Vec, found bool) {
	best := 0.0
	for i, f := range b.Faces {
		for k := i + 1; k < len(b.Faces); k++ {
			g := b.Faces[k]
			n, m := b.Poses[i].Normal(), b.Poses[k].Normal()
			if f.Role != pattern.Wall || g.Role != pattern.Wall || r3.Dot(n, m) > -0.99 || math.Abs(n.Z) > 0.1 {
				continue
			}
			p, q := rimSpot(&f), rimSpot(&g)
			v, w := b.Poses[i].Place(p), b.Poses[k].Place(q)
			if apart := r3.Norm(r3.Sub(v, w)); apart > best+0.5 && room(f.Polygon, p, x.hole(punches).MM()/2+2) && room(g.Polygon, q, x.hole(punches).MM()/2+2) {
				best, found = apart, true
				at = [2]r3.Vec{v, w}
				t.Holes = []Spot{{Piece: b.Part.ID, Face: f.Name, Words: f.Plain(), At: p, Outside: true}, {Piece: b.Part.ID, Face: g.Name, Words: g.Plain(), At: q, Outside: true}}
				t.Words = f.Plain() + " and " + g.Plain()
			}
		}
	}
	return t, at, found
}

// throughWall is the middle of a wall that nothing lies before when the box is shut: the front
// where it is free, or else the first that is. The loop stands straight out of it.
func throughWall(bodies []style.Body, b style.Body, x Ribbon, punches []measure.Length) (t Threaded, at [2]r3.Vec, found bool) {
	for i, f := range b.Faces {
		n := b.Poses[i].Normal()
		if f.Role != pattern.Wall && f.Role != pattern.Panel || math.Abs(n.Z) > 0.1 || found && !style.IsFront(f) {
			continue
		}
		fr := f.Frame()
		along, up := fr.Size(f.Polygon)
		p := fr.At(along/2, up/2)
		place := b.Poses[i].Place(p)
		if !room(f.Polygon, p, x.hole(punches).MM()/2+2) || before(bodies, b.Part.ID, place, n) != "" {
			continue
		}
		found, at = true, [2]r3.Vec{place, r3.Add(place, r3.Scale(x.Rise.MM(), n))}
		t.Holes, t.Words = []Spot{{Piece: b.Part.ID, Face: f.Name, Words: f.Plain(), At: p, Outside: true}}, f.Plain()
	}
	return t, at, found
}

// before names what of other pieces lies close before a place of a piece, seen from outside; ""
// where it is free.
func before(bodies []style.Body, piece string, place, n r3.Vec) string {
	for _, o := range bodies {
		for k, f := range o.Faces {
			off := r3.Dot(r3.Sub(o.Poses[k].Place(f.Polygon[0]), place), n)
			over := o.Part.ID != piece && math.Abs(r3.Dot(n, o.Poses[k].Normal())) > 0.99 && off > 0 && off < 6 &&
				pattern.Contains(f.Polygon, o.Poses[k].Flat(r3.Add(place, r3.Scale(off, n))))
			if over {
				return f.Plain() + " of the " + strings.ToLower(o.Part.Name)
			}
		}
	}
	return ""
}

// rimSpot is the middle of a wall, a little below its upper edge.
func rimSpot(f *pattern.Face) pattern.Point {
	fr := f.Frame()
	along, up := fr.Size(f.Polygon)
	return fr.At(along/2, max(up/2, up-holeDown.MM()))
}

// throughTop is two places on a top, beside its middle.
func throughTop(b style.Body, x Ribbon, punches []measure.Length) (t Threaded, at [2]r3.Vec, found bool) {
	for i, f := range b.Faces {
		n := b.Poses[i].Normal()
		if n.Z < 0.9 || f.Role == pattern.Bend || f.Role == pattern.Tab || f.Role == pattern.Lining {
			continue
		}
		fr := f.Frame()
		along, up := fr.Size(f.Polygon)
		off := max(2*x.hole(punches).MM(), x.Tied.Width.MM())
		p, q := fr.At(along/2-off, up/2), fr.At(along/2+off, up/2)
		if !room(f.Polygon, p, x.hole(punches).MM()/2+2) || !room(f.Polygon, q, x.hole(punches).MM()/2+2) {
			continue
		}
		v, w := b.Poses[i].Place(p), b.Poses[i].Place(q)
		if found && v.Z <= at[0].Z {
			continue
		}
		found, at = true, [2]r3.Vec{v, w}
		t.Holes = []Spot{{Piece: b.Part.ID, Face: f.Name, Words: f.Plain(), At: p, Outside: true}, {Piece: b.Part.ID, Face: f.Name, Words: f.Plain(), At: q, Outside: true}}
		t.Words = f.Plain()
	}
	return t, at, found
}

// punch puts the holes into the piece, on the ruler's marks.
func (t *Tied) punch(through Threaded) error {
	var all []pattern.Opening
	for _, h := range through.Holes {
		all = append(all, pattern.Opening{Kind: "hole", Face: h.Face, Loop: pattern.Circle(h.At, through.Across.MM()/2), Through: through.pull()})
	}
	return t.pierce(through.Piece, all, t.punching(through))
}

// punching is how the holes are made in the flat piece.
func (t *Tied) punching(through Threaded) []hand.Move {
	var out []hand.Move
	for _, h := range through.Holes {
		out = append(out, hand.Bite{Loops: []pattern.Loop{pattern.Circle(h.At, through.Across.MM()/2)}, Said: hand.Said{
			Key: "ribbon-hole", Lengths: map[string][]measure.Length{"across": {through.Across}},
			Phrases: map[string]hand.Said{
				"where":  {Key: "spot", Words: map[string]string{"place": h.Words, "piece": t.called(through.Piece)}},
				"middle": t.middle(h),
			},
		}})
	}
	return out
}

// topOf is how high the shut box is, in mm.
func topOf(bodies []style.Body) float64 {
	most := 0.0
	for _, b := range bodies {
		for i, f := range b.Faces {
			for _, q := range f.Polygon {
				most = max(most, b.Poses[i].Place(q).Z)
			}
		}
	}
	return most
}

// archSteps is how many straight pieces an arch is drawn in.
const archSteps = 12

// arch is a path from one place to another over a box so high: straight up from
// each, then half an oval that rises so far above it. Without a rise it is straight.
func arch(ends [2]r3.Vec, rise r3.Vec, top float64) []r3.Vec {
	if rise.Z == 0 {
		return ends[:]
	}
	out := []r3.Vec{ends[0]}
	a, b := ends[0], ends[1]
	a.Z, b.Z = top, top
	mid := r3.Scale(0.5, r3.Add(a, b))
	half := r3.Sub(b, mid)
	for k := range archSteps + 1 {
		sin, cos := math.Sincos(math.Pi * float64(k) / archSteps)
		out = append(out, r3.Add(r3.Sub(mid, r3.Scale(cos, half)), r3.Scale(sin, rise)))
	}
	return append(out, ends[1])
}

func pathLength(path []r3.Vec) float64 {
	sum := 0.0
	for i := 1; i < len(path); i++ {
		sum += r3.Norm(r3.Sub(path[i], path[i-1]))
	}
	return sum
}

// along are the plates of a ribbon that follows a path, its flat side across the
// way it goes.
func along(path []r3.Vec, wide float64) []style.Plate {
	var out []style.Plate
	side := r3.Cross(r3.Sub(path[len(path)-1], path[0]), r3.Vec{Z: 1})
	if r3.Norm(side) < 1e-9 {
		return nil
	}
	side = r3.Scale(wide/2, r3.Unit(side))
	for i := 1; i < len(path); i++ {
		if r3.Norm(r3.Sub(path[i], path[i-1])) < 1e-6 {
			continue
		}
		out = append(out, style.Plate{Thick: ribbonThick, Corners: []r3.Vec{r3.Sub(path[i-1], side), r3.Add(path[i-1], side), r3.Add(path[i], side), r3.Sub(path[i], side)}})
	}
	return out
}

// judgeHoles looks whether the holes can be where they are: clear of glue, and not
// behind a wall that comes over them.
func (t *Tied) judgeHoles(x Ribbon, through Threaded) []inspect.Finding {
	bodies, err := t.Bodies(style.Finished)
	if err != nil {
		return nil
	}
	warn := func(format string, args ...any) []inspect.Finding {
		return []inspect.Finding{{ID: "ribbon", Verdict: inspect.Warn, Piece: through.Piece, Text: fmt.Sprintf(format, args...)}}
	}
	p, _ := t.part(through.Piece)
	for _, h := range through.Holes {
		for _, b := range bodies {
			if b.Part.ID != through.Piece {
				continue
			}
			i := slices.IndexFunc(b.Faces, func(f pattern.Face) bool { return f.Name == h.Face })
			place, n := b.Poses[i].Place(h.At), b.Poses[i].Normal()
			if over := before(bodies, through.Piece, place, n); over != "" {
				return warn("The hole for the %s in the %s lies behind the %s when the box is shut: the ribbon cannot come out there. Let it go round, or make the lid shallower.",
					strings.ToLower(x.Name), h.Words, over)
			}
		}
	}
	if through.pull() { // what lies behind it is told to be pierced
		return fine(x, through)
	}
	for _, h := range through.Holes {
		for _, g := range p.Pattern.Glue {
			if !g.Dry && (g.Face == h.Face && reaches(g.Area, h.At, through.Across.MM()/2) || g.Onto == h.Face && g.Piece == "" && overTab(p, g, h, through.Across.MM()/2)) {
				return warn("A hole for the %s in the %s lies over a glued tab: pierce both, when the glue is dry.", strings.ToLower(x.Name), h.Words)
			}
		}
	}
	return fine(x, through)
}

// behind reports whether another face of the piece lies behind a hole when it is made up.
func behind(p Part, h Spot, across measure.Length) bool {
	_, _, i := p.Folded.Face(h.Face)
	ring := pattern.Circle(h.At, across.MM()/2).Flat()
	for j, f := range p.Folded.Faces {
		if j != i && f.Role != pattern.Flap && p.Folded.OverlapOf(ring, i, j) > 0.5 {
			return true
		}
	}
	return false
}

func fine(x Ribbon, through Threaded) []inspect.Finding {
	says := "The holes for the %s come through clear of glue and of other walls."
	if through.pull() {
		says = "The hole for the %s comes through clear of other pieces."
	}
	return []inspect.Finding{{ID: "ribbon", Verdict: inspect.OK, Piece: through.Piece, Text: fmt.Sprintf(says, strings.ToLower(x.Name))}}
}

// strips makes plain strips of card that go with a ribbon: told, laid out and cut
// like any piece.
func (t *Tied) strips(field, id, name string, long, wide measure.Length, card paper.Card, count int, gluing ...string) error {
	made := &pattern.Pattern{Width: long, Height: wide, Outline: pattern.Straight(pattern.Pt(0, 0), pattern.Pt(long.MM(), 0), pattern.Pt(long.MM(), wide.MM()), pattern.Pt(0, wide.MM()))}
	made.Marks = []pattern.Mark{{Name: "strip", Words: "strip", Role: pattern.Panel, At: pattern.Pt(long.MM()/2, wide.MM()/2)}}
	folded, err := made.Finished("strip")
	if err != nil {
		return err
	}
	part := style.Part{ID: id, Name: name, Pattern: made, Root: "strip", Card: card.Thickness, Opens: style.Upwards, Count: count}
	for _, text := range gluing {
		part.Own = append(part.Own, hand.Own{Kind: hand.OwnGluing, Text: text})
	}
	whole := Part{Part: part, Faces: folded.Faces, Card: card, Folded: folded, Loose: true}
	if err := t.Inputs.goesOn(whole, field, "make it shorter"); err != nil {
		return err
	}
	t.Parts = append(t.Parts, whole)
	return nil
}

// strips are the ids of the strips of card that go with a ribbon: over the ends of a handle, or
// of a bow of paper its loops and its middle.
func (x Ribbon) strips() []string {
	switch {
	case x.Way == ByHandle:
		return []string{fmt.Sprintf("conceal-%d", x.ID)}
	case !x.goesThrough() && x.Tied.Bow == band.Paper:
		return []string{fmt.Sprintf("bow-%d.loop", x.ID), fmt.Sprintf("bow-%d.middle", x.ID)}
	}
	return nil
}

// conceal makes the two strips that hide the ends of a handle inside.
func (t *Tied) conceal(i int, x Ribbon) error {
	ruler := t.Inputs.Tools.Tick.Ruler()
	wide := measure.Up(x.Tied.Width+2*concealed, ruler)
	return t.strips(fault.Path("ribbons", i, "width"), x.strips()[0], "Strip over the ribbon's end", measure.Up(knotted, ruler), wide, t.Inputs.Card, 2)
}

// bowLap is what the ends of a paper loop are lapped by: its strip is twice its
// reach, and this.
const bowLap = 10 * measure.Millimetre

// paperBow makes the strips of a bow of paper loops: so many loops, and one round
// the middle.
func (t *Tied) paperBow(i int, x Ribbon) error {
	ruler := t.Inputs.Tools.Tick.Ruler()
	card := paper.Card{Name: x.Name + " paper", GSM: 160, Thickness: 200 * measure.Micrometre, Look: paper.Look{Outside: x.Colour, Inside: x.Colour, Print: paper.Plain}}
	at := fault.Path("ribbons", i, "loop")
	if err := t.strips(at, x.strips()[0], "Bow loop", measure.Up(2*x.Tied.Loop+bowLap, ruler), x.Tied.Width, card, x.Loops,
		recipe.English.Say("bow-loop", recipe.Fields{"lap": t.Show(t.ruled(bowLap))}),
		recipe.English.Say("bow-wheel", recipe.Fields{"count": recipe.English.Number(x.Loops)})); err != nil {
		return err
	}
	return t.strips(at, x.strips()[1], "Bow middle", measure.Up(max(2*x.Tied.Width, 30*measure.Millimetre), ruler), x.Tied.Width, card, 1,
		recipe.English.Say("bow-middle", nil))
}
