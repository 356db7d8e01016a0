package pdf

import (
	"fmt"

	"brevium/core/measure"
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
		picture, err := w.shut.Picture(w.r.Style.Name, float64(len(w.shut.Stages)))
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
		w.say(9.5, false, "Inside "+w.extent(w.r.Inside, measure.Down)+".")
		cautions := recipe.Cautions(len(w.r.Inputs.Things) > 0)
		for _, c := range cautions[1:] {
			w.say(8, false, c)
		}
		w.say(8, false, fmt.Sprintf("Card: %s.", w.r.Inputs.Card.Name))
	}
	return nil
}
