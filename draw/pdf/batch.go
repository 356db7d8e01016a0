package pdf

import (
	"fmt"

	"brevium/core/recipe"
)

// mostSquares is how many boxes of a batch have a square each to tick.
const mostSquares = 60

// batch prints what many boxes take: what to cut and to have at hand, then
// every step once, a square after it for each of the boxes.
func (w *writer) batch() error {
	r := w.r
	w.page()
	w.say(20, true, fmt.Sprintf("%d × %s", r.Inputs.Copies, r.Inputs.Name))
	w.say(11, false, fmt.Sprintf("About %s for all: one kind of work after the other, for every box.", recipe.Clock(r.All)))
	w.toCut()
	if err := w.supplies(); err != nil {
		return err
	}
	w.heading("The work, in order")
	w.say(9, false, recipe.Key(w.r.Inputs.Units))
	const square, gap = 4.0, 1.6
	for n, s := range recipe.ByKind(r.Steps) {
		w.say(10, false, fmt.Sprintf("%d  %s", n+1, s.Text))
		x := w.left + 6
		w.room(square + 3)
		for range min(r.Inputs.Copies, mostSquares) {
			if x+square > w.left+w.wide() {
				x = w.left + 6
				w.y += square + gap
				w.room(square + 3)
			}
			w.ink()
			w.Rect(x, w.y, square, square, "D")
			x += square + gap
		}
		w.y += square + 3
	}
	return nil
}
