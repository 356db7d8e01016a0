package design

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fit"
	"brevium/core/measure"
)

// Tightest is the account with the least gap of the parts that move in one
// another; false when none do.
func (b *Built) Tightest() (fit.Account, bool) {
	moving := b.Felt()
	if len(moving) == 0 {
		return fit.Account{}, false
	}
	return slices.MinFunc(moving, func(a, other fit.Account) int { return int(a.Gap - other.Gap) }), true
}

// BareFit gives the verdict on the tightest axis with the allowance that
// custom gives, 1/16 in, without the design's mats and with them. It is not
// known where there are none, or no fit.
func (p *Papered) BareFit() (bare, dressed fit.Verdict, known bool) {
	o := p.Style.Allowance
	if o == nil || len(p.Mats)+len(p.Inputs.Covers) == 0 || len(p.Fits) == 0 {
		return "", "", false
	}
	in := p.Inputs.Clone()
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

// GapBare is a gap of the box as it is dressed, and as it would be without.
type GapBare struct {
	Name          string
	Bare, Dressed measure.Length
}

// GapsBare gives every gap with the dressing and without it, at the allowance in
// force; none where the box cannot be made bare.
func (b *Built) GapsBare() []GapBare {
	in := b.BySize()
	in.Mats, in.Covers = nil, nil
	if o := b.Style.Allowance; o != nil {
		in.Lengths[o.ID] = b.Spec.Lengths[o.ID]
	}
	bare, err := Sketch(in)
	if err != nil {
		return nil
	}
	var out []GapBare
	for _, a := range b.Fits {
		i := slices.IndexFunc(bare.Fits, func(other fit.Account) bool {
			return other.Pair.Outer == a.Pair.Outer && other.Pair.Inner == a.Pair.Inner && other.Pair.Axis == a.Pair.Axis
		})
		if i >= 0 {
			out = append(out, GapBare{fmt.Sprintf("%s over %s, %s", a.Pair.OuterName, strings.ToLower(a.Pair.InnerName), a.Pair.Axis), bare.Fits[i].Gap, a.Gap})
		}
	}
	return out
}

// DressingBlanks are the blanks that only dress the box: papers, bands, coverings,
// labels.
func (l *Laid) DressingBlanks() []Blank {
	var out []Blank
	for _, b := range l.Blanks {
		p, part := l.part(b.ID)
		if !part || p.Loose {
			out = append(out, b)
		}
	}
	return out
}

// DressingArea is what they take of paper and card for one box, in mm².
func (l *Laid) DressingArea() float64 {
	sum := 0.0
	for _, b := range l.DressingBlanks() {
		sum += float64(b.Copies) * b.Width.MM() * b.Height.MM()
	}
	return sum
}
