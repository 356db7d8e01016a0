package export

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/strokes"
)

// lines are those of a drawing by the tools that follow them, without its scores where a board makes them.
func (d Drawing) lines(scores strokes.Tool, board bool) []strokes.Line {
	var out []strokes.Line
	for _, s := range d.Scores {
		if board {
			break
		}
		out = append(out, strokes.Line{Tool: scores, Path: pattern.Straight(s.A, s.B)})
	}
	for _, l := range d.Cuts {
		out = append(out, strokes.Line{Tool: strokes.Cut, Path: l, Closed: true})
	}
	for _, s := range d.Slits {
		out = append(out, strokes.Line{Tool: strokes.Cut, Path: s})
	}
	return out
}

// Strokes are what a machine follows, in its order: scores, inner cuts, outlines, the nearest next.
// On a sheet each line is there once, and none along the sheet's own edge; a piece by itself keeps its
// outline whole.
func (d Drawing) Strokes(layers Layers) []strokes.Stroke {
	tool := strokes.Score
	if layers.Perforate {
		tool = strokes.Perforate
	}
	lines := d.lines(tool, layers.Board)
	if d.Sheet {
		lines = strokes.Once(lines, d.Width, d.Height)
	}
	return strokes.Order(lines, d.Width, d.Height)
}

// Knife is how a blade trails behind its head, in mm: with it the way of the head is written, without
// it that of the tip.
type Knife struct{ Behind, Overcut float64 }

// Usual is a blade as most machines have it.
var Usual = Knife{Behind: 0.25, Overcut: 0.5}

// The numbers by which tools are selected, and how fast they go in cm/s.
var (
	pens   = map[strokes.Tool]int{strokes.Score: 1, strokes.Perforate: 2, strokes.Kiss: 3, strokes.Cut: 4, strokes.Print: 5}
	speeds = map[strokes.Tool]int{strokes.Score: 20, strokes.Perforate: 10, strokes.Kiss: 15, strokes.Cut: 10, strokes.Print: 20}
)

// HPGL writes the sheet for a machine: 40 units a millimetre, y up from the lower edge, outside up.
func (d Drawing) HPGL(layers Layers, knife Knife, card paper.Card) []byte {
	x := plot{height: d.Height, blade: strokes.Blade{Behind: knife.Behind}, overcut: knife.Overcut}
	x.text.WriteString("IN;PA;\n")
	tool := strokes.Tool(-1)
	for _, s := range d.Strokes(layers) {
		if s.Tool != tool {
			tool = s.Tool
			fmt.Fprintf(&x.text, "SP%d;VS%d;FS%d;\n", pens[tool], speeds[tool], strokes.Force(tool, card.Thickness.MM()))
		}
		if knife.Behind > 0 && tool != strokes.Score && tool != strokes.Print {
			x.head(s)
		} else {
			x.tip(s.Line)
		}
	}
	x.text.WriteString("PU0,0;SP0;\n")
	return []byte(x.text.String())
}

type plot struct {
	text   strings.Builder
	height float64
	blade  strokes.Blade
	// overcut is how far a ring runs on.
	overcut float64
}

// at is a place in units.
func (x *plot) at(p pattern.Point) string {
	return fmt.Sprintf("%.0f,%.0f", math.Round(40*p.X)+0, math.Round(40*(x.height-p.Y))+0)
}

// tip writes a line as the tip goes, arcs as arcs. What an arc's end is rounded to is said after it.
func (x *plot) tip(l strokes.Line) {
	path := l.Path
	if l.Closed {
		path = append(path[:len(path):len(path)], pattern.Vertex{Point: path[0].Point})
	}
	fmt.Fprintf(&x.text, "PU%s;", x.at(path[0].Point))
	for i := 1; i < len(path); i++ {
		if bulge := path[i-1].Bulge; bulge != 0 {
			centre := pattern.Centre(path[i-1].Point, path[i].Point, bulge)
			fmt.Fprintf(&x.text, "PD;AA%s,%s;", x.at(centre), number(-4*math.Atan(bulge)*180/math.Pi))
		}
		fmt.Fprintf(&x.text, "PD%s;", x.at(path[i].Point))
	}
	x.text.WriteString("PU;\n")
}

// head writes a line as the head goes: where the blade swings round its tip, an arc about it.
func (x *plot) head(s strokes.Stroke) {
	over := 0.0
	if s.Tool == strokes.Cut {
		over = x.overcut
	}
	// The corners are rounded first, so that the blade swings about just where the tip is.
	points := s.Overrun(over)
	for i, p := range points {
		points[i] = pattern.Pt(math.Round(40*p.X)/40, x.height-math.Round(40*(x.height-p.Y))/40)
	}
	for i, m := range x.blade.Swings(points) {
		switch {
		case i == 0:
			fmt.Fprintf(&x.text, "PU%s;PD;", x.at(m.To))
		case m.Turn != 0:
			fmt.Fprintf(&x.text, "AA%s,%s;PD%s;", x.at(m.About), number(-m.Turn*180/math.Pi), x.at(m.To))
		default:
			fmt.Fprintf(&x.text, "PD%s;", x.at(m.To))
		}
	}
	x.text.WriteString("PU;\n")
}
