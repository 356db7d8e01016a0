package jobs

import (
	"context"
	"fmt"
	"html/template"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/people"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/draw"
	"brevium/store/boxshelf"
	"brevium/store/jobbook"
	"brevium/web/form"
	"brevium/web/page"
)

// jobPage is a job on its sheets.
type jobPage struct {
	page.Chrome
	Job                      jobbook.Job
	Whose                    page.Whose // where several work
	Looks                    string     // who else looks for a better layout now
	State                    string
	Planned, Begun, Finished bool
	Form                     *form.Form
	Name                     form.Field
	Items                    []jobBox
	Gone                     []jobBox // of them, those in the bin
	More                     []form.Choice
	Stages, With             form.Field
	Shaped, Seek             bool // it is laid by shape; better layouts are looked for at once
	Cutting                  []form.Field
	Stocks                   []stockView
	Batch                    []batchView
	Wheres                   []page.WhereView
	ToBuy, Taken, Kept       []string
	Supplies                 []page.SupplyLine
	SuppliesWorth            string
	Bought                   string // what is said when the sheets to buy are there
	Passed                   []string
	Answer, Proof, Saves     string
	Tick                     float64 // mm, for the hand that moves a piece
}

// stockView is one card's sheets.
type stockView struct {
	Card   string
	Sheets []jobSheetView
	Says   string
	Fits   []string
}

type jobSheetView struct {
	Title   string
	Picture template.HTML
	Cuts    []cutView
	Places  []string // of pieces that scissors cut out
	Names   []string // of pieces too small for theirs, by their letters
}

type cutView struct {
	N      int
	Says   string // which part, how far, and what comes off
	Narrow bool
}

// batchView is a card's settings of the fence for the whole job.
type batchView struct {
	Card     string
	Settings []settingView
}

type settingView struct{ Fence, Count, Where string }

func (s *room) renderJob(c *echo.Context, status int, w *work, f *form.Form) error {
	p := &jobPage{Chrome: s.Chrome(c, w.Name), Job: w.Job, State: stateWords[w.State], Form: f,
		Planned: w.State == jobbook.Planned, Begun: w.State == jobbook.Begun, Finished: w.State == jobbook.Finished}
	p.Tick = p.Units.Tick().Length().MM()
	ctx := c.Request().Context()
	boxes, err := s.Store.Of(ctx).Names(ctx)
	if err != nil {
		return err
	}
	p.fields(w, boxes)
	if by := s.Looking.By(w.ID); by != people.Of(ctx).Name {
		p.Looks = by
	}
	if p.Whose, err = s.Whose(ctx, "jobs", w.ID, w.Maker, w.Shared); err != nil {
		return err
	}
	goods, err := s.Store.Of(ctx).Goods(ctx)
	if err != nil {
		return err
	}
	if !p.Finished {
		free := goods
		if p.Begun { // its own are set aside for it
			for i := range free {
				free[i].Reserved = 0
			}
		}
		p.Supplies, p.SuppliesWorth = page.SupplyLines(w.needs, free)
	}
	if len(w.stocks) > 0 {
		p.sheets(w)
		p.answer(ctx, w)
		p.wheres(ctx, s, w)
		p.fits(ctx, s, w, boxes)
		if p.Planned {
			p.passed(w)
		}
		p.Seek = p.Planned && p.Shaped && w.fresh && batch.Sheets(w.stocks) > batch.Least(w.stocks)
	}
	if c.Request().Header.Get("HX-Request") != "" {
		return c.Render(status, "job-work", p)
	}
	return c.Render(status, "job.html", p)
}

// fields readies what the ticket asks for.
func (p *jobPage) fields(w *work, boxes []boxshelf.Named) {
	f := p.Form
	p.Name = f.Control("name", "Name of the job", "", w.Name)
	for _, it := range w.Items {
		x := f.Control(copiesName(it.Box), w.nameOf(it.Box), "", fmt.Sprint(it.Copies))
		p.Items = append(p.Items, jobBox{it.Box, w.nameOf(it.Box), x})
		if _, binned := w.gone[it.Box]; binned {
			p.Gone = append(p.Gone, jobBox{ID: it.Box, Name: w.nameOf(it.Box)})
		}
	}
	for _, b := range boxes {
		if !slices.ContainsFunc(w.Items, func(it jobbook.JobItem) bool { return it.Box == b.ID }) {
			p.More = append(p.More, form.Choice{Value: page.Itoa(b.ID), Label: b.Name})
		}
	}
	p.Stages = f.ChoiceField(
		"stages",
		"Cuts",
		"",
		fmt.Sprint(w.Choices.Stages),
		form.Choice{
			Value: "0",
			Label: "turn as often as it saves paper",
		},
		form.Choice{Value: "2", Label: "strips first, then across them"},
		form.Choice{Value: "3", Label: "strips, across, and once more"},
	)
	p.With, p.Shaped = f.WithField("with", w.Choices.With), w.Choices.With.ByShape()
	kerf := f.LengthField("kerf", "A cut takes away", "0 for a blade", w.Choices.Kerf)
	if p.Shaped {
		kerf = f.LengthField("kerf", "Gap between pieces", "0 to 3 mm", w.Choices.Kerf)
	}
	p.Cutting = []form.Field{f.LengthField("trim", "Trim off every edge", "0 for clean sheets", w.Choices.Trim), kerf}
}

// Refusals are what the page's fields could not take; nothing is offered to cure it.
func (p *jobPage) Refusals() []form.Refusal { return p.Form.Refusals() }
func (p *jobPage) Cures() []design.Cure     { return nil }

// tellings are those of the boxes on a sheet, the page's own last: a job that was begun by
// an earlier version does not know them.
func (p *jobPage) tellings(st *batch.Stock, l layout.Laid) []recipe.Telling {
	return append(st.Tellings(l), recipe.Telling{Units: p.Units, Tick: p.Units.Tick()})
}

// sheets draws every sheet; neighbours cut alike are drawn once.
func (p *jobPage) sheets(w *work) {
	for i := range w.stocks {
		st := &w.stocks[i]
		all := st.Layout.Sheets
		v := stockView{Card: st.Card.Name, Says: fmt.Sprintf("%s, %.0f %% used", sheetsAndOffcuts(st), 100*st.Layout.Used)}
		for k := 0; k < len(all); {
			n := 1
			for k+n < len(all) && k >= len(st.Job.Held) && all[k].Alike(all[k+n]) {
				n++
			}
			v.Sheets = append(v.Sheets, p.sheet(st, i, k, n, len(all)))
			k += n
		}
		p.Stocks = append(p.Stocks, v)
		p.batch(st)
	}
}

// sheetsAndOffcuts counts what a stock takes.
func sheetsAndOffcuts(st ...*batch.Stock) string {
	whole, offcuts := 0, 0
	for _, s := range st {
		for _, l := range s.Layout.Sheets {
			if l.Sheet.Offcut {
				offcuts++
			} else {
				whole++
			}
		}
	}
	switch {
	case offcuts == 0:
		return page.Counted(whole, "sheet")
	case whole == 0:
		return page.Counted(offcuts, "kept offcut")
	}
	return page.Counted(whole, "sheet") + " and " + page.Counted(offcuts, "kept offcut")
}

func (p *jobPage) sheet(st *batch.Stock, stock, k, n, of int) jobSheetView {
	l := st.Layout.Sheets[k]
	v := jobSheetView{Title: fmt.Sprintf("%s of %d: %s", page.Span(k+1, k+n), of, sheetName(st, l))}
	sheet := draw.Sheet{
		Laid:     l,
		Label:    func(i int) draw.PieceLabel { return labelOf(st, i) },
		Card:     st.Card,
		Units:    p.Units,
		Tick:     p.Units.Tick(),
		Tellings: p.tellings(st, l),
		Key: func(i int) string {
			return placeText(st, batch.Place{Stock: stock, Sheet: k, N: i}, l.Placed[i]) + " " + whereID(st, l.Placed[i].Piece)
		},
		Kept: func(i int) bool { return st.Keeps(k, l.Placed[i]) },
	}
	v.Picture, v.Names = page.SVG(sheet.Picture()), sheet.Names()
	name := func(n int) string { return strings.ToLower(st.Origins[n].Name) }
	show := func(at measure.Length) string { return recipe.Whole(at, p.tellings(st, l)...) }
	says := l.Words(name, show)
	v.Places = l.Places(name, show)
	for i, c := range l.Cuts {
		v.Cuts = append(v.Cuts, cutView{c.N, says[i], c.Narrow()})
	}
	return v
}

// sheetName is what a sheet is called, without the number of its pile.
func sheetName(st *batch.Stock, l layout.Laid) string {
	i := slices.IndexFunc(st.Job.Sheets, func(s paper.Sheet) bool { return s.Name == l.Sheet.Name })
	switch {
	case i < 0 || l.Sheet.Offcut:
		return l.Sheet.Name
	case st.Lots[i] == 0:
		return st.Names[i] + ", to buy"
	}
	return st.Names[i]
}

// labelOf is what is written on a piece: its own name, and its box's.
func labelOf(st *batch.Stock, piece int) draw.PieceLabel {
	o := st.Origins[piece]
	return draw.PieceLabel{Name: o.Name, Under: o.Box, Mat: o.Mat, Made: o.Made, Gives: st.Outlines(piece)}
}

func whereID(st *batch.Stock, piece int) string {
	o := st.Origins[piece]
	return page.WhereOf(o.Item, o.Part)
}

// batch groups a card's cuts by the fence.
func (p *jobPage) batch(st *batch.Stock) {
	if v := fences(st, p.Units); len(v.Settings) > 0 {
		p.Batch = append(p.Batch, v)
	}
}

// fences groups a card's cuts by the fence, each told as the boxes on its sheets are.
func fences(st *batch.Stock, unit measure.Unit) batchView {
	v := batchView{Card: st.Card.Name}
	for _, s := range st.Layout.Settings() {
		var made []recipe.Telling
		for _, c := range s.Cuts {
			made = append(made, st.Tellings(st.Layout.Sheets[c.Sheet])...)
		}
		v.Settings = append(v.Settings, settingView{recipe.Whole(s.Fence, append(made, recipe.Telling{Units: unit, Tick: unit.Tick()})...), page.Counted(len(s.Cuts), "cut"), whereCut(st.Layout, s.Cuts)})
	}
	return v
}

// whereCut says on which sheets which cuts are made, neighbours that are cut
// alike as a range: "sheets 1–60: cut 1; sheet 61: cuts 2 and 3".
func whereCut(laid *layout.Result, cuts []layout.CutAt) string {
	type run struct {
		first, last int
		numbers     []int
	}
	var runs []run
	for _, x := range slices.SortedStableFunc(slices.Values(cuts), func(a, b layout.CutAt) int { return a.Sheet - b.Sheet }) {
		n := laid.Sheets[x.Sheet].Cuts[x.Cut].N
		if len(runs) == 0 || runs[len(runs)-1].last != x.Sheet {
			runs = append(runs, run{x.Sheet, x.Sheet, nil})
		}
		runs[len(runs)-1].numbers = append(runs[len(runs)-1].numbers, n)
	}
	var merged []run
	for _, r := range runs {
		if k := len(merged) - 1; k >= 0 && merged[k].last == r.first-1 && slices.Equal(merged[k].numbers, r.numbers) {
			merged[k].last = r.last
			continue
		}
		merged = append(merged, r)
	}
	var out []string
	for _, r := range merged {
		sheets, word := fmt.Sprintf("sheet %d", r.first+1), "cut"
		if r.last > r.first {
			sheets = fmt.Sprintf("sheets %d–%d", r.first+1, r.last+1)
		}
		if len(r.numbers) > 1 {
			word = "cuts"
		}
		out = append(out, sheets+": "+word+" "+ranges(r.numbers))
	}
	return strings.Join(out, "; ")
}

// ranges writes numbers, those that follow one another as a range: "2, 5 and 24 to 37".
func ranges(numbers []int) string {
	slices.Sort(numbers)
	var out []string
	for i := 0; i < len(numbers); {
		k := i
		for k+1 < len(numbers) && numbers[k+1] == numbers[k]+1 {
			k++
		}
		switch {
		case k-i > 1:
			out = append(out, fmt.Sprintf("%d to %d", numbers[i], numbers[k]))
		case k > i:
			out = append(out, fmt.Sprint(numbers[i]), fmt.Sprint(numbers[k]))
		default:
			out = append(out, fmt.Sprint(numbers[i]))
		}
		i = k + 1
	}
	return style.And(out)
}

// answer says what the job takes, what is proved, and what it saves.
func (p *jobPage) answer(ctx context.Context, w *work) {
	takes := batch.Takes(w.stocks)
	sheets, least, whole, toBuy := 0, 0, 0, 0
	for _, st := range w.stocks {
		sheets, least = sheets+len(st.Layout.Sheets), least+st.Layout.Bound.Sheets
	}
	for _, t := range takes {
		line := fmt.Sprintf("%s of %s", page.SheetsOf(t.Count, t.Sheet.Name, t.Offcut), t.Card.Name)
		if t.Lot == 0 {
			p.ToBuy, toBuy = append(p.ToBuy, line), toBuy+t.Count
		} else {
			p.Taken = append(p.Taken, line)
		}
		if !t.Offcut {
			whole += t.Count
		}
	}
	p.Bought = "It is bought: put it in the drawer"
	if toBuy > 1 {
		p.Bought = "They are bought: put them in the drawer"
	}
	var all []*batch.Stock
	for i := range w.stocks {
		all = append(all, &w.stocks[i])
	}
	p.Answer = sheetsAndOffcuts(all...)
	p.Proof = "at these sizes no fewer can do"
	if least < sheets {
		p.Proof = fmt.Sprintf("at least %d are needed; a longer search may save some", least)
	}
	if p.Planned && len(w.Items) > 1 {
		if alone, worth, err := batch.Alone(ctx, len(w.Items), w.stocks); err == nil && alone > whole {
			p.Saves = fmt.Sprintf("One box after another would take %s instead of %d: together they save %d", page.Counted(alone, "sheet"), whole, alone-whole)
			if d := worth - batch.Cost(takes); d > 0.005 {
				p.Saves += fmt.Sprintf(", worth %.2f", d)
			}
			p.Saves += "."
		}
	}
	for _, l := range batch.Kept(w.stocks, w.Name) {
		line := fmt.Sprintf("%s of %s", page.Usable(l.Width, l.Height, p.Units), l.Card.Name)
		if l.Shape != "" {
			line += ", of any shape"
		}
		if l.Count > 1 {
			line = fmt.Sprintf("%d of %s", l.Count, line)
		}
		p.Kept = append(p.Kept, line)
	}
}

// passed tells what is left lying in the drawer while sheets are bought.
func (p *jobPage) passed(w *work) {
	for _, x := range batch.PassedOver(w.stocks, w.lots) {
		p.Passed = append(p.Passed, fmt.Sprintf("%s of %s: %s.", page.SheetsOf(x.Lot.Free(), page.SheetName(x.Lot, p.Units), x.Lot.Offcut), x.Lot.Card.Name, x.Why))
	}
}

// wheres draws, for every kind of piece, the box with the piece marked.
func (p *jobPage) wheres(ctx context.Context, s *room, w *work) {
	models, made := map[int]*draw.Model{}, map[int]*design.Result{}
	for i := range w.stocks {
		st := &w.stocks[i]
		for n := range st.Job.Pieces {
			o := st.Origins[n]
			if o.Item >= len(w.Items) {
				continue
			}
			b, ok := w.boxes[w.Items[o.Item].Box]
			if !ok {
				continue
			}
			if models[o.Item] == nil {
				r, err := s.Made(ctx, batch.Item{Inputs: b.Inputs}.One())
				if err != nil {
					continue // a begun job goes on though its box was broken since
				}
				models[o.Item], made[o.Item] = draw.ModelOf(r, false), r
			}
			picture, err := models[o.Item].Where(fmt.Sprintf("Where %s goes", st.Job.Pieces[n].Name), page.Given(made[o.Item], o.Part)...)
			if err != nil {
				continue
			}
			p.Wheres = append(p.Wheres, page.WhereView{ID: whereID(st, n), Name: st.Job.Pieces[n].Name, Picture: page.SVG(picture)})
		}
	}
}

// fits says which other boxes come out of the useful offcuts.
func (p *jobPage) fits(ctx context.Context, s *room, w *work, boxes []boxshelf.Named) {
	known, all := s.blanks.of(ctx, s.Store, boxes)
	for _, u := range batch.OffcutUses(ctx, w.stocks, known) {
		line := fmt.Sprintf("The offcut of %s", page.Usable(u.Offcut.Width, u.Offcut.Height, p.Units))
		switch {
		case len(u.Makes) > 0:
			line += " would also make: " + strings.Join(u.Makes, ", ") + "."
		case all:
			line += " is too small for any box here whole; keep it for tags and bands."
		default:
			line += " may be enough for another box; load the page again in a moment to see."
		}
		p.Stocks[u.Stock].Fits = append(p.Stocks[u.Stock].Fits, line)
	}
}
