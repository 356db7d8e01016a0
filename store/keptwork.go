package store

import (
	"context"
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"brevium/store/scope"
)

// KeptTime is how long a step of a box took at the bench; At is in milliseconds since
// 1970.
type KeptTime struct {
	Step    string  `json:"step"`
	Kind    string  `json:"kind"`
	Seconds float64 `json:"seconds"`
	Usual   float64 `json:"usual"`
	At      int64   `json:"at_ms"`
}

// times puts in how long the steps of a box took.
func (b *bringing) times(box int64, all []KeptTime) error {
	for _, t := range all {
		if _, err := b.tx.Do(b.ctx, scope.Workshop.SQL(`INSERT OR IGNORE INTO times (box_id, step, kind, seconds, usual, at) VALUES (?, ?, ?, ?, ?, ?)`),
			box, t.Step, t.Kind, t.Seconds, t.Usual, t.At); err != nil {
			return err
		}
	}
	return nil
}

// settings puts in those that are not set here.
func (b *bringing) settings(all map[string]json.RawMessage) error {
	for name, value := range all {
		if _, err := b.tx.Do(b.ctx, scope.Workshop.SQL(`INSERT OR IGNORE INTO settings (name, value) VALUES (?, ?)`), name, string(value)); err != nil {
			return err
		}
	}
	return nil
}

// evenings gives a job that was brought its evenings, and what is done of it, its boxes
// by their new numbers.
func (b *bringing) evenings(job int64, x KeptJob) error {
	done := map[string]int{}
	for key, n := range x.Done {
		box, rest, _ := strings.Cut(key, "/")
		if id, err := strconv.ParseInt(box, 10, 64); err == nil && b.boxes[id] != 0 {
			done[fmt.Sprintf("%d/%s", b.boxes[id], rest)] = n
		}
	}
	text, err := json.Marshal(done)
	if err != nil {
		return err
	}
	when := "null"
	if len(x.Evenings) > 0 {
		when = string(x.Evenings)
	}
	_, err = b.tx.Do(b.ctx, scope.Workshop.SQL(`UPDATE jobs SET evenings = ?, done = ? WHERE id = ?`), when, string(text), job)
	return err
}

// Evenings reads who makes a job and when into a value, which stays as it is where
// that was never said, and how many copies of its tasks are done.
func (d *Desk) Evenings(ctx context.Context, job int64, into any) (done map[string]int, err error) {
	var row struct{ Evenings, Done []byte }
	if err := d.at.Get(ctx, &row, scope.Seen.SQL(`SELECT evenings, done FROM jobs WHERE id = ? AND deleted_at IS NULL AND {whose}`), job); err != nil {
		return nil, found(err, noJob)
	}
	readKept(row.Done, &done)
	readKept(row.Evenings, into)
	return done, nil
}

// SetEvenings keeps who makes a job and when.
func (d *Desk) SetEvenings(ctx context.Context, job int64, when any) error {
	text, err := json.Marshal(when)
	if err != nil {
		return err
	}
	return one(noJob)(d.at.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET evenings = ? WHERE id = ? AND deleted_at IS NULL AND {whose}`), string(text), job))
}

// SetDone keeps that so many copies of a task of a job are done.
func (d *Desk) SetDone(ctx context.Context, job int64, task string, copies int) error {
	return one(noJob)(d.at.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET done = json_patch(done, json_object(?, ?)) WHERE id = ? AND deleted_at IS NULL AND {whose}`), task, copies, job))
}
