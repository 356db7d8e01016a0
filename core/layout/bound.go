package layout

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/measure"
)

// shrinker is a dual feasible function: however pieces lie side by side within
// a sheet's side, the sum of their shrunk sides is at most the sheet's shrunk
// side. So the sum over all pieces of shrunk width times shrunk height is at
// most that of the sheets that hold them, whichever two functions are taken
// along the two sides (Fekete and Schepers, "A general framework for bounds
// for higher-dimensional orthogonal packing problems", 2004).
type shrinker func(x, side measure.Length) float64

// thrown leaves out what is smaller than k, and lets what is larger than the
// side less k take all of it (Fekete and Schepers's u with epsilon).
func thrown(k measure.Length) shrinker {
	return func(x, side measure.Length) float64 {
		switch {
		case x < k:
			return 0
		case x > side-k:
			return 1
		}
		return float64(x) / float64(side)
	}
}

// wholesOf counts in k-ths: floor((k+1)x)/k of the side, whole multiples of
// side/(k+1) staying what they are (Fekete and Schepers's u(k)).
func wholesOf(k measure.Length) shrinker {
	return func(x, side measure.Length) float64 {
		if (k+1)*x%side == 0 {
			return float64(x) / float64(side)
		}
		return float64((k+1)*x/side) / float64(k)
	}
}

// stepped counts in steps of k, from below up to half the side and from above
// beyond it (Carlier, Clautiaux and Moukrim, "New reduction procedures and
// lower bounds for the two-dimensional bin packing problem", 2007).
func stepped(k measure.Length) shrinker {
	return func(x, side measure.Length) float64 {
		all := side / k
		switch {
		case 2*x > side:
			return float64(all-(side-x)/k) / float64(all)
		case 2*x == side:
			return 0.5
		}
		return float64(x/k) / float64(all)
	}
}

// mostCounted is the largest k of counted that is tried.
const mostCounted = 12

// boundEffort limits the pieces times pairs of functions looked at.
const boundEffort = 400_000

// bounded is a kind of piece as the bounds see it, widened by the kerf.
type bounded struct {
	w, h   measure.Length
	copies float64
	// upright and turned tell in which ways it goes on the sheet.
	upright, turned bool
}

// bound proves a least number of sheets. The sheet taken is as wide and as
// high as any, both widened by the kerf; for the plain area it is the largest
// there is. Pieces that may be turned count with the smaller of their two
// values, so every bound holds whichever way they lie.
func (j *Job) bound() Bound {
	b := j.fewest()
	b.Cost = j.cheapest(b.Sheets)
	return b
}

// cheapest proves a least cost: that of the cheapest sheets whose area, the
// last one in part, holds the pieces, and that of the cheapest sheets of the
// least number.
func (j *Job) cheapest(sheets int) float64 {
	type kind struct{ price, area, count float64 }
	var kinds []kind
	need := 0.0
	for _, p := range j.Pieces {
		need += area(p.Width+j.Kerf, p.Height+j.Kerf) * float64(p.Copies)
	}
	for i, price := range j.Prices() {
		k := kind{price, area(j.room(i)), float64(j.Sheets[i].Count)}
		if k.count < 0 {
			k.count = math.Inf(1)
		}
		kinds = append(kinds, k)
	}
	byArea, byNumber := 0.0, 0.0
	slices.SortStableFunc(kinds, func(a, b kind) int { return cmp.Compare(a.price/a.area, b.price/b.area) })
	for _, k := range kinds {
		n := min(k.count, need/k.area)
		byArea, need = byArea+n*k.price, need-n*k.area
	}
	left := float64(sheets)
	slices.SortStableFunc(kinds, func(a, b kind) int { return cmp.Compare(a.price, b.price) })
	for _, k := range kinds {
		n := min(k.count, left)
		byNumber, left = byNumber+n*k.price, left-n
	}
	return max(byArea, byNumber)
}

// fewest proves a least number of sheets.
func (j *Job) fewest() Bound {
	width, height, most := measure.Length(0), measure.Length(0), 0.0
	for kind := range j.Sheets {
		w, h := j.room(kind)
		width, height, most = max(width, w), max(height, h), max(most, area(w, h))
	}
	total := 0.0
	var kinds []bounded
	for _, p := range j.Pieces {
		k := bounded{w: p.Width + j.Kerf, h: p.Height + j.Kerf, copies: float64(p.Copies)}
		k.upright = k.w <= width && k.h <= height
		k.turned = p.Turn && k.h <= width && k.w <= height
		kinds = append(kinds, k)
		total += area(k.w, k.h) * k.copies
	}
	best := Bound{Sheets: ceil(total / most), How: "area"}
	if n := alone(kinds, width, height); n > best.Sheets {
		best = Bound{Sheets: n, How: "pieces too large to share a sheet"}
	}
	if n := shrunk(kinds, width, height, best.Sheets); n > best.Sheets {
		best = Bound{Sheets: n, How: "what room pieces leave beside one another"}
	}
	return best
}

// ceil rounds up what is not whole but for the errors of its sum.
func ceil(x float64) int { return int(math.Ceil(x - 1e-7)) }

// shrunk tries pairs of dual feasible functions, both of one family and size
// first, and gives the most sheets that any proves.
func shrunk(kinds []bounded, width, height measure.Length, best int) int {
	var all []shrinker
	for k := range measure.Length(mostCounted) {
		all = append(all, wholesOf(k+1))
	}
	least := min(width, height)
	sizes := []measure.Length{1}
	for _, k := range kinds {
		for _, x := range []measure.Length{k.w, k.h, least - k.w, least - k.h} {
			if x > 0 && 2*x <= least {
				sizes = append(sizes, x)
			}
		}
	}
	slices.Sort(sizes)
	for _, x := range slices.Compact(sizes) {
		all = append(all, thrown(x), stepped(x))
	}
	// The sides of each piece under each function, once along either side.
	type sides struct{ wAcross, hAcross, wDown, hDown float64 }
	table := make([][]sides, len(all))
	for i, f := range all {
		table[i] = make([]sides, len(kinds))
		for n, k := range kinds {
			table[i][n] = sides{f(k.w, width), f(k.h, width), f(k.w, height), f(k.h, height)}
		}
	}
	try := func(a, b int) {
		total := 0.0
		for n := range kinds {
			f, g, k := &table[a][n], &table[b][n], &kinds[n]
			value := math.Inf(1)
			if k.upright {
				value = f.wAcross * g.hDown
			}
			if k.turned {
				value = min(value, f.hAcross*g.wDown)
			}
			if !math.IsInf(value, 1) {
				total += value * k.copies
			}
		}
		best = max(best, ceil(total))
	}
	for i := range all {
		try(i, i)
	}
	left := boundEffort / max(1, len(kinds))
	for i := range all {
		for j := range all {
			if i == j {
				continue
			}
			if left--; left < 0 {
				return best
			}
			try(i, j)
		}
	}
	return best
}

// alone looks at the shares of pieces: the smaller of a piece's sides over the
// sheet's, the best over its allowed directions. Two pieces with shares above
// one in sum overlap on any sheet, however turned. So for any q up to a half a
// piece with share above 1 − q is alone among those with share q or more, and
// the rest of these need as many sheets as have shares over a half, or as
// their area takes (Martello and Vigo, "Exact solution of the two-dimensional
// finite bin packing problem", 1998, give the family to which this belongs).
func alone(kinds []bounded, width, height measure.Length) int {
	share := make([]float64, len(kinds))
	try := []float64{0}
	for i, k := range kinds {
		share[i] = math.Inf(1)
		if k.upright {
			share[i] = min(float64(k.w)/float64(width), float64(k.h)/float64(height))
		}
		if k.turned {
			share[i] = min(share[i], float64(k.h)/float64(width), float64(k.w)/float64(height))
		}
		if share[i] <= 0.5 {
			try = append(try, share[i])
		}
	}
	const tolerance = 1e-9
	sheet, best := area(width, height), 0
	slices.Sort(try)
	for _, q := range slices.Compact(try) {
		alone, halves, total := 0.0, 0.0, 0.0
		for i, k := range kinds {
			switch {
			case share[i] > 1-q+tolerance && !math.IsInf(share[i], 1):
				alone += k.copies
			case share[i] >= q && share[i] <= 1-q+tolerance:
				total += area(k.w, k.h) * k.copies
				if share[i] > 0.5+tolerance {
					halves += k.copies
				}
			}
		}
		best = max(best, int(alone)+max(int(halves), ceil(total/sheet)))
	}
	return best
}
