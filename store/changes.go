package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"brevium/core/design"
)

// Change is a step that can be taken back, or brought back again.
type Change struct {
	ID   int64
	What string // in a few words; "" for no change
	By   string // who made it, in a workshop
}

// Edit says what a change was made from, what it is, and which window made it.
type Edit struct {
	From int64  // the version it was made from
	What string // in a few words, for undo
	Page string // a name for the window; "" for none
}

// ErrStale means that the box was changed since the version a change was made
// from; nothing was done.
var ErrStale = errors.New("this was changed meanwhile")

// ErrForgotten means that a version is too old to be known still.
var ErrForgotten = errors.New("this version is not known any more")

// Settle is how long after a change another of the same thing from the same
// window counts as part of it, so that undo takes back the whole of what was
// being typed.
const Settle = 2 * time.Second

// How many changes of a box can be undone, and how many states are known to
// put late changes onto.
const (
	mostChanges = 200
	mostStates  = 50
)

// Save replaces a box's inputs, if it is still at the version the edit was
// made from; else it is ErrStale and nothing is done.
func (s *Store) Save(ctx context.Context, id int64, in design.Inputs, e Edit) error {
	in.NumberThings()
	return s.in(ctx, func(tx *sql.Tx) error {
		before, version, maker, err := s.present(ctx, tx, id)
		if err == nil && version != e.From {
			err = ErrStale
		}
		if err != nil {
			return err
		}
		now := s.now().UnixMilli()
		_, err = tx.ExecContext(ctx, `
			INSERT INTO changes (box_id, what, inputs, at, page, maker) SELECT ?1, ?2, ?6, ?3, ?5, ?7
			WHERE NOT EXISTS (
				SELECT 1 FROM changes c WHERE c.what = ?2 AND c.page = ?5 AND c.maker = ?7 AND ?5 <> '' AND c.at BETWEEN ?3 - ?4 AND ?3
				AND c.id = (SELECT max(id) FROM changes WHERE box_id = ?1))`,
			id, e.What, now, Settle.Milliseconds(), e.Page, before, max(0, s.who(ctx)))
		if err != nil {
			return err
		}
		if err := s.replace(ctx, tx, id, e.Page, string(in.Write())); err != nil {
			return err
		}
		if err := s.claim(ctx, tx, string(in.Write()), maker); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM undone WHERE box_id = ?`, id); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `
			DELETE FROM changes WHERE box_id = ?1 AND id <= (
				SELECT id FROM changes WHERE box_id = ?1 ORDER BY id DESC LIMIT 1 OFFSET ?2)`, id, mostChanges)
		return err
	})
}

// present gives a box's inputs, version and maker; ErrNotFound when it is gone.
func (s *Store) present(ctx context.Context, tx *sql.Tx, id int64) (inputs string, version, maker int64, err error) {
	err = tx.QueryRowContext(ctx, `SELECT inputs, version, maker FROM boxes WHERE id = ? AND deleted_at IS NULL`+s.seen(ctx, ""), id).Scan(&inputs, &version, &maker)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return inputs, version, maker, err
}

// replace puts other inputs in place of a box's.
func (s *Store) replace(ctx context.Context, tx *sql.Tx, id int64, page, inputs string) error {
	version, err := s.state(ctx, tx, "box", id, page, inputs)
	if err != nil {
		return err
	}
	return one(tx.ExecContext(ctx, `UPDATE boxes SET name = json_extract(?1, '$.name'), inputs = ?1, changed_at = ?2, version = ?3 WHERE id = ?4`,
		inputs, s.now().UnixMilli(), version, id))
}

// state notes a new state of a box or a job ("box" or "job") and gives its
// version; only the latest are known.
func (s *Store) state(ctx context.Context, tx *sql.Tx, of string, id int64, page, text string) (int64, error) {
	r, err := tx.ExecContext(ctx, fmt.Sprintf(`INSERT INTO versions (%s_id, page, state) VALUES (?, ?, ?)`, of), id, page, text)
	if err != nil {
		return 0, err
	}
	version, err := r.LastInsertId()
	if err != nil {
		return 0, err
	}
	if _, err := tx.ExecContext(ctx, fmt.Sprintf(`UPDATE %[1]s SET version = ?1 WHERE id = ?2 AND version = 0`, tables[of]), version, id); err != nil {
		return 0, err
	}
	_, err = tx.ExecContext(ctx, fmt.Sprintf(`
		DELETE FROM versions WHERE %[1]s_id = ?1 AND id <= (
			SELECT id FROM versions WHERE %[1]s_id = ?1 ORDER BY id DESC LIMIT 1 OFFSET ?2)`, of), id, mostStates)
	return version, err
}

var tables = map[string]string{"box": "boxes", "job": "jobs"}

// State gives a box's inputs as they were at a version. own tells that all
// that was changed since came from the same window. A version that is not
// known is ErrForgotten.
func (s *Store) State(ctx context.Context, id, version int64, page string) (in design.Inputs, own bool, err error) {
	text, own, err := s.stateOf(ctx, "box", id, version, page)
	if err != nil {
		return in, false, err
	}
	in, err = design.ReadKept([]byte(text))
	return in, own, err
}

func (s *Store) stateOf(ctx context.Context, of string, id, version int64, page string) (text string, own bool, err error) {
	err = s.db.QueryRowContext(ctx, fmt.Sprintf(`
		SELECT state, ?3 <> '' AND NOT EXISTS (SELECT 1 FROM versions WHERE %[1]s_id = ?1 AND id > ?2 AND page <> ?3)
		FROM versions WHERE %[1]s_id = ?1 AND id = ?2 AND %[1]s_id IN (SELECT o.id FROM %[2]s o WHERE 1%[3]s)`, of, tables[of], s.seen(ctx, "o.")), id, version, page).Scan(&text, &own)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrForgotten
	}
	return text, own, err
}

// Undo takes a box's last change back, if it is the one named; else it is
// ErrStale.
func (s *Store) Undo(ctx context.Context, id, change int64, page string) error {
	return s.swap(ctx, id, change, page, "changes", "undone")
}

// Redo brings back what was undone last, if it is the one named; else it is
// ErrStale.
func (s *Store) Redo(ctx context.Context, id, undone int64, page string) error {
	return s.swap(ctx, id, undone, page, "undone", "changes")
}

// swap puts the inputs that the last row of one table holds in place of the
// box's, which go to the other table under the same name.
func (s *Store) swap(ctx context.Context, id, row int64, page, from, to string) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		now, _, _, err := s.present(ctx, tx, id)
		if err != nil {
			return err
		}
		var last, maker int64
		var what, inputs string
		err = tx.QueryRowContext(ctx, fmt.Sprintf(`SELECT id, what, inputs, maker FROM %s WHERE box_id = ? ORDER BY id DESC LIMIT 1`, from), id).
			Scan(&last, &what, &inputs, &maker)
		if errors.Is(err, sql.ErrNoRows) || err == nil && last != row {
			return ErrStale
		}
		if err != nil {
			return err
		}
		if err := s.replace(ctx, tx, id, page, inputs); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, fmt.Sprintf(`INSERT INTO %s (box_id, what, inputs, at, maker) VALUES (?, ?, ?, ?, ?)`, to),
			id, what, now, s.now().UnixMilli(), maker); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, fmt.Sprintf(`DELETE FROM %s WHERE id = ?`, from), last)
		return err
	})
}
