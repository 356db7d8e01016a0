package export

import (
	"fmt"

	"brevium/core/design"
	"brevium/core/marked"
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
