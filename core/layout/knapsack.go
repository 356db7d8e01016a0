package layout

import (
	"math"
	"slices"
)

// knapsack finds, for one kind of sheet, the filling that is worth most when
// there is no end of any piece: the guillotine knapsack of Gilmore and Gomory
// ("Multistage cutting stock problems of two and more dimensions", 1965). Cuts
// are tried where sums of sides lie (the normal patterns of Herz, "Recursive
// computational procedure for two-dimensional stock cutting", 1972); no other
// cut gives more. What it finds is exact, so no filling of the real pieces is
// worth more than it.
type knapsack struct {
	xs, ys       []int64   // sums of sides, in nm
	toX, toY     [][]int32 // what goes beside each part of a room; see rests
	single       [][]int32 // by x and y: the pieces of that size, as 2·piece + turned
	at           []int32   // which of single a room has of its own, −1 for none
	value, turnd []float64 // by y, x and by x, y
	choice       []int32
}

// mostSums is the most sums of sides along one side of a sheet; with more the
// rooms are too many to go through.
const mostSums = 640

// newKnapsack readies a kind of sheet; nil when there are too many sums.
func (s *searcher) newKnapsack(kind int) *knapsack {
	k := &knapsack{}
	room := s.rooms[kind]
	var wide, high []int64
	for i, p := range s.job.Pieces {
		w, h := int64(s.w[i]), int64(s.h[i])
		wide, high = append(wide, w), append(high, h)
		if p.Turn {
			wide, high = append(wide, h), append(high, w)
		}
	}
	if k.xs = sums(wide, int64(room[0])); k.xs == nil {
		return nil
	}
	if k.ys = sums(high, int64(room[1])); k.ys == nil {
		return nil
	}
	k.toX, k.toY = rests(k.xs), rests(k.ys)
	n := len(k.xs) * len(k.ys)
	k.value, k.turnd, k.choice, k.at = make([]float64, n), make([]float64, n), make([]int32, n), make([]int32, n)
	for i := range k.at {
		k.at[i] = -1
	}
	for i, p := range s.job.Pieces {
		k.put(int64(s.w[i]), int64(s.h[i]), int32(2*i))
		if p.Turn {
			k.put(int64(s.h[i]), int64(s.w[i]), int32(2*i+1))
		}
	}
	return k
}

// put notes a piece at the room of its own size.
func (k *knapsack) put(w, h int64, piece int32) {
	x, foundX := slices.BinarySearch(k.xs, w)
	y, foundY := slices.BinarySearch(k.ys, h)
	if !foundX || !foundY {
		return // larger than the sheet
	}
	i := x*len(k.ys) + y
	if k.at[i] < 0 {
		k.at[i] = int32(len(k.single))
		k.single = append(k.single, nil)
	}
	k.single[k.at[i]] = append(k.single[k.at[i]], piece)
}

// sums gives every sum of sides up to a room, in order; nil when there are too
// many, or none.
func sums(sides []int64, room int64) []int64 {
	slices.Sort(sides)
	seen := map[int64]bool{}
	all := []int64{0}
	for i := 0; i < len(all); i++ {
		for _, s := range sides {
			t := all[i] + s
			if t > room {
				break
			}
			if !seen[t] {
				if seen[t] = true; len(seen) > mostSums {
					return nil
				}
				all = append(all, t)
			}
		}
	}
	if len(all) == 1 {
		return nil
	}
	slices.Sort(all)
	return all[1:]
}

// rests gives, for each sum and each of at most its half, the largest sum that
// goes beside that.
func rests(all []int64) [][]int32 {
	out := make([][]int32, len(all))
	for i, whole := range all {
		for _, part := range all {
			if 2*part > whole {
				break
			}
			at, found := slices.BinarySearch(all, whole-part)
			if !found {
				at--
			}
			out[i] = append(out[i], int32(at))
		}
	}
	return out
}

// What a room's choice means; a piece is stored as it is in single.
const (
	nothing  = -1
	narrower = -2 // the same as the next narrower room
	lower    = -3
	cutX     = -10     // and less by twice the sum where it is cut
	cutY     = -10 - 1 // likewise
)

// fill goes through all rooms for the pieces' values, and gives what the whole
// sheet is worth. It gives false when it was told to stop.
func (k *knapsack) fill(value []float64, stop func() bool) (float64, bool) {
	high, wide := len(k.ys), len(k.xs)
	for x := range k.xs {
		if stop() {
			return 0, false
		}
		for y := range k.ys {
			best, choice := 0.0, int32(nothing)
			i := x*high + y
			if x > 0 {
				if v := k.turnd[i-high]; v > best {
					best, choice = v, narrower
				}
			}
			if y > 0 {
				if v := k.turnd[i-1]; v > best {
					best, choice = v, lower
				}
			}
			if own := k.at[i]; own >= 0 {
				for _, p := range k.single[own] {
					if v := value[p/2]; v > best {
						best, choice = v, p
					}
				}
			}
			row := k.value[y*wide : y*wide+x]
			for a, b := range k.toX[x] {
				if v := row[a] + row[b]; v > best+epsilon {
					best, choice = v, cutX-2*int32(a)
				}
			}
			column := k.turnd[x*high : i]
			for a, b := range k.toY[y] {
				if v := column[a] + column[b]; v > best+epsilon {
					best, choice = v, cutY-2*int32(a)
				}
			}
			k.turnd[i], k.value[y*wide+x], k.choice[i] = best, best, choice
		}
	}
	return k.turnd[len(k.turnd)-1], true
}

// unpack gives the filling that was found for a room.
func (s *searcher) unpack(k *knapsack, x, y int) *strip {
	switch c := k.choice[x*len(k.ys)+y]; {
	case c >= 0:
		return s.one(int(c/2), c%2 == 1)
	case c == narrower:
		return s.unpack(k, x-1, y)
	case c == lower:
		return s.unpack(k, x, y-1)
	case c == nothing:
		return nil
	case c%2 == 0:
		a := int((cutX - c) / 2)
		return pair(true, s.unpack(k, a, y), s.unpack(k, int(k.toX[x][a]), y))
	default:
		a := int((cutY - c) / 2)
		return pair(false, s.unpack(k, x, a), s.unpack(k, x, int(k.toY[y][a])))
	}
}

// pair groups two strips, either of which may be nothing.
func pair(across bool, a, b *strip) *strip {
	switch {
	case a == nil:
		return b
	case b == nil:
		return a
	}
	return group(across, []*strip{a, b})
}

// quickColumns is how often columns are sought by trial before they are sought
// exactly, where that takes long.
const quickColumns = 40

// quickRooms is how many rooms a sheet has at most for which the exact search is the quicker one.
const quickRooms = 20_000

// prove proves a least cost by columns: fillings are added to a linear program
// of fillings, in each of which any piece may come any number of times, until
// none is worth more than its sheet costs. They are sought by values between the best so far
// and those of now, and where that finds nothing by those of now. Whatever the values of the pieces
// are on the way, the pieces' worth at them divided by the most that a sheet
// gives for its price is a cost that no layout goes below (Farley, "A note on
// bounding a class of linear programming problems", 1990). Sheets that cost
// nothing make it prove nothing. It starts from the columns of another master,
// which it gives what it finds, and ends when told, or when no better bound is
// to be had.
func (s *searcher) prove(from *master, stop func() bool) (cost float64) {
	sacks := make([]*knapsack, len(s.rooms))
	for kind := range s.rooms {
		if sacks[kind] = s.newKnapsack(kind); sacks[kind] == nil || s.price[kind] <= 0 {
			return 0
		}
	}
	m := &master{columns: slices.Clone(from.columns), whole: true}
	had, copies := len(m.columns), s.job.copies()
	defer func() { from.columns = append(from.columns, m.columns[had:]...) }()
	m.restart(copies, s.rng.Float64)
	var centre []float64
	tries := 0
	for _, sack := range sacks {
		if len(sack.choice) > quickRooms {
			tries = quickColumns
		}
	}
	for !stop() {
		m.solve(stop)
		if tries > 0 { // by trial first, which is quick
			if tries--; s.seekColumns(m, copies, retries, stop) {
				continue
			}
			tries = 0
		}
		worth := 0.0
		for i, n := range copies {
			worth += m.value[i] * float64(n)
		}
		added := false
		for _, value := range [][]float64{between(centre, m.value), m.value} {
			if value == nil {
				continue
			}
			most, here := 0.0, 0.0
			for i, n := range copies {
				here += value[i] * float64(n)
			}
			for kind, sack := range sacks {
				v, ok := sack.fill(value, stop)
				if !ok {
					return cost
				}
				most = max(most, v/s.price[kind])
				c := s.column(sheetUse{kind: kind, root: s.unpack(sack, len(sack.xs)-1, len(sack.ys)-1)})
				if m.worth(&c) > s.price[kind]+1e-6 {
					m.columns, added = append(m.columns, c), true
				}
			}
			if proved := here / max(most, 1); proved > cost {
				cost, centre = proved, slices.Clone(value)
			}
			if added {
				break
			}
		}
		if !added || s.rounded(worth) <= s.rounded(cost)+epsilon {
			break
		}
	}
	return cost
}

// settled is how much of the values that proved most so far is in those that fillings are sought by: the
// linear program's own jump about, and most of what is found by them is of no use later (Wentges, "Weighted
// Dantzig-Wolfe decomposition for linear mixed-integer programming", 1997).
const settled = 0.8

// between lies so between the values that proved most and those of now; nil without the first.
func between(a, b []float64) []float64 {
	if a == nil {
		return nil
	}
	out := make([]float64, len(a))
	for i := range a {
		out[i] = settled*a[i] + (1-settled)*b[i]
	}
	return out
}

// rounded is a proved cost raised to whole sheets where all are of one kind.
func (s *searcher) rounded(cost float64) float64 {
	if len(s.price) != 1 {
		return cost
	}
	return math.Ceil(cost/s.price[0]-1e-6) * s.price[0]
}
