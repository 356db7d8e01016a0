package design

import (
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// mostRounds bounds the trials of sizeFor; two settle every tray.
const mostRounds = 16

// sizeFor sets the axes so that the finished box has the room wanted inside,
// or that size outside: rounded up to the tick for a room, down for an
// outside. What a size lacks is asked of the box itself, and how fast that
// falls as the size grows is learned from one trial to the next (the secant
// rule), so that roofs, arches, towers and floors of any shape are all sized
// in the one way.
func (r *Result) sizeFor(want style.Extent, basis Basis) error {
	tick := r.Inputs.Tools.Tick
	round := measure.Up
	if basis == Outside {
		round = measure.Down
	}
	// The sizes asked for may be none that the style can be tried at.
	first := r.Style.Along(r.Spec.Lengths)
	for i, p := range r.Style.Axes {
		*first.Axis(i) = min(max(*first.Axis(i), measure.Up(p.Min, tick)), max(measure.Down(p.Max, tick), measure.Up(p.Min, tick)))
	}
	r.Style.Give(r.Spec.Lengths, first)
	slope := [3]float64{1, 1, 1}
	// The length or the width may change nothing, where the other one sets both. A side that is
	// rounded stands still for a tick or two; one that does so for four is idle.
	var idle [2]bool
	idleFor := 4 * tick.Length()
	var before, lacked, began style.Extent
	for n := range mostRounds {
		lacks, err := r.lacks(want, basis)
		if err != nil {
			return err
		}
		if n == 0 {
			began = lacks
		}
		now := r.Style.Along(r.Spec.Lengths)
		for i := range idle {
			grown, fell := *now.Axis(i)-*first.Axis(i), *began.Axis(i)-*lacks.Axis(i)
			idle[i] = idle[i] || grown >= idleFor && fell == 0
			if idle[i] {
				*lacks.Axis(1 - i) = max(*lacks.Axis(1 - i), *lacks.Axis(i))
				*lacks.Axis(i) = 0
			}
		}
		next := now
		for i := range 3 {
			size, lack := *now.Axis(i), *lacks.Axis(i)
			if moved := size - *before.Axis(i); n > 0 && moved != 0 {
				if fell := float64(*lacked.Axis(i)-lack) / float64(moved); fell > 0.1 {
					slope[i] = fell
				}
			}
			size += measure.Length(float64(lack) / slope[i])
			if n > mostRounds/2 && basis == Outside && lack < 0 {
				size = *now.Axis(i) - 1 // to the next tick, where rounding keeps it from settling
			}
			// No smaller than the style goes: a thing may be.
			*next.Axis(i) = max(measure.Up(r.Style.Axes[i].Min, tick), round(max(0, size), tick))
		}
		before, lacked = now, lacks
		r.Style.Give(r.Spec.Lengths, next)
		if r.Style.Along(r.Spec.Lengths) == now {
			r.square(want, basis)
			return r.notUnder(lacks, basis)
		}
	}
	return nil
}

// square makes the sides of what is wanted square equal again, where tabs inside two of the
// walls or the tick made them differ: both as long as the longer one, so that a lid goes on
// either way; of an outside, which is not to be passed, as the shorter.
func (r *Result) square(want style.Extent, basis Basis) {
	now := r.Style.Along(r.Spec.Lengths)
	apart := (now.Length - now.Width).Abs()
	if want.Length != want.Width || apart == 0 || apart > 4*r.Inputs.Card.Thickness+r.Inputs.Tools.Tick.Length() {
		return
	}
	side := max(now.Length, now.Width)
	if basis == Outside {
		side = min(now.Length, now.Width)
	}
	now.Length, now.Width = side, side
	r.Style.Give(r.Spec.Lengths, now)
}

// notUnder refuses an outside that is smaller than the style goes.
func (r *Result) notUnder(lacks style.Extent, basis Basis) error {
	for n, p := range r.Style.Axes {
		if over := -*lacks.Axis(n); basis == Outside && over > 0 && r.Spec.Lengths[p.ID] <= measure.Up(p.Min, r.Inputs.Tools.Tick) {
			return r.Inputs.outOfRange(fault.Path("size", p.ID), p.Label, r.Spec.Lengths[p.ID]-over, p.Min, p.Max)
		}
	}
	return nil
}

// lacks is how much each axis must grow for the box, at its present sizes, to
// have what is wanted; less than nothing is what it has to spare. Where one
// parameter sets two axes, the one that lacks more is the one that counts.
func (r *Result) lacks(want style.Extent, basis Basis) (style.Extent, error) {
	box, err := r.solved(&r.Spec)
	if err != nil {
		return style.Extent{}, atHeight(err)
	}
	if basis == Inside && box.Room.Height != nil {
		return box.Room.Lacks(want), nil
	}
	has := box.Room.Largest
	if basis == Outside && !r.Style.Inner {
		finished := make([]*pattern.Folded, len(box.Parts))
		for i, p := range box.Parts {
			if finished[i], err = p.Pattern.Finished(p.Root); err != nil {
				return style.Extent{}, err
			}
		}
		bodies, err := style.Assemble(box.Parts, finished, style.Finished)
		if err != nil {
			return style.Extent{}, err
		}
		has = style.Outside(bodies)
	}
	return style.Extent{Length: want.Length - has.Length, Width: want.Width - has.Width, Height: want.Height - has.Height}, nil
}

// inRange checks the sizes that were worked out against the style's limits.
func (r *Result) inRange() error {
	for _, p := range r.Style.Parameters {
		v := r.Spec.Lengths[p.ID]
		if v < p.Min || v > p.Max {
			return r.Inputs.outOfRange(fault.Path("size", p.ID), p.Label, v, p.Min, p.Max)
		}
	}
	return nil
}
