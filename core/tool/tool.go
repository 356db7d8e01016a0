// Package tool is what a maker owns to punch, round and cut out shapes with: a box is made to
// sizes that are there.
package tool

import (
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Owned are a maker's tools of this sort; nothing owned means that nothing is known of them.
type Owned struct {
	Punches  []Punch          // of round holes, whose halves are notches
	Rounders []measure.Length // the radii of corner rounders
	Circles  Circles          // what a circle cutter cuts
	Dies     []Die
	Machine  Machine // that cuts by itself
}

// Punch makes round holes so far across. Reach is how far in from the card's edge it gets, to
// the middle of the hole; 0 is as far as one likes, as one that is struck does.
type Punch struct{ Across, Reach measure.Length }

// Circles are the least and the largest circle that a cutter cuts, across; zero is no cutter.
type Circles struct{ From, To measure.Length }

// Cut reports whether a circle so far across is cut.
func (c Circles) Cut(across measure.Length) bool {
	return c.To > 0 && across >= c.From && across <= c.To
}

// Die cuts out one size of label, whatever its shape.
type Die struct{ Width, Height measure.Length }

// Most is how many of each sort are kept.
const Most = 40

// Corner rounders are made for radii between these.
const (
	LeastRadius = 2 * measure.Millimetre
	MostRadius  = 30 * measure.Millimetre
)

// Limits of what else is made.
const (
	least     = measure.Millimetre
	most      = 100 * measure.Millimetre
	mostShape = 300 * measure.Millimetre
)

// Check refuses tools that nobody makes; show writes a limit.
func (o Owned) Check(show func(measure.Length) string) error {
	size := func(field string, l, least, most measure.Length) error {
		if l < least || l > most {
			return fault.New(fault.OutOfRange, field, "tools of this sort are made for %s to %s", show(least), show(most))
		}
		return nil
	}
	for field, n := range map[string]int{"tools.punches": len(o.Punches), "tools.rounders": len(o.Rounders), "tools.dies": len(o.Dies)} {
		if n > Most {
			return fault.New(fault.CountRange, field, "a list has up to %d tools", Most)
		}
	}
	for i, p := range o.Punches {
		if err := size(fault.Path("tools.punches", i, "across"), p.Across, least, most); err != nil {
			return err
		}
		if p.Reach < 0 || p.Reach > mostShape {
			return fault.New(fault.OutOfRange, fault.Path("tools.punches", i, "reach"), "a punch reaches up to %s in from the edge; 0 is as far as one likes", show(mostShape))
		}
	}
	for i, r := range o.Rounders {
		if err := size(fault.Path("tools.rounders", i), r, LeastRadius, MostRadius); err != nil {
			return err
		}
	}
	for i, d := range o.Dies {
		for side, l := range map[string]measure.Length{"width": d.Width, "height": d.Height} {
			if err := size(fault.Path("tools.dies", i, side), l, least, mostShape); err != nil {
				return err
			}
		}
	}
	if c := o.Circles; c != (Circles{}) && (c.From < least || c.To < c.From || c.To > mostShape) {
		return fault.New(fault.OutOfRange, "tools.circles", "a circle cutter cuts from its least circle, at least %s across, to its largest, up to %s", show(least), show(mostShape))
	}
	return o.Machine.check()
}

// Holes are the sizes that the punches make, each once, the smallest first.
func (o Owned) Holes() []measure.Length {
	var out []measure.Length
	for _, p := range o.Punches {
		out = append(out, p.Across)
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// Cuts reports whether a hole so far across, its middle so deep in from the card's edge, is
// punched or cut as a circle; near are the punches' next sizes, smaller and larger, where none
// makes it, and reach how far the deepest gets where none gets there.
func (o Owned) Cuts(across, deep measure.Length) (near []measure.Length, reach measure.Length, ok bool) {
	if o.Circles.Cut(across) {
		return nil, 0, true
	}
	made := false
	for _, p := range o.Punches {
		if same(p.Across, across) {
			if p.Reach == 0 || deep <= p.Reach {
				return nil, 0, true
			}
			made, reach = true, max(reach, p.Reach)
		}
	}
	if made {
		return nil, reach, false
	}
	return next(o.Holes(), across), 0, false
}

// Rounds reports whether a corner is rounded to a radius; near are the next radii where none is.
func (o Owned) Rounds(radius measure.Length) (near []measure.Length, ok bool) {
	if slices.ContainsFunc(o.Rounders, func(r measure.Length) bool { return same(r, radius) }) {
		return nil, true
	}
	all := slices.Clone(o.Rounders)
	slices.Sort(all)
	return next(slices.Compact(all), radius), false
}

// Die reports whether a die cuts out a label of a size; near is the one that is nearest where
// none does.
func (o Owned) Die(width, height measure.Length) (near Die, ok bool) {
	off := func(d Die) measure.Length { return max((d.Width - width).Abs(), (d.Height - height).Abs()) }
	for i, d := range o.Dies {
		if same(d.Width, width) && same(d.Height, height) {
			return d, true
		}
		if i == 0 || off(d) < off(near) {
			near = d
		}
	}
	return near, false
}

// same is what no hand tells apart: a tool of 1/4 in and one of 6.35 mm.
func same(a, b measure.Length) bool { return (a - b).Abs() <= 50*measure.Micrometre }

// next are the sizes on both sides of one, of sizes in order.
func next(sizes []measure.Length, to measure.Length) []measure.Length {
	i, _ := slices.BinarySearch(sizes, to)
	return sizes[max(0, i-1):min(len(sizes), i+1)]
}
