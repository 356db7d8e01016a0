package stylefile

import (
	"brevium/core/fault"
	"brevium/core/pattern"
)

// What a cell can be besides a rectangle or a tab, and what is cut out of it.
type (
	// divide parts a face by lines between points.
	divide struct {
		Face string  `json:"face"`
		Into []share `json:"into"`
	}
	// share is a part of a face: its corners, clockwise, by fractions of the face from
	// its top left corner. One that is called "." is cut away.
	share struct {
		Name string      `json:"name"`
		At   [][2]string `json:"at"`
		Arcs []arc       `json:"arcs,omitempty"`
	}
	// arc bends the edge from a corner of a part, counted from 1, to the next: it stands
	// out by its rise in the middle, or in where that is less than nothing.
	arc struct {
		From int    `json:"from"`
		Rise string `json:"rise"`
	}
	// round cuts the free corners of a face to quarter circles of a radius, or ends it in
	// an arc that rises by so much.
	round struct {
		Face   string `json:"face"`
		On     string `json:"on"`
		Radius string `json:"radius,omitempty"`
		Rise   string `json:"rise,omitempty"`
	}
	// bite is a half circle out of an edge, or a round hole, its centre by fractions of
	// the face.
	bite struct {
		Face   string    `json:"face"`
		At     [2]string `json:"at"`
		Radius string    `json:"radius"`
	}
)

const mostCorners = 12

// arcPlay is how far, in mm, an arc may reach over its face's edge by rounding.
const arcPlay = 1e-3

// away is what a part of a face is called that is cut away.
const away = "."

// book has formulas ready, by their text.
type book map[string]formula

// ready compiles formulas; a fault is at the field.
func (b book) ready(field string, names []string, texts ...string) error {
	for _, text := range texts {
		if _, there := b[text]; there {
			continue
		}
		f, err := compile(text, names)
		if err != nil {
			return fault.At(field, err)
		}
		b[text] = f
	}
	return nil
}

// readyShapes compiles the formulas of a piece's shapes.
func (p piece) readyShapes(b book, names []string) error {
	for i, d := range p.Divide {
		at := fault.Path("divide", i)
		if len(d.Into) < 2 || len(d.Into) > mostCorners {
			return fault.New(fault.CountRange, fault.Path(at, "into"), "a face is divided into 2 to %d", mostCorners)
		}
		for k, s := range d.Into {
			at := fault.Path(fault.Path(at, "into"), k)
			if len(s.At)+min(1, len(s.Arcs)) < 3 || len(s.At) > mostCorners {
				return fault.New(fault.CountRange, fault.Path(at, "at"), "a face has 3 to %d corners, or 2 and an arc", mostCorners)
			}
			for _, c := range s.At {
				if err := b.ready(fault.Path(at, "at"), names, c[:]...); err != nil {
					return err
				}
			}
			for n, a := range s.Arcs {
				at := fault.Path(fault.Path(at, "arcs"), n)
				if a.From < 1 || a.From > len(s.At) {
					return fault.New(fault.OutOfRange, fault.Path(at, "from"), "an arc begins at one of the %d corners of its part, counted from 1", len(s.At))
				}
				if err := b.ready(fault.Path(at, "rise"), names, a.Rise); err != nil {
					return err
				}
			}
		}
	}
	for i, r := range p.Rounds {
		field, text := r.formula()
		if err := b.ready(fault.Path(fault.Path("rounds", i), field), names, text); err != nil {
			return err
		}
	}
	for _, cut := range p.bites() {
		for i, x := range cut.all {
			at := fault.Path(cut.field, i)
			if err := b.ready(fault.Path(at, "at"), names, x.At[:]...); err != nil {
				return err
			}
			if err := b.ready(fault.Path(at, "radius"), names, x.Radius); err != nil {
				return err
			}
		}
	}
	if _, known := facings[p.Opens]; !known {
		return fault.New(fault.UnknownChoice, "opens", "%q is no way to stand; use upwards, or upright for a tube whose root is a wall", p.Opens)
	}
	for way := range p.Upwards {
		if _, known := upwards[way]; !known {
			return fault.New(fault.UnknownChoice, fault.Path("upwards", way), "%q is no direction on the sheet; use up, down, left or right", way)
		}
	}
	if p.Stands != "" {
		if err := b.ready("stands", names, p.Stands); err != nil {
			return err
		}
	}
	if p.Lifts != "" {
		return b.ready("lifts", names, p.Lifts)
	}
	return nil
}

// upwards are directions on the sheet that are upwards on the box.
var upwards = map[string]pattern.Point{"up": {Y: -1}, "down": {Y: 1}, "left": {X: -1}, "right": {X: 1}}

// formula is what a round goes by: its rise where it has one, else its radius.
func (r round) formula() (field, text string) {
	if r.Rise != "" {
		return "rise", r.Rise
	}
	return "radius", r.Radius
}

// bites are the notches and holes of a piece.
func (p piece) bites() []bitten {
	return []bitten{{"notches", p.Notches, false}, {"holes", p.Holes, true}}
}

type bitten struct {
	field string
	all   []bite
	hole  bool
}

// shape divides, rounds and bites the faces of a piece, whose formulas are worked out
// with sizes in mm.
func (p made) shape(g *pattern.Grid, sizes map[string]float64) error {
	for i, r := range p.Rounds {
		field, text := r.formula()
		l, err := p.book[text].length(sizes)
		if err != nil {
			return fault.At(fault.Path("rounds", i), err)
		}
		if field == "rise" {
			g.Arch(g.Face(r.Face), g.Face(r.On), l)
		} else {
			g.Round(g.Face(r.Face), g.Face(r.On), l)
		}
	}
	for i, d := range p.Divide {
		face := g.Face(d.Face)
		var shares []pattern.Share
		for _, s := range d.Into {
			one, err := p.share(s, func(at pattern.Point) pattern.Point { return g.On(face, at) }, sizes)
			if err != nil {
				return fault.At(fault.Path("divide", i), err)
			}
			shares = append(shares, one)
		}
		g.Divide(face, shares...)
	}
	for _, cut := range p.bites() {
		for i, x := range cut.all {
			at, err := p.point(x.At, sizes)
			if err != nil {
				return fault.At(fault.Path(cut.field, i), err)
			}
			radius, err := p.book[x.Radius].number(sizes)
			if err == nil && radius <= 0 {
				err = fault.New(fault.OutOfRange, "", "%q comes to nothing; a radius is more than that", x.Radius)
			}
			if err != nil {
				return fault.At(fault.Path(cut.field, i), err)
			}
			face := g.Face(x.Face)
			centre := g.On(face, at)
			if cut.hole {
				g.Hole(face, "hole", pattern.Circle(centre, radius))
			} else {
				g.Notch(face, centre, radius, fault.New(fault.OutOfRange, fault.Path(cut.field, i), "the notch does not fit in the edge of %q; make it smaller", x.Face))
			}
		}
	}
	return nil
}

// point works out a point by fractions of a face.
func (p made) point(c [2]string, sizes map[string]float64) (pattern.Point, error) {
	x, err := p.book[c[0]].number(sizes)
	if err != nil {
		return pattern.Point{}, err
	}
	y, err := p.book[c[1]].number(sizes)
	return pattern.Point{X: x, Y: y}, err
}

// share works out a part of a face, on which on finds points by fractions of it.
func (p made) share(s share, on func(pattern.Point) pattern.Point, sizes map[string]float64) (pattern.Share, error) {
	out := pattern.Share{Name: s.Name, Rise: map[int]float64{}}
	if s.Name == away {
		out.Name = ""
	}
	for _, c := range s.At {
		at, err := p.point(c, sizes)
		if err == nil && (min(at.X, at.Y) < -1e-9 || max(at.X, at.Y) > 1+1e-9) {
			err = fault.New(fault.OutOfRange, "", "a corner of %q lies outside the face; fractions go from 0 to 1", s.Name)
		}
		if err != nil {
			return out, err
		}
		out.At = append(out.At, at)
	}
	for _, a := range s.Arcs {
		rise, err := p.book[a.Rise].number(sizes)
		if err != nil {
			return out, err
		}
		from, to := on(out.At[a.From-1]), on(out.At[a.From%len(out.At)])
		chord := to.Sub(from).Len()
		way := pattern.Loop{{Point: from, Bulge: 2 * rise / max(chord, pattern.Tolerance)}, {Point: to}}
		lo, hi := pattern.Bounds([]pattern.Point{on(pattern.Point{}), on(pattern.Pt(1, 1))})
		least, most := pattern.Bounds(way.Open())
		if min(least.X-lo.X, least.Y-lo.Y, hi.X-most.X, hi.Y-most.Y) < -arcPlay {
			return out, fault.New(fault.OutOfRange, "", "the arc of %q leaves the face; let it rise less, or to the other side", s.Name)
		}
		if most := chord / 2; rise > most+pattern.Tolerance || rise < -most-pattern.Tolerance {
			return out, fault.New(fault.OutOfRange, "", "the arc of %q rises by more than half the way between its ends; that is more than a half circle", s.Name)
		}
		out.Rise[a.From-1] = rise
	}
	return out, nil
}
