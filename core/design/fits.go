package design

import (
	"slices"

	"brevium/core/fit"
	"brevium/core/measure"
)

// Tightest is the account with the least gap of the parts that move in one
// another; false when none do.
func (r *Result) Tightest() (fit.Account, bool) {
	moving := slices.DeleteFunc(slices.Clone(r.Fits), func(a fit.Account) bool { return !a.Pair.Kind.Moves() })
	if len(moving) == 0 {
		return fit.Account{}, false
	}
	return slices.MinFunc(moving, func(a, b fit.Account) int { return int(a.Gap - b.Gap) }), true
}

// BareFit gives the verdict on the tightest axis with the allowance that
// custom gives, 1/16 in, without the design's mats and with them. It is not
// known where there are none, or no fit.
func (r *Result) BareFit() (bare, dressed fit.Verdict, known bool) {
	o := r.Style.Allowance
	if o == nil || len(r.Mats)+len(r.Inputs.Covers) == 0 || len(r.Fits) == 0 {
		return "", "", false
	}
	in := r.Inputs.Clone()
	in.Lengths[o.ID] = measure.Inch / 16
	with, err := Sketch(in)
	in.Mats, in.Covers = nil, nil
	without, err2 := Sketch(in)
	if err != nil || err2 != nil {
		return "", "", false
	}
	before, some := without.Tightest()
	after, _ := with.Tightest()
	return before.Verdict, after.Verdict, some
}
