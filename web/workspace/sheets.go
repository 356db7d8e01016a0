package workspace

import (
	"context"
	"fmt"
	"html/template"
	"slices"
	"strconv"
	"strings"

	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/draw"
	"brevium/web/form"
	"brevium/web/page"
)

// sheetsStop is where it is said how many boxes are made of which sheets.
var sheetsStop = &stop{
	ID: "sheets", Title: "Sheets", Decides: "Say how many boxes you make, and which sheets you have.",
	read: readSheets, page: showSheets, settles: []string{"sheets", "trimmer", "machine"},
	answer: func(p *workPage) string { return sheetsAnswer(p.Result) },
}

type sheetsPage struct {
	*workPage
	Fields, Tools []form.Field
	Kinds         []form.Choice
	KindsFault    string
	Counts        []form.Field // how many there are of each
	Counted       bool         // of one there is a number
	Own           []form.Field // ask for a sheet of one's own
	With          form.Field
	Shaped        bool              // it is cut by shape
	Waiting       bool              // it is laid by shape only once the page is there
	Listed        string            // the maker's list as a file has it, where the box has other tools
	Supplies      []page.SupplyLine // held against the cupboard
	SuppliesWorth string
}

func showSheets(ctx context.Context, frame *workPage) (any, error) {
	p, f, in := &sheetsPage{workPage: frame}, frame.Form, &frame.Box.Inputs
	if p.Result != nil {
		goods, err := p.room.Store.Of(ctx).Goods(ctx)
		if err != nil {
			return nil, err
		}
		p.Supplies, p.SuppliesWorth = page.SupplyLines(cupboard.Needs(p.Result.Supplies), goods)
	}
	p.Fields = []form.Field{
		f.Control("copies", "How many boxes", "the pieces of all of them are laid out together", fmt.Sprint(in.Copies)),
	}
	p.Shaped = in.Tools.With.ByShape()
	if p.Shaped && p.Result != nil {
		trimmed, err := p.room.Trimmed(ctx, *in)
		p.Waiting = err == nil && !p.room.ByShape(trimmed).Known()
	}
	p.With = f.WithField("tools.with", in.Tools.With)
	p.Tools = []form.Field{f.LengthField("tools.trimmer", "Longest cut of the trimmer", "usually 12 in or 30.5 cm", in.Tools.Trimmer)}
	listed, err := p.room.Tools(ctx, in.Units)
	if err != nil {
		return nil, err
	}
	listed.Tick = in.Tools.Tick // is the box's own
	if !listed.Same(in.Tools) {
		p.Listed = string(design.WriteTools(listed))
	}
	p.KindsFault = f.Group("sheets", "Sheets to cut from", "f-sheets")
	unit, tick := in.Units, in.Tools.Tick
	for n, s := range in.Sheets {
		if _, standard := paper.SheetNamed(s.Name); !standard {
			p.Kinds = append(p.Kinds, form.Choice{Value: s.Name, Label: ownLabel(s, unit, tick), Chosen: true})
		}
		count := ""
		if s.Count != paper.Unlimited {
			count, p.Counted = strconv.Itoa(s.Count), true
		}
		p.Counts = append(p.Counts, f.Control(fault.Path("sheets", n, "count"), "Of "+s.Name, "empty: as many as it takes", count))
	}
	p.Own = []form.Field{
		f.EmptyLength("own.width", "Wide", ""), f.EmptyLength("own.height", "High", ""),
		f.Control("own.count", "How many", "empty: as many as it takes", ""),
	}
	for _, s := range paper.Standard {
		chosen := slices.ContainsFunc(in.Sheets, func(x paper.Sheet) bool { return x.Name == s.Name })
		p.Kinds = append(p.Kinds, form.Choice{Value: s.Name, Label: s.Name, Chosen: chosen})
	}
	return p, nil
}

func sheetsAnswer(r *design.Result) string {
	sheets, used := 0, 0.0
	for _, s := range r.Stocks {
		sheets += len(s.Layout.Sheets)
		used += s.Layout.Used * float64(len(s.Layout.Sheets))
	}
	if sheets == 0 {
		return "none fit"
	}
	word := "sheets"
	if sheets == 1 {
		word = "sheet"
	}
	return fmt.Sprintf("%d %s, %.0f %%", sheets, word, 100*used/float64(sheets))
}

type sheetView struct {
	Title   string
	Picture template.HTML
	Names   []string // of pieces too small for theirs
	Cuts    []string
	Places  []string // of pieces that scissors cut out
}

// SheetViews draws every sheet; neighbours cut alike are drawn once.
func (p *sheetsPage) SheetViews() []sheetView {
	var out []sheetView
	r := p.Result
	for _, s := range r.Stocks {
		sheets := s.Layout.Sheets
		for i := 0; i < len(sheets); {
			n := 1
			for i+n < len(sheets) && sheets[i].Alike(sheets[i+n]) {
				n++
			}
			l := sheets[i]
			sheet := draw.Sheet{
				Laid:  l,
				Label: func(n int) draw.PieceLabel { return pieceLabel(r, s.Job.Pieces[n].Name) },
				Key:   func(n int) string { return "- " + page.WhereOf(0, s.Job.Pieces[l.Placed[n].Piece].Name) },
				Card:  s.Card,
				Units: p.Units,
				Tick:  p.Box.Inputs.Tools.Tick,
			}
			v := sheetView{
				Title:   fmt.Sprintf("%s, %s of %d (%s%s)", s.Card.Name, page.Span(i+1, i+n), len(sheets), l.Sheet.Name, s.Card.GrainWords(l.Sheet)),
				Picture: page.SVG(sheet.Picture()),
				Names:   sheet.Names(),
			}
			name := func(n int) string { return strings.ToLower(r.PieceName(s.Job.Pieces[n].Name)) }
			v.Cuts, v.Places = l.Words(name, r.Show), l.Places(name, r.Show)
			out = append(out, v)
			i += n
		}
	}
	return out
}

// pieceLabel is what is written on a piece of a design's own sheets.
func pieceLabel(r *design.Result, id string) draw.PieceLabel {
	return draw.PieceLabel{Name: r.PieceName(id), Gives: r.OutlinesOf(id), Mat: slices.ContainsFunc(r.Mats, func(m dress.Mat) bool { return m.ID == id })}
}

// Wheres draws the box once for every kind of piece, with that marked.
func (p *sheetsPage) Wheres() []page.WhereView {
	var out []page.WhereView
	m := draw.ModelOf(p.Result, false)
	for _, s := range p.Result.Stocks {
		for _, piece := range s.Job.Pieces {
			name := p.Result.PieceName(piece.Name)
			if picture, err := m.Where("Where the "+strings.ToLower(name)+" goes", page.Given(p.Result, piece.Name)...); err == nil {
				out = append(out, page.WhereView{ID: page.WhereOf(0, piece.Name), Name: name, Picture: page.SVG(picture)})
			}
		}
	}
	return out
}

// ownLabel is a sheet of one's own by its name, and its size where that does not say it.
func ownLabel(s paper.Sheet, unit measure.Unit, tick measure.Tick) string {
	if size := measure.Sides(unit, tick, s.Width, s.Height); size != s.Name {
		return s.Name + ", " + size
	}
	return s.Name
}

func readSheets(f *form.Form, in *design.Inputs, _ *design.Result) {
	f.Whole("copies", &in.Copies)
	f.Length("tools.trimmer", &in.Tools.Trimmer)
	f.With("tools.with", &in.Tools.With)
	if listed := f.Posted.Get("tools.listed"); listed != "" {
		tools, err := design.ReadTools([]byte(listed), in.Tools)
		if err != nil {
			f.Fail(fault.At("tools.listed", err))
		} else {
			in.Tools = tools
		}
		f.Posted.Del("tools.trimmer")
	}
	had := slices.Clone(in.Sheets)
	for n := range had {
		readCount(f, fault.Path("sheets", n, "count"), &had[n].Count)
	}
	in.Sheets = had
	if f.Posted.Has("choosing-sheets") && !f.PutBack("sheets") {
		in.Sheets = chosenSheets(f, had)
	}
	if f.Posted.Get("own.add") != "" {
		addSheet(f, in)
	}
}

// chosenSheets are those that are ticked, as they were. A page that does not list the sheets of
// one's own takes none of them away.
func chosenSheets(f *form.Form, had []paper.Sheet) []paper.Sheet {
	ticked := func(name string) bool { return slices.Contains(f.Posted["sheets"], name) }
	var out []paper.Sheet
	for _, s := range paper.Standard {
		if i := slices.IndexFunc(had, func(x paper.Sheet) bool { return x.Name == s.Name }); i >= 0 {
			s = had[i]
		}
		if ticked(s.Name) {
			out = append(out, s)
		}
	}
	for _, s := range had {
		if _, standard := paper.SheetNamed(s.Name); !standard && (ticked(s.Name) || !f.Posted.Has("own-sheets")) {
			out = append(out, s)
		}
	}
	return out
}

// readCount reads how many sheets there are; left empty there are as many as it takes.
func readCount(f *form.Form, name string, into *int) {
	if !f.Posted.Has(name) {
		return
	}
	text, n := strings.TrimSpace(f.Posted.Get(name)), *into
	if text == "" {
		*into = paper.Unlimited
		return
	}
	if f.Whole(name, &n); n < 1 || n > mostSheets {
		if f.Faults[name] == "" {
			f.Fail(fault.New(fault.CountRange, name, "There are 1 to %d of a sheet; leave it empty for as many as it takes.", mostSheets))
		}
		return
	}
	*into = n
}

// mostSheets is how many there are of a sheet at most.
const mostSheets = 10_000

// addSheet adds a sheet of one's own: one of the same size has the new number.
func addSheet(f *form.Form, in *design.Inputs) {
	s := form.OwnSheet(f, "own", paper.Sheet{})
	readCount(f, "own.count", &s.Count)
	if f.Faults["own.width"]+f.Faults["own.height"]+f.Faults["own.count"] != "" {
		return
	}
	in.Sheets = slices.DeleteFunc(slices.Clone(in.Sheets), func(x paper.Sheet) bool { return x.Width == s.Width && x.Height == s.Height })
	in.Sheets = append(in.Sheets, s)
	for _, name := range []string{"own.width", "own.height", "own.count", "own.add"} {
		f.Posted.Del(name)
	}
}
