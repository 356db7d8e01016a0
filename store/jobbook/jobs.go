// Package jobbook keeps jobs, from planned to finished, and their evenings.
package jobbook

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"brevium/core/batch"
	"brevium/core/cupboard"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/strict"
	"brevium/store/desk"
	"brevium/store/scope"
	"brevium/store/stockroom"
)

// Jobbook is the jobs as one person has them.
type Jobbook struct{ at desk.Desk }

// At opens the room for a desk.
func At(d desk.Desk) *Jobbook { return &Jobbook{d} }

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

// JobRow is a job as its table has it.
type JobRow struct {
	ID, Maker, Version, Changed int64
	Shared                      bool
	Name                        string
	State                       State
	Items, Choices              []byte
	Layouts, Stocks             []byte
}

// SelectJobs reads such rows.
const SelectJobs = `SELECT id, maker, shared, name, state, items, choices, layouts, coalesce(stocks, '') AS stocks, changed_at AS changed, version FROM jobs `

// Job reads a row.
func (r JobRow) Job() (Job, error) {
	j := Job{ID: r.ID, Name: r.Name, State: r.State, Layouts: r.Layouts, Stocks: r.Stocks, Changed: time.UnixMilli(r.Changed), Version: r.Version, Maker: r.Maker, Shared: r.Shared}
	if err := json.Unmarshal(r.Items, &j.Items); err != nil {
		return j, fmt.Errorf("job %d: %w", j.ID, err)
	}
	var err error
	if j.Choices, err = batch.ReadChoices(r.Choices); err != nil {
		return j, fmt.Errorf("job %d: %w", j.ID, err)
	}
	return j, nil
}

// Jobs lists the jobs, the last changed first.
func (d *Jobbook) Jobs(ctx context.Context) ([]Job, error) {
	return desk.RowsOf(ctx, d.at, JobRow.Job, scope.Seen.SQL(SelectJobs+`WHERE deleted_at IS NULL AND {whose} ORDER BY changed_at DESC, id DESC`))
}

// jobSeen is one job that is seen and not deleted.
var jobSeen = scope.Seen.SQL(SelectJobs + `WHERE id = ? AND deleted_at IS NULL AND {whose}`)

// Job gives one job, or an ErrNotFound.
func (d *Jobbook) Job(ctx context.Context, id int64) (Job, error) {
	return desk.RowOf(ctx, d.at, JobRow.Job, desk.NoJob, jobSeen, id)
}

// Asked is what a job asks for, as JSON: its name, items and choices.
func (j Job) Asked() []byte {
	text, err := json.Marshal(Asked{j.Name, j.Items, j.Choices.Write()})
	if err != nil {
		panic(err) // plain texts and numbers
	}
	return text
}

// Asked is what a job asks for, as it is kept.
type Asked struct {
	Name    string          `json:"name"`
	Items   []JobItem       `json:"items"`
	Choices json.RawMessage `json:"choices"`
}

// Ask sets what a job asks for to what Asked wrote.
func (j *Job) Ask(text []byte) error {
	var a Asked
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
func (d *Jobbook) AddJob(ctx context.Context, j Job) (id int64, err error) {
	items, err := json.Marshal(j.Items)
	if err != nil {
		return 0, err
	}
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		if err := d.at.RoomFor(ctx, tx, "jobs"); err != nil {
			return err
		}
		id, err = desk.NewRow(tx.Do(ctx, scope.Own.SQL(`INSERT INTO jobs (id, maker, name, state, items, choices, changed_at) VALUES (?, {me}, ?, ?, ?, ?, ?)`),
			d.at.NewNumber(), j.Name, Planned, string(items), string(j.Choices.Write()), d.at.Now().UnixMilli()))
		if err != nil {
			return err
		}
		_, err = d.at.KeepState(ctx, tx, desk.JobSort, id, "", string(j.Asked()))
		return err
	})
	return id, err
}

// SaveJob keeps a planned job's name, items, choices and layouts, if it is
// still at the version that j has; else it is ErrStale.
func (d *Jobbook) SaveJob(ctx context.Context, j Job, page string) error {
	items, err := json.Marshal(j.Items)
	if err != nil {
		return err
	}
	if len(j.Layouts) == 0 {
		j.Layouts = []byte("{}")
	}
	return d.at.In(ctx, func(tx *scope.Tx) error {
		now, err := desk.RowOf(ctx, tx, JobRow.Job, desk.NoJob, jobSeen, j.ID)
		switch {
		case err != nil:
			return err
		case now.State != Planned:
			return fault.New(fault.NotTaken, "", "This job is begun by now, and what it makes is fixed. Load the page again.")
		case now.Version != j.Version:
			return desk.ErrStale
		}
		version, err := d.at.KeepState(ctx, tx, desk.JobSort, j.ID, page, string(j.Asked()))
		if err != nil {
			return err
		}
		if err := desk.One(desk.NoJob)(tx.Do(ctx, scope.Held.SQL(`UPDATE jobs SET name = ?, items = ?, choices = ?, layouts = ?, changed_at = ?, version = ? WHERE id = ?`),
			j.Name, string(items), string(j.Choices.Write()), string(j.Layouts), d.at.Now().UnixMilli(), version, j.ID)); err != nil {
			return err
		}
		return d.shareBoxes(ctx, tx, j.ID)
	})
}

// JobState gives what a job asked for at a version. own tells that all that
// was changed since came from the same window. A version that is not known is
// ErrForgotten.
func (d *Jobbook) JobState(ctx context.Context, id, version int64, page string) (asked []byte, own bool, err error) {
	was, err := d.at.StateOf(ctx, desk.JobSort, id, version, page)
	return []byte(was.State), was.Own, err
}

// BeginJob reserves the sheets that a planned job takes and keeps what is cut, and
// what it takes of the cupboard. It refuses when a sheet must be bought first, or
// others have reserved it.
func (d *Jobbook) BeginJob(ctx context.Context, id int64, stocks []batch.Stock, goods []cupboard.Need) error {
	aside, err := json.Marshal(append([]cupboard.Need{}, goods...))
	if err != nil {
		return err
	}
	return d.at.In(ctx, func(tx *scope.Tx) error {
		place, err := d.at.Place(ctx, tx)
		if err != nil {
			return err
		}
		if err := desk.One(desk.NoJob)(tx.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET state = ?, stocks = ?, goods = ?, place = ?, changed_at = ? WHERE id = ? AND state = ? AND deleted_at IS NULL AND {whose}`),
			Begun, string(batch.WriteStocks(stocks)), string(aside), place, d.at.Now().UnixMilli(), id, Planned)); err != nil {
			return err
		}
		for _, t := range batch.Takes(stocks) {
			if t.Lot == 0 {
				return fault.New(fault.TooFew, "sheets", "%d × %s of %s must be bought first", t.Count, t.Sheet.Name, t.Card.Name)
			}
			n, err := stockroom.Free(ctx, tx, t.Lot)
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
			if _, err := tx.Do(ctx, scope.Held.SQL(`INSERT INTO job_lots (job_id, lot_id, count) VALUES (?, ?, ?)`), id, t.Lot, t.Count); err != nil {
				return err
			}
		}
		return nil
	})
}

// ReleaseJob takes a begun job back to planned, its sheets free again.
func (d *Jobbook) ReleaseJob(ctx context.Context, id int64) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if err := desk.One(desk.NoJob)(tx.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET state = ?, stocks = NULL, goods = '[]', changed_at = ? WHERE id = ? AND state = ? AND deleted_at IS NULL AND {whose}`),
			Planned, d.at.Now().UnixMilli(), id, Begun)); err != nil {
			return err
		}
		_, err := tx.Do(ctx, scope.Held.SQL(`DELETE FROM job_lots WHERE job_id = ?`), id)
		return err
	})
}

// FinishJob takes a begun job's sheets off the drawer and puts the offcuts it
// leaves in.
func (d *Jobbook) FinishJob(ctx context.Context, id int64, offcuts []drawer.Lot) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		taken, err := taken(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := desk.One(desk.NoJob)(tx.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET state = ?, changed_at = ? WHERE id = ? AND state = ? AND deleted_at IS NULL AND {whose}`),
			Finished, d.at.Now().UnixMilli(), id, Begun)); err != nil {
			return err
		}
		for lot, n := range taken {
			if err := stockroom.Take(ctx, tx, lot, n); err != nil {
				return err
			}
		}
		place, err := desk.JobPlace(ctx, tx, id)
		if err != nil {
			return err
		}
		for _, l := range offcuts {
			if err := stockroom.AddLot(ctx, tx, d.at, l, &id, place); err != nil {
				return err
			}
		}
		return stockroom.UseUp(ctx, tx, d.at, id, false)
	})
}

// UnfinishJob undoes FinishJob: the sheets are back and reserved, the offcuts
// gone. It refuses when one of these is reserved or used by now.
func (d *Jobbook) UnfinishJob(ctx context.Context, id int64) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		var used int
		err := tx.Get(ctx, &used, scope.Held.SQL(`
			SELECT count(*) FROM lots l WHERE l.job_id = ?
			AND (l.count = 0 OR EXISTS (SELECT 1 FROM job_lots r WHERE r.lot_id = l.id))`), id)
		if err != nil {
			return err
		}
		if used > 0 {
			return fault.New(fault.InUse, "offcuts", "an offcut of this job is in use already, so that it cannot be taken back")
		}
		if err := desk.One(desk.NoJob)(tx.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET state = ?, changed_at = ? WHERE id = ? AND state = ? AND deleted_at IS NULL AND {whose}`),
			Begun, d.at.Now().UnixMilli(), id, Finished)); err != nil {
			return err
		}
		taken, err := taken(ctx, tx, id)
		if err != nil {
			return err
		}
		for lot, n := range taken {
			if err := stockroom.Take(ctx, tx, lot, -n); err != nil {
				return err
			}
		}
		if _, err = tx.Do(ctx, scope.Held.SQL(`DELETE FROM lots WHERE job_id = ?`), id); err != nil {
			return err
		}
		return stockroom.UseUp(ctx, tx, d.at, id, true)
	})
}

// taken is how many sheets a job takes, by lot.
func taken(ctx context.Context, tx *scope.Tx, job int64) (map[int64]int, error) {
	var rows []struct {
		Lot   int64
		Count int
	}
	err := tx.All(ctx, &rows, scope.Held.SQL(`SELECT lot_id AS lot, count FROM job_lots WHERE job_id = ?`), job)
	out := map[int64]int{}
	for _, r := range rows {
		out[r.Lot] = r.Count
	}
	return out, err
}

// SaveLayouts keeps the best layouts found for a planned job, whatever else of
// it changes meanwhile.
func (d *Jobbook) SaveLayouts(ctx context.Context, id int64, layouts []byte) error {
	return desk.One(desk.NoJob)(d.at.Do(ctx, scope.Seen.SQL(`UPDATE jobs SET layouts = ? WHERE id = ? AND state = ? AND deleted_at IS NULL AND {whose}`), string(layouts), id, Planned))
}
