package draw

import (
	"fmt"
	"html"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"brevium/core/pattern"
)

// fraction finds "3/8", to be set as a fraction by the page's style.
var fraction = regexp.MustCompile(`\d+/\d+`)

func sortFloats(f []float64) { slices.Sort(f) }

// number writes a coordinate in at most three decimals: a micrometre.
func number(f float64) string {
	s := strconv.FormatFloat(f, 'f', 3, 64)
	s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	if s == "-0" {
		return "0"
	}
	return s
}

// Inline writes the picture as an SVG element for a page: it scales to its
// box and is described by its title.
func (p *Picture) Inline() string {
	var b strings.Builder
	role := "img"
	if slices.ContainsFunc(p.Shapes, func(s Shape) bool { return s.Key != "" }) {
		role = "group" // what is in it can be gone to
	}
	says := fmt.Sprintf(`role="%s" aria-label="%s"`, role, html.EscapeString(p.Title))
	if p.Title == "" {
		says = `aria-hidden="true"` // the words beside it say it
	}
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" class="drawing" viewBox="%s %s %s %s" %s>`,
		number(p.X), number(p.Y), number(p.Width), number(p.Height), says)
	for _, s := range p.Shapes {
		p.shape(&b, s)
	}
	b.WriteString("</svg>")
	return b.String()
}

func (p *Picture) shape(b *strings.Builder, s Shape) {
	pen := Pens[s.Class]
	fmt.Fprintf(b, "<%s class=%q", s.element(), string(s.Class))
	switch {
	case s.Label != "":
		fmt.Fprintf(b, ` x="%s" y="%s" font-size="%s" text-anchor="%s" fill="%s"`,
			number(s.At.X), number(s.At.Y), number(s.Size), s.Anchor, pen.Fill)
		if pen.Bold {
			b.WriteString(` font-weight="600"`)
		}
		if s.Angle != 0 {
			fmt.Fprintf(b, ` transform="rotate(%s %s %s)"`, number(s.Angle), number(s.At.X), number(s.At.Y))
		}
		fmt.Fprintf(b, ">%s</text>", fraction.ReplaceAllString(html.EscapeString(s.Label), `<tspan class="frac">$0</tspan>`))
		return
	case s.Circle > 0:
		fmt.Fprintf(b, ` cx="%s" cy="%s" r="%s"`, number(s.At.X), number(s.At.Y), number(s.Circle))
	default:
		fmt.Fprintf(b, ` d="%s"`, path(s.Loops, s.Closed))
	}
	p.paint(b, pen, s.Circle > 0 || s.Closed)
	if s.Key != "" {
		fmt.Fprintf(b, ` data-key="%s" tabindex="0" role="button" aria-label="%s"`, html.EscapeString(s.Key), html.EscapeString(s.About))
	}
	if s.About == "" {
		b.WriteString("/>")
		return
	}
	fmt.Fprintf(b, "><title>%s</title></%s>", html.EscapeString(s.About), s.element())
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

func path(loops [][]pattern.Point, closed bool) string {
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
