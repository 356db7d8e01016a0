// Package label makes labels, tags and toppers: their shapes, the layers they are
// made of, the words on them.
package label

import (
	"math"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

const mm = measure.Millimetre

// Shape is the outline of a label.
type Shape string

// The shapes, each as wide and as high as the label.
const (
	Rectangle Shape = "rectangle"
	Rounded   Shape = "rounded"
	Oval      Shape = "oval"
	Circle    Shape = "circle"
	Scallop   Shape = "scallop"
	Banner    Shape = "banner"
	Star      Shape = "star"
	Heart     Shape = "heart"
)

// Shapes lists them in the order they are offered.
var Shapes = []Shape{Rectangle, Rounded, Oval, Circle, Scallop, Banner, Star, Heart}

// What a label is. Some are bought, not cut: they have no layers and no words, but a
// colour, and stand out by so much.
type What string

// The kinds, in the order they are offered.
const (
	Plain  What = "label"
	Topper What = "topper"
	Tag    What = "tag"
	Flag   What = "flag"
	Strip  What = "strip"
	Bow    What = "bow"
	Brad   What = "brad"
	Eyelet What = "eyelet"
	Ring   What = "ring"
)

// BoughtWhats are those that are bought, not cut; Whats lists all.
var (
	BoughtWhats = []What{Bow, Brad, Eyelet, Ring}
	Whats       = slices.Concat([]What{Plain, Topper, Tag, Flag, Strip}, BoughtWhats)
)

// Bought reports whether it is bought, not cut.
func (w What) Bought() bool { return slices.Contains(BoughtWhats, w) }

// Usual is how wide, high and thick what is bought is as a rule, round in the unit, and its
// shape; 0 for what is cut.
func (w What) Usual(unit measure.Unit) (wide, high, stands measure.Length, shape Shape) {
	const in = measure.Inch
	x := map[What]struct{ mm, in [3]measure.Length }{
		Bow:    {[3]measure.Length{50 * mm, 25 * mm, 12 * mm}, [3]measure.Length{2 * in, in, in / 2}},
		Brad:   {[3]measure.Length{8 * mm, 8 * mm, 3 * mm}, [3]measure.Length{in * 5 / 16, in * 5 / 16, in / 8}},
		Eyelet: {[3]measure.Length{6 * mm, 6 * mm, mm}, [3]measure.Length{in / 4, in / 4, in / 16}},
		Ring:   {[3]measure.Length{20 * mm, 20 * mm, 3 * mm}, [3]measure.Length{in * 3 / 4, in * 3 / 4, in / 8}},
	}[w]
	size := x.mm
	if unit == measure.In {
		size = x.in
	}
	shape = Circle
	if w == Bow {
		shape = Oval
	}
	return size[0], size[1], size[2], shape
}

// Label is one kind of label of a box, or of another small thing that is put on it. Its lowest
// layer is as large as the label, each other one smaller by its border. Text may hold {name},
// {inside}, {size} and {price}, which the box fills in.
type Label struct {
	ID            int
	What          What // "" is a label
	Name          string
	Shape         Shape
	Width, Height measure.Length
	Layers        []dress.Layer
	Text          string
	Copies        int            // of it on each box
	Piece, Face   string         // that it is glued on; "" hangs from the box as a tag
	Band          string         // that it is glued on, in the place of a face
	Upon          Upon           // what it lies on there, in the place of the face itself
	Called        string         // its id where a file gives it a word for one
	Place         Place          // on its face
	Raised        measure.Length // on pads so high; 0 is glued flat
	Stands        measure.Length // how far what is bought stands out
	Colour        paper.Colour   // of what is bought
	Hole          bool           // punched near the top, for a string
}

// Limits of a label.
const (
	Least       = 8 * mm
	Most        = 250 * mm
	MostLayers  = 3
	MostCopies  = 64
	mostText    = 240
	mostLines   = 8
	mostName    = 40
	mostRaised  = 6 * mm
	mostStands  = 80 * mm
	leastBought = 3 * mm
	leastShown  = 5 * mm
)

// HoleAcross is the hole a tag is hung by; holeEdge is the card that is left round
// it.
const (
	HoleAcross = 4 * mm
	holeEdge   = 2 * mm
)

// Check refuses a label that cannot be cut; show writes a limit.
func (l Label) Check(show func(measure.Length) string) error {
	refuse := func(code fault.Code, field, format string, args ...any) error {
		return fault.New(code, field, format, args...)
	}
	lines, least := strings.Split(l.Text, "\n"), Least
	if l.What.Bought() {
		least = leastBought
	}
	switch {
	case l.What != "" && !slices.Contains(Whats, l.What):
		return refuse(fault.UnknownChoice, "what", "what is placed is one of %v", Whats)
	case l.What.Bought() && (l.Stands <= 0 || l.Stands > mostStands):
		return refuse(fault.OutOfRange, "stands", "a %s stands out by up to %s", l.What, show(mostStands))
	case l.What.Bought() && (len(l.Layers) > 0 || l.Text != "" || l.Hole || l.Raised != 0):
		return refuse(fault.LayersRange, "layers", "a %s is bought, not cut: it has no layers, words, hole or pads", l.What)
	case strings.TrimSpace(l.Name) == "" || len([]rune(l.Name)) > mostName:
		return refuse(fault.Empty, "name", "give the label a name of up to %d letters", mostName)
	case !slices.Contains(Shapes, l.Shape):
		return refuse(fault.UnknownShape, "shape", "a label is one of %v", Shapes)
	case l.Width < least || l.Width > Most:
		return refuse(fault.OutOfRange, "width", "a label can be %s to %s wide", show(least), show(Most))
	case l.Height < least || l.Height > Most:
		return refuse(fault.OutOfRange, "height", "a label can be %s to %s high", show(least), show(Most))
	case l.Shape == Circle && l.Width != l.Height:
		return refuse(fault.OutOfRange, "height", "a circle is as high as it is wide; an oval need not be")
	case !l.What.Bought() && (len(l.Layers) < 1 || len(l.Layers) > MostLayers):
		return refuse(fault.LayersRange, "layers", "a label has one to %d layers", MostLayers)
	case l.Copies < 1 || l.Copies > MostCopies:
		return refuse(fault.CountRange, "copies", "put 1 to %d of it on each box", MostCopies)
	case len([]rune(l.Text)) > mostText || len(lines) > mostLines:
		return refuse(fault.TooLong, "text", "a label takes up to %d lines and %d letters", mostLines, mostText)
	case l.Raised < 0 || l.Raised > mostRaised:
		return refuse(fault.OutOfRange, "raised", "pads lift a label by up to %s", show(mostRaised))
	}
	if err := l.Place.check(show); err != nil {
		return err
	}
	for n, layer := range l.Layers {
		if min(layer.Border.Across, layer.Border.Up) < 0 {
			return refuse(fault.Negative, fault.Path("layers", n, "border"), "a layer of a label is no larger than the one it lies on; give it a border")
		}
		if w, h := l.Size(n); min(w, h) < leastShown {
			return refuse(fault.BorderTooWide, fault.Path("layers", n, "border"), "borders this wide leave nothing of the layer on top")
		}
	}
	if _, ok := l.HoleAt(); l.Hole && !ok {
		return refuse(fault.TooSmall, "height", "there is no room for a hole near the top of this label; make it larger, or of another shape")
	}
	return nil
}

// HoleAt is the middle of the hole, in mm from the label's top left corner: in the
// middle across, as near to the top as leaves card all round it on every layer.
func (l Label) HoleAt() (pattern.Point, bool) {
	top := l.Outline(len(l.Layers) - 1).Flat()
	reach := (HoleAcross/2 + holeEdge).MM()
	x := l.Width.MM() / 2
	for y := 0.0; y < l.Height.MM()*0.6; y += 0.5 {
		fits := true
		for k := range 16 {
			sin, cos := math.Sincos(math.Pi * float64(k) / 8)
			fits = fits && pattern.Contains(top, pattern.Pt(x+reach*cos, y+reach*sin))
		}
		if fits {
			return pattern.Pt(x, y), true
		}
	}
	return pattern.Point{}, false
}

// Size is how large the nth layer is, the lowest 0.
func (l Label) Size(n int) (wide, high measure.Length) {
	wide, high = l.Width, l.Height
	for k := 1; k <= n; k++ {
		wide -= 2 * l.Layers[k].Border.Across
		high -= 2 * l.Layers[k].Border.Up
	}
	return wide, high
}

// Thick is how far it stands out: its layers and the pads under them, or what is bought itself.
func (l Label) Thick() measure.Length {
	sum := l.Raised + l.Stands
	for _, layer := range l.Layers {
		sum += layer.Card.Thickness
	}
	return sum
}

// Outline is the nth layer's, in mm from the top left corner of the label itself;
// round parts are arcs.
func (l Label) Outline(n int) pattern.Loop {
	w, h := l.Size(n)
	x, y := (l.Width-w).MM()/2, (l.Height-h).MM()/2
	out := outline(l.Shape, w.MM(), h.MM())
	for i := range out {
		out[i].Point = out[i].Add(pattern.Pt(x, y))
	}
	return out
}

// quarter is the bulge of a quarter of a circle.
var quarter = math.Tan(math.Pi / 8)

// outline is a shape in a rectangle, with the clock.
func outline(s Shape, w, h float64) pattern.Loop {
	v := func(x, y, bulge float64) pattern.Vertex { return pattern.Vertex{Point: pattern.Pt(x, y), Bulge: bulge} }
	switch s {
	case Rounded:
		r := min(w, h) / 6
		return pattern.Loop{v(r, 0, 0), v(w-r, 0, quarter), v(w, r, 0), v(w, h-r, quarter), v(w-r, h, 0), v(r, h, quarter), v(0, h-r, 0), v(0, r, quarter)}
	case Slot:
		r := min(w, h) / 2
		if math.Abs(w-h) < pattern.Snap.MM() { // nothing is left between its ends
			return outline(Circle, w, h)
		}
		if w > h {
			return pattern.Loop{v(r, 0, 0), v(w-r, 0, 1), v(w-r, h, 0), v(r, h, 1)}
		}
		return pattern.Loop{v(0, h-r, 0), v(0, r, 1), v(w, r, 0), v(w, h-r, 1)}
	case Circle:
		return pattern.Circle(pattern.Pt(w/2, h/2), w/2)
	case Oval:
		return around(48, func(t float64) pattern.Point { return pattern.Pt(w/2+w/2*math.Sin(t), h/2-h/2*math.Cos(t)) })
	case Scallop:
		return fill(scallops(w, h), w, h)
	case Banner: // its ends cut in
		in := min(h/2, w/5)
		return pattern.Straight(pattern.Pt(0, 0), pattern.Pt(w, 0), pattern.Pt(w-in, h/2), pattern.Pt(w, h), pattern.Pt(0, h), pattern.Pt(in, h/2))
	case Star: // of five points, spread to fill the rectangle
		var points []pattern.Point
		for i := range 10 {
			r := 1.0
			if i%2 == 1 {
				r = 0.48
			}
			sin, cos := math.Sincos(math.Pi * float64(i) / 5)
			points = append(points, pattern.Pt(r*sin, -r*cos))
		}
		return fill(points, w, h)
	case Heart: // two round shoulders and a point
		var points []pattern.Point
		for i := range 40 {
			t := math.Pi * float64(i) / 20
			sin := math.Sin(t)
			points = append(points, pattern.Pt(16*sin*sin*sin, -(13*math.Cos(t)-5*math.Cos(2*t)-2*math.Cos(3*t)-math.Cos(4*t))))
		}
		return fill(points, w, h)
	}
	return pattern.Straight(pattern.Pt(0, 0), pattern.Pt(w, 0), pattern.Pt(w, h), pattern.Pt(0, h))
}

// fill spreads a shape over its rectangle.
func fill(points []pattern.Point, w, h float64) pattern.Loop {
	lo, hi := pattern.Bounds(points)
	for i, q := range points {
		points[i] = pattern.Pt((q.X-lo.X)/(hi.X-lo.X)*w, (q.Y-lo.Y)/(hi.Y-lo.Y)*h)
	}
	return pattern.Straight(points...)
}

// scallopCount is how many half circles go round a scalloped label.
const scallopCount = 20

// scallops are half circles of one size round an oval.
func scallops(w, h float64) []pattern.Point {
	oval := func(t float64) pattern.Point { return pattern.Pt(w/2*math.Sin(t), -h/2*math.Cos(t)) }
	const fine = 2000
	whole, at := 0.0, make([]float64, fine+1)
	for i := range fine {
		whole += oval(2 * math.Pi * float64(i+1) / fine).Sub(oval(2 * math.Pi * float64(i) / fine)).Len()
		at[i+1] = whole
	}
	var valleys []pattern.Point
	for k, i := 0, 0; k < scallopCount; i++ {
		if at[i] >= whole*float64(k)/scallopCount {
			valleys = append(valleys, oval(2*math.Pi*float64(i)/fine))
			k++
		}
	}
	var out []pattern.Point
	for k, a := range valleys {
		b := valleys[(k+1)%scallopCount]
		mid, half := a.Add(b).Scale(0.5), b.Sub(a).Scale(0.5)
		for i := range 10 {
			sin, cos := math.Sincos(math.Pi * float64(i) / 10)
			out = append(out, mid.Sub(half.Scale(cos)).Add(pattern.Pt(half.Y, -half.X).Scale(sin)))
		}
	}
	return out
}

// around is a loop through n places, going round with the clock from the top.
func around(n int, at func(t float64) pattern.Point) pattern.Loop {
	var out pattern.Loop
	for i := range n {
		out = append(out, pattern.Vertex{Point: at(2 * math.Pi * float64(i) / float64(n))})
	}
	return out
}

// Fills are what the box puts in: its name, what is inside, its size, its price, the number of the
// copy and what is listed for its room, "" where that is not known.
type Fills struct{ Name, Inside, Size, Price, N, Each string }

// Says is the text with what the box fills in, line by line.
func (l Label) Says(f Fills) []string {
	text := strings.NewReplacer("{name}", f.Name, "{inside}", f.Inside, "{size}", f.Size, "{price}", f.Price, "{n}", f.N, "{each}", f.Each).Replace(l.Text)
	var out []string
	for _, line := range strings.Split(text, "\n") {
		if line = strings.TrimSpace(line); line != "" {
			out = append(out, line)
		}
	}
	return out
}
