package design

import (
	"slices"

	"brevium/core/fit"
	"brevium/core/measure"
)

// Tightest is the account with the least gap; there must be one.
func (r *Result) Tightest() fit.Account {
	return slices.MinFunc(r.Fits, func(a, b fit.Account) int { return int(a.Gap - b.Gap) })
}

// BareFit gives the verdict on the tightest axis with the allowance that
// custom gives, 1/16 in, without the design's mats and with them. It is not
// known where there are none, or no fit.
func (r *Result) BareFit() (bare, dressed fit.Verdict, known bool) {
	o := r.Style.Allowance
	if o == nil || len(r.Mats) == 0 || len(r.Fits) == 0 {
		return "", "", false
	}
	in := r.Inputs.Clone()
	in.Lengths[o.ID] = measure.Inch / 16
	with, err := Sketch(in)
	in.Mats = nil
	without, err2 := Sketch(in)
	if err != nil || err2 != nil {
		return "", "", false
	}
	return without.Tightest().Verdict, with.Tightest().Verdict, true
}
