package export

import (
	"fmt"
	"strings"

	"brevium/core/pattern"
	"brevium/core/strokes"
)

// DXF writes the drawing in the oldest form that every program reads (R12), in
// millimetres, y up: closed polylines whose arcs are arcs, circles and lines on
// the layers CUT and SCORE, or PERF where scores are perforated.
func (d Drawing) DXF(layers Layers) []byte {
	x := dxf{height: d.Height}
	scores := "SCORE"
	if layers.Perforate {
		scores = "PERF"
	}
	x.pair(0, "SECTION", 2, "HEADER", 9, "$ACADVER", 1, "AC1009")
	x.pair(9, "$EXTMIN", 10, 0.0, 20, 0.0, 30, 0.0, 9, "$EXTMAX", 10, d.Width, 20, d.Height, 30, 0.0)
	x.pair(0, "ENDSEC", 0, "SECTION", 2, "TABLES")
	x.pair(0, "TABLE", 2, "LTYPE", 70, 1, 0, "LTYPE", 2, "CONTINUOUS", 70, 0, 3, "Solid", 72, 65, 73, 0, 40, 0.0, 0, "ENDTAB")
	x.pair(0, "TABLE", 2, "LAYER", 70, 2)
	for i, name := range []string{"CUT", scores} {
		x.pair(0, "LAYER", 2, name, 70, 0, 62, []int{7, 5}[i], 6, "CONTINUOUS")
	}
	x.pair(0, "ENDTAB", 0, "ENDSEC", 0, "SECTION", 2, "ENTITIES")
	for _, s := range d.Strokes(layers) {
		layer := scores
		if s.Tool == strokes.Cut {
			layer = "CUT"
		}
		x.loop(layer, s.Path, s.Closed)
	}
	x.pair(0, "ENDSEC", 0, "EOF")
	return []byte(x.text.String())
}

// dxf writes pairs of a code and a value, a line each.
type dxf struct {
	text   strings.Builder
	height float64
}

func (x *dxf) pair(codesAndValues ...any) {
	for i := 0; i < len(codesAndValues); i += 2 {
		fmt.Fprintf(&x.text, "%3d\n", codesAndValues[i])
		switch v := codesAndValues[i+1].(type) {
		case float64:
			text := number(v)
			if !strings.Contains(text, ".") {
				text += ".0"
			}
			fmt.Fprintln(&x.text, text)
		default:
			fmt.Fprintln(&x.text, v)
		}
	}
}

func (x *dxf) line(layer string, s pattern.Segment) {
	x.pair(0, "LINE", 8, layer, 10, s.A.X, 20, x.height-s.A.Y, 30, 0.0, 11, s.B.X, 21, x.height-s.B.Y, 31, 0.0)
}

// loop writes a circle, a line, or a polyline that is closed or not. Seen with y up a clockwise loop
// whose bulge is positive bends to the left of its way all the same: what this
// format calls positive bends to the right of it, against the clock.
func (x *dxf) loop(layer string, l pattern.Loop, closed bool) {
	if !closed && len(l) == 2 && l[0].Bulge == 0 {
		x.line(layer, pattern.Segment{A: l[0].Point, B: l[1].Point})
		return
	}
	if closed && len(l) == 2 && l[0].Bulge == l[1].Bulge && (l[0].Bulge == 1 || l[0].Bulge == -1) {
		mid := l[0].Add(l[1].Point).Scale(0.5)
		x.pair(0, "CIRCLE", 8, layer, 10, mid.X, 20, x.height-mid.Y, 30, 0.0, 40, l[0].Sub(mid).Len())
		return
	}
	flags := 0
	if closed {
		flags = 1
	}
	x.pair(0, "POLYLINE", 8, layer, 66, 1, 10, 0.0, 20, 0.0, 30, 0.0, 70, flags)
	for _, v := range l {
		x.pair(0, "VERTEX", 8, layer, 10, v.X, 20, x.height-v.Y, 30, 0.0)
		if v.Bulge != 0 {
			x.pair(42, -v.Bulge)
		}
	}
	x.pair(0, "SEQEND", 8, layer)
}
