package draw

import (
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/dress"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Stood draws a box as its parts stand in a state, its lids and flaps turned up
// when that is not the finished one. finished holds the parts folded shut.
func Stood(title string, parts []style.Part, finished []*pattern.Folded, state style.State) (*Picture, error) {
	bodies, err := style.Assemble(parts, finished, state)
	if err != nil {
		return nil, err
	}
	var solids []Solid
	for _, b := range bodies {
		solids = append(solids, Solid{Part: *b.Part, Faces: b.Faces, Poses: b.Poses, levels: b.Levels})
	}
	return scene(title, solids, nil, nil, false), nil
}

// scene draws solids; open ones show tabs and linings too, which in finished
// boxes lie flat against walls. Further panels stand among their faces. The pieces and mats whose ids are marked stand
// out.
func scene(title string, solids []Solid, panels []panel, mats []dress.Mat, open bool, marked ...string) *Picture {
	for _, s := range solids {
		panels = append(panels, s.panels(mats, open)...)
	}
	var shapes []Shape
	lo, hi := pattern.Pt(math.Inf(1), math.Inf(1)), pattern.Pt(math.Inf(-1), math.Inf(-1))
	draw := func(c Class, fill *Fill, points []r3.Vec) {
		var flat []pattern.Point
		for _, q := range points {
			flat = append(flat, project(q))
		}
		l, h := pattern.Bounds(flat)
		lo = pattern.Pt(min(lo.X, l.X), min(lo.Y, l.Y))
		hi = pattern.Pt(max(hi.X, h.X), max(hi.Y, h.Y))
		shapes = append(shapes, Shape{Class: c, Loops: [][]pattern.Point{flat}, Closed: true, Fill: fill})
	}
	var painted []panel
	plant(panels).paint(eye, func(q panel) { painted = append(painted, q) })
	for _, q := range seen(painted) {
		class := shade(q.normal)
		within := r3.Dot(q.normal, eye) <= 0
		if within {
			class = CardInside
		}
		dark := shades[class]
		fill := q.fill.seen(within, dark)
		if slices.Contains(marked, q.owner) {
			class, fill = Marked, nil
		}
		draw(class, fill, q.points)
		shapes[len(shapes)-1].Bare = q.bare
		for _, l := range q.lines {
			draw(class, fill, l[:])
			shapes[len(shapes)-1].Closed = false
		}
		for _, d := range q.decals {
			if d.inside != within {
				continue
			}
			if slices.Contains(marked, d.owner) {
				d.class, d.fill = Marked, nil
			}
			draw(d.class, d.fill.seen(false, dark), d.points)
		}
		if q.key != "" && !within {
			draw(FacePick, nil, q.points)
			s := &shapes[len(shapes)-1]
			s.Key, s.About, s.Aside = q.key, q.about, true // the nets' faces can be gone to
		}
	}
	for _, s := range solids {
		for _, outline := range s.outlines(mats, marked) {
			draw(Hidden, nil, outline)
		}
	}
	p := newPicture(title, hi.X-lo.X, hi.Y-lo.Y, 14)
	p.X, p.Y, p.Shapes = p.X+lo.X, p.Y+lo.Y, shapes
	return p
}

// seen leaves of panels, in the order in which they are painted, those that are not painted over.
func seen(painted []panel) []panel {
	flat := make([][]pattern.Point, len(painted))
	lo, hi := pattern.Pt(math.Inf(1), math.Inf(1)), pattern.Pt(math.Inf(-1), math.Inf(-1))
	for i, q := range painted {
		for _, v := range q.points {
			flat[i] = append(flat[i], project(v))
		}
		l, h := pattern.Bounds(flat[i])
		lo, hi = pattern.Pt(min(lo.X, l.X), min(lo.Y, l.Y)), pattern.Pt(max(hi.X, h.X), max(hi.Y, h.Y))
	}
	if len(painted) == 0 {
		return nil
	}
	var out []panel
	for i, gone := range hidden(flat, lo, hi) {
		if !gone {
			out = append(out, painted[i])
		}
	}
	return out
}

// The viewer stands at the front right corner, looking down: azimuth and
// elevation in radians.
const azimuth, elevation = 0.55, 0.5

// eye is the direction towards the viewer; right and up span the picture.
var (
	eye   = r3.Vec{X: math.Sin(azimuth) * math.Cos(elevation), Y: -math.Cos(azimuth) * math.Cos(elevation), Z: math.Sin(elevation)}
	right = r3.Vec{X: math.Cos(azimuth), Y: math.Sin(azimuth)}
	up    = r3.Cross(eye, right)
)

func project(v r3.Vec) pattern.Point {
	return pattern.Pt(r3.Dot(v, right), -r3.Dot(v, up))
}

// shade tells the faces of a box apart by the way they look.
func shade(normal r3.Vec) Class {
	switch {
	case math.Abs(normal.Z) > 0.7:
		return Card
	case r3.Dot(normal, r3.Vec{X: 1}) > 0.7:
		return CardDark
	}
	return CardShade
}

// shades are how much of the light is missing where card is drawn in its own
// colour.
var shades = map[Class]float64{CardShade: 0.06, CardDark: 0.22, CardInside: 0.14}

// seen is the fill in a shade, or that of the card's inside.
func (f *Fill) seen(inside bool, shade float64) *Fill {
	if f == nil {
		return nil
	}
	out := *f
	out.Inside, out.Shade = inside, shade
	return &out
}

// inside reports whether a face lies inside another one of the finished box,
// where it need not be drawn: tabs, second walls, what is tucked in.
func (s Solid) inside(f pattern.Face) bool {
	if f.Role == pattern.Tab || f.Role == pattern.Lining {
		return true
	}
	return slices.ContainsFunc(s.Part.Pattern.Glue, func(g pattern.Glue) bool {
		return g.Face == f.Name && !g.OntoOutside && g.Piece == ""
	})
}

// outlines gives the outlines in space of pieces' faces, or of mats.
func (s Solid) outlines(mats []dress.Mat, ids []string) [][]r3.Vec {
	var out [][]r3.Vec
	add := func(face int, points []pattern.Point) {
		var v []r3.Vec
		for _, q := range points {
			v = append(v, s.Poses[face].Place(q))
		}
		out = append(out, v)
	}
	for i, f := range s.Faces {
		if slices.Contains(ids, s.Part.ID) && !s.inside(f) {
			add(i, f.Polygon)
		}
		for _, m := range mats {
			for _, patch := range m.On {
				if slices.Contains(ids, m.ID) && m.Piece == s.Part.ID && patch.Face == f.Name {
					add(i, patch.Corners)
				}
			}
		}
	}
	return out
}

// matClass is how a layer of a mat is drawn: card and paper in turn.
func matClass(m dress.Mat) Class {
	if m.Layer%2 == 0 {
		return MatTwo
	}
	return MatOne
}

// smooth says of a flat of a bend which of its edges are drawn: those where the bend goes on only
// where it goes out of sight.
func (s Solid) smooth(n int, place func([]pattern.Point) []r3.Vec) (bare bool, lines [][2]r3.Vec) {
	f := s.Faces[n]
	for i, a := range f.Polygon {
		along := pattern.Segment{A: a, B: f.Polygon[(i+1)%len(f.Polygon)]}
		rolled := s.Part.Pattern.RolledAlong(along)
		if bare = bare || rolled; rolled && !s.ends(n, along) {
			continue
		}
		v := place([]pattern.Point{along.A, along.B})
		lines = append(lines, [2]r3.Vec{v[0], v[1]})
	}
	if !bare {
		return false, nil
	}
	return true, lines
}

// ends reports whether a face is seen from its outside and the one beyond its edge is not, or the
// other way round.
func (s Solid) ends(n int, along pattern.Segment) bool {
	seen := func(i int) bool { return r3.Dot(s.Poses[i].Normal(), eye) > 0 }
	for i, f := range s.Faces {
		for k, a := range f.Polygon {
			if b := f.Polygon[(k+1)%len(f.Polygon)]; i != n && a == along.B && b == along.A {
				return seen(i) != seen(n)
			}
		}
	}
	return false
}

// panels gives the faces that show.
func (s Solid) panels(mats []dress.Mat, open bool) []panel {
	var out []panel
	var opened []pattern.Face
	if s.pick {
		opened = dress.Open(s.Part.Pattern, s.Faces, dress.Outside)
	}
	for i, f := range s.Faces {
		if !open && s.inside(f) {
			continue
		}
		// What lies on another face lies before it.
		lift := r3.Vec{}
		if !open && len(s.levels) > i {
			lift = r3.Scale(float64(s.levels[i])*s.Part.Card.MM(), s.Poses[i].Normal())
		}
		place := func(points []pattern.Point) []r3.Vec {
			var v []r3.Vec
			for _, q := range points {
				v = append(v, r3.Add(s.Poses[i].Place(q), lift))
			}
			return v
		}
		q := panel{points: place(f.Polygon), normal: s.Poses[i].Normal(), owner: s.Part.ID}
		q.at = r3.Dot(q.normal, q.points[0])
		q.bare, q.lines = s.smooth(i, place)
		// Where the flat piece comes to lie on the picture.
		corners := place([]pattern.Point{{X: 0, Y: 0}, {X: 1, Y: 0}, {X: 0, Y: 1}})
		o, x, y := project(corners[0]), project(corners[1]), project(corners[2])
		lie := Affine{x.X - o.X, x.Y - o.Y, y.X - o.X, y.Y - o.Y, o.X, o.Y}
		on := func(f *Fill) *Fill {
			if s.from == nil {
				return nil
			}
			f.Lay = f.Lay.Then(lie)
			return f
		}
		if s.pick && slices.ContainsFunc(opened, func(o pattern.Face) bool { return o.Name == f.Name }) {
			q.key, q.about = s.Part.ID+"/"+f.Name, "Paper on the "+f.Plain()+" of the "+strings.ToLower(s.Part.Name)
		}
		if s.from != nil {
			q.fill = on(s.from.fill(s.Part.Pattern.Width.MM(), s.Part.Pattern.Height.MM()))
		}
		for _, m := range mats {
			for _, patch := range m.On {
				if m.Piece == s.Part.ID && patch.Face == f.Name {
					q.decals = append(q.decals, decal{matClass(m), m.ID, m.Side == dress.Inside, place(patch.Corners), on(matFill(m))})
				}
			}
		}
		for _, hole := range f.Holes { // one looks into the dark, through the papers, too
			for _, inside := range []bool{false, true} {
				q.decals = append(q.decals, decal{CardInside, s.Part.ID, inside, place(hole), nil})
			}
		}
		out = append(out, q)
	}
	return out
}
