package export

import (
	"fmt"

	"brevium/core/design"
	"brevium/core/marked"
	"brevium/core/strokes"
	"brevium/draw/pdf"
)

// Marked are the files to cut what the print of pdf.Marked shows, a page each, with its marks.
func Marked(r *design.Result, on pdf.Paper) ([]Drawing, error) {
	pages, _, err := marked.Pages(r, on.Width, on.Height, pdf.Marks)
	if err != nil {
		return nil, err
	}
	var out []Drawing
	for n, p := range pages {
		d := Drawing{Name: fmt.Sprintf("Page %d to cut, printed on %s", n+1, on.Name), File: fmt.Sprintf("printed-%d", n+1), Width: p.Width, Height: p.Height, Sheet: true, Marks: p.Marks}
		for _, i := range p.Items {
			d.Cuts = append(d.Cuts, i.Placed()...)
		}
		out = append(out, d)
	}
	return out, nil
}

// WantedOf is what should come off printed pages.
func WantedOf(pages []marked.Page) []strokes.Piece {
	var out []strokes.Piece
	for n, p := range pages {
		for k, i := range p.Items {
			loops := i.Placed()
			name := fmt.Sprintf("%d.%d %s", n+1, k+1, i.Name)
			if i.Label >= 0 {
				one := strokes.Piece{Name: name, Copies: 1, Outline: loops[0].Flat()}
				for _, h := range loops[1:] {
					one.Holes = append(one.Holes, h.Flat())
				}
				out = append(out, one)
				continue
			}
			for j, l := range loops {
				out = append(out, strokes.Piece{Name: fmt.Sprintf("%s (%d)", name, j+1), Copies: 1, Outline: l.Flat()})
			}
		}
	}
	return out
}
