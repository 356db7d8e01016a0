package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"brevium/core/fault"
)

// Sort is what lies in the bin.
type Sort string

// The sorts of what can be deleted.
const (
	BoxSort   Sort = "box"
	JobSort   Sort = "job"
	ThingSort Sort = "thing"
	PaperSort Sort = "paper"
)

// Binned is something that was deleted and can be brought back.
type Binned struct {
	Sort    Sort
	ID      int64
	Name    string
	Deleted time.Time
}

// Bin lists what was deleted, the latest first.
func (s *Store) Bin(ctx context.Context) ([]Binned, error) {
	rows, err := s.db.QueryContext(ctx, `
		SELECT 'box', id, name, deleted_at FROM boxes WHERE deleted_at IS NOT NULL`+s.own(ctx, "")+`
		UNION ALL SELECT 'job', id, name, deleted_at FROM jobs WHERE deleted_at IS NOT NULL`+s.own(ctx, "")+`
		UNION ALL SELECT 'thing', id, json_extract(thing, '$.name'), deleted_at FROM things WHERE deleted_at IS NOT NULL`+s.own(ctx, "")+`
		UNION ALL SELECT 'paper', id, binned || ' × ' || card || CASE sheet WHEN '' THEN '' ELSE ', ' || sheet END, deleted_at
			FROM lots WHERE deleted_at IS NOT NULL`+s.here(ctx, "")+`
		ORDER BY 4 DESC, 1, 2`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Binned
	for rows.Next() {
		var b Binned
		var at int64
		if err := rows.Scan(&b.Sort, &b.ID, &b.Name, &at); err != nil {
			return nil, err
		}
		b.Deleted = time.UnixMilli(at)
		out = append(out, b)
	}
	return out, rows.Err()
}

// BinnedBox is the name of a box in the bin; ErrNotFound when it is not there.
func (s *Store) BinnedBox(ctx context.Context, id int64) (name string, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT coalesce(max(name), '') FROM boxes WHERE id = ? AND deleted_at IS NOT NULL`+s.own(ctx, ""), id).Scan(&name)
	if err == nil && name == "" {
		err = ErrNotFound
	}
	return name, err
}

// Delete puts a box into the bin.
func (s *Store) Delete(ctx context.Context, id int64) error {
	return one(s.exec(ctx, `UPDATE boxes SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`+s.own(ctx, ""), s.now().UnixMilli(), id))
}

// DeleteJob puts a job into the bin. One that is begun has sheets reserved and
// is refused.
func (s *Store) DeleteJob(ctx context.Context, id int64) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		j, err := scanJob(tx.QueryRowContext(ctx, `SELECT `+jobColumns+` FROM jobs WHERE id = ? AND deleted_at IS NULL`+s.own(ctx, ""), id))
		if err == nil && j.State == Begun {
			err = fault.New(fault.InUse, "", "This job is begun and has its sheets set aside; take it back to planning first.")
		}
		if err != nil {
			return err
		}
		return oneJob(tx.ExecContext(ctx, `UPDATE jobs SET deleted_at = ? WHERE id = ?`, s.now().UnixMilli(), id))
	})
}

// DropThing puts a kept thing into the bin. Boxes that hold it keep theirs.
func (s *Store) DropThing(ctx context.Context, id int64) error {
	return one(s.exec(ctx, `UPDATE things SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`+s.own(ctx, ""), s.now().UnixMilli(), id))
}

// putAside puts all of a pile of paper into the bin.
func (s *Store) putAside(ctx context.Context, tx *sql.Tx, id int64) error {
	return one(tx.ExecContext(ctx, `UPDATE lots SET binned = count, count = 0, deleted_at = ? WHERE id = ?`, s.now().UnixMilli(), id))
}

// back tells how each sort is brought back, and for good how it is forgotten.
var back = map[Sort]string{
	BoxSort:   `UPDATE boxes SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`,
	JobSort:   `UPDATE jobs SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`,
	ThingSort: `UPDATE things SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`,
	PaperSort: `UPDATE lots SET count = binned, binned = 0, deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`,
}

// Paper that a job took is part of that job's record, so its row stays.
var forGood = map[Sort]string{
	BoxSort:   `DELETE FROM boxes WHERE id = ? AND deleted_at IS NOT NULL`,
	JobSort:   `DELETE FROM jobs WHERE id = ? AND deleted_at IS NOT NULL`,
	ThingSort: `DELETE FROM things WHERE id = ? AND deleted_at IS NOT NULL`,
	PaperSort: `UPDATE lots SET binned = 0, deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`,
}

// BringBack takes something out of the bin, as it was.
func (s *Store) BringBack(ctx context.Context, sort Sort, id int64) error {
	return s.fromBin(ctx, back, sort, id)
}

// Forget deletes something in the bin for good. A box that a job makes stays.
func (s *Store) Forget(ctx context.Context, sort Sort, id int64) error {
	if sort == BoxSort {
		job, err := s.JobWith(ctx, id)
		if err != nil {
			return err
		}
		if job != "" {
			return fault.New(fault.InUse, "", "The job “%s” makes this box; it stays in the bin as long as the job is there.", job)
		}
	}
	return s.fromBin(ctx, forGood, sort, id)
}

func (s *Store) fromBin(ctx context.Context, how map[Sort]string, sort Sort, id int64) error {
	query, known := how[sort]
	if !known {
		return fmt.Errorf("%w: %q", ErrNotFound, sort)
	}
	if sort == PaperSort { // that is the table's
		query += s.here(ctx, "")
	} else {
		query += s.own(ctx, "")
	}
	return one(s.exec(ctx, query, id))
}

// EmptyBin deletes all that is in the bin for good but boxes that jobs make,
// and tells how many of those stay.
func (s *Store) EmptyBin(ctx context.Context) (stay int, err error) {
	all, err := s.Bin(ctx)
	if err != nil {
		return 0, err
	}
	// Jobs first: a box may be there for one of them only.
	slices.SortStableFunc(all, func(a, b Binned) int { return strings.Compare(string(b.Sort), string(a.Sort)) })
	for _, b := range all {
		err := s.Forget(ctx, b.Sort, b.ID)
		switch {
		case err != nil && fault.Of(err).Code == fault.InUse:
			stay++
		case err != nil:
			return stay, err
		}
	}
	return stay, nil
}

// JobWith is the name of a job that makes a box; "" for none.
func (s *Store) JobWith(ctx context.Context, box int64) (string, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT name, items FROM jobs ORDER BY id`)
	if err != nil {
		return "", err
	}
	defer rows.Close()
	for rows.Next() {
		var name, text string
		var items []JobItem
		if err := rows.Scan(&name, &text); err != nil {
			return "", err
		}
		if err := json.Unmarshal([]byte(text), &items); err != nil {
			return "", err
		}
		for _, it := range items {
			if it.Box == box {
				return name, nil
			}
		}
	}
	return "", rows.Err()
}
