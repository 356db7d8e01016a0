package style

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// roof is the top of a tube that folds to a ridge like a carton's: four
// panels, two of width w and two of depth d in turn, that rise wall high,
// slope to the ridge, and stand up as fins. All in mm; corners are counted
// along the pattern from its left edge, heights from the wall's foot.
type roof struct {
	w, d             float64
	wall, slope, fin float64
	foot, upwards    float64 // the pattern's y at the foot, and which way is up: 1 or −1
}

// rise is how far the ridge lies above the walls: over half the depth the
// slope climbs √(slope² − (d/2)²), by Pythagoras.
func (r roof) rise() float64 { return math.Sqrt(r.slope*r.slope - r.d*r.d/4) }

// shape adds the creases that let the two end panels, the second and the
// fourth, fold in under the slopes: from each lower corner of the slope to
// the middle of its top, and up through the fin. Then it sets every crease's
// angle from the folded form.
func (r roof) shape(p *pattern.Pattern) error {
	y := func(v float64) float64 { return r.foot + r.upwards*v }
	for i, x := range []float64{r.w, 2*r.w + r.d} {
		mid := pattern.Pt(x+r.d/2, y(r.wall+r.slope))
		top := pattern.Pt(x+r.d/2, y(r.wall+r.slope+r.fin))
		for _, s := range []pattern.Segment{
			{A: pattern.Pt(x, y(r.wall)), B: mid}, {A: pattern.Pt(x+r.d, y(r.wall)), B: mid}, {A: mid, B: top},
		} {
			p.Creases = append(p.Creases, pattern.Crease{Segment: s})
			p.Scores.Part = append(p.Scores.Part, s)
		}
		r.cutMarks(p, x)
		// The ends' outer parts come to lie inside the slopes and fins beside them.
		end, before, after := []string{"right", "left"}[i], []string{"front", "back"}[i], []string{"back", "front"}[i]
		for _, part := range []string{"slope.", "fin."} {
			inside(p, part+end+".1", part+before)
			inside(p, part+end+".2", part+after)
		}
	}
	return p.AnglesFrom(r.place)
}

// inside says that a face lies inside another, inside to inside, dry.
func inside(p *pattern.Pattern, face, onto string) {
	faces, err := p.Faces()
	if err != nil {
		return // AnglesFrom reports it
	}
	for _, f := range faces {
		if f.Name == face {
			p.Glue = append(p.Glue, pattern.Glue{Face: face, Area: f.Polygon, Onto: onto, Dry: true})
		}
	}
}

// cutMarks names the parts into which the new creases divide an end panel's
// slope and fin: the middle that folds in, and the two beside it.
func (r roof) cutMarks(p *pattern.Pattern, x float64) {
	y := func(v float64) float64 { return r.foot + r.upwards*v }
	for i, m := range p.Marks {
		dx := m.At.X - x
		v := r.upwards * (m.At.Y - r.foot)
		if dx < 0 || dx > r.d || v < r.wall {
			continue
		}
		left, right := m, m
		left.Name, right.Name = m.Name+".1", m.Name+".2"
		if v < r.wall+r.slope { // the slope's middle keeps the name
			p.Marks[i].At = pattern.Pt(x+r.d/2, y(r.wall+r.slope*0.2))
			left.At = pattern.Pt(x+r.d*0.1, y(r.wall+r.slope*0.8))
			right.At = pattern.Pt(x+r.d*0.9, y(r.wall+r.slope*0.8))
			p.Marks = append(p.Marks, left, right)
			continue
		}
		left.At = pattern.Pt(x+r.d*0.25, y(r.wall+r.slope+r.fin/2))
		right.At = pattern.Pt(x+r.d*0.75, y(r.wall+r.slope+r.fin/2))
		p.Marks[i] = left
		p.Marks = append(p.Marks, right)
	}
}

// place gives where a corner of the pattern ends up: the plan is w × d, the
// ridge runs along w over the middle of d, and the ends' middles meet it half
// a depth in from either end.
func (r roof) place(q pattern.Point) (r3.Vec, bool) {
	v := r.upwards * (q.Y - r.foot)
	if v < -pattern.Tolerance || v > r.wall+r.slope+r.fin+pattern.Tolerance {
		return r3.Vec{}, false
	}
	return r.at(q.X, v), true
}

func (r roof) at(x, v float64) r3.Vec {
	k := 0
	for _, width := range []float64{r.w, r.d, r.w, r.d} {
		if x <= width+pattern.Tolerance {
			break
		}
		x -= width
		k++
	}
	if k == 4 { // the joining strip lies on the first panel
		k = 0
	}
	ground := [][2]float64{{0, 0}, {r.w, 0}, {r.w, r.d}, {0, r.d}}
	steps := [][2]float64{{1, 0}, {0, 1}, {-1, 0}, {0, -1}}
	g := r3.Vec{X: ground[k][0] + steps[k][0]*x, Y: ground[k][1] + steps[k][1]*x, Z: min(v, r.wall)}
	if v > r.wall {
		up := min(1, (v-r.wall)/r.slope)
		fin := max(0, v-r.wall-r.slope)
		h := r.d / 2
		along := g.X
		if k%2 == 1 { // an end: its top edge folds back along the ridge
			fromEnd := h - math.Abs(x-h)
			along = r.w - fromEnd
			if k == 3 {
				along = fromEnd
			}
		}
		ridge := r3.Vec{X: along, Y: h, Z: r.wall + r.rise()}
		g = r3.Add(g, r3.Scale(up, r3.Sub(ridge, g)))
		g.Z += fin
	}
	if r.upwards > 0 { // the pattern stands on its head: seen in a mirror
		g.X = -g.X
	}
	return g
}

// steeper is the least slope over half the depth: the next tick, so that the
// ridge rises.
func steeper(d measure.Length, tick measure.Tick) measure.Length {
	return measure.Down(d/2, tick) + tick
}
