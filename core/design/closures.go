package design

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Closure holds the box shut, or opens it again, at a place where one face comes
// to lie on another. Across is how far to the right of the middle it goes, as one
// looks at the face that closes; two go as far to either side.
type Closure struct {
	ID     int
	Kind   ClosureKind
	Pairs  int
	Across measure.Length
	// Wide is how wide it is, or across, and Thick each half of it; 0 is as it is bought as a rule.
	Wide, Thick measure.Length
}

// ClosureKind is what holds.
type ClosureKind string

// What holds: a pair of magnets under the papers; hook-and-loop; a removable dot; a
// brad through both; a strip of tape that comes off again; a clip over the edge.
const (
	Magnets ClosureKind = "magnets"
	Hooks   ClosureKind = "hook-and-loop"
	Dot     ClosureKind = "dot"
	Brad    ClosureKind = "brad"
	Tape    ClosureKind = "tape"
	Clip    ClosureKind = "clip"
)

// ClosureKinds lists them in the order they are offered.
var ClosureKinds = []ClosureKind{Magnets, Hooks, Dot, Brad, Tape, Clip}

// closureSizes are those of what holds, as it is bought as a rule: how wide it is, and how
// thick each of its halves.
var closureSizes = map[ClosureKind]struct{ wide, thick measure.Length }{
	Magnets: {10 * measure.Millimetre, measure.Millimetre}, Hooks: {12 * measure.Millimetre, 3 * measure.Millimetre / 2},
	Dot: {8 * measure.Millimetre, measure.Millimetre / 4}, Brad: {8 * measure.Millimetre, measure.Millimetre / 2},
	Tape: {12 * measure.Millimetre, measure.Millimetre / 20}, Clip: {12 * measure.Millimetre, 3 * measure.Millimetre / 2},
}

// Sized is the closure with the sizes that it is bought in where none are said.
func (c Closure) Sized() Closure {
	c.Wide, c.Thick = cmp.Or(c.Wide, closureSizes[c.Kind].wide), cmp.Or(c.Thick, closureSizes[c.Kind].thick)
	return c
}

// Limits of what holds, and how thick a pair may be before a flap bulges over it.
const (
	leastClosure = 3 * measure.Millimetre
	mostClosure  = 40 * measure.Millimetre
	thickestHalf = 6 * measure.Millimetre
	flatEnough   = 3 * measure.Millimetre
)

// MostClosures is how many kinds of closure a box has at most, and mostPairs how
// many of one.
const (
	MostClosures = 4
	mostPairs    = 2
)

// Seat is a place where two faces of the shut box lie on one another, told on both
// flat pieces.
type Seat struct {
	Closing, On Spot
	// Apart is how far the two faces' middles lie from one another, in mm.
	Apart float64
}

// Spot is a place on a face of a flat piece, from its blank's top left corner, and
// the side of the card it is on.
type Spot struct {
	Piece, Face, Words string
	At                 pattern.Point
	Outside            bool
}

type closureFile struct {
	ID     int          `json:"id,omitempty"`
	Kind   string       `json:"kind"`
	Pairs  int          `json:"pairs,omitempty"`
	Across measure.Text `json:"across,omitempty"`
	Wide   measure.Text `json:"wide,omitempty"`
	Thick  measure.Text `json:"thick,omitempty"`
}

func (r *reader) closures(all []closureFile) {
	for i, f := range all {
		at := func(part string) string { return fault.Path("closures", i, part) }
		r.in.Closures = append(r.in.Closures, Closure{ID: f.ID, Kind: ClosureKind(f.Kind), Pairs: max(1, f.Pairs), Across: r.length(at("across"), f.Across, 0),
			Wide: r.length(at("wide"), f.Wide, 0), Thick: r.length(at("thick"), f.Thick, 0)})
	}
}

func writeClosure(c Closure) closureFile {
	f := closureFile{ID: c.ID, Kind: string(c.Kind), Pairs: c.Pairs, Across: mmText(c.Across)}
	if c.Wide > 0 {
		f.Wide = mmText(c.Wide)
	}
	if c.Thick > 0 {
		f.Thick = mmText(c.Thick)
	}
	return f
}

func checkClosures(in *Inputs) error {
	if len(in.Closures) > MostClosures {
		return fault.New(fault.CountRange, "closures", "a box has at most %d kinds of closure", MostClosures)
	}
	for i, c := range in.Closures {
		at := func(part string) string { return fault.Path("closures", i, part) }
		switch {
		case !slices.Contains(ClosureKinds, c.Kind):
			return fault.New(fault.UnknownChoice, at("kind"), "a box is closed by one of %v", ClosureKinds)
		case c.Wide != 0 && (c.Wide < leastClosure || c.Wide > mostClosure):
			return fault.New(fault.OutOfRange, at("wide"), "what holds a flap is %s to %s wide; 0 is as usual", in.show(leastClosure), in.show(mostClosure))
		case c.Thick < 0 || c.Thick > thickestHalf:
			return fault.New(fault.OutOfRange, at("thick"), "each half of what holds a flap is up to %s thick; 0 is as usual", in.show(thickestHalf))
		case c.Pairs < 1 || c.Pairs > mostPairs:
			return fault.New(fault.CountRange, at("pairs"), "one in the middle, or two beside it")
		case c.Pairs == 2 && c.Across <= 0:
			return fault.New(fault.OutOfRange, at("across"), "two go as far as this to either side of the middle: more than nothing")
		}
	}
	return nil
}

// Seats are the places where what is hinged lies on something else when the box is
// shut: for each flap the one nearest to its free edge, so far to the right of its
// middle. The widest flap comes first.
func (b *Built) Seats(across, wide float64) ([]Seat, error) {
	bodies, err := b.Bodies(style.Finished)
	if err != nil {
		return nil, err
	}
	type found struct {
		Seat
		area float64
	}
	var all []found
	for _, o := range bodies {
		for i, f := range o.Faces {
			hinge, hinged := hingeOf(o.Part.Pattern, &f)
			if f.Role != pattern.Flap || !hinged {
				continue
			}
			for _, in := range []float64{wide/2 + 3, wide, 1.5 * wide} {
				at, ok := onFlap(&f, hinge, across, in)
				if !ok || !room(f.Polygon, at, wide/2) {
					continue
				}
				if s, lies := seat(bodies, o, i, at, wide); lies {
					all = append(all, found{s, f.Area()})
					break
				}
			}
		}
	}
	slices.SortStableFunc(all, func(a, b found) int { return cmp.Compare(b.area, a.area) })
	var out []Seat
	for _, f := range all {
		out = append(out, f.Seat)
	}
	return out, nil
}

// hingeOf is the longest crease that a face hangs by.
func hingeOf(p *pattern.Pattern, f *pattern.Face) (pattern.Segment, bool) {
	longest := pattern.Segment{}
	for i, a := range f.Polygon {
		s := pattern.Segment{A: a, B: f.Polygon[(i+1)%len(f.Polygon)]}
		mid := a.Add(s.B.Sub(a).Scale(0.5))
		on := slices.ContainsFunc(p.Creases, func(c pattern.Crease) bool {
			d := c.B.Sub(c.A)
			return math.Abs(mid.Sub(c.A).Cross(d)) < 0.01*d.Len() && mid.Sub(c.A).Dot(d) >= 0 && mid.Sub(c.B).Dot(d) <= 0
		})
		if on && s.B.Sub(s.A).Len() > longest.B.Sub(longest.A).Len() {
			longest = s
		}
	}
	return longest, longest.B.Sub(longest.A).Len() > 1
}

// layered is where a flat point of a face comes to lie: in the middle of its card,
// on the layer it has in the shut box.
func layered(b style.Body, i int, q pattern.Point) r3.Vec {
	return r3.Add(b.Poses[i].Place(q), r3.Scale(float64(b.Levels[i])*b.Part.Card.MM(), b.Poses[i].Normal()))
}

// onFlap is the place on a flap so far in from its free edge and to the right of
// its middle, as one looks at its outside with the hinge at the top.
func onFlap(f *pattern.Face, hinge pattern.Segment, across, in float64) (pattern.Point, bool) {
	d := hinge.B.Sub(hinge.A)
	along := d.Scale(1 / d.Len())
	away := pattern.Pt(-along.Y, along.X)
	mid := hinge.A.Add(d.Scale(0.5))
	deep := 0.0
	for _, q := range f.Polygon {
		if far := q.Sub(mid).Dot(away); math.Abs(far) > math.Abs(deep) {
			deep = far
		}
	}
	if math.Abs(deep) < in {
		return pattern.Point{}, false
	}
	at := mid.Add(away.Scale(deep - math.Copysign(in, deep)))
	right := along
	if away.Scale(deep).Cross(along) > 0 { // with y down, right of what hangs
		right = along.Scale(-1)
	}
	return at.Add(right.Scale(across)), true
}

// room reports whether a round thing about a place lies within a face.
func room(polygon []pattern.Point, at pattern.Point, radius float64) bool {
	for k := range 12 {
		sin, cos := math.Sincos(math.Pi * float64(k) / 6)
		if !pattern.Contains(polygon, at.Add(pattern.Pt(cos, sin).Scale(radius))) {
			return false
		}
	}
	return true
}

// seat finds what the place on a face lies on: the nearest face that looks along
// or against it and is not folded onto it.
func seat(bodies []style.Body, b style.Body, i int, at pattern.Point, wide float64) (Seat, bool) {
	const near = 6.0
	place, n := layered(b, i, at), b.Poses[i].Normal()
	best := Seat{Apart: near}
	for _, o := range bodies {
		for k, g := range o.Faces {
			if o.Part.ID == b.Part.ID && k == i || g.Role == pattern.Bend {
				continue
			}
			m := o.Poses[k].Normal()
			if math.Abs(r3.Dot(n, m)) < 0.99 {
				continue
			}
			off := r3.Dot(r3.Sub(layered(o, k, g.Polygon[0]), place), n)
			on := o.Poses[k].Flat(r3.Add(place, r3.Scale(off, n)))
			if math.Abs(off) >= best.Apart || !room(g.Polygon, on, wide/2) {
				continue
			}
			best = Seat{
				Closing: Spot{b.Part.ID, b.Faces[i].Name, b.Faces[i].Plain(), at, off > 0},
				On:      Spot{o.Part.ID, g.Name, g.Plain(), on, r3.Dot(n, m)*off < 0},
				Apart:   math.Abs(off),
			}
		}
	}
	return best, best.Apart < near
}

// Closed is a closure worked out: its places, and what is thick between them.
type Closed struct {
	Closure
	Seats []Seat
}

// shutBy places the closures and looks whether they can be there.
func (d *Dressed) shutBy() error {
	for i, c := range d.Inputs.Closures {
		c = c.Sized()
		done := Closed{Closure: c}
		ways := []float64{c.Across.MM()}
		if c.Pairs == 2 {
			ways = append(ways, -c.Across.MM())
		}
		for _, across := range ways {
			seats, err := d.Seats(across, c.Wide.MM())
			if err != nil {
				return err
			}
			if len(seats) == 0 {
				return fault.New(fault.UnknownPlace, fault.Path("closures", i, "across"), "there no flap of this box comes to lie on anything; a band or a ribbon keeps it shut")
			}
			done.Seats = append(done.Seats, seats[0])
		}
		d.Closures = append(d.Closures, done)
		for _, s := range done.Seats {
			d.judged = append(d.judged, d.judge(c, s)...)
		}
	}
	return nil
}

// held puts what was chosen to hold the box in the place of what its style is held by: a
// closure, or else a band or a ribbon that goes round. What is a part of the box, a fit or
// a tucked flap, goes on holding.
func (d *Dressed) held() {
	if !d.Box.Shut.Added() {
		return
	}
	by := style.StaysOpen
	for _, x := range d.Ribbons {
		if !x.goesThrough() {
			by = style.ByRibbon
		}
	}
	if len(d.Bands) > 0 {
		by = style.ByBand
	}
	if len(d.Closures) > 0 {
		by = map[ClosureKind]style.Shut{
			Magnets: style.ByMagnet, Hooks: style.ByHook, Dot: style.ByDot, Brad: style.ByBrad, Tape: style.ByRestick, Clip: style.ByClip,
		}[d.Closures[0].Kind]
	}
	if by != style.StaysOpen {
		box := *d.Box
		box.Shut = by
		d.Box, d.Held = &box, true
	}
}

// judge looks at one place of a closure.
func (d *Dressed) judge(c Closure, s Seat) []inspect.Finding {
	var out []inspect.Finding
	warn := func(piece, format string, args ...any) {
		out = append(out, inspect.Finding{ID: "closure", Verdict: inspect.Warn, Piece: piece, Text: fmt.Sprintf(format, args...)})
	}
	half := c.Wide.MM() / 2
	for _, x := range []Spot{s.Closing, s.On} {
		p, known := d.part(x.Piece)
		if !known {
			continue
		}
		for _, g := range p.Pattern.Glue {
			over := !g.Dry && (g.Face == x.Face && reaches(g.Area, x.At, half) || g.Onto == x.Face && g.Piece == "" && slices.ContainsFunc(p.Faces, func(f pattern.Face) bool { return f.Name == g.Face }) && overTab(p, g, x, half))
			if over && c.Kind != Dot && c.Kind != Tape && c.Kind != Clip {
				warn(x.Piece, "The %s on the %s lies over a glued tab, which is thicker there: it stands out, and its other half meets it aslant. Put it further across.", c.Kind, x.Words)
				break
			}
		}
	}
	if pair := 2 * c.Thick; (c.Kind == Magnets || c.Kind == Hooks) && pair > flatEnough {
		warn(s.Closing.Piece, "The two halves of the %s are %s thick together: the %s bulges over them. Take thinner ones.", c.Kind, d.bought(pair), s.Closing.Words)
	}
	if c.Kind == Brad && len(d.Inputs.Things) > 0 {
		warn(s.On.Piece, "The brad's legs lie inside against what is in the box and can scratch it: glue a strip of card over them.")
	}
	for _, b := range d.Bands {
		if d.hides(b, s) {
			warn(s.Closing.Piece, "The %s lies over the %s: it opens only when that is slid off. Put one of them further across.", strings.ToLower(b.Name), c.Kind)
		}
	}
	if len(out) == 0 {
		out = append(out, inspect.Finding{ID: "closure", Verdict: inspect.OK, Piece: s.Closing.Piece,
			Text: fmt.Sprintf("The %s: the %s comes to lie on the %s there, clear of glue.", c.Kind, s.Closing.Words, s.On.Words)})
	}
	return out
}

// reaches reports whether a round thing about a place meets an area.
func reaches(area []pattern.Point, at pattern.Point, radius float64) bool {
	if pattern.Contains(area, at) {
		return true
	}
	for k := range 12 {
		sin, cos := math.Sincos(math.Pi * float64(k) / 6)
		if pattern.Contains(area, at.Add(pattern.Pt(cos, sin).Scale(radius))) {
			return true
		}
	}
	return false
}

// overTab reports whether a tab that is glued onto a face lies where a spot of the
// face is, in the finished piece.
func overTab(p Part, g pattern.Glue, x Spot, half float64) bool {
	tab := slices.IndexFunc(p.Folded.Faces, func(f pattern.Face) bool { return f.Name == g.Face })
	face := slices.IndexFunc(p.Folded.Faces, func(f pattern.Face) bool { return f.Name == x.Face })
	if tab < 0 || face < 0 {
		return false
	}
	at := p.Folded.Poses[tab].Flat(p.Folded.Poses[face].Place(x.At))
	return reaches(g.Area, at, half)
}

// hides reports whether a band lies over a place.
func (d *Dressed) hides(b Banded, s Seat) bool {
	bodies, err := d.Bodies(style.Finished)
	if err != nil {
		return false
	}
	for _, body := range bodies {
		for i, f := range body.Faces {
			if body.Part.ID != s.Closing.Piece || f.Name != s.Closing.Face {
				continue
			}
			v := body.Poses[i].Place(s.Closing.At)
			axis := slices.Index(BandAxes, b.Axis)
			at := b.At.MM()
			on := []float64{v.X, v.Y, v.Z}[axis]
			if axis == style.AlongHeight {
				on -= d.Outside.Height.MM() / 2
			} else {
				at *= style.Back(bodies)
			}
			return math.Abs(on-at) < b.Width.MM()/2
		}
	}
	return false
}
