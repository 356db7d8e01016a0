package draw

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"brevium/core/paper"
	"brevium/core/pattern"
)

// fraction finds "3/8", to be set as a fraction by the page's style.
var fraction = regexp.MustCompile(`\d+/\d+`)

func sortFloats(f []float64) { slices.Sort(f) }

// Veil is how much of what is under it a veil hides.
const Veil = 0.72

// Halo is the light edge of a text, by its height.
const Halo = 0.26

// EdgeColour is that of the light edges of lines and texts over papers.
const EdgeColour = paper.White

// seam is how wide a shape without a line is drawn over its edge, in strokes.
const seam = 0.6

// Pen is what the shape is drawn with. Over a paper it fills nothing, and is
// light where ink would not be seen.
func (s Shape) Pen() Pen {
	n := Pens[s.Class]
	if s.Bare { // but no seam shows between two of one colour
		n.Stroke, n.Width = n.Fill, seam
	}
	if s.Fill == nil {
		return n
	}
	if n.Fill = ""; s.Bare {
		n.Stroke = ""
		return n
	}
	if s.Fill.Dark() && n.Stroke == ink {
		n.Stroke = pale
	}
	return n
}

// Edge is how wide the light edge of a line is, in strokes, if it has one.
func (s Shape) Edge() (width float64, has bool) {
	pen := s.Pen()
	return pen.Width + 2*edge, pen.Stroke != "" && s.Label == "" && s.Circle == 0 && pen.Fill == ""
}

// number writes a coordinate in at most three decimals: a micrometre.
func number(f float64) string {
	s := strconv.FormatFloat(f, 'f', 3, 64)
	s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	if s == "-0" {
		return "0"
	}
	return s
}

// trueSize is the stroke, in mm, of pictures that are printed at full size, or near it.
const trueSize = 0.25

// coarse writes a coordinate in at most two decimals.
func coarse(f float64) string { return number(math.Round(f*100) / 100) }

// Inline writes the picture as an SVG element for a page: it scales to its
// box and is described by its title.
func (p *Picture) Inline() string {
	var b strings.Builder
	role := "img"
	if slices.ContainsFunc(p.Shapes, func(s Shape) bool { return s.Key != "" && !s.Aside }) {
		role = "group" // what is in it can be gone to
	}
	says := fmt.Sprintf(`role="%s" aria-label="%s"`, role, Escaped(p.Title))
	if p.Title == "" {
		says = `aria-hidden="true"` // the words beside it say it
	}
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" class="drawing" viewBox="%s %s %s %s" %s>`,
		number(p.X), number(p.Y), number(p.Width), number(p.Height), says)
	papers := prints{sign: p.sign()}
	for _, s := range p.Shapes {
		if s.Fill != nil {
			papers.of(s.Fill)
		}
	}
	papers.defs(&b)
	edged := p.Edged()
	for i, s := range p.Shapes {
		if i == edged {
			p.edges(&b, p.Shapes[i:])
		}
		if s.Fill != nil {
			p.filled(&b, s, papers.of(s.Fill))
		}
		p.shape(&b, s, i >= edged)
	}
	b.WriteString("</svg>")
	return b.String()
}

// filled lays a shape's paper under it: its colour, its print, and the shade.
func (p *Picture) filled(b *strings.Builder, s Shape, print string) {
	d := p.path(s.Loops, true)
	fmt.Fprintf(b, `<path class="under" d="%s" fill="%s" fill-rule="evenodd"/>`, d, s.Fill.Colour())
	if print == "" {
		return
	}
	fmt.Fprintf(b, `<path class="under" d="%s" fill="url(#%s)" fill-rule="evenodd"/>`, d, print)
	if s.Fill.Shade > 0 {
		fmt.Fprintf(b, `<path d="%s" fill="%s" fill-opacity="%s" fill-rule="evenodd"/>`, d, paper.Shadow, number(s.Fill.Shade))
	}
}

// Edged is the first of the shapes that need a light edge to be seen: what lies
// over all papers, when one of those is printed or dark.
func (p *Picture) Edged() int {
	last, busy := -1, false
	for i, s := range p.Shapes {
		if s.Fill != nil {
			last, busy = i, busy || s.Fill.Busy()
		}
	}
	if !busy {
		return len(p.Shapes)
	}
	return last + 1
}

// edge is how far a light edge reaches out from a line, in strokes.
const edge = 1.7

// edges draws the light edges of lines.
func (p *Picture) edges(b *strings.Builder, shapes []Shape) {
	for _, s := range shapes {
		width, has := s.Edge()
		if !has {
			continue
		}
		fmt.Fprintf(b, `<path d="%s" fill="none" stroke="%s" stroke-opacity="0.85" stroke-width="%s" stroke-linecap="round" stroke-linejoin="round" pointer-events="none"/>`,
			p.path(s.Loops, s.Closed), EdgeColour, number(width*p.U))
	}
}

// shape draws one shape; a text that lies over paper has a light edge.
func (p *Picture) shape(b *strings.Builder, s Shape, edged bool) {
	pen := s.Pen()
	fmt.Fprintf(b, "<%s class=%q", s.element(), string(s.Class))
	switch {
	case s.Label != "":
		if edged && s.Class == TextQuiet {
			pen.Fill = ink
		}
		fmt.Fprintf(b, ` x="%s" y="%s" font-size="%s" text-anchor="%s" fill="%s"`,
			number(s.At.X), number(s.At.Y), number(s.Size), s.Anchor, pen.Fill)
		if pen.Bold {
			b.WriteString(` font-weight="600"`)
		}
		if edged {
			fmt.Fprintf(b, ` paint-order="stroke" stroke="%s" stroke-width="%s" stroke-linejoin="round"`, EdgeColour, number(s.Size*Halo))
		}
		if s.Angle != 0 {
			fmt.Fprintf(b, ` transform="rotate(%s %s %s)"`, number(s.Angle), number(s.At.X), number(s.At.Y))
		}
		if s.Aside {
			fmt.Fprintf(b, ` data-key="%s"`, Escaped(s.Key))
		}
		fmt.Fprintf(b, ">%s</text>", fraction.ReplaceAllString(Escaped(s.Label), `<tspan class="frac">$0</tspan>`))
		return
	case s.Circle > 0:
		fmt.Fprintf(b, ` cx="%s" cy="%s" r="%s"`, number(s.At.X), number(s.At.Y), number(s.Circle))
	default:
		fmt.Fprintf(b, ` d="%s"`, p.path(s.Loops, s.Closed))
	}
	p.paint(b, pen, s.Circle > 0 || s.Closed)
	if s.Aside {
		fmt.Fprintf(b, ` data-key="%s"`, Escaped(s.Key))
	} else if s.Key != "" {
		fmt.Fprintf(b, ` data-key="%s" tabindex="0" role="button" aria-label="%s"`, Escaped(s.Key), Escaped(s.About))
	}
	if s.About == "" {
		b.WriteString("/>")
		return
	}
	fmt.Fprintf(b, "><title>%s</title></%s>", Escaped(s.About), s.element())
}

func (s Shape) element() string {
	switch {
	case s.Label != "":
		return "text"
	case s.Circle > 0:
		return "circle"
	}
	return "path"
}

func (p *Picture) paint(b *strings.Builder, pen Pen, closed bool) {
	fill := "none"
	if closed && pen.Fill != "" {
		fill = pen.Fill
	}
	fmt.Fprintf(b, ` fill="%s"`, fill)
	if pen.Veil {
		fmt.Fprintf(b, ` fill-opacity="%s"`, number(Veil))
	}
	if closed {
		b.WriteString(` fill-rule="evenodd"`)
	}
	if pen.Stroke == "" {
		return
	}
	fmt.Fprintf(b, ` stroke="%s" stroke-width="%s" stroke-linejoin="round"`, pen.Stroke, number(pen.Width*p.U))
	if pen.Dots {
		b.WriteString(` stroke-linecap="round"`)
	}
	if len(pen.Dash) > 0 {
		var dash []string
		for _, d := range pen.Dash {
			dash = append(dash, number(d*p.U))
		}
		fmt.Fprintf(b, ` stroke-dasharray="%s"`, strings.Join(dash, " "))
	}
}

func (p *Picture) path(loops [][]pattern.Point, closed bool) string {
	if p.U > trueSize { // a hundredth of a millimetre is far under what is seen
		return path(loops, closed, coarse)
	}
	return path(loops, closed, number)
}

func path(loops [][]pattern.Point, closed bool, number func(float64) string) string {
	var b strings.Builder
	for _, loop := range loops {
		for i, q := range loop {
			b.WriteByte("ML"[min(i, 1)])
			b.WriteString(number(q.X) + " " + number(q.Y))
		}
		if closed {
			b.WriteByte('Z')
		}
	}
	return b.String()
}
