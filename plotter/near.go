package plotter

import (
	"math"

	"brevium/core/pattern"
)

// nearby finds the straight that is nearest to a point, among many.
type nearby struct {
	cell  float64
	parts []straight
	at    map[[2]int32][]int32
}

type straight struct{ a, b pattern.Point }

func newNear(cell float64) *nearby { return &nearby{cell: cell, at: map[[2]int32][]int32{}} }

func (n *nearby) of(v float64) int32 { return int32(math.Floor(v / n.cell)) }

// add puts in the straights of a way.
func (n *nearby) add(way []pattern.Point) {
	for i := 1; i < len(way); i++ {
		a, b := way[i-1], way[i]
		k := int32(len(n.parts))
		n.parts = append(n.parts, straight{a, b})
		// Each cell that the straight comes through: by steps of half a cell, and the cells about them.
		steps := max(1, int(math.Ceil(b.Sub(a).Len()/n.cell*2)))
		var last [2]int32
		for s := 0; s <= steps; s++ {
			p := a.Add(b.Sub(a).Scale(float64(s) / float64(steps)))
			if at := [2]int32{n.of(p.X), n.of(p.Y)}; s == 0 || at != last {
				n.at[at] = append(n.at[at], k)
				last = at
			}
		}
	}
}

// hit is the nearest place on a straight: how far, the way there, and along which straight.
type hit struct {
	far   float64
	way   pattern.Point
	along pattern.Point
}

// to finds what is nearest within a reach; farther off it says the reach.
func (n *nearby) to(p pattern.Point, reach float64) hit {
	best := hit{far: reach}
	rings := int32(math.Ceil(reach/n.cell)) + 1
	x, y := n.of(p.X), n.of(p.Y)
	for ring := range rings + 1 {
		if float64(ring-1)*n.cell > best.far {
			break
		}
		for dx := -ring; dx <= ring; dx++ {
			for dy := -ring; dy <= ring; dy++ {
				if max(dx, -dx) != ring && max(dy, -dy) != ring {
					continue
				}
				for _, k := range n.at[[2]int32{x + dx, y + dy}] {
					s := n.parts[k]
					d := s.b.Sub(s.a)
					t := 0.0
					if long := d.Dot(d); long > 0 {
						t = max(0, min(1, p.Sub(s.a).Dot(d)/long))
					}
					way := s.a.Add(d.Scale(t)).Sub(p)
					if far := math.Sqrt(way.Dot(way)); far < best.far {
						best = hit{far, way, d}
					}
				}
			}
		}
	}
	return best
}

// sampled gives points along a way, its corners and others so that none is farther than step from the next.
func sampled(way []pattern.Point, step float64) []pattern.Point {
	var out []pattern.Point
	for i := 1; i < len(way); i++ {
		d := way[i].Sub(way[i-1])
		n := max(1, int(math.Ceil(d.Len()/step)))
		for k := range n {
			out = append(out, way[i-1].Add(d.Scale(float64(k)/float64(n))))
		}
	}
	if len(way) > 0 {
		out = append(out, way[len(way)-1])
	}
	return out
}
