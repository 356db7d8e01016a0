// Package jigsaw makes jobs whose least number of sheets is known: whole sheets, cut to pieces by
// broken lines.
package jigsaw

import (
	"fmt"
	"math"
	"math/rand"

	"brevium/core/measure"
	"brevium/core/nest"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// side is that of the sheets, in mm.
const side = 304.8

// Job is so many sheets in so many pieces, about the same number from each, shuffled and turned.
func Job(rng *rand.Rand, sheets, pieces int) *nest.Job {
	j := &nest.Job{Sheets: []nest.Sheet{{Sheet: paper.Sheet{Name: "S", Width: measure.FromMM(side), Height: measure.FromMM(side), Count: paper.Unlimited, Cost: 1}}}}
	for k := range sheets {
		n := pieces*(k+1)/sheets - pieces*k/sheets
		for _, p := range cut(rng, n) {
			quarters := rng.Intn(4)
			for i := range p {
				for range quarters {
					p[i] = pattern.Pt(side-p[i].Y, p[i].X)
				}
			}
			j.Pieces = append(j.Pieces, nest.Piece{Outline: p, Copies: 1, Turns: nest.Quarters})
		}
	}
	rng.Shuffle(len(j.Pieces), func(a, b int) { j.Pieces[a], j.Pieces[b] = j.Pieces[b], j.Pieces[a] })
	for i := range j.Pieces {
		j.Pieces[i].Name = fmt.Sprintf("p%d", i+1)
	}
	return j
}

// cut parts one sheet into n pieces: by broken lines from top to bottom, and the columns between by
// broken lines from side to side.
func cut(rng *rand.Rand, n int) [][]pattern.Point {
	columns := max(1, int(math.Round(math.Sqrt(float64(n)))))
	wide := side / float64(columns)
	lines := make([][]pattern.Point, columns+1)
	for c := range lines {
		x := wide * float64(c)
		lines[c] = []pattern.Point{pattern.Pt(x, 0)}
		if c > 0 && c < columns {
			lines[c][0].X = round(x + wide*0.15*(2*rng.Float64()-1))
			for _, y := range []float64{0.3, 0.7} {
				lines[c] = append(lines[c], pattern.Pt(round(x+wide*0.2*(2*rng.Float64()-1)), round(side*(y+0.1*rng.Float64()))))
			}
		}
		last := lines[c][len(lines[c])-1]
		lines[c] = append(lines[c], pattern.Pt(last.X, side))
	}
	var out [][]pattern.Point
	for c := range columns {
		rows := n*(c+1)/columns - n*c/columns
		high := side / float64(rows)
		above := []pattern.Point{lines[c][0], lines[c+1][0]}
		for r := 1; r <= rows; r++ {
			var below []pattern.Point
			if r == rows {
				below = []pattern.Point{lines[c][len(lines[c])-1], lines[c+1][len(lines[c+1])-1]}
			} else {
				y := high * float64(r)
				a, b := on(lines[c], round(y+high*0.1*(2*rng.Float64()-1))), on(lines[c+1], round(y+high*0.1*(2*rng.Float64()-1)))
				mid := pattern.Pt(round((a.X+b.X)/2+wide*0.1*(2*rng.Float64()-1)), round(y+high*0.2*(2*rng.Float64()-1)))
				below = []pattern.Point{a, mid, b}
			}
			out = append(out, outline(above, between(lines[c+1], above[len(above)-1].Y, below[len(below)-1].Y), below, between(lines[c], above[0].Y, below[0].Y)))
			above = below
		}
	}
	return out
}

func round(v float64) float64 { return math.Round(v*2) / 2 }

// on is the place of a line at a height.
func on(l []pattern.Point, y float64) pattern.Point {
	for i := 1; i < len(l); i++ {
		a, b := l[i-1], l[i]
		if y <= b.Y {
			return pattern.Pt(a.X+(b.X-a.X)*(y-a.Y)/(b.Y-a.Y), y)
		}
	}
	return l[len(l)-1]
}

// between are a line's corners between two heights.
func between(l []pattern.Point, from, to float64) []pattern.Point {
	var out []pattern.Point
	for _, p := range l {
		if p.Y > from+1e-9 && p.Y < to-1e-9 {
			out = append(out, p)
		}
	}
	return out
}

// outline goes along the top, down the right, back along the bottom and up the left.
func outline(top, right, bottom, left []pattern.Point) []pattern.Point {
	out := append(append([]pattern.Point(nil), top...), right...)
	for i := len(bottom) - 1; i >= 0; i-- {
		out = append(out, bottom[i])
	}
	for i := len(left) - 1; i >= 0; i-- {
		out = append(out, left[i])
	}
	return out
}
