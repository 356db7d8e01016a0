package batch

import (
	"context"
	"math"
	"slices"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/recipe"
)

// MostPeople is the largest class.
const MostPeople = 200

// Kits are what a class needs that makes one of each box: a bag for everyone, and for
// each table the sheets that its bags and spares are cut from.
type Kits struct {
	People, Tables int
	// PerTable is how many sit at the fullest table, and Spare how many bags' pieces
	// more are cut for it.
	PerTable, Spare int
	Bag             []Packed
	Supplies        []recipe.Supply // in one bag
	Stocks          []Stock         // of one table, laid out
}

// Packed is what goes into a bag: so many of a blank of a box.
type Packed struct {
	Box, Piece string
	Blank      design.Blank
	Made       recipe.Telling // the unit and the board its box is made in
}

// MakeKits works the kits out: spare is how many percent more pieces are cut, at least
// one bag's for a table when it is more than none.
func MakeKits(ctx context.Context, items []Item, lots []drawer.Lot, people, tables int, spare float64) (*Kits, error) {
	switch {
	case people < 1 || people > MostPeople:
		return nil, fault.New(fault.CountRange, "people", "a class has 1 to %d people", MostPeople)
	case tables < 1 || tables > people:
		return nil, fault.New(fault.CountRange, "tables", "there are as many tables as people at most, and one at least")
	case !(spare >= 0 && spare <= 100):
		return nil, fault.New(fault.OutOfRange, "spare", "0 to 100 percent are spare")
	}
	k := &Kits{People: people, Tables: tables, PerTable: (people + tables - 1) / tables}
	k.Spare = int(math.Ceil(float64(k.PerTable)*spare/100 - 1e-9))
	each := slices.Clone(items)
	for i := range each {
		r := each[i].Made
		if r == nil {
			return nil, fault.New(fault.Invalid, "items", "%s is not worked out", each[i].Inputs.Name)
		}
		each[i].Copies = k.PerTable + k.Spare
		for _, b := range r.Blanks {
			k.Bag = append(k.Bag, Packed{r.Inputs.Name, r.PieceName(b.ID), b, r.Telling()})
		}
		for _, s := range r.Supplies {
			s.Amount /= float64(max(1, r.Inputs.Copies))
			k.Supplies = append(k.Supplies, s)
		}
	}
	var err error
	if k.Stocks, err = Gather(ctx, each, lots, Choices{}); err != nil {
		return nil, err
	}
	for i := range k.Stocks {
		if err := k.Stocks[i].Lay(ctx, Quick); err != nil {
			return nil, err
		}
	}
	return k, nil
}
