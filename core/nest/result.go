package nest

import (
	"context"
	"math"
	"slices"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// result is a state as it is told: sheets with held pieces first, copies numbered as they come.
func (x *search) result(s *state) *layout.Result {
	out := &layout.Result{Bound: x.bound, Trimmer: x.trimmer, Short: x.short}
	copies := make([]int, len(x.job.Pieces))
	filled, area := 0.0, 0.0
	sheets := slices.Clone(s.sheets)
	slices.SortStableFunc(sheets, func(a, b *spread) int { return a.order() - b.order() })
	for _, one := range sheets {
		sheet := x.job.Sheets[one.room.kind]
		l := layout.Laid{Sheet: sheet.Sheet, ByShape: true, Outline: sheet.Outline}
		for _, p := range one.placed {
			copies[p.piece]++
			l.Placed = append(l.Placed, layout.Placed{
				Rect: layout.Rect{
					X: measure.FromMM(p.at.X + x.job.Trim), Y: measure.FromMM(p.at.Y + x.job.Trim),
					Width: measure.FromMM(p.width), Height: measure.FromMM(p.height),
				},
				Piece: p.piece, Copy: copies[p.piece], Turned: p.turn%180 != 0, Turn: p.turn,
			})
		}
		for _, o := range x.offcuts(one) {
			l.Shapes = append(l.Shapes, o)
			l.Offcuts = append(l.Offcuts, boundsOf(o))
		}
		sheet.parted(&l, x.job.Machine)
		filled += one.filled
		area += one.room.area
		out.Cost += x.prices[one.room.kind]
		out.Sheets = append(out.Sheets, l)
	}
	if area > 0 {
		out.Used = filled / area
	}
	for i, p := range x.job.Pieces {
		for c := copies[i] + 1; c <= p.Copies; c++ {
			out.Unplaced = append(out.Unplaced, layout.Copy{Piece: i, Copy: c})
		}
	}
	return out
}

func boundsOf(outline []point) layout.Rect {
	lo, hi := pattern.Bounds(outline)
	return layout.Rect{X: measure.FromMM(lo.X), Y: measure.FromMM(lo.Y), Width: measure.FromMM(hi.X - lo.X), Height: measure.FromMM(hi.Y - lo.Y)}
}

// bound is the least number of sheets: as much area as the pieces have, on the largest; or as many as
// there are pieces no two of which go on one sheet.
func (p *prepared) bound(ctx context.Context) layout.Bound {
	area, largest := 0.0, 0.0
	for i, piece := range p.job.Pieces {
		area += p.shapes[i][0].area * float64(piece.Copies)
	}
	for _, r := range p.rooms {
		largest = max(largest, r.area)
	}
	b := layout.Bound{Sheets: int(math.Ceil(area/largest - 1e-9)), How: "area"}
	if n := p.apart(ctx); n > b.Sheets {
		b.Sheets, b.How = n, "no two of these share a sheet"
	}
	cheapest := math.Inf(1)
	for _, price := range p.prices {
		cheapest = min(cheapest, price)
	}
	b.Cost = float64(b.Sheets) * cheapest
	return b
}

// apart is a number of pieces no two of which go on one sheet: gathered from the largest down, as far
// as the time allows.
func (p *prepared) apart(ctx context.Context) int {
	order := make([]int, len(p.job.Pieces))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		return int(math.Copysign(1, p.shapes[b][0].area-p.shapes[a][0].area))
	})
	most := 0
	for skip := range min(len(order), 4) { // a large one may go with all others
		var with []int
		n := 0
		for _, i := range order[skip:] {
			if ctx.Err() != nil {
				break
			}
			if slices.ContainsFunc(with, func(k int) bool { return p.together(i, k) }) {
				continue
			}
			with = append(with, i)
			if p.together(i, i) {
				n++
				continue
			}
			n += p.job.Pieces[i].Copies
		}
		most = max(most, n)
	}
	return most
}

// together tells whether two pieces go on one sheet of some kind: whether the second may lie anywhere,
// seen from the first, that leaves both on the sheet.
func (p *prepared) together(i, k int) bool {
	for _, r := range p.rooms {
		for _, a := range p.shapes[i] {
			for _, b := range p.shapes[k] {
				if r.both(a, b, p.fits) {
					return true
				}
			}
		}
	}
	return false
}

func (r *room) both(a, b *shape, f *fits) bool {
	aw, ah, bw, bh := r.width-a.width, r.height-a.height, r.width-b.width, r.height-b.height
	if min(aw, ah, bw, bh) < -1e-6 {
		return false
	}
	n := f.of(a, b)
	for _, corner := range []point{pattern.Pt(-aw, -ah), pattern.Pt(bw, -ah), pattern.Pt(bw, bh), pattern.Pt(-aw, bh)} {
		if !slices.ContainsFunc(n.sums, func(c convex) bool { return c.has(corner) }) {
			return true
		}
	}
	off := pattern.Pt(aw, ah)
	return slices.ContainsFunc(n.border, func(l line) bool {
		_, in := clipped(line{l.a.Add(off), l.b.Add(off)}, aw+bw, ah+bh)
		return in
	})
}
