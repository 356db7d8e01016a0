package roster

import (
	"context"
	"database/sql"

	"brevium/store/desk"
	"brevium/store/scope"
)

// Adopt gives what is of nobody who is known here to the first steward, if there is one.
func Adopt(ctx context.Context, tx *scope.Tx) error {
	var steward sql.NullInt64
	if err := tx.Get(ctx, &steward, scope.Workshop.SQL(`SELECT min(id) FROM people WHERE role = 'steward' AND struck = 0`)); err != nil || !steward.Valid {
		return err
	}
	if _, err := tx.Do(ctx, scope.Workshop.SQL(`INSERT OR IGNORE INTO photo_makers (photo, maker) SELECT id, ? FROM photos WHERE id NOT IN (SELECT photo FROM photo_makers)`), steward.Int64); err != nil {
		return err
	}
	return Give(ctx, tx, `maker NOT IN (SELECT id FROM people)`, steward.Int64)
}

// Give makes rows, of which a condition is true, a person's. Of a thing that they keep
// already nothing is given.
func Give(ctx context.Context, tx *scope.Tx, which string, to int64) error {
	for _, table := range []string{"boxes", "jobs", "notes", "things", "photo_makers"} {
		if _, err := tx.Do(ctx, scope.Workshop.SQL(desk.Text(`UPDATE OR IGNORE %s SET maker = ? WHERE %s`, table, which)), to); err != nil {
			return err
		}
	}
	return nil
}
