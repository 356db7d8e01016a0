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
func (z *sizer) sizeFor(want style.Extent, basis Basis) error {
	tick := z.in.Tools.Tick
	round := measure.Up
	if basis == Outside {
		round = measure.Down
	}
	// The sizes asked for may be none that the style can be tried at.
	first := z.style.Along(z.spec.Lengths)
	for i, p := range z.style.Axes {
		*first.Axis(i) = min(max(*first.Axis(i), measure.Up(p.Min, tick)), max(measure.Down(p.Max, tick), measure.Up(p.Min, tick)))
	}
	z.style.Give(z.spec.Lengths, first)
	slope := [3]float64{1, 1, 1}
	// The length or the width may change nothing, where the other one sets both. A side that is
	// rounded stands still for a tick or two; one that does so for four is idle.
	var idle [2]bool
	idleFor := 4 * tick.Length()
	var before, lacked, began style.Extent
	within, left := style.Extent{}, measure.Length(-1) // the nearest size that keeps to what is wanted, and how far off it is
	for n := range mostRounds {
		lacks, err := z.lacks(want, basis)
		if err != nil {
			return err
		}
		if n == 0 {
			began = lacks
		}
		now := z.style.Along(z.spec.Lengths)
		if sum := (lacks.Length + lacks.Width + lacks.Height).Abs(); keeps(lacks, basis) && (left < 0 || sum < left) {
			within, left = now, sum
		}
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
			*next.Axis(i) = max(measure.Up(z.style.Axes[i].Min, tick), round(max(0, size), tick))
		}
		before, lacked = now, lacks
		z.style.Give(z.spec.Lengths, next)
		if n >= 2 && z.farOver(next) {
			return z.inRange() // it was seen how fast it grows; it does not come back
		}
		if z.style.Along(z.spec.Lengths) == now {
			z.square(want, basis)
			return z.notUnder(lacks, basis)
		}
	}
	// Sizes that follow from one another by jumps may never settle.
	if left >= 0 {
		z.style.Give(z.spec.Lengths, within)
		return nil
	}
	if basis != Outside {
		return z.grow(want, basis)
	}
	for n, p := range z.style.Axes {
		if *lacked.Axis(n) < 0 {
			return fault.New(fault.TooSmall, fault.Path("size", p.ID), "no box of this kind comes out so small; ask for more")
		}
	}
	return nil
}

// keeps reports whether a box that lacks so much has the room that is wanted, or does not pass the
// outside that is.
func keeps(lacks style.Extent, basis Basis) bool {
	if basis == Outside {
		return min(lacks.Length, lacks.Width, lacks.Height) >= 0
	}
	return max(lacks.Length, lacks.Width, lacks.Height) <= 0
}

// grow makes what lacks room larger, by a tick at the least, until nothing lacks or no trial is left.
func (z *sizer) grow(want style.Extent, basis Basis) error {
	for range mostRounds {
		lacks, err := z.lacks(want, basis)
		if err != nil || keeps(lacks, basis) {
			return err
		}
		now := z.style.Along(z.spec.Lengths)
		for i := range 3 {
			if lack := *lacks.Axis(i); lack > 0 {
				*now.Axis(i) += measure.Up(lack, z.in.Tools.Tick)
			}
		}
		z.style.Give(z.spec.Lengths, now)
	}
	return z.inRange()
}

// farOver reports whether a size is far over what the style goes to.
func (z *sizer) farOver(e style.Extent) bool {
	for i, p := range z.style.Axes {
		if *e.Axis(i) > p.Max*5/4 {
			return true
		}
	}
	return false
}

// square makes the sides of what is wanted square equal again, where tabs inside two of the
// walls or the tick made them differ: both as long as the longer one, so that a lid goes on
// either way; of an outside, which is not to be passed, as the shorter.
func (z *sizer) square(want style.Extent, basis Basis) {
	now := z.style.Along(z.spec.Lengths)
	apart := (now.Length - now.Width).Abs()
	if want.Length != want.Width || apart == 0 || apart > 4*z.in.Card.Thickness+z.in.Tools.Tick.Length() {
		return
	}
	side := max(now.Length, now.Width)
	if basis == Outside {
		side = min(now.Length, now.Width)
	}
	now.Length, now.Width = side, side
	z.style.Give(z.spec.Lengths, now)
}

// notUnder refuses an outside that is smaller than the style goes.
func (z *sizer) notUnder(lacks style.Extent, basis Basis) error {
	for n, p := range z.style.Axes {
		if over := -*lacks.Axis(n); basis == Outside && over > 0 && z.spec.Lengths[p.ID] <= measure.Up(p.Min, z.in.Tools.Tick) {
			return z.in.outOfRange(fault.Path("size", p.ID), p.Label, z.spec.Lengths[p.ID]-over, p.Min, p.Max)
		}
	}
	return nil
}

// lacks is how much each axis must grow for the box, at its present sizes, to
// have what is wanted; less than nothing is what it has to spare. Where one
// parameter sets two axes, the one that lacks more is the one that counts.
func (z *sizer) lacks(want style.Extent, basis Basis) (style.Extent, error) {
	box, err := z.box()
	if err != nil {
		return style.Extent{}, atHeight(err)
	}
	if basis == Inside && box.Room.Height != nil {
		return box.Room.Lacks(want), nil
	}
	has := box.Room.Largest
	if basis == Outside && !z.style.Inner {
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
func (z *sizer) inRange() error {
	for _, p := range z.style.Parameters {
		v := z.spec.Lengths[p.ID]
		if v < p.Min || v > p.Max {
			return z.in.outOfRange(fault.Path("size", p.ID), p.Label, v, p.Min, p.Max)
		}
	}
	return nil
}
