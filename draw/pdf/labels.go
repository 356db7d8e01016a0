package pdf

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/label"
	"brevium/core/pattern"
)

// betweenLabels is what is left free round each label on a page, in mm.
const betweenLabels = 5.0

// hasShaped reports whether a design has labels of its own that are printed.
func hasShaped(r *design.Result) bool {
	return slices.ContainsFunc(r.Inputs.Labels, func(l label.Label) bool { return !l.What.Bought() })
}

// shapedLabels prints the top layers of the designs' labels at true size, with
// their words and the lines to cut along, many to a page: as many as all boxes
// take.
func (w *writer) shapedLabels(results []*design.Result) {
	tw, th := w.paper.tile()
	x, y, row := 0.0, 0.0, 0.0
	begin := func() {
		w.page()
		w.over(labelNames(results), "")
		w.rule(border, w.paper.Height-border-6)
		x, y, row = 0, 0, 0
	}
	begin()
	for _, r := range results {
		w.r = r
		for _, l := range r.Inputs.Labels {
			if l.What.Bought() {
				continue // it is not printed
			}
			top := len(l.Layers) - 1
			wide, high := l.Size(top)
			for n := range l.Copies * r.Inputs.Copies {
				if x > 0 && x+wide.MM() > tw {
					x, y, row = 0, y+row+betweenLabels, 0
				}
				if y > 0 && y+high.MM() > th {
					begin()
				}
				w.oneLabel(l, top, n%l.Copies, border+x, border+y)
				x += wide.MM() + betweenLabels
				row = max(row, high.MM())
			}
		}
	}
}

// oneLabel draws a layer of the nth copy of a label and its words, its top left corner at (x, y).
func (w *writer) oneLabel(l label.Label, layer, n int, x, y float64) {
	wide, high := l.Size(layer)
	off := pattern.Pt((l.Width-wide).MM()/2, (l.Height-high).MM()/2)
	w.ink()
	w.SetLineWidth(0.2)
	w.SetDashPattern(nil, 0)
	w.loops([][]pattern.Point{l.Outline(layer).Flat()}, true, x-off.X, y-off.Y, 1)
	w.DrawPath("D")
	if l.Hole {
		at, _ := l.HoleAt()
		w.Circle(x+at.X-off.X, y+at.Y-off.Y, label.HoleAcross.MM()/2, "D")
	}
	w.labelWords(l, layer, n, x, y)
}

// labelWords writes what the nth copy of a label says, in the middle of a layer whose top left corner is
// at (x, y).
func (w *writer) labelWords(l label.Label, layer, n int, x, y float64) {
	wide, high := l.Size(layer)
	lines := w.r.LabelText(l, n)
	if len(lines) == 0 {
		return
	}
	// As large as the words go in the middle two thirds of the shape.
	roomWide, roomHigh := wide.MM()*0.68, high.MM()*0.62
	size := 30.0
	w.SetFont(family, "B", size)
	for _, line := range lines {
		size = min(size, size*roomWide/max(0.1, w.GetStringWidth(line)))
		w.SetFont(family, "B", size)
	}
	const leading = 1.25
	size = min(size, roomHigh/float64(len(lines))/leading*pointsPerMM)
	w.SetFont(family, "B", size)
	step := size / pointsPerMM * leading
	at := y + high.MM()/2 - step*float64(len(lines)-1)/2 + size/pointsPerMM*0.35
	for _, line := range lines {
		w.Text(x+wide.MM()/2-w.GetStringWidth(line)/2, at, line)
		at += step
	}
}

// labelNames lists the labels for a heading: "2 × tag".
func labelNames(results []*design.Result) string {
	var out []string
	for _, r := range results {
		for _, l := range r.Inputs.Labels {
			if l.What.Bought() {
				continue
			}
			out = append(out, fmt.Sprintf("%d × %s", l.Copies*r.Inputs.Copies, strings.ToLower(l.Name)))
		}
	}
	return strings.Join(out, ", ")
}
