package design

import (
	"strings"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// solved builds the box, first working out the allowance if it was left out:
// the tightest axis decides.
func (r *Result) solved(spec *style.Spec) (*style.Box, error) {
	r.follow(spec)
	o := r.Style.Allowance
	if o == nil {
		return r.Style.Make(*spec)
	}
	if _, typed := r.Inputs.Lengths[o.ID]; typed {
		return r.Style.Make(*spec)
	}
	if err := r.solve(spec, o); err != nil {
		return nil, err
	}
	r.Solved = true
	return r.Style.Make(*spec)
}

// solve works an allowance out: the smallest whose gap on the tightest axis is the fit that
// is wanted. Where an axis has an allowance of its own that moves scores by itself, as a
// sleeve's height has, each is worked out for its own axis; a lid's two stay one, so that
// what is square stays square.
func (r *Result) solve(spec *style.Spec, o *style.Option) error {
	all := []*style.Option{o}
	if r.worked == nil {
		r.worked = map[string]bool{}
	}
	r.worked[o.ID] = true
	for _, own := range r.Style.Options {
		if _, typed := r.Inputs.Lengths[own.ID]; o.Chained && !typed && strings.HasPrefix(own.ID, o.ID+".") {
			all = append(all, own)
			r.worked[own.ID] = true
		}
	}
	for _, x := range all {
		spec.Lengths[x.ID] = 0
	}
	bare, err := r.gaps(spec)
	if err != nil {
		return err
	}
	out := make([]measure.Length, len(all))
	for i, x := range all {
		if out[i], err = r.least(spec, x, bare); err != nil {
			return fault.At(fault.Path("options", o.ID), err)
		}
	}
	for i, x := range all {
		spec.Lengths[x.ID] = out[i]
	}
	r.follow(spec)
	return nil
}

// least is the smallest of an allowance on its tick that earns the wanted fit on the axes
// that it widens, the others left bare.
func (r *Result) least(spec *style.Spec, o *style.Option, bare []measure.Length) (measure.Length, error) {
	defer func() { spec.Lengths[o.ID] = 0 }()
	at := func(a measure.Length) ([]measure.Length, error) {
		spec.Lengths[o.ID] = a
		return r.gaps(spec)
	}
	widens, known := r.widens[o.ID]
	if !known || len(widens) != len(bare) {
		wider, err := at(measure.Inch / 8)
		if err != nil {
			return 0, err
		}
		widens = make([]bool, len(bare))
		for i := range widens {
			widens[i] = i < len(wider) && wider[i] > bare[i]
		}
		if r.widens == nil {
			r.widens = map[string][]bool{}
		}
		r.widens[o.ID] = widens
	}
	tightest := func(gaps []measure.Length) measure.Length { // of those that the allowance widens
		out := measure.Max
		for i, gap := range gaps {
			if i < len(widens) && widens[i] {
				out = min(out, gap)
			}
		}
		return out
	}
	gap, want := tightest(bare), r.Inputs.Fit
	if gap == measure.Max {
		return 0, nil
	}
	tick := o.AllowanceTick(*spec)
	a, err := fit.Solve(gap, want, tick)
	if err != nil || a == 0 {
		return 0, err
	}
	if fit.Judge(gap+a) == fit.Loose && want != fit.Loose { // coarse grooves: to a mark between them
		tick = spec.Tick.Ruler()
		a = measure.Up(want.Least()-gap, tick)
	}
	// Sides that go up to marks of their own gain more than they are given: less may do.
	for less := a - tick.Length(); less >= 0; less -= tick.Length() {
		gaps, err := at(less)
		if err != nil || tightest(gaps) < want.Least() {
			break
		}
		a = less
	}
	return a, nil
}

// gaps are those of a spec's pairs that an allowance may widen.
func (r *Result) gaps(spec *style.Spec) ([]measure.Length, error) {
	r.follow(spec)
	box, err := r.Style.Make(*spec)
	if err != nil {
		return nil, err
	}
	var out []measure.Length
	for _, p := range box.Fits {
		if p.Kind.Widened() {
			out = append(out, r.account(p, box).Gap)
		}
	}
	return out, nil
}

// between is the decoration standing in a pair's gap, both sides together.
func (r *Result) between(p fit.Pair, box *style.Box) measure.Length {
	if !p.Kind.Dressed {
		return 0
	}
	marks := func(piece string) []pattern.Mark {
		for _, part := range box.Parts {
			if part.ID == piece {
				return part.Pattern.Marks
			}
		}
		return nil
	}
	reach := measure.Length(0) // a lid reaches as far down as it is deep, and no paper below
	if p.Kind.Closes {
		reach = p.OuterDepth
	}
	return r.covering(p.Inner, p.Outer) + 2*dress.Thickness(r.Inputs.Mats, p.Inner, marks(p.Inner), pattern.Wall, dress.Outside, reach) +
		2*dress.Thickness(r.Inputs.Mats, p.Outer, marks(p.Outer), pattern.Wall, dress.Inside, 0)
}

// follow gives the sizes and options left out the values that follow from
// the others.
func (r *Result) follow(spec *style.Spec) {
	r.Style.Follow(spec, func(id string) bool {
		_, size := r.Inputs.Size[id]
		_, option := r.Inputs.Lengths[id]
		return size || option || r.worked[id]
	})
}
