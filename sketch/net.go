package sketch

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Lines that lean less than upright, mm on a millimetre, were meant upright or level; coordinates
// within together of one another were meant to be one; and what is drawn on squares lies on them
// within a part of a square.
const (
	upright  = 0.06
	together = 1.2
	onSquare = 0.3
)

// way tells an upright line (0) and a level one (1); −1 for one that leans.
func (l Line) way() int {
	dx, dy := math.Abs(l.X2-l.X1), math.Abs(l.Y2-l.Y1)
	switch {
	case dx <= upright*dy:
		return 0
	case dy <= upright*dx:
		return 1
	}
	return -1
}

// Snapped puts lines where they were meant: upright and level ones straight, those in a row on one
// line, and all on the squares of the paper, which are step mm wide and begin left and top mm from
// the edges; step 0 is paper without squares.
func Snapped(lines []Line, left, top, step float64) []Line {
	out := slices.Clone(lines)
	begin := [2]float64{left, top}
	var rows [2][]float64 // where upright lines stand, and where level ones lie
	for way := range 2 {
		var at []float64
		for _, l := range lines {
			if l.way() == way {
				at = append(at, l.middle(way))
			}
		}
		rows[way] = heaps(at)
		for i, x := range rows[way] {
			rows[way][i] = square(x, begin[way], step)
		}
	}
	put := func(x float64, axis int) float64 {
		for _, r := range rows[axis] {
			if math.Abs(r-x) <= 1.5*together {
				return r
			}
		}
		return square(x, begin[axis], step)
	}
	for i := range out {
		l := &out[i]
		way := l.way()
		x1, y1, x2, y2 := l.X1, l.Y1, l.X2, l.Y2
		if way == 0 {
			x1 = l.middle(0)
			x2 = x1
		} else if way == 1 {
			y1 = l.middle(1)
			y2 = y1
		}
		l.X1, l.Y1, l.X2, l.Y2 = put(x1, 0), put(y1, 1), put(x2, 0), put(y2, 1)
	}
	return out
}

func (l Line) middle(axis int) float64 {
	if axis == 0 {
		return (l.X1 + l.X2) / 2
	}
	return (l.Y1 + l.Y2) / 2
}

// heaps gives the middles of numbers that lie close together.
func heaps(at []float64) (out []float64) {
	slices.Sort(at)
	for i := 0; i < len(at); {
		k, sum := i, 0.0
		for k < len(at) && at[k]-at[i] <= together {
			sum += at[k]
			k++
		}
		out = append(out, sum/float64(k-i))
		i = k
	}
	return out
}

// square is the nearest line of the squares, or the middle between two; a place that is near
// neither stays.
func square(x, begin, step float64) float64 {
	if step <= 0 {
		return x
	}
	half := step / 2
	if near := begin + math.Round((x-begin)/step)*step; math.Abs(near-x) <= onSquare*step {
		return near
	}
	if near := begin + math.Round((x-begin)/half)*half; math.Abs(near-x) <= onSquare*half {
		return near
	}
	return x
}

// Scaled makes all lines as large as they are if one of them, the nth, is so long.
func Scaled(lines []Line, n int, length float64) []Line {
	out := slices.Clone(lines)
	if n < 0 || n >= len(out) || out[n].Length() == 0 || length <= 0 {
		return out
	}
	by := length / out[n].Length()
	for i := range out {
		l := &out[i]
		l.X1, l.Y1, l.X2, l.Y2 = by*l.X1, by*l.Y1, by*l.X2, by*l.Y2
	}
	return out
}

// Blank is a piece that lines make: as large as they reach, with where it is folded, mm.
type Blank struct {
	Left, Top, Wide, High float64
	Across, Down          []float64 // from the left, and from the top
	Leaning, Inner        int       // folds that lean, and cuts within it
}

// Blanks gathers lines that touch into pieces, the largest first. Where nothing of one is dashed,
// lines from edge to edge of it are folds.
func Blanks(lines []Line) (out []Blank) {
	for _, of := range touching(lines) {
		b := Blank{Left: math.Inf(1), Top: math.Inf(1)}
		right, bottom := math.Inf(-1), math.Inf(-1)
		for _, l := range of {
			b.Left, b.Top = min(b.Left, l.X1, l.X2), min(b.Top, l.Y1, l.Y2)
			right, bottom = max(right, l.X1, l.X2), max(bottom, l.Y1, l.Y2)
		}
		b.Wide, b.High = right-b.Left, bottom-b.Top
		if min(b.Wide, b.High) < leastLong {
			continue // a stroke by itself
		}
		dashed := slices.ContainsFunc(of, func(l Line) bool { return l.Fold })
		for _, l := range of {
			way := l.way()
			at, whole, begins := l.X1, b.Wide, b.Left
			long := b.High
			if way == 1 {
				at, whole, begins, long = l.Y1, b.High, b.Top, b.Wide
			}
			at -= begins
			edge := way >= 0 && (at < together || at > whole-together)
			switch {
			case edge:
			case !l.Fold && (dashed || way < 0 || l.Length() < long-2*reach):
				b.Inner++
			case way < 0:
				b.Leaning++
			case way == 0:
				b.Across = append(b.Across, at)
			default:
				b.Down = append(b.Down, at)
			}
		}
		b.Across, b.Down = heaps(b.Across), heaps(b.Down)
		out = append(out, b)
	}
	slices.SortStableFunc(out, func(a, b Blank) int { return cmp.Compare(b.Wide*b.High, a.Wide*a.High) })
	return out
}

// touching parts lines into those that hang together.
func touching(lines []Line) (out [][]Line) {
	of := make([]int, len(lines))
	for i := range of {
		of[i] = i
	}
	var root func(i int) int
	root = func(i int) int {
		if of[i] != i {
			of[i] = root(of[i])
		}
		return of[i]
	}
	for i, a := range lines {
		for k, b := range lines[:i] {
			if a.beside(b.X1, b.Y1) || a.beside(b.X2, b.Y2) || b.beside(a.X1, a.Y1) || b.beside(a.X2, a.Y2) {
				of[root(i)] = root(k)
			}
		}
	}
	groups := map[int]int{}
	for i, l := range lines {
		r := root(i)
		n, known := groups[r]
		if !known {
			n = len(out)
			groups[r], out = n, append(out, nil)
		}
		out[n] = append(out[n], l)
	}
	return out
}

// Recipe writes blanks as one jots them down, in a unit, on its tick. What lies between two lines is
// rounded, not where each lies, so that walls that were drawn alike stay alike.
func Recipe(blanks []Blank, unit measure.Unit) string {
	tick := unit.Tick()
	say := func(l measure.Length) string { return measure.Number(l, unit, tick) }
	list := func(at []measure.Length) string {
		texts := make([]string, len(at))
		for i, x := range at {
			texts[i] = say(x)
		}
		if n := len(texts) - 1; n > 0 {
			return strings.Join(texts[:n], ", ") + " and " + texts[n]
		}
		return texts[0]
	}
	var lines []string
	for i, b := range blanks {
		across, wide := rounded(b.Across, b.Wide, tick)
		down, high := rounded(b.Down, b.High, tick)
		text := "Piece " + string(rune('A'+i%26)) + ": " + say(wide) + " x " + say(high) + " " + string(unit)
		if len(across) > 0 {
			text += ", with the " + say(wide) + " side at the top score at " + list(across)
			if len(down) > 0 {
				text += ", turn, score at " + list(down)
			}
		} else if len(down) > 0 {
			text += ", with the " + say(high) + " side at the top score at " + list(down)
		}
		lines = append(lines, text+".")
	}
	return strings.Join(lines, "\n")
}

// rounded puts lines at mm, and the end of all, on a tick.
func rounded(at []float64, whole float64, tick measure.Tick) (lines []measure.Length, end measure.Length) {
	before := 0.0
	for _, x := range at {
		end += measure.Nearest(measure.FromMM(x-before), tick)
		lines, before = append(lines, end), x
	}
	return lines, end + measure.Nearest(measure.FromMM(whole-before), tick)
}
