package pdf

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/draw"
)

// The instruction sheet, in mm: cells with a picture and a sentence, in rows, below a head and a
// strip of what is cut. Both papers have room for it. Words set large take a cell as large.
const (
	cellWide, cellGap = 60.0, 2.5
	cellHead          = 4.6  // the line with its number
	leastFigure       = 21.0 // of a picture, and how high it may grow where a page has room
	mostFigure        = 30.0
	headHigh          = 28.0
	stripHigh         = 14.0
	edge              = 12.0 // of the page
	rowGap            = 1.6
	fewMoves          = 8   // go four across, so that a tray takes half a page
	cellWords         = 8.5 // points
	lineHigh          = 0.44
)

// instructions is the sheet that people pin on the wall: the finished box, its sizes, what to cut
// and to have, then each move with its picture.
func (w *writer) instructions() error {
	w.column(edge, w.paper.Width-2*edge, w.paper.Height-edge-3)
	w.SetCellMargin(0)
	if err := w.sheetHead(); err != nil {
		return err
	}
	moves := draw.Moves(w.r, w.model, w.r.Steps)
	wide, gap := cellWide*w.scale, cellGap*w.scale
	across := max(1, int((w.wide()+gap)/(wide+gap)))
	if len(moves) <= fewMoves {
		across++
	}
	wide = (w.wide() - float64(across-1)*gap) / float64(across)
	words := w.rowWords(moves, across, wide)
	group, figure := "", leastFigure
	if len(moves) > fewMoves {
		figure = w.figure(words)
	}
	for n, high := range words {
		high += (cellHead + figure) * w.scale
		w.room(high)
		for i, m := range moves[n*across : min(len(moves), (n+1)*across)] {
			starts := m.Step.Group != group
			group = m.Step.Group
			if err := w.cell(m, frame{w.left + float64(i)*(wide+gap), wide, high, figure}, starts); err != nil {
				return err
			}
		}
		w.y += high + rowGap
	}
	w.cautions()
	return nil
}

// rowWords are how high the words of each row are, in cells so wide.
func (w *writer) rowWords(moves []draw.Moved, across int, wide float64) []float64 {
	w.SetFont(family, "", cellWords*w.scale)
	var out []float64
	for row := range slices.Chunk(moves, across) {
		most := 0
		for _, m := range row {
			most = max(most, len(w.SplitText(m.Step.Text, wide-2)))
		}
		out = append(out, float64(most)*cellWords*w.scale*lineHigh+1.6)
	}
	return out
}

// figure is how high pictures may be with no page more than the least of them take, for rows
// with words so high.
func (w *writer) figure(words []float64) float64 {
	pages := func(figure float64) int {
		n, y := 1, w.y
		for _, high := range words {
			high += (cellHead + figure) * w.scale
			if y+high > w.bottom {
				n, y = n+1, margin
			}
			y += high + rowGap
		}
		if y+w.cautionsHigh() > w.bottom {
			n++
		}
		return n
	}
	figure := leastFigure
	for least := pages(figure); figure < mostFigure && pages(figure+1) == least; {
		figure++
	}
	return figure
}

// frame is where a cell stands on the page, and how high its picture is.
type frame struct{ x, wide, high, figure float64 }

// ruler is a bar to measure, by which one sees that a page is printed as large as it should be.
func (w *writer) ruler() {
	long := 20.0
	if w.r.Inputs.Units == measure.In {
		long = measure.Inch.MM()
	}
	x, y := w.paper.Width-edge-long, w.paper.Height-10.5
	w.SetLineWidth(0.4)
	w.Line(x, y, x+long, y)
	for _, end := range []float64{x, x + long} {
		w.Line(end, y-1.5, end, y+0.8)
	}
	text := "measure this: " + w.r.Show(measure.FromMM(long))
	w.Text(x-2-w.GetStringWidth(text), y, text)
	w.ink()
}

// sheetHead says what box it is and how it looks, its sizes, what to have and how long it takes,
// then what is cut of it.
func (w *writer) sheetHead() error {
	w.page()
	w.y = edge
	r, top := w.r, w.y
	picture := headHigh * 1.3
	code := 0.0
	if w.print.Bench != "" {
		code = headHigh * 0.72
		if err := w.code(w.print.Bench, w.left+w.wide()-code, top, code); err != nil {
			return err
		}
		w.ink()
		w.SetFont(family, "", 6.5)
		w.Text(w.left+w.wide()-code+2, top+code+1.5, "at the bench")
	}
	look, err := w.shut.Look(r.Style.Name)
	if err != nil {
		return err
	}
	w.fit(look, w.left+w.wide()-code-picture, top-1, picture-2, headHigh)
	words := w.wide() - code - picture - 2
	w.para(w.left, words, 17, true, cmp.Or(r.Inputs.Name, r.Style.Name))
	about := r.Style.Name
	if f := r.Filling(); f != "" {
		about += ", for " + f
	}
	w.para(w.left, words, 9, false, about+". About "+recipe.Clock(r.One)+".")
	w.para(w.left, words, 9, false, "Inside "+r.Inside.FreeIn(r.Inputs.Units)+". Outside "+r.Outside.TakenIn(r.Inputs.Units)+".")
	if list := r.ByList(); list != "" {
		w.para(w.left, words, 9, false, "In each: "+list+".")
	}
	w.para(w.left, words, 9, false, "Have ready: "+w.ready()+".")
	for _, c := range r.Checks {
		if c.Verdict != inspect.OK {
			w.para(w.left, words, 9, true, mind[c.Verdict]+c.Text)
		}
	}
	w.strip(words)
	w.y = max(w.y, top+headHigh)
	w.say(7.5, false, recipe.Key(r.Inputs.Units))
	w.y += 1
	return nil
}

// ready are the supplies of the box, in a line.
func (w *writer) ready() string {
	var out []string
	for i, s := range w.r.Supplies {
		text := strings.TrimSuffix(s.Text, ".")
		if i > 0 {
			text = strings.ToLower(text[:1]) + text[1:]
		}
		out = append(out, text)
	}
	return strings.Join(out, "; ")
}

// size writes a width and a height in the box's unit.
func (w *writer) size(wide, high measure.Length) string {
	return measure.Number(wide, w.r.Inputs.Units, w.r.Inputs.Tools.Tick) + " × " + w.r.Show(high)
}

// strip shows what is cut, to one scale, with its size and how often, so wide.
func (w *writer) strip(wide float64) {
	type blank struct {
		name, size string
		wide, high float64
	}
	r := w.r
	var all []blank
	add := func(n int, name string, wide, high measure.Length) {
		if n > 1 {
			name = fmt.Sprintf("%d × %s", n, name)
		}
		b := blank{name, w.size(wide, high), wide.MM(), high.MM()}
		if last := len(all) - 1; last >= 0 && n == 1 && all[last].size == b.size {
			all[last].name += ", " + name
			return
		}
		all = append(all, b)
	}
	for _, p := range r.Parts {
		add(p.Copies(), strings.ToLower(p.Name), p.Pattern.Width, p.Pattern.Height)
	}
	for _, s := range recipe.MatSets(r.Mats) {
		add(s.Count, "paper, "+s.Where(), s.Blank.Width, s.Blank.Height)
	}
	w.room(stripHigh)
	w.ink()
	w.SetFont(family, "B", 8.5)
	w.Text(w.left, w.y+3, "Cut")
	const lead, row = 9.0, 4.0
	largest := 0.0
	for _, b := range all {
		largest = max(largest, b.wide, b.high)
	}
	k := (stripHigh - 1) / largest
	x := w.left + lead
	for _, b := range all {
		w.SetFont(family, "B", 8)
		need := b.wide*k + 1.5 + max(w.GetStringWidth(b.size), w.GetStringWidth(b.name)) + 6
		if x+need > w.left+wide && x > w.left+lead {
			x = w.left + lead
			w.y += stripHigh
			w.room(stripHigh)
			w.ink()
		}
		w.Rect(x, w.y+0.5, b.wide*k, b.high*k, "D")
		w.SetFont(family, "", 8)
		w.Text(x+b.wide*k+1.5, w.y+3.2, b.name)
		w.SetFont(family, "B", 8)
		w.Text(x+b.wide*k+1.5, w.y+3.2+row, b.size)
		x += need
	}
	w.y += stripHigh + 1
}

// cell draws a step: its number and a square to tick, its picture and its words.
func (w *writer) cell(m draw.Moved, at frame, starts bool) error {
	k, y, x, wide := w.scale, w.y, at.x, at.wide
	w.ink()
	w.SetDrawColor(rgb("#cfc7cb"))
	w.Rect(x, y, wide, at.high, "D")
	w.ink()
	w.SetFont(family, "B", 11*k)
	number := fmt.Sprint(m.Step.N)
	w.Text(x+1.2, y+4*k, number)
	if starts {
		after := x + 1.2 + w.GetStringWidth(number) + 2
		w.SetFont(family, "B", 8.5*k)
		w.Text(after, y+4*k, m.Step.Group)
	}
	w.Rect(x+wide-4.2*k, y+1*k, 3.2*k, 3.2*k, "D")
	picture, err := m.Picture((wide-2)/k, at.figure-0.6)
	if err != nil {
		return err
	}
	w.at(picture, x+1, y+cellHead*k, k)
	w.ink()
	w.SetFont(family, "", cellWords*k)
	w.SetXY(x+1, y+(cellHead+at.figure)*k)
	w.MultiCell(wide-2, cellWords*k*lineHigh, m.Step.Text, "", "L", false)
	return nil
}

// cautions stand small at the end.
func (w *writer) cautions() {
	w.room(w.cautionsHigh())
	w.y += 1
	for _, c := range w.warned() {
		w.say(cautionWords, false, c)
	}
}

const cautionWords = 7.0 // points

// warned are the cautions for the work, and what is to be minded of what goes in and how it is carried.
func (w *writer) warned() []string {
	var out []string
	for _, c := range w.r.Checks {
		if c.Verdict != inspect.OK && slices.ContainsFunc(carried, func(begins string) bool { return strings.HasPrefix(c.ID, begins) }) {
			out = append(out, mind[c.Verdict]+c.Text)
		}
	}
	return append(out, recipe.Cautions(len(w.r.Inputs.Things) > 0, w.r.HotGlue())...)
}

// carried are what the ids of those checks begin with that whoever makes and gives the box must know.
var carried = []string{"load.", "stack", "food", "child", "magnet", "candle", "heat"}

func (w *writer) cautionsHigh() float64 { return 1 + 5*w.scale*float64(len(w.warned())) }
