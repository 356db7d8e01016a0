package strokes

import (
	"math"
	"slices"

	"brevium/core/pattern"
)

// Kind is what a stroke is to the pieces.
type Kind string

// The kinds of stroke.
const (
	Printed    Kind = "print"
	Scored     Kind = "score"
	Perforated Kind = "perforate"
	Kissed     Kind = "kiss"
	Inner      Kind = "inner"
	Outer      Kind = "outer"
)

// Stroke is a line in its turn.
type Stroke struct {
	Line
	Kind Kind
}

// Order puts lines in the order of a machine: scores, perforations, kiss cuts, then through cuts, the
// most enclosed first and the outlines last; among those the nearest next from where the head is. A
// ring may begin at any of its corners and a line at either end.
// The sheet is width by height, or of no known size where they are 0.
func Order(lines []Line, width, height float64) []Stroke {
	ranked := map[int][]Stroke{}
	var cuts, scores []Line
	for _, l := range lines {
		if len(l.Path) < 2 {
			continue
		}
		if l.Tool == Cut {
			cuts = append(cuts, l)
			continue
		}
		if l.Tool == Score || l.Tool == Perforate {
			scores = append(scores, l)
		}
		kind := map[Tool]Kind{Print: Printed, Score: Scored, Perforate: Perforated, Kiss: Kissed}[l.Tool]
		ranked[int(l.Tool)] = append(ranked[int(l.Tool)], Stroke{l, kind})
	}
	for i, at := range enclosed(cuts, scores, pattern.Straight(pattern.Pt(0, 0), pattern.Pt(width, 0), pattern.Pt(width, height), pattern.Pt(0, height))) {
		ranked[int(Cut)+at.rank] = append(ranked[int(Cut)+at.rank], Stroke{cuts[i], at.kind})
	}
	var turns []int
	for k := range ranked {
		turns = append(turns, k)
	}
	slices.Sort(turns)
	var out []Stroke
	head := pattern.Pt(0, 0)
	for _, k := range turns {
		out = append(out, nearest(ranked[k], &head)...)
	}
	return out
}

// standing is how early a cut comes, and what it is.
type standing struct {
	rank int
	kind Kind
}

// enclosed ranks cuts: what most others go round comes first; of lines that touch, what hangs on by
// one end comes before what is part of a ring. The sheet's own edge closes the rings of what lies at
// it. What is enclosed by that alone and has no score in it is taken for a hole.
func enclosed(cuts, scores []Line, border pattern.Loop) []standing {
	flat := make([][]pattern.Point, len(cuts), len(cuts)+1)
	for i, l := range cuts {
		flat[i] = l.Flat()
	}
	edge := len(cuts)
	flat = append(flat, Line{Path: border, Closed: true}.Flat())
	all := groups(flat)
	deep, atEdge := make([]int, len(all)), make([]bool, len(all))
	deepest, edgeHas := 0, false
	for i, g := range all {
		atEdge[i] = slices.Contains(g.lines, edge)
		edgeHas = edgeHas || atEdge[i] && len(g.lines) > 1
		at := flat[g.lines[0]]
		mid := at[0].Add(at[1]).Scale(0.5)
		for j, o := range all {
			if i != j && len(o.round) > 2 && !slices.Contains(o.lines, edge) && pattern.Contains(o.round, mid) {
				deep[i]++
			}
		}
		deepest = max(deepest, deep[i])
	}
	out := make([]standing, len(cuts))
	for i, g := range all {
		hole := deep[i]%2 == 1
		rank := 4 * (deepest - deep[i])
		if edgeHas && !atEdge[i] && deep[i] == 0 {
			hole = !hasScore(g.round, scores)
		} else {
			rank += 2
		}
		for _, l := range g.lines {
			if l == edge {
				continue
			}
			out[l] = standing{rank, Inner}
			if g.ringed[l] {
				out[l].rank++
				if !hole {
					out[l].kind = Outer
				}
			}
		}
	}
	return out
}

// hasScore tells whether a score begins or ends within a ring.
func hasScore(round []pattern.Point, scores []Line) bool {
	return slices.ContainsFunc(scores, func(l Line) bool {
		mid := l.Path[0].Add(l.Path[1].Point).Scale(0.5)
		return pattern.Contains(round, mid)
	})
}

// nearest goes from the head to what is nearest, and leaves the head where that ends.
func nearest(all []Stroke, head *pattern.Point) []Stroke {
	var out []Stroke
	for len(all) > 0 {
		best, corner, least := 0, 0, math.Inf(1)
		for i, s := range all {
			for k, v := range s.Path {
				if !s.Closed && k != 0 && k != len(s.Path)-1 {
					continue
				}
				if far := v.Sub(*head).Len(); far < least-1e-9 {
					best, corner, least = i, k, far
				}
			}
		}
		s := all[best]
		all = slices.Delete(all, best, best+1)
		s.Line = s.from(corner)
		*head = s.Path[0].Point
		if !s.Closed {
			*head = s.Path[len(s.Path)-1].Point
		}
		out = append(out, s)
	}
	return out
}

// from is the line begun at one of its corners: a ring anywhere, another at its first or its last.
func (l Line) from(corner int) Line {
	switch {
	case corner == 0:
	case l.Closed:
		l.Path = append(slices.Clone(l.Path[corner:]), l.Path[:corner]...)
	default:
		back := make(pattern.Loop, len(l.Path))
		for i, v := range l.Path {
			k := len(l.Path) - 1 - i
			back[k].Point = v.Point
			if i+1 < len(l.Path) {
				back[k-1].Bulge = -v.Bulge
			}
		}
		l.Path = back
	}
	return l
}

// Travel is how far a head goes in the air, in mm: from 0, 0 to each line, and home.
func Travel(lines []Line) float64 {
	sum, head := 0.0, pattern.Pt(0, 0)
	for _, l := range lines {
		sum += l.Path[0].Sub(head).Len()
		head = l.Path[0].Point
		if !l.Closed {
			head = l.Path[len(l.Path)-1].Point
		}
	}
	return sum + head.Len()
}

// Length is how long a line is, in mm.
func (l Line) Length() float64 {
	sum, flat := 0.0, l.Flat()
	for i := 1; i < len(flat); i++ {
		sum += flat[i].Sub(flat[i-1]).Len()
	}
	return sum
}
