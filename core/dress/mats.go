package dress

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Mats gives the panels a dressing puts on a piece, whose faces are given, the
// under layer of each first: in the face's own shape, or as a rectangle, inset
// by its borders and down to the ruler's marks. It refuses faces that are not
// there or are glued on that side, and borders that leave a face bare.
func (d Dressing) Mats(p *pattern.Pattern, faces []pattern.Face, ruler measure.Tick) ([]Mat, error) {
	if err := d.check(p, faces); err != nil {
		return nil, err
	}
	var openings [][]pattern.Point
	for _, o := range p.Openings {
		openings = append(openings, o.Loop.Flat())
	}
	var under []ground
	for i := range faces {
		f := &faces[i]
		if d.Covers(f.Name, f.Role) && (len(d.Faces) > 0 || !hidden(p, f, d.Side)) {
			under = append(under, ground{id: f.Name, words: f.Plain(), frame: f.Frame(), outline: f.Polygon, faces: []*pattern.Face{f}, cutOut: openings})
		}
	}
	if d.Joined && len(under) > 1 {
		one, err := joined(under)
		if err != nil {
			return nil, err
		}
		under = []ground{one}
	}
	var mats []Mat
	for _, g := range under {
		made, err := d.layers(g, ruler)
		if err != nil {
			return nil, err
		}
		mats = append(mats, made...)
	}
	return mats, nil
}

// check refuses named faces that are not there, or that would be glued under.
func (d Dressing) check(p *pattern.Pattern, faces []pattern.Face) error {
	for i, name := range d.Faces {
		field := fault.Path("faces", i)
		k := slices.IndexFunc(faces, func(f pattern.Face) bool { return f.Name == name })
		if k < 0 {
			return fault.New(fault.UnknownPlace, field, "this piece has no face %q; brevium styles lists them", name)
		}
		if f := &faces[k]; hidden(p, f, d.Side) && !d.Joined {
			side := d.Side
			if side == "" {
				side = Outside
			}
			return fault.New(fault.UnknownPlace, field, "the %s of the %s is glued: a paper there would be out of sight and in the way; leave it out", side, f.Plain())
		}
	}
	return nil
}

// ground is what a mat lies on: one face, or several that lie in a row.
type ground struct {
	id, words string
	frame     pattern.Frame
	outline   []pattern.Point
	faces     []*pattern.Face
	cutOut    [][]pattern.Point // of the piece: holes, windows, notches
}

// joined puts faces together that make up one rectangle on the flat card.
func joined(all []ground) (ground, error) {
	var points []pattern.Point
	area := 0.0
	out := ground{frame: all[0].frame}
	var ids, words []string
	for _, g := range all {
		points = append(points, g.outline...)
		area += math.Abs(pattern.Area(g.outline))
		out.faces = append(out.faces, g.faces...)
		ids = append(ids, g.id)
		if g.faces[0].Role != pattern.Bend {
			words = append(words, g.words)
		}
	}
	lo, hi := pattern.Bounds(points)
	if math.Abs((hi.X-lo.X)*(hi.Y-lo.Y)-area) > 0.02*area {
		return ground{}, fault.New(fault.UnknownPlace, "faces", "these faces do not lie in one row without a gap; join only neighbours of one width, or put a paper on each")
	}
	out.outline = []pattern.Point{lo, {X: hi.X, Y: lo.Y}, hi, {X: lo.X, Y: hi.Y}}
	out.frame = pattern.Face{Polygon: out.outline, Up: out.frame.Up}.Frame()
	out.id, out.words = ids[0]+"-to-"+ids[len(ids)-1], strings.Join(words, ", ")+", in one"
	return out, nil
}

// layers makes the panels on one ground.
func (d Dressing) layers(g ground, ruler measure.Tick) ([]Mat, error) {
	outline := g.outline
	squared := d.squared(g)
	switch {
	case d.Shape == Rounded:
		outline = g.toTheEdge(d.Layers[0].Border, d.Radius)
	case squared:
		outline = g.within(d.Layers[0].Border)
	}
	wide, high := g.frame.Size(outline)
	whole, _ := g.frame.Size(g.outline)
	// Where the picture runs on, what shows beside each paper is a whole mark, so
	// that the strip is cut at marks.
	edge := func(l measure.Length, layer int) measure.Length {
		if d.Runs != Ends && layer == len(d.Layers)-1 {
			return measure.Up(l, ruler)
		}
		return l
	}
	var mats []Mat
	var border Border
	for n, layer := range d.Layers {
		if layer.Sized() {
			if !squared {
				return nil, fault.New(fault.UnknownShape, "shape", "a paper of its own size is a rectangle; let it be one, or give it a border on the %s", g.words)
			}
			if layer.Width > 0 {
				layer.Border.Across = (measure.FromMM(wide)-layer.Width)/2 - border.Across
			}
			if layer.Height > 0 {
				layer.Border.Up = (measure.FromMM(high)-layer.Height)/2 - border.Up
			}
		}
		if over := -min(layer.Border.Across, layer.Border.Up); over > MostOver {
			return nil, fault.New(fault.BorderTooWide, fault.Path("layers", n, "border"),
				"a paper stands over an edge by up to 3 mm, to hide the card's own; on the %s it would by %.1f mm: make it smaller, or cover the piece in paper", g.words, over.MM())
		}
		border.Across += layer.Border.Across
		border.Up += layer.Border.Up
		m := Mat{
			Piece: d.Piece, Face: g.faces[0].Name, Role: g.faces[0].Role, Words: g.words, Side: Outside, Layer: n + 1, Card: layer.Card, Border: layer.Border, Sized: layer.Sized(), Narrow: n == 0 && wide < whole-pattern.Tolerance, Across: d.Across && !layer.Card.Direction.MayTurn(),
			ID: fmt.Sprintf("%s.%s.%d", d.Piece, g.id, n+1),
		}
		if d.inside() {
			m.Side, m.Words, m.ID = Inside, m.Words+insideWords, fmt.Sprintf("%s.%s.inside.%d", d.Piece, g.id, n+1)
		}
		corners := pattern.Inset(outline, func(along pattern.Point) float64 {
			// The side's own direction decides between the two borders.
			a, u := along.Dot(g.frame.Up), along.Dot(g.frame.Along)
			x, y := edge(border.Across, n).MM(), border.Up.MM()
			if x < 0 || y < 0 { // over the edge, on sides that are level or upright
				return a*a*x + u*u*y
			}
			return math.Hypot(x*a, y*u)
		})
		corners = onMarks(corners, g.frame, ruler, layer)
		along, up := g.frame.Size(corners)
		if len(corners) > 0 {
			m.Width, m.Height = measure.FromMM(along), measure.FromMM(up)
		}
		if len(corners) == 0 || min(m.Width, m.Height) < Least {
			return nil, fault.New(fault.BorderTooWide, fault.Path("layers", n, "border"),
				"borders this wide leave no paper on the %s; make them narrower", g.words)
		}
		own := pattern.Face{Polygon: corners, Up: g.frame.Up}.Frame()
		m.Lies = own
		if d.Shape == Rounded && min(m.Width, m.Height) < 2*d.Radius { // then all on this face stay square
			d.Shape = Square
			return d.layers(g, ruler)
		}
		if d.Shape == Rounded {
			m.Radius = d.Radius
			corners = rounded(corners, m.Radius.MM())
		}
		for _, q := range corners {
			at := own.In(q)
			if d.inside() { // seen from the other side
				at.X = m.Width.MM() - at.X
			}
			m.Shape = append(m.Shape, at)
		}
		if d.inside() {
			slices.Reverse(m.Shape)
		}
		if m.Radius == 0 && !m.square() {
			m.Blank.Width, m.Blank.Height = measure.Up(m.Width, ruler), measure.Up(m.Height, ruler)
		}
		for _, f := range g.faces {
			if patch := pattern.Clip(corners, f.Polygon); len(patch) > 2 {
				m.On = append(m.On, Patch{f.Name, patch})
			}
		}
		if len(g.faces) == 1 {
			m.On = []Patch{{m.Face, corners}}
		}
		mats = append(mats, m)
	}
	return mats, nil
}

// onMarks cuts a rectangle down to the ruler's marks, its middle kept, and half of one by its
// two legs; other shapes are cut round a template, and stay, as does a size of the layer's own.
func onMarks(corners []pattern.Point, fr pattern.Frame, ruler measure.Tick, layer Layer) []pattern.Point {
	if len(corners) == 3 {
		return legsOnMarks(corners, fr, ruler)
	}
	if len(corners) != 4 {
		return corners
	}
	along, up := fr.Size(corners)
	if math.Abs(math.Abs(pattern.Area(corners))-along*up) > 1e-3 {
		return corners
	}
	less := func(mm float64) float64 {
		l := measure.FromMM(mm)
		return (l - measure.Down(l, ruler)).MM() / 2
	}
	a, u := less(along), less(up)
	if layer.Width > 0 {
		a = 0
	}
	if layer.Height > 0 {
		u = 0
	}
	return pattern.Inset(corners, func(dir pattern.Point) float64 {
		if math.Abs(dir.Dot(fr.Along)) > 0.5 {
			return u
		}
		return a
	})
}

// legsOnMarks cuts the two legs of a triangle that stand square on each other, along a face
// and up it, down to the ruler's marks; another triangle stays.
func legsOnMarks(corners []pattern.Point, fr pattern.Frame, ruler measure.Tick) []pattern.Point {
	for i := range corners {
		at, a, b := fr.In(corners[i]), fr.In(corners[(i+1)%3]), fr.In(corners[(i+2)%3])
		level, upright := a.Sub(at), b.Sub(at)
		if math.Abs(level.Y) > pattern.Tolerance {
			level, upright = upright, level
		}
		if math.Abs(level.Y) > pattern.Tolerance || math.Abs(upright.X) > pattern.Tolerance {
			continue
		}
		less := func(mm float64) float64 { // of its length, with its sign
			l := measure.FromMM(math.Abs(mm))
			return math.Copysign((l - measure.Down(l, ruler)).MM(), mm)
		}
		x, y := less(level.X), less(upright.Y)
		// What is lost is shared among the three sides.
		corner := at.Add(pattern.Point{X: x / 3, Y: y / 3})
		out := slices.Clone(corners)
		for k, q := range corners {
			to := fr.In(q).Sub(at)
			moved := corner
			if math.Abs(to.X) > pattern.Tolerance {
				moved.X += level.X - x
			}
			if math.Abs(to.Y) > pattern.Tolerance {
				moved.Y += upright.Y - y
			}
			out[k] = fr.At(moved.X, moved.Y)
		}
		return out
	}
	return corners
}

// nearlySquare is how much of a wall or a flap its rectangle must cover to be cut as one.
const nearlySquare = 0.7

// squared reports whether a mat is cut as a rectangle on a ground.
func (d Dressing) squared(g ground) bool {
	if d.Shape != AsMakersDo {
		return d.Shape == Square || d.Shape == Rounded
	}
	if slices.ContainsFunc(d.Layers, Layer.Sized) {
		return true
	}
	role := g.faces[0].Role
	return (role == pattern.Wall || role == pattern.Flap || role == pattern.Tab) &&
		(g.holds(d.Layers[0].Border) || math.Abs(pattern.Area(g.rectangle())) > nearlySquare*math.Abs(pattern.Area(g.outline)))
}

// box is the rectangle about the ground's outline, less a border.
func (g ground) box(border Border) []pattern.Point {
	along, up := g.frame.Size(g.outline)
	across, high := border.Across.MM(), border.Up.MM()
	out := []pattern.Point{g.frame.At(across, up-high), g.frame.At(along-across, up-high), g.frame.At(along-across, high), g.frame.At(across, high)}
	if pattern.Area(out) < 0 {
		slices.Reverse(out)
	}
	return out
}

// holds reports whether a border keeps that rectangle inside the face, so that what the face
// tapers by, or is rounded by, is of the border.
func (g ground) holds(border Border) bool {
	inset := g.box(border)
	lost := math.Abs(pattern.Area(inset)) - math.Abs(pattern.Area(pattern.Clip(inset, g.outline)))
	return border.Across > 0 && border.Up > 0 && lost < 1e-6
}

// toTheEdge is the rectangle about the ground's outline where, less its border and with its
// corners rounded, it stays inside the face; or else the one within.
func (g ground) toTheEdge(border Border, radius measure.Length) []pattern.Point {
	inset := rounded(g.box(Border{max(0, border.Across), max(0, border.Up)}), radius.MM())
	lost := math.Abs(pattern.Area(inset)) - math.Abs(pattern.Area(pattern.Clip(inset, g.outline)))
	if lost < 1e-3*math.Abs(pattern.Area(inset)) {
		return g.box(Border{})
	}
	return g.rectangle()
}

// rounded rounds the corners of a rectangle to a radius in mm, as a corner rounder does.
func rounded(corners []pattern.Point, radius float64) []pattern.Point {
	if len(corners) != 4 || radius <= 0 {
		return corners
	}
	var out pattern.Loop
	for i, at := range corners {
		to, from := corners[(i+1)%4].Sub(at), corners[(i+3)%4].Sub(at)
		r := min(radius, to.Len()/2, from.Len()/2)
		out = append(out,
			pattern.Vertex{Point: at.Add(from.Scale(r / from.Len())), Bulge: math.Tan(math.Pi / 8)},
			pattern.Vertex{Point: at.Add(to.Scale(r / to.Len()))})
	}
	return out.Flat()
}

// within is the rectangle about the ground's outline where its border keeps it inside the face,
// or else the one within.
func (g ground) within(border Border) []pattern.Point {
	if g.holds(border) {
		return g.box(Border{})
	}
	return g.rectangle()
}

// rectangle is a rectangle within the ground's outline, as high as it is and
// as wide as it is everywhere, about its middle; over a notch, which is cut out of the paper too.
func (g ground) rectangle() []pattern.Point {
	if box := g.box(Border{}); len(g.cutOut) > 0 {
		gone := 0.0
		for _, o := range g.cutOut {
			gone += math.Abs(pattern.Overlap(box, o))
		}
		if lost := pattern.Area(box) - math.Abs(pattern.Area(g.outline)); math.Abs(lost-gone) < 1e-3*pattern.Area(box) {
			return box
		}
	}
	along, up := g.frame.Size(g.outline)
	within := func(share float64) []pattern.Point {
		var out []pattern.Point
		for _, c := range [][2]float64{{-1, 1}, {1, 1}, {1, -1}, {-1, -1}} {
			out = append(out, g.frame.At(along/2+c[0]*along/2*share, up/2+c[1]*up/2))
		}
		if pattern.Area(out) < 0 {
			slices.Reverse(out)
		}
		return out
	}
	lo, hi := 0.0, 1.0
	for range 40 {
		mid := (lo + hi) / 2
		r := within(mid)
		if math.Abs(math.Abs(pattern.Area(pattern.Clip(r, g.outline)))-math.Abs(pattern.Area(r))) < 1e-6 {
			lo = mid
		} else {
			hi = mid
		}
	}
	if hi > 1-1e-6 {
		lo = 1
	}
	return within(lo)
}
