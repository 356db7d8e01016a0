package pdf

import (
	"cmp"
	"fmt"
	"io"
	"slices"
	"strings"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/draw"
)

// WriteMany writes several boxes as one document: what is in it, one cut plan of all of them, and
// the instruction sheet of each, for one box. results are for one box each, and copies how many
// are made of it.
func WriteMany(out io.Writer, results []*design.Result, copies []int, stocks []batch.Stock, print Print) error {
	print.What = Plan
	w := newManyWriter(results, print, manyTitle(len(results)))
	w.page()
	w.SetFont(family, "B", 20)
	w.Text(w.left, w.y+8, w.title)
	w.y += 14
	for i, r := range results {
		w.para(w.left, w.wide(), 12, false, fmt.Sprintf("%d × %s: %s, %s inside", copies[i], cmp.Or(r.Inputs.Name, r.Style.Name), strings.ToLower(r.Style.Name), r.Inside.FreeIn(r.Inputs.Units)))
	}
	for i := range stocks {
		w.stock(&stocks[i])
	}
	w.print.What = Instructions
	for _, r := range results {
		w.r, w.model, w.shut = r, draw.OpenModelOf(r, print.Plain), draw.ShutModelOf(r, print.Plain)
		w.title = ""
		w.y = w.bottom // a page of its own
		if err := w.instructions(); err != nil {
			return err
		}
		w.column(margin, print.Paper.Width-2*margin, print.Paper.Height-margin-4)
	}
	return w.Output(out)
}

// newManyWriter begins a document of several boxes.
func newManyWriter(results []*design.Result, print Print, title string) *writer {
	w := &writer{canvas: newCanvas(print.Paper, title), print: print, r: results[0], scale: 1, title: title}
	w.photos = print.Photos
	if !print.Date.IsZero() { // two prints of one day are the same to the byte
		w.SetCreationDate(print.Date)
		w.SetModificationDate(print.Date)
	}
	w.AliasNbPages(allPages)
	w.column(margin, print.Paper.Width-2*margin, print.Paper.Height-margin-4)
	return w
}

// WriteLabels writes the labels of several boxes, for all copies of each: those of their own shape many
// to a page, and strips with its name for a box that has none. results are for all copies.
func WriteLabels(out io.Writer, results []*design.Result, print Print) error {
	print.What = Labels
	w := newManyWriter(results, print, "Labels of "+boxes(len(results)))
	var shaped, plain []*design.Result
	for _, r := range results {
		if hasShaped(r) {
			shaped = append(shaped, r)
		} else {
			plain = append(plain, slices.Repeat([]*design.Result{r}, r.Inputs.Copies)...)
		}
	}
	w.strips(plain)
	if len(shaped) > 0 {
		w.shapedLabels(shaped)
	}
	return w.Output(out)
}

func manyTitle(n int) string { return fmt.Sprintf("%d kinds of box", n) }

// stock draws the sheets of one card that several boxes are cut from.
func (w *writer) stock(st *batch.Stock) {
	unit := w.r.Inputs.Units
	w.laid(st.Card, st.Layout, func(l layout.Laid) (draw.Sheet, []string) {
		sheet := draw.Sheet{Laid: l, Card: st.Card, Plain: w.print.Plain, Units: unit, Tick: unit.Tick(), Tellings: st.Tellings(l),
			Label: func(i int) draw.PieceLabel {
				o := st.Origins[i]
				return draw.PieceLabel{Name: o.Name, Under: o.Box, Mat: o.Mat, Made: o.Made, Gives: st.Outlines(i)}
			}}
		name := func(i int) string { return strings.ToLower(st.Origins[i].Name) }
		show := func(at measure.Length) string { return recipe.Whole(at, st.Tellings(l)...) }
		return sheet, numbered(l.Words(name, show), l.Places(name, show))
	})
}
