package draw

import (
	"maps"
	"math"
	"slices"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// sizes writes the size of a blank at its top and its left edge.
func (m Moved) sizes(p *Picture, f placed, wide, high measure.Length) {
	var top, left labels
	top.add(wide.MM()/2, m.number(wide))
	left.add(high.MM()/2, m.number(high))
	top.draw(p, f, true)
	left.draw(p, f, false)
}

func (m Moved) number(l measure.Length) string {
	in := &m.r.Inputs
	if in.Units.Marks(in.Tools.Tick) {
		l = measure.OnMark(l, in.Units, in.Tools.Tick)
	}
	return measure.Number(l, in.Units, in.Tools.Tick)
}

// counted writes the numbers of the move's scores at the edge that they are counted from, and
// draws that edge as it lies on the fence.
func (m Moved) counted(p *Picture, f placed) {
	for _, s := range recipe.Flat([]recipe.Step{m.Step}) {
		for _, pass := range s.Passes {
			at := make([]measure.Length, len(pass.At))
			for i, l := range pass.At {
				at[i] = l - pass.Shim
			}
			switch pass.Edge {
			case string(hand.Left), string(hand.Right), string(hand.Top), string(hand.Bottom):
				m.ruled(p, f, hand.Edge(pass.Edge), pass.At, at)
			default: // from each of the four
				m.ruled(p, f, hand.Left, pass.At, at)
				m.ruled(p, f, hand.Top, pass.At, at)
				m.fence(p, f, hand.Right)
				m.fence(p, f, hand.Bottom)
			}
		}
	}
}

// fence draws an edge of the card as it lies on the fence.
func (m Moved) fence(p *Picture, f placed, e hand.Edge) {
	w, h := m.Is.Width, m.Is.Height
	a, b := pattern.Pt(0, 0), pattern.Pt(0, h)
	switch e {
	case hand.Right:
		a, b = pattern.Pt(w, 0), pattern.Pt(w, h)
	case hand.Top:
		a, b = pattern.Pt(0, 0), pattern.Pt(w, 0)
	case hand.Bottom:
		a, b = pattern.Pt(0, h), pattern.Pt(w, h)
	}
	p.line(MoveFence, f.at(a), f.at(b))
}

// ruled writes what is set beside lines that are counted from an edge.
func (m Moved) ruled(p *Picture, f placed, e hand.Edge, set, at []measure.Length) {
	m.fence(p, f, e)
	var row labels
	for i, l := range at {
		along := l.MM()
		if e == hand.Right {
			along = m.Is.Width - along
		} else if e == hand.Bottom {
			along = m.Is.Height - along
		}
		row.add(along, m.number(set[i]))
	}
	row.draw(p, f, e.Side())
}

// labels are the numbers that stand at one edge of a card, each where its line lies along it.
type labels []label

type label struct {
	along float64
	text  string
}

func (l *labels) add(along float64, text string) { *l = append(*l, label{along, text}) }

// draw writes the numbers at the top or the left edge: farther out where others stand already, and
// smaller where there is no room for as many rows.
func (l labels) draw(p *Picture, f placed, top bool) {
	size, room := moveFigure, f.x-p.X
	if top {
		room = f.y - p.Y
	}
	rows, in := l.rows(f, top, size)
	for ; l.needs(top, size, rows) > room && size > leastMoveFigure; rows, in = l.rows(f, top, size) {
		size *= 0.9
	}
	for i, x := range l {
		if top {
			p.text(TextNumber, f.at(pattern.Pt(x.along, 0)).Add(pattern.Pt(0, -0.8-0.9*size*float64(in[i]))), size/p.U, Middle, x.text)
			continue
		}
		p.text(TextNumber, f.at(pattern.Pt(0, x.along)).Add(pattern.Pt(-0.9-l.wide(size)*float64(in[i]), size/3)), size/p.U, End, x.text)
	}
}

// needs is how far out so many rows of numbers reach.
func (l labels) needs(top bool, size float64, rows int) float64 {
	if top {
		return 0.8 + 0.9*size*float64(rows)
	}
	return 0.9 + l.wide(size)*float64(rows)
}

// wide is how much room the longest of the numbers takes.
func (l labels) wide(size float64) float64 {
	longest := 0
	for _, x := range l {
		longest = max(longest, len([]rune(x.text)))
	}
	return 0.44*size*float64(longest) + 0.3
}

// rows puts each number into the first row in which it is free, and tells how many there are.
func (l labels) rows(f placed, top bool, size float64) (n int, in []int) {
	var taken [][][2]float64
	for _, x := range l {
		at, half := f.k*x.along, size/2
		if top {
			half = 0.28*size*float64(len([]rune(x.text))) + 0.3
		}
		row := slices.IndexFunc(taken, func(row [][2]float64) bool {
			return !slices.ContainsFunc(row, func(s [2]float64) bool { return at-half < s[1] && at+half > s[0] })
		})
		if row < 0 {
			row, taken = len(taken), append(taken, nil)
		}
		taken[row] = append(taken[row], [2]float64{at - half, at + half})
		in = append(in, row)
	}
	return len(taken), in
}

// told writes the lengths that the words of a move tell where lines of it lie so far from an
// edge, each once.
func (m Moved) told(p *Picture, f placed) {
	var lines []pattern.Segment
	var said hand.Said
	switch x := m.Step.Does.(type) {
	case hand.Score:
		lines, said = x.Lines, x.Said
	case hand.Mark:
		lines, said = x.Lines, x.Said
	case hand.Snip:
		lines, said = x.Cuts, x.Said
	default:
		return
	}
	w, h := m.Is.Width, m.Is.Height
	var top, left labels
	for _, name := range slices.Sorted(maps.Keys(said.Lengths)) {
		for _, l := range said.Lengths[name] {
			for _, s := range lines {
				if near(s.A.X, s.B.X) && (near(s.A.X, l.MM()) || near(w-s.A.X, l.MM())) {
					top.add(s.A.X, m.number(l))
					break
				}
				if near(s.A.Y, s.B.Y) && (near(s.A.Y, l.MM()) || near(h-s.A.Y, l.MM())) {
					left.add(s.A.Y, m.number(l))
					break
				}
			}
		}
	}
	top.draw(p, f, true)
	left.draw(p, f, false)
}

func near(a, b float64) bool { return math.Abs(a-b) < hand.Close }
