package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
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

// work gathers what is known of the work: times, settings, evenings. boxes and jobs say
// where each stands.
func (e *Everything) work(ctx context.Context, tx *sql.Tx, boxes, jobs map[int64]int) error {
	err := each(ctx, tx, `SELECT box_id, step, kind, seconds, usual, at FROM times ORDER BY at, step`, func(r *sql.Rows) error {
		var id int64
		var t KeptTime
		err := r.Scan(&id, &t.Step, &t.Kind, &t.Seconds, &t.Usual, &t.At)
		if i, there := boxes[id]; there {
			e.Boxes[i].Times = append(e.Boxes[i].Times, t)
		}
		return err
	})
	if err != nil {
		return err
	}
	err = each(ctx, tx, `SELECT name, value FROM settings ORDER BY name`, func(r *sql.Rows) error {
		var name string
		var value []byte
		err := r.Scan(&name, &value)
		if e.Settings == nil {
			e.Settings = map[string]json.RawMessage{}
		}
		e.Settings[name] = value
		return err
	})
	if err != nil {
		return err
	}
	err = each(ctx, tx, `SELECT id, version, file, struck FROM styles ORDER BY id, version`, func(r *sql.Rows) error {
		var x OwnStyle
		err := r.Scan(&x.ID, &x.Version, (*[]byte)(&x.File), &x.Struck)
		e.Styles = append(e.Styles, x)
		return err
	})
	if err != nil {
		return err
	}
	return each(ctx, tx, `SELECT id, evenings, done FROM jobs WHERE evenings <> 'null' OR done <> '{}'`, func(r *sql.Rows) error {
		var id int64
		var evenings, done []byte
		if err := r.Scan(&id, &evenings, &done); err != nil {
			return err
		}
		i, there := jobs[id]
		if !there {
			return nil
		}
		e.Jobs[i].Evenings = evenings
		return json.Unmarshal(done, &e.Jobs[i].Done)
	})
}

// times puts in how long the steps of a box took.
func (b *bringing) times(box int64, all []KeptTime) error {
	for _, t := range all {
		if _, err := b.tx.ExecContext(b.ctx, `INSERT OR IGNORE INTO times (box_id, step, kind, seconds, usual, at) VALUES (?, ?, ?, ?, ?, ?)`,
			box, t.Step, t.Kind, t.Seconds, t.Usual, t.At); err != nil {
			return err
		}
	}
	return nil
}

// settings puts in those that are not set here.
func (b *bringing) settings(all map[string]json.RawMessage) error {
	for name, value := range all {
		if _, err := b.tx.ExecContext(b.ctx, `INSERT OR IGNORE INTO settings (name, value) VALUES (?, ?)`, name, string(value)); err != nil {
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
	_, err = b.tx.ExecContext(b.ctx, `UPDATE jobs SET evenings = ?, done = ? WHERE id = ?`, when, string(text), job)
	return err
}

// Evenings reads who makes a job and when into a value, which stays as it is where
// that was never said, and how many copies of its tasks are done.
func (s *Store) Evenings(ctx context.Context, job int64, into any) (done map[string]int, err error) {
	var when, text []byte
	err = s.db.QueryRowContext(ctx, `SELECT evenings, done FROM jobs WHERE id = ? AND deleted_at IS NULL`+s.seen(ctx, ""), job).Scan(&when, &text)
	if err == sql.ErrNoRows {
		return nil, ErrNoJob
	}
	if err != nil {
		return nil, err
	}
	readKept(text, &done)
	readKept(when, into)
	return done, nil
}

// SetEvenings keeps who makes a job and when.
func (s *Store) SetEvenings(ctx context.Context, job int64, when any) error {
	text, err := json.Marshal(when)
	if err != nil {
		return err
	}
	return one(s.exec(ctx, `UPDATE jobs SET evenings = ? WHERE id = ? AND deleted_at IS NULL`+s.seen(ctx, ""), string(text), job))
}

// SetDone keeps that so many copies of a task of a job are done.
func (s *Store) SetDone(ctx context.Context, job int64, task string, copies int) error {
	return one(s.exec(ctx, `UPDATE jobs SET done = json_patch(done, json_object(?, ?)) WHERE id = ? AND deleted_at IS NULL`+s.seen(ctx, ""), task, copies, job))
}
