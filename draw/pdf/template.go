package pdf

import (
	"fmt"
	"math"

	"brevium/core/design"
	"brevium/draw"
)

// Templates are printed in tiles. Each page keeps a border free for the
// printer and for the marks; neighbours share an overlap to glue by.
const (
	border  = 16.0
	overlap = 8.0
	foot    = 16.0 // room below the tile for the check rule
)

// Tiles gives how many pages across and down a piece of w × h mm takes.
func (p Paper) Tiles(w, h float64) (across, down int) {
	tw, th := p.tile()
	count := func(size, tile float64) int {
		return max(1, int(math.Ceil((size-overlap)/(tile-overlap)-1e-9)))
	}
	return count(w, tw), count(h, th)
}

// tile is the area of one page that carries the drawing.
func (p Paper) tile() (w, h float64) { return p.Width - 2*border, p.Height - 2*border - foot }

// template draws a piece at true size over as many pages as it takes, with
// marks to join them and a rule to check the printer by.
func (w *writer) template(p design.Part) {
	picture := draw.Net{Part: p.Part}.TrueSize()
	width, height := p.Pattern.Width.MM(), p.Pattern.Height.MM()
	across, down := w.paper.Tiles(width, height)
	tw, th := w.paper.tile()
	for row := range down {
		for col := range across {
			w.page()
			ox, oy := float64(col)*(tw-overlap), float64(row)*(th-overlap)
			w.ClipRect(border, border, tw, th, false)
			w.at(picture, border-ox, border-oy, 1)
			w.ClipEnd()
			w.marks(tw, th, row, col, down, across)
			w.ink()
			w.SetFont(family, "", 10)
			w.SetXY(border, 6)
			w.CellFormat(
				tw,
				5,
				fmt.Sprintf("%s, true size: print at 100 %%, no scaling. Part %c%d of %d.", p.Name, 'A'+row, col+1, across*down),
				"",
				0,
				"L",
				false,
				0,
				"",
			)
			w.rule(border, w.paper.Height-border-6)
		}
	}
}

// marks draws the corners of the tile and, where a neighbour follows, the
// line, in the middle of what they share, that is laid on the other page's of
// the same name.
func (w *writer) marks(tw, th float64, row, col, down, across int) {
	w.ink()
	w.SetLineWidth(0.15)
	w.SetFont(family, "B", 9)
	for _, x := range []float64{border, border + tw} {
		for _, y := range []float64{border, border + th} {
			w.Line(x-4, y, x+4, y)
			w.Line(x, y-4, x, y+4)
		}
	}
	w.SetDashPattern([]float64{1, 1.5}, 0)
	join := func(x1, y1, x2, y2 float64, name string) {
		w.Line(x1, y1, x2, y2)
		w.Text((x1+x2)/2-2, (y1+y2)/2-1.5, name)
	}
	name := func(r, c int, way string) string { return fmt.Sprintf("%c%d%s", 'A'+r, c+1, way) }
	if col+1 < across {
		join(border+tw-overlap/2, border, border+tw-overlap/2, border+th, name(row, col, "→"))
	}
	if col > 0 {
		join(border+overlap/2, border, border+overlap/2, border+th, name(row, col-1, "→"))
	}
	if row+1 < down {
		join(border, border+th-overlap/2, border+tw, border+th-overlap/2, name(row, col, "↓"))
	}
	if row > 0 {
		join(border, border+overlap/2, border+tw, border+overlap/2, name(row-1, col, "↓"))
	}
	w.SetDashPattern(nil, 0)
}

// rule prints 50 mm and 2 in to be measured before cutting.
func (w *writer) rule(x, y float64) {
	w.SetLineWidth(0.25)
	bar := func(x, length float64, text string) {
		w.Line(x, y, x+length, y)
		w.Line(x, y-2, x, y+2)
		w.Line(x+length, y-2, x+length, y+2)
		w.SetFont(family, "", 9)
		w.Text(x+2, y-1, text)
	}
	bar(x, 50, "50 mm: measure this")
	bar(x+70, 50.8, "2 in: and this")
	for i := range 5 {
		w.Line(x+float64(i)*10, y-1, x+float64(i)*10, y+1)
	}
}
