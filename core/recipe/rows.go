package recipe

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// inReadingOrder puts left before right and top before bottom.
func inReadingOrder(edges []string) {
	order := "left right top bottom"
	slices.SortFunc(edges, func(a, b string) int { return strings.Index(order, a) - strings.Index(order, b) })
}

func near(x, y float64) bool { return math.Abs(x-y) < Straight }

// inRows offers what is the same along several lines, whose numbers are those
// they were scored by: straight cuts from one edge or from two, wedges on one
// side of the lines or on both, slots in an edge, holes in rows and columns.
func (c cutter) inRows(all []stroke) []offer {
	var out []offer
	out = append(out, c.cutsFromEdges(all)...)
	out = append(out, c.cutsBetween(all)...)
	out = append(out, c.wedges(all)...)
	out = append(out, c.slotsInRows(all)...)
	return append(out, c.holesInRows(all)...)
}

// number is a line's number as it is scored: across from the fence's edge,
// down from the top.
func (c cutter) number(at float64, up bool) float64 {
	if up && c.right {
		return c.w - at
	}
	return at
}

// counted is the edge that a line's number counts from.
func (c cutter) counted(up bool) string {
	switch {
	case up && c.right:
		return "right edge"
	case up:
		return "left edge"
	}
	return "top edge"
}

// lines writes lines by the numbers they were scored by: "the scores 1 1/2 and
// 4 in from the top edge"; where every edge went to the fence, those in the far
// half count from the other edge.
func (c cutter) lines(kind string, at []float64, up bool) string {
	whole := c.h
	if up {
		whole = c.w
	}
	var near, far []measure.Length
	slices.Sort(at)
	for _, v := range at {
		if c.each && 2*v > whole+Straight {
			far = append(far, measure.FromMM(whole-v))
		} else {
			near = append(near, measure.FromMM(v))
		}
	}
	var out []string
	edge := c.counted(up)
	for _, side := range []struct {
		edge string
		at   []measure.Length
	}{{edge, near}, {opposite[strings.TrimSuffix(edge, " edge")] + " edge", far}} {
		if len(side.at) > 0 {
			slices.Sort(side.at)
			out = append(out, fmt.Sprintf("the %s%s %s from the %s", kind, plural(len(side.at)), c.numbers(side.at), side.edge))
		}
	}
	return strings.Join(out, " and ")
}

// start is the edge of the blank that a straight cut begins at, and how deep it
// goes; none when it lies between.
func (c cutter) start(s stroke) (edge string, deep float64) {
	up := s.upright()
	from, to, whole := pick(s.a, up), pick(s.b, up), c.w
	edges := [2]string{"left", "right"}
	if up {
		whole, edges = c.h, [2]string{"top", "bottom"}
	}
	switch {
	case from < Straight:
		return edges[0], to
	case to > whole-Straight:
		return edges[1], whole - from
	}
	return "", 0
}

// cutsFromEdges offers straight cuts from an edge, along every line that is
// cut as deep; and from the opposite edge too where it is cut along the same.
func (c cutter) cutsFromEdges(all []stroke) []offer {
	type set struct {
		edge, key string
		strokes   []int
	}
	var sets []set
	for i, s := range all {
		if s.shape != along {
			continue
		}
		edge, deep := c.start(s)
		if edge == "" {
			continue
		}
		key := fmt.Sprint(s.kind(), "|", c.upTo(s.crossings, deep), "|", s.upright())
		k := slices.IndexFunc(sets, func(x set) bool { return x.edge == edge && x.key == key })
		if k < 0 {
			k = len(sets)
			sets = append(sets, set{edge: edge, key: key})
		}
		sets[k].strokes = append(sets[k].strokes, i)
	}
	at := func(of []int) []float64 {
		var out []float64
		for _, k := range of {
			up := all[k].upright()
			out = append(out, c.number(pick(all[k].a, !up), up))
		}
		slices.Sort(out)
		return out
	}
	same := func(a, b []float64) bool { return slices.EqualFunc(a, b, near) }
	var out []offer
	add := func(edges string, of []int, per int) {
		out = append(out, offer{of, func(left []int) (string, []int) {
			if len(left) < len(of) { // what the others left is told from one edge
				edge, _ := c.start(all[left[0]])
				left = slices.DeleteFunc(slices.Clone(left), func(k int) bool { e, _ := c.start(all[k]); return e != edge })
				edges, per = edge+" edge", 1
			}
			s := all[left[0]]
			_, deep := c.start(s)
			numbers := at(left)
			if per == 2 {
				numbers = slices.CompactFunc(numbers, near)
			}
			text := fmt.Sprintf("From the %s, cut along %s %s.", edges, c.lines(s.kind(), numbers, s.upright()), c.upTo(s.crossings, deep))
			return text, left
		}})
	}
	for i, x := range sets {
		for _, y := range sets[i+1:] {
			if x.key == y.key && x.edge != y.edge && same(at(x.strokes), at(y.strokes)) {
				edges := []string{x.edge, y.edge}
				inReadingOrder(edges)
				add(fmt.Sprintf("%s edge and the %s edge", edges[0], edges[1]), slices.Concat(x.strokes, y.strokes), 2)
			}
		}
	}
	for _, x := range sets {
		add(x.edge+" edge", x.strokes, 1)
	}
	return out
}

// cutsBetween offers straight cuts that reach no edge, along every line that is
// cut between the same numbers.
func (c cutter) cutsBetween(all []stroke) []offer {
	between := func(s stroke) string {
		up := s.upright()
		from, to := c.number(pick(s.a, up), !up), c.number(pick(s.b, up), !up)
		return fmt.Sprintf("between %s and %s from the %s", c.mm(min(from, to)), c.mm(max(from, to)), c.counted(!up))
	}
	return grouped(all, func(_ int, s stroke) []string {
		if edge, _ := c.start(s); s.shape != along || edge != "" {
			return nil
		}
		return []string{fmt.Sprint(s.kind(), s.upright(), between(s))}
	}, func(_ string, of []int) string {
		var at []float64
		s := all[of[0]]
		for _, k := range of {
			at = append(at, c.number(pick(all[k].a, !s.upright()), s.upright()))
		}
		return fmt.Sprintf("Cut along %s, %s.", c.lines(s.kind(), at, s.upright()), between(s))
	})
}

// slotsInRows offers slots of one size in one edge.
func (c cutter) slotsInRows(all []stroke) []offer {
	edge := func(s stroke) (slotAt, string, string) {
		m := c.slotAt(s, c.fromCorner(0))
		name, from := "top edge", c.counted(true)
		mid := s.path[0].Add(s.path[3].Point).Scale(0.5)
		switch {
		case m.edge == "{side}":
			name, from = "left edge", "top edge"
			if mid.X > c.w/2 {
				name = "right edge"
			}
		default:
			if mid.Y > c.h/2 {
				name = "bottom edge"
			}
			m.at = c.number(m.at, true)
		}
		return m, name, from
	}
	return grouped(all, func(_ int, s stroke) []string {
		if s.shape != slot {
			return nil
		}
		m, name, _ := edge(s)
		return []string{fmt.Sprint(name, c.mm(m.wide), "|", c.mm(m.deep))}
	}, func(_ string, of []int) string {
		var at []measure.Length
		for _, k := range of {
			m, _, _ := edge(all[k])
			at = append(at, measure.FromMM(m.at))
		}
		slices.Sort(at)
		m, name, from := edge(all[of[0]])
		which, whose := "a slot", "its middle"
		if len(at) > 1 {
			which, whose = fmt.Sprint(len(at), " slots"), "their middles"
		}
		return fmt.Sprintf("Cut %s %s wide and %s deep into the %s, %s %s from the %s.", which, c.mm(m.wide), c.mm(m.deep), name, whose, c.numbers(at), from)
	})
}

// holesInRows offers equal holes whose middles lie in rows and columns.
func (c cutter) holesInRows(all []stroke) []offer {
	middle := func(s stroke) pattern.Point {
		lo, hi := pattern.Bounds(s.path.Flat())
		m := lo.Add(hi).Scale(0.5)
		m.X = c.number(m.X, true)
		return m
	}
	size := func(s stroke) (string, bool) {
		lo, hi := pattern.Bounds(s.path.Flat())
		return c.holeSize(s.path, hi.X-lo.X, hi.Y-lo.Y)
	}
	distinct := func(of []int, y bool) []measure.Length {
		var out []measure.Length
		for _, k := range of {
			out = append(out, measure.FromMM(pick(middle(all[k]), y)))
		}
		slices.Sort(out)
		return slices.CompactFunc(out, func(a, b measure.Length) bool { return b-a < Off })
	}
	var out []offer
	for _, o := range grouped(all, func(_ int, s stroke) []string {
		if s.shape != hole {
			return nil
		}
		if name, plain := size(s); plain {
			return []string{name}
		}
		return nil
	}, func(key string, of []int) string {
		return fmt.Sprintf("Cut %d %s, their middles where the lines %s from the %s cross those %s from the top edge.", len(of),
			strings.Replace(key, "hole", "holes", 1), c.numbers(distinct(of, false)), c.counted(true), c.numbers(distinct(of, true)))
	}) {
		if len(o.strokes) > 1 && len(distinct(o.strokes, false))*len(distinct(o.strokes, true)) == len(o.strokes) {
			out = append(out, o)
		}
	}
	return out
}
