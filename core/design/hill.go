package design

import (
	"fmt"
	"strings"

	"brevium/core/fit"
	"brevium/core/inspect"
	"brevium/core/stuff"
)

// Hill is how the fit of two parts comes out in many boxes that a hand makes which is so steady.
type Hill struct {
	What    string
	Usable  string // of a hundred
	Says    string
	Account []inspect.Sum
	axes    []stuff.Axis
}

// Hills are those of the fits that a hand feels; none where nobody says how steady it is.
func (r *Result) Hills() []Hill {
	if r.Inputs.Hand == "" {
		return nil
	}
	m := r.matter()
	h := r.hands(&m)
	var out []Hill
	for _, j := range h.Joined() {
		p := j.Accounts[0].Pair
		f := h.Judged(j)
		out = append(out, Hill{
			What: p.OuterName + " and " + strings.ToLower(p.InnerName), Says: f.Text, Account: f.Account, axes: j.Axes,
			Usable: fmt.Sprintf("%.0f", 100*stuff.UsableOf(j.Axes)),
		})
	}
	return out
}

// Density is how many boxes come out with a tightest gap of about x mm, per mm.
func (h Hill) Density(x float64) float64 {
	const half = 0.02
	return (stuff.Above(x-half, h.axes) - stuff.Above(x+half, h.axes)) / (2 * half)
}

// Mean is the tightest gap as it is worked out, in mm.
func (h Hill) Mean() float64 {
	least := h.axes[0].Mean
	for _, a := range h.axes {
		least = min(least, a.Mean)
	}
	return least
}

// Share is the chance of a verdict, of the tightest gap.
func (h Hill) Share(v fit.Verdict) float64 { return stuff.Chance(v, h.axes) }
