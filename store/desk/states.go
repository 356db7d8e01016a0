package desk

import (
	"context"
	"database/sql"
	"errors"

	"brevium/store/scope"
)

// ErrStale means that the box was changed since the version a change was made
// from; nothing was done.
var ErrStale = errors.New("this was changed meanwhile")

// ErrForgotten means that a version is too old to be known still.
var ErrForgotten = errors.New("this version is not known any more")

// How many changes of a box can be undone, and how many states are known to
// put late changes onto.
const (
	MostChanges = 200
	MostStates  = 50
)

// KeepState notes a new state of a box or a job ("box" or "job") and gives its
// version; only the latest are known.
func (d Desk) KeepState(ctx context.Context, tx *scope.Tx, of Sort, id int64, page, text string) (int64, error) {
	version, err := NewRow(tx.Do(ctx, scope.Held.SQL(Text(`INSERT INTO versions (%s_id, page, state) VALUES (?, ?, ?)`, of)), id, page, text))
	if err != nil {
		return 0, err
	}
	if _, err := tx.Do(ctx, scope.Held.SQL(Text(`UPDATE %[1]s SET version = ?1 WHERE id = ?2 AND version = 0`, TableOf[of])), version, id); err != nil {
		return 0, err
	}
	_, err = tx.Do(ctx, scope.Held.SQL(Text(`
		DELETE FROM versions WHERE %[1]s_id = ?1 AND id <= (
			SELECT id FROM versions WHERE %[1]s_id = ?1 ORDER BY id DESC LIMIT 1 OFFSET ?2)`, of)), id, MostStates)
	return version, err
}

// stateWas is a state of a box or a job, and whether all since came from one window.
type stateWas struct {
	State string
	Own   bool
}

// StateOf is the state of a box or a job at a version; one that is not known any more is
// ErrForgotten.
func (d Desk) StateOf(ctx context.Context, of Sort, id, version int64, page string) (was stateWas, err error) {
	err = d.Get(ctx, &was, scope.Seen.SQL(Text(`
		SELECT state, ?3 <> '' AND NOT EXISTS (SELECT 1 FROM versions WHERE %[1]s_id = ?1 AND id > ?2 AND page <> ?3) AS own
		FROM versions WHERE %[1]s_id = ?1 AND id = ?2 AND %[1]s_id IN (SELECT o.id FROM %[2]s o WHERE {whose o.})`, of, TableOf[of])), id, version, page)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrForgotten
	}
	return was, err
}
