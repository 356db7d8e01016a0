package plotter

import (
	"math"

	"brevium/core/pattern"
)

// cell is the side of a cell of the raster that shows what is cut free, in mm.
const cell = 0.1

// raster is a sheet in cells: those that a blade came through are walls.
type raster struct {
	wide, high int
	wall       []bool
}

func newRaster(width, height float64) *raster {
	r := &raster{wide: int(math.Ceil(width/cell - 1e-6)), high: int(math.Ceil(height/cell - 1e-6))}
	r.wall = make([]bool, r.wide*r.high)
	return r
}

func (r *raster) mark(x, y int) {
	if x >= 0 && y >= 0 && x < r.wide && y < r.high {
		r.wall[y*r.wide+x] = true
	}
}

// cut marks each cell that a way comes through (Amanatides and Woo, "A Fast Voxel Traversal Algorithm
// for Ray Tracing", 1987).
func (r *raster) cut(way []pattern.Point) {
	for i := 1; i < len(way); i++ {
		a, b := way[i-1].Scale(1/cell), way[i].Scale(1/cell)
		x, y := int(math.Floor(a.X)), int(math.Floor(a.Y))
		toX, toY := int(math.Floor(b.X)), int(math.Floor(b.Y))
		d := b.Sub(a)
		stepX, stepY := 1, 1
		nextX, nextY := float64(x+1), float64(y+1)
		if d.X < 0 {
			stepX, nextX = -1, float64(x)
		}
		if d.Y < 0 {
			stepY, nextY = -1, float64(y)
		}
		tX, tY := math.Inf(1), math.Inf(1)
		if d.X != 0 {
			tX = (nextX - a.X) / d.X
		}
		if d.Y != 0 {
			tY = (nextY - a.Y) / d.Y
		}
		r.mark(x, y)
		for n := abs(toX-x) + abs(toY-y); n > 0; n-- {
			if tX < tY {
				x += stepX
				tX += math.Abs(1 / d.X)
			} else {
				y += stepY
				tY += math.Abs(1 / d.Y)
			}
			r.mark(x, y)
		}
	}
}

func abs(n int) int { return max(n, -n) }

// run is a row's cells from x to end that belong together.
type run struct{ y, x, end int }

// region is what hangs together when all is cut.
type region struct {
	runs   []run
	lo, hi [2]int // cells, hi not in it
	cells  int
}

// area in mm².
func (g *region) area() float64 { return float64(g.cells) * cell * cell }

// rows are the runs of cells that are no wall.
func (r *raster) rows() [][]run {
	out := make([][]run, r.high)
	for y := range r.high {
		row := r.wall[y*r.wide : (y+1)*r.wide]
		for x := 0; x < r.wide; {
			if row[x] {
				x++
				continue
			}
			end := x
			for end < r.wide && !row[end] {
				end++
			}
			out[y] = append(out[y], run{y, x, end})
			x = end
		}
	}
	return out
}

// regionsOf joins runs with those that they touch in the row above.
func regionsOf(rows [][]run) []*region {
	var runs []run
	var of []int
	root := func(i int) int {
		for of[i] != i {
			of[i] = of[of[i]]
			i = of[i]
		}
		return i
	}
	above, first := 0, 0
	for _, row := range rows {
		above, first = first, len(runs)
		at := above
		for _, u := range row {
			k := len(runs)
			runs, of = append(runs, u), append(of, k)
			for at < first && runs[at].end <= u.x {
				at++
			}
			for o := at; o < first && runs[o].x < u.end; o++ {
				of[root(k)] = root(o)
			}
		}
	}
	byRoot := map[int]*region{}
	var out []*region
	for i, u := range runs {
		k := root(i)
		g := byRoot[k]
		if g == nil {
			g = &region{lo: [2]int{u.x, u.y}, hi: [2]int{u.end, u.y + 1}}
			byRoot[k] = g
			out = append(out, g)
		}
		g.runs = append(g.runs, u)
		g.cells += u.end - u.x
		g.lo = [2]int{min(g.lo[0], u.x), min(g.lo[1], u.y)}
		g.hi = [2]int{max(g.hi[0], u.end), max(g.hi[1], u.y+1)}
	}
	return out
}
