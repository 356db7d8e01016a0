package design

import (
	"encoding/binary"
	"strings"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// sizer finds the sizes and allowances of a box by trial. Its spec is the one that is tried.
type sizer struct {
	in     *Inputs
	style  *style.Style
	spec   style.Spec
	tries  int             // how many arrangements are priced
	solved bool            // an allowance was worked out, not typed
	worked map[string]bool // the allowances that were
	// widens are the gaps that an allowance widens: the same at every size that is tried.
	widens map[string][]bool
	tried  map[string]*tried
}

// tried is what came of one spec; its room is looked for when somebody asks for it.
type tried struct {
	box     *style.Box
	err     error
	settled bool
}

func newSizer(in *Inputs, s *style.Style, spec style.Spec) *sizer {
	return &sizer{in: in, style: s, spec: spec, tries: mostTried, worked: map[string]bool{}, widens: map[string][]bool{}, tried: map[string]*tried{}}
}

// pieces are those of the spec, built once: the same sizes come back while they are sought.
func (z *sizer) pieces() *tried {
	var key []byte
	for _, p := range z.style.Parameters {
		key = binary.LittleEndian.AppendUint64(key, uint64(z.spec.Lengths[p.ID]))
	}
	for _, o := range z.style.Options {
		key = binary.LittleEndian.AppendUint64(key, uint64(z.spec.Lengths[o.ID]))
	}
	t, known := z.tried[string(key)]
	if !known {
		t = &tried{}
		t.box, t.err = z.style.Pieces(z.spec)
		z.tried[string(key)] = t
	}
	return t
}

// make builds the box of the spec with its room.
func (z *sizer) make() (*style.Box, error) {
	t := z.pieces()
	if t.err == nil && !t.settled {
		t.err, t.settled = t.box.Settle(z.style.Inner), true
	}
	return t.box, t.err
}

// box builds the box, first working out the allowance if it was left out: the tightest axis
// decides.
func (z *sizer) box() (*style.Box, error) {
	z.follow()
	o := z.style.Allowance
	if o == nil {
		return z.make()
	}
	if _, typed := z.in.Lengths[o.ID]; typed {
		return z.make()
	}
	if err := z.solve(o); err != nil {
		return nil, err
	}
	z.solved = true
	return z.make()
}

// solve works an allowance out: the smallest whose gap on the tightest axis is the fit that
// is wanted. Where an axis has an allowance of its own that moves scores by itself, as a
// sleeve's height has, each is worked out for its own axis; a lid's two stay one, so that
// what is square stays square.
func (z *sizer) solve(o *style.Option) error {
	all := []*style.Option{o}
	z.worked[o.ID] = true
	for _, own := range z.style.Options {
		if _, typed := z.in.Lengths[own.ID]; o.Chained && !typed && strings.HasPrefix(own.ID, o.ID+".") {
			all = append(all, own)
			z.worked[own.ID] = true
		}
	}
	for _, x := range all {
		z.spec.Lengths[x.ID] = 0
	}
	bare, err := z.gaps()
	if err != nil {
		return err
	}
	out := make([]measure.Length, len(all))
	for i, x := range all {
		if out[i], err = z.least(x, bare); err != nil {
			return fault.At(fault.Path("options", o.ID), err)
		}
	}
	for i, x := range all {
		z.spec.Lengths[x.ID] = out[i]
	}
	z.follow()
	return nil
}

// least is the smallest of an allowance on its tick that earns the wanted fit on the axes
// that it widens, the others left bare.
func (z *sizer) least(o *style.Option, bare []measure.Length) (measure.Length, error) {
	defer func() { z.spec.Lengths[o.ID] = 0 }()
	at := func(a measure.Length) ([]measure.Length, error) {
		z.spec.Lengths[o.ID] = a
		return z.gaps()
	}
	widens, known := z.widens[o.ID]
	if !known || len(widens) != len(bare) {
		wider, err := at(measure.Inch / 8)
		if err != nil {
			return 0, err
		}
		widens = make([]bool, len(bare))
		for i := range widens {
			widens[i] = i < len(wider) && wider[i] > bare[i]
		}
		z.widens[o.ID] = widens
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
	gap, want := tightest(bare), z.in.Fit
	if gap == measure.Max {
		return 0, nil
	}
	tick := o.AllowanceTick(z.spec)
	a, err := fit.Solve(gap, want, tick)
	if err != nil || a == 0 {
		return 0, err
	}
	if fit.Judge(gap+a) == fit.Loose && want != fit.Loose { // coarse grooves: to a mark between them
		tick = z.spec.Tick.Ruler()
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
	if z.in.Hand != "" {
		a = z.likeliest(o, a, tick)
	}
	return a, nil
}

// gaps are those of the spec's pairs that an allowance may widen.
func (z *sizer) gaps() ([]measure.Length, error) {
	z.follow()
	t := z.pieces()
	if t.err != nil {
		return nil, t.err
	}
	var out []measure.Length
	for _, p := range t.box.Fits {
		if p.Kind.Widened() {
			out = append(out, z.in.account(p, t.box).Gap)
		}
	}
	return out, nil
}

// between is the decoration standing in a pair's gap, both sides together.
func between(in *Inputs, p fit.Pair, box *style.Box) measure.Length {
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
	return coveringOf(in, p.Inner, p.Outer) + 2*dress.Thickness(in.Mats, p.Inner, marks(p.Inner), pattern.Wall, dress.Outside, reach) +
		2*dress.Thickness(in.Mats, p.Outer, marks(p.Outer), pattern.Wall, dress.Inside, 0)
}

// follow gives the sizes and options left out the values that follow from
// the others.
func (z *sizer) follow() {
	z.style.Follow(&z.spec, func(id string) bool {
		_, size := z.in.Size[id]
		_, option := z.in.Lengths[id]
		return size || option || z.worked[id]
	})
}
