package pdf

import (
	"cmp"
	"fmt"
	"io"
	"math"

	"brevium/core/design"
	"brevium/draw"
)

// WriteBooklet writes several boxes as a booklet for a class or a stall: a cover with all of them,
// what is in it, and a page for each box: its instruction sheet where that is one page, else its
// picture, what is cut of it and its steps in words. results are for one box each.
func WriteBooklet(out io.Writer, results []*design.Result, print Print) error {
	print.What = Instructions
	title := boxes(len(results)) + " to make"
	w := newManyWriter(results, print, title)
	if err := w.bookletCover(results); err != nil {
		return err
	}
	all := make([]bookletPage, len(results))
	for i, r := range results {
		var err error
		if all[i], err = bookletPageOf(r, print); err != nil {
			return err
		}
	}
	aside := newManyWriter(results, print, title)
	aside.bookletContents(all, 1)
	w.bookletContents(all, w.PageNo()+aside.PageNo()+1)
	for _, p := range all {
		if err := p.write(w); err != nil {
			return err
		}
	}
	return w.Output(out)
}

// boxes counts boxes in words.
func boxes(n int) string {
	if n == 1 {
		return "1 box"
	}
	return fmt.Sprintf("%d boxes", n)
}

// bookletPage is a box in a booklet: how many pages it takes, and whether with pictures.
type bookletPage struct {
	of       *design.Result
	pictures bool
	pages    int
}

// bookletPageOf tries a box with pictures, then in words.
func bookletPageOf(r *design.Result, print Print) (bookletPage, error) {
	p := bookletPage{of: r, pictures: true}
	for {
		w := newManyWriter([]*design.Result{r}, print, "")
		if err := p.write(w); err != nil {
			return p, err
		}
		if p.pages = w.PageNo(); p.pages == 1 || !p.pictures {
			return p, nil
		}
		p.pictures = false
	}
}

func (p bookletPage) name() string { return cmp.Or(p.of.Inputs.Name, p.of.Style.Name) }

// write writes the box at the end of a document.
func (p bookletPage) write(w *writer) error {
	w.r, w.model, w.shut, w.title = p.of, draw.OpenModelOf(p.of, w.print.Plain), draw.ShutModelOf(p.of, w.print.Plain), p.name()
	if p.pictures {
		return w.instructions()
	}
	w.column(edge, w.paper.Width-2*edge, w.paper.Height-edge-3)
	w.SetCellMargin(0)
	if err := w.sheetHead(); err != nil {
		return err
	}
	w.stepsInWords()
	return nil
}

// bookletContents lists the boxes with the page that each is on, the first on a given one.
func (w *writer) bookletContents(all []bookletPage, at int) {
	w.page()
	w.para(w.left, w.wide(), 17, true, "What is in it")
	for _, p := range all {
		w.room(9)
		w.ink()
		w.SetFont(family, "", 12)
		n := fmt.Sprint(at)
		w.Text(w.left+w.wide()-w.GetStringWidth(n), w.y+4.5, n)
		w.para(w.left, w.wide()-14, 12, false, fmt.Sprintf("%s, %s inside", p.name(), p.of.Inside.FreeIn(p.of.Inputs.Units)))
		w.y += 1.5
		at += p.pages
	}
}

// bookletCover shows all the boxes, in rows that fill the page.
func (w *writer) bookletCover(results []*design.Result) error {
	w.page()
	w.y = w.paper.Height * 0.08
	w.para(w.left, w.wide(), 30, true, w.title)
	w.y += 8
	across := max(1, int(math.Ceil(math.Sqrt(float64(len(results))*0.75))))
	down := (len(results) + across - 1) / across
	wide, high := w.wide()/float64(across), min(70, (w.bottom-w.y)/float64(down))
	top := w.y
	for i, r := range results {
		look, err := draw.ShutModelOf(r, w.print.Plain).Look(r.Style.Name)
		if err != nil {
			return err
		}
		x, y := w.left+float64(i%across)*wide, top+float64(i/across)*high
		w.fit(look, x+2, y, wide-4, high-9)
		w.ink()
		w.SetFont(family, "B", 9)
		name := w.SplitText(cmp.Or(r.Inputs.Name, r.Style.Name), wide-4)[0]
		w.Text(x+wide/2-w.GetStringWidth(name)/2, y+high-4, name)
	}
	return nil
}

// stepsInWords writes the steps in two columns below the head, under what they belong to.
func (w *writer) stepsInWords() {
	const between, number, size, line = 6.0, 6.5, 9.0, 4.1
	wide := (w.wide() - between) / 2
	top, x := w.y, w.left
	group := ""
	next := func(need float64) {
		if w.y+need <= w.bottom {
			return
		}
		if x == w.left {
			x, w.y = w.left+wide+between, top
			return
		}
		w.page()
		x, top = w.left, w.y
	}
	for n, s := range w.r.Steps {
		w.SetFont(family, "", size)
		lines := w.SplitText(s.Text, wide-number)
		if s.Group != group {
			next(float64(len(lines))*line + 8)
			w.ink()
			w.SetFont(family, "B", 10.5)
			w.Text(x, w.y+5, s.Group)
			w.y += 7
			group = s.Group
		}
		next(float64(len(lines)) * line)
		w.ink()
		w.SetFont(family, "B", size)
		w.Text(x, w.y+3.1, fmt.Sprint(n+1))
		w.SetFont(family, "", size)
		for _, text := range lines {
			w.Text(x+number, w.y+3.1, text)
			w.y += line
		}
		w.y += 0.9
	}
}
