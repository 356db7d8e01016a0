package stylefile

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
)

// strips is how many straight ones stand for a fold along an arc.
const strips = 6

// Curve parts a whole face by a fold along an arc, from a point of one side to the point
// that lies opposite. Card that is folded along an arc bends on both its sides: the face
// becomes narrow strips, bent over an edge one to the next, whose parts meet in straight
// lines from point to point of a parabola with the rise, a formula; degrees is how far the
// arc's middle is folded away.
//
// The lines lie in a plane, and each part is the other's image in it: with half the angle a
// and the slope m of the parabola on a strip, the strip leans by asin(m tan a) and is folded
// by 2 acos(cos a √(1 − m² tan² a)).
func (t *Table) Curve(face, from, to, rise, degrees string) error {
	angle, err := strconv.ParseFloat(strings.TrimSpace(degrees), 64)
	if err != nil || !(angle > 0 && angle < 180) {
		return fault.New(fault.OutOfRange, "", "a fold along an arc is given by its degrees, more than 0 and less than 180")
	}
	i, k, err := t.line(face, from, to)
	if err != nil {
		return err
	}
	a, b := corners[i].at, corners[k].at
	over := func(side int) bool { // from one side to the point opposite
		return a[1-side] == b[1-side] && a[side] != b[side] && a[side] != "0.5" && b[side] != "0.5"
	}
	level := over(0)
	if t.share(face) != nil || !level && !over(1) {
		return fault.New(fault.Invalid, "", "a fold along an arc goes over a whole face, from one side to the point opposite; for another line leave its degrees empty: it is cut")
	}
	// Part a bends into part b; upside down, the other way round.
	into := "-"
	if i == 0 && k == 2 {
		into = "+"
	}
	wide, high := t.extent(face)
	if !level {
		wide, high = high, wide
	}
	rise = "(" + strings.TrimSpace(rise) + ")"
	if t.below(rise) {
		rise = "(0-" + rise + ")"
		into = map[string]string{"-": "+", "+": "-"}[into]
	}
	tan, cos := math.Tan(angle*math.Pi/360), math.Cos(angle*math.Pi/360)
	lean := func(n int) string { // the slope of the strip n, times the tangent
		return fmt.Sprintf("%s*%s/(%s)", number(4*(1-float64(2*n+1)/strips)*tan), rise, wide)
	}
	start := a[0]
	if level {
		start = a[1]
	}
	across := func(n int) string { // where the arc is across the face
		u := float64(n) / strips
		if n == 0 || n == strips {
			return start
		}
		return fmt.Sprintf("%s%s%s*%s/(%s)", start, into, number(4*u*(1-u)), rise, high)
	}
	part := func(name string, at ...[2]string) share {
		if !level { // seen with its rows and columns changed over, the corners run the other way
			slices.Reverse(at)
			for n := range at {
				at[n] = [2]string{at[n][1], at[n][0]}
			}
		}
		at = slices.CompactFunc(at, func(a, b [2]string) bool { return a == b })
		if at[0] == at[len(at)-1] {
			at = at[1:]
		}
		return share{Name: t.free(name), At: at}
	}
	near, far := "a", "b" // what lies at the face's top or left
	if into == "-" {
		near, far = far, near
	}
	var all []share
	sides := map[string][]string{}
	for n := range strips {
		l, r := number(float64(n)/strips), number(float64(n+1)/strips)
		one := part(fmt.Sprintf("%s.%s%d", face, near, n+1), [2]string{l, "0"}, [2]string{r, "0"}, [2]string{r, across(n + 1)}, [2]string{l, across(n)})
		two := part(fmt.Sprintf("%s.%s%d", face, far, n+1), [2]string{l, across(n)}, [2]string{r, across(n + 1)}, [2]string{r, "1"}, [2]string{l, "1"})
		for side, x := range map[string]share{near: one, far: two} {
			sides[side] = append(sides[side], x.Name)
			if len(x.At) > 2 {
				all = append(all, x)
			}
		}
	}
	slices.SortStableFunc(all, func(a, b share) int { return strings.Compare(a.Name, b.Name) })
	p := t.piece()
	p.Divide = append(p.Divide, divide{face, all})
	for n := range strips {
		s := lean(n)
		p.Folds = append(p.Folds, fold{Between: [2]string{sides["a"][n], sides["b"][n]}, Angle: fmt.Sprintf("180-2*asin(%s*sqrt(1-%s*%s))", number(cos), s, s)})
		if n == 0 {
			continue
		}
		bend := fmt.Sprintf("asin(%s)-asin(%s)", lean(n-1), s)
		for _, side := range []string{"a", "b"} {
			p.Folds = append(p.Folds, fold{Between: [2]string{sides[side][n-1], sides[side][n]}, Angle: bend, Roll: true, Towards: side == "a"})
		}
	}
	var names []string
	for _, x := range all {
		names = append(names, x.Name)
	}
	t.inherit(face, names...)
	t.forget()
	return nil
}

// number writes a number for a formula.
func number(v float64) string { return strconv.FormatFloat(math.Round(v*1e9)/1e9, 'f', -1, 64) }

// extent is how wide and how high a cell is, as formulas.
func (t *Table) extent(cell string) (wide, high string) {
	var columns, rows []string
	for c, f := range t.Columns() {
		if slices.ContainsFunc(t.Grid(), func(row []string) bool { return row[c] == cell }) {
			columns = append(columns, "("+f+")")
		}
	}
	for r, f := range t.Rows() {
		if slices.Contains(t.Grid()[r], cell) {
			rows = append(rows, "("+f+")")
		}
	}
	return strings.Join(columns, "+"), strings.Join(rows, "+")
}

// below reports whether a formula comes to less than nothing at the usual sizes.
func (t *Table) below(text string) bool {
	m, err := t.file.maker()
	if err != nil || m.book.ready("", m.names, text) != nil {
		return false
	}
	v, err := m.book[text].number(m.numbers(m.usual()))
	return err == nil && v < 0
}
