package jobbook

import (
	"context"
	"encoding/json"

	"brevium/store/desk"
	"brevium/store/scope"
)

// Share lets everybody in the workshop work on a box or a job of one's own, or no more.
// The boxes of a job are shared with it.
func (d *Jobbook) Share(ctx context.Context, sort desk.Sort, id int64, shared bool) error {
	if sort != desk.BoxSort && sort != desk.JobSort {
		return desk.ErrNotFound
	}
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if err := desk.One(desk.Absent(sort))(tx.Do(ctx, scope.Own.SQL(desk.Text(`UPDATE %s SET shared = ? WHERE id = ? AND deleted_at IS NULL AND {whose}`, desk.TableOf[sort])), shared, id)); err != nil {
			return err
		}
		if sort == desk.JobSort && shared {
			return d.shareBoxes(ctx, tx, id)
		}
		return nil
	})
}

// shareBoxes shares the asker's boxes that a shared job makes.
func (d *Jobbook) shareBoxes(ctx context.Context, tx *scope.Tx, job int64) error {
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
