package export

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"brevium/core/marked"
	"brevium/core/pattern"
	"brevium/core/strokes"
	"brevium/draw"
)

// Layers says how the lines of a drawing are called.
type Layers struct {
	// Perforate puts the scores into a layer of their own name, for a blade
	// that perforates instead of a tool that scores.
	Perforate bool
	// Board leaves the scores out: they are made on the scoring board.
	Board bool
	// Notes adds the names of the faces, in a layer that is hidden.
	Notes bool
}

func (l Layers) scores() string {
	if l.Perforate {
		return "perforate"
	}
	return "score"
}

// SVG writes the drawing at true size in millimetres: a layer cut, with closed
// outlines and slits, and a layer score (or perforate), each line once, arcs as
// arcs, nothing filled. Layers go by their ids and by their names for drawing
// programs.
func (d Drawing) SVG(layers Layers) []byte {
	var b strings.Builder
	w, h := number(d.Width), number(d.Height)
	fmt.Fprintf(&b, `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" xmlns:inkscape="http://www.inkscape.org/namespaces/inkscape" width="%smm" height="%smm" viewBox="0 0 %s %s">
<title>%s</title>
`, w, h, w, h, draw.Escaped(d.Name))
	var scores, cuts []string
	for _, s := range d.Strokes(layers) {
		if s.Tool == strokes.Cut {
			cuts = append(cuts, way(s.Path, s.Closed))
		} else {
			scores = append(scores, way(s.Path, s.Closed))
		}
	}
	layer(&b, layers.scores(), "#7a2355", scores)
	layer(&b, "cut", "#2b2530", cuts)
	d.words(&b)
	if len(d.Marks) > 0 {
		b.WriteString(`<g id="marks" inkscape:groupmode="layer" inkscape:label="marks" fill="#000000">` + "\n")
		for _, m := range d.Marks {
			fmt.Fprintf(&b, "<circle cx=\"%s\" cy=\"%s\" r=\"%s\"/>\n", number(m.X), number(m.Y), number(marked.Across/2))
		}
		b.WriteString("</g>\n")
	}
	if layers.Notes {
		b.WriteString(`<g id="notes" inkscape:groupmode="layer" inkscape:label="notes" display="none" font-family="sans-serif" font-size="3" text-anchor="middle" fill="#635a68">` + "\n")
		for _, n := range d.Notes {
			fmt.Fprintf(&b, "<text x=\"%s\" y=\"%s\">%s</text>\n", number(n.At.X), number(n.At.Y), draw.Escaped(n.Text))
		}
		b.WriteString("</g>\n")
	}
	b.WriteString("</svg>\n")
	return []byte(b.String())
}

// words writes what a label says in the middle of it, as large as it goes in the
// middle two thirds; a letter is about half as wide as it is high.
func (d Drawing) words(b *strings.Builder) {
	if len(d.Words) == 0 {
		return
	}
	longest := 1
	for _, line := range d.Words {
		longest = max(longest, len([]rune(line)))
	}
	const leading = 1.25
	size := min(d.Width*0.68/(0.55*float64(longest)), d.Height*0.6/(leading*float64(len(d.Words))))
	fmt.Fprintf(b, `<g id="words" inkscape:groupmode="layer" inkscape:label="words" font-family="sans-serif" font-size="%s" text-anchor="middle" fill="#2b2530">`+"\n", number(size))
	y := d.Height/2 - size*leading*float64(len(d.Words)-1)/2 + size*0.35
	for _, line := range d.Words {
		fmt.Fprintf(b, "<text x=\"%s\" y=\"%s\">%s</text>\n", number(d.Width/2), number(y), draw.Escaped(line))
		y += size * leading
	}
	b.WriteString("</g>\n")
}

func layer(b *strings.Builder, name, colour string, paths []string) {
	fmt.Fprintf(b, "<g id=%q inkscape:groupmode=\"layer\" inkscape:label=%q fill=\"none\" stroke=%q stroke-width=\"0.1\">\n", name, name, colour)
	for _, d := range paths {
		fmt.Fprintf(b, "<path d=%q/>\n", d)
	}
	b.WriteString("</g>\n")
}

// way writes a line with its arcs, closed or not.
func way(l pattern.Loop, closed bool) string {
	var b strings.Builder
	for i, v := range l {
		if i == 0 {
			b.WriteString("M" + number(v.X) + " " + number(v.Y))
		}
		to := l[(i+1)%len(l)].Point
		switch {
		case !closed && i+1 == len(l):
			return b.String()
		case v.Bulge != 0:
			r, large, sweep := radius(v.Point, to, v.Bulge), 0, 0
			if math.Abs(v.Bulge) > 1 {
				large = 1
			}
			if v.Bulge > 0 {
				sweep = 1
			}
			fmt.Fprintf(&b, "A%s %s 0 %d %d %s %s", number(r), number(r), large, sweep, number(to.X), number(to.Y))
		case i+1 < len(l):
			b.WriteString("L" + number(to.X) + " " + number(to.Y))
		}
	}
	return b.String() + "Z"
}

// number writes millimetres to a tenth of a micrometre, without a needless
// nought.
func number(v float64) string {
	return strconv.FormatFloat(math.Round(v*1e4)/1e4+0, 'f', -1, 64)
}
