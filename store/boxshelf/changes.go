package boxshelf

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"brevium/core/design"
	"brevium/store/desk"
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

// Settle is how long after a change another of the same thing from the same
// window counts as part of it, so that undo takes back the whole of what was
// being typed.
const Settle = 2 * time.Second

// Save replaces a box's inputs, if it is still at the version the edit was
// made from; else it is ErrStale and nothing is done.
func (d *Shelf) Save(ctx context.Context, id int64, in design.Inputs, e Edit) error {
	in.NumberThings()
	return d.at.In(ctx, func(tx *scope.Tx) error {
		before, err := d.present(ctx, tx, id)
		if err == nil && before.Version != e.From {
			err = desk.ErrStale
		}
		if err != nil {
			return err
		}
		now := d.at.Now().UnixMilli()
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
		if err := d.at.Claim(ctx, tx, string(in.Write()), before.Maker); err != nil {
			return err
		}
		if _, err := tx.Do(ctx, scope.Held.SQL(`DELETE FROM undone WHERE box_id = ?`), id); err != nil {
			return err
		}
		_, err = tx.Do(ctx, scope.Held.SQL(`
			DELETE FROM changes WHERE box_id = ?1 AND id <= (
				SELECT id FROM changes WHERE box_id = ?1 ORDER BY id DESC LIMIT 1 OFFSET ?2)`), id, desk.MostChanges)
		return err
	})
}

// kept is a box's text as it stands, for a change of it.
type kept struct {
	Inputs         string
	Version, Maker int64
}

// present gives a box that is seen and not deleted, or ErrNotFound.
func (d *Shelf) present(ctx context.Context, tx *scope.Tx, id int64) (b kept, err error) {
	err = tx.Get(ctx, &b, scope.Seen.SQL(`SELECT inputs, version, maker FROM boxes WHERE id = ? AND deleted_at IS NULL AND {whose}`), id)
	return b, desk.Found(err, desk.NoBox)
}

// replace puts other inputs in place of a box's.
func (d *Shelf) replace(ctx context.Context, tx *scope.Tx, id int64, page, inputs string) error {
	version, err := d.at.KeepState(ctx, tx, "box", id, page, inputs)
	if err != nil {
		return err
	}
	return desk.One(desk.NoBox)(tx.Do(ctx, scope.Held.SQL(`UPDATE boxes SET name = json_extract(?1, '$.name'), inputs = ?1, changed_at = ?2, version = ?3 WHERE id = ?4`),
		inputs, d.at.Now().UnixMilli(), version, id))
}

// State gives a box's inputs as they were at a version. own tells that all
// that was changed since came from the same window. A version that is not
// known is ErrForgotten.
func (d *Shelf) State(ctx context.Context, id, version int64, page string) (in design.Inputs, own bool, err error) {
	was, err := d.at.StateOf(ctx, desk.BoxSort, id, version, page)
	if err != nil {
		return in, false, err
	}
	in, err = design.ReadKept([]byte(was.State))
	return in, was.Own, err
}

// Undo takes a box's last change back, if it is the one named; else it is
// ErrStale.
func (d *Shelf) Undo(ctx context.Context, id, change int64, page string) error {
	return d.swap(ctx, id, change, page, "changes", "undone")
}

// Redo brings back what was undone last, if it is the one named; else it is
// ErrStale.
func (d *Shelf) Redo(ctx context.Context, id, undone int64, page string) error {
	return d.swap(ctx, id, undone, page, "undone", "changes")
}

// swap puts the inputs that the last row of one table holds in place of the
// box's, which go to the other table under the same name.
func (d *Shelf) swap(ctx context.Context, id, row int64, page, from, to string) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		now, err := d.present(ctx, tx, id)
		if err != nil {
			return err
		}
		var last struct {
			ID, Maker    int64
			What, Inputs string
		}
		err = tx.Get(ctx, &last, scope.Held.SQL(desk.Text(`SELECT id, what, inputs, maker FROM %s WHERE box_id = ? ORDER BY id DESC LIMIT 1`, from)), id)
		if errors.Is(err, sql.ErrNoRows) || err == nil && last.ID != row {
			return desk.ErrStale
		}
		if err != nil {
			return err
		}
		if err := d.replace(ctx, tx, id, page, last.Inputs); err != nil {
			return err
		}
		if _, err := tx.Do(ctx, scope.Held.SQL(desk.Text(`INSERT INTO %s (box_id, what, inputs, at, maker) VALUES (?, ?, ?, ?, ?)`, to)),
			id, last.What, now.Inputs, d.at.Now().UnixMilli(), last.Maker); err != nil {
			return err
		}
		_, err = tx.Do(ctx, scope.Held.SQL(desk.Text(`DELETE FROM %s WHERE id = ?`, from)), last.ID)
		return err
	})
}
