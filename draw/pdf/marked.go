package pdf

import (
	"brevium/core/marked"
	"brevium/core/pattern"
	"brevium/draw"
)

// Marks is how many marks a page to print and cut has.
const Marks = 4

// marked prints labels and printed papers on pages with marks, to be cut by a machine: each as it is
// laid in the file that is cut, and 1 mm over what is cut.
func (w *writer) marked() error {
	pages, tooLarge, err := marked.Pages(w.r, w.paper.Width, w.paper.Height, Marks)
	if err != nil {
		return err
	}
	if len(pages) == 0 {
		w.page()
		w.SetFont(family, "", 10)
		w.Text(margin, w.y+10, "Nothing of this box is printed and cut: it has no label of its own, and no paper with a print. "+marked.TooLarge(tooLarge))
		return nil
	}
	for n, p := range pages {
		w.AddPage()
		w.ink()
		w.SetFillColor(0, 0, 0)
		for _, m := range p.Marks {
			w.Circle(m.X, m.Y, marked.Across/2, "F")
		}
		w.SetFont(family, "", 7)
		words := "Print at 100 %, and cut with the file of this page. " + marked.TooLarge(tooLarge)
		if n > 0 {
			words = "Print at 100 %, and cut with the file of this page."
		}
		w.Text(marked.In+14, w.paper.Height-4, words)
		for _, i := range p.Items {
			w.item(i)
		}
	}
	return nil
}

// item draws one thing, turned about its place.
func (w *writer) item(i marked.Item) {
	_, _, move := i.Lies()
	at := move(pattern.Pt(0, 0))
	w.TransformBegin()
	defer w.TransformEnd()
	w.TransformRotate(-float64(i.Turn), at.X, at.Y)
	if i.Label >= 0 {
		l := w.r.Inputs.Labels[i.Label]
		if len(l.Layers) > 0 {
			look := l.Layers[len(l.Layers)-1].Card.Seen()
			w.run(i.Outlines[0].Flat(), &draw.Fill{Look: look, Lay: draw.Affine{1, 0, 0, 1, 0, 0}}, at)
		}
		w.ink()
		w.labelWords(l, len(l.Layers)-1, i.Copy, at.X, at.Y)
		return
	}
	fill := &draw.Fill{Look: w.r.Blanks[i.Blank].Card.Seen(), Lay: draw.Affine{1, 0, 0, 1, 0, 0}}
	for _, o := range i.Outlines {
		w.run(o.Flat(), fill, at)
	}
}

// run fills an outline, and a little over it.
func (w *writer) run(outline []pattern.Point, fill *draw.Fill, at pattern.Point) {
	over := pattern.Inset(pattern.Clockwise(outline), func(pattern.Point) float64 { return -marked.Bleed })
	if len(over) < 3 {
		over = outline
	}
	w.filled(draw.Shape{Fill: fill, Loops: [][]pattern.Point{over}}, at.X, at.Y, 1)
}
