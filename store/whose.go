package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"math/rand/v2"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store/scope"
)

// Workshop makes the store a workshop's: from now on every read and write is of the
// person of its context, who gets their own and what is shared, and a context of nobody
// gets nothing. What one maker made alone before becomes the first steward's. Codes that are
// shown again are made with the pepper, which is not kept here.
func (s *Store) Workshop(ctx context.Context, pepper people.Pepper) error {
	s.pepper = pepper
	s.shop.Store(true)
	return s.door().at.In(ctx, func(tx *scope.Tx) error { return adopt(ctx, tx) })
}

// adopt gives what is of nobody who is known here to the first steward, if there is one.
func adopt(ctx context.Context, tx *scope.Tx) error {
	var steward sql.NullInt64
	if err := tx.Get(ctx, &steward, scope.Workshop.SQL(`SELECT min(id) FROM people WHERE role = 'steward' AND struck = 0`)); err != nil || !steward.Valid {
		return err
	}
	if _, err := tx.Do(ctx, scope.Workshop.SQL(`INSERT OR IGNORE INTO photo_makers (photo, maker) SELECT id, ? FROM photos WHERE id NOT IN (SELECT photo FROM photo_makers)`), steward.Int64); err != nil {
		return err
	}
	return give(ctx, tx, `maker NOT IN (SELECT id FROM people)`, steward.Int64)
}

// give makes rows, of which a condition is true, a person's. Of a thing that they keep
// already nothing is given.
func give(ctx context.Context, tx *scope.Tx, which string, to int64) error {
	for _, table := range []string{"boxes", "jobs", "notes", "things", "photo_makers"} {
		if _, err := tx.Do(ctx, scope.Workshop.SQL(in(`UPDATE OR IGNORE %s SET maker = ? WHERE %s`, table, which)), to); err != nil {
			return err
		}
	}
	return nil
}

// number is a number for a new row: of one maker's the next, of a workshop's any, so that
// those of others cannot be guessed.
func (d *Desk) number() any {
	if d.at.Asker == scope.Alone {
		return nil
	}
	return rand.Int64N(1<<52) + 1
}

// most is how many rows of a table one has in a workshop, those in the bin among them.
var most = map[string]int{"boxes": 2000, "jobs": 300, "things": 500, "notes": 5000}

// count is how many rows of a table the asker has.
func (d *Desk) count(ctx context.Context, tx *scope.Tx, table string) (n int, err error) {
	err = tx.Get(ctx, &n, scope.Own.SQL(`SELECT count(*) FROM `+table+` WHERE {whose}`))
	return n, err
}

// roomFor refuses one more row where the asker has as many as one may.
func (d *Desk) roomFor(ctx context.Context, tx *scope.Tx, table string) error {
	if d.at.Asker <= 0 {
		return nil
	}
	n, err := d.count(ctx, tx, table)
	if err != nil {
		return err
	}
	if n >= most[table] {
		return fault.New(fault.TooLarge, "", "You have %d %s, as many as one has in a workshop. Delete some for good to make room.", n, table)
	}
	return nil
}

// hasRoom refuses what made the asker's rows more than one may have.
func (d *Desk) hasRoom(ctx context.Context, tx *scope.Tx) error {
	if d.at.Asker <= 0 {
		return nil
	}
	for table, may := range most {
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

// Share lets everybody in the workshop work on a box or a job of one's own, or no more.
// The boxes of a job are shared with it.
func (d *Desk) Share(ctx context.Context, sort Sort, id int64, shared bool) error {
	if sort != BoxSort && sort != JobSort {
		return ErrNotFound
	}
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if err := one(absent(sort))(tx.Do(ctx, scope.Own.SQL(in(`UPDATE %s SET shared = ? WHERE id = ? AND deleted_at IS NULL AND {whose}`, tableOf[sort])), shared, id)); err != nil {
			return err
		}
		if sort == JobSort && shared {
			return d.shareBoxes(ctx, tx, id)
		}
		return nil
	})
}

// shareBoxes shares the asker's boxes that a shared job makes.
func (d *Desk) shareBoxes(ctx context.Context, tx *scope.Tx, job int64) error {
	if d.at.Asker == scope.Alone {
		return nil
	}
	var j struct {
		Shared bool
		Items  []byte
	}
	if err := tx.Get(ctx, &j, scope.Held.SQL(`SELECT shared, items FROM jobs WHERE id = ?`), job); err != nil || !j.Shared {
		return err
	}
	var items []JobItem
	if err := json.Unmarshal(j.Items, &items); err != nil {
		return err
	}
	for _, it := range items {
		if _, err := tx.Do(ctx, scope.Own.SQL(`UPDATE boxes SET shared = 1 WHERE id = ? AND {whose}`), it.Box); err != nil {
			return err
		}
	}
	return nil
}
