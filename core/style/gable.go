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

// panels gives roles and words to the roof's faces in a grid, and divides the
// two ends, so that they fold in under the slopes: creased from each lower
// corner of the slope to the middle of its top, and up through the fin. The
// ends' outer parts come to lie inside the slopes and fins beside them.
func (r roof) panels(g *pattern.Grid) {
	for _, side := range []string{"front", "back"} {
		slope, fin := g.Face("slope."+side), g.Face("fin."+side)
		g.Role(pattern.Panel, slope)
		g.Role(pattern.Flap, fin)
		g.Call(slope, side+" slope")
		g.Call(fin, side+" fin")
	}
	y := func(v float64) float64 { // of a share: its foot is where the wall ends
		if r.upwards > 0 {
			return v
		}
		return 1 - v
	}
	share := func(name string, corners ...pattern.Point) pattern.Share {
		if r.upwards < 0 { // keep them clockwise
			for i, j := 0, len(corners)-1; i < j; i, j = i+1, j-1 {
				corners[i], corners[j] = corners[j], corners[i]
			}
		}
		for i := range corners {
			corners[i].Y = y(corners[i].Y)
		}
		return pattern.Share{Name: name, At: corners}
	}
	for _, end := range []struct{ name, before, after string }{{"right", "front", "back"}, {"left", "back", "front"}} {
		slope := g.Divide(g.Face("slope."+end.name),
			share("slope."+end.name, pattern.Pt(0, 0), pattern.Pt(1, 0), pattern.Pt(0.5, 1)),
			share("slope."+end.name+".1", pattern.Pt(0, 0), pattern.Pt(0.5, 1), pattern.Pt(0, 1)),
			share("slope."+end.name+".2", pattern.Pt(1, 0), pattern.Pt(1, 1), pattern.Pt(0.5, 1)))
		fin := g.Divide(g.Face("fin."+end.name),
			share("fin."+end.name+".1", pattern.Pt(0, 0), pattern.Pt(0.5, 0), pattern.Pt(0.5, 1), pattern.Pt(0, 1)),
			share("fin."+end.name+".2", pattern.Pt(0.5, 0), pattern.Pt(1, 0), pattern.Pt(1, 1), pattern.Pt(0.5, 1)))
		g.Role(pattern.Panel, slope...)
		g.Role(pattern.Flap, fin...)
		g.Call(slope[0], "middle of the "+end.name+" end's slope")
		for i, beside := range []string{end.before, end.after} {
			g.Call(slope[i+1], end.name+" end's slope beside the "+beside)
			g.Call(fin[i], end.name+" end's fin beside the "+beside)
			g.Within(slope[i+1], g.Face("slope."+beside))
			g.Within(fin[i], g.Face("fin."+beside))
		}
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

// under is how high a block of a footprint, in mm, may be that stands in the
// middle of the tube: to where the slopes, drawn in by layers of card, come
// as near together as it is wide or long.
func (r roof) under(straight, layers float64) func(length, width float64) float64 {
	return func(length, width float64) float64 {
		up := min((r.d-layers-width)/r.d, (r.w-layers-length)/r.d)
		return straight + max(0, up)*r.rise()
	}
}

// steeper is the least slope over half the depth: the next tick, so that the
// ridge rises.
func steeper(d measure.Length, tick measure.Tick) measure.Length {
	return measure.Down(d/2, tick) + tick.Length()
}
