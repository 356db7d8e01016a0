package pdf

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/draw"
)

// A slip is an A7 sheet: two across and two down on either paper.
const (
	slipWide, slipHigh = 74.0, 105.0
	slipsAcross        = 2
	slipsDown          = 2
	slipRim            = 5.0
	slipWords          = 9.0 // points
	slipNumbers        = 12.0
	slipRow            = 5.4
)

// corner is where the nth slip of a page stands.
func (w *writer) corner(n int) (x, y float64) {
	gapX := (w.paper.Width - slipsAcross*slipWide) / (slipsAcross + 1)
	gapY := (w.paper.Height - slipsDown*slipHigh) / (slipsDown + 1)
	return gapX + float64(n%slipsAcross)*(slipWide+gapX), gapY + float64(n/slipsAcross)*(slipHigh+gapY)
}

// slipLine is a line of a slip: words, and numbers in large type behind them.
type slipLine struct {
	words, numbers string
	bold           bool
}

// slipLines are the numbers of a box, by piece: the blank, what is scored from which edge, and how
// far what is slit; then how it is closed and what it takes.
func (w *writer) slipLines() []slipLine {
	r := w.r
	var out []slipLine
	for i, p := range r.Parts {
		name := p.Name
		if n := p.Copies(); n > 1 {
			name = fmt.Sprintf("%d × %s", n, name)
		}
		out = append(out, slipLine{name, w.size(p.Pattern.Width, p.Pattern.Height), true})
		for _, pass := range r.Scores[i].Passes {
			from := pass.Edge
			if pass.Edge == recipe.EachEdge {
				from = "each edge"
			}
			if pass.Shim > 0 { // without it the numbers are others
				from += ", shim " + r.Show(pass.Shim)
			}
			var at []string
			for _, l := range pass.At {
				at = append(at, measure.Number(l, r.Inputs.Units, r.Inputs.Tools.Tick))
			}
			out = append(out, slipLine{from, strings.Join(at, " · "), false})
		}
		for _, s := range recipe.Flat(r.Steps) {
			if slit, slits := s.Does.(hand.Slit); slits && s.Piece == p.ID {
				for _, run := range slitTo(slit) {
					out = append(out, slipLine{"slit", run, false})
				}
			}
		}
	}
	for _, s := range r.Steps {
		if s.Kind == recipe.Close {
			out = append(out, slipLine{s.Text, "", false})
		}
	}
	for _, s := range r.Supplies {
		out = append(out, slipLine{s.Text, "", false})
	}
	return out
}

// slitTo tells how many scores are slit from each edge and to which crossing: "2 from the left → 1".
func slitTo(m hand.Slit) []string {
	type way struct {
		from hand.Edge
		to   int
	}
	var order []way
	count := map[way]int{}
	for _, run := range m.Runs {
		k := way{run.From, run.To}
		if count[k] == 0 {
			order = append(order, k)
		}
		count[k]++
	}
	var out []string
	for _, k := range order {
		out = append(out, fmt.Sprintf("%d from the %s → %d", count[k], k.from, k.to))
	}
	return out
}

// slips prints the maker's slips: the numbers alone, as many to a page as it holds; what one has
// no room for stands on the next.
func (w *writer) slips() error {
	lines := w.slipLines()
	var sheets [][]slipLine
	for len(lines) > 0 {
		used, n := 0.0, 0
		for _, l := range lines {
			high := w.slipLineHigh(l)
			if n > 0 && slipRim+16+used+high > slipHigh-slipRim {
				break
			}
			used, n = used+high, n+1
		}
		sheets, lines = append(sheets, lines[:n]), lines[n:]
	}
	for i := range max(len(sheets), slipsAcross*slipsDown/len(sheets)*len(sheets)) {
		if i%(slipsAcross*slipsDown) == 0 {
			w.page()
		}
		x, y := w.corner(i % (slipsAcross * slipsDown))
		w.cutRound(x, y, slipWide, slipHigh)
		w.column(x+slipRim, slipWide-2*slipRim, y+slipHigh+100)
		w.y = y + slipRim
		w.say(11, true, w.r.Inputs.Name)
		w.say(8, false, "Outside "+w.r.Outside.TakenIn(w.r.Inputs.Units)+", "+w.r.Inputs.Card.Name)
		for _, l := range sheets[i%len(sheets)] {
			w.slipLine(l)
		}
	}
	return nil
}

func (w *writer) slipLineHigh(l slipLine) float64 {
	if l.numbers != "" {
		return slipRow
	}
	w.SetFont(family, "", slipWords)
	return float64(len(w.SplitText(l.words, slipWide-2*slipRim)))*slipWords*0.46 + 0.8
}

func (w *writer) slipLine(l slipLine) {
	if l.numbers == "" {
		w.say(slipWords, false, l.words)
		return
	}
	w.ink()
	w.SetFont(family, map[bool]string{true: "B"}[l.bold], slipWords)
	w.Text(w.left, w.y+4, l.words)
	w.SetFont(family, "B", slipNumbers)
	w.Text(w.left+w.wide()-w.GetStringWidth(l.numbers), w.y+4, l.numbers)
	w.y += slipRow
}

// cutRound draws the edge along which something small is cut out of the page.
func (w *writer) cutRound(x, y, wide, high float64) {
	w.ink()
	w.SetDashPattern([]float64{1, 1.5}, 0)
	w.Rect(x, y, wide, high, "D")
	w.SetDashPattern(nil, 0)
}

// cards prints small cards to go into the boxes, for whoever gets one: how it looks shut and open,
// how it is closed again, and what to mind.
func (w *writer) cards() error {
	w.page()
	moves := draw.Moves(w.r, w.model, w.r.Steps)
	for n := range slipsAcross * slipsDown {
		x, y := w.corner(n)
		w.cutRound(x, y, slipWide, slipHigh)
		w.column(x+slipRim, slipWide-2*slipRim, y+slipHigh+100)
		w.y = y + slipRim
		w.say(12, true, w.r.Inputs.Name)
		for i, model := range []*draw.Model{w.shut, w.model} {
			look, err := model.Look(w.r.Style.Name)
			if err != nil {
				return err
			}
			w.fit(look, w.left+float64(i)*w.wide()/2, w.y, w.wide()/2-1, 24)
		}
		w.y += 26
		w.say(slipWords, false, w.r.Style.Name+": "+w.r.Style.Opens+".")
		for _, m := range moves {
			if m.Step.Kind != recipe.Close || w.y > y+slipHigh-2*slipRim-8 {
				continue
			}
			const wide, high = 18.0, 12.0
			picture, err := m.Picture(wide, high)
			if err != nil {
				return err
			}
			top := w.y
			w.at(picture, w.left, top, 1)
			w.para(w.left+wide+2, w.wide()-wide-2, slipWords, false, m.Step.Text)
			w.y = max(w.y, top+high+1)
		}
		for _, c := range recipe.Cautions(len(w.r.Inputs.Things) > 0, w.r.HotGlue())[1:] {
			w.say(7, false, c)
		}
		if w.print.Bench != "" {
			const size = 16.0
			if err := w.code(w.print.Bench, x+slipWide-size-1, y+slipHigh-size-1, size); err != nil {
				return err
			}
			w.ink()
			w.SetFont(family, "", 6.5)
			text := "how to make one"
			w.Text(x+slipWide-size-2-w.GetStringWidth(text), y+slipHigh-3, text)
		}
	}
	return nil
}

// Labels are three across and eight down.
const (
	labelsAcross = 3
	labelsDown   = 8
)

// labels prints small labels to cut out, a page full: the box's name, what is
// in it, and a line to write for whom.
func (w *writer) labels() error {
	if hasShaped(w.r) {
		w.shapedLabels([]*design.Result{w.r})
		return nil
	}
	w.strips(slices.Repeat([]*design.Result{w.r}, labelsAcross*labelsDown))
	return nil
}

// strips prints a strip with its name for each box, many to a page.
func (w *writer) strips(boxes []*design.Result) {
	wide := (w.paper.Width - 2*margin) / labelsAcross
	high := (w.paper.Height - 2*margin - 4) / labelsDown
	for n, r := range boxes {
		if n %= labelsAcross * labelsDown; n == 0 {
			w.page()
		}
		w.r = r
		x, y := margin+float64(n%labelsAcross)*wide, margin+float64(n/labelsAcross)*high
		w.ink()
		w.SetDashPattern([]float64{1, 1.5}, 0)
		w.Rect(x, y, wide, high, "D")
		w.column(x+4, wide-8, y+high+100)
		w.y = y + 4
		w.say(12, true, w.r.Inputs.Name)
		if f := w.r.Filling(); f != "" {
			w.say(9.5, false, f)
		}
		w.ink()
		w.Line(x+4, y+high-6, x+wide-4, y+high-6)
		w.SetFont(family, "", 7)
		w.Text(x+4, y+high-2.5, "for")
	}
}
