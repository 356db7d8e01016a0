package jobbook

import (
	"context"
	"encoding/json"

	"brevium/store/desk"
	"brevium/store/scope"
)

// Evenings reads who makes a job and when into a value, which stays as it is where
// that was never said, and how many copies of its tasks are done.
func (d *Jobbook) Evenings(ctx context.Context, job int64, into any) (done map[string]int, err error) {
	var row struct{ Evenings, Done []byte }
	if err := d.at.Get(ctx, &row, scope.Seen.SQL(`SELECT evenings, done FROM jobs WHERE id = ? AND deleted_at IS NULL AND {whose}`), job); err != nil {
		return nil, desk.Found(err, desk.NoJob)
	}
	desk.ReadKept(row.Done, &done)
	desk.ReadKept(row.Evenings, into)
	return done, nil
}

// SetEvenings keeps who makes a job and when.
func (d *Jobbook) SetEvenings(ctx context.Context, job int64, when any) error {
	text, err := json.Marshal(when)
	if err != nil {
		return err
	}
	return desk.One(desk.NoJob)(d.at.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET evenings = ? WHERE id = ? AND deleted_at IS NULL AND {whose}`), string(text), job))
}

// SetDone keeps that so many copies of a task of a job are done.
func (d *Jobbook) SetDone(ctx context.Context, job int64, task string, copies int) error {
	return desk.One(desk.NoJob)(d.at.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET done = json_patch(done, json_object(?, ?)) WHERE id = ? AND deleted_at IS NULL AND {whose}`), task, copies, job))
}
