package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"brevium/core/batch"
	"brevium/core/cupboard"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/strict"
)

// State is how far a job has come.
type State string

// A planned job may change; a begun one has its sheets reserved; a finished
// one has taken them off the drawer.
const (
	Planned  State = "planned"
	Begun    State = "begun"
	Finished State = "finished"
)

// JobItem is a box and how many of it a job makes.
type JobItem struct {
	Box    int64 `json:"box"`
	Copies int   `json:"copies"`
}

// Job is a kept job.
type Job struct {
	ID      int64
	Name    string
	State   State
	Items   []JobItem
	Choices batch.Choices
	// Layouts are the best found while it is planned, for batch.Recall; Stocks
	// what is cut, once it is begun, for batch.ReadStocks.
	Layouts, Stocks []byte
	Changed         time.Time
	// Version numbers what is asked for, its name, items and choices.
	Version int64
	// Maker is whose it is in a workshop, and Shared that everybody there works on it.
	Maker  int64
	Shared bool
}

const jobColumns = `maker, shared, id, name, state, items, choices, layouts, coalesce(stocks, ''), changed_at, version`

func scanJob(row interface{ Scan(...any) error }) (Job, error) {
	var j Job
	var items, choices string
	var changed int64
	if err := row.Scan(&j.Maker, &j.Shared, &j.ID, &j.Name, &j.State, &items, &choices, &j.Layouts, &j.Stocks, &changed, &j.Version); err != nil {
		if errors.Is(err, sql.ErrNoRows) {
			err = ErrNoJob
		}
		return j, err
	}
	j.Changed = time.UnixMilli(changed)
	if err := json.Unmarshal([]byte(items), &j.Items); err != nil {
		return j, fmt.Errorf("job %d: %w", j.ID, err)
	}
	var err error
	if j.Choices, err = batch.ReadChoices([]byte(choices)); err != nil {
		return j, fmt.Errorf("job %d: %w", j.ID, err)
	}
	return j, nil
}

// ErrNoJob means that there is no job of that number.
var ErrNoJob = errors.New("there is no job of this number")

// Jobs lists the jobs, the last changed first.
func (s *Store) Jobs(ctx context.Context) ([]Job, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+jobColumns+` FROM jobs WHERE deleted_at IS NULL`+s.seen(ctx, "")+` ORDER BY changed_at DESC, id DESC`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Job
	for rows.Next() {
		j, err := scanJob(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, j)
	}
	return out, rows.Err()
}

// Job gives one job, or ErrNoJob.
func (s *Store) Job(ctx context.Context, id int64) (Job, error) {
	return scanJob(s.db.QueryRowContext(ctx, `SELECT `+jobColumns+` FROM jobs WHERE id = ? AND deleted_at IS NULL`+s.seen(ctx, ""), id))
}

// Asked is what a job asks for, as JSON: its name, items and choices.
func (j Job) Asked() []byte {
	text, err := json.Marshal(asked{j.Name, j.Items, j.Choices.Write()})
	if err != nil {
		panic(err) // plain texts and numbers
	}
	return text
}

type asked struct {
	Name    string          `json:"name"`
	Items   []JobItem       `json:"items"`
	Choices json.RawMessage `json:"choices"`
}

// Ask sets what a job asks for to what Asked wrote.
func (j *Job) Ask(text []byte) error {
	var a asked
	if err := strict.Decode(text, &a); err != nil {
		return err
	}
	choices, err := batch.ReadChoices(a.Choices)
	if err == nil {
		j.Name, j.Items, j.Choices = a.Name, a.Items, choices
	}
	return err
}

// AddJob keeps a new job and gives its number.
func (s *Store) AddJob(ctx context.Context, j Job) (id int64, err error) {
	items, err := json.Marshal(j.Items)
	if err != nil {
		return 0, err
	}
	err = s.in(ctx, func(tx *sql.Tx) error {
		if err := s.roomFor(ctx, tx, "jobs"); err != nil {
			return err
		}
		r, err := tx.ExecContext(ctx, `INSERT INTO jobs (id, maker, name, state, items, choices, changed_at) VALUES (?, ?, ?, ?, ?, ?, ?)`,
			s.number(ctx), max(0, s.who(ctx)), j.Name, Planned, string(items), string(j.Choices.Write()), s.now().UnixMilli())
		if err != nil {
			return err
		}
		if id, err = r.LastInsertId(); err != nil {
			return err
		}
		_, err = s.state(ctx, tx, "job", id, "", string(j.Asked()))
		return err
	})
	return id, err
}

// SaveJob keeps a planned job's name, items, choices and layouts, if it is
// still at the version that j has; else it is ErrStale.
func (s *Store) SaveJob(ctx context.Context, j Job, page string) error {
	items, err := json.Marshal(j.Items)
	if err != nil {
		return err
	}
	if len(j.Layouts) == 0 {
		j.Layouts = []byte("{}")
	}
	return s.in(ctx, func(tx *sql.Tx) error {
		now, err := scanJob(tx.QueryRowContext(ctx, `SELECT `+jobColumns+` FROM jobs WHERE id = ? AND deleted_at IS NULL`+s.seen(ctx, ""), j.ID))
		switch {
		case err != nil:
			return err
		case now.State != Planned:
			return fault.New(fault.NotTaken, "", "This job is begun by now, and what it makes is fixed. Load the page again.")
		case now.Version != j.Version:
			return ErrStale
		}
		version, err := s.state(ctx, tx, "job", j.ID, page, string(j.Asked()))
		if err != nil {
			return err
		}
		if err := oneJob(tx.ExecContext(ctx, `UPDATE jobs SET name = ?, items = ?, choices = ?, layouts = ?, changed_at = ?, version = ? WHERE id = ?`,
			j.Name, string(items), string(j.Choices.Write()), string(j.Layouts), s.now().UnixMilli(), version, j.ID)); err != nil {
			return err
		}
		return s.shareBoxes(ctx, tx, j.ID)
	})
}

// JobState gives what a job asked for at a version. own tells that all that
// was changed since came from the same window. A version that is not known is
// ErrForgotten.
func (s *Store) JobState(ctx context.Context, id, version int64, page string) (asked []byte, own bool, err error) {
	text, own, err := s.stateOf(ctx, "job", id, version, page)
	return []byte(text), own, err
}

// BeginJob reserves the sheets that a planned job takes and keeps what is cut, and
// what it takes of the cupboard. It refuses when a sheet must be bought first, or
// others have reserved it.
func (s *Store) BeginJob(ctx context.Context, id int64, stocks []batch.Stock, goods []cupboard.Need) error {
	aside, err := json.Marshal(append([]cupboard.Need{}, goods...))
	if err != nil {
		return err
	}
	return s.in(ctx, func(tx *sql.Tx) error {
		place, err := s.place(ctx, tx)
		if err != nil {
			return err
		}
		if err := oneJob(tx.ExecContext(ctx, `UPDATE jobs SET state = ?, stocks = ?, goods = ?, place = ?, changed_at = ? WHERE id = ? AND state = ? AND deleted_at IS NULL`+s.seen(ctx, ""),
			Begun, string(batch.WriteStocks(stocks)), string(aside), place, s.now().UnixMilli(), id, Planned)); err != nil {
			return err
		}
		for _, t := range batch.Takes(stocks) {
			if t.Lot == 0 {
				return fault.New(fault.TooFew, "sheets", "%d × %s of %s must be bought first", t.Count, t.Sheet.Name, t.Card.Name)
			}
			n, err := s.free(ctx, tx, t.Lot)
			if err != nil {
				return err
			}
			if n < t.Count {
				return fault.New(
					fault.TooFew,
					"sheets",
					"only %d of %d sheets of %s are still free; lay the job out again",
					n,
					t.Count,
					t.Card.Name,
				)
			}
			if _, err := tx.ExecContext(
				ctx,
				`INSERT INTO job_lots (job_id, lot_id, count) VALUES (?, ?, ?)`,
				id,
				t.Lot,
				t.Count,
			); err != nil {
				return err
			}
		}
		return nil
	})
}

// ReleaseJob takes a begun job back to planned, its sheets free again.
func (s *Store) ReleaseJob(ctx context.Context, id int64) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		if err := oneJob(tx.ExecContext(ctx, `UPDATE jobs SET state = ?, stocks = NULL, goods = '[]', changed_at = ? WHERE id = ? AND state = ? AND deleted_at IS NULL`+s.seen(ctx, ""),
			Planned, s.now().UnixMilli(), id, Begun)); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM job_lots WHERE job_id = ?`, id)
		return err
	})
}

// FinishJob takes a begun job's sheets off the drawer and puts the offcuts it
// leaves in.
func (s *Store) FinishJob(ctx context.Context, id int64, offcuts []drawer.Lot) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		taken, err := taken(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := oneJob(tx.ExecContext(ctx, `UPDATE jobs SET state = ?, changed_at = ? WHERE id = ? AND state = ? AND deleted_at IS NULL`+s.seen(ctx, ""),
			Finished, s.now().UnixMilli(), id, Begun)); err != nil {
			return err
		}
		for lot, n := range taken {
			if err := take(ctx, tx, lot, n); err != nil {
				return err
			}
		}
		place, err := jobPlace(ctx, tx, id)
		if err != nil {
			return err
		}
		for _, l := range offcuts {
			if err := s.addLot(ctx, tx, l, &id, place); err != nil {
				return err
			}
		}
		return s.useUp(ctx, tx, id, false)
	})
}

// UnfinishJob undoes FinishJob: the sheets are back and reserved, the offcuts
// gone. It refuses when one of these is reserved or used by now.
func (s *Store) UnfinishJob(ctx context.Context, id int64) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		var used int
		err := tx.QueryRowContext(ctx, `
			SELECT count(*) FROM lots l WHERE l.job_id = ?
			AND (l.count = 0 OR EXISTS (SELECT 1 FROM job_lots r WHERE r.lot_id = l.id))`, id).Scan(&used)
		if err != nil {
			return err
		}
		if used > 0 {
			return fault.New(fault.InUse, "offcuts", "an offcut of this job is in use already, so that it cannot be taken back")
		}
		if err := oneJob(tx.ExecContext(ctx, `UPDATE jobs SET state = ?, changed_at = ? WHERE id = ? AND state = ? AND deleted_at IS NULL`+s.seen(ctx, ""),
			Begun, s.now().UnixMilli(), id, Finished)); err != nil {
			return err
		}
		taken, err := taken(ctx, tx, id)
		if err != nil {
			return err
		}
		for lot, n := range taken {
			if err := take(ctx, tx, lot, -n); err != nil {
				return err
			}
		}
		if _, err = tx.ExecContext(ctx, `DELETE FROM lots WHERE job_id = ?`, id); err != nil {
			return err
		}
		return s.useUp(ctx, tx, id, true)
	})
}

// jobPlace is the table whose drawer and cupboard a job was begun from.
func jobPlace(ctx context.Context, tx *sql.Tx, job int64) (place string, err error) {
	err = tx.QueryRowContext(ctx, `SELECT place FROM jobs WHERE id = ?`, job).Scan(&place)
	return place, err
}

// taken is how many sheets a job takes, by lot.
func taken(ctx context.Context, tx *sql.Tx, job int64) (map[int64]int, error) {
	rows, err := tx.QueryContext(ctx, `SELECT lot_id, count FROM job_lots WHERE job_id = ?`, job)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := map[int64]int{}
	for rows.Next() {
		var lot int64
		var n int
		if err := rows.Scan(&lot, &n); err != nil {
			return nil, err
		}
		out[lot] = n
	}
	return out, rows.Err()
}

// oneJob turns a statement that touched no row into ErrNoJob.
func oneJob(r sql.Result, err error) error {
	if err = one(r, err); errors.Is(err, ErrNotFound) {
		return ErrNoJob
	}
	return err
}

// SaveLayouts keeps the best layouts found for a planned job, whatever else of
// it changes meanwhile.
func (s *Store) SaveLayouts(ctx context.Context, id int64, layouts []byte) error {
	return oneJob(s.exec(ctx, `UPDATE jobs SET layouts = ? WHERE id = ? AND state = ? AND deleted_at IS NULL`+s.seen(ctx, ""), string(layouts), id, Planned))
}
