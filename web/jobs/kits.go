package jobs

import (
	"fmt"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/cupboard"
	"brevium/core/measure"
	"brevium/web/form"
	"brevium/web/page"
)

// kitsPage is a job's boxes as kits for a class.
type kitsPage struct {
	page.Chrome
	ID       int64
	Name     string
	Form     *form.Form
	Fields   []form.Field
	Kits     *batch.Kits
	Bag      []bagView
	Supplies []string
	Sheets   []string // of one table
	Cuts     []batchView
	Students []studentView
}

// bagView is what goes into a bag of one box.
type bagView struct {
	Box    string
	Pieces []string
}

type studentView struct {
	ID   int64
	Name string
}

func boxesOf(items []batch.Item, ids []int64) (out []studentView) {
	for i, it := range items {
		out = append(out, studentView{ids[i], it.Inputs.Name})
	}
	return out
}

// kits shows the kits: who asks says how many people, tables and spares.
func (s *room) kits(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	items, ids, err := s.made(ctx, w)
	if err != nil {
		return err
	}
	lots, err := s.Store.Of(ctx).Lots(ctx)
	if err != nil {
		return err
	}
	f := form.New(c.QueryParams(), page.UnitsOf(c))
	people, tables, spare := items[0].Copies, 1, 10.0
	f.Whole("people", &people)
	f.Whole("tables", &tables)
	f.Decimal("spare", &spare)
	v := &kitsPage{Chrome: s.Chrome(c, "Kits · "+w.Name), ID: w.ID, Name: w.Name, Form: f}
	if f.OK() {
		v.Kits, err = batch.MakeKits(ctx, items, lots, people, tables, spare)
		if page.IsFault(err) {
			f.Fail(err)
		} else if err != nil {
			return err
		}
	}
	v.Fields = []form.Field{
		f.Control("people", "People", "each makes one of every box of the job", fmt.Sprint(people)),
		f.Control("tables", "Tables", "", fmt.Sprint(tables)),
		f.Control("spare", "Spare pieces", "percent more on each table", "10"),
	}
	v.Students = boxesOf(items, ids)
	status := http.StatusOK
	if v.Kits == nil {
		status = http.StatusUnprocessableEntity
	} else {
		v.fill()
	}
	return c.Render(status, "kits.html", v)
}

// fill writes the lists.
func (v *kitsPage) fill() {
	for _, p := range v.Kits.Bag {
		i := slices.IndexFunc(v.Bag, func(b bagView) bool { return b.Box == p.Box })
		if i < 0 {
			i = len(v.Bag)
			v.Bag = append(v.Bag, bagView{Box: p.Box})
		}
		line := fmt.Sprintf("%s, %s, of %s", p.Piece, measure.Labels(p.Made.Units, p.Made.Tick, p.Blank.Width, p.Blank.Height), p.Blank.Card.Name)
		if p.Blank.Copies > 1 {
			line = fmt.Sprintf("%d × %s", p.Blank.Copies, line)
		}
		v.Bag[i].Pieces = append(v.Bag[i].Pieces, line)
	}
	for _, n := range cupboard.Needs(v.Kits.Supplies) {
		v.Supplies = append(v.Supplies, fmt.Sprintf("%s: %s", cupboard.Good{Kind: n.Kind, Name: n.Name}.Named(), n.Kind.Tells(n.Amount)))
	}
	for i := range v.Kits.Stocks {
		st := &v.Kits.Stocks[i]
		for _, t := range batch.Takes(v.Kits.Stocks[i : i+1]) {
			v.Sheets = append(v.Sheets, fmt.Sprintf("%s of %s", page.SheetsOf(t.Count, t.Sheet.Name, t.Offcut), st.Card.Name))
		}
		if cuts := fences(st, v.Units); len(cuts.Settings) > 0 {
			v.Cuts = append(v.Cuts, cuts)
		}
	}
}
