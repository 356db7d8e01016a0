package layout

import "math"

// column is one filling of a sheet, and how often it holds each piece.
type column struct {
	use    sheetUse
	pieces []int32
	counts []float64
	cost   float64
}

// master is the linear program of Gilmore and Gomory ("A linear programming
// approach to the cutting stock problem", 1961): how often to cut each column
// so that every piece is cut often enough at least cost. It is solved by the
// revised simplex method with an explicit inverse of the basis. The values of
// its rows say what one more copy of each piece is worth, which is what new
// columns are sought by.
type master struct {
	columns []column
	limit   []float64 // how many copies of each piece are wanted
	basis   []int     // by row: a column, or −1−i for a surplus of piece i
	inverse [][]float64
	x       []float64 // by row: how often the basis column is cut
	value   []float64 // by piece
	whole   bool      // columns count with all they hold, wanted or not
}

// epsilon is what counts as nothing in the simplex method.
const epsilon = 1e-9

// restart sets the wanted copies and starts from the first columns, of which
// the nth holds copies of piece n alone. The copies are changed a little, each
// otherwise, so that no two choices tie.
func (m *master) restart(wanted []int, stir func() float64) {
	n := len(wanted)
	m.limit, m.basis, m.inverse = make([]float64, n), make([]int, n), make([][]float64, n)
	m.x, m.value = make([]float64, n), make([]float64, n)
	for i, w := range wanted {
		m.limit[i] = float64(w)
		m.basis[i] = i
		m.inverse[i] = make([]float64, n)
		k := max(1, m.amount(&m.columns[i], 0))
		m.inverse[i][i] = 1 / k
		m.x[i] = (m.limit[i] + 1e-6*stir()) / k
	}
}

// amount is how many copies of its nth piece a column gives: no more than are
// wanted, unless the master counts whole columns.
func (m *master) amount(c *column, n int) float64 {
	if m.whole {
		return c.counts[n]
	}
	return min(c.counts[n], m.limit[c.pieces[n]])
}

// worth is what a column's pieces are worth together.
func (m *master) worth(c *column) float64 {
	sum := 0.0
	for n, p := range c.pieces {
		sum += m.value[p] * m.amount(c, n)
	}
	return sum
}

// cost of a basis entry.
func (m *master) cost(b int) float64 {
	if b < 0 {
		return 0
	}
	return m.columns[b].cost
}

// solve pivots until no column is worth more than its cost, and gives the
// cost of the solution. It stops early when told; the values then are those
// of a worse solution.
func (m *master) solve(stop func() bool) float64 {
	n := len(m.basis)
	way := make([]float64, n)
	for round := 0; round < 50*n+1000; round++ {
		if round%16 == 15 && stop() {
			break
		}
		clear(m.value)
		for r, b := range m.basis {
			if c := m.cost(b); c != 0 {
				for i, v := range m.inverse[r] {
					m.value[i] += c * v
				}
			}
		}
		enter, gain, found := 0, -epsilon, false
		for i := range m.columns {
			if g := m.columns[i].cost - m.worth(&m.columns[i]); g < gain {
				enter, gain, found = i, g, true
			}
		}
		for i, v := range m.value {
			if v < gain {
				enter, gain, found = -1-i, v, true
			}
		}
		if !found || !m.pivot(enter, way) {
			break
		}
	}
	total := 0.0
	for r, b := range m.basis {
		total += m.cost(b) * m.x[r]
	}
	return total
}

// pivot brings a column into the basis for the one that is used up first.
func (m *master) pivot(enter int, way []float64) bool {
	clear(way)
	add := func(piece int, amount float64) {
		for r := range way {
			way[r] += m.inverse[r][piece] * amount
		}
	}
	if enter < 0 {
		add(-1-enter, -1)
	} else {
		c := &m.columns[enter]
		for n, p := range c.pieces {
			add(int(p), m.amount(c, n))
		}
	}
	leave, most := -1, math.Inf(1)
	for r, w := range way {
		if w > epsilon && m.x[r]/w < most {
			leave, most = r, m.x[r]/w
		}
	}
	if leave < 0 {
		return false
	}
	row := m.inverse[leave]
	for i := range row {
		row[i] /= way[leave]
	}
	for r, w := range way {
		if r == leave || w == 0 {
			continue
		}
		for i, v := range row {
			m.inverse[r][i] -= w * v
		}
		m.x[r] = max(0, m.x[r]-w*most)
	}
	m.x[leave], m.basis[leave] = most, enter
	return true
}
