package design

import (
	"brevium/core/fit"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/stuff"
	"brevium/core/style"
)

// hand is how steady the hand is that is said to make the box. One that is learned is a practised
// one, whose fits scatter as the notes say; see lean.
func (in *Inputs) hand() stuff.Hand { return stuff.HandOf(in.Hand) }

// searched is how many ticks below the plain allowance, and above it, are looked at for a hand.
const (
	searchedBelow = 2
	searchedAbove = 4
)

// likeliest is the allowance on a tick, near the one that is worked out plainly, with which most
// boxes come out with the wanted fit, where it is said how steady the hand is.
func (z *sizer) likeliest(o *style.Option, plain measure.Length, tick measure.Tick) measure.Length {
	best, most := plain, -1.0
	for n := -searchedBelow; n <= searchedAbove; n++ {
		a := plain + measure.Length(n)*tick.Length()
		if a < 0 || a > fit.LargestAllowance {
			continue
		}
		z.spec.Lengths[o.ID] = a
		z.follow()
		box, err := z.make()
		if err != nil {
			continue
		}
		if p := z.in.wantedIn(box); p > most+1e-6 {
			best, most = a, p
		}
	}
	return best
}

// wantedIn is the chance that all the fits of a box come out as they are wanted.
func (in *Inputs) wantedIn(box *style.Box) float64 {
	m := inspect.Matter{Table: in.Table(), Units: in.Units}
	h := inspect.Hands{Matter: &m, Steady: in.Hand, Hand: in.hand()}
	for _, p := range box.Parts {
		m.Pieces = append(m.Pieces, inspect.Made{Part: p, Of: in.CardOf(p.ID)})
		h.Scores = append(h.Scores, recipe.Scores(p, in.Tools.Fence, in.Tools.Tick))
	}
	for _, p := range box.Fits {
		h.Fits = append(h.Fits, in.account(p, box))
	}
	chance := 1.0
	for _, j := range h.Joined() {
		chance *= stuff.Chance(in.Fit, j.Axes)
	}
	return chance
}
