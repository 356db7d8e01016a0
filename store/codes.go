package store

import (
	"context"
	"database/sql"

	"brevium/core/people"
	"brevium/store/boxshelf"
)

// markLinks leaves of links that were kept in plain the marks.
func markLinks(ctx context.Context, tx *sql.Tx) error {
	plain := map[int64]string{}
	err := each(ctx, tx, `SELECT id, link FROM boxes WHERE link <> '' AND link_mark IS NULL`, func(r *sql.Rows) error {
		var id int64
		var code string
		err := r.Scan(&id, &code)
		plain[id] = code
		return err
	})
	if err != nil {
		return err
	}
	for id, code := range plain {
		if _, err := tx.ExecContext(ctx, `UPDATE boxes SET link = ?, link_mark = ? WHERE id = ?`, boxshelf.Unshown, people.MarkOf(code), id); err != nil {
			return err
		}
	}
	return nil
}

// each reads every row of a query of a file that is no desk's yet: one whose tables are
// brought up to date, or a copy that is readied.
func each(ctx context.Context, tx *sql.Tx, query string, scan func(*sql.Rows) error) error {
	rows, err := tx.QueryContext(ctx, query)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		if err := scan(rows); err != nil {
			return err
		}
	}
	return rows.Err()
}
