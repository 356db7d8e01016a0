package plotter

import (
	"math"

	"brevium/core/fault"
	"brevium/core/pattern"
)

// least is the width of the narrowest thing that a blade leaves whole, in mm.
const least = 1.5

// smallest refuses a piece with something in it that no blade cuts: a part that is narrower than 1.5
// so that the piece, worn in by half of that, falls apart or is gone; a hole that a circle of 1.5 does
// not pass; a slit that is shorter.
func smallest(p *Piece, g *region) error {
	for _, s := range p.Slits {
		long := 0.0
		for i := 1; i < len(s); i++ {
			long += s[i].Sub(s[i-1]).Len()
		}
		if long < least-1e-6 {
			return refuse(fault.TooSmall, p.Name, "a slit is %s mm long; a blade cuts 1.5 or more", mm(long))
		}
	}
	for _, h := range p.Holes {
		if across, _ := pattern.Narrowest(h); across < least-1e-6 {
			return refuse(fault.TooSmall, p.Name, "a hole is %s mm across; a blade cuts 1.5 or more", mm(across))
		}
	}
	if n := g.wornIn(least / 2); n != 1 {
		return refuse(fault.TooSmall, p.Name, "part of it is narrower than 1.5 mm and would tear; make it wider, or cut it by hand")
	}
	return nil
}

// wornIn counts the parts that are left of a region when all within a distance of its edge is taken
// away; crumbs are none. What is left of a row is what lies in every row near it, made shorter by as
// much as a circle is wide there.
func (g *region) wornIn(by float64) int {
	const crumb = 1 / (cell * cell) // cells of a square millimetre
	deep := by / cell
	rows := make([][]run, g.hi[1]-g.lo[1])
	for _, u := range g.runs {
		rows[u.y-g.lo[1]] = append(rows[u.y-g.lo[1]], u)
	}
	worn := make([][]run, len(rows))
	for y := range rows {
		left := rows[y]
		for d := -int(deep); d <= int(deep) && len(left) > 0; d++ {
			if y+d < 0 || y+d >= len(rows) {
				left = nil
				break
			}
			left = within(left, rows[y+d], int(math.Sqrt(deep*deep-float64(d*d))))
		}
		worn[y] = left
	}
	n := 0
	for _, left := range regionsOf(worn) {
		if left.cells > crumb {
			n++
		}
	}
	return n
}

// within is what of a row's runs lies in another row's, those made shorter at both ends.
func within(row, others []run, shorter int) []run {
	var out []run
	k := 0
	for _, u := range row {
		for k < len(others) && others[k].end-shorter <= u.x {
			k++
		}
		for n := k; n < len(others) && others[n].x+shorter < u.end; n++ {
			x, end := max(u.x, others[n].x+shorter), min(u.end, others[n].end-shorter)
			if x < end {
				out = append(out, run{u.y, x, end})
			}
		}
	}
	return out
}
