package nest

import (
	"fmt"
	"math"
	"slices"

	"github.com/peterstace/simplefeatures/geom"

	"brevium/core/layout"
	"brevium/core/pattern"
)

// What an answer may be off by: an overlap in mm², a distance in mm.
const (
	mostOverlap = 0.01
	mostOff     = 1e-3
)

// Wrong says what is wrong with an answer; "" for nothing. It is worked out apart from the search, by
// true outlines and by another's geometry: every copy once, in a turn it may have, on its sheet, over
// no other, the gap kept, what is held where it is held.
func (j *Job) Wrong(r *layout.Result) string {
	seen := map[[2]int]bool{}
	used := map[int]int{}
	for n, l := range r.Sheets {
		kind := slices.IndexFunc(j.Sheets, func(s Sheet) bool { return s.Name == l.Sheet.Name })
		if kind < 0 {
			return fmt.Sprintf("sheet %d is none of the job", n+1)
		}
		used[kind]++
		on := j.laying(kind)
		for _, p := range l.Placed {
			if p.Piece < 0 || p.Piece >= len(j.Pieces) {
				return "a piece is none of the job"
			}
			key := [2]int{p.Piece, p.Copy}
			piece := j.Pieces[p.Piece]
			name := fmt.Sprintf("%s %d on sheet %d", piece.Name, p.Copy, n+1)
			if seen[key] || p.Copy < 1 || p.Copy > piece.Copies {
				return name + " is there twice, or is none"
			}
			seen[key] = true
			if !slices.Contains(piece.Turns, 90*p.Quarters()) {
				return name + " lies turned as it may not"
			}
			if wrong := on.put(p); wrong != "" {
				return name + " " + wrong
			}
		}
		if n < len(j.Held) && (kind != j.Held[n].Sheet || slices.ContainsFunc(j.Held[n].Pieces, func(h layout.Placed) bool {
			return !slices.ContainsFunc(l.Placed, func(p layout.Placed) bool { return p.Piece == h.Piece && p.Rect == h.Rect })
		})) {
			return fmt.Sprintf("what is held on sheet %d does not lie there", n+1)
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

// laying is a sheet on which pieces are put one after the other, to see whether they may lie there.
type laying struct {
	job   *Job
	sheet Sheet
	room  geom.Geometry
	here  []lying
	wrong string
}

type lying struct {
	geom.Geometry
	lo, hi point
}

// off is what is wrong with a piece that sticks out.
const off = "sticks out of its sheet"

func (j *Job) laying(kind int) *laying {
	sheet := j.Sheets[kind]
	inset, w, h := j.Trim, sheet.Width.MM(), sheet.Height.MM()
	out := &laying{job: j, sheet: sheet, room: polygon([]point{pattern.Pt(inset, inset), pattern.Pt(w-inset, inset), pattern.Pt(w-inset, h-inset), pattern.Pt(inset, h-inset)})}
	if sheet.Outline != nil {
		var err error
		if out.room, err = geom.Intersection(out.room, polygon(sheet.Outline)); err != nil {
			out.wrong = err.Error()
		}
	}
	return out
}

// put says what is wrong with a piece at a place; "" for nothing.
func (s *laying) put(p layout.Placed) string {
	if s.wrong != "" {
		return s.wrong
	}
	outline, holes := turned(s.job.Pieces[p.Piece], 90*p.Quarters())
	x, y := p.X.MM(), p.Y.MM()
	g := polygon(moved(outline, x, y), movedAll(holes, x, y)...)
	lo, hi := pattern.Bounds(moved(outline, x, y))
	out, err := geom.Difference(g, s.room)
	if err != nil || out.Area() > mostOverlap || s.sheet.crosses(lo, hi, s.job.Trim) {
		return off
	}
	gap := s.job.Gap
	for _, o := range s.here {
		if lo.X > o.hi.X+gap || hi.X < o.lo.X-gap || lo.Y > o.hi.Y+gap || hi.Y < o.lo.Y-gap {
			continue
		}
		both, err := geom.Intersection(g, o.Geometry)
		if err != nil || both.Area() > mostOverlap {
			return fmt.Sprintf("lies over another by %.3f mm² (%v)", both.Area(), err)
		}
		if gap > 0 {
			if apart, ok := geom.Distance(g, o.Geometry); ok && apart < gap-mostOff {
				return fmt.Sprintf("is %.3f mm from another", apart)
			}
		}
	}
	s.here = append(s.here, lying{g, lo, hi})
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
