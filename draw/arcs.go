package draw

import (
	"math"

	"brevium/core/pattern"
)

// mostTurn is how much, in degrees, two scores may turn where they meet and still be one curve.
const mostTurn = 25

// arcs are the curves among the creases of a pattern, each the creases that it is made of in their
// order: they meet end to end and turn little from one to the next.
func arcs(creases []pattern.Crease) [][]int {
	follows := map[int]int{} // which crease goes on from the end of one
	heads := map[int]bool{}
	for i, a := range creases {
		for j, b := range creases {
			if i != j && !a.Rolled && !b.Rolled && a.Side == b.Side && goesOn(a.Segment, b.Segment) {
				follows[i], heads[j] = j, true
			}
		}
	}
	var out [][]int
	for i := range creases {
		if _, on := follows[i]; !on || heads[i] {
			continue
		}
		chain := []int{i}
		for next, on := follows[i]; on && len(chain) <= len(creases); next, on = follows[next] {
			chain = append(chain, next)
		}
		if len(chain) > 2 {
			out = append(out, chain)
		}
	}
	return out
}

// goesOn reports whether a line goes on from the end of another, to the right of where that began,
// turning a little.
func goesOn(a, b pattern.Segment) bool {
	a, b = rightwards(a), rightwards(b)
	if a.B.Sub(b.A).Len() > pattern.Tolerance {
		return false
	}
	u, v := a.B.Sub(a.A), b.B.Sub(b.A)
	turn := math.Abs(math.Atan2(u.Cross(v), u.Dot(v))) * 180 / math.Pi
	return turn > 0.01 && turn < mostTurn
}

func rightwards(s pattern.Segment) pattern.Segment {
	if s.B.X < s.A.X || s.B.X == s.A.X && s.B.Y < s.A.Y {
		s.A, s.B = s.B, s.A
	}
	return s
}

// curve draws the creases of an arc as one line, with one tick in its middle and a bar at either end.
func (n Net) curve(p *Picture, arc []int) {
	all := n.Part.Pattern.Creases
	points := []pattern.Point{rightwards(all[arc[0]].Segment).A}
	for _, i := range arc {
		points = append(points, rightwards(all[i].Segment).B)
	}
	p.add(Shape{Class: Score, Loops: [][]pattern.Point{points}})
	n.tick(p, all[arc[len(arc)/2]])
	first, last := rightwards(all[arc[0]].Segment), rightwards(all[arc[len(arc)-1]].Segment)
	n.bar(p, first.A, first.B.Sub(first.A))
	n.bar(p, last.B, last.B.Sub(last.A))
}
