package recipe

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/pattern"
	"brevium/core/style"
)

// A wedge's extent is how wide it is where it is full, and where along its
// line that is and where it is nothing, counted from an edge of the blank.
type extent struct{ wide, none, full string }

// ribbon is the wedges of one extent, counted from one edge, along every line
// that has them.
type ribbon struct {
	extent
	from    string // left, right, top or bottom
	strokes []int
	clauses string
}

// wedges offers one sentence for all wedges of an extent: along the blank's own
// edges and along lines by their numbers, on the side named; from two opposite
// edges of the blank where the lines are the same.
func (c cutter) wedges(all []stroke) []offer {
	var rows []ribbon
	for i, s := range all {
		if s.shape != taper {
			continue
		}
		e, from := c.extentOf(s)
		k := slices.IndexFunc(rows, func(r ribbon) bool { return r.extent == e && r.from == from })
		if k < 0 {
			k = len(rows)
			rows = append(rows, ribbon{extent: e, from: from})
		}
		rows[k].strokes = append(rows[k].strokes, i)
	}
	for i := range rows {
		rows[i].clauses = c.clauses(all, rows[i].strokes)
	}
	var out []offer
	for i, x := range rows {
		edges, strokes := []string{x.from}, x.strokes
		for _, y := range rows[i+1:] {
			if y.extent == x.extent && y.clauses == x.clauses && opposite[x.from] == y.from {
				edges, strokes = append(edges, y.from), slices.Concat(strokes, y.strokes)
			}
		}
		out = append(out, offer{strokes, func(of []int) (string, []int) {
			edges, clauses := edges, x.clauses
			if len(of) < len(strokes) { // the other edge's are told already
				_, from := c.extentOf(all[of[0]])
				edges = []string{from}
			}
			inReadingOrder(edges)
			whole := fmt.Sprintf("the %s edge%s", style.And(edges), plural(len(edges)))
			full, none := "at "+whole, fmt.Sprintf("%s from %s", x.none, whole)
			if x.full != "" {
				full = fmt.Sprintf("%s from %s", x.full, whole)
			}
			if x.none == "" {
				none = "at " + whole
			}
			return fmt.Sprintf("Take off %d wedge%s, %s wide %s and nothing %s: along %s.",
				len(of), plural(len(of)), x.wide, full, none, clauses), of
		}})
	}
	return out
}

var opposite = map[string]string{"left": "right", "right": "left", "top": "bottom", "bottom": "top"}

// extentOf measures a wedge from the edge that its full end is nearer to.
func (c cutter) extentOf(s stroke) (e extent, from string) {
	up := near(s.a.X, s.foot.X)
	none, full, whole := pick(s.a, up), pick(s.foot, up), c.w
	edges := [2]string{"left", "right"}
	if up {
		whole, edges = c.h, [2]string{"top", "bottom"}
	}
	from = edges[0]
	if full > none {
		none, full, from = whole-none, whole-full, edges[1]
	}
	tell := func(v float64) string {
		if v < Straight {
			return ""
		}
		return c.mm(v)
	}
	return extent{c.mm(s.b.Sub(s.foot).Len()), tell(none), tell(full)}, from
}

// clauses names the lines that wedges lie along: the blank's own edges, then
// scores and other lines by their numbers, each with its side.
func (c cutter) clauses(all []stroke, of []int) string {
	up := near(all[of[0]].a.X, all[of[0]].foot.X)
	names, limit := [2]string{"top", "bottom"}, c.h
	sides := [2]string{"upper side", "lower side"}
	if up {
		names, limit, sides = [2]string{"left", "right"}, c.w, [2]string{"left side", "right side"}
	}
	var edges []string
	at := map[string][2][]float64{}
	for _, k := range of {
		s := all[k]
		line := pick(s.foot, !up)
		switch {
		case line < Straight:
			edges = append(edges, names[0])
		case line > limit-Straight:
			edges = append(edges, names[1])
		default:
			both, side := at[s.kind()], 0
			if pick(s.b, !up) > line {
				side = 1
			}
			both[side] = append(both[side], c.number(line, up))
			at[s.kind()] = both
		}
	}
	var out []string
	if len(edges) > 0 {
		inReadingOrder(edges)
		out = append(out, fmt.Sprintf("the %s edge%s", style.And(edges), plural(len(edges))))
	}
	for _, kind := range []string{"score", "line"} {
		both := at[kind]
		slices.Sort(both[0])
		slices.Sort(both[1])
		if len(both[0]) > 0 && slices.EqualFunc(both[0], both[1], near) {
			out = append(out, "both sides of "+c.lines(kind, both[0], up))
			continue
		}
		for i, numbers := range both {
			if len(numbers) > 0 {
				out = append(out, fmt.Sprintf("the %s of %s", sides[i], c.lines(kind, numbers, up)))
			}
		}
	}
	return strings.Join(out, "; along ")
}

// straightened is a stretch of the outline as it is cut before wedges and
// round corners are taken off.
func (s *stroker) straightened(path pattern.Loop) []pattern.Point {
	out := []pattern.Point{path[0].Point}
	for i, v := range path[:len(path)-1] {
		a, b := v.Point, path[i+1].Point
		switch {
		case v.Bulge != 0:
			if corner, quarter := quarterRound(a, b, v.Bulge); quarter {
				out = append(out, corner)
			} else {
				out = append(out, path[i : i+2].Open()[1:]...)
				continue
			}
		case !near(a.X, b.X) && !near(a.Y, b.Y):
			if corner, free := s.corner(a, b); free {
				out = append(out, corner)
			}
		}
		out = append(out, b)
	}
	return out
}
