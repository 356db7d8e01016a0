package nest

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/pattern"
)

// Straight is a cut from edge to edge that parts a sheet, or a part of one, between its pieces: rough
// work for a trimmer before scissors go round each.
type Straight struct {
	// Part is what is cut: the sheet, or what lies on a side of an earlier cut.
	Part string
	// Across tells that At is measured across from the part's left edge, else from its top edge; in mm.
	Across bool
	At     float64
	// Near and Far are how many outlines lie on either side.
	Near, Far int
}

// Rough parts a sheet of outlines by straight cuts that run between them, the most even first, until no
// straight cut parts two of them any more.
func Rough(width, height float64, outlines [][]pattern.Point) []Straight {
	var all []bounds
	for _, o := range outlines {
		lo, hi := pattern.Bounds(o)
		all = append(all, bounds{lo, hi})
	}
	// What lies in the hole of another is cut with it.
	alone := slices.DeleteFunc(slices.Clone(all), func(b bounds) bool {
		return slices.ContainsFunc(all, func(o bounds) bool {
			return o != b && o.lo.X <= b.lo.X && o.lo.Y <= b.lo.Y && o.hi.X >= b.hi.X && o.hi.Y >= b.hi.Y
		})
	})
	r := rough{}
	r.part("the sheet", bounds{pattern.Pt(0, 0), pattern.Pt(width, height)}, alone)
	return r.cuts
}

type bounds struct{ lo, hi point }

type rough struct{ cuts []Straight }

func (r *rough) part(name string, of bounds, pieces []bounds) {
	const near = 1e-6
	if len(pieces) < 2 {
		return
	}
	best, even := Straight{}, 0
	try := func(across bool, at, from float64, side func(bounds) (lo, hi float64)) {
		before, after := 0, 0
		for _, p := range pieces {
			switch lo, hi := side(p); {
			case hi <= at+near:
				before++
			case lo >= at-near:
				after++
			default:
				return
			}
		}
		if n := min(before, after); n > even {
			best, even = Straight{name, across, at - from, before, after}, n
		}
	}
	for _, p := range pieces {
		try(true, p.hi.X, of.lo.X, func(b bounds) (float64, float64) { return b.lo.X, b.hi.X })
		try(false, p.hi.Y, of.lo.Y, func(b bounds) (float64, float64) { return b.lo.Y, b.hi.Y })
	}
	if even == 0 {
		return
	}
	r.cuts = append(r.cuts, best)
	n := len(r.cuts)
	sides := [2]string{"above", "below"}
	first, second := of, of
	if best.Across {
		sides = [2]string{"left of", "right of"}
		first.hi.X, second.lo.X = of.lo.X+best.At, of.lo.X+best.At
	} else {
		first.hi.Y, second.lo.Y = of.lo.Y+best.At, of.lo.Y+best.At
	}
	in := func(b bounds) []bounds {
		return slices.DeleteFunc(slices.Clone(pieces), func(p bounds) bool {
			mid := p.lo.Add(p.hi).Scale(0.5)
			return math.Abs(mid.X-(b.lo.X+b.hi.X)/2) > (b.hi.X-b.lo.X)/2 || math.Abs(mid.Y-(b.lo.Y+b.hi.Y)/2) > (b.hi.Y-b.lo.Y)/2
		})
	}
	r.part(fmt.Sprintf("what lies %s cut %d", sides[0], n), first, in(first))
	r.part(fmt.Sprintf("what lies %s cut %d", sides[1], n), second, in(second))
}

// Edge is the edge of a part that the cut is measured from.
func (s Straight) Edge() string {
	if s.Across {
		return "left"
	}
	return "top"
}
