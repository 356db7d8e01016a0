package pdf

import (
	"fmt"

	"brevium/core/recipe"
)

// A slip is a quarter of a page.
const (
	slipsAcross = 2
	slipsDown   = 2
)

// slips prints small sheets to go into the boxes, four to a page, as many as
// there are boxes up to a page: how it looks, how it opens and closes, what to
// mind.
func (w *writer) slips() error {
	const gap = 6.0
	wide := (w.paper.Width - 2*margin - gap) / slipsAcross
	high := (w.paper.Height - 2*margin - gap) / slipsDown
	w.page()
	for n := range slipsAcross * slipsDown {
		x, y := margin+float64(n%slipsAcross)*(wide+gap), margin+float64(n/slipsAcross)*(high+gap)
		w.ink()
		w.SetDashPattern([]float64{1, 1.5}, 0)
		w.Rect(x, y, wide, high, "D")
		w.column(x+5, wide-10, y+high+100) // a slip does not run over: it is short
		w.y = y + 5
		w.say(14, true, w.r.Inputs.Name)
		picture, err := w.shut.Look(w.r.Style.Name)
		if err != nil {
			return err
		}
		w.fit(picture, x+5, w.y, wide-10, 34)
		w.y += 37
		w.say(9.5, false, w.r.Style.Name+": "+w.r.Style.Opens+".")
		for _, s := range w.r.Steps {
			if s.Kind == recipe.Fill || s.Kind == recipe.Close {
				w.say(9.5, false, s.Text)
			}
		}
		w.say(9.5, false, "Inside "+w.extent(w.r.Inside.Free(w.r.Inputs.Units))+".")
		cautions := recipe.Cautions(len(w.r.Inputs.Things) > 0)
		for _, c := range cautions[1:] {
			w.say(8, false, c)
		}
		w.say(8, false, fmt.Sprintf("Card: %s.", w.r.Inputs.Card.Name))
		if w.print.Bench != "" {
			const size = 20.0
			if err := w.code(w.print.Bench, x+wide-size-2, y+high-size-2, size); err != nil {
				return err
			}
			w.ink()
			w.SetFont(family, "", 7)
			w.Text(x+wide-size-2-26, y+high-4, "made at the bench")
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
	if len(w.r.Inputs.Labels) > 0 {
		return w.shapedLabels()
	}
	w.page()
	wide := (w.paper.Width - 2*margin) / labelsAcross
	high := (w.paper.Height - 2*margin - 4) / labelsDown
	for n := range labelsAcross * labelsDown {
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
	return nil
}
