package contents

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/measure"
)

// Per says what gets a cell of its own.
type Per string

// Things share the box, or each kind, or each single thing has its cell.
const (
	Together Per = ""
	PerKind  Per = "kind"
	PerThing Per = "thing"
)

// Parting is what parts cells from one another and from the box.
type Parting struct {
	Per Per
	// Between is what stands between neighbouring cells, Edge between the
	// outer ones and the box.
	Between, Edge measure.Length
	// Wall is what each cell's own walls take along its length and width, both
	// sides together, and Floor what lies under the things.
	WallLength, WallWidth, Floor measure.Length
	// What names the parting in the account: "dividers".
	What string
	// Bands: cells need not be a full grid.
	Bands bool
	// Tick, when set, rounds each cell's outer size up so that a tray of
	// this Card has its scores on the tick.
	Tick measure.Tick
	Card measure.Length
}

// Limits of the search for cells.
const (
	mostColumns = 20
	mostWays    = 12 // ways of one kind to stand in its cell
	mostPasses  = 6
)

// cellPlan is cells in columns and rows: item n of order is in column
// n % columns, row n / columns. way is how each kind stands.
type cellPlan struct {
	things        []Thing
	ways          [][]*block // by kind
	way           []int      // by kind
	order         []int      // kinds
	columns, rows int
	parting       Parting
}

// Divided gives arrangements with a cell for each thing or each kind, for
// every number of columns: cells in one row are equally deep and cells in one
// column equally wide, as slotted strips make them. Every cell holds what
// stands in it with that thing's own margins. Which thing goes where and how
// it stands is improved by exchanges, cell by cell, until none makes the hull
// smaller.
func Divided(things []Thing, p Parting) []Arrangement {
	base := cellPlan{things: things, way: make([]int, len(things)), parting: p}
	for i, t := range things {
		count, cells := t.Count, 1
		if p.Per == PerThing {
			count, cells = 1, t.Count
		}
		all := stands(i, t, count)
		base.ways = append(base.ways, all[:min(len(all), mostWays)])
		for range cells {
			base.order = append(base.order, i)
		}
	}
	// Deep things share rows.
	slices.SortStableFunc(base.order, func(a, b int) int {
		return cmp.Compare(base.ways[b][0].w, base.ways[a][0].w)
	})
	n := len(base.order)
	var out []Arrangement
	for c := 1; c <= min(n, mostColumns); c++ {
		r := (n + c - 1) / c
		if r > mostColumns || c > 1 && (c-1)*r >= n {
			continue
		}
		plan := base
		plan.columns, plan.rows = c, r
		plan.way, plan.order = slices.Clone(base.way), slices.Clone(base.order)
		plan.improve()
		out = append(out, plan.arrangement())
	}
	if p.Bands {
		out = append(out, banded(base)...)
	}
	slices.SortStableFunc(out, func(a, b Arrangement) int {
		half := func(x Arrangement) float64 { return (&block{l: x.Length, w: x.Width, h: x.Height}).surface() }
		return cmp.Compare(half(a), half(b))
	})
	return out
}

// room is what kind k takes in its cell, its margins included.
func (c *cellPlan) room(k int) (l, w, h measure.Length) {
	b, m := c.ways[k][c.way[k]], c.things[k].margin()
	all := m.ease + m.padding
	l, w, h = b.l+all+m.finger+c.parting.WallLength, b.w+all+c.parting.WallWidth, b.h+all
	if t := c.parting.Card; c.parting.Tick > 0 {
		l, w = measure.Up(l-t, c.parting.Tick)+t, measure.Up(w-t, c.parting.Tick)+t
	}
	return l, w, h
}

// sizes gives the columns' widths, the rows' depths and the height.
func (c *cellPlan) sizes() (columns, rows []measure.Length, height measure.Length) {
	columns, rows = make([]measure.Length, c.columns), make([]measure.Length, c.rows)
	for n, k := range c.order {
		l, w, h := c.room(k)
		columns[n%c.columns] = max(columns[n%c.columns], l)
		rows[n/c.columns] = max(rows[n/c.columns], w)
		height = max(height, h)
	}
	return columns, rows, height + c.parting.Floor
}

func sum(all []measure.Length) measure.Length {
	total := measure.Length(0)
	for _, l := range all {
		total += l
	}
	return total
}

func (c *cellPlan) cost() float64 {
	columns, rows, h := c.sizes()
	return (&block{l: sum(columns), w: sum(rows), h: h}).surface()
}

// improve exchanges the things of two cells, and tries the other ways of each
// kind to stand, as long as that makes the hull smaller.
func (c *cellPlan) improve() {
	best := c.cost()
	for range mostPasses {
		before := best
		for k := range c.ways {
			kept := c.way[k]
			for w := range c.ways[k] {
				c.way[k] = w
				if cost := c.cost(); cost < best {
					best, kept = cost, w
				}
			}
			c.way[k] = kept
		}
		for i := range c.order {
			for j := range i {
				if c.order[i] == c.order[j] {
					continue
				}
				c.order[i], c.order[j] = c.order[j], c.order[i]
				if cost := c.cost(); cost < best {
					best = cost
				} else {
					c.order[i], c.order[j] = c.order[j], c.order[i]
				}
			}
		}
		if best == before {
			return
		}
	}
}

func (c *cellPlan) arrangement() Arrangement {
	columns, rows, h := c.sizes()
	p := c.parting
	a := Arrangement{ID: fmt.Sprintf("cells-%dx%d", c.columns, c.rows), Columns: columns, Rows: rows}
	a.Account = []Line{{"the cells, with room to spare", sum(columns), sum(rows), h - p.Floor}}
	between := Line{p.What + " between them", measure.Length(c.columns-1) * p.Between, measure.Length(c.rows-1) * p.Between, 0}
	if between.Length+between.Width > 0 {
		a.Account = append(a.Account, between)
	}
	if p.Edge > 0 {
		a.Account = append(a.Account, Line{"at the edges", 2 * p.Edge, 2 * p.Edge, 0})
	}
	if p.Floor > 0 {
		a.Account = append(a.Account, Line{"their floor", 0, 0, p.Floor})
	}
	a.total()
	for n, k := range c.order {
		a.Cells = append(a.Cells, Cell{Name: c.things[k].Name, Thing: k, Column: n % c.columns, Row: n / c.columns})
		a.Layers = max(a.Layers, c.ways[k][c.way[k]].layers)
	}
	a.settle(p)
	blocks := make([]*block, len(c.order))
	for n, k := range c.order {
		blocks[n] = c.ways[k][c.way[k]]
	}
	a.fill(blocks)
	return a
}

// settle places the cells by their columns and rows.
func (a *Arrangement) settle(p Parting) {
	for i := range a.Cells {
		cell := &a.Cells[i]
		at := func(sizes []measure.Length, n int) measure.Length {
			return p.Edge + sum(sizes[:n]) + measure.Length(n)*p.Between
		}
		columns := a.Columns
		if len(a.Bands) > 0 {
			columns = a.Bands[cell.Row]
		}
		cell.X, cell.Length = at(columns, cell.Column), columns[cell.Column]
		cell.Y, cell.Width = at(a.Rows, cell.Row), a.Rows[cell.Row]
	}
}

// fill stands each block in the middle of its cell.
func (a *Arrangement) fill(blocks []*block) {
	a.Spots = nil
	for n, cell := range a.Cells {
		b := blocks[n]
		a.Spots = b.place(a.Spots, cell.X+(cell.Length-b.l)/2, cell.Y+(cell.Width-b.w)/2)
	}
}

// Spread gives the room that rounding left over to the cells, evenly, so that
// cells and partings make up exactly the given inside: what is clear within
// any linings. Without cells only the account is told.
func (a Arrangement) Spread(p Parting, length, width, height measure.Length) Arrangement {
	over := Line{
		"left over by rounding to the board's grooves",
		length + a.linings.Length - a.Length,
		width + a.linings.Width - a.Width,
		height + a.linings.Height - a.Height,
	}
	if over.Length != 0 || over.Width != 0 || over.Height != 0 {
		a.Account = append(slices.Clone(a.Account), over)
	}
	a.Length, a.Width, a.Height = length, width, height
	if len(a.Cells) == 0 {
		return a
	}
	old := slices.Clone(a.Cells)
	a.Rows = widened(a.Rows, over.Width)
	if len(a.Bands) == 0 {
		a.Columns = widened(a.Columns, over.Length)
	}
	a.Bands = slices.Clone(a.Bands)
	for i, cells := range a.Bands {
		a.Bands[i] = widened(cells, over.Length)
	}
	a.Cells, a.Spots = slices.Clone(a.Cells), slices.Clone(a.Spots)
	a.settle(p)
	for i, s := range a.Spots {
		for n, c := range old {
			if s.X >= c.X && s.X < c.X+c.Length && s.Y >= c.Y && s.Y < c.Y+c.Width {
				now := a.Cells[n]
				a.Spots[i].X += now.X - c.X + (now.Length-c.Length)/2
				a.Spots[i].Y += now.Y - c.Y + (now.Width-c.Width)/2
				break
			}
		}
	}
	return a
}

// widened shares more among sizes; the last takes what does not divide.
func widened(sizes []measure.Length, more measure.Length) []measure.Length {
	out := slices.Clone(sizes)
	n := measure.Length(len(out))
	for i := range out {
		out[i] += more / n
	}
	out[len(out)-1] += more % n
	return out
}

// Within adds what linings take to the account; the things stay where they
// are in what is left.
func (a Arrangement) Within(linings []Line) Arrangement {
	a.Account = append(slices.Clone(a.Account), linings...)
	for _, l := range linings {
		a.linings.Length, a.linings.Width, a.linings.Height = a.linings.Length+l.Length, a.linings.Width+l.Width, a.linings.Height+l.Height
	}
	a.total()
	return a
}
