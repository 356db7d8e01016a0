package draw

import (
	"math"
	"slices"

	"brevium/core/pattern"
)

// raster is how many dots the longer side of a picture is parted into to tell what is seen of it.
const raster = 180

// hidden says which of some polygons, painted one over the other, are painted over altogether: no dot
// of theirs is left, nor a corner, nor the middle of a side.
func hidden(painted [][]pattern.Point, lo, hi pattern.Point) []bool {
	scale := raster / math.Max(hi.X-lo.X, hi.Y-lo.Y)
	wide, high := int((hi.X-lo.X)*scale)+2, int((hi.Y-lo.Y)*scale)+2
	top := make([]int32, wide*high) // the last polygon that was painted there, from 1
	dots := make([][]pattern.Point, len(painted))
	for i, polygon := range painted {
		for _, q := range polygon {
			dots[i] = append(dots[i], pattern.Pt((q.X-lo.X)*scale, (q.Y-lo.Y)*scale))
		}
		scan(dots[i], high, func(y, from, to int) {
			for x := max(0, from); x < min(wide, to); x++ {
				top[y*wide+x] = int32(i + 1)
			}
		})
	}
	out := make([]bool, len(painted))
	left := make([]bool, len(painted)+1)
	for _, i := range top {
		left[i] = true
	}
	for i, polygon := range dots {
		if left[i+1] {
			continue
		}
		out[i] = !slices.ContainsFunc(polygon, func(q pattern.Point) bool { return over(top, wide, high, q) <= i+1 })
		for k, a := range polygon {
			if mid := a.Add(polygon[(k+1)%len(polygon)]).Scale(0.5); over(top, wide, high, mid) <= i+1 {
				out[i] = false
			}
		}
	}
	return out
}

// over is what was painted last on a dot and on those beside it: the lowest of them.
func over(top []int32, wide, high int, q pattern.Point) int {
	least := math.MaxInt
	for y := int(q.Y) - 1; y <= int(q.Y)+1; y++ {
		for x := int(q.X) - 1; x <= int(q.X)+1; x++ {
			if x < 0 || y < 0 || x >= wide || y >= high {
				return 0 // beside the picture nothing covers it
			}
			least = min(least, int(top[y*wide+x]))
		}
	}
	return least
}

// scan gives the stretches of dots whose middles lie in a polygon, row by row.
func scan(polygon []pattern.Point, high int, visit func(y, from, to int)) {
	if len(polygon) < 3 {
		return
	}
	lo, hi := pattern.Bounds(polygon)
	var at []float64
	for y := max(0, int(math.Floor(lo.Y))); y < min(high, int(math.Ceil(hi.Y))); y++ {
		mid := float64(y) + 0.5
		at = at[:0]
		for i, a := range polygon {
			b := polygon[(i+1)%len(polygon)]
			if (a.Y > mid) != (b.Y > mid) {
				at = append(at, a.X+(mid-a.Y)/(b.Y-a.Y)*(b.X-a.X))
			}
		}
		slices.Sort(at)
		for i := 0; i+1 < len(at); i += 2 {
			visit(y, int(math.Ceil(at[i]-0.5)), int(math.Floor(at[i+1]-0.5))+1)
		}
	}
}
