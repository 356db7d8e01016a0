package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/scope"
)

// Binned is something that was deleted and can be brought back.
type Binned struct {
	Sort    desk.Sort
	ID      int64
	Name    string
	Deleted time.Time
}

// Bin lists what was deleted, the latest first.
func (d *Desk) Bin(ctx context.Context) ([]Binned, error) {
	type row struct {
		Sort    desk.Sort
		ID      int64
		Name    string
		Deleted int64
	}
	return desk.RowsOf(ctx, d.at, func(r row) (Binned, error) {
		return Binned{r.Sort, r.ID, r.Name, time.UnixMilli(r.Deleted)}, nil
	}, scope.Own.SQL(`
		SELECT 'box' AS sort, id, name, deleted_at AS deleted FROM boxes WHERE deleted_at IS NOT NULL AND {whose}
		UNION ALL SELECT 'job', id, name, deleted_at FROM jobs WHERE deleted_at IS NOT NULL AND {whose}
		UNION ALL SELECT 'thing', id, json_extract(thing, '$.name'), deleted_at FROM things WHERE deleted_at IS NOT NULL AND {whose}
		UNION ALL SELECT 'paper', id, binned || ' × ' || card || CASE sheet WHEN '' THEN '' ELSE ', ' || sheet END, deleted_at
			FROM lots WHERE deleted_at IS NOT NULL AND {table}
		ORDER BY 4 DESC, 1, 2`))
}

// BinnedBox is the name of a box in the bin; ErrNotFound when it is not there.
func (d *Desk) BinnedBox(ctx context.Context, id int64) (name string, err error) {
	err = d.at.Get(ctx, &name, scope.Own.SQL(`SELECT name FROM boxes WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`), id)
	return name, desk.Found(err, desk.NoBox)
}

// Delete puts a box into the bin.
func (d *Desk) Delete(ctx context.Context, id int64) error {
	return desk.One(desk.NoBox)(d.at.Do(ctx, scope.Own.SQL(`UPDATE boxes SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL AND {whose}`), d.s.now().UnixMilli(), id))
}

// DeleteBoxes puts boxes into the bin, and gives the numbers of those that were not there yet; of
// somebody else's it takes none.
func (d *Desk) DeleteBoxes(ctx context.Context, ids []int64) (gone []int64, err error) {
	return d.manyBoxes(ctx, ids,
		scope.Own.SQL(`SELECT id FROM boxes WHERE id IN (SELECT value FROM json_each(?)) AND deleted_at IS NULL AND {whose} ORDER BY id`),
		scope.Own.SQL(`UPDATE boxes SET deleted_at = ? WHERE id IN (SELECT value FROM json_each(?)) AND {whose}`), d.s.now().UnixMilli())
}

// BringBoxes takes boxes out of the bin, and gives the numbers of those that were there.
func (d *Desk) BringBoxes(ctx context.Context, ids []int64) (back []int64, err error) {
	return d.manyBoxes(ctx, ids,
		scope.Own.SQL(`SELECT id FROM boxes WHERE id IN (SELECT value FROM json_each(?)) AND deleted_at IS NOT NULL AND {whose} ORDER BY id`),
		scope.Own.SQL(`UPDATE boxes SET deleted_at = ? WHERE id IN (SELECT value FROM json_each(?)) AND {whose}`), nil)
}

// manyBoxes finds boxes of some by one statement, and changes them by another that is given a value.
func (d *Desk) manyBoxes(ctx context.Context, ids []int64, find, change scope.Statement, value any) (changed []int64, err error) {
	if err := boxshelf.CheckChosen(ids); err != nil {
		return nil, err
	}
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		if err := tx.All(ctx, &changed, find, boxshelf.Listed(ids)); err != nil {
			return err
		}
		_, err := tx.Do(ctx, change, value, boxshelf.Listed(changed))
		return err
	})
	return changed, err
}

// DeleteJob puts a job into the bin. One that is begun has sheets reserved and
// is refused.
func (d *Desk) DeleteJob(ctx context.Context, id int64) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		var state jobbook.State
		err := tx.Get(ctx, &state, scope.Own.SQL(`SELECT state FROM jobs WHERE id = ? AND deleted_at IS NULL AND {whose}`), id)
		if err == nil && state == jobbook.Begun {
			err = fault.New(fault.InUse, "", "This job is begun and has its sheets set aside; take it back to planning first.")
		}
		if err != nil {
			return desk.Found(err, desk.NoJob)
		}
		return desk.One(desk.NoJob)(tx.Do(ctx, scope.Held.SQL(`UPDATE jobs SET deleted_at = ? WHERE id = ?`), d.s.now().UnixMilli(), id))
	})
}

// DropThing puts a kept thing into the bin. Boxes that hold it keep theirs.
func (d *Desk) DropThing(ctx context.Context, id int64) error {
	return desk.One(boxshelf.NoThing)(d.at.Do(ctx, scope.Own.SQL(`UPDATE things SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL AND {whose}`), d.s.now().UnixMilli(), id))
}

// back tells how each sort is brought back, and for good how it is forgotten.
var back = map[desk.Sort]scope.Statement{
	desk.BoxSort:   scope.Own.SQL(`UPDATE boxes SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`),
	desk.JobSort:   scope.Own.SQL(`UPDATE jobs SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`),
	desk.ThingSort: scope.Own.SQL(`UPDATE things SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`),
	desk.PaperSort: scope.Table.SQL(`UPDATE lots SET count = binned, binned = 0, deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`),
}

// Paper that a job took is part of that job's record, so its row stays.
var forGood = map[desk.Sort]scope.Statement{
	desk.BoxSort:   scope.Own.SQL(`DELETE FROM boxes WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`),
	desk.JobSort:   scope.Own.SQL(`DELETE FROM jobs WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`),
	desk.ThingSort: scope.Own.SQL(`DELETE FROM things WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`),
	desk.PaperSort: scope.Table.SQL(`UPDATE lots SET binned = 0, deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL AND {whose}`),
}

// BringBack takes something out of the bin, as it was.
func (d *Desk) BringBack(ctx context.Context, sort desk.Sort, id int64) error {
	return d.fromBin(ctx, back, sort, id)
}

// Forget deletes something in the bin for good. A box that a job makes stays.
func (d *Desk) Forget(ctx context.Context, sort desk.Sort, id int64) error {
	if sort == desk.BoxSort {
		job, err := d.JobWith(ctx, id)
		if err != nil {
			return err
		}
		if job != "" {
			return fault.New(fault.InUse, "", "The job “%s” makes this box; it stays in the bin as long as the job is there.", job)
		}
	}
	return d.fromBin(ctx, forGood, sort, id)
}

func (d *Desk) fromBin(ctx context.Context, how map[desk.Sort]scope.Statement, sort desk.Sort, id int64) error {
	statement, known := how[sort]
	if !known {
		return desk.Absent(fmt.Sprintf("%q in the bin", sort))
	}
	return desk.One(desk.Absent(sort))(d.at.Do(ctx, statement, id))
}

// EmptyBin deletes all that is in the bin for good but boxes that jobs make,
// and tells how many of those stay.
func (d *Desk) EmptyBin(ctx context.Context) (stay int, err error) {
	all, err := d.Bin(ctx)
	if err != nil {
		return 0, err
	}
	// Jobs first: a box may be there for one of them only.
	slices.SortStableFunc(all, func(a, b Binned) int { return strings.Compare(string(b.Sort), string(a.Sort)) })
	for _, b := range all {
		err := d.Forget(ctx, b.Sort, b.ID)
		switch {
		case err != nil && fault.Of(err).Code == fault.InUse:
			stay++
		case err != nil:
			return stay, err
		}
	}
	return stay, nil
}

// JobWith is the name of a job, of whomever, that makes a box; "" for none.
func (d *Desk) JobWith(ctx context.Context, box int64) (name string, err error) {
	err = d.at.Get(ctx, &name, scope.Workshop.SQL(`SELECT name FROM jobs j WHERE EXISTS (SELECT 1 FROM json_each(j.items) i WHERE i.value ->> 'box' = ?) ORDER BY id LIMIT 1`), box)
	if errors.Is(err, sql.ErrNoRows) {
		err = nil
	}
	return name, err
}
