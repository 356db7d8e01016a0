package style

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/hand"
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
	ends             bool    // the ends have fins, folded in between the other two
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
		var fin []*pattern.Leaf
		if r.ends {
			fin = r.endFins(g, end.name, share)
		}
		g.Role(pattern.Panel, slope...)
		g.Call(slope[0], "middle of the "+end.name+" end's slope")
		for i, beside := range []string{end.before, end.after} {
			g.Call(slope[i+1], end.name+" end's slope beside the "+beside)
			g.Within(slope[i+1], g.Face("slope."+beside))
			if r.ends {
				g.Call(fin[i], end.name+" end's fin beside the "+beside)
				g.Within(fin[i], g.Face("fin."+beside))
			}
		}
	}
}

// endFins divides the fin of an end along its middle.
func (r roof) endFins(g *pattern.Grid, end string, share func(name string, corners ...pattern.Point) pattern.Share) []*pattern.Leaf {
	fin := g.Divide(g.Face("fin."+end),
		share("fin."+end+".1", pattern.Pt(0, 0), pattern.Pt(0.5, 0), pattern.Pt(0.5, 1), pattern.Pt(0, 1)),
		share("fin."+end+".2", pattern.Pt(0.5, 0), pattern.Pt(1, 0), pattern.Pt(1, 1), pattern.Pt(0.5, 1)))
	g.Role(pattern.Flap, fin...)
	return fin
}

// place gives where a corner of the pattern ends up: the plan is w × d, the
// ridge runs along w over the middle of d, and the ends' middles meet it half
// a depth in from either end.
func (r roof) place(q pattern.Point) (r3.Vec, bool) { return r.closing(1)(q) }

// closing gives where corners are when a tube's top is so far closed, from 0,
// upright, to 1. Slopes and ends are rigid all the way: the top of an end's
// middle lies its slope's depth from the wall and half a depth from the slopes'
// corners. Fins stand up more and more; they are what bends.
func (r roof) closing(at float64) func(pattern.Point) (r3.Vec, bool) {
	return func(q pattern.Point) (r3.Vec, bool) {
		v := r.upwards * (q.Y - r.foot)
		if v < -pattern.Tolerance || v > r.wall+r.slope+r.fin+pattern.Tolerance {
			return r3.Vec{}, false
		}
		return r.at(q.X, v, at), true
	}
}

func (r roof) at(x, v, closed float64) r3.Vec {
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
		half := r.d / 2
		in, out := math.Sincos(closed * math.Asin(half/r.slope)) // how the slopes lean
		inwards := r3.Vec{Y: 1}
		if k >= 2 {
			inwards.Y = -1
		}
		// The slopes lean in; an end's middle folds in between them.
		corner := r3.Add(r3.Scale(r.slope*in, inwards), r3.Vec{Z: r.slope * out})
		top := corner
		if k%2 == 1 {
			up := (r.slope - half*in) / out
			deep := math.Sqrt(max(0, r.slope*r.slope-up*up))
			along := -deep
			if k == 3 {
				along = deep
			}
			middle := r3.Vec{X: along, Z: up}
			near := min(x, r.d-x) / half // 0 at a corner, 1 in the middle
			inwards.Y = 1
			if (k == 1) == (x > half) {
				inwards.Y = -1
			}
			corner = r3.Add(r3.Scale(r.slope*in, inwards), r3.Vec{Z: r.slope * out})
			top = r3.Add(r3.Scale(1-near, corner), r3.Scale(near, middle))
		}
		up := min(1, (v-r.wall)/r.slope)
		g = r3.Add(g, r3.Scale(up, top))
		stands := r3.Unit(r3.Add(r3.Scale(1-closed, r3.Unit(top)), r3.Vec{Z: closed}))
		g = r3.Add(g, r3.Scale(max(0, v-r.wall-r.slope), stands))
	}
	if r.upwards > 0 { // the pattern stands on its head: seen in a mirror
		g.X = -g.X
	}
	return g
}

// way is how a tube's top closes: the angles of the creases from upright to
// closed. What the roof does not know of keeps its angle.
func (r roof) way(p *pattern.Pattern) func(at float64) ([]float64, error) {
	return func(at float64) ([]float64, error) {
		place := r.closing(at)
		out, err := p.Turns(func(_ string, q pattern.Point) (r3.Vec, bool) { return place(q) })
		for i, c := range p.Creases {
			if at == 1 || min(r.height(c.A), r.height(c.B)) < r.wall-pattern.Tolerance {
				out[i] = c.Angle
			}
		}
		return out, err
	}
}

// height is how far above the wall's foot a point of the pattern lies.
func (r roof) height(q pattern.Point) float64 { return r.upwards * (q.Y - r.foot) }

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

// lines are those of the two ends, panels 2 and 4 of a tube whose columns begin at xs: from
// the middle of the slopes' top to the fins' edge and to both ends of the slopes' foot.
func (r roof) lines(xs []measure.Length) []pattern.Segment {
	at := func(x, height float64) pattern.Point { return pattern.Pt(x, r.foot+r.upwards*height) }
	var out []pattern.Segment
	for _, k := range []int{1, 3} {
		a, b := xs[k].MM(), xs[k+1].MM()
		mid := at((a+b)/2, r.wall+r.slope)
		out = append(out, pattern.Segment{A: mid, B: at((a+b)/2, r.wall+r.slope+r.fin)},
			pattern.Segment{A: mid, B: at(a, r.wall)}, pattern.Segment{A: mid, B: at(b, r.wall)})
	}
	return out
}

// ridge marks, scores and folds the top of a tube that comes together in a ridge, in the words of
// a key; what stands beside its tab is cut off.
func (m *making) ridge(r roof, key string, off ...[2]int) {
	lines := r.lines(stations(m.p.Scores.Vertical, m.p.Width))
	m.do(hand.Mark{Calls: m.rowsOf(ridgeRows[key]), Said: hand.Say(key + "-rows")}, hand.Mark{At: []pattern.Point{lines[0].A, lines[3].A}, Said: hand.Say(key + "-marks")})
	m.do(hand.Score{Lines: lines, Said: hand.Say(key + "-lines")})
	m.do(hand.CutOff{What: m.cells(key, nil, off...)})
}

// ridgeRows are the rows of such a tube from the top, by the key of its words.
var ridgeRows = map[string][]string{"gable": {"walls", "slopes", "fins"}, "ridge": {"fins", "slopes", "walls", "bottom-flaps"}}

// rowsOf calls the rows between a piece's level scores by names, in the middle of its first
// column.
func (m *making) rowsOf(names []string) []hand.Call {
	xs, ys := stations(m.p.Scores.Vertical, m.p.Width), stations(m.p.Scores.Horizontal, m.p.Height)
	var out []hand.Call
	for i, name := range names[:min(len(names), len(ys)-1)] {
		out = append(out, hand.Call{Name: name, At: pattern.Pt((xs[0]+xs[1]).MM()/2, (ys[i]+ys[i+1]).MM()/2)})
	}
	return out
}

// doubled says of the upright folds that come to lie on themselves which way they go: the
// scores between the panels away, those in the middle of an end towards the hand. Of a fold
// right over, where card ends up does not tell from which side it came.
func doubled(p *pattern.Pattern) {
	for i, c := range p.Creases {
		if overFlat(c) && c.A.X == c.B.X {
			p.Creases[i].Side = pattern.Towards
			if slices.Contains(p.Scores.Vertical, measure.FromMM(c.A.X)) {
				p.Creases[i].Side = pattern.Away
			}
		}
	}
}
