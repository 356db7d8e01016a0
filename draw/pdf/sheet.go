package pdf

import (
	"cmp"
	"fmt"
	"io"
	"strings"
	"time"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/tool"
	"brevium/draw"
)

const margin = 14.0

// Print is what is printed of a design.
type Print struct {
	Paper Paper
	// Date and Address, when set, stand at the foot of every page.
	Date    time.Time
	Address string
	// Bench, when set, is the address of the box's bench page, which the instruction
	// sheet and the cards carry as a code.
	Bench string
	// Large sets the instruction sheet larger, for a table of students.
	Large bool
	What  What
	// Plain leaves the colours of card and paper out; Photos gives the photograph
	// of a paper as JPEG, nil where there is none.
	Plain  bool
	Photos func(id string) []byte
	// Mirror prints the templates for the back of the card.
	Mirror bool
}

// What is printed.
type What string

// The documents, each for one use. An instruction sheet is of a design for one box.
const (
	Instructions What = ""          // how one box is made, with a picture of each move
	ScoreCard    What = "scores"    // each piece with its numbers, to be read from a metre
	Shopping     What = "shopping"  // what to have for all of them
	Plan         What = "cuts"      // the sheets with their cuts
	Labels       What = "labels"    // to go onto the boxes
	Slips        What = "slips"     // the numbers alone, to lie beside the work
	Cards        What = "cards"     // for whoever gets one, to go into them
	Batch        What = "batch"     // one kind of work after the other, with squares to tick
	Templates    What = "templates" // true size
	Marked       What = "marked"    // labels and printed papers, to be cut by a machine
)

// Whats lists them.
var Whats = []What{Instructions, ScoreCard, Shopping, Plan, Labels, Slips, Cards, Batch, Templates, Marked}

var titles = map[What]string{
	Instructions: "Instruction sheet", ScoreCard: "Score card", Shopping: "Shopping list", Plan: "Cut plan",
	Labels: "Labels", Slips: "Slips", Cards: "Cards", Batch: "Batch page", Templates: "Templates", Marked: "To print and cut",
}

// Title is what the print is called, on the page that offers it and in the document:
// "Instruction sheet, large print".
func (p Print) Title() string {
	title := titles[p.What]
	if p.Large {
		title += ", large print"
	}
	if p.Mirror {
		title += ", mirrored"
	}
	return title
}

// writer lays text and pictures down the pages.
type writer struct {
	*canvas
	print        Print
	r            *design.Result
	model        *draw.Model // as one looks into it
	shut         *draw.Model
	y            float64
	scale        float64 // of the words
	title        string  // of a document of several boxes; "" is the print's own
	left, bottom float64 // the column that is written into, and where it ends
	columnWide   float64
}

// Write writes what Print asks for of a design.
func Write(out io.Writer, r *design.Result, print Print) error {
	w := &writer{
		canvas: newCanvas(print.Paper, print.Title()+": "+cmp.Or(r.Inputs.Name, r.Style.Name)), print: print, r: r, scale: 1,
		model: draw.OpenModelOf(r, print.Plain), shut: draw.ShutModelOf(r, print.Plain),
	}
	w.photos = print.Photos
	if !print.Date.IsZero() { // two prints of one day are the same to the byte
		w.SetCreationDate(print.Date)
		w.SetModificationDate(print.Date)
	}
	w.AliasNbPages(allPages)
	if print.Large {
		w.scale = 1.35
	}
	w.column(margin, print.Paper.Width-2*margin, print.Paper.Height-margin-4)
	order := map[What][]func() error{
		Instructions: {w.instructions},
		ScoreCard:    {w.pieces},
		Shopping:     {w.shopping, w.supplies},
		Plan:         {w.cutting, w.sheets},
		Labels:       {w.labels},
		Slips:        {w.slips},
		Cards:        {w.cards},
		Batch:        {w.batch},
		Templates:    {w.templates},
		Marked:       {w.marked},
	}
	for _, part := range order[print.What] {
		if err := part(); err != nil {
			return err
		}
	}
	return w.Output(out)
}

// mind is what a finding is led by.
var mind = map[inspect.Verdict]string{inspect.Fail: "Do not cut yet: ", inspect.Warn: "Please check: "}

// allPages stands for the number of pages until it is known.
const allPages = "{nb}"

// column sets where words are written: from left, so wide, down to bottom.
func (w *writer) column(left, wide, bottom float64) {
	w.left, w.columnWide, w.bottom = left, wide, bottom
}

func (w *writer) page() {
	w.AddPage()
	w.y = margin
	w.ink()
	w.SetFont(family, "", 8)
	foot := []string{cmp.Or(w.title, w.print.Title()+": "+cmp.Or(w.r.Inputs.Name, w.r.Style.Name)), fmt.Sprintf("page %d of %s", w.PageNo(), allPages)}
	if !w.print.Date.IsZero() {
		foot = append(foot, w.print.Date.Format("2 January 2006"))
	}
	if w.print.Address != "" {
		foot = append(foot, w.print.Address)
	}
	w.Text(margin, w.paper.Height-6.5, strings.Join(foot, " · "))
	if w.print.What == Instructions {
		w.ruler()
	}
}

func (w *writer) wide() float64 { return w.columnWide }

func (w *writer) ink() {
	w.SetTextColor(43, 37, 48)
	w.SetDrawColor(43, 37, 48)
	w.SetLineWidth(0.2)
	w.SetDashPattern(nil, 0)
}

// room starts a new page when less than need mm are left.
func (w *writer) room(need float64) {
	if w.y+need > w.bottom {
		w.page()
	}
}

func (w *writer) heading(text string) {
	w.room(22)
	w.y += 3
	w.ink()
	w.SetFont(family, "B", 13*w.scale)
	w.SetXY(w.left, w.y)
	w.CellFormat(w.wide(), 6*w.scale, text, "B", 0, "L", false, 0, "")
	w.y += 8 * w.scale
}

// para writes a paragraph in a column and moves down.
func (w *writer) para(x, width, size float64, bold bool, text string) {
	weight := ""
	if bold {
		weight = "B"
	}
	size *= w.scale
	w.ink()
	w.SetFont(family, weight, size)
	line := size * 0.46
	n := len(w.SplitText(text, width))
	w.room(float64(n) * line)
	w.SetXY(x, w.y)
	w.MultiCell(width, line, text, "", "L", false)
	w.y += float64(n)*line + 0.8
}

// say is para over the whole column.
func (w *writer) say(size float64, bold bool, text string) {
	w.para(w.left, w.wide(), size, bold, text)
}

func (w *writer) both(l measure.Length) string {
	in := w.r.Inputs
	return measure.Label(l, in.Units, in.Tools.Tick) + " (" + measure.Beside(l, in.Units) + ")"
}

// shopping heads the list of what to have for all the boxes.
func (w *writer) shopping() error {
	w.page()
	w.say(20, true, fmt.Sprintf("For %d × %s", w.r.Inputs.Copies, w.r.Inputs.Name))
	w.say(11, false, w.r.Style.Name+".")
	return nil
}

// cutting heads the plan of the cuts.
func (w *writer) cutting() error {
	w.page()
	w.say(20, true, "Cut plan: "+w.r.Inputs.Name)
	how := "The cuts of every sheet in the order of their numbers."
	switch w.r.Inputs.Tools.With {
	case tool.Scissors:
		how = "Straight cuts first, in the order of their numbers; then draw round the templates where they are drawn here, and cut round each piece."
	case tool.ByMachine:
		how = "Each sheet, or each part of one that is cut first, goes onto the mat as it is drawn."
	}
	w.say(11, false, fmt.Sprintf("Makes %d. %s", w.r.Inputs.Copies, how))
	return nil
}

// supplies lists what the work uses up, with a square to tick.
func (w *writer) supplies() error {
	w.heading("Supplies")
	for _, s := range w.r.Supplies {
		if w.print.What != Shopping {
			w.say(11, false, s.Text)
			continue
		}
		w.room(7)
		w.ink()
		w.Rect(w.left, w.y+0.4, 4, 4, "D")
		w.para(w.left+7, w.wide()-7, 12, false, s.Text)
	}
	return nil
}

// toCut lists the blanks and the papers on top, alike ones together.
func (w *writer) toCut() {
	r := w.r
	w.heading("What to cut")
	for _, p := range r.Parts {
		w.say(11, false, fmt.Sprintf("%d × %s blank: %s × %s, %s", r.Inputs.Copies*p.Copies(), strings.ToLower(p.Name),
			w.both(p.Pattern.Width), w.both(p.Pattern.Height), p.Card.Name))
	}
	for _, s := range recipe.MatSets(r.Mats) {
		w.say(11, false, fmt.Sprintf("%d × paper, layer %d, for the %s: %s × %s, %s", r.Inputs.Copies*s.Count, s.Mat.Layer, s.Where(),
			w.both(s.Blank.Width), w.both(s.Blank.Height), s.Mat.Card.Name))
	}
}

// pieces shows each piece flat with its numbers, its score card to be read
// from a metre, and its cuts in words.
func (w *writer) pieces() error {
	w.page()
	w.say(20, true, "Score card: "+w.r.Inputs.Name)
	w.toCut()
	for i, p := range w.r.Parts {
		w.room(180)
		w.heading(fmt.Sprintf("%s: %s × %s", p.Name, w.both(p.Pattern.Width), w.both(p.Pattern.Height)))
		net := w.net(p)
		high := min(118, w.bottom-w.y-40)
		w.fit(net.Picture(), w.left, w.y, w.wide(), high)
		w.y += high + 2
		if key := net.Key(); len(key) > 0 {
			w.para(w.left+4, w.wide()-4, 9, false, strings.Join(key, ";  "))
		}
		w.scoreCard(p, w.r.Scores[i])
	}
	return nil
}

func (w *writer) net(p design.Part) draw.Net {
	in := w.r.Inputs
	net := draw.Net{Part: p.Part, PaperUp: p.PaperUp(), Run: w.r.Run(p.ID), Mats: w.r.Mats, Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick}
	if !w.print.Plain {
		net.From = draw.FromOf(p)
	}
	return net
}

// scoreCard writes the numbers of a piece as they are read off the board,
// large, the other unit small behind them.
func (w *writer) scoreCard(p design.Part, list recipe.ScoreList) {
	const size, line = 30.0, 14.0
	for n, pass := range list.Passes {
		lead := pass.Against() + " on the fence"
		if n > 0 {
			lead = "turn a quarter; " + lead
		}
		if pass.Shim > 0 {
			lead += ", held off it by a shim of " + w.both(pass.Shim)
		}
		w.room(line + 8)
		w.say(11, true, strings.ToUpper(lead[:1])+lead[1:])
		x := w.left + 4
		for _, l := range pass.At {
			in := w.r.Inputs
			number, beside := measure.Number(l, in.Units, in.Tools.Tick), measure.Beside(l, in.Units)
			need := w.bigWidth(number, size) + 4 + w.GetStringWidth(beside) + 12
			if x+need > w.left+w.wide() {
				x = w.left + 4
				w.y += line
				w.room(line)
			}
			x = w.big(x, w.y+11, size, number) + 2
			w.SetFont(family, "", 9*w.scale)
			w.Text(x, w.y+11, beside)
			x += w.GetStringWidth(beside) + 10
		}
		w.y += line + 1
	}
}

// sheets shows every sheet with its cuts, numbered, and says what comes off.
func (w *writer) sheets() error {
	in := w.r.Inputs
	for _, s := range w.r.Stocks {
		w.laid(s.Card, s.Layout, func(l layout.Laid) (draw.Sheet, []string) {
			name := func(n int) string { return strings.ToLower(w.r.PieceName(s.Job.Pieces[n].Name)) }
			sheet := draw.Sheet{Laid: l, Card: s.Card, Plain: w.print.Plain, Units: in.Units, Tick: in.Tools.Tick, Label: func(n int) draw.PieceLabel {
				return draw.PieceLabel{Name: w.r.PieceName(s.Job.Pieces[n].Name), Gives: w.r.OutlinesOf(s.Job.Pieces[n].Name)}
			}}
			return sheet, numbered(l.Words(name, w.r.Show), l.Places(name, w.r.Show))
		})
	}
	return nil
}

// numbered are cuts under their numbers, and after them where pieces lie.
func numbered(cuts, places []string) []string {
	var out []string
	for i, text := range cuts {
		out = append(out, fmt.Sprintf("%d  %s", i+1, text))
	}
	for _, text := range places {
		out = append(out, "·  "+text)
	}
	return out
}

// laid draws the sheets of a card, alike ones once, each with its cuts in words.
func (w *writer) laid(card paper.Card, all *layout.Result, tell func(layout.Laid) (draw.Sheet, []string)) {
	for n := 0; n < len(all.Sheets); {
		l, same := all.Sheets[n], 1
		for n+same < len(all.Sheets) && l.Alike(all.Sheets[n+same]) {
			same++
		}
		w.room(160)
		title := fmt.Sprintf("Sheet %d: %s, %s", n+1, card.Name, l.Sheet.Name)
		if same > 1 {
			title = fmt.Sprintf("Sheets %d to %d, alike: %s, %s", n+1, n+same, card.Name, l.Sheet.Name)
		}
		w.heading(title + card.GrainWords(l.Sheet))
		sheet, says := tell(l)
		high := min(150, w.bottom-w.y-30)
		w.fit(sheet.Picture(), w.left, w.y, w.wide(), high)
		w.y += high + 2
		for _, text := range sheet.Names() {
			w.para(w.left+4, w.wide()-4, 10, false, text)
		}
		for _, text := range says {
			w.para(w.left+4, w.wide()-4, 10, false, text)
		}
		n += same
	}
}
