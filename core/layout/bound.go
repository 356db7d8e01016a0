package layout

import (
	"math"
	"slices"
)

// bound proves a least number of sheets. Pieces and sheets are both widened
// by the kerf; the sheet taken is as wide and as high as any, with the area
// of the largest. A piece's share is the smaller of its sides over the
// sheet's, the best over its allowed directions: two pieces with shares above
// one in sum overlap on any sheet, however turned. So for any q up to a half
// a piece with share above 1 − q is alone among those with share q or more,
// and the rest of these need as many sheets as have shares over a half, or as
// their area takes (Martello and Vigo, "Exact solution of the two-dimensional
// finite bin packing problem", 1998, give the family to which this belongs).
func (j *Job) bound() Bound {
	width, height, most := 0.0, 0.0, 0.0
	for _, s := range j.Sheets {
		w, h := (s.Width - 2*j.Trim + j.Kerf).MM(), (s.Height - 2*j.Trim + j.Kerf).MM()
		width, height, most = max(width, w), max(height, h), max(most, w*h)
	}
	type kind struct {
		share, area float64
		copies      int
	}
	var kinds []kind
	for _, p := range j.Pieces {
		w, h := (p.Width + j.Kerf).MM(), (p.Height + j.Kerf).MM()
		share := math.Inf(1)
		if w <= width+1e-6 && h <= height+1e-6 {
			share = min(w/width, h/height)
		}
		if p.Turn && h <= width+1e-6 && w <= height+1e-6 {
			share = min(share, h/width, w/height)
		}
		kinds = append(kinds, kind{share, w * h, p.Copies})
	}
	const tolerance = 1e-9
	best := Bound{0, "area"}
	try := []float64{0}
	for _, k := range kinds {
		if k.share <= 0.5 {
			try = append(try, k.share)
		}
	}
	slices.Sort(try)
	for _, q := range slices.Compact(try) {
		alone, halves, total := 0, 0, 0.0
		for _, k := range kinds {
			switch {
			case k.share > 1-q+tolerance:
				alone += k.copies
			case k.share >= q:
				total += k.area * float64(k.copies)
				if k.share > 0.5+tolerance {
					halves += k.copies
				}
			}
		}
		byArea := int(math.Ceil(total/most - 1e-6))
		if n := alone + max(halves, byArea); n > best.Sheets {
			best = Bound{n, "area"}
			if alone > 0 || halves > byArea {
				best.How = "pieces too large to share a sheet"
			}
		}
	}
	return best
}
