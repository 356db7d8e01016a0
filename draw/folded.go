package draw

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/dress"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Solid is one folded piece in a picture: where its root face lies, and
// whether it is turned over so that its opening looks up.
type Solid struct {
	Part   style.Part
	Folded *pattern.Folded
	Mats   []dress.Mat
	Lift   float64 // mm above the table
	// Open shows tabs and linings too; closed, they lie flat against walls.
	Open bool
}

// HalfFolded draws one piece on its way up, tabs standing out.
func HalfFolded(part style.Part, mats []dress.Mat) (*Picture, error) {
	f, err := part.Pattern.Fold(part.Root, func(i int) float64 { return part.Pattern.Creases[i].Angle * 0.55 })
	if err != nil {
		return nil, err
	}
	return Scene(part.Name+", half folded", []Solid{{Part: part, Folded: f, Mats: mats, Open: true}}), nil
}

// Box folds every piece and draws them together: the base on the table, a
// lid raised over it.
func Box(title string, parts []style.Part, mats []dress.Mat) (*Picture, error) {
	var solids []Solid
	top := 0.0
	for _, part := range parts {
		f, err := part.Pattern.Finished(part.Root)
		if err != nil {
			return nil, err
		}
		s := Solid{Part: part, Folded: f, Mats: mats}
		lo, hi := s.heights()
		if part.Opens == style.Downwards {
			s.Lift = top + (hi-lo)*0.9 + 8
		}
		top = max(top, s.Lift+hi)
		solids = append(solids, s)
	}
	return Scene(title, solids), nil
}

// Scene draws solids with hidden faces hidden.
func Scene(title string, solids []Solid) *Picture {
	var panels []panel
	for _, s := range solids {
		panels = append(panels, s.panels()...)
	}
	var shapes []Shape
	lo, hi := pattern.Pt(math.Inf(1), math.Inf(1)), pattern.Pt(math.Inf(-1), math.Inf(-1))
	draw := func(c Class, points []r3.Vec) {
		var flat []pattern.Point
		for _, q := range points {
			flat = append(flat, project(q))
		}
		l, h := pattern.Bounds(flat)
		lo = pattern.Pt(min(lo.X, l.X), min(lo.Y, l.Y))
		hi = pattern.Pt(max(hi.X, h.X), max(hi.Y, h.Y))
		shapes = append(shapes, Shape{Class: c, Layer: LayerNotes, Loops: [][]pattern.Point{flat}, Closed: true})
	}
	plant(panels).paint(eye, func(q panel) {
		if r3.Dot(q.normal, eye) <= 0 {
			draw(CardInside, q.points)
			return
		}
		draw(shade(q.normal), q.points)
		for _, d := range q.decals {
			draw(d.class, d.points)
		}
	})
	p := newPicture(title, hi.X-lo.X, hi.Y-lo.Y, 14)
	p.X, p.Y, p.Shapes = p.X+lo.X, p.Y+lo.Y, shapes
	return p
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

// frame gives where a folded point stands in the picture: centred on the
// root face, turned over if the opening looks up, and lifted.
func (s Solid) frame(v r3.Vec) r3.Vec {
	_, root, _ := s.Folded.Face(s.Part.Root)
	lo, hi := pattern.Bounds(root.Polygon)
	v = r3.Sub(v, r3.Vec{X: (lo.X + hi.X) / 2, Y: -(lo.Y + hi.Y) / 2})
	if s.Part.Opens == style.Upwards {
		v.Y, v.Z = -v.Y, -v.Z
	}
	v.Z += s.Lift
	return v
}

func (s Solid) heights() (lo, hi float64) {
	lo, hi = math.Inf(1), math.Inf(-1)
	for i, f := range s.Folded.Faces {
		for _, q := range f.Polygon {
			z := s.frame(s.Folded.Poses[i].Place(q)).Z
			lo, hi = min(lo, z), max(hi, z)
		}
	}
	return lo, hi
}

// panels gives the faces that show.
func (s Solid) panels() []panel {
	var out []panel
	for i, f := range s.Folded.Faces {
		if !s.Open && (f.Role == pattern.Tab || f.Role == pattern.Lining) {
			continue
		}
		place := func(points []pattern.Point) []r3.Vec {
			var v []r3.Vec
			for _, q := range points {
				v = append(v, s.frame(s.Folded.Poses[i].Place(q)))
			}
			return v
		}
		q := panel{points: place(f.Polygon)}
		n := s.Folded.Poses[i].Normal()
		if s.Part.Opens == style.Upwards {
			n.Y, n.Z = -n.Y, -n.Z
		}
		q.normal, q.at = n, r3.Dot(n, q.points[0])
		for _, m := range s.Mats {
			if m.Piece == s.Part.ID && m.Face == f.Name {
				class := MatOne
				if m.Layer > 1 {
					class = MatTwo
				}
				q.decals = append(q.decals, decal{class, place(m.Corners)})
			}
		}
		out = append(out, q)
	}
	return out
}
