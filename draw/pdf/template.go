package pdf

import (
	"context"
	"fmt"
	"math"
	"strings"

	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
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

// templates draws every piece and mat at true size: those that go on one page
// packed together, the others over as many pages as they take, turned where
// that saves some.
func (w *writer) templates() error {
	var small []pattern.Blank
	drawings := map[string]template{}
	tw, th := w.paper.tile()
	for _, p := range w.r.Parts {
		t := w.templateOf(p)
		drawings[p.ID] = t
		if fits := min(t.wide, t.high)+2*clear <= min(tw, th) && max(t.wide, t.high)+2*clear <= max(tw, th); fits {
			small = append(small, pattern.Blank{ID: p.ID, Name: p.Name, Width: measure.FromMM(t.wide), Height: measure.FromMM(t.high)})
			continue
		}
		w.tiled(t)
	}
	for _, s := range recipe.MatSets(w.r.Mats) {
		wide, high := s.Blank.Width.MM(), s.Blank.Height.MM()
		picture := draw.BlankOf(s.Where(), wide, high)
		picture.X, picture.Y, picture.Width, picture.Height = 0, 0, wide, high
		for _, g := range s.Blank.Gives {
			picture.Outline(g.Outline)
		}
		picture.Caption(fmt.Sprintf("%s, layer %d", s.Where(), s.Mat.Layer))
		t := template{name: fmt.Sprintf("%d × paper, %s, layer %d", s.Count, s.Where(), s.Mat.Layer), picture: picture, wide: wide, high: high}
		drawings[s.Mat.ID] = t
		if min(wide, high)+2*clear > min(tw, th) || max(wide, high)+2*clear > max(tw, th) {
			w.tiled(t)
			continue
		}
		small = append(small, pattern.Blank{ID: s.Mat.ID, Name: t.name, Width: s.Blank.Width, Height: s.Blank.Height})
	}
	w.packed(small, drawings)
	return nil
}

// clear is what is left free round a template that shares a page, in mm.
const clear = 4.0

// past is how far a page goes on past the outermost lines of what is tiled.
const past = 3.0

// template is one drawing of true size.
type template struct {
	name       string
	picture    *draw.Picture
	wide, high float64
}

func (w *writer) templateOf(p design.Part) template {
	part := p.Part
	if w.print.Mirror {
		part.Pattern = part.Pattern.Mirrored()
	}
	net := draw.Net{Part: part, PaperUp: p.PaperUp(), Fence: w.r.Inputs.Tools.Fence, Units: w.r.Inputs.Units, Tick: w.r.Inputs.Tools.Tick}
	return template{p.Name, net.TrueSize(), p.Pattern.Width.MM(), p.Pattern.Height.MM()}
}

// packed lays templates on as few pages as they take.
func (w *writer) packed(blanks []pattern.Blank, drawings map[string]template) {
	if len(blanks) == 0 {
		return
	}
	tw, th := w.paper.tile()
	job := &layout.Job{Sheets: []paper.Sheet{{Name: "page", Width: measure.FromMM(tw), Height: measure.FromMM(th), Count: paper.Unlimited}}, Trimmer: measure.Max}
	for _, b := range blanks {
		job.Pieces = append(job.Pieces, layout.Piece{Name: b.ID, Width: b.Width + measure.FromMM(2*clear), Height: b.Height + measure.FromMM(2*clear), Copies: 1, Turn: true})
	}
	laid, err := layout.Solve(context.Background(), job, layout.Effort{Rounds: 1, Steps: 60})
	if err != nil { // one to a page, then
		for _, b := range blanks {
			w.tiled(drawings[b.ID])
		}
		return
	}
	for _, sheet := range laid.Sheets {
		w.page()
		var names []string
		for _, pl := range sheet.Placed {
			t := drawings[job.Pieces[pl.Piece].Name]
			names = append(names, t.name)
			x, y := border+pl.X.MM()+clear, border+pl.Y.MM()+clear
			if pl.Turned { // a quarter with the clock
				w.TransformBegin()
				w.TransformRotate(-90, x, y)
				w.at(t.picture, x, y-t.high, 1)
				w.TransformEnd()
				continue
			}
			w.at(t.picture, x, y, 1)
		}
		w.over(strings.Join(names, "; "), "")
		w.rule(border, w.paper.Height-border-6)
	}
}

// over is the line over a template: what it is and how it is printed.
func (w *writer) over(what, part string) {
	tw, _ := w.paper.tile()
	w.ink()
	w.SetFont(family, "", 9)
	side := ""
	if w.print.Mirror {
		side = ", mirrored for the back of the card"
	}
	text := fmt.Sprintf("%s, true size%s: print at 100 %%, no scaling.%s", what, side, part)
	w.SetXY(border, 5)
	w.MultiCell(tw, 4, text, "", "L", false)
}

// tiled draws a template over several pages, with marks to join them, lying or
// upright as takes fewer.
func (w *writer) tiled(t template) {
	across, down := w.paper.Tiles(t.wide+2*past, t.high+2*past)
	a, d := w.paper.Tiles(t.high+2*past, t.wide+2*past)
	turned := a*d < across*down
	if turned {
		across, down = a, d
	}
	tw, th := w.paper.tile()
	for row := range down {
		for col := range across {
			w.page()
			ox, oy := float64(col)*(tw-overlap)-past, float64(row)*(th-overlap)-past
			w.ClipRect(border, border, tw, th, false)
			if turned {
				w.TransformBegin()
				w.TransformRotate(-90, border-ox, border-oy)
				w.at(t.picture, border-ox, border-oy-t.high, 1)
				w.TransformEnd()
			} else {
				w.at(t.picture, border-ox, border-oy, 1)
			}
			w.ClipEnd()
			w.marks(tw, th, row, col, down, across)
			part := ""
			if across*down > 1 {
				part = fmt.Sprintf(" Part %c%d of %d: cut along a dashed line and lay it on the line of the same name.%s", 'A'+row, col+1, across*down, tileMap(row, col, down, across))
			}
			w.over(t.name, part)
			w.rule(border, w.paper.Height-border-6)
		}
	}
}

// tileMap writes how the pages lie beside each other, this one in brackets.
func tileMap(row, col, down, across int) string {
	var rows []string
	for r := range down {
		var names []string
		for c := range across {
			name := fmt.Sprintf("%c%d", 'A'+r, c+1)
			if r == row && c == col {
				name = "[" + name + "]"
			}
			names = append(names, name)
		}
		rows = append(rows, strings.Join(names, " "))
	}
	return " Pages: " + strings.Join(rows, " / ") + "."
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
