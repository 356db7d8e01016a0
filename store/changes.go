package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"brevium/core/design"
	"brevium/store/scope"
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
func (d *Desk) Save(ctx context.Context, id int64, in design.Inputs, e Edit) error {
	in.NumberThings()
	return d.at.In(ctx, func(tx *scope.Tx) error {
		before, err := d.present(ctx, tx, id)
		if err == nil && before.Version != e.From {
			err = ErrStale
		}
		if err != nil {
			return err
		}
		now := d.s.now().UnixMilli()
		_, err = tx.Do(ctx, scope.Held.SQL(`
			INSERT INTO changes (box_id, what, inputs, at, page, maker) SELECT ?1, ?2, ?6, ?3, ?5, {me}
			WHERE NOT EXISTS (
				SELECT 1 FROM changes c WHERE c.what = ?2 AND c.page = ?5 AND c.maker = {me} AND ?5 <> '' AND c.at BETWEEN ?3 - ?4 AND ?3
				AND c.id = (SELECT max(id) FROM changes WHERE box_id = ?1))`),
			id, e.What, now, Settle.Milliseconds(), e.Page, before.Inputs)
		if err != nil {
			return err
		}
		if err := d.replace(ctx, tx, id, e.Page, string(in.Write())); err != nil {
			return err
		}
		if err := d.claim(ctx, tx, string(in.Write()), before.Maker); err != nil {
			return err
		}
		if _, err := tx.Do(ctx, scope.Held.SQL(`DELETE FROM undone WHERE box_id = ?`), id); err != nil {
			return err
		}
		_, err = tx.Do(ctx, scope.Held.SQL(`
			DELETE FROM changes WHERE box_id = ?1 AND id <= (
				SELECT id FROM changes WHERE box_id = ?1 ORDER BY id DESC LIMIT 1 OFFSET ?2)`), id, mostChanges)
		return err
	})
}

// kept is a box's text as it stands, for a change of it.
type kept struct {
	Inputs         string
	Version, Maker int64
}

// present gives a box that is seen and not deleted, or ErrNotFound.
func (d *Desk) present(ctx context.Context, tx *scope.Tx, id int64) (b kept, err error) {
	err = tx.Get(ctx, &b, scope.Seen.SQL(`SELECT inputs, version, maker FROM boxes WHERE id = ? AND deleted_at IS NULL AND {whose}`), id)
	return b, found(err, noBox)
}

// replace puts other inputs in place of a box's.
func (d *Desk) replace(ctx context.Context, tx *scope.Tx, id int64, page, inputs string) error {
	version, err := d.state(ctx, tx, "box", id, page, inputs)
	if err != nil {
		return err
	}
	return one(noBox)(tx.Do(ctx, scope.Held.SQL(`UPDATE boxes SET name = json_extract(?1, '$.name'), inputs = ?1, changed_at = ?2, version = ?3 WHERE id = ?4`),
		inputs, d.s.now().UnixMilli(), version, id))
}

// state notes a new state of a box or a job ("box" or "job") and gives its
// version; only the latest are known.
func (d *Desk) state(ctx context.Context, tx *scope.Tx, of Sort, id int64, page, text string) (int64, error) {
	version, err := newRow(tx.Do(ctx, scope.Held.SQL(in(`INSERT INTO versions (%s_id, page, state) VALUES (?, ?, ?)`, of)), id, page, text))
	if err != nil {
		return 0, err
	}
	if _, err := tx.Do(ctx, scope.Held.SQL(in(`UPDATE %[1]s SET version = ?1 WHERE id = ?2 AND version = 0`, tableOf[of])), version, id); err != nil {
		return 0, err
	}
	_, err = tx.Do(ctx, scope.Held.SQL(in(`
		DELETE FROM versions WHERE %[1]s_id = ?1 AND id <= (
			SELECT id FROM versions WHERE %[1]s_id = ?1 ORDER BY id DESC LIMIT 1 OFFSET ?2)`, of)), id, mostStates)
	return version, err
}

// State gives a box's inputs as they were at a version. own tells that all
// that was changed since came from the same window. A version that is not
// known is ErrForgotten.
func (d *Desk) State(ctx context.Context, id, version int64, page string) (in design.Inputs, own bool, err error) {
	was, err := d.stateOf(ctx, BoxSort, id, version, page)
	if err != nil {
		return in, false, err
	}
	in, err = design.ReadKept([]byte(was.State))
	return in, was.Own, err
}

// stateWas is a state of a box or a job, and whether all since came from one window.
type stateWas struct {
	State string
	Own   bool
}

func (d *Desk) stateOf(ctx context.Context, of Sort, id, version int64, page string) (was stateWas, err error) {
	err = d.at.Get(ctx, &was, scope.Seen.SQL(in(`
		SELECT state, ?3 <> '' AND NOT EXISTS (SELECT 1 FROM versions WHERE %[1]s_id = ?1 AND id > ?2 AND page <> ?3) AS own
		FROM versions WHERE %[1]s_id = ?1 AND id = ?2 AND %[1]s_id IN (SELECT o.id FROM %[2]s o WHERE {whose o.})`, of, tableOf[of])), id, version, page)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrForgotten
	}
	return was, err
}

// Undo takes a box's last change back, if it is the one named; else it is
// ErrStale.
func (d *Desk) Undo(ctx context.Context, id, change int64, page string) error {
	return d.swap(ctx, id, change, page, "changes", "undone")
}

// Redo brings back what was undone last, if it is the one named; else it is
// ErrStale.
func (d *Desk) Redo(ctx context.Context, id, undone int64, page string) error {
	return d.swap(ctx, id, undone, page, "undone", "changes")
}

// swap puts the inputs that the last row of one table holds in place of the
// box's, which go to the other table under the same name.
func (d *Desk) swap(ctx context.Context, id, row int64, page, from, to string) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		now, err := d.present(ctx, tx, id)
		if err != nil {
			return err
		}
		var last struct {
			ID, Maker    int64
			What, Inputs string
		}
		err = tx.Get(ctx, &last, scope.Held.SQL(in(`SELECT id, what, inputs, maker FROM %s WHERE box_id = ? ORDER BY id DESC LIMIT 1`, from)), id)
		if errors.Is(err, sql.ErrNoRows) || err == nil && last.ID != row {
			return ErrStale
		}
		if err != nil {
			return err
		}
		if err := d.replace(ctx, tx, id, page, last.Inputs); err != nil {
			return err
		}
		if _, err := tx.Do(ctx, scope.Held.SQL(in(`INSERT INTO %s (box_id, what, inputs, at, maker) VALUES (?, ?, ?, ?, ?)`, to)),
			id, last.What, now.Inputs, d.s.now().UnixMilli(), last.Maker); err != nil {
			return err
		}
		_, err = tx.Do(ctx, scope.Held.SQL(in(`DELETE FROM %s WHERE id = ?`, from)), last.ID)
		return err
	})
}
