package nest

import (
	"fmt"
	"math"

	"github.com/peterstace/simplefeatures/geom"

	"brevium/core/pattern"
)

// What an answer may be off by: an overlap in mm², a distance in mm.
const (
	mostOverlap = 0.01
	mostOff     = 1e-3
)

// Wrong says what is wrong with an answer; "" for nothing. It is worked out apart from the search, by
// true outlines and by another's geometry: every copy once, in a turn it may have, on its sheet, over
// no other, the gap kept.
func (j *Job) Wrong(r *Result) string {
	seen := map[[2]int]bool{}
	used := map[int]int{}
	for n, l := range r.Sheets {
		used[l.Kind]++
		sheet := j.Sheets[l.Kind]
		inset, w, h := j.Trim, sheet.Width.MM(), sheet.Height.MM()
		room := polygon([]point{pattern.Pt(inset, inset), pattern.Pt(w-inset, inset), pattern.Pt(w-inset, h-inset), pattern.Pt(inset, h-inset)})
		if sheet.Outline != nil {
			var err error
			if room, err = geom.Intersection(room, polygon(sheet.Outline)); err != nil {
				return fmt.Sprintf("sheet %d: %v", n+1, err)
			}
		}
		type lying struct {
			geom.Geometry
			lo, hi point
		}
		var here []lying
		for _, p := range l.Placed {
			key := [2]int{p.Piece, p.Copy}
			piece := j.Pieces[p.Piece]
			name := fmt.Sprintf("%s %d on sheet %d", piece.Name, p.Copy, n+1)
			if seen[key] || p.Copy < 1 || p.Copy > piece.Copies {
				return name + " is there twice, or is none"
			}
			seen[key] = true
			outline, holes := turned(piece, p.Turn)
			g := polygon(moved(outline, p.X, p.Y), movedAll(holes, p.X, p.Y)...)
			lo, hi := pattern.Bounds(moved(outline, p.X, p.Y))
			out, err := geom.Difference(g, room)
			if err != nil || out.Area() > mostOverlap {
				return fmt.Sprintf("%s: %.3f mm² are off the sheet (%v)", name, out.Area(), err)
			}
			for _, o := range here {
				if lo.X > o.hi.X+j.Gap || hi.X < o.lo.X-j.Gap || lo.Y > o.hi.Y+j.Gap || hi.Y < o.lo.Y-j.Gap {
					continue
				}
				both, err := geom.Intersection(g, o.Geometry)
				if err != nil || both.Area() > mostOverlap {
					return fmt.Sprintf("%s lies over another by %.3f mm² (%v)", name, both.Area(), err)
				}
				if j.Gap > 0 {
					if apart, ok := geom.Distance(g, o.Geometry); ok && apart < j.Gap-mostOff {
						return fmt.Sprintf("%s is %.3f mm from another", name, apart)
					}
				}
			}
			here = append(here, lying{g, lo, hi})
		}
	}
	for kind, n := range used {
		if count := j.Sheets[kind].Count; count >= 0 && n > count {
			return fmt.Sprintf("%d of %s are used", n, j.Sheets[kind].Name)
		}
	}
	for _, u := range r.Unplaced {
		key := [2]int{u.Piece, u.Copy}
		if seen[key] {
			return "a piece lies on a sheet and on none"
		}
		seen[key] = true
	}
	want := 0
	for _, p := range j.Pieces {
		want += p.Copies
	}
	if len(seen) != want {
		return fmt.Sprintf("%d of %d pieces are told of", len(seen), want)
	}
	return ""
}

// polygon is an outline with holes, for the other's geometry.
func polygon(outline []point, holes ...[]point) geom.Geometry {
	ring := func(points []point) geom.LineString {
		var xy []float64
		for _, p := range append(points[:len(points):len(points)], points[0]) {
			xy = append(xy, math.Round(p.X*1e7)/1e7, math.Round(p.Y*1e7)/1e7)
		}
		return geom.NewLineString(geom.NewSequence(xy, geom.DimXY))
	}
	rings := []geom.LineString{ring(outline)}
	for _, h := range holes {
		rings = append(rings, ring(h))
	}
	return geom.NewPolygon(rings).AsGeometry()
}

func moved(points []point, x, y float64) []point {
	out := make([]point, len(points))
	for i, p := range points {
		out[i] = p.Add(pattern.Pt(x, y))
	}
	return out
}

func movedAll(rings [][]point, x, y float64) [][]point {
	var out [][]point
	for _, r := range rings {
		out = append(out, moved(r, x, y))
	}
	return out
}
