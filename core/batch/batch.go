// Package batch lays a job, any mix of boxes and copies, on the paper in the
// drawer: what is cut from one card lies together.
package batch

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/nest"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/tool"
)

// Item is a box's design, and how many of it the job makes.
type Item struct {
	Inputs design.Inputs
	Copies int
	// Made is one box of it worked out, if that was done already.
	Made *design.Result
}

// One gives the inputs of one box of it.
func (it Item) One() design.Inputs {
	in := it.Inputs.Clone()
	in.Copies = 1
	return in
}

// Choices are what a person decides about a job's sheets. Stages limits how
// often cuts change direction, 0 is no limit.
type Choices struct {
	Stages     int
	Trim, Kerf measure.Length
	Held       []Held
	With       tool.With
}

// Held is a sheet of a card on which pieces keep their places. Sheets and
// pieces go by their names, so that they are found again when the job changes.
type Held struct {
	Card   string // as its Key gives it
	Sheet  string
	Pieces []HeldPiece
}

// HeldPiece is where one copy of a piece is kept.
type HeldPiece struct {
	Piece  string
	X, Y   measure.Length
	Turned bool
	Turn   int // where it is laid by shape
}

// MostItems is the most kinds of box in a job.
const MostItems = 30

// Stock is all that a job cuts from one card.
type Stock struct {
	Card paper.Card
	Job  *layout.Job
	// Lots tells, by kind of sheet, which lot of the drawer it is; 0 is to be
	// bought. Prices are what one sheet really costs.
	Lots   []int64
	Prices []float64
	// Names are what the drawer or the shop calls each kind of sheet; the
	// names in the job tell piles apart.
	Names []string
	// Origins tells, by piece, whose it is.
	Origins []Origin
	Layout  *layout.Result
	// Shapes are the same sheets and pieces by their outlines, where scissors or a machine cut; else nil.
	Shapes *nest.Job
}

// Origin is the item a piece belongs to, its box's name, and its own id and
// name in it; Mat tells that it is one.
type Origin struct {
	Item            int
	Box, Part, Name string
	Mat             bool
	Made            recipe.Telling // the unit and the board its box is made in
}

// Tellings are those of the boxes that pieces of a sheet belong to, each once.
func (s Stock) Tellings(l layout.Laid) []recipe.Telling {
	var out []recipe.Telling
	for _, p := range l.Placed {
		if m := s.Origins[p.Piece].Made; m.Tick > 0 && !slices.Contains(out, m) {
			out = append(out, m)
		}
	}
	return out
}

// buyingCosts makes a sheet that must be bought dearer than any in the
// drawer, so that the drawer is used first.
const buyingCosts = 1000

// Gather works the items out and puts what is cut from one card together, with
// the drawer's lots of that card and the sheets that can be bought. Faults are
// at "items[i]" of the box that cannot be made.
func Gather(ctx context.Context, items []Item, lots []drawer.Lot, ch Choices) ([]Stock, error) {
	if len(items) == 0 {
		return nil, fault.New(fault.Empty, "items", "there is no box in this job yet; add one")
	}
	if len(items) > MostItems {
		return nil, fault.New(fault.CountRange, "items", "a job makes up to %d kinds of box", MostItems)
	}
	if ch.With.ByShape() && ch.Kerf.MM() > nest.MostGap {
		return nil, fault.New(fault.OutOfRange, "kerf", "the gap between pieces is 0 to 3 mm")
	}
	g := gathering{lots: lots, choices: ch}
	for i, it := range items {
		field := fault.Path("items", i)
		if it.Copies < 1 || it.Copies > design.MostCopies {
			return nil, fault.New(
				fault.CountRange,
				fault.Path(field, "copies"),
				"make 1 to %d of a box, not %d",
				design.MostCopies,
				it.Copies,
			)
		}
		r, err := it.Made, error(nil)
		if r == nil {
			r, err = design.Make(ctx, it.One())
		}
		if err != nil {
			f := fault.Of(err)
			return nil, fault.At(
				field,
				&fault.Fault{Code: f.Code, Field: f.Field, Text: fmt.Sprintf("%s cannot be made: %s", it.Inputs.Name, f.Text), Cause: err},
			)
		}
		g.add(i, it.Copies, r)
	}
	for i := range g.stocks {
		g.sheets(&g.stocks[i], g.toBuy[i])
		g.hold(&g.stocks[i])
		if s := &g.stocks[i]; s.Shapes != nil {
			if g.shapes(s); s.Shapes.Check() != nil && len(s.Job.Held) == 0 {
				s.Shapes = nil // too much for it, or larger than the mat: the trimmer's then, from what that cuts
				s.Job.Sheets, s.Names, s.Lots, s.Prices = nil, nil, nil, nil
				g.sheets(s, g.toBuy[i])
			}
		}
	}
	return g.stocks, nil
}

type gathering struct {
	lots    []drawer.Lot
	choices Choices
	stocks  []Stock
	toBuy   [][]paper.Sheet // by stock: sheets that its boxes are cut from
	trimmer measure.Length
	machine tool.Machine
}

// add puts a box's pieces to the stocks of their cards.
func (g *gathering) add(item, copies int, r *design.Result) {
	if g.trimmer == 0 || r.Inputs.Tools.Trimmer < g.trimmer {
		g.trimmer = r.Inputs.Tools.Trimmer
	}
	if g.machine.None() {
		g.machine = r.Inputs.Tools.Owned.Machine
	}
	for _, s := range r.Stocks {
		at := slices.IndexFunc(g.stocks, func(x Stock) bool { return x.Card.Key() == s.Card.Key() })
		if at < 0 {
			at = len(g.stocks)
			g.stocks = append(
				g.stocks,
				Stock{Card: s.Card, Job: &layout.Job{Trim: g.choices.Trim, Kerf: g.choices.Kerf, Stages: g.choices.Stages}},
			)
			g.toBuy = append(g.toBuy, nil)
		}
		stock := &g.stocks[at]
		var shapes []nest.Piece
		if g.choices.With.ByShape() {
			shapes = r.Shapes(s)
			if stock.Shapes == nil {
				stock.Shapes = &nest.Job{}
			}
		}
		for k, p := range s.Job.Pieces {
			mat := slices.ContainsFunc(r.Mats, func(m dress.Mat) bool { return m.ID == p.Name })
			stock.Origins = append(stock.Origins, Origin{item, r.Inputs.Name, p.Name, r.PieceName(p.Name), mat, r.Telling()})
			p.Name = stock.nameFor(r.Inputs.Name, r.PieceName(p.Name), p.Name)
			p.Copies *= copies
			stock.Job.Pieces = append(stock.Job.Pieces, p)
			if shapes != nil {
				shape := shapes[k]
				shape.Name, shape.Copies = p.Name, p.Copies
				stock.Shapes.Pieces = append(stock.Shapes.Pieces, shape)
			}
		}
		for _, b := range s.Job.Sheets {
			if !b.Offcut &&
				!slices.ContainsFunc(g.toBuy[at], func(x paper.Sheet) bool { return sameSize(x.Width, x.Height, b.Width, b.Height) }) {
				g.toBuy[at] = append(g.toBuy[at], b)
			}
		}
	}
}

// nameFor names a piece by its box, so that no two have one name.
func (s *Stock) nameFor(box, piece, id string) string {
	taken := func(name string) bool {
		return slices.ContainsFunc(s.Job.Pieces, func(p layout.Piece) bool { return p.Name == name })
	}
	name := box + ": " + strings.ToLower(piece)
	if taken(name) {
		name = box + ": " + id
	}
	for n := 2; taken(name); n++ {
		name = fmt.Sprintf("%s: %s (%d)", box, id, n)
	}
	return name
}

func sameSize(w, h, w2, h2 measure.Length) bool { return w == w2 && h == h2 || w == h2 && h == w2 }

// sheets gives a stock the lots of its card and the sheets to be bought: those
// its boxes are cut from, and those like the whole sheets in the drawer.
func (g *gathering) sheets(s *Stock, buy []paper.Sheet) {
	price, area := 0.0, 0.0
	for _, l := range g.lots {
		if l.Card.Key() != s.Card.Key() {
			continue
		}
		if l.Price > 0 {
			price, area = price+l.Price, area+l.Width.MM()*l.Height.MM()
		}
		if !l.Offcut && !slices.ContainsFunc(buy, func(x paper.Sheet) bool { return sameSize(x.Width, x.Height, l.Width, l.Height) }) {
			buy = append(buy, paper.Sheet{Name: l.Sheet, Width: l.Width, Height: l.Height})
		}
	}
	// Without a price a sheet of twelve inches counts as one.
	each := 1 / (12 * measure.Inch).MM() / (12 * measure.Inch).MM()
	if area > 0 {
		each = price / area
	}
	s.Job.Trimmer = g.trimmer
	add := func(sheet paper.Sheet, name string, lot int64, price float64) {
		if s.Shapes == nil && g.trimmer > 0 && min(sheet.Width, sheet.Height) > g.trimmer {
			return // it does not go under the trimmer
		}
		s.Job.Sheets, s.Names, s.Lots, s.Prices = append(
			s.Job.Sheets,
			sheet,
		), append(
			s.Names,
			name,
		), append(
			s.Lots,
			lot,
		), append(
			s.Prices,
			price,
		)
	}
	for _, l := range g.handy(s) {
		if l.Shape != "" && s.Shapes == nil {
			continue // a trimmer has no edge to lay it by
		}
		worth := l.Price
		if worth == 0 {
			worth = each * l.Width.MM() * l.Height.MM()
		}
		sheet := paper.Sheet{
			Name:   sheetName(l),
			Width:  l.Width,
			Height: l.Height,
			Count:  l.Free(),
			Cost:   worth,
			Offcut: l.Offcut,
		}
		if l.Offcut {
			sheet.Cost, worth = 0, 0
		}
		add(sheet, l.Sheet, l.ID, worth)
	}
	for _, b := range buy {
		worth := b.Cost
		if i := slices.IndexFunc(g.lots, func(l drawer.Lot) bool {
			return l.Price > 0 && l.Card.Key() == s.Card.Key() && sameSize(l.Width, l.Height, b.Width, b.Height)
		}); i >= 0 {
			worth = g.lots[i].Price
		}
		if worth == 0 {
			worth = each * b.Width.MM() * b.Height.MM()
		}
		add(
			paper.Sheet{Name: b.Name + " (to buy)", Width: b.Width, Height: b.Height, Count: paper.Unlimited, Cost: worth * buyingCosts},
			b.Name,
			0,
			worth,
		)
	}
}

// Quick is an effort that a page can wait for.
var Quick = layout.Effort{Rounds: 2, Steps: 100}

// Lay lays a stock out.
func (s *Stock) Lay(ctx context.Context, e layout.Effort) error {
	laid, err := s.Search(ctx, e)
	if err != nil {
		return fault.At(s.Card.Name, err)
	}
	s.Layout = laid
	return nil
}

// Search gives a layout of a stock: by its rectangles, or where it is cut by shape, by its outlines.
func (s *Stock) Search(ctx context.Context, e layout.Effort) (*layout.Result, error) {
	if s.Shapes == nil {
		return layout.Solve(ctx, s.Job, e)
	}
	return nest.Solve(ctx, s.Shapes, nest.Effort{
		Seconds: e.Seconds, Seed: e.Seed, First: Quick, Start: e.Start, Better: e.Better, Yield: e.Yield, Workers: layout.Workers(ctx),
	})
}

// Take is how many sheets of a lot a job takes; of lot 0, how many are to be
// bought.
type Take struct {
	Lot    int64
	Card   paper.Card
	Sheet  paper.Sheet // its name as in the drawer, without marks
	Count  int
	Price  float64 // of one
	Offcut bool
}

// Takes lists what the stocks' layouts use.
func Takes(stocks []Stock) []Take {
	var out []Take
	for _, s := range stocks {
		for kind, sheet := range s.Job.Sheets {
			t := Take{Lot: s.Lots[kind], Card: s.Card, Sheet: sheet, Price: s.Prices[kind], Offcut: sheet.Offcut}
			t.Sheet.Name = s.Names[kind]
			for _, l := range s.Layout.Sheets {
				if l.Sheet.Name == sheet.Name {
					t.Count++
				}
			}
			if t.Count > 0 {
				out = append(out, t)
			}
		}
	}
	return out
}

// Cost is what the sheets that a job takes are worth together.
func Cost(takes []Take) float64 {
	sum := 0.0
	for _, t := range takes {
		sum += float64(t.Count) * t.Price
	}
	return sum
}

// Alone is what the items would take one by one: whole sheets, and their
// worth, with the same kinds of sheet to cut from.
func Alone(ctx context.Context, items int, stocks []Stock) (sheets int, worth float64, err error) {
	for item := range items {
		for _, s := range stocks {
			job := &layout.Job{Trim: s.Job.Trim, Kerf: s.Job.Kerf, Stages: s.Job.Stages, Trimmer: s.Job.Trimmer}
			for kind, sheet := range s.Job.Sheets {
				if !sheet.Offcut {
					sheet.Count, sheet.Cost = paper.Unlimited, s.Prices[kind]
					job.Sheets = append(job.Sheets, sheet)
				}
			}
			for i, p := range s.Job.Pieces {
				if s.Origins[i].Item == item {
					job.Pieces = append(job.Pieces, p)
				}
			}
			if len(job.Pieces) == 0 {
				continue
			}
			laid, err := layout.Solve(ctx, job, Quick)
			if err != nil {
				return 0, 0, fault.At(s.Card.Name, err)
			}
			sheets, worth = sheets+len(laid.Sheets), worth+laid.Cost
		}
	}
	return sheets, worth, nil
}
