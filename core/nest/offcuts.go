package nest

import (
	"github.com/peterstace/simplefeatures/geom"

	"brevium/core/pattern"
)

// worthKeeping is the side of a square that goes into an offcut which is kept, in mm.
const worthKeeping = 40

// offcuts are what is left of a sheet, each in one piece, that a square of 40 mm goes into: as the
// outer line of the card that remains.
func (x *search) offcuts(s *spread) [][]point {
	w, h := s.room.width, s.room.height
	left := polygon([]point{pattern.Pt(0, 0), pattern.Pt(w, 0), pattern.Pt(w, h), pattern.Pt(0, h)})
	if outline := x.job.Sheets[s.room.kind].Outline; outline != nil {
		left = polygon(moved(outline, -x.job.Trim, -x.job.Trim))
	}
	var all []geom.Geometry
	for _, p := range s.placed {
		all = append(all, polygon(moved(p.outline, p.at.X, p.at.Y)))
	}
	cut, err := geom.UnionMany(all)
	if err != nil {
		return nil // what is left cannot be told; nothing is kept of it
	}
	if left, err = geom.Difference(left, cut); err != nil {
		return nil
	}
	places := s.places(x.square)
	var out [][]point
	for _, part := range left.Dump() {
		one, is := part.AsPolygon()
		if !is || one.NumInteriorRings() > 0 { // one with a hole in it is no piece to keep by its outline
			continue
		}
		ring := one.ExteriorRing().Coordinates()
		var points []point
		for i := range ring.Length() - 1 {
			xy := ring.GetXY(i)
			points = append(points, pattern.Pt(xy.X, xy.Y))
		}
		for _, l := range places {
			mid := l.a.Add(pattern.Pt(worthKeeping/2, worthKeeping/2))
			if pattern.Contains(points, mid) {
				out = append(out, moved(points, x.job.Trim, x.job.Trim))
				break
			}
		}
	}
	return out
}
