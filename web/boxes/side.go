package boxes

import (
	"cmp"
	"fmt"
	"html/template"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/web/page"
)

// sidePage is boxes beside one another, with what differs marked.
type sidePage struct {
	page.Chrome
	Boxes []sideBox
	Rows  []sideRow
}

type sideBox struct {
	ID      int64
	Name    string
	Picture template.HTML
}

// sideRow is one thing that is told of each box; Differs says that it is not the same.
type sideRow struct {
	What    string
	Of      []string
	Differs bool
}

// mostBeside is how many boxes stand beside one another.
const mostBeside = 4

// side shows the chosen boxes side by side.
func (s *room) side(c *echo.Context) error {
	ctx := c.Request().Context()
	boxes, err := s.boxesOf(ctx, chosen(c.QueryParams()), mostBeside)
	if err != nil {
		return err
	}
	p := sidePage{Chrome: s.Chrome(c, "Boxes side by side")}
	p.Carry = "side-form" // another unit keeps the boxes
	var made []*design.Result
	for _, b := range boxes {
		r, err := s.Made(ctx, b.Inputs)
		if err != nil {
			return err
		}
		made = append(made, r)
		p.Boxes = append(p.Boxes, sideBox{b.ID, b.Name, page.BoxPicture(r, b.Name)})
	}
	for _, row := range sideRows {
		x := sideRow{What: row.what}
		for _, r := range made {
			x.Of = append(x.Of, row.of(r, p.Units))
		}
		for _, text := range x.Of {
			x.Differs = x.Differs || text != x.Of[0]
		}
		p.Rows = append(p.Rows, x)
	}
	return c.Render(http.StatusOK, "side.html", p)
}

// sideRows are what is told of each box, all in one unit.
var sideRows = []struct {
	what string
	of   func(r *design.Result, u measure.Unit) string
}{
	{"Kind of box", func(r *design.Result, _ measure.Unit) string { return r.Style.Name }},
	{"Inside", func(r *design.Result, u measure.Unit) string { return r.Inside.FreeIn(u) }},
	{"Outside", func(r *design.Result, u measure.Unit) string { return r.Outside.TakenIn(u) }},
	{"Blanks, to the nearest mark", func(r *design.Result, u measure.Unit) string {
		var all []string
		for _, p := range r.Parts {
			all = append(all, p.Name+" "+measure.Labels(u, u.Tick(), measure.Nearest(p.Pattern.Width, u.Tick()), measure.Nearest(p.Pattern.Height, u.Tick())))
		}
		return strings.Join(all, "; ")
	}},
	{"Card", func(r *design.Result, _ measure.Unit) string { return r.Inputs.Card.Label() }},
	{"Gaps", func(r *design.Result, _ measure.Unit) string {
		var all []string
		for _, a := range r.Fits {
			if a.Pair.Kind.Widened() {
				all = append(all, fmt.Sprintf("%s: %s mm, %s", a.Pair.What(), measure.Hundredths(a.Gap), a.Verdict))
			}
		}
		return cmp.Or(strings.Join(all, "; "), "none")
	}},
	{"Papers on top", func(r *design.Result, _ measure.Unit) string { return page.Counted(len(r.Mats), "paper") }},
	{"Made at a time", func(r *design.Result, _ measure.Unit) string { return page.Counted(r.Inputs.Copies, "box") }},
	{"Sheets for them", func(r *design.Result, _ measure.Unit) string {
		n := 0
		for _, st := range r.Stocks {
			n += len(st.Layout.Sheets)
		}
		return page.Counted(n, "sheet")
	}},
	{"Time for one", func(r *design.Result, _ measure.Unit) string { return fmt.Sprintf("%.0f minutes", max(1, r.One)) }},
	{"To check", func(r *design.Result, _ measure.Unit) string {
		n := 0
		for _, f := range r.Checks {
			if f.Verdict != inspect.OK {
				n++
			}
		}
		if n == 0 {
			return "nothing"
		}
		return page.Counted(n, "thing")
	}},
}
