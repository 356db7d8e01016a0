package desk

import (
	"context"
	"math/rand/v2"

	"brevium/core/fault"
	"brevium/store/scope"
)

// NewNumber is a number for a new row: of one maker's the next, of a workshop's any, so that
// those of others cannot be guessed.
func (d Desk) NewNumber() any {
	if d.Asker == scope.Alone {
		return nil
	}
	return rand.Int64N(1<<52) + 1
}

// Most is how many rows of a table one has in a workshop, those in the bin among them.
var Most = map[string]int{"boxes": 2000, "jobs": 300, "things": 500, "notes": 5000}

// count is how many rows of a table the asker has.
func (d Desk) count(ctx context.Context, tx *scope.Tx, table string) (n int, err error) {
	err = tx.Get(ctx, &n, scope.Own.SQL(`SELECT count(*) FROM `+table+` WHERE {whose}`))
	return n, err
}

// RoomFor refuses one more row where the asker has as many as one may.
func (d Desk) RoomFor(ctx context.Context, tx *scope.Tx, table string) error {
	if d.Asker <= 0 {
		return nil
	}
	n, err := d.count(ctx, tx, table)
	if err != nil {
		return err
	}
	if n >= Most[table] {
		return fault.New(fault.TooLarge, "", "You have %d %s, as many as one has in a workshop. Delete some for good to make room.", n, table)
	}
	return nil
}

// HasRoom refuses what made the asker's rows more than one may have.
func (d Desk) HasRoom(ctx context.Context, tx *scope.Tx) error {
	if d.Asker <= 0 {
		return nil
	}
	for table, may := range Most {
		n, err := d.count(ctx, tx, table)
		if err != nil {
			return err
		}
		if n > may {
			return fault.New(fault.TooLarge, "file", "With these you would have %d %s, and one has up to %d in a workshop. Nothing was taken.", n, table, may)
		}
	}
	return nil
}
