package draw

import (
	"fmt"
	"hash/fnv"
	"io"
	"math"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// Fill is the paper that a shape shows, instead of its pen's colour.
type Fill struct {
	Look paper.Look // with nothing left unsaid
	// Lay takes the paper, in mm from the top left corner of what was cut from it,
	// upright, to the picture.
	Lay    Affine
	Inside bool    // one looks at its inside, which carries no print
	Shade  float64 // part of the light that is missing, 0 to 1
}

// Affine is a plane map: (x, y) goes to (a x + c y + e, b x + d y + f), in that
// order, as in SVG.
type Affine [6]float64

// Still leaves everything where it is.
var Still = Affine{1, 0, 0, 1, 0, 0}

// At maps a point.
func (m Affine) At(q pattern.Point) pattern.Point {
	return pattern.Pt(m[0]*q.X+m[2]*q.Y+m[4], m[1]*q.X+m[3]*q.Y+m[5])
}

// Then is m followed by n.
func (m Affine) Then(n Affine) Affine {
	o, x, y := n.At(m.At(pattern.Pt(0, 0))), n.At(m.At(pattern.Pt(1, 0))), n.At(m.At(pattern.Pt(0, 1)))
	return Affine{x.X - o.X, x.Y - o.Y, y.X - o.X, y.Y - o.Y, o.X, o.Y}
}

// Back undoes m.
func (m Affine) Back() Affine {
	det := m[0]*m[3] - m[1]*m[2]
	a, b, c, d := m[3]/det, -m[1]/det, -m[2]/det, m[0]/det
	return Affine{a, b, c, d, -(a*m[4] + c*m[5]), -(b*m[4] + d*m[5])}
}

// Laid is how the repeats of a look lie on its paper: turned about its corner.
func Laid(l paper.Look) Affine {
	sin, cos := math.Sincos(float64(l.Turn) * math.Pi / 180)
	return Affine{cos, sin, -sin, cos, 0, 0}
}

// Colour is that under the print, in its shade.
func (f Fill) Colour() paper.Colour {
	if f.Inside {
		return f.Look.Inside.Shaded(f.Shade)
	}
	return f.Look.Outside.Shaded(f.Shade)
}

// Printed reports whether more than one colour is seen.
func (f Fill) Printed() bool {
	return !f.Inside && (f.Look.Photo.ID != "" || f.Look.Print != paper.Plain)
}

// Dark reports whether ink lines on it are hard to see.
func (f Fill) Dark() bool { return f.Colour().Light() < 0.45 }

// Busy reports whether lines and texts over it need a light edge of their own.
func (f Fill) Busy() bool { return f.Printed() || f.Colour().Light() < 0.78 }

// From is what a piece is cut from: its card, and whether it lies on it end for
// end.
type From struct {
	Card paper.Card
	Over bool
}

// lay is where the card lies on a flat piece of w × h mm.
func (f From) lay(w, h float64) Affine {
	if f.Over {
		return Affine{-1, 0, 0, -1, w, h}
	}
	return Still
}

// fill is the card of a flat piece of w × h mm, its outside up.
func (f From) fill(w, h float64) *Fill { return &Fill{Look: f.Card.Seen(), Lay: f.lay(w, h)} }

// matLay is where the paper of a mat lies on the flat piece, seen from its
// outside.
func matLay(m dress.Mat) Affine {
	o, x, y := m.Place(0, 0), m.Place(1, 0), m.Place(0, 1)
	return Affine{x.X - o.X, x.Y - o.Y, y.X - o.X, y.Y - o.Y, o.X, o.Y}
}

// matFill is the paper of a mat on the flat piece.
func matFill(m dress.Mat) *Fill { return &Fill{Look: m.Card.Seen(), Lay: matLay(m)} }

// sign tells a picture with printed papers from the others of its page, by what is in it; "" where
// nothing is printed, and needs no name.
func (p *Picture) sign() string {
	h, printed := fnv.New64a(), false
	for _, s := range p.Shapes {
		if s.Fill != nil && s.Fill.Printed() {
			fmt.Fprint(h, *s.Fill, s.Loops)
			printed = true
		}
	}
	if !printed {
		return ""
	}
	fmt.Fprint(h, p.Title, p.Mark, p.X, p.Y, p.Width, p.Height)
	return fmt.Sprintf("p%x-", h.Sum64())
}

// prints are the printed papers of a picture: each once, and each way it lies.
type prints struct {
	sign  string
	looks []paper.Look
	lays  []printLay
}

type printLay struct {
	look int
	lay  Affine
}

// of names the way a fill lies; "" for one colour.
func (p *prints) of(f *Fill) string {
	if !f.Printed() {
		return ""
	}
	i := slices.Index(p.looks, f.Look)
	if i < 0 {
		i = len(p.looks)
		p.looks = append(p.looks, f.Look)
	}
	x := printLay{i, f.Lay}
	k := slices.Index(p.lays, x)
	if k < 0 {
		k = len(p.lays)
		p.lays = append(p.lays, x)
	}
	return fmt.Sprintf("%s%d", p.sign, k)
}

// defs writes the papers, for the shapes to be filled with.
func (p *prints) defs(w io.Writer) {
	if len(p.looks) == 0 {
		return
	}
	io.WriteString(w, "<defs>")
	for i, l := range p.looks {
		wide, high := TileSize(l)
		fmt.Fprintf(w, `<pattern id="%sb%d" width="%s" height="%s" patternUnits="userSpaceOnUse">%s</pattern>`,
			p.sign, i, number(wide), number(high), tileSVG(l))
	}
	for k, x := range p.lays {
		lay := Laid(p.looks[x.look]).Then(x.lay)
		var m []string
		for _, v := range lay {
			m = append(m, fmt.Sprintf("%.5g", v))
		}
		fmt.Fprintf(w, `<pattern id="%s%d" href="#%sb%d" patternTransform="matrix(%s)"/>`, p.sign, k, p.sign, x.look, strings.Join(m, " "))
	}
	io.WriteString(w, "</defs>")
}

// PhotoURL is where a page finds the photograph of a paper.
func PhotoURL(id string) string { return "/papers/" + id + ".jpg" }

// tileSVG is one repeat of a look, without its ground.
func tileSVG(l paper.Look) string {
	var b strings.Builder
	wide, high := TileSize(l)
	if l.Photo.ID != "" {
		fmt.Fprintf(&b, `<image href="%s" width="%s" height="%s" preserveAspectRatio="none"/>`, PhotoURL(l.Photo.ID), number(wide), number(high))
		return b.String()
	}
	for _, s := range Motif(l) {
		fmt.Fprintf(&b, `<path d="%s" fill="%s"/>`, path([][]pattern.Point{s.Points}, true, number), s.Colour)
	}
	return b.String()
}

// TileSVG is one repeat of a drawn look as a picture of its own.
func TileSVG(l paper.Look) string {
	wide, high := TileSize(l)
	return fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" width="%s" height="%s" viewBox="0 0 %s %s"><rect width="100%%" height="100%%" fill="%s"/>%s</svg>`,
		number(wide*tilePixels), number(high*tilePixels), number(wide), number(high), l.Outside, tileSVG(l))
}

// tilePixels is how finely a tile is drawn where it becomes pixels, to the mm.
const tilePixels = 12
