// Package found finds the style of a box from the blanks that are cut and the lines that
// are scored: which style they are, with which sizes and options, or what is otherwise.
package found

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
)

// Blank is a piece as it is cut and scored: lines over its whole length, across from
// its left edge and down from its top edge.
type Blank struct {
	Width, Height        measure.Length
	Vertical, Horizontal []measure.Length
}

// Match is a style that the blanks are of.
type Match struct {
	Style  *style.Style
	Inputs design.Inputs
	// Parts says which part of the style each blank is, by its id.
	Parts []string
	lies  []lain // how each blank lies
	// Otherwise are the numbers that are not as the style has them; none where the
	// blanks are the style's own.
	Otherwise []Otherwise
}

// Otherwise is a number of a blank that a style would have otherwise.
type Otherwise struct {
	Blank      int
	Number     Number
	Is, Should measure.Length
}

// Number names one of a blank's numbers: its width, its height, or one of its scores,
// counted from 0.
type Number struct {
	What  What
	Score int
}

// What a number is of.
type What int

// The numbers of a blank.
const (
	Wide What = iota
	High
	Across
	Down
)

// same is how far two lengths may be apart, for what rounding leaves.
const same = 20 * measure.Micrometre

// Redundant is how many numbers more there must be than sizes they tell of: with fewer,
// anything would be a box.
const redundant = 2

// Find gives the styles that the blanks are of, all of them together, the plainest
// first; where there is none, those that are but for one number. unit is what its
// numbers are in.
func Find(blanks []Blank, unit measure.Unit) []Match { return find(blanks, unit, true) }

// find is Find, with those that are but for one number only where near is asked for: they take the
// most time.
func find(blanks []Blank, unit measure.Unit, near bool) []Match {
	var exact, nearly []Match
	if len(blanks) == 0 || len(blanks) > mostParts {
		return nil
	}
	lie := make([][]lain, len(blanks))
	for i, b := range blanks {
		lie[i] = ways(i, b)
	}
	for _, s := range style.Boxes() {
		best := bestOf(s, lie, unit, near)
		switch {
		case best == nil:
		case len(best.Otherwise) == 0:
			exact = append(exact, *best)
		default:
			nearly = append(nearly, *best)
		}
	}
	if len(exact) > 0 {
		return exact
	}
	// The least change is the likeliest.
	slices.SortStableFunc(nearly, func(a, b Match) int { return cmp.Compare(off(a), off(b)) })
	return nearly
}

// bestOf is how blanks are of a style, exactly or but for one number; nil where they are not. lie are
// the ways in which each may lie.
func bestOf(s *style.Style, lie [][]lain, unit measure.Unit, near bool) *Match {
	var best *Match
	for _, k := range kinds(s, unit) {
		for x := range k.about(lie) {
			if m := x.match(lie, near && x == k); m != nil && (best == nil || len(m.Otherwise) < len(best.Otherwise)) {
				if best = m; len(best.Otherwise) == 0 {
					return best
				}
			}
		}
	}
	return best
}

func off(m Match) measure.Length {
	sum := measure.Length(0)
	for _, o := range m.Otherwise {
		sum += (o.Is - o.Should).Abs()
	}
	return sum
}

// match tries the blanks on a kind in every way they may lie, but for one number too where near is
// asked for.
func (k *kind) match(lie [][]lain, near bool) *Match {
	if len(lie) != len(k.parts) {
		return nil
	}
	options := k.options(lie)
	if options == nil || !k.ready() {
		return nil
	}
	for _, order := range k.orders(options, k.begins) {
		if x, ok := k.solve(numbersIn(order), -1); ok {
			return k.found(order, x, nil)
		}
	}
	if !near {
		return nil
	}
	for _, order := range k.orders(options, func([]lain) bool { return true }) {
		y := numbersIn(order)
		left := k.left(y)
		for drop := range y {
			if !k.leaves(left, drop) {
				continue
			}
			if x, ok := k.solve(y, drop); ok {
				return k.found(order, x, k.otherwise(order, x, drop))
			}
		}
	}
	return nil
}

func numbersIn(order []lain) []float64 {
	var y []float64
	for _, part := range order {
		y = append(y, part.numbers()...)
	}
	return y
}

// lain is a blank on the table, perhaps turned: numbers of its own order.
type lain struct {
	blank int
	Blank
	turned bool // width and height change places
	mirror [2]bool
}

func (l lain) numbers() []float64 {
	out := []float64{l.Width.MM(), l.Height.MM()}
	for _, at := range slices.Concat(l.Vertical, l.Horizontal) {
		out = append(out, at.MM())
	}
	return out
}

// number is what the nth of a lain blank's numbers is on the blank as it was given.
func (l lain) number(n int) Number {
	v, h := len(l.Vertical), len(l.Horizontal)
	what, score := Wide, 0
	switch {
	case n == 1:
		what = High
	case n >= 2 && n < 2+v:
		what, score = Across, n-2
		if l.mirror[0] {
			score = v - 1 - score
		}
	case n >= 2+v:
		what, score = Down, n-2-v
		if l.mirror[1] {
			score = h - 1 - score
		}
	}
	if l.turned {
		what = map[What]What{Wide: High, High: Wide, Across: Down, Down: Across}[what]
	}
	return Number{what, score}
}

// ways are the ways a blank may lie: turned, and end for end.
func ways(i int, b Blank) []lain {
	flip := func(at []measure.Length, whole measure.Length) []measure.Length {
		out := make([]measure.Length, len(at))
		for k, x := range at {
			out[len(at)-1-k] = whole - x
		}
		return out
	}
	var out []lain
	for _, turned := range []bool{false, true} {
		x := b
		if turned {
			x = Blank{b.Height, b.Width, b.Horizontal, b.Vertical}
		}
		for _, m := range [][2]bool{{}, {true, false}, {false, true}, {true, true}} {
			y := x
			if m[0] {
				y.Vertical = flip(x.Vertical, x.Width)
			}
			if m[1] {
				y.Horizontal = flip(x.Horizontal, x.Height)
			}
			l := lain{i, y, turned, m}
			if !slices.ContainsFunc(out, func(o lain) bool { return slices.Equal(o.numbers(), l.numbers()) && len(o.Vertical) == len(l.Vertical) }) {
				out = append(out, l)
			}
		}
	}
	return out
}

// mostParts is how many blanks are found a style for, and mostOrders how many ways of
// laying them are tried.
const (
	mostParts  = 8
	mostOrders = 400
)

// options are, part by part of a kind, the ways in which blanks with as many lines may
// lie; nil where a part has none.
func (k *kind) options(lie [][]lain) [][]lain {
	options := make([][]lain, len(k.parts))
	for i, p := range k.parts {
		for b := range lie {
			for _, l := range lie[b] {
				if len(l.Vertical) == p.vertical && len(l.Horizontal) == p.horizontal {
					options[i] = append(options[i], l)
				}
			}
		}
		if options[i] == nil {
			return nil
		}
	}
	return options
}

// orders are the ways in which the blanks may be the parts of a kind, those left out that
// begin with what cannot be.
func (k *kind) orders(options [][]lain, mayBegin func([]lain) bool) [][]lain {
	var out [][]lain
	var put func(so []lain)
	put = func(so []lain) {
		if len(out) >= mostOrders {
			return
		}
		if len(so) == len(k.parts) {
			out = append(out, slices.Clone(so))
			return
		}
		for _, l := range options[len(so)] {
			if slices.ContainsFunc(so, func(x lain) bool { return x.blank == l.blank }) {
				continue
			}
			// Of blanks that are alike the first goes first.
			if slices.ContainsFunc(options[len(so)], func(x lain) bool {
				return x.blank < l.blank && slices.Equal(x.numbers(), l.numbers()) && !slices.ContainsFunc(so, func(y lain) bool { return y.blank == x.blank })
			}) {
				continue
			}
			if next := append(so, l); mayBegin(next) {
				put(next)
			}
		}
	}
	put(nil)
	return out
}

// begins reports whether the first parts may be so: whether sizes explain their numbers
// but for what is rounded.
func (k *kind) begins(so []lain) bool {
	rest := k.first[len(so)-1]
	y := numbersIn(so)
	for i := range y {
		r := 0.0
		for j := range y {
			r += rest.At(i, j) * (y[j] - k.numbers[j])
		}
		if math.Abs(r) > rounding {
			return false
		}
	}
	return true
}

// otherwise says what the number that was left out should be.
func (k *kind) otherwise(order []lain, x []measure.Length, drop int) []Otherwise {
	at, ok := k.make(x)
	if !ok {
		return nil
	}
	i, n := 0, drop
	for n >= len(order[i].numbers()) {
		n -= len(order[i].numbers())
		i++
	}
	l := order[i]
	is, should := l.numbers()[n], at[drop]
	num := l.number(n)
	mm := func(f float64) measure.Length { return measure.Length(math.Round(f * float64(measure.Millimetre))) }
	out := Otherwise{l.blank, num, mm(is), mm(should)}
	// A line that was counted from the other end.
	if num.What == Across && l.mirror[side(l.turned, 0)] || num.What == Down && l.mirror[side(l.turned, 1)] {
		whole := l.Width
		if (num.What == Down) != l.turned {
			whole = l.Height
		}
		out.Is, out.Should = whole-out.Is, whole-out.Should
	}
	return []Otherwise{out}
}

func side(turned bool, n int) int {
	if turned {
		return 1 - n
	}
	return n
}

// found is the match with sizes as they were found.
func (k *kind) found(order []lain, x []measure.Length, otherwise []Otherwise) *Match {
	in := design.New(k.style.Name, k.unit, k.style.ID)
	for id, c := range k.choices {
		in.Choices[id] = c
	}
	for j, id := range k.ids {
		if slices.ContainsFunc(k.style.Parameters, func(p *style.Parameter) bool { return p.ID == id }) {
			in.Size[id] = x[j]
		} else {
			in.Lengths[id] = x[j]
		}
	}
	if spec, _ := k.made(x, unseen); spec != nil {
		for _, p := range k.style.Parameters {
			if p.Follows == nil && !slices.Contains(k.ids, p.ID) && spec.Lengths[p.ID] != k.spec.Lengths[p.ID] {
				in.Size[p.ID] = spec.Lengths[p.ID]
			}
		}
	}
	m := &Match{Style: k.style, Inputs: in, Parts: make([]string, len(order)), Otherwise: otherwise, lies: make([]lain, len(order))}
	for i, l := range order {
		m.Parts[l.blank], m.lies[l.blank] = k.parts[i].id, l
	}
	return m
}
