package contents

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/measure"
)

// Limits of the search for bands.
const (
	mostBands     = 5    // of one kind
	mostBandWays  = 6    // ways of one kind to stand that are tried
	mostBandTries = 4096 // of all kinds together
	mostBanded    = 6    // arrangements that are given
)

// band is one kind's cells in some bands behind one another: how it stands, and
// how many cells are in each.
type band struct {
	kind, bands, columns int
	block                *block
	cell                 [3]measure.Length
}

// banded gives arrangements in which every kind has bands of cells of its own
// across the whole length, one long cell or several small ones: strips from end
// to end part the bands, and short ones that end in them the cells. Of every way
// to share out the bands the one of least surface is given.
func banded(base cellPlan) []Arrangement {
	if base.parting.Per != PerThing || len(base.things) < 2 {
		return nil
	}
	choices := make([][]band, len(base.things))
	tries := 1
	for k, t := range base.things {
		for q := 1; q <= min(t.Count, mostBands); q++ {
			columns := (t.Count + q - 1) / q
			if columns*(q-1) >= t.Count || columns > mostColumns {
				continue
			}
			for w := range min(len(base.ways[k]), mostBandWays) {
				base.way[k] = w
				l, wide, h := base.room(k)
				choices[k] = append(choices[k], band{k, q, columns, base.ways[k][w], [3]measure.Length{l, wide, h}})
			}
		}
		if tries *= len(choices[k]); tries > mostBandTries {
			return nil // with so many kinds a grid is as good
		}
	}
	best := map[string]Arrangement{}
	surface := func(a Arrangement) float64 { return (&block{l: a.Length, w: a.Width, h: a.Height}).surface() }
	chosen := make([]band, len(choices))
	var choose func(k int)
	choose = func(k int) {
		if k == len(choices) {
			a := bandedOf(base, chosen)
			if old, there := best[a.ID]; !there || surface(a) < surface(old) {
				best[a.ID] = a
			}
			return
		}
		for _, b := range choices[k] {
			chosen[k] = b
			choose(k + 1)
		}
	}
	choose(0)
	var out []Arrangement
	for _, a := range best {
		out = append(out, a)
	}
	slices.SortFunc(out, func(a, b Arrangement) int {
		return cmp.Or(cmp.Compare(surface(a), surface(b)), cmp.Compare(a.ID, b.ID))
	})
	return out[:min(len(out), mostBanded)]
}

// bandedOf lays the chosen bands behind one another.
func bandedOf(base cellPlan, chosen []band) Arrangement {
	p := base.parting
	a := Arrangement{ID: "bands"}
	var blocks []*block
	height, length := measure.Length(0), measure.Length(0)
	for _, b := range chosen {
		a.ID += fmt.Sprintf("-%d", b.bands)
		left := base.things[b.kind].Count
		for range b.bands {
			n := min(b.columns, left)
			left -= n
			cells := make([]measure.Length, n)
			for i := range cells {
				cells[i] = b.cell[0]
				a.Cells = append(a.Cells, Cell{Name: base.things[b.kind].Name, Thing: b.kind, Column: i, Row: len(a.Rows)})
				blocks = append(blocks, b.block)
			}
			a.Bands, a.Rows = append(a.Bands, cells), append(a.Rows, b.cell[1])
			length = max(length, sum(cells)+measure.Length(n-1)*p.Between)
		}
		a.Layers = max(a.Layers, b.block.layers)
		height = max(height, b.cell[2])
	}
	for i, cells := range a.Bands {
		a.Bands[i] = widened(cells, length-sum(cells)-measure.Length(len(cells)-1)*p.Between)
	}
	most := 0
	for _, cells := range a.Bands {
		most = max(most, len(cells))
	}
	between := Line{p.What + " between them", measure.Length(most-1) * p.Between, measure.Length(len(a.Rows)-1) * p.Between, 0}
	a.Account = []Line{{"the cells, with room to spare", length - between.Length, sum(a.Rows), height}, between}
	a.total()
	a.settle(p)
	a.fill(blocks)
	return a
}
