package boxes

import (
	"cmp"
	"context"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/draw"
	"brevium/web/form"
	"brevium/web/page"
)

// kindsPage shows every kind of box: at its usual size, or around a thing.
type kindsPage struct {
	page.Chrome
	Form   *form.Form
	Thing  []form.Field
	Sheet  form.Field
	Time   form.Field
	Order  form.Field
	For    form.Field
	Rows   []kindRow
	Hidden []kindView // that do not go with what was asked
}

// kindRow are the kinds that are made for the same, in order, to swipe through.
type kindRow struct {
	Name  string
	Kinds []kindView
	Wide  bool // all are in sight: it is the only row
}

type kindView struct {
	*style.Style
	Shut, Open    template.HTML
	Size, Takes   string
	Work, Problem string
	Minutes       float64
	Card          float64 // mm²
	Hard          int
}

// What the kinds are put in order by.
var kindOrders = []form.Choice{
	{Value: "easy", Label: "the easiest first"}, {Value: "time", Label: "the quickest first"},
	{Value: "card", Label: "the least card first"}, {Value: "name", Label: "by name"},
}

// kinds shows the catalogue, and of it what goes with what one has: a thing, a
// sheet, an hour.
func (s *room) kinds(c *echo.Context) error {
	f := form.New(c.QueryParams(), page.UnitsOf(c))
	f.Longest = paper.Longest(nil)
	p := kindsPage{Chrome: s.Chrome(c, "Kinds of box"), Form: f}
	thing := contents.Thing{Shape: contents.Block, Count: 1, Ease: contents.UsualEase}
	given := false
	for _, side := range []struct {
		name, label, hint string
		into              *measure.Length
	}{{"thing.length", "A thing that is", "long", &thing.Length}, {"thing.width", "by", "wide", &thing.Width}, {"thing.height", "by", "high", &thing.Height}} {
		if strings.TrimSpace(f.Posted.Get(side.name)) != "" {
			f.Length(side.name, side.into)
			given = true
		}
		p.Thing = append(p.Thing, f.EmptyLength(side.name, side.label, side.hint))
	}
	minutes := 0
	if strings.TrimSpace(f.Posted.Get("minutes")) != "" {
		f.Whole("minutes", &minutes)
	}
	p.Time = f.Control("minutes", "Minutes that you have", "for one box; empty for any", "")
	sheets := []form.Choice{{Value: "", Label: usualSheets(f.Unit)}}
	for _, x := range paper.Standard {
		sheets = append(sheets, form.Choice{Value: x.Name, Label: x.Name})
	}
	p.Sheet = f.ChoiceField("sheet", "The sheet", "", "", sheets...)
	uses := []form.Choice{{Value: "", Label: "anything"}}
	for _, u := range style.Uses {
		uses = append(uses, form.Choice{Value: string(u), Label: u.Words()})
	}
	p.For = f.ChoiceField("for", "What it is for", "", "", uses...)
	p.Order = f.ChoiceField("order", "In order", "", "easy", kindOrders...)
	var things []contents.Thing
	if given && f.OK() {
		if err := thing.Check(); err == nil {
			things = []contents.Thing{thing}
		}
	}
	var kinds []kindView
	all := s.everyKind(c.Request().Context(), f.Unit, f.Posted.Get("sheet"), things)
	for _, k := range all {
		if k.Problem == "" && minutes > 0 && k.Minutes > float64(minutes) {
			k.Problem = fmt.Sprintf("takes %s", recipe.Clock(k.Minutes))
		}
		if k.Problem != "" {
			p.Hidden = append(p.Hidden, k)
		} else {
			kinds = append(kinds, k)
		}
	}
	slices.SortStableFunc(kinds, func(a, b kindView) int {
		switch p.Order.Value {
		case "time":
			return cmp.Compare(a.Minutes, b.Minutes)
		case "card":
			return cmp.Compare(a.Card, b.Card)
		case "name":
			return strings.Compare(a.Name, b.Name)
		}
		return cmp.Compare(a.Hard, b.Hard)
	})
	p.Rows = rowsOf(kinds, style.Use(p.For.Value))
	return c.Render(http.StatusOK, "kinds.html", p)
}

// rowsOf are the kinds under what they are made for above all; of those for one use, a row of
// all that are made for it too. A maker's own styles say no use: they stand in a row of their own.
func rowsOf(kinds []kindView, use style.Use) []kindRow {
	var out []kindRow
	for _, u := range style.Uses {
		row := kindRow{Name: u.Words(), Wide: use != ""}
		for _, k := range kinds {
			if use == u && slices.Contains(k.For, u) || use == "" && len(k.For) > 0 && k.For[0] == u {
				row.Kinds = append(row.Kinds, k)
			}
		}
		if len(row.Kinds) > 0 {
			out = append(out, row)
		}
	}
	own := kindRow{Name: "Styles of your own", Wide: use != ""}
	for _, k := range kinds {
		if len(k.For) == 0 {
			own.Kinds = append(own.Kinds, k)
		}
	}
	if len(own.Kinds) > 0 {
		out = append(out, own)
	}
	return out
}

// everyKind makes one box of every kind; they do not wait for one another.
func (s *room) everyKind(ctx context.Context, unit measure.Unit, sheet string, things []contents.Thing) []kindView {
	styles := style.Boxes()
	out := make([]kindView, len(styles))
	layout.Each(ctx, len(styles), layout.AtOnce, func(i int) {
		in := design.New("", unit, styles[i].ID)
		in.Things = things
		if x, known := paper.SheetNamed(sheet); known {
			in.Sheets = []paper.Sheet{x}
		}
		out[i] = kindView{Style: styles[i]}
		err := fault.Guard(func() error {
			r, err := s.Made(ctx, in)
			if err == nil {
				out[i].of(r)
			}
			return err
		})
		if err != nil {
			out[i].Problem = fault.Of(err).Text
		}
	})
	return out
}

// of fills in what a box of the kind looks like and what it takes.
func (k *kindView) of(r *design.Result) {
	parts, folded := r.Pieces()
	picture := func(state style.State, words string) template.HTML {
		p, err := draw.Stood(r.Style.Name+", "+words, parts, folded, state)
		if err != nil {
			return ""
		}
		return page.SVG(p)
	}
	k.Shut, k.Open = picture(style.Finished, "shut"), picture(style.Open, "open")
	k.Size = r.Inside.FreeIn(r.Inputs.Units) + " inside"
	sheets, used := 0, 0.0
	for _, st := range r.Stocks {
		sheets += len(st.Layout.Sheets)
		used += st.Layout.Used * float64(len(st.Layout.Sheets))
	}
	k.Takes = fmt.Sprintf("%.0f %% of one sheet", 100*used)
	if sheets > 1 {
		k.Takes = page.Counted(sheets, "sheet") + ", " + strconv.Itoa(int(100*used/float64(sheets)+0.5)) + " % used"
	}
	e := r.Effort()
	k.Work = page.Counted(e.Cuts, "cut") + ", " + page.Counted(e.Scores, "score")
	if e.Ruler > 0 {
		k.Work += ", " + page.Counted(e.Ruler, "line") + " by a ruler"
	}
	k.Work += fmt.Sprintf(", %s; about %s", page.Counted(e.Glue, "glued place"), recipe.Clock(r.One))
	k.Minutes, k.Card, k.Hard = r.One, r.CardArea(), e.Hard()
}
