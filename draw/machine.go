package draw

import (
	"fmt"
	"html"
	"math"
	"strings"

	"brevium/core/pattern"
	"brevium/core/style"
)

// Machine says how a piece is written for a cutting machine.
type Machine struct {
	// Mirrored is the inside up.
	Mirrored bool
	// Perforate puts the scores into a layer of their own name, for a blade
	// that perforates instead of a tool that scores.
	Perforate bool
	// Notes adds the names of the faces, in a layer that is hidden.
	Notes bool
}

// SVG writes a piece as an SVG file of true size in millimetres, outside up:
// a layer cut, with closed outlines and slits, and a layer score (or
// perforate), each line once, arcs as arcs, nothing filled. Layers go by their
// ids and by their names for drawing programs.
func (m Machine) SVG(part style.Part) []byte {
	p := part.Pattern
	w, h := p.Width.MM(), p.Height.MM()
	var b strings.Builder
	fmt.Fprintf(&b, `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" xmlns:inkscape="http://www.inkscape.org/namespaces/inkscape" width="%smm" height="%smm" viewBox="0 0 %s %s">
<title>%s</title>
`, number(w), number(h), number(w), number(h), html.EscapeString(part.Name))
	scores := "score"
	if m.Perforate {
		scores = "perforate"
	}
	m.layer(&b, scores, "#7a2355", m.scores(p, w))
	cuts := []string{m.loop(p.Outline, w)}
	for _, hole := range p.Holes {
		cuts = append(cuts, m.loop(hole, w))
	}
	for _, s := range p.Slits {
		cuts = append(cuts, m.segment(s, w))
	}
	m.layer(&b, "cut", "#2b2530", cuts)
	if m.Notes {
		b.WriteString(`<g id="notes" inkscape:groupmode="layer" inkscape:label="notes" display="none" font-family="sans-serif" font-size="3" text-anchor="middle" fill="#635a68">` + "\n")
		for _, mark := range p.Marks {
			at := m.at(mark.At, w)
			fmt.Fprintf(&b, "<text x=\"%s\" y=\"%s\">%s</text>\n", number(at.X), number(at.Y), html.EscapeString(mark.Plain()))
		}
		b.WriteString("</g>\n")
	}
	b.WriteString("</svg>\n")
	return []byte(b.String())
}

func (m Machine) layer(b *strings.Builder, name, colour string, paths []string) {
	fmt.Fprintf(b, "<g id=%q inkscape:groupmode=\"layer\" inkscape:label=%q fill=\"none\" stroke=%q stroke-width=\"0.1\">\n", name, name, colour)
	for _, d := range paths {
		fmt.Fprintf(b, "<path d=%q/>\n", d)
	}
	b.WriteString("</g>\n")
}

// scores are the creases that are left after cutting, but for those that are
// rolled by hand.
func (m Machine) scores(p *pattern.Pattern, w float64) []string {
	var out []string
	for _, c := range p.Creases {
		if c.Angle > 0.01 && !c.Rolled {
			out = append(out, m.segment(c.Segment, w))
		}
	}
	return out
}

func (m Machine) at(q pattern.Point, w float64) pattern.Point {
	if m.Mirrored {
		q.X = w - q.X
	}
	return q
}

func (m Machine) segment(s pattern.Segment, w float64) string {
	a, b := m.at(s.A, w), m.at(s.B, w)
	return "M" + number(a.X) + " " + number(a.Y) + "L" + number(b.X) + " " + number(b.Y)
}

// loop writes a closed line. A bulge is the tangent of a quarter of the arc's
// angle, so that the radius is chord (1 + b²) / 4|b|.
func (m Machine) loop(l pattern.Loop, w float64) string {
	var b strings.Builder
	for i, v := range l {
		at := m.at(v.Point, w)
		if i == 0 {
			b.WriteString("M" + number(at.X) + " " + number(at.Y))
		}
		next := l[(i+1)%len(l)]
		to := m.at(next.Point, w)
		switch {
		case v.Bulge != 0:
			r := next.Point.Sub(v.Point).Len() * (1 + v.Bulge*v.Bulge) / (4 * math.Abs(v.Bulge))
			large, sweep := 0, 0
			if math.Abs(v.Bulge) > 1 {
				large = 1
			}
			if (v.Bulge > 0) != m.Mirrored {
				sweep = 1
			}
			fmt.Fprintf(&b, "A%s %s 0 %d %d %s %s", number(r), number(r), large, sweep, number(to.X), number(to.Y))
		case i+1 < len(l):
			b.WriteString("L" + number(to.X) + " " + number(to.Y))
		}
	}
	return b.String() + "Z"
}
