package design

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/style"
)

// Tightest is the account with the least gap of the parts that move in one
// another; false when none do.
func (r *Result) Tightest() (fit.Account, bool) {
	moving := r.Felt()
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

// BySize gives the inputs of the same box by its sizes, without what goes into it.
func (r *Result) BySize() Inputs {
	in := r.Inputs.Clone()
	in.Basis, in.Room, in.Things, in.Stand = Scored, style.Extent{}, nil, ""
	r.Style.Give(in.Size, r.Style.Along(r.Spec.Lengths))
	return in
}

// GapBare is a gap of the box as it is dressed, and as it would be without.
type GapBare struct {
	Name          string
	Bare, Dressed measure.Length
}

// GapsBare gives every gap with the dressing and without it, at the allowance in
// force; none where the box cannot be made bare.
func (r *Result) GapsBare() []GapBare {
	in := r.BySize()
	in.Mats, in.Covers = nil, nil
	if o := r.Style.Allowance; o != nil {
		in.Lengths[o.ID] = r.Spec.Lengths[o.ID]
	}
	bare, err := Sketch(in)
	if err != nil {
		return nil
	}
	var out []GapBare
	for _, a := range r.Fits {
		i := slices.IndexFunc(bare.Fits, func(b fit.Account) bool {
			return b.Pair.Outer == a.Pair.Outer && b.Pair.Inner == a.Pair.Inner && b.Pair.Axis == a.Pair.Axis
		})
		if i >= 0 {
			out = append(out, GapBare{fmt.Sprintf("%s over %s, %s", a.Pair.OuterName, strings.ToLower(a.Pair.InnerName), a.Pair.Axis), bare.Fits[i].Gap, a.Gap})
		}
	}
	return out
}

// DressingBlanks are the blanks that only dress the box: papers, bands, coverings,
// labels.
func (r *Result) DressingBlanks() []Blank {
	var out []Blank
	for _, b := range r.Blanks {
		p, part := r.part(b.ID)
		if !part || p.Loose {
			out = append(out, b)
		}
	}
	return out
}

// DressingArea is what they take of paper and card for one box, in mm².
func (r *Result) DressingArea() float64 {
	sum := 0.0
	for _, b := range r.DressingBlanks() {
		sum += float64(b.Copies) * b.Width.MM() * b.Height.MM()
	}
	return sum
}
